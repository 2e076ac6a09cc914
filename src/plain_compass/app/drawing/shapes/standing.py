"""The whole standing tree from one side: (right, up) on the page in metres, heights from the ground."""

from __future__ import annotations

import math
from functools import cached_property

import numpy as np

from ....core.assess import Assessment
from ....core.base.frames import half_turn_deg, to_tree
from ....core.base.frozen import dataclass
from ....core.base.polygon import Array
from ....core.mechanics.hinge import hinge_outline
from ....core.tree.outline import diameters_at
from ....core.tree.stem import axis_at, profile_ratio
from .crown import crown_on_lay

CROWN_STEPS = 48
"""Stations up the crown: its edge bends most near the top of a broadleaf, where fewer show corners."""
SECOND_STEPS = 8
"""Stations up a second stem, which tapers in a straight line."""
CONIFER_WIDEST, BROAD_WIDEST = 0.1, 0.4
"""Share of the crown's length, from its base, at which it is widest, by habit."""


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


@dataclass(frozen=True, eq=False)
class TreeShapes:
    """Everything is measured from the pith at the cut."""

    result: Assessment
    facing: Facing

    def axis_right_m(self, height_m: float) -> float:
        """The stem's axis at a height above ground, to the right on the page."""
        tree, cut = self.result.case.tree, self.result.case.cut
        at = axis_at(tree.lean, height_m, cut_m=cut.height_m, tree_height_m=tree.height_m, lay_deg=cut.gun_deg)
        return self.facing.right_m(*at)

    def _axis_right_all_m(self, heights_m: Array) -> Array:
        """``axis_right_m`` at several heights at once, shape (n,): a line and, above the cut, a parabola."""
        tree, cut_m = self.result.case.tree, self.result.case.cut.height_m
        top = self.axis_right_m(tree.height_m)
        straight = self.axis_right_m(cut_m - 1.0)
        above = heights_m - cut_m
        length = tree.height_m - cut_m
        bow = top + straight * length
        found: Array = -straight * above + bow * (np.maximum(above, 0.0) / length) ** 2
        return found

    def straight_m(self, angle_deg: float, bearing_deg: float) -> float:
        """Where a stem that leans so, without sweep, would have its top."""
        case = self.result.case
        out = math.tan(math.radians(angle_deg)) * (case.tree.height_m - case.cut.height_m)
        return self.facing.right_m(*to_tree(bearing_deg, out, case.cut.gun_deg))

    @cached_property
    def top_m(self) -> float:
        """The stem's axis at its top."""
        return self.axis_right_m(self.result.case.tree.height_m)

    @cached_property
    def crown_base_m(self) -> float:
        """The stem's axis at the lowest live crown."""
        return self.axis_right_m(self.result.case.tree.crown.base_m)

    @cached_property
    def top_off_m(self) -> float:
        """How far the top stands to the right of the base."""
        return self.top_m - self.axis_right_m(0.0)

    @cached_property
    def crown_reach_m(self) -> tuple[float, float]:
        """Crown edge to the left and to the right."""
        edge = crown_on_lay(self.result)
        across = edge[:, 0] if self.facing is ALONG else -edge[:, 1]
        base = self.axis_right_m(0.0)
        return float(across.min()) + base, float(across.max()) + base

    @cached_property
    def crown(self) -> Array:
        """The crown between its base, its paced edges and the top, shape (n, 2); the curve between is a sketch."""
        tree = self.result.case.tree
        left, right = self.crown_reach_m
        base, top = tree.crown.base_m, tree.height_m
        t = np.linspace(0.0, 1.0, CROWN_STEPS)
        bulge = _bulge(t, self._is_conifer)
        heights = base + (top - base) * t
        axis = self._axis_right_all_m(heights)
        across = np.concatenate([axis * (1 - bulge) + right * bulge, (axis * (1 - bulge) + left * bulge)[::-1]])
        return np.column_stack([across, np.concatenate([heights, heights[::-1]])])

    @cached_property
    def crown_widest_m(self) -> float:
        """Height at which the crown is drawn widest."""
        tree = self.result.case.tree
        share = CONIFER_WIDEST if self._is_conifer else BROAD_WIDEST
        return tree.crown.base_m + share * (tree.height_m - tree.crown.base_m)

    @property
    def _is_conifer(self) -> bool:
        return self.result.case.wood.group == "conifer"

    @cached_property
    def stem(self) -> tuple[tuple[float, float, float], ...]:
        """(right, height, radius) up the stem, closer together at the butt, where it flares."""
        height = self.result.case.tree.height_m
        heights = np.concatenate([np.linspace(0.0, min(1.6, height / 3), 8), np.linspace(1.7, height, 14)])
        heights = heights[heights <= height]
        at = self._axis_right_all_m(heights).tolist()
        return tuple((x, h, stem_radius_m(self.result, h)) for x, h in zip(at, heights.tolist(), strict=True))

    @cached_property
    def second_stem(self) -> tuple[tuple[float, float, float], ...]:
        """The same of a second stem; empty without one."""
        fork, lay = self.result.case.tree.fork, self.result.case.cut.gun_deg
        if fork.kind != "second":
            return ()
        start = self.axis_right_m(fork.height_m)
        lean = math.tan(math.radians(fork.lean_deg))
        return tuple(
            (
                start + self.facing.right_m(*to_tree(fork.bearing_deg, lean * up, lay)),
                fork.height_m + up,
                fork.diameter_m / 2 * (1 - up / (fork.top_m - fork.height_m)),
            )
            for up in np.linspace(0.0, fork.top_m - fork.height_m, SECOND_STEPS).tolist()
        )

    @cached_property
    def limbs(self) -> tuple[tuple[float, float, float, float], ...]:
        """(start, end, height, diameter) of every heavy limb."""
        lay, found = self.result.case.cut.gun_deg, []
        for limb in self.result.case.tree.limbs:
            start = self.axis_right_m(limb.height_m)
            out = self.facing.right_m(*to_tree(limb.bearing_deg, limb.length_m, lay))
            found.append((start, start + out, limb.height_m, limb.diameter_m))
        return tuple(found)

    @cached_property
    def hinge(self) -> tuple[float, float]:
        """Leftmost and rightmost place of the hinge."""
        parts, cut = self.result.parts, self.result.case.cut
        outline = hinge_outline(parts.section, parts.face, cut)
        ends = [self.facing.right_m(*point) for point in outline.tolist()] or [0.0]
        return min(ends), max(ends)

    def nearest_edge(self, off_deg: float) -> int:
        """Number of the crown reading nearest to a side of the page, ``off_deg`` from its right."""
        wanted = self.result.case.cut.gun_deg + self.facing.bearing_off_deg + off_deg
        readings = self.result.case.tree.crown.readings
        return min(range(len(readings)), key=lambda i: abs(half_turn_deg(readings[i].bearing_deg - wanted)))


def _bulge(t: Array, is_conifer: bool) -> Array:
    """Share of the way from axis to edge at each share of the crown's length: a sketch, not a measurement."""
    if is_conifer:
        low: Array = np.minimum(t / 0.12, 1.0) * (1 - t) ** 0.9 / 0.88**0.9
        return np.clip(low, 0.0, 1.0)
    below, above = np.clip(t / 0.4, 0, 1), np.clip((t - 0.4) / 0.6, 0, 1)
    round_off: Array = np.where(t < 0.4, np.sqrt(1 - (1 - below) ** 2), np.sqrt(1 - above**2))
    return round_off


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
