"""Wedges: how far they must lift, how hard they are to drive, and whether they get in at all."""

from __future__ import annotations

import math
from typing import Any, Generic, NamedTuple

import numpy as np

from ..base.frozen import changed, dataclass
from ..base.polygon import Array
from ..base.rows import Mask, N, limited, row
from ..design.cut import BackCut
from ..design.kit import Kit
from ..tree.section import Section
from ..tree.wood import Indicative
from .balance import Balance, tipping_of
from .hands import by_hand_Nm
from .law import HingeLaw, Tipping, goes_at_rad
from .loads import Loads
from .mass import Mass
from .seats import seat_wanted_m, seats_in
from .stump import Stumps
from .thinning import Thinnest

TILT_STEPS = 120
"""Tilts between upright and let go at which the needed lift is taken, for its largest and for its work."""
STEPS: Array = np.linspace(0.0, 1.0, TILT_STEPS)
PAUSES_s = 2.0, 6.0
"""Shortest and longest wait for the top that is told."""
MOST_ADVANCE_m = 0.2
"""A wedge that goes in all at once."""
NO_LIFT_m = 1e-9
"""A seat whose wedge lifts nothing has a lift to divide by."""
LEAST_ARM_m = 1e-3
"""A seat on the hinge's own centroid lifts nothing, but has an arm to divide by."""


@dataclass(frozen=True)
class SeatResult(Generic[N]):
    """One wedge seat; of many cases a table of shape (B, s).

    Attributes:
        at_deg: angle round the stump from straight behind, left positive.
        edge_forward_m, edge_left_m: outer edge of sound wood under the wedge.
        arm_m: from the hinge's centroid back to that edge.
        lift_m: how far it must lift for the needed tilt.
        available_m: what it can lift: heads together less the kerf.
        force_N: most it must carry.
        advance_per_blow_m: how far the hardest blow drives it; infinite when it carries nothing.
        advance_singly_m: the same for two on each other driven one at a time, plastic on plastic between them.
        driven_m: how far it is in when the tree tips.
        room_m: kerf behind the hinge in its line.
        sound_fraction: sound wood under it.
        side_Nm: moment it gives across the lay, left positive: a wedge lifts the tree away from its own side.
        spits_out: whether its whole angle is past twice the friction angle.
    """

    at_deg: N
    stacked: int
    edge_forward_m: N
    edge_left_m: N
    arm_m: N
    lift_m: N
    available_m: N
    force_N: N
    advance_per_blow_m: N
    advance_singly_m: N
    driven_m: N
    room_m: N
    sound_fraction: N
    side_Nm: N
    spits_out: bool

    @property
    def lift_use(self: SeatResult[float]) -> float:
        """Share of what it can lift that it must; asked of one case."""
        return self.lift_m / max(self.available_m, NO_LIFT_m)


@dataclass(frozen=True)
class Wedging(Generic[N]):
    """The wedge plan as a whole.

    Attributes:
        seats: every seat of one case; see ``Seats`` for those of many.
        tilt_deg: tilt to which they must bring it: where it goes by itself, with a margin, or the face shuts; 0 when
            it goes by itself as it stands.
        moment_Nm: most moment the wedges must give on the way there.
        lift_m: largest lift needed at a seat.
        force_N: largest force on a seat.
        blows: maul blows in all, without seating; infinite when a wedge is wanted and there is none.
        seating_blows: blows that only seat them (indicative).
        advance_per_blow_m: least advance of a blow.
        first_fits: whether there is kerf for the first wedge behind the hinge at all.
        shuts_first: whether the face shuts while the hinge still holds the tree: it never goes.
        doubled_needed: whether a single wedge cannot lift far enough but two on each other can.
        by_hand_Nm: what one person gives with a push, and a lever on a small stem (indicative).
        pause_s: how long the top takes to answer: a period of the sway, held to two to six seconds.
    """

    seats: tuple[SeatResult, ...]
    tilt_deg: N
    moment_Nm: N
    lift_m: N
    force_N: N
    blows: N
    seating_blows: N
    advance_per_blow_m: N
    first_fits: bool
    shuts_first: bool
    doubled_needed: bool
    by_hand_Nm: N
    pause_s: N

    @property
    def shortest(self: Wedging[float]) -> SeatResult[float] | None:
        """The seat that is shortest of lift, of one case; none where there are no seats."""
        return max(self.seats, key=lambda seat: seat.lift_use, default=None)

    @property
    def wanted(self) -> bool:
        """Whether the tree needs wedges to go at all; asked of one case."""
        return bool(self.tilt_deg > 0)

    @property
    def goes_by_hand(self) -> bool:
        """Whether what holds it is no more than one person gives; asked of one case."""
        return self.wanted and bool(self.moment_Nm <= self.by_hand_Nm)


@dataclass(frozen=True, eq=False)
class Seats:
    """Seats of B cases in a table, shape (B, s); ``used`` says which of them a case has."""

    used: Mask
    table: SeatResult[Array]

    def of(self, at: int) -> tuple[SeatResult, ...]:
        """The seats of one case."""
        return tuple(row(row(self.table, at), seat) for seat in np.nonzero(self.used[at])[0].tolist())


def drive_tilts_deg(theta_go_deg: Array, closing_deg: Array, constants: Indicative) -> Array:
    """Tilt to which wedges or a rope must bring a tree: a margin past where it goes, or where the face shuts."""
    return np.where(theta_go_deg > 0, np.minimum(theta_go_deg + constants.tip_margin_deg, closing_deg), 0.0)


class Poise(NamedTuple):
    """B trees as they stand on their hinges, and the constants of the model."""

    mass: Mass[Array]
    balance: Balance[Array]
    loads: Loads[Array]
    constants: Indicative


class Asked(NamedTuple):
    """What B trees ask of whoever brings them over, on the hinge as it is and on the one thinned; shapes (2, B).

    Attributes:
        tilt_deg: tilt to which they must be brought.
        peak_Nm, work_J: most moment on the way there, and its work.
    """

    tilt_deg: Array
    peak_Nm: Array
    work_J: Array


def asked_of(stumps: Stumps, poise: Poise, thinnest: Thinnest) -> Asked:
    """What is to be overcome on the way to where each tree goes by itself, on both of its hinges at once."""
    mass, balance, loads, constants = poise
    closing = stumps.face.closing_angle_deg
    tilts = [drive_tilts_deg(goes, closing, constants) for goes in (balance.theta_go_deg, balance.thin_go_deg)]
    tilt, load = np.concatenate(tilts), tipping_of(mass, stumps, loads.forward_Nm).before(thinnest.load)
    curve = np.maximum(resisting_moments(tilt, load, stumps.strength.holding_law.before(thinnest.law)), 0.0)
    step = np.radians(tilt) / (TILT_STEPS - 1)
    work = (curve.sum(axis=1) - (curve[:, 0] + curve[:, -1]) / 2) * step
    return Asked(*(each.reshape(2, -1) for each in (tilt, curve.max(axis=1), work)))


def heads_lift_m(kit: Kit, constants: Indicative, stacked: N) -> N:
    """What a wedge lifts in sound wood, or so many on each other: their heads less the kerf and the sawdust in it."""
    return stacked * kit.wedge_thickness_m - kit.kerf_m - constants.sawdust_m


def wedgings_of(stumps: Stumps, kit: Kit, poise: Poise, asked: Asked) -> tuple[Wedging[Array], Seats]:
    """Every seat as placed, and all of them together, case by case; the seats of a case share the force equally."""
    mass, balance, _, constants = poise
    sections, face, hinge = stumps.sections, stumps.face, stumps.hinge
    closing = face.closing_angle_deg
    tilt, peak, work = asked.tilt_deg[0], asked.peak_Nm[0], asked.work_J[0]
    seats = _seats(stumps, kit, (peak, tilt), constants)
    some, table = seats.used.any(axis=1), seats.table
    single_lift = heads_lift_m(kit, constants, 1.0)
    central = (hinge.region.forward_m - sections.back_m) * np.tan(np.radians(tilt))
    lift = np.where(some, _most(table.lift_m, seats.used, 0.0), central)
    # Kerf long enough for a wedge's seat and the bar.
    whole = face.hinge_front_m - hinge.reach_m - sections.back_m
    wanted = np.array([seat_wanted_m(cut, kit) for cut in stumps.designs.cuts])
    plan: Wedging[Array] = Wedging(
        seats=((),) * len(sections),  # type: ignore[arg-type]  # put in by ``wedging_at``
        tilt_deg=tilt,
        moment_Nm=peak,
        lift_m=lift,
        force_N=_most(table.force_N, seats.used, 0.0),
        blows=_blows(work, seats, kit, constants),
        seating_blows=constants.seating_blows * np.where(seats.used, table.stacked, 0).sum(axis=1) * (tilt > 0),
        # Two on each other are driven in turn where that moves them further.
        advance_per_blow_m=-_most(-np.maximum(table.advance_per_blow_m, table.advance_singly_m), seats.used, -np.inf),
        first_fits=whole >= wanted,  # type: ignore[arg-type]  # of many, one answer a case
        shuts_first=balance.theta_go_deg >= closing,  # type: ignore[arg-type]
        doubled_needed=(single_lift < lift) & (lift <= 2 * kit.wedge_thickness_m - kit.kerf_m),  # type: ignore[arg-type]
        by_hand_Nm=by_hand_Nm(stumps.designs.height_m, sections.diameter_m, constants, lever=kit.lever == "yes"),
        pause_s=limited(mass.sway_s, *PAUSES_s),
    )
    return plan, seats


def _most(values: Array, used: Mask, none: float) -> Array:
    """The most of each row among the seats that are there."""
    found: Array = np.where(used, values, -np.inf).max(axis=1, initial=-np.inf)
    return np.where(used.any(axis=1), found, none)


def moments_alone_Nm(stumps: Stumps, mass: Mass[Array], constants: Indicative) -> Array:
    """Most moment anything must give to tip each tree as it stands by its weight alone, without rope or wind."""
    bare, law = tipping_of(mass, stumps, np.zeros_like(mass.mass_kg)), stumps.strength.holding_law
    tilt = drive_tilts_deg(np.degrees(goes_at_rad(law, bare)), stumps.face.closing_angle_deg, constants)
    found: Array = np.maximum(resisting_moments(tilt, bare, law).max(axis=1), 0.0)
    return found


def resisting_moments(tilt_deg: Array, load: Tipping, law: HingeLaw) -> Array:
    """What the wedges must overcome on the way to a tilt: M_h - M_load.

    Weight and hinge never peak together, so the whole curve is kept; shape (B, 120).
    """
    theta = np.radians(tilt_deg)[:, None] * STEPS
    return law.moments_Nm(theta) - load.moments_Nm(np.sin(theta), np.cos(theta))


def wedge_angle_rad(kit: Kit, stacked: int) -> float:
    """Whole included angle of a wedge, or of two driven together."""
    return stacked * math.atan2(kit.wedge_thickness_m, kit.wedge_length_m)


def driving_factor(angle_rad: Any, friction: float) -> Any:
    """Driving force over the force carried: tan(angle + rho) + tan(rho), rho the friction angle.

    Source: the wedge between two rough faces, statics of dry friction.
    """
    return np.tan(angle_rad + math.atan(friction)) + friction


def _seats(stumps: Stumps, kit: Kit, driven: tuple[Array, Array], constants: Indicative) -> Seats:
    """Every seat: its arm, edge and side, driven with its share of the force to the needed tilt."""
    sections, face, hinge = stumps.sections, stumps.face, stumps.hinge
    seats = [cut.wedges for cut in stumps.designs.cuts]
    used, at_deg, stacked, edge, left, sound = seats_in(sections, seats, kit.wedge_length_m)
    arm = np.maximum(hinge.region.forward_m[:, None] - edge, LEAST_ARM_m)
    peak, tilt = driven
    together = np.where(used, arm, 0.0).sum(axis=1)
    force = np.where(together > 0, peak / np.where(together > 0, together, 1.0), 0.0)[:, None] * np.ones_like(arm)
    angle = stacked * wedge_angle_rad(kit, 1)
    rho = math.atan(constants.wedge_friction)
    lift = arm * np.tan(np.radians(tilt))[:, None]
    push = force * driving_factor(angle, constants.wedge_friction)
    inner = math.tan(wedge_angle_rad(kit, 1) + rho) + constants.stacked_friction
    singly = np.where(stacked == 2, force * inner, push)
    # Lift lost to sawdust left in the kerf and to soft wood that gives under the wedge (indicative).
    soft = np.where(sections.rotten[:, None], (1.0 - sound) * constants.rot_gives_m, 0.0)
    table: SeatResult[Array] = SeatResult(
        at_deg=at_deg,
        stacked=stacked,  # type: ignore[arg-type]  # of many, one number a seat
        edge_forward_m=edge,
        edge_left_m=left,
        arm_m=arm,
        lift_m=lift,
        available_m=np.maximum(heads_lift_m(kit, constants, stacked.astype(np.float64)) - soft, 0.0),
        force_N=force,
        advance_per_blow_m=_advance(push, kit, constants),
        advance_singly_m=_advance(singly, kit, constants),
        driven_m=np.maximum((lift + kit.kerf_m) / np.tan(angle), kit.wedge_seat_m),
        room_m=np.maximum((face.hinge_front_m - hinge.reach_m)[:, None] - edge, 0.0),
        sound_fraction=sound,
        side_Nm=-force * (left - hinge.region.left_m[:, None]),
        spits_out=angle >= 2 * rho,  # type: ignore[arg-type]  # of many, one answer a seat
    )
    return Seats(used, table)


def _advance(push_N: Array, kit: Kit, constants: Indicative) -> Array:
    """How far one blow drives a wedge against a force; infinite against none."""
    blow = constants.blow_efficiency * kit.blow_J
    return np.where(push_N > 0, blow / np.where(push_N > 0, push_N, 1.0), np.inf)


def _blows(work: Array, seats: Seats, kit: Kit, constants: Indicative) -> Array:
    """Work of driving all seats to the needed tilt over the energy one blow leaves in the wedge."""
    table, used = seats.table, seats.used
    angle = table.stacked * wedge_angle_rad(kit, 1)
    factor = driving_factor(angle, constants.wedge_friction)
    arms = np.where(used, table.arm_m, 0.0)
    together = arms.sum(axis=1)
    loss = (arms * factor / np.tan(angle)).sum(axis=1) / np.where(together > 0, together, 1.0)
    blows = work * loss / (constants.blow_efficiency * kit.blow_J)
    return np.where(work <= 0, 0.0, np.where(used.any(axis=1), blows, np.inf))


def stands_in_kept(section: Section, back: BackCut, edge_left_m: Any, edge_forward_m: Any) -> Any:
    """Whether a seat stands in wood that is kept behind, where there is no kerf before that is released."""
    if not back.traits.keeps_back:
        return False
    if back.traits.inner_edge_m:
        sign = 1.0 if back.side == "left" else -1.0
        return sign * edge_left_m > back.traits.inner_edge_m(section, back)
    return edge_forward_m < section.back_m + back.strap_m


def wedging_at(many: tuple[Wedging[Array], Seats], at: int) -> Wedging:
    """The wedge plan of one case."""
    plan, seats = many
    one: Wedging = changed(row(plan, at), seats=seats.of(at))
    return one
