"""One fall followed in time: what is drawn, played and dragged through."""

from __future__ import annotations

import math

import numpy as np

from ..base.frozen import dataclass
from ..base.polygon import Array
from .falls import fall_all
from .motion import LEAST_COSINE, Spun, accelerations, spun
from .rods import Ends, Falls, Rods, place_of_tops, turned, whole_rad

FRAMES = 120
"""Frames of one fall, stored evenly in time: smooth at thirty a second for four seconds."""
STEPS_PER_FRAME = 3
"""Steps of the integrator between two frames: what is played must end where the quick fall ends."""


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
        return whole_rad(self.tilt_rad, self.side_rad)

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


@dataclass(frozen=True, slots=True)
class _Row:
    """One row of the falls as plain numbers: a hundred times as quick to step as arrays of one.

    Attributes:
        bends: what the stem's bending adds to m g Z, over the inertia.
        law: its hinge: (peak over the inertia, x over tilt, rise, x_u, x_s, tail, break).
    """

    by: Spun[float]
    bends: float
    law: tuple[float, ...]
    pull: float
    broke_rad: float

    def holds_back(self, tilt_rad: float) -> float:
        """What the hinge takes by its law, less what the bent stem gives, over the inertia; see ``HingeLaw``."""
        peak, per_rad, rise, peaks_at, softens_over, tail, breaks = self.law
        x = per_rad * tilt_rad
        held = peak * min(-math.expm1(-x) / rise, 1.0) * max(1.0 - (tilt_rad / breaks) ** 2, 0.0)
        softens = tail + (1.0 - tail) * math.exp(-max(x - peaks_at, 0.0) / softens_over)
        return held * softens - self.bends * math.sin(tilt_rad)


def _row(rods: Rods, falls: Falls) -> _Row:
    rods = turned(rods, falls.turned_rad)
    inertia, law = float(rods.inertia_kg_m2[0]), rods.law
    shape = (law.per_rad, law.rise, law.peaks_at, law.softens_over, law.tail, law.break_rad)
    return _Row(
        by=Spun(*(float(column[0]) for column in spun(rods))),
        bends=float(rods.bent_Nm[0] - rods.toppling_Nm[0]) / inertia,
        law=(float(law.peak_Nm[0]) / inertia, *(float(each[0]) for each in shape)),
        pull=float(rods.pull[0]) if falls.broke_by[0] == 0 else 0.0,
        broke_rad=float(falls.broke_rad[0]),
    )


def trace_of(rods: Rods, ends: Ends) -> tuple[Falls, Trace]:
    """Follow a single row from letting go to the ground."""
    falls = fall_all(rods, ends)
    own = _row(rods, falls)
    start, end = float(falls.start_rad[0]), float(falls.end_rad[0])
    whole_s = float(falls.time_s[0]) if falls.fell[0] else 0.0
    step = whole_s / FRAMES
    state: tuple[float, ...] = (start, 0.0, 0.0, 0.0)
    holds = start < own.broke_rad
    frames = [(0.0, *state, 1.0 if holds else 0.0)]
    for frame in range(1, FRAMES + 1):
        for _ in range(STEPS_PER_FRAME):
            state, holds = _carried(own, state, step / STEPS_PER_FRAME, holds)
        frames.append((frame * step, *state, 1.0 if holds else 0.0))
    table = np.array(frames)
    whole = whole_rad(table[:, 1], table[:, 2])
    # The last frame is the end itself, and nothing before it lies lower.
    table[:, 1] = np.where(whole > end, np.minimum(table[:, 1], float(falls.tilt_rad[0])), table[:, 1])
    table[-1, 1:3] = float(falls.tilt_rad[0]), float(falls.side_rad[0])
    rate = np.hypot(table[:, 3] * np.cos(table[:, 2]), table[:, 4])
    return falls, Trace(table[:, 0], table[:, 1], table[:, 2], rate, table[:, 5], float(falls.turned_rad[0]))


def _carried(own: _Row, state: tuple[float, ...], h: float, holds: bool) -> tuple[tuple[float, ...], bool]:
    """One step; where the hinge lets go within it the step is parted there."""
    after = _stepped(own, state, h, holds)
    if not holds or after[0] < own.broke_rad:
        return after, holds
    share = (own.broke_rad - state[0]) / max(after[0] - state[0], 1e-12)
    tilt, side, rate, _ = _stepped(own, state, h * share, True)
    return _stepped(own, (tilt, side, rate, own.pull * rate), h * (1 - share), False), False


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
    s, c = math.sin(side), math.cos(side)
    c = c if abs(c) > LEAST_COSINE else LEAST_COSINE
    tilting, swinging = accelerations(own.by, (math.sin(tilt), math.cos(tilt), s, c), rate, across)
    if holds:
        return rate, 0.0, tilting - own.holds_back(tilt), 0.0
    return rate, across, tilting, swinging


def top_of(rods: Rods, pose: Pose) -> tuple[float, float]:
    """(forward, left) of the top of a single row in a pose, in the frame of its own cut."""
    angles = (np.array([angle]) for angle in (pose.tilt_rad, pose.side_rad, pose.turned_rad))
    forward, left = place_of_tops(rods, *angles)
    return float(forward[0]), float(left[0])
