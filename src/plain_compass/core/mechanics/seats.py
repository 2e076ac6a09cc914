"""Where wedges stand: their places round the stump and the wood in front of them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from ..base.kept import kept
from ..base.rows import Array, Index, Mask
from ..base.thickness import crossed_at, thickness_at_m
from ..design.cut import Cut, WedgeSeat
from ..design.kit import Kit
from ..tree.sections import Sections

AT_EDGE_m = 1e-3
"""Rot that comes this near to the bark in a wedge's line has no sound wood outside it to drive on."""


class Places(NamedTuple):
    """Where the seats of B cuts are: which of a row there are, where, how deep a stack; shapes (B, s).

    Attributes:
        edge_m, left_m: where sound wood begins in each wedge's line.
        sound: share of a wedge's length behind that which stands on sound wood.
    """

    used: Mask
    at_deg: Array
    stacked: Index
    edge_m: Array
    left_m: Array
    sound: Array


def seat_wanted_m(cut: Cut, kit: Kit) -> float:
    """Kerf a first wedge wants: its seat, and the bar where that is still in the same kerf."""
    return kit.wedge_seat_m + (kit.bar_width_m if cut.back.traits.wedge_beside_bar else 0.0)


def seats_in(sections: Sections, seats: Sequence[tuple[WedgeSeat, ...]], wedge_m: float) -> Places:
    """The seats of each cut, with the wood they stand on; the hinge has no part in it."""
    return _alone(sections, seats[0], wedge_m) if len(seats) == 1 else _worked_out(sections, seats, wedge_m)


@kept("seats for the wedges", 32)
def _alone(sections: Sections, seats: tuple[WedgeSeat, ...], wedge_m: float) -> Places:
    return _worked_out(sections, [seats], wedge_m)


def _worked_out(sections: Sections, seats: Sequence[tuple[WedgeSeat, ...]], wedge_m: float) -> Places:
    most = max((len(each) for each in seats), default=0)
    used = np.array([[s < len(each) for s in range(most)] for each in seats], dtype=bool).reshape(len(seats), most)
    at_deg, stacked = np.zeros(used.shape), np.ones(used.shape, dtype=np.intp)
    for r, each in enumerate(seats):
        for s, seat in enumerate(each):
            at_deg[r, s], stacked[r, s] = seat.at_deg, seat.stacked
    turn = np.radians(at_deg)
    radius = sections.reach_m(turn)
    left, edge = radius * np.sin(turn), -radius * np.cos(turn)
    if sections.rotten.any() and most:
        edge = _past_rot(sections, left, edge)
    under = thickness_at_m(sections.edges, left, edge, edge + wedge_m)
    return Places(used, at_deg, stacked, edge, left, np.clip(under / wedge_m, 0.0, 1.0))


def _past_rot(sections: Sections, left: Array, edge: Array) -> Array:
    """Where wedges' lines first meet sound wood: at the bark, or past rot that comes out there; shapes (B, s)."""
    hit, v, _ = crossed_at(sections.edges, left)
    hit[:, :, : sections.wood.u0.shape[1]] = False
    at = edge[:, :, None] + AT_EDGE_m
    # In rot where it has been crossed an odd number of times on the way in.
    in_rot = (hit & (v <= at)).sum(axis=2) % 2 == 1
    if not in_rot.any():
        return edge
    ends = np.where(hit & (v > at), v, np.inf).min(axis=2, initial=np.inf)
    return np.where(in_rot & np.isfinite(ends), ends, edge)
