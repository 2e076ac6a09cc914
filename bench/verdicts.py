"""What the program says of ordinary trees and of hard ones: shares of clear, watch and stop, and what rules each.

``python bench/verdicts.py [--count N] [--practice KEY ...] [--suggest]``; as JSON lines for the performance page.
"""

from __future__ import annotations

import argparse
import sys
from collections import Counter
from collections.abc import Iterator
from pathlib import Path
from typing import Any, NamedTuple

sys.path.insert(0, str(Path(__file__).resolve().parent))
sys.path.insert(0, str(Path(__file__).resolve().parent.parent / "src"))

from trees import TRAINED, hard, ordinary

SEED = 20
"""The same trees every time."""


class Said(NamedTuple):
    """What was said of one tree: its verdict's level, and the finding that rules it."""

    level: str
    ruling: str


def said_of(job: Any) -> Said:
    """Judge the first tree of a job, its fall included."""
    from plain_compass.core.base.errors import PlainCompassError
    from plain_compass.job.fall import with_its_fall
    from plain_compass.job.spreads import judged_tree

    plan = job.trees[0]
    try:
        result, _ = judged_tree(job, plan.id)
    except PlainCompassError as error:
        return Said("refused", str(error)[:60])
    verdict = with_its_fall(plan, result).verdict
    return Said(verdict.level, "" if verdict.level == "clear" or verdict.ruling is None else verdict.ruling.id)


def suggested(job: Any) -> Any:
    """The job with the first suggestion taken over; itself where nothing is suggested."""
    from plain_compass.core.advice.suggest import suggest
    from plain_compass.job.document import with_plan
    from plain_compass.job.spreads import judged_tree, spreads_of

    plan = job.trees[0]
    result, _ = judged_tree(job, plan.id)
    found = suggest(result, spreads=spreads_of(plan))
    best = found.best[:1] if found is not None else ()
    return with_plan(job, plan.id, "cut", best[0].cut) if best else job


def counted(jobs: Iterator[Any], *, suggests: bool = False) -> tuple[Counter[Said], Counter[Said]]:
    """How often each was said: of the first designs, and after a suggestion where the first design is not clear."""
    first, then = Counter[Said](), Counter[Said]()
    for job in jobs:
        said = said_of(job)
        first[said] += 1
        then[said_of(suggested(job)) if suggests and said.level in ("watch", "stop") else said] += 1
    return first, then


def told(title: str, found: Counter[Said]) -> str:
    """As lines of text."""
    whole, levels = sum(found.values()), Counter[str]()
    for said, count in found.items():
        levels[said.level] += count
    lines = [f"{title}: " + ", ".join(f"{level} {100 * count / whole:.1f} %" for level, count in levels.most_common())]
    lines += [f"    {said.level} by {said.ruling}: {count}" for said, count in found.most_common() if said.ruling]
    return "\n".join(lines)


def main() -> int:
    """Count and print."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--count", type=int, default=2000)
    parser.add_argument("--practice", action="append")
    parser.add_argument("--suggest", action="store_true")
    parser.add_argument("--trained", default=TRAINED)
    parser.add_argument("--hard", type=int, default=300)
    arguments = parser.parse_args()
    from plain_compass.job.tables import practices

    for key in arguments.practice or practices():
        first, then = counted(ordinary(arguments.count, SEED, key, arguments.trained), suggests=arguments.suggest)
        print(told(f"{key}, ordinary", first), flush=True)
        if arguments.suggest:
            print(told(f"{key}, ordinary, after suggest", then), flush=True)
        print(told(f"{key}, hard", counted(hard(arguments.hard, SEED, key, arguments.trained))[0]), flush=True)
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
