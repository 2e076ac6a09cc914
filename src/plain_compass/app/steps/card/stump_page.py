"""The page to fill in at the stump: what was planned, and a line for how it really was."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter

from ....job.language import tr
from ....job.stump_rows import StumpRow, stump_rows
from ...drawing.fitted import paint_fitted
from ...drawing.palette import LIGHT, font, pen
from ...frame.store import Snapshot
from .drawings import paint_drawings
from .paper import Paper

Align = Qt.AlignmentFlag
PALE = 0.35
"""The stump as planned is there to be drawn over."""
MOST_ROW, GAP = 28.0, 20.0
"""Rows no taller than handwriting needs, and the gap between columns."""
NAMES, PLANNED = 0.44, 0.20
"""Shares of a row: what is asked, and what was planned; the rest is the line to write on."""
Line = StumpRow | str
"""A row, or the heading of a part."""


def paint_stump_page(painter: QPainter, snapshot: Snapshot, paper: Paper, top: float, foot: float) -> None:
    """Paint it between head and cautions: a pale drawing where the paper has room for one, and the rows."""
    painter.setPen(pen(LIGHT.ink))
    painter.setFont(font(14, strong=True))
    title = QRectF(paper.margin_px, top, paper.inner, 20)
    painter.drawText(
        title,
        Align.AlignLeft,
        tr("At the stump, after the fall: as it really was. Leave empty what was not looked at."),
    )
    top += 24
    if paper.beside:
        painter.setOpacity(PALE)
        top = paint_drawings(painter, snapshot, paper, QRectF(0.0, top, 0.0, 0.0))
        painter.setOpacity(1.0)
    _columns(painter, _lines(snapshot), paper, QRectF(paper.margin_px, top + 4, paper.inner, foot - 14 - top))


def _lines(snapshot: Snapshot) -> list[Line]:
    found: list[Line] = []
    for part, rows in stump_rows(snapshot.plan, snapshot.result, snapshot.speech).items():
        found += [part, *rows]
    return found


def _columns(painter: QPainter, lines: list[Line], paper: Paper, box: QRectF) -> None:
    """The rows down as many columns as the paper has, no heading left alone at a foot."""
    per_column = -(-len(lines) // paper.columns)
    if isinstance(lines[per_column - 1], str):
        per_column += 1
    width = (box.width() - GAP * (paper.columns - 1)) / paper.columns
    row = min(box.height() / per_column, MOST_ROW)
    for number, line in enumerate(lines):
        column, place = divmod(number, per_column)
        _row(painter, line, QRectF(box.left() + column * (width + GAP), box.top() + place * row, width, row))


def _row(painter: QPainter, line: Line, box: QRectF) -> None:
    painter.setPen(pen(LIGHT.ink))
    if isinstance(line, str):
        painter.setFont(font(13, strong=True, narrow=True))
        painter.drawText(box, Align.AlignLeft | Align.AlignBottom, line)
        return
    names, planned = NAMES * box.width(), PLANNED * box.width()
    painter.setFont(font(12, narrow=True))
    named = QRectF(box.left(), box.top(), names - 4, box.height())
    paint_fitted(painter, named, Align.AlignLeft | Align.AlignBottom, line.name)
    painter.setPen(pen(LIGHT.quiet))
    said = QRectF(box.left() + names, box.top(), planned, box.height())
    paint_fitted(painter, said, Align.AlignLeft | Align.AlignBottom, line.planned)
    painter.setPen(pen(LIGHT.ink, 0.8))
    painter.drawLine(QPointF(box.left() + names + planned, box.bottom()), box.bottomRight())
