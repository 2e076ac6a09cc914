"""Readings as they were taken: kept raw with the tree, averaged into what they measure, never thrown away."""

from __future__ import annotations

from functools import lru_cache

from ..core.base.frames import half_turn_deg
from ..core.base.frozen import dataclass
from ..core.measuring.estimate import Averaged, Estimate, Reading, averaged
from ..core.measuring.lean import LeanReading, averaged_lean
from .language import tr_mark

LEAN, EDGE, SHELL, WIND = map(tr_mark, ("lean", "crown edge", "sound shell", "wind"))
SAME_BEARING_DEG = 4.0
"""Readings at bearings no further apart measure the same crown edge or probe hole."""


@dataclass(frozen=True, slots=True)
class Taken:
    """One reading.

    Attributes:
        what: what it measures: a dotted path of the tree such as ``tree.height_m``; or ``lean`` (values: angle,
            bearing), ``crown edge`` and ``sound shell`` (values: bearing, length), ``wind`` (value: speed in m/s).
        by: the way it was measured, or the instrument.
        values, spreads: in SI units and degrees; a spread is one standard deviation.
        note: as typed, or the line as the instrument sent it.
        at: when, as text; empty when not known.
        used: whether it counts. A value typed over the readings leaves them kept but unused.
    """

    what: str = "tree.height_m"
    by: str = "typed"
    values: tuple[float, ...] = ()
    spreads: tuple[float, ...] = ()
    note: str = ""
    at: str = ""
    used: bool = True


@dataclass(frozen=True, slots=True)
class Group:
    """The readings of one thing and what they say together.

    Attributes:
        key: what they measure; for crown edges and shells with the bearing, as in ``crown edge 90``.
        positions: which of the tree's readings these are, unused ones included.
        estimates: the averaged values; empty when none is used.
        outliers: positions of used readings left out of the average.
    """

    key: str
    positions: tuple[int, ...]
    estimates: tuple[Estimate, ...]
    outliers: tuple[int, ...]


@lru_cache(maxsize=16)
def groups_of(readings: tuple[Taken, ...]) -> tuple[Group, ...]:
    """The readings gathered by what they measure, in the order in which each was first taken."""
    gathered: dict[str, list[int]] = {}
    for position, taken in enumerate(readings):
        gathered.setdefault(_key(taken, readings, gathered), []).append(position)
    return tuple(_group(key, tuple(positions), readings) for key, positions in gathered.items())


def _key(taken: Taken, readings: tuple[Taken, ...], gathered: dict[str, list[int]]) -> str:
    if taken.what not in (EDGE, SHELL):
        return taken.what
    for key, positions in gathered.items():
        first = readings[positions[0]]
        if first.what == taken.what and same_bearing(first.values[0], taken.values[0]):
            return key
    return f"{taken.what} {taken.values[0]:.0f}"


def same_bearing(one_deg: float, other_deg: float) -> bool:
    """Whether two bearings are near enough to be one."""
    return abs(half_turn_deg(one_deg - other_deg)) <= SAME_BEARING_DEG


def _group(key: str, positions: tuple[int, ...], readings: tuple[Taken, ...]) -> Group:
    used = [p for p in positions if readings[p].used]
    if not used:
        return Group(key, positions, (), ())
    what = readings[used[0]].what
    if what == LEAN:
        leans = tuple(_lean(readings[p]) for p in used)
        lean, left_out = averaged_lean(leans)
        return Group(key, positions, (lean.angle_deg, lean.bearing_deg), tuple(used[i] for i in left_out))
    last = 1 if what in (EDGE, SHELL) else 0
    found: Averaged = averaged(tuple(Reading(readings[p].values[last], readings[p].spreads[last]) for p in used))
    return Group(key, positions, (found.estimate,), tuple(used[i] for i in found.outliers))


def _lean(taken: Taken) -> LeanReading:
    return LeanReading(taken.values[0], taken.values[1], taken.spreads[0])
