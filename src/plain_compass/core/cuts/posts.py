"""Posts on the spurs of a lobed butt: which spurs carry them, and the wood each one is."""

from __future__ import annotations

import math

from ..base.frozen import dataclass
from ..base.polygon import Array, chord
from ..design.cut import BackCut
from ..design.traits import Notch
from ..tree.section import Section

STEEPEST = 0.6
"""Most slope of the line across both front posts that is reckoned with."""
OUT_m = 0.5
"""From a post outwards all wood stays with it: beyond the bark."""


@dataclass(frozen=True, slots=True)
class Posts:
    """Where the posts stand, in the tree's frame.

    Attributes:
        front: (low, high, middle along the lay) of both front posts, right then left.
        rear: (low, high, front edge along the lay) of the rear posts.
        line: (forward_m at left = 0, slope) of the front of the hinge, across both front posts.
        on_spurs: whether they stand on spurs; otherwise on the ends of the hinge and of a chord behind.
    """

    front: tuple[tuple[float, float, float], ...]
    rear: tuple[tuple[float, float, float], ...]
    line: tuple[float, float]
    on_spurs: bool

    @property
    def off_square_deg(self) -> float:
        """How far the line across the front posts stands off square to the lay: the tree folds square to that line."""
        return math.degrees(math.atan(self.line[1]))


def posts_on(section: Section, face: Notch, back: BackCut) -> Posts:
    """Two posts on the foremost spur of either side, the others on the rearmost spur of either side that is left.

    A post is as wide as ``back.strap_m`` and stands half its width inside the tip of its spur; all wood outwards of
    it stays with it. Where spurs are missing the ends of the hinge and of a chord a quarter in from behind stand in,
    so that the form still has a shape to be refused by.
    """
    width = back.strap_m
    front = _foremost(section.spurs)
    on_spurs = len(front) == 2
    if not on_spurs:
        front = [_inside(face.hinge_front_m - width / 2, end, 0.0) for end in (face.end_right_m, face.end_left_m)]
    used = {tuple(spur) for spur in front}
    rear = _rearmost([(float(f), float(left)) for f, left in section.spurs if (float(f), float(left)) not in used])
    if not on_spurs or not rear:
        line = section.back_m + 0.25 * section.depth_m
        left, right = chord(section.wood, line)
        rear = [(line, right), (line, left)]
    (right_f, right_l), (left_f, left_l) = (_inside(*spur, width / 2) for spur in front)
    slope = (left_f - right_f) / max(left_l - right_l, 1e-6) if on_spurs else 0.0
    slope = min(max(slope, -STEEPEST), STEEPEST)
    across = (right_l + left_l) / 2
    return Posts(
        front=((right_l - OUT_m, right_l + width / 2, right_f), (left_l - width / 2, left_l + OUT_m, left_f)),
        rear=tuple(_stretch(*_inside(*spur, width / 2), width) for spur in rear),
        line=(face.hinge_front_m - slope * across, slope),
        on_spurs=on_spurs,
    )


def _foremost(spurs: Array) -> list[tuple[float, float]]:
    """The foremost spur right and left of the lay, ahead of the pith; fewer where there is none."""
    found = []
    for side in (-1, 1):
        there = [(float(f), float(left)) for f, left in spurs if f > 0 and left * side > 0]
        found += [max(there)] if there else []
    return found


def _rearmost(spurs: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """The rearmost spur on either side of the lay."""
    found = []
    for side in (-1, 1):
        there = [spur for spur in spurs if spur[1] * side >= 0 and spur[0] < 0 and spur not in found]
        found += [min(there)] if there else []
    return found


def _inside(forward_m: float, left_m: float, by_m: float) -> tuple[float, float]:
    """A point moved towards the pith."""
    share = 1.0 - by_m / max(math.hypot(forward_m, left_m), by_m, 1e-9)
    return forward_m * share, left_m * share


def _stretch(forward_m: float, left_m: float, width_m: float) -> tuple[float, float, float]:
    """A rear post: open outwards, as wide as a post inwards, its front edge half a width ahead of its middle."""
    half = width_m / 2
    low = left_m - (OUT_m if left_m < -half else half)
    high = left_m + (OUT_m if left_m > half else half)
    return low, high, forward_m + half
