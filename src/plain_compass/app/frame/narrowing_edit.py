"""The field over a list in which one types what narrows it, while arrows move through the list below."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QLineEdit

from ..drawing.palette import font


class NarrowingEdit(QLineEdit):
    """Keeps the keyboard.

    Signals:
        moved: by how many rows an arrow key goes on.
        entered: Enter takes what is chosen.
    """

    moved = Signal(int)
    entered = Signal()

    def __init__(self, size: int, placeholder: str, name: str, page_rows: int = 0) -> None:
        super().__init__()
        self.setFont(font(size))
        self.setPlaceholderText(placeholder)
        self.setAccessibleName(name)
        self.steps = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}
        if page_rows:
            self.steps |= {Qt.Key.Key_PageDown: page_rows, Qt.Key.Key_PageUp: -page_rows}

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Arrows and Enter are for the list, all else is typed."""
        if Qt.Key(event.key()) in self.steps:
            self.moved.emit(self.steps[Qt.Key(event.key())])
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.entered.emit()
        else:
            super().keyPressEvent(event)
