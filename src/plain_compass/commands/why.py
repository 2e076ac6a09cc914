"""``plain-compass why``: what a tree's miss is made of, by the stump as it was cut."""

from __future__ import annotations

import argparse

from ..core.judge.unmeasured import require_measured
from ..job.document import Job, TreePlan
from ..job.stamp import output_text
from ..job.stump_why import sentences_of, why_to_plain


def run(job: Job, tree: TreePlan, arguments: argparse.Namespace) -> int:
    """Share the miss out and print it."""
    require_measured(tree.tree, "measured.why")
    if arguments.json:
        print(output_text(why_to_plain(job, tree.id), job.practice))
        return 0
    for sentence in sentences_of(job, tree.id):
        print(sentence)
    return 0
