"""``plain-compass rose``: what every bearing would mean for one tree."""

from __future__ import annotations

import argparse
import json
from functools import partial

import numpy as np

from ..core.judge_ground import called
from ..core.rose import Spoke, whole_rose
from ..core.site import Site
from ..job.document import Job, TreePlan, case_of
from ..job.report import plain
from ..job.words import Speech
from .opening import whole


def add_to(parser: argparse.ArgumentParser) -> None:
    """Add how finely, and in which form."""
    degrees = partial(whole, 1, 90)
    told = "a bearing every so many degrees, 1 to 90"
    parser.add_argument("--every", type=degrees, default=1, metavar="DEGREES", help=told)
    parser.add_argument("--json", action="store_true", help="print one JSON object")


def run(job: Job, tree: TreePlan, arguments: argparse.Namespace) -> int:
    """Print the rose."""
    case = case_of(job, tree.id)
    spokes = whole_rose(case, np.arange(0.0, 360.0, arguments.every))
    if arguments.json:
        rows = [_row(spoke, case.site, job.speech) for spoke in spokes]
        print(json.dumps({"tree": tree.id, "rose": rows}, indent=2, ensure_ascii=False, allow_nan=False))
        return 0
    print(f"{'bearing':>8}  {'margin':>7}  {'ruled by':<18}  {'help':<18}  {'refused by':<18}  targets")
    for spoke in spokes:
        targets = ", ".join(called(case.site.obstacles[index]) for index in spoke.targets)
        cells = f"{spoke.bearing_deg:>7.0f}°  {spoke.margin * 100:>5.0f} %  {spoke.ruled_by:<18}  {spoke.help:<18}"
        print(f"{cells}  {spoke.refused_by or '–':<18}  {targets}".rstrip())
    return 0


def _row(spoke: Spoke, site: Site, speech: Speech) -> dict[str, object]:
    """One bearing with the names of what lies under the tree."""
    found: dict[str, object] = plain(spoke)
    why = None if spoke.why is None else speech.phrase(spoke.why)
    return found | {"why": why, "targets": [called(site.obstacles[index]) for index in spoke.targets]}
