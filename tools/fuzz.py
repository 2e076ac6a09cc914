"""Feed the program nonsense for some minutes: ``make fuzz MINUTES=5``. Anything but an answer or a sentence is a find.

Four kinds in turn: job files with values moved, doubled, cut and replaced; typed measures; tables and site plans; whole
cases with their inputs at the ends of their ranges, assessed and felled. Finds are printed with their seed.
"""

from __future__ import annotations

import argparse
import copy
import json
import math
import random
import sys
import time
import traceback
from collections.abc import Callable
from dataclasses import fields, is_dataclass, replace
from typing import Any

from plain_compass.core.base.errors import PlainCompassError
from plain_compass.core.base.quantity import Quantity
from plain_compass.job.demo import demo_job
from plain_compass.job.document import assess_tree
from plain_compass.job.fall import with_its_fall
from plain_compass.job.files import job_text, parse_job
from plain_compass.job.geojson import import_geojson, site_geojson
from plain_compass.job.report import assessment_to_plain
from plain_compass.job.spot_heights import import_spots
from plain_compass.job.spreads import judged_tree
from plain_compass.job.tree_list import export_csv, import_csv
from plain_compass.job.typed import parse_typed
from plain_compass.job.units import EXAMPLES

ODD: tuple[Any, ...] = (
    None, True, 0, -1, 1e308, -1e308, 10**400, 1e-320, "", "x", "\x00", "{0}", "[hinge]", "<b>", [], {}, [1], {"a": 1},
    "9" * 400, [[]], 3.5, "2026-13-45", -0.0,
)  # fmt: skip
LETTERS = "0123456789.,/ -+±%°'\"mcinftydNSEWLRkgh\u2009\u00a0½\n\x00"
Chance = random.Random


def _places(value: Any, path: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    found = [path]
    if isinstance(value, dict):
        for key, each in value.items():
            found += _places(each, (*path, key))
    elif isinstance(value, list):
        for index, each in enumerate(value):
            found += _places(each, (*path, index))
    return found


def _moved(document: Any, chance: Chance) -> Any:
    """The document with a few of its values replaced, doubled or gone."""
    changed = copy.deepcopy(document)
    for _ in range(chance.randint(1, 3)):
        path = chance.choice([path for path in _places(changed) if path])
        holder = changed
        for key in path[:-1]:
            holder = holder[key]
        if chance.random() < 0.2:
            del holder[path[-1]]
        elif chance.random() < 0.2 and isinstance(holder, list):
            holder.append(copy.deepcopy(holder[path[-1]]))
        else:
            holder[path[-1]] = chance.choice(ODD)
    return changed


def _cut(text: str, chance: Chance) -> str:
    """The text with letters put in, taken out or cut off."""
    for _ in range(chance.randint(1, 4)):
        at = chance.randrange(len(text) + 1)
        end = min(at + chance.randint(0, 5), len(text))
        text = text[:at] + "".join(chance.choice(LETTERS) for _ in range(chance.randint(0, 3))) + text[end:]
    return text[: chance.randrange(len(text) + 1)] if chance.random() < 0.1 else text


def job_files(chance: Chance) -> None:
    """A damaged job file is refused in a sentence, or can be assessed and written again."""
    text = job_text(demo_job())
    text = json.dumps(_moved(json.loads(text), chance)) if chance.random() < 0.7 else _cut(text, chance)
    opened = parse_job(text, "fuzzed")
    job_text(opened.job, opened.raw).encode("utf-8")
    assess_tree(opened.job, opened.job.trees[0].id)


def typed(chance: Chance) -> None:
    """What is typed is read as a finite measure or refused."""
    kind = chance.choice(list(EXAMPLES))
    start = chance.choice(EXAMPLES[kind].split(", "))
    value = parse_typed(_cut(start, chance), kind, chance.choice(("metric", "imperial")), 0.5)
    if not math.isfinite(value.value):
        raise AssertionError(f"{value} is no measure")


def tables(chance: Chance) -> None:
    """Tables and site plans are taken, skipped row by row or refused."""
    job = demo_job()
    what = chance.randrange(3)
    if what == 0:
        import_csv(_cut(export_csv(replace(job, trees=job.trees[:2])), chance), "fuzzed", job.practice)
    elif what == 1:
        import_spots(_cut("east [m],north [m],height [m]\n0,0,1\n5,5,2\n-3,8,0.5\n", chance), "fuzzed", None)
    else:
        plan = json.loads(site_geojson(job))
        import_geojson(json.dumps(_moved(plan, chance)), "fuzzed", job)


def _extreme(value: Any, chance: Chance) -> Any:
    """A frozen dataclass tree with some of its numbers at, or close to, the ends of their ranges."""
    changes: dict[str, Any] = {}
    for item in fields(value):
        held, told = getattr(value, item.name), item.metadata.get("quantity")
        if isinstance(told, Quantity) and chance.random() < (0.15 if held is not None else 0.1):
            of = int if told.kind == "count" else float
            changes[item.name] = of(chance.choice((told.low, told.high, (told.low + told.high) / 2)))
        elif is_dataclass(held):
            changes[item.name] = _extreme(held, chance)
        elif isinstance(held, tuple) and held and all(is_dataclass(each) for each in held):
            changes[item.name] = tuple(_extreme(each, chance) for each in held)
    return replace(value, **changes)


def cases(chance: Chance) -> None:
    """A case at the ends of its ranges is refused by its field, or answered in finite numbers, its fall included."""
    job = demo_job()
    plan = _extreme(chance.choice(job.trees), chance)
    job = replace(job, trees=(plan,), site=_extreme(job.site, chance), kit=_extreme(job.kit, chance))
    result, chances = judged_tree(job, plan.id)
    json.dumps(assessment_to_plain(job, plan, with_its_fall(plan, result), chances), allow_nan=False)


KINDS: tuple[Callable[[Chance], None], ...] = (job_files, typed, tables, cases)


def tried(kind: Callable[[Chance], None], seed: int) -> str:
    """Empty where the program gave an answer or a sentence; otherwise what happened."""
    try:
        kind(random.Random(seed))
    except PlainCompassError as error:
        text = str(error)
        return "" if text.endswith((".", ".”", "!")) and "\n" not in text else f"no sentence: {text!r}"
    except Exception:
        return traceback.format_exc(limit=-4)
    return ""


def main() -> int:
    """Go on for so many minutes; exit status 1 when something was found."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--minutes", type=float, default=3.0)
    parser.add_argument("--seed", type=int, default=1)
    arguments = parser.parse_args()
    until, seed, found = time.monotonic() + 60 * arguments.minutes, arguments.seed, {}
    while time.monotonic() < until:
        for kind in KINDS:
            told = tried(kind, seed)
            if told:
                found.setdefault((kind.__name__, told.strip().splitlines()[-1][:60]), (seed, told))
        seed += 1
    for (kind_name, _), (at, told) in found.items():
        print(f"{kind_name}, seed {at}:\n{told}")
    print(f"{(seed - arguments.seed) * len(KINDS)} inputs, {len(found)} unlike finds.")
    return 1 if found else 0


if __name__ == "__main__":
    sys.exit(main())
