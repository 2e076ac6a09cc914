"""Slot lock (keyhole): the stem stays on its stump and comes to rest above what lies under it: specialist."""

from __future__ import annotations

import math
from dataclasses import replace

from ..base.phrase import phrase
from ..design.cut import BackCut, Cut
from ..design.traits import BackTraits, KeptPiece, Marker, Notch, Standing
from ..plan.case import Case, Planned
from ..tree.section import Section
from .form import Band, Bands, CutForm, CutStep, FAR_m, Fit, Kept
from .plain_back import CRACK
from .shapes import GOOD, hinge_bands, hinge_line, section_of, sides_of

SLIDES_FROM_DEG = 20.0
"""Slope of the resting stem from which it may slide out of its slot."""


def _fits(result: Planned) -> Fit:
    cut = result.case.cut
    if result.parts.section.width_m < 3 * cut.back.slot_m:
        return Fit("refused", phrase("cut.back.slot.fits.slot_leaves_too"), "open")
    if abs(result.parts.balance.left_m) > 0.25 * result.parts.section.width_m:
        return Fit("refused", phrase("cut.back.slot.fits.side_weight_large"), "bored")
    if slide_deg(result) > SLIDES_FROM_DEG:
        return Fit("poor", phrase("cut.back.slot.fits.stem_rest_steeply"), "open")
    return GOOD


def resting_m(result: Planned) -> float:
    """Height over the ground at which the stem rests at the stump: on the slot's floor, which is the cut's height."""
    return result.case.cut.height_m


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
        sides = tuple(Band(low, high, back, 0.0, front, 0.0) for low, high in outer)
        return sides if share >= 1 else (*sides, Band(-slot, slot, back, 0.0, at, 0.0))

    def sides_out(share: float) -> Bands:
        at = rear + share * (edge - rear)
        return (*hinge, *(Band(low, high, back, 0.0, at, slope * (1 - share)) for low, high in outer))

    def last(share: float) -> Bands:
        if share >= 1:
            return hinge
        return (*hinge, *(Band(low, high, back + share * (edge - back), 0.0, edge, 0.0) for low, high in outer))

    return through, sides_out, last


def _steps(result: Planned, _: Bands) -> tuple[CutStep, ...]:
    cut = result.case.cut
    through, sides_out, last = _kept(result)
    return (
        CutStep(
            "slot",
            "cut.back.slot.slot.title",
            phrase("cut.back.slot.slot.do", wide=cut.back.slot_m, long=cut.back.slot_length_m),
            "cut.back.slot.slot.stand",
            "cut.back.slot.slot.look",
            "cut.back.slot.slot.stop_if",
            through,
            cut.back.step_m,
        ),
        CutStep(
            "sides",
            "cut.back.slot.sides.title",
            phrase("cut.back.slot.sides.do", strap=cut.back.strap_m, **sides_of(result)),
            "cut.back.slot.sides.stand",
            "cut.back.slot.sides.look",
            CRACK,
            sides_out,
            cut.back.step_m,
            wedge_after=True,
        ),
        CutStep(
            "release",
            "cut.back.slot.release.title",
            phrase("cut.back.slot.release.do", rest=resting_m(result)),
            "cut.back.slot.release.stand",
            "cut.back.slot.release.look",
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
    _fits,
    _design,
    _steps,
    specialist=True,
    traits=BackTraits(
        "slot lock",
        thick_hinge=True,
        held=True,
        kept=_straps,
        bored=True,
        holds_butt=True,
        gap_m=lambda back: back.slot_m,
        marks=_marks,
    ),
    fields=("cut.back.slot_m", "cut.back.slot_length_m", "cut.back.strap_m"),
)
