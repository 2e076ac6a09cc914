"""The findings as a list: groups, each finding with its ways out, duties with their ticks, the rest folded."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache
from typing import Any

from PySide6.QtCore import (
    QAbstractListModel,
    QEvent,
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
from PySide6.QtGui import QCursor, QFocusEvent, QFontMetrics, QKeyEvent, QMouseEvent, QPainter
from PySide6.QtWidgets import QListView, QStyle, QStyledItemDelegate, QStyleOptionViewItem, QWidget

from ...core.advice.mend import Mend, Mends
from ...core.base.levels import FindingKind
from ...core.judge.findings import Finding
from ...job.language import tr
from ...job.words import Speech
from ..drawing.marks import paint_level, paint_tick
from ..drawing.palette import LIGHT, Palette, fill, font, pen
from ..drawing.text import unbroken
from .finding_rows import Row, rows_of

Index = QModelIndex | QPersistentModelIndex
WRAP = int(Qt.TextFlag.TextWordWrap)
LEFT, INDENT, GAP = 30, 44, 6
"""Room for the sign of the level, for what stands under a finding, and between two rows."""
WHILE_DRAGGING_MS = 80
"""The list is laid out anew so often in a drag: rows that jump at every frame cannot be read."""
PICKABLE = ("finding", "mend", "duty", "fold")


class FindingsModel(QAbstractListModel):
    """The rows; the display text is the whole row, so that a screen reader tells it all."""

    def __init__(self) -> None:
        super().__init__()
        self.rows: list[Row] = []
        self.findings: tuple[Finding, ...] = ()

    def replace(self, findings: tuple[Finding, ...], rows: list[Row]) -> list[int]:
        """Replace what is shown; returns the rows that read differently now."""
        before = self.rows
        is_longer_or_shorter = len(rows) != len(before)
        if is_longer_or_shorter:
            self.beginResetModel()
        self.findings, self.rows = findings, rows
        if is_longer_or_shorter:
            self.endResetModel()
            return []
        return [at for at, (old, new) in enumerate(zip(before, rows, strict=True)) if old.told != new.told]

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        """One a row."""
        return 0 if parent.isValid() else len(self.rows)

    def data(self, index: Index, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        """Text of a row."""
        if role in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.AccessibleTextRole):
            return self.rows[index.row()].told
        return None

    def flags(self, index: Index) -> Qt.ItemFlag:
        """Headings and notes are read, not picked."""
        if index.isValid() and self.rows[index.row()].kind not in PICKABLE:
            return Qt.ItemFlag.ItemIsEnabled
        return super().flags(index)


@lru_cache(maxsize=1024)
def wrapped_height(text: str, width: int, size: int, strong: bool) -> int:
    """Height of a paragraph; remembered, since most stay the same from one mouse move to the next."""
    metrics = QFontMetrics(font(size, strong=strong, narrow=size < 13))
    return metrics.boundingRect(QRect(0, 0, width, 1000), WRAP, text).height()


class FindingDelegate(QStyledItemDelegate):
    """Paints one row."""

    def __init__(self, model: FindingsModel) -> None:
        super().__init__()
        self.model = model
        self.palette_in_use: Palette = LIGHT

    def sizeHint(self, option: QStyleOptionViewItem, index: Index) -> QSize:
        """As high as its wrapped paragraphs."""
        width = option.widget.viewport().width() if isinstance(option.widget, QListView) else 280
        return QSize(width, self.height(index.row(), width))

    def height(self, row: int, width: int) -> int:
        """Height of a row in a list of a width."""
        return self._lay_out(None, QRect(0, 0, width, 0), self.model.rows[row])

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        """Its sign, then its paragraphs."""
        row, rect = self.model.rows[index.row()], option.rect
        palette = self.palette_in_use
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if option.state & QStyle.StateFlag.State_Selected and row.kind in PICKABLE:
            painter.fillRect(rect, fill(palette.paper))
            painter.fillRect(QRect(rect.left(), rect.top(), 4, rect.height()), fill(palette.focus))
        elif option.state & QStyle.StateFlag.State_MouseOver and row.kind in ("mend", "duty", "fold"):
            painter.fillRect(rect, fill(palette.paper))
        self._sign(painter, rect, row)
        self._lay_out(painter, rect, row)
        if row.kind in ("finding", "duty"):
            painter.setPen(pen(palette.line))
            painter.drawLine(rect.topLeft() + QRect(8, 0, 1, 1).topLeft(), rect.topRight())
        painter.restore()

    def _sign(self, painter: QPainter, rect: QRect, row: Row) -> None:
        at = QPointF(rect.left() + 17, rect.top() + 17)
        if row.kind == "finding" and row.finding is not None:
            paint_level(painter, at, 7, row.finding.level, self.palette_in_use)
        elif row.kind == "duty" and row.finding is not None:
            paint_tick(painter, at, 7, self.palette_in_use, is_done=row.finding.done is not None)
        elif row.kind == "mend":
            painter.setPen(pen(self.palette_in_use.lay, 2.0))
            painter.drawLine(QPointF(rect.left() + 34, rect.top() + 3), QPointF(rect.left() + 34, rect.bottom() - 3))

    def _lay_out(self, painter: QPainter | None, rect: QRect, row: Row) -> int:
        """Paint (or only measure) the paragraphs; returns the height."""
        left = {"heading": 10, "fold": 10, "mend": INDENT, "note": INDENT - 10}.get(row.kind, LEFT)
        gap = {"mend": 3, "note": 2}.get(row.kind, GAP)
        width, y = rect.width() - left - 8, rect.top() + gap
        for number, (text, size, strong) in enumerate(row.paragraphs):
            text = unbroken(text)
            height = wrapped_height(text, width, size, strong)
            if painter is not None:
                palette = self.palette_in_use
                ink = palette.quiet if number or row.kind in ("note", "heading", "fold") else palette.ink
                painter.setFont(font(size, strong=strong, narrow=size < 13))
                painter.setPen(pen(palette.lay if row.kind == "mend" and not number else ink))
                painter.drawText(QRectF(rect.left() + left, y, width, height), WRAP, text)
            y += height + 1
        return y + gap - rect.top()


class FindingsList(QListView):
    """The list itself.

    Signals:
        picked: a finding whose row was picked by mouse or keys.
        opened_at: a finding that was clicked, or on which Enter was pressed: to go where it is put right.
        ticked: a duty whose tick was pressed.
        pointed: the mend that is pointed at or has the keyboard; None when that ends.
        taken: a mend that is to be taken over.
    """

    picked = Signal(object)
    opened_at = Signal(object)
    ticked = Signal(object)
    pointed = Signal(object)
    taken = Signal(object)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.findings_model = FindingsModel()
        self.delegate = FindingDelegate(self.findings_model)
        self.opened: set[str] = set()
        self._heights: list[int] = []
        self._shown: tuple[tuple[Finding, ...], Mapping[str, Mends] | None, Speech] = ((), None, Speech())
        self._pointed: Mend | None = None
        self._settle = QTimer(self)
        self._settle.setSingleShot(True)
        self._settle.setInterval(WHILE_DRAGGING_MS)
        self._settle.timeout.connect(self._lay_out_anew)
        self.setModel(self.findings_model)
        self.setItemDelegate(self.delegate)
        self.setAccessibleName(tr("Findings, worst first"))
        self.setMouseTracking(True)
        self.viewport().setAttribute(Qt.WidgetAttribute.WA_Hover)
        self.setVerticalScrollMode(QListView.ScrollMode.ScrollPerPixel)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setResizeMode(QListView.ResizeMode.Adjust)
        self.selectionModel().currentChanged.connect(self._current_changed)

    def show_findings(
        self,
        findings: tuple[Finding, ...],
        speech: Speech,
        mends: Mapping[str, Mends] | None = None,
        *,
        dragging: bool = False,
    ) -> None:
        """Show these findings; during a drag a dozen times a second, since nobody reads sentences faster."""
        self._shown = (findings, mends, speech)
        if not dragging:
            self._settle.stop()
            self._lay_out_anew()
        elif not self._settle.isActive():
            self._settle.start()

    def _lay_out_anew(self) -> None:
        findings, mends, speech = self._shown
        model, current = self.findings_model, self._row_at(self.currentIndex())
        changed = model.replace(findings, rows_of(findings, mends, self.opened, speech))
        width = self.viewport().width()
        heights = [self.delegate.height(row, width) for row in range(len(model.rows))]
        if heights != self._heights:
            self._heights = heights
            self.scheduleDelayedItemsLayout()
        for row in changed:
            model.dataChanged.emit(model.index(row), model.index(row))
        if current is not None and current.finding is not None and not self.currentIndex().isValid():
            self._stay_at(current)

    def _stay_at(self, before: Row) -> None:
        """Keep the keyboard where it was, after rows have come or gone."""
        assert before.finding is not None
        at = self.row_of(before.kind, before.finding.id)
        if at >= 0:
            self.selectionModel().blockSignals(True)
            self.setCurrentIndex(self.findings_model.index(at))
            self.selectionModel().blockSignals(False)

    def show_picked(self, finding: Finding) -> None:
        """Select the row of a finding, out of its fold where it lies in one."""
        kind = "duty" if finding.kind == FindingKind.DUTY else "finding"
        if self.row_of(kind, finding.id) < 0:
            self.opened |= {"clear", "fact"}
            self._lay_out_anew()
        at = self.row_of(kind, finding.id)
        if at >= 0:
            index = self.findings_model.index(at)
            self.setCurrentIndex(index)
            self.scrollTo(index)

    def row_of(self, kind: str, id: str) -> int:
        """Place of the first row of a kind about a finding; -1 where there is none."""
        rows = enumerate(self.findings_model.rows)
        return next((at for at, row in rows if row.kind == kind and row.finding and row.finding.id == id), -1)

    @property
    def current_finding(self) -> Finding | None:
        """The finding the keyboard is at; none where it is at none."""
        row = self._row_at(self.currentIndex())
        return row.finding if row is not None else None

    def _row_at(self, index: Index) -> Row | None:
        return self.findings_model.rows[index.row()] if index.isValid() else None

    def _current_changed(self, index: QModelIndex) -> None:
        row = self._row_at(index)
        self._point_at(row.mend if row is not None else None)
        if row is not None and row.kind in ("finding", "duty"):
            self.picked.emit(row.finding)

    def _point_at(self, mend: Mend | None) -> None:
        if mend is not self._pointed:
            self._pointed = mend
            self.pointed.emit(mend)

    # Mouse and keys ------------------------------------------------------------------------------------

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """What is pointed at is shown on the drawings."""
        row = self._row_at(self.indexAt(event.position().toPoint()))
        self._point_at(row.mend if row is not None else None)
        super().mouseMoveEvent(event)

    def leaveEvent(self, event: QEvent) -> None:
        """Pointed at no longer: what has the keyboard counts again."""
        if self.viewport().rect().contains(self.viewport().mapFromGlobal(QCursor.pos())):
            super().leaveEvent(event)
            return
        row = self._row_at(self.currentIndex()) if self.hasFocus() else None
        self._point_at(row.mend if row is not None else None)
        super().leaveEvent(event)

    def focusOutEvent(self, event: QFocusEvent) -> None:
        """A mend is shown only while one is at it."""
        self._point_at(None)
        super().focusOutEvent(event)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        """A click takes a mend over, ticks a duty, opens a fold."""
        super().mouseReleaseEvent(event)
        row = self._row_at(self.indexAt(event.position().toPoint()))
        if event.button() == Qt.MouseButton.LeftButton and row is not None:
            self._use(row)

    def _use(self, row: Row) -> None:
        if row.kind == "fold":
            self.opened ^= {row.key}
            self._lay_out_anew()
        elif row.kind == "finding":
            self.opened_at.emit(row.finding)
        elif row.kind == "duty":
            self.ticked.emit(row.finding)
        elif row.kind == "mend":
            self._pointed = None
            self.taken.emit(row.mend)

    def event(self, event: QEvent) -> bool:
        """A number is the list's own where it takes over a mend; elsewhere it opens a step."""
        if event.type() == QEvent.Type.ShortcutOverride and isinstance(event, QKeyEvent) and self._mend_by(event):
            event.accept()
            return True
        return super().event(event)

    def _mend_by(self, event: QKeyEvent) -> Row | None:
        """The mend that a key takes over of the finding the keyboard is at."""
        row, number = self._row_at(self.currentIndex()), event.key() - Qt.Key.Key_0
        if row is None or row.finding is None or not 1 <= number <= 3 or event.modifiers():
            return None
        mine = [each for each in self.findings_model.rows if each.kind == "mend" and each.finding is row.finding]
        return mine[number - 1] if number <= len(mine) else None

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Enter or space as a click does; 1 to 3 take over a mend of the finding the keyboard is at."""
        row = self._row_at(self.currentIndex())
        if row is not None and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self._use(row)
            return
        if mend := self._mend_by(event):
            self._use(mend)
            return
        super().keyPressEvent(event)
