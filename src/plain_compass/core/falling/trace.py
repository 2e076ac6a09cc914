"""One fall followed in time: what is drawn, played and dragged through."""

from __future__ import annotations

import math
from dataclasses import dataclass, fields

import numpy as np

from ..polygon import Array
from .falls import fall_all
from .rods import Ends, Falls, Rods, top_at, turned

FRAMES = 120
STEPS_PER_FRAME = 3


@dataclass(frozen=True, slots=True)
class Pose:
    """The tree at one moment: tilt in its plane, side angle out of it, how far left that plane is turned."""

    tilt_rad: float
    side_rad: float
    rate_rad_s: float
    turned_rad: float

    @property
    def whole_rad(self) -> float:
        """Tilt off upright, whatever the direction."""
        return math.acos(min(max(math.cos(self.tilt_rad) * math.cos(self.side_rad), -1.0), 1.0))


UPRIGHT = Pose(0.0, 0.0, 0.0, 0.0)


@dataclass(frozen=True, slots=True, eq=False)
class Trace:
    """A fall in even steps of time; every array has shape (n,).

    Attributes:
        time_s: from letting go.
        tilt_rad, side_rad: tilt in the plane of the lay, side angle out of it.
        rate_rad_s: turning speed.
        hinge_holds: whether the hinge still holds.
        turned_rad: how far left of the lay that plane is turned.
    """

    time_s: Array
    tilt_rad: Array
    side_rad: Array
    rate_rad_s: Array
    hinge_holds: Array
    turned_rad: float

    @property
    def whole_rad(self) -> Array:
        """Tilt off upright, whatever the direction."""
        found: Array = np.arccos(np.cos(self.tilt_rad) * np.cos(self.side_rad))
        return found

    def time_at(self, tilt_rad: float) -> float:
        """When it reaches a tilt."""
        whole = np.maximum.accumulate(self.whole_rad)
        return float(np.interp(tilt_rad, whole, self.time_s))

    def pose_at(self, time_s: float) -> Pose:
        """The tree at a time, between the frames."""
        tilt, side, rate = (
            float(np.interp(time_s, self.time_s, held)) for held in (self.tilt_rad, self.side_rad, self.rate_rad_s)
        )
        return Pose(tilt, side, rate, self.turned_rad)


@dataclass(slots=True)
class _Row:
    """One row of the falls as plain numbers: a hundred times as quick to step as arrays of one."""

    topples: float
    ahead: float
    left: float
    wind_forward: float
    wind_left: float
    drag: float
    stiff: float
    plastic: float
    break_rad: float


def _row(rods: Rods) -> _Row:
    held = {f.name: float(getattr(rods, f.name)[0]) for f in fields(Rods)}
    i = held["inertia_kg_m2"]
    return _Row(
        held["toppling_Nm"] / i,
        held["ahead_Nm"] / i,
        held["left_Nm"] / i,
        held["wind_forward_Nm"] / i,
        held["wind_left_Nm"] / i,
        held["drag_kg_m2"] / i,
        held["stiffness_Nm"] / i,
        held["plastic_Nm"] / i,
        held["break_rad"],
    )


def trace_of(rods: Rods, ends: Ends) -> tuple[Falls, Trace]:
    """Follow a single row from letting go to the ground."""
    falls = fall_all(rods, ends)
    own = _row(turned(rods, falls.turned_rad))
    start, broke, end = float(falls.start_rad[0]), float(falls.broke_rad[0]), float(falls.end_rad[0])
    whole_s = float(falls.time_s[0]) if falls.fell[0] else 0.0
    step = whole_s / FRAMES
    state: tuple[float, ...] = (start, 0.0, 0.0, 0.0)
    holds = start < broke
    frames = [(0.0, *state, 1.0 if holds else 0.0)]
    for frame in range(1, FRAMES + 1):
        for _ in range(STEPS_PER_FRAME):
            state, holds = _carried(own, state, step / STEPS_PER_FRAME, broke, holds, rods, falls)
        frames.append((frame * step, *state, 1.0 if holds else 0.0))
    table = np.array(frames)
    whole = np.arccos(np.cos(table[:, 1]) * np.cos(table[:, 2]))
    # The last frame is the end itself, and nothing before it lies lower.
    table[:, 1] = np.where(whole > end, np.minimum(table[:, 1], float(falls.tilt_rad[0])), table[:, 1])
    table[-1, 1:3] = float(falls.tilt_rad[0]), float(falls.side_rad[0])
    rate = np.hypot(table[:, 3] * np.cos(table[:, 2]), table[:, 4])
    return falls, Trace(table[:, 0], table[:, 1], table[:, 2], rate, table[:, 5], float(falls.turned_rad[0]))


def _carried(
    own: _Row, state: tuple[float, ...], h: float, broke: float, holds: bool, rods: Rods, falls: Falls
) -> tuple[tuple[float, ...], bool]:
    """One step; where the hinge lets go within it the step is parted there."""
    after = _stepped(own, state, h, holds)
    if not holds or after[0] < broke:
        return after, holds
    share = (broke - state[0]) / max(after[0] - state[0], 1e-12)
    tilt, side, rate, _ = _stepped(own, state, h * share, True)
    pull = float(rods.pull[0]) * rate if falls.broke_by[0] == 0 else 0.0
    return _stepped(own, (tilt, side, rate, pull), h * (1 - share), False), False


def _stepped(own: _Row, state: tuple[float, ...], h: float, holds: bool) -> tuple[float, ...]:
    """One Runge-Kutta step of (phi, psi, phi', psi')."""

    def moved(by: float, slope: tuple[float, ...]) -> tuple[float, ...]:
        return tuple(x + by * d for x, d in zip(state, slope, strict=True))

    k1 = _changes(own, state, holds)
    k2 = _changes(own, moved(h / 2, k1), holds)
    k3 = _changes(own, moved(h / 2, k2), holds)
    k4 = _changes(own, moved(h, k3), holds)
    return tuple(x + h / 6 * (a + 2 * (b + c) + d) for x, a, b, c, d in zip(state, k1, k2, k3, k4, strict=True))


def _changes(own: _Row, state: tuple[float, ...], holds: bool) -> tuple[float, ...]:
    tilt, side, rate, across = state
    sin, cos, s, c = math.sin(tilt), math.cos(tilt), math.sin(side), math.cos(side)
    drag = own.drag * math.hypot(rate * c, across)
    along = (own.topples * sin + own.wind_forward * cos) * c + own.ahead * cos - own.left * sin * s
    if holds:
        resists = min(own.stiff * tilt, own.plastic) * max(1.0 - (tilt / own.break_rad) ** 2, 0.0)
        return rate, 0.0, along - resists - drag * rate, 0.0
    c = c if abs(c) > 1e-3 else 1e-3
    beside = (own.topples * s + own.left * c) * cos + own.wind_left * c - own.wind_forward * sin * s
    tilting = along / (c * c) + (2.0 * s / c * across - drag) * rate
    return rate, across, tilting, beside - drag * across - rate * rate * c * s


def top_of(rods: Rods, pose: Pose) -> tuple[float, float]:
    """(forward, left) of the top of a single row in a pose, in the frame of its own cut."""
    plane = turned(rods, np.array([pose.turned_rad]))
    forward, left, _ = top_at(plane, np.array([pose.tilt_rad]), np.array([pose.side_rad]))
    cos, sin = math.cos(pose.turned_rad), math.sin(pose.turned_rad)
    return float(forward[0]) * cos - float(left[0]) * sin, float(forward[0]) * sin + float(left[0]) * cos
