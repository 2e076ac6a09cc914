"""No face: only behind four posts on the spurs."""

from __future__ import annotations

from dataclasses import replace

from ..base.phrase import phrase
from ..design.cut import Cut
from ..design.traits import FaceTraits
from ..plan.case import Case, Planned
from .form import Bands, CutForm, CutStep, Fit
from .shapes import GOOD


def _fits(result: Planned) -> Fit:
    if result.case.cut.back.form != "posts":
        return Fit("refused", "Without a [face] nothing steers the tree; it goes only with four posts.", "open")
    return GOOD


def _design(case: Case) -> Cut:
    return replace(case.cut, face=replace(case.cut.face, form="none", depth_m=0.05))


def _steps(_: Planned, before: Bands) -> tuple[CutStep, ...]:
    return (
        CutStep(
            "chalk",
            "Chalk",
            phrase("Chalk the four posts on the spurs and the lay between the front two."),
            "Round the stem, before any cut.",
            "Sound wood in every spur.",
            "A spur sounds hollow.",
            lambda _share: before,
        ),
    )


FORM = CutForm(
    "none",
    "face",
    "no [face]",
    "Only with four posts on buttresses, with the lean.",
    _fits,
    _design,
    _steps,
    "Trees without a [face] are not steered: a plan that leaves it out by habit is a stop.",
    traits=FaceTraits("no [face]", slopes=(), is_cut=False),
)
