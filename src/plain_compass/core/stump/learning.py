"""What one's own stumps teach about one's own hand: a mean and a spread, begun from the shipped ones."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from ..base.frozen import dataclass
from ..base.polygon import Array
from ..base.student import student_quantile

PRIOR = 5.0
"""Stumps the shipped values are worth, for the mean as for the spread."""
FARTHEST = 3.0
"""A mean is held within so many shipped spreads, a spread within so many times the shipped one either way."""


@dataclass(frozen=True, slots=True)
class Learned:
    """The normal-inverse-chi-squared posterior of a quantity that scatters about its own mean.

    Attributes:
        count: of the records it rests on.
        mean, spread: of the hand, held within what can be believed.
        worth: records the mean is worth, the prior's included; freedom: those the spread is.
        scale: square root of the posterior's scale, before it is held.
    """

    count: int
    mean: float
    spread: float
    worth: float
    freedom: float
    scale: float

    @property
    def next_spread(self) -> float:
        """Spread for the next stump: one's own, and how little the mean is known; the shipped one of nothing."""
        return self.spread * math.sqrt(1.0 + 1.0 / self.worth) if self.count else self.spread

    def interval(self, share: float) -> tuple[float, float]:
        """Where the mean lies with this probability: Student's t about it."""
        half = student_quantile(0.5 + share / 2.0, self.freedom) * self.scale / math.sqrt(self.worth)
        return self.mean - half, self.mean + half


def learned(records: Sequence[float] | Array, shipped_mean: float, shipped_spread: float) -> Learned:
    """What records of a quantity teach, given what was shipped of it (Gelman et al., Bayesian Data Analysis, 3.3).

    Args:
        records: errors of one hand; their order does not matter.
        shipped_mean, shipped_spread: what is used where nothing is known, in the same unit; the spread positive.

    Raises ValueError for a spread that is not positive.
    """
    if not shipped_spread > 0:
        raise ValueError(f"a shipped spread is positive, not {shipped_spread}")
    count = len(records)
    worth, freedom = PRIOR + count, PRIOR + count
    values = np.asarray(records, dtype=np.float64)
    average = math.fsum(values.tolist()) / count if count else shipped_mean
    mean = (PRIOR * shipped_mean + count * average) / worth
    squares = math.fsum(((values - average) ** 2).tolist())
    apart = PRIOR * count / worth * (average - shipped_mean) ** 2
    scale = math.sqrt((PRIOR * shipped_spread**2 + squares + apart) / freedom)
    reach = FARTHEST * shipped_spread
    return Learned(
        count=count,
        mean=min(max(mean, shipped_mean - reach), shipped_mean + reach),
        spread=min(max(scale, shipped_spread / FARTHEST), reach),
        worth=worth,
        freedom=freedom,
        scale=scale,
    )
