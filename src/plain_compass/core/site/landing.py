"""Where the tree would lie and what lies there: plane geometry of one lay or all.

The footprint is the stem along the lay and the crown round its upper part, widened by how far off the lay the top
may come to rest. Obstacles are sampled along their edges, so that every bearing at once is one pass over arrays.
"""

from __future__ import annotations

import math
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ..base.frozen import dataclass
from ..base.kept import kept
from ..base.polygon import Array, contains
from ..base.rows import in_blocks
from ..tree.crown import mean_radius_m
from ..tree.tree import Tree
from .site import Obstacle, Place, Site

SAMPLE_M = 0.5
"""Points along an obstacle: closer than a crown is wide."""
TREES = ("tree", "save")
"""Kinds that have a crown."""
STEM_HALF_M = 0.4
"""Half width kept clear beside the stem below the crown."""
BEHIND_M = 1.0
"""How far behind the stump the butt may go as the tree falls."""


@dataclass(frozen=True, slots=True, eq=False)
class Sampled:
    """Edges of every obstacle, seen from one tree.

    Attributes:
        east_m, north_m: sample points, shape (k,).
        half_m: half width or radius of the obstacle at each point, shape (k,).
        owner: which obstacle each belongs to, shape (k,).
        inside: obstacles in whose area the tree itself stands.
    """

    east_m: Array
    north_m: Array
    half_m: Array
    owner: NDArray[np.intp]
    inside: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class Footprint:
    """What the tree covers when it lies along its lay.

    Attributes:
        length_m: from the stump to the top.
        crown_from_m: where along it the crown begins.
        crown_half_m: half width of the crown.
        spread_deg: how far off the lay the top may come to rest, either way.
    """

    length_m: float
    crown_from_m: float
    crown_half_m: float
    spread_deg: float

    def half_width_m(self, along_m: Array) -> Array:
        """Half width at distances from the stump, shape as given."""
        crown = np.where(along_m >= self.crown_from_m, self.crown_half_m, STEM_HALF_M)
        wide: Array = crown + np.maximum(along_m, 0.0) * math.tan(math.radians(self.spread_deg))
        return wide


@dataclass(frozen=True, slots=True)
class Hit:
    """One obstacle under the footprint: which, and how far from the stump it is met first."""

    index: int
    obstacle: Obstacle
    at_m: float


ALOFT_FROM_m = 3.0
"""From where on a cut is work aloft: what is cut off falls from there, and the stem is left standing."""
FLIES_SHARE = 0.4
"""Of the height a top falls from: what it is carried on, at two to three metres a second for a second or two."""


def footprint_of(tree: Tree, cut_m: float, spread_deg: float) -> Footprint:
    """The footprint of a tree cut at a height."""
    return Footprint(reaches_m(tree, cut_m), max(tree.crown.base_m - cut_m, 0.0), mean_radius_m(tree.crown), spread_deg)


def reaches_m(tree: Tree, cut_m: float) -> float:
    """How far from the stump the tip of what is cut off may come down."""
    return tree.height_m - cut_m + flies_m(cut_m)


def flies_m(cut_m: float) -> float:
    """How much farther a top reaches that is cut off aloft than one that lies on its stump (indicative).

    It leaves the stem at a few metres a second and is carried on while it falls: four tenths of its height over what a
    person on the ground cuts at.
    """
    return FLIES_SHARE * max(cut_m - ALOFT_FROM_m, 0.0)


@kept("obstacles as points", 16)
def sampled(site: Site, at: Place) -> Sampled:
    """Sample every obstacle, from a tree's own place."""
    parts = [_edge(obstacle, at) for obstacle in site.obstacles]
    points = np.concatenate(parts) if parts else np.zeros((0, 2))
    counts = [len(part) for part in parts]
    owner = np.repeat(np.arange(len(parts)), counts)
    half = np.array([o.radius_m for o in site.obstacles])[owner] if parts else np.zeros(0)
    inside = tuple(i for i, o in enumerate(site.obstacles) if o.shape == "area" and _stands_in(o, at))
    return Sampled(points[:, 0], points[:, 1], half, owner, inside)


def _edge(obstacle: Obstacle, at: Place) -> Array:
    """Points along an obstacle's line or border, from the tree; shape (k, 2)."""
    corners = np.array([[p.east_m - at.east_m, p.north_m - at.north_m] for p in obstacle.points])
    if obstacle.shape == "spot" or len(corners) == 1:
        return corners[:1]
    ends = np.vstack([corners, corners[:1]]) if obstacle.shape == "area" else corners
    pieces = [
        start + (end - start) * np.linspace(0.0, 1.0, max(int(np.hypot(*(end - start)) / SAMPLE_M) + 1, 2))[:, None]
        for start, end in pairwise(ends)
    ]
    return np.concatenate(pieces)


def _stands_in(obstacle: Obstacle, at: Place) -> bool:
    corners = np.array([[p.east_m, p.north_m] for p in obstacle.points])
    return bool(contains(corners, np.array([[at.east_m, at.north_m]]))[0])


@dataclass(frozen=True, slots=True, eq=False)
class Neighbours:
    """Every tree beside this one, from it: which obstacle it is, where it stands, and its crown; shapes (k,)."""

    index: NDArray[np.intp]
    east_m: Array
    north_m: Array
    radius_m: Array
    base_m: Array
    height_m: Array

    def on(self, bearing_deg: float) -> tuple[Array, Array]:
        """(metres along a bearing, metres to the right of it) of each."""
        along, aside = self.on_each(np.array([bearing_deg]))
        return along[:, 0], aside[:, 0]

    def on_each(self, bearings_deg: Array) -> tuple[Array, Array]:
        """The same on several bearings, shapes (k, b)."""
        turn = np.radians(bearings_deg)
        sin, cos = np.sin(turn), np.cos(turn)
        east, north = self.east_m[:, None], self.north_m[:, None]
        return east * sin + north * cos, east * cos - north * sin


@kept("obstacles as points", 16)
def neighbours_of(site: Site, at: Place) -> Neighbours:
    """The trees of a site beside a place."""
    found = [(index, other) for index, other in enumerate(site.obstacles) if other.kind in TREES]
    table = np.array(
        [
            (o.points[0].east_m - at.east_m, o.points[0].north_m - at.north_m, o.radius_m, o.base_m, o.height_m)
            for _, o in found
        ]
    ).reshape(-1, 5)
    return Neighbours(np.array([index for index, _ in found], dtype=np.intp), *table.T)


BEARINGS_AT_ONCE = 64
"""Bearings that are held against all samples in one pass: the tables stay small enough to be quick."""


def hits_by_bearing(points: Sampled, footprint: Footprint, bearings_deg: Array, count: int) -> NDArray[np.bool_]:
    """Which obstacles the footprint touches at each bearing, shape (b, count)."""
    found = np.zeros((len(bearings_deg), count), dtype=bool)
    # What lies farther off than the tree is long is under it on no bearing.
    widest = float(footprint.half_width_m(np.array([footprint.length_m]))[0])
    reach = math.hypot(footprint.length_m, widest) + points.half_m + BEHIND_M
    near = np.nonzero(np.hypot(points.east_m, points.north_m) <= reach)[0]
    if len(near):
        some = Sampled(points.east_m[near], points.north_m[near], points.half_m[near], points.owner[near], inside=())
        # Samples of one obstacle follow one another.
        starts = np.nonzero(np.diff(some.owner, prepend=-1))[0]
        owners = some.owner[starts]
        for rows in in_blocks(len(bearings_deg), BEARINGS_AT_ONCE):
            met = _met(some, footprint, bearings_deg[rows])[0]
            found[rows, owners] = np.logical_or.reduceat(met, starts, axis=1)
    found[:, list(points.inside)] = True
    return found


def along_and_aside(points: Sampled, bearings_deg: Array) -> tuple[Array, Array]:
    """(metres along each bearing, metres off it to either side) of every sample, each of shape (b, k)."""
    turn = np.radians(bearings_deg)[:, None]
    sin, cos = np.sin(turn), np.cos(turn)
    return points.east_m * sin + points.north_m * cos, np.abs(points.east_m * cos - points.north_m * sin)


def _met(points: Sampled, footprint: Footprint, bearings_deg: Array) -> tuple[NDArray[np.bool_], Array]:
    """(whether each sample is under the footprint, how far along it), each of shape (b, k)."""
    along, aside = along_and_aside(points, bearings_deg)
    reach = points.half_m
    within = (along + reach >= -BEHIND_M) & (along - reach <= footprint.length_m)
    return within & (aside - reach <= footprint.half_width_m(along)), along


@kept("obstacles under the lay", 64)
def hits_on(site: Site, at: Place, footprint: Footprint, lay_deg: float) -> tuple[Hit, ...]:
    """Everything under the footprint on one lay, the costliest first, then the nearest."""
    points = sampled(site, at)
    found = {index: Hit(index, site.obstacles[index], 0.0) for index in points.inside}
    if len(points.owner):
        met, along = _met(points, footprint, np.array([lay_deg]))
        for index in sorted(set(points.owner[met[0]].tolist())):
            mine = met[0] & (points.owner == index)
            found.setdefault(index, Hit(index, site.obstacles[index], max(float(along[0][mine].min()), 0.0)))
    order = ["never", "matters", "nuisance", "none"]
    return tuple(sorted(found.values(), key=lambda hit: (order.index(hit.obstacle.cost), hit.at_m)))
