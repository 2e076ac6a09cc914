"""Narrow deep-angle face with nipped corners, for wood that splits."""

from __future__ import annotations

from dataclasses import replace

from ..base.phrase import phrase
from ..design.cut import Cut
from ..design.traits import FaceTraits
from ..plan.case import Case, Planned
from .faces import cutting_words, face_steps
from .form import CutForm, Fit
from .shapes import GOOD, section_of, with_face

NIP_SHARE = 0.06
"""Each nip, as a share of the wood's depth along the lay."""


def _fits(result: Planned) -> Fit:
    if result.parts.use.side_utilisation > 0.7:
        return Fit("refused", phrase("cut.face.narrow.fits.nips_give_steering"), "open")
    if result.parts.splitting.split_index_plain < 0.5:
        return Fit("poor", phrase("cut.face.narrow.fits.wood_ready_split"), "open")
    return GOOD


def _design(case: Case) -> Cut:
    cut = with_face(form="narrow", roof_deg=45.0, floor_deg=10.0)(case)
    return replace(cut, hinge=replace(cut.hinge, nip_m=round(NIP_SHARE * section_of(case).depth_m, 3)))


FORM = CutForm(
    "narrow",
    "face",
    _fits,
    _design,
    face_steps(cutting_words("cut.face.narrow.do")),
    traits=FaceTraits("narrow and deep, corners nipped", slopes=("roof", "floor")),
    fields=("cut.hinge.nip_m",),
    trouble=1,
)
