"""Findings: one plain statement per limit, with its value, its limit and what would change it."""

from __future__ import annotations

import math
from typing import NamedTuple

from ..base.frozen import changed, dataclass
from ..base.levels import LEVELS, FindingKind, Group, Level
from ..base.phrase import Phrase, phrase
from ..base.quantity import Kind


@dataclass(frozen=True, slots=True)
class Done:
    """Who did a duty, and when.

    Attributes:
        id: of the duty's finding.
        about: what it was done for, such as the lay; for another it is still to do.
        who: name or initials.
        at: date and time, as text.
    """

    id: str = ""
    about: str = ""
    who: str = ""
    at: str = ""


@dataclass(frozen=True)
class Finding:
    """One thing that bears on the plan: a limit, something unknown, a duty or a fact.

    Attributes:
        id: stable name, ``group.what``.
        group: one of ``GROUPS``.
        level: one of ``LEVELS``; of a duty or a fact, which are no warnings, clear.
        value, limit: what was found and where it would become a stop, both measured as ``unit`` says; None
            when there is nothing to compare.
        margin: share of the limit that is left: 1 all of it, 0 none, negative past it; None if unknown.
        sentence: what the numbers say.
        change: what would change it.
        source: ``physics``, ``practice`` or ``site``.
        indicative: whether it rests on an indicative relation.
        mark: which part of the drawing it is about.
        kind: what sort of thing it is.
        chance: how likely the limit fails, as things were measured; None where it has no spread, or not reckoned yet.
        beta: spreads between the value and failing, on the nearer side.
        spread: one standard deviation of the share used up.
        is_pending: whether its chance is still to be reckoned: what is shown is of before.
        about: what a duty is to be done for; for another it is to be done again.
        done: who did a duty, and when; None while it is to do.
    """

    id: str
    group: Group
    level: Level
    value: float | None
    limit: float | None
    unit: str
    margin: float | None
    sentence: Phrase
    change: Phrase
    source: str = "physics"
    indicative: bool = False
    mark: str = ""
    kind: FindingKind = FindingKind.LIMIT
    chance: float | None = None
    beta: float | None = None
    spread: float | None = None
    is_pending: bool = False
    about: str = ""
    done: Done | None = None

    @property
    def use(self) -> float | None:
        """Share of the limit used up: 1 at the limit."""
        return None if self.margin is None else 1.0 - self.margin

    @property
    def is_open(self) -> bool:
        """Whether it is a duty that is still to be done."""
        return self.kind == FindingKind.DUTY and self.done is None


LEAST_MARGIN = -9.99
"""Margins further past a limit are all alike: so that they can be drawn and written."""
WATCH_FROM = 0.7
"""Share of a limit in use from which it is watched."""


def level_of(use: float, watch_from: float = WATCH_FROM) -> Level:
    """Level of a use of a limit: stop past 1, watch from ``watch_from``; not a number is unknown."""
    if math.isnan(use):
        return Level.UNKNOWN
    if use > 1.0:
        return Level.STOP
    return Level.WATCH if use >= watch_from else Level.CLEAR


def margin_of(use: float) -> float:
    """Margin left at a use, held within -9.99 and 1 so that it can be drawn and written."""
    return min(max(1.0 - use, LEAST_MARGIN), 1.0)


def worst_first(findings: tuple[Finding, ...]) -> tuple[Finding, ...]:
    """Findings from worst to best: by level, then by chance and margin; duties to do, duties done, facts at the end."""
    return tuple(sorted(findings, key=_rank))


KINDS_LAST = (FindingKind.DUTY, FindingKind.FACT)


def _rank(finding: Finding) -> tuple[float, ...]:
    last = 0 if finding.kind not in KINDS_LAST else 1 + KINDS_LAST.index(finding.kind)
    level, margin = -float(LEVELS.index(finding.level)), finding.margin
    if margin is None:
        # What was seen rather than reckoned: a stop of that kind rules, anything less comes after the arithmetic.
        margin = -10.0 if finding.level == Level.STOP else 1.0
    return last, level, 0.0 if finding.done is None else 1.0, margin


class Limit(NamedTuple):
    """What is judged.

    Attributes:
        id: stable name, ``group.what``.
        group: the limit state it belongs to.
        mark: which part of the drawing it is about.
    """

    id: str
    group: Group
    mark: str = ""


class Told(NamedTuple):
    """What the numbers say, and what would change it."""

    sentence: Phrase
    change: Phrase


def against(
    limit: Limit,
    use: float,
    compared: tuple[float, float, Kind],
    told: Told,
    *,
    watch_from: float = WATCH_FROM,
    indicative: bool = False,
) -> Finding:
    """A physics finding: a value held against a limit.

    Args:
        use: share of the limit that is used, 1 at the limit.
        compared: (value, limit, kind) as they are shown.
        watch_from: use from which it is a watch.
    """
    level, margin = level_of(use, watch_from), margin_of(use)
    return Finding(limit.id, limit.group, level, *compared, margin, *told, "physics", indicative, limit.mark)


def stated(
    limit: Limit,
    level: Level,
    sentence: Phrase,
    change: str | Phrase,
    *,
    source: str = "physics",
    indicative: bool = False,
) -> Finding:
    """A finding without arithmetic: what was seen, answered or drawn, and what that means."""
    to_do = change if isinstance(change, Phrase) else phrase(change)
    compared = (None, None, Kind.NUMBER, None)
    kind = FindingKind.UNKNOWN if level == Level.UNKNOWN else FindingKind.LIMIT
    return Finding(limit.id, limit.group, level, *compared, sentence, to_do, source, indicative, limit.mark, kind)


def unknown(id: str, group: Group, sentence: str, change: str) -> Finding:
    """A finding about something that was not looked at, by the keys of its words: never shown as clear."""
    return stated(Limit(id, group), Level.UNKNOWN, phrase(sentence), change)


def duty(limit: Limit, about: str, sentence: Phrase, change: str) -> Finding:
    """Something to do on the site before the saw starts, and what it is to be done for."""
    found = stated(limit, Level.CLEAR, sentence, change, source="site")
    return changed(found, kind=FindingKind.DUTY, about=about)


def as_fact(finding: Finding) -> Finding:
    """How the plan is made, told quietly: no warning, and no margin that could be mistaken for one."""
    return changed(finding, kind=FindingKind.FACT, level=Level.CLEAR, margin=None)


@dataclass(frozen=True)
class Verdict:
    """The whole plan in one sentence: what stops it, else what is unknown, else what is to watch, else what is to do.

    Attributes:
        level: the worst level among the findings.
        ruling: the finding it is made from; of a plan that is clear, the first duty to do, if there is any.
        more: how many others share that level.
        unknown: how many things are not known.
        duties: how many duties are still to be done.
    """

    level: Level
    ruling: Finding | None
    more: int
    unknown: int
    duties: int


def verdict_of(findings: tuple[Finding, ...], *, is_ranked: bool = False) -> Verdict:
    """Rule by the worst finding; by what is to be done where none stands against the plan.

    Args:
        is_ranked: whether they stand worst first already.
    """
    ranked = findings if is_ranked else worst_first(findings)
    level = max((f.level for f in findings), key=LEVELS.index, default=Level.CLEAR)
    alike = [f for f in ranked if f.level == level and f.kind not in KINDS_LAST]
    to_do = [f for f in ranked if f.is_open]
    rules = to_do if level == Level.CLEAR else alike
    return Verdict(
        level=level,
        ruling=rules[0] if rules else None,
        more=max(len(rules) - 1, 0),
        unknown=sum(f.level == Level.UNKNOWN for f in findings),
        duties=len(to_do),
    )


def level_of_ids(findings: tuple[Finding, ...], beginnings: tuple[str, ...]) -> Level:
    """The worst level among findings by how their ids begin; unknown where there are none."""
    return max((f.level for f in findings if f.id.startswith(beginnings)), key=LEVELS.index, default=Level.UNKNOWN)
