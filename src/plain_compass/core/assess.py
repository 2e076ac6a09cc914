"""The door to the core: ``assess(case)`` answers everything about one tree, one lay, one cut."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import cached_property

from .base.errors import InputError
from .base.frozen import dataclass
from .base.levels import FindingKind, Group, Level
from .design.checks import check_case, check_cut_fits
from .fall.fan import Fan
from .fall.nominal import NominalFall
from .judge import unmeasured
from .judge.around import around_findings
from .judge.chances import Chances, judged_by
from .judge.cut import cut_findings
from .judge.duties import duty_findings, with_done
from .judge.fall import fall_findings
from .judge.findings import Done, Finding, Verdict, unknown, verdict_of, worst_first
from .judge.ground import ground_findings
from .judge.limits import Shares, shares_of, wind_per_newton
from .judge.lying import lying_findings
from .judge.physics import physics_findings
from .judge.practice import practice_findings
from .judge.rope import rope_findings
from .judge.seen import seen_findings
from .judge.who import Difficulty, Stated, difficulty_of, who_findings
from .judge.wind import wind_finding
from .mechanics.tape import TapeMark, tape_marks
from .plan.case import Case, Planned
from .plan.many import alone, many_of, place_of


@dataclass(frozen=True, eq=False)
class Assessment(Planned):
    """What the numbers say about a case.

    Attributes:
        findings: every judged limit, worst first.
        verdict: the whole in one sentence.
    """

    findings: tuple[Finding, ...]
    verdict: Verdict

    @cached_property
    def difficulty(self) -> Difficulty:
        """How hard the tree is with this cut; made for those who ask."""
        return difficulty_of(self)

    @cached_property
    def tape_marks(self) -> tuple[TapeMark, ...]:
        """Marks round the bark; made for those who ask."""
        return tape_marks(self.parts.section, self.parts.face, self.case.cut)


def assess(case: Case) -> Assessment:
    """Assess one tree with one cut.

    Raises InputError, naming the field, when a value is out of range or the cut does not fit the stem.
    """
    check(case)
    return assessed(shares_of(alone(case)), 0)


def assess_many(cases: Sequence[Case], before: Chances | None = None) -> tuple[Assessment | None, ...]:
    """Assess several cases that share site, kit, constants and tolerance: the physics of all of them at once.

    Args:
        before: chances of a plan that differs from these in a few things; its spreads then judge their limits.

    What does not fit, or is out of range, has no assessment.
    """
    fit = [case for case in cases if fits(case)]
    if not fit:
        return (None,) * len(cases)
    many = many_of(fit)
    shares, found = shares_of(many), []
    chances = None if before is None else before.of_others(many)
    rows = {id(case): row for row, case in enumerate(fit)}
    for case in cases:
        row = rows.get(id(case))
        one = None if row is None else assessed(shares, row)
        found.append(one if one is None or row is None or chances is None else with_chances(one, chances[row]))
    return tuple(found)


def check(case: Case) -> None:
    """Raise InputError, naming the field, unless the case can be assessed: in range, and its cut fits the stem."""
    check_case(case.tree, case.site, case.cut, case.kit, case.rope)
    check_cut_fits(place_of(case).section(), case.cut)


def fits(case: Case) -> bool:
    """Whether a case can be assessed."""
    try:
        check(case)
    except InputError:
        return False
    return True


def assessed(shares: Shares, row: int) -> Assessment:
    """What the numbers say of one of many cases."""
    many, uses = shares.many, shares.at(row)
    case, parts = many.cases[row], many.parts(row)
    judged = (
        *physics_findings(case, parts, uses),
        *seen_findings(case, parts),
        *around_findings(case.tree),
        *ground_findings(case, parts),
        *lying_findings(case, parts, uses),
        *rope_findings(case, parts, uses),
        *duty_findings(case),
        *cut_findings(Planned(case, parts)),
        wind_finding(case, parts, uses, lambda: float(wind_per_newton(many)[row])),
    )
    findings = worst_first(judged + practice_findings(case, parts, uses))
    return Assessment(case, parts, findings, verdict_of(findings, is_ranked=True))


def with_chances(result: Assessment, chances: Chances, *, is_pending: bool = False) -> Assessment:
    """An assessment whose limits are judged by how likely they are to fail.

    Args:
        is_pending: whether the chances are of a plan just before this one, until its own are reckoned.
    """
    return _with(result, judged_by(result.findings, chances, is_pending=is_pending))


def with_person(result: Assessment, said: Stated) -> Assessment:
    """An assessment that says whether the tree is within what a person says of their own limits."""
    return _with(result, (*result.findings, *who_findings(result, said)))


def with_duties_done(result: Assessment, done: Sequence[Done]) -> Assessment:
    """An assessment with the duties ticked that were done."""
    return _with(result, with_done(result.findings, done)) if done else result


def with_facts(result: Assessment, facts: Sequence[Finding]) -> Assessment:
    """An assessment that tells more of how the plan is made."""
    return _with(result, (*result.findings, *facts)) if facts else result


def _with(result: Assessment, findings: tuple[Finding, ...]) -> Assessment:
    findings = worst_first(findings)
    return replace(result, findings=findings, verdict=verdict_of(findings, is_ranked=True))


def with_unknowns(result: Assessment) -> Assessment:
    """An assessment that calls unknown whatever rests on something that has not been measured."""
    findings = unmeasured.with_unknowns(result.case.tree, result.findings)
    return result if findings is result.findings else _with(result, findings)


def with_fall(result: Assessment, fall: NominalFall, fan: Fan) -> Assessment:
    """An assessment with what its fall says among its findings, and the verdict of all."""
    before = tuple(f for f in without_fall(result) if f.id not in LIKELIER)
    found = fall_findings(result, fall, fan)
    if not any(f.id == "fall.hangs" for f in found):
        before = without_fall(result, LIKELIER[:1])
    return with_unknowns(_with(result, (*before, *found)))


LIKELIER = ("landing.targets", "landing.hang_up")
"""What the likely falls say better than the lay's own line."""


WAITING = (Group.HINGE, Group.LANDING)
"""Limit states that nobody may call clear before the fall is in."""


RECKONING, FAILED = "fall.reckoning", "fall.failed"
"""How the ids begin of what waits for the fall, and of what waits in vain."""


def is_question(finding: Finding) -> bool:
    """Whether something is unknown that a person can settle; what the program itself still owes is not."""
    return finding.kind == FindingKind.UNKNOWN and not finding.id.startswith((RECKONING, FAILED))


def awaiting_fall(result: Assessment, *, failed: bool = False) -> Assessment:
    """An assessment that says of itself that its fall is still being reckoned, or could not be.

    What was found so far stays as it is; only clear waits: it is not known yet.
    """
    state = (FAILED if failed else RECKONING).removeprefix("fall.")
    waiting = tuple(
        unknown(f"fall.{state}_{group}", group, f"fall.{state}.{group}", f"fall.{state}.change") for group in WAITING
    )
    before = without_fall(result)
    verdict = verdict_of(before)
    waits = _with(result, (*before, *waiting))
    # What is known already rules; only a plan that would be ready waits.
    return waits if verdict.level == Level.CLEAR else replace(waits, verdict=verdict)


def without_fall(result: Assessment, others: tuple[str, ...] = ()) -> tuple[Finding, ...]:
    """The findings of an assessment before its fall was reckoned, without some others too."""
    return tuple(f for f in result.findings if not f.id.startswith("fall.") and f.id not in others)
