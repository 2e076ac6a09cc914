"""Beams on beds that only push: where they come to rest, and how they bend there."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple, TypeAlias

import numpy as np

from ..base.rows import Array, Mask, N

SETTLES = 60
"""Rounds of Newton's method in which contacts open and close: a bound, the place of rest ends it long before."""
LET_DOWN_m = 0.5
"""How far a beam that could still turn freely is let down in one round, about: a step on the way, not a result."""
LEAST_SHARE = 1e-6
"""Share of a step below which no smaller one is tried."""


@dataclass(frozen=True, slots=True, eq=False)
class Beam:
    """B beams come to rest on their beds.

    Attributes:
        down_m: how far each node lies below where it was placed, downwards positive, shape (B, n).
        moment_Nm: bending moment, hogging positive, shape (B, n).
        contact_N: what the bed carries at each node, shape (B, n).
    """

    down_m: Array
    moment_Nm: Array
    contact_N: Array


class _Place(NamedTuple):
    """Height and slope of every node, or a change of them; each of shape (B, n)."""

    height_m: Array
    slope: Array


class _Held(NamedTuple):
    """What holds beams: stiffness E I / s³ of each element, their length s, weights on the nodes, springs and bed.

    Shapes (B, n - 1), (B, 1), pairs of (B, n), (B, n), (B, n).
    """

    stiff_N_m: Array
    step_m: Array
    load: _Place
    springs_N_m: Array
    bed_m: Array

    def some(self, which: Array | Mask) -> _Held:
        """Those of some of the beams."""
        load = _Place(*(each[which] for each in self.load))
        return _Held(self.stiff_N_m[which], self.step_m[which], load, self.springs_N_m[which], self.bed_m[which])


def beams_on(along_m: Array, bending_Nm2: Array, weight_N_m: Array, bed_m: Array, bed_N_m2: float) -> Beam:
    """Lay straight beams on beds that only push.

    Euler-Bernoulli elements of equal length with cubic shapes; springs under the nodes act where the beam lies
    deeper than the bed. Strain energy, weight and springs together are convex, so Newton's method with a line
    search finds the one place of rest; a beam that has come to rest is left alone while others still move.

    Args:
        along_m: nodes, even steps, shape (B, n).
        bending_Nm2: E I of each element, shape (B, n - 1).
        weight_N_m: load per metre of each element, shape (B, n - 1).
        bed_m: height of the bed under each node, shape (B, n).
        bed_N_m2: stiffness of the bed per metre of beam and metre of depth.
    """
    step = along_m[:, 1:2] - along_m[:, 0:1]
    springs = np.repeat(bed_N_m2 * step, along_m.shape[1], axis=1)
    springs[:, [0, -1]] /= 2
    whole = _Held(bending_Nm2 / step**3, step, _weighed(weight_N_m, step), springs, bed_m)
    height, slope = _rigid(along_m, bed_m, weight_N_m, springs)
    soft = weight_N_m.mean(axis=1, keepdims=True) * step / LET_DOWN_m
    moving, held = np.arange(len(along_m)), whole
    for _ in range(SETTLES):
        here = _Place(height[moving], slope[moving])
        acting = here.height_m < held.bed_m
        # With fewer than two springs the beam could turn freely: let it down softly instead.
        carried = acting.sum(axis=1, keepdims=True) >= 2
        falls = _slope(here, held)
        move = _step(held, np.where(carried, held.springs_N_m * acting, soft[moving]), falls)
        moved = here.height_m + move.height_m
        # The same springs act as were reckoned with: this is the place of rest itself.
        rests = ((moved < held.bed_m) == acting).all(axis=1)
        share = np.ones((len(moving), 1)) if rests.all() else _shares(here, move, falls, held, rests)
        height[moving] = here.height_m + share * move.height_m
        slope[moving] = here.slope + share * move.slope
        if rests.all():
            break
        moving, held = moving[~rests], held.some(~rests)
    contact = springs * np.maximum(bed_m - height, 0.0)
    return Beam(-height, _moments(along_m, contact, weight_N_m, step[:, 0]), contact)


def _weighed(weight_N_m: Array, step: Array) -> _Place:
    """What even weights of the elements do at the nodes: forces and couples, downwards."""
    force, couple = weight_N_m * step / 2, weight_N_m * step**2 / 12
    return _Place(-(_left(force) + _right(force)), -(_left(couple) - _right(couple)))


def _left(of: Array) -> Array:
    """What elements do at their nodes near the butt, shape (B, n)."""
    return np.pad(of, ((0, 0), (0, 1)))


def _right(of: Array) -> Array:
    """What elements do at their nodes near the top, shape (B, n)."""
    return np.pad(of, ((0, 0), (1, 0)))


def _bent(at: _Place, held: _Held) -> _Place:
    """Forces and couples with which bent elements act on their nodes: stiffness times place."""
    y, t, s = at.height_m, at.slope, held.step_m
    near, far = t[:, :-1], t[:, 1:]
    chord = 6.0 * (y[:, :-1] - y[:, 1:])
    force = held.stiff_N_m * (2.0 * chord + 6.0 * s * (near + far))
    at_near = held.stiff_N_m * s * (chord + s * (4.0 * near + 2.0 * far))
    at_far = held.stiff_N_m * s * (chord + s * (2.0 * near + 4.0 * far))
    return _Place(_left(force) - _right(force), _left(at_near) + _right(at_far))


def _slope(at: _Place, held: _Held) -> _Place:
    """How the energy grows with each height and slope: nothing in all of them at rest."""
    bent = _bent(at, held)
    pushed = held.springs_N_m * np.maximum(held.bed_m - at.height_m, 0.0)
    return _Place(bent.height_m - held.load.height_m - pushed, bent.slope - held.load.slope)


def _step(held: _Held, springs_N_m: Array, falls: _Place) -> _Place:
    """Newton's step, against the slope of the energy, with these springs acting."""
    k, s = held.stiff_N_m, held.step_m
    both, differ = _left(k) + _right(k), _left(k) - _right(k)
    nodes = (12.0 * both + springs_N_m, 6.0 * s * differ, 4.0 * s**2 * both)
    between = (-12.0 * k, 6.0 * s * k, -6.0 * s * k, 2.0 * s**2 * k)
    right = (-falls.height_m, -falls.slope)
    if len(k) == 1:
        # Plain numbers are quicker for one beam; the arithmetic is the same.
        alone = [each[0].tolist() for each in (*nodes, *between, *right)]
        return _Place(*(np.array([each]) for each in _eliminated(alone)))
    return _Place(
        *(np.array(each).T for each in _eliminated([list(each.T.copy()) for each in (*nodes, *between, *right)]))
    )


_Columns: TypeAlias = Sequence[Sequence[N]]


def _eliminated(table: _Columns[N]) -> tuple[list[N], list[N]]:
    """Solve a symmetric table of blocks of two along its diagonal, node by node from the butt, and back from the top.

    Args:
        table: a, b, d of each node's block [[a, b], [b, d]]; the four of the block to the next node; both right sides.
    """
    a, b, d, c00, c01, c10, c11, f, g = table
    top, tops = (a[0], b[0], d[0], f[0], g[0]), []
    for at in range(len(a) - 1):
        here_a, here_b, here_d, here_f, here_g = top
        whole = here_a * here_d - here_b * here_b
        p, q, r = here_d / whole, -here_b / whole, here_a / whole
        tops.append((p, q, r, here_f, here_g))
        w00, w01 = c00[at] * p + c10[at] * q, c00[at] * q + c10[at] * r
        w10, w11 = c01[at] * p + c11[at] * q, c01[at] * q + c11[at] * r
        top = (
            a[at + 1] - (w00 * c00[at] + w01 * c10[at]),
            b[at + 1] - (w00 * c01[at] + w01 * c11[at]),
            d[at + 1] - (w10 * c01[at] + w11 * c11[at]),
            f[at + 1] - (w00 * here_f + w01 * here_g),
            g[at + 1] - (w10 * here_f + w11 * here_g),
        )
    here_a, here_b, here_d, here_f, here_g = top
    whole = here_a * here_d - here_b * here_b
    x, y = (here_d * here_f - here_b * here_g) / whole, (here_a * here_g - here_b * here_f) / whole
    heights, slopes = [x], [y]
    for at in range(len(a) - 2, -1, -1):
        p, q, r, here_f, here_g = tops[at]
        u, v = here_f - (c00[at] * x + c01[at] * y), here_g - (c10[at] * x + c11[at] * y)
        x, y = p * u + q * v, q * u + r * v
        heights.append(x)
        slopes.append(y)
    return heights[::-1], slopes[::-1]


def _rigid(along_m: Array, bed_m: Array, weight_N_m: Array, springs: Array) -> _Place:
    """Where stiff beams would lie, sunk by their weight: on the two high points that carry their centres.

    Of all pairs of points on either side of the centre of weight, the one that holds the centre highest.
    """
    many = len(along_m)
    step = along_m[:, 1] - along_m[:, 0]
    middles = along_m[:, :-1] + step[:, None] / 2
    centre = (weight_N_m * middles).sum(axis=1) / weight_N_m.sum(axis=1)
    is_left = along_m <= centre[:, None]
    run = along_m[:, None, :] - along_m[:, :, None]
    slopes = (bed_m[:, None, :] - bed_m[:, :, None]) / np.where(run == 0, 1.0, run)
    held = bed_m[:, :, None] + slopes * (centre[:, None] - along_m)[:, :, None]
    held = np.where(is_left[:, :, None] & ~is_left[:, None, :], held, -np.inf)
    best = held.reshape(many, -1).argmax(axis=1)
    rows = np.arange(many)
    tilt = slopes.reshape(many, -1)[rows, best]
    sunk = weight_N_m.sum(axis=1) * step / springs.min(axis=1)
    level = held.reshape(many, -1)[rows, best] - sunk
    return _Place(
        level[:, None] + tilt[:, None] * (along_m - centre[:, None]), np.repeat(tilt[:, None], along_m.shape[1], axis=1)
    )


def _shares(at: _Place, move: _Place, falls: _Place, held: _Held, rests: Mask) -> Array:
    """How much of each step brings the energy down enough: all of it, or halves of it; shape (B, 1).

    Args:
        falls: slope of the energy where the step begins.
        rests: those that need no search.
    """

    def energy(share: Array) -> Array:
        there = _Place(at.height_m + share[:, None] * move.height_m, at.slope + share[:, None] * move.slope)
        bent, deep = _bent(there, held), np.maximum(held.bed_m - there.height_m, 0.0)
        force = bent.height_m / 2 - held.load.height_m
        couple = bent.slope / 2 - held.load.slope
        found: Array = (force * there.height_m + couple * there.slope + held.springs_N_m * deep * deep / 2).sum(axis=1)
        return found

    share = np.ones(len(rests))
    along = (falls.height_m * move.height_m + falls.slope * move.slope).sum(axis=1)
    now = energy(np.zeros(len(rests)))
    slack = 1e-12 * (np.abs(now) + 1.0)
    while True:
        above = energy(share) > now + 1e-4 * share * along + slack
        above &= ~rests & (share > LEAST_SHARE)
        if not above.any():
            return share[:, None]
        share = np.where(above, share / 2, share)


def _moments(along_m: Array, contact_N: Array, weight_N_m: Array, step: Array) -> Array:
    """Bending moment at each node from what lies on one side of it: statics, hogging positive; (B, n)."""
    # Sums of forces and of their levers, node by node: a force F at x acts at X with F (X - x).
    middles = along_m[:, :-1] + step[:, None] / 2
    pushes, weighs = contact_N, weight_N_m * step[:, None]
    bed = along_m * pushes.cumsum(axis=1) - (pushes * along_m).cumsum(axis=1)
    before = _right(weighs.cumsum(axis=1)), _right((weighs * middles).cumsum(axis=1))
    found: Array = along_m * before[0] - before[1] - bed
    return found
