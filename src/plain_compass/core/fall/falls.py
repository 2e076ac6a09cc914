"""Many falls at once: let go, held by the hinge, loose, down."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from ..base.polygon import Array
from .held import held_fall
from .loose import Begun, Landed, fall_loose, over_time
from .motion import FINE, goes_from, lets_go
from .rods import Ends, Falls, Rods, joined, single, turned

BLOCK = 16384
"""Rows reckoned together: many, for each pass over them costs its own. It does not depend on how many workers there
are, so that the answer does not either."""


def blocks_of(rods: Rods) -> list[Rods]:
    """The rows in their blocks."""
    return [rods.picked(slice(at, at + BLOCK)) for at in range(0, len(rods), BLOCK)]


def fall_all(rods: Rods, ends: Ends) -> Falls:
    """Reckon every row."""
    # A row that swings far aside may run out of the range of its clock; it is told by its numbers and done again.
    with np.errstate(all="ignore"):
        return finished(rods, ends, (initial_falls(block, ends) for block in blocks_of(rods)))


def finished(rods: Rods, ends: Ends, blocks: Iterable[tuple[Falls, Begun]]) -> Falls:
    """Blocks put together, and the awkward rows of all of them stepped through time at once."""
    parts = list(blocks)
    falls = joined([part for part, _ in parts])
    starts = np.cumsum([0, *(len(part) for part, _ in parts)])
    rows = np.concatenate([rest.rows + start for (_, rest), start in zip(parts, starts, strict=False)])
    if len(rows) == 0:
        return falls
    awkward = turned(rods.picked(rows), falls.turned_rad[rows])
    state = np.concatenate([rest.state for _, rest in parts], axis=1)
    landed = over_time(awkward, ends, state)
    _take(falls, rows, landed)
    falls.stepped[rows] = True
    return falls


def _take(falls: Falls, rows: NDArray[np.intp], landed: Landed) -> None:
    """Where and when loose falls ended, into their rows."""
    falls.tilt_rad[rows], falls.side_rad[rows] = landed.tilt_rad, landed.side_rad
    falls.rate_rad_s[rows], falls.fell[rows] = landed.rate_rad_s, landed.fell
    falls.time_s[rows] += landed.time_s


def initial_falls(rods: Rods, ends: Ends) -> tuple[Falls, Begun]:
    """One block: every row that tilt carries to the ground, and where the awkward ones stand."""
    quick = rods.single()
    broke, by = lets_go(quick)
    ground = ends.at(rods.lay_deg)
    start, square, time = _held(quick, *single(broke, np.minimum(broke, ground)))
    to = np.minimum(broke, ground)
    down = broke >= ground
    n = len(rods)
    falls = Falls(
        fell=~down | (start < to),
        start_rad=start,
        broke_rad=np.where(down, ground, broke),
        broke_by=np.where(down, np.int8(4), by),
        time_s=time,
        rate_rad_s=np.sqrt(square),
        side_rad=np.zeros(n),
        tilt_rad=to,
        turned_rad=np.zeros(n),
        stepped=np.zeros(n, dtype=bool),
    )
    at = np.nonzero(~down)[0]
    return falls, _loosed(rods.picked(at), ends, falls, at, square[at])


def _held(rods: Rods, broke: Array, to: Array) -> tuple[Array, Array, Array]:
    """(tilt of letting go, squared rate and time to a tilt on the hinge).

    Where the hinge stops a tree that had begun to go, it is let go only past the place at which it stops.
    """
    start = _start(rods, goes_from(rods, broke), to)
    square, time, stalls = held_fall(rods, start, to)
    rows = np.nonzero(stalls)[0]
    if len(rows):
        own = rods.picked(rows)
        start[rows] = _start(own, goes_from(own, broke[rows], FINE), to[rows])
        square[rows], time[rows], _ = held_fall(own, start[rows], to[rows])
    return start.astype(np.float64), square.astype(np.float64), time.astype(np.float64)


def _start(rods: Rods, goes: Array, to: Array) -> Array:
    return np.minimum(np.maximum(np.where(goes > 0, goes + rods.margin_rad, 0.0), rods.wedged_rad), to)


def _loosed(rods: Rods, ends: Ends, falls: Falls, at: NDArray[np.intp], square: Array) -> Begun:
    """Let the rows fall whose hinge has gone; those that tilt does not carry to the ground are handed back."""
    upright = falls.broke_rad[at] <= 0
    if upright.any():
        # Upright and let go from rest it has no plane yet: it falls along the resultant of its weight and wind.
        pulled_left, pulled_ahead = rods.left_Nm + rods.wind_left_Nm, rods.ahead_Nm + rods.wind_forward_Nm
        falls.turned_rad[at] = np.where(upright, np.arctan2(pulled_left, pulled_ahead), 0.0)
        rods = turned(rods, falls.turned_rad[at])
    rate = falls.rate_rad_s[at]
    across = np.where(falls.broke_by[at] == 0, rods.pull * rate, 0.0)
    landed, rest = fall_loose(rods, ends, falls.tilt_rad[at], square, across)
    _take(falls, at, landed)
    return replace(rest, rows=at[rest.rows])
