"""The order of the cuts in words, and the wedge plan: what the card tells to do, step by step."""

from __future__ import annotations

import math

from ..base.phrase import Phrase, phrase
from ..plan.case import Planned
from ..plan.reach import better_side
from ..site.rigging import SYSTEMS
from ..site.ways_out import kept_away_m, ways_out
from .stages import steps_of

ORDERED = ("conventional", "open", "reverse")
"""Faces whose two cuts are made in the practice's order."""


def order_of_cuts(result: Planned) -> tuple[Phrase, ...]:
    """Every step from chalk to walking away, in order."""
    own = {"bored": _bored, "plain": _plain}.get(result.case.cut.back.form)
    back = own(result) if own is not None else _steps(result, "back")
    return (
        phrase("Clear both ways out. Chalk the lay and the tape marks. Look up."),
        *_trimming(result),
        *(_face(result) if result.case.cut.face.form in ORDERED else _steps(result, "face")),
        _sighting(result),
        *_steps(result, "hinge"),
        *back,
        phrase("When it goes, leave by the way out; eyes on the top until everything is still."),
    )


def _sighting(result: Planned) -> Phrase:
    """Where to sight the face: on the lay, or beside it when it is aimed off."""
    cut = result.case.cut
    if not cut.aim_off_deg:
        text = "Check that both cuts meet along the whole apex, and sight the [face] on {gun}."
        return phrase(text, gun=(cut.gun_deg, "bearing"))
    text = "Check that both cuts meet along the whole apex, and sight the [face] on {gun}: aimed off, {off} of the lay."
    return phrase(text, gun=(cut.gun_deg, "bearing"), off=(cut.aim_off_deg, "aside"))


def _steps(result: Planned, part: str) -> tuple[Phrase, ...]:
    """What the table says to do for one part of the cut."""
    return tuple(step.do for own, step in steps_of(result) if own == part)


def _trimming(result: Planned) -> tuple[Phrase, ...]:
    """Buttresses cut away before anything else; the tape marks of a trimmed butt are taken after that."""
    gone = [lobe for lobe in result.case.tree.lobes if lobe.state == "trimmed"]
    if not gone:
        return ()
    names = ", ".join(f"{{b{number}}}" for number in range(len(gone)))
    values = {f"b{number}": (lobe.bearing_deg, "bearing") for number, lobe in enumerate(gone)}
    return (phrase(f"Trim flush first: buttress towards {names}. Then chalk the marks.", **values),)


def _face(result: Planned) -> tuple[Phrase, ...]:
    """The two face cuts, in the practice's order."""
    cut = result.case.cut
    roof_deg, floor_deg = cut.face.angles_deg
    depth, high = (cut.face.depth_m, "length"), (cut.height_m, "length")
    roof = phrase(
        "[Face] roof: {slope} down to {high} above ground, {depth} deep.",
        slope=(roof_deg, "angle"),
        high=high,
        depth=depth,
    )
    if roof_deg == 0:
        roof = phrase("[Face] roof: level, {high} above ground, {depth} deep.", high=high, depth=depth)
    floor = phrase("[Face] floor: {slope} up to meet it, no further.", slope=(floor_deg, "angle"))
    if floor_deg == 0:
        floor = phrase("[Face] floor: level, to meet it and no further.")
    return (floor, roof) if result.case.practice.order == "floor first" else (roof, floor)


def _hinge_ends(result: Planned) -> dict[str, tuple[float, str]]:
    hinge = result.case.cut.hinge
    return {
        "left": (hinge.left_m, "length"),
        "right": (hinge.right_m, "length"),
        "step": (result.case.cut.back.step_m, "length"),
    }


def _plain(result: Planned) -> tuple[Phrase, ...]:
    kit = result.case.kit
    needs = kit.wedge_seat_m + kit.bar_width_m
    first = phrase("[Back cut] {step} above the apex, from behind.", step=(result.case.cut.back.step_m, "length"))
    if result.case.cut.wedges:
        first = phrase(
            "[Back cut] {step} above the apex; set the wedges once {needs} of kerf is open.",
            step=(result.case.cut.back.step_m, "length"),
            needs=(needs, "length"),
        )
    stop = phrase(
        "Cut on and stop at the [hinge]: {left} left, {right} right. Check it from behind.",
        **{k: v for k, v in _hinge_ends(result).items() if k != "step"},
    )
    return (first, stop, *_driving(result))


def _bored(result: Planned) -> tuple[Phrase, ...]:
    strap = (result.case.cut.back.strap_m, "length")
    ends = _hinge_ends(result)
    steps = [
        phrase("Bore {step} above the apex, lower half of the nose first.", step=ends.pop("step")),
        phrase("Open the bore towards the [hinge]: {left} left, {right} right. Check it from both sides.", **ends),
        phrase("Cut back to the [strap] and leave {strap} of it. Look up; check the way out.", strap=strap),
    ]
    if result.parts.wedging.wanted:
        steps.append(
            phrase("Set the wedges snug beside the [strap], then release it from behind, standing to the side.")
        )
        return (*steps, *_driving(result))
    return (*steps, phrase("Release the [strap] from behind, standing to the side, and go."))


def _driving(result: Planned) -> tuple[Phrase, ...]:
    wedging = result.parts.wedging
    if not wedging.wanted or not wedging.seats or not math.isfinite(wedging.blows):
        return ()
    if wedging.pause_s is None:
        return (
            phrase(
                "Drive the wedges in turn: about {blows} blows. Look up after each few.", blows=(wedging.blows, "count")
            ),
        )
    text = "Drive the wedges in turn, about {blows} blows in all; after each few wait {pause} for the top and look up."
    return (phrase(text, blows=(wedging.blows, "count"), pause=(wedging.pause_s, "time")),)


def wedge_plan(result: Planned) -> tuple[Phrase, ...]:
    """One line a seat."""
    found = []
    for seat in result.parts.wedging.seats:
        what = "two wedges" if seat.stacked == 2 else "one wedge"
        found.append(
            phrase(
                f"{{at}} of the back: {what}, lift {{lift}}, driven {{driven}}, carries {{force}} ~.",
                at=(seat.at_deg, "offset_angle"),
                lift=(seat.lift_m, "fine_length"),
                driven=(seat.driven_m, "length"),
                force=(seat.force_N, "force"),
            )
        )
    return tuple(found) or (phrase("No wedge is placed."),)


def ground_plan(result: Planned) -> tuple[Phrase, ...]:
    """Where to stand and go, how far people are kept away, and the rope: what the ground asks for."""
    case = result.case
    left, right = ways_out(case.site, case.at, case.cut.lay_deg)
    best, _ = better_side(case, result.parts)
    kept = max(kept_away_m(case.site, case.at, case.tree.height_m, float(b)) for b in range(0, 360, 15))
    barred = [way for way in (left, right) if not way.free]
    text = f"Stand on the {best.side} for the [back cut]; ways out {{left}} and {{right}}"
    text += " are not both free: see the findings." if barred else ", never across the back of the stump."
    found = [
        phrase(text, left=(left.bearing_deg, "bearing"), right=(right.bearing_deg, "bearing")),
        phrase("Everyone else at least {kept} away on every side.", kept=(math.ceil(kept), "span")),
    ]
    if case.rope.use == "set" and result.parts.rigging is not None:
        rigging = result.parts.rigging
        found.append(
            phrase(
                f"Rope at {{high}}, {SYSTEMS[case.rope.system]}, hauled with {{haul}}: {{pull}} at the tree, "
                "weakest part at {use} of its limit. Set at half that height it would take {low}.",
                high=(case.rope.attached_m, "span"),
                haul=(case.rope.haul_N, "force"),
                pull=(rigging.pull_N, "force"),
                use=(rigging.weakest_use, "ratio"),
                low=(rigging.low_pull_N, "force"),
            )
        )
    return tuple(found)
