"""Ways out: two paths back and away from the lay, what stands in them, and where people may not be."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from ..base.frames import full_turn_deg
from ..base.frozen import dataclass
from ..base.kept import kept
from ..base.polygon import Array
from .ground import rises_along_deg, slope_at
from .landing import TREES, Sampled, along_and_aside, neighbours_of, sampled
from .site import Place, Site

FROM_LAY_DEG = 135.0
"""Ways out lead back and aside, halfway between straight behind and square to the lay (practice of the trade)."""
NEAREST_LAY_DEG, FARTHEST_LAY_DEG = 100.0, 170.0
"""Nearer to the lay a way leads under the crown, farther from it across the back of the stump."""
LOOKED_AT_DEG = (0.0, 5.0, -5.0, 10.0, -10.0, 15.0, -15.0, 20.0, -20.0, 25.0, -25.0)
"""Where else a way is looked for, from ``FROM_LAY_DEG``, the nearest first."""
LENGTH_M = 8.0
"""As far as one gets while a tree falls."""
STEM_HALF_M = 0.3
"""What a neighbour's stem takes of a way: half a stout one."""
HALF_WIDTH_M = 0.8
"""Half of what a person with a saw needs to pass."""
STEEP_DEG = 20.0
"""Steeper ground is not walked backwards in a hurry."""
DOWNHILL_LONGER = 1.5
"""Downhill a stem may roll and slide: the kept-away distance is taken this much longer there."""
BARS_THE_WAY = ("tree", "save", "fence", "wall", "water", "roof", "rock", "stump", "bank", "stack")


class Ways(NamedTuple):
    """Angles from the lay to the left and the right way out as a person has set them, None where they are proposed."""

    left_deg: float | None = None
    right_deg: float | None = None


PROPOSED = Ways()
"""Both as they are proposed."""


@dataclass(frozen=True, slots=True)
class WayOut:
    """One path.

    Attributes:
        bearing_deg: from the stump.
        blocked_by: index of the nearest obstacle in it, None where it is free.
        blocked_at_m: how far out that is.
        rise_deg: slope along it, uphill positive.
        side: ``left`` or ``right`` of somebody who looks along the lay.
        off_lay_deg: angle from the lay.
        under_dead, under_unseen: indices of the neighbours under whose crowns it leads, where dead or hung wood is
            known to be above, and where nobody has looked.
    """

    bearing_deg: float
    blocked_by: int | None
    blocked_at_m: float
    rise_deg: float
    side: str
    off_lay_deg: float
    under_dead: tuple[int, ...] = ()
    under_unseen: tuple[int, ...] = ()

    @property
    def free(self) -> bool:
        """Whether it can be walked quickly, under nothing that is known to hang."""
        return self.blocked_by is None and abs(self.rise_deg) <= STEEP_DEG and not self.under_dead

    @property
    def against(self) -> int:
        """How much speaks against proposing it: barred most, then a crown over it that nobody has looked at."""
        return 2 * (not self.free) + bool(self.under_unseen)


@kept("ways out", 64)
def ways_out(site: Site, at: Place, lay_deg: float, ways: Ways = PROPOSED) -> tuple[WayOut, WayOut]:
    """The two paths, left and right; see ``ways_by_bearing``."""
    return ways_by_bearing(site, at, np.array([lay_deg]), ways)[0]


def ways_by_bearing(site: Site, at: Place, lays_deg: Array, ways: Ways = PROPOSED) -> tuple[tuple[WayOut, WayOut], ...]:
    """The two paths of each of several lays: as set, else the free one nearest to 135 degrees from the lay.

    Args:
        lays_deg: shape (n,).
    """
    lefts = _on_one_side(site, at, lays_deg, "left", ways.left_deg)
    rights = _on_one_side(site, at, lays_deg, "right", ways.right_deg)
    return tuple(zip(lefts, rights, strict=True))


def _on_one_side(site: Site, at: Place, lays_deg: Array, side: str, set_deg: float | None) -> list[WayOut]:
    """The way on one side of each lay."""
    off = np.array([set_deg]) if set_deg is not None else FROM_LAY_DEG + np.array(LOOKED_AT_DEG)
    bearings = full_turn_deg(lays_deg[:, None] + (-off if side == "left" else off))
    found = _paths(site, at, bearings[:, 0], side, float(off[0]))
    # Most lays are done with their first: only those that something speaks against look further.
    for column in range(1, len(off)):
        rows = [row for row, way in enumerate(found) if way.against]
        if not rows:
            break
        for row, way in zip(rows, _paths(site, at, bearings[rows, column], side, float(off[column])), strict=True):
            if way.against < found[row].against:
                found[row] = way
    return found


def _paths(site: Site, at: Place, bearings_deg: Array, side: str, off_lay_deg: float) -> list[WayOut]:
    """One path a bearing."""
    blocked, met_m = _blocked(site, at, bearings_deg)
    rise, under = rises_along_deg(site, at, bearings_deg, LENGTH_M).tolist(), _under(site, at, bearings_deg)
    return [
        WayOut(bearing, None if by < 0 else by, met, up, side, off_lay_deg, *above)
        for bearing, by, met, up, above in zip(
            bearings_deg.tolist(), blocked.tolist(), met_m.tolist(), rise, under, strict=True
        )
    ]


class _Bars(NamedTuple):
    """Samples of obstacles that may bar a way, and their half width: a neighbour's stem, not its crown; shapes (k,)."""

    points: Sampled
    half_m: Array


@kept("ways out", 16)
def _bars(site: Site, at: Place) -> _Bars:
    """What stands within a way's length of a place."""
    points = sampled(site, at)
    bars = np.array([o.kind in BARS_THE_WAY for o in site.obstacles], dtype=bool)
    half = np.array([STEM_HALF_M if o.kind in TREES else o.radius_m for o in site.obstacles])
    if not len(points.owner):
        return _Bars(points, np.zeros(0))
    half = half[points.owner]
    near = bars[points.owner] & (np.hypot(points.east_m, points.north_m) < LENGTH_M + half + HALF_WIDTH_M)
    some = Sampled(points.east_m[near], points.north_m[near], points.half_m[near], points.owner[near], points.inside)
    return _Bars(some, half[near])


def _blocked(site: Site, at: Place, bearings_deg: Array) -> tuple[NDArray[np.intp], Array]:
    """(obstacle that bars a path, how far out), the nearest; -1 and the whole length where none does."""
    points, half = _bars(site, at)
    if not len(half):
        return np.full(len(bearings_deg), -1), np.full(len(bearings_deg), LENGTH_M)
    along, aside = along_and_aside(points, bearings_deg)
    met = (along + half > 0.5) & (along - half < LENGTH_M) & (aside - half < HALF_WIDTH_M)
    nearest = np.where(met, along, np.inf).argmin(axis=1)
    some, rows = met.any(axis=1), np.arange(len(met))
    blocked = np.where(some, points.owner[nearest], -1)
    return blocked, np.where(some, np.maximum(along[rows, nearest], 0.0), LENGTH_M)


def _under(site: Site, at: Place, bearings_deg: Array) -> list[tuple[tuple[int, ...], tuple[int, ...]]]:
    """Neighbours whose crowns hang over each path: (with dead wood, not looked at)."""
    trees = neighbours_of(site, at)
    along, aside = trees.on_each(bearings_deg)
    over = np.hypot(along - np.clip(along, 0.0, LENGTH_M), aside) < trees.radius_m[:, None]
    found: list[dict[str, list[int]]] = [{"yes": [], "unknown": [], "no": []} for _ in bearings_deg]
    for row, place in zip(*(each.tolist() for each in np.nonzero(over.T)), strict=True):
        index = int(trees.index[place])
        found[row][site.obstacles[index].overhead].append(index)
    return [(tuple(each["yes"]), tuple(each["unknown"])) for each in found]


def kept_away_m(site: Site, at: Place, tree_height_m: float, bearing_deg: float) -> float:
    """How far people must be kept away towards a bearing: the rule's lengths, longer downhill on a slope."""
    return float(kept_away_on_m(site, at, tree_height_m, np.array([bearing_deg]))[0])


def kept_away_on_m(site: Site, at: Place, tree_height_m: float, bearings_deg: Array) -> Array:
    """The same towards several bearings, shape (n,)."""
    plain = site.kept_away_lengths * tree_height_m
    slope_deg, downhill_deg = slope_at(site, at)
    if slope_deg < 5.0:
        return np.full(len(bearings_deg), plain)
    down = np.maximum(np.cos(np.radians(bearings_deg - downhill_deg)), 0.0)
    found: Array = plain * (1 + (DOWNHILL_LONGER - 1) * down)
    return found


@kept("people in the zone", 64)
def people_inside(site: Site, at: Place, tree_height_m: float) -> tuple[int, ...]:
    """Tracks and people areas that reach into the kept-away zone, and so must be closed."""
    points = sampled(site, at)
    closed = np.array([o.kind in ("track", "people", "roof") for o in site.obstacles], dtype=bool)
    if not closed.any():
        return ()
    mine = np.nonzero(closed[points.owner])[0]
    distance = np.hypot(points.east_m[mine], points.north_m[mine])
    bearing = np.degrees(np.arctan2(points.east_m[mine], points.north_m[mine]))
    within = distance <= kept_away_on_m(site, at, tree_height_m, bearing)
    inside = {index for index in points.inside if closed[index]}
    return tuple(sorted(inside | set(points.owner[mine[within]].tolist())))
