"""How far many cases are from failing each limit: functions that fall through zero where the limit is reached.

A share used up that jumps to nothing (a tree that goes by itself needs no lift) or that folds back at nothing (side
weight, left or right) has no slope worth following. Its limit state has one here: positive while it holds, in a measure
of its own, and as smooth as its relation. All others follow the logarithm of their share.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import TypeAlias

import numpy as np

from ..base.polygon import Array
from ..mechanics.balance import backward_spare_Nm, tipping_of, wedge_in_first
from ..mechanics.hinge import led_m
from ..mechanics.law import spare_Nm
from ..mechanics.resting import resting_alone
from ..plan.many import Many
from .limits import LIMITS, push_back_Nm

State: TypeAlias = Callable[[Many], tuple[Array, ...]]
"""Limit states of many cases, each of shape (B,); any of them below zero is the limit failing."""


def _goes_over(many: Many) -> tuple[Array, ...]:
    """By how much the load is more than the hinge where the whole plan brings the tree, or a push more than what holds.

    The plan is the way on that brings it farthest: whatever is told first, one goes on to it where that does not do.
    """
    law, load = many.tipped(many.loads.forward_Nm)
    margin = np.radians(many.cases[0].constants.tip_margin_deg)
    spare = spare_Nm(law, load, np.maximum(many.wedge_plan.bring_rad - margin, 0.0))
    return (np.maximum(spare, many.wedging.by_hand_Nm - many.wedging.moment_Nm),)


def _drive(many: Many) -> tuple[Array, ...]:
    """What driving leaves on the easiest way on that lifts enough."""
    driven = 1.0 - many.wedge_plan.least_drive_use
    pushed = 1.0 - many.wedging.moment_Nm / np.maximum(many.wedging.by_hand_Nm, 1.0)
    return (np.where(many.wedging.tilt_deg > 0, np.maximum(driven, pushed), 1.0),)


def _room(many: Many) -> tuple[Array, ...]:
    return (1.0 - many.wedge_plan.least_room_use,)


def _shuts_first(many: Many) -> tuple[Array, ...]:
    """By how much the load is more than the hinge from where the face shuts on."""
    law, load = many.strength.holding_law, tipping_of(many.mass, many, many.loads.forward_Nm)
    return (spare_Nm(law, load, np.radians(many.face.closing_angle_deg)),)


def _sits_back(many: Many) -> tuple[Array, ...]:
    """By how much what still holds behind is more than what goes back, at the tilt at which it is most."""
    spare = backward_spare_Nm(many, many.timbers, (many.mass, many.loads), many.cases[0].kit)
    first = np.array([wedge_in_first(cut) for cut in many.designs.cuts])
    return (np.where(first, np.inf, spare + push_back_Nm(many)),)


def _side(many: Many) -> tuple[Array, ...]:
    """What the tilt leaves of the hinge less what the side weight takes, to either side."""
    _, off = led_m(many.mass, many.hinge)
    last = np.minimum(many.face.closing_angle_deg, many.use.needed_tilt_deg)
    bends = (last / many.strength.break_angle_deg) ** 2
    takes = np.where(off < 0, -1.0, 1.0) * np.maximum(many.use.side_utilisation - bends, 0.0)
    return 1.0 - bends - takes, 1.0 - bends + takes


def _holds(many: Many) -> tuple[Array, ...]:
    """Tilt left between where the hinge is needed and where the face shuts, for a weight to either side."""
    _, off = led_m(many.mass, many.hinge)
    needed = np.where(off < 0, -1.0, 1.0) * many.use.needed_tilt_deg
    return many.face.closing_angle_deg - needed, many.face.closing_angle_deg + needed


def straight(id: str) -> State:
    """One less a share that may be nothing."""

    def left(many: Many) -> tuple[Array, ...]:
        return (1.0 - np.nan_to_num(LIMITS[id].uses(many), nan=0.0, posinf=np.inf),)

    return left


def breaks_like_the_first(many: Many) -> Array:
    """Bending of lying stems over what they bear, from that of the first: weight times length over rupture and d cubed.

    Of a beam that spans the same humps the moment goes as its load and its length, its strength as the cube of its
    thickness. Not a number where a top is cut off aloft.
    """
    first = many.cases[0]
    if first.cut.is_aloft:
        return np.full(len(many.cases), np.nan)
    length = np.array([case.tree.height_m - case.cut.height_m for case in many.cases])
    thick = np.array([case.tree.trunk.diameter_m for case in many.cases])
    bends = many.mass.mass_kg * length / (many.timbers.rupture_Pa * thick**3)
    found: Array = resting_alone(many.laid(0), first.constants).break_index * bends / bends[0]
    return found


STATES: Mapping[str, State] = {
    "balance.over": _goes_over,
    "balance.sits_back": _sits_back,
    "balance.shuts_first": _shuts_first,
    "hinge.side": _side,
    "hinge.holds": _holds,
    "wedge.drive": _drive,
    "wedge.room": _room,
} | {id: straight(id) for id in ("split.early", "split.strap", "balance.wind")}
"""Limits whose share has no logarithm worth following."""
