"""The door to the core: ``assess(case)`` answers everything about one tree, one lay, one cut."""

from __future__ import annotations

from dataclasses import dataclass, replace

from .base.levels import Group, Level
from .design.checks import check_case
from .fall.fan import Fan
from .fall.nominal import NominalFall
from .judge import unmeasured
from .judge.around import around_findings
from .judge.cut import cut_findings
from .judge.fall import fall_findings
from .judge.findings import Finding, Verdict, unknown, verdict_of, worst_first
from .judge.ground import ground_findings
from .judge.lying import lying_findings
from .judge.physics import physics_findings
from .judge.practice import practice_findings
from .judge.rope import rope_findings
from .judge.seen import seen_findings
from .judge.wind import wind_finding
from .mechanics.tape import TapeMark, tape_marks
from .plan.case import Case, Planned, parts_of


@dataclass(frozen=True, slots=True, eq=False)
class Assessment(Planned):
    """What the numbers say about a case.

    Attributes:
        tape_marks: marks round the bark.
        findings: every judged limit, worst first.
        verdict: the whole in one sentence.
    """

    tape_marks: tuple[TapeMark, ...]
    findings: tuple[Finding, ...]
    verdict: Verdict


def assess(case: Case) -> Assessment:
    """Assess one tree with one cut.

    Raises InputError, naming the field, when a value is out of range or the cut does not fit the stem.
    """
    check_case(case.tree, case.site, case.cut, case.kit, case.rope)
    parts = parts_of(case)
    judged = (
        *physics_findings(case, parts),
        *seen_findings(case, parts),
        *around_findings(case.tree),
        *ground_findings(case, parts),
        *lying_findings(case, parts),
        *rope_findings(case, parts),
        *cut_findings(Planned(case, parts)),
        wind_finding(case, parts),
    )
    findings = worst_first(judged + practice_findings(case, parts))
    return Assessment(case, parts, tape_marks(parts.section, parts.face, case.cut), findings, verdict_of(findings))


def with_unknowns(result: Assessment) -> Assessment:
    """An assessment that calls unknown whatever rests on something that has not been measured."""
    findings = unmeasured.with_unknowns(result.case.tree, result.findings)
    return result if findings is result.findings else replace(result, findings=findings, verdict=verdict_of(findings))


def with_fall(result: Assessment, fall: NominalFall, fan: Fan) -> Assessment:
    """An assessment with what its fall says among its findings, and the verdict of all."""
    findings = worst_first((*without_fall(result), *fall_findings(result, fall, fan)))
    return with_unknowns(replace(result, findings=findings, verdict=verdict_of(findings)))


WAITING = (Group.HINGE, Group.LANDING)
"""Limit states that nobody may call clear before the fall is in."""


def awaiting_fall(result: Assessment, *, failed: bool = False) -> Assessment:
    """An assessment that says of itself that its fall is still being reckoned, or could not be.

    What was found so far stays as it is; only clear waits: it is not known yet.
    """
    text = "fall.reckoning.failed" if failed else "fall.reckoning.under_way"
    waiting = tuple(unknown(f"fall.reckoning_{group}", group, text, f"{text}_change") for group in WAITING)
    before = without_fall(result)
    known = sum(finding.level != Level.CLEAR for finding in before)
    findings = (*before[:known], *waiting, *before[known:])
    verdict = verdict_of(before)
    return replace(result, findings=findings, verdict=verdict_of(findings) if verdict.level == Level.CLEAR else verdict)


def without_fall(result: Assessment) -> tuple[Finding, ...]:
    """The findings of an assessment before its fall was reckoned."""
    return tuple(finding for finding in result.findings if not finding.id.startswith("fall."))
