"""The equations of motion of the rod, and its hinge: the one place every integrator takes them from.

d/dt(I cos^2 psi phi') = m g (Z sin phi cos psi + X cos phi - Y sin phi sin psi) + Q_phi
I psi'' = -I phi'^2 cos psi sin psi + m g (Z cos phi sin psi + Y cos phi cos psi) + Q_psi

with drag Q_phi = -c W cos^2 psi phi', Q_psi = -c W psi', W the whole turning speed, and steady wind
Q_phi = F_f z cos phi cos psi, Q_psi = z (F_l cos psi - F_f sin phi sin psi). Source: Lagrange's equations of a thin
rod with I/2 (phi'^2 cos^2 psi + psi'^2) and its weight and wind as generalised forces.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Generic, NamedTuple, TypeVar

import numpy as np

from ..base.polygon import Array
from .rods import Rods

LEAST_COSINE = 1e-3
"""Of the side angle, when time is the clock: a stem that points straight aside has no tilt any more."""
Angle = TypeVar("Angle", float, Array)


class Spun(NamedTuple, Generic[Angle]):
    """What turns a rod, over its inertia: 1/s^2, the drag without a unit; of one rod, or of many, shapes (n,)."""

    topples: Angle
    ahead: Angle
    left: Angle
    wind_forward: Angle
    wind_left: Angle
    drag: Angle


def spun(rods: Rods) -> Spun[Array]:
    """Every row over its inertia."""
    turns = (rods.toppling_Nm, rods.ahead_Nm, rods.left_Nm, rods.wind_forward_Nm, rods.wind_left_Nm, rods.drag_kg_m2)
    return Spun(*(each / rods.inertia_kg_m2 for each in turns))


def accelerations(
    by: Spun[Angle], angles: tuple[Angle, Angle, Angle, Angle], rate: Angle, across: Angle
) -> tuple[Angle, Angle]:
    """(phi'', psi'') of a rod its hinge no longer holds.

    Args:
        angles: sine and cosine of the tilt, sine and cosine of the side angle.
        rate, across: phi' and psi'.
    """
    sin, cos, s, c = angles
    drag = by.drag * ((rate * c) ** 2 + across * across) ** 0.5
    along = (by.topples * sin + by.wind_forward * cos) * c + by.ahead * cos - by.left * sin * s
    beside = (by.topples * s + by.left * c) * cos + by.wind_left * c - by.wind_forward * sin * s
    tilting = along / (c * c) + (2.0 * s / c * across - drag) * rate
    return tilting, beside - drag * across - rate * rate * c * s


SOLVES = 7
"""Rounds of the false position that brackets an angle: always as many, so that a row does not depend on the others."""
NEAR = 1e-30
"""Keeps a quotient of two vanishing differences finite."""


def hinge_Nm(rods: Rods, tilt_rad: Array) -> Array:
    """What the hinge resists, by its law (indicative)."""
    return rods.law.at_Nm(tilt_rad)


def planar_Nm(rods: Rods, tilt_rad: Array) -> Array:
    """Moment along the lay of weight and wind while the hinge leads the tree in its plane, drag and hinge left out."""
    found: Array = rods.bent_Nm * np.sin(tilt_rad) + (rods.ahead_Nm + rods.wind_forward_Nm) * np.cos(tilt_rad)
    return found


def use_of(rods: Rods, tilt_rad: Array, sin2: Array | None = None) -> Array:
    """Use of the hinge, U(phi); wind that eases the weight's side moment is left out, as it is when standing."""
    squared = np.sin(tilt_rad) ** 2 if sin2 is None else sin2
    cos = np.sqrt(np.maximum(1.0 - squared, 0.0))
    side = np.abs(rods.left_Nm)
    steady = np.where(rods.left_Nm >= 0, rods.wind_left_Nm, -rods.wind_left_Nm)
    bent = np.maximum(side * cos, np.abs(side * cos + steady)) / rods.side_capacity_Nm
    twisted = side / rods.twist_capacity_Nm
    found: Array = np.sqrt(bent * bent + twisted * twisted * squared) + (tilt_rad / rods.break_rad) ** 2
    return found


def lets_go(rods: Rods) -> tuple[Array, Array]:
    """(tilt at which the hinge lets go, index into ``BROKE_BY``), from the use's first rise past 1 and the face.

    The use is found by halving: it passes 1 once on its way up, for bending only falls as twisting rises.
    """
    high = np.minimum(rods.closing_rad, rods.break_rad)
    spent = use_of(rods, high) >= 1.0
    at_once = use_of(rods, np.zeros(len(rods)), np.zeros(len(rods))) >= 1.0
    broke = np.where(spent, high, rods.closing_rad).astype(np.float64)
    rows = np.nonzero(spent & ~at_once)[0]
    if len(rows):
        broke[rows] = _spent_at(rods.picked(rows), high[rows])
    broke[at_once] = 0.0
    fibres = (broke / rods.break_rad) ** 2
    by = np.where(spent, np.where(fibres >= 0.5, 2, 1), 0)
    by[at_once] = 3
    return broke, by.astype(np.int8)


def _spent_at(rods: Rods, high: Array) -> Array:
    """Where the use passes 1."""
    low = np.zeros(len(rods))
    ends = use_of(rods, low) - 1.0, use_of(rods, high) - 1.0
    return rises_at(lambda at: use_of(rods, at) - 1.0, low, high, *ends)


def rises_at(
    off: Callable[[Array], Array], low: Array, high: Array, below: Array, above: Array, solves: int = SOLVES
) -> Array:
    """Where a function rises past nothing between two places, row by row.

    False position that keeps its bracket, the end that stays being weighed less (the Illinois rule).

    Args:
        below, above: the function at ``low`` and ``high``: not positive, positive.
    """
    was = np.zeros(len(low), dtype=np.int8)
    at = high
    for _ in range(solves):
        at = np.clip((low * above - high * below) / np.maximum(above - below, NEAR), low, high)
        here = off(at)
        up = here > 0
        below = np.where(up, np.where(was > 0, below / 2, below), here)
        above = np.where(up, here, np.where(was < 0, above / 2, above))
        low, high = np.where(up, low, at), np.where(up, at, high)
        was = np.where(up, np.int8(1), np.int8(-1))
    return at


COARSE: Array = np.radians(
    [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4, 5, 6, 8, 10, 13, 17, 22, 28, 36, 46, 58, 72, 90, 115, 150]
)
FINE: Array = np.radians(np.linspace(0.0, 150.0, 1501))
"""Tilts at which the balance is looked at; the fine ones for a hinge that only just stops a tree."""


def goes_from(rods: Rods, broke_rad: Array, grid_rad: Array = COARSE) -> Array:
    """Tilt past which it goes by itself on the hinge; 0 where it goes from upright.

    The last tilt before the hinge lets go at which weight and wind no longer win against it. Where they lose right up
    to there, that tilt itself.
    """
    ahead = rods.ahead_Nm + rods.wind_forward_Nm
    grid = grid_rad[:, None].astype(ahead.dtype)
    net = rods.bent_Nm * np.sin(grid) + ahead * np.cos(grid) - hinge_Nm(rods, grid)
    loses = (net <= 0) & (grid < broke_rad)
    any_ = loses.any(axis=0)
    last = len(grid_rad) - 1 - loses[::-1].argmax(axis=0)
    found = np.zeros_like(broke_rad)
    rows = np.nonzero(any_)[0]
    if len(rows) == 0:
        return found
    own, last = rods.picked(rows), last[rows]

    def wins_Nm(at: Array) -> Array:
        return planar_Nm(own, at) - hinge_Nm(own, at)

    low = grid[last, 0]
    high = np.minimum(grid[np.minimum(last + 1, len(grid_rad) - 1), 0], broke_rad[rows])
    at_high = wins_Nm(high)
    found[rows] = np.where(
        at_high > 0, rises_at(wins_Nm, low, high, net[last, rows], np.maximum(at_high, NEAR), SOLVES - 2), high
    )
    return found
