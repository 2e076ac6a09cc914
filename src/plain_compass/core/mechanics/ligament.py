"""The wood still holding behind the apex, as shape alone: ligaments as the back cut comes in, and kerfs."""

from __future__ import annotations

import numpy as np

from ..base.edges import breadth_m
from ..base.frozen import dataclass
from ..base.rows import Array
from ..base.strips import Along, FAR_m, bands, strip
from ..tree.sections import Sections
from .face import FaceGeometry
from .hinge import HingeGeometry

LIGAMENTS = 36
"""Depths of the cut that are followed; where it moves is found between two of them."""
DEPTHS: Array = np.linspace(0.0, 1.0, LIGAMENTS)


@dataclass(frozen=True, eq=False)
class Ligaments:
    """The wood between the apex line and back cuts parallel to it, from all of it down to the hinge; (B, c).

    Attributes:
        ligament_m: how thick it is.
        square_m3: integral of its thickness squared across the lay.
        centre_m: its centroid along the lay.
    """

    ligament_m: Array
    square_m3: Array
    centre_m: Array


def ligaments_of(sections: Sections, face: FaceGeometry[Array], hinge: HingeGeometry[Array]) -> Ligaments:
    """Follow each ligament from the uncut stem to the finished hinge, taken parallel to the apex line."""
    front = face.hinge_front_m
    whole = front - sections.back_m
    ligament = whole[:, None] + (hinge.reach_m - whole)[:, None] * DEPTHS
    rear = front[:, None] - ligament
    between = bands(sections.edges, np.concatenate([rear, front[:, None]], axis=1), Along)
    # All that lies ahead of each level.
    area, first = (np.cumsum(each[:, ::-1], axis=1)[:, ::-1] for each in (between.one, between.v))
    return Ligaments(ligament, sections.lines.squares_m3(rear, front), first / np.maximum(area, 1e-12))


def released_J_m2(moment_Nm: Array, breadth_m: Array, elasticity_Pa: Array, front_m4: Array, whole_m4: Array) -> Array:
    """Energy released per area of a crack running up from a kerf: M^2/(2 b E) (1/I_front - 1/I); all of one shape.

    The front part, from the front bark to the kerf, bends alone once the crack has passed. Source: strain
    energy release rate of a split beam (Griffith's criterion with Euler-Bernoulli halves). Where nothing is left in
    front of the kerf any moment at all splits it.
    """
    stands = (front_m4 > 0) & (breadth_m > 0)
    one = np.where(stands, front_m4, 1.0)
    saved = np.maximum(1.0 / one - 1.0 / whole_m4, 0.0)
    energy = moment_Nm * moment_Nm / (2 * np.where(stands, breadth_m, 1.0) * elasticity_Pa) * saved
    return np.where(stands, energy, np.where(moment_Nm != 0, np.inf, 0.0))


@dataclass(frozen=True, eq=False)
class Kerfs:
    """What a crack from a kerf parts: the front of each section, bending alone, from the whole; shapes (B,)."""

    breadth_m: Array
    front_m4: Array
    whole_m4: Array

    def energy_J_m2(self, moment_Nm: Array, elasticity_Pa: Array) -> Array:
        """Energy that the crack would set free under a moment."""
        return released_J_m2(moment_Nm, self.breadth_m, elasticity_Pa, self.front_m4, self.whole_m4)


def kerfs_at(sections: Sections, forward_m: Array) -> Kerfs:
    """Kerfs that stop at these places along the lay."""
    front = strip(sections.edges, forward_m, np.full(len(sections), FAR_m), Along)
    return Kerfs(breadth_m(sections.edges, forward_m), front.second_fall_m4, sections.sound.second_fall_m4)
