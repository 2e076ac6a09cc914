"""The shape of the ground: an even slope, or a surface through spot heights, and its profile along a lay."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from ..base.errors import InputError
from ..base.frames import bearing_of, full_turn_deg
from ..base.frozen import dataclass
from ..base.kept import kept
from ..base.rows import Array, in_blocks
from .bumps import bumps_on
from .site import Place, Site

STEP_M = 0.25
"""Points along the lay: a stem bridges anything shorter."""
ASIDE_M = 1.0
"""How far to each side the fall of the ground across the lay is taken."""
PLACES_AT_ONCE = 1024
"""Places whose distances from all spots are worked out in one table."""
FLAT = 1e-6
"""Heights that differ less are level."""


@dataclass(frozen=True, slots=True, eq=False)
class Ground:
    """A surface over the plan: a plane, and what the spot heights say beside it.

    Attributes:
        east_rise, north_rise: the plane's rise per metre.
        height_m: the plane's height at the job's origin.
        spots: where heights were taken, shape (k, 2).
        weights: share of each spot's kernel, shape (k,).
    """

    east_rise: float
    north_rise: float
    height_m: float
    spots: Array
    weights: Array

    def height_at_m(self, east_m: Array, north_m: Array) -> Array:
        """Height over the datum of the spot heights; arguments and result of one shape."""
        found: Array = self.height_m + self.east_rise * east_m + self.north_rise * north_m
        if not len(self.spots):
            return found
        east, north, flat = east_m.reshape(-1, 1), north_m.reshape(-1, 1), found.reshape(-1)
        # A table of all places and all spots would be too large to be quick.
        for some in in_blocks(len(flat), PLACES_AT_ONCE):
            away, aside = east[some] - self.spots[:, 0], north[some] - self.spots[:, 1]
            away *= away
            away += aside * aside
            flat[some] -= np.sqrt(away, out=away) @ self.weights
        return flat.reshape(found.shape)


@dataclass(frozen=True, eq=False)
class Profile:
    """The ground under a lay, from the stump.

    Attributes:
        along_m: distance from the pith along the lay, shape (n,), from 0.
        ground_m: height of the ground over the ground at the stump, shape (n,).
        bump_m: what stands on it under the stem: banks, rocks, walls, stumps, shape (n,).
        across_deg: fall of the ground across the lay, positive where it falls to the left, shape (n,).
    """

    along_m: Array
    ground_m: Array
    bump_m: Array
    across_deg: Array

    @property
    def top_m(self) -> Array:
        """What a stem would lie on, shape (n,)."""
        top: Array = self.ground_m + self.bump_m
        return top


@kept("surface of the ground", 16)
def ground_of(site: Site) -> Ground:
    """The surface of a site.

    Three spots or more that do not lie in a row carry a plane of their own (least squares); otherwise the typed
    slope is the plane. What the spots stand off it is interpolated by the kernel -r with weights that sum to
    nothing: exact at every spot, no overshoot between them, level far away. Source: radial basis interpolation
    with a conditionally positive definite kernel of order one.
    """
    count = len(site.spots)
    spots = np.array([[s.east_m, s.north_m] for s in site.spots]).reshape(count, 2)
    heights = np.array([s.height_m for s in site.spots])
    rise, datum = _plane(site, spots, heights)
    off = heights - datum - spots @ np.array(rise)
    if count < 2 or float(np.abs(off).max()) < FLAT:
        return Ground(*rise, datum, np.zeros((0, 2)), np.zeros(0))
    table = np.zeros((count + 1, count + 1))
    table[:count, :count] = -np.hypot(*(spots[:, None, :] - spots[None, :, :]).transpose(2, 0, 1))
    table[:count, count] = table[count, :count] = 1.0
    found = np.linalg.solve(table, np.append(off, 0.0))
    return Ground(*rise, datum + float(found[-1]), spots, found[:-1])


def _plane(site: Site, spots: Array, heights: Array) -> tuple[tuple[float, float], float]:
    """((rise per metre east, north), height at the origin)."""
    if len(spots) >= 3:
        level = spots - spots.mean(axis=0)
        if float(np.linalg.svd(level, compute_uv=False)[-1]) > 0.5:
            east, north = np.linalg.lstsq(level, heights - heights.mean(), rcond=None)[0].tolist()
            mean = spots.mean(axis=0)
            return (east, north), float(heights.mean() - east * mean[0] - north * mean[1])
    fall, towards = math.tan(math.radians(site.slope_deg)), math.radians(site.downhill_deg)
    rise = (-fall * math.sin(towards), -fall * math.cos(towards))
    if not len(spots):
        return rise, 0.0
    return rise, float((heights - spots @ np.array(rise)).mean())


def check_spots(site: Site) -> None:
    """Raise InputError when two heights are given for one place."""
    seen: dict[tuple[float, float], float] = {}
    for index, spot in enumerate(site.spots):
        place = (round(spot.east_m, 2), round(spot.north_m, 2))
        if place in seen:
            raise InputError(
                f"site.spots.{index}.height_m", spot.height_m, reason="another spot height lies on the same place"
            )
        seen[place] = spot.height_m


@kept("surface of the ground", 64)
def slope_at(site: Site, at: Place) -> tuple[float, float]:
    """(slope in degrees, bearing downhill) of the ground round a place, over two metres each way."""
    if not site.spots:
        return site.slope_deg, site.downhill_deg
    east = at.east_m + np.array([2.0, -2.0, 0.0, 0.0])
    north = at.north_m + np.array([0.0, 0.0, 2.0, -2.0])
    height = ground_of(site).height_at_m(east, north)
    rise_east, rise_north = float(height[0] - height[1]) / 4, float(height[2] - height[3]) / 4
    down = full_turn_deg(bearing_of(-rise_east, -rise_north))
    return math.degrees(math.atan(math.hypot(rise_east, rise_north))), down


def rise_to_m(site: Site, at: Place, place: Place) -> float:
    """Height of the ground at a place over the ground at another."""
    return float(rises_to_m(site, at, [place])[0])


def rises_to_m(site: Site, at: Place, places: Sequence[Place]) -> Array:
    """The same for several places, shape (n,)."""
    east, north = np.array([(each.east_m, each.north_m) for each in (at, *places)]).T
    height = ground_of(site).height_at_m(east, north)
    found: Array = height[1:] - height[0]
    return found


def rises_along_deg(site: Site, at: Place, bearings_deg: Array, length_m: float) -> Array:
    """Slope from a place to ``length_m`` away from it on each bearing, uphill positive."""
    turn = np.radians(bearings_deg)[:, None]
    away = np.array([0.0, length_m])
    ends = ground_of(site).height_at_m(at.east_m + away * np.sin(turn), at.north_m + away * np.cos(turn))
    found: Array = np.degrees(np.arctan2(ends[:, 1] - ends[:, 0], length_m))
    return found


@kept("ground under the lay", 64)
def profile_on(site: Site, at: Place, lay_deg: float, length_m: float) -> Profile:
    """The ground under a lay, at even steps of about a quarter of a metre."""
    return profiles_on(site, at, (lay_deg,), length_m)[0]


def profiles_on(site: Site, at: Place, lays_deg: Sequence[float], length_m: float) -> tuple[Profile, ...]:
    """The ground under several lays, all of one length."""
    along = np.linspace(0.0, length_m, max(round(length_m / STEP_M), 4) + 1)
    turn = np.radians(np.array(lays_deg, dtype=np.float64))[:, None, None]
    east, north = np.sin(turn), np.cos(turn)
    offsets = np.array([0.0, -ASIDE_M, ASIDE_M])[:, None]
    east_m, north_m = at.east_m + along * east + offsets * north, at.north_m + along * north - offsets * east
    height = ground_of(site).height_at_m(east_m, north_m)
    level = height[:, 0] - height[:, 0, :1]
    bump = bumps_on(site, at, np.array(lays_deg, dtype=np.float64), along)
    across = np.degrees(np.arctan2(height[:, 2] - height[:, 1], 2 * ASIDE_M))
    return tuple(Profile(along, *each) for each in zip(level, bump, across, strict=True))
