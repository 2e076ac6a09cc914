"""What the butt does once the hinge has gone: it stays, flies ahead, slides, is thrown back or levered up (indicative).

Everything is graded: no slope and no angle at which one answer gives way to another at once.
"""

from __future__ import annotations

import math

import numpy as np

from ..base.frames import GRAVITY_m_s2
from ..base.polygon import Array
from ..plan.case import Planned
from ..site.landing import flies_m
from .rods import BROKE_BY, Falls, Rods

BUTTS = ("stays", "flies", "slides", "kicks back", "lifts", "hangs", "held", "comes down")
"""What a butt may do."""
TOLD_FROM_m = 0.3
"""A butt that moves less than a foot's length has stayed."""


def throws_m(rods: Rods, falls: Falls, weight_N: Array, share: float) -> Array:
    """How far the whole tree is thrown ahead because its hinge parts before it is down, shape (n,).

    As it parts the centre moves at w Z, level by the cosine of the tilt; until the tree is down that carries it on,
    held back by the stump but for a share. A face that keeps the hinge to the ground throws nothing. The speed is that
    of the weight's own work from letting go.

    Args:
        share: of free flight that is left (indicative).
    """
    broke, end = np.minimum(falls.broke_rad, falls.end_rad), falls.end_rad
    up_m = rods.toppling_Nm / weight_N

    def squared(tilt: Array) -> Array:
        fallen = rods.toppling_Nm * (np.cos(falls.start_rad) - np.cos(tilt))
        moved = rods.ahead_Nm * (np.sin(tilt) - np.sin(falls.start_rad))
        found: Array = np.maximum(2.0 * (fallen + moved) / rods.inertia_kg_m2, 0.0)
        return found

    then, last = np.sqrt(squared(broke)), np.sqrt(squared(end))
    both = then + last
    took_s = np.where(both > 0, 2.0 * (end - broke) / np.where(both > 0, both, 1.0), 0.0)
    found: Array = share * then * up_m * np.maximum(np.cos(broke), 0.0) * np.maximum(took_s, 0.0)
    return np.where(falls.fell & (falls.broke_by != BROKE_BY.index("held to the ground")), found, 0.0)


def runs_m(tip_m_s: float, uphill_deg: float, planned: Planned) -> float:
    """How far the butt runs back, where the ground rises under the lay; ahead, negative, where it falls.

    Its speed as the top lands is e v_tip sin(uphill) Z/L; it leaves the stump only where that takes it over the step,
    and then runs until friction has stopped it: v^2/(2 g (mu cos - sin)), to the end of the slope where that never
    does.
    """
    case, mass = planned.case, planned.parts.mass
    constants, length = case.constants, case.tree.height_m - case.cut.height_m
    slope = math.radians(abs(uphill_deg))
    speed = constants.butt_speed_share * tip_m_s * math.sin(slope) * mass.com_up_m / length
    if speed**2 <= 2 * GRAVITY_m_s2 * max(case.cut.back.step_m, 0.0):
        return 0.0
    holds = constants.slide_friction * math.cos(slope) - math.sin(slope)
    far = length if holds <= 0 else min(speed**2 / (2 * GRAVITY_m_s2 * holds), length)
    return math.copysign(far, uphill_deg)


def butt_of(planned: Planned, falls: Falls, moved: tuple[float, float], *, hangs: bool) -> tuple[str, float]:
    """(one of ``BUTTS``, metres along the lay, back negative) of the plan's own fall.

    Args:
        moved: how far it is thrown ahead, and the speed of the top as it lands.
    """
    case, parts = planned.case, planned.parts
    thrown, tip = moved
    lies, face = parts.resting, case.cut.face
    broke_before = falls.broke_rad[0] < falls.end_rad[0] - 1e-6
    if hangs:
        return "hangs", 0.0
    if case.cut.is_aloft:
        return "comes down", flies_m(case.cut.height_m)
    if case.cut.back.traits.holds_butt:
        return "held", 0.0
    if lies.touches_by == "middle" and lies.touches_deg < 90.0 and broke_before:
        return "lifts", 0.0
    back = runs_m(tip, -lies.slides_deg, planned) if broke_before else 0.0
    if back > TOLD_FROM_m:
        return "kicks back", -back
    slid, forward = -min(back, 0.0), face.traits.butt_slides
    if forward:
        # By the angle of its floor: the steeper it falls forward, the farther the butt goes before the top is down.
        most = case.constants.reverse_slide_diameters * parts.section.diameter_m
        slid += most * math.sin(math.radians(face.floor_deg))
    if forward or slid > TOLD_FROM_m:
        return "slides", slid + thrown
    return ("flies", thrown) if thrown > TOLD_FROM_m else ("stays", thrown)
