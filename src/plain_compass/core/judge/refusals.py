"""What of the ground refuses a lay whatever the cut: of many lays at once, and why in the words of its finding."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..base.levels import Level
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


def refused(many: Many, targets: Sequence[Sequence[int]]) -> tuple[str, ...]:
    """What of the ground refuses each of some lays of one tree whatever the cut: the finding's id, or nothing.

    Args:
        targets: indices of the obstacles under the tree on each lay.
    """
    case = many.cases[0]
    lays = np.array([each.cut.lay_deg for each in many.cases])
    slides = many.resting.slides_deg.tolist()
    stops = {
        "landing.tangled": [tears_free(case.tree.around, lay) for lay in lays.tolist()],
        "landing.slide": [slide_level(deg, case.constants) == Level.STOP for deg in slides],
    }
    if case.site.obstacles:
        catches = caught_by_bearing(case, many.mass, lays)
        ways = ways_by_bearing(case.site, case.at, lays)
        never = {index for index, each in enumerate(case.site.obstacles) if each.cost == Cost.NEVER}
        stops = {
            "landing.targets": [not never.isdisjoint(each) for each in targets],
            "landing.hang_up": [bool(each) and hang_up_level(each[0]) == Level.STOP for each in catches],
            "landing.tangled": stops["landing.tangled"],
            "way_out.paths": [not (left.free or right.free) for left, right in ways],
        } | stops
    return tuple(next((id for id, stop in stops.items() if stop[at]), "") for at in range(len(lays)))


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
