"""Open face: roof and floor both slope, opened 70 to 90 degrees."""

from __future__ import annotations

from ..base.phrase import phrase
from ..design.traits import FaceTraits
from ..plan.case import Planned
from .faces import cutting_words, face_steps, two_cuts_on_card
from .form import CutForm, Fit
from .shapes import GOOD, with_face


def _fits(result: Planned) -> Fit:
    if result.parts.splitting.split_index_plain > 1.0 and not result.case.cut.back.held:
        return Fit("poor", phrase("cut.face.open.fits.wood_ready_split"), "narrow")
    return GOOD


FORM = CutForm(
    "open",
    "face",
    _fits,
    with_face(form="open", roof_deg=50.0, floor_deg=20.0),
    face_steps(cutting_words("cut.face.open.do")),
    traits=FaceTraits("open: both slope", slopes=("roof", "floor"), holds_long=True),
    on_card=two_cuts_on_card,
    usual=True,
)
