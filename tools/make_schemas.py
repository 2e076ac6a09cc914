"""Write the JSON Schema of every answer in JSON, into ``data/schemas``, from the answers themselves.

Each command is asked of many trees: what is there in every answer is required, and what is nothing in some may be
nothing. An answer may gain keys without a new version of the output, so others are let through. ``--check`` says
whether what is kept is what the answers are now.
"""

from __future__ import annotations

import contextlib
import io
import json
import re
import sys
import tempfile
from functools import reduce
from pathlib import Path
from typing import Any

from plain_compass.cli import main as ask
from plain_compass.core.base.levels import Level
from plain_compass.job.demo import demo_job
from plain_compass.job.edits import add_tree
from plain_compass.job.files import write_job
from plain_compass.job.practice_answers import Answers, Given, answers_text
from plain_compass.job.stamp import OUTPUT

SCHEMAS = Path(__file__).parents[1] / "src" / "plain_compass" / "data" / "schemas"
TREES = ("WH-07", "WH-12", "WH-15", "WH-18", "WH-21", "WH-24")
COPPICE = ("K-01", "K-07", "K-13")
AS_CUT = ("as_cut.top_deg=46", "as_cut.top_m=17", "as_cut.hinge_left_m=6cm", "as_cut.towards_deg=50")
UNITS = {
    "_kg_m3": "kilograms a cubic metre", "_kg_m2": "kilogram square metres", "_m_s": "metres a second",
    "_m4": "metres to the fourth",
    "_m2": "square metres", "_mm": "millimetres", "_m": "metres", "_deg": "degrees", "_min": "minutes", "_s": "seconds",
    "_Nm": "newton metres", "_N": "newtons", "_J": "joules", "_Pa": "pascals", "_kg": "kilograms",
}  # fmt: skip
"""End of a name -> the unit of what it names; longer ends before those they end in."""
NAME = re.compile(r"[a-z_][a-zA-Z0-9_]*")
"""Keys that are names; an object with others is a map from data."""
MAPS = {"by.faller", "by.species", "by.saw", "by.place", "by.cut", "by.day", "shares_deg", "shares", "not_judged"}
"""Maps whose keys may look like names."""

Schema = dict[str, Any]


def samples(folder: Path) -> dict[str, list[list[str]]]:
    """Name of an answer -> what is asked for it."""
    made, answers, new = folder / "set.json", folder / "answers.json", folder / "new.pcjob.json"
    trees = [["demo", "--tree", tree] for tree in TREES]
    every = [*trees, *(["coupe", "--tree", tree] for tree in COPPICE)]
    read = [["demo", "--tree", "WH-12", *(part for each in AS_CUT for part in ("--set", each))]]
    write_job(new, add_tree(demo_job())[0])
    quietly(["practice", "make", "-o", str(made), "--count", "4"])
    given = (Given(1, "20 m", 0.8), Given(2, "a guess", 0.4), Given(3, "1", 0.6))
    answers.write_text(answers_text(Answers("Ash", given)), encoding="utf-8")
    return {
        "assess": [["assess", *each] for each in every]
        + [["assess", "demo", "--set", "cut.back.form=bored"], ["assess", str(new), "--tree", "7"]],
        "rose": [["rose", *each] for each in every[:4]],
        "fall": [["fall", *each, "--samples", "64"] for each in trees],
        "stages": [["stages", *each] for each in trees],
        "suggest": [["suggest", *each] for each in trees[:3]],
        "mend": [["mend", *each] for each in every],
        "why": [["why", *each] for each in [*trees, *read]],
        "block": [["block", "plan", "demo"], ["block", "plan", "coupe"]],
        "trees": [["trees", "demo"], ["trees", "coupe"]],
        "measure": [
            ["measure", "height", "--distance", "20 m", "--top", "40", "--base=-4"],
            ["measure", "lean", "--by", "plumb", "--offset", "10 cm", "--drop", "2 m", "--bearing", "SW"],
            ["measure", "girth", "--girth", "163.4"],
        ],
        "cuts": [["cuts"]],
        "practices": [["practices"]],
        "species": [["species"]],
        "log-list": [["log", "list", "--log", "demo"]],
        "log-stats": [["log", "stats", "--log", "demo"], ["log", "stats", "--log", "demo", "--faller", "Wren"]],
        "learn": [["learn", "--log", "demo"], ["learn", "--log", "demo", "--faller", "Wren", "--back-test"]],
        "practice-score": [["practice", "score", str(made), str(answers)]],
        "self-check": [["self-check"]],
    }


def quietly(command: list[str]) -> str:
    """What a command prints."""
    with contextlib.redirect_stdout(io.StringIO()) as told:
        status = ask(command)
    if status:
        raise SystemExit(f"{' '.join(command)} ended with {status}")
    return told.getvalue()


def schema_of(value: Any, name: str = "") -> Schema:
    """The schema of one value."""
    if isinstance(value, dict):
        if name in MAPS or not all(NAME.fullmatch(key) for key in value):
            return {"type": "object", "additionalProperties": merged([schema_of(each) for each in value.values()])}
        inside = {key: schema_of(each, f"{name}.{key}" if name == "by" else key) for key, each in value.items()}
        return {"type": "object", "properties": inside, "required": sorted(inside)}
    if isinstance(value, list):
        return {"type": "array", "items": merged([schema_of(each, name) for each in value])}
    kinds = {bool: "boolean", int: "integer", float: "number", str: "string", type(None): "null"}
    found: Schema = {"type": kinds[type(value)]}
    unit = next((unit for end, unit in UNITS.items() if name.endswith(end)), "")
    if unit:
        found["description"] = f"In {unit}."
    if name == "level":
        found["enum"] = sorted(Level)
    return found


def merged(schemas: list[Schema]) -> Schema:
    """One schema that all of these fulfil."""
    return reduce(both, schemas, {})


def both(one: Schema, other: Schema) -> Schema:
    """The schema of what either may be."""
    if not one or not other or one == other:
        return one or other
    kinds = {*_kinds(one), *_kinds(other)}
    if "number" in kinds:
        kinds.discard("integer")
    found: Schema = {"type": kinds.pop() if len(kinds) == 1 else sorted(kinds)}
    for key in ("description", "enum"):
        if key in one or key in other:
            found[key] = one.get(key, other.get(key))
    if "properties" in one or "properties" in other:
        held = [each for each in (one, other) if "properties" in each]
        names = sorted({name for each in held for name in each["properties"]})
        found["properties"] = {
            name: merged([each["properties"][name] for each in held if name in each["properties"]]) for name in names
        }
        found["required"] = sorted(set.intersection(*(set(each["required"]) for each in held)))
    for key in ("items", "additionalProperties"):
        if key in one or key in other:
            found[key] = both(one.get(key, {}), other.get(key, {}))
    return found


def _kinds(schema: Schema) -> list[str]:
    kinds = schema.get("type", [])
    return [kinds] if isinstance(kinds, str) else list(kinds)


def written() -> dict[str, str]:
    """Name of an answer -> the text of its schema."""
    found = {}
    with tempfile.TemporaryDirectory(prefix="plain-compass-") as scratch:
        for name, asked in samples(Path(scratch)).items():
            answers = [schema_of(json.loads(quietly([*each, "--json"]))) for each in asked]
            head = {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": f"Plain Compass, {name}"}
            whole = head | {"description": f"Version {OUTPUT} of the output."} | merged(answers)
            whole["properties"]["plain_compass"]["properties"]["output"] = {"const": OUTPUT}
            found[name] = json.dumps(whole, indent=1, ensure_ascii=False, sort_keys=True) + "\n"
    return found


def main() -> int:
    """Write them, or with ``--check`` name those that are old."""
    found = written()
    if "--check" in sys.argv:
        kept = {path.stem: path.read_text(encoding="utf-8") for path in SCHEMAS.glob("*.json")}
        old = sorted(name for name in {*kept, *found} if kept.get(name) != found.get(name))
        if old:
            names = ", ".join(old)
            print(f"Schemas that are not what is answered: {names}. Run make schemas; raise OUTPUT if a key went.")
        return 1 if old else 0
    SCHEMAS.mkdir(exist_ok=True)
    for name, text in found.items():
        (SCHEMAS / f"{name}.json").write_text(text, encoding="utf-8")
    print(f"{len(found)} schemas written.")
    return 0


if __name__ == "__main__":
    sys.exit(main())
