"""What each lay of a tree would take, judged as if it stood alone: kept, since orders change oftener than trees."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from ..advice.rose import Spoke, spokes_at
from ..advice.sectors import sort_of
from ..assess import assess
from ..base.kept import kept
from ..plan.case import Case
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


@kept("lays of a block's trees", 1024)
def judged(case: Case, *, may_turn: bool) -> Judged:
    """Judge a tree on its own lay and, where it may be turned, on twelve others.

    Raises InputError where the plan cannot be assessed.
    """
    others = np.arange(0.0, 360.0, EVERY_DEG) if may_turn else ()
    bearings = np.array((case.cut.lay_deg, *others), dtype=np.float64)
    spokes = spokes_at(case, bearings.tolist(), meets_by_bearing(case, bearings))
    return Judged(tuple(_lay(spoke, case) for spoke in spokes), minutes_of(assess(case)))


def _lay(spoke: Spoke, case: Case) -> Lay:
    sort = sort_of(spoke, len(case.cut.wedges), case.kit, case.constants)
    harm = sum(HARM[Cost(case.site.obstacles[index].cost)] for index in spoke.targets)
    margin = min(max(spoke.margin, -1.0), 1.0)
    return Lay(spoke.bearing_deg, sort.takes, sort.wedges, spoke.pull_N, margin, harm, sort.why)
