"""Would learning have helped? Every stump told anew by what the ones before it taught, and by what was shipped."""

from __future__ import annotations

from collections.abc import Generator, Sequence

import numpy as np

from ..core.assess import assess
from ..core.base.errors import PlainCompassError
from ..core.base.frozen import dataclass
from ..core.stump.hand import SHIPPED, Hand, with_factors
from ..core.stump.quantities import Records, known_of
from ..job.document import LogEntry
from ..job.fall import QUICK, fan_for
from ..job.log_entries import case_of_entry
from ..job.spreads import shipped
from ..job.tables import indicative

MOST = 200
"""The newest that are told anew: more say no more, and each takes a while."""
LEAST = 3
"""Stumps before one that teach something worth trying."""
KEYS = ("aim", "hinge_left", "hinge_right", "height", "lean")
"""What of a hand is tried: what moves the fan."""


@dataclass(frozen=True, slots=True)
class BackTest:
    """How often the top lay where nine in ten were told to, and how wide that was.

    Attributes:
        count: stumps told anew.
        before, after: how many lay inside, by what is shipped and by what the stumps before taught.
        before_deg, after_deg: mean width of the fan.
    """

    count: int
    before: int
    after: int
    before_deg: float
    after_deg: float


def backtest_in_steps(entries: Sequence[LogEntry], records: Records, faller: str) -> Generator[None, None, BackTest]:
    """Tell every stump anew, one after another.

    Args:
        entries: in the order in which they were felled; records: a row each, in the same order.
    """
    hits = [0, 0]
    widths: tuple[list[float], list[float]] = ([], [])
    missed = records.fact("miss_deg")
    asked = [at for at in range(LEAST, len(entries)) if np.isfinite(missed[at])][-MOST:]
    count = 0
    for at in asked:
        hand = _hand_before(records, at, faller)
        try:
            edges = [_edges(entries[at], each) for each in (SHIPPED, hand)]
        except PlainCompassError:
            continue
        count += 1
        for which, (low, high) in enumerate(edges):
            hits[which] += int(low <= missed[at] <= high)
            widths[which].append(high - low)
        yield
    mean = [float(np.mean(each)) if each else 0.0 for each in widths]
    return BackTest(count, hits[0], hits[1], mean[0], mean[1])


def _hand_before(records: Records, at: int, faller: str) -> Hand:
    """What the stumps before one teach."""
    known = known_of(records.first(at), shipped())
    return Hand(tuple(each.used(faller) for each in known if each.key.partition(":")[0] in KEYS and each.count))


def _edges(entry: LogEntry, hand: Hand) -> tuple[float, float]:
    case = case_of_entry(entry, with_factors(indicative(), hand))
    fan = fan_for(entry.plan, assess(case), QUICK, hand)
    return fan.off_deg[0], fan.off_deg[2]
