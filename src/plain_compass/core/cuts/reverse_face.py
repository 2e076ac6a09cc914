"""Reverse face: a level roof over a sloping floor, so that the butt leaves the stump first."""

from __future__ import annotations

from ..base.phrase import phrase
from ..design.traits import FaceTraits
from ..plan.case import Planned
from .faces import cutting_words, face_steps, two_cuts_on_card
from .form import CutForm, Fit
from .shapes import GOOD, with_face


def _fits(result: Planned) -> Fit:
    drop, high = result.parts.face.floor_drop_m, result.case.cut.height_m
    if drop > 0.8 * high:
        return Fit("refused", phrase("cut.face.reverse.fits.height_below_apex"), "open")
    if result.parts.resting.slides_deg > 15.0:
        return Fit("poor", phrase("cut.face.reverse.fits.downhill_butt_slide"), "open")
    return GOOD


FORM = CutForm(
    "reverse",
    "face",
    _fits,
    with_face(form="reverse", floor_deg=45.0),
    face_steps(cutting_words("cut.face.reverse.do")),
    traits=FaceTraits("reverse: level roof", slopes=("floor",), butt_slides=True),
    on_card=two_cuts_on_card,
    trouble=1,
)
