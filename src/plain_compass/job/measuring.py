"""Measuring methods by name: what each wants typed, how well that is known, and what it answers."""

from __future__ import annotations

import re
import tomllib
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any

from ..core.errors import PlainCompassError
from ..core.measuring import girth, height, lean
from ..core.measuring.estimate import Estimate, Reading
from ..core.paths import held
from ..core.survey import Sensitivity
from ..core.tree import Tree
from .fields import quantity_at
from .tables import DATA
from .units import parse
from .words import Speech

LEAST_EFFECT = 0.01
"""Share of a limit below which a better measurement is not worth a sentence."""
_PLUS_MINUS = re.compile(r"\s*(?:±|\+-|\+/-)\s*")


@cache
def spreads() -> dict[str, Any]:
    """The shipped spreads of each way of measuring."""
    return tomllib.loads((DATA / "spreads.toml").read_text(encoding="utf-8"))


class MeasureError(PlainCompassError, ValueError):
    """A measurement that was asked for without all it wants."""


@dataclass(frozen=True, slots=True)
class Wanted:
    """One thing to type for a method.

    Attributes:
        kind: what it measures.
        spread: (table, way) in ``spreads.toml`` that says how well it is known unless that is typed too.
        default: text taken when it is left out; empty when it must be given.
    """

    kind: str
    spread: tuple[str, str]
    default: str = ""


@dataclass(frozen=True, slots=True)
class Answer:
    """One result: its name with unit, its kind, and the estimate."""

    name: str
    kind: str
    estimate: Estimate


@dataclass(frozen=True, slots=True)
class Method:
    """One way of measuring one thing."""

    wants: Mapping[str, Wanted]
    answer: Callable[..., tuple[Answer, ...]]


TAPE, HAND = ("length", "tape"), ("length", "hand")
DISTANCE, ANGLE, BEARING = ("distance", "tape"), ("angle_deg", "clinometer"), ("bearing_deg", "compass")


def _height(estimate: Estimate) -> tuple[Answer, ...]:
    return (Answer("height_m", "span", estimate),)


def _lean(found: lean.LeanEstimate) -> tuple[Answer, ...]:
    return Answer("lean_deg", "angle", found.angle_deg), Answer("bearing_deg", "bearing", found.bearing_deg)


METHODS: dict[str, dict[str, Method]] = {
    "height": {
        "clinometer": Method(
            {
                "distance": Wanted("span", DISTANCE),
                "top": Wanted("angle", ANGLE),
                "base": Wanted("angle", ANGLE),
                "slope": Wanted("angle", ANGLE, "0"),
            },
            lambda r: _height(height.height_by_clinometer(r["distance"], r["top"], r["base"], r["slope"])),
        ),
        "stick": Method(
            {"distance": Wanted("span", DISTANCE), "stick": Wanted("length", HAND), "reach": Wanted("length", HAND)},
            lambda r: _height(height.height_by_stick(r["distance"], r["stick"], r["reach"])),
        ),
        "shadow": Method(
            {
                "shadow": Wanted("span", DISTANCE),
                "stick": Wanted("length", TAPE),
                "stick-shadow": Wanted("length", HAND),
            },
            lambda r: _height(height.height_by_shadow(r["shadow"], r["stick"], r["stick-shadow"])),
        ),
    },
    "lean": {
        "plumb": Method(
            {
                "offset": Wanted("length", HAND),
                "drop": Wanted("span", TAPE),
                "bearing": Wanted("bearing", BEARING, "0"),
            },
            lambda r: _lean(lean.lean_by_plumb(r["offset"], r["drop"], r["bearing"])),
        ),
        "faces": Method(
            {
                "first": Wanted("angle", ANGLE),
                "second": Wanted("angle", ANGLE),
                "bearing": Wanted("bearing", BEARING, "0"),
            },
            lambda r: _lean(lean.lean_by_faces(r["first"], r["second"], r["bearing"].value)),
        ),
    },
    "girth": {
        "tape": Method(
            {"girth": Wanted("length", TAPE)},
            lambda r: (Answer("diameter_m", "length", girth.diameter_from_girth(r["girth"])),),
        ),
        "calliper": Method(
            {"diameter": Wanted("length", TAPE)},
            lambda r: (Answer("girth_m", "length", girth.girth_from_diameter(r["diameter"])),),
        ),
        "under-bark": Method(
            {"diameter": Wanted("length", TAPE), "bark": Wanted("length", HAND)},
            lambda r: (Answer("diameter_m", "length", girth.under_bark(r["diameter"], r["bark"])),),
        ),
    },
}


def typed_reading(text: str, wanted: Wanted, units: str) -> Reading:
    """A reading typed as ``20 m`` or ``20 m ± 0.3 m``; its spread comes from the table when it is not typed.

    Raises TypedError with a sentence when either part cannot be read.
    """
    pieces = _PLUS_MINUS.split(text, maxsplit=1)
    value = parse(pieces[0], wanted.kind, units)
    if len(pieces) == 2:
        return Reading(value, abs(parse(pieces[1], wanted.kind, units)))
    table, way = wanted.spread
    usual = float(spreads()[table][way])
    return Reading(value, usual if table.endswith("_deg") else usual * abs(value))


def measure(thing: str, way: str, typed: Mapping[str, str], units: str) -> tuple[Answer, ...]:
    """Answer one measurement from typed text by name.

    Raises MeasureError when something is missing, InputError when it cannot be read or makes no sense.
    """
    method = METHODS[thing][way]
    readings = {}
    for name, wanted in method.wants.items():
        text = typed.get(name) or wanted.default
        if not text:
            why = f"measuring {thing} by {way} wants " + ", ".join(f"--{each}" for each in method.wants)
            raise MeasureError(f"--{name} is missing: {why}.")
        readings[name] = typed_reading(text, wanted, units)
    return method.answer(readings)


def told(answers: tuple[Answer, ...], speech: Speech) -> str:
    """The answers as one line, with their spread and what decides it."""
    parts = []
    for answer in answers:
        name = answer.name.rsplit("_", 1)[0]
        value, spread = (speech.show(v, answer.kind) for v in (answer.estimate.value, answer.estimate.spread))
        driver = f", mostly from the {answer.estimate.driver}" if len(answer.estimate.shares) > 1 else ""
        parts.append(f"{name} {value} ± {spread}{driver if answer.estimate.driver else ''}")
    return "; ".join(parts)


def tree_spreads(tree: Tree) -> dict[str, float]:
    """Spread of every measured input of a tree, by path from its case. Inputs that are not there are left out."""
    usual, lean_deg = spreads()["tree"], float(spreads()["lean_deg"][tree.lean.method])
    found = {
        "tree.trunk.diameter_m": usual["diameter"] * tree.trunk.diameter_m,
        "tree.height_m": usual["height"] * tree.height_m,
        "tree.crown.base_m": usual["crown_base"] * tree.crown.base_m,
        "tree.lean.angle_deg": lean_deg,
        "tree.lean.bearing_deg": usual["bearing_deg"],
        "tree.trunk.bark_m": usual["bark"] * tree.trunk.bark_m,
    }
    if tree.trunk.butt_diameter_m is not None:
        found["tree.trunk.butt_diameter_m"] = usual["diameter"] * tree.trunk.butt_diameter_m
    for index, reading in enumerate(tree.crown.readings):
        found[f"tree.crown.readings.{index}.radius_m"] = usual["crown_edge"] * reading.radius_m
    if tree.lean.sweep_m > 0:
        found["tree.lean.sweep_m"] = usual["sweep"] * tree.lean.sweep_m
    if tree.decay.kind == "cavity":
        found["tree.decay.radius_m"] = usual["rot"] * tree.decay.radius_m
    return {path: spread for path, spread in found.items() if spread > 0}


COMPASS_NAMES = {0.0: "north", 90.0: "east", 180.0: "south", 270.0: "west"}


def named_input(tree: Tree, path: str, speech: Speech) -> str:
    """What a person calls an input of the tree."""
    if ".readings." in path:
        bearing = held(tree, path.removeprefix("tree.").rsplit(".", 1)[0]).bearing_deg
        return f"crown edge {COMPASS_NAMES.get(bearing, speech.show(bearing, 'bearing'))}"
    return speech.label(quantity_at(path))


def measure_better(tree: Tree, found: tuple[Sensitivity, ...], speech: Speech) -> str:
    """One sentence naming the input that is most worth measuring better; empty when none matters."""
    if not found or found[0].effect < LEAST_EFFECT:
        return ""
    first = found[0]
    kind = quantity_at(first.path).kind
    value, spread = speech.show(first.value, kind), speech.show(first.spread, kind)
    return (
        f"Most worth measuring better: {named_input(tree, first.path, speech)} ({value} ± {spread}). "
        f"Within its spread it moves the least margin by {first.effect * 100:.0f} %."
    )
