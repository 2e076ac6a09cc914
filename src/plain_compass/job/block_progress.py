"""What became of a block's trees and when: kept with the time it took, and where in the day the rest begins."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, datetime

from ..core.base.errors import InputError
from ..core.base.phrase import phrase
from ..core.base.quantity import check_name
from ..core.block.progress import Progress
from .block_days import day_of
from .document import STATES, Job, with_tree
from .language import tr
from .words import Speech

WRITTEN = "%Y-%m-%dT%H:%M"
"""How the moment is kept."""
MOST = 5000
"""Entries kept: more trees than anybody fells in one job."""


def marked(job: Job, tree_id: str, state: str, now: datetime, told_min: float | None = None) -> Job:
    """A tree felled, hung, put off, blown over or standing again, and when that was said.

    Args:
        told_min: minutes that were told of it; None where nobody reckoned them.

    Raises InputError for a state there is none of.
    """
    plan = job.plan(tree_id)
    if state not in STATES:
        raise InputError("state", state, reason=tr("accepted: {accepted}", accepted=", ".join(STATES)))
    check_name("tree", tree_id)
    kept = tuple(each for each in job.block.progress if each.tree != tree_id)
    if state != "standing":
        at = now.strftime(WRITTEN)
        took = _worked_since(job, kept, now) if state == "down" else None
        entry = Progress(tree_id, state, at, took, None if took is None else told_min)
        kept = (*kept, entry)[-MOST:]
    return with_tree(replace(job, block=replace(job.block, progress=kept)), tree_id, replace(plan, state=state))


def _moment(entry: Progress) -> datetime:
    return datetime.strptime(entry.at, WRITTEN)


def _worked_since(job: Job, progress: tuple[Progress, ...], now: datetime) -> float | None:
    """Minutes of work since what was said last on the same day, or since work began; None where that is not after."""
    hours = job.block.hours
    clock = now.hour * 60.0 + now.minute
    before = [_moment(each) for each in progress if _moment(each).date() == now.date()]
    since = max((each.hour * 60.0 + each.minute for each in before), default=hours.starts_min)
    found = hours.worked_min(clock) - hours.worked_min(since)
    return found if found > 0 else None


def goes_on_from(job: Job) -> tuple[int, float]:
    """(day, minutes of work in it) where the rest begins: after what was said last; at the beginning else."""
    first, said = day_of(job.block.begins, "block.begins"), job.block.progress
    last = max((_moment(each) for each in said), default=None)
    if last is None or last.date() < first:
        return 0, 0.0
    return (last.date() - first).days, job.block.hours.worked_min(last.hour * 60.0 + last.minute)


def progress_words(job: Job, speech: Speech) -> list[str]:
    """What was done, newest first, and how it went against what was told."""
    lines = []
    for each in reversed(job.block.progress):
        took = "" if each.took_min is None else tr(", {took_min:.0f} min", took_min=each.took_min)
        lines.append(f"{each.at.replace('T', ' ')}  {each.tree} {STATES.get(each.state, each.state)}{took}")
    timed = [each for each in job.block.progress if each.took_min and each.told_min]
    if timed:
        took, told = (sum(v for e in timed if (v := getattr(e, name))) for name in ("took_min", "told_min"))
        share = f"{took / told:.1f}"
        lines.insert(0, speech.phrase(phrase("block.pace", count=float(len(timed)), share=share)))
    return lines


def is_past(job: Job, today: date) -> bool:
    """Whether the first day is past and nothing was done since: an order by days that are gone."""
    begins = job.block.begins
    return bool(begins) and begins < today.isoformat() and goes_on_from(job) == (0, 0.0)
