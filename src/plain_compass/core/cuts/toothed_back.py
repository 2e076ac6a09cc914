"""Toothed strap cut: bored, a fifth left at the back, let go by a cut at another level."""

from __future__ import annotations

from ..base.phrase import phrase
from ..design.traits import BackTraits
from ..plan.case import Planned
from .bored_back import bore_steps, strap_marks
from .form import Band, Bands, CutForm, CutStep, Fit
from .plain_back import CRACK
from .shapes import GOOD, hinge_bands, strap, with_back

LEAST_m = 0.20
"""Smaller stems have no room for a tooth between two bores."""


def _fits(result: Planned) -> Fit:
    if result.parts.section.depth_m < LEAST_m:
        return Fit("refused", phrase("cut.back.toothed.fits.under_cm_room"), "vees")
    if result.parts.balance.moment_forward_Nm <= 0:
        return Fit("refused", phrase("cut.back.toothed.fits.stems_lean_way"), "plain")
    if result.parts.section.depth_m > 0.45:
        return Fit("poor", phrase("cut.back.toothed.fits.stem_large_better"), "bored")
    return GOOD


def _steps(result: Planned, _: Bands) -> tuple[CutStep, ...]:
    back = result.case.cut.back

    def released(share: float) -> Bands:
        if share >= 1:
            return hinge_bands(result)
        low, high, rear, _, front, slope = strap(result, back.strap_m)
        return (*hinge_bands(result), Band(low, high, rear + share * (front - rear), 0.0, front, slope))

    release = CutStep(
        "release",
        "cut.back.toothed.release.title",
        phrase("cut.back.toothed.release.do", lower=back.lower_m),
        "cut.back.toothed.release.stand",
        "cut.back.toothed.release.look",
        CRACK,
        released,
        back.step_m - back.lower_m,
        releases=True,
    )
    return (*bore_steps(result, back.strap_m), release)


FORM = CutForm(
    "toothed",
    "back",
    _fits,
    with_back("toothed", strap_m=0.2),
    _steps,
    traits=BackTraits(
        "bored, toothed [strap]", held=True, strapped=True, keeps_back=True, bored=True, marks=strap_marks
    ),
    fields=("cut.back.lower_m",),
    trouble=2,
)
