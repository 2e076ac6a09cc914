"""The lay rose: a spoke a bearing on a ring round the plan. Outwards is margin, inwards is past the limit.

The stroke says which limit state rules: whole, dashed, dotted or dash-dotted; a bar across its end says that the ground
refuses it: something that must never be hit, a crown that would hold it, no way out.
"""

from __future__ import annotations

import math

from PySide6.QtCore import QLineF, QPointF, QRectF, Qt
from PySide6.QtGui import QPainter

from ....core.advice.rose import Spoke
from ....core.base.levels import Level
from ....job.words import Speech
from ..marks import paint_arrow
from ..palette import Palette, font, level_colour, pen
from ..scale import towards

Align = Qt.AlignmentFlag
OUT_PX, IN_PX = 46.0, 26.0
"""Length of a spoke with the whole margin left, and of one far past the limit."""
STROKES = {
    "balance": Qt.PenStyle.SolidLine,
    "wedge": Qt.PenStyle.DashLine,
    "hinge": Qt.PenStyle.DotLine,
    "split": Qt.PenStyle.DashDotLine,
}
OTHER = Qt.PenStyle.DashDotDotLine


def spoke_px(margin: float) -> float:
    """Length of a spoke from the ring: outwards positive."""
    return OUT_PX * min(margin, 1.0) if margin >= 0 else max(margin, -1.0) * IN_PX


def paint_rose(painter: QPainter, centre: QPointF, ring_px: float, spokes: tuple[Spoke, ...], palette: Palette) -> None:
    """Every spoke that has been reckoned so far."""
    painter.setPen(pen(palette.ink, 1.4))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawEllipse(centre, ring_px, ring_px)
    width = max(min(ring_px * 2 * math.pi / max(len(spokes), 36) * 0.62, 9.0), 1.6)
    by_pen: dict[tuple[Level, Qt.PenStyle], list[QLineF]] = {}
    bars: list[QLineF] = []
    for spoke in spokes:
        out = towards(spoke.bearing_deg)
        start, end = centre + out * ring_px, centre + out * (ring_px + spoke_px(spoke.margin))
        style = STROKES.get(spoke.group, OTHER)
        level = Level.STOP if spoke.help == "not with this kit" and spoke.level != Level.STOP else spoke.level
        by_pen.setdefault((level, style), []).append(QLineF(start, end))
        if spoke.refused:
            rim = centre + out * (ring_px + OUT_PX + 5)
            across = QPointF(-out.y(), out.x()) * max(width * 0.8, 1.5)
            bars.append(QLineF(rim - across, rim + across))
    for (level, style), lines in by_pen.items():
        painter.setPen(
            pen(level_colour(palette, level), width if style == Qt.PenStyle.SolidLine else width * 0.7, style)
        )
        painter.drawLines(lines)
    painter.setPen(pen(palette.load, 4.0))
    painter.drawLines(bars)


def paint_ring(painter: QPainter, centre: QPointF, ring_px: float, lay_deg: float, palette: Palette) -> None:
    """Bearings on the ring, and the lay as an arrow out to it."""
    painter.setFont(font(12, strong=True))
    for bearing in range(0, 360, 30):
        out = towards(bearing)
        painter.setPen(pen(palette.quiet, 1.6 if bearing % 90 == 0 else 1.0))
        painter.drawLine(centre + out * (ring_px - 6), centre + out * ring_px)
        if bearing % 90 == 0:
            at = centre + out * (ring_px - 16)
            painter.setPen(pen(palette.ink))
            painter.drawText(QRectF(at.x() - 10, at.y() - 9, 20, 18), Align.AlignCenter, "NESW"[bearing // 90])
    painter.setPen(pen(palette.lay, 2.4))
    paint_arrow(painter, centre, centre + towards(lay_deg) * (ring_px - 3), 12)


def paint_read(painter: QPainter, centre: QPointF, ring_px: float, bearing_deg: float, palette: Palette) -> None:
    """The bearing that is being read."""
    out = towards(bearing_deg)
    painter.setPen(pen(palette.focus, 2.4))
    painter.drawLine(centre + out * (ring_px - 12), centre + out * (ring_px + OUT_PX + 8))


def paint_legend(painter: QPainter, box: QRectF, speech: Speech, palette: Palette) -> None:
    """Which stroke means which ruling limit state, from the top down."""
    rows = [*((style, speech.named("groups", group)) for group, style in STROKES.items()), (OTHER, "another limit")]
    painter.setFont(font(12, narrow=True))
    painter.setPen(pen(palette.quiet))
    painter.drawText(
        QRectF(box.left(), box.top(), box.width(), 18), Align.AlignLeft, "Spokes: outwards is margin. Ruled by:"
    )
    for number, (style, name) in enumerate(rows):
        row, column = divmod(number, 2)
        left, y = box.left() + column * box.width() / 2, box.top() + 28 + 17 * row
        painter.setPen(pen(palette.ink, 3.0, style))
        painter.drawLine(QPointF(left, y), QPointF(left + 28, y))
        painter.setPen(pen(palette.quiet))
        painter.drawText(QRectF(left + 34, y - 9, 80, 18), Align.AlignLeft | Align.AlignVCenter, name)
    y = box.top() + 28 + 17 * ((len(rows) + 1) // 2)
    painter.setPen(pen(palette.load, 4.0))
    painter.drawLine(QPointF(box.left() + 8, y), QPointF(box.left() + 20, y))
    painter.setPen(pen(palette.quiet))
    text = QRectF(box.left() + 34, y - 9, box.width() - 34, 18)
    painter.drawText(text, Align.AlignLeft | Align.AlignVCenter, "refused by the ground")
