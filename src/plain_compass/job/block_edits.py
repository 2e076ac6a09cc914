"""What people decide of a block: one tree before another, a lay that stays, taken back again."""

from __future__ import annotations

import math
import re
from collections.abc import Sequence
from dataclasses import replace
from datetime import date

from ..core.base.errors import InputError, PlainCompassError
from ..core.base.quantity import Kind
from ..core.block.forecast import Hour
from ..core.block.search import CycleError, Fixed, check_fixed
from ..core.block.wanted import BlockWanted, First, OfTree
from .block_days import day_of
from .document import Job
from .fields import quantity_at
from .forecast_typed import typed_forecast
from .language import tr
from .typed import parse


def moved_in_order(job: Job, order: Sequence[str], tree_id: str, place: int) -> Job:
    """A tree moved to a place in the order: kept as that it comes before the next one, or after the one before it.

    What was decided of it before that goes against this is let go. Raises InputError where it goes round in a circle
    with what else was decided.
    """
    rest = [each for each in order if each != tree_id]
    earlier = place < list(order).index(tree_id)
    if earlier and place < len(rest):
        wanted = First(tree_id, rest[place])
    elif place > 0:
        wanted = First(rest[place - 1], tree_id)
    else:
        return job
    kept = tuple(each for each in job.block.first if {each.earlier, each.later} != {wanted.earlier, wanted.later})
    return _with(job, replace(job.block, first=(*kept, wanted)))


def _with(job: Job, block: BlockWanted) -> Job:
    """The job with what was decided, unless it goes round in a circle."""
    ids = [plan.id for plan in job.trees]
    known = [each for each in block.first if each.earlier in ids and each.later in ids]
    pairs = tuple((ids.index(each.earlier), ids.index(each.later)) for each in known)
    refuse_circle(ids, pairs)
    return replace(job, block=block)


def refuse_circle(ids: Sequence[str], pairs: Sequence[tuple[int, int]]) -> None:
    """Raise InputError, naming the trees, where pairs (earlier, later) that were decided go round in a circle."""
    try:
        check_fixed(len(ids), Fixed({}, tuple(pairs)))
    except CycleError as error:
        names = ", ".join(ids[tree] for tree in error.trees)
        told = tr("each of these is to come before the next, round in a circle; let one of them go")
        raise InputError("order", names, reason=told) from None


def _said(job: Job, now: OfTree) -> Job:
    """The job with what was decided of a tree; nothing is kept of one that nothing is decided of."""
    others = tuple(each for each in job.block.trees if each.id != now.id)
    return replace(job, block=replace(job.block, trees=(*others, now) if now != OfTree(now.id) else others))


def fixed_lay(job: Job, tree_id: str, *, stays: bool) -> Job:
    """A tree that stays on its lay, or may be laid another way again."""
    now = replace(job.block.of(tree_id), id=tree_id, lay="fixed" if stays else "free")
    return _said(job, now)


def decided(job: Job, tree_id: str, key: str, day: str) -> Job:
    """From when on (``not_before``) or until when (``not_after``) a tree may be felled; empty for any day.

    Raises InputError where it is no day, or where nothing is left between the two.
    """
    label = key.replace("_", " ")
    if day:
        day_of(day, label)
    kept = job.block.of(tree_id)
    days = {"not_before": kept.not_before, "not_after": kept.not_after, key: day}
    now = replace(kept, id=tree_id, not_before=days["not_before"], not_after=days["not_after"])
    if now.not_before and now.not_after and now.not_after < now.not_before:
        told = tr(
            "no day is left between {not_before} and {not_after}; accepted: not after on or behind not before",
            not_before=now.not_before,
            not_after=now.not_after,
        )
        raise InputError(label, day, reason=told)
    return _said(job, now)


def wind_limited(job: Job, tree_id: str, typed: str) -> Job:
    """The mean wind up to which a tree may be felled, as a person types it; empty for not said. Raises InputError."""
    limit = None if not typed.strip() else parse(typed, Kind.SPEED, job.units)
    if limit is not None:
        quantity_at("block.trees.0.wind_m_s").check(tr("wind limit"), limit)
    now = replace(job.block.of(tree_id), id=tree_id, wind_m_s=limit)
    return _said(job, now)


def begun(job: Job, day: str) -> Job:
    """The first day of a block; empty for today. Raises InputError where it is no day, or past."""
    if day and day_of(day, tr("first day")) < date.today():
        told = tr("it is past; accepted: {today} or later, or nothing for today", today=date.today().isoformat())
        raise InputError(tr("first day"), day, reason=told)
    return replace(job, block=replace(job.block, begins=day))


def worked(job: Job, typed: str) -> Job:
    """How many hours are worked a day, breaks left out. Raises InputError."""
    try:
        hours = float(typed.strip().removesuffix("h").strip().replace(",", "."))
    except ValueError:
        hours = math.nan
    day = quantity_at("block.day_s")
    if not day.low <= 3600.0 * hours <= day.high:
        told = tr("accepted: {low:g} to {high:g} hours of work", low=day.low / 3600, high=day.high / 3600)
        raise InputError(tr("hours a day"), typed, reason=told)
    return replace(job, block=replace(job.block, day_s=3600.0 * hours))


def _clock_s(field: str, typed: str) -> float:
    """Seconds after midnight of a time of day as 8, 8:30 or 08.30. Raises InputError."""
    match = re.fullmatch(r"(\d{1,2})(?:[:.](\d\d))?\s*h?", typed.strip())
    if match is None or int(match[1]) > 23 or int(match[2] or 0) > 59:
        raise InputError(field, typed, reason=tr("accepted: a time of day, as 8:00 or 7:30"))
    return 3600.0 * int(match[1]) + 60.0 * int(match[2] or 0)


def starting(job: Job, typed: str) -> Job:
    """When work begins. Raises InputError."""
    begins = _clock_s(tr("work begins"), typed)
    quantity_at("block.starts_s").check(tr("work begins"), begins)
    return replace(job, block=replace(job.block, starts_s=begins))


def breaking(job: Job, typed: str) -> Job:
    """When the long break is and how long, as ``12:00 30 min``; none where nothing is typed. Raises InputError."""
    if typed.strip().lower() in ("", "none", "no"):
        return replace(job, block=replace(job.block, break_s=0.0))
    at, _, long = typed.strip().partition(" ")
    begins = _clock_s("break", at)
    try:
        lasts = parse(long.strip() or "30 min", Kind.TIME, job.units)
    except PlainCompassError:
        raise InputError("break", typed, reason=tr("accepted: when and how long, as 12:00 30 min, or none")) from None
    quantity_at("block.break_s").check("break", lasts)
    return replace(job, block=replace(job.block, break_at_s=begins, break_s=lasts))


def winded(job: Job, typed: str) -> Job:
    """The forecast of the wind as typed by hand, in the place of what there was. Raises InputError."""
    return with_forecast(job, typed_forecast(typed, job.block.begins, job.units))


def with_forecast(job: Job, hours: Sequence[Hour]) -> Job:
    """The job with another forecast of the wind."""
    return replace(job, block=replace(job.block, forecast=tuple(hours)))


def let_go(job: Job, tree_id: str = "") -> Job:
    """Nothing decided any more of a tree, or of any."""
    if not tree_id:
        return replace(job, block=replace(job.block, first=(), trees=()))
    first = tuple(each for each in job.block.first if tree_id not in (each.earlier, each.later))
    trees = tuple(each for each in job.block.trees if each.id != tree_id)
    return replace(job, block=replace(job.block, first=first, trees=trees))
