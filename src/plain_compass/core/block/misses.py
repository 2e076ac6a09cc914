"""What a miss costs the others: how often a tree, falling as its fan says, hangs in one or bars its ways out.

Every bearing of the fan is taken as a lay of its own; plane geometry, so the chances are indicative.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ..base.frozen import dataclass
from ..base.polygon import Array
from .precedence import bars_on, hits_on
from .trees import BlockTree, Lay


@dataclass(frozen=True, slots=True)
class MissedInto:
    """What a tree may do to one that is felled later.

    Attributes:
        other: its index among the later ones; hangs, bars: chances to hang in it, or else to lie across its ways out.
    """

    other: int
    hangs: float
    bars: float


def missed_into(tree: BlockTree, bearings_deg: Array, later: Sequence[BlockTree]) -> tuple[MissedInto, ...]:
    """Those of the later trees that some of its falls meet, the likeliest first.

    Args:
        bearings_deg: of the top from the stump in each likely fall, shape (n,).
        later: trees that stand when it falls, each with the one lay it is given.
    """
    if not later or not len(bearings_deg):
        return ()
    many = replace(tree, lays=tuple(Lay(bearing, tree.lays[0].takes) for bearing in bearings_deg.tolist()))
    hits = hits_on([many], later, 0.0)[0]
    bars = bars_on([many], later, 0.0)[0, :, :, 0] & ~hits
    found = [MissedInto(at, float(hits[:, at].mean()), float(bars[:, at].mean())) for at in range(len(later))]
    met = [each for each in found if each.hangs + each.bars > 0]
    return tuple(sorted(met, key=lambda each: (-each.hangs, -each.bars, each.other)))
