"""Made-up trees of a seed: ordinary ones as most are, and hard ones that nobody should find clear."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import replace
from typing import Any

import numpy as np

MIDDLE_m, SPREAD = 0.38, 0.45
LEAST_m, MOST_m = 0.15, 1.20
"""Diameters: median, spread of the logarithm, and the least and most."""
TWO_WEDGES_m = 0.042
"""What two wedges of the kit lift on each other."""
CROWN_MIDDLE = 0.4
"""Where the middle of a crown's outline stands, from its base to the top."""
TRAINED = "demanding"
"""What the person who plans says they are trained for."""
PLUMBED = 0.5
"""Share of the leans that were hung with a plumb line; the others were taken with a clinometer."""


def ordinary(count: int, seed: int, practice: str, trained: str = TRAINED) -> Iterator[Any]:
    """Plans of ordinary trees with the practice's first design: 15 to 120 cm, little lean, everything answered.

    Leaning -2 to 4 degrees along the lay and one degree (standard deviation) across it, one to three wedges, a bar of
    0.5 to 1.3 diameters, no obstacle, calm.
    """
    rng = np.random.default_rng(seed)
    for number in range(count):
        along, across = rng.uniform(-2.0, 4.0), rng.normal(0.0, 1.0)
        yield _job(f"O{number:04d}", _with_lean(_upright(rng), along, across), rng, practice, trained)


def upright(count: int, seed: int, practice: str, trained: str = TRAINED, *, textbook: bool = False) -> Iterator[Any]:
    """Plans of upright trees, 0 to 1.5 degrees of lean any way, with two ordinary wedges.

    Args:
        textbook: typed as the books have it, face 22 %, hinge a tenth, 70 degrees open, 3 cm of step; otherwise the
            practice's first design.
    """
    rng = np.random.default_rng(seed)
    for number in range(count):
        lean, towards = rng.uniform(0.0, 1.5), rng.uniform(0.0, 2 * math.pi)
        tree = _with_lean(_upright(rng), lean * math.cos(towards), lean * math.sin(towards))
        job = _job(f"U{number:04d}", tree, rng, practice, trained)
        job = replace(job, kit=replace(job.kit, wedge_count=2, bar_m=max(0.55 * tree.trunk.diameter_m, 0.38)))
        yield _by_the_book(job) if textbook else _redesigned(job)


def leaning(count: int, seed: int, practice: str, trained: str = TRAINED) -> Iterator[Any]:
    """Plans of trees that lean any way up to 8 degrees, with the practice's first design: easy ones and hard ones."""
    rng = np.random.default_rng(seed)
    for number in range(count):
        lean, towards = rng.uniform(0.0, 8.0), rng.uniform(0.0, 2 * math.pi)
        tree = _with_lean(_upright(rng), lean * math.cos(towards), lean * math.sin(towards))
        yield _redesigned(_job(f"L{number:04d}", tree, rng, practice, trained))


def _by_the_book(job: Any) -> Any:
    """The cut typed as the books have it, one wedge straight behind, two from 30 cm on."""
    from plain_compass.core.design.cut import BackCut, Cut, Face, Hinge, WedgeSeat
    from plain_compass.core.plan.many import place_of
    from plain_compass.job.document import case_of, with_plan

    name = job.trees[0].id
    depth = place_of(case_of(job, name)).section().depth_m
    seats = (WedgeSeat(-25.0), WedgeSeat(25.0)) if depth >= TWO_FROM_m else (WedgeSeat(0.0),)
    cut = Cut(
        lay_deg=0.0,
        height_m=0.3,
        face=Face("open", round(0.22 * depth, 3), 50.0, 20.0),
        hinge=Hinge(max(round(0.1 * depth, 3), 0.02), max(round(0.1 * depth, 3), 0.02)),
        back=BackCut("plain", 0.03, 0.05),
        wedges=seats,
    )
    return with_plan(job, name, "cut", cut)


def _redesigned(job: Any) -> Any:
    from plain_compass.job.edits import redesigned

    return redesigned(job, job.trees[0].id)


TWO_FROM_m = 0.30
"""Depth of wood from which two wedges stand side by side."""


def hard(count: int, seed: int, practice: str, trained: str = TRAINED) -> Iterator[Any]:
    """Plans of hard ones by turns.

    Leaners of 8 to 20 degrees, rot to a shell of a quarter and less, side weight past what a hinge holds, back lean
    past what wedges lift.
    """
    rng = np.random.default_rng(seed)
    for number in range(count):
        kind = ("leaner", "shell", "side", "back")[number % 4]
        along, across = rng.uniform(-2.0, 4.0), rng.normal(0.0, 1.0)
        if kind == "leaner":
            along = rng.uniform(8.0, 20.0)
        if kind == "side":
            across = math.copysign(rng.uniform(8.0, 16.0), across)
        tree = _upright(rng)
        if kind == "back":
            along = -_lifts_deg(tree) - rng.uniform(1.0, 5.0)
        tree = _with_lean(tree, along, across)
        if kind == "shell":
            tree = _hollow(tree, rng.uniform(0.15, 0.25))
        yield _job(f"H{number:04d} {kind}", tree, rng, practice, trained)


def _upright(rng: np.random.Generator) -> Any:
    from plain_compass.core.tree.around import ABOVE, LEAVE, LIFE, Around
    from plain_compass.core.tree.tree import Crown, CrownReading, Decay, Lean, Tree, Trunk
    from plain_compass.job.tables import UNKNOWN, species_table

    woods = [wood for key, wood in species_table().items() if not key.startswith(UNKNOWN)]
    wood = woods[int(rng.integers(len(woods)))]
    diameter = _diameter(rng)
    # Slender while young, stout when old: 10 to 40 m, as stands and parks have them.
    height = 36.0 * (1.0 - math.exp(-3.2 * diameter)) * rng.uniform(0.75, 1.15)
    base = height * rng.uniform(0.25, 0.55)
    wide = (0.10 if wood.group == "conifer" else 0.18) * height * rng.uniform(0.8, 1.2)
    edges = tuple(CrownReading(turn, float(wide * rng.uniform(0.9, 1.1))) for turn in (0.0, 90.0, 180.0, 270.0))
    method = "plumb" if rng.random() < PLUMBED else "clinometer"
    return Tree(
        species=wood.key,
        height_m=float(height),
        trunk=Trunk(diameter_m=float(diameter), bark_m=float(0.03 * diameter)),
        crown=Crown(base_m=float(base), readings=edges),
        lean=Lean(method=method),
        decay=Decay(kind="none"),
        crack="none",
        around=Around(**dict.fromkeys((*ABOVE, *LIFE), "no"), **dict.fromkeys(LEAVE, "yes")),
    )


def _lifts_deg(tree: Any) -> float:
    """How far two wedges on each other tilt it, which reach over two thirds of the stem."""
    return math.degrees(math.atan(TWO_WEDGES_m / (0.67 * tree.trunk.diameter_m)))


def _with_lean(tree: Any, along_deg: float, across_deg: float) -> Any:
    """The tree leaning so, the lay to the north: its crown's edges, paced from the stem's foot, move along."""
    lean = math.hypot(along_deg, across_deg)
    towards = math.degrees(math.atan2(across_deg, along_deg)) % 360.0
    middle = tree.crown.base_m + CROWN_MIDDLE * (tree.height_m - tree.crown.base_m)
    off = middle * math.tan(math.radians(lean))
    edges = tuple(
        replace(each, radius_m=max(each.radius_m + off * math.cos(math.radians(each.bearing_deg - towards)), 0.0))
        for each in tree.crown.readings
    )
    leans = replace(tree.lean, angle_deg=float(lean), bearing_deg=float(towards))
    return replace(tree, lean=leans, crown=replace(tree.crown, readings=edges))


def _diameter(rng: np.random.Generator) -> float:
    """As diameters lie in a wood: most about the middle, a few very large."""
    while True:
        found = MIDDLE_m * math.exp(SPREAD * rng.standard_normal())
        if LEAST_m <= found <= MOST_m:
            return float(found)


def _hollow(tree: Any, shell_ratio: float) -> Any:
    from plain_compass.core.tree.tree import Decay

    radius = 0.5 * tree.trunk.diameter_m - tree.trunk.bark_m
    return replace(tree, decay=Decay(kind="cavity", radius_m=float((1.0 - shell_ratio) * radius)))


def _job(name: str, tree: Any, rng: np.random.Generator, practice: str, trained: str) -> Any:
    """A job of one tree, its first design on a lay to the north."""
    from plain_compass.core.design.kit import Kit
    from plain_compass.core.judge.who import Stated
    from plain_compass.core.site.site import Site
    from plain_compass.job.document import Job, TreePlan
    from plain_compass.job.edits import redesigned
    from plain_compass.job.person import Person

    bar = min(max(float(rng.uniform(0.5, 1.3)) * tree.trunk.diameter_m, 0.25), 1.5)
    kit = replace(Kit(), bar_m=bar, wedge_count=int(rng.integers(1, 4)))
    site = replace(Site(), wind_m_s=0.0, looked="yes")
    person = Person(limits=Stated(trained=trained, company="together"))
    job = Job(name=name, practice=practice, site=site, kit=kit, person=person, trees=(TreePlan(id=name, tree=tree),))
    return redesigned(job, name)
