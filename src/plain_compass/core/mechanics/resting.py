"""The stem laid on the ground: what it meets first, where it bears, how it bends and where it would break.

The lying stem is a tapered beam on a bed that only pushes. Its weight is multiplied by an impact factor that grows
with the speed of the fall; the bending that follows, over what the wood bears, is the ``break_index`` (indicative).
Branches are no cushion here, and a hollow stem is taken as whole.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Generic, NamedTuple

import numpy as np

from ..base.frames import GRAVITY_m_s2
from ..base.frozen import dataclass
from ..base.kept import kept
from ..base.rows import Array, Mask, N
from ..site.ground import Profile
from ..tree.stem import diameters_m
from ..tree.tree import Tree
from ..tree.wood import Indicative, Wood, working_strength
from .beam import beams_on
from .mass import Mass

ELEMENTS = 28
"""Beam elements of the stem: each shorter than the bumps and hollows it lies over."""
LEAST_DIAMETER_m = 0.04
"""The top of the stem as a beam; it runs on to nothing."""
BREAKS_TO_m = 0.10
"""Thinner wood than this at the top always breaks and is not counted."""
TOP_FROM, BUTT_TO = 0.7, 0.3
"""Shares of the length beyond which a first touch is the top's, below which the butt's."""
MET_WITHIN_DEG = 0.25
"""Over even ground the last few points are met within a degree: the farthest of those within this counts."""
NEVER_DEG = 180.0
"""Tilt of a first touch that does not come."""


@dataclass(frozen=True, eq=False)
class Resting(Generic[N]):
    """A tree on the ground along its lay; what runs along the stem has shape (n,), and (B, n) of many.

    Attributes:
        touches_deg: tilt at which the stem first meets the ground.
        touches_at_m: how far up the stem that is.
        impact: the factor on the weight (indicative).
        along_m: nodes along the stem from the cut.
        thick_m: diameter there.
        lies_m: height of the stem's underside over the ground at the stump.
        contact_N: what the ground carries at each node.
        index: bending over what the wood bears, along the stem; 0 in the thin top.
        break_index: the largest, and ``breaks_at_m`` where.
        span_from_m, span_to_m: the longest stretch that bears on nothing; equal where there is none.
        rolls_deg: steepest fall of the ground across the stem where it bears, left positive.
        slides_deg: slope along the stem, downhill away from the stump positive.
    """

    touches_deg: N
    touches_at_m: N
    impact: N
    along_m: Array
    thick_m: Array
    lies_m: Array
    contact_N: Array
    index: Array
    break_index: N
    breaks_at_m: N
    span_from_m: N
    span_to_m: N
    rolls_deg: N
    slides_deg: N

    @property
    def touches_by(self) -> str:
        """What meets the ground first: ``top``, ``middle`` or ``butt``; of one case."""
        length, at = float(self.along_m[-1]), self.touches_at_m
        return "top" if at >= TOP_FROM * length else "butt" if at <= BUTT_TO * length else "middle"


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


class _Stem(NamedTuple):
    """A stem as a beam: nodes, diameters there, bending E I and weight by element, and what bending it bears."""

    along_m: Array
    thick_m: Array
    bending_Nm2: Array
    weight_N_m: Array
    bears_Nm: Array


class _Beds(NamedTuple):
    """The ground under B lays, profiles of unlike length drawn out to one: (B, n) each, ``step_m`` (B, 1)."""

    step_m: Array
    along_m: Array
    top_m: Array
    across_deg: Array

    def at_m(self, along_m: Array, of: Array) -> Array:
        """A column of the profiles read at distances from the stumps, shapes (B, k)."""
        place = along_m / self.step_m
        before = np.clip(place.astype(np.intp), 0, of.shape[1] - 2)
        rows = np.arange(len(of))[:, None]
        low, high = of[rows, before], of[rows, before + 1]
        found: Array = low + (high - low) * np.clip(place - before, 0.0, 1.0)
        return found


def first_touches(profiles: Sequence[Profile], cut_m: float, length_m: float) -> tuple[Array, Array]:
    """(tilt in degrees, metres up the stem) at which a straight stem turning about its hinge first meets the ground.

    Of one stem along several profiles, shapes (B,).
    """
    beds = _beds(profiles)
    return _first_touches(beds.along_m, beds.top_m - cut_m, np.full((len(profiles), 1), length_m))


def _first_touches(along_m: Array, above_m: Array, length_m: Array) -> tuple[Array, Array]:
    """The same of many stems.

    A point of the ground s along and z up stands at the tilt atan2(s, z - cut) as seen from the hinge, and is met
    when it is no farther than the top.
    """
    distance = np.hypot(along_m, above_m)
    reached = (distance <= length_m + 1e-9) & (along_m > 0.5)
    tilt = np.where(reached, np.degrees(np.arctan2(along_m, above_m)), NEVER_DEG)
    first = tilt.min(axis=1)
    near = tilt <= first[:, None] + MET_WITHIN_DEG
    last = near.shape[1] - 1 - near[:, ::-1].argmax(axis=1)
    met = first < NEVER_DEG
    return first, np.where(met, distance[np.arange(len(last)), last], length_m[:, 0])


def slides_deg(profile: Profile, length_m: float) -> float:
    """Slope along a stem that lies on a profile, downhill away from the stump positive."""
    return math.degrees(math.atan2(float(profile.ground_m[0] - profile.ground_m[-1]), length_m))


def resting_on(laid: Sequence[Laid], constants: Indicative) -> Resting[Array]:
    """Lay trees along their profiles, butts on the stumps; wood that is dead breaks more readily."""
    stems = _stems(laid, constants)
    beds = _beds([one.profile for one in laid])
    cut = np.array([[one.cut_m] for one in laid])
    length = stems.along_m[:, -1:]
    touches, touches_at = _first_touches(beds.along_m, beds.top_m - cut, length)
    turn = np.radians(touches)
    com_up, com_forward = np.array([(one.mass.com_up_m, one.mass.com_forward_m) for one in laid]).T
    fallen = com_up * (1 - np.cos(turn)) + com_forward * np.sin(turn)
    impact = 1.0 + (constants.impact_factor - 1.0) * np.sqrt(np.maximum(fallen, 0.0) / com_up)
    bed = _bed_m(beds, stems.along_m)
    bed[:, 0] = np.maximum(bed[:, 0], cut[:, 0])
    weight = stems.weight_N_m * impact[:, None]
    beam = beams_on(stems.along_m, stems.bending_Nm2, weight, bed, constants.ground_N_m2)
    index = np.where(stems.thick_m >= BREAKS_TO_m, np.abs(beam.moment_Nm) / stems.bears_Nm, 0.0)
    worst, rows = index.argmax(axis=1), np.arange(len(laid))
    start, end = _longest_spans(stems.along_m, beam.contact_N > 0)
    return Resting(
        touches_deg=touches,
        touches_at_m=touches_at,
        impact=impact,
        along_m=stems.along_m,
        thick_m=stems.thick_m,
        lies_m=-beam.down_m,
        contact_N=beam.contact_N,
        index=index,
        break_index=index[rows, worst],
        breaks_at_m=stems.along_m[rows, worst],
        span_from_m=start,
        span_to_m=end,
        rolls_deg=_rolls_deg(beds, stems.along_m, beam.contact_N > 0),
        slides_deg=np.array(
            [slides_deg(one.profile, far) for one, far in zip(laid, length[:, 0].tolist(), strict=True)]
        ),
    )


@kept("lying stem", 64)
def resting_alone(laid: Laid, constants: Indicative) -> Resting[Array]:
    """One tree, kept while neither it nor the ground under its lay changes."""
    return resting_on([laid], constants)


def _stems(laid: Sequence[Laid], constants: Indicative) -> _Stem:
    """Every stem as a beam, (B, n); what does not depend on the lay is made once for all lays of a tree."""
    made: dict[tuple[object, ...], _Stem] = {}
    found = []
    for one in laid:
        key = (id(one.tree), id(one.wood), one.cut_m, one.mass.mass_kg)
        if key not in made:
            made[key] = _stem(one, constants)
        found.append(made[key])
    return _Stem(*(np.array(each) for each in zip(*found, strict=True)))


def _stem(laid: Laid, constants: Indicative) -> _Stem:
    """One stem as a beam; its thin top runs on to nothing."""
    tree, cut_m = laid.tree, laid.cut_m
    strength = working_strength(laid.wood, tree.condition, constants)
    along = np.linspace(0.0, tree.height_m - cut_m, ELEMENTS + 1)
    middles = (along[1:] + along[:-1]) / 2
    exponent = constants.profile_exponent[laid.wood.group]
    thick, thin = (_diameters(tree, cut_m, each, exponent) for each in (along, middles))
    weight = _weights(tree, laid.mass, thin, middles, cut_m, float(along[1]))
    bears = strength.rupture_Pa * math.pi * thick**3 / 32 / constants.break_by_class[laid.wood.suppleness]
    return _Stem(along, thick, strength.elasticity_Pa * math.pi * thin**4 / 64, weight, bears)


def _beds(profiles: Sequence[Profile]) -> _Beds:
    """Profiles under one another; a shorter one goes on level, farther than any stem reaches."""
    most = max(len(each.along_m) for each in profiles)
    along, top, across = np.empty((3, len(profiles), most))
    for at, each in enumerate(profiles):
        count = len(each.along_m)
        for table, values in ((along, each.along_m), (top, each.top_m), (across, each.across_deg)):
            table[at, :count], table[at, count:] = values, values[-1]
        along[at, count:] += NEVER_DEG * each.along_m[-1]
    return _Beds(along[:, 1:2], along, top, across)


def _bed_m(beds: _Beds, along_m: Array) -> Array:
    """The highest ground within half a step of each node, so that no narrow hump falls between two, shape (B, n)."""
    half, fine = along_m[:, 1:2] / 2, np.linspace(-1.0, 1.0, 5)
    around = along_m[:, :, None] + half[:, :, None] * fine
    found: Array = beds.at_m(around.reshape(len(along_m), -1), beds.top_m).reshape(around.shape).max(axis=2)
    return found


def _rolls_deg(beds: _Beds, along_m: Array, bears: Mask) -> Array:
    """The steepest fall of the ground across each stem where it bears, shape (B,)."""
    across = np.where(bears, beds.at_m(along_m, beds.across_deg), 0.0)
    found: Array = across[np.arange(len(across)), np.abs(across).argmax(axis=1)]
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


def _longest_spans(along_m: Array, bears: Mask) -> tuple[Array, Array]:
    """Ends of the longest stretch of each stem between two nodes that bear; nothing where there is none."""
    count, nodes = along_m.shape
    rows, place = np.arange(count), np.arange(nodes)
    last = np.maximum.accumulate(np.where(bears, place, -1), axis=1)
    before = np.pad(last[:, :-1], ((0, 0), (1, 0)), constant_values=-1)
    from_m = np.take_along_axis(along_m, np.maximum(before, 0), axis=1)
    gaps = np.where(bears & (before >= 0), along_m - from_m, 0.0)
    widest = gaps.argmax(axis=1)
    spans = gaps[rows, widest] > 1.5 * (along_m[:, 1] - along_m[:, 0])
    return np.where(spans, from_m[rows, widest], 0.0), np.where(spans, along_m[rows, widest], 0.0)
