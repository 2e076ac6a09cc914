"""The law of the hinge: what it resists at a tilt, and what follows from it alone: standing, and when a tree goes.

Everything that says when a tree goes by itself asks ``goes_at_rad``: wedges, rope, stages and the fall.

The resistance rises as (1 - e^-x), x in tilts of first yield, to its peak M_u near three of them, softens as fibre by
fibre parts, and is nothing from the break angle on (indicative). Source: shape fitted to practice; it peaks where it
does because the work to maximum load of green clear wood is about four times the elastic part, and the outer fibres
fail near 1.2 to 1.5 % strain.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import fields
from functools import cached_property
from typing import NamedTuple

import numpy as np

from ..base.frozen import dataclass
from ..base.rows import Array, Index, Mask, limited

GRID_DEG: Array = np.concatenate(
    [np.arange(0.0, 4.0, 0.125), np.arange(4.0, 10.0, 0.25), np.arange(10.0, 30.0, 1.0), np.arange(30.0, 90.1, 3.0)]
)
"""Tilts at which load and resistance are held against each other; closest where the law bends most."""
GRID_RAD: Array = np.radians(GRID_DEG)
_SIN, _COS = np.sin(GRID_RAD), np.cos(GRID_RAD)
PARTS = np.linspace(0.0, 1.0, 33)
"""Parts of a stretch of the grid in which a crossing is closed in on, straight within the last."""
STANDS_FROM: Array = np.linspace(0.0, 1.0, 49) ** 2
STANDS_AT: Array = STANDS_FROM[1:]
"""Where standing is looked at, in shares of the farthest tilt: closer together near upright, where hinges are stiff."""
NEXT_TO_NOTHING_Nm = 1e-9
"""Keeps a hinge of no wood at all from dividing by it."""


@dataclass(frozen=True, eq=False)
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

    def before(self, other: HingeLaw) -> HingeLaw:
        """These hinges, and others after them: both asked at once."""
        return HingeLaw(*(np.concatenate([getattr(self, of.name), getattr(other, of.name)]) for of in fields(self)))

    @cached_property
    def rise(self) -> Array:
        """1 - e^-x_u: the rise at the peak."""
        found: Array = -np.expm1(-self.peaks_at)
        return found

    @cached_property
    def per_rad(self) -> Array:
        """x over tilt."""
        return self.rise * self.stiffness_Nm / np.maximum(self.peak_Nm, NEXT_TO_NOTHING_Nm)

    @property
    def peaks_rad(self) -> Array:
        """Tilt at which it resists most, its breaking left out."""
        return self.peaks_at / np.maximum(self.per_rad, NEXT_TO_NOTHING_Nm)

    @cached_property
    def _terms(self) -> tuple[Array, ...]:
        """What ``_resists_Nm`` takes of the columns, in its order."""
        softens = 1.0 / self.softens_over
        return -self.per_rad, -1.0 / self.rise, self.peaks_at, softens, self.tail, 1.0 / self.break_rad, self.peak_Nm

    def moments_Nm(self, tilt_rad: Array) -> Array:
        """Resistance at tilts of shape (B, n), or (n,) for all; (B, n)."""
        return _resists_Nm([each[:, None] for each in self._terms], tilt_rad)

    def at_Nm(self, tilt_rad: Array) -> Array:
        """Resistance at tilts that go with the columns as arrays do: of each at a tilt of its own, shape (B,)."""
        return _resists_Nm(self._terms, tilt_rad)


def _resists_Nm(terms: Sequence[Array], tilt_rad: Array) -> Array:
    """M_u min((1 - e^-x)/(1 - e^-x_u), 1) s(x) (1 - (tilt/break)^2), x the tilt in the law's own measure.

    s = 1 up to x_u and tail + (1 - tail) e^-((x - x_u)/x_s) after.

    Args:
        terms: -x over tilt, -1/(1 - e^-x_u), x_u, 1/x_s, tail, 1/break, M_u.
    """
    minus_per_rad, scale, peaks_at, per_softening, tail, per_break, peak = terms
    minus_x = minus_per_rad * tilt_rad
    rises = np.minimum(np.expm1(minus_x) * scale, 1.0)
    softens = tail + (1.0 - tail) * np.exp(np.minimum(minus_x + peaks_at, 0.0) * per_softening)
    breaks = np.maximum(1.0 - (tilt_rad * per_break) ** 2, 0.0)
    found: Array = peak * rises * softens * breaks
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

    def before(self, other: Tipping) -> Tipping:
        """These trees, and others after them."""
        return Tipping(*(np.concatenate(both) for both in zip(self, other, strict=True)))

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
    return np.where(some, low + limited(share, 0.0, 1.0) * (high - low), 0.0)


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
    return _least_asked(load, *_standing(law, load, most_rad[:, None] * STANDS_AT))


def _standing(law: HingeLaw, load: Tipping, tilt_rad: Array) -> tuple[Array, Array]:
    """(what the load asks, what the hinge gives) at tilts to the side to which each tree stands, shapes (B, n)."""
    sign = np.where(load.standing_Nm < 0, -1.0, 1.0)[:, None]
    return sign * load.moments_Nm(sign * np.sin(tilt_rad), np.cos(tilt_rad)), law.moments_Nm(tilt_rad)


def _least_asked(load: Tipping, asks: Array, gives: Array) -> Array:
    some = gives > NEXT_TO_NOTHING_Nm
    least: Array = np.where(some, np.maximum(asks, 0.0) / np.where(some, gives, 1.0), np.inf).min(axis=1)
    return np.where(load.standing_Nm == 0, 0.0, least)


def standing_on(law: HingeLaw, load: Tipping, most_rad: Array) -> tuple[Array, Array]:
    """(standing use, first tilt at which the hinge carries the tree, forward or back as it stands), shapes (B,).

    The tilt is looked for where standing is looked at, straight between two places; ``most_rad`` where there is none.
    """
    tilt = most_rad[:, None] * STANDS_FROM
    asks, gives = _standing(law, load, tilt)
    use, short = _least_asked(load, asks[:, 1:], gives[:, 1:]), asks - gives
    stands = short <= 0
    first, rows = np.maximum(stands.argmax(axis=1), 1), np.arange(len(tilt))
    low, high = short[rows, first - 1], short[rows, first]
    share = np.where(low > high, limited(low / np.where(low > high, low - high, 1.0), 0.0, 1.0), 0.0)
    found = tilt[rows, first - 1] + share * (tilt[rows, first] - tilt[rows, first - 1])
    return use, np.where(stands.any(axis=1), found, most_rad)


def most_spare_back_Nm(law: HingeLaw, load: Tipping, most_rad: Array) -> Array:
    """The most by which a hinge resists more than tips a tree back, at any tilt back up to ``most_rad``; (B,)."""
    tilt = most_rad[:, None] * STANDS_AT
    found: Array = (law.moments_Nm(tilt) + load.moments_Nm(-np.sin(tilt), np.cos(tilt))).max(axis=1)
    return found
