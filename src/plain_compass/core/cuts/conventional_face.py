"""Conventional face: a level floor under a sloping roof."""

from __future__ import annotations

from ..design.traits import FaceTraits
from ..plan.case import Planned
from .faces import face_steps, told
from .form import CutForm, Fit
from .shapes import GOOD, with_face


def _fits(result: Planned) -> Fit:
    if result.parts.face.opening_deg < 45.0:
        return Fit("poor", "Opened less than 45 degrees it shuts early and throws the [hinge].", "open")
    return GOOD


FORM = CutForm(
    "conventional",
    "face",
    "conventional [face]",
    "The common case: a level floor that is easy to keep square.",
    _fits,
    with_face(form="conventional", roof_deg=55.0),
    face_steps(told("Roof {roof} down to {high} above ground, {depth} deep; then the floor, level, to meet it.")),
    "One cut runs past the other: the [face] shuts on its slot, the tree stops and the stem may split.",
    traits=FaceTraits("conventional: level floor"),
    usual=True,
)
