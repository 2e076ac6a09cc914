"""Outlines of many sections at once, as edges, and where lines across the lay meet them.

A section is a closed outline or several, as edges in the plane (u, v): u to the left, v along the lay. Wood runs
counter-clockwise, rot clockwise, so that what one adds the other takes away; an edge of no length pads a shorter
outline. Every quantity has a leading axis of cases, shape (B, ...); a single section is B = 1.
"""

from __future__ import annotations

import numpy as np

from .frozen import dataclass
from .rows import Array, Index, Mask


@dataclass(frozen=True, eq=False)
class Edges:
    """Outlines of B sections as edges from (u0, v0) to (u1, v1), shapes (B, E)."""

    u0: Array
    v0: Array
    u1: Array
    v1: Array

    def __len__(self) -> int:
        return len(self.u0)

    def rows(self, which: Index | Mask | slice) -> Edges:
        """Some of the sections, any of them as often as it is asked for."""
        return Edges(self.u0[which], self.v0[which], self.u1[which], self.v1[which])

    def sheared(self, slope: Array) -> Edges:
        """Measured from sloped lines v = slope u through the origin, one a section; shape (B,)."""
        s = slope[:, None]
        return Edges(self.u0, self.v0 - s * self.u0, self.u1, self.v1 - s * self.u1)

    def within(self, low: Array, high: Array) -> Edges:
        """The sections between two lines along the lay, shapes (B,): each edge in three, what lies outside drawn in."""
        low, high = low[:, None], high[:, None]
        run = self.u1 - self.u0
        safe = np.where(run == 0.0, 1.0, run)
        one, other = ((np.where(run == 0.0, 0.0, (line - self.u0) / safe)).clip(0.0, 1.0) for line in (low, high))
        first, second = np.minimum(one, other), np.maximum(one, other)
        rise = self.v1 - self.v0
        us = [np.clip(each, low, high) for each in (self.u0, self.u0 + first * run, self.u0 + second * run, self.u1)]
        vs = [self.v0, self.v0 + first * rise, self.v0 + second * rise, self.v1]
        return Edges(
            np.concatenate(us[:3], axis=1),
            np.concatenate(vs[:3], axis=1),
            np.concatenate(us[1:], axis=1),
            np.concatenate(vs[1:], axis=1),
        )


def edges_of(wood: Array, rot: Array) -> Edges:
    """Edges of B outlines of wood and of the rot in them.

    Args:
        wood, rot: corners as (v, u), that is (forward, left), shapes (B, n, 2) and (B, k, 2); k may be 0.
    """
    outer, inner = _turned(wood, clockwise=False), _turned(rot, clockwise=True)
    return Edges(*(np.concatenate(pair, axis=1) for pair in zip(outer, inner, strict=True)))


def _turned(corners: Array, *, clockwise: bool) -> tuple[Array, Array, Array, Array]:
    v, u = corners[:, :, 0], corners[:, :, 1]
    un, vn = np.roll(u, -1, axis=1), np.roll(v, -1, axis=1)
    runs_clockwise = ((u * vn - un * v).sum(axis=1) < 0)[:, None]
    back = runs_clockwise != clockwise
    return np.where(back, un, u), np.where(back, vn, v), np.where(back, u, un), np.where(back, v, vn)


@dataclass(frozen=True, slots=True, eq=False)
class Line:
    """A line across each section, v = at + slope u; shapes (B,)."""

    at_m: Array
    slope: Array

    def v_m(self, u_m: Array) -> Array:
        """Where it stands at places of shape (B, n)."""
        return self.at_m[:, None] + self.slope[:, None] * u_m


def breadth_m(edges: Edges, at_m: Array) -> Array:
    """Length of section along a line across the lay, one a section; shape (B,)."""
    hit, u = _crossings(edges, at_m)
    found: Array = np.where(hit, np.where(edges.v1 > edges.v0, u, -u), 0.0).sum(axis=1)
    return found


def ends_m(edges: Edges, at_m: Array) -> tuple[Array, Array]:
    """(left, right) outermost places where a line across the lay meets each outline; 0, 0 where it misses."""
    hit, u = _crossings(edges, at_m)
    meets = hit.any(axis=1)
    left, right = np.where(hit, u, -np.inf).max(axis=1), np.where(hit, u, np.inf).min(axis=1)
    return np.where(meets, left, 0.0), np.where(meets, right, 0.0)


def _crossings(edges: Edges, at_m: Array) -> tuple[Mask, Array]:
    at = at_m[:, None]
    hit = (edges.v0 > at) != (edges.v1 > at)
    rise = np.where(hit, edges.v1 - edges.v0, 1.0)
    return hit, edges.u0 + (at - edges.v0) / rise * (edges.u1 - edges.u0)
