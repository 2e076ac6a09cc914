"""The practice findings: the design against the chosen school's ranges."""

from __future__ import annotations

from ..base.phrase import Phrase, phrase
from ..plan.case import Case, Parts
from .findings import Finding, margin_of

LEAST_BORED_m = 0.25
SLACK = 1e-3
"""A range is held to a thousandth: nobody cuts finer, and outlines are polygons."""


def practice_findings(case: Case, parts: Parts) -> tuple[Finding, ...]:
    """Every finding that comes from the practice. Outside its range is a watch; its hard floors are stops."""
    found = [
        _face_depth(case, parts),
        _opening(case, parts),
        _hinge_thickness(case, parts),
        _step(case),
        *_uneven(case, parts),
        *_bore(case, parts),
        *_kept_away(case),
    ]
    return tuple(found)


def _ranged(
    id: str, group: str, value: float, low: float, high: float, kind: str, sentence: Phrase, change: Phrase, mark: str
) -> Finding:
    """A value against a range: clear inside it, watch outside; the margin shows how near the nearer end is."""
    slack = SLACK * high
    inside = low - slack <= value <= high + slack
    limit = low if abs(value - low) < abs(value - high) else high
    middle, half = (low + high) / 2, max((high - low) / 2, 1e-9)
    use = 0.6 * abs(value - middle) / half if inside else 0.85
    return Finding(
        id,
        group,
        "clear" if inside else "watch",
        value,
        limit,
        kind,
        margin_of(use),
        sentence,
        change,
        "practice",
        False,
        mark,
    )


def _face_depth(case: Case, parts: Parts) -> Finding:
    low, high = case.practice.face_depth_ratio
    ratio = parts.face.depth_ratio
    sentence = phrase(
        "The [face] is {share} of the wood deep; this practice keeps it between {low} and {high}.",
        share=(ratio, "ratio"),
        low=(low, "ratio"),
        high=(high, "ratio"),
    )
    change = phrase("One fifth deep gives a [hinge] four fifths of the diameter long.")
    return _ranged("face.depth", "face", ratio, low, high, "ratio", sentence, change, "face")


def _opening(case: Case, parts: Parts) -> Finding:
    low, high = case.practice.opening_deg
    opening = parts.face.opening_deg
    sentence = phrase(
        "The [face] opens {opening}; this practice keeps it between {low} and {high}.",
        opening=(opening, "angle"),
        low=(low, "angle"),
        high=(high, "angle"),
    )
    change = phrase("Wider holds longer; narrower suits wood that splits.")
    return _ranged("face.opening", "face", opening, low, high, "angle", sentence, change, "face")


def _hinge_thickness(case: Case, parts: Parts) -> Finding:
    practice, depth = case.practice, parts.section.depth_m
    least = practice.hinge_least_m
    low, high = max(practice.hinge_ratio[0] * depth, least), max(practice.hinge_ratio[1] * depth, least)
    thin = min(case.cut.hinge.left_m, case.cut.hinge.right_m)
    mean = (case.cut.hinge.left_m + case.cut.hinge.right_m) / 2
    if thin < least - 1e-9 and case.tree.condition == "live":
        sentence = phrase(
            "The [hinge] is {thin} at its thinner end; this practice never goes under {least} in live wood.",
            thin=(thin, "length"),
            least=(least, "length"),
        )
        return Finding(
            "hinge.thickness",
            "hinge",
            "stop",
            thin,
            least,
            "length",
            margin_of(least / max(thin, 1e-4)),
            sentence,
            phrase("Leave more wood at that end."),
            "practice",
            False,
            "hinge",
        )
    sentence = phrase(
        "The [hinge] is {mean} thick on average; this practice keeps it between {low} and {high} here.",
        mean=(mean, "length"),
        low=(low, "length"),
        high=(high, "length"),
    )
    change = phrase("A tenth of the diameter is the rule of thumb.")
    return _ranged("hinge.thickness", "hinge", mean, low, high, "length", sentence, change, "hinge")


def _step(case: Case) -> Finding:
    practice, cut = case.practice, case.cut
    low, high = practice.step_m
    if practice.level_when_bored_open and cut.back.held and cut.face.traits.holds_long:
        low = 0.0
    sentence = phrase(
        "The [back cut] is {step} above the apex; this practice keeps it between {low} and {high}.",
        step=(cut.back.step_m, "length"),
        low=(low, "length"),
        high=(high, "length"),
    )
    change = phrase("A step keeps the butt from coming back over the stump.")
    return _ranged("hinge.step", "hinge", cut.back.step_m, low, high, "length", sentence, change, "step")


def _uneven(case: Case, parts: Parts) -> list[Finding]:
    """The thicker end belongs on the side in tension, away from the side weight."""
    hinge = case.cut.hinge
    difference = hinge.left_m - hinge.right_m
    if abs(difference) < 0.003 or difference * parts.balance.left_m < 0:
        return []
    side = "left" if difference > 0 else "right"
    sentence = phrase(
        f"The [hinge] is {{more}} thicker at its {side} end, the side the weight is on.",
        more=(abs(difference), "length"),
    )
    change = phrase("Even ends, or the thicker one on the side in tension.")
    return [
        Finding(
            "hinge.uneven",
            "hinge",
            "watch",
            abs(difference),
            0.003,
            "length",
            0.2,
            sentence,
            change,
            "practice",
            False,
            "hinge",
        )
    ]


def _bore(case: Case, parts: Parts) -> list[Finding]:
    """Bore when this school does: always, with forward lean, or when cutting from behind is not clear of splitting."""
    index, when = parts.splitting.split_index_plain, case.practice.bore_when
    if case.cut.back.held or when == "never":
        return []
    leans = parts.balance.ahead_m > 0
    asked = {"always": True, "forward lean": leans, "split not clear": index >= 0.5}[when]
    if not asked or (when == "always" and parts.section.depth_m < LEAST_BORED_m):
        return []
    text = {
        "always": "This practice bores every stem that is wide enough for the bar.",
        "forward lean": "The weight is ahead of the [hinge]: this practice bores with forward lean.",
        "split not clear": "Cut from behind, the splitting index is {index}: this practice bores from 0.5 up.",
    }[when]
    change = phrase("Change the [back cut] to bored, with the [strap] released last.")
    sentence = phrase(text, index=(index, "number"))
    return [
        Finding("split.bore", "split", "watch", index, 0.5, "number", 0.1, sentence, change, "practice", True, "kerf")
    ]


def _kept_away(case: Case) -> list[Finding]:
    """A site rule short of the practice's own distance."""
    site, school = case.site.kept_away_lengths, case.practice.kept_away_lengths
    if site >= school - 1e-9:
        return []
    text = "People are kept {site} tree lengths away; this practice keeps them {school}."
    sentence = phrase(text, site=(site, "number"), school=(school, "number"))
    change = phrase("Type the larger distance on the tree sheet.")
    margin = margin_of(school / site * 0.85)
    return [
        Finding("way_out.distance", "way_out", "watch", site, school, "number", margin, sentence, change, "practice")
    ]
