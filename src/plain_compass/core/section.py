"""The stem's cross-section at the cut: bark, wood, rot, and how much of it is sound."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from .butt import Lobe, standing_m
from .errors import InputError
from .frames import rotated, to_tree
from .polygon import EMPTY, Array, Moments, intervals, moments, overlap
from .stem import profile_ratio
from .tree import Decay, Tree, Trunk

OUTLINE_POINTS = 240
ROT_POINTS = 120
STRIPS = 200
LEAST_ROUND = 0.2
"""Share of the taped diameter that must be left to the round stem between buttresses."""
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
        round_bark, round_wood: the same without buttresses; the same arrays where there are none.
        rot: outline of the decayed part, shape (k, 2), empty when none is known.
        diameter_m: mean diameter over bark.
        front_m, back_m: foremost and rearmost wood along the lay; ``depth_m`` between them.
        shell_ratio: least sound shell over local wood radius; 1 without rot, None when decay is unknown.
        sound_fraction: sound area over wood area, None when decay is unknown.
    """

    bark: Array
    wood: Array
    round_bark: Array
    round_wood: Array
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
    """Diameters over bark (along the first, across it) of the round stem at a height, along the stem's taper.

    The butt measurement is used when there is one: butt flare makes the taper from breast height too thin.
    """
    taped_m, at_m = _taped(trunk)
    first = taped_m * profile_ratio(height_m, at_m, tree_height_m, exponent)
    roundness = 1.0 if trunk.cross_diameter_m is None else trunk.cross_diameter_m / trunk.diameter_m
    return first, first * roundness


def taped_height_m(trunk: Trunk) -> float:
    """Height of the tape nearest the cut, at which buttresses are measured too."""
    return _taped(trunk)[1]


def _taped(trunk: Trunk) -> tuple[float, float]:
    """(diameter, height) of the tape nearest the cut."""
    if trunk.butt_diameter_m is None:
        return trunk.diameter_m, trunk.at_m
    return trunk.butt_diameter_m, trunk.butt_at_m


def section_at(tree: Tree, height_m: float, lay_deg: float, exponent: float) -> Section:
    """The section of ``tree`` at ``height_m``, turned so that forward is ``lay_deg``.

    Raises InputError when bark, buttresses or decay do not fit.
    """
    return _section(tree.trunk, tree.lobes, tree.decay, tree.height_m, height_m, lay_deg, exponent)


@lru_cache(maxsize=64)
def _section(
    trunk: Trunk,
    lobes: tuple[Lobe, ...],
    decay: Decay,
    tree_height_m: float,
    height_m: float,
    lay_deg: float,
    exponent: float,
) -> Section:
    """``section_at`` by what it depends on: a crown or lean measured anew leaves the section as it was."""
    first, second = diameters_at(trunk, height_m, tree_height_m, exponent)
    share = round_share(trunk, lobes)
    first, second = first * share, second * share
    if trunk.bark_m >= 0.45 * min(first, second):
        limit = 0.45 * min(first, second)
        raise InputError(
            "tree.trunk.bark_m", trunk.bark_m, kind="length", low=0.0, high=limit, reason="the bark would fill the stem"
        )
    bark, wood = _outlines(first / 2, second / 2, trunk.bark_m)
    turned = trunk.diameter_bearing_deg
    bark, wood = rotated(bark, turned, lay_deg), rotated(wood, turned, lay_deg)
    _, at_m = _taped(trunk)
    out = buttressed(bark, tuple(lobe for lobe in lobes if lobe.state == "standing"), height_m, at_m, lay_deg)
    outer, inner = (bark, wood) if out is None else (bark + out, wood + out)
    rot = _rot_outline(decay, inner, height_m, lay_deg)
    whole = _assembled(outer, inner, rot, math.sqrt(first * second), decay.kind)
    return whole if out is None else replace(whole, round_bark=bark, round_wood=wood)


def buttressed(
    round_bark: Array, lobes: tuple[Lobe, ...], height_m: float, taped_at_m: float, lay_deg: float
) -> Array | None:
    """What buttresses add to each point of the round stem's outline, shape (n, 2); None where none stands.

    Each is a raised cosine of its width along the bark, standing out along the outline's own normal; the bark is
    taken to be as thick over them as elsewhere.
    """
    standing = [(lobe, standing_m(lobe, height_m, taped_at_m)) for lobe in lobes]
    standing = [(lobe, out) for lobe, out in standing if out > 0]
    if not standing:
        return None
    ahead, back = np.roll(round_bark, -1, axis=0), np.roll(round_bark, 1, axis=0)
    along = ahead - back
    normal = np.column_stack([along[:, 1], -along[:, 0]]) / np.hypot(along[:, 0], along[:, 1])[:, None]
    radius = np.hypot(round_bark[:, 0], round_bark[:, 1])
    turn = np.arctan2(round_bark[:, 1], round_bark[:, 0])
    out = np.zeros(len(round_bark))
    for lobe, projection in standing:
        away = (turn - math.radians(lay_deg - lobe.bearing_deg) + np.pi) % (2 * np.pi) - np.pi
        share = np.clip(np.abs(away) * radius / (lobe.width_m / 2), 0.0, 1.0)
        out += projection * (1 + np.cos(np.pi * share)) / 2
    return out[:, None] * normal


def hull_girth_m(outline: Array) -> float:
    """Length of a tape pulled tight round an outline: the perimeter of its convex hull.

    Source: Cauchy's formula, the perimeter of a convex figure is pi times its mean width; its support function is
    the farthest reach of the outline in each direction.
    """
    turn = np.linspace(0.0, 2 * np.pi, OUTLINE_POINTS, endpoint=False)
    reach = (outline @ np.stack([np.cos(turn), np.sin(turn)])).max(axis=0)
    return float(2 * np.pi * reach.mean())


@lru_cache(maxsize=64)
def round_share(trunk: Trunk, lobes: tuple[Lobe, ...]) -> float:
    """Diameter of the round stem over the taped one: a tape round buttresses measures their hull.

    Found by the Illinois rule on the hull's girth; 1 without buttresses at the tape. Raises InputError when the
    buttresses stand out so far that no stem would be left between them.
    """
    taped_m, at_m = _taped(trunk)
    around = 1.0 if trunk.cross_diameter_m is None else trunk.cross_diameter_m / trunk.diameter_m
    if not any(standing_m(lobe, at_m, at_m) > 0 for lobe in lobes):
        return 1.0

    def excess(share: float) -> float:
        bark, _ = _outlines(share * taped_m / 2, share * around * taped_m / 2, 0.0)
        out = buttressed(rotated(bark, trunk.diameter_bearing_deg, 0.0), lobes, at_m, at_m, 0.0)
        assert out is not None
        return hull_girth_m(rotated(bark, trunk.diameter_bearing_deg, 0.0) + out) - math.pi * taped_m * (1 + around) / 2

    low, high = LEAST_ROUND, 1.0
    below, above = excess(low), excess(high)
    if below >= 0:
        most = max(lobes, key=lambda lobe: lobe.projection_m).projection_m
        raise InputError(
            "tree.lobes.projection_m",
            most,
            kind="length",
            low=0.0,
            high=most / 2,
            reason="the buttresses would leave no stem within the taped girth",
        )
    return _root(excess, (low, below), (high, above))


def _root(function: Callable[[float], float], low: tuple[float, float], high: tuple[float, float]) -> float:
    """Where a rising function is zero between two points (x, value) of unlike sign, by the Illinois rule."""
    share, kept = high[0], 0
    for _ in range(40):
        share = (low[0] * high[1] - high[0] * low[1]) / (high[1] - low[1])
        value = function(share)
        if abs(value) < 1e-7:
            break
        if value > 0:
            high, low = (share, value), (low[0], low[1] / 2) if kept == 1 else low
            kept = 1
        else:
            low, high = (share, value), (high[0], high[1] / 2) if kept == -1 else high
            kept = -1
    return share


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
        round_bark=bark,
        round_wood=wood,
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


def rot_share(decay: Decay, height_m: float) -> float:
    """Size of the rot at a height over its size where it was measured: it shrinks upwards in proportion.

    Below the measurement it grows on, at most by a quarter. Where its end is not known it goes on unchanged:
    nobody has shown that a higher cut helps. The cone is indicative.
    """
    if decay.top_m is None or decay.top_m <= decay.at_m:
        return 1.0 if decay.top_m is None or height_m < decay.top_m else 0.0
    return min(max((decay.top_m - height_m) / (decay.top_m - decay.at_m), 0.0), 1.25)


def _rot_outline(decay: Decay, wood: Array, height_m: float, lay_deg: float) -> Array:
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


def _hollow(decay: Decay, wood: Array, share: float, lay_deg: float) -> Array:
    """The inside of a shell probed at bearings, linear between the probes, its radii scaled by ``share``."""
    outer = wood[:: OUTLINE_POINTS // ROT_POINTS]
    radius = np.hypot(outer[:, 0], outer[:, 1])
    bearing = lay_deg - np.degrees(np.arctan2(outer[:, 1], outer[:, 0]))
    probes = sorted((reading.bearing_deg % 360.0, reading.sound_m) for reading in decay.shell)
    shell = np.interp(bearing % 360.0, [b for b, _ in probes], [s for _, s in probes], period=360.0)
    left = np.clip((radius - shell) * share, 0.0, radius)
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


def reach_m(outline: Array, bearing_deg: float, lay_deg: float) -> float:
    """Radius of an outline from the pith towards a bearing."""
    return float(_radius_towards(outline, np.array([to_tree(bearing_deg, 1.0, lay_deg)]))[0])


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
