"""What of the ground refuses a lay whatever the cut: of many lays at once, and why in the words of its finding."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import groupby
from typing import NamedTuple

import numpy as np

from ..base.levels import Level
from ..base.rows import Array, taken
from ..mechanics.mass import Mass
from ..mechanics.resting import slides_deg
from ..plan.case import Case
from ..plan.many import Many
from ..plan.reach import caught_by_bearing
from ..site.site import Cost
from ..site.ways_out import ways_by_bearing
from .findings import Finding
from .ground import hang_up_findings, hang_up_level, tangled_findings, targets_finding, tears_free, ways_finding
from .lying import slide_findings, slide_level


class Refusal(NamedTuple):
    """What of the ground refuses a lay.

    Attributes:
        id: of its finding; empty where nothing does.
        obstacle: index of the obstacle it is about; -1 where it is about none.
    """

    id: str = ""
    obstacle: int = -1


def refused(many: Many, targets: Sequence[Sequence[int]]) -> tuple[Refusal, ...]:
    """What of the ground refuses each of some lays whatever the cut; those of one tree stand next to one another.

    Args:
        targets: indices of the obstacles under the tree on each lay.
    """
    found, slides = list[Refusal](), many.resting.slides_deg
    for _, run in groupby(range(len(many.cases)), key=lambda at: (many.cases[at].at, id(many.cases[at].tree))):
        rows = np.array([*run])
        cases = [many.cases[row] for row in rows.tolist()]
        found += _refused(cases, taken(many.mass, rows), slides[rows].tolist(), [targets[row] for row in rows.tolist()])
    return tuple(found)


def _refused(
    cases: Sequence[Case], mass: Mass[Array], slides: Sequence[float], targets: Sequence[Sequence[int]]
) -> list[Refusal]:
    """The lays of one tree."""
    case = cases[0]
    lays = np.array([each.cut.lay_deg for each in cases])
    # By lay, the obstacle it is about, -1 where it is about none, nothing where it does not refuse.
    stops: dict[str, list[int | None]] = {
        "landing.tangled": [-1 if tears_free(case.tree.around, lay) else None for lay in lays.tolist()],
        "landing.slide": [-1 if slide_level(deg, case.constants) == Level.STOP else None for deg in slides],
    }
    if case.site.obstacles:
        catches = caught_by_bearing(case, mass, lays)
        ways = ways_by_bearing(case.site, case.at, lays, case.cut.ways)
        never = {index for index, each in enumerate(case.site.obstacles) if each.cost == Cost.NEVER}
        stops = {
            "landing.targets": [next((index for index in each if index in never), None) for each in targets],
            "landing.hang_up": [
                each[0].index if each and hang_up_level(each[0]) == Level.STOP else None for each in catches
            ],
            "landing.tangled": stops["landing.tangled"],
            "way_out.paths": [None if left.free or right.free else -1 for left, right in ways],
        } | stops
    found = ({id: stop[at] for id, stop in stops.items()} for at in range(len(lays)))
    return [next((Refusal(id, about) for id, about in each.items() if about is not None), Refusal()) for each in found]


def refusal(case: Case, mass: Mass, id: str) -> Finding | None:
    """The finding, by its id as ``refused`` gives it, about the lay of a case."""
    made = {
        "landing.targets": lambda: [targets_finding(case)],
        "landing.hang_up": lambda: hang_up_findings(case, mass),
        "landing.tangled": lambda: tangled_findings(case),
        "way_out.paths": lambda: [ways_finding(case)],
        "landing.slide": lambda: slide_findings(case, slides_deg(case.profile, case.tree.height_m - case.cut.height_m)),
    }
    return next(iter(made[id]()), None)
