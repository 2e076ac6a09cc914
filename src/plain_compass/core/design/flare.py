"""Which buttresses to trim so that the bar reaches across the butt."""

from __future__ import annotations

from itertools import combinations

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
    standing = sorted((lobe for lobe in tree.lobes if lobe.state == "standing"), key=lambda lobe: lobe.projection_m)
    tries = [c for n in range(1, min(MOST_TRIED, len(standing)) + 1) for c in combinations(standing, n)]
    for gone in [*tries, tuple(standing)]:
        kept = tuple(lobe for lobe in standing if lobe not in gone)
        out = buttressed(section.round_bark, kept, cut.height_m, taped_height_m(tree.trunk), cut.gun_deg)
        across = section.round_wood[:, 1] if out is None else section.round_wood[:, 1] + out[:, 1]
        if float(across.max() - across.min()) <= reach_m:
            return gone
    return None
