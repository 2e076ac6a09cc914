"""What ends a fall, by bearing: the ground, the neighbours, the reach of what may be hit; and one fall in time."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import case
from plain_compass.core.assess import assess
from plain_compass.core.base.paths import with_value
from plain_compass.core.fall.ends import CATCH_REACH_DEG, catches_round, ends_of, reach_round
from plain_compass.core.fall.nominal import nominal_fall
from plain_compass.core.fall.reckon import rod_of, shutting_pull
from plain_compass.core.fall.trace import UPRIGHT, Pose
from plain_compass.core.plan.reach import lying
from plain_compass.core.site.hang_up import Faller, catches_on
from plain_compass.core.site.landing import hits_by_bearing, sampled
from plain_compass.core.site.site import Obstacle, Place, Site

HERE = Place()


def spot(east: float, north: float, radius: float = 1.0, kind: str = "rock", height: float = 1.0) -> Obstacle:
    return Obstacle(kind, "", "nuisance", "spot", (Place(east, north),), radius, height, 2.0, "no")


# The ground ------------------------------------------------------------------------------------------------


def test_level_ground_ends_every_fall_a_little_past_level_since_the_hinge_stands_above_it() -> None:
    ends = ends_of(Site(), HERE, 15.0, 0.3)
    assert np.ptp(ends.tilt_rad) == 0
    assert ends.tilt_rad[0] == pytest.approx(math.pi / 2 + math.asin(0.3 / 14.7))


@given(st.floats(2.0, 25.0), st.floats(0.0, 360.0))
def test_on_a_slope_falls_end_sooner_uphill_and_later_downhill_by_the_slope(slope: float, downhill: float) -> None:
    ends = ends_of(Site(slope_deg=slope, downhill_deg=downhill), HERE, 15.0, 0.02)
    down, up = (math.degrees(float(ends.at(np.array([b]))[0])) for b in (downhill, downhill + 180.0))
    assert down == pytest.approx(90 + slope, abs=0.7)
    assert up == pytest.approx(90 - slope, abs=0.7)


def test_a_bank_ends_only_the_falls_that_cross_it() -> None:
    bank = Obstacle("bank", "", "nuisance", "line", (Place(-3.0, 8.0), Place(3.0, 8.0)), 0.8, 2.0)
    ends = ends_of(Site(obstacles=(bank,)), HERE, 15.0, 0.3)
    north, south = np.degrees(ends.at(np.array([0.0, 180.0])))
    assert north < 83 < 90 < south


# What may be hit or hold the tree --------------------------------------------------------------------------


@given(st.floats(-12.0, 12.0), st.floats(-12.0, 12.0), st.floats(0.3, 2.0))
def test_reach_says_the_same_as_the_footprint_of_the_landing(east: float, north: float, radius: float) -> None:
    site = Site(obstacles=(spot(east, north, radius),))
    print_ = replace(lying(case()), spread_deg=0.0)
    reach = reach_round(site, HERE, print_)[:, 0] <= print_.length_m
    footprint = hits_by_bearing(sampled(site, HERE), print_, np.arange(360.0), 1)[:, 0]
    # The footprint also counts what lies just behind the stump.
    assert not (reach & ~footprint).any()
    ahead = np.cos(np.radians(np.arange(360.0) - math.degrees(math.atan2(east, north)))) > 0.2
    assert (reach == footprint)[ahead].all()


def test_catches_by_bearing_are_those_of_each_bearing() -> None:
    whole = case()
    mass = assess(whole).parts.mass
    faller = Faller(mass.weight_N, mass.com_up_m, mass.com_forward_m, 0.3, False)
    site, print_ = Site(obstacles=(spot(2.0, 9.0, 2.5, "tree", 13.0),)), lying(whole)
    found = catches_round(site, HERE, print_, 10.0, faller, 1200.0)
    for bearing in (-30.0, 0.0, 10.0, 14.0, 50.0):
        (row,) = found.at(np.array([bearing])).tolist()
        single = catches_on(site, HERE, print_, float(found.bearings_deg[row]), faller, 1200.0)
        assert (found.which[row] >= 0) == bool(single)
        if single and not single[0].on_stem:
            assert found.use[row] == pytest.approx(single[0].use)
    assert found.at(np.array([10.0 + CATCH_REACH_DEG + 30, 10.0 - CATCH_REACH_DEG - 30])).tolist() == [50, 0]


# One fall --------------------------------------------------------------------------------------------------


def test_the_trace_passes_every_tilt_in_its_time_and_the_pose_between_frames_lies_between_them() -> None:
    fall = nominal_fall(assess(case()))
    trace = fall.trace
    assert (np.diff(trace.whole_rad) >= -1e-9).all()
    for tilt in (20.0, 45.0, 80.0):
        pose = trace.pose_at(trace.time_at(math.radians(tilt)))
        assert math.degrees(pose.whole_rad) == pytest.approx(tilt, abs=0.05)
    assert trace.hinge_holds[0] == 1.0 and trace.hinge_holds[-1] == 0.0
    assert trace.time_at(10.0) == fall.time_s


def test_a_pose_turned_aside_leans_by_both_its_angles() -> None:
    assert UPRIGHT.whole_rad == 0
    assert Pose(0.0, 0.3, 0.0, 0.0).whole_rad == pytest.approx(0.3)
    assert Pose(math.pi / 2, 0.3, 0.0, 0.0).whole_rad == pytest.approx(math.pi / 2)


@given(st.floats(0.01, 0.1), st.floats(0.01, 0.1))
def test_the_shutting_pull_goes_to_the_thicker_end_and_turns_with_it(left: float, right: float) -> None:
    assert shutting_pull(left, right, 0.06) == pytest.approx(-shutting_pull(right, left, 0.06))
    assert shutting_pull(left, right, 0.06) * (left - right) >= 0


def test_a_wind_that_follows_carries_the_fall_and_one_across_pushes_it_aside() -> None:
    still = case()
    windy = replace(still, site=Site(wind_m_s=6.0, wind_from_deg=180.0))
    assert rod_of(assess(windy)).wind_forward_Nm[0] > 0
    aside = nominal_fall(assess(replace(still, site=Site(wind_m_s=6.0, wind_from_deg=90.0))))
    # From the right it blows to the left.
    assert aside.bearing_error_deg > 0.05
    assert rod_of(assess(with_value(windy, "site.wind_from_deg", 0.0))).wind_forward_Nm[0] < 0


def test_a_roof_under_the_lay_is_met_before_the_ground_and_one_beside_it_is_not() -> None:
    hut = Obstacle("roof", "hut", "never", "area", (Place(-2.0, 8.0), Place(2.0, 8.0), Place(2.0, 11.0)), 0.1, 4.0)
    below = nominal_fall(assess(replace(case(), site=Site(obstacles=(hut,)))))
    assert below.first_contact == "obstacle: hut"
    aside = nominal_fall(assess(with_value(replace(case(), site=Site(obstacles=(hut,))), "cut.lay_deg", 120.0)))
    assert aside.first_contact.startswith("ground")
