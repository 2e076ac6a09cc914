"""A block of many trees judged and ordered: how long until there is an order, until the best, and the longest step.

``python bench/blocks.py 60 600`` prints a row for each size. Trees are those of the demo's coupe over and over, each at
a seeded place of its own, with forty obstacles between them.
"""

from __future__ import annotations

import resource
import sys
import time
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

ROOM_M2 = 90.0
"""Ground a tree has: a wood as dense as the coupe's."""
OBSTACLES = 40
"""As many as a wood with tracks, fences and trees to keep has to be worked round."""


@dataclass(frozen=True, slots=True)
class Planned:
    """Seconds of processor until judged, first ordered and best ordered; the longest step; cost of both orders."""

    judged_s: float
    first_s: float
    best_s: float
    longest_s: float
    first_cost: float
    best_cost: float


def wood(count: int, seed: int = 7) -> Any:
    """A job of so many trees."""
    from plain_compass.core.site.site import Obstacle, Place
    from plain_compass.job.demo import demo_coupe

    job, rng = demo_coupe(), np.random.default_rng(seed)
    side = (count * ROOM_M2) ** 0.5
    cells = rng.permutation(int(np.ceil(count**0.5)) ** 2)[:count]
    wide = int(np.ceil(count**0.5))
    trees = []
    for number, cell in enumerate(cells.tolist()):
        east, north = (
            side / wide * (cell % wide + rng.uniform(0.1, 0.9)),
            side / wide * (cell // wide + rng.uniform(0.1, 0.9)),
        )
        like = job.trees[number % len(job.trees)]
        trees.append(replace(like, id=f"B-{number:03d}", at=Place(round(east, 2), round(north, 2))))
    spots = [Place(*rng.uniform(0.0, side, 2).round(2).tolist()) for _ in range(OBSTACLES)]
    between = [
        Obstacle(name=f"o{n}", kind="save", shape="spot", points=(at,), radius_m=0.5) for n, at in enumerate(spots)
    ]
    site = replace(job.site, obstacles=tuple(between))
    return replace(job, trees=tuple(trees), site=site, block=replace(job.block, first=(), trees=()))


def planned(job: Any, seed: int = 1) -> Planned:
    """Judge and order it a step at a time, as the window does."""
    from plain_compass.core.block.groups import MOST
    from plain_compass.job.block import block_in_steps, first_in_steps, order_in_steps

    begun, longest, block = time.process_time(), 0.0, None
    first_s, first_cost = float("nan"), float("nan")
    if len(job.trees) <= MOST:
        steps = first_in_steps(job)
        while first_s != first_s:
            at = time.process_time()
            try:
                next(steps)
            except StopIteration as end:
                first_s, first_cost = time.process_time() - begun, end.value[1].plan.cost
            longest = max(longest, time.process_time() - at)
    steps = block_in_steps(job)
    while block is None:
        at = time.process_time()
        try:
            next(steps)
        except StopIteration as end:
            block = end.value
        longest = max(longest, time.process_time() - at)
    judged = time.process_time() - begun
    ordering = order_in_steps(block, job, seed)
    while True:
        at = time.process_time()
        try:
            next(ordering)
        except StopIteration as end:
            best = end.value
            break
        finally:
            longest = max(longest, time.process_time() - at)
    return Planned(judged, first_s, time.process_time() - begun, longest, first_cost, best.plan.cost)


def main() -> int:
    """Print a row for each size."""
    for count in map(int, sys.argv[1:] or ["60"]):
        got = planned(wood(count))
        peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
        seconds = [f"{each:.1f} s" for each in (got.judged_s, got.first_s, got.best_s)]
        cells = [
            str(count),
            *seconds,
            f"{1000 * got.longest_s:.0f} ms",
            f"{got.first_cost:.0f}",
            f"{got.best_cost:.0f}",
        ]
        print(f"| {' | '.join([*cells, f'{peak:.0f} MiB'])} |")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
