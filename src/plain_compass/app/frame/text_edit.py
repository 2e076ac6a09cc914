"""A line of a person's own words: the one kind of text entry for a field of the document."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QLineEdit, QWidget

from ...job.fields import label_of
from ..drawing.palette import font
from .store import Snapshot, Store


class TextEdit(QLineEdit):
    """Shows one text of the document; Enter or leaving it sets it, Escape restores it."""

    def __init__(self, store: Store, path: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.path = store, path
        self._shown = ""
        self.setFont(font(14))
        self.setObjectName(path)
        self.setAccessibleName(label_of(path))
        self.returnPressed.connect(self.commit)
        self.editingFinished.connect(self.commit)

    def refresh(self, snapshot: Snapshot) -> None:
        """Show the document's text."""
        name = snapshot.speech.say(label_of(self.path))
        if name != self.accessibleName():
            self.setAccessibleName(name)
        text = snapshot.value(self.path)
        if text != self._shown:
            self._shown = text
            self.setText(text)

    def commit(self) -> bool:
        """Take in what was typed; what cannot be kept stays, with a sentence."""
        if self.text() == self._shown:
            return True
        text = self.text().strip()
        if not self.store.set(self.path, text, f"{self.accessibleName()} {text or 'not said'}"):
            return False
        self._shown = ""
        self.refresh(self.store.snapshot)
        return True

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Escape restores; a Return is the field's own."""
        if event.key() == Qt.Key.Key_Escape:
            self.setText(self._shown)
            return
        super().keyPressEvent(event)
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            event.accept()
