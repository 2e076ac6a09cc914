"""``plain-compass schema``: the JSON Schema of what is read and written."""

from __future__ import annotations

import argparse
import json

from ..job.language import tr


def add_to(parser: argparse.ArgumentParser) -> None:
    """Of what."""
    parser.add_argument("--stumps", action="store_true", help=tr("of one line of an exported stump log instead"))
    parser.set_defaults(run=run)


def run(arguments: argparse.Namespace) -> int:
    """Print it."""
    from ..job.schema import entry_schema, json_schema

    print(json.dumps(entry_schema() if arguments.stumps else json_schema(), indent=2, ensure_ascii=False))
    return 0
