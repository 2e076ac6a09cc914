"""The wood of many trees, as it is reckoned with at the cut."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..base.frozen import dataclass
from ..base.polygon import Array
from .cracks import crack_at_cut
from .tree import Tree
from .wood import Indicative, Wood, brittle, working_strength


@dataclass(frozen=True, eq=False)
class Timbers:
    """What cutting into them meets; every column has shape (B,).

    Attributes:
        rupture_Pa, elasticity_Pa, shear_Pa: what is left of the species' values in the tree's condition.
        live_rupture_Pa: the same of live wood: a stronger hinge splits more, so that splitting takes nothing off.
        holding: times its own rupture by which a hinge may hold; past 1 where the species is unknown.
        fracture_J_m2: energy a crack takes on a stem of no size, by splitting class, less where there is one already.
        peaks_at, softens_over: of the law of the hinge, by suppleness and condition (indicative).
        break_base_deg: tilt at which a hinge of middling shape parts, by suppleness and condition.
        constants: the indicative constants.
    """

    rupture_Pa: Array
    elasticity_Pa: Array
    shear_Pa: Array
    live_rupture_Pa: Array
    holding: Array
    fracture_J_m2: Array
    break_base_deg: Array
    peaks_at: Array
    softens_over: Array
    constants: Indicative


def timbers_of(trees: Sequence[tuple[Tree, Wood]], cuts_m: Sequence[float], constants: Indicative) -> Timbers:
    """The wood of trees, each cut at a height."""
    rows = [
        _row(tree, wood, crack_at_cut(tree, cut_m), constants)
        for (tree, wood), cut_m in zip(trees, cuts_m, strict=True)
    ]
    rupture, elasticity, shear, live, holding, fracture, base, peaks, softens = np.array(rows, dtype=np.float64).T
    return Timbers(rupture, elasticity, shear, live, holding, fracture, base, peaks, softens, constants)


def _row(tree: Tree, wood: Wood, crack: str, constants: Indicative) -> tuple[float, ...]:
    strength = working_strength(wood, tree.condition, constants)
    law = brittle(tree.condition, constants.law_dead_factor)
    return (
        strength.rupture_Pa,
        strength.elasticity_Pa,
        strength.shear_Pa,
        wood.splits_at_Pa or wood.rupture_Pa,
        (wood.holding_Pa or wood.rupture_Pa) / wood.rupture_Pa,
        fracture_J_m2(wood, (tree.condition, crack), constants),
        break_base_deg(tree, wood, constants),
        constants.law_peaks_at[wood.suppleness] * law,
        constants.law_softens_over[wood.suppleness] * law,
    )


def break_base_deg(tree: Tree, wood: Wood, constants: Indicative) -> float:
    """Tilt at which a hinge of middling shape parts, by suppleness, less in dead or frozen wood (indicative)."""
    return constants.break_base_deg[wood.suppleness] * brittle(tree.condition, constants.break_dead_factor)


def fracture_J_m2(wood: Wood, state: tuple[str, str], constants: Indicative) -> float:
    """Energy a crack takes, by splitting class; less in dead or frozen wood, and where there is one (indicative).

    Args:
        state: condition of the tree, and its crack.
    """
    condition, crack = state
    left = constants.cracked_factor if crack == "present" else 1.0
    left *= brittle(condition, constants.dead_fracture_factor)
    return constants.fracture_energy_J_m2[wood.splitting] * left
