"""Between the world (bearings clockwise from north) and the tree (forward along the lay, left, up)."""

from __future__ import annotations

import math

import numpy as np

from .polygon import Array

GRAVITY_m_s2 = 9.81


def to_tree(bearing_deg: float, distance_m: float, lay_deg: float) -> tuple[float, float]:
    """(forward_m, left_m) of a point given by bearing and distance from the pith."""
    turn = math.radians(bearing_deg - lay_deg)
    return distance_m * math.cos(turn), -distance_m * math.sin(turn)


def rotated(points: Array, bearing_deg: float, lay_deg: float) -> Array:
    """Points drawn with their first axis along ``bearing_deg``, turned into the tree's frame; shape (n, 2)."""
    cos, sin = to_tree(bearing_deg, 1.0, lay_deg)
    turned: Array = points @ np.array([[cos, sin], [-sin, cos]])
    return turned
