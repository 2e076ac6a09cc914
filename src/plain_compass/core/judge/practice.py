"""The practice findings: the design against the chosen school's ranges. Past a range is a fact, past a floor a stop."""

from __future__ import annotations

from ..base.frozen import changed
from ..base.levels import Group, Level
from ..base.phrase import phrase
from ..base.quantity import Kind
from ..plan.case import Case, Parts
from .findings import Finding, Limit, Told, as_fact, margin_of
from .limits import Uses

LEAST_BORED_m = 0.25
"""Smaller stems are not bored even where a practice always bores."""
BORE_FROM = 0.5
"""Splitting index of a cut from behind from which a practice that looks at splitting bores; a watch begins there."""
EARLY_FROM = 0.6
"""Share of what may still stand when a tree goes from which a practice that looks at splitting bores it."""
TWICE = 2.0
"""Times the usual thickness that each part of a hinge has which a slot has parted."""
SLACK = 1e-3
"""A range is held to a thousandth: nobody cuts finer, and outlines are polygons."""


def practice_findings(case: Case, parts: Parts, uses: Uses) -> tuple[Finding, ...]:
    """Every finding that comes from the practice. Outside its range is a fact; its hard floors are stops."""
    found = [
        _face_depth(case, parts),
        _opening(case, parts),
        _hinge_thickness(case, parts),
        _step(case),
        # A taper on the wrong side that matters is told by the physics.
        *([] if "hinge.taper" in uses else _uneven(case, parts)),
        *_bore(case, parts, uses),
        *_kept_away(case),
    ]
    return tuple(found)


def _ranged(limit: Limit, value: float, span: tuple[float, float], kind: Kind, told: Told) -> Finding:
    """A value against a range: clear inside it, with a margin that shows how near the nearer end is; a fact outside."""
    low, high = span
    slack = SLACK * high
    inside = low - slack <= value <= high + slack
    nearer = low if abs(value - low) < abs(value - high) else high
    middle, half = (low + high) / 2, max((high - low) / 2, 1e-9)
    margin = margin_of(0.6 * abs(value - middle) / half if inside else 0.85)
    compared = (value, nearer, kind, margin)
    found = Finding(limit.id, limit.group, Level.CLEAR, *compared, *told, source="practice", mark=limit.mark)
    return found if inside else as_fact(found)


def _face_depth(case: Case, parts: Parts) -> Finding:
    low, high = case.practice.face_depth_ratio
    ratio = parts.face.depth_ratio
    sentence = phrase("face.depth.face_wood_deep", share=ratio, low=low, high=high)
    change = phrase("face.depth.change")
    return _ranged(Limit("face.depth", Group.FACE, "face"), ratio, (low, high), Kind.RATIO, Told(sentence, change))


def _opening(case: Case, parts: Parts) -> Finding:
    low, high = case.practice.opening_deg
    opening = parts.face.opening_deg
    sentence = phrase("face.opening.face_opens_practice", opening=opening, low=low, high=high)
    change = phrase("face.opening.change")
    return _ranged(Limit("face.opening", Group.FACE, "face"), opening, (low, high), Kind.ANGLE, Told(sentence, change))


def _hinge_thickness(case: Case, parts: Parts) -> Finding:
    practice, depth = case.practice, parts.section.depth_m
    least = practice.hinge_least_m
    usual = TWICE if case.cut.back.traits.thick_hinge else 1.0
    low, high = (usual * max(ratio * depth, least) for ratio in practice.hinge_ratio)
    thin = min(case.cut.hinge.left_m, case.cut.hinge.right_m)
    mean = case.cut.hinge.mean_m
    if thin < least - 1e-9 and case.tree.condition != "dead":
        sentence = phrase("hinge.thickness.hinge_thinner_end", thin=thin, least=least)
        return Finding(
            "hinge.thickness",
            Group.HINGE,
            Level.STOP,
            thin,
            least,
            Kind.LENGTH,
            margin_of(least / max(thin, 1e-4)),
            sentence,
            phrase("hinge.thickness.leave_more_wood"),
            "practice",
            False,
            "hinge",
        )
    sentence = phrase("hinge.thickness.hinge_thick_average", mean=mean, low=low, high=high)
    change = phrase("hinge.thickness.change")
    return _ranged(
        Limit("hinge.thickness", Group.HINGE, "hinge"), mean, (low, high), Kind.LENGTH, Told(sentence, change)
    )


def _step(case: Case) -> Finding:
    practice, cut = case.practice, case.cut
    low, high = practice.step_m
    if practice.level_when_bored_open and cut.back.held and cut.face.traits.holds_long:
        low = 0.0
    sentence = phrase("hinge.step.back_cut_above", step=cut.back.step_m, low=low, high=high)
    change = phrase("hinge.step.change")
    return _ranged(
        Limit("hinge.step", Group.HINGE, "step"), cut.back.step_m, (low, high), Kind.LENGTH, Told(sentence, change)
    )


def _uneven(case: Case, parts: Parts) -> list[Finding]:
    """The thicker end belongs on the side in tension, away from the side weight."""
    hinge = case.cut.hinge
    difference = hinge.left_m - hinge.right_m
    if abs(difference) < 0.003 or difference * parts.balance.left_m < 0:
        return []
    side = "left" if difference > 0 else "right"
    sentence = phrase("hinge.uneven.thicker", more=abs(difference), side=phrase(f"side.{side}"))
    change = phrase("hinge.uneven.change")
    compared = (abs(difference), 0.003, Kind.LENGTH)
    return [_fact(Limit("hinge.uneven", Group.HINGE, "hinge"), compared, Told(sentence, change))]


def _fact(limit: Limit, compared: tuple[float, float, str], told: Told) -> Finding:
    """A choice that is not this school's."""
    found = Finding(limit.id, limit.group, Level.CLEAR, *compared, None, *told, "practice", mark=limit.mark)
    return as_fact(found)


def asks_to_bore(case: Case, parts: Parts, uses: Uses) -> bool:
    """Whether this school bores such a tree: always, with forward lean, or when cutting from behind is not clear."""
    index, when = parts.splitting.split_index_plain, case.practice.bore_when
    if case.cut.back.held or when == "never" or (when == "always" and parts.section.depth_m < LEAST_BORED_m):
        return False
    early = uses.get("split.early", 0.0) >= EARLY_FROM
    leans = parts.balance.ahead_m > 0
    return {"always": True, "forward lean": leans, "split not clear": index >= BORE_FROM or early}[when]


def _bore(case: Case, parts: Parts, uses: Uses) -> list[Finding]:
    if not asks_to_bore(case, parts, uses):
        return []
    index = parts.splitting.split_index_plain
    text = {
        "always": "split.bore.practice_bores_every",
        "forward lean": "split.bore.weight_ahead_hinge",
        "split not clear": "split.bore.cut_behind_splitting" if index >= BORE_FROM else "split.bore.goes_early",
    }[case.practice.bore_when]
    change = phrase("split.bore.change")
    sentence = phrase(text, index=index)
    found = _fact(Limit("split.bore", Group.SPLIT, "kerf"), (index, BORE_FROM, Kind.NUMBER), Told(sentence, change))
    return [changed(found, indicative=True)]


def _kept_away(case: Case) -> list[Finding]:
    """A site rule short of the practice's own distance."""
    site, school = case.site.kept_away_lengths, case.practice.kept_away_lengths
    if site >= school - 1e-9:
        return []
    text = "way_out.distance.people_kept_tree"
    sentence = phrase(text, site=site, school=school)
    told = Told(sentence, phrase("way_out.distance.change"))
    return [_fact(Limit("way_out.distance", Group.WAY_OUT), (site, school, Kind.NUMBER), told)]
