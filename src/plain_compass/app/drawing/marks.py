"""Small drawn signs shared by every view: level glyphs, arrows, dimension lines, break marks."""

from __future__ import annotations

import math
from functools import lru_cache

import numpy as np
from PySide6.QtCore import QLineF, QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPolygonF

from ...core.base.levels import Level
from ...core.base.polygon import Array, intervals
from .palette import Palette, fill, font, level_colour, pen
from .scale import towards


def paint_level(painter: QPainter, centre: QPointF, radius: float, level: Level, palette: Palette) -> None:
    """The sign of a level: disc, half disc, barred ring, open ring. Readable without colour."""
    colour = level_colour(palette, level)
    box = QRectF(centre.x() - radius, centre.y() - radius, 2 * radius, 2 * radius)
    painter.setPen(pen(colour, max(radius / 4, 1.4)))
    painter.setBrush(fill(colour) if level == Level.CLEAR else Qt.BrushStyle.NoBrush)
    painter.drawEllipse(box)
    if level == Level.WATCH:
        painter.setBrush(fill(colour))
        painter.drawPie(box, 90 * 16, 180 * 16)
    elif level == Level.STOP:
        along = radius * math.sqrt(0.5)
        painter.setPen(pen(colour, max(radius / 2.6, 1.8)))
        painter.drawLine(centre + QPointF(-along, along), centre + QPointF(along, -along))


def paint_tick(painter: QPainter, centre: QPointF, radius: float, palette: Palette, *, is_done: bool) -> None:
    """A box to tick, and the tick in it once it is done."""
    colour = palette.lay if is_done else palette.ink
    painter.setPen(pen(colour, 1.6))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawRect(QRectF(centre.x() - radius, centre.y() - radius, 2 * radius, 2 * radius))
    if is_done:
        painter.setPen(pen(colour, 2.4))
        points = ((-0.55, 0.0), (-0.1, 0.5), (0.6, -0.55))
        painter.drawPolyline(QPolygonF([centre + QPointF(x * radius, y * radius) for x, y in points]))


def paint_slip(painter: QPainter, at: QPointF, radius: float, palette: Palette) -> None:
    """A cross with a bar under it: here a mistake is made."""
    painter.setPen(pen(palette.load, 2.2))
    painter.drawLine(at + QPointF(-radius, -radius), at + QPointF(radius, radius))
    painter.drawLine(at + QPointF(-radius, radius), at + QPointF(radius, -radius))
    painter.drawLine(at + QPointF(-radius, radius + 4), at + QPointF(radius, radius + 4))


def paint_arrow(painter: QPainter, start: QPointF, end: QPointF, head: float) -> None:
    """A line with a filled head, in the painter's pen colour."""
    painter.drawLine(start, end)
    turn = math.atan2(end.y() - start.y(), end.x() - start.x())
    wings = [end - QPointF(math.cos(turn + s), math.sin(turn + s)) * head for s in (0.42, -0.42)]
    painter.setBrush(painter.pen().color())
    painter.drawPolygon(QPolygonF([end, *wings]))


def paint_measure(painter: QPainter, start: QPointF, end: QPointF, tick: float = 4.0) -> None:
    """A dimension line with slanted ticks at both ends."""
    painter.drawLine(start, end)
    for at in (start, end):
        painter.drawLine(at + QPointF(-tick, tick), at + QPointF(tick, -tick))


def paint_word(painter: QPainter, at: QPointF, text: str, palette: Palette, size: float = 1.0) -> None:
    """A word on a patch of paper, so that it reads over hatching."""
    painter.setFont(font(12 * size, narrow=True))
    wide = painter.fontMetrics().horizontalAdvance(text)
    box = QRectF(at.x() - wide / 2, at.y() - 9 * size, wide, 18 * size)
    painter.fillRect(box.adjusted(-3, 0, 3, 0), fill(palette.cut))
    painter.setPen(pen(palette.ink))
    painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)


def paint_north(painter: QPainter, at: QPointF, lay_deg: float, palette: Palette) -> None:
    """A small arrow to the north on a drawing that has the lay up the page."""
    north = towards(-lay_deg)
    painter.setPen(pen(palette.quiet, 1.6))
    paint_arrow(painter, at - north * 13, at + north * 13, 7)
    painter.setFont(font(12, strong=True))
    painter.setPen(pen(palette.ink))
    end = at + north * 22
    painter.drawText(QRectF(end.x() - 8, end.y() - 8, 16, 16), Qt.AlignmentFlag.AlignCenter, "N")


def paint_handle(painter: QPainter, at: QPointF, radius: float, palette: Palette, *, hot: bool = False) -> None:
    """A grip that can be dragged: a ring with a dot, bolder under the pointer."""
    painter.setPen(pen(palette.focus if hot else palette.ink, 2.2 if hot else 1.5))
    painter.setBrush(fill(palette.sheet))
    painter.drawEllipse(at, radius, radius)
    painter.setBrush(fill(palette.focus if hot else palette.ink))
    painter.setPen(Qt.PenStyle.NoPen)
    painter.drawEllipse(at, radius * 0.34, radius * 0.34)


def paint_cross(painter: QPainter, at: QPointF, palette: Palette) -> None:
    """A place that can be dragged among many: a small upright cross until the pointer is on it."""
    painter.setPen(pen(palette.quiet, 1.4))
    painter.drawLine(at + QPointF(-4, 0), at + QPointF(4, 0))
    painter.drawLine(at + QPointF(0, -4), at + QPointF(0, 4))


def paint_hatch(
    painter: QPainter, shape: Array, colour: str, spacing: float, *, cross: bool = False, width: float = 0.9
) -> None:
    """Slanted lines inside a shape given in pixels, shape (n, 2).

    Drawn as lines cut to the shape: pattern brushes come out differently on paper, and a clip path costs more
    than the cutting.
    """
    lines = _slanted(shape, spacing, 1.0)
    if cross:
        lines = lines + _slanted(shape, spacing, -1.0)
    painter.setPen(pen(colour, width))
    painter.drawLines(lines)


def _slanted(shape: Array, spacing: float, lean: float) -> list[QLineF]:
    """Pieces of the lines x + lean y = const that lie inside a shape."""
    return _cut_to(shape.tobytes(), spacing, lean) if len(shape) >= 3 else []


@lru_cache(maxsize=64)
def _cut_to(corners: bytes, spacing: float, lean: float) -> list[QLineF]:
    """The same by the shape's own bytes: most shapes stay as they are from one frame of a drag to the next."""
    shape = np.frombuffer(corners, dtype=np.float64).reshape(-1, 2)
    across = shape[:, 0] + lean * shape[:, 1]
    along = shape[:, 0] - lean * shape[:, 1]
    first = math.ceil(float(across.min()) / spacing) * spacing
    at = np.arange(first, float(across.max()), spacing) + 1e-7
    pieces = intervals(np.column_stack([along, across]), at)
    ends = np.stack([(pieces + at[:, None, None]) / 2, (at[:, None, None] - pieces) / 2 * lean], axis=-1)
    return [QLineF(*row) for row in ends.reshape(-1, 4).tolist() if row[0] != row[2]]
