"""What the drawings of the standing tree are handed beside the assessment: spreads and what follows from them."""

from __future__ import annotations

import math
from dataclasses import dataclass, field

import numpy as np

from ....core.advice.centre import CentreSpread
from ....core.assess import Assessment
from ....core.base.polygon import Array
from ....core.tree.outline import diameters_at
from ....core.tree.stem import axis_at, profile_ratio


@dataclass(frozen=True, slots=True)
class Surveyed:
    """Spreads of one tree.

    Attributes:
        spreads: spread of each measured input by path.
        centre: where the centre of mass is, and how well that is known.
        worst: path of the input most worth measuring better; empty when not reckoned or none.
        readings: (value, left out) of the raw readings by path.
        leans: (angle, bearing, left out) of the raw lean readings.
    """

    spreads: dict[str, float]
    centre: CentreSpread
    worst: str = ""
    readings: dict[str, tuple[tuple[float, bool], ...]] = field(default_factory=dict)
    leans: tuple[tuple[float, float, bool], ...] = ()

    def spread(self, path: str) -> float:
        """Spread of one input; nothing where it has none."""
        return self.spreads.get(path, 0.0)


@dataclass(frozen=True, slots=True)
class Facing:
    """One way of looking at the tree from the side: which way is right on the page.

    Attributes:
        key: ``along`` (from its right side, the lay to the right) or ``across`` (from behind, along the lay).
    """

    key: str

    def right_m(self, forward_m: float, left_m: float) -> float:
        """Position to the right on the page of a point of the tree."""
        return forward_m if self.key == "along" else -left_m

    @property
    def bearing_off_deg(self) -> float:
        """Bearing of right on the page, from the lay."""
        return 0.0 if self.key == "along" else 90.0


ALONG, ACROSS = Facing("along"), Facing("across")


def axis_right_m(result: Assessment, facing: Facing, height_m: float) -> float:
    """The stem's axis at a height above ground, to the right on the page, from the pith at the cut."""
    tree, cut = result.case.tree, result.case.cut
    at = axis_at(tree.lean, height_m, cut_m=cut.height_m, tree_height_m=tree.height_m, lay_deg=cut.gun_deg)
    return facing.right_m(*at)


def axis_right_all_m(result: Assessment, facing: Facing, heights_m: Array) -> Array:
    """``axis_right_m`` at several heights at once, shape (n,): a line and, above the cut, a parabola."""
    tree, cut_m = result.case.tree, result.case.cut.height_m
    top = axis_right_m(result, facing, tree.height_m)
    straight = axis_right_m(result, facing, cut_m - 1.0)
    above = heights_m - cut_m
    length = tree.height_m - cut_m
    bow = top + straight * length
    found: Array = -straight * above + bow * (np.maximum(above, 0.0) / length) ** 2
    return found


def stem_radius_m(result: Assessment, height_m: float) -> float:
    """Radius over bark at a height, as the taper has it: from breast height up by the tape there."""
    case = result.case
    exponent = case.constants.profile_exponent[case.wood.group]
    trunk = case.tree.trunk
    diameter = math.sqrt(math.prod(diameters_at(trunk, height_m, case.tree.height_m, exponent)))
    if trunk.butt_diameter_m is None or height_m <= trunk.butt_at_m:
        return diameter / 2
    upper = trunk.diameter_m * profile_ratio(height_m, trunk.at_m, case.tree.height_m, exponent)
    share = min(max((height_m - trunk.butt_at_m) / max(trunk.at_m - trunk.butt_at_m, 1e-6), 0.0), 1.0)
    return (diameter * (1 - share) + upper * share) / 2
