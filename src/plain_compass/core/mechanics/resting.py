"""The stem laid on the ground: what it meets first, where it bears, how it bends and where it would break.

The lying stem is a tapered beam on a bed that only pushes. Its weight is multiplied by an impact factor that grows
with the speed of the fall; the bending that follows, over what the wood bears, is the ``break_index`` (indicative).
Branches are no cushion here, and a hollow stem is taken as whole.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from ..base.frames import GRAVITY_m_s2
from ..base.polygon import Array
from ..base.rows import Mask
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
LEAST_SHARE = 1e-6
"""Share of a step below which no smaller one is tried."""
TOP_FROM, BUTT_TO = 0.7, 0.3
"""Shares of the length beyond which a first touch is the top's, below which the butt's."""


@dataclass(frozen=True, slots=True, eq=False)
class Beam:
    """B beams come to rest on their beds.

    Attributes:
        down_m: how far each node lies below where it was placed, downwards positive, shape (B, n).
        moment_Nm: bending moment, hogging positive, shape (B, n).
        contact_N: what the bed carries at each node, shape (B, n).
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


def beams_on(along_m: Array, bending_Nm2: Array, weight_N_m: Array, bed_m: Array, bed_N_m2: float) -> Beam:
    """Lay straight beams on beds that only push.

    Euler-Bernoulli elements of equal length with cubic shapes; springs under the nodes act where the beam lies
    deeper than the bed. Strain energy, weight and springs together are convex, so Newton's method with a line
    search finds the one place of rest; a beam that has come to rest is left alone while others still move.

    Args:
        along_m: nodes, even steps, shape (B, n).
        bending_Nm2: E I of each element, shape (B, n - 1).
        weight_N_m: load per metre of each element, shape (B, n - 1).
        bed_m: height of the bed under each node, shape (B, n).
        bed_N_m2: stiffness of the bed per metre of beam and metre of depth.
    """
    many, count = along_m.shape
    step = along_m[:, 1] - along_m[:, 0]
    table, load = _assembled(bending_Nm2, weight_N_m, step)
    springs = np.repeat((bed_N_m2 * step)[:, None], count, axis=1)
    springs[:, [0, -1]] /= 2
    place = _rigid(along_m, bed_m, weight_N_m, springs)
    diagonal = np.arange(0, 2 * count, 2)
    soft = weight_N_m.mean(axis=1) * step / LET_DOWN_m
    moving = np.arange(many)
    for _ in range(SETTLES):
        held = (table[moving], load[moving], springs[moving], bed_m[moving])
        here = place[moving]
        deep = np.maximum(held[3] - here[:, 0::2], 0.0)
        acting = deep > 0
        whole = held[0].copy()
        # With fewer than two springs the beam could turn freely: let it down softly instead.
        carried = acting.sum(axis=1) >= 2
        whole[:, diagonal, diagonal] += np.where(carried[:, None], held[2] * acting, soft[moving][:, None])
        slope = (held[0] @ here[:, :, None])[:, :, 0] - held[1]
        slope[:, 0::2] -= held[2] * deep
        move: Array = np.linalg.solve(whole, -slope[:, :, None])[:, :, 0].astype(np.float64, copy=False)
        moved = here + move
        # The same springs act as were reckoned with: this is the place of rest itself.
        rests = ((moved[:, 0::2] < held[3]) == acting).all(axis=1)
        share = _shares(here, move, np.einsum("bi,bi->b", slope, move), held, rests)
        place[moving] = np.where(rests[:, None], moved, here + share[:, None] * move)
        moving = moving[~rests]
        if not len(moving):
            break
    contact = springs * np.maximum(bed_m - place[:, 0::2], 0.0)
    return Beam(-place[:, 0::2], _moments(along_m, contact, weight_N_m, step), contact)


def _rigid(along_m: Array, bed_m: Array, weight_N_m: Array, springs: Array) -> Array:
    """Where stiff beams would lie, sunk by their weight: on the two high points that carry their centres, (B, 2n).

    Of all pairs of points on either side of the centre of weight, the one that holds the centre highest.
    """
    many, count = along_m.shape
    step = along_m[:, 1] - along_m[:, 0]
    middles = along_m[:, :-1] + step[:, None] / 2
    centre = (weight_N_m * middles).sum(axis=1) / weight_N_m.sum(axis=1)
    is_left = along_m <= centre[:, None]
    run = along_m[:, None, :] - along_m[:, :, None]
    slopes = (bed_m[:, None, :] - bed_m[:, :, None]) / np.where(run == 0, 1.0, run)
    held = bed_m[:, :, None] + slopes * (centre[:, None] - along_m)[:, :, None]
    held = np.where(is_left[:, :, None] & ~is_left[:, None, :], held, -np.inf)
    best = held.reshape(many, -1).argmax(axis=1)
    rows = np.arange(many)
    tilt = slopes.reshape(many, -1)[rows, best]
    place: Array = np.empty((many, 2 * count))
    sunk = weight_N_m.sum(axis=1) * step / springs.min(axis=1)
    level = held.reshape(many, -1)[rows, best] - sunk
    place[:, 0::2] = level[:, None] + tilt[:, None] * (along_m - centre[:, None])
    place[:, 1::2] = tilt[:, None]
    return place


def _shares(place: Array, move: Array, falls: Array, held: tuple[Array, Array, Array, Array], rests: Mask) -> Array:
    """How much of each step brings the energy down enough: all of it, or halves of it; shape (B,).

    Args:
        falls: slope of the energy along the step.
        held: stiffness of the beam, its load, the bed's springs and where the bed lies.
        rests: those that need no search.
    """
    table, load, springs, bed_m = held

    def energy(at: Array) -> Array:
        deep = np.maximum(bed_m - at[:, 0::2], 0.0)
        strain = ((table @ at[:, :, None])[:, :, 0] * at).sum(axis=1) / 2
        found: Array = strain - (load * at).sum(axis=1) + (springs * deep * deep).sum(axis=1) / 2
        return found

    share = np.ones(len(place))
    if rests.all():
        return share
    now = energy(place)
    slack = 1e-12 * (np.abs(now) + 1.0)
    while True:
        above = energy(place + share[:, None] * move) > now + 1e-4 * share * falls + slack
        above &= ~rests & (share > LEAST_SHARE)
        if not above.any():
            return share
        share = np.where(above, share / 2, share)


def _assembled(bending_Nm2: Array, weight_N_m: Array, step: Array) -> tuple[Array, Array]:
    """Stiffness tables (B, 2n, 2n) of heights and slopes, and loads (B, 2n)."""
    s, one = step, np.ones_like(step)
    shape = [
        [12.0 * one, 6 * s, -12.0 * one, 6 * s],
        [6 * s, 4 * s**2, -6 * s, 2 * s**2],
        [-12.0 * one, -6 * s, 12.0 * one, -6 * s],
        [6 * s, 2 * s**2, -6 * s, 4 * s**2],
    ]
    many, elements = bending_Nm2.shape
    size = 2 * elements + 2
    table, load = np.zeros((many, size, size)), np.zeros((many, size))
    even = [s / 2, s**2 / 12, s / 2, -(s**2) / 12]
    first = 2 * np.arange(elements)
    for row in range(4):
        load[:, first + row] -= weight_N_m * even[row][:, None]
        for column in range(4):
            table[:, first + row, first + column] += bending_Nm2 * (shape[row][column] / s**3)[:, None]
    return table, load


def _moments(along_m: Array, contact_N: Array, weight_N_m: Array, step: Array) -> Array:
    """Bending moment at each node from what lies on one side of it: statics, hogging positive; (B, n)."""
    lever = np.maximum(along_m[:, :, None] - along_m[:, None, :], 0.0)
    bed = np.einsum("bij,bj->bi", lever, contact_N)
    middles = along_m[:, :-1] + step[:, None] / 2
    away = np.maximum(along_m[:, :, None] - middles[:, None, :], 0.0)
    found: Array = np.einsum("bij,bj->bi", away, weight_N_m * step[:, None]) - bed
    return found


@dataclass(frozen=True, slots=True)
class Laid:
    """A tree that is to be laid along a profile.

    Attributes:
        cut_m: height of the hinge over the ground at the stump.
    """

    profile: Profile
    tree: Tree
    wood: Wood
    mass: Mass
    cut_m: float


def resting_on(laid: Sequence[Laid], constants: Indicative) -> tuple[Resting, ...]:
    """Lay trees along their profiles, butts on the stumps; wood that is dead breaks more readily."""
    stems = [_stem(one, constants) for one in laid]
    along, thick, thin, weight, bed, elasticity = (np.array(each) for each in zip(*stems, strict=True))
    impact, touches = np.ones(len(laid)), []
    for at, one in enumerate(laid):
        tilt, where = first_touch(one.profile, one.cut_m, one.tree.height_m - one.cut_m)
        turn = math.radians(min(tilt, 180.0))
        fallen = one.mass.com_up_m * (1 - math.cos(turn)) + one.mass.com_forward_m * math.sin(turn)
        impact[at] += (constants.impact_factor - 1.0) * math.sqrt(max(fallen, 0.0) / one.mass.com_up_m)
        touches.append((tilt, where, float(impact[at])))
    bending = elasticity[:, None] * math.pi * thin**4 / 64
    beam = beams_on(along, bending, weight * impact[:, None], bed, constants.ground_N_m2)
    return tuple(
        _at_rest(one, touched, (along[at], thick[at]), beam, (at, constants))
        for at, (one, touched) in enumerate(zip(laid, touches, strict=True))
    )


@lru_cache(maxsize=64)
def resting_alone(laid: Laid, constants: Indicative) -> Resting:
    """One tree, kept while neither it nor the ground under its lay changes."""
    return resting_on([laid], constants)[0]


def _stem(laid: Laid, constants: Indicative) -> tuple[Array, Array, Array, Array, Array, float]:
    """(nodes, diameters there and between them, weight per metre, bed, E) of one stem."""
    tree, cut_m = laid.tree, laid.cut_m
    strength = working_strength(laid.wood, tree.condition, constants)
    along = np.linspace(0.0, tree.height_m - cut_m, ELEMENTS + 1)
    middles = (along[1:] + along[:-1]) / 2
    exponent = constants.profile_exponent[laid.wood.group]
    thick, thin = (_diameters(tree, cut_m, each, exponent) for each in (along, middles))
    weight = _weights(tree, laid.mass, thin, middles, cut_m, float(along[1]))
    bed = _bed_m(laid.profile, along)
    bed[0] = max(bed[0], cut_m)
    return along, thick, thin, weight, bed, strength.elasticity_Pa


def _at_rest(
    laid: Laid,
    touched: tuple[float, float, float],
    stem: tuple[Array, Array],
    beam: Beam,
    which: tuple[int, Indicative],
) -> Resting:
    """What one of the beams means for its tree."""
    (tilt, at, impact), (along, thick), (row, constants) = touched, stem, which
    length, profile = laid.tree.height_m - laid.cut_m, laid.profile
    strength = working_strength(laid.wood, laid.tree.condition, constants)
    bears = strength.rupture_Pa * math.pi * thick**3 / 32 / constants.break_by_class[laid.wood.suppleness]
    index = np.where(thick >= BREAKS_TO_m, np.abs(beam.moment_Nm[row]) / bears, 0.0)
    worst, contact = int(index.argmax()), beam.contact_N[row]
    start, end = _longest_span(along, contact)
    touching = np.interp(along, profile.along_m, profile.across_deg)[contact > 0]
    rolls = float(touching[np.abs(touching).argmax()]) if len(touching) else 0.0
    return Resting(
        touches_deg=tilt,
        touches_at_m=at,
        touches_by="top" if at >= TOP_FROM * length else "butt" if at <= BUTT_TO * length else "middle",
        impact=impact,
        along_m=along,
        thick_m=thick,
        lies_m=-beam.down_m[row],
        contact_N=contact,
        index=index,
        break_index=float(index[worst]),
        breaks_at_m=float(along[worst]),
        span_from_m=start,
        span_to_m=end,
        rolls_deg=rolls,
        slides_deg=math.degrees(math.atan2(float(profile.ground_m[0] - profile.ground_m[-1]), length)),
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
