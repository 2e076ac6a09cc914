"""What the program says of ordinary trees and of hard ones: shares of clear, watch and stop, and what rules each.

``python bench/verdicts.py [--count N] [--practice KEY ...] [--suggest]``; as JSON lines for the performance page.
``python bench/verdicts.py --agreement``: upright trees with a typed textbook cut and with the practice's own design,
hard trees, the rose against suggestions, mends applied.
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

import numpy as np

from trees import TRAINED, hard, leaning, ordinary, upright

SEED = 20
"""The same trees every time."""
SCHOOL, AGREED_SEED = "fifth-and-tenth", 33
UPRIGHT, HARD, RING, MENDED, MENDS = 300, 160, 200, 400, 100
"""How many trees, or mends, each question is asked of."""


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


def agreement(trained: str) -> Iterator[str]:
    """One question asked in two places, and a textbook cut: a line each."""
    for name, textbook in (("typed by the book", True), ("its own design", False)):
        found, _ = counted(upright(UPRIGHT, AGREED_SEED, SCHOOL, trained, textbook=textbook))
        yield told(f"upright, {name}", found)
    yield told("hard", counted(hard(HARD, AGREED_SEED, SCHOOL, trained))[0])
    yield ring_against_suggestion()
    yield mends_applied()


def ring_against_suggestion() -> str:
    """How often the rose says a lay is not workable on which a suggestion is ready."""
    from plain_compass.core.advice.rose import whole_rose
    from plain_compass.core.advice.suggest import suggest
    from plain_compass.core.assess import assess
    from plain_compass.job.document import case_of

    refused = ready = both = 0
    for job in leaning(RING, AGREED_SEED, SCHOOL):
        case = case_of(job, job.trees[0].id)
        (spoke,) = whole_rose(case, np.array([case.cut.lay_deg]))
        found = suggest(assess(case))
        is_ready = found is not None and bool(found.best) and not found.best[0].watched
        says_no = spoke.refused or spoke.level == "stop" or spoke.help == "not with this kit"
        refused, ready, both = refused + says_no, ready + is_ready, both + (says_no and is_ready)
    return f"rose and suggestion, {RING} lays: {refused} refused, {ready} with a ready suggestion, {both} both"


def mends_applied() -> str:
    """How often a mend that is shown does it when it is taken over: the finding clear, nothing else a new stop."""
    from plain_compass.core.advice.mend import mends_for, to_mend
    from plain_compass.job.edits import mended
    from plain_compass.job.fall import judged_with_fall
    from plain_compass.job.spreads import judged_tree, spreads_of

    shown = held = 0
    for job in leaning(MENDED, AGREED_SEED + 1, SCHOOL):
        plan = job.trees[0]
        result, chances = judged_tree(job, plan.id)
        before = {f.id for f in judged_with_fall(job, plan.id)[0].findings if f.level == "stop"}
        found = mends_for(result, spreads_of(plan), chances, [f.id for f in to_mend(result)]) or {}
        for id, answer in found.items():
            for mend in answer.mends:
                after, _ = judged_with_fall(mended(job, plan.id, mend), plan.id)
                clear = all(f.level == "clear" or f.kind != "limit" for f in after.findings if f.id == id)
                stops = {f.id for f in after.findings if f.level == "stop"}
                shown, held = shown + 1, held + (clear and stops <= before)
            if shown >= MENDS:
                return f"mends applied: {held} of {shown} hold"
    return f"mends applied: {held} of {shown} hold"


def main() -> int:
    """Count and print."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--count", type=int, default=2000)
    parser.add_argument("--practice", action="append")
    parser.add_argument("--suggest", action="store_true")
    parser.add_argument("--trained", default=TRAINED)
    parser.add_argument("--hard", type=int, default=300)
    parser.add_argument("--agreement", action="store_true")
    arguments = parser.parse_args()
    if arguments.agreement:
        for line in agreement(arguments.trained):
            print(line, flush=True)
        return 0
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
