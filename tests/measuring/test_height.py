"""Heights against made-up trees whose height is known: look at them, then get it back."""

from __future__ import annotations

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from plain_compass.core.base.errors import InputError
from plain_compass.core.measuring.estimate import Estimate, Reading, averaged, propagated
from plain_compass.core.measuring.height import (
    Sighting,
    cut_height_for_room_m,
    height_by_clinometer,
    height_by_shadow,
    height_by_stick,
    leaning_top,
    paced_distance,
)

EXACT = 0.0


def exact(value: float) -> Reading:
    return Reading(value, EXACT)


def degrees(up: float, along: float) -> Reading:
    return exact(math.degrees(math.atan2(up, along)))


@given(
    height=st.floats(4.0, 60.0), distance=st.floats(6.0, 60.0), eye=st.floats(1.2, 1.9), slope=st.floats(-25.0, 25.0)
)
def test_a_clinometer_gets_the_height_back_on_any_slope(
    height: float, distance: float, eye: float, slope: float
) -> None:
    """Stand ``distance`` along the slope from the stem; the base lies up or down by its sine."""
    level, rise = distance * math.cos(math.radians(slope)), distance * math.sin(math.radians(slope))
    base, top = degrees(rise - eye, level), degrees(rise - eye + height, level)
    assume(abs(top.value) < 85.0)
    found = height_by_clinometer(exact(distance), top, base, exact(slope))
    assert found.value == pytest.approx(height, rel=1e-9)


@given(height=st.floats(4.0, 60.0), reach=st.floats(0.4, 0.8), stick=st.floats(0.2, 1.5))
def test_a_stick_gets_the_height_back(height: float, reach: float, stick: float) -> None:
    found = height_by_stick(exact(height * reach / stick), exact(stick), exact(reach))
    assert found.value == pytest.approx(height)


def test_with_a_stick_as_long_as_the_reach_the_height_is_the_distance() -> None:
    assert height_by_stick(exact(18.0), exact(0.6), exact(0.6)).value == pytest.approx(18.0)


@given(height=st.floats(4.0, 60.0), sun=st.floats(10.0, 80.0))
def test_a_shadow_gets_the_height_back_whatever_the_sun(height: float, sun: float) -> None:
    per_metre = 1 / math.tan(math.radians(sun))
    found = height_by_shadow(exact(height * per_metre), exact(1.5), exact(1.5 * per_metre))
    assert found.value == pytest.approx(height)


def test_paces_carry_their_own_spread() -> None:
    assert paced_distance(28, 0.75, 0.05) == Reading(pytest.approx(21.0), pytest.approx(1.05))  # type: ignore[arg-type]


@given(
    height=st.floats(8.0, 40.0),
    first=st.floats(15.0, 50.0),
    second=st.floats(15.0, 50.0),
    toward_first=st.floats(-5.0, 5.0),
    toward_second=st.floats(-5.0, 5.0),
    eye=st.floats(1.3, 1.8),
)
def test_two_sightings_at_right_angles_undo_the_error_of_a_leaning_tree(
    height: float, first: float, second: float, toward_first: float, toward_second: float, eye: float
) -> None:
    def sighting(distance: float, toward: float, aside: float) -> Sighting:
        return Sighting(
            exact(distance),
            degrees(height - eye, distance - toward),
            degrees(-eye, distance),
            degrees(aside, distance - toward),
        )

    found = leaning_top(sighting(first, toward_first, toward_second), sighting(second, toward_second, toward_first))
    assert found.height_m.value == pytest.approx(height, rel=1e-6)
    assert found.toward_first_m.value == pytest.approx(toward_first, abs=1e-6)
    assert found.toward_second_m.value == pytest.approx(toward_second, abs=1e-6)


def test_one_sighting_of_a_tree_leaning_at_the_eye_makes_it_too_high() -> None:
    """20 m high, its top 4 m nearer: one clinometer reading calls it 23.5 m."""
    top, base = degrees(20.0 - 1.6, 25.0 - 4.0), degrees(-1.6, 25.0)
    assert height_by_clinometer(exact(25.0), top, base, exact(0.0)).value == pytest.approx(23.5, abs=0.1)


def test_the_spread_of_a_clinometer_height_is_its_derivative() -> None:
    """dH/d(top) = d / cos^2(top), by hand."""
    found = height_by_clinometer(Reading(20.0, 0.0), Reading(40.0, 0.5), Reading(-4.0, 0.0), Reading(0.0, 0.0))
    by_hand = 20.0 / math.cos(math.radians(40.0)) ** 2 * math.radians(0.5)
    assert found.spread == pytest.approx(by_hand, rel=1e-6)
    assert found.driver == "top"


def test_the_worst_measured_input_is_named() -> None:
    found = height_by_clinometer(Reading(20.0, 1.0), Reading(40.0, 0.25), Reading(-4.0, 0.25), Reading(0.0, 0.5))
    assert found.driver == "distance"
    assert sum(share for _, share in found.shares) == pytest.approx(1.0)


@given(a=st.floats(0.5, 5.0), b=st.floats(0.5, 5.0), sa=st.floats(0.0, 0.2), sb=st.floats(0.0, 0.2))
def test_relative_spreads_of_a_product_add_in_squares(a: float, b: float, sa: float, sb: float) -> None:
    found = propagated(lambda a, b: a * b, {"a": Reading(a, sa), "b": Reading(b, sb)})
    assert found.spread == pytest.approx(a * b * math.hypot(sa / a, sb / b), rel=1e-5, abs=1e-9)


@pytest.mark.parametrize(
    ("top", "base", "distance", "field"),
    [(89.0, -4.0, 20.0, "top"), (-10.0, -4.0, 20.0, "top"), (40.0, -4.0, 0.0, "distance"), (math.nan, 0.0, 20.0, "top"),
     (40.0, -4.0, math.inf, "distance")],
)  # fmt: skip
def test_readings_that_make_no_sense_are_refused_by_name(top: float, base: float, distance: float, field: str) -> None:
    with pytest.raises(InputError) as caught:
        height_by_clinometer(exact(distance), exact(top), exact(base), exact(0.0))
    assert caught.value.field == field


def test_readings_are_averaged_by_how_well_they_are_known() -> None:
    found = averaged((Reading(18.0, 0.2), Reading(19.0, 0.4)))
    assert found.estimate.value == pytest.approx((18.0 / 0.04 + 19.0 / 0.16) / (1 / 0.04 + 1 / 0.16))
    assert found.outliers == ()


def test_a_reading_far_off_the_others_is_left_out_and_shown() -> None:
    found = averaged((Reading(18.0, 0.3), Reading(18.2, 0.3), Reading(17.9, 0.3), Reading(26.0, 0.3)))
    assert found.outliers == (3,)
    assert found.estimate.value == pytest.approx(18.03, abs=0.01)


def test_readings_that_disagree_have_a_wider_mean_than_their_own_spreads_say() -> None:
    near, far = (averaged((Reading(18.0, 0.1), Reading(18.0 + gap, 0.1))) for gap in (0.0, 1.0))
    assert near.estimate.spread == pytest.approx(0.1 / math.sqrt(2))
    assert far.estimate.spread > 3 * near.estimate.spread


def test_exact_readings_rule_and_none_is_refused() -> None:
    assert averaged((Reading(18.0, 0.0), Reading(25.0, 1.0))).estimate == Estimate(18.0, 0.0)
    with pytest.raises(InputError, match="nothing to average"):
        averaged(())


@given(values=st.lists(st.floats(10.0, 30.0), min_size=1, max_size=9))
def test_an_average_lies_among_its_readings(values: list[float]) -> None:
    found = averaged(tuple(Reading(v, 0.3) for v in values)).estimate.value
    assert min(values) - 1e-9 <= found <= max(values) + 1e-9


def test_the_cut_is_raised_until_the_top_fits() -> None:
    assert cut_height_for_room_m(18.0, 16.5) == pytest.approx(1.5)
    assert cut_height_for_room_m(18.0, 25.0) == 0.0
