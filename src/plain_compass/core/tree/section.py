"""The stem's cross-section at the cut: bark, wood, rot, and how much of it is sound."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import cached_property
from typing import TypeAlias

import numpy as np

from ..base.errors import InputError
from ..base.frames import rotated
from ..base.frozen import dataclass
from ..base.kept import kept
from ..base.polygon import EMPTY, Array, Moments, intervals, moments
from ..base.quantity import Kind
from .butt import Lobe, standing_m
from .outline import buttressed, diameters_at, ellipse_outlines, round_share, spur_tips, taped
from .rot import radius_towards, rot_outline
from .tree import Decay, Tree, Trunk

STRIPS = 200
"""Slices across the lay by which depths are followed: half a centimetre on a stem of a metre."""


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


@dataclass(frozen=True, eq=False)
class Section:
    """Cross-section at the cut in the tree's frame, origin at the pith.

    Attributes:
        bark, wood: outlines over and under bark, shape (240, 2).
        round_bark, round_wood: the same without buttresses; the same arrays where there are none.
        spurs: tips of the buttresses that stand, on the wood, shape (s, 2).
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
    spurs: Array
    rot: Array
    wood_moments: Moments
    sound_moments: Moments
    diameter_m: float
    front_m: float
    back_m: float
    width_m: float
    shell_ratio: float | None
    sound_fraction: float | None

    @property
    def reach_m(self) -> float:
        """Outermost bark from the pith."""
        return math.sqrt(float((self.bark**2).sum(axis=1).max()))

    @cached_property
    def strips(self) -> Strips:
        """Slices of the wood for what has no exact strip: made once, for those who ask."""
        width = self.width_m / STRIPS
        lefts: Array = (self.right_m + width * (np.arange(STRIPS) + 0.5)).astype(np.float64)
        return Strips(lefts, width, intervals(self.wood, lefts), intervals(self.rot, lefts))

    @cached_property
    def left_m(self) -> float:
        """Leftmost wood."""
        return float(self.wood[:, 1].max())

    @cached_property
    def right_m(self) -> float:
        """Rightmost wood."""
        return float(self.wood[:, 1].min())

    @property
    def depth_m(self) -> float:
        """Depth of the wood along the lay: the D of ``%D``."""
        return self.front_m - self.back_m


def section_at(tree: Tree, height_m: float, lay_deg: float, exponent: float) -> Section:
    """The section of ``tree`` at ``height_m``, turned so that forward is ``lay_deg``.

    Raises InputError when bark, buttresses or decay do not fit.
    """
    return _section((tree.trunk, tree.lobes, tree.decay), tree.height_m, height_m, lay_deg, exponent)


Butt: TypeAlias = tuple[Trunk, tuple[Lobe, ...], Decay]
NORTH_DEG = 0.0
"""Where forward is in the section that others are turned from."""


@kept("section at the cut", 64)
def _section(butt: Butt, tree_height_m: float, height_m: float, lay_deg: float, exponent: float) -> Section:
    """``section_at`` by what it depends on: a crown or lean measured anew leaves the section as it was."""
    north = _to_north(butt, tree_height_m, height_m, exponent)
    return north if lay_deg == NORTH_DEG else _turned(north, lay_deg)


def _turned(north: Section, lay_deg: float) -> Section:
    """A section once more, with another bearing forward: no outline is worked out again for a lay."""
    outlines = (north.bark, north.wood, north.round_bark, north.round_wood, north.rot, north.spurs)
    bark, wood, round_bark, round_wood, rot, spurs = (rotated(each, NORTH_DEG, lay_deg) for each in outlines)
    if north.round_bark is north.bark:
        round_bark, round_wood = bark, wood
    turn = math.radians(lay_deg)
    return replace(
        north,
        bark=bark,
        wood=wood,
        round_bark=round_bark,
        round_wood=round_wood,
        spurs=spurs,
        rot=rot,
        wood_moments=north.wood_moments.turned(turn),
        sound_moments=north.sound_moments.turned(turn),
        front_m=float(wood[:, 0].max()),
        back_m=float(wood[:, 0].min()),
        width_m=float(wood[:, 1].max()) - float(wood[:, 1].min()),
    )


@kept("outline of the butt", 64)
def _to_north(butt: Butt, tree_height_m: float, height_m: float, exponent: float) -> Section:
    """The section with north forward."""
    trunk, lobes, decay = butt
    lay_deg = NORTH_DEG
    first, second = diameters_at(trunk, height_m, tree_height_m, exponent)
    share = round_share(trunk, lobes)
    first, second = first * share, second * share
    if trunk.bark_m >= 0.45 * min(first, second):
        limit = 0.45 * min(first, second)
        raise InputError(
            "tree.trunk.bark_m",
            trunk.bark_m,
            kind=Kind.LENGTH,
            low=0.0,
            high=limit,
            reason="the bark would fill the stem",
        )
    bark, wood = ellipse_outlines(first / 2, second / 2, trunk.bark_m)
    turned = trunk.diameter_bearing_deg
    bark, wood = rotated(bark, turned, lay_deg), rotated(wood, turned, lay_deg)
    _, at_m = taped(trunk)
    standing = tuple(lobe for lobe in lobes if lobe.state == "standing")
    out = buttressed(bark, standing, height_m, at_m, lay_deg)
    outer, inner = (bark, wood) if out is None else (bark + out, wood + out)
    rot = rot_outline(decay, inner, height_m, lay_deg)
    whole = _assembled(outer, inner, rot, math.sqrt(first * second), decay.kind)
    if out is None:
        return whole
    spurs = spur_tips(inner, tuple(lobe for lobe in standing if standing_m(lobe, height_m, at_m) > 0), lay_deg)
    return replace(whole, round_bark=bark, round_wood=wood, spurs=spurs)


def _assembled(bark: Array, wood: Array, rot: Array, diameter_m: float, decay: str) -> Section:
    wood_moments = moments(wood)
    sound = moments(wood, rot)
    known = decay != "unknown"
    return Section(
        bark=bark,
        wood=wood,
        round_bark=bark,
        round_wood=wood,
        spurs=EMPTY,
        rot=rot,
        wood_moments=wood_moments,
        sound_moments=sound,
        diameter_m=diameter_m,
        front_m=float(wood[:, 0].max()),
        back_m=float(wood[:, 0].min()),
        width_m=float(wood[:, 1].max()) - float(wood[:, 1].min()),
        shell_ratio=_shell_ratio(wood, rot) if known else None,
        sound_fraction=sound.area_m2 / wood_moments.area_m2 if known else None,
    )


def _shell_ratio(wood: Array, rot: Array) -> float:
    """Least sound shell over local radius of the wood, along rays from the pith."""
    if len(rot) == 0:
        return 1.0
    local = radius_towards(wood, rot)
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
    """Integrals of 1, x and x^2, piece after piece: most slices have one, a table of all would be mostly nothing."""
    found = _of_one(pieces[:, 0], rear_m, front_m)
    for at in range(1, pieces.shape[1]):
        some = np.nonzero(pieces[:, at, 1] > pieces[:, at, 0])[0]
        rear, front = (each if each.shape[-1] == 1 else each[..., some] for each in (rear_m, front_m))
        for whole, more in zip(found, _of_one(pieces[some, at], rear, front), strict=True):
            whole[..., some] += more
    return found


def _of_one(piece: Array, rear_m: Array, front_m: Array) -> tuple[Array, Array, Array]:
    rear = np.minimum(np.maximum(piece[:, 0], rear_m), front_m)
    front = np.minimum(np.maximum(piece[:, 1], rear_m), front_m)
    rear2, front2 = rear * rear, front * front
    return front - rear, (front2 - rear2) / 2, (front2 * front - rear2 * rear) / 3
