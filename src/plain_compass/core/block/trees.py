"""The trees of a block as its planner sees them: where each stands, what it covers, and the lays it could take."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ..advice.sectors import Takes
from ..base.frozen import dataclass

ANY_DAY = (0, 10_000)
"""First and last day on which a tree may be felled, where no season matters."""
HELP = {Takes.NOTHING: 0, Takes.WEDGES: 1, Takes.ROPE: 2, Takes.MORE: 3, Takes.REFUSED: 4}
"""How hard a lay is to take, by what it takes."""


@dataclass(frozen=True, slots=True)
class Lay:
    """One lay a tree could take.

    Attributes:
        takes: what that needs; wedges how many, pull_N how hard a rope.
        margin: least margin of what the physics judges there, at most 1.
        harm: expected cost of what lies under it: see ``HARM``.
        why: id of what refuses it or stops it; empty where nothing does.
        butt_to_way: how far its butt lies towards the nearest track, from 1 to -1; None where no track is near.
        stacks: indices of the stacks of timber under it.
    """

    lay_deg: float
    takes: Takes
    wedges: int = 0
    pull_N: float = 0.0
    margin: float = 1.0
    harm: float = 0.0
    why: str = ""
    butt_to_way: float | None = None
    stacks: tuple[int, ...] = ()

    @property
    def is_stop(self) -> bool:
        """Whether the tree cannot go there with what is at hand."""
        return self.takes in (Takes.MORE, Takes.REFUSED)


@dataclass(frozen=True, slots=True)
class BlockTree:
    """One standing tree of a block.

    Attributes:
        east_m, north_m: of its stem; ground_m how high it stands.
        height_m: over the ground; length_m of what comes down; crown_m mean radius, crown_from_m height of its base.
        lays: what it could take, its own plan's first.
        minutes: to fell it, without walking or a rope.
        saw: which of the saws that come along it is felled with.
        may: first and last day, as a number of days from the block's first, on which it may be felled.
    """

    id: str
    east_m: float
    north_m: float
    ground_m: float
    height_m: float
    length_m: float
    crown_m: float
    crown_from_m: float
    lays: tuple[Lay, ...]
    minutes: float = 30.0
    may: tuple[int, int] = ANY_DAY
    saw: int = 0


def on_lays(trees: Sequence[BlockTree], lays: Sequence[int]) -> tuple[BlockTree, ...]:
    """Every tree with the one lay it is given."""
    return tuple(replace(tree, lays=(tree.lays[lay],)) for tree, lay in zip(trees, lays, strict=True))
