"""A tree with one of its measured inputs moved: what every question about spreads asks."""

from __future__ import annotations

import math
from dataclasses import replace

from ..base.frames import full_turn_deg
from ..base.paths import value_at, with_value
from .tree import Lean, Tree

ACROSS = "lean.across_deg"
"""The lean across its own bearing: a tree is plumbed from two sides, and each look has its spread.

No field of the tree: moved, it turns the lean and makes it larger.
"""


def moved(tree: Tree, path: str, by: float) -> Tree:
    """The tree with an input moved, in the input's own unit.

    Args:
        path: of a number of the tree, such as ``height_m``, or ``ACROSS``.
    """
    if path == ACROSS:
        return replace(tree, lean=leaning(tree.lean, 0.0, by))
    if path == "lean.angle_deg":
        return replace(tree, lean=leaning(tree.lean, by, 0.0))
    value = float(value_at(tree, path)) + by
    return with_value(tree, path, full_turn_deg(value) if path.endswith("bearing_deg") else value)


def leaning(lean: Lean, along_deg: float, across_deg: float) -> Lean:
    """A lean moved along its bearing and across it, clockwise positive; past upright it leans the other way."""
    along = lean.angle_deg + along_deg
    if across_deg == 0.0 and along >= 0:
        return replace(lean, angle_deg=along)
    turn = math.degrees(math.atan2(across_deg, along))
    bearing = full_turn_deg(lean.bearing_deg + turn)
    return replace(lean, angle_deg=math.hypot(along, across_deg), bearing_deg=bearing)
