"""How thick many sections are along the lay: on lines through them, and exactly between two lines across them.

The axes and the direction of the edges are those of ``strips``. Along a line u = const a section's thickness between
two levels is the sum of its crossings, each drawn in between the levels, signed by whether the section ends or begins
there: nothing has to be paired.
"""

from __future__ import annotations

import math

import numpy as np

from .edges import Edges, Line
from .frozen import dataclass
from .rows import Array, Index, Mask, expanded, in_blocks, limited

LINES = 200
"""Lines of an even set, closer together towards both sides, where the thickness falls to nothing."""
CASES_AT_ONCE = 4
"""Sections whose lines are worked through together: their tables stay within the processor's own memory."""
LEAST_m = 1e-6
"""Thinner than a micrometre is nothing."""


@dataclass(frozen=True, eq=False)
class Lines:
    """Where lines along the lay cross each section.

    Attributes:
        u_m: where they stand, shape (B, n).
        width_m: width each stands for in an integral across the lay, shape (B, n).
        begins_m, ends_m: where the section begins and ends on each line; each line has as many of one as of the other,
            and both are padded with one value, so that the padding adds nothing; shape (k, B, n).
    """

    u_m: Array
    width_m: Array
    begins_m: Array
    ends_m: Array

    def squares_m3(self, low_m: Array, high_m: Array) -> Array:
        """Integral across the lay of the squared thickness between several lower levels and one upper.

        Args:
            low_m: shape (B, c).
            high_m: shape (B,).

        Returns:
            Shape (B, c).
        """
        found = np.empty(low_m.shape)
        begins, ends = (np.minimum(each, high_m[:, None]) for each in (self.begins_m, self.ends_m))
        thick, other = np.empty((2, CASES_AT_ONCE, low_m.shape[1], self.u_m.shape[1]))
        for rows in in_blocks(len(low_m), CASES_AT_ONCE):
            low = low_m[rows, :, None]
            t, spare = thick[: len(low)], other[: len(low)]
            np.maximum(ends[0, rows, None], low, out=t)
            for k in range(len(ends)):
                if k:
                    t += np.maximum(ends[k, rows, None], low, out=spare)
                t -= np.maximum(begins[k, rows, None], low, out=spare)
            t *= t
            found[rows] = (t @ self.width_m[rows, :, None])[:, :, 0]
        return found

    def powers(self, low_m: Array, high_m: Array, rows: Index | slice) -> tuple[Array, Array]:
        """Integrals across the lay of some sections' thickness squared, and cubed, between one level and another."""
        low, high = low_m[:, None], high_m[:, None]
        ends, begins = self.ends_m[:, rows], self.begins_m[:, rows]
        t = (limited(ends, low, high) - limited(begins, low, high)).sum(axis=0)
        square = t * t * self.width_m[rows]
        return square.sum(axis=1), (square * t).sum(axis=1)


def even_lines(edges: Edges) -> Lines:
    """``LINES`` lines through each section, spaced by the cosine rule (the midpoint rule in the angle of a circle)."""
    low, high = edges.u0.min(axis=1), edges.u0.max(axis=1)
    middle, half = (low + high)[:, None] / 2, np.maximum(high - low, 1e-9)[:, None] / 2
    turn = (np.arange(LINES) + 0.5) * math.pi / LINES
    u = middle - half * np.cos(turn)
    width = half * (np.cos(turn - math.pi / LINES / 2) - np.cos(turn + math.pi / LINES / 2))
    # How many lines stand left of a corner: the same for both edges that meet there, so that none is lost between them.
    share = (np.arccos(limited((middle - end) / half, -1.0, 1.0)) * LINES / math.pi for end in (edges.u0, edges.u1))
    one, other = (np.rint(each).astype(np.intp) for each in share)
    first, last = np.minimum(one, other), np.maximum(one, other)
    row, edge, line = expanded(first, last - first)
    u0, v0, u1, v1 = (each[row, edge] for each in (edges.u0, edges.v0, edges.u1, edges.v1))
    at = v0 + (u[row, line] - u0) / (u1 - u0) * (v1 - v0)
    key, leaves = row * LINES + line, u1 < u0
    begins, ends = (_packed(key[which], at[which], len(edges) * LINES) for which in (~leaves, leaves))
    return Lines(u, width, begins.reshape(-1, len(edges), LINES), ends.reshape(-1, len(edges), LINES))


def _packed(key: Index, values: Array, count: int) -> Array:
    """Values gathered by key into columns, padded with zeros; shape (k, count)."""
    order = np.argsort(key, kind="stable")
    key = key[order]
    many = np.bincount(key, minlength=count)
    place = np.arange(len(key)) - np.repeat(np.cumsum(many) - many, many)
    deep = max(int(many.max(initial=0)), 1)
    table = np.zeros((deep, count))
    table[place, key] = values[order]
    return table


def thickness_at_m(edges: Edges, u_m: Array, low_m: Array, high_m: Array) -> Array:
    """Section along single lines u between two levels; all of shape (B, s)."""
    hit, v, leaves = crossed_at(edges, u_m)
    inside = np.minimum(np.maximum(v, low_m[:, :, None]), high_m[:, :, None])
    found: Array = np.where(hit, np.where(leaves, inside, -inside), 0.0).sum(axis=2)
    return found


def crossed_at(edges: Edges, u_m: Array) -> tuple[Mask, Array, Mask]:
    """(whether each edge is crossed by a line, where along the lay, whether the section ends there); (B, s, E)."""
    at = u_m[:, :, None]
    u0, v0, u1, v1 = (each[:, None] for each in (edges.u0, edges.v0, edges.u1, edges.v1))
    hit = (u0 > at) != (u1 > at)
    run = u1 - u0
    v = v0 + (at - u0) / np.where(hit, run, 1.0) * (v1 - v0)
    return hit, v, run < 0


@dataclass(frozen=True, eq=False)
class Between:
    """The section between two lines across it; shapes (B,).

    Attributes:
        square_m3, cube_m4: integrals over the width of the thickness squared, and cubed.
        left_m, right_m: outermost section there; 0 where there is none.
    """

    square_m3: Array
    cube_m4: Array
    left_m: Array
    right_m: Array


def between(edges: Edges, rear: Line, front: Line, low_m: Array, high_m: Array) -> Between:
    """Thickness between two lines, within a stretch across the lay; exact.

    Between its kinks the thickness is straight, so that its middle and its slope there give its square exactly.
    Kinks are where an edge begins or ends, where it crosses a line, and the stretch's own ends.

    Args:
        low_m, high_m: the stretch, shapes (B,).
    """
    near = _near(edges, rear, front)
    kinks = np.concatenate([near.ua, near.ub, low_m[:, None], high_m[:, None]], axis=1)
    kinks = np.sort(limited(kinks, low_m[:, None], high_m[:, None]), axis=1)
    start, long = kinks[:, :-1], np.diff(kinks, axis=1)
    thick, grows = near.thickness_m(start + long / 2)
    # Straight about its middle: the means of its powers are the middle's and what the ends exceed it by.
    middle, excess = thick * thick, (grows * long) ** 2 / 12
    square = ((middle + excess) * long).sum(axis=1)
    cube = ((middle + 3 * excess) * thick * long).sum(axis=1)
    solid = (thick > LEAST_m) & (long > 0)
    some = solid.any(axis=1)
    left = np.where(solid, start + long, -np.inf).max(axis=1)
    right = np.where(solid, start, np.inf).min(axis=1)
    return Between(square, cube, np.where(some, left, 0.0), np.where(some, right, 0.0))


@dataclass(frozen=True, eq=False)
class _Near:
    """The edges that meet a strip, cut to it, from (ua, va) to (ub, vb), shapes (B, k), and where they leave it.

    A way round outside the strip is drawn onto the line it left over: from where it leaves to where it comes back the
    outline runs along that line. Each leaving and each coming back counts by itself for all that lies left of it.
    """

    ua: Array
    va: Array
    ub: Array
    vb: Array
    over_front: Array
    over_rear: Array
    rear: Line
    front: Line

    def thickness_m(self, u: Array) -> tuple[Array, Array]:
        """(thickness, how it grows to the left) at places of shape (B, n)."""
        found = np.empty((*u.shape, 2))
        run = np.where(self.ua == self.ub, 1.0, self.ub - self.ua)
        slope = (self.vb - self.va) / run
        straight = np.stack([self.va - self.ua * slope, slope], axis=-1)
        lines = (np.stack([line.at_m, line.slope], axis=-1)[:, None] for line in (self.front, self.rear))
        front, rear = lines
        begins, ends = (
            self.over_front[:, :, end, None] * front + self.over_rear[:, :, end, None] * rear for end in (0, 1)
        )
        for some in in_blocks(len(u), CASES_AT_ONCE):
            at = u[some, :, None]
            past_a, past_b = ((at > each[some, None]).astype(np.float64) for each in (self.ua, self.ub))
            # An edge that runs to the right begins wood, one to the left ends it: both flags together say which.
            found[some] = (past_b - past_a) @ straight[some] + past_a @ begins[some] + past_b @ ends[some]
        return found[:, :, 0] + found[:, :, 1] * u, found[:, :, 1]


def _near(edges: Edges, rear: Line, front: Line) -> _Near:
    above0, above1 = (v - front.v_m(u) for u, v in ((edges.u0, edges.v0), (edges.u1, edges.v1)))
    # Past where the lines cross they are one: what comes over the front there goes out over the rear at once.
    ends = ((edges.u0, edges.v0), (edges.u1, edges.v1))
    below0, below1 = (np.minimum(rear.v_m(u), front.v_m(u)) - v for u, v in ends)
    # An end counts as outside from the line on, so that two edges that meet on it agree.
    meets = ~((above0 >= 0) & (above1 >= 0)) & ~((below0 >= 0) & (below1 >= 0))
    if len(meets) == 1:
        pick = np.nonzero(meets[0])[0][None, :]
    else:
        deep = max(int(meets.sum(axis=1).max(initial=0)), 1)
        pick = np.argsort(~meets, axis=1, kind="stable")[:, :deep]
    rows = np.arange(len(meets))[:, None]

    def kept(each: Array) -> Array:
        return each[rows, pick]

    is_kept = meets[rows, pick]
    u0, v0, u1, v1 = (kept(each) for each in (edges.u0, edges.v0, edges.u1, edges.v1))
    f0, f1, r0, r1 = (kept(each) for each in (above0, above1, below0, below1))
    # Shares of the edge at which it comes into the strip and leaves it, over either line.
    in_front, out_front, ways_front = _shares(f0, f1)
    in_rear, out_rear, ways_rear = _shares(r0, r1)
    begin, end = np.maximum(in_front, in_rear), np.minimum(out_front, out_rear)
    end = np.maximum(end, begin)
    over_front, over_rear = (np.where(is_kept[:, :, None], ways, 0.0) for ways in (ways_front, ways_rear))
    ua, ub = u0 + begin * (u1 - u0), u0 + end * (u1 - u0)
    va, vb = v0 + begin * (v1 - v0), v0 + end * (v1 - v0)
    ub, vb = np.where(is_kept, ub, ua), np.where(is_kept, vb, va)
    return _Near(ua, va, ub, vb, over_front, over_rear, rear, front)


def _shares(outside0: Array, outside1: Array) -> tuple[Array, Array, Array]:
    """Shares of each edge between which it is inside, by how far its ends stand outside (from 0 on they do).

    The third counts its crossings, shape (B, k, 2): 1 where it comes in at its start, -1 where it leaves at its end.
    """
    change = np.where(outside0 == outside1, 1.0, outside0 - outside1)
    at = limited(outside0 / change, 0.0, 1.0)
    comes_in, goes_out = (outside0 >= 0) & (outside1 < 0), (outside0 < 0) & (outside1 >= 0)
    ways = np.empty((*change.shape, 2))
    ways[:, :, 0], ways[:, :, 1] = comes_in, np.where(goes_out, -1.0, 0.0)
    return np.where(comes_in, at, 0.0), np.where(goes_out, at, 1.0), ways
