"""Bearings gathered into sectors: none lost, none told easier than it is, the same whichever way the plan is turned."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from plain_compass.core.advice.rose import Spoke
from plain_compass.core.advice.sectors import LEAST_DEG, Sector, Sort, Takes, sectors_of, sort_of
from plain_compass.core.base.levels import Group, Level
from plain_compass.core.design.kit import Kit

PLAIN = Spoke(0.0, 0.5, "hinge.side", Group.HINGE, Level.CLEAR, "none", 0.0, 0.0, 0.0, (), False, "plain")
SORTS = (
    Sort(Takes.NOTHING),
    Sort(Takes.WEDGES, 1),
    Sort(Takes.WEDGES, 2),
    Sort(Takes.ROPE),
    Sort(Takes.MORE, why="hinge.side"),
    Sort(Takes.REFUSED, why="landing.targets", obstacle=0),
    Sort(Takes.REFUSED, why="landing.targets", obstacle=1),
)


def rose(sorts: list[Sort]) -> list[Spoke]:
    return [replace(PLAIN, bearing_deg=float(at), margin=(at * 37 % 360) / 360.0) for at in range(len(sorts))]


def round_of(runs: list[tuple[Sort, int]]) -> list[Sort]:
    sorts = [sort for sort, count in runs for _ in range(count)]
    return (sorts * (360 // max(len(sorts), 1) + 1))[:360]


def holds(sector: Sector, bearing: int) -> bool:
    return (bearing - sector.from_deg) % 360.0 < sector.width_deg


runs = st.lists(st.tuples(st.sampled_from(SORTS), st.integers(1, 40)), min_size=1, max_size=12)


@given(runs)
def test_every_bearing_is_in_one_sector_and_they_go_all_the_way_round(given_runs: list[tuple[Sort, int]]) -> None:
    sorts = round_of(given_runs)
    found = sectors_of(rose(sorts), sorts)
    assert sum(each.width_deg for each in found) == pytest.approx(360.0)
    assert all(sum(holds(each, at) for each in found) == 1 for at in range(360))


@given(runs)
def test_no_bearing_is_told_easier_than_it_is(given_runs: list[tuple[Sort, int]]) -> None:
    sorts = round_of(given_runs)
    for each in sectors_of(rose(sorts), sorts):
        assert all(sorts[at].rank <= each.sort.rank for at in range(360) if holds(each, at))


@given(runs)
def test_what_is_narrower_than_the_least_is_harder_than_both_its_neighbours(given_runs: list[tuple[Sort, int]]) -> None:
    sorts = round_of(given_runs)
    found = sectors_of(rose(sorts), sorts)
    for at, each in enumerate(found):
        if each.width_deg < LEAST_DEG and len(found) > 1:
            neighbours = found[at - 1], found[(at + 1) % len(found)]
            assert all(other.sort.rank < each.sort.rank for other in neighbours)


@given(runs, st.integers(1, 359))
def test_a_plan_turned_on_has_the_same_sectors_turned_on(given_runs: list[tuple[Sort, int]], by: int) -> None:
    sorts = round_of(given_runs)
    turned = sorts[-by:] + sorts[:-by]
    here = {(each.sort, each.from_deg, each.width_deg) for each in sectors_of(rose(sorts), sorts, 0.0)}
    there = {(each.sort, each.from_deg, each.width_deg) for each in sectors_of(rose(turned), turned, 0.0)}
    if len(here) > 1:
        assert there == {(sort, (first + by) % 360, width) for sort, first, width in here}


@given(runs)
def test_the_best_lay_of_a_sector_is_one_of_its_own_and_has_the_largest_margin(
    given_runs: list[tuple[Sort, int]],
) -> None:
    sorts = round_of(given_runs)
    spokes = rose(sorts)
    for each in sectors_of(spokes, sorts):
        own = [at for at in range(360) if holds(each, at) and sorts[at] == each.sort]
        assert each.best.margin == max(spokes[at].margin for at in own)


def test_a_slip_of_ease_between_two_refusals_is_not_offered_and_a_lone_refusal_is_never_hidden() -> None:
    never, free = SORTS[5], SORTS[0]
    sorts = round_of([(never, 40), (free, 3), (never, 40), (free, 277)])
    assert [(each.sort, each.width_deg) for each in sectors_of(rose(sorts), sorts)] == [(never, 83.0), (free, 277.0)]
    sorts = round_of([(free, 100), (never, 1), (free, 259)])
    assert {each.sort: each.width_deg for each in sectors_of(rose(sorts), sorts)} == {never: 1.0, free: 359.0}


@pytest.mark.parametrize(
    ("changes", "wanted"),
    [
        ({}, Sort(Takes.NOTHING)),
        ({"help": "wedges", "way": "wedges"}, Sort(Takes.WEDGES, 2)),
        ({"help": "wedges", "way": "stack and thin"}, Sort(Takes.WEDGES, 3)),
        ({"help": "rope", "lift_m": 0.03}, Sort(Takes.ROPE)),
        ({"help": "not with this kit"}, Sort(Takes.MORE)),
        ({"level": Level.STOP, "ruled_by": "split.index"}, Sort(Takes.MORE, why="split.index")),
        (
            {"refused": True, "refused_by": "landing.hang_up", "refused_at": 4, "level": Level.STOP},
            Sort(Takes.REFUSED, why="landing.hang_up", obstacle=4),
        ),
    ],
)
def test_what_a_bearing_takes(changes: dict[str, Any], wanted: Sort) -> None:
    # Two places for wedges, and three wedges carried.
    assert sort_of(replace(PLAIN, **changes), 2, Kit()) == wanted
