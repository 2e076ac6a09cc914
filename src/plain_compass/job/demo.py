"""The demo job: six trees on the made-up island reserve of Withy Holm, each with a difficulty of its own."""

from __future__ import annotations

from functools import cache

from .document import Job
from .files import parse_job
from .tables import DATA


@cache
def demo_job() -> Job:
    """The demo job as it ships."""
    return parse_job((DATA / "demo" / "withy-holm.pcjob.json").read_text(encoding="utf-8"), "the demo job").job
