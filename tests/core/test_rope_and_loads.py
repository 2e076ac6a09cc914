"""A rope rigged on the plan and the wind, as moments about the hinge and what they change."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import case, finding, finding_ids, round_tree, told
from plain_compass.core.advice.rose import whole_rose
from plain_compass.core.assess import Assessment, assess
from plain_compass.core.base.errors import InputError
from plain_compass.core.plan.case import Case
from plain_compass.core.site.rigging import SYSTEMS, Rope, advantage_of, efficiency_of, initial_rope, rigged
from plain_compass.core.site.site import Obstacle, Place, Site

HERE = Place()


def along(bearing: float, away: float) -> Place:
    return Place(away * math.sin(math.radians(bearing)), away * math.cos(math.radians(bearing)))


def rope(**more: object) -> Rope:
    return replace(Rope(use="set", attached_m=9.3, anchor=along(0, 40), hauler=along(40, 50)), **more)  # type: ignore[arg-type]


def back_leaner(line: Rope | None = None, **more: object) -> Case:
    whole = case(round_tree(lean__angle_deg=2.0, lean__bearing_deg=180.0))
    return replace(whole, rope=line or Rope(), **more)  # type: ignore[arg-type]


def pulled(**more: object) -> Assessment:
    return assess(back_leaner(rope(**more)))


# What the rope does ----------------------------------------------------------------------------------------


def test_a_straight_pull_by_hand() -> None:
    """9 m over the hinge, 40 m off: the line falls atan(9.3/40); lever 9 m times its cosine."""
    found = rigged(rope(haul_N=2000.0), Site(), HERE, 0.0, 0.3)
    assert found is not None
    down = math.atan2(9.3, 40.0)
    assert found.pull_N == 2000.0
    assert found.down_deg == pytest.approx(math.degrees(down))
    assert found.moment_forward_Nm == pytest.approx(2000.0 * 9.0 * math.cos(down))
    assert found.moment_left_Nm == pytest.approx(0.0, abs=1e-9)


@given(st.floats(-80.0, 80.0), st.floats(0.0, 359.0))
def test_off_the_lay_the_pull_splits_into_forward_and_side(off: float, lay: float) -> None:
    straight = rigged(rope(anchor=along(lay, 40)), Site(), HERE, lay, 0.3)
    aside = rigged(rope(anchor=along(lay + off, 40)), Site(), HERE, lay, 0.3)
    assert straight is not None and aside is not None
    whole = straight.moment_forward_Nm
    assert aside.moment_forward_Nm == pytest.approx(whole * math.cos(math.radians(off)), abs=1e-6 * whole)
    assert aside.moment_left_Nm == pytest.approx(-whole * math.sin(math.radians(off)), abs=1e-6 * whole)
    assert aside.off_lay_deg == pytest.approx(-off, abs=1e-6)


@pytest.mark.parametrize("system", SYSTEMS)
def test_without_friction_an_advantage_is_what_its_name_says(system: str) -> None:
    whole = 6 if system == "3 on 2" else int(system)
    assert advantage_of(system, 1.0) == whole
    assert advantage_of(system, 0.8) <= whole


def test_friction_by_sheave_and_round_bark() -> None:
    e = efficiency_of("karabiner")
    assert advantage_of("3 on 2", e) == pytest.approx((1 + e) * (1 + e + e * e))
    assert efficiency_of("bark") == pytest.approx(math.exp(-0.25 * math.pi))


@pytest.mark.parametrize(("bend", "load"), [(0.0, 0.0), (90.0, math.sqrt(2)), (120.0, math.sqrt(3)), (180.0, 2.0)])
def test_a_redirect_carries_more_the_further_it_turns_the_line(bend: float, load: float) -> None:
    corner = Place(0.0, 30.0)
    anchor = Place(20.0 * math.sin(math.radians(bend)), 30.0 + 20.0 * math.cos(math.radians(bend)))
    found = rigged(rope(redirect="set", corner=corner, anchor=anchor, haul_N=1000.0), Site(), HERE, 0.0, 0.3)
    assert found is not None
    assert found.redirect_load_N == pytest.approx(1000.0 * load, abs=0.2)
    assert found.pull_N == pytest.approx(1000.0 * 0.95 ** (bend / 180.0))


def test_a_rope_half_as_high_wants_about_twice_the_pull() -> None:
    far = rigged(rope(anchor=along(0, 4000)), Site(), HERE, 0.0, 0.3)
    assert far is not None
    assert far.low_pull_N == pytest.approx(far.pull_N * 9.0 / (9.3 / 2 - 0.3), rel=1e-3)
    assert far.high_pull_N < far.pull_N < far.low_pull_N


def test_an_anchor_uphill_pulls_less_steeply_down() -> None:
    up, level = (rigged(rope(), Site(slope_deg=s, downhill_deg=180.0), HERE, 0.0, 0.3) for s in (8.0, 0.0))
    assert up is not None and level is not None
    assert up.down_deg < level.down_deg
    assert up.moment_forward_Nm > level.moment_forward_Nm


def test_the_weakest_part_is_named_with_its_knot() -> None:
    spliced, knotted = (
        rigged(rope(haul_N=5000.0, end=end, limit_N=8000.0), Site(), HERE, 0.0, 0.3) for end in ("splice", "hitch")
    )
    assert spliced is not None and knotted is not None
    assert (knotted.weakest, knotted.weakest_use) == ("rope", pytest.approx(5000 / (8000 * 0.55)))
    assert spliced.weakest_use == pytest.approx(5000 / (8000 * 0.9))
    gear = rigged(rope(haul_N=5000.0, end="splice", gear_limit_N=5000.0), Site(), HERE, 0.0, 0.3)
    assert gear is not None and (gear.weakest, gear.weakest_use) == ("anchor", pytest.approx(1.0))


def test_a_steep_rope_fast_to_a_stem_that_leans_back_turns_it_less_than_its_height_says() -> None:
    """r x F by hand: the part of the pull that leads down acts 0.5 m behind and 0.2 m right of the hinge."""
    near = rope(anchor=along(0, 8), haul_N=1000.0)
    plain, leaning = (rigged(near, Site(), HERE, 0.0, 0.3, fast) for fast in ((0.0, 0.0), (-0.5, -0.2)))
    assert plain is not None and leaning is not None
    down = math.atan2(9.3, 8.0)
    assert plain.moment_forward_Nm - leaning.moment_forward_Nm == pytest.approx(1000.0 * math.sin(down) * 0.5)
    assert leaning.moment_left_Nm == pytest.approx(-1000.0 * math.sin(down) * 0.2)
    arm, pull = np.array([-0.5, -0.2, 9.0]), 1000.0 * np.array([math.cos(down), 0.0, -math.sin(down)])
    about = np.cross(arm, pull)
    assert (leaning.moment_forward_Nm, leaning.moment_left_Nm) == pytest.approx((about[1], -about[0]))


def test_the_rope_of_a_case_is_fast_where_its_stem_stands_over_the_hinge() -> None:
    """Two degrees back at 9 m over the cut is 31 cm, and the hinge stands ahead of the pith."""
    whole = back_leaner(rope(anchor=along(0, 8), haul_N=1000.0))
    parts = assess(whole).parts
    behind = -math.tan(math.radians(2.0)) * 9.0 - parts.hinge.forward_m
    plain = rigged(whole.rope, Site(), HERE, 0.0, 0.3)
    assert plain is not None and parts.rigging is not None
    sinks = 1000.0 * math.sin(math.radians(plain.down_deg))
    assert parts.rigging.moment_forward_Nm == pytest.approx(plain.moment_forward_Nm + sinks * behind)


# What it changes -------------------------------------------------------------------------------------------


def test_a_rope_that_pulls_enough_brings_a_back_leaner_over_and_too_little_helps_the_wedges() -> None:
    bare, weak, strong = assess(back_leaner()), pulled(haul_N=150.0), pulled(haul_N=6000.0)
    assert bare.parts.balance.moment_forward_Nm < 0
    assert weak.parts.wedging.lift_m < bare.parts.wedging.lift_m
    assert weak.parts.wedging.moment_Nm < bare.parts.wedging.moment_Nm
    assert (finding(weak, "rope.pull").level, finding(strong, "rope.pull").level) == ("stop", "clear")
    assert not strong.parts.wedging.wanted
    assert "rope's full pull" in told(finding(strong, "balance.over").sentence)


def test_the_pull_that_is_said_to_be_wanted_is_just_enough() -> None:
    wanted = finding(pulled(haul_N=1000.0), "rope.pull").value
    just = finding(pulled(haul_N=wanted), "rope.pull")
    assert just.use == pytest.approx(1.0, rel=1e-6)


def test_a_rope_leaves_mass_and_centre_alone_and_moves_only_moments() -> None:
    bare, strong = assess(back_leaner()), pulled(haul_N=3000.0)
    assert strong.parts.mass == bare.parts.mass
    assert strong.parts.balance.ahead_m == bare.parts.balance.ahead_m
    gained = strong.parts.balance.moment_forward_Nm - bare.parts.balance.moment_forward_Nm
    assert gained == pytest.approx(strong.parts.rigging.moment_forward_Nm)  # type: ignore[union-attr]


def test_hauling_too_hard_readies_the_stem_to_split() -> None:
    gentle, hard = pulled(haul_N=1500.0), pulled(haul_N=12_000.0)
    assert hard.parts.splitting.split_index_plain > gentle.parts.splitting.split_index_plain


def test_a_rope_to_one_side_uses_the_hinge_and_one_against_the_side_weight_is_not_counted_as_help() -> None:
    straight, aside = pulled(haul_N=3000.0), pulled(haul_N=3000.0, anchor=along(40, 40))
    assert aside.parts.use.side_utilisation > straight.parts.use.side_utilisation
    leaning = replace(back_leaner(), tree=round_tree(lean__angle_deg=2.0, lean__bearing_deg=90.0))
    against = replace(leaning, rope=rope(haul_N=600.0, anchor=along(320, 40)))
    assert assess(against).parts.use.side_utilisation >= assess(leaning).parts.use.side_utilisation - 1e-9


@pytest.mark.parametrize(
    ("where", "level"), [(along(5, 12), "stop"), (along(90, 20), "watch"), (along(100, 60), "clear")]
)
def test_the_hauler_stands_clear_of_the_drop(where: Place, level: str) -> None:
    assert finding(pulled(hauler=where), "rope.hauler").level == level


def test_a_rope_too_short_and_one_straight_down_are_stops() -> None:
    assert finding(pulled(length_m=30.0), "rope.length").level == "stop"
    assert finding(pulled(anchor=Place(0.1, 0.1)), "rope.pull").level == "stop"
    assert finding(pulled(anchor=along(180, 40)), "rope.pull").level == "stop"
    with pytest.raises(InputError, match="above the top"):
        pulled(attached_m=40.0)


def test_without_a_rope_nothing_is_said_of_one_and_the_rose_leads_one_that_is_set() -> None:
    assert not [name for name in finding_ids(assess(back_leaner())) if name.startswith("rope.")]
    line = rope(haul_N=6000.0, length_m=120.0)
    with_rope, without = (whole_rose(back_leaner(each), np.array([90.0]))[0] for each in (line, None))
    assert (with_rope.help, with_rope.pull_N) == ("rope", 6000.0)
    assert without.help != "rope" or without.pull_N != 6000.0


def test_a_rope_begun_leads_along_the_lay_and_its_hauler_stands_outside_the_drop() -> None:
    line = initial_rope(Rope(), Place(3, 4), 120.0, 20.0)
    found = rigged(line, Site(), Place(3, 4), 120.0, 0.3)
    assert found is not None
    assert abs(found.off_lay_deg) < 0.5
    assert found.hauler_m > 1.2 * 20.0


# Where a miss costs something ------------------------------------------------------------------------------


@pytest.mark.parametrize(("cost", "level"), [("never", "stop"), ("matters", "watch"), ("nuisance", "")])
def test_wedges_alone_are_not_enough_where_sitting_back_would_cost_something(cost: str, level: str) -> None:
    behind = Obstacle(points=(along(180, 9),), cost=cost)
    site = Site(obstacles=(behind,))
    result = assess(back_leaner(site=site))
    assert (finding(result, "landing.miss").level if "landing.miss" in finding_ids(result) else "") == level
    assert "landing.miss" not in finding_ids(assess(back_leaner(rope(haul_N=6000.0), site=site)))


# Wind ------------------------------------------------------------------------------------------------------


def windy(from_deg: float, speed: float = 8.0) -> Assessment:
    return assess(back_leaner(site=Site(wind_m_s=speed, wind_from_deg=from_deg)))


def test_a_headwind_is_a_moment_against_the_lay_and_a_following_wind_is_no_help() -> None:
    calm, head, follow = assess(back_leaner()), windy(0.0), windy(180.0)
    force = head.parts.gust.mean_N * head.parts.gust.arm_m
    assert force > 0
    lost = calm.parts.balance.moment_forward_Nm - head.parts.balance.moment_forward_Nm
    assert lost == pytest.approx(force)
    assert head.parts.wedging.lift_m > calm.parts.wedging.lift_m
    assert follow.parts.balance.moment_forward_Nm == pytest.approx(calm.parts.balance.moment_forward_Nm)


def test_a_following_wind_counts_where_it_does_harm() -> None:
    leaner = case(round_tree(lean__angle_deg=8.0, lean__bearing_deg=0.0))
    calm, gusty = (assess(replace(leaner, site=Site(wind_m_s=w, wind_from_deg=180.0))) for w in (0.0, 10.0))
    assert gusty.parts.splitting.split_index_plain > calm.parts.splitting.split_index_plain


def test_a_side_wind_works_the_hinge_at_every_tilt() -> None:
    calm, side = assess(back_leaner()), windy(90.0)
    added = side.parts.gust.mean_N * side.parts.gust.arm_m / side.parts.strength.side_capacity_Nm
    tilt = calm.parts.use.tilt_deg
    assert side.parts.use.use - calm.parts.use.use == pytest.approx(np.full(len(tilt), added), rel=0.02)
