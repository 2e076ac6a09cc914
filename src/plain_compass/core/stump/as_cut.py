"""The stump as it was really cut and what really happened; everything may be missing."""

from __future__ import annotations

import math
from collections.abc import Collection
from dataclasses import field, replace
from typing import Any

from ..assess import check
from ..base.errors import InputError
from ..base.frames import half_turn_deg
from ..base.frozen import dataclass
from ..base.quantity import Kind, choice, name, quantity
from ..design.cut import Cut, WedgeSeat
from ..plan.case import Case

GROUPS = ("aim", "left", "right", "step", "overcut", "drive", "loss", "wind")
"""What a miss is shared out among, each as one: face, both ends of the hinge, step, overcut, strap and wedges, rot and
the hinge lost early, wind."""
LEAST_TILT_DEG = 1.0
"""A hinge that broke sooner never bent."""
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


def _span(label: str, help: str, most_m: float = 150.0) -> float | None:
    found: float | None = _read(Kind.SPAN, label, most_m, 0.5, help)
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
    rot_m: float | None = _length("rot met, from the middle", "How far rot reached round the middle; 0 for none.", 1.5)
    posts: str = name("", "posts or corner left")
    pulled: str = name("", "fibre pulled")
    pulled_m: float | None = _length("fibre pulled, how long", "Longest fibre torn out of the butt; 0 for none.", 5.0)
    split: str = name("", "split")
    split_m: float | None = _length("split, how long", "How far up the stem split; 0 for not at all.", 20.0)
    broke: str = choice("unknown", BROKE, "what broke the [hinge]", "As the torn wood shows it.")
    broke_deg: float | None = _read(
        Kind.ANGLE, "at a tilt of about", 110.0, 5.0, "How far over the tree was when the [hinge] let go, by eye."
    )
    top_deg: float | None = _read(
        Kind.BEARING, "top lies at", 360.0, 1.0, "Bearing from the stump to where the top came to lie."
    )
    top_m: float | None = _span("top, distance", "How far from the stump the top lies.")
    beside_m: float | None = quantity(
        None,
        kind=Kind.BESIDE,
        low=-100.0,
        high=100.0,
        label="top beside the mark",
        step=0.5,
        optional=True,
        help="How far the top lies left of the mark it was to come down on, seen from the stump; right is negative.",
    )
    butt_deg: float | None = _read(
        Kind.BEARING, "butt lies at", 360.0, 1.0, "Bearing from the stump to where the butt came to lie."
    )
    butt_m: float | None = _span("butt, distance", "How far from the stump the butt lies; 0 for on the stump.", 60.0)
    hit: str = name("", "what it hit")
    height_m: float | None = _span("height, taped on the ground", "From the ground at the stump to the top.", 120.0)
    lean_deg: float | None = _read(
        Kind.ANGLE, "lean, as the stump shows", 45.0, 0.5, "Lean at the butt, by stump and stem, along its old bearing."
    )
    wedges: int | None = _read(Kind.COUNT, "wedges driven", 12, 1, "How many were driven.")
    blows: int | None = _read(Kind.COUNT, "blows", 999, 1, "Blows of the maul in all.")
    lift_m: float | None = _read(
        Kind.FINE_LENGTH, "lift when it went", 0.3, 0.001, "How far the kerf stood open at the back when the tree went."
    )
    sat_back: str = choice("unknown", ANSWERS, "sat back", "Whether it sat back on the bar or a wedge.")
    rope_N: float | None = _read(Kind.FORCE, "rope pull", 500_000.0, 100.0, "Pull on the tree as it went.")
    wind_m_s: float | None = _read(Kind.SPEED, "wind as it went", 40.0, 0.5, "Mean wind while it fell; 0 for still.")
    wind_from_deg: float | None = _read(Kind.BEARING, "wind from", 360.0, 10.0, "Where the wind blew from as it went.")
    time_s: float | None = _read(
        Kind.TIME, "time taken", 100_000.0, 60.0, "From the first cut to the tree on the ground."
    )
    kit: str = name("", "kit missed")
    words: str = field(default="", metadata={"label": "in your words"})
    felt: str = name("", "how it felt")
    date: str = name("", "date")
    faller: str = name("", "faller")
    saw: str = name("", "saw")

    @property
    def is_read(self) -> bool:
        """Whether anything of it has been looked at."""
        return self != AsCut()

    @property
    def has_split(self) -> bool | None:
        """Whether the stem split; None where nobody looked."""
        return happened(self.split, self.split_m)

    @property
    def has_hit(self) -> bool:
        """Whether anything is said to have been hit."""
        return happened(self.hit) or False

    @property
    def steps_m(self) -> tuple[float, ...]:
        """The step at either end, as far as it was read."""
        return tuple(each for each in (self.step_left_m, self.step_right_m) if each is not None)


NOTHING = ("no", "none", "nothing", "0", "-")
"""What is written where there was nothing to see."""


def happened(told: str, long_m: float | None = None) -> bool | None:
    """Whether something is said to have happened, by its length or else by the words for it; None where nothing is."""
    if long_m is not None:
        return long_m > 0
    words = told.strip().lower().rstrip(".")
    return words not in NOTHING if words else None


def miss_deg(cut: Cut, as_cut: AsCut, length_m: float) -> float | None:
    """How far left of its lay the top came to lie, in degrees within half a turn; None where that was not read.

    A bearing that was read goes before a distance from the mark.

    Args:
        length_m: from the stump to the top: how far off the mark was.
    """
    if as_cut.top_deg is not None:
        return half_turn_deg(cut.lay_deg - as_cut.top_deg)
    if as_cut.beside_m is None:
        return None
    away_m = as_cut.top_m or length_m
    return math.degrees(math.asin(min(max(as_cut.beside_m / away_m, -1.0), 1.0)))


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
        steps = as_cut.steps_m
        if steps:
            cut = replace(cut, back=replace(cut.back, step_m=sum(steps) / len(steps)))
    if "overcut" in groups and as_cut.overcut_m is not None:
        cut = replace(cut, face=replace(cut.face, overcut_m=as_cut.overcut_m))
    if "drive" in groups and as_cut.strap_m:
        cut = replace(cut, back=replace(cut.back, strap_m=as_cut.strap_m))
    if "drive" in groups and as_cut.wedges is not None:
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


def case_as(planned: Case, as_cut: AsCut, groups: Collection[str] = GROUPS) -> Case:
    """The planned case with what was read off the stump, and the wind as it was, in their place.

    Args:
        groups: which of ``GROUPS`` are exchanged.
    """
    case = replace(planned, cut=cut_as(planned.cut, as_cut, groups))
    if "loss" in groups and as_cut.rot_m:
        decay = replace(case.tree.decay, kind="cavity", radius_m=as_cut.rot_m, offset_m=0.0)
        case = replace(case, tree=replace(case.tree, decay=decay))
    if "wind" in groups and as_cut.wind_m_s is not None:
        from_deg = case.site.wind_from_deg if as_cut.wind_from_deg is None else as_cut.wind_from_deg
        case = replace(case, site=replace(case.site, wind_m_s=as_cut.wind_m_s, wind_from_deg=from_deg))
    return case


def breaks_at_deg(as_cut: AsCut, groups: Collection[str] = GROUPS) -> float | None:
    """Tilt by which the hinge is known to have let go; None where nobody saw."""
    return None if "loss" not in groups or as_cut.broke_deg is None else max(as_cut.broke_deg, LEAST_TILT_DEG)


READ_AS = {
    "cut.face.depth_m": "as_cut.depth_m",
    "cut.hinge.left_m": "as_cut.hinge_left_m",
    "cut.hinge.right_m": "as_cut.hinge_right_m",
    "cut.back.step_m": "as_cut.step_left_m",
    "cut.face.overcut_m": "as_cut.overcut_m",
    "cut.back.strap_m": "as_cut.strap_m",
    "tree.decay.radius_m": "as_cut.rot_m",
}
"""What a plan calls it -> what was read; a stump that cannot be is told by the field it was read into."""


def differing(planned: Case, as_cut: AsCut) -> tuple[str, ...]:
    """The groups in which it was not as planned."""
    return tuple(
        group
        for group in GROUPS
        if breaks_at_deg(as_cut, (group,)) is not None or case_as(planned, as_cut, (group,)) != planned
    )


def stump_as_cut(planned: Case, as_cut: AsCut) -> Case:
    """The case as it was really cut, checked.

    Raises InputError, naming the field that was read, where such a stump cannot be.
    """
    case = case_as(planned, as_cut)
    try:
        check(case)
    except InputError as error:
        raise named_as_read(error) from error
    return case


def named_as_read(error: InputError) -> InputError:
    """What a plan refuses, told of the field that was read."""
    return InputError(
        READ_AS.get(error.field, error.field),
        error.given,
        kind=error.kind,
        low=error.low,
        high=error.high,
        reason=error.reason,
    )
