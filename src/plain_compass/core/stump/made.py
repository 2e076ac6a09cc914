"""Made-up stumps from a stated truth: how a faller of known habits would have cut a plan, and where the tree would lie.

For the demo and for the tests of learning: what was put in is known, so what is learned can be held against it.
"""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from ..assess import assess
from ..base.errors import InputError
from ..base.frames import full_turn_deg
from ..base.frozen import dataclass
from ..fall.nominal import nominal_fall
from ..plan.case import Case
from ..tree.moved import ACROSS, moved
from .as_cut import AsCut, case_as
from .factors import LOGISTIC_SCALE, RECORD_SPREAD
from .told import Told

LEAST_HINGE_m = 0.0
"""A hinge can be cut through at one end, and no further."""
LEAN_DEG = 1.0
"""Spread of what the lean across its bearing really is about what was measured."""


@dataclass(frozen=True, slots=True)
class Habits:
    """What is true of a made-up faller.

    Attributes:
        aim_deg: how far left he aims, and how far that scatters; the same of the rest.
        left_m, right_m: how much thicker than planned he leaves either end, scatter as a share of the hinge.
        depth_m, step_m: how much deeper the face, how much higher the step.
        height_share: how much too high he takes a height.
        blows: what his blow drives over the shipped one.
    """

    aim_deg: tuple[float, float] = (0.0, 2.0)
    left_m: tuple[float, float] = (0.0, 0.1)
    right_m: tuple[float, float] = (0.0, 0.1)
    depth_m: tuple[float, float] = (0.0, 0.01)
    step_m: tuple[float, float] = (0.0, 0.008)
    height_share: tuple[float, float] = (0.0, 0.05)
    blows: float = 1.0


def made_stump(planned: Case, told: Told, habits: Habits, random: np.random.Generator) -> AsCut:
    """One stump he would leave of a plan, and where the tree would lie.

    Raises InputError where no such stump can be: draw again.
    """
    cut = planned.cut
    thick = cut.hinge.mean_m

    def drawn(habit: tuple[float, float], scale: float = 1.0) -> float:
        return habit[0] + habit[1] * scale * float(random.standard_normal())

    ends = [max(end + drawn(habit, thick), LEAST_HINGE_m) for end, habit in _ends(planned, habits)]
    step = max(cut.back.step_m + drawn(habits.step_m), 0.0)
    read = AsCut(
        towards_deg=full_turn_deg(round(cut.gun_deg - drawn(habits.aim_deg), 1)),
        depth_m=round(max(cut.face.depth_m + drawn(habits.depth_m), 0.01), 3),
        hinge_left_m=round(ends[0], 3),
        hinge_right_m=round(ends[1], 3),
        step_left_m=round(step, 3),
        step_right_m=round(step, 3),
        corners="no",
        height_m=round(planned.tree.height_m / (1.0 + drawn(habits.height_share)), 1),
    )
    truth = replace(planned, tree=moved(planned.tree, ACROSS, LEAN_DEG * float(random.standard_normal())))
    fall = nominal_fall(assess(case_as(truth, read)))
    off = fall.bearing_error_deg
    split = math.log(max(assess(planned).parts.splitting.split_index, 1e-6)) + _logistic(random) > 0.0
    scatter = math.exp(RECORD_SPREAD * float(random.standard_normal()))
    driven = told.blows * scatter / habits.blows if told.blows else None
    return replace(
        read,
        split_m=0.4 if split else 0.0,
        broke={"face shut": "shut", "side load": "side"}.get(fall.hinge_broke_by, "bent"),
        broke_deg=float(5 * round(fall.hinge_broke_at_deg / 5)),
        top_deg=full_turn_deg(round(cut.lay_deg - off, 1)),
        top_m=round(math.hypot(fall.top_east_m, fall.top_north_m), 1),
        wedges=sum(seat.stacked for seat in cut.wedges),
        blows=None if driven is None else max(round(driven), 1),
        lift_m=None if not told.lift_m else round(told.lift_m * math.exp(0.2 * float(random.standard_normal())), 3),
        sat_back="yes" if random.random() < (told.sits_back or 0.0) else "no",
    )


def _ends(planned: Case, habits: Habits) -> tuple[tuple[float, tuple[float, float]], ...]:
    hinge = planned.cut.hinge
    return (hinge.left_m, habits.left_m), (hinge.right_m, habits.right_m)


def _logistic(random: np.random.Generator) -> float:
    """Scatter of one stem about its splitting index, as what is learned of it takes it."""
    return float(random.logistic(0.0, LOGISTIC_SCALE))


def redrawn(planned: Case, told: Told, habits: Habits, random: np.random.Generator) -> AsCut:
    """The first stump of several tries that can be: a hinge cut away whole leaves none to read."""
    for _ in range(20):
        try:
            return made_stump(planned, told, habits, random)
        except InputError:
            continue
    return AsCut()
