"""A standing stem cut high above the ground: its own section and weight, who may do it, and how far the top reaches."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import assessed, case, finding, finding_ids, plain_cut, round_tree, told
from plain_compass.core.assess import Assessment, assess
from plain_compass.core.base.errors import InputError
from plain_compass.core.fall.fan import fan_of
from plain_compass.core.fall.nominal import nominal_fall
from plain_compass.core.mechanics.mass import mass_above
from plain_compass.core.site.landing import flies_m, footprint_of
from plain_compass.job.tables import indicative, wood_of

STILL = {"aim_deg": 0.0, "hinge_m": 0.0, "hinge_share": 0.0, "wind": 0.0}


def aloft(height_m: float, **changes: object) -> Assessment:
    """An oak of 15 m cut at a height, face and hinge in proportion to what is left of it there."""
    tree = round_tree(trunk__butt_diameter_m=None)
    share = (
        assessed(
            tree, plain_cut(height_m=height_m, face__depth_m=0.01, hinge__left_m=0.01, hinge__right_m=0.01)
        ).parts.section.diameter_m
        / 0.4
    )
    thin = 0.04 * share
    cut = plain_cut(height_m=height_m, face__depth_m=0.08 * share, hinge__left_m=thin, hinge__right_m=thin, **changes)
    return assess(case(tree, cut))


def kg(height_m: float) -> float:
    return mass_above(round_tree(), wood_of("oak"), (height_m, 0.0), indicative()).mass_kg


def test_a_cut_may_stand_as_high_as_nine_tenths_of_the_tree() -> None:
    assert aloft(13.4).parts.section.diameter_m < 0.08
    with pytest.raises(InputError, match="nothing worth cutting"):
        assessed(cut=plain_cut(height_m=13.6))


@given(low=st.floats(0.3, 13.0), more=st.floats(0.05, 0.5))
def test_the_higher_the_cut_the_less_stands_above_it_and_without_a_step(low: float, more: float) -> None:
    """Below the crown the stem alone is lost; inside it the crown thins upwards. The crown begins at 5 m."""
    assert kg(low + more) < kg(low)
    assert kg(low) - kg(low + 0.001) < 0.005 * kg(0.3)


def test_a_crown_is_not_lighter_for_being_cut_off_higher_up() -> None:
    def crown(height_m: float) -> float:
        return mass_above(round_tree(), wood_of("oak"), (height_m, 0.0), indicative()).crown_mass_kg

    assert crown(4.9) == pytest.approx(crown(1.4), rel=1e-9)
    assert crown(10.0) == pytest.approx(crown(4.9) * 0.5**1.5, rel=1e-6)


def test_what_is_left_of_the_crown_has_its_centre_where_the_whole_one_has_it() -> None:
    """Four tenths of what is left of it, of a broad crown."""
    whole, half = (aloft(at).parts.mass for at in (4.0, 10.0))
    assert 0.3 * 5.0 < half.com_up_m < 0.45 * 5.0
    assert whole.com_up_m > half.com_up_m


def test_it_is_a_stop_until_the_statement_is_read_and_to_watch_after() -> None:
    unread, read = aloft(8.0), aloft(8.0, aloft="read")
    assert finding(unread, "cut.aloft").level == "stop" and finding(read, "cut.aloft").level == "watch"
    assert "trained to climb" in told(finding(unread, "cut.aloft").change)
    assert "cut.aloft" not in finding_ids(aloft(3.0))


def test_what_is_not_reckoned_of_a_falling_top_is_said_as_a_fact() -> None:
    result = aloft(8.0)
    assert finding(result, "landing.aloft").kind == "fact"
    assert "landing.break" not in finding_ids(result)


def test_the_top_reaches_past_its_own_length_and_the_ground_is_kept_clear_so_far() -> None:
    result = aloft(8.0)
    reach = 15.0 - 8.0 + 0.4 * (8.0 - 3.0)
    fall = nominal_fall(result)
    assert math.hypot(fall.top_east_m, fall.top_north_m) == pytest.approx(reach)
    assert footprint_of(result.case.tree, 8.0, 2.0).length_m == pytest.approx(reach)
    fan = fan_of(result, {}, STILL, 32, 1)
    assert fan.landings.reach_m == pytest.approx(np.full(32, reach))
    assert fan.breaks.share == 0.0
    assert fall.butt == "comes down"


@given(st.floats(0.02, 30.0))
def test_the_reach_grows_with_the_height_without_a_step_where_work_aloft_begins(cut_m: float) -> None:
    assert flies_m(cut_m) >= 0.0
    assert flies_m(cut_m + 0.01) - flies_m(cut_m) <= 0.0041
    assert flies_m(3.0) == 0.0
