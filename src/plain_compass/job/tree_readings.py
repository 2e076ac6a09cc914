"""The readings kept with one tree: what they are of, how far they spread, and what typing over them leaves."""

from __future__ import annotations

from dataclasses import replace

from ..core.base.paths import value_at
from ..core.tree.tree import Tree
from .document import TreePlan
from .readings import EDGE, LEAN, SHELL, WIND, Taken, groups_of, same_bearing

TYPED = "typed"
"""How a height is told that has no reading in use."""


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
        return same_bearing(value_at(plan, path.rsplit(".", 1)[0]).bearing_deg, taken.values[0])
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


def height_way(plan: TreePlan) -> str:
    """The way the tree's height was measured."""
    used = [taken.by for taken in plan.readings if taken.used and taken.what == "tree.height_m"]
    return used[-1] if used else TYPED


def path_taken(plan: TreePlan, path: str, taken: tuple[float, float], by: str, note: str, at: str) -> Taken:
    """A value typed for a dimension, with its spread, as a reading of what that dimension measures."""
    value, spread = taken
    for head, what in (("tree.crown.readings.", EDGE), ("tree.decay.shell.", SHELL)):
        if path.startswith(head) and path.endswith(("radius_m", "sound_m")):
            bearing = value_at(plan, path.rsplit(".", 1)[0]).bearing_deg
            return Taken(what, by, (bearing, value), (0.0, spread), note, at)
    if path == "tree.lean.angle_deg":
        return Taken(LEAN, by, (value, plan.tree.lean.bearing_deg), (spread, 0.0), note, at)
    return Taken(path, by, (value,), (spread,), note, at)
