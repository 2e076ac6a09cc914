"""Labels that show words as they are: a name like ``<img src=x>`` is a name, and not a picture."""

from __future__ import annotations

from html import escape

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel, QWidget


class PlainLabel(QLabel):
    """A label of plain text. Qt's own one guesses, and takes for markup whatever looks like it."""

    def __init__(self, text: str = "", parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setText(text)


def plain_tip(text: str) -> str:
    """Words for a tool tip, which guesses in the same way and cannot be told not to."""
    return f"<p style='white-space:pre-wrap'>{escape(text)}</p>"
