"""What lies under a lay, what catches the tree, the ways out, ropes, and the lay rose."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from builders import ROUND, case, finding, finding_ids, round_tree, told
from plain_compass.core.advice.begin import begun
from plain_compass.core.advice.rose import Spoke, turned_to, whole_rose
from plain_compass.core.assess import assess
from plain_compass.core.base.errors import InputError
from plain_compass.core.design.checks import crosses_itself
from plain_compass.core.judge.limits import shares_of
from plain_compass.core.plan.case import Case
from plain_compass.core.plan.many import alone
from plain_compass.core.site.hang_up import Catch, Faller, catches_on, gap_m
from plain_compass.core.site.landing import Footprint, footprint_of, hits_by_bearing, hits_on, sampled
from plain_compass.core.site.rigging import Rope, initial_rope
from plain_compass.core.site.rope import (
    advantage_simple,
    advantage_three_on_two,
    bark_efficiency,
    pull_needed_N,
    redirect_load_N,
)
from plain_compass.core.site.site import KINDS, USUAL, Obstacle, Place, Site
from plain_compass.core.site.ways_out import (
    FARTHEST_LAY_DEG,
    NEAREST_LAY_DEG,
    Ways,
    kept_away_m,
    people_inside,
    ways_out,
)
from plain_compass.core.tree.tree import CrownReading
from plain_compass.job.demo import demo_job
from plain_compass.job.document import case_of

STEM = Footprint(length_m=15.0, crown_from_m=5.0, crown_half_m=3.0, spread_deg=2.0)
HERE = Place()


def spot(bearing: float, distance: float, radius: float = 0.5, **more: object) -> Obstacle:
    turn = math.radians(bearing)
    where = Place(distance * math.sin(turn), distance * math.cos(turn))
    return replace(Obstacle(points=(where,), radius_m=radius), **more)  # type: ignore[arg-type]


def on(*obstacles: Obstacle, **more: object) -> Site:
    return Site(obstacles=obstacles, **more)  # type: ignore[arg-type]


def standing(site: Site, lay: float = 0.0, **changes: object) -> Case:
    whole = case(round_tree(**changes))
    return replace(whole, site=site, cut=replace(whole.cut, lay_deg=lay))


@pytest.mark.parametrize(
    ("bearing", "distance", "hit"),
    [(0, 8, True), (0, 16, False), (20, 8, True), (40, 8, False), (180, 3, False), (20, 4, False), (0, 2, True)],
)
def test_the_footprint_is_stem_then_crown_widened_by_the_spread(bearing: float, distance: float, hit: bool) -> None:
    assert bool(hits_on(on(spot(bearing, distance)), HERE, STEM, 0.0)) is hit


@given(st.floats(0, 359), st.floats(1, 30), st.floats(0.1, 3.0), st.floats(0, 359), st.floats(0, 359))
def test_turning_site_and_lay_together_changes_nothing(
    bearing: float, distance: float, radius: float, lay: float, turn: float
) -> None:
    here = hits_on(on(spot(bearing, distance, radius)), HERE, STEM, lay)
    there = hits_on(on(spot(bearing + turn, distance, radius)), HERE, STEM, lay + turn)
    # Grazing within a hair of the edge may fall either way.
    off = math.remainder(bearing - lay, 360.0)
    along, aside = distance * math.cos(math.radians(off)), abs(distance * math.sin(math.radians(off)))
    edge = [
        abs(along - radius - 15),
        abs(along + radius + 1),
        abs(aside - radius - float(STEM.half_width_m(np.array(along)))),
    ]
    assume(min(edge) > 1e-6 and abs(along - 5.0) > 1e-6)
    assert bool(here) == bool(there)


def test_one_pass_over_all_bearings_agrees_with_one_bearing_at_a_time() -> None:
    job = demo_job()
    for plan in job.trees:
        footprint = footprint_of(plan.tree, plan.cut.height_m, 2.0)
        bearings = np.arange(0.0, 360.0, 7.0)
        table = hits_by_bearing(sampled(job.site, plan.at), footprint, bearings, len(job.site.obstacles))
        for bearing, row in zip(bearings.tolist(), table, strict=True):
            single = {hit.index for hit in hits_on(job.site, plan.at, footprint, bearing)}
            assert single == set(np.nonzero(row)[0].tolist())


def test_a_line_is_hit_between_its_corners_and_an_area_from_inside() -> None:
    wall = Obstacle(kind="wall", shape="line", points=(Place(-20, 10), Place(20, 10)))
    assert hits_on(on(wall), HERE, STEM, 0.0)[0].at_m == pytest.approx(10.0, abs=0.6)
    marsh = Obstacle(kind="soft", shape="area", points=(Place(-50, -50), Place(50, -50), Place(50, 50), Place(-50, 50)))
    assert hits_on(on(marsh), HERE, STEM, 0.0)[0].at_m == 0.0


def test_the_costliest_comes_first_and_rules_the_finding() -> None:
    site = on(spot(0, 5, cost="nuisance"), spot(0, 12, cost="never", name="hide"))
    found = finding(assess(standing(site)), "landing.targets")
    assert found.level == "stop"
    assert "hide, which must never be hit, and 1 more" in told(found.sentence)


@pytest.mark.parametrize(
    ("cost", "level"), [("none", "clear"), ("nuisance", "fact"), ("matters", "watch"), ("never", "stop")]
)
def test_what_a_hit_would_cost_sets_the_level(cost: str, level: str) -> None:
    found = finding(assess(standing(on(spot(0, 8, cost=cost)))), "landing.targets")
    assert (found.kind if found.kind == "fact" else found.level) == level


def test_a_site_with_nothing_drawn_is_not_judged_rather_than_clear() -> None:
    assert {"landing.not_judged", "way_out.not_judged"} <= finding_ids(assess(standing(Site())))


def test_a_persons_own_words_are_told_as_they_are_written() -> None:
    """Braces and brackets mean something in the program's own sentences only."""
    found = finding(assess(standing(on(spot(0, 8, name="the {odd} [hinge]", cost="never")))), "landing.targets")
    assert "the {odd} [hinge]" in told(found.sentence)


# Hang-up ---------------------------------------------------------------------------------------------------


FALLER = Faller(weight_N=1e4, com_up_m=6.0, com_forward_m=0.0, cut_m=0.0, is_conifer=False)


def neighbour(bearing: float, distance: float, height: float, radius: float = 2.0, base_m: float = 0.0) -> Obstacle:
    return spot(bearing, distance, radius, kind="tree", height_m=height, cost="none", base_m=base_m)


def met(other: Obstacle) -> Catch | None:
    found = catches_on(on(other), HERE, STEM, 0.0, FALLER, 1200.0)
    return found[0] if found else None


def test_a_tall_neighbour_near_by_catches_early_and_a_low_one_late() -> None:
    catches = [met(neighbour(20, 8, height, base_m=1.0)) for height in (16.0, 11.0, 6.0)]
    assert [c.tilt_deg for c in catches] == sorted(c.tilt_deg for c in catches)
    assert [c.use for c in catches] == sorted((c.use for c in catches), reverse=True)
    for catch in catches:
        assert catch.energy_J == pytest.approx(6e4 * (1 - math.cos(math.radians(catch.tilt_deg))))


def test_the_swept_crown_meets_a_neighbour_only_at_heights_where_both_have_wood() -> None:
    # The top of a 15 m tree, 8 m out, is asin(8/15) over and 12.7 m high: over a low shrub, under a high canopy.
    assert met(neighbour(20, 8, 16.0, base_m=15.5)) is None
    assert met(neighbour(20, 8, 0.2)) is None
    caught = met(neighbour(20, 8, 12.0, base_m=6.0))
    assert caught is not None and 6.0 <= caught.at_m <= 12.0


def test_a_neighbour_beside_or_behind_or_out_of_reach_catches_nothing() -> None:
    for other in (neighbour(180, 8, 14), neighbour(60, 12, 14), neighbour(0, 18, 14)):
        assert met(other) is None


def test_what_the_neighbour_takes_is_bounded_by_the_crown_it_meets() -> None:
    whole = met(neighbour(20, 6, 30.0, radius=40.0))
    assert whole is not None and whole.overlap == 1.0
    # An ellipse ten metres long and six wide, a strip at a time.
    assert whole.taken_J == pytest.approx(1200 * math.pi / 4 * 60.0, rel=0.02)


def test_stem_on_stem_is_a_stop_whatever_the_energy() -> None:
    light = on(neighbour(0, 8, 6, 0.3))
    assert finding(assess(standing(light)), "landing.hang_up").level == "stop"
    assert met(neighbour(0, 8, 6, 0.3)).on_stem  # type: ignore[union-attr]


def test_a_gap_is_told_with_what_it_leaves_beside_the_nearer_neighbour() -> None:
    gap = on(neighbour(50, 9, 14), replace(neighbour(-45, 9, 14), name="the near one"))
    index, spare = gap_m(gap, HERE, STEM, 0.0) or (-1, 0.0)
    assert (index, spare) == (1, pytest.approx(9 * math.sin(math.radians(45)) - 2.0 - 3.0))
    found = finding(assess(standing(gap)), "landing.hang_up")
    assert found.level == "clear" and "the near one" in told(found.sentence)


def test_a_crown_that_reaches_in_from_beside_or_beyond_is_met_though_its_stem_is_out_of_reach() -> None:
    """Its own crown is 3 m either side and the tree 15 m long: the other's crown makes up the rest."""
    beside = replace(neighbour(0.0, 0.0, 14.0, 2.5), points=(Place(4.5, 10.0),))
    beyond = neighbour(0.0, 16.5, 14.0, 4.0)
    for other in (beside, beyond):
        assert met(other) is not None
        assert met(replace(other, radius_m=1.0)) is None


def test_mirrored_neighbours_catch_alike() -> None:
    left, right = met(neighbour(-17, 8, 13, base_m=3.0)), met(neighbour(17, 8, 13, base_m=3.0))
    assert left is not None and right is not None
    assert (left.tilt_deg, left.taken_J, left.use) == pytest.approx((right.tilt_deg, right.taken_J, right.use))


@pytest.mark.parametrize(("towards", "level"), [(180.0, "stop"), (30.0, "watch")])
def test_a_tree_already_tangled_is_a_stop_unless_it_falls_into_the_tangle(towards: float, level: str) -> None:
    whole = standing(on(spot(180, 50)), around__tangled="yes", around__tangled_deg=towards)
    assert finding(assess(whole), "landing.tangled").level == level


def test_a_near_tall_crown_is_a_stop_that_names_it() -> None:
    found = finding(assess(standing(on(replace(neighbour(0, 6, 16, 3.0), name="the big ash")))), "landing.hang_up")
    assert (found.level, found.indicative) == ("stop", True)
    assert "the big ash" in told(found.sentence)


# Ways out and people ---------------------------------------------------------------------------------------


@given(st.floats(0, 359))
def test_the_ways_out_stand_at_135_degrees_either_side(lay: float) -> None:
    left, right = ways_out(Site(), HERE, lay)
    assert math.remainder(left.bearing_deg - lay + 135, 360) == pytest.approx(0, abs=1e-9)
    assert math.remainder(right.bearing_deg - lay - 135, 360) == pytest.approx(0, abs=1e-9)
    assert left.free and right.free


def ways_set(whole: Case) -> Case:
    """The same with both ways out set by a person: nothing is proposed in their place."""
    return replace(whole, cut=replace(whole.cut, way_left_deg=135.0, way_right_deg=135.0))


def test_a_wall_across_one_way_is_a_watch_and_across_both_a_stop() -> None:
    one = on(spot(135, 5, kind="rock", name="boulder"))
    found = finding(assess(ways_set(standing(one))), "way_out.paths")
    assert (found.level, "boulder" in told(found.sentence)) == ("watch", True)
    both = on(Obstacle(kind="wall", shape="line", points=(Place(-30, -4), Place(30, -4))))
    assert finding(assess(standing(both)), "way_out.paths").level == "stop"


@pytest.mark.parametrize(("radius", "free"), [(0.3, True), (0.65, True), (0.75, False), (1.5, False)])
def test_a_thing_bars_a_way_out_by_its_own_width(radius: float, free: bool) -> None:
    """Its middle 1.5 m beside a path of 1.6 m: from 0.7 m on it stands in the way."""
    turn = math.radians(135.0)
    aside = Place(4 * math.sin(turn) + 1.5 * math.cos(turn), 4 * math.cos(turn) - 1.5 * math.sin(turn))
    _, right = ways_out(on(Obstacle(kind="rock", points=(aside,), radius_m=radius)), HERE, 0.0, Ways(135.0, 135.0))
    assert right.free is free


def test_a_barred_way_is_proposed_anew_beside_what_bars_it_the_nearest_first() -> None:
    """A boulder of 1 m on the way: past it by 1 m of its own and 0.8 m to pass, which is 20 degrees at 5 m."""
    site = on(spot(135, 5, kind="rock", name="boulder"))
    site = replace(site, obstacles=(replace(site.obstacles[0], radius_m=0.8),))
    left, right = ways_out(site, HERE, 0.0)
    assert (left.off_lay_deg, right.off_lay_deg) == (135.0, 155.0)
    assert right.free and right.bearing_deg == pytest.approx(155.0)
    assert finding(assess(standing(site)), "way_out.paths").level == "clear"


def test_a_way_that_a_person_has_set_turns_with_the_lay_and_is_never_moved() -> None:
    barred = on(spot(135, 5, kind="rock"))
    for lay in (0.0, 90.0, 300.0):
        left, right = ways_out(barred, HERE, lay, Ways(None, 135.0))
        assert right.bearing_deg == pytest.approx((lay + 135.0) % 360)
        assert right.free is (lay != 0.0)
        assert left.off_lay_deg == 135.0


def test_a_crown_that_nobody_looked_into_is_gone_round_where_another_way_is_free() -> None:
    site = on(replace(neighbour(160, 6, 15.0, radius=3.4), overhead="unknown"))
    _, right = ways_out(site, HERE, 0.0)
    assert not right.under_unseen and right.off_lay_deg < 135.0
    assert finding(assess(ways_set(standing(site))), "way_out.paths").level == "unknown"


@given(st.lists(st.tuples(st.floats(90, 270), st.floats(2, 9)), max_size=5), st.floats(0, 359))
def test_what_is_proposed_is_never_worse_than_the_usual_way(rocks: list[tuple[float, float]], lay: float) -> None:
    site = on(*(spot(bearing, far, kind="rock") for bearing, far in rocks))
    usual = ways_out(site, HERE, lay, Ways(135.0, 135.0))
    proposed = ways_out(site, HERE, lay)
    for before, now in zip(usual, proposed, strict=True):
        assert now.against <= before.against
        assert NEAREST_LAY_DEG <= now.off_lay_deg <= FARTHEST_LAY_DEG
        assert now == before or before.against > 0


def test_a_steep_way_is_no_way_and_downhill_the_zone_is_longer() -> None:
    steep = Site(slope_deg=30.0, downhill_deg=135.0)
    assert [way.free for way in ways_out(steep, HERE, 0.0)] == [True, False]
    assert kept_away_m(steep, Place(), 20.0, 135.0) == pytest.approx(1.5 * kept_away_m(steep, Place(), 20.0, 315.0))
    assert kept_away_m(Site(slope_deg=2.0), Place(), 20.0, 90.0) == 40.0


@pytest.mark.parametrize(("overhead", "level"), [("no", "clear"), ("unknown", "unknown"), ("yes", "watch")])
def test_a_way_out_under_a_crown_is_no_better_than_what_hangs_there(overhead: str, level: str) -> None:
    site = on(replace(neighbour(110, 6, 15.0, radius=4.0), overhead=overhead, name="the poplar"))
    found = finding(assess(ways_set(standing(site))), "way_out.paths")
    assert found.level == level
    assert ("the poplar" in told(found.sentence)) == (level != "clear")


def test_a_track_inside_the_zone_must_be_closed() -> None:
    near, far = (Obstacle(kind="track", shape="line", points=(Place(-90, n), Place(90, n))) for n in (25.0, 35.0))
    assert people_inside(on(near, far), HERE, 15.0) == (0,)
    duty = finding(assess(standing(on(near, far))), "duty.people")
    assert duty.kind == "duty" and duty.about == "track or path"
    assert finding(assess(standing(on(far))), "duty.people").about == "nobody"


# Ropes -----------------------------------------------------------------------------------------------------


def test_advantages_without_friction_are_whole_numbers_and_with_it_less() -> None:
    assert [advantage_simple(n, 1.0) for n in (1, 2, 3, 5)] == [1, 2, 3, 5]
    assert advantage_simple(2, 0.8) == pytest.approx(1.8)
    assert advantage_simple(3, 0.8) == pytest.approx((1 - 0.8**3) / 0.2)
    assert advantage_three_on_two(1.0) == 6
    assert advantage_three_on_two(0.8) == pytest.approx(1.8 * 2.44)
    assert bark_efficiency(math.pi) == pytest.approx(math.exp(-0.25 * math.pi))


def test_a_redirect_carries_twice_the_pull_when_the_rope_comes_straight_back() -> None:
    assert redirect_load_N(1000.0, 0.0) == pytest.approx(2000.0)
    assert redirect_load_N(1000.0, 180.0) == pytest.approx(0.0, abs=1e-6)
    assert redirect_load_N(1000.0, 90.0) == pytest.approx(1414.2, abs=0.1)


def test_a_rope_set_higher_needs_less_pull_while_its_anchor_is_far_away() -> None:
    far = [pull_needed_N(20_000.0, up, 1e6) for up in (3.0, 6.0, 12.0)]
    assert far[0] == pytest.approx(2 * far[1], rel=1e-6) == pytest.approx(4 * far[2], rel=1e-6)
    assert pull_needed_N(20_000.0, 6.0, 20.0, off_lay_deg=60.0) == pytest.approx(2 * pull_needed_N(20_000.0, 6.0, 20.0))
    assert pull_needed_N(1.0, 6.0, 20.0, off_lay_deg=90.0) > 1e12 or math.isinf(pull_needed_N(1.0, 6.0, 20.0, 90.0))


# The rose --------------------------------------------------------------------------------------------------


def spokes(whole: Case, *bearings: float) -> tuple[Spoke, ...]:
    return whole_rose(whole, np.array(bearings))


def test_turning_tree_and_site_together_turns_the_rose_exactly() -> None:
    crown = tuple(CrownReading(b, r) for b, r in ((0.0, 3.0), (90.0, 5.0), (180.0, 3.0), (270.0, 2.0)))
    base = standing(on(spot(30, 8, cost="matters")), lean__angle_deg=3.0, lean__bearing_deg=20.0, crown__readings=crown)
    turned_crown = tuple(replace(edge, bearing_deg=(edge.bearing_deg + 90) % 360) for edge in crown)
    turned = standing(
        on(spot(120, 8, cost="matters")), lean__angle_deg=3.0, lean__bearing_deg=110.0, crown__readings=turned_crown
    )
    bearings = (0.0, 30.0, 75.0, 200.0)
    for one, other in zip(spokes(base, *bearings), spokes(turned, *(b + 90 for b in bearings)), strict=True):
        assert other.margin == pytest.approx(one.margin, abs=1e-6)
        assert (other.ruled_by, other.help, other.targets) == (one.ruled_by, one.help, one.targets)


def test_mirrored_lean_gives_a_mirrored_rose() -> None:
    left, right = (standing(Site(), lean__angle_deg=4.0, lean__bearing_deg=b) for b in (30.0, 330.0))
    for bearing in (0.0, 40.0, 100.0, 160.0):
        (one,), (other,) = spokes(left, bearing), spokes(right, -bearing % 360)
        assert other.margin == pytest.approx(one.margin, abs=1e-6)


def test_a_round_upright_tree_on_bare_ground_has_the_same_margin_all_round() -> None:
    margins = [spoke.margin for spoke in spokes(standing(Site(), crown__readings=ROUND), *np.arange(0.0, 360.0, 30.0))]
    assert max(margins) - min(margins) < 1e-6


def test_with_the_lean_it_goes_by_itself_and_against_it_wedges_are_wanted() -> None:
    whole = standing(Site(), lean__angle_deg=6.0, lean__bearing_deg=90.0)
    with_it, against_it = spokes(whole, 90.0, 270.0)
    assert with_it.help == "none"
    assert against_it.help in ("wedges", "not with this kit")
    assert against_it.pull_N > 0


def test_where_a_miss_would_cost_something_wedges_alone_are_not_enough() -> None:
    free = standing(Site(obstacles=(spot(180, 50),)))
    dear = replace(free, site=on(spot(180, 10, cost="never")))
    assert spokes(free, 0.0)[0].help == "wedges"
    assert spokes(dear, 0.0)[0].help == "not with this kit"
    matters = replace(free, site=on(spot(180, 10, cost="matters")))
    assert spokes(matters, 0.0)[0].help == "wedges"
    with_rope = replace(dear, kit=replace(dear.kit, pull_N=20_000.0))
    assert spokes(with_rope, 0.0)[0].help == "rope"


def test_something_that_must_never_be_hit_refuses_its_bearings_only() -> None:
    whole = standing(on(spot(0, 10, cost="never")))
    assert [spoke.refused for spoke in spokes(whole, 0.0, 180.0)] == [True, False]


def test_a_strong_forward_lean_in_wood_that_splits_is_judged_with_a_bored_cut() -> None:
    whole = standing(
        Site(), species="ash", height_m=24.0, lean__angle_deg=14.0, trunk__diameter_m=0.6, trunk__butt_diameter_m=0.6
    )
    (leaning,) = spokes(whole, 0.0)
    assert (leaning.back, leaning.level) == ("bored", "clear")
    assert whole_rose(standing(Site()), np.array([0.0]))[0].back == "plain"


def test_a_bearing_is_judged_with_the_design_the_practice_begins_with_there() -> None:
    whole = standing(Site(), trunk__cross_diameter_m=0.6, lean__angle_deg=6.0)
    for bearing in (0.0, 90.0, 180.0, 250.0):
        (spoke,) = spokes(whole, bearing)
        there = turned_to(whole, bearing)
        own = replace(there, cut=begun(there))
        uses = shares_of(alone(own)).at(0)
        assert spoke.back == own.cut.back.form
        assert 1.0 - spoke.margin == pytest.approx(max(uses.values()), abs=2e-3)
        low, high = whole.practice.face_depth_ratio
        assert low <= assess(own).parts.face.depth_ratio <= high


def test_a_rope_that_is_set_is_led_ahead_along_every_bearing() -> None:
    rope = replace(initial_rope(Rope(), Place(), 0.0, 15.0), haul_N=20_000.0, length_m=90.0)
    back = standing(Site(), lean__angle_deg=30.0, lean__bearing_deg=180.0)
    bare, roped = spokes(back, 0.0)[0], spokes(replace(back, rope=rope), 0.0, 40.0)
    assert bare.level == "stop"
    assert [each.help for each in roped] == ["rope", "rope"]
    assert bare.help == "not with this kit"


def test_every_demo_tree_has_a_workable_and_a_refused_or_failing_bearing() -> None:
    job = demo_job()
    reasons = set()
    for plan in job.trees:
        rose = spokes(case_of(job, plan.id), *np.arange(0.0, 360.0, 5.0))
        bad = [s for s in rose if s.refused or s.level == "stop" or s.help == "not with this kit"]
        assert bad, plan.id
        assert len(bad) < len(rose), plan.id
        reasons |= {s.refused_by or s.ruled_by for s in bad}
    assert {"landing.targets", "landing.hang_up"} < reasons
    assert len(reasons) >= 4


# Bad input -------------------------------------------------------------------------------------------------


def test_ground_up_which_the_stem_would_slide_back_refuses_its_bearings() -> None:
    steep = Site(slope_deg=32.0, downhill_deg=180.0)
    uphill, down = spokes(standing(steep), 0.0, 180.0)
    assert uphill.refused
    assert uphill.refused_by == "landing.slide"
    assert down.refused_by != "landing.slide"


def test_a_hollow_outline_does_not_cross_itself_though_its_sides_point_at_each_other() -> None:
    ell = ((0.0, 0.0), (4.0, 0.0), (4.0, 4.0), (3.0, 4.0), (3.0, 1.0), (0.0, 1.0))
    assert not crosses_itself(ell)
    assert not crosses_itself(ell[::-1])


def test_an_area_that_crosses_itself_is_refused() -> None:
    bow = ((0, 0), (4, 4), (4, 0), (0, 4))
    assert crosses_itself(tuple((float(e), float(n)) for e, n in bow))
    assert not crosses_itself(((0.0, 0.0), (4.0, 0.0), (4.0, 4.0), (0.0, 4.0)))
    area = Obstacle(shape="area", points=tuple(Place(e, n) for e, n in bow))
    with pytest.raises(InputError, match="crosses itself"):
        assess(standing(on(area)))


@pytest.mark.parametrize(("shape", "count"), [("spot", 2), ("line", 1), ("area", 2)])
def test_a_shape_with_too_few_or_too_many_points_is_refused(shape: str, count: int) -> None:
    points = tuple(Place(float(i), float(i * i)) for i in range(count))
    with pytest.raises(InputError, match=f"make no {shape}"):
        assess(standing(on(Obstacle(shape=shape, points=points))))


def test_every_kind_has_what_a_new_one_begins_as() -> None:
    assert set(USUAL) == set(KINDS)
