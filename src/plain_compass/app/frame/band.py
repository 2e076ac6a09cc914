"""The margin band: one short ruler per limit state, a notch at the limit and a peg at the value."""

from __future__ import annotations

from PySide6.QtCore import QLineF, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from ...core.base.levels import GROUPS, Level
from ...core.judge.findings import Finding
from ...job.words import Speech
from ..drawing.marks import paint_level
from ..drawing.palette import LIGHT, Palette, fill, font, level_colour, pen

Align = Qt.AlignmentFlag
GROUND = ("way_out", "landing")
FULL = 1.5
"""Use at the right end of a ruler; the limit stands at two thirds."""


def worst_of(findings: tuple[Finding, ...], group: str) -> Finding | None:
    """The finding that rules a limit state, from findings that stand worst first.

    What is not judged stands for its limit state only where nothing else was: an open question about the wind must not
    hide the peg of the balance.
    """
    mine = [f for f in findings if f.group == group]
    judged = next((f for f in mine if f.is_judged), None)
    open_ones = [f for f in mine if not f.is_judged]
    if open_ones and (judged is None or (judged.level == Level.CLEAR and group in GROUND)):
        # What the fall alone says of a landing on ground that nobody has drawn is not that it is clear.
        return open_ones[0]
    return judged


def paint_strip(
    painter: QPainter,
    box: QRectF,
    strip: tuple[str, Finding | None],
    speech: Speech,
    palette: Palette,
    size: float = 1.0,
) -> None:
    """One ruler: name and level above, notch and peg below. Used in the window and on the card."""
    group, finding = strip
    level = finding.level if finding else Level.UNKNOWN
    paint_level(painter, box.topLeft() + QPointF(9 * size, 11 * size), 6 * size, level, palette)
    painter.setPen(pen(palette.ink))
    painter.setFont(font((13 if box.width() > 125 else 12) * size, strong=True, narrow=True))
    head = QRectF(box.left() + 20 * size, box.top(), box.width() - 22 * size, 22 * size)
    painter.drawText(head, Align.AlignLeft | Align.AlignVCenter, speech.named("groups", group))
    painter.setPen(pen(level_colour(palette, level)))
    painter.setFont(font((12 if box.width() > 125 else 11) * size, narrow=True))
    if box.width() > 125 or not _word(finding).startswith("not"):
        painter.drawText(head, Align.AlignRight | Align.AlignVCenter, _word(finding))
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
    if finding is not None and finding.use is not None:
        at = left + (right - left) * min(max(finding.use, 0.0), FULL) / FULL
        _peg(painter, at, base, level_colour(palette, level), size)


def _steps(start: float, end: float, by: float) -> list[float]:
    return [start + by * number for number in range(int((end - start) / by))]


def _looks(finding: Finding | None) -> tuple[object, ...]:
    """What a strip shows of a finding."""
    return (finding.id, finding.level, finding.margin) if finding else ()


def _word(finding: Finding | None) -> str:
    if finding is None or not finding.is_judged:
        return "not judged"
    if finding.id.startswith("fall.reckoning"):
        return "reckoning"
    return finding.level


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
        self._findings: tuple[Finding, ...] = ()
        self._speech = Speech()
        self.setAccessibleName("Margins")
        self.setFixedHeight(62)
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)

    def sizeHint(self) -> QSize:
        """As wide as it gets."""
        return QSize(1000, 62)

    def show_findings(self, findings: tuple[Finding, ...], speech: Speech) -> None:
        """Show these findings."""
        before, self._findings = self._findings, findings
        is_same_speech, self._speech = speech == self._speech, speech
        told = [f"{speech.named('groups', g)}: {_word(worst_of(findings, g))}" for g in GROUPS]
        if (description := "; ".join(told)) != self.accessibleDescription():
            self.setAccessibleDescription(description)
        for index, group in enumerate(GROUPS):
            # Only strips that look different are painted again: this runs on every mouse move of a drag.
            if not is_same_speech or _looks(worst_of(before, group)) != _looks(worst_of(findings, group)):
                self.update(self.strip(index).toAlignedRect().adjusted(-5, -6, 5, 6))

    def strip(self, index: int) -> QRectF:
        """Where a strip lies."""
        width = (self.width() - 16) / len(GROUPS)
        return QRectF(8 + index * width + 5, 6, width - 10, self.height() - 8)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Every strip in turn."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), fill(self.palette_in_use.paper))
        for index, group in enumerate(GROUPS):
            if event.region().intersects(self.strip(index).toAlignedRect()):
                finding = worst_of(self._findings, group)
                paint_strip(painter, self.strip(index), (group, finding), self._speech, self.palette_in_use)
        painter.end()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Pick the finding under the pointer."""
        for index, group in enumerate(GROUPS):
            if self.strip(index).contains(event.position()):
                finding = worst_of(self._findings, group)
                if finding is not None:
                    self.picked.emit(finding)
