"""Mass of the whole tree above the cut, where it stands, and how it sways."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import fields, replace
from functools import cached_property
from typing import Generic

import numpy as np

from ..base.frames import GRAVITY_m_s2, to_tree, turned_on
from ..base.frozen import dataclass
from ..base.polygon import Array
from ..base.rows import N
from ..design.cut import Cut
from ..tree.body import AboveCut, Body, together
from ..tree.crown import crown_body
from ..tree.limbs import limb_body, second_stem
from ..tree.stem import axis_at, stem_body
from ..tree.tree import Tree
from ..tree.wood import Indicative, Wood

BREAST_m = 1.3
"""Height at which stems are taped, and above which a cut takes off the whole crown's share all the same."""


@dataclass(frozen=True)
class Mass(Generic[N]):
    """The tree above the cut as one rigid body, from the pith at the cut.

    Attributes:
        mass_kg: green mass.
        com_up_m, com_forward_m, com_left_m: centre of mass.
        inertia_kg_m2: about the pith at the cut.
        top_offset_forward_m, top_offset_left_m: the same lean as fallers say it, the centre's offset
            carried up to the top.
        crown_mass_kg: the crown's part of the mass (indicative).
        sway_s: period with which the stem sways; longer for broad crowns (indicative).
    """

    mass_kg: N
    com_up_m: N
    com_forward_m: N
    com_left_m: N
    inertia_kg_m2: N
    top_offset_forward_m: N
    top_offset_left_m: N
    crown_mass_kg: N
    sway_s: N

    @cached_property
    def weight_N(self) -> N:
        """Weight."""
        return self.mass_kg * GRAVITY_m_s2

    @cached_property
    def toppling_Nm(self) -> N:
        """m g Z: moment per radian of tilt by which the weight helps the tree over."""
        return self.weight_N * self.com_up_m

    @cached_property
    def bent_toppling_Nm(self) -> N:
        """The same of a stem that bends as it leans: m g Z (1 + m g Z/(I w^2)), w the sway's 2 pi over its period.

        Source: the static sag of a body on a spring whose own frequency is that of the sway.
        """
        still = self.toppling_Nm
        found: N = still * (1.0 + still / (self.inertia_kg_m2 * (2 * math.pi / self.sway_s) ** 2))
        return found


def tree_mass(tree: Tree, wood: Wood, cut: Cut, constants: Indicative) -> Mass:
    """Mass, centre and inertia of what stands above a cut."""
    return mass_above(tree, wood, (cut.height_m, cut.gun_deg), constants)


def mass_above(tree: Tree, wood: Wood, place: tuple[float, float], constants: Indicative) -> Mass:
    """Mass, centre and inertia of stems, crown and heavy limbs together; a measured mass or centre overrides.

    Args:
        place: height of the cut in metres, and the bearing forward in degrees.
    """
    height_m, gun_deg = place
    over = AboveCut(height_m, tree.height_m, gun_deg)
    exponent = constants.profile_exponent[wood.group]
    stems = _stems(tree, wood, over, exponent)
    # A crown does not weigh less for being cut off higher up.
    low = stems if height_m <= BREAST_m else _stems(tree, wood, replace(over, cut_m=BREAST_m), exponent)
    crown = crown_body(tree.crown, tree.lean, low.mass_kg, over, group=wood.group, constants=constants)
    grown = together(stems, crown, *_limbs(tree, wood, over))
    whole = _overridden(grown, tree, gun_deg)
    per_height = (tree.height_m - height_m) / whole.up_m
    return Mass(
        mass_kg=whole.mass_kg,
        com_up_m=whole.up_m,
        com_forward_m=whole.forward_m,
        com_left_m=whole.left_m,
        inertia_kg_m2=whole.second_up_kg_m2 + whole.mass_kg * (whole.forward_m**2 + whole.left_m**2),
        top_offset_forward_m=whole.forward_m * per_height,
        top_offset_left_m=whole.left_m * per_height,
        crown_mass_kg=crown.mass_kg * whole.mass_kg / grown.mass_kg,
        sway_s=sway_s(tree.trunk.diameter_m, tree.height_m),
    )


def sway_s(dbh_m: float, height_m: float) -> float:
    """Period of the sway: f = 0.0766 + 3.1219 D/H^2 Hz, D at breast height in cm. Source: a fit for conifers."""
    return 1.0 / (0.0766 + 3.1219 * dbh_m * 100 / height_m**2)


def _axis(tree: Tree, over: AboveCut, height_m: float) -> tuple[float, float]:
    return axis_at(tree.lean, height_m, cut_m=over.cut_m, tree_height_m=tree.height_m, lay_deg=over.lay_deg)


def _stems(tree: Tree, wood: Wood, over: AboveCut, exponent: float) -> Body:
    """The stem above the cut, and the second one where it leaves above the cut too."""
    density, fork = wood.density_kg_m3, tree.fork
    first = stem_body(tree.trunk, tree.lean, over, exponent=exponent, density_kg_m3=density)
    if not fork_above_cut(tree, over.cut_m):
        return first
    return together(
        first, second_stem(fork, over, _axis(tree, over, fork.height_m), exponent=exponent, density=density)
    )


def fork_above_cut(tree: Tree, cut_m: float) -> bool:
    """Whether a second stem comes down with the first; below its fork's height each stem is felled by itself."""
    return tree.fork.kind == "second" and tree.fork.height_m > cut_m


def _limbs(tree: Tree, wood: Wood, over: AboveCut) -> list[Body]:
    return [
        limb_body(limb, over, _axis(tree, over, limb.height_m), density=wood.density_kg_m3)
        for limb in tree.limbs
        if limb.height_m > over.cut_m
    ]


def _overridden(body: Body, tree: Tree, lay_deg: float) -> Body:
    known = tree.measured
    if known.mass_kg is not None:
        body = replace(body, mass_kg=known.mass_kg, second_up_kg_m2=body.second_up_kg_m2 * known.mass_kg / body.mass_kg)
    if known.com_up_m is not None:
        scale = (known.com_up_m / body.up_m) ** 2
        body = replace(body, up_m=known.com_up_m, second_up_kg_m2=body.second_up_kg_m2 * scale)
    if known.com_offset_m is not None:
        forward, left = to_tree(known.com_bearing_deg, known.com_offset_m, lay_deg)
        body = replace(body, forward_m=forward, left_m=left)
    return body


def masses_of(
    trees: Sequence[tuple[Tree, Wood]], places: Sequence[tuple[float, float]], constants: Indicative
) -> Mass[Array]:
    """Mass of B trees above their cuts. Trees that differ in nothing but the lay are weighed once and turned.

    Args:
        places: see ``mass_above``.
    """
    shared: dict[tuple[object, ...], list[int]] = {}
    for at, ((tree, wood), (height_m, _)) in enumerate(zip(trees, places, strict=True)):
        shared.setdefault((id(tree), wood.key, height_m), []).append(at)
    found, guns_deg = {item.name: np.zeros(len(trees)) for item in fields(Mass)}, np.array([gun for _, gun in places])
    for rows in shared.values():
        (tree, wood), first = trees[rows[0]], places[rows[0]]
        one, turn = mass_above(tree, wood, first, constants), np.radians(guns_deg[rows] - first[1])
        for name, column in found.items():
            column[rows] = getattr(one, name)
        for ahead, left in (("com_forward_m", "com_left_m"), ("top_offset_forward_m", "top_offset_left_m")):
            x, y = getattr(one, ahead), getattr(one, left)
            found[ahead][rows], found[left][rows] = turned_on(x, y, turn)
    return Mass(**found)
