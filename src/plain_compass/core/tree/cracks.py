"""Cracks that the cut has to reckon with."""

from __future__ import annotations

from .soundness import beside_cut
from .tree import Tree

NEAR_CUT_M = 0.3
"""How far from the cut a defect still concerns it: room for the face and for a bar that wanders."""


def crack_at_cut(tree: Tree, cut_m: float) -> str:
    """Whether a crack is to be reckoned with at the cut: as answered, or because one was seen there.

    A cracked union above the cut counts: the seam runs down into the stem that is being cut.
    """
    beside = any(d.kind == "crack" and beside_cut(d, cut_m, NEAR_CUT_M) for d in tree.defects)
    split_union = tree.fork.kind == "second" and tree.fork.union == "cracked"
    return "present" if beside or split_union else tree.crack
