"""Exact integrals over strips of many sections at once: area, moments, breadths and thicknesses.

Sections are edges as ``edges`` has them. Every quantity has a leading axis of cases, shape (B, ...).

Source: Green's theorem. Over a region the integral of u^m v^n is that of u^(m+1) v^n/(m+1) dv round its edge; what
closes a strip runs at constant v and adds nothing, so that only pieces of the outline inside it are summed.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import NamedTuple, TypeAlias

import numpy as np

from .edges import Edges, Line
from .rows import Array, Index, Mask

FAR_m = 1e3
"""Beyond any section: where a strip has no edge of its own."""
FEW = 4
"""Up to so many sections all edges are summed: picking out those that meet a strip takes longer than summing them."""
LEAST_AREA_m2 = 1e-12
"""Below a square micrometre there is no wood."""


NAMES = ("one", "u", "v", "uu", "vv", "uv")


@dataclass(frozen=True, slots=True, eq=False)
class Integrals:
    """Integrals of 1, u, v, uu, vv and uv over regions, all of one shape; regions that do not overlap add up."""

    one: Array
    u: Array
    v: Array
    uu: Array
    vv: Array
    uv: Array

    def __add__(self, other: Integrals) -> Integrals:
        return Integrals(
            self.one + other.one,
            self.u + other.u,
            self.v + other.v,
            self.uu + other.uu,
            self.vv + other.vv,
            self.uv + other.uv,
        )

    def __sub__(self, other: Integrals) -> Integrals:
        return Integrals(
            self.one - other.one,
            self.u - other.u,
            self.v - other.v,
            self.uu - other.uu,
            self.vv - other.vv,
            self.uv - other.uv,
        )

    def rows(self, which: slice) -> Integrals:
        """Some of the regions."""
        return Integrals(*(getattr(self, name)[which] for name in NAMES))

    def put(self, where: Mask, of: Integrals) -> None:
        """Write the integrals of some rows; for tables that are being filled."""
        for name in NAMES:
            getattr(self, name)[where] = getattr(of, name)

    def summed(self, owner: Index, count: int) -> Integrals:
        """The pieces of each owner together, shape (count,)."""
        return Integrals(*(counted(owner, getattr(self, name), count) for name in NAMES))

    def unsheared(self, slope: Array) -> Integrals:
        """From the axes of ``Edges.sheared`` back to u and v."""
        return Integrals(
            self.one,
            self.u,
            self.v + slope * self.u,
            self.uu,
            self.vv + 2 * slope * self.uv + slope**2 * self.uu,
            self.uv + slope * self.uu,
        )

    @property
    def area_m2(self) -> Array:
        """Area; nothing where there is next to none."""
        return np.where(self.one > LEAST_AREA_m2, self.one, 0.0)

    @property
    def _area(self) -> Array:
        return np.where(self.one > LEAST_AREA_m2, self.one, np.inf)

    @property
    def left_m(self) -> Array:
        """Centroid across the lay; 0 where there is no area."""
        return self.u / self._area

    @property
    def forward_m(self) -> Array:
        """Centroid along the lay; 0 where there is no area."""
        return self.v / self._area

    @property
    def second_fall_m4(self) -> Array:
        """Second moment about the centroid, resisting bending along the lay."""
        return np.where(self.one > LEAST_AREA_m2, self.vv - self.v * self.forward_m, 0.0)

    @property
    def second_side_m4(self) -> Array:
        """Second moment about the centroid, resisting bending across the lay."""
        return np.where(self.one > LEAST_AREA_m2, self.uu - self.u * self.left_m, 0.0)


def counted(owner: Index, values: Array, count: int) -> Array:
    """Values added up by their owner, shape (count,)."""
    return np.bincount(owner, values, count).astype(np.float64, copy=False)


class Along(NamedTuple):
    """Integrals of 1, v and vv alone, for what bends along the lay; of one shape."""

    one: Array
    v: Array
    vv: Array

    @property
    def second_m4(self) -> Array:
        """Second moment about the centroid; nothing where there is no area."""
        return np.where(
            self.one > LEAST_AREA_m2, self.vv - self.v * self.v / np.where(self.one > LEAST_AREA_m2, self.one, 1.0), 0.0
        )


def bands(edges: Edges, levels_m: Array) -> Integrals:
    """Integrals over the bands between neighbouring levels along the lay.

    Args:
        levels_m: rising in each row, shape (B, L + 1).

    Returns:
        Integrals of shape (B, L).
    """
    at, ends, levels = _pieces(edges, levels_m)
    shape = len(edges), levels_m.shape[1] - 1
    return Integrals(*(counted(at, term, shape[0] * shape[1]).reshape(shape) for term in _terms(*ends, *levels)))


def bands_along(edges: Edges, levels_m: Array) -> Along:
    """The same of 1, v and vv alone."""
    at, ends, levels = _pieces(edges, levels_m)
    shape = len(edges), levels_m.shape[1] - 1
    return Along(*(counted(at, term, shape[0] * shape[1]).reshape(shape) for term in _along(*ends, *levels)))


_Ends: TypeAlias = tuple[tuple[Array, Array], tuple[Array, Array]]


def _pieces(edges: Edges, levels_m: Array) -> tuple[Index, _Ends, tuple[Array, Array]]:
    """Every edge with every band it meets: (place among all bands, its ends, the band's levels), shapes (p,)."""
    count = levels_m.shape[1] - 1
    low = _above(np.minimum(edges.v0, edges.v1), levels_m)
    high = _above(np.maximum(edges.v0, edges.v1), levels_m)
    # Band k lies between levels k and k + 1; an edge belongs to those from its lower to its upper end.
    first, last = np.maximum(low - 1, 0), np.minimum(high - 1, count - 1)
    pieces = np.where(edges.v0 == edges.v1, 0, np.maximum(last - first + 1, 0))
    row, edge = np.nonzero(pieces)
    repeats = pieces[row, edge]
    band = np.repeat(first[row, edge] - (np.cumsum(repeats) - repeats), repeats) + np.arange(int(repeats.sum()))
    row, edge = np.repeat(row, repeats), np.repeat(edge, repeats)
    u0, v0, u1, v1 = (each[row, edge] for each in (edges.u0, edges.v0, edges.u1, edges.v1))
    return row * count + band, ((u0, v0), (u1, v1)), (levels_m[row, band], levels_m[row, band + 1])


def _above(v: Array, levels_m: Array) -> Index:
    """How many of its row's levels each place lies above, shape as ``v``."""
    if levels_m.shape[1] == 2:
        both: Index = (v > levels_m[:, :1]).astype(np.intp) + (v > levels_m[:, 1:])
        return both
    if len(v) == 1:
        alone: Index = np.searchsorted(levels_m[0], v[0], side="left")[None, :]
        return alone
    found = np.zeros(v.shape, dtype=np.intp)
    for level in levels_m.T:
        found += v > level[:, None]
    return found


def _drawn_in(start: tuple[Array, Array], end: tuple[Array, Array], low: Array, high: Array) -> tuple[Array, ...]:
    """(p, a) and (q, b): the ends (u, v) of the piece of each edge between two levels."""
    (u0, v0), (u1, v1) = start, end
    run = v1 - v0
    level = run == 0.0
    slope = (u1 - u0) / np.where(level, 1.0, run)
    a = np.minimum(np.maximum(v0, low), high)
    # An edge at one level adds nothing: its ends are drawn together.
    b = np.where(level, a, np.minimum(np.maximum(v1, low), high))
    p = u0 + slope * (a - v0)
    return p, a, p + slope * (b - a), b


def _terms(start: tuple[Array, Array], end: tuple[Array, Array], low: Array, high: Array) -> Array:
    """What the piece of each edge, from (u, v) to (u, v), between two levels adds to the six integrals; (6, ...)."""
    p, a, q, b = _drawn_in(start, end, low, high)
    rise, both, product, sum_v = b - a, p + q, p * q, a + b
    ap, bq, flat, square = a * p, b * q, rise * both, both * both
    found = np.empty((6, *a.shape))
    found[0] = flat / 2
    found[1] = rise * (square - product) / 6
    found[2] = (flat * sum_v + rise * (ap + bq)) / 6
    found[3] = flat * (square - 2 * product) / 12
    found[4] = (2 * flat * (sum_v * sum_v - a * b) - rise * rise * sum_v * (p - q)) / 12
    found[5] = rise * (sum_v * square + 2 * (ap * p + bq * q)) / 24
    return found


def _along(start: tuple[Array, Array], end: tuple[Array, Array], low: Array, high: Array) -> Array:
    """The same of 1, v and vv alone; (3, ...)."""
    p, a, q, b = _drawn_in(start, end, low, high)
    rise, sum_v = b - a, a + b
    flat = rise * (p + q)
    found = np.empty((3, *a.shape))
    found[0] = flat / 2
    found[1] = (flat * sum_v + rise * (a * p + b * q)) / 6
    found[2] = (2 * flat * (sum_v * sum_v - a * b) - rise * rise * sum_v * (p - q)) / 12
    return found


def strip(edges: Edges, low_m: Array, high_m: Array) -> Integrals:
    """Integrals over one strip a section, between two levels of shape (B,)."""
    high_m = np.maximum(high_m, low_m)
    if len(edges) <= FEW:
        terms = _terms((edges.u0, edges.v0), (edges.u1, edges.v1), low_m[:, None], high_m[:, None])
        return Integrals(*terms.sum(axis=2))
    found = bands(edges, np.stack([low_m, high_m], axis=1))
    return Integrals(*(getattr(found, name)[:, 0] for name in NAMES))


def strip_along(edges: Edges, low_m: Array, high_m: Array) -> Along:
    """The same of 1, v and vv alone."""
    high_m = np.maximum(high_m, low_m)
    if len(edges) <= FEW:
        terms = _along((edges.u0, edges.v0), (edges.u1, edges.v1), low_m[:, None], high_m[:, None])
        return Along(*terms.sum(axis=2))
    found = bands_along(edges, np.stack([low_m, high_m], axis=1))
    return Along(*(each[:, 0] for each in found))


def ahead(edges: Edges, at_m: Array, slope: Array) -> Integrals:
    """Integrals over what lies ahead of a line v = at + slope u, one a section; shapes (B,)."""
    far = np.full(len(edges), FAR_m)
    if not slope.any():
        return strip(edges, at_m, far)
    return strip(edges.sheared(slope), at_m, far).unsheared(slope)


def between_lines(edges: Edges, rear: Line, front: Line) -> Integrals:
    """Integrals over what lies ahead of one line and not ahead of another, one of each a section."""
    if not (rear.slope.any() or front.slope.any()):
        return strip(edges, rear.at_m, front.at_m)
    count = len(edges)
    twice = edges.rows(np.concatenate([np.arange(count)] * 2))
    slopes = np.concatenate([rear.slope, front.slope])
    both = ahead(twice, np.concatenate([rear.at_m, front.at_m]), slopes)
    return both.rows(slice(None, count)) - both.rows(slice(count, None))


def area_between_lines(edges: Edges, rear: Line, front: Line) -> Array:
    """Area of what lies ahead of one line and not ahead of another, one of each a section; shape (B,)."""
    found, u0, u1 = np.zeros(len(edges)), edges.u0, edges.u1
    for line, sign in ((rear, 1.0), (front, -1.0)):
        # Heights over the line; what lies behind it is drawn onto it and adds nothing.
        v0, v1 = edges.v0 - line.v_m(u0), edges.v1 - line.v_m(u1)
        a, b = np.maximum(v0, 0.0), np.maximum(v1, 0.0)
        level = v0 == v1
        run = np.where(level, 0.0, (u1 - u0) / np.where(level, 1.0, v1 - v0))
        found += sign * ((b - a) * (2 * u0 + run * (a + b - 2 * v0))).sum(axis=1) / 2
    return found
