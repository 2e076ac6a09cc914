"""What stands on the ground under a lay: banks, rocks, walls and stumps, as ridges a stem lies over.

A ridge is round and as wide as the thing is; an area is as high as it is all over. Every side of every obstacle is held
against every lay at once, and only those that come near a lay against its points.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from ..base.kept import kept
from ..base.rows import Array, Index, in_blocks
from .site import Place, Site

HARD = ("rock", "stump", "bank", "wall", "stack")
"""What a stem lies on rather than crushes."""
LEAST_BUMP_M = 0.2
"""A log or stone drawn as a point still has a body to lie over."""
LAYS_AT_ONCE = 64
"""Lays that are held against all sides in one pass: the tables stay small enough to be quick."""


class _Sides(NamedTuple):
    """Sides of everything that a stem lies on: ends (east, north), half width, height, whose; shapes (s, 2) and (s,).

    Attributes:
        area: index of the area a side belongs to; -1 for those of lines and spots.
    """

    start: Array
    end: Array
    half_m: Array
    height_m: Array
    area: Index


@kept("obstacles as points", 16)
def _sides(site: Site) -> _Sides:
    rows: list[tuple[float, ...]] = []
    for index, each in enumerate(site.obstacles):
        if each.kind not in HARD or each.height_m <= 0:
            continue
        corners = [(p.east_m, p.north_m) for p in each.points]
        is_area = each.shape == "area" and len(corners) > 1
        spot = each.shape == "spot" or len(corners) == 1
        after = corners[:1] if spot else [*corners[1:], *corners[: 1 if is_area else 0]]
        own = (max(each.radius_m, LEAST_BUMP_M), each.height_m, index if is_area else -1)
        rows += [(*one, *other, *own) for one, other in zip(corners, after, strict=False)]
    table = np.array(rows).reshape(-1, 7)
    return _Sides(table[:, 0:2], table[:, 2:4], table[:, 4], table[:, 5], table[:, 6].astype(np.intp))


def bumps_on(site: Site, at: Place, lays_deg: Array, along_m: Array) -> Array:
    """How high something stands under points along each of several lays from a place, shape (B, n)."""
    sides, found = _sides(site), np.zeros((len(lays_deg), len(along_m)))
    for rows in in_blocks(len(lays_deg) if len(sides.area) else 0, LAYS_AT_ONCE):
        found[rows] = _under(sides, at, lays_deg[rows], along_m)
    return found


def _under(sides: _Sides, at: Place, lays_deg: Array, along_m: Array) -> Array:
    turn = np.radians(lays_deg)[:, None]
    sin, cos = np.sin(turn), np.cos(turn)
    here = np.array([at.east_m, at.north_m])
    # Ends of the sides along each lay and aside of it, shapes (B, s).
    (a0, c0), (a1, c1) = (
        (e * sin + n * cos, e * cos - n * sin) for e, n in ((sides.start - here).T, (sides.end - here).T)
    )
    half, far = sides.half_m, along_m[-1]
    near = (np.minimum(c0, c1) < half) & (np.maximum(c0, c1) > -half)
    near &= (np.maximum(a0, a1) > -half) & (np.minimum(a0, a1) < far + half)
    row, side = np.nonzero(near)
    found = np.zeros((len(lays_deg), len(along_m)))
    if len(row):
        x, c = a0[row, side], c0[row, side]
        run, rise = a1[row, side] - x, c1[row, side] - c
        length2 = np.maximum(run * run + rise * rise, 1e-12)
        share = np.clip(((along_m - x[:, None]) * run[:, None] - (c * rise)[:, None]) / length2[:, None], 0.0, 1.0)
        away = np.hypot(along_m - x[:, None] - share * run[:, None], c[:, None] + share * rise[:, None])
        out = np.minimum(away / half[side, None], 1.0)
        ridge = sides.height_m[side, None] * np.sqrt(1.0 - out * out)
        starts = np.nonzero(np.diff(row, prepend=-1))[0]
        found[row[starts]] = np.maximum.reduceat(ridge, starts, axis=0)
    return np.maximum(found, _within(sides, (a0, c0), (a1, c1), along_m))


def _within(sides: _Sides, start: tuple[Array, Array], end: tuple[Array, Array], along_m: Array) -> Array:
    """How high the areas are that points lie in: those whose border the lay has crossed an odd number of times."""
    (a0, c0), (a1, c1) = start, end
    found = np.zeros((len(a0), len(along_m)))
    row, side = np.nonzero(((c0 > 0) != (c1 > 0)) & (sides.area >= 0))
    if not len(row):
        return found
    crossed = a0[row, side] - c0[row, side] / (c1[row, side] - c0[row, side]) * (a1[row, side] - a0[row, side])
    key = row * (int(sides.area.max()) + 1) + sides.area[side]
    order = np.argsort(key, kind="stable")
    starts = np.nonzero(np.diff(key[order], prepend=-1))[0]
    inside = np.add.reduceat((crossed[order, None] > along_m).astype(np.intp), starts, axis=0) % 2 == 1
    first = order[starts]
    np.maximum.at(found, row[first], np.where(inside, sides.height_m[side[first], None], 0.0))
    return found
