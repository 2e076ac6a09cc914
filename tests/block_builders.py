"""Made-up trees of a block, for tests."""

from __future__ import annotations

import numpy as np

from plain_compass.core.advice.sectors import Takes
from plain_compass.core.block.trees import BlockTree, Lay

KINDS = (Takes.NOTHING, Takes.WEDGES, Takes.ROPE, Takes.MORE)


def tree(id: str, east: float, north: float, *lays_deg: float, ground: float = 0.0, long: float = 15.0) -> BlockTree:
    lays = tuple(Lay(lay, Takes.NOTHING) for lay in lays_deg)
    return BlockTree(id, east, north, ground, long + 0.3, long, 2.0, 5.0, lays)


def random_block(seed: int, count: int, lays: int, side_m: float = 25.0) -> list[BlockTree]:
    random = np.random.default_rng(seed)

    def lay() -> Lay:
        takes = KINDS[int(random.integers(0, 4))]
        harm = float(random.random() < 0.1)
        return Lay(float(random.uniform(0, 360)), takes, margin=float(random.uniform(0, 1)), harm=harm)

    return [
        BlockTree(
            str(number), *random.uniform(0, side_m, 2).tolist(), float(random.uniform(0, 6)), 20.0,
            float(random.uniform(10, 20)), float(random.uniform(1, 3)), float(random.uniform(3, 7)),
            tuple(lay() for _ in range(lays)),
        )
        for number in range(count)
    ]  # fmt: skip
