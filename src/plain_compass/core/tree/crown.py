"""The crown: its mass as a share of the stem's, and where paced edges put it."""

from __future__ import annotations

import math

import numpy as np

from ..base.frames import full_turn_deg, half_turn_deg, rotated, to_tree
from ..base.kept import kept
from ..base.polygon import Array, following
from .body import AboveCut, Body
from .tree import Crown, CrownReading, Lean
from .wood import Indicative

OUTLINE_POINTS = 360
"""One a degree."""
_TURN: Array = np.linspace(0.0, 2 * np.pi, OUTLINE_POINTS, endpoint=False)
_DIRECTIONS: Array = np.column_stack([np.cos(_TURN), np.sin(_TURN)])


@kept("crown from above", 64)
def crown_outline(readings: tuple[CrownReading, ...]) -> Array:
    """Crown edge from above, shape (360, 2), first axis along the first reading's bearing.

    Between readings the edge is the best shifted circle (first harmonic by least squares) plus what the
    readings differ from it, eased by a cosine from one bearing to the next. A circle standing off the stem,
    which is what side weight usually is, keeps its centre that way; straight lines would lose a fifth of it.
    """
    radius = np.array([reading.radius_m for reading in readings])
    turned = tuple(full_turn_deg(readings[0].bearing_deg - reading.bearing_deg) for reading in readings)
    edge = np.maximum(_influence(turned) @ radius, 0.0)
    outline: Array = edge[:, None] * _DIRECTIONS
    return outline


@kept("crown from above", 16)
def _influence(turned_deg: tuple[float, ...]) -> Array:
    """How far each paced radius moves each point of the outline, shape (360, n): the outline is linear in them."""
    order = np.argsort(turned_deg)
    at = np.radians(np.array(turned_deg)[order])
    turn = _TURN
    found = np.zeros((OUTLINE_POINTS, len(at)))
    for place, original in enumerate(order.tolist()):
        one = np.zeros(len(at))
        one[place] = 1.0
        found[:, original] = _edge(turn, at, one)
    return found


def _edge(turn: Array, at: Array, radius: Array) -> Array:
    """Radius towards each turn of a crown paced at some angles, rising."""
    if len(at) >= 3:
        basis = np.column_stack([np.ones_like(at), np.cos(at), np.sin(at)])
        fit = np.linalg.lstsq(basis, radius, rcond=None)[0]
        smooth = fit[0] + fit[1] * np.cos(turn) + fit[2] * np.sin(turn)
        rest = radius - basis @ fit
    else:
        smooth = np.full_like(turn, radius.mean())
        rest = radius - radius.mean()
    whole: Array = smooth + _eased(turn, at, rest)
    return whole


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


def crown_body(crown: Crown, lean: Lean, stem_kg: float, over: AboveCut, *, group: str, constants: Indicative) -> Body:
    """The crown above the cut as one body. Its share of mass and the height of its centre are indicative.

    Above a cut inside it the rest is like the whole: it thins upwards as a power of what is left, the power that puts
    the whole crown's centre where it is.

    Radii are paced from the stem base, so that they already hold the lean; the pith at the cut stands off
    the base by the lean's part below the cut, which is taken off again.
    """
    cut_m, height_m, lay_deg = over.cut_m, over.height_m, over.lay_deg
    length = height_m - crown.base_m
    kept, own_forward, own_left = crown_fill(crown.readings, constants.crown_dead_share)
    mass = _share(group, crown.leaf, constants) * stem_kg
    mass *= min(max(length / height_m / 0.5, 0.4), 1.8)
    mass = mass * kept + added_kg(crown, mass, constants)
    is_conifer = group == "conifer"
    fraction = constants.crown_centre_conifer if is_conifer else constants.crown_centre_broadleaf
    left_share = min((height_m - cut_m) / length, 1.0) if length > 0 else 1.0
    mass *= left_share ** (1.0 / fraction - 1.0)
    length *= left_share
    up = height_m - length + fraction * length - cut_m
    centre = np.array([[own_forward, own_left]])
    ((forward, left),) = rotated(centre, crown.readings[0].bearing_deg, lay_deg)
    below_f, below_l = to_tree(lean.bearing_deg, math.tan(math.radians(lean.angle_deg)) * cut_m, lay_deg)
    own = mass * (length**2 + 4 * (left_share * mean_radius_m(crown)) ** 2) / 20
    return Body(mass, up, float(forward) - below_f, float(left) - below_l, mass * up**2 + own)


@kept("crown from above", 64)
def crown_fill(readings: tuple[CrownReading, ...], dead_share: float) -> tuple[float, float, float]:
    """(share of the whole outline's mass that is there, centroid forward_m, left_m) in the outline's own frame.

    The outline is a fan of triangles from the stem; each counts whole, by ``dead_share``, or not at all, as the
    reading nearest to it says. A crown with nothing left keeps the outline's centroid and no mass.
    """
    outline = crown_outline(readings)
    nxt = following(outline[:, 0]), following(outline[:, 1])
    area = (outline[:, 0] * nxt[1] - nxt[0] * outline[:, 1]) / 2
    weight = area
    if any(reading.state != "live" for reading in readings):
        weight = _sector_weights(readings, dead_share) * area
    whole, there = float(area.sum()), float(weight.sum())
    if whole <= 0:
        return 1.0, 0.0, 0.0
    used, total = (weight, there) if there > 0 else (area, whole)
    forward = float(((outline[:, 0] + nxt[0]) * used).sum()) / 3 / total
    left = float(((outline[:, 1] + nxt[1]) * used).sum()) / 3 / total
    return there / whole, forward, left


def _sector_weights(readings: tuple[CrownReading, ...], dead_share: float) -> Array:
    """Weight of each triangle of the outline by the state of the nearest reading; shape (360,)."""
    share = {"live": 1.0, "dead": dead_share, "missing": 0.0}
    middle = (np.arange(OUTLINE_POINTS) + 0.5) * 360.0 / OUTLINE_POINTS
    at = np.array([full_turn_deg(readings[0].bearing_deg - r.bearing_deg) for r in readings])
    away = np.abs(half_turn_deg(middle[:, None] - at[None, :]))
    weights: Array = np.array([share[r.state] for r in readings])[away.argmin(axis=1)]
    return weights


def added_kg(crown: Crown, crown_mass_kg: float, constants: Indicative) -> float:
    """What rain, snow or ice add: as typed, or a share of the whole crown's mass (indicative)."""
    if crown.added_kg is not None:
        return crown.added_kg
    return constants.crown_load[crown.load] * crown_mass_kg


def _share(group: str, leaf: str, constants: Indicative) -> float:
    if group == "conifer":
        return constants.crown_share_conifer
    return constants.crown_share_leaf if leaf == "leaf" else constants.crown_share_bare


def mean_radius_m(crown: Crown) -> float:
    """Mean of the paced radii."""
    return sum(reading.radius_m for reading in crown.readings) / len(crown.readings)
