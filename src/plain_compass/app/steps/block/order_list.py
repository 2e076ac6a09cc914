"""The order as a list that can be dragged: number, tree, lay, what it takes; why it stands there below."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QDropEvent, QKeyEvent
from PySide6.QtWidgets import QAbstractItemView, QListWidget, QListWidgetItem, QWidget

from ....job.language import tr
from ...drawing.palette import font


class OrderList(QListWidget):
    """Rows by tree.

    Signals:
        chosen: id of the tree that is picked.
        moved: (id, place it was moved to, counted from 0).
        opened: id of the tree that is to be looked at.
    """

    chosen = Signal(str)
    moved = Signal(str, int)
    opened = Signal(str)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setAccessibleName(tr("The order"))
        self.setAccessibleDescription(tr("Drag a tree, or press Ctrl+Up or Ctrl+Down, to move it; Enter opens it."))
        self.setFont(font(13))
        self.setWordWrap(True)
        self.setDragDropMode(QAbstractItemView.DragDropMode.InternalMove)
        self.setDefaultDropAction(Qt.DropAction.MoveAction)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.currentItemChanged.connect(self._picked)
        self.itemDoubleClicked.connect(lambda item: self.opened.emit(item.data(Qt.ItemDataRole.UserRole)))

    def _picked(self, now: QListWidgetItem | None, _: QListWidgetItem | None) -> None:
        if now is not None:
            self.chosen.emit(now.data(Qt.ItemDataRole.UserRole))

    def show_rows(self, rows: list[tuple[str, str, str]], chosen: str) -> None:
        """(id, words, tooltip) of each, in order."""
        self.blockSignals(True)
        self.clear()
        for id, words, tip in rows:
            item = QListWidgetItem(words)
            item.setData(Qt.ItemDataRole.UserRole, id)
            item.setToolTip(tip)
            self.addItem(item)
            if id == chosen:
                self.setCurrentItem(item)
        self.blockSignals(False)

    def dropEvent(self, event: QDropEvent) -> None:
        """The one that was dragged stands elsewhere: whoever listens plans anew."""
        item = self.currentItem()
        super().dropEvent(event)
        if item is not None:
            self.moved.emit(item.data(Qt.ItemDataRole.UserRole), self.row(item))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Ctrl+Up and Ctrl+Down move, Enter opens."""
        item = self.currentItem()
        step = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1}.get(Qt.Key(event.key()), 0)
        if step and item is not None and event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            to = min(max(self.row(item) + step, 0), self.count() - 1)
            self.moved.emit(item.data(Qt.ItemDataRole.UserRole), to)
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and item is not None:
            self.opened.emit(item.data(Qt.ItemDataRole.UserRole))
        else:
            super().keyPressEvent(event)
