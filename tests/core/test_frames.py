"""One account of angles: every wrap of a bearing and every turn between world and tree."""

from __future__ import annotations

import math
import re
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

import plain_compass
from plain_compass.core.base.frames import bearing_of, full_turn_deg, half_turn_deg, rotated, to_tree

PACKAGE = Path(plain_compass.__file__).parent
angles = st.floats(-2000.0, 2000.0)


@given(angles)
def test_a_full_turn_and_a_half_turn_are_the_same_direction(angle: float) -> None:
    full, half = full_turn_deg(angle), half_turn_deg(angle)
    assert 0.0 <= full <= 360.0
    assert -180.0 <= half <= 180.0
    assert math.cos(math.radians(full)) == pytest.approx(math.cos(math.radians(angle)), abs=1e-9)
    assert math.sin(math.radians(half)) == pytest.approx(math.sin(math.radians(angle)), abs=1e-9)


def test_whole_degrees_stay_whole_and_arrays_are_turned_at_once() -> None:
    assert full_turn_deg(370) == 10 and isinstance(full_turn_deg(370), int)
    assert half_turn_deg(np.array([190.0, -190.0, 0.0])).tolist() == [-170.0, 170.0, 0.0]


@pytest.mark.parametrize(("east", "north", "bearing"), [(0, 1, 0), (1, 0, 90), (0, -1, 180), (-1, 0, -90), (1, 1, 45)])
def test_bearings_go_clockwise_from_north(east: float, north: float, bearing: float) -> None:
    assert bearing_of(east, north) == pytest.approx(bearing)


@given(angles, st.floats(0.1, 50.0), angles)
def test_turning_lay_and_bearing_together_changes_nothing_in_the_tree(bearing: float, away: float, lay: float) -> None:
    assert to_tree(bearing + 30.0, away, lay + 30.0) == pytest.approx(to_tree(bearing, away, lay), abs=1e-6)
    ((forward, left),) = rotated(np.array([[away, 0.0]]), bearing, lay)
    assert (forward, left) == pytest.approx(to_tree(bearing, away, lay), abs=1e-6)


def test_to_the_right_of_the_lay_is_negative() -> None:
    assert to_tree(90.0, 2.0, 0.0) == pytest.approx((0.0, -2.0), abs=1e-12)


def test_nobody_else_wraps_an_angle() -> None:
    wraps = re.compile(r"% ?360|mod\([^\n]*360|remainder\([^\n]*360")
    found = [p for p in PACKAGE.rglob("*.py") if p.name != "frames.py" and wraps.search(p.read_text())]
    assert not found
