"""The wedge findings: do the wedges get in, lift, stay, and move?"""

from __future__ import annotations

import math
from itertools import pairwise

from ..base.levels import Group, Level
from ..base.phrase import Phrase, phrase
from ..base.quantity import Kind
from ..mechanics.wedge import seat_wanted_m
from ..plan.case import Case, Parts
from .findings import Finding, Limit, Told, against, unknown, used

SOUND_SEAT_LEAST = 0.5
"""A wedge that stands more than half on rot sinks instead of lifting."""
SMALL_STEM_USE = 0.95
"""A small stem that can be pushed is watched, not stopped, for a wedge that finds no room."""


def wedge_findings(case: Case, parts: Parts) -> list[Finding]:
    """Do the wedges get in, lift, stay, and move?"""
    wedging, kit = parts.wedging, case.kit
    if not wedging.wanted:
        sentence = phrase("wedge.drive.wedge_needed_tip")
        return [
            used(
                Limit("wedge.drive", Group.WEDGE, "wedges"), 0.0, Told(sentence, phrase("wedge.drive.unneeded_change"))
            )
        ]
    found = [_fits_first(case, parts)]
    if not wedging.seats:
        sentence = phrase("wedge.drive.tree_needs_wedges")
        change = phrase("wedge.drive.none_change")
        return [*found, used(Limit("wedge.drive", Group.WEDGE, "wedges"), math.inf, Told(sentence, change))]
    found += [_drive(case, parts), _room(parts), _seat_sound(case, parts)]
    asked = sum(seat.stacked for seat in wedging.seats)
    if asked > kit.wedge_count:
        sentence = phrase("wedge.drive.wedges_placed_carried", n=asked, have=kit.wedge_count)
        found.append(
            used(
                Limit("wedge.carried", Group.WEDGE, "wedges"),
                asked / max(kit.wedge_count, 0.1),
                Told(sentence, phrase("wedge.carried.change")),
            )
        )
    found += _in_strap(case, parts) + _spacing(case, parts)
    if kit.stackable == "no" and any(seat.stacked == 2 for seat in wedging.seats):
        sentence = phrase("wedge.drive.wedges_lie_each")
        found.append(_broken_rule("wedge.stack", sentence, phrase("wedge.stack.change")))
    if any(seat.spits_out for seat in wedging.seats):
        sentence = phrase("wedge.drive.wedges_each_other")
        found.append(_broken_rule("wedge.holds", sentence, phrase("wedge.holds.change")))
    return found


def _fits_first(case: Case, parts: Parts) -> Finding:
    wedging, kit = parts.wedging, case.kit
    needs = seat_wanted_m(case.cut, kit)
    change = phrase("wedge.fits_first.change")
    if wedging.kerf_at_sit_back_m is None:
        kerf = parts.section.depth_m - case.cut.face.depth_m - parts.hinge.reach_m
        text = "wedge.fits_first.wedge_fits_anything"
        if kerf < needs:
            text = "wedge.fits_first.wedge_fits_kerf"
            change = phrase("wedge.fits_first.by_hand_change")
    else:
        kerf = wedging.kerf_at_sit_back_m
        text = "wedge.fits_first.tree_sits_back"
    use = needs / kerf if kerf > 0 else math.inf
    if wedging.kerf_at_sit_back_m is None:
        # A small stem that stands by itself is tipped by hand or lever: that wants thought, and is no reason to stop.
        use = min(use, SMALL_STEM_USE)
    return against(
        Limit("wedge.fits_first", Group.WEDGE, "wedges"),
        use,
        (kerf, needs, Kind.LENGTH),
        Told(phrase(text, kerf=kerf, needs=needs), change),
        watch_from=0.85,
    )


def _in_strap(case: Case, parts: Parts) -> list[Finding]:
    """Behind a strap there is no kerf to drive into until it is released."""
    back, section = case.cut.back, parts.section
    if not back.traits.keeps_back:
        return []
    caught = [seat for seat in parts.wedging.seats if seat.edge_forward_m < section.back_m + back.strap_m]
    if back.traits.inner_edge_m:
        inner = back.traits.inner_edge_m(section, back)
        sign = 1.0 if back.side == "left" else -1.0
        caught = [seat for seat in parts.wedging.seats if sign * seat.edge_left_m > inner]
    if not caught:
        return []
    sentence = phrase("wedge.in_strap.wedge_back_stands", at=caught[0].at_deg)
    change = phrase("wedge.in_strap.change")
    return [_broken_rule("wedge.in_strap", sentence, change)]


def _spacing(case: Case, parts: Parts) -> list[Finding]:
    """Two wedges beside each other want room for both."""
    seats = sorted(parts.wedging.seats, key=lambda seat: seat.edge_left_m)
    for one, other in pairwise(seats):
        apart = math.hypot(other.edge_left_m - one.edge_left_m, other.edge_forward_m - one.edge_forward_m)
        if apart < case.kit.wedge_width_m:
            sentence = phrase("wedge.spacing.wedges_stand_apart", apart=apart, wide=case.kit.wedge_width_m)
            return [_broken_rule("wedge.spacing", sentence, phrase("wedge.spacing.change"))]
    return []


def _drive(case: Case, parts: Parts) -> Finding:
    wedging, least = parts.wedging, case.constants.least_advance_m
    advance = wedging.advance_per_blow_m
    use = least / advance
    sentence = phrase("wedge.drive.about_blows_tip", blows=wedging.blows, advance=min(advance, 0.2), least=least)
    change = phrase("wedge.drive.change")
    return against(
        Limit("wedge.drive", Group.WEDGE, "wedges"),
        use,
        (min(advance, 0.2), least, Kind.FINE_LENGTH),
        Told(sentence, change),
        indicative=True,
    )


def _room(parts: Parts) -> Finding:
    tightest = max(parts.wedging.seats, key=lambda seat: seat.driven_m / max(seat.room_m, 1e-6))
    use = tightest.driven_m / max(tightest.room_m, 1e-6)
    sentence = phrase("wedge.room.wedge_tree_tips", driven=tightest.driven_m, room=tightest.room_m)
    return against(
        Limit("wedge.room", Group.WEDGE, "wedges"),
        use,
        (tightest.driven_m, tightest.room_m, Kind.LENGTH),
        Told(sentence, phrase("wedge.room.change")),
        watch_from=0.9,
    )


def _seat_sound(case: Case, parts: Parts) -> Finding:
    if case.tree.decay.kind == "unknown":
        return unknown("wedge.sound", Group.WEDGE, "wedge.sound.whether_wedges_bear", "wedge.sound.probe")
    share = min(seat.sound_fraction for seat in parts.wedging.seats)
    use = SOUND_SEAT_LEAST / max(share, 1e-6)
    sentence = phrase("wedge.sound.worst_wedge_seat", share=share)
    return against(
        Limit("wedge.sound", Group.WEDGE, "wedges"),
        use,
        (share, SOUND_SEAT_LEAST, Kind.RATIO),
        Told(sentence, phrase("wedge.sound.change")),
    )


def _broken_rule(id: str, sentence: Phrase, change: Phrase) -> Finding:
    """A stop that is a matter of yes or no: there is no number to hold against a limit."""
    return Finding(id, Group.WEDGE, Level.STOP, None, None, "number", -0.5, sentence, change, mark="wedges")
