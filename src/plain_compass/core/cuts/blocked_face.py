"""Blocked-out face with a snipe: a slab out of the apex, so that the stem stays long on the stump."""

from __future__ import annotations

import math
from dataclasses import replace

from ..base.phrase import phrase
from ..design.cut import Cut
from ..design.traits import FaceTraits
from ..plan.case import Case, Planned
from .faces import cutting_words, face_steps
from .form import CutForm, Fit
from .shapes import GOOD, section_of, with_face

EVEN_m = 0.005
"""Two snipes that differ less are meant to be even."""


def _fits(result: Planned) -> Fit:
    face = result.case.cut.face
    if result.parts.section.diameter_m < 0.35:
        return Fit("refused", phrase("cut.face.blocked.fits.stem_too_small"), "open")
    if abs(face.snipe_left_m - face.snipe_right_m) > EVEN_m:
        side = "left" if face.snipe_left_m < face.snipe_right_m else "right"
        apart = abs(face.snipe_left_m - face.snipe_right_m)
        turn = math.degrees(math.atan2(apart, result.parts.face.hinge_length_m))
        return Fit("poor", phrase("cut.face.blocked.fits.uneven", side=phrase(f"side.{side}"), turn=turn), "")
    return GOOD


def _design(case: Case) -> Cut:
    cut = with_face(form="blocked", roof_deg=45.0)(case)
    depth = section_of(case).depth_m
    block, snipe = round(0.08 * depth, 3), round(0.12 * depth, 3)
    return replace(cut, face=replace(cut.face, block_m=block, snipe_left_m=snipe, snipe_right_m=snipe))


FORM = CutForm(
    "blocked",
    "face",
    _fits,
    _design,
    face_steps(cutting_words("cut.face.blocked.do")),
    traits=FaceTraits("blocked out, with a snipe", blocked_out=True),
    fields=("cut.face.block_m", "cut.face.snipe_left_m", "cut.face.snipe_right_m"),
    trouble=2,
)
