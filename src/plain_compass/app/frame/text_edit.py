"""Lines of a person's own words: one for a field of the document, and what any such line does."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QLineEdit, QWidget

from ...job.fields import label_of
from ...job.language import tr
from ..drawing.palette import font
from .store import Snapshot, Store


class LineEdit(QLineEdit):
    """Shows what is kept; Enter or leaving it takes in what was typed, Escape restores it. Subclasses give ``take``."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._shown: str | None = ""
        self.setFont(font(14))
        self.editingFinished.connect(self.commit)

    def show_kept(self, words: str, *, anew: bool = False) -> None:
        """Show what is kept; what is being typed, or could not be taken in, stays unless this is another thing's."""
        if anew or words != self._shown:
            self._shown = words
            self.setText(words)
            # What is longer than its place shows its beginning.
            self.setCursorPosition(0)

    def take(self, text: str) -> bool:
        """Take it in and show it again; False, with a sentence, where that cannot be done."""
        raise NotImplementedError

    def commit(self) -> bool:
        """Take in what was typed; what cannot be kept stays, with a sentence."""
        if self.text() == self._shown:
            return True
        before, self._shown = self._shown, None
        if not self.take(self.text().strip()):
            self._shown = before
            return False
        return True

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Escape restores; a Return is the field's own."""
        if event.key() == Qt.Key.Key_Escape:
            self.setText(self._shown or "")
            return
        super().keyPressEvent(event)
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            event.accept()


class TextEdit(LineEdit):
    """One text of the document."""

    def __init__(self, store: Store, path: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.path = store, path
        self.setObjectName(path)
        self.setAccessibleName(label_of(path))

    def refresh(self, snapshot: Snapshot) -> None:
        """Show the document's text."""
        name = snapshot.speech.say(label_of(self.path))
        if name != self.accessibleName():
            self.setAccessibleName(name)
        self.show_kept(snapshot.value(self.path))

    def take(self, text: str) -> bool:
        """Into the document."""
        if not self.store.set(self.path, text, f"{self.accessibleName()} {text or tr('not said')}"):
            return False
        self.refresh(self.store.snapshot)
        return True
