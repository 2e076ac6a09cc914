"""Switching on and off what of one's own stumps is used in plans."""

from __future__ import annotations

from dataclasses import replace

from ..core.stump.hand import Used, with_used, without
from .document import Job

IN_PLANS = ("aim", "hinge_left", "hinge_right", "height", "lean", "blows", "lift", "split", "time")
"""Quantities that plans rest on; depth and step are only held up to one."""


def use_in_plans(job: Job, used: Used) -> Job:
    """The job planned by what was learned of a quantity."""
    return replace(job, hand=with_used(job.hand, used))


def as_shipped(job: Job, key: str) -> Job:
    """The job planned by what ships of a quantity."""
    return replace(job, hand=without(job.hand, key))
