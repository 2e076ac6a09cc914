"""Evenly spread random numbers: Sobol's sequence, shifted by a seed, as standard normal deviates."""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from ..base.polygon import Array
from .sobol_table import STARTS

BITS = 30
"""Bits of the sequence: a thousand million points before it repeats."""
MOST = len(STARTS) + 1
"""Dimensions there are numbers for."""


@lru_cache(maxsize=1)
def _directions() -> NDArray[np.uint32]:
    """Direction numbers, shape (MOST, BITS).

    Source: I. M. Sobol's recurrence, v_k = a_1 v_(k-1) + ... + v_(k-s) + v_(k-s)/2^s modulo two.
    """
    found = np.zeros((MOST, BITS), dtype=np.uint32)
    found[0] = [1 << (BITS - 1 - k) for k in range(BITS)]
    for row, (polynomial, starts) in enumerate(STARTS, start=1):
        degree = len(starts)
        values = [start << (BITS - 1 - k) for k, start in enumerate(starts)]
        for k in range(degree, BITS):
            value = values[k - degree] ^ (values[k - degree] >> degree)
            for j in range(1, degree):
                if (polynomial >> (degree - j)) & 1:
                    value ^= values[k - j]
            values.append(value)
        found[row] = values
    return found


def sobol_points(count: int, dimensions: int) -> NDArray[np.uint32]:
    """The first points of the sequence in the order of Gray's code, as integers of ``BITS`` bits; shape (n, d).

    Raises ValueError past ``MOST`` dimensions.
    """
    if dimensions > MOST:
        raise ValueError(f"{dimensions} dimensions were asked for; there are numbers for {MOST}.")
    index = np.arange(count, dtype=np.uint32)
    gray = index ^ (index >> 1)
    points = np.zeros((count, dimensions), dtype=np.uint32)
    directions = _directions()[:dimensions]
    for bit in range(max(int(count - 1).bit_length(), 1)):
        points ^= np.where(((gray >> bit) & 1).astype(bool)[:, None], directions[:, bit], np.uint32(0))
    return points


@lru_cache(maxsize=8)
def normals(count: int, dimensions: int, seed: int) -> Array:
    """Standard normal deviates, shape (n, d): the points shifted bit by bit, each dimension by a stream of its own.

    The same for a seed whatever else is asked; a dimension's numbers do not depend on how many others there are.
    """
    shifts = [
        np.random.default_rng(stream).integers(0, 1 << BITS, dtype=np.uint32)
        for stream in np.random.SeedSequence(seed).spawn(dimensions)
    ]
    points = sobol_points(count, dimensions) ^ np.array(shifts, dtype=np.uint32)
    shares = (points.astype(np.float64) + 0.5) / (1 << BITS)
    found: Array = np.interp(shares, *_quantiles())
    found.flags.writeable = False
    return found


@lru_cache(maxsize=1)
def _quantiles() -> tuple[Array, Array]:
    """(shares, deviates) of the normal distribution, fine enough that straight lines between serve: to 2e-6."""
    # Taken in where it is wanted: the module brings fractions and decimals along.
    from statistics import NormalDist

    deviates = np.linspace(-6.5, 6.5, 4001)
    normal = NormalDist()
    return np.array([normal.cdf(each) for each in deviates.tolist()]), deviates
