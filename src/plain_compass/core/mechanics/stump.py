"""The stump as it is designed: the section with the face and the hinge in it, and what the hinge can do."""

from __future__ import annotations

from dataclasses import dataclass

from ..design.cut import Cut
from ..tree.section import Section
from .face import FaceGeometry
from .hinge import HingeGeometry, HingeStrength


@dataclass(frozen=True, slots=True, eq=False)
class Stump:
    """What splitting and wedges ask of a cut.

    Attributes:
        cut: the design.
        section, face, hinge: its geometry.
        strength: what the hinge can do.
    """

    cut: Cut
    section: Section
    face: FaceGeometry
    hinge: HingeGeometry
    strength: HingeStrength
