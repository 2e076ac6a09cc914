"""Told chances held against whole redraws: every input of a case drawn anew, thousands of times.

``python bench/chances.py [--cases N] [--draws N]``: each limit's told chance beside how often it failed, worst first.
"""

from __future__ import annotations

import argparse
import math
import sys
from pathlib import Path
from typing import Any, NamedTuple

import numpy as np

sys.path.insert(0, str(Path(__file__).resolve().parent))
sys.path.insert(0, str(Path(__file__).resolve().parent.parent / "src"))

from trees import ordinary

SEED, AT_ONCE = 40, 96
"""The same cases every time; so many are reckoned at once as stay near the processor."""
FACTOR, NEAR = 1.5, 0.02
"""A told chance is right within this factor, or within this of it."""


class Compared(NamedTuple):
    """One limit of one case."""

    name: str
    id: str
    told: float
    counted: float

    @property
    def is_right(self) -> bool:
        """Whether what was told is near enough."""
        low, high = sorted((self.told, self.counted))
        return high - low <= NEAR or high <= FACTOR * low


def redrawn(case: Any, spreads: Any, draws: int, seed: int) -> dict[str, float]:
    """How often each limit fails when every input is drawn anew."""
    from plain_compass.core.base.errors import InputError
    from plain_compass.core.design.checks import check_cut_fits, check_tree
    from plain_compass.core.fall.spread import TOGETHER
    from plain_compass.core.judge.chances import inputs_of, many_shifted, shifted
    from plain_compass.core.judge.limits import IDS, shares_of
    from plain_compass.core.plan.many import place_of

    widths = inputs_of(case, spreads)
    names, drawn = list(widths), np.random.default_rng(seed).standard_normal((draws, len(widths)))
    strong, stiff = names.index("wood.rupture"), names.index("wood.elasticity")
    drawn[:, stiff] = TOGETHER * drawn[:, strong] + math.sqrt(1 - TOGETHER**2) * drawn[:, stiff]
    fails, count, batch = np.zeros(len(IDS)), 0, []
    for number, row in enumerate(drawn * np.array(list(widths.values()))):
        one = shifted(case, dict(zip(names, row.tolist(), strict=True)))
        try:
            check_tree(one.case.tree)
            check_cut_fits(place_of(one.case).section(), one.case.cut)
        except InputError:
            continue
        batch.append(one)
        if len(batch) == AT_ONCE or number == draws - 1:
            fails += (np.nan_to_num(shares_of(many_shifted(batch)).use) > 1.0).sum(axis=1)
            count, batch = count + len(batch), []
    return dict(zip(IDS, (fails / max(count, 1)).tolist(), strict=True))


def compared(cases: int, draws: int) -> list[Compared]:
    """Every limit that has a chance, of so many cases."""
    from plain_compass.core.judge.chances import chances_of
    from plain_compass.job.document import case_of
    from plain_compass.job.spreads import spreads_of

    found = []
    for number, job in enumerate(ordinary(cases, SEED, "fifth-and-tenth")):
        plan = job.trees[0]
        case, spreads = case_of(job, plan.id), spreads_of(plan)
        told, counted = chances_of(case, spreads), redrawn(case, spreads, draws, number)
        found += [Compared(plan.id, id, told.chance(id), counted[id]) for id in told.ways]
    return found


def main() -> int:
    """Compare and print."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--cases", type=int, default=40)
    parser.add_argument("--draws", type=int, default=4000)
    arguments = parser.parse_args()
    found = compared(arguments.cases, arguments.draws)
    wrong = [each for each in found if not each.is_right]
    open_ones = sum(0.002 < each.counted < 0.998 for each in found)
    print(f"{len(found)} limits of {arguments.cases} cases, {open_ones} of them neither certain nor next to never;")
    print(f"{len(wrong)} told chances farther off than a factor of {FACTOR} and {NEAR}:")
    for each in sorted(wrong, key=lambda each: -abs(each.told - each.counted)):
        print(f"    {each.name} {each.id}: told {each.told:.3f}, is {each.counted:.3f}")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
