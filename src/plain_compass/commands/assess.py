"""``plain-compass assess``: the findings of one tree."""

from __future__ import annotations

import argparse

from ..core.base.levels import LEVELS, Level
from ..job.document import Job, TreePlan
from ..job.fall import judged_with_fall
from ..job.language import tr
from ..job.report import assessment_to_plain, table
from ..job.stamp import output_text
from .on_tree import about_tree

FAIL_ON = ("stop", "unknown", "watch")
"""Verdicts that scripts may want to end on."""


def add_to(parser: argparse.ArgumentParser) -> None:
    """Which tree, and whether to fail."""
    about_tree(parser, run)
    parser.add_argument("--explain", metavar="ID", help=tr("where one finding comes from: share, relation, inputs"))
    parser.add_argument("--json", action="store_true", help=tr("print one JSON object instead of a table"))
    parser.add_argument(
        "--fail-on",
        choices=FAIL_ON,
        help=tr("exit with 1 when the verdict is this bad or worse: stop, unknown or watch, in that order"),
    )


def run(job: Job, plan: TreePlan, arguments: argparse.Namespace) -> int:
    """Say what the numbers say."""
    result, chances = judged_with_fall(job, plan.id)
    if arguments.explain:
        from ..job.explain import explained  # few ask where a number comes from

        print("\n".join(explained(job, plan, result, chances, arguments.explain)))
    elif arguments.json:
        plain = assessment_to_plain(job, plan, result, chances)
        print(output_text(plain, job.practice))
    else:
        print(table(job, plan, result))
    worst = LEVELS.index(result.verdict.level)
    return 1 if arguments.fail_on and worst >= LEVELS.index(Level(arguments.fail_on)) else 0
