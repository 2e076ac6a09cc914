"""The stump as it was really cut and what really happened; everything may be missing."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass, replace
from typing import Any

from ..base.frames import half_turn_deg
from ..base.quantity import Kind, choice, name, quantity
from ..design.cut import Cut, WedgeSeat

GROUPS = ("aim", "left", "right", "step", "overcut", "strap", "wedges")
"""What a miss is shared out among, each as one: face, both ends of the hinge, step, overcut, strap, wedges."""
MOST_OFF_DEG = 30.0
"""A face that points farther beside the lay than this was cut for another one."""
ANSWERS = {"unknown": "not looked at", "no": "no", "yes": "yes"}
CUTS = {"unknown": "not looked at", "none": "they meet", "roof": "the roof", "floor": "the floor"}
BROKE = {
    "unknown": "not looked at",
    "shut": "the [face] shut",
    "bent": "it broke as it bent",
    "side": "the side weight tore it",
    "cut": "it was cut through",
    "rot": "rotten wood",
}


def _read(kind: Kind, label: str, high: float, step: float, help: str) -> Any:
    """A number that was read, from nothing to ``high``; None where nobody looked."""
    return quantity(None, kind=kind, low=0.0, high=high, label=label, step=step, optional=True, help=help)


def _length(label: str, help: str, most_m: float) -> float | None:
    found: float | None = _read(Kind.LENGTH, label, most_m, 0.005, help)
    return found


@dataclass(frozen=True, slots=True)
class AsCut:
    """What was read off a stump and off the tree on the ground, in the order in which one walks round them.

    None, an empty text or ``unknown`` is what nobody looked at.
    """

    towards_deg: float | None = _read(
        Kind.BEARING, "[face] points to", 360.0, 1.0, "Bearing square to the [apex], as it was really cut."
    )
    depth_m: float | None = _length("[apex], from the front", "Depth of the [face] along the lay.", 2.0)
    hinge_left_m: float | None = _length("[hinge] left", "Thickness of the [hinge] at its left end, as cut.", 1.0)
    hinge_right_m: float | None = _length("[hinge] right", "Thickness of the [hinge] at its right end, as cut.", 1.0)
    step_left_m: float | None = _length("step left", "Height of the [back cut] over the [apex], left.", 0.3)
    step_right_m: float | None = _length("step right", "Height of the [back cut] over the [apex], right.", 0.3)
    overcut_m: float | None = _length("[overcut]", "How far one cut of the [face] runs past the other.", 0.5)
    overcut_of: str = choice("unknown", CUTS, "which runs past", "Which cut of the [face] runs past the other.")
    corners: str = choice("unknown", ANSWERS, "bore corners gone through", "Whether the bar came through the [hinge].")
    strap_m: float | None = _length("[strap] left", "[Strap] or trigger as it was left, along the lay.", 1.0)
    rot: str = name("", "rot met")
    posts: str = name("", "posts or corner left")
    pulled: str = name("", "fibre pulled")
    split: str = name("", "split")
    broke: str = choice("unknown", BROKE, "what broke the [hinge]", "As the torn wood shows it.")
    top_deg: float | None = _read(
        Kind.BEARING, "top lies at", 360.0, 1.0, "Bearing from the stump to where the top came to lie."
    )
    top_m: float | None = _read(Kind.SPAN, "top, distance", 150.0, 0.5, "How far from the stump the top lies.")
    hit: str = name("", "what it hit")
    wedges: int | None = _read(Kind.COUNT, "wedges driven", 12, 1, "How many were driven.")
    blows: int | None = _read(Kind.COUNT, "blows", 999, 1, "Blows of the maul in all.")
    lift_m: float | None = _read(
        Kind.FINE_LENGTH, "lift when it went", 0.3, 0.001, "How far the kerf stood open at the back when the tree went."
    )
    sat_back: str = choice("unknown", ANSWERS, "sat back", "Whether it sat back on the bar or a wedge.")
    rope_N: float | None = _read(Kind.FORCE, "rope pull", 500_000.0, 100.0, "Pull on the tree as it went.")
    time_s: float | None = _read(
        Kind.TIME, "time taken", 100_000.0, 60.0, "From the first cut to the tree on the ground."
    )
    kit: str = name("", "kit missed")
    words: str = ""
    felt: str = name("", "how it felt")
    date: str = name("", "date")
    faller: str = name("", "faller")

    @property
    def is_read(self) -> bool:
        """Whether anything of it has been looked at."""
        return self != AsCut()


def miss_deg(cut: Cut, as_cut: AsCut) -> float | None:
    """How far left of its lay the top came to lie, in degrees within half a turn; None where that was not read."""
    return None if as_cut.top_deg is None else half_turn_deg(cut.lay_deg - as_cut.top_deg)


def cut_as(planned: Cut, as_cut: AsCut, groups: Collection[str] = GROUPS) -> Cut:
    """The planned cut with what was really cut put in its place; what was not read stays as planned.

    Args:
        groups: which of ``GROUPS`` are exchanged.
    """
    cut = planned
    if "aim" in groups:
        if as_cut.towards_deg is not None:
            off = half_turn_deg(planned.lay_deg - as_cut.towards_deg)
            cut = replace(cut, aim_off_deg=min(max(off, -MOST_OFF_DEG), MOST_OFF_DEG))
        if as_cut.depth_m is not None:
            cut = replace(cut, face=replace(cut.face, depth_m=as_cut.depth_m))
    if "left" in groups and as_cut.hinge_left_m is not None:
        cut = replace(cut, hinge=replace(cut.hinge, left_m=as_cut.hinge_left_m))
    if "right" in groups and as_cut.hinge_right_m is not None:
        cut = replace(cut, hinge=replace(cut.hinge, right_m=as_cut.hinge_right_m))
    if "step" in groups:
        steps = [each for each in (as_cut.step_left_m, as_cut.step_right_m) if each is not None]
        if steps:
            cut = replace(cut, back=replace(cut.back, step_m=sum(steps) / len(steps)))
    if "overcut" in groups and as_cut.overcut_m is not None:
        cut = replace(cut, face=replace(cut.face, overcut_m=as_cut.overcut_m))
    if "strap" in groups and as_cut.strap_m:
        cut = replace(cut, back=replace(cut.back, strap_m=as_cut.strap_m))
    if "wedges" in groups and as_cut.wedges is not None:
        cut = replace(cut, wedges=_driven(cut, as_cut.wedges))
    return cut


def _driven(cut: Cut, count: int) -> tuple[WedgeSeat, ...]:
    """The planned seats, as many as were driven, the first of them first."""
    left, found = count, []
    for seat in cut.wedges:
        if left <= 0:
            break
        found.append(replace(seat, stacked=min(seat.stacked, left)))
        left -= min(seat.stacked, left)
    return tuple(found)


READ_AS = {
    "cut.face.depth_m": "as_cut.depth_m",
    "cut.hinge.left_m": "as_cut.hinge_left_m",
    "cut.hinge.right_m": "as_cut.hinge_right_m",
    "cut.back.step_m": "as_cut.step_left_m",
    "cut.face.overcut_m": "as_cut.overcut_m",
    "cut.back.strap_m": "as_cut.strap_m",
}
"""What a plan calls it -> what was read; a stump that cannot be is told by the field it was read into."""


def differing(planned: Cut, as_cut: AsCut) -> tuple[str, ...]:
    """The groups in which the stump is not as planned."""
    return tuple(group for group in GROUPS if cut_as(planned, as_cut, (group,)) != planned)
