"""Use of the hinge against tilt, with shutting and needed tilt marked."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPolygonF

from ...core.assess import Assessment
from ...job.language import tr
from ...job.words import Speech
from .marks import paint_hatch
from .palette import Palette, fill, font, pen
from .scale import box_pixels

Align = Qt.AlignmentFlag
MOST = 1.4
"""Use at the top of the plot: past its limit a curve is followed a little, so that one sees how steeply it goes on."""


def plot_box(box: QRectF, size: float = 1.0) -> QRectF:
    """Where the curve itself lies, inside title and axes."""
    return box.adjusted(34 * size, 24 * size, -12 * size, -20 * size)


def paint_curve(
    painter: QPainter, box: QRectF, result: Assessment, speech: Speech, palette: Palette, size: float = 1.0
) -> None:
    """Paint the curve into a box: title above, tilt along, limit dashed."""
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(pen(palette.ink))
    painter.setFont(font(13 * size, strong=True, narrow=True))
    title = speech.say("[Hinge] use against tilt  ~ indicative")
    painter.drawText(QRectF(box.left(), box.top(), box.width(), 18 * size), Align.AlignLeft, title)
    plot = plot_box(box, size)
    paint_axes(painter, plot, palette, size)
    use, closing = result.parts.use, result.parts.face.closing_angle_deg

    def at(tilt: float, value: float) -> QPointF:
        return QPointF(plot.left() + plot.width() * tilt / 90, plot.bottom() - plot.height() * min(value, MOST) / MOST)

    shut = at(min(closing, 90), 0).x()
    beyond = QRectF(shut, plot.top(), plot.right() - shut, plot.height())
    paint_hatch(painter, box_pixels(beyond), palette.line, 8 * size)
    painter.setPen(pen(palette.lay, 1.6 * size, Qt.PenStyle.DashLine))
    need = at(use.needed_tilt_deg, 0).x()
    painter.drawLine(QPointF(need, plot.top()), QPointF(need, plot.bottom()))
    painter.setPen(pen(palette.ink, 2.2 * size))
    shown = [(t, u) for t, u in zip(use.tilt_deg.tolist()[::3], use.use.tolist()[::3], strict=True) if u <= MOST]
    painter.drawPolyline(QPolygonF([at(t, u) for t, u in shown]))
    needed, shuts = (
        tr("needed to {needed_tilt_deg:.0f}°", needed_tilt_deg=use.needed_tilt_deg),
        tr("shuts at {closing:.0f}°", closing=closing),
    )
    paint_label(painter, plot, QPointF(need, plot.top() + 2), needed, (palette.lay, palette.sheet), size)
    paint_label(painter, plot, QPointF(shut, plot.bottom() - 20 * size), shuts, (palette.ink, palette.sheet), size)


def paint_label(
    painter: QPainter, plot: QRectF, at: QPointF, text: str, inks: tuple[str, str], size: float = 1.0
) -> None:
    """A word beside an upright line, on whichever side has room, on a patch of paper; ``inks``: word, paper."""
    (colour, paper), x, top = inks, at.x(), at.y()
    painter.setFont(font(12 * size, narrow=True))
    is_left = x > plot.left() + plot.width() * 0.6
    box = QRectF(x - 124 * size if is_left else x + 4 * size, top, 120 * size, 17 * size)
    align = (Align.AlignRight if is_left else Align.AlignLeft) | Align.AlignVCenter
    painter.fillRect(painter.boundingRect(box, align, text).adjusted(-2, 0, 2, 0), fill(paper))
    painter.setPen(pen(colour))
    painter.drawText(box, align, text)


def paint_axes(painter: QPainter, plot: QRectF, palette: Palette, size: float, to_deg: float = 90.0) -> None:
    """Tilt along, use up, the limit dashed."""
    painter.setPen(pen(palette.quiet, size))
    painter.drawLine(plot.bottomLeft(), plot.bottomRight())
    painter.drawLine(plot.bottomLeft(), plot.topLeft())
    painter.setFont(font(11 * size, narrow=True))
    for tilt in (0, 30, 60, 90):
        x = plot.left() + plot.width() * tilt / to_deg
        painter.drawLine(QPointF(x, plot.bottom()), QPointF(x, plot.bottom() + 3))
        painter.drawText(QRectF(x - 20, plot.bottom() + 3, 40, 14 * size), Align.AlignCenter, f"{tilt}°")
    for share in (0, 1):
        # The lowest stands on the axis, clear of the tilts under it.
        y = plot.bottom() - max(plot.height() * share / MOST, 7 * size)
        painter.drawText(
            QRectF(plot.left() - 36 * size, y - 7 * size, 32 * size, 14 * size),
            Align.AlignRight | Align.AlignVCenter,
            f"{share * 100} %",
        )
    painter.setPen(pen(palette.load, 1.4 * size, Qt.PenStyle.DashLine))
    y = plot.bottom() - plot.height() / MOST
    painter.drawLine(QPointF(plot.left(), y), QPointF(plot.right(), y))
