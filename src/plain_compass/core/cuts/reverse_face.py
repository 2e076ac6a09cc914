"""Reverse face: a level roof over a sloping floor, so that the butt leaves the stump first."""

from __future__ import annotations

from ..design.traits import FaceTraits
from ..plan.case import Planned
from .faces import face_steps, told
from .form import CutForm, Fit
from .shapes import GOOD, with_face


def _fits(result: Planned) -> Fit:
    drop, high = result.parts.face.floor_drop_m, result.case.cut.height_m
    if drop > 0.8 * high:
        return Fit(
            "refused", "There is no height below the apex for a sloping floor: it would run into the ground.", "open"
        )
    if result.parts.resting.slides_deg > 15.0:
        return Fit("poor", "Downhill the butt would slide off and run on.", "open")
    return GOOD


FORM = CutForm(
    "reverse",
    "face",
    "reverse [face]",
    "Saw logs, and felling uphill: no wood is lost from the log and the butt leaves first.",
    _fits,
    with_face(form="reverse", floor_deg=45.0),
    face_steps(told("Roof level, {high} above ground, {depth} deep; then the floor {floor} up to meet it.")),
    "The butt slides forward off the stump as it parts: nobody stands ahead of it or below.",
    traits=FaceTraits("reverse: level roof", slopes=("floor",), butt_slides=True),
)
