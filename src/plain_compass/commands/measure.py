"""``plain-compass measure``: one-line calculators with their spread."""

from __future__ import annotations

import argparse
import json

from ..job.measuring import METHODS, Answer, measure, told
from ..job.units import UNITS
from ..job.words import Speech


def add_to(parser: argparse.ArgumentParser) -> None:
    """Add what can be measured, by which ways, to the command's parser."""
    things = parser.add_subparsers(dest="thing", metavar="what", required=True, parser_class=type(parser))
    for thing, methods in METHODS.items():
        one = things.add_parser(thing, help=f"measure {thing} by {', '.join(methods)}")
        one.add_argument("--by", choices=tuple(methods), default=next(iter(methods)))
        for name in dict.fromkeys(name for method in methods.values() for name in method.wants):
            one.add_argument(f"--{name}", dest=name, metavar="VALUE", help="a value, or a value ± its spread")
        one.add_argument("--units", choices=tuple(UNITS), default="metric")
        one.add_argument("--json", action="store_true", help="print one JSON object")


def run(arguments: argparse.Namespace) -> int:
    """Answer one measurement."""
    typed = {name: text for name, text in vars(arguments).items() if isinstance(text, str)}
    answers = measure(arguments.thing, arguments.by, typed, arguments.units)
    if arguments.json:
        print(json.dumps({"by": arguments.by, **{a.name: _plain(a) for a in answers}}, indent=2))
    else:
        print(told(answers, Speech(arguments.units)))
    return 0


def _plain(answer: Answer) -> dict[str, object]:
    estimate = answer.estimate
    return {"value": estimate.value, "spread": estimate.spread, "shares": dict(estimate.shares)}
