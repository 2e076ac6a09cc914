"""Wedges: how far they must lift, how hard they are to drive, and whether they get in at all."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import numpy as np

from ..design.cut import Cut, Kit, WedgeSeat
from ..tree.section import Section, sound_powers
from ..tree.wood import Indicative
from .balance import Balance, Mass
from .hinge import HingeGeometry, HingeStrength
from .stump import Stump

TILT_STEPS = 120
"""Tilts between upright and let go at which the needed lift is taken, for its largest and for its work."""


@dataclass(frozen=True, slots=True)
class SeatResult:
    """One wedge seat.

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

    at_deg: float
    stacked: int
    edge_forward_m: float
    edge_left_m: float
    arm_m: float
    lift_m: float
    available_m: float
    force_N: float
    advance_per_blow_m: float
    advance_singly_m: float
    driven_m: float
    room_m: float
    sound_fraction: float
    side_Nm: float
    spits_out: bool


@dataclass(frozen=True, slots=True)
class Wedging:
    """The wedge plan as a whole.

    Attributes:
        tilt_deg: tilt that brings the centre of mass over the hinge, with a margin; 0 when the tree goes by itself.
        moment_Nm: most moment the wedges must give on the way there.
        lift_m: largest lift needed at a seat.
        force_N: largest force on a seat.
        blows: maul blows in all; infinite when a wedge is wanted and there is none.
        advance_per_blow_m: least advance of a blow.
        kerf_at_sit_back_m: depth of kerf, from behind, at which the tree sits back; None if it never does.
        first_fits: whether the first wedge is in before that.
        doubled_needed: whether a single wedge cannot lift far enough but two on each other can.
        pause_s: how long the top takes to answer; None while the hinge is too limp to swing on.
    """

    seats: tuple[SeatResult, ...]
    tilt_deg: float
    moment_Nm: float
    lift_m: float
    force_N: float
    blows: float
    advance_per_blow_m: float
    kerf_at_sit_back_m: float | None
    first_fits: bool
    doubled_needed: bool
    pause_s: float | None

    @property
    def wanted(self) -> bool:
        """Whether the tree needs wedges to go at all."""
        return self.tilt_deg > 0


def tipping_tilt_deg(balance: Balance, mass: Mass, constants: Indicative) -> float:
    """Tilt that brings the centre of mass over the hinge, plus a margin; 0 when the weight folds the hinge.

    A tree with its centre a little ahead can still stand on its hinge; then the margin alone is asked for.
    What a rope pulls or a headwind pushes moves the point of balance as a shifted centre would.
    """
    behind = math.degrees(math.atan2(-balance.moment_forward_Nm / mass.weight_N, mass.com_up_m))
    if behind > 0:
        return behind + constants.tip_margin_deg
    return constants.tip_margin_deg if balance.stands_on_hinge else 0.0


def wedging_of(
    stump: Stump, kit: Kit, mass: Mass, balance: Balance, *, sits_back_at_m: float | None, constants: Indicative
) -> Wedging:
    """Every seat and the plan as a whole; seats share the force equally. How long to wait is not in it yet."""
    section, face, hinge, cut, capacity = stump.section, stump.face, stump.hinge, stump.cut, stump.strength
    tilt = tipping_tilt_deg(balance, mass, constants)
    curve = resisting_moment(tilt, balance, mass, capacity)
    peak = max(float(curve.max()), 0.0)
    arms = [_arm(section, hinge, seat) for seat in cut.wedges]
    force = peak / sum(arm for arm, _, _ in arms) if arms else 0.0
    seats = tuple(
        _seat(stump, seat, arm, (force, tilt), kit, constants) for seat, arm in zip(cut.wedges, arms, strict=True)
    )
    kerf_at = None
    if sits_back_at_m is not None and cut.back.traits.from_behind:
        kerf_at = face.hinge_front_m - sits_back_at_m - section.back_m
    single_lift = kit.wedge_thickness_m - kit.kerf_m - constants.sawdust_m
    lift = max((seat.lift_m for seat in seats), default=_central_lift(section, hinge, tilt))
    return Wedging(
        seats=seats,
        tilt_deg=tilt,
        moment_Nm=peak,
        lift_m=lift,
        force_N=force,
        blows=_blows(curve, tilt, seats, kit, constants),
        advance_per_blow_m=min((seat.advance_per_blow_m for seat in seats), default=math.inf),
        kerf_at_sit_back_m=kerf_at,
        first_fits=_first_fits(kerf_at, stump, kit),
        doubled_needed=single_lift < lift <= 2 * kit.wedge_thickness_m - kit.kerf_m,
        pause_s=None,
    )


def moment_wanted_Nm(
    mass: Mass, balance: Balance, capacity: HingeStrength, loads_forward_Nm: float, constants: Indicative
) -> float:
    """Most moment anything must give to tip the tree as it stands by its weight alone, without rope or wind."""
    bare = replace(balance, moment_forward_Nm=balance.moment_forward_Nm - loads_forward_Nm)
    tilt = tipping_tilt_deg(bare, mass, constants)
    return max(float(resisting_moment(tilt, bare, mass, capacity).max()), 0.0)


def resisting_moment(
    tilt_deg: float, balance: Balance, mass: Mass, capacity: HingeStrength
) -> np.ndarray[tuple[int], np.dtype[np.float64]]:
    """What the wedges must overcome on the way to a tilt: -m g (X cos + Z sin) + min(K tilt, M_p).

    m g X is the whole forward moment, rope and headwind in it.

    Weight and hinge never peak together, so the whole curve is kept; shape (120,).
    """
    theta = np.linspace(0.0, math.radians(tilt_deg), TILT_STEPS)
    weight = balance.moment_forward_Nm * np.cos(theta) + mass.weight_N * mass.com_up_m * np.sin(theta)
    return np.asarray(np.minimum(capacity.stiffness_Nm * theta, capacity.plastic_Nm) - weight)


def wedge_angle_rad(kit: Kit, stacked: int) -> float:
    """Whole included angle of a wedge, or of two driven together."""
    return stacked * math.atan2(kit.wedge_thickness_m, kit.wedge_length_m)


def driving_factor(angle_rad: float, friction: float) -> float:
    """Driving force over the force carried: tan(angle + rho) + tan(rho), rho the friction angle.

    Source: the wedge between two rough faces, statics of dry friction.
    """
    rho = math.atan(friction)
    return math.tan(angle_rad + rho) + math.tan(rho)


def _arm(section: Section, hinge: HingeGeometry, seat: WedgeSeat) -> tuple[float, float, float]:
    """(arm, edge_forward, edge_left) of a seat: where sound wood ends in the wedge's line."""
    turn = math.radians(seat.at_deg)
    strips = section.strips
    # The ray from the pith meets the bark side of the wood; the wedge then points along the lay.
    angle = np.arctan2(section.wood[:, 1], -section.wood[:, 0])
    order = np.argsort(angle)
    radius = float(np.interp(turn, angle[order], np.hypot(*section.wood.T)[order], period=2 * np.pi))
    left = radius * math.sin(turn)
    slice_at = int(np.clip(np.searchsorted(strips.left_m, left), 0, len(strips.left_m) - 1))
    edge = -radius * math.cos(turn)
    for rear, front in strips.rot_m[slice_at]:
        if rear <= edge + 1e-3 < front:
            edge = float(front)
    return max(hinge.region.forward_m - edge, 1e-3), edge, left


def _seat(
    stump: Stump,
    seat: WedgeSeat,
    arm: tuple[float, float, float],
    driven: tuple[float, float],
    kit: Kit,
    constants: Indicative,
) -> SeatResult:
    """One seat: its arm, edge and side, driven with a force to a tilt."""
    section, face, hinge = stump.section, stump.face, stump.hinge
    (arm_m, edge, left), (force_N, tilt_deg) = arm, driven
    angle = wedge_angle_rad(kit, seat.stacked)
    lift = arm_m * math.tan(math.radians(tilt_deg))
    push = force_N * driving_factor(angle, constants.wedge_friction)
    inner = wedge_angle_rad(kit, 1) + math.atan(constants.wedge_friction)
    singly = force_N * (math.tan(inner) + constants.stacked_friction) if seat.stacked == 2 else push
    blow = constants.blow_efficiency * kit.blow_J
    slice_at = int(np.clip(np.searchsorted(section.strips.left_m, left), 0, len(section.strips.left_m) - 1))
    rear = np.full_like(section.strips.left_m, edge)
    thickness, _, _ = sound_powers(section.strips, rear, rear + kit.wedge_length_m)
    sound = min(float(thickness[slice_at]) / kit.wedge_length_m, 1.0)
    return SeatResult(
        at_deg=seat.at_deg,
        stacked=seat.stacked,
        edge_forward_m=edge,
        edge_left_m=left,
        arm_m=arm_m,
        lift_m=lift,
        available_m=max(
            seat.stacked * kit.wedge_thickness_m - kit.kerf_m - _lost_m(sound if len(section.rot) else 1.0, constants),
            0.0,
        ),
        force_N=force_N,
        advance_per_blow_m=blow / push if push > 0 else math.inf,
        advance_singly_m=blow / singly if singly > 0 else math.inf,
        driven_m=max((lift + kit.kerf_m) / math.tan(angle), kit.wedge_seat_m),
        room_m=max(face.hinge_front_m - hinge.reach_m - edge, 0.0),
        sound_fraction=sound,
        side_Nm=-force_N * (left - hinge.region.left_m),
        spits_out=angle >= 2 * math.atan(constants.wedge_friction),
    )


def _lost_m(sound: float, constants: Indicative) -> float:
    """Lift lost to sawdust left in the kerf and to soft wood that gives under the wedge (indicative)."""
    return constants.sawdust_m + (1.0 - sound) * constants.rot_gives_m


def _central_lift(section: Section, hinge: HingeGeometry, tilt_deg: float) -> float:
    return (hinge.region.forward_m - section.back_m) * math.tan(math.radians(tilt_deg))


def _blows(
    curve: np.ndarray[tuple[int], np.dtype[np.float64]],
    tilt_deg: float,
    seats: tuple[SeatResult, ...],
    kit: Kit,
    constants: Indicative,
) -> float:
    """Work of driving all seats to the needed tilt over the energy one blow leaves in the wedge."""
    work = float(np.trapezoid(np.maximum(curve, 0.0), dx=math.radians(tilt_deg) / (TILT_STEPS - 1)))
    if work <= 0:
        return 0.0
    if not seats:
        return math.inf
    loss = 0.0
    for seat in seats:
        angle = wedge_angle_rad(kit, seat.stacked)
        loss += seat.arm_m * driving_factor(angle, constants.wedge_friction) / math.tan(angle)
    return work * loss / sum(seat.arm_m for seat in seats) / (constants.blow_efficiency * kit.blow_J)


def seat_wanted_m(cut: Cut, kit: Kit) -> float:
    """Kerf a first wedge wants: its seat, and the bar where that is still in the same kerf."""
    return kit.wedge_seat_m + (kit.bar_width_m if cut.back.traits.wedge_beside_bar else 0.0)


def _first_fits(kerf_at_m: float | None, stump: Stump, kit: Kit) -> bool:
    """Whether kerf long enough for a wedge's seat and the bar is there before the tree sits back."""
    whole = stump.face.hinge_front_m - stump.hinge.reach_m - stump.section.back_m
    kerf = whole if kerf_at_m is None else min(kerf_at_m, whole)
    return kerf >= seat_wanted_m(stump.cut, kit)


def pause_s(mass: Mass, capacity: HingeStrength, dbh_m: float, tree_height_m: float) -> float | None:
    """How long to wait for the top to answer: half of the sway and rocking periods together.

    Sway from f = 0.0766 + 3.1219 DBH[cm]/H[m]^2 Hz, a published fit for conifers; longer for broad crowns.
    """
    spare = capacity.stiffness_Nm - mass.toppling_Nm
    if spare <= 0:
        return None
    sway = 1.0 / (0.0766 + 3.1219 * dbh_m * 100 / tree_height_m**2)
    rock = 2 * math.pi * math.sqrt(mass.inertia_kg_m2 / spare)
    return 0.5 * math.hypot(sway, rock)
