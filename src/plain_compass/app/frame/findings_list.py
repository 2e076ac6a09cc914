"""The findings as a list, worst first: sentence, value against limit, what would change it."""

from __future__ import annotations

from functools import lru_cache
from typing import Any, TypeAlias

from PySide6.QtCore import (
    QAbstractListModel,
    QModelIndex,
    QPersistentModelIndex,
    QPointF,
    QRect,
    QRectF,
    QSize,
    Qt,
    QTimer,
    Signal,
)
from PySide6.QtGui import QFontMetrics, QPainter
from PySide6.QtWidgets import QListView, QStyle, QStyledItemDelegate, QStyleOptionViewItem, QWidget

from ...core.base.levels import Level
from ...core.judge.findings import Finding
from ...job.words import Speech
from ..drawing.marks import paint_level
from ..drawing.palette import LIGHT, Palette, fill, font, pen
from ..drawing.text import unbroken

Index = QModelIndex | QPersistentModelIndex
WRAP = int(Qt.TextFlag.TextWordWrap)
LEFT, GAP = 30, 6
"""Room for the sign of the level, and between two findings."""
Paragraph: TypeAlias = tuple[str, int, bool]
"""Text, size, and whether it is strong."""
WHILE_DRAGGING_MS = 80
"""The list is laid out anew so often in a drag: rows that jump at every frame cannot be read."""


class FindingsModel(QAbstractListModel):
    """The findings; the display text is the whole finding, so that a screen reader tells it all."""

    def __init__(self) -> None:
        super().__init__()
        self.findings: tuple[Finding, ...] = ()
        self.speech = Speech()
        self._texts: list[str] = []
        self.paragraphs: list[list[Paragraph]] = []

    def replace(self, findings: tuple[Finding, ...], speech: Speech) -> list[int]:
        """Replace what is shown; returns the rows that read differently now."""
        before = self._texts
        same = speech is self.speech
        known = {id(each): at for at, each in enumerate(self.findings)} if same else {}
        kept = [known.get(id(each), -1) for each in findings]
        paragraphs = [
            self.paragraphs[at] if at >= 0 else _paragraphs(finding, speech)
            for at, finding in zip(kept, findings, strict=True)
        ]
        texts = [_told(finding, each) for finding, each in zip(findings, paragraphs, strict=True)]
        self.paragraphs = paragraphs
        is_longer_or_shorter = len(texts) != len(before)
        if is_longer_or_shorter:
            self.beginResetModel()
        self.findings, self.speech, self._texts = findings, speech, texts
        if is_longer_or_shorter:
            self.endResetModel()
            return []
        return [row for row, text in enumerate(before) if texts[row] != text]

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        """One row a finding."""
        return 0 if parent.isValid() else len(self.findings)

    def data(self, index: Index, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        """Text of a row."""
        if role in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.AccessibleTextRole):
            return self._texts[index.row()]
        return None


def _told(finding: Finding, paragraphs: list[Paragraph]) -> str:
    """A whole finding as one text, as a screen reader tells it."""
    return f"{finding.level}: {' '.join(text for text, _, _ in paragraphs)}"


def _paragraphs(finding: Finding, speech: Speech) -> list[Paragraph]:
    """What a finding says, paragraph by paragraph."""
    texts = [(speech.phrase(finding.sentence), 14, finding.level == Level.STOP)]
    texts.append((small_print(finding, speech), 12, False))
    if finding.level != Level.CLEAR:
        texts.append((speech.phrase(finding.change), 13, False))
    return [(unbroken(text), size, strong) for text, size, strong in texts if text]


def small_print(finding: Finding, speech: Speech) -> str:
    """Value against limit, where the limit comes from, and whether it is indicative."""
    if finding.level == Level.UNKNOWN:
        return ""
    parts = [speech.compared(finding), speech.named("sources", finding.source)]
    if finding.indicative:
        parts.append("indicative")
    return " · ".join(part for part in parts if part)


@lru_cache(maxsize=1024)
def wrapped_height(text: str, width: int, size: int, strong: bool) -> int:
    """Height of a paragraph; remembered, since most stay the same from one mouse move to the next."""
    metrics = QFontMetrics(font(size, strong=strong, narrow=size < 13))
    return metrics.boundingRect(QRect(0, 0, width, 1000), WRAP, text).height()


class FindingDelegate(QStyledItemDelegate):
    """Paints one finding; the clear ones take less room."""

    def __init__(self, model: FindingsModel) -> None:
        super().__init__()
        self.model = model
        self.palette_in_use: Palette = LIGHT

    def sizeHint(self, option: QStyleOptionViewItem, index: Index) -> QSize:
        """As high as its wrapped paragraphs."""
        width = option.widget.viewport().width() if isinstance(option.widget, QListView) else 280
        return QSize(width, self.height(index.row(), width))

    def height(self, row: int, width: int) -> int:
        """Height of a finding in a list of a width."""
        return self._lay_out(None, QRect(0, 0, width, 0), row)

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        """Sign of the level, then the paragraphs."""
        finding = self.model.findings[index.row()]
        rect = option.rect
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if option.state & QStyle.StateFlag.State_Selected:
            painter.fillRect(rect, fill(self.palette_in_use.paper))
            painter.fillRect(QRect(rect.left(), rect.top(), 4, rect.height()), fill(self.palette_in_use.focus))
        paint_level(painter, QPointF(rect.left() + 17, rect.top() + 17), 7, finding.level, self.palette_in_use)
        self._lay_out(painter, rect, index.row())
        painter.setPen(pen(self.palette_in_use.line))
        painter.drawLine(rect.bottomLeft() + QRect(8, 0, 1, 1).topLeft(), rect.bottomRight())
        painter.restore()

    def _lay_out(self, painter: QPainter | None, rect: QRect, row: int) -> int:
        """Paint (or only measure) the paragraphs; returns the height."""
        width, y = rect.width() - LEFT - 8, rect.top() + GAP
        for number, (text, size, strong) in enumerate(self.model.paragraphs[row]):
            height = wrapped_height(text, width, size, strong)
            if painter is not None:
                painter.setFont(font(size, strong=strong, narrow=size < 13))
                painter.setPen(pen(self.palette_in_use.quiet if number else self.palette_in_use.ink))
                painter.drawText(QRectF(rect.left() + LEFT, y, width, height), WRAP, text)
            y += height + 1
        return y + GAP - rect.top()


class FindingsList(QListView):
    """The list itself; a row picked by mouse or keys is brought out in the drawing."""

    picked = Signal(object)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.findings_model = FindingsModel()
        self.delegate = FindingDelegate(self.findings_model)
        self._heights: list[int] = []
        self._pending: tuple[tuple[Finding, ...], Speech] = ((), Speech())
        self._settle = QTimer(self)
        self._settle.setSingleShot(True)
        self._settle.setInterval(WHILE_DRAGGING_MS)
        self._settle.timeout.connect(self._show_pending)
        self.setModel(self.findings_model)
        self.setItemDelegate(self.delegate)
        self.setAccessibleName("Findings, worst first")
        self.setVerticalScrollMode(QListView.ScrollMode.ScrollPerPixel)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setResizeMode(QListView.ResizeMode.Adjust)
        self.selectionModel().currentChanged.connect(self._current_changed)

    def show_findings(self, findings: tuple[Finding, ...], speech: Speech, *, dragging: bool = False) -> None:
        """Show these findings; during a drag a dozen times a second, since nobody reads sentences faster."""
        self._pending = (findings, speech)
        if not dragging:
            self._settle.stop()
            self._show_pending()
        elif not self._settle.isActive():
            self._settle.start()

    def _show_pending(self) -> None:
        model = self.findings_model
        changed = model.replace(*self._pending)
        width = self.viewport().width()
        heights = [self.delegate.height(row, width) for row in range(len(model.findings))]
        if heights != self._heights:
            self._heights = heights
            self.scheduleDelayedItemsLayout()
        for row in changed:
            model.dataChanged.emit(model.index(row), model.index(row))

    def show_picked(self, finding: Finding) -> None:
        """Select the row of a finding."""
        for row, each in enumerate(self.findings_model.findings):
            if each.id == finding.id:
                index = self.findings_model.index(row)
                self.setCurrentIndex(index)
                self.scrollTo(index)

    def _current_changed(self, index: QModelIndex) -> None:
        if index.isValid():
            self.picked.emit(self.findings_model.findings[index.row()])
