"""Large-flare face: over very large butt swell its depth is set by the length of the hinge."""

from __future__ import annotations

from dataclasses import replace

from ..base.phrase import phrase
from ..base.polygon import chord
from ..design.cut import Cut
from ..design.traits import FaceTraits
from ..plan.case import Case, Planned
from .faces import cutting_words, face_steps
from .form import CutForm, Fit
from .shapes import GOOD, section_of

CHORD_SHARE = 2.0 / 3.0
"""The hinge a face in the flare should have, as a share of the diameter."""
SWELL_FROM = 1.25
"""Butt over breast height from which there is flare to speak of."""


def _fits(result: Planned) -> Fit:
    swell = result.parts.section.width_m / result.case.tree.trunk.diameter_m
    if swell < SWELL_FROM:
        return Fit("refused", phrase("cut.face.flare.fits.large_flare_cut"), "open")
    return GOOD


def _design(case: Case) -> Cut:
    """The shallowest face whose apex is two thirds of the mean diameter long."""
    section = section_of(case)
    wanted = CHORD_SHARE * (section.wood_moments.area_m2 * 4 / 3.141592653589793) ** 0.5
    low, high = 0.005, 0.6 * section.front_m
    for _ in range(40):
        depth = (low + high) / 2
        left, right = chord(section.wood, section.front_m - depth)
        low, high = (depth, high) if left - right < wanted else (low, depth)
    return replace(case.cut, face=replace(case.cut.face, form="flare", depth_m=round(high, 4), roof_deg=55.0))


FORM = CutForm(
    "flare",
    "face",
    _fits,
    _design,
    face_steps(cutting_words("cut.face.flare.do")),
    traits=FaceTraits("over a large flare"),
    trouble=2,
)
