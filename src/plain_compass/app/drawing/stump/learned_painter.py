"""What is known of a quantity, drawn: what was shipped, the records as dots, and what they come to."""

from __future__ import annotations

import math

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPolygonF

from ....core.base.frozen import dataclass
from ....core.base.quantity import Kind
from ....core.stump.learning import Learned
from ....core.stump.quantities import Known
from ....core.stump.reliability import Gathered
from ....job.language import tr
from ..marks import paint_slip
from ..palette import Palette, fill, font, pen

Align = Qt.AlignmentFlag
SHOWN_SPREADS = 4.0
"""Shipped spreads to either side of nothing: a mean is held within three."""
MOST_DOTS = 400
"""Newest records drawn: more run together."""
DOT_PX = 3.2
REACH_PX = 9.0
"""A dot, and how near to it a click takes it."""


@dataclass(frozen=True, slots=True)
class Axis:
    """From a value to a place along a line of pixels."""

    low: float
    high: float
    begin_px: float
    end_px: float

    def at(self, value: float) -> float:
        """Where a value stands, held within the axis."""
        share = (min(max(value, self.low), self.high) - self.low) / (self.high - self.low)
        return self.begin_px + share * (self.end_px - self.begin_px)


def reach_of(known: Known) -> float:
    """How far to either side of nothing the drawing reaches, in the quantity's own unit."""
    most = float(np.abs(known.values).max()) if len(known.values) else 0.0
    if known.factor is not None:
        return max(min(most, math.log(3.0)), 0.6)
    return max(SHOWN_SPREADS * known.shipped, min(most * 1.05, 8 * known.shipped))


def middle_and_spread(known: Known) -> tuple[float, float]:
    """Of what is known, on the drawing's axis: of a factor in its logarithm."""
    if known.normal is not None:
        return known.normal.mean, known.normal.next_spread
    assert known.factor is not None
    return known.factor.mean, known.factor.spread


def paint_known(painter: QPainter, box: QRectF, known: Known, palette: Palette) -> None:
    """One line: the shipped band pale behind, records as ticks, what is known as a bar with its middle.

    Left is drawn on the left; of everything else more is drawn to the right. Nothing stands in the middle.
    """
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    reach = reach_of(known)
    is_side = known.kind == Kind.ASIDE
    axis = Axis(-reach, reach, *((box.right(), box.left()) if is_side else (box.left(), box.right())))
    middle_y = box.center().y()
    left, right = sorted((axis.at(known.shipped), axis.at(-known.shipped)))
    shipped = QRectF(left, box.top() + 2, right - left, box.height() - 4)
    painter.fillRect(shipped, fill(palette.line))
    painter.setPen(pen(palette.quiet, 1.0, Qt.PenStyle.DashLine))
    painter.drawLine(QPointF(axis.at(0.0), box.top()), QPointF(axis.at(0.0), box.bottom()))
    painter.setPen(pen(palette.ink, 1.0))
    for value, out in list(zip(known.values.tolist(), known.out.tolist(), strict=True))[-MOST_DOTS:]:
        if not out:
            x = axis.at(value)
            painter.drawLine(QPointF(x, middle_y - 4), QPointF(x, middle_y + 4))
    if known.count:
        mean, spread = middle_and_spread(known)
        left, right = sorted((axis.at(mean + spread), axis.at(mean - spread)))
        bar = QRectF(left, box.bottom() - 7, right - left, 4)
        painter.fillRect(bar, fill(palette.lay))
        painter.setPen(pen(palette.lay, 2.4))
        painter.drawLine(QPointF(axis.at(mean), box.top() + 1), QPointF(axis.at(mean), box.bottom() - 1))


def dots_of(box: QRectF, known: Known) -> list[tuple[QPointF, int]]:
    """(place, which record) of the records over time, the newest last."""
    values = known.values
    count = len(values)
    first = max(count - MOST_DOTS, 0)
    reach = reach_of(known)
    upright = Axis(-reach, reach, box.bottom(), box.top())
    step = box.width() / max(count - first, 1)
    places = ((box.left() + (at - first + 0.5) * step, upright.at(float(values[at])), at) for at in range(first, count))
    return [(QPointF(x, y), at) for x, y, at in places]


def paint_over_time(
    painter: QPainter, box: QRectF, known: Known, over: tuple[list[Learned], int], palette: Palette
) -> None:
    """Records in the order in which they were felled, the shipped band behind, and what was known after each.

    Args:
        over: what was known after each record that is drawn, none of a factor; and which record is chosen, or -1.
    """
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    reach = reach_of(known)
    upright = Axis(-reach, reach, box.bottom(), box.top())
    above, under = upright.at(known.shipped), upright.at(-known.shipped)
    band = QRectF(box.left(), above, box.width(), under - above)
    painter.fillRect(band, fill(palette.line))
    painter.setPen(pen(palette.quiet, 1.0, Qt.PenStyle.DashLine))
    painter.drawLine(QPointF(box.left(), upright.at(0.0)), QPointF(box.right(), upright.at(0.0)))
    dots, (after, chosen) = dots_of(box, known), over
    if after:
        _running(painter, after, upright, dots, palette)
    elif known.count:
        _now(painter, known, upright, box, palette)
    for at, index in dots:
        if bool(known.out[index]):
            paint_slip(painter, at, 4, palette)
            continue
        marked = bool(known.marked[index])
        painter.setPen(pen(palette.load if marked else palette.ink, 1.6))
        painter.setBrush(Qt.BrushStyle.NoBrush if marked else fill(palette.ink))
        painter.drawEllipse(at, DOT_PX + 1.5 * marked, DOT_PX + 1.5 * marked)
    for at, index in dots:
        if index == chosen:
            painter.setPen(pen(palette.focus, 2.0))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawEllipse(at, 8, 8)


def _now(painter: QPainter, known: Known, upright: Axis, box: QRectF, palette: Palette) -> None:
    """Of a factor: where it lies now, middle and spread."""
    mean, spread = middle_and_spread(known)
    shade = QColor(palette.lay)
    shade.setAlpha(46)
    above, under = upright.at(mean + spread), upright.at(mean - spread)
    painter.fillRect(QRectF(box.left(), above, box.width(), under - above), shade)
    painter.setPen(pen(palette.lay, 2.0))
    painter.drawLine(QPointF(box.left(), upright.at(mean)), QPointF(box.right(), upright.at(mean)))


def _running(
    painter: QPainter, after: list[Learned], upright: Axis, dots: list[tuple[QPointF, int]], palette: Palette
) -> None:
    """Middle and spread for the next one, as they were after each record."""
    pairs = [(at.x(), then) for (at, _), then in zip(dots, after, strict=True)]
    middles = [QPointF(x, upright.at(then.mean)) for x, then in pairs]
    above = [QPointF(x, upright.at(then.mean + then.next_spread)) for x, then in pairs]
    below = [QPointF(x, upright.at(then.mean - then.next_spread)) for x, then in pairs]
    shade = QColor(palette.lay)
    shade.setAlpha(46)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(shade)
    painter.drawPolygon(QPolygonF([*above, *reversed(below)]))
    painter.setPen(pen(palette.lay, 2.0))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawPolyline(QPolygonF(middles))


def paint_reliability(painter: QPainter, box: QRectF, told: tuple[Gathered, ...], palette: Palette) -> None:
    """Chances told, across, against how often it happened, up; on the slanted line they were right."""
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(pen(palette.quiet, 1.0))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawRect(box)
    painter.setPen(pen(palette.lay, 1.6, Qt.PenStyle.DashLine))
    painter.drawLine(box.bottomLeft(), box.topRight())
    for each in told:
        x, y = box.left() + each.told * box.width(), box.bottom() - each.happened * box.height()
        luck = each.spread * box.height()
        painter.setPen(pen(palette.quiet, 1.2))
        line = box.bottom() - each.told * box.height()
        painter.drawLine(QPointF(x, max(line - 2 * luck, box.top())), QPointF(x, min(line + 2 * luck, box.bottom())))
        painter.setPen(pen(palette.ink, 1.4))
        painter.setBrush(fill(palette.heart))
        painter.drawEllipse(QPointF(x, y), 3 + math.sqrt(each.count) / 2, 3 + math.sqrt(each.count) / 2)
    painter.setFont(font(11, narrow=True))
    painter.setPen(pen(palette.quiet))
    painter.drawText(
        QRectF(box.left(), box.bottom() + 2, box.width(), 14), Align.AlignCenter, tr("told: never … always")
    )
    painter.save()
    painter.translate(box.left() - 4, box.bottom())
    painter.rotate(-90)
    painter.drawText(QRectF(0, -14, box.height(), 14), Align.AlignCenter, tr("happened"))
    painter.restore()
