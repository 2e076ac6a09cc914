"""Stumps with one fault, drawn by rejection until that fault alone is what is wrong and what moved the tree."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import numpy as np

from ..base.errors import InputError
from ..base.frames import full_turn_deg
from ..base.frozen import dataclass
from ..base.kept import kept
from ..design.first import first_design
from ..plan.case import Case
from ..stump.as_cut import AsCut
from ..stump.mistakes import SEEN, mistakes_of
from ..stump.why import Why, why
from ..tree.crown import mean_radius_m
from ..tree.limbs import Fork
from ..tree.tree import Tree

FAULTS_BY_LEVEL: dict[int, tuple[str, ...]] = {
    1: ("aim", "uneven"),
    2: ("aim", "uneven", "floor-overcut", "bored-far"),
    3: ("aim", "uneven", "floor-overcut", "bored-far", "low-step", "thin-strap"),
}
"""Level -> keys of the faults that may be wrong with a stump."""
STEERS = ("aim", "uneven")
"""Faults that move the top; of the others it is not asked how far."""
LEAST_MISS_DEG = 2.0
"""A top that lies nearer to its mark than this lies on it: nobody could tell."""
LEAST_SHARE = 0.8
"""Of a miss the named fault has at least this Shapley share."""
BESIDE_DEG = (50.0, -50.0)
"""Where two wedges are set, from straight behind."""
SIDES = ("left", "on-mark", "right")
"""Where a top may lie, seen along the lay."""


@dataclass(frozen=True, slots=True)
class StumpTruth:
    """Of a stump.

    Attributes:
        fault: its key; why the miss shared out.
        side: where the top lies, of ``SIDES``.
        share: Shapley share of the fault in what the cut changed; 1 where it changed nothing.
    """

    fault: str
    why: Why
    side: str
    share: float


@kept("truth of a stump", 64)
def stump_truth(case: Case, as_cut: AsCut) -> StumpTruth | None:
    """What the core says of a stump: None where it shows no fault, or several.

    Raises InputError where such a stump cannot be.
    """
    found = why(case, as_cut)
    faults = mistakes_of(case, as_cut, found.shares)
    if len(faults) != 1:
        return None
    mine = sum(abs(found.shares.get(group, 0.0)) for group in SEEN[faults[0]][1])
    whole = sum(abs(each) for each in found.shares.values())
    return StumpTruth(faults[0], found, side_of(found.told_deg), mine / whole if whole > 0.1 else 1.0)


def side_of(off_deg: float) -> str:
    """Where a top lies that is so far left of its lay."""
    return SIDES[1] if abs(off_deg) < LEAST_MISS_DEG else SIDES[0] if off_deg > 0 else SIDES[2]


def upright(made: Tree, random: np.random.Generator) -> Tree:
    """A tree under an even crown, of one stem, that would fall where it is faced: what a fault does then shows."""
    lean = replace(made.lean, angle_deg=round(float(random.uniform(0.0, 1.0)), 1), sweep_m=0.0)
    even = round(mean_radius_m(made.crown), 2)
    edges = tuple(replace(each, radius_m=even, state="live") for each in made.crown.readings)
    return replace(made, lean=lean, crown=replace(made.crown, readings=edges), fork=Fork())


def planned_cut(case: Case, lay_deg: float, *, strapped: bool) -> Case:
    """The case with a first design on a lay, stepped; bored with a strap where that is wanted."""
    cut = first_design(case.tree, case.wood, lay_deg, case.practice, case.constants)
    back = replace(cut.back, step_m=0.025, strap_m=round(max(cut.back.strap_m, 0.04), 3))
    if strapped:
        back = replace(back, form="bored")
    face = replace(cut.face, depth_m=round(cut.face.depth_m, 3))
    hinge = replace(cut.hinge, left_m=round(cut.hinge.left_m, 3), right_m=round(cut.hinge.right_m, 3))
    seats = tuple(replace(cut.wedges[0], at_deg=at) for at in BESIDE_DEG)
    return replace(case, cut=replace(cut, face=face, hinge=hinge, back=back, wedges=seats))


def faulty(case: Case, fault: str, random: np.random.Generator) -> AsCut:
    """A stump of a plan with one fault put in; one other thing is off by as little as hands scatter."""
    cut, hinge = case.cut, case.cut.hinge
    thick = hinge.mean_m
    scattered = ("aim", "left", "right")[int(random.integers(3))]
    by = float(np.clip(random.standard_normal(), -1.5, 1.5))
    read = AsCut(
        towards_deg=_towards_deg(case, 0.4 * by if scattered == "aim" else 0.0),
        hinge_left_m=round(hinge.left_m + (0.03 * thick * by if scattered == "left" else 0.0), 3),
        hinge_right_m=round(hinge.right_m + (0.03 * thick * by if scattered == "right" else 0.0), 3),
        depth_m=cut.face.depth_m,
        step_left_m=cut.back.step_m,
        step_right_m=cut.back.step_m,
        overcut_m=0.0,
        overcut_of="none",
        corners="no",
        strap_m=cut.back.strap_m if cut.back.strapped else None,
    )
    return replace(read, **_fault(case, fault, random))


def _towards_deg(case: Case, aimed_left_deg: float) -> float:
    return full_turn_deg(round(case.cut.gun_deg - aimed_left_deg, 1))


def _fault(case: Case, fault: str, random: np.random.Generator) -> dict[str, Any]:
    """What a fault leaves on the stump, by what is read."""
    hinge, side = case.cut.hinge, 1.0 if random.random() < 0.5 else -1.0
    drawn = float(random.uniform(0.0, 1.0))
    if fault == "aim":
        return {"towards_deg": _towards_deg(case, side * (3.0 + 5.0 * drawn))}
    if fault == "uneven":
        thick = hinge.mean_m
        ends = round((1.2 + 0.3 * drawn) * thick, 3), round((0.7 - 0.35 * drawn) * thick, 3)
        left, right = ends if side > 0 else ends[::-1]
        return {"hinge_left_m": left, "hinge_right_m": right}
    if fault == "floor-overcut":
        return {"overcut_m": round(0.015 + 0.02 * drawn, 3), "overcut_of": "floor"}
    if fault == "bored-far":
        share = 0.35 + 0.2 * drawn
        left, right = (round(share * end, 3) for end in (hinge.left_m, hinge.right_m))
        return {"hinge_left_m": left, "hinge_right_m": right, "corners": "yes"}
    if fault == "low-step":
        return {"step_left_m": 0.0, "step_right_m": 0.0}
    return {"strap_m": round((0.2 + 0.25 * drawn) * case.cut.back.strap_m, 3)}


def is_wanted(case: Case, as_cut: AsCut, fault: str) -> bool:
    """Whether a stump shows just this fault, and it alone is what moved the tree."""
    if mistakes_of(case, as_cut, {}) != (fault,):
        return False
    try:
        truth = stump_truth(case, as_cut)
    except InputError:
        return False
    if truth is None or truth.fault != fault or truth.share < LEAST_SHARE:
        return False
    far = abs(truth.why.told_deg)
    # Of one that steers the side can be told; of another nothing else may have moved the top.
    return far >= 1.3 * LEAST_MISS_DEG if fault in STEERS else far < 0.7 * LEAST_MISS_DEG or math.isclose(far, 0.0)
