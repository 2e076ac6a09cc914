"""Every margin against the depth of the cut: one curve each, the worst moment marked, a line where one looks."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPolygonF

from ...core.cuts.stages import Sweep
from ...job.language import tr
from .palette import Palette, fill, font, pen

Align = Qt.AlignmentFlag
NAMES = {
    "standing": tr("on what holds"),
    "side": tr("side weight"),
    "split": tr("splitting ~"),
    "kerf": tr("kerf shutting"),
}
STYLES = {
    "standing": Qt.PenStyle.SolidLine,
    "side": Qt.PenStyle.DashLine,
    "split": Qt.PenStyle.DashDotLine,
    "kerf": Qt.PenStyle.DotLine,
}
LEFT, RIGHT, TOP, BOTTOM = 12.0, 12.0, 34.0, 22.0
"""Room round the chart: above it for its key, below for the names of the steps."""
MOST = 1.5
"""Use shown at the top of the chart."""


def chart_box(box: QRectF) -> QRectF:
    """Where the curves lie."""
    return box.adjusted(LEFT, TOP, -RIGHT, -BOTTOM)


def paint_sweep(
    painter: QPainter, box: QRectF, sweep: Sweep, titles: tuple[str, ...], at: float, palette: Palette
) -> None:
    """The chart, with the steps' names below it and what each stroke means above it."""
    chart = chart_box(box)

    def point(progress: float, use: float) -> QPointF:
        return QPointF(chart.left() + progress * chart.width(), chart.bottom() - min(use, MOST) / MOST * chart.height())

    painter.setPen(pen(palette.line, 1.0))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawRect(chart)
    limit = point(0.0, 1.0).y()
    painter.setPen(pen(palette.load, 1.4))
    painter.drawLine(QPointF(chart.left(), limit), QPointF(chart.right(), limit))
    painter.setFont(font(12, narrow=True))
    painter.drawText(QRectF(chart.left() + 4, limit - 17, 80, 16), Align.AlignLeft, tr("limit"))
    _steps(painter, chart, sweep, titles, palette)
    for number, (name, curve) in enumerate(sweep.states.uses.items()):
        painter.setPen(pen(palette.ink, 1.8, STYLES[name]))
        line = [point(p, u) for p, u in zip(sweep.progress.tolist(), curve.tolist(), strict=True)]
        painter.drawPolyline(QPolygonF(line))
        worst = int(curve.argmax())
        if curve[worst] > 0.02:
            painter.setBrush(fill(palette.load if curve[worst] >= 1 else palette.ink))
            painter.setPen(Qt.PenStyle.NoPen)
            painter.drawEllipse(line[worst], 3.5, 3.5)
        x = chart.left() + number * 132
        painter.setPen(pen(palette.ink, 1.8, STYLES[name]))
        painter.drawLine(QPointF(x, box.top() + 25), QPointF(x + 26, box.top() + 25))
        painter.setPen(pen(palette.quiet))
        painter.drawText(QRectF(x + 31, box.top() + 16, 100, 18), Align.AlignLeft | Align.AlignVCenter, NAMES[name])
    painter.setPen(pen(palette.focus, 2.2))
    x = chart.left() + at * chart.width()
    painter.drawLine(QPointF(x, chart.top() - 4), QPointF(x, chart.bottom() + 4))
    painter.setBrush(fill(palette.sheet))
    painter.drawEllipse(QPointF(x, chart.bottom()), 7, 7)


def _steps(painter: QPainter, chart: QRectF, sweep: Sweep, titles: tuple[str, ...], palette: Palette) -> None:
    start = 0.0
    for end, title in zip(sweep.ends, titles, strict=True):
        left, right = (chart.left() + share * chart.width() for share in (start, end))
        painter.setPen(pen(palette.line, 1.0))
        painter.drawLine(QPointF(right, chart.top()), QPointF(right, chart.bottom()))
        painter.setPen(pen(palette.quiet))
        painter.drawText(QRectF(left, chart.bottom() + 4, right - left, 18), Align.AlignCenter, title)
        start = end
