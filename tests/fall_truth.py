"""The same fall by a general-purpose integrator: scalar right-hand side, events, one row at a time."""

from __future__ import annotations

import math
from dataclasses import fields
from typing import Any

import numpy as np
from scipy.integrate import solve_ivp

from plain_compass.core.fall.rods import Ends, Rods


class One:
    """One row of the falls as plain numbers."""

    def __init__(self, rods: Rods, row: int) -> None:
        for field in fields(Rods):
            setattr(self, field.name, float(getattr(rods, field.name)[row]))


def use(o: Any, tilt: float) -> float:
    side, turn = abs(o.left_Nm), math.copysign(1.0, o.left_Nm) if o.left_Nm else 1.0
    own = side * math.cos(tilt)
    bent = max(own, abs(own + turn * o.wind_left_Nm)) / o.side_capacity_Nm
    return math.hypot(bent, side / o.twist_capacity_Nm * math.sin(tilt)) + (tilt / o.break_rad) ** 2


def hinge(o: Any, tilt: float) -> float:
    rise = 1.0 - math.exp(-o.peaks_at)
    x = rise * o.stiffness_Nm / o.peak_Nm * tilt
    softens = o.tail + (1.0 - o.tail) * math.exp(-(x - o.peaks_at) / o.softens_over) if x > o.peaks_at else 1.0
    held = max(1.0 - (tilt / o.break_rad) ** 2, 0.0)
    return o.peak_Nm * min((1.0 - math.exp(-x)) / rise, 1.0) * softens * held


def planar(o: Any, tilt: float) -> float:
    return o.bent_Nm * math.sin(tilt) + (o.ahead_Nm + o.wind_forward_Nm) * math.cos(tilt)


def under(o: Any, tilts: Any, tilt: float, side: float) -> float:
    bearing = o.lay_deg - math.degrees(math.atan2(math.sin(side), math.sin(tilt) * math.cos(side)))
    place = (bearing % 360.0) * len(tilts) / 360.0
    low = int(place)
    first, second = tilts[low % len(tilts)], tilts[(low + 1) % len(tilts)]
    ground = first + (place - low) * (second - first)
    return math.acos(min(max(math.cos(tilt) * math.cos(side), -1.0), 1.0)) - ground


def by_solver(rods: Rods, row: int, ends: Ends, start_rad: float, rtol: float = 1e-6) -> tuple[float, float, float]:
    """(time, bearing error of the stem in degrees, turning speed) of one fall that starts where it is told."""
    o, tilts = One(rods, row), ends.tilt_rad.tolist()

    def held(_: float, y: Any) -> tuple[float, float]:
        tilt, rate = y[0], y[1]
        return rate, (planar(o, tilt) - hinge(o, tilt) - o.drag_kg_m2 * rate * abs(rate)) / o.inertia_kg_m2

    def gone(_: float, y: Any) -> float:
        return max(use(o, y[0]) - 1.0, y[0] - o.closing_rad)

    def down(_: float, y: Any) -> float:
        return under(o, tilts, y[0], 0.0)

    gone.terminal = down.terminal = True  # type: ignore[attr-defined]
    gone.direction = down.direction = 1  # type: ignore[attr-defined]
    kept = {"rtol": rtol, "atol": rtol * 1e-3}
    time, state = 0.0, [start_rad, 0.0]
    if gone(0.0, state) < 0:
        found = solve_ivp(held, (0.0, 120.0), state, events=(gone, down), **kept)
        time, state = float(found.t[-1]), found.y[:, -1].tolist()
        if found.status == 1 and len(found.t_events[1]):
            return time, 0.0, state[1]
    shut = state[0] >= o.closing_rad - 1e-7

    def loose(_: float, y: Any) -> tuple[float, float, float, float]:
        tilt, side, rate, across = y
        sin, cos, s, c = math.sin(tilt), math.cos(tilt), math.sin(side), math.cos(side)
        turning = math.sqrt(rate * rate * c * c + across * across)
        drag = o.drag_kg_m2 * turning
        along = (
            o.toppling_Nm * sin * c
            + o.ahead_Nm * cos
            - o.left_Nm * sin * s
            + o.wind_forward_Nm * cos * c
            - drag * c * c * rate
        )
        beside = (
            o.toppling_Nm * cos * s
            + o.left_Nm * cos * c
            + o.wind_left_Nm * c
            - o.wind_forward_Nm * sin * s
            - drag * across
        )
        return (
            rate,
            across,
            along / o.inertia_kg_m2 / (c * c) + 2 * s / c * across * rate,
            beside / o.inertia_kg_m2 - rate * rate * c * s,
        )

    def landed(_: float, y: Any) -> float:
        return under(o, tilts, y[0], y[1])

    landed.terminal, landed.direction = True, 1  # type: ignore[attr-defined]
    across = o.pull * state[1] if shut else 0.0
    found = solve_ivp(loose, (0.0, 120.0), [state[0], 0.0, state[1], across], events=landed, **kept)
    tilt, side, rate, across = found.y[:, -1].tolist()
    speed = math.hypot(rate * math.cos(side), across)
    bearing = math.degrees(math.atan2(math.sin(side), math.sin(tilt) * math.cos(side)))
    return time + float(found.t[-1]), bearing, speed


def made_up(n: int, seed: int) -> tuple[Rods, Ends]:
    """Unlike falls: trees of all sizes, leans, side weights, hinges and winds, over uneven ground."""
    rng = np.random.default_rng(seed)

    def between(low: float, high: float) -> Any:
        return rng.uniform(low, high, n)

    height = between(8.0, 30.0)
    mass = 12.0 * height**1.9 * np.exp(rng.normal(0, 0.3, n))
    up = height * between(0.32, 0.45)
    toppling = mass * 9.81 * up
    plastic = toppling * between(0.03, 0.2)
    closing = np.radians(rng.choice([45.0, 60.0, 70.0, 90.0], n) + rng.normal(0, 2, n))
    overcut = rng.random(n) < 0.1
    closing = np.where(overcut, np.radians(between(10.0, 30.0)), closing)
    rods = Rods(
        inertia_kg_m2=mass * up**2 * between(1.2, 1.7),
        toppling_Nm=toppling,
        bent_Nm=toppling * np.linspace(1.05, 1.4, n),
        peaks_at=np.linspace(2.0, 4.0, n),
        softens_over=np.linspace(3.2, 1.2, n),
        tail=np.full(n, 0.15),
        ahead_Nm=toppling / up * rng.normal(0.0, 0.4, n),
        left_Nm=toppling / up * rng.normal(0.0, 0.35, n),
        drag_kg_m2=0.6 * 0.3 * between(5.0, 70.0) * (height * 0.6) ** 3,
        wind_forward_Nm=toppling * rng.normal(0, 0.01, n),
        wind_left_Nm=toppling * rng.normal(0, 0.01, n),
        stiffness_Nm=plastic / np.radians(between(1.0, 3.0)),
        peak_Nm=plastic,
        side_capacity_Nm=plastic * between(5.0, 9.0),
        twist_capacity_Nm=plastic * between(0.8, 1.4),
        break_rad=np.radians(between(35.0, 100.0)),
        closing_rad=closing,
        pull=rng.normal(0, 0.02, n),
        wedged_rad=np.radians(np.where(rng.random(n) < 0.7, between(0.5, 3.0), 0.0)),
        margin_rad=np.full(n, np.radians(0.5)),
        length_m=height,
        top_forward_m=rng.normal(0, 0.3, n),
        top_left_m=rng.normal(0, 0.3, n),
        lay_deg=between(0.0, 360.0),
    )
    turn = np.linspace(0, 2 * np.pi, 120, endpoint=False)
    return rods, Ends(np.pi / 2 + 0.08 * np.sin(turn) + 0.03 * np.sin(5 * turn))
