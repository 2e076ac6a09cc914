"""How well each measurement is known, and which is most worth taking better."""

from __future__ import annotations

import math
import tomllib
from functools import cache
from typing import Any

from ..core.advice.survey import Sensitivity
from ..core.base.paths import value_at
from ..core.base.quantity import Kind
from ..core.tree.tree import Tree
from .document import TreePlan
from .fields import quantity_at
from .tables import DATA, spread_between
from .tree_readings import reading_spreads
from .words import Speech

LEAST_EFFECT = 0.01
"""Share of a limit below which a better measurement is not worth a sentence."""


@cache
def spreads() -> dict[str, Any]:
    """The shipped spreads of each way of measuring."""
    return tomllib.loads((DATA / "spreads.toml").read_text(encoding="utf-8"))


def plan_spreads(plan: TreePlan) -> dict[str, float]:
    """Spread of every measured input of a tree, by path from its case: of its readings where there are any."""
    known = usual_spreads(plan.tree)
    found = known | {path: spread for path, spread in reading_spreads(plan).items() if path in known}
    unmeasured = {f"tree.{path}" for path in plan.tree.stand_ins}
    return {path: spread for path, spread in found.items() if spread > 0 and path not in unmeasured}


def usual_spreads(tree: Tree) -> dict[str, float]:
    """Spread of every measured input as it is usually measured. Inputs that are not there are left out."""
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
    if tree.decay.kind == "shell":
        for index, probe in enumerate(tree.decay.shell):
            found[f"tree.decay.shell.{index}.sound_m"] = usual["probe"] * max(probe.sound_m, 0.02)
    if tree.fork.kind == "second":
        found["tree.fork.diameter_m"] = usual["limb"] * tree.fork.diameter_m
        found["tree.fork.lean_deg"] = float(spreads()["lean_deg"]["eye"])
    for index, limb in enumerate(tree.limbs):
        found[f"tree.limbs.{index}.diameter_m"] = usual["limb"] * limb.diameter_m
        found[f"tree.limbs.{index}.length_m"] = usual["limb"] * limb.length_m
    return found


def fall_spreads(plan: TreePlan) -> dict[str, float]:
    """Spread of everything a fall depends on: the tree as it was measured, and the wood of its species."""
    return plan_spreads(plan) | {f"wood.{name}": ratio for name, ratio in wood_spreads(plan.tree.species).items()}


def wood_spreads(species: str) -> dict[str, float]:
    """Spread of each property of the wood as a share: within a species, and between those an unknown one may be."""
    between = spread_between(species)
    return {name: math.hypot(ratio, between.get(name, 0.0)) for name, ratio in spreads()["wood"].items()}


def cutting_spreads() -> dict[str, float]:
    """Spread of the cutter's own work, and of the wind."""
    return {name: float(value) for name, value in spreads()["cutting"].items()}


COMPASS_NAMES = {0.0: "north", 90.0: "east", 180.0: "south", 270.0: "west"}
"""What a person calls the four."""


def named_input(tree: Tree, path: str, speech: Speech) -> str:
    """What a person calls an input of the tree."""
    if any(char.isdigit() for char in path):
        bearing = value_at(tree, path.removeprefix("tree.").rsplit(".", 1)[0]).bearing_deg
        return f"{speech.label(quantity_at(path))} {COMPASS_NAMES.get(bearing, speech.show(bearing, Kind.BEARING))}"
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
