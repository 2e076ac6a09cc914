"""An order of trees put into days by working hours, and what is needed for each day."""

from __future__ import annotations

import math
from collections.abc import Callable, Collection, Iterator, Mapping, Sequence
from itertools import chain

from ..base.frozen import dataclass
from .cost import RIG, WALK_M_MIN
from .trees import ANY_DAY

NINE_IN_TEN = 1.2816
"""Spreads of a normal variable below which nine in ten of its values lie."""
HOUR_MIN = 60.0
"""A forecast goes by hours."""


@dataclass(frozen=True, slots=True)
class Slot:
    """One tree in the day strip: which, and from when to when, in minutes of work of its day."""

    tree: int
    day: int
    begins_min: float
    ends_min: float
    rigs: bool


@dataclass(frozen=True, slots=True)
class Job:
    """What one tree takes: minutes by itself, metres to walk there, whether by rope, days on which it may be felled."""

    minutes: float
    walk_m: float
    ropes: bool
    may: tuple[int, int] = ANY_DAY


Windy = Callable[[int, int, float, float], bool]
"""Whether a tree cannot be felled for the wind: (tree, day, minutes of work from, to)."""


def into_days(
    order: Sequence[int],
    jobs: Sequence[Job],
    day_min: float,
    waits: Mapping[int, Collection[int]] | None = None,
    windy: Windy = lambda *_: False,
    begins: tuple[int, float] = (0, 0.0),
) -> tuple[tuple[Slot, ...], tuple[int, ...]]:
    """(slots in order, trees that cannot be felled on any day they may be).

    A tree is not begun that would not be down by the end of the day, unless it takes more than a day by itself; a rope
    is rigged anew each morning. A tree that may not be felled yet, or not in the wind there is, is waited for by those
    that come after it for a reason, while others go on; those that may no longer be are left.

    Args:
        jobs: by index of tree; waits: tree -> those that must be down before it.
        begins: day, and minutes of work in it, at which the first may be begun.
    """
    slots, left, waiting = list[Slot](), list[int](), [*order]
    (day, at), rigged, needed = begins, False, waits or {}
    while waiting:
        in_season = (each for each in _ready(waiting, needed) if jobs[each].may[0] <= day)
        goes = ((each, at + _takes(jobs[each], rigged)) for each in in_season)
        tree, ends = next(((each, ends) for each, ends in goes if not windy(each, day, at, ends)), (None, at))
        if tree is None and all(jobs[each].may[0] > day for each in _ready(waiting, needed)):
            day, at, rigged = min(jobs[each].may[0] for each in _ready(waiting, needed)), 0.0, False
            continue
        if tree is None:
            # All of them wait for the wind to drop: an hour, or until morning.
            at = HOUR_MIN * (at // HOUR_MIN + 1)
            if at >= day_min:
                day, at, rigged = day + 1, 0.0, False
            continue
        if at > 0 and ends > day_min:
            day, at, rigged = day + 1, 0.0, False
            continue
        waiting.remove(tree)
        if day > jobs[tree].may[1]:
            left.append(tree)
            continue
        slots.append(Slot(tree, day, at, ends, jobs[tree].ropes and not rigged))
        at, rigged = ends, jobs[tree].ropes
    return tuple(slots), tuple(left)


def _ready(waiting: Sequence[int], needed: Mapping[int, Collection[int]]) -> Iterator[int]:
    """Those that wait for none that stands, in order; all of them where each waits for another."""
    held = set(waiting)
    free = (each for each in waiting if held.isdisjoint(needed.get(each, ())))
    first = next(free, None)
    return iter(waiting) if first is None else chain([first], free)


def nine_in_ten_min(slots: Sequence[Slot], day: int, spread_ln: float) -> float:
    """Minutes of work within which a day is done nine times in ten: its trees' times are apart from one another."""
    here = [slot for slot in slots if slot.day == day]
    spread = math.sqrt(sum(((slot.ends_min - slot.begins_min) * spread_ln) ** 2 for slot in here))
    return max((slot.ends_min for slot in here), default=0.0) + NINE_IN_TEN * spread


def _takes(job: Job, rigged: bool) -> float:
    """Minutes of one tree, with the walk there and its rope where none is up."""
    return job.minutes + job.walk_m / WALK_M_MIN + (RIG if job.ropes and not rigged else 0.0)
