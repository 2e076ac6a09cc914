"""Wind hour by hour against what each tree may be felled in: when one can go, and what is not known.

A tree's limit is a mean speed at the crowns that a person states; a gust counts against it by the site's ratio of gusts
to the mean. An hour without a forecast, and a tree without a limit, are unknown, never calm.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from enum import StrEnum

from ..base.frozen import dataclass
from ..base.quantity import Kind, name, quantity


@dataclass(frozen=True, slots=True)
class Hour:
    """The wind of one hour, as forecast.

    Attributes:
        at: its beginning, as 2026-12-01T08.
        gust_m_s, from_deg: None where the forecast does not say.
    """

    at: str = name("", "hour")
    speed_m_s: float = quantity(
        0.0, kind=Kind.SPEED, low=0.0, high=60.0, label="mean wind", step=0.5, help="Mean speed in that hour."
    )
    gust_m_s: float | None = quantity(
        None, kind=Kind.SPEED, low=0.0, high=90.0, label="gusts", step=0.5, optional=True, help="Strongest gust."
    )
    from_deg: float | None = quantity(
        None, kind=Kind.BEARING, low=0.0, high=360.0, label="wind from", step=5.0, optional=True, help="Where from."
    )


class Wind(StrEnum):
    """What an hour is for a tree."""

    BELOW = "below"
    ABOVE = "above"
    UNKNOWN = "unknown"


def mean_of_m_s(hour: Hour, gust_ratio: float) -> float:
    """The mean speed an hour counts as: its own, or what its gust is the gust of, whichever is more."""
    return max(hour.speed_m_s, 0.0 if hour.gust_m_s is None else hour.gust_m_s / gust_ratio)


def wind_in(hour: Hour | None, limit_m_s: float | None, gust_ratio: float) -> Wind:
    """Whether a tree with a limit can go in an hour; None is an hour nobody forecast, or a limit nobody stated."""
    if hour is None or limit_m_s is None:
        return Wind.UNKNOWN
    return Wind.ABOVE if mean_of_m_s(hour, gust_ratio) > limit_m_s else Wind.BELOW


def hours_of(day: str, first: int, last: int) -> tuple[str, ...]:
    """The hours of a day from ``first`` up to, but without, ``last``."""
    return tuple(f"{day}T{hour:02d}" for hour in range(first, last))


def stretches(
    hours: Sequence[str], forecast: Mapping[str, Hour], limit_m_s: float | None, gust_ratio: float
) -> tuple[tuple[Wind, str, str], ...]:
    """Hours in a row that are alike: (what they are, the first, the last)."""
    found: list[tuple[Wind, str, str]] = []
    for at in hours:
        wind = wind_in(forecast.get(at), limit_m_s, gust_ratio)
        if found and found[-1][0] == wind:
            found[-1] = (wind, found[-1][1], at)
        else:
            found.append((wind, at, at))
    return tuple(found)
