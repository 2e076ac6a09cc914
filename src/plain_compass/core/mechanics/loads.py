"""Loads beside the tree's own weight, as moments about the hinge: a rope's pull and a gust of wind."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Generic, NamedTuple

import numpy as np

from ..base.frozen import changed, dataclass
from ..base.kept import kept
from ..base.polygon import Array
from ..base.rows import N
from ..design.designs import Designs
from ..site.site import Site
from ..site.wind import silhouette_m2, wind_force_N
from ..tree.tree import Tree
from .mass import Mass


@dataclass(frozen=True)
class Gust(Generic[N]):
    """The wind on the crown.

    Attributes:
        area_m2: silhouette of the crown.
        arm_m: height of its middle over the cut.
        force_N: drag in a gust, which is enough to do harm; 0 where the wind has not been judged.
        mean_N: drag of the mean wind, which is what lasts while a tree is tipped and falls.
        against, aside_left: parts of it against the lay (negative with it) and to the left, -1 to 1.
        in_leaf: whether its leaves stream.
    """

    area_m2: N
    arm_m: N
    force_N: N
    mean_N: N
    against: N
    aside_left: N
    in_leaf: bool


@dataclass(frozen=True)
class Loads(Generic[N]):
    """Moments about the hinge beside the weight's.

    Attributes:
        forward_Nm: rope, and mean wind where it blows against the lay; a wind onto the lay is no help: it may drop.
        harmed_Nm: the same in a gust, which is enough to sit a tree back.
        left_Nm: rope and mean wind across the lay.
        following_Nm: a gust onto the lay, which counts where it does harm: in splitting.
    """

    forward_Nm: N
    harmed_Nm: N
    left_Nm: N
    following_Nm: N


def gusts_on(trees: Sequence[tuple[Tree, bool]], site: Site, designs: Designs) -> Gust[Array]:
    """The wind of a site on the crowns of B trees; what is no matter of the lay is worked out once a tree.

    Args:
        trees: each with whether it is a conifer.
    """
    known: dict[int, Blown] = {}
    for tree, is_conifer in trees:
        if id(tree) not in known:
            known[id(tree)] = blown_on(tree, site, is_conifer=is_conifer)
    area, middle, force, mean, leaves = np.array([known[id(tree)] for tree, _ in trees], dtype=np.float64).T
    turn = np.radians(site.wind_from_deg + 180.0 - designs.gun_deg)
    return Gust(area, middle - designs.height_m, force, mean, -np.cos(turn), -np.sin(turn), leaves > 0)


class Blown(NamedTuple):
    """The wind on one crown: its area, the height of its middle, the force of a gust and of the mean wind, leaves."""

    area_m2: float
    middle_m: float
    force_N: float
    mean_N: float
    in_leaf: bool


@kept("wind on the crown", 64)
def blown_on(tree: Tree, site: Site, *, is_conifer: bool) -> Blown:
    """The wind on one crown."""
    area = silhouette_m2(tree, is_conifer=is_conifer)
    in_leaf = is_conifer or tree.crown.leaf == "leaf"
    middle = tree.crown.base_m + 0.5 * (tree.height_m - tree.crown.base_m)
    force, mean = (wind_force_N(area, site.wind_m_s or 0.0, ratio, in_leaf=in_leaf) for ratio in (site.gust_ratio, 1.0))
    return Blown(area, middle, force, mean, in_leaf)


def loads_of(gust: Gust[Array], rope_Nm: Array) -> Loads[Array]:
    """Rope and wind together.

    Args:
        rope_Nm: (forward, left) moments of the rope about the hinge, shape (2, B); zeros without one.
    """
    wind, mean, against = gust.force_N * gust.arm_m, gust.mean_N * gust.arm_m, np.maximum(gust.against, 0.0)
    return Loads(
        forward_Nm=rope_Nm[0] - mean * against,
        harmed_Nm=rope_Nm[0] - wind * against,
        left_Nm=rope_Nm[1] + mean * gust.aside_left,
        following_Nm=wind * np.maximum(-gust.against, 0.0),
    )


def loaded(mass: Mass[N], loads: Loads[N]) -> Mass[N]:
    """The tree with its centre of mass shifted until its weight alone gives the same moments while it stands."""
    return changed(
        mass,
        com_forward_m=mass.com_forward_m + loads.forward_Nm / mass.weight_N,
        com_left_m=mass.com_left_m + loads.left_Nm / mass.weight_N,
    )
