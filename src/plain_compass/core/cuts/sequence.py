"""The order of the cuts in words, and the wedge plan: what the card tells to do, step by step."""

from __future__ import annotations

import math

from ..base.phrase import Phrase, Row, phrase
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
        phrase("order.clear_both_ways"),
        *_trimming(result),
        *(_face(result) if result.case.cut.face.form in ORDERED else _steps(result, "face")),
        _sighting(result),
        *_steps(result, "hinge"),
        *back,
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


def _steps(result: Planned, part: str) -> tuple[Phrase, ...]:
    """What the table says to do for one part of the cut."""
    return tuple(step.do for own, step in steps_of(result) if own == part)


def _trimming(result: Planned) -> tuple[Phrase, ...]:
    """Buttresses cut away before anything else; the tape marks of a trimmed butt are taken after that."""
    gone = [lobe for lobe in result.case.tree.lobes if lobe.state == "trimmed"]
    if not gone:
        return ()
    return (phrase("order.trim", names=Row(tuple(phrase("place.bearing", at=lobe.bearing_deg) for lobe in gone))),)


def _face(result: Planned) -> tuple[Phrase, ...]:
    """The two face cuts, in the practice's order."""
    cut = result.case.cut
    roof_deg, floor_deg = cut.face.angles_deg
    depth, high = cut.face.depth_m, cut.height_m
    roof = phrase("order.face_roof_down", slope=roof_deg, high=high, depth=depth)
    if roof_deg == 0:
        roof = phrase("order.face_roof_level", high=high, depth=depth)
    floor = phrase("order.face_floor_meet", slope=floor_deg)
    if floor_deg == 0:
        floor = phrase("order.face_floor_level")
    return (floor, roof) if result.case.practice.order == "floor first" else (roof, floor)


def _hinge_ends(result: Planned) -> dict[str, float]:
    hinge = result.case.cut.hinge
    return {"left": hinge.left_m, "right": hinge.right_m, "step": result.case.cut.back.step_m}


def _plain(result: Planned) -> tuple[Phrase, ...]:
    kit = result.case.kit
    needs = kit.wedge_seat_m + kit.bar_width_m
    first = phrase("order.back_cut", step=result.case.cut.back.step_m)
    if result.case.cut.wedges:
        first = phrase("order.back_cut_wedged", step=result.case.cut.back.step_m, needs=needs)
    stop = phrase("order.cut_stop_hinge", **{k: v for k, v in _hinge_ends(result).items() if k != "step"})
    return (first, stop, *_driving(result))


def _bored(result: Planned) -> tuple[Phrase, ...]:
    strap = result.case.cut.back.strap_m
    ends = _hinge_ends(result)
    steps = [
        phrase("order.bore_above_apex", step=ends.pop("step")),
        phrase("order.open_bore_towards", **ends),
        phrase("order.cut_back_strap", strap=strap),
    ]
    if result.parts.wedging.wanted:
        steps.append(phrase("order.set_wedges_snug"))
        return (*steps, *_driving(result))
    return (*steps, phrase("order.release_strap_behind"))


def _driving(result: Planned) -> tuple[Phrase, ...]:
    wedging = result.parts.wedging
    if not wedging.wanted or not wedging.seats or not math.isfinite(wedging.blows):
        return ()
    if wedging.pause_s is None:
        return (phrase("order.drive", blows=wedging.blows),)
    text = "order.drive_and_wait"
    return (phrase(text, blows=wedging.blows, pause=wedging.pause_s),)


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
    left, right = ways_out(case.site, case.at, case.cut.lay_deg)
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
