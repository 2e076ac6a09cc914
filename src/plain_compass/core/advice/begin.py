"""The design a practice begins with: the simplest cut, bored or wedge first where the practice itself asks for that."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace
from typing import NamedTuple

import numpy as np

from ..base.errors import InputError
from ..base.frozen import changed
from ..base.rows import Mask
from ..cuts import form_of
from ..design.checks import Room, check_cut_fits, check_tree
from ..design.cut import BackCut, Cut, WedgeSeat
from ..design.first import sized_cut
from ..design.kit import Kit
from ..judge.limits import IDS, Shares, shares_of
from ..judge.practice import BORE_FROM, EARLY_FROM, asks_to_bore
from ..plan.case import Case, Planned
from ..plan.many import many_of, place_of

BESIDE_STRAP = (WedgeSeat(50.0), WedgeSeat(-50.0))
"""Where wedges go when wood is held behind, clear of it on any stem."""
ROOM_FOR_m = {3: 0.45, 2: 0.22}
"""Depth of wood from which so many wedges stand beside each other."""
ABREAST = {3: (-40.0, 0.0, 40.0), 2: (-25.0, 25.0), 1: (0.0,)}
"""Where they stand, from straight behind."""


NEAR_BACK = 0.4
"""Share of what holds a tree behind from which a wedge is set first."""


def begun(case: Case) -> Cut:
    """The practice's own design for a tree on its lay: an ordinary face and an even hinge, cut from behind.

    Bored where the practice bores such a tree, wedge first where it would sit back; the wedges that are carried side by
    side. Whether they are stacked, or the hinge is thinned, is the plan of wedging, not the design.

    Raises InputError when the tree cannot be as measured.
    """
    check_tree(case.tree)
    depth_m = place_of(_at_its_height(case)).section().depth_m
    (found,) = begun_many([case], [depth_m])
    return _first(case, depth_m).cut if found is None else found.case.cut


class Begun(NamedTuple):
    """A practice's own design, and the row of the shares it was judged with."""

    case: Case
    shares: Shares
    row: int

    @property
    def planned(self) -> Planned:
        """It with its physics."""
        return Planned(self.case, self.shares.many.parts(self.row))


def begun_many(cases: Sequence[Case], depths_m: Sequence[float]) -> list[Begun | None]:
    """The practice's own designs for several trees or lays, that share what those of ``many_of`` share.

    Args:
        depths_m: of the wood along each lay, at the height of the cut.

    None where face and hinge do not fit one behind the other.
    """
    firsts = [_first(case, depth) for case, depth in zip(cases, depths_m, strict=True)]
    rooms = [Room(depth / 2, depth) for depth in depths_m]
    fit = [at for at, (case, room) in enumerate(zip(firsts, rooms, strict=True)) if _fits(case, room)]
    found: list[Begun | None] = [None] * len(cases)
    if not fit:
        return found
    shares = shares_of(many_of([firsts[at] for at in fit]))
    for row, at in enumerate(fit):
        found[at] = Begun(firsts[at], shares, row)
    asked: dict[int, Case] = {}
    for row in np.nonzero(_may_ask(shares))[0].tolist():
        plain = found[fit[row]]
        assert plain is not None
        key = _asked_back(plain)
        other = _with_back(plain.case, key, depths_m[fit[row]]) if key else None
        if other is not None and _fits(other, rooms[fit[row]]):
            asked[fit[row]] = other
    if asked:
        others = shares_of(many_of([*asked.values()]))
        for row, (at, case) in enumerate(asked.items()):
            one = Begun(case, others, row)
            if form_of("back", case.cut.back.form).fits(one.planned).level == "fits":
                found[at] = one
    return found


def _at_its_height(case: Case) -> Case:
    """The case with its cut no higher than a tenth of the tree, where it is made from the ground."""
    if case.cut.is_aloft:
        return case
    height = min(case.cut.height_m, case.tree.height_m / 10)
    return replace(case, cut=replace(case.cut, height_m=height, aim_off_deg=0.0))


def _first(case: Case, depth_m: float) -> Case:
    """The plain design for wood of that depth, with the wedges carried; lay, height and ways out are the case's own."""
    own = _at_its_height(case).cut
    cut = changed(
        sized_cut(depth_m, case.practice),
        lay_deg=own.lay_deg,
        height_m=own.height_m,
        way_left_deg=own.way_left_deg,
        way_right_deg=own.way_right_deg,
        aloft=own.aloft,
        goes_on=own.goes_on,
    )
    return replace(case, cut=changed(cut, wedges=seats_for(cut, case.kit, depth_m)))


def _fits(case: Case, room: Room) -> bool:
    try:
        check_cut_fits(room, case.cut)
    except InputError:
        return False
    return True


def _may_ask(shares: Shares) -> Mask:
    """Which plain designs may ask for another back cut: all that do, and some that do not."""
    many = shares.many
    early = np.nan_to_num(shares.use[IDS.index("split.early")])
    asks = (many.splitting.split_index_plain >= BORE_FROM) | (early >= EARLY_FROM)
    asks |= (many.balance.sits_back_utilisation > NEAR_BACK) | ~np.asarray(many.wedging.first_fits)
    when = np.array([case.practice.bore_when for case in many.cases])
    found: Mask = asks | (when == "always") | ((when == "forward lean") & (many.balance.ahead_m > 0))
    return found


def _asked_back(plain: Begun) -> str:
    """The back cut that the practice, or the tree, asks for instead of a plain one; nothing where it suits."""
    planned = plain.planned
    if asks_to_bore(plain.case, planned.parts, plain.shares.at(plain.row)):
        return "bored"
    if planned.parts.balance.sits_back_utilisation > NEAR_BACK:
        return "quarter"
    fit = form_of("back", "plain").fits(planned)
    return fit.instead if fit.level == "refused" else ""


def _with_back(case: Case, key: str, depth_m: float) -> Case | None:
    """The same with another back cut, its wedges at their places in it."""
    try:
        cut = form_of("back", key).design(case)
    except InputError:
        return None
    return replace(case, cut=replace(cut, wedges=seats_for(cut, case.kit, depth_m)))


def wedged(case: Case) -> Cut:
    """The cut with the wedges carried at their places in it."""
    depth = place_of(case).section().depth_m
    return replace(case.cut, wedges=seats_for(case.cut, case.kit, depth))


def seats_for(cut: Cut, kit: Kit, depth_m: float) -> tuple[WedgeSeat, ...]:
    """Seats for the wedges carried: side by side behind, beside what is held, or away from a corner that is kept."""
    back = cut.back
    if back.strapped:
        beside = beside_strap_deg(back, depth_m)
        return (WedgeSeat(beside), WedgeSeat(-beside))[: kit.wedge_count]
    if back.held:
        return BESIDE_STRAP[: kit.wedge_count]
    if back.traits.inner_edge_m:
        return (WedgeSeat(-40.0 if back.side == "left" else 40.0), WedgeSeat(0.0))[: kit.wedge_count]
    count = max((many for many, room in ROOM_FOR_m.items() if depth_m >= room), default=1)
    count = min(count, kit.wedge_count)
    return tuple(WedgeSeat(at) for at in ABREAST[count]) if count else ()


def beside_strap_deg(back: BackCut, depth_m: float) -> float:
    """Angle round the stump at which a wedge stands clear of a strap: there is no kerf to drive into behind it."""
    edge = math.degrees(math.acos(min(max(1.0 - 2 * back.strap_m / depth_m, 0.0), 1.0)))
    return min(max(round(edge + CLEAR_DEG), NEAREST_DEG), FARTHEST_DEG)


CLEAR_DEG, NEAREST_DEG, FARTHEST_DEG = 12.0, 50.0, 80.0
"""How far beside a strap's edge a wedge is set, and between which angles from straight behind."""


def stacked_seats(cut: Cut, kit: Kit, depth_m: float) -> tuple[WedgeSeat, ...]:
    """Seats for the wedges carried, two on each other; none where there are not two, or they may not be stacked."""
    if kit.stackable == "no":
        return ()
    seats = seats_for(cut, replace(kit, wedge_count=kit.wedge_count // 2), depth_m)
    return tuple(replace(seat, stacked=2) for seat in seats)
