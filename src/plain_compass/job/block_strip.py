"""A block's days by the clock: when each tree is begun and done, and when a day is done nine times in ten."""

from __future__ import annotations

from datetime import timedelta

from ..core.block.days import nine_in_ten_min
from ..core.block.hours import clock_words
from ..core.plan.minutes import SPREAD_LN
from .block import Ordered
from .block_days import day_of
from .document import Job
from .language import tr


def days_of(found: Ordered) -> range:
    """Days from the first to the last on which anything is felled."""
    return range(max((slot.day for slot in found.slots), default=-1) + 1)


def day_name(job: Job, day: int) -> str:
    """A day as it is called."""
    return f"{day_of(job.block.begins, 'block.begins') + timedelta(days=day):%a %d %b}"


def clock_of(job: Job, begins_min: float, ends_min: float) -> tuple[float, float]:
    """Minutes of work as minutes after midnight, from and to."""
    hours = job.block.hours
    return hours.clock_min(begins_min), hours.clock_min(ends_min, is_end=True)


def by_then_min(job: Job, found: Ordered, day: int) -> float:
    """When a day is done nine times in ten, in minutes after midnight."""
    return job.block.hours.clock_min(nine_in_ten_min(found.slots, day, SPREAD_LN), is_end=True)


def done_words(job: Job, found: Ordered, day: int) -> str:
    """When a day is done, and how late it may get."""
    last = max((slot.ends_min for slot in found.slots if slot.day == day), default=0.0)
    ends = clock_words(job.block.hours.clock_min(last, is_end=True))
    return tr(
        "{day_name}: done about {ends}, nine times in ten by {clock_words}",
        day_name=day_name(job, day),
        ends=ends,
        clock_words=clock_words(by_then_min(job, found, day)),
    )
