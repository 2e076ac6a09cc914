"""The wind of a block's days: which trees can go when, and what of it nobody knows."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from datetime import date, timedelta

from ..core.base.phrase import phrase
from ..core.base.quantity import Kind
from ..core.block.forecast import Hour, Wind, hours_of, stretches, wind_in
from ..core.block.hours import Hours
from .block_days import day_of
from .document import Job
from .words import Speech


def forecast_of(job: Job) -> dict[str, Hour]:
    """Hour -> its wind."""
    return {hour.at: hour for hour in job.block.forecast}


def day_at(job: Job, day: int) -> date:
    """The date of a day of the block. Raises InputError."""
    return day_of(job.block.begins, "block.begins") + timedelta(days=day)


def windy(job: Job, ids: Sequence[str]) -> Callable[[int, int, float, float], bool]:
    """For ``into_days``: whether an hour in which a tree would be felled is forecast above its limit."""
    forecast, ratio = forecast_of(job), job.site.gust_ratio
    limits = [job.block.of(tree_id).wind_m_s for tree_id in ids]
    first = day_of(job.block.begins, "block.begins")

    def is_windy(tree: int, day: int, begins_min: float, ends_min: float) -> bool:
        if limits[tree] is None or not forecast:
            return False
        name = (first + timedelta(days=day)).isoformat()
        hours = _clock_hours(job.block.hours, name, begins_min, ends_min)
        return any(wind_in(forecast.get(at), limits[tree], ratio) == Wind.ABOVE for at in hours)

    return is_windy


def work_hours(job: Job, day: int) -> tuple[str, ...]:
    """The hours of work of a day."""
    hours = job.block.hours
    return _clock_hours(hours, day_at(job, day).isoformat(), 0.0, hours.work_min)


def _clock_hours(hours: Hours, day: str, begins_min: float, ends_min: float) -> tuple[str, ...]:
    """Hours by the clock that some minutes of work fall into, the break among them."""
    first, last = hours.clock_min(begins_min), hours.clock_min(ends_min, is_end=True)
    return hours_of(day, int(first // 60), int(-(-last // 60)))


def wind_words(job: Job, tree_id: str, day: int, speech: Speech) -> str:
    """When a tree can go on a day, for the wind, in one sentence."""
    limit = job.block.of(tree_id).wind_m_s
    if limit is None:
        return speech.phrase(phrase("block.wind_no_limit", tree=tree_id))
    found = stretches(work_hours(job, day), forecast_of(job), limit, job.site.gust_ratio)
    said = [
        speech.tell(phrase(f"block.wind_{wind}", first=f"{first[-2:]}:00", last=f"{int(last[-2:]) + 1:02d}:00"))
        for wind, first, last in found
    ]
    shown = speech.show(limit, Kind.SPEED)
    return speech.phrase(phrase("block.wind", tree=tree_id, limit=shown, hours=", ".join(said)))


def by_wind(job: Job, ids: Sequence[str], day: int) -> dict[Wind, tuple[str, ...]]:
    """Trees by what a day is for them: below where an hour of it is, unknown where one may be, else above."""
    found: dict[Wind, list[str]] = {wind: [] for wind in Wind}
    for tree_id in ids:
        limit = job.block.of(tree_id).wind_m_s
        winds = {w for w, _, _ in stretches(work_hours(job, day), forecast_of(job), limit, job.site.gust_ratio)}
        rules = Wind.BELOW if Wind.BELOW in winds else Wind.UNKNOWN if Wind.UNKNOWN in winds else Wind.ABOVE
        found[rules].append(tree_id)
    return {wind: tuple(trees) for wind, trees in found.items()}


def day_words(job: Job, ids: Sequence[str], day: int, speech: Speech) -> list[str]:
    """Which trees can go on a day for the wind, which cannot, and of which it is not known, a sentence each."""
    name = f"{day_at(job, day):%a %d %b}"
    if not job.block.forecast:
        return [speech.phrase("block.no_forecast")]
    groups = by_wind(job, ids, day).items()
    keys = ((f"block.wind_day_{wind}", trees) for wind, trees in groups if trees)
    return [speech.phrase(phrase(key, day=name, trees=", ".join(trees))) for key, trees in keys]
