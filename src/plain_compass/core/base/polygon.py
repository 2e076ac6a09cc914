"""Exact plane geometry of closed outlines: moments, half-plane clipping, strips.

Outlines are arrays of shape (n, 2), columns (forward, left) in metres, not repeating the first point.
Half-plane clipping keeps moments exact for any simple polygon, convex or not, which is why the hot path
needs no general polygon library; ``overlap`` uses Shapely for the rare case of a cavity open to the bark.
"""

from __future__ import annotations

from typing import Generic, TypeAlias, TypeVar

import numpy as np
from numpy.typing import NDArray

from .frames import squares_turned_on, turned_on
from .frozen import dataclass
from .rows import Array as Array
from .rows import N

EMPTY: Array = np.zeros((0, 2))


@dataclass(frozen=True)
class Moments(Generic[N]):
    """Area moments of a plane region about the origin and about its own centroid.

    Attributes:
        area_m2: area.
        forward_m, left_m: centroid.
        second_fall_m4: integral of (forward - centroid)^2, resisting bending along the lay.
        second_side_m4: integral of (left - centroid)^2, resisting bending across the lay.
        product_m4: integral of the product of both distances.
    """

    area_m2: N
    forward_m: N
    left_m: N
    second_fall_m4: N
    second_side_m4: N
    product_m4: N

    def turned(self: Moments[float], by_rad: float) -> Moments[float]:
        """One region once the lay is turned on clockwise about the origin (Mohr's circle)."""
        forward, left = turned_on(self.forward_m, self.left_m, by_rad)
        fall, side, product = squares_turned_on(self.second_fall_m4, self.second_side_m4, self.product_m4, by_rad)
        return Moments(self.area_m2, float(forward), float(left), float(fall), float(side), float(product))


T = TypeVar("T", bound=np.generic)


def following(values: NDArray[T]) -> NDArray[T]:
    """Each entry's successor round the outline (numpy's roll takes four times as long for short arrays)."""
    return np.concatenate((values[1:], values[:1]))


def _raw(points: Array) -> Array:
    """Integrals of (1, x, y, xx, yy, xy) over the polygon by Green's theorem, shape (6,)."""
    if len(points) < 3:
        return np.zeros(6)
    x, y = points[:, 0], points[:, 1]
    xn, yn = following(x), following(y)
    cross = x * yn - xn * y
    return np.array(
        [
            cross.sum() / 2,
            ((x + xn) * cross).sum() / 6,
            ((y + yn) * cross).sum() / 6,
            ((x * x + x * xn + xn * xn) * cross).sum() / 12,
            ((y * y + y * yn + yn * yn) * cross).sum() / 12,
            ((x * yn + 2 * x * y + 2 * xn * yn + xn * y) * cross).sum() / 24,
        ]
    )


def moments(outline: Array, *holes: Array) -> Moments:
    """Moments of an outline less its holes (each inside the outline and clear of the others).

    Source: Green's theorem for polygons; exact for straight edges. An empty region gives zeros.
    """
    raw = _oriented(outline)
    for hole in holes:
        raw = raw - _oriented(hole)
    area = float(raw[0])
    if area <= 1e-12:
        return Moments(0.0, 0.0, 0.0, 0.0, 0.0, 0.0)
    cx, cy = float(raw[1]) / area, float(raw[2]) / area
    return Moments(
        area_m2=area,
        forward_m=cx,
        left_m=cy,
        second_fall_m4=float(raw[3]) - area * cx * cx,
        second_side_m4=float(raw[4]) - area * cy * cy,
        product_m4=float(raw[5]) - area * cx * cy,
    )


def contains(corners: Array, points: Array) -> NDArray[np.bool_]:
    """Which points (n, 2) lie inside a polygon, by counting crossings; shape (n,)."""
    inside = np.zeros(len(points), dtype=bool)
    for start, end in zip(corners, following(corners), strict=True):
        crosses = (start[1] > points[:, 1]) != (end[1] > points[:, 1])
        with np.errstate(divide="ignore", invalid="ignore"):
            at = start[0] + (points[:, 1] - start[1]) / (end[1] - start[1]) * (end[0] - start[0])
        inside ^= crosses & (points[:, 0] < at)
    return inside


def added(*parts: Moments) -> Moments:
    """Moments of regions that do not overlap, together: the parallel axis theorem."""
    area = sum(part.area_m2 for part in parts)
    if area <= 1e-12:
        return Moments(0.0, 0.0, 0.0, 0.0, 0.0, 0.0)
    forward = sum(part.area_m2 * part.forward_m for part in parts) / area
    left = sum(part.area_m2 * part.left_m for part in parts) / area

    def shifted(own: float, part: Moments, one: float, other: float) -> float:
        return own + part.area_m2 * one * other

    return Moments(
        area,
        forward,
        left,
        sum(shifted(p.second_fall_m4, p, p.forward_m - forward, p.forward_m - forward) for p in parts),
        sum(shifted(p.second_side_m4, p, p.left_m - left, p.left_m - left) for p in parts),
        sum(shifted(p.product_m4, p, p.forward_m - forward, p.left_m - left) for p in parts),
    )


def across(points: Array, low_m: float, high_m: float) -> Array:
    """The part of a polygon between two lines along the lay."""
    return clip(clip(points, 0.0, 1.0, high_m), 0.0, -1.0, -low_m)


def _oriented(points: Array) -> Array:
    raw = _raw(points)
    return raw if raw[0] >= 0 else -raw


def clip(points: Array, normal_forward: float, normal_left: float, offset_m: float) -> Array:
    """The part of a polygon where normal·point <= offset; shape (k, 2), possibly empty.

    Sutherland and Hodgman's rule for one edge, on whole arrays. A non-convex polygon may come back with
    coincident edges along the cut, which add nothing to its moments.
    """
    if len(points) < 3:
        return EMPTY
    distance = points[:, 0] * normal_forward + points[:, 1] * normal_left - offset_m
    inside = distance <= 0
    if inside.all():
        return points
    if not inside.any():
        return EMPTY
    nxt = following(points)
    distance_next = following(distance)
    crosses = inside != following(inside)
    span = np.where(crosses, distance - distance_next, 1.0)
    crossing = points + (nxt - points) * (distance / span)[:, None]
    both = np.stack([points, crossing], axis=1).reshape(-1, 2)
    keep: NDArray[np.bool_] = np.stack([inside, crosses], axis=1).reshape(-1)
    return both[keep]


def ahead_of(points: Array, forward_m: float) -> Array:
    """The part of a polygon at or ahead of the line forward = forward_m."""
    return clip(points, -1.0, 0.0, -forward_m)


def behind(points: Array, forward_m: float) -> Array:
    """The part of a polygon at or behind the line forward = forward_m."""
    return clip(points, 1.0, 0.0, forward_m)


def chord(points: Array, forward_m: float) -> tuple[float, float]:
    """Outermost (left, right) positions where the line forward = forward_m meets the outline.

    Returns (left_m, right_m), left the larger; (0, 0) when the line misses.
    """
    crossings = _crossings(points, forward_m)
    if len(crossings) < 2:
        return 0.0, 0.0
    return float(crossings[-1]), float(crossings[0])


def _crossings(points: Array, forward_m: float) -> Array:
    if len(points) < 3:
        return np.zeros(0)
    x, y = points[:, 0], points[:, 1]
    xn, yn = following(x), following(y)
    hit = (x > forward_m) != (xn > forward_m)
    found: Array = np.sort(y[hit] + (forward_m - x[hit]) / (xn[hit] - x[hit]) * (yn[hit] - y[hit]))
    return found


def intervals(points: Array, lefts_m: Array) -> Array:
    """Where lines left = const run inside a polygon.

    Args:
        points: polygon, shape (n, 2).
        lefts_m: positions of the lines, shape (s,).

    Returns:
        Array of shape (s, k, 2): for each line up to k pieces (rear, front) along forward; unused pieces
        have zero length.
    """
    if len(points) < 3:
        return np.zeros((len(lefts_m), 1, 2))
    chains = _monotone_chains(points)
    if chains is None:
        return _crossed(points, lefts_m)
    (y1, x1), (y2, x2) = chains
    one, other = np.interp(lefts_m, y1, x1), np.interp(lefts_m, y2, x2)
    outside = (lefts_m <= y1[0]) | (lefts_m >= y1[-1])
    ends = np.stack([np.minimum(one, other), np.maximum(one, other)], axis=-1)
    ends[outside] = 0.0
    return ends[:, None, :]


Chain: TypeAlias = tuple[Array, Array]


def _monotone_chains(points: Array) -> tuple[Chain, Chain] | None:
    """Both sides of the outline between its extremes across the lay, as rising (y, x); None if either turns back.

    True of every convex outline, and twenty times quicker to slice than crossing every edge with every line.
    """
    y = points[:, 1]
    low = int(y.argmin())
    turned = np.concatenate((points[low:], points[: low + 1]))
    high = int(turned[:-1, 1].argmax())
    up, down = turned[: high + 1], turned[high:][::-1]
    if (np.diff(up[:, 1]) < 0).any() or (np.diff(down[:, 1]) < 0).any():
        return None
    return (up[:, 1], up[:, 0]), (down[:, 1], down[:, 0])


def _crossed(points: Array, lefts_m: Array) -> Array:
    """``intervals`` for any simple polygon: every line against every edge."""
    x, y = points[:, 0], points[:, 1]
    xn, yn = following(x), following(y)
    hit = (y[None, :] > lefts_m[:, None]) != (yn[None, :] > lefts_m[:, None])
    counts = hit.sum(axis=1)
    width = max(2, int(counts.max(initial=0)))
    rows, edges = np.nonzero(hit)
    at = x[edges] + (lefts_m[rows] - y[edges]) / (yn[edges] - y[edges]) * (xn[edges] - x[edges])
    table = np.full((len(lefts_m), width), np.inf)
    table[rows, np.arange(len(rows)) - np.repeat(np.cumsum(counts) - counts, counts)] = at
    table.sort(axis=1)
    table[~np.isfinite(table)] = 0.0
    return table.reshape(len(lefts_m), width // 2, 2)


def overlap(points: Array, other: Array) -> Array:
    """The largest piece of the intersection of two polygons, shape (k, 2), possibly empty."""
    # Imported here for start-up time only: a cavity open to the bark is rare.
    from shapely.geometry import Polygon

    common = Polygon(points).buffer(0).intersection(Polygon(other).buffer(0))
    pieces = [part for part in getattr(common, "geoms", [common]) if part.geom_type == "Polygon" and part.area > 0]
    if not pieces:
        return EMPTY
    return np.asarray(max(pieces, key=lambda part: part.area).exterior.coords)[:-1].astype(np.float64)
