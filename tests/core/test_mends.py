"""Ways out: each makes its limit clear and nothing else a stop, the simplest first; and what is worth measuring."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st

from builders import case, finding, plain_cut, round_tree
from plain_compass.core.advice.begin import begun
from plain_compass.core.advice.levers import changes
from plain_compass.core.advice.mend import Mends, mends_for, to_mend
from plain_compass.core.advice.suggest import suggest
from plain_compass.core.advice.worth import clears_after, most_worth
from plain_compass.core.assess import Assessment, assess, with_chances
from plain_compass.core.base.levels import FindingKind
from plain_compass.core.judge.chances import CLEAR_BETA, Spreads, Way, chances_of
from plain_compass.core.plan.case import Case
from plain_compass.core.site.site import Obstacle, Place, Site
from plain_compass.core.tree.tree import Crown, CrownReading, Decay
from plain_compass.job.spreads import cutting_spreads, usual_spreads, wood_spreads


def spreads(made: Case) -> Spreads:
    return Spreads(usual_spreads(made.tree), wood_spreads(made.tree.species), cutting_spreads())


def leaning(along: float, across: float, diameter: float = 0.4, **kit: Any) -> Case:
    """A tree that leans so, its crown with it, its first design on a lay to the north; looked at, calm."""
    angle = math.hypot(along, across)
    bearing = math.degrees(math.atan2(across, along)) % 360.0
    off = 10.0 * math.tan(math.radians(angle))
    edges = tuple(
        CrownReading(turn, max(3.0 + off * math.cos(math.radians(turn - bearing)), 0.0))
        for turn in (0.0, 90.0, 180.0, 270.0)
    )
    tree = round_tree(
        trunk__diameter_m=diameter, trunk__butt_diameter_m=diameter, height_m=20.0 + 10.0 * diameter,
        crown=Crown(base_m=6.0, readings=edges), lean__angle_deg=angle, lean__bearing_deg=bearing,
    )  # fmt: skip
    kit = {"wedge_thickness_m": 0.025, "wedge_length_m": 0.2} | kit
    made = replace(case(tree, plain_cut(), **kit), site=Site(wind_m_s=0.0, looked="yes"))
    return replace(made, cut=begun(made))


def judged(made: Case) -> tuple[Assessment, dict[str, Mends]]:
    chances = chances_of(made, spreads(made))
    result = with_chances(assess(made), chances)
    ids = [f.id for f in to_mend(result)]
    found = mends_for(result, spreads(made), chances, ids)
    assert found is not None
    return result, found


@settings(max_examples=20, deadline=None, suppress_health_check=[HealthCheck.filter_too_much])
@given(along=st.floats(-3.0, 6.0), across=st.floats(-4.0, 4.0), diameter=st.floats(0.22, 0.7), wedges=st.integers(1, 3))
def test_a_mend_makes_its_finding_clear_and_nothing_else_a_stop(
    along: float, across: float, diameter: float, wedges: int
) -> None:
    made = leaning(along, across, diameter, wedge_count=wedges, bar_m=0.6)
    result, found = judged(made)
    assume(any(each.mends for each in found.values()))
    stops = {f.id for f in result.findings if f.level == "stop"}
    for id, answer in found.items():
        costs = [mend.change.cost for mend in answer.mends]
        assert costs == sorted(costs) and len(costs) <= 3
        assert len({mend.change.lever for mend in answer.mends}) == len(costs)
        for mend in answer.mends:
            after = assess(mend.change.case)
            after = with_chances(after, chances_of(after.case, spreads(after.case)))
            mended = [f for f in after.findings if f.id == id and f.kind == FindingKind.LIMIT]
            assert all(f.level == "clear" for f in mended)
            assert {f.id for f in after.findings if f.level == "stop"} <= stops


def test_the_second_wedge_is_offered_before_another_lay() -> None:
    made = leaning(-1.2, 0.0, 0.42, wedge_count=2)
    made = replace(made, cut=replace(made.cut, wedges=made.cut.wedges[:1], goes_on="wedges"))
    _, found = judged(made)
    assert found["balance.over"].mends[0].change.lever in ("wedges", "stack", "goes_on")


def test_a_tree_the_kit_can_bring_over_by_stacking_needs_no_mend() -> None:
    """The second wedge on the first is the plan itself, no way out of a trouble."""
    _, found = judged(leaning(-1.2, 0.0, 0.42, wedge_count=2))
    assert "balance.over" not in found


def test_a_wedge_more_is_asked_for_where_one_is_too_few() -> None:
    _, found = judged(leaning(-2.2, 0.0, 0.42, wedge_count=1))
    answer = found["balance.over"]
    assert answer.mends or answer.would[0].lever == "carry"


def test_mends_come_in_the_order_in_which_a_faller_tries_them() -> None:
    order = [change.cost for change in changes(assess(leaning(-2.0, 1.0, 0.42)))]
    levers = {change.lever.partition(":")[0]: change.cost for change in changes(assess(leaning(-2.0, 1.0, 0.42)))}
    assert max(order) <= 11
    assert levers["stack"] < levers["thinner"] < levers["thicker"] < levers["taper"] < levers["rope"]
    assert levers["rope"] < levers["height"] < levers["lay"]


def test_no_rope_is_offered_for_a_crown_that_a_neighbour_holds() -> None:
    made = leaning(-1.0, 0.0, 0.42)
    at = Place(0.0, 7.0)
    near = Obstacle("tree", "oak", "none", "spot", (at,), 3.0, 22.0, 5.0)
    made = replace(made, site=replace(made.site, obstacles=(near,)), kit=replace(made.kit, pull_N=30_000.0))
    result, found = judged(made)
    assert finding(result, "landing.hang_up").level != "clear"
    assert not [mend for mend in found["landing.hang_up"].mends if mend.change.lever == "rope"]


def test_nobody_is_told_to_cut_above_the_knee_without_a_reason() -> None:
    sound = {c.case.cut.height_m for c in changes(assess(leaning(-2.0, 0.0))) if c.lever == "height"}
    assert max(sound) <= 0.6
    hollow = leaning(-2.0, 0.0)
    tree = replace(hollow.tree, decay=Decay(kind="cavity", radius_m=0.08))
    rotten = {c.case.cut.height_m for c in changes(assess(replace(hollow, tree=tree))) if c.lever == "height"}
    assert 0.6 < max(rotten) <= 1.2


def test_where_nothing_at_hand_does_it_the_rope_that_would_is_told() -> None:
    made = leaning(-5.0, 0.0, 0.4, wedge_count=1, stackable="no")
    weak = replace(made, kit=replace(made.kit, pull_N=0.0))
    _, found = judged(weak)
    answer = found["balance.over"]
    assert not any(mend.change.lever == "rope" for mend in answer.mends)
    assert answer.mends or [change.lever for change in answer.would] == ["rope"]
    strong = replace(made, kit=replace(made.kit, pull_N=30_000.0))
    assert any(mend.change.lever == "rope" for mend in judged(strong)[1]["balance.over"].mends)


def test_depth_is_never_bought_past_the_practice_nor_a_hinge_below_its_least() -> None:
    made = leaning(0.0, 0.0)
    low, high = made.practice.face_depth_ratio
    depth = assess(made).parts.section.depth_m
    for change in changes(assess(made)):
        if change.lever == "depth":
            assert low * depth - 1e-3 <= change.case.cut.face.depth_m <= high * depth + 1e-3
        assert change.case.cut.hinge.left_m >= made.practice.hinge_least_m - 1e-9


def test_another_lay_is_offered_only_where_no_likely_fall_hits_what_must_never_be_hit() -> None:
    """A shed beside a lay, not under the crown as it would lie, and still in the fan."""
    made = leaning(-2.5, 0.0, 0.42, wedge_count=1)
    free = judged(made)[1]["balance.over"]
    lay = next(mend.change.case.cut.lay_deg for mend in free.mends if mend.change.lever.startswith("lay"))
    turn = math.radians(lay + 17.0)
    at = Place(18.0 * math.sin(turn), 18.0 * math.cos(turn))
    shed = Obstacle("roof", "shed", "never", "spot", (at,), 1.0, 4.0)
    beside = replace(made, site=replace(made.site, obstacles=(shed,)))
    offered = [mend.change.case.cut.lay_deg for mend in judged(beside)[1]["balance.over"].mends]
    assert lay not in offered


def test_a_search_ends_when_it_is_told_to() -> None:
    made = leaning(-3.0, 0.0, wedge_count=1)
    chances = chances_of(made, spreads(made))
    result = with_chances(assess(made), chances)
    told: list[float] = []
    ids = [f.id for f in to_mend(result)]
    assert mends_for(result, spreads(made), chances, ids, lambda share: told.append(share) or len(told) < 4) is None  # type: ignore[func-returns-value]
    assert told == sorted(told)


def test_the_practices_own_design_is_suggested_first_where_it_is_clear() -> None:
    made = leaning(2.5, 0.0)
    found = suggest(assess(made), spreads=spreads(made))
    assert found is not None and found.best[0].is_own
    assert found.best[0].forms == ("open", "strip", "plain")


def test_a_design_begins_bored_for_a_leaner_and_wedge_first_for_a_small_stem_that_would_sit_back() -> None:
    assert leaning(12.0, 0.0, 0.45).cut.back.form == "bored"
    assert leaning(-0.5, 0.0, 0.2, wedge_count=2).cut.back.form == "quarter"
    assert leaning(2.0, 0.0).cut.back.form == "plain"


def test_a_leaner_cut_from_behind_goes_early_and_an_upright_tree_does_not() -> None:
    plain = replace(leaning(12.0, 0.0, 0.45), cut=plain_cut(hinge__left_m=0.045, hinge__right_m=0.045))
    assert finding(assess(plain), "split.early").level == "stop"
    assert finding(assess(leaning(0.0, 0.0)), "split.early").margin == 1.0


# Worth measuring -------------------------------------------------------------------------------------------


def test_what_a_better_look_gains_is_how_often_it_comes_out_clear() -> None:
    """Against drawing what the new reading says, and judging each outcome by the spread that is left."""
    way = Way(0.8, np.array([0.5, 0.2, 0.1]), math.sqrt(0.25 + 0.04 + 0.01))
    left = 0.25
    told = np.random.default_rng(3).standard_normal(200_000) * 0.5 * math.sqrt(1 - left**2)
    rest = math.sqrt((0.5 * left) ** 2 + 0.04 + 0.01)
    assert clears_after(way, 0, left) == pytest.approx(float(((0.8 + told) / rest > CLEAR_BETA).mean()), abs=0.005)


def test_a_perfect_look_at_all_there_is_settles_it_as_often_as_it_holds() -> None:
    way = Way(0.3, np.array([0.5]), 0.5)
    assert clears_after(way, 0, 0.0) == pytest.approx(1 - chance_below(0.3 / 0.5))


def chance_below(index: float) -> float:
    return math.erfc(index / math.sqrt(2.0)) / 2


def test_nothing_is_worth_measuring_where_everything_is_clear() -> None:
    made = leaning(2.5, 0.0)
    chances = chances_of(made, spreads(made))
    result = with_chances(assess(made), chances)
    clear = tuple(f for f in result.findings if f.level == "clear")
    assert most_worth(clear, chances, {}) is None
