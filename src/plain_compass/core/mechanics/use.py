"""How hard the hinge works as the tree tips, when it lets go, and until when it is needed."""

from __future__ import annotations

import math
from typing import Generic

import numpy as np

from ..base.frozen import dataclass
from ..base.polygon import Array
from ..base.rows import N, limited
from .hinge import HingeGeometry, HingeStrength, led_m
from .mass import Mass

CURVE_STEP_DEG = 1.0
"""Step of the curve of use over tilt, straight between two of them: far finer than a tilt is ever seen."""
CURVE_TILTS_DEG: Array = np.arange(0.0, 90.0 + CURVE_STEP_DEG / 2, CURVE_STEP_DEG)
"""Upright to lying."""
LETS_GO = ("face shut", "side load", "its own limit")
"""What may make a hinge let go."""
_COS, _SIN = np.cos(np.radians(CURVE_TILTS_DEG)), np.sin(np.radians(CURVE_TILTS_DEG))
_MIDDLES: Array = np.radians(CURVE_TILTS_DEG[1:] - CURVE_STEP_DEG / 2)
_COS_MIDDLES: Array = np.cos(_MIDDLES)


@dataclass(frozen=True, eq=False)
class HingeUse(Generic[N]):
    """How hard the hinge works on the way down.

    Attributes:
        use: the curve U(tilt) at ``CURVE_TILTS_DEG``, shape (t,), or (B, t) of many.
        lets_go_deg: first tilt at which U reaches 1 or the face is shut.
        lets_go_by: ``side load``, ``its own limit`` or ``face shut``.
        needed_tilt_deg: past this tilt, losing the hinge moves the top less than the tolerance (indicative).
        side_utilisation: most U between 0 and the lesser of shutting and needed tilt.
    """

    use: Array
    lets_go_deg: N
    lets_go_by: str
    needed_tilt_deg: N
    side_utilisation: N

    @property
    def tilt_deg(self) -> Array:
        """Tilts of the curve, shape (t,)."""
        return CURVE_TILTS_DEG

    def at(self, tilt_deg: float) -> float:
        """The use of one hinge at a tilt, between those of the curve."""
        return float(np.interp(tilt_deg, CURVE_TILTS_DEG, self.use))


def hinge_uses(
    mass: Mass[Array],
    hinge: HingeGeometry[Array],
    strength: HingeStrength[Array],
    steady_left_Nm: Array,
    closing_deg: Array,
    tolerance_deg: float,
) -> HingeUse[Array]:
    """Use of B hinges against tilt.

    U = sqrt(((m g Y cos + S)/C_b)^2 + (m g Y sin/C_t)^2) + (tilt/break angle)^2, Y off the plane in which the tree is
    led. The tilt until which a hinge is needed is that of the even hinge of the same area, so that a taper is held
    against the same.

    Args:
        steady_left_Nm: S, what wind and rope add to side bending at every tilt. Where it eases the weight's it is
            left out: a wind drops and a rope goes slack.
    """
    tilt, cos, sin = CURVE_TILTS_DEG, _COS, _SIN
    _, off_m = led_m(mass, hinge)
    side = np.abs(off_m) * mass.weight_N
    steady = np.where(off_m >= 0, steady_left_Nm, -steady_left_Nm)
    weighed = side[:, None] * cos
    bent = np.maximum(weighed, np.abs(weighed + steady[:, None]))
    # A hinge that carries nothing across the lay is used up by any load at all.
    carried = bent * _over(np.ones_like(side), strength.side_capacity_Nm)[:, None]
    twisted = _over(side, strength.twist_capacity_Nm)[:, None] * sin
    side_use = np.hypot(carried, twisted)
    use: Array = side_use + (tilt / strength.break_angle_deg[:, None]) ** 2
    lets_go, by = _let_go(use, side_use, closing_deg)
    ahead, left = mass.com_forward_m - hinge.even_forward_m, mass.com_left_m - hinge.even_left_m
    needed = needed_tilts_deg(ahead / mass.com_up_m, left / mass.com_up_m, tolerance_deg)
    reach = np.minimum(closing_deg, needed)
    until = np.where(tilt[None, :] <= reach[:, None], use, 0.0).max(axis=1)
    most = np.maximum(until, _on_curve(use, reach))
    return HingeUse(use, lets_go, by, needed, most)  # type: ignore[arg-type]  # of many, one word a case


def _over(load: Array, capacity: Array) -> Array:
    """A load over what carries it: nothing of nothing, and far past any limit where nothing carries it."""
    carried = np.where(capacity > 0, load / np.where(capacity > 0, capacity, 1.0), 1e9)
    return np.where(load == 0, 0.0, carried)


def _on_curve(use: Array, tilt_deg: Array) -> Array:
    """The curve of each at a tilt of its own, shape (B,)."""
    place = limited(tilt_deg / CURVE_STEP_DEG, 0.0, len(CURVE_TILTS_DEG) - 1.0)
    below = np.minimum(place.astype(np.intp), len(CURVE_TILTS_DEG) - 2)
    rows = np.arange(len(use))
    low, high = use[rows, below], use[rows, below + 1]
    found: Array = low + (place - below) * (high - low)
    return found


def _let_go(use: Array, side_use: Array, closing_deg: Array) -> tuple[Array, tuple[str, ...]]:
    """First tilt at which each hinge is spent, and what spends it."""
    spent = use >= 1.0
    some, first, rows = spent.any(axis=1), spent.argmax(axis=1), np.arange(len(use))
    before = np.maximum(first - 1, 0)
    low, high = use[rows, before], use[rows, first]
    share = np.where(first > 0, (1.0 - low) / np.where(high > low, high - low, 1.0), 0.0)
    angle = CURVE_TILTS_DEG[before] + CURVE_STEP_DEG * share
    shut = ~some | ((first > 0) & (closing_deg < angle))
    by_side = side_use[rows, first] > use[rows, first] - side_use[rows, first]
    by = np.where(shut, 0, np.where(by_side, 1, 2)).tolist()
    return np.where(some, np.where(shut, closing_deg, angle), np.minimum(closing_deg, 90.0)), tuple(
        LETS_GO[k] for k in by
    )


def needed_tilts_deg(ahead_ratio: Array, left_ratio: Array, tolerance_deg: float) -> Array:
    """Tilt past which losing the hinge moves the top off the lay by less than the tolerance (indicative).

    After the hinge is lost the thin rod of section 10 of the model falls free. Linear in the side angle psi,
    with w^2 = 2 ((1 - cos) + (X/Z) sin) in units of m g Z/I, psi'' = (cos - w^2) psi + (Y/Z) cos. The final
    psi for *every* tilt at which the hinge may be lost comes from one backward sweep of the adjoint.

    Args:
        ahead_ratio, left_ratio: X/Z and Y/Z, centre of mass from the hinge over its height, shapes (B,).
    """
    final = np.degrees(_final_side_angles(ahead_ratio) * np.abs(left_ratio)[:, None])
    over = final > tolerance_deg
    count, rows = final.shape[1], np.arange(len(final))
    last = count - 1 - over[:, ::-1].argmax(axis=1)
    after = np.minimum(last + 1, count - 1)
    high, low = final[rows, last], final[rows, after]
    share = (high - tolerance_deg) / np.where(high > low, high - low, 1.0)
    found = np.where(last + 1 >= count, 90.0, CURVE_TILTS_DEG[last] + CURVE_STEP_DEG * share)
    return np.where(over.any(axis=1), found, 0.0)


def _final_side_angles(ahead_ratio: Array) -> Array:
    """Side angle on the ground per unit of Y/Z, for a hinge lost at each of ``CURVE_TILTS_DEG``; shape (B, t)."""
    h = math.radians(CURVE_STEP_DEG)
    speeds = _speeds(_MIDDLES, ahead_ratio)
    stiffs = (_COS_MIDDLES - speeds * speeds) / speeds
    # Midpoint rule for dl1/dtilt = -stiff l2, dl2/dtilt = -l1/speed, run backwards; one case in plain numbers.
    one = len(ahead_ratio) == 1
    l1: Array | float = 1.0 if one else np.ones(len(ahead_ratio))
    l2: Array | float = 0.0 if one else np.zeros(len(ahead_ratio))
    total, falling = l2, [l2]
    flat = (each[0].tolist() if one else list(each.T) for each in (speeds, stiffs))
    for speed, stiff, cosine in reversed(list(zip(*flat, _COS_MIDDLES.tolist(), strict=True))):
        m1, m2 = l1 + h / 2 * stiff * l2, l2 + h / 2 * l1 / speed
        l1, l2 = l1 + h * stiff * m2, l2 + h * m1 / speed
        total = total + h * m2 * cosine / speed
        falling.append(total)
    found: Array = np.minimum(np.array(falling[::-1]).reshape(len(CURVE_TILTS_DEG), -1).T, 50.0)
    return found


def _speeds(tilts_rad: Array, ahead_ratio: Array) -> Array:
    """Tilt rates in units of sqrt(m g Z/I) for trees let go at rest where they just go, (B, t); never quite zero."""
    ahead = ahead_ratio[:, None]
    start = np.maximum(np.arctan(-ahead), 0.0)
    at_rest = (1 - np.cos(start)) + ahead * np.sin(start)
    squares = 2 * ((1 - np.cos(tilts_rad)) + ahead * np.sin(tilts_rad) - at_rest)
    found: Array = np.sqrt(np.maximum(np.where(tilts_rad < start, 0.0, squares), 1e-3))
    return found
