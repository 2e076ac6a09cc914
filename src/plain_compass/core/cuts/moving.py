"""Bringing the tree over once the hinge is cut: what is driven, stacked, thinned or jacked, and the lift at each."""

from __future__ import annotations

import math

from ..base.phrase import Phrase, phrase
from ..mechanics.driving import DrivenTo
from ..mechanics.wedge_plan import WAYS
from ..plan.case import Planned
from ..plan.driven import driving_of, thinning_of
from .form import CutStep
from .shapes import hinge_bands

MANY = 1e4
"""Blows past which nobody is told a number."""


def driving(result: Planned) -> tuple[CutStep, ...]:
    """The step in which the tree is brought over, as far as the kit goes; none where no wedge does anything."""
    if not is_driven(result) or result.parts.wedge_plan.blows < 0.5:
        return ()
    finished = hinge_bands(result)
    return (
        CutStep(
            "drive",
            "cut.back.plain.drive.title",
            _in_words(result),
            "cut.back.plain.drive.stand",
            "cut.back.plain.drive.look",
            "cut.back.plain.drive.stop_if",
            lambda _: finished,
            releases=True,
        ),
    )


def is_driven(result: Planned) -> bool:
    """Whether wedges are placed that may bring the tree over."""
    wedging, plan = result.parts.wedging, result.parts.wedge_plan
    return wedging.wanted and bool(wedging.seats) and math.isfinite(plan.blows) and plan.blows < MANY


def _in_words(result: Planned) -> Phrase:
    """How to drive: to where it goes, or as far as the wedges lift and then by a thinner hinge."""
    parts = result.parts
    plan, thin_m = parts.wedge_plan, thinning_of(result.case, parts).allowed_m
    if thin_m is not None:
        return phrase("cut.back.plain.thin_and_drive", to=thin_m, pause=parts.wedging.pause_s)
    middle = middle_of(driving_of(result.case, parts))
    return phrase(
        "cut.back.plain.drive_wedges_turn",
        blows=plan.blows,
        advance=plan.advance_m,
        pause=parts.wedging.pause_s,
        lift=middle.lift_m,
        top=middle.top_m,
    )


def middle_of(table: tuple[DrivenTo, ...]) -> DrivenTo:
    """The line half way down a driving table."""
    return table[(len(table) - 1) // 2]


def wedging_lines(result: Planned) -> tuple[Phrase, ...]:
    """The plan of wedging, one thing after another, with the lift at which each is done; the last says when to stop."""
    if not is_driven(result):
        return ()
    parts, case = result.parts, result.case
    plan, wedging = parts.wedge_plan, parts.wedging
    shortest = wedging.shortest
    assert shortest is not None
    placed_m = shortest.available_m
    drive = phrase("moving.drive", blows=wedging.blows, seating=wedging.seating_blows, pause=wedging.pause_s)
    if plan.name != "wedges":
        drive = phrase("moving.drive_in", lift=placed_m, seating=wedging.seating_blows, pause=wedging.pause_s)
    found, reached_m = [drive], min(wedging.lift_m, placed_m)
    table = driving_of(case, parts)
    if len(table) > 1:
        half = middle_of(table)
        found.append(phrase("moving.top", lift=half.lift_m, top=half.top_m))
    if plan.stacked:
        found.append(phrase("moving.stack", at=placed_m, have=plan.have_m))
        reached_m = plan.have_m
    thin_m = thinning_of(case, parts).allowed_m
    if thin_m is not None:
        reached_m = min(plan.lift_m, plan.have_m)
        found.append(phrase("moving.thin", at=reached_m, to=thin_m, pause=wedging.pause_s))
    if plan.name == "jack":
        found.append(phrase("moving.jack", at=placed_m, have=plan.have_m))
        reached_m = plan.lift_m
    found += _going_on(result, reached_m)
    return (*found, phrase("moving.stop"))


def _going_on(result: Planned, reached_m: float) -> list[Phrase]:
    """What is next where it should have gone and still holds: a second wedge, or a thinner hinge, or neither."""
    plan, case = result.parts.wedge_plan, result.case
    if not plan.goes_on:
        return []
    best, found = WAYS[int(plan.best)], list[Phrase]()
    if "stack" in best and not plan.stacked:
        have_m = plan.have_m + case.kit.wedge_thickness_m
        found.append(phrase("moving.stack", at=reached_m, have=have_m))
        reached_m = have_m
    if "thin" in best and not plan.thins and plan.share < 1.0:
        floor_m = plan.share * result.parts.hinge.reach_m
        found.append(phrase("moving.thin_if", at=reached_m, floor=floor_m, pause=result.parts.wedging.pause_s))
    return found
