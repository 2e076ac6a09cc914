"""The wedge findings: do the wedges get in, lift, stay, and move?"""

from __future__ import annotations

import math
from collections.abc import Callable
from itertools import pairwise

from ..base.frozen import changed
from ..base.levels import Group, Level
from ..base.phrase import Phrase, phrase
from ..base.quantity import Kind
from ..mechanics.seats import seat_wanted_m
from ..mechanics.wedge import SeatResult, stands_in_kept
from ..plan.case import Case, Parts
from .findings import Finding, Limit, Told, as_fact, margin_of, stated, unknown
from .limits import SOUND_SEAT_LEAST, Uses, judged


def wedge_findings(case: Case, parts: Parts, uses: Uses) -> list[Finding]:
    """Do the wedges get in, lift, stay, and move?"""
    wedging = parts.wedging
    if not wedging.wanted:
        return [_about("wedge.drive", uses, phrase("wedge.drive.wedge_needed_tip"), "wedge.drive.unneeded_change")]
    found = [_fits_first(case, parts, uses)]
    if wedging.goes_by_hand and not wedging.seats:
        return [*found, _about("wedge.drive", uses, phrase("wedge.drive.pushed"), "wedge.drive.unneeded_change")]
    if not wedging.seats:
        return [*found, _about("wedge.drive", uses, phrase("wedge.drive.tree_needs_wedges"), "wedge.drive.none_change")]
    found.append(_drive(case, parts, uses))
    if not wedging.goes_by_hand:
        found += [_room(parts, uses), _seat_sound(case, parts, uses)]
    if "wedge.carried" in uses:
        asked = sum(seat.stacked for seat in wedging.seats)
        sentence = phrase("wedge.drive.wedges_placed_carried", n=asked, have=case.kit.wedge_count)
        found.append(_about("wedge.carried", uses, sentence, "wedge.carried.change"))
    return found + _broken_rules(case, parts, uses)


def _about(id: str, uses: Uses, sentence: Phrase, change: str) -> Finding:
    """A finding about the wedges whose share of a limit is itself what is shown."""
    return judged(Limit(id, Group.WEDGE, "wedges"), uses, None, Told(sentence, phrase(change)))


def _broken_rules(case: Case, parts: Parts, uses: Uses) -> list[Finding]:
    """Stops that are a matter of yes or no: there is no number to hold against a limit."""
    sentences: dict[str, Callable[[], Phrase]] = {
        "wedge.in_strap": lambda: phrase("wedge.in_strap.wedge_back_stands", at=_in_strap(case, parts).at_deg),
        "wedge.spacing": lambda: phrase(
            "wedge.spacing.wedges_stand_apart", apart=_apart_m(case, parts), wide=case.kit.wedge_width_m
        ),
        "wedge.stack": lambda: phrase("wedge.drive.wedges_lie_each"),
        "wedge.holds": lambda: phrase("wedge.drive.wedges_each_other"),
    }
    return [
        changed(
            stated(Limit(id, Group.WEDGE, "wedges"), Level.STOP, sentence(), f"{id}.change"), margin=margin_of(uses[id])
        )
        for id, sentence in sentences.items()
        if id in uses
    ]


def _fits_first(case: Case, parts: Parts, uses: Uses) -> Finding:
    needs = seat_wanted_m(case.cut, case.kit)
    kerf = parts.section.depth_m - case.cut.face.depth_m - parts.hinge.reach_m
    text, change = "wedge.fits_first.wedge_fits_anything", "wedge.fits_first.change"
    # A small stem that stands by itself is tipped by hand or lever: how it is done, and no reason to stop.
    by_hand = kerf < needs and uses.get("balance.sits_back", 0.0) <= 1.0
    if kerf < needs:
        text = "wedge.fits_first.wedge_fits_kerf"
        change = "wedge.fits_first.by_hand_change" if by_hand else change
    told = Told(phrase(text, kerf=kerf, needs=needs), phrase(change))
    found = judged(Limit("wedge.fits_first", Group.WEDGE, "wedges"), uses, (kerf, needs, Kind.LENGTH), told)
    return as_fact(found) if by_hand else found


def _in_strap(case: Case, parts: Parts) -> SeatResult:
    """The first seat in wood that is kept behind: no kerf to drive into before it is released."""
    seats, where = parts.wedging.seats, (parts.section, case.cut.back)
    return next(seat for seat in seats if stands_in_kept(*where, seat.edge_left_m, seat.edge_forward_m))


def _apart_m(case: Case, parts: Parts) -> float:
    """Distance of the first two neighbours that have no room beside each other."""
    seats = sorted(parts.wedging.seats, key=lambda seat: seat.edge_left_m)
    apart = (
        math.hypot(other.edge_left_m - one.edge_left_m, other.edge_forward_m - one.edge_forward_m)
        for one, other in pairwise(seats)
    )
    return next(each for each in apart if each < case.kit.wedge_width_m)


def _drive(case: Case, parts: Parts, uses: Uses) -> Finding:
    plan, constants = parts.wedge_plan, case.constants
    least, most, seating = constants.least_advance_m, constants.most_blows, parts.wedging.seating_blows
    limit = Limit("wedge.drive", Group.WEDGE, "wedges")
    if plan.name == "jack":
        told = Told(phrase("wedge.drive.jacked", use=uses["wedge.drive"]), phrase("wedge.drive.rope_change"))
        return judged(limit, uses, None, told, indicative=True)
    if plan.blows > most:
        # So many are no plan, and their number says nothing more.
        past = stated(
            limit, Level.STOP, phrase("wedge.drive.past_use", most=most), "wedge.drive.rope_change", indicative=True
        )
        return changed(past, margin=margin_of(uses["wedge.drive"]))
    if plan.advance_m < least:
        told = Told(
            phrase("wedge.drive.too_hard", advance=plan.advance_m, least=least), phrase("wedge.drive.rope_change")
        )
        return judged(limit, uses, (plan.advance_m, least, Kind.FINE_LENGTH), told, indicative=True)
    sentence = phrase("wedge.drive.about_blows_tip", blows=plan.blows, seating=seating, advance=plan.advance_m)
    told = Told(sentence, phrase("wedge.drive.change"))
    if plan.blows / most >= least / max(plan.advance_m, 1e-9):
        return judged(limit, uses, (plan.blows, most, Kind.COUNT), told, indicative=True)
    return judged(limit, uses, (plan.advance_m, least, Kind.FINE_LENGTH), told, indicative=True)


def _room(parts: Parts, uses: Uses) -> Finding:
    tightest = min(parts.wedging.seats, key=lambda seat: seat.room_m)
    driven_m = parts.wedge_plan.room_use * tightest.room_m
    sentence = phrase("wedge.room.wedge_tree_tips", driven=driven_m, room=tightest.room_m)
    return judged(
        Limit("wedge.room", Group.WEDGE, "wedges"),
        uses,
        (driven_m, tightest.room_m, Kind.LENGTH),
        Told(sentence, phrase("wedge.room.change")),
    )


def _seat_sound(case: Case, parts: Parts, uses: Uses) -> Finding:
    if case.tree.decay.kind == "unknown":
        return unknown("wedge.sound", Group.WEDGE, "wedge.sound.whether_wedges_bear", "wedge.sound.probe")
    share = min(seat.sound_fraction for seat in parts.wedging.seats)
    sentence = phrase("wedge.sound.worst_wedge_seat", share=share)
    return judged(
        Limit("wedge.sound", Group.WEDGE, "wedges"),
        uses,
        (share, SOUND_SEAT_LEAST, Kind.RATIO),
        Told(sentence, phrase("wedge.sound.change")),
    )
