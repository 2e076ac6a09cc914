"""Signs of measurement: spread brackets, raw readings, and the centre of mass with its ellipse."""

from __future__ import annotations

from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QPainter

from ..palette import Palette, fill, pen

LEAST_PX = 3.0
"""Half length under which a bracket is drawn as a tick: shorter ones would be a smudge."""


def paint_bracket(
    painter: QPainter, at: QPointF, along: QPointF, half_px: float, palette: Palette, *, worst: bool = False
) -> None:
    """A line of one spread either way with square ends, along a unit direction; bolder where it hurts most."""
    if half_px <= 0:
        return  # what was not measured has no spread to show
    half = max(half_px, LEAST_PX)
    painter.setPen(pen(palette.load if worst else palette.wedge, 2.6 if worst else 1.5))
    foot = QPointF(-along.y(), along.x()) * (6 if worst else 4)
    start, end = at - along * half, at + along * half
    painter.drawLine(start, end)
    for tip in (start, end):
        painter.drawLine(tip - foot, tip + foot)


def paint_reading(painter: QPainter, at: QPointF, palette: Palette, *, left_out: bool) -> None:
    """One raw reading: a small diamond, hollow and crossed out where it stands off the others."""
    size = 4.0
    painter.setPen(pen(palette.wedge, 1.4))
    painter.setBrush(Qt.BrushStyle.NoBrush if left_out else fill(palette.wedge))
    corners = [at + QPointF(0, -size), at + QPointF(size, 0), at + QPointF(0, size), at + QPointF(-size, 0)]
    painter.drawPolygon(corners)
    if left_out:
        painter.drawLine(at + QPointF(-size - 2, size + 2), at + QPointF(size + 2, -size - 2))


def paint_centre(
    painter: QPainter,
    at: QPointF,
    ellipse: tuple[tuple[float, float], float],
    palette: Palette,
    *,
    hot: bool,
    size: float = 5.0,
) -> None:
    """The centre of mass: a crossed ring, and its ellipse of one and of two spreads.

    Args:
        ellipse: half axes of one spread in pixels, and the angle of the first from the page's right, counter-clockwise.
    """
    half_px, turn_deg = ellipse
    painter.save()
    painter.translate(at)
    painter.rotate(-turn_deg)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    for times, style in ((1.0, Qt.PenStyle.SolidLine), (2.0, Qt.PenStyle.DotLine)):
        painter.setPen(pen(palette.load, 1.3, style))
        painter.drawEllipse(QPointF(0, 0), max(half_px[0] * times, 1.0), max(half_px[1] * times, 1.0))
    painter.restore()
    radius = 7.0 if hot else size
    painter.setPen(pen(palette.load, 2.0 if size > 4 else 1.4))
    painter.setBrush(fill(palette.sheet))
    painter.drawEllipse(at, radius, radius)
    painter.drawLine(at - QPointF(radius, 0), at + QPointF(radius, 0))
    painter.drawLine(at - QPointF(0, radius), at + QPointF(0, radius))
