"""An order of trees put into days by working hours, and what is needed for each day."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

from .cost import RIG, WALK_M_MIN


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
    may: tuple[int, int] = (0, 10_000)


def into_days(
    order: Sequence[int], jobs: Sequence[Job], day_min: float, waits: Mapping[int, Collection[int]] | None = None
) -> tuple[tuple[Slot, ...], tuple[int, ...]]:
    """(slots in order, trees that cannot be felled on any day they may be).

    A tree is not begun that would not be down by the end of the day, unless it takes more than a day by itself; a rope
    is rigged anew each morning. A tree that may not be felled yet is waited for by those that come after it for a
    reason, while others go on; those that may no longer be are left.

    Args:
        jobs: by index of tree; waits: tree -> those that must be down before it.
    """
    slots, left, waiting = list[Slot](), list[int](), [*order]
    day, at, rigged = 0, 0.0, False
    while waiting:
        held = set(waiting)
        free = [each for each in waiting if not held & set((waits or {}).get(each, ()))] or waiting
        tree = next((each for each in free if jobs[each].may[0] <= day), None)
        if tree is None:
            day, at, rigged = min(jobs[each].may[0] for each in free), 0.0, False
            continue
        job = jobs[tree]
        rigs = job.ropes and not rigged
        takes = job.minutes + job.walk_m / WALK_M_MIN + (RIG if rigs else 0.0)
        if at > 0 and at + takes > day_min:
            day, at, rigged = day + 1, 0.0, False
            continue
        waiting.remove(tree)
        if day > job.may[1]:
            left.append(tree)
            continue
        slots.append(Slot(tree, day, at, at + takes, rigs))
        at, rigged = at + takes, job.ropes
    return tuple(slots), tuple(left)
