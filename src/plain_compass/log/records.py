"""What the log says, as tables of numbers to learn from, and everything that is known from it."""

from __future__ import annotations

import numpy as np

from ..core.stump.facts import NAMES
from ..core.stump.quantities import Known, Records, known_of
from ..job.spreads import shipped
from .store import Filter, StumpLog

CLASSES = ("species", "splits", "supple", "height_by", "lean_by")
"""What a kind says, in its order."""


def records_of(log: StumpLog, wanted: Filter = Filter()) -> Records:  # noqa: B008 - frozen
    """Facts of the entries that are wanted."""
    rows, kinds = log.facts(wanted), log.kinds()
    packed = b"".join([row[3] for row in rows])
    table = np.frombuffer(packed, dtype="<f8").reshape(len(rows), len(NAMES))
    none = ("",) * len(CLASSES)
    names = [kinds.get(number, none) for number in range(max(kinds, default=0) + 1)]
    return Records(
        numbers=np.array([row[0] for row in rows], dtype=np.int64),
        days=[row[1] for row in rows],
        facts=table,
        kinds=np.array([row[2] for row in rows], dtype=np.intp),
        classes={name: [told[column] for told in names] for column, name in enumerate(CLASSES)},
        left_out={quantity: frozenset(numbers) for quantity, numbers in log.left_out().items()},
    )


def known_in(log: StumpLog, wanted: Filter = Filter()) -> tuple[Known, ...]:  # noqa: B008 - frozen
    """Every quantity, as these entries have it."""
    return known_of(records_of(log, wanted), shipped())
