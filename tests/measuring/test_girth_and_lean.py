"""Girth, bark and lean: round trips, and leans put together from two faces."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from plain_compass.core.base.errors import InputError
from plain_compass.core.measuring.estimate import Reading
from plain_compass.core.measuring.girth import (
    diameter_from_girth,
    ellipse_girth_m,
    girth_from_diameter,
    mean_diameter,
    under_bark,
)
from plain_compass.core.measuring.lean import EyeClass, lean_by_eye, lean_by_faces, lean_by_plumb, sweep_from_middle_m


@given(girth=st.floats(0.1, 12.0), spread=st.floats(0.0, 0.1))
def test_girth_and_diameter_go_there_and_back(girth: float, spread: float) -> None:
    diameter = diameter_from_girth(Reading(girth, spread))
    back = girth_from_diameter(Reading(diameter.value, diameter.spread))
    assert (back.value, back.spread) == (pytest.approx(girth), pytest.approx(spread, abs=1e-9))


def test_bark_comes_off_on_both_sides_and_its_spread_counts_twice() -> None:
    found = under_bark(Reading(0.52, 0.005), Reading(0.01, 0.003))
    assert found.value == pytest.approx(0.50)
    assert found.spread == pytest.approx(math.hypot(0.005, 0.006), rel=1e-6)
    with pytest.raises(InputError):
        under_bark(Reading(0.10, 0.0), Reading(0.06, 0.0))


def test_two_diameters_make_the_circle_of_the_same_area() -> None:
    assert mean_diameter(Reading(0.4, 0), Reading(0.9, 0)).value == pytest.approx(0.6)
    assert ellipse_girth_m(0.5, 0.5) == pytest.approx(math.pi * 0.5)
    assert ellipse_girth_m(0.4, 0.6) > math.pi * math.sqrt(0.4 * 0.6)


@pytest.mark.parametrize("value", [0.0, -1.0, math.nan, math.inf])
def test_a_stem_of_no_size_is_refused(value: float) -> None:
    for call in (diameter_from_girth, girth_from_diameter):
        with pytest.raises(InputError, match="greater than nothing"):
            call(Reading(value, 0.0))


@given(lean=st.floats(0.0, 40.0), drop=st.floats(0.5, 4.0), bearing=st.floats(0.0, 359.9))
def test_a_plumb_line_gets_the_lean_back(lean: float, drop: float, bearing: float) -> None:
    offset = drop * math.tan(math.radians(lean))
    found = lean_by_plumb(Reading(offset, 0.01), Reading(drop, 0.01), Reading(bearing, 5.0))
    assert found.angle_deg.value == pytest.approx(lean, abs=1e-9)
    assert found.bearing_deg.value == pytest.approx(bearing)
    assert found.top_offset_m(10.0) == pytest.approx(10.0 * math.tan(math.radians(lean)))


@given(lean=st.floats(0.5, 45.0), towards=st.floats(0.0, 359.9), first=st.floats(0.0, 359.9))
def test_two_faces_get_any_lean_back_from_any_pair_of_bearings(lean: float, towards: float, first: float) -> None:
    turn = math.radians(towards - first)
    slope = math.tan(math.radians(lean))
    faces = [Reading(math.degrees(math.atan(slope * part)), 0.5) for part in (math.cos(turn), math.sin(turn))]
    found = lean_by_faces(faces[0], faces[1], first)
    assert found.angle_deg.value == pytest.approx(lean, abs=1e-6)
    assert math.remainder(found.bearing_deg.value - towards, 360.0) == pytest.approx(0.0, abs=1e-5)


@given(first=st.floats(-20.0, 20.0), second=st.floats(-20.0, 20.0))
def test_a_mirror_turns_the_bearing_round_the_first_face(first: float, second: float) -> None:
    one = lean_by_faces(Reading(first, 0.5), Reading(second, 0.5), 0.0)
    other = lean_by_faces(Reading(first, 0.5), Reading(-second, 0.5), 0.0)
    assert other.angle_deg.value == pytest.approx(one.angle_deg.value)
    assert math.remainder(other.bearing_deg.value + one.bearing_deg.value, 360.0) == pytest.approx(0.0, abs=1e-6)


def test_the_bearing_of_a_small_lean_is_hardly_known() -> None:
    small = lean_by_faces(Reading(0.3, 0.5), Reading(0.0, 0.5), 90.0).bearing_deg.spread
    large = lean_by_faces(Reading(10.0, 0.5), Reading(0.0, 0.5), 90.0).bearing_deg.spread
    none = lean_by_faces(Reading(0.0, 0.5), Reading(0.0, 0.5), 90.0).bearing_deg.spread
    assert large == pytest.approx(math.degrees(math.radians(0.5) / math.tan(math.radians(10.0))), rel=0.01)
    assert large < small < none == 180.0


def test_a_lean_by_eye_has_the_spread_of_its_class() -> None:
    found = lean_by_eye(EyeClass("marked", 7.0, 3.0), Reading(400.0, 15.0))
    assert (found.angle_deg.value, found.angle_deg.spread, found.angle_deg.driver) == (7.0, 3.0, "eye")
    assert found.bearing_deg.value == 40.0


def test_the_top_bows_out_four_times_as_far_as_the_middle() -> None:
    found = sweep_from_middle_m(Reading(0.25, 0.05))
    assert (found.value, found.spread) == (pytest.approx(1.0), pytest.approx(0.2))


@pytest.mark.parametrize(("offset", "drop", "field"), [(0.1, 0.0, "drop"), (-0.1, 2.0, "offset")])
def test_a_plumb_line_that_makes_no_sense_is_refused(offset: float, drop: float, field: str) -> None:
    with pytest.raises(InputError) as caught:
        lean_by_plumb(Reading(offset, 0.01), Reading(drop, 0.01), Reading(0.0, 5.0))
    assert caught.value.field == field
