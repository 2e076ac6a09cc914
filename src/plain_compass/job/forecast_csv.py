"""A forecast of wind from CSV: columns hour, speed, gust and direction, units in the headings."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime, timedelta
from itertools import pairwise

from ..core.base.errors import PlainCompassError
from ..core.block.forecast import Hour
from .csv_rows import TableError, csv_rows, heading_of, number_in, unknown_unit
from .language import tr
from .units import SPEED_NAMES, SPEEDS

MOST_ROWS = 1000
"""Hours of a forecast: six weeks, more than anybody forecasts."""
ALIASES = {"time": "hour", "date": "hour", "wind": "speed", "mean": "speed", "gusts": "gust", "from": "direction"}
WANTED = tr("hour, speed [m/s], and where known gust [m/s] and direction [deg]")
WRITTEN = ("%Y-%m-%dT%H:%M", "%Y-%m-%d %H:%M", "%Y-%m-%dT%H", "%Y-%m-%d %H")
"""How an hour may be written."""
MOST_M_S = 60.0
"""Faster than any wind anybody fells in."""


def import_forecast(text: str, name: str) -> tuple[tuple[Hour, ...], tuple[str, ...]]:
    """(hours in order, a sentence for each row that was skipped and each gap). Raises TableError where it is none."""
    rows = csv_rows(text, name, MOST_ROWS)
    columns = _columns(rows[0], name)
    taken: dict[str, Hour] = {}
    told = list[str]()
    for number, row in enumerate(rows[1:], start=2):
        try:
            hour = _hour(row, columns)
        except (PlainCompassError, ValueError) as error:
            told.append(tr("Row {number}: {error}.", number=number, error=str(error).rstrip(".")))
            continue
        if hour.at in taken:
            told.append(
                tr("Row {number}: {said} is there twice; the first is kept.", number=number, said=_said(hour.at))
            )
        else:
            taken[hour.at] = hour
    if not taken:
        raise TableError(tr("{name} has no row that can be taken. {names}", name=name, names=" ".join(told)).rstrip())
    hours = tuple(taken[at] for at in sorted(taken))
    return hours, (*told, *gaps(hours))


def gaps(hours: Iterable[Hour]) -> tuple[str, ...]:
    """A sentence for every stretch within a forecast for which it says nothing."""
    times = [_time(hour.at) for hour in hours]
    told = []
    for one, other in pairwise(times):
        if other - one > timedelta(hours=1):
            first, last = one + timedelta(hours=1), other - timedelta(hours=1)
            span = f"{first:%Y-%m-%d %H}:00" + (tr(" to {last:%Y-%m-%d %H}:00", last=last) if last > first else "")
            told.append(tr("No wind is forecast for {span}: unknown, not calm.", span=span))
    return tuple(told)


def _time(at: str) -> datetime:
    return datetime.strptime(at, "%Y-%m-%dT%H")


def _said(at: str) -> str:
    return f"{_time(at):%Y-%m-%d %H}:00"


def _columns(headings: list[str], name: str) -> dict[str, tuple[int, float]]:
    """Heading -> (column, factor to m/s or degrees)."""
    found: dict[str, tuple[int, float]] = {}
    for index, heading in enumerate(headings):
        title, unit = heading_of(heading, ALIASES)
        if title in ("speed", "gust"):
            unit = SPEED_NAMES.get(unit, unit) or "m/s"
            if unit not in SPEEDS:
                raise unknown_unit(name, heading, unit, ", ".join(SPEEDS))
            found[title] = (index, SPEEDS[unit])
        elif title in ("hour", "direction"):
            found[title] = (index, 1.0)
    if not {"hour", "speed"} <= set(found):
        raise TableError(
            tr(
                "{name} has the headings {names}; wanted are {wanted}.",
                name=name,
                names=", ".join(headings),
                wanted=WANTED,
            )
        )
    return found


def _hour(row: list[str], columns: dict[str, tuple[int, float]]) -> Hour:
    cell = row[columns["hour"][0]].strip() if columns["hour"][0] < len(row) else ""
    at = next((time for how in WRITTEN if (time := _written(cell, how)) is not None), None)
    if at is None:
        raise ValueError(tr("“{cell}” is no hour; accepted: 2026-12-01 08:00", cell=cell[:40]))
    speed, gust, turn = (_number(row, columns, name) for name in ("speed", "gust", "direction"))
    if speed is None:
        raise ValueError(tr("it has no speed"))
    for name, value in (("speed", speed), ("gust", gust)):
        if value is not None and not 0.0 <= value <= MOST_M_S:
            raise ValueError(
                tr(
                    "{name} {value:.0f} m/s; accepted: 0 to {most_m_s:.0f} m/s",
                    name=name,
                    value=value,
                    most_m_s=MOST_M_S,
                )
            )
    if gust is not None and gust < speed:
        raise ValueError(
            tr("a gust of {gust:.1f} m/s is less than the mean of {speed:.1f} m/s", gust=gust, speed=speed)
        )
    if turn is not None and not 0.0 <= turn <= 360.0:
        raise ValueError(tr("direction {turn:.0f}; accepted: 0 to 360 degrees, whence it blows", turn=turn))
    return Hour(f"{at:%Y-%m-%dT%H}", speed, gust, turn)


def _written(cell: str, how: str) -> datetime | None:
    try:
        return datetime.strptime(cell, how)
    except ValueError:
        return None


def _number(row: list[str], columns: dict[str, tuple[int, float]], name: str) -> float | None:
    """A cell in SI; None where the table has no such column or the cell is empty."""
    if name not in columns or columns[name][0] >= len(row) or not row[columns[name][0]].strip():
        return None
    return number_in(row[columns[name][0]]) * columns[name][1]
