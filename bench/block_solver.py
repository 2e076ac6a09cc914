"""The order of a block by a general solver beside the local search: ``python bench/block_solver.py 8 12``.

HiGHS, through SciPy's ``milp``, is given the same tables: a lay of each tree, and which of two comes first, with a
variable for every pair of lays that costs anything one way round; walking and rigging, which depend on the neighbour in
the order, are left out of both. It may take a minute; what it has found by then counts.
"""

from __future__ import annotations

import sys
import time
from dataclasses import replace
from itertools import combinations, permutations
from typing import Any

import numpy as np

from blocks import wood

MOST_S = 60.0
"""As long as the solver may take."""


def tables(count: int) -> Any:
    """Costs of so many trees of a wood, without what depends on the neighbour in the order."""
    from plain_compass.core.base.steps import finished
    from plain_compass.core.block.cost import costs_of
    from plain_compass.core.block.precedence import meetings_of
    from plain_compass.job.block import block_in_steps

    trees = finished(block_in_steps(wood(count))).trees
    costs = costs_of(trees, meetings_of(trees))
    return replace(costs, walk=np.zeros_like(costs.walk), ropes=np.zeros_like(costs.ropes))


def by_solver(costs: Any) -> tuple[float, float, bool]:
    """(cost, seconds of processor, whether it is proven best)."""
    from scipy.optimize import Bounds, LinearConstraint, milp
    from scipy.sparse import coo_array

    count, _ = costs.shape
    usable = [np.flatnonzero(np.isfinite(costs.own[i])).tolist() for i in range(count)]
    names: dict[tuple[Any, ...], int] = {}
    prices: list[float] = []

    def named(key: tuple[Any, ...], price: float) -> int:
        names[key] = len(prices)
        prices.append(price)
        return names[key]

    for i in range(count):
        for k in usable[i]:
            named(("lay", i, k), float(costs.own[i, k]))
    for i, j in combinations(range(count), 2):
        named(("first", i, j), 0.0)
    rows: list[tuple[dict[int, float], float, float]] = []
    for i in range(count):
        rows.append(({names[("lay", i, k)]: 1.0 for k in usable[i]}, 1.0, 1.0))
    for i, j in permutations(range(count), 2):
        for k in usable[i]:
            for other in usable[j]:
                price = float(costs.before[i, k, j, other])
                if price <= 0:
                    continue
                paid = named(("paid", i, k, j, other), price)
                # Paid where both lays are taken and i comes before j: paid >= lay + lay + first - 2.
                row = {paid: 1.0, names[("lay", i, k)]: -1.0, names[("lay", j, other)]: -1.0}
                row[names[("first", min(i, j), max(i, j))]] = -1.0 if i < j else 1.0
                rows.append((row, -2.0 if i < j else -1.0, np.inf))
    for i, j, k in combinations(range(count), 3):
        round_it = {names[("first", i, j)]: 1.0, names[("first", j, k)]: 1.0, names[("first", i, k)]: -1.0}
        rows.append((round_it, 0.0, 1.0))
    at = [(number, place, value) for number, (row, _, _) in enumerate(rows) for place, value in row.items()]
    table = coo_array(([v for *_, v in at], ([n for n, *_ in at], [p for _, p, _ in at])), (len(rows), len(prices)))
    whole = np.array([0 if key[0] == "paid" else 1 for key in names])
    begun = time.process_time()
    found = milp(
        np.array(prices),
        integrality=whole,
        bounds=Bounds(0.0, 1.0),
        constraints=LinearConstraint(table.tocsc(), [low for _, low, _ in rows], [high for *_, high in rows]),
        options={"time_limit": MOST_S},
    )
    cost = float("nan") if found.fun is None else float(found.fun)
    return cost, time.process_time() - begun, found.status == 0


def by_search(costs: Any) -> tuple[float, float]:
    """(cost, seconds of processor) of the local search, all of it."""
    from plain_compass.core.base.steps import finished
    from plain_compass.core.block.search import Fixed, search_in_steps

    begun = time.process_time()
    return finished(search_in_steps(costs, Fixed(), 1)).cost, time.process_time() - begun


def main() -> int:
    """Print a row for each size."""
    for count in map(int, sys.argv[1:] or ["8"]):
        costs = tables(count)
        solved, took_s, is_best = by_solver(costs)
        cost, search_s = by_search(costs)
        proven = "proven" if is_best else f"stopped after {MOST_S:.0f} s"
        print(f"| {count} | {solved:.1f} | {took_s:.1f} s, {proven} | {cost:.1f} | {search_s:.1f} s |", flush=True)
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
