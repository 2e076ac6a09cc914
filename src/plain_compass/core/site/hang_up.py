"""Hang-up: the falling crown swept through its neighbours' crowns, by height at each tilt, against the energy gained.

The crown is a flat outline about the stem, its half width by the height along it; a neighbour's crown is an upright
cylinder from its base to its top. A patch of the falling crown that passes through it breaks wood there once; what
that takes is its area times what a square metre of crown stops (indicative).
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from ..base.polygon import Array
from .ground import rise_to_m
from .landing import Footprint, neighbours_of, neighbours_on
from .site import Obstacle, Place, Site

TILTS_DEG: Array = np.arange(2.0, 81.0, 3.0)
"""Tilts at which the falling crown is held against its neighbours."""
ALONG = 16
"""Stations along the crown at which it may touch."""
ACROSS: Array = np.linspace(-0.9375, 0.9375, 16)
"""Middles of the strips across the crown, in half widths."""
STEM_STOPS_HALF_M = 0.6
"""A neighbour whose stem stands nearer to the lay than this is struck by the stem itself."""


@dataclass(frozen=True, slots=True)
class Faller:
    """What comes down: its weight and where it acts, and the outline of its crown.

    Attributes:
        weight_N, com_up_m, com_forward_m: of the tree above the cut.
        cut_m: height of the hinge over the ground at the stump.
        is_conifer: whether the crown is a cone rather than an ellipse.
    """

    weight_N: float
    com_up_m: float
    com_forward_m: float
    cut_m: float
    is_conifer: bool

    def gained_J(self, tilt_deg: Array) -> Array:
        """Energy of the fall up to a tilt, from upright; nothing while it still has to be lifted."""
        turn = np.radians(tilt_deg)
        fallen = self.com_up_m * (1 - np.cos(turn)) + self.com_forward_m * np.sin(turn)
        found: Array = self.weight_N * np.maximum(fallen, 0.0)
        return found


@dataclass(frozen=True, slots=True)
class Catch:
    """A neighbour's crown that the falling tree meets.

    Attributes:
        tilt_deg: tilt at which it is met first.
        at_m: height of that over the ground at the stump.
        overlap: share of the falling crown's width that meets it, 0 to 1.
        energy_J: what the tree has gained by then.
        taken_J: what the neighbour can take on the whole way down (indicative).
        use: the largest share of the energy gained that is taken, at any tilt; past 1 the tree hangs.
        on_stem: whether the falling stem meets the neighbour's stem.
    """

    index: int
    obstacle: Obstacle
    tilt_deg: float
    at_m: float
    overlap: float
    energy_J: float
    taken_J: float
    use: float
    on_stem: bool


def crown_half_m(footprint: Footprint, share: Array, is_conifer: bool) -> Array:
    """Half width of the crown at shares of its length from the base: a cone, or half an ellipse about its middle.

    Both have the paced mean radius where they are widest.
    """
    shape = 1.0 - share if is_conifer else np.sqrt(np.clip(1.0 - (2 * share - 1.0) ** 2, 0.0, 1.0))
    found: Array = footprint.crown_half_m * shape
    return found


@lru_cache(maxsize=64)
def catches_on(
    site: Site, at: Place, footprint: Footprint, lay_deg: float, faller: Faller, stops_J_m2: float
) -> tuple[Catch, ...]:
    """Neighbours whose crowns the tree meets on its way down, the one that takes most first."""
    found = []
    within = {"ahead_m": footprint.length_m, "aside_m": footprint.crown_half_m}
    for index, other, along, aside in neighbours_on(site, at, lay_deg, **within):
        foot_m = rise_to_m(site, at, other.points[0])
        caught = _met((index, other), (along, aside), foot_m, footprint, faller, stops_J_m2)
        found += [caught] if caught is not None else []
    return tuple(sorted(found, key=lambda catch: -catch.use))


def _met(
    neighbour: tuple[int, Obstacle],
    away_m: tuple[float, float],
    foot_m: float,
    footprint: Footprint,
    faller: Faller,
    stops_J_m2: float,
) -> Catch | None:
    """One neighbour; None when the crown passes over or beside it."""
    _, other = neighbour
    length = footprint.length_m - footprint.crown_from_m
    share = (np.arange(ALONG) + 0.5) / ALONG
    up = footprint.crown_from_m + share * length
    half = crown_half_m(footprint, share, faller.is_conifer)
    turn = np.radians(TILTS_DEG)[:, None]
    out, high = up * np.sin(turn), faller.cut_m + up * np.cos(turn) - foot_m
    across = ACROSS[None, :] * half[:, None]
    near = (out[:, :, None] - away_m[0]) ** 2 + (across[None] - away_m[1]) ** 2 < other.radius_m**2
    within = (high > other.base_m) & (high < other.height_m)
    met = near & within[:, :, None]
    on_stem = _stem_meets(other, away_m, foot_m, footprint, faller)
    if not met.any() and on_stem is None:
        return None
    patch = (length / ALONG) * (2 * half / len(ACROSS))
    swept = (np.logical_or.accumulate(met, axis=0) * patch[None, :, None]).sum(axis=(1, 2))
    return _judged(neighbour, (met, swept, high + foot_m), faller, stops_J_m2, on_stem)


def _stem_meets(
    other: Obstacle, away_m: tuple[float, float], foot_m: float, footprint: Footprint, faller: Faller
) -> float | None:
    """Tilt at which stem strikes stem; None when it passes."""
    along, aside = away_m
    if along <= 0 or abs(aside) > STEM_STOPS_HALF_M or along > footprint.length_m:
        return None
    top = other.height_m + foot_m - faller.cut_m
    return math.degrees(max(math.atan2(along, max(top, 1e-6)), math.asin(along / footprint.length_m)))


def _judged(
    neighbour: tuple[int, Obstacle],
    swept: tuple[NDArray[np.bool_], Array, Array],
    faller: Faller,
    stops_J_m2: float,
    stem_tilt_deg: float | None,
) -> Catch:
    """What the sweep means: which patches met it, the area swept by then and the height of each, by tilt."""
    (index, other), (met, swept_m2, high_m) = neighbour, swept
    gained, taken = faller.gained_J(TILTS_DEG), stops_J_m2 * swept_m2
    hit = swept_m2 > 0
    use = float(np.where(hit, taken / np.maximum(gained, 1e-9), 0.0).max())
    first = int(hit.argmax()) if hit.any() else len(TILTS_DEG) - 1
    tilt = float(TILTS_DEG[first]) if hit.any() else 180.0
    rows = met[first].any(axis=1)
    at = float(high_m[first][rows].max()) if rows.any() else other.height_m
    overlap = float(met.any(axis=(0, 1)).mean())
    if stem_tilt_deg is not None:
        tilt = min(tilt, stem_tilt_deg)
    energy = float(faller.gained_J(np.array([tilt]))[0])
    return Catch(index, other, tilt, at, overlap, energy, float(taken[-1]), use, stem_tilt_deg is not None)


def gap_m(site: Site, at: Place, footprint: Footprint, lay_deg: float) -> tuple[int, float] | None:
    """(neighbour, metres to spare) of the neighbour the crown passes nearest to; None where none is in reach."""
    trees = neighbours_of(site, at)
    along, aside = trees.on(lay_deg)
    passed = (along > 0) & (along < footprint.length_m)
    if not passed.any():
        return None
    spare = np.where(passed, np.abs(aside) - trees.radius_m - footprint.crown_half_m, np.inf)
    nearest = int(spare.argmin())
    return int(trees.index[nearest]), float(spare[nearest])
