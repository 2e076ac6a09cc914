"""Findings from the shape of the ground: what the stem meets first, whether it breaks, rolls or slides."""

from __future__ import annotations

import math

from ..base.levels import Group, Level
from ..base.phrase import Value, phrase
from ..base.quantity import Kind
from ..mechanics.resting import Resting
from ..plan.case import Case, Parts
from ..site.landing import reaches_m
from ..tree.wood import Indicative
from .findings import Finding, Limit, Told, as_fact, stated, unknown
from .limits import Uses, judged

EARLY_DEG = 80.0
"""A top that lands before this tilt is driven back along the stem."""
SLIDES_FROM = 0.5
"""Share of what bark holds from which a slope along the stem is spoken of."""
LATE_DEG = 97.0
"""Past this the hinge and the face are spent long before the top lands."""


def lying_findings(case: Case, parts: Parts, uses: Uses) -> tuple[Finding, ...]:
    """How the tree comes to lie on the ground that is known."""
    lying = parts.resting
    if case.cut.is_aloft:
        return _aloft(case)
    found = [_break(lying, uses), *_first_touch(lying), *_roll(case, lying), *slide_findings(case, lying.slides_deg)]
    if not case.site.spots and case.site.looked != "yes":
        found.append(
            unknown(
                "landing.ground_not_judged",
                Group.LANDING,
                "landing.ground_not_judged.ground_under_lay",
                "landing.ground_not_judged.change",
            )
        )
    return tuple(found)


def _aloft(case: Case) -> tuple[Finding, ...]:
    """A top cut off a standing stem: who may do it, where it may come down, and what is not reckoned of it."""
    high, reach = case.cut.height_m, reaches_m(case.tree, case.cut.height_m)
    limit = Limit("cut.aloft", Group.AROUND, "lay")
    text, read = phrase("cut.aloft.reach", high=high, reach=reach), case.cut.aloft == "read"
    who = stated(limit, Level.WATCH if read else Level.STOP, text, "cut.aloft.change", indicative=True)
    rest = stated(
        Limit("landing.aloft", Group.LANDING), Level.CLEAR, phrase("landing.aloft.not_reckoned"), "landing.aloft.change"
    )
    # Nothing settles it: it is how such a cut is made, told beside what is judged.
    rest = as_fact(rest)
    return who, rest


def _break(lying: Resting, uses: Uses) -> Finding:
    span = lying.span_to_m - lying.span_from_m
    text = "landing.break.across_ground_known"
    if span > 0:
        text = "landing.break.lying_stem_spans"
    return judged(
        Limit("landing.break", Group.LANDING, "lay"),
        uses,
        (lying.break_index, 1.0, Kind.NUMBER),
        Told(phrase(text, index=lying.break_index, at=lying.breaks_at_m, span=span), phrase("landing.break.change")),
        indicative=True,
    )


def _first_touch(lying: Resting) -> list[Finding]:
    at = lying.touches_at_m
    tilt = lying.touches_deg
    if lying.touches_by == "top" and lying.touches_deg < EARLY_DEG:
        text = "landing.touch.ground_rises_top"
        change = "landing.touch.rises_change"
    elif lying.touches_by != "top":
        text = f"landing.touch.{lying.touches_by}_first"
        change = "landing.touch.early_change"
    elif lying.touches_deg > LATE_DEG:
        text = "landing.touch.ground_falls_away"
        change = "landing.touch.falls_change"
    else:
        return []
    return [_told("landing.touch", Level.WATCH, text, change, at=at, tilt=tilt)]


def _roll(case: Case, lying: Resting) -> list[Finding]:
    limit, fall = case.constants.rolls_from_deg, abs(lying.rolls_deg)
    if fall < limit:
        return []
    text, side = "landing.roll.may_roll", phrase("side.left" if lying.rolls_deg > 0 else "side.right")
    return [_told("landing.roll", Level.WATCH, text, "landing.roll.change", fall=fall, side=side)]


def slide_level(slope_deg: float, constants: Indicative) -> Level:
    """A stem slides where the slope along it is steeper than bark holds; back at the stump it is a stop."""
    use = math.tan(math.radians(abs(slope_deg))) / constants.slide_friction
    if use < SLIDES_FROM:
        return Level.CLEAR
    return Level.STOP if use > 1 and slope_deg < 0 else Level.WATCH


def slide_findings(case: Case, slope_deg: float) -> list[Finding]:
    """Whether the stem may slide; nothing is said where it is far from it."""
    level = slide_level(slope_deg, case.constants)
    if level == Level.CLEAR:
        return []
    text = "landing.slide.back" if slope_deg < 0 else "landing.slide.on"
    return [_told("landing.slide", level, text, "landing.slide.change", slope=abs(slope_deg))]


def _told(id: str, level: Level, text: str, change: str, **values: Value) -> Finding:
    return stated(
        Limit(id, Group.LANDING, "lay"), level, phrase(text, **values), change, source="physics", indicative=True
    )
