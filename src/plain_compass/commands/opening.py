"""The job a command is given: a file, the word ``demo``, or ``-`` for standard input."""

from __future__ import annotations

import argparse
import sys
from pathlib import Path

from ..core.base.phrase import phrase
from ..core.judge.unmeasured import missing, named_things
from ..job.demo import demo_coupe, demo_job
from ..job.disk import decoded
from ..job.document import Job, TreePlan
from ..job.files import parse_job, read_job
from ..job.language import tr
from ..job.words import Speech

DEMOS = {"demo": demo_job, "coupe": demo_coupe}
"""Words that stand for the jobs that ship."""


def opened_job(file: Path) -> Job:
    """The job. Raises JobFileError with a sentence when it cannot be read."""
    if str(file) == "-":
        return parse_job(decoded(sys.stdin.buffer.read(), tr("standard input")), tr("standard input")).job
    if str(file) in DEMOS and not file.exists():
        return DEMOS[str(file)]()
    return read_job(file).job


def by_stand_ins(plan: TreePlan) -> list[str]:
    """What of a tree has not been measured, in words; a sentence on standard error says so first."""
    speech, lacking = Speech(), named_things(missing(plan.tree))
    if lacking:
        sentence = phrase("measured.what_follows_one" if len(lacking) == 1 else "measured.what_follows", names=lacking)
        print(speech.phrase(sentence), file=sys.stderr)
    return [speech.tell(each) for each in lacking]


def whole(low: int, high: int, text: str) -> int:
    """A whole number of an option, within its bounds; argparse tells the sentence."""
    if not text.isascii() or not text.isdecimal() or len(text) > 9 or not low <= int(text) <= high:
        raise argparse.ArgumentTypeError(
            tr("{text!r} is not accepted; accepted: {low} to {high}", text=text[:20], low=low, high=high)
        )
    return int(text)
