"""The design a practice begins with: the simplest cut, bored or wedge first where the practice itself asks for that."""

from __future__ import annotations

from dataclasses import replace

from ..assess import Assessment, assess
from ..base.errors import InputError
from ..cuts import form_of
from ..design.cut import Cut, Kit, WedgeSeat
from ..design.first import first_design
from ..plan.case import Case
from ..plan.many import place_of
from .rose import BESIDE_STRAP

ROOM_FOR_m = {3: 0.45, 2: 0.22}
"""Depth of wood from which so many wedges stand beside each other."""
ABREAST = {3: (-40.0, 0.0, 40.0), 2: (-25.0, 25.0), 1: (0.0,)}
"""Where they stand, from straight behind."""


def begun(case: Case) -> Cut:
    """The practice's own design for a tree on its lay: an ordinary face and an even hinge, cut from behind.

    Bored where the practice bores such a tree, wedge first where it would sit back; the wedges that are carried side by
    side, or on each other where one alone lifts too little.

    Raises InputError when the tree cannot be as measured.
    """
    first = first_design(case.tree, case.wood, case.cut.lay_deg, case.practice, case.constants)
    # The ways out belong to the ground, not to the design.
    cut = replace(first, way_left_deg=case.cut.way_left_deg, way_right_deg=case.cut.way_right_deg)
    plain = _assessed(replace(case, cut=cut))
    asked = _asked_back(plain)
    chosen = _with_back(plain, asked) if asked else plain
    if _is_stiff(chosen):
        chosen = _thinned(chosen)
    return _doubled(chosen).case.cut


STIFF_FROM, DOUBLE_FROM = 0.5, 0.7
"""Share of the wedges' lift from which a hinge is begun at the thin end of the practice's range, and from which wedges
go on each other."""
SIDE_MOST = 0.45
"""Share of the side strength past which a hinge is not begun thinner."""
NEAR_BACK = 0.4
"""Share of what holds a tree behind from which a wedge is set first."""


def _is_stiff(found: Assessment) -> bool:
    """Whether the wedges have much to do against the hinge."""
    wedging = found.parts.wedging
    return wedging.wanted and not wedging.goes_by_hand and wedging.lift_use > STIFF_FROM


def _thinned(found: Assessment) -> Assessment:
    """The same with a hinge of the thin end of the practice's range."""
    case, practice = found.case, found.case.practice
    thin = max(practice.hinge_ratio[0] * found.parts.section.depth_m, practice.hinge_least_m)
    hinge = replace(case.cut.hinge, left_m=thin, right_m=thin)
    thinner = assess(replace(case, cut=replace(case.cut, hinge=hinge)))
    return found if thinner.parts.use.side_utilisation > SIDE_MOST else thinner


def _assessed(case: Case) -> Assessment:
    """Assess a cut with the wedges carried at their places in it."""
    return assess(replace(case, cut=wedged(case)))


def wedged(case: Case) -> Cut:
    """The cut with the wedges carried at their places in it."""
    depth = place_of(case).section().depth_m
    return replace(case.cut, wedges=seats_for(case.cut, case.kit, depth))


def seats_for(cut: Cut, kit: Kit, depth_m: float) -> tuple[WedgeSeat, ...]:
    """Seats for the wedges carried: side by side behind, beside what is held, or away from a corner that is kept."""
    back = cut.back
    if back.held:
        return BESIDE_STRAP[: kit.wedge_count]
    if back.traits.inner_edge_m:
        return (WedgeSeat(-40.0 if back.side == "left" else 40.0), WedgeSeat(0.0))[: kit.wedge_count]
    count = max((many for many, room in ROOM_FOR_m.items() if depth_m >= room), default=1)
    count = min(count, kit.wedge_count)
    return tuple(WedgeSeat(at) for at in ABREAST[count]) if count else ()


def stacked_seats(cut: Cut, kit: Kit, depth_m: float) -> tuple[WedgeSeat, ...]:
    """Seats for the wedges carried, two on each other; none where there are not two, or they may not be stacked."""
    if kit.stackable == "no":
        return ()
    seats = seats_for(cut, replace(kit, wedge_count=kit.wedge_count // 2), depth_m)
    return tuple(replace(seat, stacked=2) for seat in seats)


def _asked_back(plain: Assessment) -> str:
    """The back cut that the practice, or the tree, asks for instead of a plain one; nothing where it suits."""
    if any(finding.id == "split.bore" for finding in plain.findings):
        return "bored"
    if plain.parts.balance.sits_back_utilisation > NEAR_BACK:
        return "quarter"
    fit = form_of("back", "plain").fits(plain)
    return fit.instead if fit.level == "refused" else ""


def _with_back(plain: Assessment, key: str) -> Assessment:
    """The same with another back cut, where that suits."""
    form = form_of("back", key)
    try:
        found = _assessed(replace(plain.case, cut=form.design(plain.case)))
    except InputError:
        return plain
    return found if form.fits(found).level == "fits" else plain


def _doubled(found: Assessment) -> Assessment:
    """Wedges on each other, where one alone lifts too little and there are two."""
    case, wedging = found.case, found.parts.wedging
    enough = not wedging.wanted or wedging.goes_by_hand or wedging.lift_use < DOUBLE_FROM
    doubled = stacked_seats(case.cut, case.kit, found.parts.section.depth_m)
    if enough or not doubled:
        return found
    # On each other they lift twice as high and are driven harder: taken where that asks less of them in all.
    return min(found, assess(replace(case, cut=replace(case.cut, wedges=doubled))), key=_asked_of_wedges)


def _asked_of_wedges(found: Assessment) -> float:
    """The most that is asked of the wedges over what they give: lift, advance of the hardest blow, blows in all."""
    wedging, constants = found.parts.wedging, found.case.constants
    hard = constants.least_advance_m / max(wedging.advance_per_blow_m, 1e-9)
    return max(wedging.lift_use, hard, wedging.blows / constants.most_blows)
