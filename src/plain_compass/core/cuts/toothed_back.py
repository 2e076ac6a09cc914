"""Toothed strap cut: bored, a fifth left at the back, let go by a cut at another level."""

from __future__ import annotations

from ..base.phrase import phrase
from ..design.traits import BackTraits
from ..plan.case import Planned
from .bored_back import bore_steps, strap_marks
from .form import Bands, CutForm, CutStep, Fit
from .plain_back import CRACK
from .shapes import GOOD, hinge_bands, strap, with_back

LEAST_m = 0.20


def _fits(result: Planned) -> Fit:
    if result.parts.section.depth_m < LEAST_m:
        return Fit("refused", "Under 20 cm there is no room to bore and leave a fifth.", "vees")
    if result.parts.balance.moment_forward_Nm <= 0:
        return Fit("refused", "It is for stems that lean the way they go; this one does not.", "plain")
    if result.parts.section.depth_m > 0.45:
        return Fit("poor", "A stem this large is better released by its [strap], in view.", "bored")
    return GOOD


def _steps(result: Planned, _: Bands) -> tuple[CutStep, ...]:
    back = result.case.cut.back

    def released(share: float) -> Bands:
        if share >= 1:
            return hinge_bands(result)
        low, high, rear, _, front, slope = strap(result, back.strap_m)
        return (*hinge_bands(result), (low, high, rear + share * (front - rear), 0.0, front, slope))

    release = CutStep(
        "release",
        "Cut under",
        phrase(
            "Cut in level {lower} below the bore, or down at it: the tooth shears as the tree goes.",
            lower=(back.lower_m, "length"),
        ),
        "Aside, already on the way out with one foot.",
        "The top.",
        CRACK,
        released,
        back.step_m - back.lower_m,
        releases=True,
    )
    return (*bore_steps(result, back.strap_m), release)


FORM = CutForm(
    "toothed",
    "back",
    "bored, toothed [strap]",
    "Leaning small stems wide enough for the bar: it goes by itself once the tooth is cut free.",
    _fits,
    with_back("toothed", strap_m=0.2),
    _steps,
    "The lower cut meets the bore: then it is no tooth and the tree goes at once.",
    traits=BackTraits(
        "bored, toothed [strap]", held=True, strapped=True, keeps_back=True, bored=True, marks=strap_marks
    ),
    fields=("cut.back.lower_m",),
)
