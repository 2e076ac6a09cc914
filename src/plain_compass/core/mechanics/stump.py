"""The stumps as they are designed: sections with faces and hinges in them, and what the hinges can do."""

from __future__ import annotations

from functools import cached_property

from ..base.frozen import dataclass
from ..base.rows import Array
from ..design.designs import Designs
from ..tree.sections import Sections
from .face import FaceGeometry, faces_on
from .hinge import HingeGeometry, HingeStrength, hinges_on
from .ligament import Kerfs, Ligaments, kerfs_at, ligaments_of


@dataclass(frozen=True, eq=False)
class Shapes:
    """B cuts in their sections, as shape alone: whatever stands above them changes nothing here.

    Attributes:
        designs: the cuts.
        sections, face, hinge: their geometry.
    """

    designs: Designs
    sections: Sections
    face: FaceGeometry[Array]
    hinge: HingeGeometry[Array]

    @cached_property
    def ligaments(self) -> Ligaments:
        """The wood still holding as the back cuts come in."""
        return ligaments_of(self.sections, self.face, self.hinge)

    @cached_property
    def kerfs(self) -> Kerfs:
        """Back cuts that stop at their hinges."""
        return kerfs_at(self.sections, self.face.hinge_front_m - self.hinge.reach_m)


def shapes_of(sections: Sections, designs: Designs, kerf_m: float) -> Shapes:
    """Cut faces and hinges out of their sections."""
    face = faces_on(sections, designs, kerf_m)
    return Shapes(designs, sections, face, hinges_on(sections, designs, face))


@dataclass(frozen=True, eq=False)
class Stumps:
    """What splitting and wedges ask of B cuts.

    Attributes:
        shape: cuts, sections, faces and hinges.
        strength: what the hinges can do.
    """

    shape: Shapes
    strength: HingeStrength[Array]

    @cached_property
    def designs(self) -> Designs:
        """The cuts."""
        return self.shape.designs

    @cached_property
    def sections(self) -> Sections:
        """The wood they are made in."""
        return self.shape.sections

    @cached_property
    def face(self) -> FaceGeometry[Array]:
        """The faces."""
        return self.shape.face

    @cached_property
    def hinge(self) -> HingeGeometry[Array]:
        """The hinges."""
        return self.shape.hinge
