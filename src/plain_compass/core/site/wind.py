"""Wind on the crown: its force, and the wind at which the plan stops working."""

from __future__ import annotations

import math

from ..tree.crown import mean_radius_m
from ..tree.tree import Tree

AIR_kg_m3 = 1.2
"""Density of air at some 15 °C."""
DRAG_BARE = 0.25
"""Of a crown without leaves (indicative)."""
LEAST_GUST_m_s, MOST_GUST_m_s = 6.0, 25.0
"""Gusts between which leaves are taken to fold with the wind; beyond them the coefficient stays as it is there."""
MOST_WIND_m_s = 40.0
"""Past any wind in which one is in the wood."""


def drag_coefficient(gust_m_s: float, *, in_leaf: bool) -> float:
    """Drag of a crown (indicative): bare twigs 0.25; leaves stream, 0.35 (20/U)^0.7 with U held to 6 to 25 m/s."""
    if not in_leaf:
        return DRAG_BARE
    held = min(max(gust_m_s, LEAST_GUST_m_s), MOST_GUST_m_s)
    return float(0.35 * (20.0 / held) ** 0.7)


def silhouette_m2(tree: Tree, *, is_conifer: bool) -> float:
    """Area of the crown seen from the side: half an enclosing box for a cone, an ellipse for a broad crown."""
    box = 2 * mean_radius_m(tree.crown) * (tree.height_m - tree.crown.base_m)
    return box / 2 if is_conifer else box * math.pi / 4


def wind_force_N(area_m2: float, speed_m_s: float, gust_ratio: float, *, in_leaf: bool) -> float:
    """Drag on the crown in a gust: F = rho Cd A U^2 / 2, U = gust times the mean speed."""
    gust = gust_ratio * speed_m_s
    return AIR_kg_m3 / 2 * drag_coefficient(gust, in_leaf=in_leaf) * area_m2 * gust**2


def speed_for_force_m_s(force_N: float, area_m2: float, *, in_leaf: bool) -> float:
    """Mean speed that gives a force; infinite when no wind up to 40 m/s does.

    Leaves give three stretches: as the square of the speed below and above those between which they fold, as its
    power of 1.3 in between.
    """
    if wind_force_N(area_m2, MOST_WIND_m_s, 1.0, in_leaf=in_leaf) < force_N:
        return math.inf
    for held, power in ((LEAST_GUST_m_s, 2.0), (MOST_GUST_m_s, 1.3)):
        most = wind_force_N(area_m2, held, 1.0, in_leaf=in_leaf)
        if force_N <= most:
            return float(held * (force_N / most) ** (1.0 / power if in_leaf else 0.5))
    return MOST_GUST_m_s * math.sqrt(force_N / wind_force_N(area_m2, MOST_GUST_m_s, 1.0, in_leaf=in_leaf))
