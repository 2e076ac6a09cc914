"""From a probe's resistance profile to the depth of sound wood."""

from __future__ import annotations

import statistics

from ..base.errors import InputError
from ..base.quantity import Kind
from .estimate import Estimate

WINDOW = 5
"""Points of the running median: evens out rings, keeps the edge of a cavity."""
SOUND_FROM_M = 0.03
"""The outermost wood, from whose resistance the rest is judged."""
ROTTEN_BELOW = 0.4
"""Share of the sound level below which wood counts as rotten (indicative)."""
STEADY = 3
"""Smoothed points in a row that must be low: a single soft ring is not rot."""


def sound_depth(depths_m: tuple[float, ...], resistance: tuple[float, ...]) -> Estimate:
    """Depth at which a profile first stays well below the level of its own outer wood.

    The outer three centimetres (at least five points) set the level by their median; the profile is smoothed by a
    running median of five. With no rot met, the whole depth is sound. The spread is one step of the probe.

    Raises InputError when there are too few points, or they do not match.
    """
    if len(depths_m) != len(resistance) or len(depths_m) < 2 * WINDOW:
        raise InputError(
            "profile", len(depths_m), kind=Kind.COUNT, low=2 * WINDOW, reason="a profile wants more points"
        )
    outer = [r for d, r in zip(depths_m, resistance, strict=True) if d - depths_m[0] <= SOUND_FROM_M]
    level = statistics.median(outer if len(outer) >= WINDOW else resistance[:WINDOW])
    half = WINDOW // 2
    smooth = [statistics.median(resistance[max(i - half, 0) : i + half + 1]) for i in range(len(resistance))]
    low = [value < ROTTEN_BELOW * level for value in smooth]
    step = (depths_m[-1] - depths_m[0]) / (len(depths_m) - 1)
    for index in range(len(low) - STEADY + 1):
        if all(low[index : index + STEADY]):
            return Estimate(depths_m[index], step, (("probe", 1.0),))
    return Estimate(depths_m[-1], step, (("probe", 1.0),))
