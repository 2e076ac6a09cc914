"""What stands in the right column, row by row: stops, what to settle, what to watch with its ways out, what to do.

What is clear and how the plan is made are folded into a line each. Knows nothing of Qt.
"""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping
from typing import TypeAlias

from ...core.advice.mend import Mend, Mends, levers_of
from ...core.assess import is_question
from ...core.base.frozen import dataclass
from ...core.base.levels import FindingKind, Level
from ...core.judge.findings import Finding
from ...core.judge.places import where_of
from ...job.fields import label_of
from ...job.language import tr
from ...job.step_names import STEP_NAMES
from ...job.words import Speech
from ...job.words.catalogue import level_word

Paragraph: TypeAlias = tuple[str, int, bool]
"""Text, size, and whether it is strong."""


@dataclass(frozen=True, slots=True)
class Row:
    """One row.

    Attributes:
        kind: ``heading``, ``finding``, ``mend``, ``note`` (in place of mends), ``duty`` or ``fold``.
        paragraphs: what it says.
        finding: what it is about; of a mend, what that mends.
        mend: the way out it offers.
        key: which fold it opens and shuts.
    """

    kind: str
    paragraphs: tuple[Paragraph, ...]
    finding: Finding | None = None
    mend: Mend | None = None
    key: str = ""

    @property
    def told(self) -> str:
        """The whole row as one text, as a screen reader tells it."""
        text = " ".join(text for text, _, _ in self.paragraphs)
        if self.kind == "finding" and self.finding is not None:
            return f"{level_word(self.finding.level)}: {text}"
        if self.kind == "duty" and self.finding is not None:
            return f"{tr('to do') if self.finding.done is None else tr('done')}: {text}"
        return {"mend": tr("way out: {text}", text=text), "fold": tr("fold: {text}", text=text)}.get(self.kind, text)


def rows_of(
    findings: tuple[Finding, ...], mends: Mapping[str, Mends] | None, opened: Collection[str], speech: Speech
) -> list[Row]:
    """The rows of some findings, that stand worst first.

    Args:
        mends: ways out by the finding's id; None while they are looked for.
        opened: folds that are open.
    """
    found: list[Row] = []
    for key, level in (("stop", Level.STOP), ("unknown", Level.UNKNOWN), ("watch", Level.WATCH)):
        mine = [f for f in findings if f.level == level and f.kind in (FindingKind.LIMIT, FindingKind.UNKNOWN)]
        if mine:
            found.append(_heading(f"column.{key}", speech))
            for finding in mine:
                ways = list(_ways_out(finding, mends, speech))
                told = list(_paragraphs(finding, speech))
                # What would change it is said once: by the ways out where there are any.
                told = told[:-1] if any(row.kind == "mend" for row in ways) else told
                found += [Row("finding", tuple(told), finding), *ways]
    duties = [f for f in findings if f.kind == FindingKind.DUTY]
    if duties:
        found.append(_heading("column.duty", speech))
        found += [Row("duty", tuple(_duty(f, speech)), f) for f in duties]
    clear = [f for f in findings if f.level == Level.CLEAR and f.kind == FindingKind.LIMIT]
    facts = [f for f in findings if f.kind == FindingKind.FACT]
    for key, held in (("clear", clear), ("fact", facts)):
        found += _folded(key, held, opened, speech)
    return found


def _heading(key: str, speech: Speech) -> Row:
    return Row("heading", ((speech.phrase(key), 12, True),))


def _folded(key: str, held: list[Finding], opened: Collection[str], speech: Speech) -> Iterator[Row]:
    if not held:
        return
    is_open = key in opened
    sign = "▾" if is_open else "▸"
    yield Row("fold", ((f"{sign} {len(held)} {speech.tell(f'column.{key}')}", 13, False),), key=key)
    if is_open:
        yield from (Row("finding", tuple(_paragraphs(each, speech)), each) for each in held)


def _ways_out(finding: Finding, mends: Mapping[str, Mends] | None, speech: Speech) -> Iterator[Row]:
    if finding.kind != FindingKind.LIMIT or levers_of(finding.id) == ():
        return
    if mends is None:
        yield Row("note", ((speech.phrase("column.looking"), 12, False),), finding)
        return
    answer = mends.get(finding.id)
    if answer is None:
        return
    for number, each in enumerate(answer.mends, start=1):
        yield Row("mend", tuple(_mend(number, each, speech)), finding, each)
    if not answer.mends:
        yield Row("note", ((speech.no_mend(answer), 12, False),), finding)


def _mend(number: int, mend: Mend, speech: Speech) -> Iterator[Paragraph]:
    yield f"{number}  {speech.phrase(mend.words)}", 13, True
    moved = [
        f"{speech.named('groups', f.group).lower()} {level_word(f.level)}" for f in mend.moves if f.level != Level.CLEAR
    ]
    if moved:
        yield speech.say("then ") + ", ".join(dict.fromkeys(moved)), 12, False


def _paragraphs(finding: Finding, speech: Speech) -> Iterator[Paragraph]:
    yield speech.phrase(finding.sentence), 14, finding.level == Level.STOP
    small = small_print(finding, speech)
    if small:
        yield small, 12, False
    if finding.level != Level.CLEAR:
        yield speech.phrase(finding.change), 13, False
    if is_question(finding):
        yield _leads_to(finding, speech), 12, False


def _leads_to(finding: Finding, speech: Speech) -> str:
    """The step and the field that settle what is unknown; a click goes there."""
    where = where_of(finding.id)
    name = speech.say(label_of(where.field)) if where.field else ""
    return f"→ {STEP_NAMES[where.step]}{': ' + name if name else ''}"


def _duty(finding: Finding, speech: Speech) -> Iterator[Paragraph]:
    yield speech.phrase(finding.sentence), 14, False
    if finding.done is None:
        yield speech.phrase(finding.change), 12, False
    else:
        yield tr("done: {who}, {at}", who=finding.done.who or tr("somebody"), at=finding.done.at), 12, False


def small_print(finding: Finding, speech: Speech) -> str:
    """How likely, value against limit, where the limit comes from, and whether it is indicative."""
    if finding.level == Level.UNKNOWN:
        return ""
    odds = speech.tell("column.reckoning") if finding.is_pending else speech.odds(finding).rstrip(".")
    parts = [odds, speech.compared(finding), speech.named("sources", finding.source)]
    if finding.indicative:
        parts.append(tr("indicative"))
    return " · ".join(part for part in parts if part)
