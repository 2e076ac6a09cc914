"""Fibre-lengthening corner cut on the tension side: specialist."""

from __future__ import annotations

from dataclasses import replace

from ..base.phrase import phrase
from ..design.cut import Cut
from ..design.traits import HingeTraits
from ..mechanics.balance import tree_mass
from ..plan.case import Case, Planned
from .form import Bands, CutForm, CutStep, Fit
from .shapes import GOOD, lean_side


def _fits(result: Planned) -> Fit:
    side, hinge, cut = lean_side(result), result.case.cut.hinge, result.case.cut
    if result.parts.use.side_utilisation < 0.5:
        return Fit("poor", "The side weight is not so strong that longer fibres are wanted.", "tapered")
    if hinge.side == side:
        return Fit(
            "refused",
            f"The corner to lengthen is the one in tension, not the {side} one, which is crushed.",
            "lengthened",
        )
    if hinge.lengthen_m > 0.9 * cut.height_m:
        return Fit(
            "refused",
            "There is not so much stump below the [hinge]: the corner cut would run into the ground.",
            "tapered",
        )
    return GOOD


def _design(case: Case) -> Cut:
    left = tree_mass(case.tree, case.wood, case.cut, case.constants).com_left_m > 0
    height = round(min(0.15, 0.6 * case.cut.height_m), 2)
    return replace(
        case.cut, hinge=replace(case.cut.hinge, form="lengthened", side="right" if left else "left", lengthen_m=height)
    )


def _steps(result: Planned, before: Bands) -> tuple[CutStep, ...]:
    hinge = result.case.cut.hinge
    return (
        CutStep(
            "corner",
            "Corner",
            phrase(
                f"At the {hinge.side} corner cut the fibres free over {{high}} below the [hinge].",
                high=(hinge.lengthen_m, "length"),
            ),
            f"On the {hinge.side}, away from the side weight.",
            "The corner's fibres whole from the cut up through the [hinge].",
            "The corner comes away: the tension side is gone.",
            lambda _: before,
        ),
    )


FORM = CutForm(
    "lengthened",
    "hinge",
    "fibres lengthened at the tension corner",
    "Strong side lean: longer fibres bend further before they break.",
    _fits,
    _design,
    _steps,
    "Cut at the crushed corner it does nothing; cut too high it takes the corner away.",
    "Lengthening a corner changes how the [hinge] breaks in ways the numbers here only indicate. It "
    "is for people trained in it, on "
    "a tree whose miss costs nothing.",
    traits=HingeTraits("fibres lengthened at one corner", lengthened_m=lambda hinge: hinge.lengthen_m / 2),
    fields=("cut.hinge.side", "cut.hinge.lengthen_m"),
)
