"""The face: where its apex lies, how long the hinge behind it is, and at which tilt it shuts."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..base.polygon import chord
from ..design.cut import Face
from ..tree.section import Section


@dataclass(frozen=True, slots=True)
class FaceGeometry:
    """The face on this section.

    Attributes:
        apex_forward_m: where roof and floor are meant to meet, from the pith along the lay.
        hinge_front_m: front of the hinge: the apex, or further back by an overcut.
        depth_ratio: depth over the wood's depth along the lay.
        opening_deg: angle between roof and floor.
        closing_angle_deg: tilt at which the face shuts, the overcut's slot included.
        shuts_on_overcut: whether the slot of an overcut shuts before the face itself.
        end_left_m, end_right_m: ends of the hinge line across the lay (left positive).
        hinge_length_m: between them, on the wood.
        roof_height_m, floor_drop_m: rise of the roof and drop of the floor from apex to the wood's front.
    """

    apex_forward_m: float
    hinge_front_m: float
    depth_ratio: float
    opening_deg: float
    closing_angle_deg: float
    shuts_on_overcut: bool
    end_left_m: float
    end_right_m: float
    hinge_length_m: float
    roof_height_m: float
    floor_drop_m: float


def face_on(section: Section, face: Face, kerf_m: float) -> FaceGeometry:
    """Geometry of the face.

    An overcut by e leaves a slot one kerf high that shuts at atan(kerf/e); with none the kerf is ignored,
    since two cuts that meet leave no slot. A blocked-out gap adds atan(gap/depth).
    """
    roof_deg, floor_deg = face.angles_deg
    apex = section.front_m - face.depth_m
    front = apex - face.overcut_m
    opening = roof_deg + floor_deg
    if face.traits.blocked_out:
        opening += math.degrees(math.atan2(face.block_m, face.depth_m))
    if not face.traits.is_cut:
        # Without a face the stem shuts on the kerf of the cut itself.
        opening = math.degrees(math.atan2(kerf_m, max(face.depth_m, 0.05)))
    slot = math.degrees(math.atan2(kerf_m, face.overcut_m)) if face.overcut_m > 0 else math.inf
    left, right = chord(section.wood, front)
    return FaceGeometry(
        apex_forward_m=apex,
        hinge_front_m=front,
        depth_ratio=face.depth_m / section.depth_m,
        opening_deg=opening,
        closing_angle_deg=min(opening, slot),
        shuts_on_overcut=slot < opening,
        end_left_m=left,
        end_right_m=right,
        hinge_length_m=left - right,
        roof_height_m=face.depth_m * math.tan(math.radians(min(roof_deg, 89.0))),
        floor_drop_m=face.depth_m * math.tan(math.radians(min(floor_deg, 89.0))),
    )
