"""Readings as they were taken: kept raw with the tree, averaged into what they measure, never thrown away."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import TYPE_CHECKING

from ..core.measuring.estimate import Averaged, Estimate, Reading, averaged
from ..core.measuring.lean import LeanReading, averaged_lean
from ..core.paths import held
from ..core.tree import Tree

if TYPE_CHECKING:
    from .document import TreePlan

LEAN, EDGE, SHELL, WIND = "lean", "crown edge", "sound shell", "wind"
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
    return abs(math.remainder(one_deg - other_deg, 360.0)) <= SAME_BEARING_DEG


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


def reading_marks(plan: TreePlan) -> dict[str, tuple[tuple[float, bool], ...]]:
    """Raw readings in use by path, each with whether it was left out of the average."""
    found: dict[str, tuple[tuple[float, bool], ...]] = {}
    for group in groups_of(plan.readings):
        about = plan.readings[group.positions[0]]
        last = 1 if about.what in (EDGE, SHELL) else 0
        marks = tuple(
            (plan.readings[p].values[last], p in group.outliers) for p in group.positions if plan.readings[p].used
        )
        for path in _paths(plan.tree, about)[:1]:
            found[path] = marks
    return found


def lean_marks(plan: TreePlan) -> tuple[tuple[float, float, bool], ...]:
    """Lean readings in use: (angle, bearing, whether it was left out of the average)."""
    left_out = {position for group in groups_of(plan.readings) for position in group.outliers}
    return tuple(
        (taken.values[0], taken.values[1], position in left_out)
        for position, taken in enumerate(plan.readings)
        if taken.what == LEAN and taken.used
    )


def typed_over(plan: TreePlan, path: str) -> TreePlan:
    """The plan after a value was typed: the readings it replaces are kept, but no longer used."""
    if not plan.readings:
        return plan
    return replace(
        plan, readings=tuple(replace(t, used=False) if _measures(t, path, plan) else t for t in plan.readings)
    )


def _measures(taken: Taken, path: str, plan: TreePlan) -> bool:
    if taken.what == LEAN:
        return path in ("tree.lean.angle_deg", "tree.lean.bearing_deg")
    if taken.what in (EDGE, SHELL):
        head = "tree.crown.readings." if taken.what == EDGE else "tree.decay.shell."
        if not path.startswith(head):
            return False
        return same_bearing(held(plan, path.rsplit(".", 1)[0]).bearing_deg, taken.values[0])
    return taken.what == path


def reading_spreads(plan: TreePlan) -> dict[str, float]:
    """Spread by path of everything that has readings in use."""
    found: dict[str, float] = {}
    for group in groups_of(plan.readings):
        if group.estimates:
            about = plan.readings[group.positions[0]]
            found.update(zip(_paths(plan.tree, about), (e.spread for e in group.estimates), strict=False))
    return found


def _paths(tree: Tree, about: Taken) -> tuple[str, ...]:
    if about.what == LEAN:
        return "tree.lean.angle_deg", "tree.lean.bearing_deg"
    if about.what in (EDGE, SHELL):
        is_edge = about.what == EDGE
        at = (
            [each.bearing_deg for each in tree.crown.readings] if is_edge else [e.bearing_deg for e in tree.decay.shell]
        )
        path = "tree.crown.readings.{}.radius_m" if is_edge else "tree.decay.shell.{}.sound_m"
        return tuple(path.format(i) for i, bearing in enumerate(at) if same_bearing(bearing, about.values[0]))
    return () if about.what == WIND else (about.what,)


def path_taken(plan: TreePlan, path: str, value: float, spread: float, by: str, note: str, at: str) -> Taken:
    """A value typed for a dimension as a reading of what that dimension measures."""
    for head, what in (("tree.crown.readings.", EDGE), ("tree.decay.shell.", SHELL)):
        if path.startswith(head) and path.endswith(("radius_m", "sound_m")):
            bearing = held(plan, path.rsplit(".", 1)[0]).bearing_deg
            return Taken(what, by, (bearing, value), (0.0, spread), note, at)
    if path == "tree.lean.angle_deg":
        return Taken(LEAN, by, (value, plan.tree.lean.bearing_deg), (spread, 0.0), note, at)
    return Taken(path, by, (value,), (spread,), note, at)
