"""Loads beside the tree's own weight, as moments about the hinge: a rope's pull and a gust of wind."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from ..site.rigging import Rigging
from ..site.site import Site
from ..site.wind import silhouette_m2, wind_force_N
from ..tree.tree import Tree
from .balance import Mass


@dataclass(frozen=True, slots=True)
class Gust:
    """The wind on the crown.

    Attributes:
        area_m2: silhouette of the crown.
        arm_m: height of its middle over the cut.
        force_N: drag in a gust; 0 where the wind has not been judged.
        against, aside_left: parts of it against the lay (negative with it) and to the left, -1 to 1.
        in_leaf: whether its leaves stream.
    """

    area_m2: float
    arm_m: float
    force_N: float
    against: float
    aside_left: float
    in_leaf: bool


@dataclass(frozen=True, slots=True)
class Loads:
    """Moments about the hinge beside the weight's.

    Attributes:
        forward_Nm: rope, and wind where it blows against the lay; a wind onto the lay is no help: it may drop.
        left_Nm: rope and wind across the lay.
        following_Nm: wind onto the lay, which counts where it does harm: in splitting.
    """

    forward_Nm: float = 0.0
    left_Nm: float = 0.0
    following_Nm: float = 0.0


def gust_on(tree: Tree, site: Site, lay_deg: float, cut_m: float, *, is_conifer: bool) -> Gust:
    """The wind of a site on a tree's crown."""
    area = silhouette_m2(tree, is_conifer=is_conifer)
    in_leaf = is_conifer or tree.crown.leaf == "leaf"
    arm = tree.crown.base_m + 0.5 * (tree.height_m - tree.crown.base_m) - cut_m
    turn = math.radians(site.wind_from_deg + 180.0 - lay_deg)
    force = wind_force_N(area, site.wind_m_s, site.gust_ratio, in_leaf=in_leaf) if site.wind_m_s else 0.0
    return Gust(area, arm, force, -math.cos(turn), -math.sin(turn), in_leaf)


def loads_of(gust: Gust, rigging: Rigging | None) -> Loads:
    """Rope and wind together."""
    wind = gust.force_N * gust.arm_m
    rope_forward, rope_left = (rigging.moment_forward_Nm, rigging.moment_left_Nm) if rigging else (0.0, 0.0)
    return Loads(
        forward_Nm=rope_forward - wind * max(gust.against, 0.0),
        left_Nm=rope_left + wind * gust.aside_left,
        following_Nm=wind * max(-gust.against, 0.0),
    )


def loaded(mass: Mass, loads: Loads) -> Mass:
    """The tree with its centre of mass shifted until its weight alone gives the same moments while it stands."""
    return replace(
        mass,
        com_forward_m=mass.com_forward_m + loads.forward_Nm / mass.weight_N,
        com_left_m=mass.com_left_m + loads.left_Nm / mass.weight_N,
    )
