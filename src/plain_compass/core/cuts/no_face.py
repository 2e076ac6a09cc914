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
        return Fit("refused", phrase("cut.face.none.fits.without_face_nothing"), "open")
    return GOOD


def _design(case: Case) -> Cut:
    return replace(case.cut, face=replace(case.cut.face, form="none", depth_m=0.05))


def _steps(_: Planned, before: Bands) -> tuple[CutStep, ...]:
    return (
        CutStep(
            "chalk",
            "cut.face.none.chalk.title",
            phrase("cut.face.none.chalk.do"),
            "cut.face.none.chalk.stand",
            "cut.face.none.chalk.look",
            "cut.face.none.chalk.stop_if",
            lambda _share: before,
        ),
    )


FORM = CutForm("none", "face", _fits, _design, _steps, traits=FaceTraits("no [face]", slopes=(), is_cut=False))
