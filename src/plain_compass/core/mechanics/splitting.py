"""Splitting up the stem: the energy a crack from the kerf would set free against what the wood resists."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ..base.polygon import Array, Moments, across, added, ahead_of, behind, chord_length, moments
from ..tree.section import Section, sound_powers
from ..tree.timber import Timber
from ..tree.wood import Indicative, Wood
from .balance import Mass, amplified
from .stump import Stump

LIGAMENTS = 36
"""Depths of the cut that are followed; where it moves is found between two of them."""


@dataclass(frozen=True, slots=True, eq=False)
class BackCutSweep:
    """The wood still holding behind the apex as the back cut comes in from behind.

    Attributes:
        ligament_m: thickness left, from all of it down to the hinge, shape (c,).
        plastic_Nm: what it resists in folding, shape (c,).
        stiffness_Nm: moment per radian, shape (c,).
        moment_Nm: moment of weight, rope and headwind about its own centroid, forward positive, shape (c,).
        following_Nm: what a wind onto the lay adds to it; it helps nothing, but it may split the stem.
    """

    ligament_m: Array
    plastic_Nm: Array
    stiffness_Nm: Array
    moment_Nm: Array
    following_Nm: float = 0.0


@dataclass(frozen=True, slots=True)
class Splitting:
    """Splitting index of both back cuts and of the chosen one (all indicative).

    Attributes:
        split_index: energy released over resistance for the chosen back cut, an overcut included.
        split_index_plain, split_index_bored: the same for a cut from behind and for a bored one.
        split_index_overcut: when the overcut's slot shuts; 0 without overcut.
        moves_at_m: ligament at which a tree cut from behind begins to go; None if it goes only from the hinge.
        energy_J_m2: energy released per crack area, chosen cut.
        resistance_J_m2: G_c of this stem.
        strap_utilisation: tension in the strap over what it may carry; None for a cut from behind.
        strap_area_m2: sound wood in the strap; None for a cut from behind.
    """

    split_index: float
    split_index_plain: float
    split_index_bored: float
    split_index_overcut: float
    moves_at_m: float | None
    energy_J_m2: float
    resistance_J_m2: float
    strap_utilisation: float | None
    strap_area_m2: float | None


def sweep_back_cut(stump: Stump, timber: Timber, mass: Mass, following_Nm: float = 0.0) -> BackCutSweep:
    """Follow the ligament from the uncut stem to the finished hinge, taken parallel to the apex line."""
    section, hinge, strength, constants = stump.section, stump.hinge, timber.strength, timber.constants
    front, step_m = stump.face.hinge_front_m, stump.cut.back.step_m
    ligament = np.linspace(front - section.back_m, hinge.reach_m, LIGAMENTS)
    rear = np.broadcast_to((front - ligament)[:, None], (LIGAMENTS, len(section.strips.left_m)))
    zero, first, second = sound_powers(section.strips, rear, np.full_like(rear, front))
    width = section.strips.width_m
    area = np.maximum(zero.sum(axis=1) * width, 1e-12)
    centre = first.sum(axis=1) * width / area
    second_fall = second.sum(axis=1) * width - area * centre**2
    fibre = constants.hinge_length_factor * ligament + step_m
    return BackCutSweep(
        ligament_m=ligament,
        plastic_Nm=strength.rupture_Pa / 6 * (zero**2).sum(axis=1) * width,
        stiffness_Nm=strength.elasticity_Pa * second_fall / fibre,
        moment_Nm=mass.weight_N * (mass.com_forward_m - centre),
        following_Nm=following_Nm,
    )


def _first_past(ligament: Array, excess: Array) -> float | None:
    """Ligament at which ``excess`` first turns positive on the way in; None if it never does."""
    over = np.nonzero(excess >= 0)[0]
    if len(over) == 0:
        return None
    at = int(over[0])
    if at == 0:
        return float(ligament[0])
    before, after = float(excess[at - 1]), float(excess[at])
    share = before / (before - after) if np.isfinite(after) else 1.0
    return float(ligament[at - 1] + share * (ligament[at] - ligament[at - 1]))


def moves_forward_at_m(sweep: BackCutSweep) -> float | None:
    """Ligament at which the weight folds what is left forward: M = M_p(c). None if the hinge holds it."""
    return _first_past(sweep.ligament_m, sweep.moment_Nm + sweep.following_Nm - sweep.plastic_Nm)


def sits_back_at_m(sweep: BackCutSweep, toppling_Nm: float) -> float | None:
    """Ligament at which the tree sits back onto the saw; None if hinge and wood carry it throughout."""
    excess = np.array(
        [
            amplified(moment, toppling_Nm, stiff) - plastic if moment < 0 else -plastic
            for moment, stiff, plastic in zip(
                sweep.moment_Nm.tolist(), sweep.stiffness_Nm.tolist(), sweep.plastic_Nm.tolist(), strict=True
            )
        ]
    )
    return _first_past(sweep.ligament_m, np.minimum(excess, 1e12))


def released_J_m2(moment_Nm: Array, breadth_m: Array, elasticity_Pa: float, front_m4: Array, whole_m4: float) -> Array:
    """Energy released per area of a crack running up from a kerf: M^2/(2 b E) (1/I_front - 1/I); all of one shape.

    The front part, from the front bark to the kerf, bends alone once the crack has passed. Source: strain
    energy release rate of a split beam (Griffith's criterion with Euler-Bernoulli halves).
    """
    saved = np.maximum(1.0 / front_m4 - 1.0 / whole_m4, 0.0)
    found: Array = moment_Nm * moment_Nm / (2 * breadth_m * elasticity_Pa) * saved
    return found


def energy_release_J_m2(section: Section, kerf_forward_m: float, moment_Nm: float, elasticity_Pa: float) -> float:
    """Energy that a crack from one kerf would set free; without end where nothing is left in front of it."""
    front = moments(ahead_of(section.wood, kerf_forward_m), ahead_of(section.rot, kerf_forward_m))
    breadth = chord_length(section.wood, kerf_forward_m, section.rot)
    if front.second_fall_m4 <= 0 or breadth <= 0:
        return math.inf if moment_Nm else 0.0
    whole = section.sound_moments.second_fall_m4
    moment, width, stiff = np.array([[moment_Nm], [breadth], [front.second_fall_m4]])
    return float(released_J_m2(moment, width, elasticity_Pa, stiff, whole)[0])


def resistance_J_m2(wood: Wood, crack: str, diameter_m: float, constants: Indicative) -> float:
    """G_c of this stem: by splitting class, larger for larger stems, halved by an old crack (indicative)."""
    size = min(max(math.sqrt(diameter_m / 0.4), 0.7), 1.6)
    cracked = constants.cracked_factor if crack == "present" else 1.0
    return constants.fracture_energy_J_m2[wood.splitting] * size * cracked


def splitting_of(
    stump: Stump, timber: Timber, sweep: BackCutSweep, pulled: Mass, *, ahead_m: float, kerf_m: float
) -> Splitting:
    """Splitting index of a cut from behind, of a bored cut, and of an overcut that shuts early.

    Args:
        pulled: the tree with rope and wind in it.
        ahead_m: how far ahead of the hinge everything that pulls acts together.
    """
    section, face, hinge, cut = stump.section, stump.face, stump.hinge, stump.cut
    elasticity = timber.strength.elasticity_Pa
    at_hinge = face.hinge_front_m - hinge.reach_m
    bored = energy_release_J_m2(section, at_hinge, stump.strength.plastic_Nm, elasticity)
    moves_at = moves_forward_at_m(sweep)
    plain = bored
    if moves_at is not None:
        ligament = max(moves_at, hinge.reach_m)
        moment = float(np.interp(-ligament, -sweep.ligament_m, sweep.moment_Nm)) + sweep.following_Nm
        plain = max(bored, energy_release_J_m2(section, face.hinge_front_m - ligament, moment, elasticity))
    overcut = _overcut_energy(stump, timber, pulled, kerf_m)
    chosen = max(bored if cut.back.held else plain, overcut)
    resists = resistance_J_m2(timber.wood, timber.crack, section.diameter_m, timber.constants)
    use, area = _strap(stump, timber, pulled, ahead_m) if cut.back.held else (None, None)
    return Splitting(
        split_index=chosen / resists,
        split_index_plain=max(plain, overcut) / resists,
        split_index_bored=max(bored, overcut) / resists,
        split_index_overcut=overcut / resists,
        moves_at_m=moves_at,
        energy_J_m2=chosen,
        resistance_J_m2=resists,
        strap_utilisation=use,
        strap_area_m2=area,
    )


def _overcut_energy(stump: Stump, timber: Timber, mass: Mass, kerf_m: float) -> float:
    """When the slot of an overcut e shuts at atan(kerf/e), the tree pivots on the apex and tears at the hinge.

    M = min(m g (Z sin + X cos), rupture A (e + t/2)), X from the apex where it shuts.
    """
    face, hinge, strength = stump.face, stump.hinge, timber.strength
    e = stump.cut.face.overcut_m
    if e <= 0:
        return 0.0
    tilt = math.atan2(kerf_m, e)
    ahead_of_apex = mass.com_forward_m - face.apex_forward_m
    weight = mass.weight_N * (mass.com_up_m * math.sin(tilt) + ahead_of_apex * math.cos(tilt))
    fibres = strength.rupture_Pa * hinge.region.area_m2 * (e + hinge.thickness_m / 2)
    moment = max(min(weight, fibres), 0.0)
    return energy_release_J_m2(stump.section, face.hinge_front_m - hinge.reach_m, moment, strength.elasticity_Pa)


def held_behind(stump: Stump) -> Moments:
    """The sound wood a held back cut leaves behind: a strap right across, a corner, a rib, or two posts."""
    section, back = stump.section, stump.cut.back
    low, high = section.strips.left_m[0], section.strips.left_m[-1]
    across_all = ((low - 1.0, high + 1.0, section.back_m + back.kept_m),)
    pieces = back.traits.kept(section, stump.face, back, stump.hinge) if back.traits.kept else across_all
    return added(
        *(
            moments(across(behind(section.wood, edge), *span), across(behind(section.rot, edge), *span))
            for *span, edge in pieces
        )
    )


def _strap(stump: Stump, timber: Timber, mass: Mass, ahead_m: float) -> tuple[float, float]:
    """(utilisation, sound area) of the strap in tension: T = M/arm against a third of rupture times area."""
    strap = held_behind(stump)
    tension = max(mass.weight_N * ahead_m, 0.0) / max(stump.hinge.region.forward_m - strap.forward_m, 1e-9)
    if strap.area_m2 <= 0:
        return (math.inf if tension else 0.0), 0.0
    return tension / (timber.strength.rupture_Pa * strap.area_m2 / 3), strap.area_m2
