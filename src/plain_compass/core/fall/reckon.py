"""From an assessed plan to a rod: one fall's numbers from the parts of an assessment."""

from __future__ import annotations

import math
from typing import TypeVar

import numpy as np

from ..base.polygon import Array
from ..plan.case import Case, Parts, Planned
from ..plan.driven import thin_share
from ..site.wind import AIR_kg_m3, drag_coefficient
from ..tree.stem import axis_at
from .rods import Rods, one_rod, turned

Thick = TypeVar("Thick", float, Array)
NOTHING_m = 1e-12
"""Keeps a hinge of no thickness at all from dividing by it."""
STILL_m_s = 6.0
"""Speed of a falling crown through the air, at which its drag is taken."""


def rod_of(planned: Planned) -> Rods:
    """The plan's own fall, a single row, in the plane in which its hinge leads it."""
    return turned(rod_across(planned), np.radians([planned.parts.hinge.steered_deg]))


def rod_across(planned: Planned) -> Rods:
    """The plan's own fall in the plane across its apex line, a single row.

    The wind is the mean wind: a gust is over before the tree is down. A rope is slack from the moment the tree goes by
    itself, so that it only sets where that is.
    """
    case, parts = planned.case, planned.parts
    cut, tree, gust = case.cut, case.tree, parts.gust
    weight = parts.mass.weight_N
    steady = gust.mean_N * gust.arm_m
    # The hinge as the plan leaves it when the tree goes: thinned, where it has to be.
    share, thick, step = thin_share(case, parts), parts.hinge.thickness_m, cut.back.step_m
    factor, wedged_deg = case.constants.hinge_length_factor, parts.wedging.tilt_deg
    stiffness = parts.strength.stiffness_Nm * share**3 * (factor * thick + step) / (factor * thick * share + step)
    breaks = parts.strength.break_angle_deg * (1.0 if share == 1.0 else thinner_breaks(case, parts, share))
    if share < 1.0:
        wedged_deg = math.degrees(math.atan(min(parts.wedge_plan.have_m / parts.wedge_plan.arm_m, 1.0)))
    forward, left = axis_at(
        tree.lean, tree.height_m, cut_m=cut.height_m, tree_height_m=tree.height_m, lay_deg=cut.gun_deg
    )
    # The tilt already follows the stem's foot; the top's own offsets count from the hinge.
    return one_rod(
        inertia_kg_m2=parts.mass.inertia_kg_m2,
        toppling_Nm=parts.mass.toppling_Nm,
        bent_Nm=parts.mass.bent_toppling_Nm,
        ahead_Nm=weight * (parts.balance.ahead_m - thick * (1.0 - share) / 2),
        left_Nm=weight * (parts.mass.com_left_m - parts.hinge.even_left_m),
        drag_kg_m2=AIR_kg_m3 / 2 * drag_coefficient(STILL_m_s, in_leaf=gust.in_leaf) * gust.area_m2 * gust.arm_m**3,
        wind_forward_Nm=-steady * gust.against,
        wind_left_Nm=steady * gust.aside_left,
        stiffness_Nm=max(stiffness, 1.0),
        peak_Nm=max(parts.strength.peak_Nm * share**2, 1.0),
        peaks_at=parts.strength.peaks_at,
        softens_over=parts.strength.softens_over,
        tail=parts.strength.tail,
        side_capacity_Nm=max(parts.strength.side_capacity_Nm * share, 1.0),
        twist_capacity_Nm=max(parts.strength.twist_capacity_Nm * share, 1.0),
        break_rad=math.radians(breaks),
        closing_rad=math.radians(parts.face.closing_angle_deg),
        pull=shutting_pull(cut.hinge.left_m, cut.hinge.right_m, case.constants.shutting_pull),
        wedged_rad=math.radians(wedged_deg),
        margin_rad=math.radians(case.constants.tip_margin_deg),
        length_m=tree.height_m - cut.height_m,
        top_forward_m=forward - parts.hinge.region.forward_m,
        top_left_m=left,
        lay_deg=cut.gun_deg,
    )


def thinner_breaks(case: Case, parts: Parts, share: float) -> float:
    """Times the tilt at which a hinge breaks that one of a share of its thickness bends; see ``break_angles_deg``."""
    thick, step = parts.hinge.thickness_m, case.cut.back.step_m
    broken = case.constants.break_length_factor * max(thick, NOTHING_m)
    stepped = (1 + step / (broken * share)) / (1 + step / broken)
    return math.cbrt(stepped / share)


def shutting_pull(left_m: Thick, right_m: Thick, share: float) -> Thick:
    """Side speed the shutting face gives towards the thicker end, in shares of the fall's speed (indicative)."""
    return share * (left_m - right_m) / (left_m + right_m + NOTHING_m)


def widened(rods: Rods, count: int) -> Rods:
    """The same single row many times."""
    return rods.picked(np.zeros(count, dtype=np.intp))
