"""The stem's cross-section at the cut: bark, wood, rot, and how much of it is sound."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from .errors import InputError
from .frames import rotated, to_tree
from .polygon import EMPTY, Array, Moments, intervals, moments, overlap
from .stem import profile_ratio
from .tree import Decay, Tree, Trunk

OUTLINE_POINTS = 240
ROT_POINTS = 120
STRIPS = 200
MOST_ROT = 0.95
"""Share of the wood that may be rot before there is nothing left to reckon with."""


@dataclass(frozen=True, slots=True, eq=False)
class Strips:
    """The section sliced along the lay, for integrals of thickness.

    Attributes:
        left_m: middles of the slices, shape (s,).
        width_m: width of each slice.
        wood_m, rot_m: (rear, front) of each piece of wood and of rot in a slice, shape (s, k, 2).
    """

    left_m: Array
    width_m: float
    wood_m: Array
    rot_m: Array


@dataclass(frozen=True, slots=True, eq=False)
class Section:
    """Cross-section at the cut in the tree's frame, origin at the pith.

    Attributes:
        bark, wood: outlines over and under bark, shape (240, 2).
        rot: outline of the decayed part, shape (k, 2), empty when none is known.
        diameter_m: mean diameter over bark.
        front_m, back_m: foremost and rearmost wood along the lay; ``depth_m`` between them.
        shell_ratio: least sound shell over local wood radius; 1 without rot, None when decay is unknown.
        sound_fraction: sound area over wood area, None when decay is unknown.
    """

    bark: Array
    wood: Array
    rot: Array
    wood_moments: Moments
    sound_moments: Moments
    strips: Strips
    diameter_m: float
    front_m: float
    back_m: float
    width_m: float
    shell_ratio: float | None
    sound_fraction: float | None

    @property
    def depth_m(self) -> float:
        """Depth of the wood along the lay: the D of ``%D``."""
        return self.front_m - self.back_m


def diameters_at(trunk: Trunk, height_m: float, tree_height_m: float, exponent: float) -> tuple[float, float]:
    """Diameters over bark (along the first, across it) at a height, scaled along the stem's taper.

    The butt measurement is used when there is one: butt flare makes the taper from breast height too thin.
    """
    if trunk.butt_diameter_m is None:
        first, at_m = trunk.diameter_m, trunk.at_m
    else:
        first, at_m = trunk.butt_diameter_m, trunk.butt_at_m
    first *= profile_ratio(height_m, at_m, tree_height_m, exponent)
    roundness = 1.0 if trunk.cross_diameter_m is None else trunk.cross_diameter_m / trunk.diameter_m
    return first, first * roundness


@lru_cache(maxsize=64)
def section_at(tree: Tree, height_m: float, lay_deg: float, exponent: float) -> Section:
    """The section of ``tree`` at ``height_m``, turned so that forward is ``lay_deg``.

    Raises InputError when bark or decay do not fit inside the stem.
    """
    first, second = diameters_at(tree.trunk, height_m, tree.height_m, exponent)
    if tree.trunk.bark_m >= 0.45 * min(first, second):
        limit = 0.45 * min(first, second)
        raise InputError(
            "tree.trunk.bark_m",
            tree.trunk.bark_m,
            kind="length",
            low=0.0,
            high=limit,
            reason="the bark would fill the stem",
        )
    bark, wood = _outlines(first / 2, second / 2, tree.trunk.bark_m)
    turned = tree.trunk.diameter_bearing_deg
    bark, wood = rotated(bark, turned, lay_deg), rotated(wood, turned, lay_deg)
    rot = _rot_outline(tree.decay, wood, lay_deg)
    return _assembled(bark, wood, rot, math.sqrt(first * second), tree.decay.kind)


@lru_cache(maxsize=32)
def _outlines(half_first_m: float, half_second_m: float, bark_m: float) -> tuple[Array, Array]:
    """Ellipse over bark and its true inward parallel curve, first axis along the first diameter.

    The corners lie outside the curve by 6e-5 of the radius, so that the polygon has the ellipse's area.
    """
    t, step = np.linspace(0.0, 2 * np.pi, OUTLINE_POINTS, endpoint=False, retstep=True)
    outside = math.sqrt(step / math.sin(step))
    cos, sin = outside * np.cos(t), outside * np.sin(t)
    bark = np.column_stack([half_first_m * cos, half_second_m * sin])
    normal = np.column_stack([half_second_m * cos, half_first_m * sin])
    normal /= np.hypot(normal[:, 0], normal[:, 1])[:, None]
    return bark, bark - bark_m * normal


def _assembled(bark: Array, wood: Array, rot: Array, diameter_m: float, decay: str) -> Section:
    wood_moments = moments(wood)
    sound = moments(wood, rot)
    known = decay != "unknown"
    low, high = float(wood[:, 1].min()), float(wood[:, 1].max())
    width = (high - low) / STRIPS
    lefts: Array = (low + width * (np.arange(STRIPS) + 0.5)).astype(np.float64)
    return Section(
        bark=bark,
        wood=wood,
        rot=rot,
        wood_moments=wood_moments,
        sound_moments=sound,
        strips=Strips(lefts, width, intervals(wood, lefts), intervals(rot, lefts)),
        diameter_m=diameter_m,
        front_m=float(wood[:, 0].max()),
        back_m=float(wood[:, 0].min()),
        width_m=high - low,
        shell_ratio=_shell_ratio(wood, rot) if known else None,
        sound_fraction=sound.area_m2 / wood_moments.area_m2 if known else None,
    )


def _rot_outline(decay: Decay, wood: Array, lay_deg: float) -> Array:
    if decay.kind == "cavity" and decay.radius_m > 0:
        return _cavity(decay, wood, lay_deg)
    if decay.kind == "shell" and decay.shell:
        return _hollow(decay, wood, lay_deg)
    return EMPTY


def _cavity(decay: Decay, wood: Array, lay_deg: float) -> Array:
    """A round cavity, cut off at the inside of the bark when it comes out there."""
    centre = np.array(to_tree(decay.bearing_deg, decay.offset_m, lay_deg))
    reach = float(_radius_towards(wood, centre[None, :])[0])
    if decay.offset_m >= reach:
        raise InputError(
            "tree.decay.offset_m",
            decay.offset_m,
            kind="length",
            low=0.0,
            high=reach,
            reason="the cavity would lie outside the stem",
        )
    turn = np.linspace(0.0, 2 * np.pi, ROT_POINTS, endpoint=False) + math.radians(lay_deg - decay.bearing_deg)
    rot = centre + decay.radius_m * np.column_stack([np.cos(turn), np.sin(turn)])
    if not np.all(np.hypot(rot[:, 0], rot[:, 1]) < _radius_towards(wood, rot)):
        rot = overlap(wood, rot)
    if moments(rot).area_m2 > MOST_ROT * moments(wood).area_m2:
        raise InputError(
            "tree.decay.radius_m",
            decay.radius_m,
            kind="length",
            low=0.0,
            high=reach * math.sqrt(MOST_ROT),
            reason="the cavity would leave no sound wood",
        )
    return rot


def _hollow(decay: Decay, wood: Array, lay_deg: float) -> Array:
    """The inside of a shell probed at bearings, linear between the probes."""
    outer = wood[:: OUTLINE_POINTS // ROT_POINTS]
    radius = np.hypot(outer[:, 0], outer[:, 1])
    bearing = lay_deg - np.degrees(np.arctan2(outer[:, 1], outer[:, 0]))
    probes = sorted((reading.bearing_deg % 360.0, reading.sound_m) for reading in decay.shell)
    shell = np.interp(bearing % 360.0, [b for b, _ in probes], [s for _, s in probes], period=360.0)
    left = np.clip(radius - shell, 0.0, None)
    if not left.any():
        return EMPTY
    rot: Array = outer * (left / radius)[:, None]
    if moments(rot).area_m2 > MOST_ROT * moments(wood).area_m2:
        raise InputError(
            "tree.decay.shell",
            float(shell.max()),
            kind="length",
            low=0.025 * float(radius.min()),
            high=float(radius.max()),
            reason="the shell would leave no sound wood",
        )
    return rot


def _radius_towards(wood: Array, points: Array) -> Array:
    """Radius of the wood from the pith in the direction of each point; shape (k,)."""
    angle = np.arctan2(wood[:, 1], wood[:, 0])
    start = int(angle.argmin())
    rising = np.concatenate((angle[start:], angle[:start]))
    radius = np.hypot(wood[:, 0], wood[:, 1])
    radius = np.concatenate((radius[start:], radius[:start]))
    wanted = np.arctan2(points[:, 1], points[:, 0])
    found: Array = np.interp(wanted, rising, radius, period=2 * np.pi)
    return found


def _shell_ratio(wood: Array, rot: Array) -> float:
    """Least sound shell over local radius of the wood, along rays from the pith."""
    if len(rot) == 0:
        return 1.0
    local = _radius_towards(wood, rot)
    inner = np.hypot(rot[:, 0], rot[:, 1])
    return float(np.clip((local - inner) / local, 0.0, 1.0).min())


def sound_powers(strips: Strips, rear_m: Array, front_m: Array) -> tuple[Array, Array, Array]:
    """Per slice, the integrals of 1, x and x^2 over the sound wood between two lines across the lay.

    Args:
        rear_m, front_m: positions of the lines along the lay, broadcastable to (..., s).

    Returns:
        Three arrays of shape (..., s): sound thickness, its first and its second moment about the pith.
    """
    zero, first, second = _powers(strips.wood_m, rear_m, front_m)
    if strips.rot_m.any():
        rot = _powers(strips.rot_m, rear_m, front_m)
        return zero - rot[0], first - rot[1], second - rot[2]
    return zero, first, second


def _powers(pieces: Array, rear_m: Array, front_m: Array) -> tuple[Array, Array, Array]:
    if pieces.shape[-2] == 1:
        # One piece a slice, the usual case: a quarter of the work without the extra axis.
        rear = np.minimum(np.maximum(pieces[:, 0, 0], rear_m), front_m)
        front = np.minimum(np.maximum(pieces[:, 0, 1], rear_m), front_m)
        rear2, front2 = rear * rear, front * front
        return front - rear, (front2 - rear2) / 2, (front2 * front - rear2 * rear) / 3
    rear = np.clip(pieces[..., 0], rear_m[..., None], front_m[..., None])
    front = np.clip(pieces[..., 1], rear_m[..., None], front_m[..., None])
    rear2, front2 = rear * rear, front * front
    return (
        (front - rear).sum(axis=-1),
        (front2 - rear2).sum(axis=-1) / 2,
        (front2 * front - rear2 * rear).sum(axis=-1) / 3,
    )
