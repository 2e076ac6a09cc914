"""Which buttresses to trim so that the bar reaches across the butt."""

from __future__ import annotations

from itertools import combinations

import numpy as np

from ..base.kept import kept
from ..tree.butt import Lobe
from ..tree.outline import buttressed, taped_height_m
from ..tree.section import Section
from ..tree.tree import Tree
from .cut import Cut

MOST_TRIED = 3
"""Most buttresses trimmed together: past that a higher cut is less work."""


def flares_to_trim(tree: Tree, cut: Cut, section: Section, reach_m: float) -> tuple[Lobe, ...] | None:
    """The fewest standing buttresses whose trimming brings the wood's width across the lay within the bar.

    Among equally many, those that stand out least. None when no three of them, nor all, are enough.
    """
    standing = tuple(
        sorted((lobe for lobe in tree.lobes if lobe.state == "standing"), key=lambda lobe: lobe.projection_m)
    )
    return _picked(section, standing, (cut.height_m, taped_height_m(tree.trunk), cut.gun_deg), reach_m)


@kept("buttresses to trim", 32)
def _picked(
    section: Section, standing: tuple[Lobe, ...], at: tuple[float, float, float], reach_m: float
) -> tuple[Lobe, ...] | None:
    """The same of some buttresses.

    Args:
        at: height of the cut, height of the tape, and the bearing forward.
    """
    # What each adds across the lay to each point of the round outline, shape (lobes, n).
    adds = np.zeros((len(standing), len(section.round_bark)))
    for row, lobe in enumerate(standing):
        out = buttressed(section.round_bark, (lobe,), *at)
        if out is not None:
            adds[row] = out[:, 1]
    tries = [c for n in range(1, min(MOST_TRIED, len(standing)) + 1) for c in combinations(range(len(standing)), n)]
    for gone in [*tries, tuple(range(len(standing)))]:
        across = section.round_wood[:, 1] + np.delete(adds, gone, axis=0).sum(axis=0)
        if float(across.max() - across.min()) <= reach_m:
            return tuple(standing[each] for each in gone)
    return None
