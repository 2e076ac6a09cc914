"""The margin band: one short ruler per limit state, a notch at the limit and a peg at the value."""

from __future__ import annotations

from typing import NamedTuple

from PySide6.QtCore import QLineF, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from ...core.assess import RECKONING
from ...core.base.levels import GROUPS, FindingKind, Level
from ...core.judge.findings import Finding
from ...job.language import tr
from ...job.words import Speech
from ...job.words.catalogue import level_word
from ..drawing.marks import paint_level
from ..drawing.palette import LIGHT, Palette, fill, font, level_colour, pen

Align = Qt.AlignmentFlag
FULL = 1.5
"""Use at the right end of a ruler; the limit stands at two thirds."""
NINE_IN_TEN = 1.645
"""Spreads either side of a value within which nine in ten lie."""


class Strip(NamedTuple):
    """What is shown of one limit state.

    Attributes:
        group: which.
        ruling: the finding that stands worst; None where nothing was said of it.
        peg: the limit that stands worst; an open question does not hide how near it is.
        level: of the finding that stands worst; nothing said of it is unknown.
        word: its level, or that it is reckoned just now, or that something is still to be done.
    """

    group: str
    ruling: Finding | None
    peg: Finding | None
    level: Level
    word: str

    @property
    def looks(self) -> tuple[object, ...]:
        """What tells one from another by sight."""
        peg = self.peg
        return self.level, self.word, (peg.id, peg.margin, peg.spread, peg.level) if peg else ()


def strip_of(findings: tuple[Finding, ...], group: str) -> Strip:
    """The strip of a limit state, from findings that stand worst first."""
    mine = [f for f in findings if f.group == group]
    judged = [f for f in mine if f.kind in (FindingKind.LIMIT, FindingKind.UNKNOWN)]
    ruling = judged[0] if judged else next(iter(mine), None)
    peg = next((f for f in judged if f.kind == FindingKind.LIMIT and f.margin is not None), None)
    level = Level.UNKNOWN if ruling is None else ruling.level
    word = tr("not judged") if ruling is None else level_word(level)
    if any(f.is_pending or f.id.startswith(RECKONING) for f in judged[:1]):
        word = tr("reckoning")
    elif level == Level.CLEAR and any(f.is_open for f in mine):
        word = tr("to do")
    return Strip(group, ruling, peg, level, word)


def paint_strip(
    painter: QPainter, box: QRectF, strip: Strip, speech: Speech, palette: Palette, size: float = 1.0
) -> None:
    """One ruler: name and level above, notch, peg and its spread below. Used in the window and on the card."""
    level = strip.level
    paint_level(painter, box.topLeft() + QPointF(9 * size, 11 * size), 6 * size, level, palette)
    painter.setPen(pen(palette.ink))
    painter.setFont(font((13 if box.width() > 125 else 12) * size, strong=True, narrow=True))
    head = QRectF(box.left() + 18 * size, box.top(), box.width() - 17 * size, 22 * size)
    name = speech.named("groups", strip.group)
    painter.drawText(head, Align.AlignLeft | Align.AlignVCenter, name)
    named_px = painter.fontMetrics().horizontalAdvance(name)
    painter.setPen(pen(level_colour(palette, level)))
    painter.setFont(font((12 if box.width() > 125 else 11) * size, narrow=True))
    # Where the word has no room beside a long name its sign says the same.
    fits = named_px + painter.fontMetrics().horizontalAdvance(strip.word) + 4 * size <= head.width()
    if fits and (box.width() > 125 or not strip.word.startswith("not")):
        painter.drawText(head, Align.AlignRight | Align.AlignVCenter, strip.word)
    left, right = box.left() + 4 * size, box.right() - 4 * size
    base = box.top() + 40 * size
    notch = left + (right - left) / FULL
    painter.setPen(pen(palette.quiet, 1.2 * size))
    painter.drawLine(QPointF(left, base), QPointF(right, base))
    for tick in range(1, 6):
        x = left + (right - left) * tick / 6
        painter.drawLine(QPointF(x, base), QPointF(x, base + 3 * size))
    painter.setPen(pen(palette.ink, 2.2 * size))
    painter.drawLine(QPointF(notch, base - 9 * size), QPointF(notch, base + 6 * size))
    painter.setPen(pen(palette.load, 0.9 * size))
    painter.drawLines([QLineF(x, base + 6 * size, x + 5 * size, base + size) for x in _steps(notch, right, 5 * size)])
    peg = strip.peg
    if peg is not None and peg.use is not None:
        if peg.spread:
            wide = NINE_IN_TEN * peg.spread
            ends = [left + (right - left) * min(max(peg.use + by, 0.0), FULL) / FULL for by in (-wide, wide)]
            painter.setPen(pen(level_colour(palette, peg.level), 3.0 * size))
            painter.drawLine(QPointF(ends[0], base - 1.5 * size), QPointF(ends[1], base - 1.5 * size))
        at = left + (right - left) * min(max(peg.use, 0.0), FULL) / FULL
        _peg(painter, at, base, level_colour(palette, peg.level), size)


def _steps(start: float, end: float, by: float) -> list[float]:
    return [start + by * number for number in range(int((end - start) / by))]


def _peg(painter: QPainter, x: float, base: float, colour: str, size: float) -> None:
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(fill(colour))
    half = 4.5 * size
    painter.drawPolygon(
        [
            QPointF(x - half, base - 15 * size),
            QPointF(x + half, base - 15 * size),
            QPointF(x + half, base - 7 * size),
            QPointF(x, base - 1 * size),
            QPointF(x - half, base - 7 * size),
        ]
    )


class MarginBand(QWidget):
    """The band along the bottom of the window. A click picks the finding that rules a strip."""

    picked = Signal(object)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.palette_in_use: Palette = LIGHT
        self._strips = [strip_of((), group) for group in GROUPS]
        self._speech = Speech()
        self.setAccessibleName(tr("Margins"))
        self.setFixedHeight(62)
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)

    def sizeHint(self) -> QSize:
        """As wide as it gets."""
        return QSize(1000, 62)

    def show_findings(self, findings: tuple[Finding, ...], speech: Speech) -> None:
        """Show these findings."""
        is_same_speech, self._speech = speech == self._speech, speech
        self._strips, before = [strip_of(findings, group) for group in GROUPS], self._strips
        told = [f"{speech.named('groups', each.group)}: {each.word}" for each in self._strips]
        if (description := "; ".join(told)) != self.accessibleDescription():
            self.setAccessibleDescription(description)
        for index, (old, new) in enumerate(zip(before, self._strips, strict=True)):
            # Only strips that look different are painted again: this runs on every mouse move of a drag.
            if not is_same_speech or old.looks != new.looks:
                self.update(self.strip(index).toAlignedRect().adjusted(-5, -6, 5, 6))

    def strip(self, index: int) -> QRectF:
        """Where a strip lies."""
        width = (self.width() - 16) / len(GROUPS)
        return QRectF(8 + index * width + 5, 6, width - 10, self.height() - 8)

    def group_at(self, at: QPointF) -> str:
        """The limit state whose strip is at a place; nothing beside them."""
        strip = self._at(at)
        return "" if strip is None else strip.group

    def _at(self, at: QPointF) -> Strip | None:
        return next((each for index, each in enumerate(self._strips) if self.strip(index).contains(at)), None)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Every strip in turn."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), fill(self.palette_in_use.paper))
        for index, strip in enumerate(self._strips):
            if event.region().intersects(self.strip(index).toAlignedRect()):
                paint_strip(painter, self.strip(index), strip, self._speech, self.palette_in_use)
        painter.end()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Pick the finding under the pointer."""
        strip = self._at(event.position())
        if strip is not None and strip.ruling is not None:
            self.picked.emit(strip.ruling)
