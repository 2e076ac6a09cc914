"""While the hinge holds: one angle only, and the square of its rate follows by quadrature.

With phi as the clock, y = phi'^2 obeys dy/dphi + a y = 2 N(phi)/I, a = 2c/I: linear, so that
y(phi) = (2/I) [W(phi) - a Integral e^(-a (phi - s)) W(s) ds], W the work of weight, wind and hinge in closed form.
The integral and the time, Integral dphi/sqrt(y), are taken on Chebyshev points in s, phi = start + range s^4, which
takes the singular beginning of a fall from rest out of the time and looks closely at its slow first degree.

Where the air takes much of the fall (drag over inertia above 1: a slender stem in leaf) the exponential above swallows
every digit: the rate soon is the terminal one, sqrt(N/c). Such rows are stepped through time instead.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ..base.polygon import Array
from .motion import hinge_Nm, planar_Nm
from .rods import Rods

NODES = 13
"""Chebyshev points per span; between its kinks the fall is smooth, and the integrals converge fast."""


DRAGGED = 1.0
"""Drag over inertia from which a fall is stepped through time."""
TIME_STEP, MOST_STEPS = 0.06, 1500
"""Step, in units of one over its turning speed or its rate of toppling, whichever is quicker, and when it gives up."""
NEAR = 0.06
"""Below this argument the means of an exponential are those of their series."""


def _rules(count: int) -> tuple[Array, Array, Array]:
    """(points on 0 to 1, table of running integrals (count, count), weights of the whole) of Clenshaw and Curtis.

    Source: interpolation in Chebyshev polynomials on their extrema, integrated term by term.
    """
    degrees = np.arange(count)
    angle = np.pi * degrees[::-1] / (count - 1)
    points = np.cos(angle)
    values = np.cos(np.outer(angle, degrees))
    # Integral of T_k from -1: T_(k+1)/(2(k+1)) - T_(k-1)/(2(k-1)), and its value at -1.
    more = np.cos(np.outer(angle, np.arange(count + 2)))
    integral = np.zeros((count, count))
    integral[:, 0] = points + 1.0
    integral[:, 1] = (points**2 - 1.0) / 2
    for k in range(2, count):
        at_start = ((-1.0) ** (k + 1)) / (2 * (k + 1)) - ((-1.0) ** (k - 1)) / (2 * (k - 1))
        integral[:, k] = more[:, k + 1] / (2 * (k + 1)) - more[:, k - 1] / (2 * (k - 1)) - at_start
    table = np.linalg.solve(values.T, integral.T).T / 2
    return (points + 1.0) / 2, table, table[-1]


POINTS, RUNNING, WHOLE = _rules(NODES)


def held_fall(rods: Rods, start_rad: Array, end_rad: Array) -> tuple[Array, Array, NDArray[np.bool_]]:
    """(square of the rate at the end, time, whether it stalls) of falls on the hinge, from rest at a tilt to another.

    Two stretches, parted where the hinge resists most, so that each is smooth; what the air holds back much, by time.
    """
    dragged = np.nonzero(rods.drag_kg_m2 > DRAGGED * rods.inertia_kg_m2)[0]
    if len(dragged) == len(rods) > 0:
        return _by_time(rods, start_rad, end_rad)
    square, time, stalls = _by_quadrature(rods, start_rad, end_rad)
    if len(dragged):
        slow = _by_time(rods.picked(dragged), start_rad[dragged], end_rad[dragged])
        for whole, part in zip((square, time, stalls), slow, strict=True):
            whole[dragged] = part
    return square, time, stalls


def _by_time(rods: Rods, start_rad: Array, end_rad: Array) -> tuple[Array, Array, NDArray[np.bool_]]:
    """The same by Runge-Kutta steps of time, the last one cut short where the end is passed; in double precision."""
    tilt, end = start_rad.astype(np.float64), end_rad.astype(np.float64)
    rate, time = np.zeros(len(tilt)), np.zeros(len(tilt))
    pulls = rods.toppling_Nm + np.abs(rods.ahead_Nm) + np.abs(rods.wind_forward_Nm)
    quickens = np.maximum(pulls / rods.inertia_kg_m2, 1e-9)
    # Against much drag the terminal rate is reached the sooner.
    quickens = quickens * np.maximum(rods.drag_kg_m2 / rods.inertia_kg_m2, 1.0)
    going, stalls = tilt < end, np.zeros(len(tilt), dtype=bool)
    for _ in range(MOST_STEPS):
        rows = np.nonzero(going)[0]
        if len(rows) == 0:
            break
        own, from_rad, before = rods.picked(rows), tilt[rows], rate[rows]
        h = TIME_STEP / np.sqrt(quickens[rows] + before**2)
        to_rad, after = _time_step(own, from_rad, before, h)
        past, back = to_rad >= end[rows], after <= 0
        share = np.where(past, (end[rows] - from_rad) / np.maximum(to_rad - from_rad, 1e-12), 1.0)
        tilt[rows] = np.where(past, end[rows], to_rad)
        rate[rows], time[rows] = before + share * (after - before), time[rows] + share * h
        stalls[rows] |= back & ~past
        going[rows] = ~past & ~back
    return np.maximum(rate, 0.0) ** 2, time, stalls | going


def _time_step(rods: Rods, tilt: Array, rate: Array, h: Array) -> tuple[Array, Array]:
    """(tilt, rate) one Runge-Kutta step later."""

    def turning(at: Array, speed: Array) -> Array:
        net = planar_Nm(rods, at) - hinge_Nm(rods, at) - rods.drag_kg_m2 * speed * np.abs(speed)
        found: Array = net / rods.inertia_kg_m2
        return found

    one = turning(tilt, rate)
    two = turning(tilt + h / 2 * rate, rate + h / 2 * one)
    three = turning(tilt + h / 2 * rate + h * h / 4 * one, rate + h / 2 * two)
    four = turning(tilt + h * rate + h * h / 2 * two, rate + h * three)
    return tilt + h * rate + h * h / 6 * (one + two + three), rate + h / 6 * (one + 2 * (two + three) + four)


def _by_quadrature(rods: Rods, start_rad: Array, end_rad: Array) -> tuple[Array, Array, NDArray[np.bool_]]:
    yields = np.clip(rods.law.peaks_rad, start_rad, end_rad)
    square, time, stalls = np.zeros_like(start_rad), np.zeros_like(start_rad), np.zeros(len(rods), dtype=bool)
    rows = np.nonzero(yields > start_rad)[0]
    if len(rows):
        square[rows], time[rows], stalls[rows] = _stretch(
            rods.picked(rows), start_rad[rows], yields[rows], square[rows], yielded=False
        )
    square, more, stops = _stretch(rods, yields, end_rad, square, yielded=True)
    return square, time + more, stalls | stops


def _stretch(
    rods: Rods, start: Array, end: Array, square0: Array, *, yielded: bool
) -> tuple[Array, Array, NDArray[np.bool_]]:
    """Carry y from the start of a stretch to its end, and the time it takes; all of it before or past the yield."""
    span = end - start
    points = POINTS[:, None].astype(span.dtype)
    gone = points**4 * span
    tilts = start + gone
    # Differences of cosines, sines and powers as products: no digits are lost near the start.
    middle, half = start + gone / 2, np.sin(gone / 2)
    ahead = rods.ahead_Nm + rods.wind_forward_Nm
    energy = 2.0 * half * (ahead * np.cos(middle) + rods.bent_Nm * np.sin(middle))
    energy -= gone * hinge_mean_Nm(rods, start, tilts, yielded=yielded)
    doubled = 2.0 / rods.inertia_kg_m2
    damping = rods.drag_kg_m2 * doubled
    source = doubled * energy
    if damping.any():
        swells = np.exp(damping * gone)
        weighed = swells * source * (4.0 * points**3 * span)
        # Drag takes no more than it would at the speed reached: that bounds the rule's own error at the slow start.
        lost = np.clip(damping * (RUNNING.astype(span.dtype) @ weighed), 0.0, damping * swells * source * gone)
        squares = (square0 - lost) / swells + source
    else:
        squares = square0 + source
    rates = np.sqrt(np.maximum(squares[1:], 1e-30))
    quick = 4.0 * points[1:] ** 3 * span / rates
    # The first point counts nothing: there the range has not begun to be covered.
    time = WHOLE[1:].astype(span.dtype) @ quick
    stalls = (squares[1:].min(axis=0) <= 0) & (span > 0)
    return np.maximum(squares[-1], 0.0), time, stalls


def hinge_mean_Nm(rods: Rods, start: Array, tilts: Array, *, yielded: bool) -> Array:
    """What the hinge resists on the mean between two tilts: its work over their difference, in closed form.

    Before its peak M_u (1 - e^-x)/(1 - e^-x_u) (1 - (tilt/break)^2); past it M_u (tail + (1 - tail) e^-((x - x_u)/x_s))
    times the same.
    """
    law, gone = rods.law, tilts - start
    spent = (tilts * tilts + tilts * start + start * start) / (3.0 * law.break_rad**2)
    per_rad = law.per_rad / law.softens_over if yielded else law.per_rad
    first, second, third = _exponential_means(per_rad * gone)
    # Mean of e^(-k t) (1 - ((start + t)/break)^2) over t from 0 to what is gone.
    fading = first * (1.0 - (start / law.break_rad) ** 2)
    fading -= gone * (2.0 * start * second + gone * third) / law.break_rad**2
    if yielded:
        at_start = np.exp(-np.maximum(law.per_rad * start - law.peaks_at, 0.0) / law.softens_over)
        held: Array = law.peak_Nm * (law.tail * (1.0 - spent) + (1.0 - law.tail) * at_start * fading)
        return held
    rising: Array = law.peak_Nm / law.rise * ((1.0 - spent) - np.exp(-law.per_rad * start) * fading)
    return rising


def _exponential_means(u: Array) -> tuple[Array, Array, Array]:
    """Integrals over 0 to 1 of e^(-u s), s e^(-u s) and s^2 e^(-u s); by their series where digits would be lost."""
    far = np.maximum(u, NEAR)
    gone = np.exp(-far)
    first = (1 - gone) / far
    second = (first - gone) / far
    third = (2 * second - gone) / far
    near = u < NEAR
    if near.any():
        first = np.where(near, 1 - u * (1 / 2 - u * (1 / 6 - u / 24)), first)
        second = np.where(near, 1 / 2 - u * (1 / 3 - u * (1 / 8 - u / 30)), second)
        third = np.where(near, 1 / 3 - u * (1 / 4 - u * (1 / 10 - u / 36)), third)
    return first, second, third
