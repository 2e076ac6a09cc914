"""The order of the cuts in words, and the wedge plan: what the card tells to do, step by step."""

from __future__ import annotations

import math

from ..base.phrase import Phrase, Row, phrase
from ..cuts import form_of
from ..plan.case import Planned
from ..plan.reach import better_side
from ..site.rigging import SYSTEMS
from ..site.ways_out import kept_away_m, ways_out
from .stages import steps_of


def order_of_cuts(result: Planned) -> tuple[Phrase, ...]:
    """Every step from chalk to walking away, in order."""
    return (
        phrase("order.clear_both_ways"),
        *_trimming(result),
        *_told(result, "face"),
        _sighting(result),
        *_told(result, "hinge"),
        *_told(result, "back"),
        phrase("order.goes_leave_way"),
    )


def _sighting(result: Planned) -> Phrase:
    """Where to sight the face: on the lay, or beside it when it is aimed off."""
    cut = result.case.cut
    if not cut.aim_off_deg:
        text = "order.sight"
        return phrase(text, gun=cut.gun_deg)
    text = "order.sight_aimed_off"
    return phrase(text, gun=cut.gun_deg, off=cut.aim_off_deg)


def _told(result: Planned, part: str) -> tuple[Phrase, ...]:
    """What one part of the cut is told as: the form's own words for the card, or its steps one by one."""
    own = form_of(part, result.case.cut.forms[part]).on_card
    return own(result) if own is not None else tuple(step.do for its, step in steps_of(result) if its == part)


def _trimming(result: Planned) -> tuple[Phrase, ...]:
    """Buttresses cut away before anything else; the tape marks of a trimmed butt are taken after that."""
    gone = [lobe for lobe in result.case.tree.lobes if lobe.state == "trimmed"]
    if not gone:
        return ()
    return (phrase("order.trim", names=Row(tuple(phrase("place.bearing", at=lobe.bearing_deg) for lobe in gone))),)


def wedge_plan(result: Planned) -> tuple[Phrase, ...]:
    """One line a seat."""
    found = []
    for seat in result.parts.wedging.seats:
        found.append(
            phrase(
                "order.wedge_two" if seat.stacked == 2 else "order.wedge_one",
                at=seat.at_deg,
                lift=seat.lift_m,
                driven=seat.driven_m,
                force=seat.force_N,
            )
        )
    return tuple(found) or (phrase("order.wedge_placed"),)


def ground_plan(result: Planned) -> tuple[Phrase, ...]:
    """Where to stand and go, how far people are kept away, and the rope: what the ground asks for."""
    case = result.case
    left, right = ways_out(case.site, case.at, case.cut.lay_deg, case.cut.ways)
    best, _ = better_side(case, result.parts)
    kept = max(kept_away_m(case.site, case.at, case.tree.height_m, float(b)) for b in range(0, 360, 15))
    barred = [way for way in (left, right) if not way.free]
    text = "order.stand_barred" if barred else "order.stand"
    found = [
        phrase(text, side=phrase(f"side.{best.side}"), left=left.bearing_deg, right=right.bearing_deg),
        phrase("order.everyone_else_least", kept=math.ceil(kept)),
    ]
    if case.rope.use == "set" and result.parts.rigging is not None:
        rigging = result.parts.rigging
        found.append(
            phrase(
                "order.rope",
                system=SYSTEMS[case.rope.system],
                high=case.rope.attached_m,
                haul=case.rope.haul_N,
                pull=rigging.pull_N,
                use=rigging.weakest_use,
                low=rigging.low_pull_N,
            )
        )
    return tuple(found)
