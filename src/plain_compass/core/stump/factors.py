"""What stumps teach about a constant of the model: a factor on it, as a posterior on a grid of its logarithm."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from ..base.frozen import dataclass
from ..base.polygon import Array

RECORD_SPREAD = 0.35
"""Spread of the logarithm of one record about what the model tells."""
LOGISTIC_SCALE = RECORD_SPREAD * math.sqrt(3.0) / math.pi
"""Of a logistic variable with that spread: its sums have a closed form."""
PRIOR = 10.0
"""Records the shipped value is worth."""
FARTHEST = 3.0
"""A factor is held within a third and three times."""
CELLS = 601
"""Grid of the logarithm: finer than a hundredth of one record's spread."""
BIN = 0.02
"""Width of the bins in which splitting indices are counted, in their logarithm: far below a record's spread."""
GRID: Array = np.linspace(-math.log(FARTHEST), math.log(FARTHEST), CELLS)


@dataclass(frozen=True, slots=True, eq=False)
class Factor:
    """A posterior of the logarithm of a factor.

    Attributes:
        count: records it rests on.
        mean, spread: of the logarithm.
        density: on ``GRID``, adding up to 1.
    """

    count: int
    mean: float
    spread: float
    density: Array

    @property
    def value(self) -> float:
        """The factor itself: 1 where nothing was logged."""
        return math.exp(self.mean) if self.count else 1.0

    def interval(self, share: float) -> tuple[float, float]:
        """Where the factor lies with this probability."""
        whole = np.cumsum(self.density)
        low, high = np.interp(((1 - share) / 2, (1 + share) / 2), whole, GRID).tolist()
        return math.exp(low), math.exp(high)


def _prior() -> Array:
    """Logarithm of the prior's density on the grid, worth ``PRIOR`` records."""
    return np.asarray(-0.5 * PRIOR * (GRID / RECORD_SPREAD) ** 2)


def _factor(count: int, log_density: Array) -> Factor:
    density = np.exp(log_density - log_density.max())
    density /= density.sum()
    mean = float((density * GRID).sum())
    spread = math.sqrt(max(float((density * (GRID - mean) ** 2).sum()), 0.0))
    return Factor(count, mean, spread, density)


def factor_of(found: Sequence[float] | Array, slopes: Sequence[float] | Array | None = None) -> Factor:
    """From records that each tell the logarithm itself, or a multiple of it.

    Args:
        found: logarithm of what was found over what was told, shape (n,).
        slopes: how far each follows the logarithm of the factor, shape (n,); 1 where None.
    """
    told = np.asarray(found, dtype=np.float64)
    slope = np.ones_like(told) if slopes is None else np.asarray(slopes, dtype=np.float64)
    a, b = float((slope * slope).sum()), float((slope * told).sum())
    return _factor(len(told), _prior() - (0.5 * a * GRID**2 - b * GRID) / RECORD_SPREAD**2)


def split_factor_of(index_ln: Sequence[float] | Array, did: Sequence[float] | Array) -> Factor:
    """From stems that split or did not: the factor on what a crack takes (fracture energy).

    A stem splits where its index over the factor, with the scatter of one record, is above one; that scatter is taken
    as logistic with the same spread, whose sums have a closed form.

    Args:
        index_ln: logarithm of the splitting index told, shape (n,); did: 1 where it split, else 0.
    """
    at, happened = np.asarray(index_ln, dtype=np.float64), np.asarray(did, dtype=np.float64)
    total = _prior()
    for split in (0.0, 1.0):
        cells, counts = np.unique(np.rint(at[happened == split] / BIN), return_counts=True)
        z = (cells[:, None] * BIN - GRID[None, :]) / LOGISTIC_SCALE
        total = total - (counts[:, None] * np.logaddexp(0.0, -z if split else z)).sum(axis=0)
    return _factor(len(at), total)
