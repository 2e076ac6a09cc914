"""Open face: roof and floor both slope, opened 70 to 90 degrees."""

from __future__ import annotations

from ..design.traits import FaceTraits
from ..plan.case import Planned
from .faces import face_steps, told
from .form import CutForm, Fit
from .shapes import GOOD, with_face


def _fits(result: Planned) -> Fit:
    if result.parts.splitting.split_index_plain > 1.0 and not result.case.cut.back.held:
        return Fit("poor", "Wood this ready to split wants a narrower [face], or a bore behind this one.", "narrow")
    return GOOD


FORM = CutForm(
    "open",
    "face",
    "open [face]",
    "Control to the ground: the [hinge] holds longest.",
    _fits,
    with_face(form="open", roof_deg=50.0, floor_deg=20.0),
    face_steps(told("Roof {roof} down to {high} above ground, {depth} deep; then the floor {floor} up to meet it.")),
    "Opened too little the [face] shuts before the tree is past the point of no return.",
    traits=FaceTraits("open: both slope", slopes=("roof", "floor"), holds_long=True),
    usual=True,
)
