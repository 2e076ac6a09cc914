"""The head of every printed page: whose it is, how it stands, and the cautions at its foot."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QFontMetricsF, QPainter

from ....core.base.quantity import Kind
from ....job.document import size_words
from ....job.language import tr
from ....job.stamp import stamp_words
from ....job.words import Speech
from ...drawing.marks import paint_level
from ...drawing.palette import LIGHT, font, pen
from ...drawing.text import unbroken
from ...frame.store import Snapshot
from .flow import WRAP
from .paper import Paper

Align = Qt.AlignmentFlag
RULE_PX = 1.6
"""Width of the rule over the cautions."""
NARROW_PX = 420.0
"""On narrower paper place and date have a line each."""


def paint_head(painter: QPainter, snapshot: Snapshot, paper: Paper, printed: str, *, brief: bool = False) -> float:
    """Tree, lay, place, date and verdict; returns where what follows begins.

    Args:
        brief: for further pages of small paper: how the verdict begins, without what was measured.
    """
    margin, at_side = paper.margin_px, Align.AlignRight if paper.beside else Align.AlignLeft
    _line(painter, QRectF(margin, margin - 8, paper.inner, 30), Align.AlignLeft, _named(snapshot), 24, strong=True)
    y = margin - 4 if paper.beside else margin + 24
    for text in () if brief else _about(snapshot, paper, printed):
        _line(painter, QRectF(margin, y, paper.inner, 18), at_side, text, 13)
        y += 18
    if brief:
        _line(painter, QRectF(margin, margin - 4, paper.inner, 18), Align.AlignRight, printed.rpartition(" · ")[2], 13)
    verdict = snapshot.result.verdict
    said = snapshot.speech.lead(verdict).rstrip(":") if brief else snapshot.speech.verdict(verdict)
    top = y + 4 if not paper.beside else margin + 36
    paint_level(painter, QPointF(margin + 11, top + 10), 9, verdict.level, LIGHT)
    room = QRectF(margin + 28, top, paper.inner - 28, 40)
    used = paint_paragraph(painter, room, said, 14, strong=True)
    painter.setPen(pen(LIGHT.ink, 1))
    bottom = top + 4 + max(used, 18)
    painter.drawLine(QPointF(margin, bottom), QPointF(paper.width - margin, bottom))
    return bottom + 6


def _line(painter: QPainter, box: QRectF, align: Align, text: str, size: float, *, strong: bool = False) -> None:
    painter.setPen(pen(LIGHT.ink))
    painter.setFont(font(size, strong=strong))
    painter.drawText(box, align, text)


def _named(snapshot: Snapshot) -> str:
    plan, speech = snapshot.plan, snapshot.speech
    lay = speech.show(plan.cut.lay_deg, Kind.BEARING)
    if plan.cut.aim_off_deg:
        lay += tr("   gun mark {gun_deg}", gun_deg=speech.show(plan.cut.gun_deg, Kind.BEARING))
    return tr("{id}   lay {lay}", id=plan.id, lay=lay)


def _about(snapshot: Snapshot, paper: Paper, printed: str) -> tuple[str, ...]:
    """Size, place and date, in as many lines as the paper is narrow."""
    trunk, height = size_words(snapshot.plan, snapshot.speech)
    place = " · ".join(text for text in (snapshot.job.name, snapshot.job.site.name) if text)
    about = tr(
        "{name}, diameter {trunk}, height {height}", name=tr(snapshot.result.case.wood.name), trunk=trunk, height=height
    )
    return (about, f"{place} · {printed}") if paper.inner > NARROW_PX else (about, place, printed)


def paint_paragraph(
    painter: QPainter, box: QRectF, text: str, size: float, *, strong: bool = False, colour: str = LIGHT.ink
) -> float:
    """Paint wrapped text; returns its height."""
    text = unbroken(text)
    painter.setFont(font(size, strong=strong))
    painter.setPen(pen(colour))
    needed = painter.boundingRect(QRectF(box.left(), box.top(), box.width(), 2000), WRAP, text)
    painter.drawText(needed, WRAP, text)
    return needed.height()


def foot_lines(speech: Speech, practice: str) -> tuple[str, ...]:
    """The cautions, and by what it was reckoned."""
    return (*speech.cautions(), stamp_words(practice))


def cautions_height(paper: Paper, lines: tuple[str, ...]) -> float:
    """Height of the foot's lines, their rule included."""
    metrics = QFontMetricsF(font(12))
    room = QRectF(0, 0, paper.inner - 12, 900)
    return sum(metrics.boundingRect(room, int(WRAP), text).height() for text in lines) + 14


def paint_cautions(painter: QPainter, paper: Paper, top: float, lines: tuple[str, ...]) -> None:
    """What every plan and card carries, at the foot of the page."""
    painter.setPen(pen(LIGHT.ink, RULE_PX))
    painter.drawLine(QPointF(paper.margin_px, top), QPointF(paper.width - paper.margin_px, top))
    y = top + 6
    for text in lines:
        y += paint_paragraph(painter, QRectF(paper.margin_px, y, paper.inner - 12, 40), text, 12)
