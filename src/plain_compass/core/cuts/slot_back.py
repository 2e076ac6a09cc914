"""Slot lock (keyhole): the stem stays on its stump and comes to rest above what lies under it: specialist."""

from __future__ import annotations

import math
from dataclasses import replace

from ..base.phrase import phrase
from ..design.cut import BackCut, Cut
from ..design.traits import BackTraits, KeptPiece, Marker, Notch, Standing
from ..plan.case import Case, Planned
from ..tree.section import Section
from .form import Bands, CutForm, CutStep, FAR_m, Fit, Kept
from .plain_back import CRACK
from .shapes import GOOD, hinge_bands, hinge_line, section_of

SLIDES_FROM_DEG = 20.0
"""Slope of the resting stem from which it may slide out of its slot."""


def _fits(result: Planned) -> Fit:
    cut = result.case.cut
    if result.parts.section.width_m < 3 * cut.back.slot_m:
        return Fit("refused", "The slot leaves too little wood on either side for a [hinge] each.", "open")
    if abs(result.parts.balance.left_m) > 0.25 * result.parts.section.width_m:
        return Fit("refused", "Side weight this large wants steering, and a slot cannot be steered.", "bored")
    if slide_deg(result) > SLIDES_FROM_DEG:
        return Fit("poor", "The stem would rest so steeply that it may slide out of the slot.", "open")
    return GOOD


def resting_m(result: Planned) -> float:
    """Height over the ground at which the stem rests at the stump: the cut, and the wood that stays in the slot."""
    cut = result.case.cut
    return cut.height_m + max(cut.back.slot_length_m - result.parts.section.depth_m / 2, 0.0)


def slide_deg(result: Planned) -> float:
    """Slope of the resting stem towards its top: from the stump's height down to the ground at the crown's base."""
    crown = max(result.case.tree.crown.base_m, 1.0)
    return math.degrees(math.atan2(resting_m(result), crown))


def _design(case: Case) -> Cut:
    section = section_of(case)
    slot = round(max(0.22 * section.width_m, 0.03), 3)
    hinge = round(0.2 * section.depth_m, 3)
    return replace(
        case.cut,
        back=replace(case.cut.back, form="slot", slot_m=slot, strap_m=round(0.15 * section.depth_m, 3)),
        # Either side of the slot bears what one hinge would: twice the usual thickness.
        hinge=replace(case.cut.hinge, left_m=hinge, right_m=hinge),
    )


def _kept(result: Planned) -> tuple[Kept, Kept, Kept]:
    """What holds through the slot, the sides and the release."""
    cut, section = result.case.cut, result.parts.section
    hinge, slot = hinge_bands(result), cut.back.slot_m / 2
    rear, slope = hinge_line(result)
    back, edge = section.back_m - 0.01, section.back_m + cut.back.strap_m
    front = result.parts.face.hinge_front_m
    outer = ((-FAR_m, -slot), (slot, FAR_m))

    def through(share: float) -> Bands:
        """The slot is bored from the face backwards, through the whole stem."""
        at = front + share * (back - front)
        sides = tuple((low, high, back, 0.0, front, 0.0) for low, high in outer)
        return sides if share >= 1 else (*sides, (-slot, slot, back, 0.0, at, 0.0))

    def sides_out(share: float) -> Bands:
        at = rear + share * (edge - rear)
        return (*hinge, *((low, high, back, 0.0, at, slope * (1 - share)) for low, high in outer))

    def last(share: float) -> Bands:
        if share >= 1:
            return hinge
        return (*hinge, *((low, high, back + share * (edge - back), 0.0, edge, 0.0) for low, high in outer))

    return through, sides_out, last


def _steps(result: Planned, _: Bands) -> tuple[CutStep, ...]:
    cut = result.case.cut
    through, sides_out, last = _kept(result)
    return (
        CutStep(
            "slot",
            "Slot",
            phrase(
                "Bore a slot {wide} wide and {long} high through the middle, along the lay.",
                wide=(cut.back.slot_m, "length"),
                long=(cut.back.slot_length_m, "span"),
            ),
            "Aside; the nose comes out at the back, where nobody stands.",
            "The slot runs true along the lay, both ends level.",
            "The slot wanders into a [hinge].",
            through,
            cut.back.step_m,
        ),
        CutStep(
            "sides",
            "Sides",
            phrase(
                "Bore both sides behind their [hinge]s, leaving {strap} at the back.",
                strap=(cut.back.strap_m, "length"),
            ),
            "Beside the stem, first one side, then the other.",
            "Both outer [hinge]s, twice the usual thickness, even.",
            CRACK,
            sides_out,
            cut.back.step_m,
            wedge_after=True,
        ),
        CutStep(
            "release",
            "Release",
            phrase(
                "Release both [strap]s; the stem tips into its slot and rests about {rest} up.",
                rest=(resting_m(result), "length"),
            ),
            "To the side, one foot on the way out.",
            "The stem settles in the slot: it stays under load until it is taken off the stump.",
            CRACK,
            last,
            cut.back.step_m,
            releases=True,
        ),
    )


def _straps(section: Section, _: Notch, back: BackCut, hinge: Standing) -> tuple[KeptPiece, ...]:
    """A strap behind each piece of the hinge."""
    return tuple((low, high, section.back_m + back.kept_m) for low, high in hinge.spans)


def _marks(marker: Marker, _section: Section, _notch: Notch, back: BackCut, _rear_m: float) -> None:
    marker.behind("slot_edge", back.slot_m / 2)


FORM = CutForm(
    "slot",
    "back",
    "slot lock",
    "A stem that must not leave the stump or touch what lies under it.",
    _fits,
    _design,
    _steps,
    "The outer [hinge]s uneven: the stem twists in the slot and jumps out.",
    "A slot lock cannot be steered once it moves, and leaves a stem under load on its stump. It is "
    "for people trained in it, "
    "with a machine or a plan to bring the stem down, where a miss costs nothing.",
    traits=BackTraits(
        "slot lock", held=True, kept=_straps, bored=True, holds_butt=True, gap_m=lambda back: back.slot_m, marks=_marks
    ),
    fields=("cut.back.slot_m", "cut.back.slot_length_m", "cut.back.strap_m"),
)
