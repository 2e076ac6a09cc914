"""Errors played in: what a usual mistake would do to this plan, and what mends it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from ..assess import Assessment, assess
from ..base.errors import InputError
from ..base.frames import full_turn_deg
from ..base.frozen import dataclass
from ..base.levels import LEVELS, Level
from ..base.paths import with_value
from ..base.phrase import Phrase, phrase
from ..design.cut import Cut
from ..judge.findings import Finding
from ..plan.case import Case
from ..tree.section import section_at
from ..tree.tree import Decay

WORSE_BY = 0.05
"""A margin that falls by this much is told even where its level stays."""


@dataclass(frozen=True, slots=True)
class Fault:
    """One mistake.

    Attributes:
        key: what it is.
        part: the step at which it happens: ``face``, ``hinge`` or ``back``.
        played: the case with the mistake in it.
    """

    key: str
    part: str
    played: Callable[[Case], Case]

    @property
    def name(self) -> Phrase:
        """What it is called."""
        return phrase(f"fault.{self.key}.name")

    @property
    def mends(self) -> Phrase:
        """What can be done when it is noticed."""
        return phrase(f"fault.{self.key}.mends")


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
    Fault("roof-overcut", "face", _cut(lambda c: with_value(c.cut, "face.overcut_m", c.cut.face.overcut_m + 0.02))),
    Fault("floor-overcut", "face", _cut(lambda c: with_value(c.cut, "face.overcut_m", c.cut.face.overcut_m + 0.04))),
    Fault("aim", "face", _cut(lambda c: with_value(c.cut, "lay_deg", full_turn_deg(c.cut.lay_deg + 5.0)))),
    Fault("thick-middle", "back", _cut(_thick_middle)),
    Fault("uneven", "back", _cut(lambda c: with_value(c.cut, "hinge.left_m", 0.5 * c.cut.hinge.left_m))),
    Fault(
        "bored-far",
        "back",
        _cut(
            lambda c: replace(
                c.cut, hinge=replace(c.cut.hinge, left_m=0.6 * c.cut.hinge.left_m, right_m=0.6 * c.cut.hinge.right_m)
            )
        ),
    ),
    Fault("thin-strap", "back", _cut(lambda c: with_value(c.cut, "back.strap_m", max(c.cut.back.strap_m / 3, 0.005)))),
    Fault("low-step", "back", _cut(lambda c: with_value(c.cut, "back.step_m", 0.0))),
    Fault("rot", "back", _rotten),
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
        return after.level != Level.CLEAR
    if LEVELS.index(after.level) != LEVELS.index(before.level):
        return LEVELS.index(after.level) > LEVELS.index(before.level)
    if after.margin is None or before.margin is None:
        return False
    return after.margin < before.margin - WORSE_BY
