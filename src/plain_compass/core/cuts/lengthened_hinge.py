"""Fibre-lengthening corner cut on the tension side: specialist."""

from __future__ import annotations

from dataclasses import replace

from ..base.phrase import phrase
from ..design.cut import Cut
from ..design.traits import HingeTraits
from ..mechanics.mass import tree_mass
from ..plan.case import Case, Planned
from .form import Bands, CutForm, CutStep, Fit
from .shapes import GOOD, lean_side


def _fits(result: Planned) -> Fit:
    side, hinge, cut = lean_side(result), result.case.cut.hinge, result.case.cut
    if result.parts.use.side_utilisation < 0.5:
        return Fit("poor", phrase("cut.hinge.lengthened.fits.side_weight_strong"), "tapered")
    if hinge.side == side:
        return Fit("refused", phrase("cut.hinge.lengthened.fits.crushed", side=phrase(f"side.{side}")), "lengthened")
    if hinge.lengthen_m > 0.9 * cut.height_m:
        return Fit("refused", phrase("cut.hinge.lengthened.fits.much_stump_below"), "tapered")
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
            "cut.hinge.lengthened.corner.title",
            phrase("cut.hinge.lengthened.corner.do", side=phrase(f"side.{hinge.side}"), high=hinge.lengthen_m),
            phrase("cut.hinge.lengthened.corner.stand", side=phrase(f"side.{hinge.side}")),
            "cut.hinge.lengthened.corner.look",
            "cut.hinge.lengthened.corner.stop_if",
            lambda _: before,
        ),
    )


FORM = CutForm(
    "lengthened",
    "hinge",
    _fits,
    _design,
    _steps,
    specialist=True,
    traits=HingeTraits("fibres lengthened at one corner", lengthened_m=lambda hinge: hinge.lengthen_m / 2),
    fields=("cut.hinge.side", "cut.hinge.lengthen_m"),
)
