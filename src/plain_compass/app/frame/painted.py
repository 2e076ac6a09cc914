"""A drawing without fields or grips: paper, and what is painted on it."""

from __future__ import annotations

from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from ..drawing.palette import LIGHT, Palette, fill
from .page import Picture


class PaintedView(QWidget):
    """Base of such drawings. Subclasses give ``draw``."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.palette_in_use: Palette = LIGHT

    def draw(self, painter: QPainter) -> None:
        """The drawing itself."""
        raise NotImplementedError

    def paint(self, painter: QPainter) -> None:
        """The drawing, on the screen or for copying."""
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        self.draw(painter)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Paper, then the drawing."""
        with QPainter(self) as painter:
            painter.fillRect(self.rect(), fill(self.palette_in_use.sheet))
            self.paint(painter)

    def picture(self) -> Picture:
        """For copying."""
        return Picture(self.size(), self.paint)
