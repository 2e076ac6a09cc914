"""The stem's outline at a height: the taped girth, its taper, bark, and buttresses under the tape."""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np

from ..base.errors import InputError
from ..base.frames import rotated
from ..base.kept import kept
from ..base.polygon import Array
from ..base.quantity import Kind
from .butt import Lobe, standing_m
from .stem import profile_ratio
from .tree import Trunk

OUTLINE_POINTS = 240
"""Points of an outline: on a round stem of a metre its chords lie within a twentieth of a millimetre of it."""
LEAST_ROUND = 0.2
"""Share of the taped diameter that must be left to the round stem between buttresses."""


def diameters_at(trunk: Trunk, height_m: float, tree_height_m: float, exponent: float) -> tuple[float, float]:
    """Diameters over bark (along the first, across it) of the round stem at a height, along the stem's taper.

    The butt measurement is used when there is one: butt flare makes the taper from breast height too thin.
    """
    taped_m, at_m = taped(trunk)
    first = taped_m * profile_ratio(height_m, at_m, tree_height_m, exponent)
    roundness = 1.0 if trunk.cross_diameter_m is None else trunk.cross_diameter_m / trunk.diameter_m
    return first, first * roundness


def taped_height_m(trunk: Trunk) -> float:
    """Height of the tape nearest the cut, at which buttresses are measured too."""
    return taped(trunk)[1]


def taped(trunk: Trunk) -> tuple[float, float]:
    """(diameter over bark, height above ground) of the tape nearest the cut."""
    if trunk.butt_diameter_m is None:
        return trunk.diameter_m, trunk.at_m
    return trunk.butt_diameter_m, trunk.butt_at_m


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


def spur_tips(wood: Array, lobes: tuple[Lobe, ...], lay_deg: float) -> Array:
    """Where the middle of each buttress meets the outside of the wood, in the tree's frame; shape (n, 2)."""
    turns = np.arctan2(wood[:, 1], wood[:, 0])
    wanted = np.radians([lay_deg - lobe.bearing_deg for lobe in lobes])
    reach = np.interp(wanted, turns, np.hypot(wood[:, 0], wood[:, 1]), period=2 * np.pi)
    return np.column_stack([reach * np.cos(wanted), reach * np.sin(wanted)])


def hull_girth_m(outline: Array) -> float:
    """Length of a tape pulled tight round an outline: the perimeter of its convex hull.

    Source: Cauchy's formula, the perimeter of a convex figure is pi times its mean width; its support function is
    the farthest reach of the outline in each direction.
    """
    turn = np.linspace(0.0, 2 * np.pi, OUTLINE_POINTS, endpoint=False)
    reach = (outline @ np.stack([np.cos(turn), np.sin(turn)])).max(axis=0)
    return float(2 * np.pi * reach.mean())


@kept("outline of the butt", 64)
def round_share(trunk: Trunk, lobes: tuple[Lobe, ...]) -> float:
    """Diameter of the round stem over the taped one: a tape round buttresses measures their hull.

    Found by the Illinois rule on the hull's girth; 1 without buttresses at the tape. Raises InputError when the
    buttresses stand out so far that no stem would be left between them.
    """
    taped_m, at_m = taped(trunk)
    around = 1.0 if trunk.cross_diameter_m is None else trunk.cross_diameter_m / trunk.diameter_m
    if not any(standing_m(lobe, at_m, at_m) > 0 for lobe in lobes):
        return 1.0

    def excess(share: float) -> float:
        bark, _ = ellipse_outlines(share * taped_m / 2, share * around * taped_m / 2, 0.0)
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
            kind=Kind.LENGTH,
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


@kept("outline of the butt", 32)
def ellipse_outlines(half_first_m: float, half_second_m: float, bark_m: float) -> tuple[Array, Array]:
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
