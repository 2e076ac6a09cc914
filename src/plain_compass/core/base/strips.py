"""Exact integrals over strips of many sections at once: area, moments, breadths and thicknesses.

Sections are edges as ``edges`` has them. Every quantity has a leading axis of cases, shape (B, ...).

Source: Green's theorem. Over a region the integral of u^m v^n is that of u^(m+1) v^n/(m+1) dv round its edge; what
closes a strip runs at constant v and adds nothing, so that only pieces of the outline inside it are summed.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import fields
from typing import TypeVar

import numpy as np

from .edges import Edges, Line
from .frozen import dataclass
from .rows import Array, Index, Mask, expanded

FAR_m = 1e3
"""Beyond any section: where a strip has no edge of its own."""
FEW = 4
"""Up to so many sections all edges are summed: picking out those that meet a strip takes longer than summing them."""
LEAST_AREA_m2 = 1e-12
"""Below a square micrometre there is no wood."""


@dataclass(frozen=True, eq=False)
class Along:
    """Integrals of 1, v and vv over regions, for what bends along the lay; all of one shape."""

    one: Array
    v: Array
    vv: Array

    @property
    def area_m2(self) -> Array:
        """Area; nothing where there is next to none."""
        return np.where(self.one > LEAST_AREA_m2, self.one, 0.0)

    @property
    def _area(self) -> Array:
        return np.where(self.one > LEAST_AREA_m2, self.one, np.inf)

    @property
    def forward_m(self) -> Array:
        """Centroid along the lay; 0 where there is no area."""
        return self.v / self._area

    @property
    def second_fall_m4(self) -> Array:
        """Second moment about the centroid, resisting bending along the lay."""
        return np.where(self.one > LEAST_AREA_m2, self.vv - self.v * self.forward_m, 0.0)


@dataclass(frozen=True, eq=False)
class Integrals(Along):
    """Integrals of u, uu and uv beside those; regions that do not overlap add up."""

    u: Array
    uu: Array
    uv: Array

    def __sub__(self, other: Integrals) -> Integrals:
        return Integrals(*(getattr(self, name) - getattr(other, name) for name in NAMES))

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
            one=self.one,
            v=self.v + slope * self.u,
            vv=self.vv + 2 * slope * self.uv + slope**2 * self.uu,
            u=self.u,
            uu=self.uu,
            uv=self.uv + slope * self.uu,
        )

    @property
    def left_m(self) -> Array:
        """Centroid across the lay; 0 where there is no area."""
        return self.u / self._area

    @property
    def second_side_m4(self) -> Array:
        """Second moment about the centroid, resisting bending across the lay."""
        return np.where(self.one > LEAST_AREA_m2, self.uu - self.u * self.left_m, 0.0)


NAMES = ("one", "v", "vv", "u", "uu", "uv")
A = TypeVar("A", Along, Integrals)


def counted(owner: Index, values: Array, count: int) -> Array:
    """Values added up by their owner, shape (count,)."""
    return np.bincount(owner, values, count).astype(np.float64, copy=False)


def bands(edges: Edges, levels_m: Array, of: type[A]) -> A:
    """Integrals over the bands between neighbouring levels along the lay.

    Args:
        levels_m: rising in each row, shape (B, L + 1).
        of: which integrals.

    Returns:
        Integrals of shape (B, L).
    """
    count = levels_m.shape[1] - 1
    low = _above(np.minimum(edges.v0, edges.v1), levels_m)
    high = _above(np.maximum(edges.v0, edges.v1), levels_m)
    # Band k lies between levels k and k + 1; an edge belongs to those from its lower to its upper end.
    first, last = np.maximum(low - 1, 0), np.minimum(high - 1, count - 1)
    row, edge, band = expanded(first, np.where(edges.v0 == edges.v1, 0, np.maximum(last - first + 1, 0)))
    u0, v0, u1, v1 = (each[row, edge] for each in (edges.u0, edges.v0, edges.u1, edges.v1))
    ends = _drawn_in((u0, v0), (u1, v1), levels_m[row, band], levels_m[row, band + 1])
    at, shape = row * count + band, (len(edges), count)
    return of(*(counted(at, term, shape[0] * count).reshape(shape) for term in TERMS[of](*ends)))


def _above(v: Array, levels_m: Array) -> Index:
    """How many of its row's levels each place lies above, shape as ``v``."""
    if levels_m.shape[1] == 2:
        both: Index = (v > levels_m[:, :1]).astype(np.intp) + (v > levels_m[:, 1:])
        return both
    if len(v) == 1:
        alone: Index = np.searchsorted(levels_m[0], v[0], side="left")[None, :]
        return alone
    # Large tables are quicker the smaller they are: of one byte each, as long as that holds the count.
    found = np.zeros(v.shape, dtype=np.uint8 if levels_m.shape[1] < 256 else np.uint32)
    for level in levels_m.T:
        found += (v > level[:, None]).view(np.uint8)
    return found.astype(np.intp)


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


def _along(p: Array, a: Array, q: Array, b: Array) -> tuple[Array, ...]:
    """What pieces of edges from (p, a) to (q, b) add to the integrals of 1, v and vv."""
    rise, sum_v = b - a, a + b
    flat = rise * (p + q)
    return (
        flat / 2,
        (flat * sum_v + rise * (a * p + b * q)) / 6,
        (2 * flat * (sum_v * sum_v - a * b) - rise * rise * sum_v * (p - q)) / 12,
    )


def _whole(p: Array, a: Array, q: Array, b: Array) -> tuple[Array, ...]:
    """The same of u, uu and uv too."""
    rise, both, product = b - a, p + q, p * q
    square = both * both
    return (
        *_along(p, a, q, b),
        rise * (square - product) / 6,
        rise * both * (square - 2 * product) / 12,
        rise * ((a + b) * square + 2 * (a * p * p + b * q * q)) / 24,
    )


TERMS: Mapping[type[Along], Callable[[Array, Array, Array, Array], tuple[Array, ...]]] = {
    Along: _along,
    Integrals: _whole,
}


def strip(edges: Edges, low_m: Array, high_m: Array, of: type[A]) -> A:
    """Integrals over one strip a section, between two levels of shape (B,)."""
    high_m = np.maximum(high_m, low_m)
    if len(low_m) <= FEW:
        ends = _drawn_in((edges.u0, edges.v0), (edges.u1, edges.v1), low_m[:, None], high_m[:, None])
        return of(*np.array(TERMS[of](*ends)).sum(axis=2))
    found = bands(edges, np.stack([low_m, high_m], axis=1), of)
    return of(*(getattr(found, item.name)[:, 0] for item in fields(of)))


def ahead(edges: Edges, at_m: Array, slope: Array) -> Integrals:
    """Integrals over what lies ahead of a line v = at + slope u, one a section; shapes (B,)."""
    far = np.full(len(at_m), FAR_m)
    if not slope.any():
        return strip(edges, at_m, far, Integrals)
    return strip(edges.sheared(slope), at_m, far, Integrals).unsheared(slope)


def between_lines(edges: Edges, rear: Line, front: Line) -> Integrals:
    """Integrals over what lies ahead of one line and not ahead of another, one of each a section."""
    if not (rear.slope.any() or front.slope.any()):
        return strip(edges, rear.at_m, front.at_m, Integrals)
    count = len(edges)
    # One section serves for both as it is.
    twice = edges if count == 1 else edges.rows(np.concatenate([np.arange(count)] * 2))
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
