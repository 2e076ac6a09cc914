"""Collect every text of the program that a language file gives in another language, into ``data/words/texts.json``.

A text is what ``tr``, ``tr_mark`` and ``tr_count`` are given, what ``say`` is given, what fields of the core declare
(labels, helps, choices), why a value is refused, and the names in the tables that ship. The sentences of the catalogue
are not among them: a language gives those by their keys.
"""

from __future__ import annotations

import ast
import csv
import importlib
import json
import pkgutil
import sys
from collections.abc import Iterator
from dataclasses import fields, is_dataclass
from pathlib import Path

SOURCE = Path(__file__).parents[1] / "src" / "plain_compass"
TEXTS = SOURCE / "data" / "words" / "texts.json"
MARKS = {"tr": 1, "tr_mark": 1, "tr_count": 2, "say": 1}
"""Function -> how many of its first arguments are texts."""


def main() -> int:
    """Write the list, or with ``--check`` say whether it is up to date."""
    content = json.dumps(texts(), ensure_ascii=False, indent=1) + "\n"
    if "--check" in sys.argv:
        same = TEXTS.read_text(encoding="utf-8") == content
        if not same:
            print(f"{TEXTS.name} is not what the code says; run make texts.")
        return 0 if same else 1
    TEXTS.write_text(content, encoding="utf-8")
    print(f"{len(texts())} texts in {TEXTS.name}.")
    return 0


def texts() -> dict[str, str]:
    """Every text, in order, and the file that says it first."""
    found: dict[str, str] = {}
    for text, place in sorted(
        {*_in_code(), *_declared(), *_of_ways(), *_in_tables()}, key=lambda pair: (pair[1], pair[0])
    ):
        found.setdefault(text, place)
    return found


def _in_code() -> Iterator[tuple[str, str]]:
    for path in sorted(SOURCE.rglob("*.py")):
        place = str(path.relative_to(SOURCE))
        tree = ast.parse(path.read_text(encoding="utf-8"))
        for node in ast.walk(tree):
            if isinstance(node, ast.Call):
                yield from ((text, place) for text in _marked(node))
                if place.startswith("core/"):
                    yield from ((text, place) for text in _reasons(node))


def _marked(call: ast.Call) -> Iterator[str]:
    name = call.func.id if isinstance(call.func, ast.Name) else getattr(call.func, "attr", "")
    for argument in call.args[: MARKS.get(name, 0)]:
        yield from _literals(argument)
    if name == "map" and isinstance(call.args[0], ast.Name) and call.args[0].id in MARKS:
        for each in getattr(call.args[1], "elts", []):
            yield from _literals(each)


def _reasons(call: ast.Call) -> Iterator[str]:
    """Why the core refuses a value: said by whoever shows the error."""
    for keyword in call.keywords:
        if keyword.arg == "reason":
            yield from _literals(keyword.value)


def _literals(node: ast.expr) -> Iterator[str]:
    """The text, or both where a condition stands between them."""
    if isinstance(node, ast.IfExp):
        yield from _literals(node.body)
        yield from _literals(node.orelse)
    elif isinstance(node, ast.Constant) and isinstance(node.value, str) and any(map(str.isalpha, node.value)):
        yield node.value


def _declared() -> Iterator[tuple[str, str]]:
    """Labels, helps and choices of the fields of every dataclass."""
    sys.path.insert(0, str(SOURCE.parent))
    for package in ("core", "job"):
        root = importlib.import_module(f"plain_compass.{package}")
        for module in pkgutil.walk_packages(root.__path__, f"plain_compass.{package}."):
            place = module.name.removeprefix("plain_compass.").replace(".", "/") + ".py"
            for kind in vars(importlib.import_module(module.name)).values():
                if isinstance(kind, type) and is_dataclass(kind) and kind.__module__ == module.name:
                    yield from ((text, place) for each in fields(kind) for text in _of_field(dict(each.metadata)))


def _of_field(metadata: dict[str, object]) -> Iterator[str]:
    declared = metadata.get("quantity")
    choices = metadata.get("choice")
    told = [metadata.get("label"), metadata.get("help"), metadata.get("name")]
    told += [getattr(declared, "label", ""), getattr(declared, "help", "")]
    told += list(choices.values()) if isinstance(choices, dict) else []
    yield from (text for text in told if isinstance(text, str) and any(map(str.isalpha, text)))


def _of_ways() -> Iterator[tuple[str, str]]:
    """What can be measured, the ways of it, and what is typed for each."""
    from plain_compass.job.ways import METHODS, input_name, thing_name, way_name

    for thing, ways in METHODS.items():
        yield thing_name(thing), "job/ways.py"
        for way, method in ways.items():
            yield from ((each, "job/ways.py") for each in (way_name(way), *map(input_name, method.wants)))


def _in_tables() -> Iterator[tuple[str, str]]:
    with (SOURCE / "data" / "species.csv").open(encoding="utf-8", newline="") as file:
        yield from ((row["name"], "data/species.csv") for row in csv.DictReader(file))
    for path in sorted((SOURCE / "data" / "practices").glob("*.json")):
        practice = json.loads(path.read_text(encoding="utf-8"))
        yield from ((practice[key], f"data/practices/{path.name}") for key in ("name", "note"))
    from plain_compass.job.tables import constants_explained

    yield from ((words, "data/indicative.toml") for words in constants_explained().values())
    for row in json.loads((SOURCE / "data" / "disagreements.json").read_text(encoding="utf-8")):
        for text in (row["question"], *row["schools"], row["choice"], row["reason"]):
            yield text, "data/disagreements.json"


if __name__ == "__main__":
    sys.exit(main())
