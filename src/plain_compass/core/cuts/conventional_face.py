"""Conventional face: a level floor under a sloping roof."""

from __future__ import annotations

from ..base.phrase import phrase
from ..design.traits import FaceTraits
from ..plan.case import Planned
from .faces import cutting_words, face_steps, two_cuts_on_card
from .form import CutForm, Fit
from .shapes import GOOD, with_face


def _fits(result: Planned) -> Fit:
    if result.parts.face.opening_deg < 45.0:
        return Fit("poor", phrase("cut.face.conventional.fits.opened_less_degrees"), "open")
    return GOOD


FORM = CutForm(
    "conventional",
    "face",
    _fits,
    with_face(form="conventional", roof_deg=55.0),
    face_steps(cutting_words("cut.face.conventional.do")),
    traits=FaceTraits("conventional: level floor"),
    on_card=two_cuts_on_card,
    usual=True,
)
