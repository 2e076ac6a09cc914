"""What is read off the stump after the fall, part by part, and what the plan says to it where it says anything."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

from ..core.assess import Assessment
from ..core.base.quantity import Kind
from .document import TreePlan
from .fields import label_of
from .language import tr
from .words import Speech
from .words.catalogue import glossary

Row = tuple[str, ...]
"""Fields of ``AsCut`` asked in one line: the second says more of the first."""
PARTS: dict[str, tuple[Row, ...]] = {
    "face": (("towards_deg",), ("depth_m",)),
    "hinge": (("hinge_left_m",), ("hinge_right_m",), ("step_left_m",), ("step_right_m",)),
    "cuts": (("overcut_m", "overcut_of"), ("corners",), ("strap_m",), ("rot", "rot_m"), ("posts",)),
    "wood": (("pulled", "pulled_m"), ("split", "split_m"), ("broke", "broke_deg")),
    "lay": (("top_deg", "top_m"), ("beside_m",), ("butt_deg", "butt_m"), ("hit",), ("height_m",), ("lean_deg",)),
    "drive": (
        ("wedges",),
        ("blows",),
        ("lift_m",),
        ("sat_back",),
        ("rope_N",),
        ("wind_m_s", "wind_from_deg"),
        ("time_s",),
    ),
    "told": (("kit",), ("words",), ("felt",), ("date",), ("faller",), ("saw",)),
}
"""Part -> what is asked there, in the order in which a stump is walked round."""


class StumpRow(NamedTuple):
    """One thing to read: its fields, what it is called, and what was planned, if the plan says anything."""

    fields: Row
    name: str
    planned: str


def stump_rows(plan: TreePlan, result: Assessment, speech: Speech) -> dict[str, tuple[StumpRow, ...]]:
    """Every part in words with its rows, in this person's units and vocabulary."""
    of = Planned(plan, result, speech)
    return {
        speech.named("stump_parts", part): tuple(
            StumpRow(row, asked(row, speech), planned_words(row[0], of) if row[0] in PLANNED else "") for row in rows
        )
        for part, rows in PARTS.items()
    }


def asked(row: Row, speech: Speech) -> str:
    """What a line is called: its field's own label, or one for the fields together."""
    joint = len(row) > 1 or row[0] in glossary()["stump_asks"]
    return speech.named("stump_asks", row[0]) if joint else speech.say(label_of(f"as_cut.{row[0]}"))


def planned_words(field: str, of: Planned) -> str:
    """What the plan says to a field, in words; empty where it says nothing."""
    said = PLANNED.get(field)
    return said(of) if said is not None else ""


class Planned(NamedTuple):
    """What a row is read from."""

    plan: TreePlan
    result: Assessment
    speech: Speech


def _top(of: Planned) -> str:
    lay, high = of.speech.show(of.plan.cut.lay_deg, Kind.BEARING), of.speech.show(of.plan.tree.height_m, Kind.SPAN)
    return lay if "height_m" in of.plan.tree.stand_ins else f"{lay}, {high}"


def _height(of: Planned) -> str:
    bare = "height_m" in of.plan.tree.stand_ins
    return "" if bare else of.speech.show(of.plan.tree.height_m, Kind.SPAN)


def _lean(of: Planned) -> str:
    bare = "lean.angle_deg" in of.plan.tree.stand_ins
    return "" if bare else of.speech.show(of.plan.tree.lean.angle_deg, Kind.ANGLE)


def _blows(of: Planned) -> str:
    blows = of.result.parts.wedging.blows
    return f"~ {blows:.0f}" if math.isfinite(blows) else ""


def _wedges(of: Planned) -> str:
    return str(sum(seat.stacked for seat in of.plan.cut.wedges))


def _strap(of: Planned) -> str:
    return of.speech.show(of.plan.cut.back.strap_m, Kind.LENGTH) if of.plan.cut.back.held else ""


def _rope(of: Planned) -> str:
    rigging = of.result.parts.rigging
    return (
        of.speech.show(rigging.pull_N, Kind.FORCE) if of.plan.rope.use == "set" and rigging is not None else tr("none")
    )


PLANNED: dict[str, Callable[[Planned], str]] = {
    "towards_deg": lambda of: of.speech.show(of.plan.cut.gun_deg, Kind.BEARING),
    "depth_m": lambda of: of.speech.show(of.plan.cut.face.depth_m, Kind.LENGTH),
    "hinge_left_m": lambda of: of.speech.show(of.plan.cut.hinge.left_m, Kind.LENGTH),
    "hinge_right_m": lambda of: of.speech.show(of.plan.cut.hinge.right_m, Kind.LENGTH),
    "step_left_m": lambda of: of.speech.show(of.plan.cut.back.step_m, Kind.LENGTH),
    "step_right_m": lambda of: of.speech.show(of.plan.cut.back.step_m, Kind.LENGTH),
    "overcut_m": lambda of: of.speech.show(of.plan.cut.face.overcut_m, Kind.LENGTH),
    "strap_m": _strap,
    "top_deg": _top,
    "height_m": _height,
    "lean_deg": _lean,
    "wedges": _wedges,
    "blows": _blows,
    "lift_m": lambda of: "~ " + of.speech.show(of.result.parts.wedging.lift_m, Kind.FINE_LENGTH),
    "rope_N": _rope,
}
"""What is asked -> what the plan says to it; ``~`` marks what is indicative."""
