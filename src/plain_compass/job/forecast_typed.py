"""A forecast of the wind as people type it: ``8-12 5 m/s gust 9 SW; 12-16 8 m/s``, for the first day or a named one."""

from __future__ import annotations

import re
from collections.abc import Iterator
from datetime import date
from itertools import groupby

from ..core.base.errors import InputError, PlainCompassError
from ..core.base.quantity import Kind
from ..core.block.forecast import Hour, hours_of
from .block_days import day_of
from .forecast_csv import MOST_M_S
from .language import in_english, tr, tr_mark
from .typed import parse
from .words import Speech

ACCEPTED = tr("8-12 5 m/s gust 9 m/s SW; 12-16 8 m/s; a day before the hours where it is not the first")
"""How it is written."""
_PIECE = re.compile(
    r"(?:(?P<day>\d{4}-\d\d-\d\d)\s+)?(?P<first>\d{1,2})(?::00)?(?:\s*(?:-|–|to)\s*(?P<last>\d{1,2})(?::00)?)?\s*h?\s+"
    r"(?P<speed>\d[\d.,]*\s*(?:[a-z/]+)?)(?:\s+gusts?\s+(?P<gust>\d[\d.,]*\s*(?:m/s|km/h|mph|kn|knots?|kmh)?))?"
    r"(?:\s+(?P<way>[nesw]{1,3}|\d{1,3}°))?",
    re.IGNORECASE,
)


def typed_forecast(text: str, begins: str, units: str) -> tuple[Hour, ...]:
    """Hours of wind, in order. Raises InputError where a piece cannot be read, naming it."""
    first_day = day_of(begins, tr("first day"))
    found: dict[str, Hour] = {}
    for piece in filter(None, (each.strip() for each in in_english(text, (tr_mark("gust"),)).split(";"))):
        for hour in _hours(piece, first_day, units):
            found[hour.at] = hour
    return tuple(found[at] for at in sorted(found))


def _hours(piece: str, first_day: date, units: str) -> Iterator[Hour]:
    match = _PIECE.fullmatch(piece)
    if match is None:
        raise _refused(piece)
    day = (day_of(match["day"], "wind") if match["day"] else first_day).isoformat()
    first = int(match["first"])
    last = int(match["last"]) if match["last"] else first + 1
    if not 0 <= first < last <= 24:
        raise _refused(piece, tr("the hours go from the earlier to the later, up to 24; "))
    speed = _speed(match["speed"], units, piece)
    gust = None if match["gust"] is None else _speed(match["gust"], units, piece)
    if gust is not None and gust < speed:
        raise _refused(piece, tr("a gust is not less than the mean; "))
    from_deg = None if match["way"] is None else parse(match["way"], Kind.BEARING, units)
    for at in hours_of(day, first, last):
        yield Hour(at, speed, gust, from_deg)


def _speed(text: str, units: str, piece: str) -> float:
    try:
        found = parse(text, Kind.SPEED, units)
    except PlainCompassError:
        raise _refused(piece) from None
    if not 0.0 <= found <= MOST_M_S:
        raise _refused(piece, tr("no wind is faster than {most_m_s:.0f} m/s; ", most_m_s=MOST_M_S))
    return found


def _refused(piece: str, why: str = "") -> InputError:
    return InputError("wind", piece, reason=tr("{why}accepted: {accepted}", why=why, accepted=ACCEPTED))


def forecast_words(hours: tuple[Hour, ...], begins: str, speech: Speech) -> str:
    """A forecast as it would be typed: hours alike in a row together."""
    first_day, told = day_of(begins, tr("first day")).isoformat(), []
    for _, run in groupby(enumerate(hours), key=lambda each: _alike(each[1], each[0])):
        some = [hour for _, hour in run]
        day, begun = some[0].at.split("T")
        gust = "" if some[0].gust_m_s is None else f" {tr('gust')} {speech.show(some[0].gust_m_s, Kind.SPEED)}"
        way = "" if some[0].from_deg is None else f" {some[0].from_deg:.0f}°"
        named = "" if day == first_day else f"{day} "
        span = f"{int(begun)}-{int(begun) + len(some)}"
        told.append(f"{named}{span} {speech.show(some[0].speed_m_s, Kind.SPEED)}{gust}{way}")
    return "; ".join(told)


def _alike(hour: Hour, place: int) -> tuple[object, ...]:
    """Hours of one day that follow one another and have the same wind have the same of this."""
    day, at = hour.at.split("T")
    return day, int(at) - place, hour.speed_m_s, hour.gust_m_s, hour.from_deg
