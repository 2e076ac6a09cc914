"""Relieved lean side (swing): the hinge is cut away on the lean side so that the rest swings the tree: specialist."""

from __future__ import annotations

from dataclasses import replace

from ..base.phrase import phrase
from ..design.cut import Cut, Hinge
from ..design.traits import HingeTraits, Notch, Span
from ..mechanics.mass import tree_mass
from ..plan.case import Case, Planned
from .form import Bands, CutForm, CutStep, Fit
from .shapes import GOOD, lean_side, within


def _fits(result: Planned) -> Fit:
    side, hinge = lean_side(result), result.case.cut.hinge
    if abs(result.parts.mass.com_left_m) < 0.05:
        return Fit("refused", phrase("cut.hinge.relieved.fits.side_lean_swing"), "strip")
    if hinge.side != side:
        return Fit("refused", phrase("cut.hinge.relieved.fits.other_side", side=phrase(f"side.{side}")), "relieved")
    if result.parts.use.side_utilisation > 1.0:
        return Fit("refused", phrase("cut.hinge.relieved.fits.left_hinge_carry"), "tapered")
    return GOOD


def _design(case: Case) -> Cut:
    left = tree_mass(case.tree, case.wood, case.cut, case.constants).com_left_m > 0
    return replace(
        case.cut, hinge=replace(case.cut.hinge, form="relieved", side="left" if left else "right", relief_ratio=0.3)
    )


def _steps(result: Planned, before: Bands) -> tuple[CutStep, ...]:
    hinge = result.case.cut.hinge
    low, high = result.parts.hinge.spans[0] if result.parts.hinge.spans else (0.0, 0.0)

    def kept(share: float) -> Bands:
        outer = 5.0
        if hinge.side == "left":
            return within(before, -outer, outer + share * (high - outer)) if share < 1 else within(before, -outer, high)
        return within(before, -outer + share * (low + outer), outer) if share < 1 else within(before, low, outer)

    return (
        CutStep(
            "relief",
            "cut.hinge.relieved.relief.title",
            phrase("cut.hinge.relieved.relief.do", side=phrase(f"side.{hinge.side}"), share=hinge.relief_ratio),
            phrase(
                "cut.hinge.relieved.relief.stand", side=phrase("side.right" if hinge.side == "left" else "side.left")
            ),
            "cut.hinge.relieved.relief.look",
            "cut.hinge.relieved.relief.stop_if",
            kept,
        ),
    )


def _relieved(hinge: Hinge, span: Span, notch: Notch) -> Span:
    """The end on the lean side is gone by its share of the whole length."""
    gone = hinge.relief_ratio * (notch.end_left_m - notch.end_right_m)
    if hinge.side == "left":
        return span[0], notch.end_left_m - gone
    return notch.end_right_m + gone, span[1]


FORM = CutForm(
    "relieved",
    "hinge",
    _fits,
    _design,
    _steps,
    specialist=True,
    traits=HingeTraits("relieved on the lean side", shortened=_relieved),
    fields=("cut.hinge.side", "cut.hinge.relief_ratio"),
)
