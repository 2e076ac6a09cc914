"""Words that stay whole where they have little room: narrower, then smaller, cut short only where nothing fits."""

from __future__ import annotations

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QFont, QFontMetricsF, QPainter

from .palette import font

LEAST_PX = 10
"""Smaller words cannot be read."""


def widest(of: QFont, text: str) -> float:
    """Width of the longest line of a text in a type."""
    measured = QFontMetricsF(of)
    return max(measured.horizontalAdvance(line) for line in text.split("\n"))


def smallest(own: QFont) -> QFont:
    """The least room a text can be written in."""
    return font(LEAST_PX, strong=own.weight() > QFont.Weight.Medium, narrow=True)


def fitting(own: QFont, text: str, room_px: float) -> QFont:
    """Its own type where the text has room in it, else the largest narrow one in which it has, else the smallest."""
    strong = own.weight() > QFont.Weight.Medium
    tried = (own, *(font(size, strong=strong, narrow=True) for size in range(own.pixelSize(), LEAST_PX, -1)))
    return next((each for each in tried if widest(each, text) <= room_px), smallest(own))


def paint_fitted(painter: QPainter, box: QRectF, align: Qt.AlignmentFlag, text: str) -> None:
    """Paint a line in the painter's own type, or in the one that fits the box."""
    own = painter.font()
    painter.setFont(fitting(own, text, box.width()))
    painter.drawText(box, align, painter.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, int(box.width())))
    painter.setFont(own)
