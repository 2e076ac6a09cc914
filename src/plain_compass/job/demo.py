"""The demo job: one hornbeam on the made-up island reserve of Withy Holm."""

from __future__ import annotations

from .document import Job
from .files import parse_job
from .tables import DATA


def demo_job() -> Job:
    """The demo job as it ships."""
    return parse_job((DATA / "demo" / "withy-holm.pcjob.json").read_text(encoding="utf-8"), "the demo job").job
