"""What each lay of a tree would take, judged as if it stood alone: kept, since orders change oftener than trees."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from ..advice.rose import Asked, Spoke, spokes_of
from ..advice.sectors import sort_of
from ..assess import check
from ..base.kept import kept_each
from ..plan.case import Case
from ..plan.many import many_of
from ..plan.reach import meets_by_bearing
from ..site.site import Cost
from .minutes import minutes_of
from .trees import Lay

EVERY_DEG = 30.0
"""Bearings tried beside a tree's own lay: twelve, as far apart as two trees are laid apart on purpose."""
HARM = {Cost.NONE: 0.0, Cost.NUISANCE: 0.15, Cost.MATTERS: 1.0, Cost.NEVER: 3.0}
"""What lies under a lay weighs so much."""


class Judged(NamedTuple):
    """The lays of a tree, its own plan's first, and minutes to fell it."""

    lays: tuple[Lay, ...]
    minutes: float


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
        found.append(Judged(tuple(here), minutes_of(own, at)))
    return tuple(found)


def _lay(spoke: Spoke, case: Case) -> Lay:
    sort = sort_of(spoke, len(case.cut.wedges), case.kit, case.constants)
    harm = sum(HARM[Cost(case.site.obstacles[index].cost)] for index in spoke.targets)
    margin = min(max(spoke.margin, -1.0), 1.0)
    return Lay(spoke.bearing_deg, sort.takes, sort.wedges, spoke.pull_N, margin, harm, sort.why)
