"""What is needed for a day against what is packed: each piece with the trees it is for."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..advice.sectors import Takes
from ..design.cut import Kit
from .trees import BlockTree, Lay

ROPE_LENGTHS = 2.5
"""Tree heights of rope: up to where it is set, and out to an anchor past the top."""


@dataclass(frozen=True, slots=True)
class Piece:
    """One thing to take along.

    Attributes:
        key: ``wedges``, ``bar``, ``rope`` or ``machine``.
        count: how many, or how long in metres of a bar or rope.
        trees: indices of those it is for.
        is_packed: whether the kit has it; None where that is not said anywhere.
    """

    key: str
    count: float
    trees: tuple[int, ...]
    is_packed: bool | None


def pieces_of(
    trees: Sequence[BlockTree], diameters_m: Sequence[float], lays: Sequence[Lay], kit: Kit
) -> tuple[Piece, ...]:
    """What these trees need, by their lays."""
    wedged = [at for at, lay in enumerate(lays) if lay.takes in (Takes.WEDGES, Takes.ROPE)]
    roped = [at for at, lay in enumerate(lays) if lay.takes == Takes.ROPE]
    others = [at for at, lay in enumerate(lays) if lay.is_stop]
    thickest = max(range(len(trees)), key=lambda at: diameters_m[at])
    found = []
    if wedged:
        most = max(max(lays[at].wedges, 2) for at in wedged)
        found.append(Piece("wedges", float(most), tuple(wedged), kit.wedge_count >= most))
    # Half of the thickest is reached from either side.
    found.append(Piece("bar", diameters_m[thickest] / 2, (thickest,), kit.bar_m >= diameters_m[thickest] / 2))
    if roped:
        pull = max(lays[at].pull_N for at in roped)
        long = max(trees[at].height_m for at in roped) * ROPE_LENGTHS
        found.append(Piece("rope", long, tuple(roped), kit.pull_N >= pull))
    if others:
        found.append(Piece("machine", float(len(others)), tuple(others), None))
    return tuple(found)
