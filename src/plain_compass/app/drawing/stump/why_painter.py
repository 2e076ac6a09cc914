"""What a miss is made of: bars from the lay, one beginning where the one before ends, so that they add up to it."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter

from ....core.base.frozen import dataclass
from ....job.language import tr
from ..marks import paint_hatch
from ..palette import Palette, fill, font, pen
from ..scale import box_pixels

Align = Qt.AlignmentFlag
ROW, MOST_ROW = 17.0, 24.0
"""Least and most height of a bar's row."""
NAMES = 168.0
"""Room for what each bar is."""
VALUES = 78.0
"""Room for how much it is."""


@dataclass(frozen=True, slots=True)
class Bar:
    """One part of a miss: degrees, left of the lay positive.

    Attributes:
        kind: ``part``, ``rest`` (not explained), or ``whole``.
    """

    name: str
    begin_deg: float
    end_deg: float
    said: str
    kind: str = "part"


def paint_bars(painter: QPainter, box: QRectF, bars: list[Bar], palette: Palette) -> None:
    """Paint them, left on the left, the lay as an upright line."""
    if not bars:
        return
    row = min(max((box.height() - 16) / len(bars), ROW), MOST_ROW)
    plot = box.adjusted(NAMES, 0, -VALUES, 0)
    ends = [end for bar in bars for end in (bar.begin_deg, bar.end_deg)]
    low, high = min(0.0, *ends), max(0.0, *ends)
    px = plot.width() / max(high - low, 1.0)
    zero = plot.left() + high * px
    foot = box.top() + row * len(bars)
    painter.setPen(pen(palette.lay, 1.6, Qt.PenStyle.DashLine))
    painter.drawLine(QPointF(zero, box.top()), QPointF(zero, foot))
    painter.setFont(font(11, narrow=True))
    painter.setPen(pen(palette.quiet))
    painter.drawText(QRectF(zero - 60, foot, 120, 14), Align.AlignCenter, tr("left  ·  lay  ·  right"))
    for number, bar in enumerate(bars):
        line = QRectF(box.left(), box.top() + number * row, box.width(), row)
        _bar(painter, line, (zero - bar.begin_deg * px, zero - bar.end_deg * px), bar, palette)


def _bar(painter: QPainter, line: QRectF, ends: tuple[float, float], bar: Bar, palette: Palette) -> None:
    is_whole = bar.kind == "whole"
    painter.setFont(font(12, strong=is_whole, narrow=not is_whole))
    painter.setPen(pen(palette.ink))
    painter.drawText(line.adjusted(0, 0, NAMES - 8 - line.width(), 0), Align.AlignRight | Align.AlignVCenter, bar.name)
    painter.drawText(line.adjusted(line.width() - VALUES + 8, 0, 0, 0), Align.AlignLeft | Align.AlignVCenter, bar.said)
    left, right = sorted(ends)
    shape = QRectF(left, line.top() + 3, max(right - left, 1.5), line.height() - 6)
    painter.setPen(pen(palette.ink, 1.2))
    painter.setBrush(fill(palette.cut if bar.kind == "rest" else palette.ink if is_whole else palette.heart))
    painter.drawRect(shape)
    if bar.kind == "rest":
        paint_hatch(painter, box_pixels(shape), palette.ink, 5)
    painter.setPen(pen(palette.quiet, 0.8, Qt.PenStyle.DotLine))
    painter.drawLine(QPointF(ends[1], line.bottom() - 3), QPointF(ends[1], line.bottom() + 3))
