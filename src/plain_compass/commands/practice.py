"""``plain-compass practice``: sets of cases made, put on paper, and answers scored."""

from __future__ import annotations

import argparse
from pathlib import Path

from ..core.base.errors import PlainCompassError
from ..core.practice.skills import LEVELS, Task
from ..job.disk import JobFileError, write_atomically
from ..job.language import tr
from ..job.stamp import output_text
from ..job.units import UNITS
from ..job.words import Speech, vocabularies

KINDS = (*(task.value for task in Task), "mixed")
"""Sorts of cases, and all of them by turns."""


def add_to(parser: argparse.ArgumentParser) -> None:
    """What to do."""
    parts = parser.add_subparsers(metavar="what", required=True)
    made = parts.add_parser("make", help=tr("a set of made-up cases as one file"))
    made.add_argument("--kind", choices=KINDS, default="mixed", help=tr("sort of cases"))
    made.add_argument("--level", type=int, choices=LEVELS, default=1, help=tr("how hard"))
    made.add_argument("--seed", type=int, default=1, help=tr("the same seed gives the same cases"))
    made.add_argument("-n", "--count", type=int, default=12, help=tr("how many cases"))
    made.add_argument("-o", "--output", type=Path, required=True, help=tr("the set to write, as JSON"))
    made.set_defaults(run=_make)
    sheet = parts.add_parser("sheet", help=tr("a set on paper, its key on pages of its own"))
    sheet.add_argument("set", type=Path, help=tr("a set"))
    sheet.add_argument("-o", "--output", type=Path, required=True, help=tr("the PDF to write"))
    sheet.add_argument("--units", choices=tuple(UNITS), default="metric", help=tr("in which units"))
    sheet.add_argument("--words", choices=tuple(vocabularies()), default="hinge", help=tr("in which trade words"))
    sheet.set_defaults(run=_sheet)
    scored = parts.add_parser("score", help=tr("answers held against a set; of a class what it gets wrong most"))
    scored.add_argument("set", type=Path, help=tr("a set"))
    scored.add_argument("answers", type=Path, nargs="+", help=tr("answers to it, a file each"))
    scored.add_argument("--units", choices=tuple(UNITS), default="metric", help=tr("units of bare numbers"))
    scored.add_argument("--json", action="store_true", help=tr("print one JSON object"))
    scored.set_defaults(run=_score)


def _make(arguments: argparse.Namespace) -> int:
    from ..job.practice_set import made_set, mixed_set, set_text

    if arguments.seed < 0:
        raise JobFileError(tr("--seed {seed}: accepted: 0 or more.", seed=arguments.seed))
    if arguments.kind == "mixed":
        practice = mixed_set(arguments.level, arguments.seed, arguments.count)
    else:
        practice = made_set(arguments.kind, arguments.level, arguments.seed, arguments.count)
    write_atomically(arguments.output, set_text(practice))
    print(
        tr(
            "{count} cases ({name}) written to {output}.",
            count=len(practice.cases),
            name=practice.name,
            output=arguments.output,
        )
    )
    return 0


def _sheet(arguments: argparse.Namespace) -> int:
    from ..app.steps.practice.paper import write_set_without_screen
    from ..job.practice_set import read_set

    practice = read_set(arguments.set)
    write_set_without_screen(practice, Speech(arguments.units, arguments.words), arguments.output)
    print(tr("{count} cases and their key written to {output}.", count=len(practice.cases), output=arguments.output))
    return 0


def _score(arguments: argparse.Namespace) -> int:
    from ..job.practice_answers import most_often_wrong, read_answers, result_of
    from ..job.practice_set import read_set

    speech, practice = Speech(arguments.units, "hinge"), read_set(arguments.set)
    results, troubles = [], []
    for path in arguments.answers:
        try:
            results.append(result_of(practice, read_answers(path), speech))
        except PlainCompassError as error:
            # One file that cannot be read keeps nobody else from being scored.
            troubles.append(str(error))
    if not results:
        raise JobFileError(" ".join(troubles))
    wrong = most_often_wrong(practice, results)
    if arguments.json:
        rows = [
            {"who": each.who, "score": each.score, "cases": [_plain(one) for one in each.scores]} for each in results
        ]
        whole = {"set": practice.name, "results": rows, "wrong": [list(each) for each in wrong], "not_read": troubles}
        print(output_text(whole))
        return 0
    for each in results:
        print(
            tr("{who}: {score:.1f} of {count}", who=each.who or "somebody", score=each.score, count=len(practice.cases))
        )
    for skill, count, asked in wrong:
        print(
            tr(
                "  {what}: {count} of {asked} not near",
                what=speech.tell(f"practice.skill.{skill}"),
                count=count,
                asked=asked,
            )
        )
    for told in troubles:
        print(told)
    return 0


def _plain(scored: object) -> dict[str, object] | None:
    from ..core.practice.scoring import Scored

    if not isinstance(scored, Scored):
        return None
    return {"near": scored.near, "error": scored.error, "score": scored.score, "sure": scored.sure}
