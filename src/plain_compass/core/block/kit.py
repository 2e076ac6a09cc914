"""What is needed for a day against what is packed: each piece with the trees it is for."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence

from ..advice.sectors import Takes
from ..base.frozen import dataclass
from .kit_sets import Packed
from .trees import BlockTree, Lay

ROPE_LENGTHS = 2.5
"""Tree heights of rope: up to where it is set, and out to an anchor past the top."""
SLINGS, SHEAVES, SIGNS = 2, 1, 2
"""With a rope: a sling at the tree and one at the anchor, and a sheave to lead it aside; a sign for either end of a
way that is closed."""


@dataclass(frozen=True, slots=True)
class Piece:
    """One thing to take along.

    Attributes:
        key: ``wedges``, ``bar``, ``maul``, ``rope``, ``pull``, ``sheaves``, ``slings``, ``signs`` or ``machine``.
        count: how many, how long in metres of a bar or rope, how hard in newtons of a pull.
        trees: indices of those it is for.
        packed: how much of it is packed, in the same measure; None where that is not said anywhere.
        head_m: thickness the wedges are planned with.
    """

    key: str
    count: float
    trees: tuple[int, ...]
    packed: float | None
    head_m: float = 0.0

    @property
    def is_packed(self) -> bool | None:
        """Whether there is enough of it; None where nobody has said."""
        return None if self.packed is None else self.packed >= self.count


@dataclass(frozen=True, slots=True)
class Needing:
    """A tree of a day: its lay, its thickness where it is cut, and whether a way leads through where nobody may be."""

    tree: BlockTree
    lay: Lay
    across_m: float
    closes_way: bool


def pieces_of(trees: Sequence[Needing], packed: Packed, head_m: float) -> tuple[Piece, ...]:
    """What these trees need, by their lays, wedges with the heads they are planned with."""
    return tuple(each for each in _pieces(trees, packed, head_m) if each.trees)


def _pieces(trees: Sequence[Needing], packed: Packed, head_m: float) -> Iterator[Piece]:
    def which(wanted: Iterable[bool]) -> tuple[int, ...]:
        return tuple(at for at, is_wanted in enumerate(wanted) if is_wanted)

    wedged = which(each.lay.takes in (Takes.WEDGES, Takes.ROPE) for each in trees)
    roped = which(each.lay.takes == Takes.ROPE for each in trees)
    most = max((max(trees[at].lay.wedges, 2) for at in wedged), default=2)
    # Wedges with thinner heads lift less than was planned: they do not count.
    thick_enough = packed.wedges if packed.wedge_head_m >= head_m - 1e-6 else 0.0
    yield Piece("wedges", float(most), wedged, thick_enough, head_m)
    yield Piece("maul", 1.0, wedged, packed.mauls)
    # Half of the thickest is reached from either side: those that nothing shorter reaches ask for it.
    halves = [each.across_m / 2 for each in trees]
    longest = max(halves)
    short = which(half > packed.bar_m for half in halves) or which(half == longest for half in halves)
    yield Piece("bar", longest, short, packed.bar_m)
    long = max((trees[at].tree.height_m for at in roped), default=0.0) * ROPE_LENGTHS
    yield Piece("rope", long, roped, packed.rope_m)
    yield Piece("pull", max((trees[at].lay.pull_N for at in roped), default=0.0), roped, packed.pull_N)
    yield Piece("sheaves", float(SHEAVES), roped, packed.sheaves)
    yield Piece("slings", float(SLINGS), roped, packed.slings)
    yield Piece("signs", float(SIGNS), which(each.closes_way for each in trees), packed.signs)
    others = which(each.lay.is_stop for each in trees)
    yield Piece("machine", float(len(others)), others, None)


def saw_of(across_m: float, bars_m: Sequence[float]) -> int:
    """Which saw a tree is felled with, of bars from short to long: the first that reaches half of it, or the last."""
    return next((at for at, bar in enumerate(bars_m) if bar >= across_m / 2), max(len(bars_m) - 1, 0))
