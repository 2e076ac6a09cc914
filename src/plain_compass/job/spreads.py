"""How well each measurement is known, and which is most worth taking better."""

from __future__ import annotations

import math
import tomllib
from collections.abc import Mapping
from functools import cache, lru_cache
from typing import Any

from ..core.advice.worth import most_worth
from ..core.assess import Assessment, with_chances, with_unknowns
from ..core.base.paths import value_at
from ..core.base.phrase import Phrase, phrase
from ..core.base.quantity import Kind
from ..core.fall.spread import AIM, LEFT, MEAN, RIGHT
from ..core.judge.chances import Chances, Spreads, chances_of
from ..core.stump.hand import AIM as AIMED
from ..core.stump.hand import HEIGHT, LEAN, SHIPPED, Hand
from ..core.stump.hand import LEFT as LEFT_END
from ..core.stump.hand import RIGHT as RIGHT_END
from ..core.stump.quantities import Shipped
from ..core.tree.moved import ACROSS
from ..core.tree.tree import Tree
from .document import Job, TreePlan, assess_tree
from .fields import quantity_at
from .language import tr
from .tables import DATA, spread_between
from .tree_readings import height_way, reading_spreads
from .words import Speech

LEAST_EFFECT = 0.01
"""Share of a limit below which a better measurement is not worth a sentence."""


@cache
def spreads() -> dict[str, Any]:
    """The shipped spreads of each way of measuring."""
    return tomllib.loads((DATA / "spreads.toml").read_text(encoding="utf-8"))


BEARING = "tree.lean.bearing_deg"


def plan_spreads(plan: TreePlan, hand: Hand = SHIPPED) -> dict[str, float]:
    """Spread of every measured input of a tree, by path from its case: of its readings where there are any.

    Args:
        hand: what of one's own stumps is used: how well one measures, by the way it was measured.
    """
    known = usual_spreads(plan.tree)
    read = reading_spreads(plan)
    found = known | {path: spread for path, spread in read.items() if path in known}
    found |= {path: spread for path, spread in _own_eye(plan, hand).items() if path in known}
    unmeasured = {f"tree.{path}" for path in plan.tree.stand_ins}
    if BEARING in read:
        found[f"tree.{ACROSS}"] = _across_deg(plan.tree, found["tree.lean.angle_deg"], read[BEARING])
    return {path: spread for path, spread in found.items() if spread > 0 and not unmeasured & {path, _field(path)}}


def _field(path: str) -> str:
    """The field a spread is of: the lean across its bearing is measured with the lean."""
    return "tree.lean.angle_deg" if path == f"tree.{ACROSS}" else path


def _across_deg(tree: Tree, angle_deg: float, bearing_deg: float) -> float:
    """Spread of the lean across its bearing: that of the lean along it, or what the bearing's gives if that is more.

    An upright tree leans nowhere, and its bearing says nothing; looked at from two sides it may lean either way.
    """
    return max(angle_deg, tree.lean.angle_deg * math.sin(math.radians(min(bearing_deg, 90.0))))


def usual_spreads(tree: Tree) -> dict[str, float]:
    """Spread of every measured input as it is usually measured. Inputs that are not there are left out."""
    usual, lean_deg = spreads()["tree"], float(spreads()["lean_deg"][tree.lean.method])
    found = {
        "tree.trunk.diameter_m": usual["diameter"] * tree.trunk.diameter_m,
        "tree.height_m": usual["height"] * tree.height_m,
        "tree.crown.base_m": usual["crown_base"] * tree.crown.base_m,
        "tree.lean.angle_deg": lean_deg,
        f"tree.{ACROSS}": _across_deg(tree, lean_deg, usual["bearing_deg"]),
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


def _own_eye(plan: TreePlan, hand: Hand) -> dict[str, float]:
    """Spread of height and lean as this person measures them, where that is known."""
    height, lean = hand.get(f"{HEIGHT}:{height_way(plan)}"), hand.get(f"{LEAN}:{plan.tree.lean.method}")
    found = {}
    if height is not None:
        found["tree.height_m"] = height.spread * plan.tree.height_m
    if lean is not None:
        found["tree.lean.angle_deg"] = found[f"tree.{ACROSS}"] = lean.spread
    return found


def _means(plan: TreePlan, hand: Hand, spreads: Mapping[str, float]) -> dict[str, float]:
    """Where the middle of each input lies, in its spreads: what was measured too high is likely lower."""
    height, lean = hand.get(f"{HEIGHT}:{height_way(plan)}"), hand.get(f"{LEAN}:{plan.tree.lean.method}")
    found = {}
    if height is not None and spreads.get("tree.height_m"):
        over = height.mean / (1.0 + height.mean)
        found[f"{MEAN}tree.height_m"] = -over * plan.tree.height_m / spreads["tree.height_m"]
    if lean is not None and spreads.get("tree.lean.angle_deg"):
        found[f"{MEAN}tree.lean.angle_deg"] = -lean.mean / spreads["tree.lean.angle_deg"]
    return found


def fall_spreads(plan: TreePlan, hand: Hand = SHIPPED) -> dict[str, float]:
    """Spread of everything a fall depends on: the tree as it was measured, and the wood of its species."""
    return spreads_of(plan, hand).found


def wood_spreads(species: str) -> dict[str, float]:
    """Spread of each property of the wood as a share: within a species, and between those an unknown one may be."""
    between = spread_between(species)
    return {name: math.hypot(ratio, between.get(name, 0.0)) for name, ratio in spreads()["wood"].items()}


def spreads_of(plan: TreePlan, hand: Hand = SHIPPED) -> Spreads:
    """Spread of everything the limits of a tree's plan depend on, and where its middle lies by one's own stumps."""
    measured = plan_spreads(plan, hand)
    return Spreads(measured, wood_spreads(plan.tree.species), cutting_spreads(hand) | _means(plan, hand, measured))


def judged_tree(job: Job, tree_id: str) -> tuple[Assessment, Chances]:
    """Assess one tree of a job, each limit judged by how likely it is to fail as the tree was measured."""
    result = assess_tree(job, tree_id)
    chances = chances_of(result.case, spreads_of(job.plan(tree_id), job.hand))
    return with_unknowns(with_chances(result, chances)), chances


def judged_before(job: Job, tree_id: str, before: Chances) -> Assessment:
    """Assess one tree of a job by the chances of a plan just before this one, told as still to be reckoned."""
    return with_unknowns(with_chances(assess_tree(job, tree_id), before, is_pending=True))


def cutting_spreads(hand: Hand = SHIPPED) -> dict[str, float]:
    """Spread of the cutter's own work, and of the wind; by his own stumps where they are used."""
    return dict(_cutting(hand))


@lru_cache(maxsize=8)
def _cutting(hand: Hand) -> dict[str, float]:
    found = {name: float(value) for name, value in spreads()["cutting"].items() if name not in LOGGED}
    aim = hand.get(AIMED)
    if aim is not None and aim.spread > 0:
        # A mean counts clockwise, a stump's error to the left.
        found |= {"aim_deg": aim.spread, MEAN + AIM: -aim.mean / aim.spread}
    for key, path, name in ((LEFT_END, LEFT, "hinge_left_m"), (RIGHT_END, RIGHT, "hinge_right_m")):
        end = hand.get(key)
        if end is not None and end.spread > 0:
            found |= {name: end.spread, MEAN + path: end.mean / end.spread}
    return found


LOGGED = ("depth_m", "step_m")
"""Spreads that only the log holds records against."""


def shipped() -> Shipped:
    """What is taken of a hand and an eye nobody knows."""
    cutting = {name: float(value) for name, value in spreads()["cutting"].items()}
    return Shipped(
        aim_deg=cutting["aim_deg"],
        depth_m=cutting["depth_m"],
        step_m=cutting["step_m"],
        hinge_m=cutting["hinge_m"],
        hinge_share=cutting["hinge_share"],
        height=float(spreads()["tree"]["height"]),
        lean_deg={way: float(value) for way, value in spreads()["lean_deg"].items()},
    )


COMPASS_NAMES = {0.0: "north", 90.0: "east", 180.0: "south", 270.0: "west"}
"""What a person calls the four."""


def named_input(tree: Tree, path: str, speech: Speech) -> str:
    """What a person calls an input of the tree."""
    if path == f"tree.{ACROSS}":
        return tr("lean across its bearing")
    if any(char.isdigit() for char in path):
        bearing = value_at(tree, path.removeprefix("tree.").rsplit(".", 1)[0]).bearing_deg
        return f"{speech.label(quantity_at(path))} {COMPASS_NAMES.get(bearing, speech.show(bearing, Kind.BEARING))}"
    return speech.label(quantity_at(path))


BETTER = {
    "height_m": "height",
    "crown.base_m": "crown_base",
    "radius_m": "crown_edge",
    "trunk.bark_m": "bark",
    "decay.radius_m": "rot",
    "lean.sweep_m": "sweep",
    "fork.diameter_m": "limb",
    "length_m": "limb",
}
"""How the path of an input ends, and which better way of measuring it there is."""


def better_ways(plan: TreePlan) -> dict[str, tuple[float, str]]:
    """(share of its spread that a better way of measuring leaves, the way) of each input that has one, by path."""
    known, ways, found = plan_spreads(plan), spreads()["better"], {}
    for path, spread in known.items():
        if path in ("tree.lean.angle_deg", f"tree.{ACROSS}"):
            left, way = ways["lean_deg"] / spread, "lean"
        else:
            way = next((way for end, way in BETTER.items() if path.endswith(end)), "")
            if not way or (path.startswith("tree.decay") and way != "rot"):
                continue
            left = ways[way] * float(value_at(plan, path)) / spread
        if left < WORTH_BELOW:
            found[path] = left, way
    return found


WORTH_BELOW = 0.8
"""A way of measuring that leaves more of the spread is no better."""


def measure_better(plan: TreePlan, result: Assessment, chances: Chances | None, speech: Speech) -> str:
    """One sentence naming the input that is most worth measuring better, and the gain; empty when none matters."""
    if chances is None:
        return ""
    ways = better_ways(plan)
    found = most_worth(result.findings, chances, {path: left for path, (left, _) in ways.items()})
    if found is None:
        return ""
    name = named_input(plan.tree, found.path, speech)
    about = {"name": name, "group": speech.named("groups", found.finding.group).lower()}
    if found.clears is not None and found.clears >= LEAST_GAIN:
        way = Phrase(f"worth.way.{ways[found.path][1]}")
        return speech.phrase(phrase("worth.clears", **about, way=way, times=found.clears))
    return speech.phrase(phrase("worth.weighs", **about, share=found.share))


LEAST_GAIN = 0.05
"""A better look that settles a limit less often than this is told by how much it weighs alone."""
