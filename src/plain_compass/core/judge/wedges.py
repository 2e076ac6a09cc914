"""The wedge findings: do the wedges get in, lift, stay, and move?"""

from __future__ import annotations

import math
from itertools import pairwise

from ..base.phrase import Phrase, phrase
from ..mechanics.wedge import seat_wanted_m
from ..plan.case import Case, Parts
from .findings import Finding, against, unknown, used

SOUND_SEAT_LEAST = 0.5
SMALL_STEM_USE = 0.95


def wedge_findings(case: Case, parts: Parts) -> list[Finding]:
    """Do the wedges get in, lift, stay, and move?"""
    wedging, kit = parts.wedging, case.kit
    if not wedging.wanted:
        sentence = phrase("No wedge is needed to tip it; set one behind the bar all the same.")
        return [
            used("wedge.drive", "wedge", 0.0, sentence, phrase("Weight further back would change this."), mark="wedges")
        ]
    found = [_fits_first(case, parts)]
    if not wedging.seats:
        sentence = phrase("The tree needs wedges and none is placed.")
        change = phrase("Place a wedge behind, or use a rope.")
        return [*found, used("wedge.drive", "wedge", math.inf, sentence, change, mark="wedges")]
    found += [_drive(case, parts), _room(parts), _seat_sound(case, parts)]
    asked = sum(seat.stacked for seat in wedging.seats)
    if asked > kit.wedge_count:
        sentence = phrase(
            "{n} wedges are placed and {have} are carried.", n=(asked, "count"), have=(kit.wedge_count, "count")
        )
        found.append(
            used(
                "wedge.carried",
                "wedge",
                asked / max(kit.wedge_count, 0.1),
                sentence,
                phrase("Carry more, or place fewer."),
                mark="wedges",
            )
        )
    found += _in_strap(case, parts) + _spacing(case, parts)
    if kit.stackable == "no" and any(seat.stacked == 2 for seat in wedging.seats):
        sentence = phrase("Two wedges lie on each other, and these are not made to be stacked.")
        found.append(
            _broken_rule("wedge.stack", sentence, phrase("Ribbed ones, a thicker one, or one beside the other."))
        )
    if any(seat.spits_out for seat in wedging.seats):
        sentence = phrase("Two wedges on each other are too steep to hold by friction and will spit out.")
        found.append(_broken_rule("wedge.holds", sentence, phrase("Longer, thinner wedges, or driven one at a time.")))
    return found


def _fits_first(case: Case, parts: Parts) -> Finding:
    wedging, kit = parts.wedging, case.kit
    needs = seat_wanted_m(case.cut, kit)
    change = phrase("A shallower [face], a bored or quarter cut that sets the wedge first, or a rope.")
    if wedging.kerf_at_sit_back_m is None:
        kerf = parts.section.depth_m - case.cut.face.depth_m - parts.hinge.reach_m
        text = "A wedge fits before anything moves: {kerf} of kerf behind the [hinge], {needs} wanted."
        if kerf < needs:
            text = "No wedge fits: {kerf} of kerf behind the [hinge], {needs} wanted; it does not sit back meanwhile."
            change = phrase("Tip it by hand, with a lever or a rope, or set the wedge first with a quarter cut.")
    else:
        kerf = wedging.kerf_at_sit_back_m
        text = "The tree sits back on the bar at {kerf} of kerf; a wedge and the bar want {needs}."
    use = needs / kerf if kerf > 0 else math.inf
    if wedging.kerf_at_sit_back_m is None:
        # A small stem that stands by itself is tipped by hand or lever: that wants thought, and is no reason to stop.
        use = min(use, SMALL_STEM_USE)
    return against(
        "wedge.fits_first",
        "wedge",
        use,
        (kerf, needs, "length"),
        phrase(text, kerf=(kerf, "length"), needs=(needs, "length")),
        change,
        watch_from=0.85,
        mark="wedges",
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
    sentence = phrase(
        "The wedge {at} of the back stands in kept wood ([strap] or corner): no kerf there before it is released.",
        at=(caught[0].at_deg, "offset_angle"),
    )
    change = phrase("Move it round the back, past the end of the wood that is kept, or keep less of it.")
    return [_broken_rule("wedge.in_strap", sentence, change)]


def _spacing(case: Case, parts: Parts) -> list[Finding]:
    """Two wedges beside each other want room for both."""
    seats = sorted(parts.wedging.seats, key=lambda seat: seat.edge_left_m)
    for one, other in pairwise(seats):
        apart = math.hypot(other.edge_left_m - one.edge_left_m, other.edge_forward_m - one.edge_forward_m)
        if apart < case.kit.wedge_width_m:
            sentence = phrase(
                "Two wedges stand {apart} apart and are {wide} wide: one drives the other out.",
                apart=(apart, "length"),
                wide=(case.kit.wedge_width_m, "length"),
            )
            return [_broken_rule("wedge.spacing", sentence, phrase("Move them apart round the back, or stack them."))]
    return []


def _drive(case: Case, parts: Parts) -> Finding:
    wedging, least = parts.wedging, case.constants.least_advance_m
    advance = wedging.advance_per_blow_m
    use = least / advance
    sentence = phrase(
        "About {blows} blows to tip it, the hardest moving a wedge {advance}; under {least} it is not going.",
        blows=(wedging.blows, "count"),
        advance=(min(advance, 0.2), "fine_length"),
        least=(least, "fine_length"),
    )
    change = phrase("Another wedge beside it, a heavier maul, a thinner [hinge]; past the limit, a rope.")
    return against(
        "wedge.drive",
        "wedge",
        use,
        (min(advance, 0.2), least, "fine_length"),
        sentence,
        change,
        indicative=True,
        mark="wedges",
    )


def _room(parts: Parts) -> Finding:
    tightest = max(parts.wedging.seats, key=lambda seat: seat.driven_m / max(seat.room_m, 1e-6))
    use = tightest.driven_m / max(tightest.room_m, 1e-6)
    sentence = phrase(
        "A wedge is {driven} in when the tree tips; the kerf behind the [hinge] leaves it {room}.",
        driven=(tightest.driven_m, "length"),
        room=(tightest.room_m, "length"),
    )
    return against(
        "wedge.room",
        "wedge",
        use,
        (tightest.driven_m, tightest.room_m, "length"),
        sentence,
        phrase("Wedges nearer the middle of the back, two on each other, or a shallower [face]."),
        watch_from=0.9,
        mark="wedges",
    )


def _seat_sound(case: Case, parts: Parts) -> Finding:
    if case.tree.decay.kind == "unknown":
        return unknown(
            "wedge.sound", "wedge", "Whether the wedges bear on sound wood is not known.", "Sound or probe the butt."
        )
    share = min(seat.sound_fraction for seat in parts.wedging.seats)
    use = SOUND_SEAT_LEAST / max(share, 1e-6)
    sentence = phrase("The worst wedge seat bears on sound wood over {share} of its length.", share=(share, "ratio"))
    return against(
        "wedge.sound",
        "wedge",
        use,
        (share, SOUND_SEAT_LEAST, "ratio"),
        sentence,
        phrase("Move the wedge round the back onto sound wood."),
        mark="wedges",
    )


def _broken_rule(id: str, sentence: Phrase, change: Phrase) -> Finding:
    """A stop that is a matter of yes or no: there is no number to hold against a limit."""
    return Finding(id, "wedge", "stop", None, None, "number", -0.5, sentence, change, mark="wedges")
