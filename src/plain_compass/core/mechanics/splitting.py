"""Splitting up the stem: the energy a crack from the kerf would set free against what the wood resists."""

from __future__ import annotations

from typing import Generic

import numpy as np

from ..base.frozen import dataclass
from ..base.polygon import Array
from ..base.rows import Index, N, limited, row
from ..base.strips import FAR_m, Integrals, strip
from ..tree.timber import Timbers
from .ligament import LIGAMENTS, kerfs_at
from .mass import Mass
from .stump import Stumps

STRAP_SHARE = 1.0 / 3.0
"""Share of rupture that a strap may carry in tension: it was cut into, and nobody knows how straight its grain runs."""
EARLY_MOST = 2.0
"""Times its hinge that may still stand when a tree cut from behind goes: past that it was never cut to its hinge, and
tears what is left (judgement)."""
NOTHING_m = 1e-9
"""Arms and breadths shorter than this carry nothing."""


@dataclass(frozen=True, eq=False)
class BackCutSweep(Generic[N]):
    """The wood still holding behind the apex as the back cut comes in from behind; shapes (c,), or (B, c) of many.

    Attributes:
        ligament_m: thickness left, from all of it down to the hinge.
        peak_Nm: what it resists in folding, dead wood taken as live.
        moment_Nm: moment of weight, rope and headwind about its own centroid, forward positive.
        following_Nm: what a wind onto the lay adds to it; it helps nothing, but it may split the stem.
    """

    ligament_m: Array
    peak_Nm: Array
    moment_Nm: Array
    following_Nm: N


@dataclass(frozen=True)
class Splitting(Generic[N]):
    """Splitting index of both back cuts and of the chosen one (all indicative).

    Attributes:
        split_index: energy released over resistance for the chosen back cut, an overcut included.
        split_index_plain, split_index_bored: the same for a cut from behind and for a bored one.
        split_index_overcut: when the overcut's slot shuts; 0 without overcut.
        moves_at_m: ligament at which a tree cut from behind begins to go; none if it goes only from the hinge.
        energy_J_m2: energy released per crack area, chosen cut.
        resistance_J_m2: G_c of this stem.
        strap_utilisation: tension in the strap over what it may carry; none for a cut from behind.
        strap_area_m2: sound wood in the strap; none for a cut from behind.
    """

    split_index: N
    split_index_plain: N
    split_index_bored: N
    split_index_overcut: N
    moves_at_m: N | None
    energy_J_m2: N
    resistance_J_m2: N
    strap_utilisation: N | None
    strap_area_m2: N | None


def sweep_back_cuts(
    stumps: Stumps, timbers: Timbers, mass: Mass[Array], following_Nm: Array | float = 0.0
) -> BackCutSweep[Array]:
    """Follow each ligament from the uncut stem to the finished hinge."""
    left = stumps.shape.ligaments
    folds = timbers.constants.peak_share * timbers.live_rupture_Pa / 6
    return BackCutSweep(
        ligament_m=left.ligament_m,
        peak_Nm=folds[:, None] * left.square_m3,
        moment_Nm=mass.weight_N[:, None] * (mass.com_forward_m[:, None] - left.centre_m),
        following_Nm=np.broadcast_to(following_Nm, mass.weight_N.shape),
    )


def _first_past(ligament: Array, excess: Array) -> Array:
    """Ligament at which ``excess`` first turns positive on the way in, by row; not a number if it never does."""
    over = excess >= 0
    rows, at = np.arange(len(excess)), over.argmax(axis=1)
    before = np.maximum(at - 1, 0)
    low, high = excess[rows, before], excess[rows, at]
    falls = np.isfinite(high) & (at > 0)
    share = np.where(falls, low / np.where(falls & (low != high), low - high, 1.0), 1.0)
    found = ligament[rows, before] + share * (ligament[rows, at] - ligament[rows, before])
    return np.where(over.any(axis=1), found, np.nan)


def moves_forward_at_m(sweep: BackCutSweep[Array]) -> Array:
    """Ligament at which the weight folds what is left forward: M = M_u(c). Not a number if the hinge holds it."""
    return _first_past(sweep.ligament_m, sweep.moment_Nm + sweep.following_Nm[:, None] - sweep.peak_Nm)


def resistance_J_m2(fracture_J_m2: Array | float, diameter_m: Array) -> Array:
    """G_c of a stem: what a crack takes in its wood, more for larger stems (indicative)."""
    found: Array = fracture_J_m2 * limited(np.sqrt(diameter_m / 0.4), 0.7, 1.6)
    return found


def splittings_of(
    stumps: Stumps, timbers: Timbers, sweep: BackCutSweep[Array], pulled: Mass[Array], *, ahead_m: Array, kerf_m: float
) -> Splitting[Array]:
    """Splitting index of a cut from behind, of a bored cut, and of an overcut that shuts early, for each stump.

    Args:
        pulled: the trees with rope and wind in them.
        ahead_m: how far ahead of the hinge everything that pulls acts together.
    """
    sections, designs, front = stumps.sections, stumps.designs, stumps.face.hinge_front_m
    reach = stumps.hinge.reach_m

    elasticity = timbers.elasticity_Pa
    at_hinge = stumps.shape.kerfs
    bored = at_hinge.energy_J_m2(stumps.strength.live_peak_Nm, elasticity)
    moves_at = moves_forward_at_m(sweep)
    plain, moves = bored, ~np.isnan(moves_at)
    if moves.any():
        ligament = np.where(moves, np.maximum(moves_at, reach), reach)
        moment = _along(sweep, ligament) + sweep.following_Nm
        # A tree that goes only from the hinge has its kerf where it was looked at already.
        there = at_hinge if (ligament == reach).all() else kerfs_at(sections, front - ligament)
        plain = np.where(moves, np.maximum(bored, there.energy_J_m2(moment, elasticity)), bored)
    overcut = np.zeros_like(bored)
    if (designs.overcut_m > 0).any():
        moment = _overcut_Nm(stumps, timbers, pulled, kerf_m)
        overcut = np.where(designs.overcut_m > 0, at_hinge.energy_J_m2(moment, elasticity), 0.0)
    chosen = np.maximum(np.where(designs.held, bored, plain), overcut)
    resists = resistance_J_m2(timbers.fracture_J_m2, sections.diameter_m)
    use, area = _straps(stumps, timbers, pulled, ahead_m)
    return Splitting(
        split_index=chosen / resists,
        split_index_plain=np.maximum(plain, overcut) / resists,
        split_index_bored=np.maximum(bored, overcut) / resists,
        split_index_overcut=overcut / resists,
        moves_at_m=moves_at,
        energy_J_m2=chosen,
        resistance_J_m2=resists,
        strap_utilisation=use,
        strap_area_m2=area,
    )


def _along(sweep: BackCutSweep[Array], ligament_m: Array) -> Array:
    """The sweep's moment at a ligament of each row's own, between those that were followed."""
    first, last = sweep.ligament_m[:, 0], sweep.ligament_m[:, -1]
    span = np.where(first == last, 1.0, last - first)
    place = limited((ligament_m - first) / span, 0.0, 1.0) * (LIGAMENTS - 1)
    below = np.minimum(place.astype(np.intp), LIGAMENTS - 2)
    rows = np.arange(len(place))
    low, high = sweep.moment_Nm[rows, below], sweep.moment_Nm[rows, below + 1]
    found: Array = low + (place - below) * (high - low)
    return found


def _overcut_Nm(stumps: Stumps, timbers: Timbers, mass: Mass[Array], kerf_m: float) -> Array:
    """When the slot of an overcut e shuts at atan(kerf/e), the tree pivots on the apex and tears at the hinge.

    M = min(m g (Z sin + X cos), rupture A (e + t/2)), X from the apex where it shuts.
    """
    face, hinge, e = stumps.face, stumps.hinge, stumps.designs.overcut_m
    tilt = np.arctan2(kerf_m, np.maximum(e, 1e-12))
    ahead_of_apex = mass.com_forward_m - face.apex_forward_m
    weight = mass.weight_N * (mass.com_up_m * np.sin(tilt) + ahead_of_apex * np.cos(tilt))
    fibres = timbers.live_rupture_Pa * hinge.region.area_m2 * (e + hinge.thickness_m / 2)
    return np.maximum(np.minimum(weight, fibres), 0.0)


def _straps(stumps: Stumps, timbers: Timbers, mass: Mass[Array], ahead_m: Array) -> tuple[Array, Array]:
    """(utilisation, sound area) of what is left behind, in tension: T = M/arm against a share of rupture times area."""
    held = np.nonzero(stumps.designs.held)[0]
    use, area = np.full(len(ahead_m), np.nan), np.full(len(ahead_m), np.nan)
    if not len(held):
        return use, area
    kept = held_behind(stumps, held)
    arm = np.maximum(stumps.hinge.region.forward_m[held] - kept.forward_m, NOTHING_m)
    tension = np.maximum(mass.weight_N[held] * ahead_m[held], 0.0) / arm
    stands = kept.area_m2 > 0
    carries = timbers.rupture_Pa[held] * np.where(stands, kept.area_m2, 1.0) * STRAP_SHARE
    use[held] = np.where(stands, tension / carries, np.where(tension > 0, np.inf, 0.0))
    area[held] = kept.area_m2
    return use, area


def held_behind(stumps: Stumps, held: Index) -> Integrals:
    """The sound wood that held back cuts leave behind: a strap right across, a corner, a rib, or two posts; (k,)."""
    sections, designs = stumps.sections, stumps.designs
    pieces: list[tuple[int, float, float, float]] = []
    for place, at in enumerate(held.tolist()):
        back = designs.cuts[at].back
        if back.traits.kept is None:
            edge = float(sections.back_m[at] + designs.kept_m[at])
            pieces.append((place, -FAR_m, FAR_m, edge))
            continue
        own = back.traits.kept(sections.section(at), row(stumps.face, at), back, row(stumps.hinge, at))
        pieces += [(place, *piece) for piece in own]
    table = np.array(pieces, dtype=np.float64).reshape(-1, 4)
    mine, low, high, front = table[:, 0].astype(np.intp), table[:, 1], table[:, 2], table[:, 3]
    owner = held[mine]
    across_all = bool((low <= -FAR_m).all() and (high >= FAR_m).all())
    edges = sections.edges.rows(owner)
    found = strip(edges if across_all else edges.within(low, high), np.full(len(owner), -FAR_m), front, Integrals)
    return found.summed(mine, len(held))
