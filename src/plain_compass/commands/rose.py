"""``plain-compass rose``: what every bearing would mean for one tree."""

from __future__ import annotations

import argparse
from functools import partial

import numpy as np

from ..core.advice.rose import Spoke, whole_rose, why_refused
from ..core.base.levels import Level
from ..core.base.quantity import Kind
from ..core.plan.case import Case
from ..core.plan.reach import called
from ..core.site.site import Site
from ..job.document import Job, TreePlan, case_of
from ..job.language import tr
from ..job.report import plain
from ..job.stamp import output_text
from ..job.words import Speech
from .opening import whole


def add_to(parser: argparse.ArgumentParser) -> None:
    """Add how finely, and in which form."""
    degrees = partial(whole, 1, 90)
    told = tr("a bearing every so many degrees, 1 to 90")
    parser.add_argument("--every", type=degrees, default=1, metavar="DEGREES", help=told)
    parser.add_argument("--json", action="store_true", help=tr("print one JSON object"))


def run(job: Job, tree: TreePlan, arguments: argparse.Namespace) -> int:
    """Print the rose."""
    case = case_of(job, tree.id)
    spokes = whole_rose(case, np.arange(0.0, 360.0, arguments.every))
    if arguments.json:
        rows = [_row(spoke, case, job.speech) for spoke in spokes]
        print(output_text({"tree": tree.id, "rose": rows}, job.practice))
        return 0
    table = [("bearing", "margin", "help", tr("what rules"), tr("refused: why"), "targets")]
    table += [_told(spoke, case.site, job.speech) for spoke in spokes]
    widths = [max(len(row[i]) for row in table) for i in range(5)]
    for row in table:
        print("  ".join([*(cell.ljust(width) for cell, width in zip(row, widths, strict=False)), row[5]]).rstrip())
    return 0


def _told(spoke: Spoke, site: Site, speech: Speech) -> tuple[str, str, str, str, str, str]:
    """One bearing in words; past its limit a margin is no longer worth a number."""
    margin = speech.show(spoke.margin, Kind.RATIO) if spoke.margin >= 0 else "none"
    return (
        speech.show(spoke.bearing_deg, Kind.BEARING),
        "unknown" if spoke.level == Level.UNKNOWN else margin,
        speech.named("help", spoke.help),
        speech.ruling(spoke.ruled_by) if spoke.level == Level.STOP else speech.named("groups", spoke.group).lower(),
        speech.ruling(spoke.refused_by) if spoke.refused else "–",
        ", ".join(tr(called(site.obstacles[index])) for index in spoke.targets),
    )


def _row(spoke: Spoke, case: Case, speech: Speech) -> dict[str, object]:
    """One bearing with the names of what lies under the tree."""
    found: dict[str, object] = plain(spoke)
    why = why_refused(case, spoke)
    told = None if why is None else speech.phrase(why)
    return found | {"why": told, "targets": [tr(called(case.site.obstacles[index])) for index in spoke.targets]}
