"""Axe or hand-saw: a wide face about half in, the back cut a little higher. Small stems."""

from __future__ import annotations

from dataclasses import replace

from ..base.phrase import phrase
from ..design.cut import Cut
from ..design.traits import BackTraits
from ..plan.case import Case, Planned
from .form import CutForm, Fit
from .plain_back import steps
from .shapes import GOOD, section_of

MOST_m = 0.30
"""Thicker stems are no work for an axe (practice of the trade)."""


def _fits(result: Planned) -> Fit:
    if result.parts.section.depth_m > MOST_m:
        return Fit("refused", phrase("cut.back.axe.fits.hand_stem_takes"), "plain")
    if result.parts.splitting.split_index_plain > 1.0:
        return Fit("refused", phrase("cut.back.axe.fits.cut_behind_split"), "vees", "split.index")
    return GOOD


def _design(case: Case) -> Cut:
    depth = section_of(case).depth_m
    return replace(
        case.cut,
        face=replace(case.cut.face, form="open", depth_m=round(0.45 * depth, 3), roof_deg=50.0, floor_deg=20.0),
        back=replace(case.cut.back, form="axe", step_m=max(case.cut.back.step_m, 0.03)),
    )


FORM = CutForm(
    "axe",
    "back",
    _fits,
    _design,
    steps,
    traits=BackTraits("axe or hand-saw", from_behind=True, by_bar=False),
    trouble=1,
)
