"""What each lay of a tree would take, judged as if it stood alone: kept, since orders change oftener than trees."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from ..advice.rose import Asked, Spoke, spokes_of
from ..advice.sectors import sort_of
from ..assess import check
from ..base.kept import kept_each
from ..judge.who import Difficulty, difficulty_of
from ..plan.case import Case, Planned
from ..plan.many import many_of
from ..plan.minutes import cutting_min
from ..plan.reach import meets_by_bearing
from ..site.site import Cost
from ..site.ways_off import butt_to_way
from .trees import Lay

EVERY_DEG = 30.0
"""Bearings tried beside a tree's own lay: twelve, as far apart as two trees are laid apart on purpose."""
HARM = {Cost.NONE: 0.0, Cost.NUISANCE: 0.15, Cost.MATTERS: 1.0, Cost.NEVER: 3.0}
"""What lies under a lay weighs so much."""


class Judged(NamedTuple):
    """What is known of a tree by itself.

    Attributes:
        lays: what it could take, its own plan's first.
        cutting_min: minutes from the first cut to the tree on the ground.
    """

    lays: tuple[Lay, ...]
    cutting_min: float


class Turning(NamedTuple):
    """A tree as if it stood alone, and whether it may be laid another way than it is planned."""

    case: Case
    may_turn: bool


@kept_each("lays of a block's trees", 1024)
def judged(trees: Sequence[Turning]) -> tuple[Judged, ...]:
    """Judge trees on their own lays and, where they may be turned, on twelve others; all of them at once.

    Raises InputError where the plan of one cannot be assessed.
    """
    asked = list[Asked]()
    for case, may_turn in trees:
        check(case)
        others = np.arange(0.0, 360.0, EVERY_DEG) if may_turn else ()
        bearings = np.array((case.cut.lay_deg, *others), dtype=np.float64)
        asked += map(Asked, [case] * len(bearings), bearings.tolist(), meets_by_bearing(case, bearings))
    own = many_of([tree.case for tree in trees])
    lays, found = list(map(_lay, spokes_of(asked), (each.case for each in asked))), list[Judged]()
    for at, tree in enumerate(trees):
        count = 1 + round(360.0 / EVERY_DEG) if tree.may_turn else 1
        here, lays = lays[:count], lays[count:]
        blows, pause_s = (float(each[at]) for each in (own.wedging.blows, own.wedging.pause_s))
        found.append(Judged(tuple(here), cutting_min(tree.case, own.sections.section(at), blows, pause_s)))
    return tuple(found)


class Graded(NamedTuple):
    """How hard a tree is with its own plan, and its thickness at the cut."""

    difficulty: Difficulty
    across_m: float


@kept_each("how hard a block's trees are", 1024)
def graded(cases: Sequence[Case]) -> tuple[Graded, ...]:
    """Grade trees as they are planned: asked only where somebody has said who is there to fell them."""
    many = many_of(cases)
    plans = [Planned(case, many.parts(at)) for at, case in enumerate(cases)]
    return tuple(Graded(difficulty_of(each), each.parts.section.diameter_m) for each in plans)


def _lay(spoke: Spoke, case: Case) -> Lay:
    sort = sort_of(spoke, len(case.cut.wedges), case.kit)
    harm = sum(HARM[Cost(case.site.obstacles[index].cost)] for index in spoke.targets)
    margin = min(max(spoke.margin, -1.0), 1.0)
    kinds = [case.site.obstacles[index].kind for index in spoke.targets]
    return Lay(
        spoke.bearing_deg,
        sort.takes,
        wedges=sort.wedges,
        pull_N=spoke.pull_N,
        margin=margin,
        harm=harm,
        why=sort.why,
        butt_to_way=butt_to_way(case.site, case.at, spoke.bearing_deg),
        stacks=tuple(index for index, kind in zip(spoke.targets, kinds, strict=True) if kind == "stack"),
    )
