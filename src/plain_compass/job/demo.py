"""The demo jobs: six trees on the made-up island reserve of Withy Holm, and its coppice coupe of twenty-four."""

from __future__ import annotations

from functools import cache

from .document import Job
from .files import parse_job
from .language import tr
from .tables import DATA


@cache
def demo_job() -> Job:
    """The demo job as it ships."""
    return parse_job((DATA / "demo" / "withy-holm.pcjob.json").read_text(encoding="utf-8"), tr("the demo job")).job


@cache
def demo_coupe() -> Job:
    """The demo's coupe: many trees, a track, a stack and a permit."""
    return parse_job(
        (DATA / "demo" / "withy-holm-coupe.pcjob.json").read_text(encoding="utf-8"), tr("the demo coupe")
    ).job
