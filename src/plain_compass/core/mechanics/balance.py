"""How a tree stands over its hinge: ahead or behind, whether the hinge carries it, and when it goes by itself."""

from __future__ import annotations

from typing import Generic, NamedTuple

import numpy as np

from ..base.frozen import dataclass
from ..base.polygon import Array
from ..base.rows import Index, Mask, N
from ..base.strips import Along, strip
from ..design.cut import Cut
from ..design.kit import Kit
from ..tree.timber import Timbers
from .hinge import break_angles_deg, led_m
from .law import HingeLaw, Tipping, goes_at_rad, most_spare_back_Nm, standing_use
from .loads import Loads
from .mass import Mass
from .seats import seat_wanted_m
from .stump import Stumps
from .thinning import Thinnest

EVERY = slice(None)
"""All rows, as they are."""
LEAST_ARM_m = 1e-3
"""A kerf of no depth shuts at once; it still has an arm to divide by."""


@dataclass(frozen=True)
class Balance(Generic[N]):
    """How the tree stands over its hinge.

    Attributes:
        ahead_m, left_m: centre of mass from the hinge's centroid, along the lay and left of it.
        moment_forward_Nm, moment_left_Nm: of weight, rope and wind together about the hinge's centroid.
        centre_over_deg: tilt that brings all that pulls over the hinge; 0 where it is ahead already.
        theta_go_deg: last tilt at which the hinge holds the tree; past it the tree goes by itself (indicative).
        thin_go_deg: the same on the hinge thinned as far as it may be.
        standing_utilisation: what it asks of the finished hinge over what that gives, at the tilt at which it asks
            least before the kerf is shut; below 1 the tree stands on the hinge alone (indicative).
        sits_back_utilisation: the same of a tree that leans back, at the depth at which a first wedge fits, or on the
            finished hinge where none does; 0 where it does not lean back, or a wedge is in before (indicative).
    """

    ahead_m: N
    left_m: N
    moment_forward_Nm: N
    moment_left_Nm: N
    centre_over_deg: N
    theta_go_deg: N
    thin_go_deg: N
    standing_utilisation: N
    sits_back_utilisation: N

    @property
    def stands_on_hinge(self) -> bool:
        """Whether the tree stands on the hinge alone; asked of one case."""
        return bool(self.standing_utilisation < 1.0)

    @property
    def sits_back(self) -> bool:
        """Whether it goes over backwards onto the saw before a wedge holds it; asked of one case."""
        return bool(self.sits_back_utilisation > 1.0)


def tipping_of(mass: Mass[Array], stumps: Stumps, steady_Nm: Array) -> Tipping:
    """What tips B trees over their finished hinges, in the planes in which these lead them."""
    ahead, _ = led_m(mass, stumps.hinge)
    return Tipping(mass.bent_toppling_Nm, mass.weight_N * ahead, steady_Nm)


def balances_of(
    stumps: Stumps, timbers: Timbers, carried: tuple[Mass[Array], Loads[Array]], kit: Kit, thinnest: Thinnest
) -> Balance[Array]:
    """Balance of B trees about their hinges' centroids."""
    mass, loads = carried
    region, law = stumps.hinge.region, stumps.strength.law
    load = tipping_of(mass, stumps, loads.forward_Nm)
    goes = np.degrees(goes_at_rad(stumps.strength.holding_law.before(thinnest.law), load.before(thinnest.load)))
    over = np.arctan2(-load.standing_Nm, load.toppling_Nm)
    back = load._replace(steady_Nm=loads.harmed_Nm)
    finished = standing_use(law, back, shuts_rad(region.forward_m - stumps.sections.back_m, kit))
    ahead, left = mass.com_forward_m - region.forward_m, mass.com_left_m - region.left_m
    return Balance(
        ahead_m=ahead,
        left_m=left,
        moment_forward_Nm=mass.weight_N * ahead + loads.forward_Nm,
        moment_left_Nm=mass.weight_N * left + loads.left_Nm,
        centre_over_deg=np.degrees(np.maximum(over, 0.0)),
        theta_go_deg=goes[: len(ahead)],
        thin_go_deg=goes[len(ahead) :],
        standing_utilisation=finished,
        sits_back_utilisation=_sits_back(stumps, timbers, (mass, back), kit, finished),
    )


def shuts_rad(arm_m: Array, kit: Kit) -> Array:
    """Tilt back at which the kerf shuts on the bar, its back an arm behind what still holds."""
    found: Array = np.arctan2(kit.kerf_m, np.maximum(arm_m, LEAST_ARM_m))
    return found


class Held(NamedTuple):
    """The wood that still holds behind the apex when a first wedge fits.

    Attributes:
        law: how it resists as it folds.
        centre_m: its centroid along the lay, shape (B,).
        arm_m: from there to the back, shape (B,).
    """

    law: HingeLaw
    centre_m: Array
    arm_m: Array


def _sits_back(
    stumps: Stumps, timbers: Timbers, carried: tuple[Mass[Array], Tipping], kit: Kit, finished: Array
) -> Array:
    """What trees that lean back ask of the wood that still holds when a first wedge fits."""
    mass, back = carried
    kerf, fits = first_kerfs(stumps, kit)
    use = np.where(back.standing_Nm < 0, finished, 0.0)
    # Farther back the tree stands further ahead: what does not lean back on its hinge does not there either.
    fits &= back.standing_Nm < 0
    if fits.any():
        rows = EVERY if fits.all() else np.nonzero(fits)[0]
        held, load = _when_wedged(stumps, timbers, (mass, back), kerf, rows)
        then = standing_use(held.law, load, shuts_rad(held.arm_m, kit))
        use[rows] = np.where(load.standing_Nm < 0, then, 0.0)
    return np.where(np.array([wedge_in_first(cut) for cut in stumps.designs.cuts]), 0.0, use)


def _when_wedged(
    stumps: Stumps, timbers: Timbers, carried: tuple[Mass[Array], Tipping], kerf_m: Array, rows: Index | slice = EVERY
) -> tuple[Held, Tipping]:
    """What holds when a first wedge fits, and what tips the tree over that; of some rows, or of every one."""
    mass, back = carried
    held = held_behind_kerf(stumps, timbers, kerf_m[rows], rows)
    ahead = mass.weight_N[rows] * (mass.com_forward_m[rows] - held.centre_m)
    return held, Tipping(back.toppling_Nm[rows], ahead, back.steady_Nm[rows])


def backward_spare_Nm(stumps: Stumps, timbers: Timbers, carried: tuple[Mass[Array], Loads[Array]], kit: Kit) -> Array:
    """What holds each tree behind, over what tips it back, before a wedge does; at the tilt at which it is most.

    Below nothing it sits back, as ``Balance.sits_back_utilisation`` has it; this goes on evenly where a tree leans
    ahead; shape (B,).
    """
    mass, loads = carried
    back = tipping_of(mass, stumps, loads.harmed_Nm)
    kerf, fits = first_kerfs(stumps, kit)
    arm = stumps.hinge.region.forward_m - stumps.sections.back_m
    finished = most_spare_back_Nm(stumps.strength.law, back, shuts_rad(arm, kit))
    if not fits.any():
        return finished
    held, load = _when_wedged(stumps, timbers, (mass, back), kerf)
    return np.where(fits, most_spare_back_Nm(held.law, load, shuts_rad(held.arm_m, kit)), finished)


def first_kerfs(stumps: Stumps, kit: Kit) -> tuple[Array, Mask]:
    """(kerf in which a first wedge fits, whether one is set there before the hinge is finished), shapes (B,)."""
    cuts = stumps.designs.cuts
    wanted = np.array([seat_wanted_m(cut, kit) for cut in cuts])
    whole = stumps.face.hinge_front_m - stumps.hinge.reach_m - stumps.sections.back_m
    fits = stumps.designs.from_behind & np.array([len(cut.wedges) > 0 for cut in cuts]) & (wanted < whole)
    return np.minimum(wanted, whole), fits


def wedge_in_first(cut: Cut) -> bool:
    """Whether a wedge stands in the kerf before anything could sit back: by the form of the cut."""
    return bool(cut.wedges) and (cut.back.held or cut.back.traits.wedge_first)


def held_behind_kerf(stumps: Stumps, timbers: Timbers, kerf_m: Array, rows: Index | slice = EVERY) -> Held:
    """What holds behind the apex with so much kerf behind it; of some rows, or of every one."""
    sections, constants = stumps.sections, timbers.constants
    back = sections.back_m[rows]
    front, rear = stumps.face.hinge_front_m[rows], back + kerf_m
    square, cube = sections.lines.powers(rear, front, rows)
    ligament, step = front - rear, stumps.designs.step_m[rows]
    fibre = constants.hinge_length_factor * ligament + step
    break_deg = break_angles_deg(ligament, step, sections.diameter_m[rows], timbers.break_base_deg[rows], constants)
    law = HingeLaw(
        stiffness_Nm=timbers.elasticity_Pa[rows] * cube / 12 / np.maximum(fibre, LEAST_ARM_m),
        peak_Nm=constants.peak_share * timbers.rupture_Pa[rows] / 6 * square,
        break_rad=np.radians(break_deg),
        peaks_at=timbers.peaks_at[rows],
        softens_over=timbers.softens_over[rows],
        tail=np.full(len(front), constants.law_tail),
    )
    centre = strip(sections.edges.rows(rows), rear, front, Along).forward_m
    return Held(law, centre, centre - back)
