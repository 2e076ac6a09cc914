"""What of the ground refuses a bearing is found for all of them at once, and is what the findings of each one say."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from plain_compass.core.advice.rose import Spoke, whole_rose, why_refused
from plain_compass.core.assess import assess
from plain_compass.core.base.levels import Level
from plain_compass.core.plan.case import Case
from plain_compass.core.site.rigging import Rope
from plain_compass.core.site.site import Obstacle, Place
from plain_compass.core.tree.around import Around
from plain_compass.job.demo import demo_job
from plain_compass.job.document import case_of

REFUSING = ("landing.targets", "landing.hang_up", "landing.tangled", "landing.slide", "way_out.")
BEARINGS = np.arange(0.0, 360.0, 15.0)


def crowded(tree_id: str) -> Case:
    """The demo's tree with a fence in both ways out on some lays, and its crown grown into a neighbour's."""
    case = case_of(demo_job(), tree_id)
    fences = [
        Obstacle(
            "fence",
            "",
            "none",
            "line",
            (Place(x + case.at.east_m, -6 + case.at.north_m), Place(x + case.at.east_m, 6 + case.at.north_m)),
        )
        for x in (-3.0, 3.0)
    ]
    around = replace(case.tree.around, tangled="yes", tangled_deg=80.0) if tree_id == "WH-18" else Around()
    return replace(
        case,
        tree=replace(case.tree, around=around),
        site=replace(case.site, obstacles=(*case.site.obstacles, *fences), slope_deg=25.0),
    )


def stops_of(case: Case, spoke: Spoke) -> list[tuple[str, object]]:
    """(id, sentence) of what stops a lay by its ground, in the order in which it is told."""
    lay = replace(case, rope=Rope(), cut=replace(case.cut, lay_deg=spoke.bearing_deg))
    order = {
        id: at
        for at, id in enumerate(
            ("landing.targets", "landing.hang_up", "landing.tangled", "way_out.paths", "way_out.stand", "landing.slide")
        )
    }
    stops = [f for f in assess(lay).findings if f.level == Level.STOP and f.id.startswith(REFUSING)]
    return [(f.id, f.sentence) for f in sorted(stops, key=lambda f: order[f.id])]


@pytest.mark.parametrize("tree_id", [plan.id for plan in demo_job().trees])
def test_the_rose_refuses_what_the_findings_of_that_lay_stop(tree_id: str) -> None:
    case, seen = crowded(tree_id), set[str]()
    for spoke in whole_rose(case, BEARINGS):
        if spoke.ruled_by == "cut":
            continue
        stops = stops_of(case, spoke)
        assert spoke.refused == bool(stops), spoke
        if stops:
            assert (spoke.refused_by, why_refused(case, spoke)) == stops[0]
            seen.add(spoke.refused_by)
        else:
            assert why_refused(case, spoke) is None
    assert seen
