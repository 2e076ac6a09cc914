"""Student's t: its quantiles, for a mean known from few records."""

from __future__ import annotations

import math
from functools import cache, lru_cache

import numpy as np

NODES = 96
"""Of the quadrature: enough for eight digits at the freedoms that occur, 5 and more."""
STEPS = 60
"""Halvings of the bracket: to the last digit of a float."""


@cache
def _rule() -> tuple[np.ndarray, np.ndarray]:
    """Nodes and weights, made for the first who asks: NumPy imports its polynomials for them."""
    return np.polynomial.legendre.leggauss(NODES)


@lru_cache(maxsize=256)
def student_quantile(share: float, freedom: float) -> float:
    """The value below which Student's t lies with a probability.

    With ``t = sqrt(freedom) tan(angle)`` the density is a power of the cosine, integrated by Gauss and Legendre; the
    quantile is found by halving (Abramowitz & Stegun 26.7).

    Args:
        share: between 0 and 1, both left out.
        freedom: degrees of freedom, at least 1.

    Raises ValueError outside of these.
    """
    if not (0.0 < share < 1.0 and freedom >= 1.0):
        raise ValueError(f"no quantile of Student's t at {share} with {freedom} degrees of freedom")
    if share < 0.5:
        return -student_quantile(1.0 - share, freedom)
    front = math.exp(math.lgamma((freedom + 1) / 2) - math.lgamma(freedom / 2)) / math.sqrt(math.pi)

    nodes, weights = _rule()

    def above_half(angle: float) -> float:
        return front * angle / 2 * float(np.sum(weights * np.cos(angle * (nodes + 1) / 2) ** (freedom - 1)))

    low, high = 0.0, math.pi / 2
    for _ in range(STEPS):
        middle = (low + high) / 2
        low, high = (middle, high) if above_half(middle) < share - 0.5 else (low, middle)
    return math.sqrt(freedom) * math.tan((low + high) / 2)
