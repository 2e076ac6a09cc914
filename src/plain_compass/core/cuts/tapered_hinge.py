"""Tapered hinge: more wood at the end in tension, against side lean or side weight."""

from __future__ import annotations

from dataclasses import replace

from ..base.phrase import phrase
from ..design.cut import Cut
from ..design.traits import HingeTraits
from ..mechanics.mass import tree_mass
from ..plan.case import Case, Planned
from .even_hinge import no_steps
from .form import CutForm, Fit
from .shapes import GOOD, lean_side, section_of

THICKER = 1.5
"""The tension end over the other, as it is first drawn."""


def _fits(result: Planned) -> Fit:
    side, hinge = lean_side(result), result.case.cut.hinge
    thicker = "left" if hinge.left_m > hinge.right_m else "right"
    if abs(result.parts.mass.com_left_m) < 0.02:
        return Fit("poor", phrase("cut.hinge.tapered.fits.side_weight_taper"), "strip")
    if abs(hinge.left_m - hinge.right_m) > 0.003 and thicker == side:
        return Fit("refused", phrase("cut.hinge.tapered.fits.other_end", side=phrase(f"side.{side}")), "tapered")
    return GOOD


def _design(case: Case) -> Cut:
    practice = case.practice
    thin = max(practice.hinge_ratio[0] * section_of(case).depth_m, practice.hinge_least_m)
    left = tree_mass(case.tree, case.wood, case.cut, case.constants).com_left_m > 0
    ends = (thin, THICKER * thin) if left else (THICKER * thin, thin)
    return replace(case.cut, hinge=replace(case.cut.hinge, form="tapered", left_m=ends[0], right_m=ends[1]))


FORM = CutForm("tapered", "hinge", _fits, _design, no_steps, traits=HingeTraits("tapered"), trouble=1)
