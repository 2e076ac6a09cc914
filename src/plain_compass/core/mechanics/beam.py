"""Beams on beds that only push: where they come to rest, and how they bend there."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, NamedTuple, TypeAlias

import numpy as np

from ..base.frozen import dataclass
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
    """Height and slope of every node, a change of them, or forces and couples there; each of shape (B, n)."""

    height: Array
    slope: Array

    def some(self, which: Array | Mask) -> _Place:
        """That of some of the beams."""
        return _Place(self.height[which], self.slope[which])


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
    rest = _rigid(along_m, bed_m, weight_N_m, springs)[0]
    soft = weight_N_m.mean(axis=1, keepdims=True) * step / LET_DOWN_m
    stiff, load = _stiffness(bending_Nm2, step), _weighed(weight_N_m, step)
    moving = np.arange(len(along_m))
    # Of the beams that still move: where they are, what bends them (a straight one is not bent), what holds them.
    height, bent = rest, _Place(np.zeros_like(rest), np.zeros_like(rest))
    bed, held, columns = bed_m, springs, stiff.columns()
    for _ in range(SETTLES):
        deep = np.maximum(bed - height, 0.0)
        acting = deep > 0
        # With fewer than two springs the beam could turn freely: let it down softly instead.
        carried = acting.sum(axis=1, keepdims=True) >= 2
        used = np.where(carried, held * acting, soft)
        falls = _Place(bent.height - load.height - held * deep, bent.slope - load.slope)
        move = _solved(columns, used, falls)
        # What the step bends the beam by, out of the very equations it solves.
        more = _Place(-falls.height - used * move.height, -falls.slope)
        # The same springs act as were reckoned with: this is the place of rest itself.
        rests = ((height + move.height < bed) == acting).all(axis=1)
        if rests.all():
            rest[moving] = height + move.height
            break
        share = _shares((height, deep), (falls, move, more), (held, bed), rests)
        height = height + share * move.height
        rest[moving] = height
        bent = _Place(bent.height + share * more.height, bent.slope + share * more.slope)
        if rests.any():
            left = ~rests
            moving, height, bed, held, soft = moving[left], height[left], bed[left], held[left], soft[left]
            bent, load, stiff = bent.some(left), load.some(left), stiff.some(left)
            columns = stiff.columns()
    contact = springs * np.maximum(bed_m - rest, 0.0)
    return Beam(-rest, _moments(along_m, contact, weight_N_m, step[:, 0]), contact)


def _on_nodes(near: Array, far: Array) -> Array:
    """What elements do at their nodes towards the butt and towards the top, added up by node, shape (B, n)."""
    found = np.zeros((len(near), near.shape[1] + 1))
    found[:, :-1] = near
    found[:, 1:] += far
    return found


def _weighed(weight_N_m: Array, step: Array) -> _Place:
    """What even weights of the elements do at the nodes: forces and couples, downwards."""
    force, couple = weight_N_m * step / 2, weight_N_m * step**2 / 12
    return _Place(_on_nodes(-force, -force), _on_nodes(-couple, couple))


_Columns: TypeAlias = Sequence[Sequence[N]]
"""Node by node: numbers for one beam, arrays of shape (B,) for many; the arithmetic is the same."""


class _Stiffness(NamedTuple):
    """A beam's stiffness as blocks of two by two: [[a, b], [b, d]] of each node, and the block to the next node.

    Shapes (B, n), and (B, n - 1) for the block between.
    """

    a: Array
    b: Array
    d: Array
    c00: Array
    c01: Array
    c11: Array

    def some(self, which: Array | Mask) -> _Stiffness:
        """That of some of the beams."""
        return _Stiffness._make(each[which] for each in self)

    def columns(self) -> _Columns[Any]:
        """Node by node."""
        return [_by_node(each) for each in self]


def _stiffness(bending_Nm2: Array, step: Array) -> _Stiffness:
    """Of elements with cubic shapes: E I / s³ times 12, 6 s, 4 s² and 2 s²."""
    k = bending_Nm2 / step**3
    both = _on_nodes(k, k)
    chord, turn = 6.0 * step * k, 2.0 * step**2 * k
    return _Stiffness(12.0 * both, _on_nodes(chord, -chord), 4.0 * step**2 * both, -12.0 * k, chord, turn)


def _by_node(of: Array) -> Sequence[Any]:
    return of[0].tolist() if len(of) == 1 else list(np.ascontiguousarray(of.T))


def _solved(columns: _Columns[Any], springs_N_m: Array, falls: _Place) -> _Place:
    """Newton's step, against the slope of the energy, with these springs acting."""
    found = _eliminated(columns, _by_node(springs_N_m), (_by_node(-falls.height), _by_node(-falls.slope)))
    return _Place(*(np.array(each).reshape(falls.height.shape[::-1]).T for each in found))


def _eliminated(
    columns: _Columns[N], springs: Sequence[N], right: tuple[Sequence[N], Sequence[N]]
) -> tuple[list[N], list[N]]:
    """Solve a symmetric table of blocks of two along its diagonal, node by node from the butt and back from the top."""
    (a, b, d, c00, c01, c11), (f, g) = columns, right
    here_a, here_b, here_d, here_f, here_g = a[0] + springs[0], b[0], d[0], f[0], g[0]
    passed = []
    for at in range(len(a) - 1):
        whole = here_a * here_d - here_b * here_b
        p, q, r = here_d / whole, -here_b / whole, here_a / whole
        passed.append((p, q, r, here_f, here_g))
        # The block to the next node is [[c, k], [-k, t]].
        c, k, t = c00[at], c01[at], c11[at]
        w00, w01, w10, w11 = c * p - k * q, c * q - k * r, k * p + t * q, k * q + t * r
        here_a = a[at + 1] + springs[at + 1] - (w00 * c - w01 * k)
        here_b = b[at + 1] - (w00 * k + w01 * t)
        here_d = d[at + 1] - (w10 * k + w11 * t)
        here_f, here_g = f[at + 1] - (w00 * here_f + w01 * here_g), g[at + 1] - (w10 * here_f + w11 * here_g)
    whole = here_a * here_d - here_b * here_b
    x, y = (here_d * here_f - here_b * here_g) / whole, (here_a * here_g - here_b * here_f) / whole
    heights, slopes = [x], [y]
    for at in range(len(a) - 2, -1, -1):
        p, q, r, here_f, here_g = passed[at]
        c, k, t = c00[at], c01[at], c11[at]
        u, v = here_f - (c * x + k * y), here_g - (t * y - k * x)
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


def _shares(
    at: tuple[Array, Array], step: tuple[_Place, _Place, _Place], held: tuple[Array, Array], rests: Mask
) -> Array:
    """How much of each step brings the energy down enough: all of it, or halves of it; shape (B, 1).

    Bending and weight are quadratic along a step, so that only the springs have to be asked anew.

    Args:
        at: heights, and how deep they lie in the bed.
        step: the energy's slope where it begins, the step, and what it bends the beam by.
        held: springs and bed.
        rests: those that need no search.
    """
    (height, deep), (falls, move, more), (springs, bed) = at, step, held
    along = (falls.height * move.height + falls.slope * move.slope).sum(axis=1)
    curve = (more.height * move.height + more.slope * move.slope).sum(axis=1)
    pushed = (springs * deep * deep).sum(axis=1) / 2
    straight = along + (springs * deep * move.height).sum(axis=1)
    slack = 1e-12 * (np.abs(pushed) + np.abs(straight) + 1.0)
    share = np.ones(len(rests))
    while True:
        now = np.maximum(bed - height - share[:, None] * move.height, 0.0)
        gain = share * straight + share**2 * curve / 2 + (springs * now * now).sum(axis=1) / 2 - pushed
        above = gain > 1e-4 * share * along + slack
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
    found: Array = -bed
    found[:, 1:] += along_m[:, 1:] * weighs.cumsum(axis=1) - (weighs * middles).cumsum(axis=1)
    return found
