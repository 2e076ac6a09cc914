"""Day and year: what was felled, by whom, with which cut, how it came out; and what was too close."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from ..core.base.frozen import dataclass
from ..core.base.polygon import Array
from ..core.stump.facts import NAMES
from ..core.stump.reliability import in_fan_share
from ..core.stump.told import lost_early
from ..job.language import tr
from ..job.log_entries import forms_of
from .records import records_of
from .store import Filter, Listed, StumpLog

CLOSE = ("hit", "sat", "split", "lost")
"""Facts that make a stump one to talk about: something hit, sat back, split, hinge lost early."""
BY = ("day", "faller", "species", "cut", "saw", "place")
"""What is counted by."""


@dataclass(frozen=True, slots=True)
class Summary:
    """What a list of entries comes to.

    Attributes:
        count: entries; by: heading -> value -> how many.
        blows, time_s: together, of those that say so; timed how many do.
        read: how many say where the top lies; inside how many of those lay within their fan, of told with one.
        miss_deg: median distance from the lay, either way; nothing where none was read.
        near: numbers of the entries that were too close.
    """

    count: int
    by: dict[str, dict[str, int]]
    blows: int
    time_s: float
    timed: int
    read: int
    inside: int
    told: int
    miss_deg: float | None
    near: tuple[int, ...]


def summary_of(log: StumpLog, wanted: Filter = Filter()) -> Summary:  # noqa: B008 - frozen
    """Count the entries that are wanted."""
    rows, records, kinds = log.listed(wanted), records_of(log, wanted), log.kinds()
    species = {number: told[0] for number, told in kinds.items()}
    missed, taken = records.fact("miss_deg"), records.fact("time_s")
    read, (inside, told) = np.isfinite(missed), in_fan_share(records)
    return Summary(
        count=len(rows),
        by=_counted(rows, species),
        blows=int(np.nansum(records.fact("blows"))),
        time_s=float(np.nansum(taken)),
        timed=int(np.isfinite(taken).sum()),
        read=int(read.sum()),
        inside=inside,
        told=told,
        miss_deg=float(np.median(np.abs(missed[read]))) if read.any() else None,
        near=tuple(records.numbers[_close(records.facts)].tolist()),
    )


def _counted(rows: Sequence[Listed], species: dict[int, str]) -> dict[str, dict[str, int]]:
    columns = {
        "day": Counter(row[2] for row in rows),
        "faller": Counter(row[5] for row in rows),
        "species": Counter(species.get(row[8], "") for row in rows),
        "cut": Counter(row[7] for row in rows),
        "saw": Counter(row[6] for row in rows),
        "place": Counter(row[3] for row in rows),
    }
    return {name: dict(sorted(counted.items())) for name, counted in columns.items()}


def _close(facts: Array) -> NDArray[np.bool_]:
    """Which rows were too close."""
    columns = [NAMES.index(name) for name in CLOSE]
    return np.asarray((facts[:, columns] > 0).any(axis=1))


@dataclass(frozen=True, slots=True)
class NearMiss:
    """One that was too close, for the crew's talk: what happened, without a name."""

    day: str
    place: str
    tree: str
    cut: str
    happened: tuple[str, ...]
    words: str


def near_misses(log: StumpLog, summary: Summary) -> tuple[NearMiss, ...]:
    """Those of a summary that were too close, the newest first; who it was is left out."""
    found = []
    for number in summary.near:
        entry = log.numbered(number)
        if entry is None:
            continue
        as_cut = entry.plan.as_cut
        happened = [
            *(["hit: " + as_cut.hit] if as_cut.has_hit else []),
            *([tr("sat back")] if as_cut.sat_back == "yes" else []),
            *(["split"] if as_cut.has_split else []),
            *([tr("[hinge] lost early")] if lost_early(as_cut) else []),
        ]
        words = "; ".join(filter(None, (as_cut.felt, as_cut.words)))
        day = as_cut.date or entry.made[:10]
        found.append(NearMiss(day, entry.place, entry.tree_id, forms_of(entry), tuple(happened), words))
    return tuple(sorted(found, key=lambda each: each.day, reverse=True))
