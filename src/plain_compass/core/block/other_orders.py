"""Why not otherwise: what a tree in another place in the order would break, or cost, all lays as they are."""

from __future__ import annotations

from collections.abc import Sequence

from ..base.frozen import dataclass
from .cost import Against, Costs, costs_of, reasons_of, total
from .precedence import meetings_of
from .trees import BlockTree, on_lays


@dataclass(frozen=True, slots=True, eq=False)
class Held:
    """A block in an order, its lays held, for comparing that order with others.

    Attributes:
        order: all trees by index; costs: tables of the one lay each is given.
        minutes: what the order costs; broken: (kind, tree, other) of what it goes against.
        first: pairs (earlier, later) that people decided.
    """

    order: tuple[int, ...]
    costs: Costs
    minutes: float
    broken: frozenset[tuple[str, int, int]]
    first: tuple[tuple[int, int], ...] = ()


@dataclass(frozen=True, slots=True)
class Elsewhere:
    """One tree in another place.

    Attributes:
        order: all trees by index, so.
        broken: what the order as it stands heeds and this one does not.
        undone: pairs people decided that this one turns round.
        minutes: what it costs more than the order as it stands, in minutes of work; less than 0 where it is better.
    """

    order: tuple[int, ...]
    broken: tuple[Against, ...]
    undone: tuple[tuple[int, int], ...]
    minutes: float

    @property
    def breaks(self) -> bool:
        """Whether anything stands against it that did not before."""
        return bool(self.broken or self.undone)


def held(
    trees: Sequence[BlockTree], lays: Sequence[int], order: Sequence[int], first: Sequence[tuple[int, int]] = ()
) -> Held:
    """A block in an order, with every tree on the lay it is given."""
    single = on_lays(trees, lays)
    costs = costs_of(single, meetings_of(single))
    broken = frozenset(_pair(each) for each in reasons_of(costs.meets, order) if each.is_broken)
    return Held(tuple(order), costs, total(costs, order, [0] * len(single)), broken, tuple(first))


def elsewhere(block: Held, tree: int, place: int) -> Elsewhere:
    """One tree moved to a place, counted from 0 after it is taken out; all others keep their order."""
    moved = [each for each in block.order if each != tree]
    moved.insert(place, tree)
    now = tuple(e for e in reasons_of(block.costs.meets, moved) if e.is_broken and _pair(e) not in block.broken)
    at = {each: number for number, each in enumerate(moved)}
    undone = tuple((earlier, later) for earlier, later in block.first if at[earlier] > at[later])
    return Elsewhere(tuple(moved), now, undone, total(block.costs, moved, [0] * len(moved)) - block.minutes)


def _pair(against: Against) -> tuple[str, int, int]:
    return against.kind, against.tree, against.other


def nearest_unbroken(block: Held, tree: int, place: int) -> int:
    """The place nearest to one that is wanted where nothing new stands against the tree; that where it is, at worst.

    Of two as near, the one further from where the tree is now: it goes the further towards what was asked for.
    """
    now = block.order.index(tree)
    places = sorted(range(len(block.order)), key=lambda to: (abs(to - place), -abs(to - now)))
    return next(to for to in places if to == now or not elsewhere(block, tree, to).breaks)
