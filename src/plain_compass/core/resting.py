"""The stem laid on the ground: what it meets first, where it bears, how it bends and where it would break.

The lying stem is a tapered beam on a bed that only pushes. Its weight is multiplied by an impact factor that grows
with the speed of the fall; the bending that follows, over what the wood bears, is the ``break_index`` (indicative).
Branches are no cushion here, and a hollow stem is taken as whole.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from .balance import Mass
from .frames import GRAVITY_m_s2
from .ground import Profile
from .polygon import Array
from .stem import diameters_m
from .tree import Tree
from .wood import Indicative, Wood, working_strength

ELEMENTS = 28
LEAST_DIAMETER_m = 0.04
BREAKS_TO_m = 0.10
"""Thinner wood than this at the top always breaks and is not counted."""
SETTLES = 12
TOP_FROM, BUTT_TO = 0.7, 0.3
"""Shares of the length beyond which a first touch is the top's, below which the butt's."""


@dataclass(frozen=True, slots=True, eq=False)
class Beam:
    """A beam come to rest on its bed.

    Attributes:
        down_m: how far each node lies below where it was placed, downwards positive, shape (n,).
        moment_Nm: bending moment, hogging positive, shape (n,).
        contact_N: what the bed carries at each node, shape (n,).
    """

    down_m: Array
    moment_Nm: Array
    contact_N: Array


@dataclass(frozen=True, slots=True, eq=False)
class Resting:
    """A tree on the ground along its lay.

    Attributes:
        touches_deg: tilt at which the stem first meets the ground.
        touches_at_m: how far up the stem that is.
        touches_by: ``top``, ``middle`` or ``butt``.
        impact: the factor on the weight (indicative).
        along_m: nodes along the stem from the cut, shape (n,).
        lies_m: height of the stem's underside over the ground at the stump, shape (n,).
        contact_N: what the ground carries at each node, shape (n,).
        index: bending over what the wood bears, along the stem, shape (n,); 0 in the thin top.
        break_index: the largest, and ``breaks_at_m`` where.
        span_from_m, span_to_m: the longest stretch that bears on nothing; equal where there is none.
        rolls_deg: steepest fall of the ground across the stem where it bears, left positive.
        slides_deg: slope along the stem, downhill away from the stump positive.
    """

    touches_deg: float
    touches_at_m: float
    touches_by: str
    impact: float
    along_m: Array
    lies_m: Array
    contact_N: Array
    index: Array
    break_index: float
    breaks_at_m: float
    span_from_m: float
    span_to_m: float
    rolls_deg: float
    slides_deg: float


def first_touch(profile: Profile, cut_m: float, length_m: float) -> tuple[float, float]:
    """(tilt in degrees, metres up the stem) at which a straight stem turning about its hinge first meets the ground.

    A point of the ground s along and z up stands at the tilt atan2(s, z - cut) as seen from the hinge, and is met
    when it is no farther than the top.
    """
    along, above = profile.along_m, profile.top_m - cut_m
    distance = np.hypot(along, above)
    reached = (distance <= length_m + 1e-9) & (along > 0.5)
    tilt = np.where(reached, np.degrees(np.arctan2(along, above)), 180.0)
    first = int(tilt.argmin())
    if tilt[first] >= 180.0:
        return 180.0, length_m
    # Over even ground the last few points are met within a degree: the farthest of them is the one that counts.
    near = np.nonzero(tilt <= tilt[first] + 0.25)[0]
    return float(tilt[first]), float(distance[near[-1]])


def beam_on(along_m: Array, bending_Nm2: Array, weight_N_m: Array, bed_m: Array, bed_N_m2: float) -> Beam:
    """Lay a straight beam on a bed that only pushes.

    Euler-Bernoulli elements of equal length with cubic shapes; springs under the nodes act where the beam lies
    deeper than the bed, found by repeating until the same ones act.

    Args:
        along_m: nodes, even steps, shape (n,).
        bending_Nm2: E I of each element, shape (n - 1,).
        weight_N_m: load per metre of each element, shape (n - 1,).
        bed_m: height of the bed under each node, shape (n,).
        bed_N_m2: stiffness of the bed per metre of beam and metre of depth.
    """
    count, step = len(along_m), float(along_m[1] - along_m[0])
    table, load = _assembled(bending_Nm2, weight_N_m, step)
    share = np.full(count, step)
    share[[0, -1]] = step / 2
    springs = bed_N_m2 * share
    acting: NDArray[np.bool_] = np.ones(count, dtype=bool)
    found: Array = np.zeros(2 * count)
    for _ in range(SETTLES):
        whole = table.copy()
        whole[np.arange(0, 2 * count, 2), np.arange(0, 2 * count, 2)] += springs * acting
        forces = load.copy()
        forces[0::2] += springs * acting * bed_m
        found = np.asarray(np.linalg.solve(whole, forces), dtype=np.float64)
        held = found[0::2] < bed_m
        if int(held.sum()) < 2:
            held = _two_highest(bed_m, held)
        if (held == acting).all():
            break
        acting = held
    height = found[0::2]
    contact = springs * acting * (bed_m - height)
    return Beam(-height, _moments(along_m, contact, weight_N_m, step), contact)


def _two_highest(bed_m: Array, held: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Hold at least two nodes, so that the beam cannot turn freely."""
    found = held.copy()
    for index in np.argsort(-bed_m, kind="stable"):
        found[index] = True
        if int(found.sum()) >= 2:
            break
    return found


def _assembled(bending_Nm2: Array, weight_N_m: Array, step: float) -> tuple[Array, Array]:
    """Stiffness table (2n, 2n) of heights and slopes, and loads (2n,)."""
    one = (
        np.array(
            [
                [12.0, 6 * step, -12.0, 6 * step],
                [6 * step, 4 * step**2, -6 * step, 2 * step**2],
                [-12.0, -6 * step, 12.0, -6 * step],
                [6 * step, 2 * step**2, -6 * step, 4 * step**2],
            ]
        )
        / step**3
    )
    size = 2 * len(bending_Nm2) + 2
    table, load = np.zeros((size, size)), np.zeros(size)
    even = np.array([step / 2, step**2 / 12, step / 2, -(step**2) / 12])
    first = 2 * np.arange(len(bending_Nm2))
    for row in range(4):
        load[first + row] -= weight_N_m * even[row]
        for column in range(4):
            table[first + row, first + column] += bending_Nm2 * one[row, column]
    return table, load


def _moments(along_m: Array, contact_N: Array, weight_N_m: Array, step: float) -> Array:
    """Bending moment at each node from what lies on one side of it: statics, hogging positive."""
    lever = along_m[:, None] - along_m[None, :]
    bed = np.where(lever > 0, contact_N[None, :] * lever, 0.0).sum(axis=1)
    middles = along_m[:-1] + step / 2
    away = along_m[:, None] - middles[None, :]
    weight = np.where(away > 0, weight_N_m[None, :] * step * away, 0.0).sum(axis=1)
    found: Array = weight - bed
    return found


@lru_cache(maxsize=64)
def resting_on(profile: Profile, tree: Tree, wood: Wood, mass: Mass, cut_m: float, constants: Indicative) -> Resting:
    """Lay the tree along the profile, its butt on the stump; wood that is dead breaks more readily."""
    strength = working_strength(wood, tree.condition, constants)
    length = tree.height_m - cut_m
    tilt, at = first_touch(profile, cut_m, length)
    turn = math.radians(min(tilt, 180.0))
    fallen = mass.com_up_m * (1 - math.cos(turn)) + mass.com_forward_m * math.sin(turn)
    impact = 1.0 + (constants.impact_factor - 1.0) * math.sqrt(max(fallen, 0.0) / mass.com_up_m)
    along = np.linspace(0.0, length, ELEMENTS + 1)
    middles = (along[1:] + along[:-1]) / 2
    exponent = constants.profile_exponent[wood.group]
    thick = _diameters(tree, cut_m, along, exponent)
    thin = _diameters(tree, cut_m, middles, exponent)
    weight = _weights(tree, mass, thin, middles, cut_m, float(along[1]))
    bed = _bed_m(profile, along)
    bed[0] = max(bed[0], cut_m)
    beam = beam_on(along, strength.elasticity_Pa * math.pi * thin**4 / 64, weight * impact, bed, constants.ground_N_m2)
    bears = strength.rupture_Pa * math.pi * thick**3 / 32 / constants.break_by_class[wood.suppleness]
    index = np.where(thick >= BREAKS_TO_m, np.abs(beam.moment_Nm) / bears, 0.0)
    worst = int(index.argmax())
    start, end = _longest_span(along, beam.contact_N)
    touching = np.interp(along, profile.along_m, profile.across_deg)[beam.contact_N > 0]
    rolls = float(touching[np.abs(touching).argmax()]) if len(touching) else 0.0
    slides = math.degrees(math.atan2(float(profile.ground_m[0] - profile.ground_m[-1]), length))
    by = "top" if at >= TOP_FROM * length else "butt" if at <= BUTT_TO * length else "middle"
    return Resting(
        tilt,
        at,
        by,
        impact,
        along,
        -beam.down_m,
        beam.contact_N,
        index,
        float(index[worst]),
        float(along[worst]),
        start,
        end,
        rolls,
        slides,
    )


def _bed_m(profile: Profile, along_m: Array) -> Array:
    """The highest ground within half a step of each node, so that no narrow hump falls between two, shape (n,)."""
    half, fine = float(along_m[1]) / 2, np.linspace(-1.0, 1.0, 5)
    around = along_m[:, None] + half * fine[None, :]
    found: Array = np.interp(around, profile.along_m, profile.top_m).max(axis=1)
    return found


def _diameters(tree: Tree, cut_m: float, along_m: Array, exponent: float) -> Array:
    found: Array = np.maximum(diameters_m(tree.trunk, along_m + cut_m, tree.height_m, exponent), LEAST_DIAMETER_m)
    return found


def _weights(tree: Tree, mass: Mass, thin: Array, middles: Array, cut_m: float, step: float) -> Array:
    """Weight per metre: the stem by its section, the crown dwindling from its base to the top; shape (n,)."""
    stem = thin**2 / (thin**2).sum()
    length = tree.height_m - cut_m
    base = tree.crown.base_m - cut_m
    crown = np.where(middles >= base, length - middles, 0.0)
    crown = crown / crown.sum() if crown.sum() > 0 else stem
    found: Array = ((mass.mass_kg - mass.crown_mass_kg) * stem + mass.crown_mass_kg * crown) * GRAVITY_m_s2 / step
    return found


def _longest_span(along_m: Array, contact_N: Array) -> tuple[float, float]:
    """Ends of the longest stretch between two nodes that bear."""
    bearing = along_m[contact_N > 0]
    if len(bearing) < 2:
        return 0.0, 0.0
    gaps = np.diff(bearing)
    widest = int(gaps.argmax())
    if gaps[widest] <= 1.5 * (along_m[1] - along_m[0]):
        return 0.0, 0.0
    return float(bearing[widest]), float(bearing[widest + 1])
