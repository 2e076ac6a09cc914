"""``plain-compass mend``: for every trouble of a plan, the smallest changes that make it clear."""

from __future__ import annotations

import argparse
from dataclasses import asdict
from typing import Any

from ..core.advice.mend import Mend, Mends, mends_for, to_mend
from ..core.judge.unmeasured import require_measured
from ..job.document import Job, TreePlan
from ..job.language import tr
from ..job.report import plain
from ..job.spreads import judged_tree, spreads_of
from ..job.stamp import output_text
from ..job.words import Speech
from ..job.words.catalogue import level_word


def run(job: Job, tree: TreePlan, arguments: argparse.Namespace) -> int:
    """Look for ways out and print them."""
    require_measured(tree.tree, "measured.best_design")
    result, chances = judged_tree(job, tree.id)
    troubles = to_mend(result)
    found = mends_for(result, spreads_of(tree, job.hand), chances, [finding.id for finding in troubles])
    assert found is not None
    speech = job.speech
    if arguments.json:
        rows = [
            {
                "id": finding.id,
                "level": finding.level,
                "chance": plain(finding.chance),
                "sentence": speech.phrase(finding.sentence),
                "mends": [_mend(each, speech) for each in found[finding.id].mends],
                "otherwise": speech.no_mend(found[finding.id]),
            }
            for finding in troubles
        ]
        print(output_text({"tree": tree.id, "troubles": rows}, job.practice))
        return 0
    print(f"{tree.id}: {speech.verdict(result.verdict)}")
    for finding in troubles:
        print(f"\n{level_word(finding.level)}: {speech.phrase(finding.sentence)} {speech.odds(finding)}".rstrip())
        _print(found[finding.id], speech)
    if not troubles:
        print(tr("There is nothing to mend."))
    return 0


def _print(mends: Mends, speech: Speech) -> None:
    for number, each in enumerate(mends.mends, start=1):
        print(f"  {number}. {speech.phrase(each.words)}")
        for finding in each.moves:
            print(
                tr(
                    "     then {level}: {sentence}",
                    level=level_word(finding.level),
                    sentence=speech.phrase(finding.sentence),
                )
            )
    if not mends.mends:
        print(f"  {speech.no_mend(mends)}")


def _mend(each: Mend, speech: Speech) -> dict[str, Any]:
    case = each.change.case
    return {
        "words": speech.phrase(each.words),
        "lever": each.change.lever,
        "moves": [{"id": f.id, "level": f.level, "sentence": speech.phrase(f.sentence)} for f in each.moves],
        "verdict": speech.verdict(each.result.verdict),
        "cut": asdict(case.cut),
        "rope": asdict(case.rope),
    }
