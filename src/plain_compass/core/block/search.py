"""Lays and order together: a greedy start, then small changes as long as they help, from several starts, seeded.

Exact for few trees by dynamic programming over subsets, which the local search is held against (Held and Karp, 1962).
"""

from __future__ import annotations

import graphlib
from collections.abc import Callable, Generator, Sequence
from dataclasses import field
from graphlib import TopologicalSorter
from itertools import pairwise, product

import numpy as np
from numpy.typing import NDArray

from ..base.frozen import dataclass
from ..base.polygon import Array
from ..base.rows import Index
from .cost import RIG, Costs, total

STARTS = 60
"""Starts: with so many the search finds what is best of few trees (``tests/core/test_block.py``)."""
EXACT_UP_TO = 8
"""Trees that are searched exactly."""
PATIENCE = 40
"""Sweeps without a better plan, per start, after which one gives up."""


@dataclass(frozen=True, slots=True)
class Fixed:
    """What a person has decided.

    Attributes:
        lays: tree -> its lay, by index.
        first: pairs (earlier, later) of trees.
    """

    lays: dict[int, int] = field(default_factory=dict)
    first: tuple[tuple[int, int], ...] = ()


@dataclass(frozen=True, slots=True)
class Plan:
    """An order of trees by index, a lay for each tree by its index, and what that costs."""

    order: tuple[int, ...]
    lays: tuple[int, ...]
    cost: float


class CycleError(ValueError):
    """What was fixed goes round in a circle; ``trees`` are those in it, by index."""

    def __init__(self, trees: Sequence[int]) -> None:
        self.trees = tuple(trees)
        super().__init__(f"in a circle: {trees}")


def check_fixed(count: int, fixed: Fixed) -> None:
    """Raise CycleError where the pairs that were fixed cannot all be heeded."""
    sorter = TopologicalSorter(dict.fromkeys(range(count), ()))
    for earlier, later in fixed.first:
        sorter.add(later, earlier)
    try:
        sorter.prepare()
    except graphlib.CycleError as error:
        # The first stands again at the end.
        raise CycleError(error.args[1][:-1]) from None


def heeds(order: Sequence[int], fixed: Fixed) -> bool:
    """Whether an order keeps to what was fixed."""
    place = {tree: at for at, tree in enumerate(order)}
    return all(place[earlier] < place[later] for earlier, later in fixed.first)


def greedy(costs: Costs, fixed: Fixed, start: Sequence[int] | None = None) -> Plan:
    """Each tree its cheapest lay; then always the tree that costs least to be next."""
    count, _ = costs.shape
    cheapest = [fixed.lays.get(tree, int(np.argmin(costs.own[tree]))) for tree in range(count)]
    lays = cheapest if start is None else [*start]
    rows = np.arange(count)
    pairs = costs.before[rows[:, None], np.array(lays)[:, None], rows[None, :], np.array(lays)[None, :]]
    left, order = set(range(count)), list[int]()
    earlier: dict[int, set[int]] = {tree: set() for tree in left}
    for one, other in fixed.first:
        earlier[other].add(one)
    while left:
        free = [tree for tree in left if not earlier[tree] & left]
        rest = np.array(sorted(left))
        ahead = {tree: float(pairs[tree, rest].sum()) for tree in free}
        here = order[-1] if order else None
        best = min(free, key=lambda tree: (ahead[tree] + (0.0 if here is None else costs.walk[here, tree]), tree))
        order.append(best)
        left.remove(best)
    return Plan(tuple(order), tuple(lays), total(costs, order, lays))


def search_in_steps(costs: Costs, fixed: Fixed, seed: int, starts: int = STARTS) -> Generator[Plan, None, Plan]:
    """The best plan found, told whenever there is a better one; ends with the best.

    Raises CycleError where what was fixed goes round in a circle.
    """
    count, _ = costs.shape
    check_fixed(count, fixed)
    random = np.random.default_rng(seed)
    best = greedy(costs, fixed)
    yield best
    for number in range(starts):
        # Every third start is another beginning altogether, lest all of them end in the same hollow.
        share = 1.0 if number % 3 == 2 else 0.3
        plan = best if number == 0 else _shaken(costs, fixed, best, share, random)
        for _ in range(PATIENCE):
            better = _sweep(costs, fixed, plan, random)
            if better.cost < best.cost - 1e-9:
                best = better
            yield best
            if better.cost >= plan.cost - 1e-9:
                break
            plan = better
    return best


def _shaken(costs: Costs, fixed: Fixed, plan: Plan, share: float, random: np.random.Generator) -> Plan:
    """Another start: a share of the lays drawn anew, the likelier the cheaper, the order begun again from them."""
    count, _ = costs.shape
    lays = [*plan.lays]
    for tree in random.choice(count, max(round(share * count), 1), replace=False).tolist():
        if tree not in fixed.lays:
            usable = np.flatnonzero(np.isfinite(costs.own[tree]))
            weight = np.exp(-(costs.own[tree, usable] - costs.own[tree, usable].min()) / 40.0)
            lays[tree] = int(random.choice(usable, p=weight / weight.sum()))
    return greedy(costs, fixed, lays)


def _sweep(costs: Costs, fixed: Fixed, plan: Plan, random: np.random.Generator) -> Plan:
    """Every tree once, in any order: the best other place and lay for it, all else as it is."""
    order, lays = [*plan.order], [*plan.lays]
    for tree in random.permutation(len(order)).tolist():
        order, lays = _best_move(costs, fixed, (order, lays), tree)
    return Plan(tuple(order), tuple(lays), total(costs, order, lays))


def _best_move(costs: Costs, fixed: Fixed, now: tuple[list[int], list[int]], tree: int) -> tuple[list[int], list[int]]:
    """The tree in its best place with its best lay, by the change in cost of every place and lay at once."""
    order, lays = now
    rest = [each for each in order if each != tree]
    others, their = np.array(rest, dtype=np.intp), np.array([lays[each] for each in rest], dtype=np.intp)
    usable = [fixed.lays[tree]] if tree in fixed.lays else np.flatnonzero(np.isfinite(costs.own[tree])).tolist()
    # Placed at p it is before those from p on, and after those before p.
    ahead = costs.before[tree][usable][:, others, their]
    behind = costs.before[others, their, tree][:, usable].T
    zero = np.zeros((len(usable), 1))
    pairs = np.hstack([zero, np.cumsum(behind, axis=1)]) + np.hstack([np.cumsum(ahead[:, ::-1], axis=1)[:, ::-1], zero])
    cost = pairs + costs.own[tree, usable][:, None] + _between_at(costs, (rest, their), tree, usable)
    low, high = _room(rest, fixed, tree)
    cost[:, :low] = np.inf
    cost[:, high + 1 :] = np.inf
    lay, place = divmod(int(np.argmin(cost)), cost.shape[1])
    return [*rest[:place], tree, *rest[place:]], [*lays[:tree], usable[lay], *lays[tree + 1 :]]


def _room(rest: list[int], fixed: Fixed, tree: int) -> tuple[int, int]:
    """Places between which a tree may stand among the others, by what was fixed."""
    place = {each: at for at, each in enumerate(rest)}
    low = max((place[one] + 1 for one, other in fixed.first if other == tree), default=0)
    high = min((place[other] for one, other in fixed.first if one == tree), default=len(rest))
    return low, high


def _between_at(costs: Costs, others: tuple[list[int], Index], tree: int, usable: list[int]) -> Array:
    """What walking and rigging cost more with the tree at each place, shape (lays, places)."""
    rest, their = others
    count = len(rest)
    to = costs.walk[tree, rest] if count else np.zeros(0)
    apart = np.array([costs.walk[one, other] for one, other in pairwise(rest)])
    walk = np.zeros(count + 1)
    if count:
        walk[0], walk[-1] = to[0], to[-1]
        walk[1:-1] = to[:-1] + to[1:] - apart
    ropes = costs.ropes[rest, their].astype(bool) if count else np.zeros(0, dtype=bool)
    before = np.concatenate([[False], ropes])
    after = np.concatenate([ropes, [False]])
    has_next = np.arange(count + 1) < count
    own = costs.ropes[tree, usable].astype(bool)[:, None]
    # A rope that comes up here, and what the next one has to rig or is spared.
    rigs = own & ~before
    next_now, next_then = after & ~before & has_next, after & ~own & has_next
    found: Array = walk + RIG * (rigs + next_then.astype(float) - next_now.astype(float))
    return found


def exact(costs: Costs, fixed: Fixed) -> Plan:
    """The best plan there is, for up to ``EXACT_UP_TO`` trees. Raises ValueError for more, CycleError as the search."""
    count, _ = costs.shape
    if count > EXACT_UP_TO:
        raise ValueError(f"{count} trees are too many to be searched exactly")
    check_fixed(count, fixed)
    choices = [
        [fixed.lays[tree]] if tree in fixed.lays else np.flatnonzero(np.isfinite(costs.own[tree])).tolist()
        for tree in range(count)
    ]
    lays = np.array(list(product(*choices)), dtype=np.intp)
    rows = np.arange(count)
    own = costs.own[rows, lays].sum(axis=1)
    pairs = costs.before[rows[:, None], lays[:, :, None], rows[None, :], lays[:, None, :]]
    ropes = costs.ropes[rows, lays].astype(bool)
    best, last = _over_subsets(costs, fixed, pairs, ropes)
    whole = own + best
    row = int(np.argmin(whole))
    order = last(row)
    return Plan(order, tuple(lays[row].tolist()), total(costs, order, lays[row].tolist()))


def _over_subsets(
    costs: Costs, fixed: Fixed, pairs: Array, ropes: NDArray[np.bool_]
) -> tuple[Array, Callable[[int], tuple[int, ...]]]:
    """(least cost of each choice of lays, the order of a choice): by which trees are down, and which was the last."""
    count, many = pairs.shape[1], len(pairs)
    needs = [0] * count
    for earlier, later in fixed.first:
        needs[later] |= 1 << earlier
    cost = np.full((1 << count, count, many), np.inf)
    came = np.full((1 << count, count, many), -1, dtype=np.int8)
    for tree in range(count):
        if not needs[tree]:
            rest = [j for j in range(count) if j != tree]
            cost[1 << tree, tree] = pairs[:, tree, rest].sum(axis=1) + RIG * ropes[:, tree]
    for down in range(1, 1 << count):
        inside = [tree for tree in range(count) if down >> tree & 1]
        for tree in range(count):
            if down >> tree & 1 or needs[tree] & ~down:
                continue
            rest = [j for j in range(count) if j != tree and not down >> j & 1]
            ahead = pairs[:, tree, rest].sum(axis=1)
            then = down | 1 << tree
            for last in inside:
                step = cost[down, last] + ahead + costs.walk[last, tree] + RIG * (ropes[:, tree] & ~ropes[:, last])
                better = step < cost[then, tree]
                cost[then, tree] = np.where(better, step, cost[then, tree])
                came[then, tree] = np.where(better, last, came[then, tree])
    full = (1 << count) - 1

    def order_of(row: int) -> tuple[int, ...]:
        tree, down, found = int(np.argmin(cost[full, :, row])), full, list[int]()
        while tree >= 0:
            found.append(tree)
            tree, down = int(came[down, tree, row]), down & ~(1 << tree)
        return tuple(reversed(found))

    return cost[full].min(axis=0), order_of
