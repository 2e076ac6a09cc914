"""Cases of practice by the thousand: how long each kind takes, and whether each is what it says.

``python bench/practice_cases.py 1000`` prints a row for each kind; a case that is not what it says ends it with 1.
"""

from __future__ import annotations

import sys
import time
from typing import Any

LEVELS = 3
"""Cases go through them by turns."""


def is_true(kept: Any) -> bool:
    """Whether a case is what it says, by the core."""
    from plain_compass.core.assess import assess
    from plain_compass.core.practice.look import look_truth
    from plain_compass.core.practice.now import BY_KEY, GO_ON, LEAVE, is_wanted, now_truth
    from plain_compass.core.practice.skills import Task
    from plain_compass.core.practice.stumps import LEAST_SHARE, stump_truth
    from plain_compass.job.practice_case import case_of_set
    from plain_compass.job.practice_words import truth_of

    case = case_of_set(kept)
    if kept.task == Task.LOOK:
        mass, truth = assess(case).parts.mass, look_truth(case)
        return abs(truth.weight_left_m - mass.com_left_m) < 1e-9 and truth.height_m == case.tree.height_m
    if kept.task == Task.STUMP:
        truth = stump_truth(case, kept.plan.as_cut)
        return truth is not None and truth.share >= LEAST_SHARE
    if kept.task == Task.NOW:
        outcomes = now_truth(case, BY_KEY[kept.sign]).outcomes
        return is_wanted(case, BY_KEY[kept.sign]) and outcomes[LEAVE.key].worth >= outcomes[GO_ON.key].worth
    if kept.task == Task.CUT:
        return assess(case) is not None
    return bool(truth_of(kept))


def main() -> int:
    """Make and check them."""
    from plain_compass.core.practice.skills import Task
    from plain_compass.job.practice_case import asked_of, make_case

    count, wrong = int(sys.argv[1]) if len(sys.argv) > 1 else 100, 0
    for task in Task:
        times, kept = [], []
        for number in range(count):
            begun = time.process_time()
            kept.append(make_case(asked_of(task, number), 1 + number % LEVELS, number))
            times.append(time.process_time() - begun)
        false = sum(not is_true(each) for each in kept)
        wrong += false
        longest, whole = 1000 * max(times), sum(times)
        print(
            f"| {task} | {count} | {whole:.1f} s | {1000 * whole / count:.0f} ms | {longest:.0f} ms | {false} |",
            flush=True,
        )
    return int(wrong > 0)


if __name__ == "__main__":
    raise SystemExit(main())
