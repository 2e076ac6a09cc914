"""Hang-up: the falling crown swept through its neighbours' crowns, by height at each tilt, against the energy gained.

The crown is a flat outline about the stem, its half width by the height along it; a neighbour's crown is an upright
cylinder from its base to its top. A patch of the falling crown that passes through it breaks wood there once; what
that takes is its area times what a square metre of crown stops (indicative).
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Generic, NamedTuple

import numpy as np

from ..base.frozen import dataclass
from ..base.kept import kept
from ..base.rows import Array, Index, N, in_blocks
from .ground import rises_to_m
from .landing import Footprint, neighbours_of
from .site import Obstacle, Place, Site

TILTS_DEG: Array = np.arange(2.0, 81.0, 3.0)
"""Tilts at which the falling crown is held against its neighbours."""
ALONG = 16
"""Stations along the crown at which it may touch."""
ACROSS: Array = np.linspace(-0.9375, 0.9375, 16)
"""Middles of the strips across the crown, in half widths."""
PAIRS_AT_ONCE = 64
"""Lays and neighbours held against one another in one pass: the tables stay small enough to be quick."""
STEM_STOPS_HALF_M = 0.6
"""A neighbour whose stem stands nearer to the lay than this is struck by the stem itself."""


@dataclass(frozen=True, slots=True)
class Faller(Generic[N]):
    """What comes down: its weight and where it acts, and the outline of its crown.

    Attributes:
        weight_N, com_up_m, com_forward_m: of the tree above the cut.
        cut_m: height of the hinge over the ground at the stump.
        is_conifer: whether the crown is a cone rather than an ellipse.
    """

    weight_N: N
    com_up_m: N
    com_forward_m: N
    cut_m: float
    is_conifer: bool

    def each(self: Faller[float], count: int) -> Faller[Array]:
        """The same for each of several lays."""
        weight, up, ahead = (np.full(count, of) for of in (self.weight_N, self.com_up_m, self.com_forward_m))
        return Faller(weight, up, ahead, self.cut_m, self.is_conifer)

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


class _Pairs(NamedTuple):
    """P meetings of a lay and a neighbour: which they are, and where the neighbour stands; each of shape (P,).

    Attributes:
        row, obstacle: which lay, and index of the obstacle.
        along_m, aside_m: where it stands along the lay, and to the right of it.
        radius_m, base_m, height_m: its crown, from its foot.
        foot_m: height of its foot over the ground at the stump.
    """

    row: Index
    obstacle: Index
    along_m: Array
    aside_m: Array
    radius_m: Array
    base_m: Array
    height_m: Array
    foot_m: Array


@kept("what catches the crown", 64)
def catches_on(
    site: Site, at: Place, footprint: Footprint, lay_deg: float, faller: Faller, stops_J_m2: float
) -> tuple[Catch, ...]:
    """Neighbours whose crowns the tree meets on its way down, the one that takes most first."""
    return catches_by_bearing(site, at, footprint, np.array([lay_deg]), faller.each(1), stops_J_m2)[0]


def catches_by_bearing(
    site: Site, at: Place, footprint: Footprint, lays_deg: Array, faller: Faller[Array], stops_J_m2: float
) -> tuple[tuple[Catch, ...], ...]:
    """The same for several lays, on each of which the tree stands a little otherwise over its hinge; shapes (B,)."""
    pairs = _pairs(site, at, footprint, lays_deg)
    found: list[list[Catch]] = [[] for _ in lays_deg]
    for rows in in_blocks(len(pairs.row), PAIRS_AT_ONCE):
        some: _Pairs = _Pairs._make(each[rows] for each in pairs)
        weight, up, ahead = (each[some.row, None] for each in (faller.weight_N, faller.com_up_m, faller.com_forward_m))
        here: Faller[Array] = Faller(weight, up, ahead, faller.cut_m, faller.is_conifer)
        for row, catch in _met(site, some, footprint, here, stops_J_m2):
            found[row].append(catch)
    return tuple(tuple(sorted(each, key=lambda catch: -catch.use)) for each in found)


def _pairs(site: Site, at: Place, footprint: Footprint, lays_deg: Array) -> _Pairs:
    """Lays and the neighbours whose crowns they come near."""
    trees = neighbours_of(site, at)
    along, aside = (each.T for each in trees.on_each(lays_deg))
    near = (np.abs(aside) < footprint.crown_half_m + trees.radius_m) & (along + trees.radius_m > 0)
    near &= along - trees.radius_m < footprint.length_m
    row, which = np.nonzero(near)
    # Feet are asked only where somebody comes near.
    # Not by np.unique, for whose sake NumPy imports its masked arrays: a thirtieth of a start.
    foot, met = np.zeros(len(trees.index)), np.flatnonzero(np.bincount(which))
    if len(met):
        foot[met] = rises_to_m(site, at, [site.obstacles[index].points[0] for index in trees.index[met].tolist()])
    there = (trees.radius_m[which], trees.base_m[which], trees.height_m[which], foot[which])
    return _Pairs(row, trees.index[which], along[row, which], aside[row, which], *there)


def _met(
    site: Site, pairs: _Pairs, footprint: Footprint, faller: Faller[Array], stops_J_m2: float
) -> Iterator[tuple[int, Catch]]:
    """(lay, catch) of every pair in which the crown does not pass over or beside; ``faller`` in shapes (P, 1)."""
    length = footprint.length_m - footprint.crown_from_m
    share = (np.arange(ALONG) + 0.5) / ALONG
    up = footprint.crown_from_m + share * length
    half = crown_half_m(footprint, share, faller.is_conifer)
    turn = np.radians(TILTS_DEG)[:, None]
    out, high = up * np.sin(turn), faller.cut_m + up * np.cos(turn)
    foot, across = pairs.foot_m[:, None, None], ACROSS * half[:, None]
    # Tables of pairs, tilts, stations along the crown and strips across it.
    ahead = (out - pairs.along_m[:, None, None]) ** 2
    beside = (across - pairs.aside_m[:, None, None]) ** 2
    near = ahead[:, :, :, None] + beside[:, None] < (pairs.radius_m**2)[:, None, None, None]
    over = high - foot
    within = (over > pairs.base_m[:, None, None]) & (over < pairs.height_m[:, None, None])
    met = near & within[:, :, :, None]
    patch = (length / ALONG) * (2 * half / len(ACROSS))
    swept = np.logical_or.accumulate(met, axis=1).sum(axis=3) @ patch
    stem = _stem_meets_deg(pairs, footprint, faller.cut_m)
    gained, taken = faller.gained_J(TILTS_DEG), stops_J_m2 * swept
    hit = swept > 0
    use = np.where(hit, taken / np.maximum(gained, 1e-9), 0.0).max(axis=1)
    any_hit, first, overlap = hit.any(axis=1), hit.argmax(axis=1), met.any(axis=(1, 2)).mean(axis=1)
    tilt = np.fmin(np.where(any_hit, TILTS_DEG[first], np.inf), stem)
    energy = faller.gained_J(np.minimum(tilt, 180.0)[:, None])[:, 0]
    for place in np.nonzero(any_hit | ~np.isnan(stem))[0].tolist():
        index = int(pairs.obstacle[place])
        rows = met[place, first[place]].any(axis=1)
        at_m = float(high[first[place]][rows].max()) if rows.any() else float(pairs.height_m[place])
        yield (
            int(pairs.row[place]),
            Catch(
                index=index,
                obstacle=site.obstacles[index],
                tilt_deg=float(tilt[place]),
                at_m=at_m,
                overlap=float(overlap[place]),
                energy_J=float(energy[place]),
                taken_J=float(taken[place, -1]),
                use=float(use[place]),
                on_stem=bool(stem[place] == stem[place]),
            ),
        )


def _stem_meets_deg(pairs: _Pairs, footprint: Footprint, cut_m: float) -> Array:
    """Tilt at which stem strikes stem; not a number where it passes."""
    along = pairs.along_m
    meets = (along > 0) & (np.abs(pairs.aside_m) <= STEM_STOPS_HALF_M) & (along <= footprint.length_m)
    over = np.maximum(pairs.height_m + pairs.foot_m - cut_m, 1e-6)
    lies = np.arcsin(np.clip(along / footprint.length_m, 0.0, 1.0))
    found: Array = np.where(meets, np.degrees(np.maximum(np.arctan2(along, over), lies)), np.nan)
    return found


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
