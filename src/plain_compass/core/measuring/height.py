"""Height of a tree: clinometer, stick, shadow, paces; and the classic error of a leaning tree, corrected.

   top  .
       /|        H = d (tan top - tan base)
eye  o--+---     d horizontal; angles from level, the base one negative where the ground falls away
       \\|
  base  '
"""

from __future__ import annotations

import math

from ..base.errors import InputError
from ..base.frozen import dataclass
from ..base.quantity import Kind
from .estimate import Estimate, Reading, propagated, require_positive, tan_deg

STEEPEST_DEG = 85.0
"""Steeper sights turn a degree of error into metres."""


def paced_distance(paces: float, pace_m: float, repeatability: float) -> Reading:
    """A distance in paces: the pace's own length, and how well it repeats as a share of the distance."""
    return Reading(paces * pace_m, paces * pace_m * repeatability)


def height_by_clinometer(distance_m: Reading, top_deg: Reading, base_deg: Reading, slope_deg: Reading) -> Estimate:
    """Height from the angles to top and base.

    Args:
        distance_m: along the ground to the stem.
        slope_deg: of the ground along that line, either sign; zero when the distance was taken level.

    Raises InputError when an angle is too steep to be worth anything, or the top is below the base.
    Source: plane trigonometry, H = s cos(slope) (tan top - tan base).
    """
    for name, angle in (("top", top_deg), ("base", base_deg), ("slope", slope_deg)):
        if not abs(angle.value) <= STEEPEST_DEG:
            raise InputError(name, angle.value, kind=Kind.ANGLE, low=-STEEPEST_DEG, high=STEEPEST_DEG)
    if top_deg.value <= base_deg.value:
        raise InputError(
            "top", top_deg.value, kind=Kind.ANGLE, low=base_deg.value, reason="the top would be below the base"
        )
    require_positive("distance", distance_m.value, "span")
    return propagated(
        lambda distance, top, base, slope: distance * _cos(slope) * (tan_deg(top) - tan_deg(base)),
        {"distance": distance_m, "top": top_deg, "base": base_deg, "slope": slope_deg},
    )


def height_by_stick(distance_m: Reading, stick_m: Reading, reach_m: Reading) -> Estimate:
    """Height by similar triangles: a stick held upright at arm's reach just covers the tree.

    Source: H/distance = stick/reach; with a stick as long as the reach, the height is the distance.
    """
    for name, each in (("distance", distance_m), ("stick", stick_m), ("reach", reach_m)):
        require_positive(name, each.value, "span")
    return propagated(
        lambda distance, stick, reach: distance * stick / reach,
        {"distance": distance_m, "stick": stick_m, "reach": reach_m},
    )


def height_by_shadow(shadow_m: Reading, stick_m: Reading, stick_shadow_m: Reading) -> Estimate:
    """Height from shadows on level ground: H/shadow = stick/its shadow."""
    for name, each in (("shadow", shadow_m), ("stick", stick_m), ("stick_shadow", stick_shadow_m)):
        require_positive(name, each.value, "span")
    return propagated(
        lambda shadow, stick, stick_shadow: shadow * stick / stick_shadow,
        {"shadow": shadow_m, "stick": stick_m, "stick_shadow": stick_shadow_m},
    )


@dataclass(frozen=True, slots=True)
class Sighting:
    """One of two sightings at right angles.

    Attributes:
        distance_m: level distance to the stem.
        top_deg, base_deg: angles above level to top and base.
        aside_deg: how far the top stands aside of the base as seen from here, positive towards the other
            sighting place.
    """

    distance_m: Reading
    top_deg: Reading
    base_deg: Reading
    aside_deg: Reading


@dataclass(frozen=True, slots=True)
class LeaningTop:
    """Where the top of a leaning tree really is.

    Attributes:
        height_m: above the base.
        toward_first_m, toward_second_m: how far it stands out towards each sighting place.
    """

    height_m: Estimate
    toward_first_m: Estimate
    toward_second_m: Estimate


def leaning_top(first: Sighting, second: Sighting) -> LeaningTop:
    """Height and offset of a leaning top from two sightings at right angles.

    A top that leans towards the eye stands nearer than the stem and looks higher than it is. What one place
    sees the top aside is what the other has it towards: x1 = (d2 - x2) tan aside2, x2 = (d1 - x1) tan aside1, two
    linear equations; then H = (d - x) tan top - d tan base, averaged over both places.
    """
    inputs = {
        f"{name}_{place}": getattr(sighting, f"{name}_{unit}")
        for place, sighting in (("first", first), ("second", second))
        for name, unit in (("distance", "m"), ("top", "deg"), ("base", "deg"), ("aside", "deg"))
    }
    for place, sighting in (("first", first), ("second", second)):
        require_positive(f"distance_{place}", sighting.distance_m.value, "span")
    return LeaningTop(
        height_m=propagated(lambda **v: _leaning(v)[0], inputs),
        toward_first_m=propagated(lambda **v: _leaning(v)[1], inputs),
        toward_second_m=propagated(lambda **v: _leaning(v)[2], inputs),
    )


def _leaning(v: dict[str, float]) -> tuple[float, float, float]:
    """(height, towards first, towards second) of the readings."""
    t1, t2 = tan_deg(v["aside_first"]), tan_deg(v["aside_second"])
    d1, d2 = v["distance_first"], v["distance_second"]
    toward_first = t2 * (d2 - d1 * t1) / (1 - t1 * t2)
    toward_second = t1 * (d1 - toward_first)
    heights = [
        (distance - toward) * tan_deg(v[f"top_{place}"]) - distance * tan_deg(v[f"base_{place}"])
        for place, distance, toward in (("first", d1, toward_first), ("second", d2, toward_second))
    ]
    return sum(heights) / 2, toward_first, toward_second


def cut_height_for_room_m(height_m: float, room_m: float) -> float:
    """How high the cut must be for the top to lie within a given room: what is too long stays as stump."""
    return max(height_m - room_m, 0.0)


def _cos(angle_deg: float) -> float:
    return math.cos(math.radians(angle_deg))
