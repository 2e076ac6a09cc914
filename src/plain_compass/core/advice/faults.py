"""Errors played in: what a usual mistake would do to this plan, and what mends it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from ..assess import Assessment, assess
from ..base.errors import InputError
from ..base.paths import with_value
from ..design.cut import Cut
from ..judge.findings import LEVELS, Finding
from ..plan.case import Case
from ..tree.section import section_at
from ..tree.tree import Decay

WORSE_BY = 0.05
"""A margin that falls by this much is told even where its level stays."""


@dataclass(frozen=True, slots=True)
class Fault:
    """One mistake.

    Attributes:
        key, name: what it is.
        part: the step at which it happens: ``face``, ``hinge`` or ``back``.
        played: the case with the mistake in it.
        mends: what can be done when it is noticed.
    """

    key: str
    name: str
    part: str
    played: Callable[[Case], Case]
    mends: str


@dataclass(frozen=True, slots=True, eq=False)
class Played:
    """What a mistake does.

    Attributes:
        fault: which.
        result: the assessment with it; None where the cut would not hold together at all.
        worse: findings that are worse with it than without, the worst first.
    """

    fault: Fault
    result: Assessment | None
    worse: tuple[Finding, ...]


def _cut(change: Callable[[Case], Cut]) -> Callable[[Case], Case]:
    return lambda case: replace(case, cut=change(case))


def _thick_middle(case: Case) -> Cut:
    """A hinge whose ends are as planned while its middle is half as thick again: stiffer, and it breaks sooner."""
    hinge = case.cut.hinge
    return replace(case.cut, hinge=replace(hinge, middle_m=hinge.middle_m + (hinge.left_m + hinge.right_m) / 4))


def _rotten(case: Case) -> Case:
    exponent = case.constants.profile_exponent[case.wood.group]
    radius = 0.3 * section_at(replace(case.tree, decay=Decay(kind="none")), case.cut.height_m, 0.0, exponent).depth_m
    return replace(case, tree=replace(case.tree, decay=Decay(kind="cavity", radius_m=round(radius, 3))))


FAULTS = (
    Fault(
        "roof-overcut",
        "roof cut runs 2 cm past the apex",
        "face",
        _cut(lambda c: with_value(c.cut, "face.overcut_m", c.cut.face.overcut_m + 0.02)),
        "Clean the corner: take the floor in to meet it, along the whole apex, and size the [hinge] from there.",
    ),
    Fault(
        "floor-overcut",
        "floor cut runs 4 cm past the apex",
        "face",
        _cut(lambda c: with_value(c.cut, "face.overcut_m", c.cut.face.overcut_m + 0.04)),
        "Clean the corner, or raise the whole cut above it where the stump is high enough.",
    ),
    Fault(
        "aim",
        "lay off by 5 degrees",
        "face",
        _cut(lambda c: with_value(c.cut, "lay_deg", (c.cut.lay_deg + 5.0) % 360.0)),
        "Sight along the [face] again; take the same slice off roof and floor on the shallow side.",
    ),
    Fault(
        "thick-middle",
        "[hinge] thick in the middle",
        "back",
        _cut(_thick_middle),
        "Take the middle down from behind to the line of the ends; do not hammer wedges against it.",
    ),
    Fault(
        "uneven",
        "left end of the [hinge] cut to half",
        "back",
        _cut(lambda c: with_value(c.cut, "hinge.left_m", 0.5 * c.cut.hinge.left_m)),
        "Stop. Leave the other end as it is, wedge on the thin side, or turn the lay if the ground allows.",
    ),
    Fault(
        "bored-far",
        "bored too far: [hinge] 40 % thinner",
        "back",
        _cut(
            lambda c: replace(
                c.cut, hinge=replace(c.cut.hinge, left_m=0.6 * c.cut.hinge.left_m, right_m=0.6 * c.cut.hinge.right_m)
            )
        ),
        "Release at once if it holds by these numbers; a [hinge] cannot be put back.",
    ),
    Fault(
        "thin-strap",
        "[strap] left at a third",
        "back",
        _cut(lambda c: with_value(c.cut, "back.strap_m", max(c.cut.back.strap_m / 3, 0.005))),
        "Out of its line, away, and let it go; never reach behind it again.",
    ),
    Fault(
        "low-step",
        "[back cut] level with the apex, or under it",
        "back",
        _cut(lambda c: with_value(c.cut, "back.step_m", 0.0)),
        "Raise the cut: a second [back cut] above the first, as high as was planned.",
    ),
    Fault(
        "rot",
        "rot met while boring",
        "back",
        _rotten,
        "Stop boring. Probe, draw what is there, and plan the cut higher or leave it to a machine.",
    ),
)


def play(result: Assessment, fault: Fault) -> Played:
    """Put one mistake into an assessed plan."""
    try:
        after = assess(fault.played(result.case))
    except InputError:
        return Played(fault, None, ())
    before = {finding.id: finding for finding in result.findings}
    worse = tuple(f for f in after.findings if _is_worse(f, before.get(f.id)))
    return Played(fault, after, worse)


def _is_worse(after: Finding, before: Finding | None) -> bool:
    """Whether a finding got worse, by its level or clearly by its margin; a new one counts unless it is clear."""
    if before is None:
        return after.level != "clear"
    if LEVELS.index(after.level) != LEVELS.index(before.level):
        return LEVELS.index(after.level) > LEVELS.index(before.level)
    if after.margin is None or before.margin is None:
        return False
    return after.margin < before.margin - WORSE_BY
