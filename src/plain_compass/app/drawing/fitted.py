"""Words of one line painted into a box: whole where any type that can be read lets them, cut short where none does."""

from __future__ import annotations

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QFontMetricsF, QPainter

from .palette import font

LEAST_PX = 10
"""Smaller words cannot be read."""


def paint_fitted(painter: QPainter, box: QRectF, align: Qt.AlignmentFlag, text: str) -> None:
    """Paint a line in the painter's own type, or narrower and smaller where the box is too narrow for it."""
    own = painter.font()
    strong = own.weight() > own.Weight.Medium
    tried = [own, *(font(size, strong=strong, narrow=True) for size in range(own.pixelSize(), LEAST_PX - 1, -1))]
    fits = (each for each in tried if QFontMetricsF(each).horizontalAdvance(text) <= box.width())
    painter.setFont(next(fits, tried[-1]))
    painter.drawText(box, align, painter.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, int(box.width())))
    painter.setFont(own)
