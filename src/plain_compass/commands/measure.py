"""``plain-compass measure``: one-line calculators with their spread."""

from __future__ import annotations

import argparse

from ..job.language import tr
from ..job.measuring import MeasureError, describe, measure_repeated
from ..job.stamp import output_text
from ..job.units import UNITS
from ..job.ways import METHODS, Answer
from ..job.words import Speech


def add_to(parser: argparse.ArgumentParser) -> None:
    """Add what can be measured, by which ways, to the command's parser."""
    things = parser.add_subparsers(dest="thing", metavar="what", required=True, parser_class=type(parser))
    for thing, methods in METHODS.items():
        one = things.add_parser(thing, help=tr("measure {thing} by {names}", thing=thing, names=", ".join(methods)))
        one.add_argument("--by", choices=tuple(methods), default=next(iter(methods)))
        for name in dict.fromkeys(name for method in methods.values() for name in method.wants):
            one.add_argument(
                f"--{name}",
                dest=name,
                action="append",
                metavar="VALUE",
                help=tr("a value, or a value ± its spread; again for a second reading"),
            )
        one.add_argument("--units", choices=tuple(UNITS), default="metric")
        one.add_argument("--json", action="store_true", help=tr("print one JSON object"))


def run(arguments: argparse.Namespace) -> int:
    """Answer one measurement."""
    found = measure_repeated(arguments.thing, arguments.by, _times(arguments), arguments.units)
    left_out = [number + 1 for number in found.outliers]
    if arguments.json:
        plain = {a.name: _plain(a) for a in found.answers}
        print(output_text({"by": arguments.by, **plain, "left_out": left_out}))
    else:
        out = (
            tr(" (reading {names} stands off the others and is left out)", names=", ".join(map(str, left_out)))
            if left_out
            else ""
        )
        print(describe(found.answers, Speech(arguments.units)) + out)
    return 0


def _times(arguments: argparse.Namespace) -> list[dict[str, str]]:
    """What was typed, a dictionary a reading; what was given once holds for every reading.

    Raises MeasureError when two things were given different numbers of times.
    """
    given = {name: texts for name, texts in vars(arguments).items() if isinstance(texts, list)}
    count = max((len(texts) for texts in given.values()), default=1)
    for name, texts in given.items():
        if len(texts) not in (1, count):
            raise MeasureError(
                tr(
                    "--{name} was given {count} times; accepted: once, or {times} times as the others.",
                    name=name,
                    count=len(texts),
                    times=count,
                )
            )
    return [{name: texts[i if len(texts) > 1 else 0] for name, texts in given.items()} for i in range(count)]


def _plain(answer: Answer) -> dict[str, object]:
    estimate = answer.estimate
    return {"value": estimate.value, "spread": estimate.spread, "shares": dict(estimate.shares)}
