"""Heart bore through the face: the middle of a stiff hinge is bored out, or a short bar reaches the middle."""

from __future__ import annotations

from dataclasses import replace

from ..base.phrase import phrase
from ..design.cut import Cut, Hinge
from ..design.traits import HingeTraits, Marker
from ..plan.case import Case, Planned
from ..tree.section import Section
from .form import Band, Bands, CutForm, CutStep, FAR_m, Fit
from .plain_back import CRACK
from .shapes import GOOD, section_of


def _fits(result: Planned) -> Fit:
    cut, parts = result.case.cut, result.parts
    ends = (parts.face.hinge_length_m - cut.hinge.heart_m) / 2
    if ends < 0.15 * parts.section.width_m:
        return Fit("refused", phrase("cut.hinge.heart.fits.bore_leaves_too"), "strip")
    if parts.section.width_m < result.case.kit.bar_m:
        return Fit("poor", phrase("cut.hinge.heart.fits.bar_reaches_across"), "strip")
    return GOOD


def _design(case: Case) -> Cut:
    width = round(max(case.kit.bar_width_m, 0.25 * section_of(case).width_m), 3)
    return replace(case.cut, hinge=replace(case.cut.hinge, form="heart", heart_m=width))


def _steps(result: Planned, before: Bands) -> tuple[CutStep, ...]:
    """The bore goes from the face through the hinge and as far behind it as the bar reaches."""
    face, section, kit, cut = result.parts.face, result.parts.section, result.case.kit, result.case.cut
    reach = max(kit.bar_m - cut.face.depth_m, 0.05)
    deepest = max(face.hinge_front_m - reach, section.back_m + cut.back.strap_m)
    middle, half = (face.end_left_m + face.end_right_m) / 2, cut.hinge.heart_m / 2

    def kept(share: float) -> Bands:
        at = face.hinge_front_m + share * (deepest - face.hinge_front_m)
        band = before[0]
        return (
            Band(-FAR_m, middle - half, *band[2:]),
            Band(middle + half, FAR_m, *band[2:]),
            Band(middle - half, middle + half, band.rear_m, 0.0, at, 0.0),
        )

    return (
        CutStep(
            "heart",
            "cut.hinge.heart.heart.title",
            phrase("cut.hinge.heart.heart.do", wide=cut.hinge.heart_m),
            "cut.hinge.heart.heart.stand",
            "cut.hinge.heart.heart.look",
            CRACK,
            kept,
            cut.back.step_m,
        ),
    )


def _marks(marker: Marker, _: Section, hinge: Hinge) -> None:
    marker.in_front("heart_edge", hinge.heart_m / 2)


FORM = CutForm(
    "heart",
    "hinge",
    _fits,
    _design,
    _steps,
    traits=HingeTraits("heart bored out", gap_m=lambda hinge: hinge.heart_m, marks=_marks),
    fields=("cut.hinge.heart_m",),
    trouble=3,
)
