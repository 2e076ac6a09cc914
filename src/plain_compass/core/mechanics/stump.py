"""The stumps as they are designed: sections with faces and hinges in them, and what the hinges can do."""

from __future__ import annotations

from dataclasses import dataclass

from ..base.polygon import Array
from ..design.designs import Designs
from ..tree.sections import Sections
from .face import FaceGeometry
from .hinge import HingeGeometry, HingeStrength


@dataclass(frozen=True, slots=True, eq=False)
class Stumps:
    """What splitting and wedges ask of B cuts.

    Attributes:
        designs: the cuts.
        sections, face, hinge: their geometry.
        strength: what the hinges can do.
    """

    designs: Designs
    sections: Sections
    face: FaceGeometry[Array]
    hinge: HingeGeometry[Array]
    strength: HingeStrength[Array]
