"""``plain-compass schema``: the JSON Schema of what is read and written."""

from __future__ import annotations

import argparse
import json
from pathlib import Path

from ..job.language import tr

SCHEMAS = Path(__file__).parents[1] / "data" / "schemas"


def answers() -> tuple[str, ...]:
    """Every answer in JSON that has a schema."""
    return tuple(sorted(path.stem for path in SCHEMAS.glob("*.json")))


def add_to(parser: argparse.ArgumentParser) -> None:
    """Of what."""
    parser.add_argument("--stumps", action="store_true", help=tr("of one line of an exported stump log instead"))
    parser.add_argument("--answer", choices=answers(), help=tr("of what a command answers with --json instead"))
    parser.set_defaults(run=run)


def run(arguments: argparse.Namespace) -> int:
    """Print it."""
    if arguments.answer:
        print((SCHEMAS / f"{arguments.answer}.json").read_text(encoding="utf-8"), end="")
        return 0
    from ..job.schema import entry_schema, json_schema

    print(json.dumps(entry_schema() if arguments.stumps else json_schema(), indent=2, ensure_ascii=False))
    return 0
