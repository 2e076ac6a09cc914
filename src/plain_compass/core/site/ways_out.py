"""Ways out: two paths back and away from the lay, what stands in them, and where people may not be."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from ..base.frames import full_turn_deg
from .ground import rise_along_deg, slope_at
from .landing import TREES, neighbours_on, sampled
from .site import Place, Site

FROM_LAY_DEG = 135.0
"""Ways out lead back and aside, halfway between straight behind and square to the lay (practice of the trade)."""
LENGTH_M = 8.0
"""As far as one gets while a tree falls."""
HALF_WIDTH_M = 0.8
"""Half of what a person with a saw needs to pass."""
STEEP_DEG = 20.0
"""Steeper ground is not walked backwards in a hurry."""
DOWNHILL_LONGER = 1.5
"""Downhill a stem may roll and slide: the kept-away distance is taken this much longer there."""
BARS_THE_WAY = ("tree", "save", "fence", "wall", "water", "roof", "rock", "stump", "bank")


@dataclass(frozen=True, slots=True)
class WayOut:
    """One path.

    Attributes:
        bearing_deg: from the stump.
        blocked_by: index of the nearest obstacle in it, None where it is free.
        blocked_at_m: how far out that is.
        rise_deg: slope along it, uphill positive.
        side: ``left`` or ``right`` of somebody who looks along the lay.
        under_dead, under_unseen: indices of the neighbours under whose crowns it leads, where dead or hung wood is
            known to be above, and where nobody has looked.
    """

    bearing_deg: float
    blocked_by: int | None
    blocked_at_m: float
    rise_deg: float
    side: str
    under_dead: tuple[int, ...] = ()
    under_unseen: tuple[int, ...] = ()

    @property
    def free(self) -> bool:
        """Whether it can be walked quickly, under nothing that is known to hang."""
        return self.blocked_by is None and abs(self.rise_deg) <= STEEP_DEG and not self.under_dead


@lru_cache(maxsize=64)
def ways_out(site: Site, at: Place, lay_deg: float) -> tuple[WayOut, WayOut]:
    """The two paths at 135 degrees from the lay, left and right."""
    return _way(site, at, lay_deg, "left"), _way(site, at, lay_deg, "right")


def _way(site: Site, at: Place, lay_deg: float, side: str) -> WayOut:
    bearing = full_turn_deg(lay_deg + (FROM_LAY_DEG if side == "right" else -FROM_LAY_DEG))
    points, turn = sampled(site, at), math.radians(bearing)
    bars = np.array([o.kind in BARS_THE_WAY for o in site.obstacles], dtype=bool)
    blocked, at_m = None, LENGTH_M
    if len(points.owner):
        along = points.east_m * math.sin(turn) + points.north_m * math.cos(turn)
        aside = np.abs(points.east_m * math.cos(turn) - points.north_m * math.sin(turn))
        # A neighbour's stem bars the way, not its crown.
        kinds = [o.kind for o in site.obstacles]
        half = np.array([0.3 if k in TREES else o.radius_m for k, o in zip(kinds, site.obstacles, strict=True)])
        half = half[points.owner]
        met = bars[points.owner] & (along + half > 0.5) & (along - half < LENGTH_M) & (aside - half < HALF_WIDTH_M)
        if met.any():
            nearest = int(np.where(met, along, np.inf).argmin())
            blocked, at_m = int(points.owner[nearest]), max(float(along[nearest]), 0.0)
    dead, unseen = _under(site, at, bearing)
    return WayOut(bearing, blocked, at_m, rise_along_deg(site, at, bearing, LENGTH_M), side, dead, unseen)


def _under(site: Site, at: Place, bearing_deg: float) -> tuple[tuple[int, ...], tuple[int, ...]]:
    """Neighbours whose crowns hang over a path: (with dead wood, not looked at)."""
    found: dict[str, list[int]] = {"yes": [], "unknown": [], "no": []}
    for index, other, along, aside in neighbours_on(site, at, bearing_deg):
        past = along - min(max(along, 0.0), LENGTH_M)
        if math.hypot(past, aside) < other.radius_m:
            found[other.overhead].append(index)
    return tuple(found["yes"]), tuple(found["unknown"])


def kept_away_m(site: Site, at: Place, tree_height_m: float, bearing_deg: float) -> float:
    """How far people must be kept away towards a bearing: the rule's lengths, longer downhill on a slope."""
    plain = site.kept_away_lengths * tree_height_m
    slope_deg, downhill_deg = slope_at(site, at)
    if slope_deg < 5.0:
        return plain
    down = max(math.cos(math.radians(bearing_deg - downhill_deg)), 0.0)
    return plain * (1 + (DOWNHILL_LONGER - 1) * down)


@lru_cache(maxsize=64)
def people_inside(site: Site, at: Place, tree_height_m: float) -> tuple[int, ...]:
    """Tracks and people areas that reach into the kept-away zone, and so must be closed."""
    points = sampled(site, at)
    found = set()
    for index, obstacle in enumerate(site.obstacles):
        if obstacle.kind not in ("track", "people", "roof"):
            continue
        mine = points.owner == index
        distance = np.hypot(points.east_m[mine], points.north_m[mine])
        bearing = np.degrees(np.arctan2(points.east_m[mine], points.north_m[mine]))
        limits = [kept_away_m(site, at, tree_height_m, float(b)) for b in bearing]
        if index in points.inside or bool((distance <= np.array(limits)).any()):
            found.add(index)
    return tuple(sorted(found))
