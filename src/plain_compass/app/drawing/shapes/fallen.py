"""The falling tree from its side: (along the lay, up) in metres from the stump's foot, and up and across the stem."""

from __future__ import annotations

import math

import numpy as np

from ....core.assess import Assessment
from ....core.base.frozen import dataclass
from ....core.base.polygon import Array
from ....core.fall.trace import Pose
from ....core.plan.reach import lying
from ....core.site.hang_up import crown_half_m
from ....core.site.landing import neighbours_of

ALONG = 14
"""Stations along the crown: its edge is a smooth sketch, which these follow to a pixel."""
BACK_m = 2.0
"""How far behind the stump a neighbour may stand and still be drawn."""


@dataclass(frozen=True, slots=True)
class Neighbour:
    """One the crown may touch on this lay: where it stands along it, and the ground under it."""

    name: str
    along_m: float
    foot_m: float
    radius_m: float
    base_m: float
    height_m: float


@dataclass(frozen=True, slots=True, eq=False)
class FallenShapes:
    """The tree as drawn in any pose.

    Attributes:
        length_m: from the cut to the top.
        crown, stem: outlines as (up the stem, across it), shapes (n, 2).
        neighbours: those it may touch.
    """

    result: Assessment
    length_m: float
    crown: Array
    stem: Array
    neighbours: tuple[Neighbour, ...]

    def placed(self, outline: Array, pose: Pose) -> Array:
        """An outline on the page in a pose, (along the lay, up), shape (n, 2)."""
        ahead, up = _axis(self.result, pose)
        long = math.hypot(ahead, up) or 1.0
        up_m, across_m = outline[:, 0], outline[:, 1]
        x = up_m * ahead + across_m * up / long
        z = self.result.case.cut.height_m + up_m * up - across_m * ahead / long
        return np.column_stack([x, z])

    def on_stem(self, pose: Pose, share: float = 1.0) -> Array:
        """A place up the stem by its share of the length, shape (1, 2)."""
        return self.placed(np.array([[share * self.length_m, 0.0]]), pose)


def fallen_shapes(result: Assessment) -> FallenShapes:
    """Make them."""
    case, print_ = result.case, lying(result.case)
    share = np.linspace(0.0, 1.0, ALONG)
    up = print_.crown_from_m + share * (print_.length_m - print_.crown_from_m)
    half = crown_half_m(print_, share, case.wood.group == "conifer")
    lies = result.parts.resting
    return FallenShapes(
        result=result,
        length_m=print_.length_m,
        crown=_mirrored(up, half),
        stem=_mirrored(lies.along_m, lies.thick_m / 2),
        neighbours=_neighbours(result),
    )


def _mirrored(up_m: Array, half_m: Array) -> Array:
    """An outline from its half widths, up one side and down the other."""
    return np.column_stack([np.concatenate([up_m, up_m[::-1]]), np.concatenate([half_m, -half_m[::-1]])])


def _neighbours(result: Assessment) -> tuple[Neighbour, ...]:
    case, print_ = result.case, lying(result.case)
    found, trees = [], neighbours_of(case.site, case.at)
    places = zip(trees.index.tolist(), *(each.tolist() for each in trees.on(case.cut.lay_deg)), strict=True)
    for index, along, aside in places:
        other = case.site.obstacles[index]
        is_beside = abs(aside) > other.radius_m + print_.crown_half_m
        if is_beside or not -BACK_m < along < print_.length_m + other.radius_m:
            continue
        foot = float(np.interp(along, case.profile.along_m, case.profile.ground_m))
        found.append(Neighbour(other.name, along, foot, other.radius_m, other.base_m, other.height_m))
    return tuple(found)


def _axis(result: Assessment, pose: Pose) -> tuple[float, float]:
    """(along, up) of the stem's direction, as seen from the side."""
    turn = pose.turned_rad + math.radians(result.case.cut.aim_off_deg + result.parts.hinge.steered_deg)
    ahead, left = math.sin(pose.tilt_rad) * math.cos(pose.side_rad), math.sin(pose.side_rad)
    return ahead * math.cos(turn) - left * math.sin(turn), math.cos(pose.tilt_rad) * math.cos(pose.side_rad)
