"""What is not known for sure, as many likely falls: every measured input moved by its own spread at once.

The fall's numbers follow each input by the slope found from one small step of it, in logarithms where a number cannot
change its sign; the hinge's follow its thickness by their own powers. Inputs are taken as normal and independent.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from typing import NamedTuple, TypeAlias

import numpy as np

from ..base.errors import InputError
from ..base.frames import turned_on
from ..base.frozen import changed, dataclass
from ..base.polygon import Array
from ..design.checks import check_cut_fits
from ..mechanics.loads import blown_on, loaded
from ..mechanics.mass import tree_mass
from ..mechanics.splitting import splittings_of, sweep_back_cuts
from ..plan.case import Case, Planned
from ..plan.many import many_of, place_of
from ..tree.moved import moved
from ..tree.stem import axis_at
from ..tree.timber import fracture_J_m2
from .reckon import rod_across, shutting_pull, widened
from .rods import Rods, turned
from .sobol import MOST, normals

Slopes: TypeAlias = dict[str, float]
"""How far each of the fall's numbers moves for one spread of an input."""

CUT_INTO = ("tree.trunk.", "tree.decay.", "tree.lobes.")
"""How the inputs begin that the section at the cut depends on, and so the hinge."""
OWN = AIM, LEFT, RIGHT, WIND = "cut.aim", "cut.hinge_left", "cut.hinge_right", "site.wind"
"""What is not measured: how the cutter aims, either end of the hinge, the wind."""
LEAST_THICK_m = 0.004
"""A hinge cut thinner by mistake is one that is cut through."""
MEAN = "mean:"
"""Before the name of an input: where its middle lies, in its spreads, as one's own stumps taught."""
TOGETHER = 0.7
"""Correlation of rupture and elasticity in one tree: dense wood is strong and stiff."""
FARTHEST = 3.0
"""Spreads past which an input is not taken: beyond them a straight slope says nothing."""
STEP_AHEAD_m, STEP_HEAVIER = 0.05, 0.05
"""Steps of the centre's place and of the mass from which the slopes of splitting are taken: a good hand's error."""
LOGS = ("mass", "up", "inertia", "stiffness", "peak", "side", "twist", "breaks", "length", "drag", "split", "bends")
PLACES = ("forward", "left", "hinge_forward", "top_forward", "top_left")


@dataclass(frozen=True, eq=False)
class Samples:
    """Likely falls.

    Attributes:
        inputs: what was moved, in the order of the columns of ``moved``.
        moved: by how many of its spreads, shape (n, inputs).
        rods: the falls, one row a sample.
        split_index: splitting index of each (indicative), shape (n,).
        break_index: bending of the lying stem over what it bears (indicative), shape (n,).
        gains: energy gained on the way down over that of the plan, shape (n,).
        weight_N: of the tree, shape (n,).
        grown: what each of the fall's numbers is over that of the plan, by its name in ``LOGS``, shape (n,).
    """

    inputs: tuple[str, ...]
    moved: Array
    rods: Rods
    split_index: Array
    break_index: Array
    gains: Array
    weight_N: Array
    grown: Mapping[str, Array]

    def __len__(self) -> int:
        return len(self.rods)


def slopes_in_steps(planned: Planned, spreads: Mapping[str, float], *, whole: bool) -> Iterator[dict[str, Slopes]]:
    """The slope of the fall's numbers for each input of the tree and its wood, input by input: each takes a while.

    Args:
        spreads: one standard deviation of each: paths of the tree in its own units, ``wood.*`` as shares.
        whole: follow what is cut into as well; without it only what moves the tree's mass.
    """
    case, base = planned.case, _mass_numbers(planned.case)
    ahead, heavier = _split_slopes(planned) if whole else (0.0, 0.0)
    yield {}
    others: dict[str, _Moved] = {}
    for path, spread in spreads.items():
        found = _moved_by(case, path, spread, into=whole and path.startswith(CUT_INTO))
        others |= {path: found} if found is not None else {}
        yield {}
    into = [path for path in others if whole and path.startswith(CUT_INTO)]
    cut_into = dict(zip(into, _cut_slopes(case, [others[path] for path in into]), strict=True))
    for path, spread in spreads.items():
        if path.startswith("wood."):
            yield {path: _wood_slopes(path.removeprefix("wood."), spread, held_back=case.cut.back.held)}
        elif path in others:
            sign, _, numbers = others[path]
            slopes = {name: sign * (numbers[name] - base[name]) for name in base} | cut_into.get(path, {})
            if not path.startswith(CUT_INTO):
                slopes["split"] = ahead * slopes["forward"] + heavier * slopes["mass"]
            yield {path: slopes}
        else:
            yield {}


def _mass_numbers(case: Case) -> Slopes:
    """What the tree alone gives, without its cut: logarithms and places."""
    mass = tree_mass(case.tree, case.wood, case.cut, case.constants)
    cut, tree = case.cut, case.tree
    area, middle, *_ = blown_on(tree, case.site, is_conifer=case.wood.group == "conifer")
    top = axis_at(tree.lean, tree.height_m, cut_m=cut.height_m, tree_height_m=tree.height_m, lay_deg=cut.gun_deg)
    return {
        "mass": math.log(mass.mass_kg),
        "up": math.log(mass.com_up_m),
        "inertia": math.log(mass.inertia_kg_m2),
        "length": math.log(tree.height_m - cut.height_m),
        "drag": math.log(max(area * (middle - cut.height_m) ** 3, 1e-9)),
        "forward": mass.com_forward_m,
        "left": mass.com_left_m,
        "top_forward": top[0],
        "top_left": top[1],
    }


class _Moved(NamedTuple):
    """A case with one input of its tree moved by its spread, up or down, and what the tree then gives."""

    sign: float
    case: Case
    numbers: Slopes


def _cut_slopes(case: Case, moved: list[_Moved]) -> list[Slopes]:
    """What moves the section at the cut does to the hinge: all such inputs at once."""
    if not moved:
        return []
    many = many_of([case, *(each.case for each in moved)])
    strength = many.strength
    numbers = {
        "stiffness": np.log(np.maximum(strength.stiffness_Nm, 1.0)),
        "peak": np.log(np.maximum(strength.peak_Nm, 1.0)),
        "side": np.log(np.maximum(strength.side_capacity_Nm, 1.0)),
        "twist": np.log(np.maximum(strength.twist_capacity_Nm, 1.0)),
        "breaks": np.log(strength.break_angle_deg),
        "hinge_forward": many.hinge.forward_m,
        "split": np.log(np.maximum(many.splitting.split_index, 1e-6)),
    }
    away = {name: (of[1:] - of[0]).tolist() for name, of in numbers.items()}
    return [{name: each.sign * of[row] for name, of in away.items()} for row, each in enumerate(moved)]


def _moved_by(case: Case, path: str, spread: float, *, into: bool) -> _Moved | None:
    """The case with one input of the tree moved up by its spread, or down where up does not hold together."""
    if not path.startswith("tree."):
        return None
    for sign in (1.0, -1.0):
        try:
            other = replace(case, tree=moved(case.tree, path.removeprefix("tree."), sign * spread))
            numbers = _mass_numbers(other)
            if into:
                check_cut_fits(place_of(other).section(), other.cut)
        except InputError:
            continue
        return _Moved(sign, other, numbers)
    return None


def _split_slopes(planned: Planned) -> tuple[float, float]:
    """Slope of the splitting index's logarithm with the centre's place ahead (a metre), and with mass (a share)."""
    case = planned.case
    ahead, heavier = np.array([0.0, STEP_AHEAD_m, 0.0]), np.array([0.0, 0.0, STEP_HEAVIER])
    many = many_of([case] * 3)
    # A crack changes what resists, not how the index moves.
    sound = np.full(3, fracture_J_m2(case.wood, (case.tree.condition, "none"), case.constants))
    timbers, pulled = changed(many.timbers, fracture_J_m2=sound), loaded(many.mass, many.loads)
    mass = changed(pulled, com_forward_m=pulled.com_forward_m + ahead, mass_kg=pulled.mass_kg * (1 + heavier))
    sweep = sweep_back_cuts(many, timbers, mass, many.loads.following_Nm)
    split = splittings_of(many, timbers, sweep, mass, ahead_m=many.balance.ahead_m + ahead, kerf_m=case.kit.kerf_m)
    plain, moved, grown = np.log(np.maximum(split.split_index, 1e-6)).tolist()
    return (moved - plain) / STEP_AHEAD_m, (grown - plain) / math.log(1 + STEP_HEAVIER)


def _wood_slopes(name: str, spread: float, *, held_back: bool) -> Slopes:
    """The wood's own numbers enter by powers: G goes as M^2/(E G_c), and a held cut folds at M_u."""
    folds = 2.0 if held_back else 1.0
    return {
        "rupture": {"peak": spread, "side": spread, "split": folds * spread, "bends": -spread},
        "elasticity": {"stiffness": spread, "split": -spread},
        "shear": {"twist": spread},
        "across": {"split": -spread},
        "density": {"mass": spread, "inertia": spread, "bends": spread},
        "fibre": {"breaks": spread},
    }[name]


def samples_of(
    planned: Planned, slopes: Mapping[str, Slopes], cutting: Mapping[str, float], count: int, seed: int
) -> Samples:
    """Draw likely falls.

    Args:
        cutting: spread of the cutter's own work: ``aim_deg``, at either end of the hinge the larger of ``hinge_m`` and
            ``hinge_share`` of it, or ``hinge_left_m``, ``hinge_right_m`` where they are known, and of the wind as a
            share. With ``MEAN`` before the name of an input: by how many of its spreads its middle lies off.
        count, seed: how many; the same seed gives the same ones.
    """
    inputs = (*OWN, *_most(slopes, MOST - len(OWN)))
    moved = np.clip(_tied(normals(count, len(inputs), seed), inputs), -FARTHEST, FARTHEST)
    moved = moved + np.array([cutting.get(MEAN + path, 0.0) for path in inputs])
    by = {name: np.zeros(count) for name in (*LOGS, *PLACES)}
    for column, path in enumerate(inputs):
        for name, slope in slopes.get(path, {}).items():
            by[name] += moved[:, column] * slope
    grown = {name: np.exp(by[name]) for name in LOGS}
    rods, split = _rods(planned, (by, grown), moved, cutting)
    gains = np.exp(by["mass"] + by["up"])
    # A longer stem lies on what was reckoned for it and bends as the square of its length.
    bends = planned.parts.resting.break_index * np.exp(by["bends"] + 2.0 * by["length"])
    weight = planned.parts.mass.weight_N * grown["mass"]
    return Samples(inputs, moved, rods, split, bends, gains, weight, grown)


def _tied(moved: Array, inputs: Sequence[str]) -> Array:
    """Draws in which what belongs together moves together."""
    moved = moved.copy()
    if "wood.rupture" in inputs and "wood.elasticity" in inputs:
        strong, stiff = inputs.index("wood.rupture"), inputs.index("wood.elasticity")
        moved[:, stiff] = TOGETHER * moved[:, strong] + math.sqrt(1 - TOGETHER**2) * moved[:, stiff]
    return moved


def _most(slopes: Mapping[str, Slopes], room: int) -> list[str]:
    """The inputs there are numbers for, those that move the fall aside the most first."""

    def weight(path: str) -> float:
        each = slopes[path]
        return sum(abs(each.get(name, 0.0)) for name in ("left", "forward", "side", "twist", "breaks", "length"))

    return sorted(slopes, key=weight, reverse=True)[:room]


def _rods(
    planned: Planned, numbers: tuple[dict[str, Array], dict[str, Array]], moved: Array, cutting: Mapping[str, float]
) -> tuple[Rods, Array]:
    """The falls of the samples, and their splitting index.

    Args:
        numbers: by how much each number moves, and what those in logarithms are over the plan's.
    """
    by, grows = numbers
    case, parts = planned.case, planned.parts
    nominal, count = rod_across(planned), len(moved)
    base = widened(nominal, count)
    aim, wind = np.radians(cutting["aim_deg"]) * moved[:, 0], np.exp(cutting["wind"] * moved[:, 3])
    pull, thick, steered = _thickness(planned, moved, cutting)
    weight = parts.mass.weight_N * grows["mass"]
    forward, left = parts.mass.com_forward_m + by["forward"], parts.mass.com_left_m + by["left"]
    ahead, over = turned_on(forward, left, aim)
    step = case.cut.back.step_m
    mean = max(parts.hinge.thickness_m, LEAST_THICK_m)
    fibre = case.constants.hinge_length_factor * mean
    longer, broken = (fibre + step) / (fibre * thick + step), case.constants.break_length_factor * mean
    top = nominal.top_forward_m + by["top_forward"], nominal.top_left_m + by["top_left"]
    top_forward, top_left = turned_on(*top, aim)
    breaks = grows["breaks"] * np.cbrt(1.0 / thick) * np.cbrt((1 + step / (broken * thick)) / (1 + step / broken))
    toppling = parts.mass.toppling_Nm * grows["mass"] * grows["up"]
    bends = nominal.bent_Nm / nominal.toppling_Nm - 1.0
    rods = base.changed(
        inertia_kg_m2=base.inertia_kg_m2 * grows["inertia"],
        toppling_Nm=toppling,
        bent_Nm=toppling * (1.0 + bends * grows["mass"] * grows["up"] / grows["inertia"]),
        ahead_Nm=weight * (ahead - parts.hinge.region.forward_m - by["hinge_forward"]),
        left_Nm=weight * (over - parts.hinge.even_left_m),
        drag_kg_m2=base.drag_kg_m2 * grows["drag"],
        wind_forward_Nm=base.wind_forward_Nm * wind,
        wind_left_Nm=base.wind_left_Nm * wind,
        stiffness_Nm=base.stiffness_Nm * grows["stiffness"] * thick**3 * longer,
        peak_Nm=base.peak_Nm * grows["peak"] * thick**2,
        side_capacity_Nm=base.side_capacity_Nm * grows["side"] * thick,
        twist_capacity_Nm=base.twist_capacity_Nm * grows["twist"] * thick,
        break_rad=np.clip(base.break_rad * breaks, np.radians(8.0), np.radians(110.0)),
        pull=pull,
        wedged_rad=base.wedged_rad,
        length_m=base.length_m * grows["length"],
        top_forward_m=top_forward,
        top_left_m=top_left,
        lay_deg=base.lay_deg + np.degrees(aim),
    )
    folds = thick**2 if case.cut.back.held else thick
    rods = turned(rods, steered)
    return rods, parts.splitting.split_index * grows["split"] * folds


def end_spread_m(cutting: Mapping[str, float], side: str, thick_m: float) -> float:
    """Spread of one end of the hinge, ``left`` or ``right``: one's own, or the larger of a length and of a share of it.

    A thick hinge is missed by more.
    """
    own = cutting.get(f"hinge_{side}_m")
    return own if own is not None else max(cutting["hinge_m"], cutting["hinge_share"] * thick_m)


def _thickness(planned: Planned, moved: Array, cutting: Mapping[str, float]) -> tuple[Array, Array, Array]:
    """(pull of the shutting face, mean thickness over the plan's, how far left its mid-line is turned)."""
    cut, share = planned.case.cut.hinge, planned.case.constants.shutting_pull
    left, right = (
        np.maximum(thick + end_spread_m(cutting, side, thick) * off, LEAST_THICK_m)
        for side, thick, off in (("left", cut.left_m, moved[:, 1]), ("right", cut.right_m, moved[:, 2]))
    )
    planned_both = max(cut.left_m + cut.right_m, 2 * LEAST_THICK_m)
    turned_rad = np.arctan2(left - right, planned.parts.hinge.length_m) / 2
    return shutting_pull(left, right, share), (left + right) / planned_both, turned_rad
