"""Findings from the shape of the ground: what the stem meets first, whether it breaks, rolls or slides."""

from __future__ import annotations

import math

from ..base.phrase import phrase
from ..mechanics.resting import Resting
from ..plan.case import Case, Parts
from .findings import Finding, against, stated, unknown

EARLY_DEG = 80.0
"""A top that lands before this tilt is driven back along the stem."""
LATE_DEG = 97.0
"""Past this the hinge and the face are spent long before the top lands."""


def lying_findings(case: Case, parts: Parts) -> tuple[Finding, ...]:
    """How the tree comes to lie on the ground that is known."""
    lying = parts.resting
    found = [_break(lying), *_first_touch(lying), *_roll(case, lying), *_slide(case, lying)]
    if not case.site.spots:
        found.append(
            unknown(
                "landing.ground_not_judged",
                "landing",
                "The ground under the lay is taken as an even slope: no spot heights are given.",
                "Walk the lay; note humps and hollows, or take spot heights.",
            )
        )
    return tuple(found)


def _break(lying: Resting) -> Finding:
    span = lying.span_to_m - lying.span_from_m
    text = "Across the ground as it is known the stem bends to {index} of breaking, most {at} up."
    if span > 0:
        text = "Lying, the stem spans {span} between what it bears on and bends to {index} of breaking, most {at} up."
    return against(
        "landing.break",
        "landing",
        lying.break_index,
        (lying.break_index, 1.0, "number"),
        phrase(text, index=(lying.break_index, "ratio"), at=(lying.breaks_at_m, "span"), span=(span, "span")),
        phrase("A lay beside the hump, brush under the stem to fall on, or the break planned where the log is cut."),
        indicative=True,
        mark="lay",
    )


def _first_touch(lying: Resting) -> list[Finding]:
    at = (lying.touches_at_m, "span")
    tilt = (lying.touches_deg, "angle")
    if lying.touches_by == "top" and lying.touches_deg < EARLY_DEG:
        text = "The ground rises: the top lands at {tilt} of tilt and drives the stem back towards the stump."
        change = "Stand well aside of the stump, leave early; a reverse [face] or a lay along the slope."
    elif lying.touches_by != "top":
        text = (
            f"The {lying.touches_by} lands first, {{at}} up, at {{tilt}}: the top whips over it and the butt may jump."
        )
        change = "A lay beside what it lands on; stand back from the butt."
    elif lying.touches_deg > LATE_DEG:
        text = "The ground falls away: the top lands only at {tilt}, after the stump has let go; the butt runs forward."
        change = "A lay along the slope; keep people far longer downhill."
    else:
        return []
    return [_told("landing.touch", "watch", text, change, at=at, tilt=tilt)]


def _roll(case: Case, lying: Resting) -> list[Finding]:
    limit, fall = case.constants.rolls_from_deg, abs(lying.rolls_deg)
    if fall < limit:
        return []
    side = "left" if lying.rolls_deg > 0 else "right"
    text = f"The ground falls {{fall}} to the {side} of the lay: the stem may roll that way once it is down."
    return [
        _told(
            "landing.roll", "watch", text, "Nobody below it; work from above when it is cut up.", fall=(fall, "angle")
        )
    ]


def _slide(case: Case, lying: Resting) -> list[Finding]:
    """A stem slides where the slope along it is steeper than bark holds; back at the stump it is a stop."""
    use = math.tan(math.radians(abs(lying.slides_deg))) / case.constants.slide_friction
    if use < 0.5:
        return []
    uphill = lying.slides_deg < 0
    where = "back down over the stump" if uphill else "on downhill"
    level = "stop" if use > 1 and uphill else "watch"
    text = f"The stem lies on a slope of {{slope}} and may slide {where}."
    return [
        _told(
            "landing.slide",
            level,
            text,
            "A lay across or along the slope, or a stem held by a line before it is let go.",
            slope=(abs(lying.slides_deg), "angle"),
        )
    ]


def _told(id: str, level: str, text: str, change: str, **values: tuple[float, str]) -> Finding:
    return stated(id, "landing", level, phrase(text, **values), change, source="physics", indicative=True, mark="lay")
