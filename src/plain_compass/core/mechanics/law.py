"""The law of the hinge: what it resists at a tilt, and what follows from it alone: standing, and when a tree goes.

Everything that says when a tree goes by itself asks ``goes_at_rad``: wedges, rope, stages and the fall.

The resistance rises as (1 - e^-x), x in tilts of first yield, to its peak M_u near three of them, softens as fibre by
fibre parts, and is nothing from the break angle on (indicative). Source: shape fitted to practice; it peaks where it
does because the work to maximum load of green clear wood is about four times the elastic part, and the outer fibres
fail near 1.2 to 1.5 % strain.
"""

from __future__ import annotations

from dataclasses import dataclass, fields
from typing import NamedTuple

import numpy as np

from ..base.rows import Array, Index, Mask

GRID_DEG: Array = np.concatenate(
    [np.arange(0.0, 4.0, 0.125), np.arange(4.0, 10.0, 0.25), np.arange(10.0, 30.0, 1.0), np.arange(30.0, 90.1, 3.0)]
)
"""Tilts at which load and resistance are held against each other; closest where the law bends most."""
GRID_RAD: Array = np.radians(GRID_DEG)
_SIN, _COS = np.sin(GRID_RAD), np.cos(GRID_RAD)
PARTS = np.linspace(0.0, 1.0, 33)
"""Parts of a stretch of the grid in which a crossing is closed in on, straight within the last."""
NEXT_TO_NOTHING_Nm = 1e-9
"""Keeps a hinge of no wood at all from dividing by it."""


@dataclass(frozen=True, slots=True, eq=False)
class HingeLaw:
    """Resistance against tilt of B hinges; every column has shape (B,).

    Attributes:
        stiffness_Nm: K, with which it starts.
        peak_Nm: M_u, the most it resists.
        break_rad: tilt at which it parts by itself.
        peaks_at: x_u, tilts of first yield over which it rises, in the law's own measure.
        softens_over: x_s, over how many it softens after.
        tail: share of the peak that pulled fibres keep.
    """

    stiffness_Nm: Array
    peak_Nm: Array
    break_rad: Array
    peaks_at: Array
    softens_over: Array
    tail: Array

    def picked(self, rows: Mask | Index) -> HingeLaw:
        """Some of the hinges."""
        return HingeLaw(*(getattr(self, item.name)[rows] for item in fields(self)))

    @property
    def rise(self) -> Array:
        """1 - e^-x_u: the rise at the peak."""
        found: Array = -np.expm1(-self.peaks_at)
        return found

    @property
    def per_rad(self) -> Array:
        """x over tilt."""
        return self.rise * self.stiffness_Nm / np.maximum(self.peak_Nm, NEXT_TO_NOTHING_Nm)

    @property
    def peaks_rad(self) -> Array:
        """Tilt at which it resists most, its breaking left out."""
        return self.peaks_at / np.maximum(self.per_rad, NEXT_TO_NOTHING_Nm)

    def moments_Nm(self, tilt_rad: Array) -> Array:
        """Resistance at tilts of shape (B, n), or (n,) for all; (B, n)."""
        columns = (self.stiffness_Nm, self.peak_Nm, self.break_rad, self.peaks_at, self.softens_over, self.tail)
        return resists_Nm(HingeLaw(*(each[:, None] for each in columns)), tilt_rad)

    def at_Nm(self, tilt_rad: Array) -> Array:
        """Resistance of each at a tilt of its own, shape (B,)."""
        return resists_Nm(self, tilt_rad)


def resists_Nm(law: HingeLaw, tilt_rad: Array) -> Array:
    """Resistance at tilts that go with the law's columns as arrays do.

    M_u min((1 - e^-x)/(1 - e^-x_u), 1) s(x) (1 - (tilt/break)^2), x the tilt in the law's own measure, s = 1 up to x_u
    and tail + (1 - tail) e^-((x - x_u)/x_s) after.
    """
    x = law.per_rad * tilt_rad
    rises = np.minimum(-np.expm1(-x) / law.rise, 1.0)
    softens = law.tail + (1.0 - law.tail) * np.exp(-np.maximum(x - law.peaks_at, 0.0) / law.softens_over)
    breaks = np.maximum(1.0 - (tilt_rad / law.break_rad) ** 2, 0.0)
    found: Array = law.peak_Nm * rises * softens * breaks
    return found


class Tipping(NamedTuple):
    """What tips B trees over their hinges: weight, and what is held constant on the way; shapes (B,).

    Attributes:
        toppling_Nm: m g Z of the stem as it bends.
        ahead_Nm: m g X, the centre ahead of the hinge's centroid.
        steady_Nm: rope and wind.
    """

    toppling_Nm: Array
    ahead_Nm: Array
    steady_Nm: Array

    def moments_Nm(self, sin: Array, cos: Array) -> Array:
        """m g Z sin + m g X cos + loads, at tilts of shape (B, n) or (n,)."""
        found: Array = self.toppling_Nm[:, None] * sin + self.ahead_Nm[:, None] * cos + self.steady_Nm[:, None]
        return found

    def at_Nm(self, tilt_rad: Array) -> Array:
        """The same at a tilt of each one's own, shape (B,)."""
        found: Array = self.toppling_Nm * np.sin(tilt_rad) + self.ahead_Nm * np.cos(tilt_rad) + self.steady_Nm
        return found

    @property
    def standing_Nm(self) -> Array:
        """While the tree stands upright."""
        return self.ahead_Nm + self.steady_Nm


def goes_at_rad(law: HingeLaw, load: Tipping) -> Array:
    """Last tilt at which the hinge still holds the tree, theta_go; past it the tree goes by itself. 0 if there is none.

    Found on ``GRID_DEG`` and closed in on between its last place that holds and the next.
    """
    spare = law.moments_Nm(GRID_RAD) - load.moments_Nm(_SIN, _COS)
    holds = spare >= 0
    some, rows = holds.any(axis=1), np.arange(len(holds))
    last = holds.shape[1] - 1 - holds[:, ::-1].argmax(axis=1)
    after = np.minimum(last + 1, len(GRID_RAD) - 1)
    low, high = GRID_RAD[last], GRID_RAD[after]
    tilt = low[:, None] + (high - low)[:, None] * PARTS
    spare = law.moments_Nm(tilt) - load.moments_Nm(np.sin(tilt), np.cos(tilt))
    last = len(PARTS) - 1 - (spare[:, ::-1] >= 0).argmax(axis=1)
    after = np.minimum(last + 1, len(PARTS) - 1)
    low, high = tilt[rows, last], tilt[rows, after]
    held, short = spare[rows, last], spare[rows, after]
    share = np.where(held > short, held / np.where(held > short, held - short, 1.0), 0.0)
    return np.where(some, low + np.clip(share, 0.0, 1.0) * (high - low), 0.0)


def spare_Nm(law: HingeLaw, load: Tipping, from_rad: Array) -> Array:
    """How much more may hold against the load, and still the tree goes by itself from a tilt on; shape (B,).

    The least by which the load exceeds what the hinge resists, from there to lying; negative where it does not.
    """
    tilt = np.maximum(GRID_RAD, from_rad[:, None])
    found: Array = (load.moments_Nm(np.sin(tilt), np.cos(tilt)) - law.moments_Nm(tilt)).min(axis=1)
    return found


def standing_use(law: HingeLaw, load: Tipping, most_rad: Array) -> Array:
    """What a tree asks of the hinge it stands on over what that gives, at the tilt at which it is asked least of.

    Below 1 there is a tilt, forward or back as the tree stands, up to ``most_rad``, at which the hinge carries it.

    Returns:
        Shape (B,); infinite where the hinge resists nothing.
    """
    tilt = most_rad[:, None] * STANDS_AT
    sign = np.where(load.standing_Nm < 0, -1.0, 1.0)[:, None]
    asks = sign * load.moments_Nm(sign * np.sin(tilt), np.cos(tilt))
    gives = law.moments_Nm(tilt)
    some = gives > NEXT_TO_NOTHING_Nm
    least: Array = np.where(some, np.maximum(asks, 0.0) / np.where(some, gives, 1.0), np.inf).min(axis=1)
    return np.where(load.standing_Nm == 0, 0.0, least)


def most_spare_back_Nm(law: HingeLaw, load: Tipping, most_rad: Array) -> Array:
    """The most by which a hinge resists more than tips a tree back, at any tilt back up to ``most_rad``; (B,)."""
    tilt = most_rad[:, None] * STANDS_AT
    found: Array = (law.moments_Nm(tilt) + load.moments_Nm(-np.sin(tilt), np.cos(tilt))).max(axis=1)
    return found


STANDS_AT: Array = np.linspace(0.0, 1.0, 49)[1:] ** 2
"""Where standing is looked at, in shares of the farthest tilt: closer together near upright, where hinges are stiff."""


def stands_at_rad(law: HingeLaw, load: Tipping, most_rad: Array) -> Array:
    """First tilt, forward or back as the tree stands, at which the hinge carries it; ``most_rad`` where none does.

    Looked at where standing is, straight between two places.
    """
    tilt = np.concatenate([np.zeros((len(most_rad), 1)), most_rad[:, None] * STANDS_AT], axis=1)
    sign = np.where(load.standing_Nm < 0, -1.0, 1.0)[:, None]
    short = sign * load.moments_Nm(sign * np.sin(tilt), np.cos(tilt)) - law.moments_Nm(tilt)
    stands = short <= 0
    first, rows = np.maximum(stands.argmax(axis=1), 1), np.arange(len(tilt))
    low, high = short[rows, first - 1], short[rows, first]
    share = np.where(low > high, np.clip(low / np.where(low > high, low - high, 1.0), 0.0, 1.0), 0.0)
    found = tilt[rows, first - 1] + share * (tilt[rows, first] - tilt[rows, first - 1])
    return np.where(stands.any(axis=1), found, most_rad)
