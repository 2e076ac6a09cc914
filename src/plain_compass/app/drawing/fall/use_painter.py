"""Use of the hinge against tilt as the tree falls: where it must hold to, where the face shuts, where it lets go."""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeAlias

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPolygonF

from ....core.assess import Assessment
from ....core.fall.nominal import NominalFall
from ..canvas import Canvas
from ..curve_painter import MOST, paint_axes, paint_label, plot_box
from ..palette import fill, font, pen

Align = Qt.AlignmentFlag
TO_DEG = 100.0
"""End of the axis: a tree on falling ground goes on a little past level."""
At: TypeAlias = Callable[[float, float], QPointF]
"""Where a tilt and a use lie in the plot."""


def paint_use(
    c: Canvas, box: QRectF, fall: NominalFall, tilt_deg: float, kept: tuple[Assessment, NominalFall] | None = None
) -> None:
    """The curve with its marks, the tilt looked at, and another design's dashed."""
    painter, palette, result = c.painter, c.palette, c.result
    painter.setPen(pen(palette.ink))
    painter.setFont(font(14, strong=True))
    painter.drawText(QPointF(box.left() + 12, box.top() + 20), c.speech.say("[Hinge] use against tilt"))
    plot = plot_box(box.adjusted(8, 6, -4, -4))
    paint_axes(painter, plot, palette, 1.0, TO_DEG)

    def at(tilt: float, value: float) -> QPointF:
        share = min(value, MOST) / MOST
        return QPointF(plot.left() + plot.width() * min(tilt, TO_DEG) / TO_DEG, plot.bottom() - plot.height() * share)

    if kept is not None:
        _curve(c, at, kept[0], kept[1].hinge_broke_at_deg, palette.wedge, Qt.PenStyle.DashLine)
    _curve(c, at, result, fall.hinge_broke_at_deg, palette.ink, Qt.PenStyle.SolidLine)
    closing, needed = result.parts.face.closing_angle_deg, result.parts.use.needed_tilt_deg
    shut = at(closing, 0).x()
    for tilt, colour, style in (
        (needed, palette.lay, Qt.PenStyle.DashLine),
        (closing, palette.ink, Qt.PenStyle.DashDotLine),
    ):
        painter.setPen(pen(colour, 1.4, style))
        painter.drawLine(at(tilt, 0), at(tilt, MOST))
    beside = QPointF(at(needed, 0).x(), plot.top() + 2)
    paint_label(painter, plot, beside, f"needed to {needed:.0f}°", (palette.lay, palette.sheet))
    shuts = c.speech.say(f"[face] shuts at {closing:.0f}°")
    paint_label(painter, plot, QPointF(shut, plot.bottom() - 20), shuts, (palette.ink, palette.sheet))
    broke = min(fall.hinge_broke_at_deg, TO_DEG)
    use = result.parts.use.at(broke)
    painter.setPen(pen(palette.load, 2.0))
    painter.setBrush(fill(palette.sheet))
    painter.drawEllipse(at(broke, use), 5, 5)
    text = f"lets go at {broke:.0f}°"
    beside = QPointF(at(broke, 0).x() + 5, at(broke, use).y() - 26)
    paint_label(painter, plot, beside, text, (palette.load, palette.sheet))
    painter.setPen(pen(palette.focus, 2.0))
    painter.drawLine(at(tilt_deg, 0), at(tilt_deg, MOST))


def _curve(c: Canvas, at: At, result: Assessment, broke_deg: float, colour: str, style: Qt.PenStyle) -> None:
    """Up to where the hinge lets go; what it would have been after that is no longer there."""
    use = result.parts.use
    shown = [
        (tilt, value)
        for tilt, value in zip(use.tilt_deg.tolist(), use.use.tolist(), strict=True)
        if tilt < broke_deg and value <= MOST
    ]
    shown.append((broke_deg, min(use.at(broke_deg), MOST)))
    c.painter.setBrush(Qt.BrushStyle.NoBrush)
    c.painter.setPen(pen(colour, 2.2, style))
    c.painter.drawPolyline(QPolygonF([at(tilt, value) for tilt, value in shown]))
