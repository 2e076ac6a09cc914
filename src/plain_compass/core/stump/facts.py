"""What one stump says of a hand, an eye and a constant: errors about the plan, each alone; None where nobody looked."""

from __future__ import annotations

import math
from dataclasses import fields, replace

from ..assess import Assessment, assess
from ..base.errors import InputError
from ..base.frames import half_turn_deg
from ..base.frozen import dataclass
from ..plan.case import Case
from ..plan.minutes import cutting_min
from .as_cut import AsCut, miss_deg
from .told import Told, came_true

LEAST_BLOWS = 3.0
"""Fewer told are no measure of a blow: one is given at least, and only whole ones."""
STEP = 0.1
"""Step of a constant, in its logarithm, from which a slope is taken."""


@dataclass(frozen=True, slots=True)
class Facts:
    """Errors as cut or as measured less as planned or as it was.

    Attributes:
        aim_deg: how far left the face points.
        left_m, right_m: how much thicker either end of the hinge is; thick_m the thickness planned, their mean.
        depth_m, step_m: how much deeper the face, how much higher the step.
        height_share: how much too high the height was taken, as a share of the true one.
        lean_deg: how much too great the lean was taken.
        miss_deg: where the top lies, left of the lay; low_deg, middle_deg, high_deg the fan as it was told.
        blows_ln: logarithm of blows told over blows given.
        lift_ln: of the lift at going over the lift told; lift_slope how that follows the logarithm of ``law_peaks_at``.
        split_ln: of the splitting index told; split whether it did.
        splits_told, sat_told, lost_told: chances told; sat, lost whether it happened.
        hit: whether anything was hit; blows, time_s as read.
        time_ln: logarithm of the time taken over the time told.
    """

    aim_deg: float | None = None
    left_m: float | None = None
    right_m: float | None = None
    thick_m: float | None = None
    depth_m: float | None = None
    step_m: float | None = None
    height_share: float | None = None
    lean_deg: float | None = None
    miss_deg: float | None = None
    low_deg: float | None = None
    middle_deg: float | None = None
    high_deg: float | None = None
    blows_ln: float | None = None
    lift_ln: float | None = None
    lift_slope: float | None = None
    split_ln: float | None = None
    split: float | None = None
    splits_told: float | None = None
    sat: float | None = None
    sat_told: float | None = None
    lost: float | None = None
    lost_told: float | None = None
    hit: float | None = None
    blows: float | None = None
    time_s: float | None = None
    time_ln: float | None = None


NAMES = tuple(each.name for each in fields(Facts))
"""Names of the facts, in their order."""


def facts_of(case: Case, as_cut: AsCut, told: Told) -> Facts:
    """What a stump says, held against its plan as it was.

    Raises InputError where the plan cannot be assessed.
    """
    result, tree = assess(case), case.tree
    missed = miss_deg(case.cut, as_cut, tree.height_m - case.cut.height_m)
    height = None if "height_m" in tree.stand_ins else tree.height_m
    lean = None if "lean.angle_deg" in tree.stand_ins else tree.lean.angle_deg
    lift_ln = _log_of(as_cut.lift_m, told.lift_m)
    true = came_true(told, as_cut)
    return Facts(
        **_of_the_cut(case, as_cut),
        height_share=None if height is None or not as_cut.height_m else height / as_cut.height_m - 1.0,
        lean_deg=None if lean is None or as_cut.lean_deg is None else lean - as_cut.lean_deg,
        miss_deg=missed,
        low_deg=told.low_deg,
        middle_deg=told.middle_deg,
        high_deg=told.high_deg,
        blows_ln=_log_of(told.blows, as_cut.blows) if (told.blows or 0.0) >= LEAST_BLOWS else None,
        lift_ln=lift_ln,
        lift_slope=None if lift_ln is None else _lift_slope(case, result),
        **_of_splitting(result, as_cut),
        **_of_chances(true),
        hit=None if missed is None else float(as_cut.has_hit),
        blows=as_cut.blows,
        time_s=as_cut.time_s,
        time_ln=_log_of(as_cut.time_s, 60.0 * _told_min(result)),
    )


def _told_min(result: Assessment) -> float:
    parts = result.parts
    return cutting_min(result.case, parts.section, parts.wedging.blows, parts.wedging.pause_s)


def _of_the_cut(case: Case, as_cut: AsCut) -> dict[str, float | None]:
    cut, steps = case.cut, as_cut.steps_m
    return {
        "aim_deg": None if as_cut.towards_deg is None else half_turn_deg(cut.gun_deg - as_cut.towards_deg),
        "left_m": _less(as_cut.hinge_left_m, cut.hinge.left_m),
        "right_m": _less(as_cut.hinge_right_m, cut.hinge.right_m),
        "thick_m": cut.hinge.mean_m,
        "depth_m": _less(as_cut.depth_m, cut.face.depth_m),
        "step_m": sum(steps) / len(steps) - cut.back.step_m if steps else None,
    }


def _less(read: float | None, planned: float) -> float | None:
    return None if read is None else read - planned


def _log_of(over: float | None, under: float | None) -> float | None:
    return math.log(over / under) if over and under and over > 0 and under > 0 else None


def _of_splitting(result: Assessment, as_cut: AsCut) -> dict[str, float | None]:
    """The index, where somebody looked whether it split."""
    index, did = result.parts.splitting.split_index, as_cut.has_split
    if did is None or not index > 0 or not math.isfinite(index):
        return {}
    return {"split_ln": math.log(index), "split": float(did)}


def _of_chances(true: dict[str, tuple[float, bool]]) -> dict[str, float | None]:
    found: dict[str, float | None] = {}
    for name, chance_as, did_as in (
        ("splits", "splits_told", "split"),
        ("sits_back", "sat_told", "sat"),
        ("lost_early", "lost_told", "lost"),
    ):
        if name in true:
            chance, did = true[name]
            found[chance_as] = chance
            if did_as != "split":
                found[did_as] = float(did)
    return found


def _lift_slope(case: Case, result: Assessment) -> float | None:
    """How the logarithm of the lift at going follows that of ``law_peaks_at``, by one small step of it."""
    constants, supple = case.constants, case.wood.suppleness
    grown = {**constants.law_peaks_at, supple: constants.law_peaks_at[supple] * math.exp(STEP)}
    try:
        again = assess(replace(case, constants=replace(constants, law_peaks_at=grown)))
    except InputError:
        return None
    lifts = result.parts.wedging.lift_m, again.parts.wedging.lift_m
    return math.log(lifts[1] / lifts[0]) / STEP if min(lifts) > 0 else None
