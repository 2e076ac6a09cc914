"""Wedges against statics: lift by the arm, force by moments, blows by the work done."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from builders import assessed, batch, finding, finding_ids, plain_cut, round_tree, told
from plain_compass.core.assess import Assessment
from plain_compass.core.design.cut import BackCut, WedgeSeat
from plain_compass.core.design.kit import Kit
from plain_compass.core.mechanics.hinge import led_m
from plain_compass.core.mechanics.law import HingeLaw, Tipping
from plain_compass.core.mechanics.wedge import driving_factor, resisting_moments
from plain_compass.core.plan.case import Parts
from plain_compass.core.plan.driven import driving_of, thinning_of
from plain_compass.core.tree.tree import Decay
from plain_compass.job.tables import indicative

BACK = round_tree(lean__angle_deg=1.5, lean__bearing_deg=180.0)
TWO = plain_cut(wedges=(WedgeSeat(20.0), WedgeSeat(-20.0)))


PLAIN_WEDGE = {"wedge_thickness_m": 0.025, "wedge_length_m": 0.20}
SMALL = round_tree(
    height_m=18.0, trunk__diameter_m=0.26, trunk__butt_diameter_m=0.26, lean__angle_deg=9.0, lean__bearing_deg=180.0
)
SMALL_CUT = plain_cut(face__depth_m=0.052, hinge__left_m=0.026, hinge__right_m=0.026)


def law_and_load(parts: Parts) -> tuple[HingeLaw, Tipping]:
    """How one hinge resists, and what tips the tree on it."""
    mass = parts.mass
    ahead, _ = led_m(mass, parts.hinge)
    load = Tipping(*batch((mass.bent_toppling_Nm, mass.weight_N * ahead, parts.loads.forward_Nm)))
    return batch(parts.strength).law, load


def test_the_tilt_brings_it_half_a_degree_past_where_the_hinge_lets_it_go() -> None:
    parts = assessed(BACK).parts
    tilts = np.radians(np.arange(0.0, 90.0, 0.005))
    law, load = law_and_load(parts)
    holds = (load.moments_Nm(np.sin(tilts), np.cos(tilts)) <= law.moments_Nm(tilts))[0]
    go = math.degrees(tilts[np.nonzero(holds)[0][-1]])
    assert parts.balance.theta_go_deg == pytest.approx(go, abs=0.006)
    assert parts.wedging.tilt_deg == pytest.approx(go + 0.5, abs=0.006)


def test_the_centre_over_the_hinge_is_told_beside_it_and_comes_first() -> None:
    parts = assessed(BACK).parts
    over = math.degrees(math.atan2(-parts.balance.ahead_m * parts.mass.weight_N, parts.mass.bent_toppling_Nm))
    assert parts.balance.centre_over_deg == pytest.approx(over)
    assert parts.balance.centre_over_deg < parts.balance.theta_go_deg


def test_a_face_that_shuts_while_the_hinge_holds_is_a_stop_and_the_wedges_go_no_farther() -> None:
    narrow = plain_cut(face__roof_deg=5.0, face__floor_deg=0.0, hinge__left_m=0.08, hinge__right_m=0.08)
    parts, found = assessed(BACK, narrow).parts, assessed(BACK, narrow)
    assert parts.wedging.shuts_first
    assert parts.wedging.tilt_deg == pytest.approx(parts.face.closing_angle_deg)
    assert finding(found, "balance.shuts_first").level == "stop"
    assert "balance.shuts_first" not in finding_ids(assessed(BACK))


def test_the_lift_is_the_arm_times_the_tilt() -> None:
    parts = assessed(BACK).parts
    (seat,) = parts.wedging.seats
    arm = parts.hinge.region.forward_m - parts.section.back_m
    assert seat.arm_m == pytest.approx(arm, rel=1e-3)
    assert seat.lift_m == pytest.approx(arm * math.tan(math.radians(parts.wedging.tilt_deg)), rel=1e-3)


def test_the_force_takes_the_worst_of_weight_and_hinge_together() -> None:
    """They never peak together, so adding their maxima would ask too much."""
    parts = assessed(BACK).parts
    law, load = law_and_load(parts)
    curve = resisting_moments(np.array([parts.wedging.tilt_deg]), load, law)[0]
    weight = -parts.balance.moment_forward_Nm
    assert parts.wedging.moment_Nm == pytest.approx(curve.max())
    assert weight < parts.wedging.moment_Nm < weight + parts.strength.peak_Nm
    assert curve[0] == pytest.approx(weight)


def test_two_wedges_side_by_side_carry_half_each_for_the_same_blows() -> None:
    one = assessed(BACK, plain_cut(wedges=(WedgeSeat(0.0),))).parts.wedging
    two = assessed(BACK, plain_cut(wedges=(WedgeSeat(0.1), WedgeSeat(-0.1)))).parts.wedging
    assert two.force_N == pytest.approx(one.force_N / 2, rel=1e-3)
    assert two.advance_per_blow_m == pytest.approx(2 * one.advance_per_blow_m, rel=1e-3)
    assert two.blows == pytest.approx(one.blows, rel=1e-3)


def test_blows_are_the_work_over_what_a_blow_leaves() -> None:
    result = assessed(BACK)
    parts, kit = result.parts, result.case.kit
    theta = np.linspace(0.0, math.radians(parts.wedging.tilt_deg), 4001)
    law, load = law_and_load(parts)
    curve = (law.moments_Nm(theta) - load.moments_Nm(np.sin(theta), np.cos(theta)))[0]
    work = float(np.trapezoid(np.maximum(curve, 0.0), theta))
    angle, rho = math.atan2(kit.wedge_thickness_m, kit.wedge_length_m), math.atan(0.25)
    expected = work * (math.tan(angle + rho) + math.tan(rho)) / (0.6 * kit.maul_J * math.tan(angle))
    assert parts.wedging.blows == pytest.approx(expected, rel=1e-3)
    assert parts.wedging.seating_blows == 3.0


def test_a_frictionless_wedge_drives_with_its_tangent_alone() -> None:
    assert driving_factor(0.1, 0.0) == pytest.approx(math.tan(0.1))


@given(angle=st.floats(0.02, 0.5), friction=st.floats(0.05, 0.5))
def test_friction_on_both_faces_always_costs(angle: float, friction: float) -> None:
    assert driving_factor(angle, friction) > math.tan(angle) + friction


def test_a_forward_leaner_wants_no_wedge() -> None:
    result = assessed(round_tree(lean__angle_deg=12.0, lean__bearing_deg=0.0))
    assert not result.parts.wedging.wanted
    assert finding(result, "wedge.drive").level == "clear"
    assert result.parts.wedging.lift_m == 0.0


def test_without_a_wedge_a_tree_that_wants_one_is_a_stop() -> None:
    result = assessed(BACK, plain_cut(wedges=()))
    assert finding(result, "wedge.drive").level == "stop"
    assert finding(result, "balance.over").level == "stop"
    assert result.parts.wedging.blows == math.inf
    assert result.parts.wedging.lift_m > 0


def test_two_on_each_other_lift_twice_the_head() -> None:
    single = assessed(BACK, plain_cut(wedges=(WedgeSeat(0.0, 1),)), **PLAIN_WEDGE).parts.wedging.seats[0]
    double = assessed(BACK, plain_cut(wedges=(WedgeSeat(0.0, 2),)), **PLAIN_WEDGE).parts.wedging.seats[0]
    kerf, head = 0.008, 0.025
    dust = indicative().sawdust_m
    assert single.available_m == pytest.approx(head - kerf - dust)
    assert double.available_m == pytest.approx(2 * head - kerf - dust)


def test_two_steep_wedges_spit_out() -> None:
    cut = plain_cut(wedges=(WedgeSeat(0.0, 2),))
    steep = assessed(BACK, cut, wedge_thickness_m=0.05, wedge_length_m=0.15)
    assert steep.parts.wedging.seats[0].spits_out
    assert finding(steep, "wedge.holds").level == "stop"
    assert not assessed(BACK, cut).parts.wedging.seats[0].spits_out


def test_two_on_each_other_go_further_a_blow_when_driven_one_at_a_time() -> None:
    (seat,) = assessed(BACK, plain_cut(wedges=(WedgeSeat(0.0, 2),)), **PLAIN_WEDGE).parts.wedging.seats
    single = math.atan2(0.025, 0.20)
    assert seat.advance_singly_m > seat.advance_per_blow_m
    expected = 0.6 * 80.0 / (seat.force_N * (math.tan(single + math.atan(0.25)) + 0.20))
    assert seat.advance_singly_m == pytest.approx(expected)


def test_the_seat_that_falls_shortest_rules() -> None:
    """A doubled wedge in the middle does not lift for a single one beside it."""
    lean = round_tree(lean__angle_deg=4.5, lean__bearing_deg=180.0)
    mixed = plain_cut(wedges=(WedgeSeat(0.0, 2), WedgeSeat(50.0, 1)), goes_on="wedges")
    result = assessed(lean, mixed, **PLAIN_WEDGE)
    single = result.parts.wedging.seats[1]
    assert finding(result, "balance.over").value == pytest.approx(single.lift_m)
    assert finding(result, "balance.over").limit == pytest.approx(0.017 - indicative().sawdust_m)


def test_a_wedge_thinner_than_the_kerf_lifts_nothing_and_is_a_stop() -> None:
    thin = assessed(BACK, wedge_thickness_m=0.005, kerf_m=0.012)
    assert thin.parts.wedging.seats[0].available_m == 0.0
    assert finding(thin, "balance.over").level == "stop"


def test_doubling_is_asked_for_between_one_and_two_heads() -> None:
    lean = round_tree(lean__angle_deg=4.5, lean__bearing_deg=180.0)
    wedging = assessed(lean).parts.wedging
    assert 0.017 < wedging.lift_m < 0.042
    assert wedging.doubled_needed
    assert not assessed(BACK, TWO, wedge_thickness_m=0.05).parts.wedging.doubled_needed


def test_a_small_back_leaner_sits_back_before_the_first_wedge_fits() -> None:
    """Nine degrees back: the wood that still holds when there is kerf for a wedge beside the bar does not carry it."""
    small = assessed(SMALL, SMALL_CUT)
    assert small.parts.balance.sits_back
    assert finding(small, "balance.sits_back").level == "stop"


def test_a_tree_that_would_sit_back_on_its_finished_hinge_stands_on_the_wood_behind_it_while_a_wedge_is_set() -> None:
    stout = assessed(round_tree(lean__angle_deg=4.0, lean__bearing_deg=180.0))
    assert not stout.parts.balance.stands_on_hinge
    assert 0.0 < stout.parts.balance.sits_back_utilisation < 1.0
    bare = assessed(round_tree(lean__angle_deg=4.0, lean__bearing_deg=180.0), plain_cut(wedges=()))
    assert bare.parts.balance.sits_back
    assert bare.parts.balance.sits_back_utilisation == pytest.approx(bare.parts.balance.standing_utilisation)


def test_a_strap_holds_it_until_the_wedge_is_set() -> None:
    bored = replace(SMALL_CUT, back=BackCut("bored", 0.03, 0.03), wedges=(WedgeSeat(60.0),))
    assert assessed(SMALL, bored).parts.balance.sits_back_utilisation == 0.0


def test_a_wedge_in_the_strap_is_a_stop() -> None:
    behind = assessed(BACK, plain_cut(back__form="bored", wedges=(WedgeSeat(0.0),)))
    beside = assessed(BACK, plain_cut(back__form="bored", wedges=(WedgeSeat(60.0), WedgeSeat(-60.0))))
    assert finding(behind, "wedge.in_strap").level == "stop"
    assert "wedge.in_strap" not in finding_ids(beside)


def test_more_wedges_than_are_carried_is_a_stop() -> None:
    assert finding(assessed(BACK, TWO, wedge_count=1), "wedge.carried").level == "stop"


def test_rot_under_a_wedge_is_found() -> None:
    rotten = round_tree(
        lean__angle_deg=1.5,
        lean__bearing_deg=180.0,
        decay__kind="cavity",
        decay__offset_m=0.12,
        decay__bearing_deg=180.0,
        decay__radius_m=0.06,
    )
    assert finding(assessed(rotten), "wedge.sound").level in ("watch", "stop")
    aside = assessed(rotten, plain_cut(wedges=(WedgeSeat(60.0), WedgeSeat(-60.0))))
    assert finding(aside, "wedge.sound").margin > finding(assessed(rotten), "wedge.sound").margin


@pytest.mark.parametrize(("height", "pause"), [(8.0, 2.0), (25.0, None), (40.0, 6.0)])
def test_the_pause_is_a_period_of_the_sway_within_two_and_six_seconds(height: float, pause: float | None) -> None:
    sway = 1 / (0.0766 + 3.1219 * 40.0 / height**2)
    assert assessed(round_tree(height_m=height)).parts.wedging.pause_s == pytest.approx(pause or sway)


def test_a_stem_that_bends_helps_itself_over_by_its_sag() -> None:
    """m g Z (1 + m g Z/(I w^2)): a spring as stiff as the sway says, and the weight on it."""
    mass = assessed(BACK).parts.mass
    own = (2 * math.pi / mass.sway_s) ** 2 * mass.inertia_kg_m2
    assert mass.bent_toppling_Nm == pytest.approx(mass.toppling_Nm * (1 + mass.toppling_Nm / own))
    assert 1.0 < mass.bent_toppling_Nm / mass.toppling_Nm < 1.6


def test_blows_past_use_are_a_rope_and_no_number() -> None:
    """A hundred and twenty blows without those that seat the wedges, or a millimetre a blow, end the plan."""
    big = {"trunk__diameter_m": 0.8, "trunk__butt_diameter_m": 0.8, "height_m": 28.0}
    thick = plain_cut(wedges=TWO.wedges, hinge__left_m=0.08, hinge__right_m=0.08, face__depth_m=0.17)
    hard = assessed(round_tree(lean__angle_deg=3.0, lean__bearing_deg=180.0, **big), thick, maul_J=20.0)
    assert hard.parts.wedge_plan.blows > 120
    found = finding(hard, "wedge.drive")
    assert found.level == "stop"
    assert "rope" in told(found.change).lower()
    assert "More than 120 blows" in told(found.sentence)


# A thinner hinge, and what to see on the way ------------------------------------------------------------------


def short_of_lift() -> Assessment:
    return assessed(BACK, plain_cut(), **PLAIN_WEDGE, wedge_count=1)


def test_a_hinge_that_holds_too_long_is_told_how_thin_it_must_be_and_goes_there() -> None:
    result = short_of_lift()
    thinning = thinning_of(result.case, result.parts)
    assert thinning.to_m is not None and not thinning.refused
    assert thinning.to_m < result.parts.hinge.thickness_m
    # Cut so thin, the same wedges bring it over; two millimetres thicker they do not.
    for more, goes in ((-0.0005, True), (0.002, False)):
        thin = thinning.to_m + more
        wedging = assessed(BACK, plain_cut(hinge__left_m=thin, hinge__right_m=thin), **PLAIN_WEDGE).parts.wedging
        assert (wedging.lift_m <= wedging.seats[0].available_m) is goes
    assert "thin the hinge to" in told(finding(result, "balance.over").sentence)


def test_nothing_is_said_of_thinning_where_the_wedges_reach() -> None:
    reached = assessed(round_tree(lean__angle_deg=4.0, lean__bearing_deg=0.0))
    assert thinning_of(reached.case, reached.parts).to_m is None


def test_thinning_is_refused_where_the_side_weight_or_the_practice_says_so() -> None:
    aside = round_tree(lean__angle_deg=9.0, lean__bearing_deg=110.0)
    result = assessed(aside, plain_cut(), **PLAIN_WEDGE, wedge_count=1)
    # So far over the side weight leaves nothing to thin at all.
    assert thinning_of(result.case, result.parts).allowed_m is None
    thick = short_of_lift()
    practice = replace(thick.case.practice, hinge_least_m=0.039)
    assert thinning_of(replace(thick.case, practice=practice), thick.parts).refused == "least"


def test_the_driving_table_says_how_far_the_top_moves_for_every_lift() -> None:
    result = assessed(BACK)
    table, (seat,) = driving_of(result.case, result.parts), result.parts.wedging.seats
    assert table[-1].lift_m == pytest.approx(seat.lift_m)
    assert [line.lift_m for line in table] == sorted(line.lift_m for line in table)
    above = result.case.tree.height_m - result.case.cut.height_m
    for line in table:
        assert line.top_m == pytest.approx(above * line.lift_m / seat.arm_m)
    assert 2 <= len(table) <= 13


@settings(max_examples=25)
@given(lean=st.floats(0.5, 6.0), more=st.floats(0.1, 3.0))
def test_leaning_further_back_never_asks_for_less(lean: float, more: float) -> None:
    first, second = (
        assessed(round_tree(lean__angle_deg=angle, lean__bearing_deg=180.0)).parts.wedging
        for angle in (lean, lean + more)
    )
    assert second.lift_m > first.lift_m
    assert second.blows >= first.blows


# Seats beside each other, on each other, and what the kerf loses ----------------------------------------------


def test_two_wedges_too_near_each_other_are_a_stop_and_apart_they_are_not() -> None:
    near, apart = (assessed(BACK, plain_cut(wedges=(WedgeSeat(-a), WedgeSeat(a)))) for a in (4.0, 35.0))
    assert finding(near, "wedge.spacing").level == "stop"
    assert "wedge.spacing" not in finding_ids(apart)


def test_wedges_that_are_not_made_to_be_stacked_are_not_stacked() -> None:
    twice = plain_cut(wedges=(WedgeSeat(0.0, 2),))
    assert finding(assessed(BACK, twice, stackable="no"), "wedge.stack").level == "stop"
    assert "wedge.stack" not in finding_ids(assessed(BACK, twice))


@given(st.floats(5.0, 60.0))
def test_a_wedge_at_one_side_lifts_the_tree_to_the_other(at_deg: float) -> None:
    left, right = (assessed(BACK, plain_cut(wedges=(WedgeSeat(side * at_deg),))).parts for side in (1, -1))
    one, other = left.wedging.seats[0], right.wedging.seats[0]
    assert one.side_Nm < 0 < other.side_Nm
    assert one.side_Nm == pytest.approx(-other.side_Nm, rel=1e-3)
    assert -one.side_Nm == pytest.approx(one.force_N * (one.edge_left_m - left.hinge.region.left_m))


def test_soft_wood_under_a_wedge_takes_lift() -> None:
    sound = assessed(BACK).parts.wedging.seats[0]
    rotten = assessed(replace(BACK, decay=Decay(kind="cavity", radius_m=0.09, offset_m=0.03, bearing_deg=180.0)))
    soft = rotten.parts.wedging.seats[0]
    lost = indicative().rot_gives_m * (1 - soft.sound_fraction)
    assert soft.sound_fraction < 1.0
    assert sound.available_m - soft.available_m == pytest.approx(lost, abs=1e-9)


@pytest.mark.parametrize(("side", "at", "stop"), [("left", 50.0, True), ("left", -40.0, False), ("right", -50.0, True)])
def test_a_wedge_in_the_corner_that_is_kept_is_a_stop(side: str, at: float, stop: bool) -> None:
    back = BackCut("corner", 0.03, 0.05, side)
    result = assessed(BACK, plain_cut(back=back, wedges=(WedgeSeat(at),)))
    assert ("wedge.in_strap" in finding_ids(result)) == stop


# Limits, each against its own number -------------------------------------------------------------------------


@pytest.mark.parametrize(("apart", "too_near"), [(0.4, True), (0.7, True), (0.95, True), (1.1, False), (2.0, False)])
def test_two_wedges_want_room_for_a_whole_one_between_their_middles(apart: float, too_near: bool) -> None:
    """On the bark of a 40 cm stem a chord between two seats is twice the radius times the sine of half their angle."""
    wide = Kit().wedge_width_m
    half_deg = math.degrees(math.asin(apart * wide / 2 / 0.20))
    found = assessed(BACK, plain_cut(wedges=(WedgeSeat(half_deg), WedgeSeat(-half_deg))))
    assert ("wedge.spacing" in finding_ids(found)) is too_near


def test_drive_room_and_seat_use_the_whole_of_their_limits() -> None:
    rotten = replace(BACK, decay=Decay("cavity", radius_m=0.08, offset_m=0.10, bearing_deg=180.0))
    result = assessed(rotten, plain_cut(goes_on="wedges"))
    wedging = result.parts.wedging
    (seat,) = wedging.seats
    least = result.case.constants.least_advance_m
    assert finding(result, "wedge.drive").use == pytest.approx(least / wedging.advance_per_blow_m)
    assert result.parts.wedge_plan.name == "wedges"
    assert finding(result, "wedge.room").use == pytest.approx(seat.driven_m / seat.room_m)
    assert 0.1 < seat.sound_fraction < 1.0
    assert finding(result, "wedge.sound").use == pytest.approx(0.5 / seat.sound_fraction)


def test_a_wedge_lifts_by_what_it_is_thicker_than_the_kerf_less_what_sawdust_takes() -> None:
    """On sound wood: nothing else is lost; and a wedge is driven in until that lift is reached."""
    result = assessed(BACK)
    (seat,) = result.parts.wedging.seats
    kit, constants = result.case.kit, result.case.constants
    most = kit.wedge_thickness_m - kit.kerf_m - constants.sawdust_m
    assert seat.available_m == pytest.approx(most, abs=1e-5)
    between = 0
    for tenths in range(2, 45):
        wedging = assessed(round_tree(lean__angle_deg=tenths / 10, lean__bearing_deg=180.0)).parts.wedging
        assert wedging.doubled_needed is (wedging.lift_m > most)
        between += most < wedging.lift_m <= most + constants.sawdust_m
    assert between
