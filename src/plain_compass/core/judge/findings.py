"""Findings: one plain statement per limit, with its value, its limit and what would change it."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import NamedTuple

from ..base.levels import LEVELS, Group, Level
from ..base.phrase import Phrase, phrase
from ..base.quantity import Kind


@dataclass(frozen=True, slots=True)
class Finding:
    """One judged limit.

    Attributes:
        id: stable name, ``group.what``.
        group: one of ``GROUPS``.
        level: one of ``LEVELS``.
        value, limit: what was found and where it would become a stop, both in the unit of ``kind``; None
            when there is nothing to compare.
        margin: share of the limit that is left: 1 all of it, 0 none, negative past it; None if unknown.
        sentence: what the numbers say.
        change: what would change it.
        source: ``physics``, ``practice`` or ``site``.
        indicative: whether it rests on an indicative relation.
        mark: which part of the drawing it is about.
    """

    id: str
    group: Group
    level: Level
    value: float | None
    limit: float | None
    kind: str
    margin: float | None
    sentence: Phrase
    change: Phrase
    source: str = "physics"
    indicative: bool = False
    mark: str = ""

    @property
    def use(self) -> float | None:
        """Share of the limit used up: 1 at the limit."""
        return None if self.margin is None else 1.0 - self.margin

    @property
    def is_judged(self) -> bool:
        """Whether anybody could judge it; what could not be is listed, but rules nothing."""
        return not self.id.endswith("not_judged")


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
    """Findings from worst to best: by level, then by margin."""
    return tuple(sorted(findings, key=_rank))


def _rank(finding: Finding) -> tuple[float, float]:
    """Sort key: what this version never judges comes after what is wrong and before what is clear."""
    level = float(LEVELS.index(finding.level)) if finding.is_judged else 0.5
    if finding.margin is not None:
        return -level, finding.margin
    # What was seen rather than reckoned: a stop of that kind rules, anything less comes after the arithmetic.
    return -level, -10.0 if finding.level == Level.STOP else 1.0


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
    return Finding(limit.id, limit.group, level, *compared, sentence, to_do, source, indicative, limit.mark)


def unknown(id: str, group: Group, sentence: str, change: str) -> Finding:
    """A finding about something that was not looked at, by the keys of its words: never shown as clear."""
    return stated(Limit(id, group), Level.UNKNOWN, phrase(sentence), change)


@dataclass(frozen=True, slots=True)
class Verdict:
    """The whole plan in one sentence, made from its worst finding.

    Attributes:
        level: the worst level among what was judged.
        ruling: the finding it is made from.
        more: how many others share that level.
        unknown: how many things are not known or not judged.
    """

    level: Level
    ruling: Finding
    more: int
    unknown: int


def verdict_of(findings: tuple[Finding, ...]) -> Verdict:
    """Rule by the worst finding. What this version cannot judge is counted, not ruled by."""
    judged = [f for f in worst_first(findings) if f.is_judged]
    ruling = judged[0]
    return Verdict(
        level=ruling.level,
        ruling=ruling,
        more=sum(f.level == ruling.level for f in judged) - 1,
        unknown=sum(f.level == Level.UNKNOWN for f in findings),
    )


SEEN = ("measured.", "around.", "fork.", "defect.", "decay.", "balance.lean", "split.crack")
"""How the ids begin of what is seen and sounded on a tree rather than designed."""


FALL = ("fall.",)
"""The same of what the fall says."""


def level_of_ids(findings: tuple[Finding, ...], beginnings: tuple[str, ...]) -> Level:
    """The worst level among findings by how their ids begin; unknown where there are none."""
    return max((f.level for f in findings if f.id.startswith(beginnings)), key=LEVELS.index, default=Level.UNKNOWN)


def level_seen(findings: tuple[Finding, ...]) -> Level:
    """The worst level among what the walk round found."""
    return level_of_ids(findings, SEEN)


def level_of_groups(findings: tuple[Finding, ...], groups: tuple[str, ...]) -> Level:
    """The worst level among some limit states."""
    return max((f.level for f in findings if f.group in groups), key=LEVELS.index, default=Level.UNKNOWN)
