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

from ..base.frames import GRAVITY_m_s2
from ..base.polygon import Array
from ..site.ground import Profile
from ..tree.stem import diameters_m
from ..tree.tree import Tree
from ..tree.wood import Indicative, Wood, working_strength
from .balance import Mass

ELEMENTS = 28
"""Beam elements of the stem: each shorter than the bumps and hollows it lies over."""
LEAST_DIAMETER_m = 0.04
"""The top of the stem as a beam; it runs on to nothing."""
BREAKS_TO_m = 0.10
"""Thinner wood than this at the top always breaks and is not counted."""
SETTLES = 60
"""Rounds of Newton's method in which contacts open and close: a bound, the place of rest ends it long before."""
LET_DOWN_m = 0.5
"""How far a beam that could still turn freely is let down in one round, about: a step on the way, not a result."""
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
        thick_m: diameter there, shape (n,).
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
    thick_m: Array
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
    deeper than the bed. Strain energy, weight and springs together are convex, so Newton's method with a line
    search finds the one place of rest.

    Args:
        along_m: nodes, even steps, shape (n,).
        bending_Nm2: E I of each element, shape (n - 1,).
        weight_N_m: load per metre of each element, shape (n - 1,).
        bed_m: height of the bed under each node, shape (n,).
        bed_N_m2: stiffness of the bed per metre of beam and metre of depth.
    """
    count, step = len(along_m), float(along_m[1] - along_m[0])
    table, load = _assembled(bending_Nm2, weight_N_m, step)
    springs = np.full(count, bed_N_m2 * step)
    springs[[0, -1]] /= 2
    place = _rigid(along_m, bed_m, weight_N_m, step, springs)
    diagonal = np.arange(0, 2 * count, 2)
    soft = float(weight_N_m.mean()) * step / LET_DOWN_m
    for _ in range(SETTLES):
        deep = np.maximum(bed_m - place[0::2], 0.0)
        acting = deep > 0
        whole = table.copy()
        # With fewer than two springs the beam could turn freely: let it down softly instead.
        whole[diagonal, diagonal] += springs * acting if int(acting.sum()) >= 2 else soft
        slope = table @ place - load
        slope[0::2] -= springs * deep
        move = np.asarray(np.linalg.solve(whole, -slope), dtype=np.float64)
        moved = place + move
        if ((moved[0::2] < bed_m) == acting).all():
            # The same springs act as were reckoned with: this is the place of rest itself.
            place = moved
            break
        share = _share(place, move, float(slope @ move), (table, load, springs, bed_m))
        place = place + share * move
    contact = springs * np.maximum(bed_m - place[0::2], 0.0)
    return Beam(-place[0::2], _moments(along_m, contact, weight_N_m, step), contact)


def _rigid(along_m: Array, bed_m: Array, weight_N_m: Array, step: float, springs: Array) -> Array:
    """Where a stiff beam would lie, sunk by its weight: on the two high points that carry its centre, (2n,).

    Of all pairs of points on either side of the centre of weight, the one that holds the centre highest.
    """
    middles = along_m[:-1] + step / 2
    centre = float(weight_N_m @ middles / weight_N_m.sum())
    left, right = along_m[along_m <= centre], along_m[along_m > centre]
    low, high = bed_m[: len(left), None], bed_m[None, len(left) :]
    slopes = (high - low) / (right[None, :] - left[:, None])
    held = low + slopes * (centre - left[:, None])
    i, j = np.unravel_index(int(held.argmax()), held.shape)
    place: Array = np.empty(2 * len(along_m))
    sunk = float(weight_N_m.sum()) * step / float(springs.min())
    place[0::2] = held[i, j] + slopes[i, j] * (along_m - centre) - sunk
    place[1::2] = slopes[i, j]
    return place


def _share(place: Array, move: Array, falls: float, held: tuple[Array, Array, Array, Array]) -> float:
    """How much of a step brings the energy down enough: all of it, or halves of it.

    Args:
        falls: slope of the energy along the step.
        held: stiffness of the beam, its load, the bed's springs and where the bed lies.
    """
    table, load, springs, bed_m = held

    def energy(at: Array) -> float:
        deep = np.maximum(bed_m - at[0::2], 0.0)
        return float(at @ (table @ at) / 2 - load @ at + (springs * deep * deep).sum() / 2)

    now, share = energy(place), 1.0
    slack = 1e-12 * (abs(now) + 1.0)
    while share > 1e-6 and energy(place + share * move) > now + 1e-4 * share * falls + slack:
        share /= 2
    return share


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
        thick,
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
