"""The wood of many trees, as it is reckoned with at the cut."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..base.polygon import Array
from .cracks import crack_at_cut
from .tree import Tree
from .wood import Indicative, Wood, working_strength


@dataclass(frozen=True, slots=True, eq=False)
class Timbers:
    """What cutting into them meets; every column has shape (B,).

    Attributes:
        rupture_Pa, elasticity_Pa, shear_Pa: what is left of the species' values in the tree's condition.
        fracture_J_m2: energy a crack takes on a stem of no size, by splitting class, less where there is one already.
        break_base_deg: tilt at which a hinge of middling shape parts, by suppleness and condition.
        constants: the indicative constants.
    """

    rupture_Pa: Array
    elasticity_Pa: Array
    shear_Pa: Array
    fracture_J_m2: Array
    break_base_deg: Array
    constants: Indicative


def timbers_of(trees: Sequence[tuple[Tree, Wood]], cuts_m: Sequence[float], constants: Indicative) -> Timbers:
    """The wood of trees, each cut at a height."""
    rows = [
        _row(tree, wood, crack_at_cut(tree, cut_m), constants)
        for (tree, wood), cut_m in zip(trees, cuts_m, strict=True)
    ]
    rupture, elasticity, shear, fracture, base = np.array(rows, dtype=np.float64).T
    return Timbers(rupture, elasticity, shear, fracture, base, constants)


def _row(tree: Tree, wood: Wood, crack: str, constants: Indicative) -> tuple[float, float, float, float, float]:
    strength = working_strength(wood, tree.condition, constants)
    base = constants.break_base_deg[wood.suppleness] * (
        constants.break_dead_factor if tree.condition == "dead" else 1.0
    )
    return (strength.rupture_Pa, strength.elasticity_Pa, strength.shear_Pa, fracture_J_m2(wood, crack, constants), base)


def fracture_J_m2(wood: Wood, crack: str, constants: Indicative) -> float:
    """Energy a crack takes, by splitting class, less where there is one already (indicative)."""
    return constants.fracture_energy_J_m2[wood.splitting] * (constants.cracked_factor if crack == "present" else 1.0)
