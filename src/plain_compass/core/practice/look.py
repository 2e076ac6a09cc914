"""What is true of a tree one looks at, as one would say it: the truth behind every question of Look."""

from __future__ import annotations

import math

import numpy as np

from ..base.frames import bearing_of, full_turn_deg, half_turn_deg
from ..base.frozen import dataclass
from ..mechanics.mass import tree_mass
from ..plan.case import Case
from ..tree.crown import crown_outline

WAYS = ("away", "away-right", "right", "towards-right", "towards", "towards-left", "left", "away-left")
"""Where a tree would go, seen by somebody who looks north: an eighth of a turn each, clockwise from straight away."""
PERSON_M = 1.75
"""Height of whoever stands beside a tree."""
EIGHTH_DEG = 45.0
SURE_DEG = 15.0
"""A tree that would go nearer than this to the line between two eighths is not asked of."""
LEAST_OFF_M = 0.15
"""One whose weight stands nearer to its stem than this would go nowhere by itself."""


@dataclass(frozen=True, slots=True)
class LookTruth:
    """Of a tree seen from the south, looking north.

    Attributes:
        height_m, lean_deg: of it.
        weight_left_m: how far left of its butt the weight over the cut stands.
        reach_right_m: how far the crown reaches to the right of the butt.
        goes_deg: bearing in which it would go if let; off_m how far its weight stands off.
    """

    height_m: float
    lean_deg: float
    weight_left_m: float
    reach_right_m: float
    goes_deg: float
    off_m: float

    @property
    def way(self) -> str:
        """Where it would go, of ``WAYS``."""
        return WAYS[round(self.goes_deg / EIGHTH_DEG) % len(WAYS)]

    @property
    def is_plain(self) -> bool:
        """Whether where it would go can be told from where it would not."""
        off_deg = abs(half_turn_deg(self.goes_deg - round(self.goes_deg / EIGHTH_DEG) * EIGHTH_DEG))
        return off_deg <= SURE_DEG and self.off_m >= LEAST_OFF_M

    def of(self, skill: str) -> float:
        """The number that is asked, by skill; KeyError for one that is picked."""
        return {
            "height": self.height_m,
            "lean": self.lean_deg,
            "weight": self.weight_left_m,
            "reach": self.reach_right_m,
        }[skill]


def look_truth(case: Case) -> LookTruth:
    """What the core says of a tree."""
    tree = case.tree
    mass = tree_mass(tree, case.wood, case.cut, case.constants)
    turn = math.radians(case.cut.gun_deg)
    east = mass.com_forward_m * math.sin(turn) - mass.com_left_m * math.cos(turn)
    north = mass.com_forward_m * math.cos(turn) + mass.com_left_m * math.sin(turn)
    outline, first = crown_outline(tree.crown.readings), math.radians(tree.crown.readings[0].bearing_deg)
    reach = float(np.max(outline[:, 0] * math.sin(first) - outline[:, 1] * math.cos(first)))
    return LookTruth(
        height_m=tree.height_m,
        lean_deg=tree.lean.angle_deg,
        weight_left_m=-east,
        reach_right_m=reach,
        goes_deg=full_turn_deg(bearing_of(east, north)),
        off_m=math.hypot(east, north),
    )
