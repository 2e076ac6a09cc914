"""After the hinge has let go: two angles, integrated over tilt, or by small steps of time where that is awkward.

Over tilt the state is (sin psi, psi', y = phi'^2). Steps grow with the speed: phi = phi_r + range (a s + (1 - a) s^2),
a the speed at the hinge's end against what the range will add, so that time is smooth in s even for a fall from rest;
a = 1, even steps, for a tree that already moves. Rows that swing far aside are stepped through time instead.
"""

from __future__ import annotations

from typing import TypeAlias

import numpy as np
from numpy.typing import NDArray

from ..base.frozen import dataclass
from ..base.polygon import Array
from .held import DRAGGED
from .motion import LEAST_COSINE, Spun, accelerations, rises_at, spun
from .rods import Ends, Rods, single, whole_rad

State: TypeAlias = tuple[Array, Array, Array, Array]
"""(sin psi, psi', phi'^2, time)."""

FEW, MORE, MANY = 2, 5, 14
"""Steps of a short way at speed, of a longer one, and of one from rest or nearly so."""
SHORT_RAD, AT_SPEED = 0.5, 0.35
"""A way shorter than the first is short, and a tree that has this share of its speed is at speed, for ``FEW``."""
CORRECTIONS = 1
"""Passes of the corrector after each prediction."""
FAR_ASIDE = 0.9
"""Sine of the side angle past which the tilt is no good clock."""
LEAST_SHARE = 1e-9
"""Least squared rate a fall from rest is begun with, of what its range will add."""
TIME_STEP = 0.1
"""Step of time, in units of one over its turning speed or its rate of toppling, whichever is quicker."""
MOST_STEPS = 600
"""Where following by time gives up: a fall that has not ended by then does not end."""


@dataclass(frozen=True, slots=True, eq=False)
class Landed:
    """Where and when loose falls end; shapes (n,). ``fell`` is False for those that never reach the ground."""

    tilt_rad: Array
    side_rad: Array
    rate_rad_s: Array
    time_s: Array
    fell: NDArray[np.bool_]


@dataclass(frozen=True, slots=True, eq=False)
class Begun:
    """Rows that tilt does not carry to the ground, and their (phi, psi, phi', psi') as the hinge lets go, (4, k)."""

    rows: NDArray[np.intp]
    state: Array


def fall_loose(rods: Rods, ends: Ends, tilt_rad: Array, square: Array, across: Array) -> tuple[Landed, Begun]:
    """From where the hinge let go to the ground; the awkward rows are handed back as they began.

    Args:
        tilt_rad: tilt at which it let go.
        square: phi'^2 there.
        across: psi' there.
    """
    by = spun(rods)
    gain = 2.0 * (by.topples * np.sin(tilt_rad) + (by.ahead + by.wind_forward) * np.cos(tilt_rad))
    span = np.maximum(ends.at(rods.lay_deg) - tilt_rad, 0.0)
    # At rest with its weight behind the lost hinge it does not go over: nothing says where it goes instead.
    goes = (gain > 0) | (square > 0)
    found = Landed(tilt_rad.copy(), np.zeros(len(rods)), np.zeros(len(rods)), np.zeros(len(rods)), goes)
    adds = np.maximum(gain, 1e-9) * span
    slow = np.minimum(np.sqrt(np.maximum(square / np.maximum(adds, 1e-12), LEAST_SHARE)), 1.0)
    square_from = np.maximum(square, LEAST_SHARE * adds)
    few, quick = (slow >= 1.0) & (span <= SHORT_RAD), slow >= AT_SPEED
    # What the air holds back much turns at its terminal rate, which steps of tilt overshoot.
    again = goes & (by.drag > DRAGGED)
    over_tilt = goes & ~again
    for rows, steps in ((few, FEW), (quick & ~few, MORE), (~quick, MANY)):
        at = np.nonzero(rows & over_tilt)[0]
        if len(at):
            begin = single(tilt_rad[at], span[at], slow[at])
            state = single(np.zeros(len(at)), across[at], square_from[at], np.zeros(len(at)))
            own = Spun(*single(*(column[at] for column in by)))
            again[at] = ~_over_tilt(own, (ends, rods.lay_deg[at]), begin, state, steps, (found, at))
    at = np.nonzero(again)[0]
    found.time_s[at] = 0.0
    return found, Begun(at, np.stack([tilt_rad[at], np.zeros(len(at)), np.sqrt(square[at]), across[at]]))


def _rates(by: Spun[Array], sin: Array, cos: Array, state: State) -> State:
    """d/dphi of the state, given the tilt's own sine and cosine."""
    aside, across, square, _ = state
    rate = np.sqrt(square)
    slow = 1.0 / rate
    c = np.sqrt(1.0 - aside * aside)
    tilting, swinging = accelerations(by, (sin, cos, aside, c), rate, across)
    return c * across * slow, swinging * slow, 2.0 * tilting, slow


def _step(by: Spun[Array], trig: tuple[Array, ...], widths: tuple[Array, ...], state: State) -> State:
    """One Runge-Kutta step of the fourth order.

    Args:
        trig: sine and cosine of the tilt at the step's start, middle and end.
        widths: dphi over the whole step as its slope is there.
    """
    at_start, at_middle, at_end = widths
    half = at_middle / 2
    k1 = _rates(by, trig[0], trig[1], state)
    k2 = _rates(by, trig[2], trig[3], _moved(state, at_start / 2, k1))
    k3 = _rates(by, trig[2], trig[3], _moved(state, half, k2))
    k4 = _rates(by, trig[4], trig[5], _moved(state, at_middle, k3))
    first, middle, last = at_start / 6, at_middle / 3, at_end / 6
    found = [x + first * a + middle * (b + c) + last * d for x, a, b, c, d in zip(state, k1, k2, k3, k4, strict=True)]
    return found[0], found[1], found[2], found[3]


def _moved(state: State, by: Array, slope: State) -> State:
    return state[0] + by * slope[0], state[1] + by * slope[1], state[2] + by * slope[2], state[3]


def _over_tilt(
    by: Spun[Array],
    over: tuple[Ends, Array],
    begin: tuple[Array, Array, Array],
    state: State,
    steps: int,
    into: tuple[Landed, NDArray[np.intp]],
) -> NDArray[np.bool_]:
    """Steps of tilt to where the ground is ahead, then short ones to where it is in the direction reached.

    Args:
        over: the ground, and the bearing each row was cut in.
        begin: tilt, range and a of the steps.
        into: where the answers go, and which of its rows these are.

    Returns:
        Which rows can be trusted.
    """
    found, at = into
    tilt, span, slow = begin
    quick = 1.0 - slow
    share = np.linspace(0.0, 1.0, 2 * steps + 1, dtype=np.float32)[:, None]
    angles = tilt + span * (share * (slow + quick * share))
    sines, cosines = np.sin(angles), np.cos(angles)
    for step in range(steps):
        shares = (step / steps, (step + 0.5) / steps, (step + 1) / steps)
        widths = tuple(span / steps * (slow + 2.0 * share * quick) for share in shares)
        trig = [part for half in range(3) for part in (sines[2 * step + half], cosines[2 * step + half])]
        state = _step(by, tuple(trig), widths, state)
    tilt = tilt + span
    for _ in range(CORRECTIONS):
        (more,) = single(_to_ground(over, tilt, state[0]))
        trig = [f(tilt + share * more) for share in (0.0, 0.5, 1.0) for f in (np.sin, np.cos)]
        state = _step(by, tuple(trig), (more, more, more), state)
        tilt = tilt + more
    aside, across, square, time = state
    c2 = 1.0 - aside * aside
    found.tilt_rad[at], found.side_rad[at], found.time_s[at] = tilt, np.arcsin(aside), time
    found.rate_rad_s[at] = np.sqrt(square * c2 + across * across)
    good: NDArray[np.bool_] = (np.abs(aside) < FAR_ASIDE) & (square > 0) & np.isfinite(time)
    return good


def _to_ground(over: tuple[Ends, Array], tilt: Array, aside: Array) -> Array:
    """How much more tilt brings the stem to the ground in the direction in which it now points."""
    ends, lay_deg = over
    c = np.sqrt(np.maximum(1.0 - aside * aside, 1e-6))
    bearing = lay_deg - np.degrees(np.arctan2(aside, np.sin(tilt) * c))
    wanted = np.arccos(np.clip(np.cos(ends.at(bearing)) / c, -1.0, 1.0))
    found: Array = np.clip(wanted - tilt, -0.5, 0.5)
    return found


# Through time ----------------------------------------------------------------------------------------------


def over_time(rods: Rods, ends: Ends, state: Array) -> Landed:
    """Small steps of time until the stem meets the ground; the last one cut short where it does.

    Args:
        state: (phi, psi, phi', psi') to begin with, shape (4, n).
    """
    whole, lay, n = spun(rods), rods.lay_deg, len(rods)
    by, state, time, left, last = whole, state.copy(), np.zeros(n), np.arange(n), np.zeros(n)
    for _ in range(MOST_STEPS):
        before = state[:, left]
        h = TIME_STEP / np.sqrt(by.topples * np.maximum(by.drag, 1.0) + before[2] ** 2 + before[3] ** 2)
        after = _time_step(by, before, h)
        over = _under_ground(ends, lay[left], after) > 0
        last[left[over]] = h[over]
        going = left[~over]
        state[:, going], time[going] = after[:, ~over], time[going] + h[~over]
        if over.any():
            left, by = going, Spun(*(column[~over] for column in by))
        if len(left) == 0:
            break
    state, part = _cut_short(whole, ends, lay, state, last)
    time, fell = time + part, last > 0
    rate = np.sqrt((state[2] * np.cos(state[1])) ** 2 + state[3] ** 2)
    return Landed(state[0], state[1], rate, time, fell)


def _time_step(by: Spun[Array], state: Array, h: Array) -> Array:
    """One Runge-Kutta step of (phi, psi, phi', psi'), shape (4, n)."""
    k1 = _changes(by, state)
    k2 = _changes(by, state + h / 2 * k1)
    k3 = _changes(by, state + h / 2 * k2)
    k4 = _changes(by, state + h * k3)
    found: Array = state + h / 6 * (k1 + 2 * (k2 + k3) + k4)
    return found


def _changes(by: Spun[Array], state: Array) -> Array:
    """d/dt of (phi, psi, phi', psi'), shape (4, n)."""
    (sin, s), (cos, c) = np.sin(state[:2]), np.cos(state[:2])
    c = np.where(np.abs(c) < LEAST_COSINE, LEAST_COSINE, c)
    found: Array = np.empty_like(state)
    found[:2] = state[2:]
    found[2], found[3] = accelerations(by, (sin, cos, s, c), state[2], state[3])
    return found


def _under_ground(ends: Ends, lay_deg: Array, state: Array) -> Array:
    """How far past the ground the stem points, as an angle; negative above it."""
    tilt, side = state[0], state[1]
    bearing = lay_deg - np.degrees(np.arctan2(np.sin(side), np.sin(tilt) * np.cos(side)))
    found: Array = whole_rad(tilt, side) - ends.at(bearing)
    return found


def _cut_short(by: Spun[Array], ends: Ends, lay_deg: Array, before: Array, h: Array) -> tuple[Array, Array]:
    """(state, time) at the ground, within the step that passes it."""

    def past(part: Array) -> Array:
        return _under_ground(ends, lay_deg, _time_step(by, before, part))

    part = rises_at(past, np.zeros(len(h)), h, _under_ground(ends, lay_deg, before), past(h), 5)
    return _time_step(by, before, part), part
