"""A first cut for a tree, sized by the practice: where a design starts before a person shapes it."""

from __future__ import annotations

from dataclasses import replace
from typing import TypeVar

from ..base.quantity import declared
from ..tree.section import section_at
from ..tree.tree import Tree
from ..tree.wood import Indicative, Wood
from .checks import check_tree
from .cut import BackCut, Cut, Face, Hinge, WedgeSeat
from .practice import Practice

STUMP_HEIGHT_M = 0.30
"""Height of a first cut: about knee height, out of most of the flare."""
T = TypeVar("T")


def first_design(tree: Tree, wood: Wood, lay_deg: float, practice: Practice, constants: Indicative) -> Cut:
    """An open face, even hinge and plain stepped back cut within the practice's ranges.

    Raises InputError when the tree cannot be as measured.
    """
    check_tree(tree)
    height = min(STUMP_HEIGHT_M, tree.height_m / 10)
    section = section_at(tree, height, lay_deg, constants.profile_exponent[wood.group])
    return replace(sized_cut(section.depth_m, practice), lay_deg=lay_deg, height_m=height)


def sized_cut(depth_m: float, practice: Practice) -> Cut:
    """The same for wood of that depth along the lay; lay and height are left at their first values."""
    thickness = practice.hinge_m(depth_m)
    floor = 20.0
    return Cut(
        face=Face("open", sum(practice.face_depth_ratio) / 2 * depth_m, practice.opening_default_deg - floor, floor),
        hinge=Hinge(thickness, thickness),
        back=BackCut("plain", practice.step_m[0], 0.12 * depth_m),
        wedges=(WedgeSeat(0.0, 1),),
    )


def resized(cut: Cut, factor: float) -> Cut:
    """The same design on a stem ``factor`` times as thick: everything in plan keeps its share of the wood."""
    return replace(
        cut,
        face=_scaled(cut.face, factor, ("depth_m", "overcut_m", "apart_m", "block_m", "snipe_left_m", "snipe_right_m")),
        hinge=_scaled(cut.hinge, factor, ("left_m", "right_m", "middle_m", "nip_m", "heart_m")),
        back=_scaled(cut.back, factor, ("strap_m", "slot_m")),
    )


def _scaled(part: T, factor: float, names: tuple[str, ...]) -> T:
    """A part of the cut with some of its lengths scaled, each held within what may be typed."""
    bounds = {name: declared(type(part), name) for name in names}
    scaled = {name: min(max(getattr(part, name) * factor, b.low), b.high) for name, b in bounds.items()}
    found: T = replace(part, **scaled)  # type: ignore[type-var]
    return found
