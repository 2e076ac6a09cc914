"""Between the world (bearings clockwise from north) and the tree (forward along the lay, left, up)."""

from __future__ import annotations

import math
from typing import Any, TypeVar

import numpy as np

from .rows import Array

GRAVITY_m_s2 = 9.81
"""Standard gravity to the digits in which anything here is known."""

Angle = TypeVar("Angle", int, float, Array)


def full_turn_deg(angle_deg: Angle) -> Angle:
    """An angle as a bearing: 0 up to 360."""
    return angle_deg % 360


def half_turn_deg(angle_deg: Angle) -> Angle:
    """An angle as a turn either way: -180 up to 180."""
    return (angle_deg + 180) % 360 - 180


def bearing_of(east_m: float, north_m: float) -> float:
    """Bearing towards a place east and north of here, -180 up to 180 degrees."""
    return math.degrees(math.atan2(east_m, north_m))


def to_tree(bearing_deg: float, distance_m: float, lay_deg: float) -> tuple[float, float]:
    """(forward_m, left_m) of a point given by bearing and distance from the pith."""
    turn = math.radians(bearing_deg - lay_deg)
    return distance_m * math.cos(turn), -distance_m * math.sin(turn)


def rotated(points: Array, bearing_deg: float, lay_deg: float) -> Array:
    """Points drawn with their first axis along ``bearing_deg``, turned into the tree's frame; shape (n, 2)."""
    cos, sin = to_tree(bearing_deg, 1.0, lay_deg)
    turned: Array = points @ np.array([[cos, sin], [-sin, cos]])
    return turned


def turned_on(forward_m: float | Array, left_m: float | Array, by_rad: float | Array) -> tuple[Any, Any]:
    """(forward, left) of a point once the lay is turned on clockwise: what was ahead comes to the left."""
    cos, sin = np.cos(by_rad), np.sin(by_rad)
    return forward_m * cos - left_m * sin, left_m * cos + forward_m * sin


def squares_turned_on(
    forward2: float | Array, left2: float | Array, product: float | Array, by_rad: float | Array
) -> tuple[Any, Any, Any]:
    """Integrals of forward², left² and their product over a region, once the lay is turned on clockwise."""
    cos, sin = np.cos(by_rad), np.sin(by_rad)
    both = 2 * sin * cos * product
    return (
        cos * cos * forward2 + sin * sin * left2 - both,
        sin * sin * forward2 + cos * cos * left2 + both,
        sin * cos * (forward2 - left2) + (cos * cos - sin * sin) * product,
    )
