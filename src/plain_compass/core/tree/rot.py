"""Rot at the cut: from what was probed to an outline, and how it shrinks upwards."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from ..base.errors import InputError
from ..base.frames import full_turn_deg, to_tree
from ..base.polygon import EMPTY, Array, moments, overlap
from ..base.quantity import Kind
from .outline import OUTLINE_POINTS
from .tree import Decay

ROT_POINTS = 120
"""Rot is never known as finely as bark."""
MOST_ROT = 0.95
"""Share of the wood that may be rot before there is nothing left to reckon with."""


def rot_share(decay: Decay, height_m: float) -> float:
    """Size of the rot at a height over its size where it was measured: it shrinks upwards in proportion.

    Below the measurement it grows on, at most by a quarter. Where its end is not known it goes on unchanged:
    nobody has shown that a higher cut helps. The cone is indicative.
    """
    if decay.top_m is None or decay.top_m <= decay.at_m:
        return 1.0 if decay.top_m is None or height_m < decay.top_m else 0.0
    return min(max((decay.top_m - height_m) / (decay.top_m - decay.at_m), 0.0), 1.25)


def rot_outline(decay: Decay, wood: Array, height_m: float, lay_deg: float) -> Array:
    """Outline of the rot at a height, shape (k, 2), empty where there is none known."""
    share = rot_share(decay, height_m)
    if share <= 0:
        return EMPTY
    if decay.kind == "cavity" and decay.radius_m > 0:
        return _cavity(replace(decay, radius_m=decay.radius_m * share), wood, lay_deg)
    if decay.kind == "shell" and decay.shell:
        return _hollow(decay, wood, share, lay_deg)
    return EMPTY


def _cavity(decay: Decay, wood: Array, lay_deg: float) -> Array:
    """A round cavity, cut off at the inside of the bark when it comes out there."""
    centre = np.array(to_tree(decay.bearing_deg, decay.offset_m, lay_deg))
    reach = float(radius_towards(wood, centre[None, :])[0])
    if decay.offset_m >= reach:
        raise InputError(
            "tree.decay.offset_m",
            decay.offset_m,
            kind=Kind.LENGTH,
            low=0.0,
            high=reach,
            reason="the cavity would lie outside the stem",
        )
    turn = np.linspace(0.0, 2 * np.pi, ROT_POINTS, endpoint=False) + math.radians(lay_deg - decay.bearing_deg)
    rot = centre + decay.radius_m * np.column_stack([np.cos(turn), np.sin(turn)])
    if not np.all(np.hypot(rot[:, 0], rot[:, 1]) < radius_towards(wood, rot)):
        rot = overlap(wood, rot)
    if moments(rot).area_m2 > MOST_ROT * moments(wood).area_m2:
        raise InputError(
            "tree.decay.radius_m",
            decay.radius_m,
            kind=Kind.LENGTH,
            low=0.0,
            high=reach * math.sqrt(MOST_ROT),
            reason="the cavity would leave no sound wood",
        )
    return rot


def _hollow(decay: Decay, wood: Array, share: float, lay_deg: float) -> Array:
    """The inside of a shell probed at bearings, linear between the probes, its radii scaled by ``share``."""
    outer = wood[:: OUTLINE_POINTS // ROT_POINTS]
    radius = np.hypot(outer[:, 0], outer[:, 1])
    bearing = lay_deg - np.degrees(np.arctan2(outer[:, 1], outer[:, 0]))
    probes = sorted((full_turn_deg(reading.bearing_deg), reading.sound_m) for reading in decay.shell)
    shell = np.interp(full_turn_deg(bearing), [b for b, _ in probes], [s for _, s in probes], period=360.0)
    left = np.clip((radius - shell) * share, 0.0, radius)
    if not left.any():
        return EMPTY
    rot: Array = outer * (left / radius)[:, None]
    if moments(rot).area_m2 > MOST_ROT * moments(wood).area_m2:
        raise InputError(
            "tree.decay.shell",
            float(shell.max()),
            kind=Kind.LENGTH,
            low=0.025 * float(radius.min()),
            high=float(radius.max()),
            reason="the shell would leave no sound wood",
        )
    return rot


def radius_towards(wood: Array, points: Array) -> Array:
    """Radius of the wood from the pith in the direction of each point; shape (k,)."""
    angle = np.arctan2(wood[:, 1], wood[:, 0])
    start = int(angle.argmin())
    rising = np.concatenate((angle[start:], angle[:start]))
    radius = np.hypot(wood[:, 0], wood[:, 1])
    radius = np.concatenate((radius[start:], radius[:start]))
    wanted = np.arctan2(points[:, 1], points[:, 0])
    found: Array = np.interp(wanted, rising, radius, period=2 * np.pi)
    return found


def reach_m(outline: Array, bearing_deg: float, lay_deg: float) -> float:
    """Radius of an outline from the pith towards a bearing."""
    return float(radius_towards(outline, np.array([to_tree(bearing_deg, 1.0, lay_deg)]))[0])
