"""The face: where its apex lies, how long the hinge behind it is, and at which tilt it shuts."""

from __future__ import annotations

from typing import Generic

import numpy as np

from ..base.edges import ends_m
from ..base.frozen import dataclass
from ..base.polygon import Array
from ..base.rows import N
from ..design.designs import Designs
from ..tree.sections import Sections

LEAST_RUN_m = 0.05
"""Without a face the stem shuts on the kerf itself, over at least this much of it."""
STEEPEST_DEG = 89.0
"""A face cut straight up has no height of its own at the wood's front."""


@dataclass(frozen=True)
class FaceGeometry(Generic[N]):
    """The face on this section.

    Attributes:
        apex_forward_m: where roof and floor are meant to meet, from the pith along the lay.
        hinge_front_m: front of the hinge: the apex, or further back by an overcut.
        depth_ratio: depth over the wood's depth along the lay.
        opening_deg: angle between roof and floor.
        slot_deg: tilt at which the slot of an overcut shuts; infinite without one.
        end_left_m, end_right_m: ends of the hinge line across the lay (left positive).
        roof_height_m, floor_drop_m: rise of the roof and drop of the floor from apex to the wood's front.
    """

    apex_forward_m: N
    hinge_front_m: N
    depth_ratio: N
    opening_deg: N
    slot_deg: N
    end_left_m: N
    end_right_m: N
    roof_height_m: N
    floor_drop_m: N

    @property
    def hinge_length_m(self) -> N:
        """Length of the hinge line, on the wood."""
        return self.end_left_m - self.end_right_m

    @property
    def closing_angle_deg(self) -> N:
        """Tilt at which the face shuts, the overcut's slot included."""
        least = min if isinstance(self.opening_deg, float) else np.minimum
        found: N = least(self.opening_deg, self.slot_deg)
        return found

    @property
    def shuts_on_overcut(self) -> bool:
        """Whether the slot of an overcut shuts before the face itself; asked of one case."""
        return bool(self.slot_deg < self.opening_deg)


def faces_on(sections: Sections, designs: Designs, kerf_m: float) -> FaceGeometry[Array]:
    """Geometry of B faces.

    An overcut by e leaves a slot one kerf high that shuts at atan(kerf/e); with none the kerf is ignored,
    since two cuts that meet leave no slot. A blocked-out gap adds atan(gap/depth).
    """
    depth = designs.depth_m
    apex = sections.front_m - depth
    front = apex - designs.overcut_m
    opening = designs.roof_deg + designs.floor_deg + np.degrees(np.arctan2(designs.block_m, depth))
    alone = np.degrees(np.arctan2(kerf_m, np.maximum(depth, LEAST_RUN_m)))
    slot = np.degrees(np.arctan2(kerf_m, np.maximum(designs.overcut_m, 1e-12)))
    left, right = ends_m(sections.wood, front)
    return FaceGeometry(
        apex_forward_m=apex,
        hinge_front_m=front,
        depth_ratio=depth / sections.depth_m,
        opening_deg=np.where(designs.is_cut, opening, alone),
        slot_deg=np.where(designs.overcut_m > 0, slot, np.inf),
        end_left_m=left,
        end_right_m=right,
        roof_height_m=depth * np.tan(np.radians(np.minimum(designs.roof_deg, STEEPEST_DEG))),
        floor_drop_m=depth * np.tan(np.radians(np.minimum(designs.floor_deg, STEEPEST_DEG))),
    )
