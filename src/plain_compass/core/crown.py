"""The crown: its mass as a share of the stem's, and where paced edges put it."""

from __future__ import annotations

import math
from functools import lru_cache

import numpy as np

from .frames import rotated, to_tree
from .polygon import Array, moments
from .stem import Body
from .tree import Crown, CrownReading, Lean
from .wood import Indicative

OUTLINE_POINTS = 360


@lru_cache(maxsize=64)
def crown_outline(readings: tuple[CrownReading, ...]) -> Array:
    """Crown edge from above, shape (360, 2), first axis along the first reading's bearing.

    Between readings the edge is the best shifted circle (first harmonic by least squares) plus what the
    readings differ from it, eased by a cosine from one bearing to the next. A circle standing off the stem,
    which is what side weight usually is, keeps its centre that way; straight lines would lose a fifth of it.
    """
    origin = readings[0].bearing_deg
    paced = sorted((math.radians(origin - r.bearing_deg) % (2 * math.pi), r.radius_m) for r in readings)
    at = np.array([a for a, _ in paced])
    radius = np.array([r for _, r in paced])
    turn = np.linspace(0.0, 2 * np.pi, OUTLINE_POINTS, endpoint=False)
    if len(readings) >= 3:
        basis = np.column_stack([np.ones_like(at), np.cos(at), np.sin(at)])
        fit = np.linalg.lstsq(basis, radius, rcond=None)[0]
        smooth = fit[0] + fit[1] * np.cos(turn) + fit[2] * np.sin(turn)
        rest = radius - basis @ fit
    else:
        smooth = np.full_like(turn, radius.mean())
        rest = radius - radius.mean()
    edge = np.clip(smooth + _eased(turn, at, rest), 0.0, None)
    return np.column_stack([edge * np.cos(turn), edge * np.sin(turn)])


def _eased(turn: Array, at: Array, values: Array) -> Array:
    """Periodic interpolation, a half cosine between neighbours."""
    ends = np.append(at, at[0] + 2 * np.pi)
    levels = np.append(values, values[0])
    wanted = np.where(turn < at[0], turn + 2 * np.pi, turn)
    left = np.clip(np.searchsorted(ends, wanted, side="right") - 1, 0, len(at) - 1)
    span = np.maximum(ends[left + 1] - ends[left], 1e-12)
    ease = (1 - np.cos(np.pi * (wanted - ends[left]) / span)) / 2
    eased: Array = levels[left] + (levels[left + 1] - levels[left]) * ease
    return eased


def crown_body(
    crown: Crown,
    lean: Lean,
    stem: Body,
    *,
    group: str,
    cut_m: float,
    height_m: float,
    lay_deg: float,
    constants: Indicative,
) -> Body:
    """The crown as one body. Its share of mass and the height of its centre are indicative.

    Radii are paced from the stem base, so that they already hold the lean; the pith at the cut stands off
    the base by the lean's part below the cut, which is taken off again.
    """
    length = height_m - crown.base_m
    mass = _share(group, crown.leaf, constants) * stem.mass_kg
    mass *= min(max(length / height_m / 0.5, 0.4), 1.8)
    is_conifer = group == "conifer"
    fraction = constants.crown_centre_conifer if is_conifer else constants.crown_centre_broadleaf
    up = crown.base_m + fraction * length - cut_m
    own_frame = moments(crown_outline(crown.readings))
    centre = np.array([[own_frame.forward_m, own_frame.left_m]])
    ((forward, left),) = rotated(centre, crown.readings[0].bearing_deg, lay_deg)
    below_f, below_l = to_tree(lean.bearing_deg, math.tan(math.radians(lean.angle_deg)) * cut_m, lay_deg)
    own = mass * (length**2 + 4 * mean_radius_m(crown) ** 2) / 20
    return Body(mass, up, float(forward) - below_f, float(left) - below_l, mass * up**2 + own)


def _share(group: str, leaf: str, constants: Indicative) -> float:
    if group == "conifer":
        return constants.crown_share_conifer
    return constants.crown_share_leaf if leaf == "leaf" else constants.crown_share_bare


def mean_radius_m(crown: Crown) -> float:
    """Mean of the paced radii."""
    return sum(reading.radius_m for reading in crown.readings) / len(crown.readings)
