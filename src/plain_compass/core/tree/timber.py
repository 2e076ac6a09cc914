"""The wood of one tree, as it is reckoned with at the cut."""

from __future__ import annotations

from dataclasses import dataclass

from .cracks import crack_at_cut
from .tree import Tree
from .wood import Indicative, Strength, Wood, working_strength


@dataclass(frozen=True, slots=True, eq=False)
class Timber:
    """What cutting into it meets.

    Attributes:
        wood: the species' values.
        condition: live or dead.
        strength: what is left of them in that condition.
        crack: whether a crack is to be reckoned with at the cut.
        constants: the indicative constants.
    """

    wood: Wood
    condition: str
    strength: Strength
    crack: str
    constants: Indicative


def timber_of(tree: Tree, wood: Wood, cut_m: float, constants: Indicative) -> Timber:
    """The wood of a tree, cut at a height."""
    strength = working_strength(wood, tree.condition, constants)
    return Timber(wood, tree.condition, strength, crack_at_cut(tree, cut_m), constants)
