"""Even hinge: a plain strip, the usual case."""

from __future__ import annotations

from dataclasses import replace

from ..base.phrase import phrase
from ..design.cut import Cut
from ..design.traits import HingeTraits
from ..plan.case import Case, Planned
from .form import Bands, CutForm, CutStep, Fit
from .shapes import GOOD, section_of


def _fits(result: Planned) -> Fit:
    if result.parts.use.side_utilisation > 1.0:
        return Fit("poor", phrase("cut.hinge.strip.fits.side_weight_tears"), "tapered")
    return GOOD


def _design(case: Case) -> Cut:
    thick = case.practice.hinge_m(section_of(case).depth_m)
    return replace(case.cut, hinge=replace(case.cut.hinge, form="strip", left_m=thick, right_m=thick))


def no_steps(_result: Planned, _before: Bands) -> tuple[CutStep, ...]:
    """A hinge that asks for no cut of its own."""
    return ()


FORM = CutForm("strip", "hinge", _fits, _design, no_steps, traits=HingeTraits("even strip"), usual=True)
