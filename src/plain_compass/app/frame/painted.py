"""A drawing without fields or grips: paper, and what is painted on it."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from ...core.base.levels import Group
from ..drawing.palette import LIGHT, Palette, fill, pen
from .page import Picture


def paint_focus(painter: QPainter, view: QWidget, palette: Palette) -> None:
    """A rim round a drawing that has the keyboard."""
    if view.hasFocus():
        painter.setPen(pen(palette.focus, 2.0))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(view.rect().adjusted(1, 1, -2, -2))


class PaintedView(QWidget):
    """Base of such drawings. Subclasses give ``draw``."""

    tells_of: tuple[Group, ...] = ()
    """Limit states it is about: its sentence for those who do not see it is made from them."""

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
            paint_focus(painter, self, self.palette_in_use)

    def picture(self) -> Picture:
        """For copying."""
        return Picture(self.size(), self.paint)
