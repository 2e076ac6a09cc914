"""From an assessed plan to a rod: one fall's numbers from the parts of an assessment."""

from __future__ import annotations

import math
from typing import TypeVar

import numpy as np

from ..base.polygon import Array
from ..plan.case import Planned
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
    forward, left = axis_at(
        tree.lean, tree.height_m, cut_m=cut.height_m, tree_height_m=tree.height_m, lay_deg=cut.gun_deg
    )
    # The tilt already follows the stem's foot; the top's own offsets count from the hinge.
    return one_rod(
        inertia_kg_m2=parts.mass.inertia_kg_m2,
        toppling_Nm=parts.mass.toppling_Nm,
        bent_Nm=parts.mass.bent_toppling_Nm,
        ahead_Nm=weight * parts.balance.ahead_m,
        left_Nm=weight * (parts.mass.com_left_m - parts.hinge.even_left_m),
        drag_kg_m2=AIR_kg_m3 / 2 * drag_coefficient(STILL_m_s, in_leaf=gust.in_leaf) * gust.area_m2 * gust.arm_m**3,
        wind_forward_Nm=-steady * gust.against,
        wind_left_Nm=steady * gust.aside_left,
        stiffness_Nm=max(parts.strength.stiffness_Nm, 1.0),
        peak_Nm=max(parts.strength.peak_Nm, 1.0),
        peaks_at=parts.strength.peaks_at,
        softens_over=parts.strength.softens_over,
        tail=parts.strength.tail,
        side_capacity_Nm=max(parts.strength.side_capacity_Nm, 1.0),
        twist_capacity_Nm=max(parts.strength.twist_capacity_Nm, 1.0),
        break_rad=math.radians(parts.strength.break_angle_deg),
        closing_rad=math.radians(parts.face.closing_angle_deg),
        pull=shutting_pull(cut.hinge.left_m, cut.hinge.right_m, case.constants.shutting_pull),
        wedged_rad=math.radians(parts.wedging.tilt_deg),
        margin_rad=math.radians(case.constants.tip_margin_deg),
        length_m=tree.height_m - cut.height_m,
        top_forward_m=forward - parts.hinge.region.forward_m,
        top_left_m=left,
        lay_deg=cut.gun_deg,
    )


def shutting_pull(left_m: Thick, right_m: Thick, share: float) -> Thick:
    """Side speed the shutting face gives towards the thicker end, in shares of the fall's speed (indicative)."""
    return share * (left_m - right_m) / (left_m + right_m + NOTHING_m)


def widened(rods: Rods, count: int) -> Rods:
    """The same single row many times."""
    return rods.picked(np.zeros(count, dtype=np.intp))
