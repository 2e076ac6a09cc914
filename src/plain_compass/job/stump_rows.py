"""What is read off the stump after the fall, part by part, and what the plan says to it where it says anything."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

from ..core.assess import Assessment
from ..core.base.quantity import Kind
from .document import TreePlan
from .words import Speech

PARTS: dict[str, tuple[str, ...]] = {
    "face": ("towards", "depth"),
    "hinge": ("hinge_left", "hinge_right", "step_left", "step_right"),
    "cuts": ("overcut", "corners", "strap", "rot", "posts"),
    "wood": ("pulled", "split", "broke"),
    "lay": ("top", "paces", "butt", "hit"),
    "drive": ("wedges", "blows", "lift", "sat_back", "rope", "minutes"),
    "told": ("kit", "words", "felt", "date", "faller"),
}
"""Part -> what is asked there, in the order in which a stump is walked round."""


class StumpRow(NamedTuple):
    """One thing to read: what it is called, and what was planned; empty where the plan says nothing of it."""

    key: str
    name: str
    planned: str


def stump_rows(plan: TreePlan, result: Assessment, speech: Speech) -> dict[str, tuple[StumpRow, ...]]:
    """Every part in words with its rows, in this person's units and vocabulary."""

    def row(key: str) -> StumpRow:
        planned = PLANNED.get(key)
        said = planned(_Planned(plan, result, speech)) if planned is not None else ""
        return StumpRow(key, speech.named("stump_asks", key), said)

    return {speech.named("stump_parts", part): tuple(row(key) for key in keys) for part, keys in PARTS.items()}


class _Planned(NamedTuple):
    """What a row is read from."""

    plan: TreePlan
    result: Assessment
    speech: Speech


def _top(of: _Planned) -> str:
    lay, high = of.speech.show(of.plan.cut.lay_deg, Kind.BEARING), of.speech.show(of.plan.tree.height_m, Kind.SPAN)
    return lay if "height_m" in of.plan.tree.stand_ins else f"{lay}, {high}"


def _blows(of: _Planned) -> str:
    blows = of.result.parts.wedging.blows
    return f"~ {blows:.0f}" if math.isfinite(blows) else ""


def _wedges(of: _Planned) -> str:
    return str(sum(seat.stacked for seat in of.plan.cut.wedges))


def _strap(of: _Planned) -> str:
    return of.speech.show(of.plan.cut.back.strap_m, Kind.LENGTH) if of.plan.cut.back.held else ""


def _rope(of: _Planned) -> str:
    rigging = of.result.parts.rigging
    return of.speech.show(rigging.pull_N, Kind.FORCE) if of.plan.rope.use == "set" and rigging is not None else "none"


PLANNED: dict[str, Callable[[_Planned], str]] = {
    "towards": lambda of: of.speech.show(of.plan.cut.gun_deg, Kind.BEARING),
    "depth": lambda of: of.speech.show(of.plan.cut.face.depth_m, Kind.LENGTH),
    "hinge_left": lambda of: of.speech.show(of.plan.cut.hinge.left_m, Kind.LENGTH),
    "hinge_right": lambda of: of.speech.show(of.plan.cut.hinge.right_m, Kind.LENGTH),
    "step_left": lambda of: of.speech.show(of.plan.cut.back.step_m, Kind.LENGTH),
    "step_right": lambda of: of.speech.show(of.plan.cut.back.step_m, Kind.LENGTH),
    "overcut": lambda of: of.speech.show(of.plan.cut.face.overcut_m, Kind.LENGTH),
    "strap": _strap,
    "top": _top,
    "wedges": _wedges,
    "blows": _blows,
    "lift": lambda of: "~ " + of.speech.show(of.result.parts.wedging.lift_m, Kind.FINE_LENGTH),
    "rope": _rope,
}
"""What is asked -> what the plan says to it; ``~`` marks what is indicative."""
