"""Wedging as it is worked: drive, stack, thin the hinge a little, jack it; and which of these takes the tree over.

A faller does not give up where the wedges placed are in to their heads: a second goes on the first, the hinge is
thinned a little, struck, looked at and thinned again, and a jack is set where one is carried. Each is a *way on*,
worked out for every case at once: how far it must lift over what it lifts, how hard it is to drive, whether there is
room.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Generic, NamedTuple

import numpy as np

from ..base.frozen import dataclass
from ..base.polygon import Array
from ..base.rows import Mask, N
from ..design.cut import GOES_ON
from ..design.kit import Kit
from .stump import Stumps
from .thinning import Thinnest
from .wedge import Asked, LEAST_ARM_m, MOST_ADVANCE_m, NO_LIFT_m, Poise, Seats, driving_factor, wedge_angle_rad

WAYS = ("wedges", "stack", "thin", "stack and thin", "jack")
"""Ways on, in the order of the craft; each goes on from those before it."""
STACKS = np.array([False, True, False, True, False])
THINS = np.array([False, False, True, True, True])
JACK = WAYS.index("jack")
ENOUGH = 1.0
"""Share up to which a way is the one that is told: what comes after it is told for the case that it still holds."""
JACK_FROM_m = 0.35
"""Smaller stems have no room for a jack behind the hinge."""
THIN_WORTH_rad = 0.02
"""What a thinned hinge is worth in tilt, where two ways are compared by how far they bring a tree."""
WORTH_THINNING = 0.97
"""Share of its thickness past which thinning a hinge is none."""
FAR = 1e3
"""A share of nothing at all: far past any limit, and still a number."""


@dataclass(frozen=True, eq=False)
class WedgePlan(Generic[N]):
    """How a tree is brought over, of one case, or of B in arrays of shape (B,); curves (B, ways).

    Attributes:
        way: place in ``WAYS`` of the way told: the first that does it, else the one that asks least.
        best: the same of the one that brings it farthest: by it the chance of the whole plan is found.
        lift_m, have_m, arm_m: lift wanted and had on the way told, and the arm of the seat that falls shortest.
        blows, advance_m: of the maul on the way told, the hardest moving a wedge so far; none with a jack.
        lift_use, drive_use, room_use: shares used up on the way told: of the lift, of the driving, of the room for it.
        share: of its thickness to which the hinge may be thinned.
        bring_rad: tilt to which the best way brings it.
        least_drive_use, least_room_use: the least shares of any way that lifts enough.
    """

    way: N
    best: N
    lift_m: N
    have_m: N
    arm_m: N
    blows: N
    advance_m: N
    lift_use: N
    drive_use: N
    room_use: N
    share: N
    bring_rad: N
    least_drive_use: N
    least_room_use: N

    @property
    def name(self: WedgePlan[float]) -> str:
        """The way that is told, of one case."""
        return WAYS[int(self.way)]

    @property
    def thins(self: WedgePlan[float]) -> bool:
        """Whether the way that is told thins the hinge; asked of one case."""
        return bool(THINS[int(self.way)])

    @property
    def goes_on(self: WedgePlan[float]) -> bool:
        """Whether there is something to go on with where the way told does not do it; asked of one case."""
        return self.best > self.way

    @property
    def stacked(self: WedgePlan[float]) -> bool:
        """Whether it puts one wedge on another that lay side by side; asked of one case."""
        return bool(STACKS[int(self.way)])


class _Task(NamedTuple):
    """B trees to be brought over, and what there is for it."""

    stumps: Stumps
    kit: Kit
    poise: Poise
    seats: Seats
    asked: Asked
    thinnest: Thinnest


class _Ways(NamedTuple):
    """Ways on of B cases: what each lifts and is asked to, its arm, blows, and the shares it uses up; shapes (ways, B).

    Attributes:
        shares: of the lift, of the driving, of the room for it.
    """

    lift_m: Array
    have_m: Array
    arm_m: Array
    blows: Array
    advance_m: Array
    shares: tuple[Array, Array, Array]


def wedge_plans(
    stumps: Stumps, kit: Kit, poise: Poise, seats: Seats, asked: Asked, thinnest: Thinnest
) -> WedgePlan[Array]:
    """Every way on of B cases, the one that is told and the one that brings the tree farthest."""
    task = _Task(stumps, kit, poise, seats, asked, thinnest)
    wedges, jack = _by_wedges(task), _by_jack(task)
    lifts, drives, rooms = (np.concatenate(both) for both in zip(wedges.shares, jack.shares, strict=True))
    columns = [np.concatenate(both) for both in zip(wedges[:-1], jack[:-1], strict=True)]
    worst, possible = np.maximum(np.maximum(lifts, drives), rooms), lifts < FAR
    brings = np.arctan(columns[1] / np.maximum(columns[2], LEAST_ARM_m))
    # The whole plan is held against the way that brings it farthest of those that can be driven: the same one for all
    # trees alike but for a little, so that their states can be compared.
    can_drive = possible & (drives <= 1.0) & (rooms <= 1.0)
    least, enough = worst.argmin(axis=0), worst <= ENOUGH
    farthest = np.where(can_drive, brings + THIN_WORTH_rad * THINS[:, None], -1.0).argmax(axis=0)
    best = np.where(can_drive.any(axis=0), farthest, least)
    way, rows = np.where(enough.any(axis=0), enough.argmax(axis=0), least), np.arange(lifts.shape[1])
    lift, have, arm, blows, advance = (column[way, rows] for column in columns)
    return WedgePlan(
        way=way.astype(np.float64),
        best=best.astype(np.float64),
        lift_m=lift,
        have_m=have,
        arm_m=arm,
        blows=blows,
        advance_m=advance,
        lift_use=lifts[way, rows],
        drive_use=drives[way, rows],
        room_use=rooms[way, rows],
        share=thinnest.share,
        bring_rad=np.where(possible.any(axis=0), np.where(possible, brings, 0.0)[best, rows], 0.0),
        least_drive_use=_least_of(lifts, drives, least),
        least_room_use=_least_of(lifts, rooms, least),
    )


def _stacks(seats: Seats, kit: Kit) -> Array:
    """How many stacks of two can stand at the seats there are, none where two lie there already."""
    count = np.where(seats.used, 1, 0).sum(axis=1)
    lie = (seats.used & (seats.table.stacked == 2)).any(axis=1)
    found: Array = np.where(lie | (kit.stackable == "no"), 0, np.minimum(kit.wedge_count // 2, count))
    return found


def _by_wedges(task: _Task) -> _Ways:
    """Wedges as they are placed, or a second one on each first; on the hinge as it is, or thinned: all at once."""
    kit, asked, used, table = task.kit, task.asked, task.seats.used, task.seats.table
    if not used.shape[1]:
        nothing = np.zeros((JACK, len(used)))
        return _Ways(nothing, nothing, nothing + 1.0, nothing + np.inf, nothing, (nothing + FAR,) * 3)
    stacks, stacked, thins = _stacks(task.seats, kit), STACKS[:JACK, None], THINS[:JACK]
    shift = thins[:, None] * task.thinnest.forward_m
    arms = table.arm_m + shift[:, :, None]
    wanted = arms * np.tan(np.radians(asked.tilt_deg))[thins.astype(np.intp)][:, :, None]
    two: Mask = np.asarray(table.stacked == 2) | stacked[:, :, None]
    have = table.available_m + kit.wedge_thickness_m * stacked[:, :, None]
    short = np.where(used, wanted / np.maximum(have, NO_LIFT_m), -np.inf)
    # The seat that falls shortest rules; of a case without seats the first column stands for nothing.
    worst, there = short.argmax(axis=2), used.any(axis=1)
    at = np.arange(JACK)[:, None], np.arange(len(stacks)), worst
    pulls = np.where(used, arms, 0.0)
    together = np.where(stacked, stacks * pulls.max(axis=2), pulls.sum(axis=2))
    held = asked.peak_Nm[thins.astype(np.intp)], asked.work_J[thins.astype(np.intp)]
    drive, blows, advance = _driving(kit, task.poise, (two[at], together), held)
    can = np.where(stacked, stacks > 0, there) & _go_as_far_as(_WEDGE_WAYS, task.stumps)
    can &= ~thins[:, None] | (task.thinnest.share < WORTH_THINNING)
    return _Ways(
        lift_m=np.where(there, wanted[at], 0.0),
        have_m=np.where(there, have[at], 0.0),
        arm_m=np.where(there, arms[at], 1.0),
        blows=np.where(there, blows, np.inf),
        advance_m=np.where(there, advance, 0.0),
        shares=_where_can(can, short[at], drive, _room(task, wanted, two, shift)),
    )


def _room(task: _Task, wanted_m: Array, two: Mask, shift_m: Array) -> Array:
    """How far the wedges are in over the kerf there is behind the hinge; shape (ways, B)."""
    kit, used, table, angle = task.kit, task.seats.used, task.seats.table, wedge_angle_rad(task.kit, 1)
    slope = np.where(two, math.tan(2 * angle), math.tan(angle))
    driven = np.maximum((wanted_m + kit.kerf_m) / slope, kit.wedge_seat_m)
    share = driven / np.maximum(table.room_m + 2 * shift_m[:, :, None], NO_LIFT_m)
    found: Array = np.where(used, share, -np.inf).max(axis=2)
    return found


def _by_jack(task: _Task) -> _Ways:
    """A jack at the back of the stump, behind the hinge thinned as far as it may be; one way, shapes (1, B)."""
    stumps, kit, asked = task.stumps, task.kit, task.asked
    there: Mask = np.asarray(task.seats.used.any(axis=1))
    if kit.jack_rise_m <= 0:
        nothing = np.zeros((1, len(there)))
        blows = np.where(there, nothing, np.inf)
        return _Ways(nothing, nothing, nothing + 1.0, blows, nothing, (nothing + FAR,) * 3)
    arm = stumps.hinge.region.forward_m - stumps.sections.back_m + task.thinnest.forward_m
    wanted = arm * np.tan(np.radians(asked.tilt_deg[1]))
    can = (stumps.sections.depth_m >= JACK_FROM_m) & there & _go_as_far_as(["all"], stumps)[0]
    load = asked.peak_Nm[1] / np.maximum(arm, LEAST_ARM_m) / max(kit.jack_N, 1.0)
    return _Ways(
        lift_m=np.where(there, wanted, 0.0)[None],
        have_m=np.where(there, kit.jack_rise_m, 0.0)[None],
        arm_m=np.where(there, arm, 1.0)[None],
        blows=np.where(there, 0.0, np.inf)[None],
        advance_m=np.where(there, MOST_ADVANCE_m, 0.0)[None],
        shares=_where_can(can[None], wanted[None] / kit.jack_rise_m, load[None], np.zeros((1, len(there)))),
    )


def _go_as_far_as(wanted: Sequence[str], stumps: Stumps) -> Mask:
    """Whether each cut is meant to go on so far, or farther; shape (wanted, B)."""
    order = tuple(GOES_ON)
    least = np.array([order.index(name) for name in wanted])
    found: Mask = np.array([order.index(cut.goes_on) for cut in stumps.designs.cuts]) >= least[:, None]
    return found


_WEDGE_WAYS = tuple(
    "thin" if thin else "stack" if two else "wedges" for two, thin in zip(STACKS[:JACK], THINS[:JACK], strict=True)
)
"""How far a cut must be meant to go on for each way by wedges."""


def _least_of(lifts: Array, shares: Array, least: Array) -> Array:
    """The least of a share over the ways that lift enough; of the one that asks least where none does."""
    does = lifts <= 1.0
    found = np.where(does, shares, np.inf).min(axis=0)
    best: Array = np.where(does.any(axis=0), found, shares[least, np.arange(shares.shape[1])])
    return best


def _where_can(can: Mask, lift: Array, drive: Array, room: Array) -> tuple[Array, Array, Array]:
    lift, drive, room = (np.where(can, np.minimum(share, FAR - 1.0), FAR) for share in (lift, drive, room))
    return lift, drive, room


def _driving(
    kit: Kit, poise: Poise, wedges: tuple[Mask, Array], held: tuple[Array, Array]
) -> tuple[Array, Array, Array]:
    """(share of driving used up, blows in all, advance of the hardest) on one way.

    Two on each other are driven in turn, plastic on plastic between them.

    Args:
        wedges: whether they lie on each other, the sum of their arms.
        held: most moment and work on the way.
    """
    constants, (two, arms), (peak, work) = poise.constants, wedges, held
    angle = wedge_angle_rad(kit, 1)
    single = float(driving_factor(angle, constants.wedge_friction))
    singly = math.tan(angle + math.atan(constants.wedge_friction)) + constants.stacked_friction
    push, energy = peak / np.maximum(arms, LEAST_ARM_m) * np.where(two, singly, single), _blow_J(kit, poise)
    advance = np.where(push > 0, energy / np.where(push > 0, push, 1.0), np.inf)
    blows = work * np.where(two, singly, single) / math.tan(angle) / energy
    drive = np.maximum(constants.least_advance_m / advance, blows / constants.most_blows)
    return drive, blows, np.minimum(advance, MOST_ADVANCE_m)


def _blow_J(kit: Kit, poise: Poise) -> float:
    """What of a blow drives the wedge."""
    return poise.constants.blow_efficiency * kit.blow_J
