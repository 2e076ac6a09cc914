"""Wind on the crown: its force, its limits, and what it takes of the plan."""

from __future__ import annotations

import math
from dataclasses import astuple, replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import batch, case, finding, round_tree
from plain_compass.core.assess import Assessment, assess
from plain_compass.core.mechanics.hinge import HingeStrength
from plain_compass.core.site.site import Site
from plain_compass.core.site.wind import drag_coefficient, silhouette_m2, speed_for_force_m_s, wind_force_N
from plain_compass.job.typed import TypedError, parse
from plain_compass.job.units import shown


def blown(speed: float | None, bearing: float, **tree: object) -> Assessment:
    whole = case(round_tree(**tree))
    return assess(replace(whole, site=Site(wind_m_s=speed, wind_from_deg=bearing)))


def test_bare_crowns_feel_the_square_of_the_wind_and_leaves_stream() -> None:
    assert wind_force_N(40.0, 8.0, 1.6, in_leaf=False) == pytest.approx(4 * wind_force_N(40.0, 4.0, 1.6, in_leaf=False))
    assert wind_force_N(40.0, 12.0, 1.6, in_leaf=True) < 4 * wind_force_N(40.0, 6.0, 1.6, in_leaf=True)
    assert drag_coefficient(20.0, in_leaf=True) == pytest.approx(0.35)
    assert drag_coefficient(2.0, in_leaf=True) == drag_coefficient(6.0, in_leaf=True)
    assert drag_coefficient(60.0, in_leaf=True) == drag_coefficient(25.0, in_leaf=True)


def test_a_force_by_hand() -> None:
    # 1.2/2 x 0.25 x 50 m2 x (1.6 x 5 m/s)^2
    assert wind_force_N(50.0, 5.0, 1.6, in_leaf=False) == pytest.approx(480.0)


@given(st.floats(1.0, 35.0), st.booleans())
def test_the_speed_for_a_force_gives_that_force_back(speed: float, in_leaf: bool) -> None:
    force = wind_force_N(40.0, speed, 1.0, in_leaf=in_leaf)
    assert speed_for_force_m_s(force, 40.0, in_leaf=in_leaf) == pytest.approx(speed, rel=1e-6)


def test_no_wind_a_person_works_in_gives_a_mountain() -> None:
    assert speed_for_force_m_s(1e9, 40.0, in_leaf=False) == math.inf


def test_a_cone_stands_half_as_large_in_the_wind_as_its_box() -> None:
    tree = round_tree()
    assert silhouette_m2(tree, is_conifer=True) == pytest.approx(6.0 * 10.0 / 2)
    assert silhouette_m2(tree, is_conifer=False) == pytest.approx(math.pi / 4 * 60.0)


def test_wind_that_nobody_judged_is_unknown_and_to_be_settled() -> None:
    result = blown(None, 0.0)
    assert finding(result, "balance.wind_not_judged").level == "unknown"
    assert result.verdict.level == "unknown"


def test_a_headwind_takes_what_the_wedges_have_to_spare_and_a_tailwind_nothing() -> None:
    calm, light, strong = (finding(blown(speed, 0.0), "balance.wind") for speed in (0.0, 2.0, 16.0))
    assert calm.use == pytest.approx(0.0)
    assert light.use < strong.use
    assert strong.level == "stop"
    assert finding(blown(10.0, 180.0), "balance.wind").use == pytest.approx(0.0, abs=1e-6)


def test_at_the_speed_that_is_told_the_plan_just_stops_working() -> None:
    told = finding(blown(3.0, 20.0), "balance.wind").limit
    assert finding(blown(told, 20.0), "balance.wind").use == pytest.approx(1.0, rel=1e-6)


@given(st.floats(0.0, 180.0))
def test_wind_from_either_side_weighs_the_same_on_an_even_tree(bearing: float) -> None:
    one, other = (finding(blown(5.0, b % 360), "balance.wind") for b in (bearing, -bearing))
    assert one.use == pytest.approx(other.use, rel=1e-6, abs=1e-9)


@pytest.mark.parametrize(
    ("text", "units", "speed"),
    [("4", "metric", 4.0), ("18 km/h", "metric", 5.0), ("10", "imperial", 4.4704), ("6 kn", "metric", 3.0867)],
)
def test_speeds_are_typed_as_people_say_them(text: str, units: str, speed: float) -> None:
    assert parse(text, "speed", units) == pytest.approx(speed, rel=1e-4)


def test_speeds_carry_their_unit_and_odd_ones_are_refused() -> None:
    assert (shown(4.0, "speed", "metric"), shown(4.4704, "speed", "imperial")) == ("4 m/s", "10 mph")
    with pytest.raises(TypedError, match="m/s, km/h, kn, mph"):
        parse("4 knots an hour", "speed", "metric")


# Across the lay --------------------------------------------------------------------------------------------


@pytest.mark.parametrize(("wind_from", "side"), [(90.0, 1.0), (270.0, -1.0)])
def test_a_wind_from_the_right_pushes_to_the_left_and_the_other_way_about(wind_from: float, side: float) -> None:
    calm, blowing = blown(0.0, wind_from), blown(8.0, wind_from)
    push = blowing.parts.balance.moment_left_Nm - calm.parts.balance.moment_left_Nm
    gust = blowing.parts.gust
    assert push == pytest.approx(side * gust.mean_N * gust.arm_m)
    assert gust.mean_N > 0


def test_a_wind_across_takes_its_share_of_what_the_hinge_carries_sideways() -> None:
    """A tree heavy ahead has nothing to fear from along the lay: only the side share is left, whole."""
    result = blown(8.0, 90.0, lean__angle_deg=6.0, lean__bearing_deg=0.0)
    gust, parts = result.parts.gust, result.parts
    share = gust.mean_N * gust.arm_m / parts.strength.side_capacity_Nm
    assert finding(result, "balance.wind").use == pytest.approx(share, rel=1e-6)


def test_a_headwind_takes_its_share_of_what_stands_ahead_of_the_hinge() -> None:
    """A tree that folds its hinge by itself wants no wedge: what it has to spare is the least its weight exceeds the
    hinge by on its way over."""
    leaning = {"lean__angle_deg": 20.0, "lean__bearing_deg": 0.0}
    # Nobody goes on past the wedges that are placed: the hinge stays as it is.
    calm, result = (
        assess(replace(each.case, cut=replace(each.case.cut, goes_on="wedges")))
        for each in (blown(0.0, 0.0, **leaning), blown(4.0, 0.0, **leaning))
    )
    gust = result.parts.gust
    assert not result.parts.wedging.wanted
    tilts, mass, strength = np.radians(np.arange(0.0, 90.0, 0.05)), calm.parts.mass, calm.parts.strength
    law = HingeStrength(*batch(astuple(strength))).law
    ahead = mass.weight_N * calm.parts.balance.ahead_m
    weight = mass.bent_toppling_Nm * np.sin(tilts) + ahead * np.cos(tilts)
    share = gust.mean_N * gust.arm_m / (weight - law.moments_Nm(tilts)[0]).min()
    assert 0.1 < share < 1.0
    assert finding(result, "balance.wind").use == pytest.approx(share, rel=1e-3)


# What lasts, and what is enough to do harm ------------------------------------------------------------------


def test_a_tree_is_tipped_against_the_mean_wind_and_sat_back_by_a_gust() -> None:
    """A light headwind leaves a wedged tree its wedges; half again as strong for a moment it may take it over."""
    blowing = blown(4.0, 0.0).parts
    mean, gust = blowing.gust.mean_N * blowing.gust.arm_m, blowing.gust.force_N * blowing.gust.arm_m
    assert blowing.loads.forward_Nm == pytest.approx(-mean)
    assert blowing.loads.harmed_Nm == pytest.approx(-gust)
    assert gust > 1.5 * mean
    assert blown(4.0, 180.0).parts.loads.following_Nm == pytest.approx(gust)


def test_a_light_headwind_does_not_stop_a_tree_that_wedges_lift() -> None:
    calm, light = blown(0.0, 0.0), blown(2.5, 0.0)
    assert calm.parts.wedging.wanted
    assert finding(light, "balance.over").level != "stop"
    assert finding(light, "balance.wind").level != "stop"
    assert light.parts.wedging.tilt_deg > calm.parts.wedging.tilt_deg
