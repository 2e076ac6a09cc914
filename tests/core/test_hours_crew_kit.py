"""A block's day by the clock, whose a tree is, and what is needed against what is packed."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from block_builders import tree
from plain_compass.core.advice.sectors import Takes
from plain_compass.core.block.cost import SAW_MIN, STACKED, costs_of
from plain_compass.core.block.crew import Worker
from plain_compass.core.block.days import NINE_IN_TEN, Job, Slot, into_days, nine_in_ten_min
from plain_compass.core.block.hours import Hours, clock_words
from plain_compass.core.block.judged import Graded
from plain_compass.core.block.kit import Needing, pieces_of, saw_of
from plain_compass.core.block.kit_sets import KitSet, packed_of
from plain_compass.core.block.precedence import meetings_of
from plain_compass.core.block.search import Fixed, exact
from plain_compass.core.block.trees import Lay
from plain_compass.core.block.whose import whose
from plain_compass.core.design.kit import Kit
from plain_compass.core.judge.who import Difficulty, Grade, Stated
from plain_compass.core.site.site import Obstacle, Place, Site
from plain_compass.core.site.ways_off import butt_to_way

DAY = Hours(480.0, 720.0, 30.0, 360.0)
"""From eight, half an hour off at noon, six hours of work."""


def test_a_day_of_six_hours_with_half_an_hour_off_ends_at_half_past_two() -> None:
    assert clock_words(DAY.clock_min(360.0, is_end=True)) == "14:30"
    assert clock_words(DAY.clock_min(240.0, is_end=True)) == "12:00", "what ends with the break ends before it"
    assert clock_words(DAY.clock_min(240.0)) == "12:30", "what begins then begins after it"


def test_nothing_is_worked_while_the_break_lasts() -> None:
    assert [DAY.worked_min(clock) for clock in (470.0, 720.0, 735.0, 750.0, 760.0)] == [0.0, 240.0, 240.0, 240.0, 250.0]


@given(st.floats(0, 360), st.floats(0, 360))
def test_the_clock_never_goes_back_and_reads_back_as_work(one: float, other: float) -> None:
    first, then = sorted((one, other))
    assert DAY.clock_min(first) <= DAY.clock_min(then)
    assert DAY.worked_min(DAY.clock_min(one)) == pytest.approx(one)


@given(st.floats(0, 1440), st.floats(0, 240))
def test_a_break_out_of_hours_changes_nothing(at_min: float, long_min: float) -> None:
    day = Hours(480.0, at_min, long_min, 360.0)
    if not 480.0 < at_min < 840.0:
        assert day.clock_min(360.0, is_end=True) == 840.0
    else:
        assert day.clock_min(360.0, is_end=True) == pytest.approx(840.0 + long_min)


def test_the_rest_of_a_day_goes_on_from_where_it_is() -> None:
    jobs = [Job(50.0, 0.0, False)] * 3
    slots, _ = into_days([0, 1, 2], jobs, 360.0, begins=(1, 250.0))
    assert [(slot.day, slot.begins_min) for slot in slots] == [(1, 250.0), (1, 300.0), (2, 0.0)]


def test_a_day_is_done_nine_times_in_ten_by_the_spread_of_its_trees_together() -> None:
    slots = [Slot(0, 0, 0.0, 30.0, False), Slot(1, 0, 30.0, 70.0, False)]
    assert nine_in_ten_min(slots, 0, 0.35) == pytest.approx(70.0 + NINE_IN_TEN * 0.35 * 50.0), "30 and 40 make 50"
    assert nine_in_ten_min(slots, 0, 0.0) == 70.0 and nine_in_ten_min(slots, 5, 0.35) == 0.0
    # Drawn by hand: nine in ten of made-up days are over by then.
    rng = np.random.default_rng(3)
    days = 30.0 * (1 + 0.35 * rng.standard_normal(20_000)) + 40.0 * (1 + 0.35 * rng.standard_normal(20_000))
    assert float(np.mean(days <= nine_in_ten_min(slots, 0, 0.35))) == pytest.approx(0.9, abs=0.01)


HARD = Graded(Difficulty(Grade.HARD, ()), 0.5)
PLAIN_LAY, ROPED = Lay(0.0, Takes.NOTHING), Lay(0.0, Takes.ROPE)


def worker(name: str, trained: str, biggest_m: float | None = None) -> Worker:
    return Worker(name, Stated(trained=trained, biggest_m=biggest_m))


def test_a_tree_is_for_those_trained_for_it_and_no_thicker_than_they_say() -> None:
    crew = [worker("a", "hard"), worker("b", "plain"), worker("c", "specialist", 0.4), worker("d", "not said")]
    found = whose(crew, HARD, PLAIN_LAY)
    assert (found.can, found.unsaid, found.is_nobodys) == (("a",), ("d",), False)
    assert whose(crew[1:3], HARD, PLAIN_LAY).is_nobodys


def test_a_rope_makes_a_tree_hard_and_unsaid_is_never_taken_as_trained() -> None:
    easy, crew = Graded(Difficulty(Grade.PLAIN, ()), 0.3), [worker("a", "plain"), worker("d", "not said")]
    assert whose(crew, easy, PLAIN_LAY).can == ("a",)
    on_rope = whose(crew, easy, ROPED)
    assert (on_rope.can, on_rope.unsaid, on_rope.grade) == ((), ("d",), Grade.HARD)


def needing(takes: Takes, wedges: int = 0, across_m: float = 0.4, *, closes: bool = False) -> Needing:
    return Needing(tree("t", 0.0, 0.0, 0.0), Lay(0.0, takes, wedges=wedges, pull_N=3000.0), across_m, closes)


def test_what_is_needed_is_held_against_all_sets_that_come_along() -> None:
    sets = [KitSet(name="one", bar_m=0.33, wedges=2), KitSet(name="two", bar_m=0.6, wedges=2, packed="no")]
    trees = [needing(Takes.WEDGES, 3), needing(Takes.NOTHING, across_m=0.8)]
    pieces = {each.key: each for each in pieces_of(trees, packed_of(sets, Kit()), 0.025)}
    assert pieces["wedges"].is_packed is False and pieces["wedges"].trees == (0,)
    assert pieces["bar"].is_packed is False and pieces["bar"].trees == (1,), (
        "a bar of 33 cm reaches half of 40, not of 80"
    )
    both = {e.key: e for e in pieces_of(trees, packed_of([replace(each, packed="yes") for each in sets], Kit()), 0.025)}
    assert both["wedges"].is_packed and both["bar"].is_packed and both["maul"].is_packed is False


def test_wedges_with_thinner_heads_than_planned_do_not_count() -> None:
    thin = packed_of([KitSet(name="one", wedges=9, wedge_head_m=0.015)], Kit())
    (wedges, *_) = pieces_of([needing(Takes.WEDGES, 2)], thin, 0.025)
    assert wedges.key == "wedges" and wedges.is_packed is False


def test_a_way_is_closed_with_signs_and_what_nobody_lists_is_not_known() -> None:
    pieces = {e.key: e for e in pieces_of([needing(Takes.ROPE, closes=True)], packed_of([], Kit(pull_N=9e3)), 0.025)}
    assert pieces["signs"].is_packed is None and pieces["rope"].is_packed is None and pieces["pull"].is_packed
    assert "signs" not in {e.key for e in pieces_of([needing(Takes.ROPE)], packed_of([], Kit()), 0.025)}


def test_a_tree_takes_the_shortest_saw_that_reaches_half_of_it() -> None:
    assert [saw_of(across, [0.33, 0.45]) for across in (0.5, 0.66, 0.7, 2.0)] == [0, 0, 1, 1]
    assert saw_of(0.5, []) == 0


def test_trees_of_one_saw_are_felled_together() -> None:
    row = [tree(str(n), 30.0 * (n % 2), 40.0 * (n // 2), 0.0) for n in range(4)]
    trees = [replace(each, saw=n // 2) for n, each in enumerate(row)]
    order = exact(costs_of(trees, meetings_of(trees)), Fixed()).order
    assert sum(trees[a].saw != trees[b].saw for a, b in pairwise(order)) == 1
    apart = costs_of(trees, meetings_of(trees)).walk - costs_of(row, meetings_of(row)).walk
    assert apart[0, 2] == pytest.approx(SAW_MIN) and apart[0, 1] == 0.0


def test_one_that_reaches_over_a_stack_is_felled_before_timber_lies_there() -> None:
    far = [tree(id, east, 0.0, 0.0) for id, east in (("a", 0.0), ("b", 60.0), ("c", 120.0))]
    last = replace(far[2], lays=(replace(far[2].lays[0], stacks=(0,)),))
    trees = [*far[:2], last]
    costs = costs_of(trees, meetings_of(trees))
    assert costs.before[0, 0, 2, 0] - costs_of(far, meetings_of(far)).before[0, 0, 2, 0] == pytest.approx(STACKED)
    assert exact(costs, Fixed()).order[0] == 2


@pytest.mark.parametrize(("lay_deg", "told"), [(0.0, 1.0), (180.0, -1.0), (90.0, 0.0), (60.0, 0.5)])
def test_a_stem_that_falls_straight_away_from_the_track_has_its_butt_to_it(lay_deg: float, told: float) -> None:
    track = Obstacle("track", "ride", "none", "line", (Place(-50.0, -10.0), Place(50.0, -10.0)), 1.0, 0.0)
    assert butt_to_way(Site(obstacles=(track,)), Place(), lay_deg) == pytest.approx(told, abs=1e-9)
    assert butt_to_way(Site(), Place(), lay_deg) is None
    assert butt_to_way(Site(obstacles=(track,)), Place(0.0, 80.0), lay_deg) is None, "too far to be turned for"
