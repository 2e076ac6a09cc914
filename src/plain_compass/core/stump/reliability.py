"""Were the chances right? What was told with a chance, held against how often it happened."""

from __future__ import annotations

import numpy as np

from ..base.frozen import dataclass
from .quantities import Records

EDGES = (0.0, 0.02, 0.05, 0.10, 0.20, 0.35, 0.50, 0.75, 1.0)
"""Chances are gathered between these: closer where limits are told, at 1 in 50 and 1 in 5."""
PAIRS = (("splits_told", "split"), ("sat_told", "sat"), ("lost_told", "lost"))
"""Chances that were told, and whether it happened."""


@dataclass(frozen=True, slots=True)
class Gathered:
    """Everything that was told with a chance between two edges.

    Attributes:
        count: how often; told: mean of the chances; happened: share that did.
    """

    low: float
    high: float
    count: int
    told: float
    happened: float

    @property
    def spread(self) -> float:
        """How far the share may lie off by luck alone: one standard deviation of a binomial share."""
        return float(np.sqrt(max(self.told * (1.0 - self.told), 0.0) / self.count))


def reliability(records: Records) -> tuple[Gathered, ...]:
    """The chances told by how large they were; only where there are any."""
    told, did = [], []
    for chance_as, did_as in PAIRS:
        chance, happened = records.fact(chance_as), records.fact(did_as)
        both = np.isfinite(chance) & np.isfinite(happened)
        told.append(chance[both])
        did.append(happened[both])
    chances, happened = np.concatenate(told), np.concatenate(did)
    bins = np.clip(np.searchsorted(EDGES, chances, side="right") - 1, 0, len(EDGES) - 2)
    found = []
    for at in range(len(EDGES) - 1):
        there = bins == at
        if there.any():
            found.append(
                Gathered(
                    EDGES[at],
                    EDGES[at + 1],
                    int(there.sum()),
                    float(chances[there].mean()),
                    float(happened[there].mean()),
                )
            )
    return tuple(found)


def in_fan_share(records: Records) -> tuple[int, int]:
    """(how many lay between the edges of their fans, how many were told and read): nine in ten should."""
    missed, low, high = (records.fact(name) for name in ("miss_deg", "low_deg", "high_deg"))
    both = np.isfinite(missed) & np.isfinite(low) & np.isfinite(high)
    inside = both & (missed >= low) & (missed <= high)
    return int(inside.sum()), int(both.sum())
