"""Use of the hinge against tilt as the tree falls: where it must hold to, where the face shuts, where it lets go."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import TypeAlias

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPolygonF

from ....core.assess import Assessment
from ....core.fall.nominal import NominalFall
from ....job.language import tr
from ..canvas import Canvas
from ..curve_painter import MOST, paint_axes, plot_box
from ..palette import fill, font, pen
from ..words import Word, paint_words, placed_words, square

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
    for tilt, colour, style in (
        (needed, palette.lay, Qt.PenStyle.DashLine),
        (closing, palette.ink, Qt.PenStyle.DashDotLine),
    ):
        painter.setPen(pen(colour, 1.4, style))
        painter.drawLine(at(tilt, 0), at(tilt, MOST))
    broke = min(fall.hinge_broke_at_deg, TO_DEG)
    use = result.parts.use.at(broke)
    painter.setPen(pen(palette.load, 2.0))
    painter.setBrush(fill(palette.sheet))
    painter.drawEllipse(at(broke, use), 5, 5)
    painter.setPen(pen(palette.focus, 2.0))
    painter.drawLine(at(tilt_deg, 0), at(tilt_deg, MOST))
    told = (
        (tr("lets go at {broke:.0f}°", broke=broke), broke, palette.load),
        (tr("needed to {needed:.0f}°", needed=needed), needed, palette.lay),
        (c.speech.say(tr("[face] shuts at {closing:.0f}°", closing=closing)), closing, palette.ink),
    )
    words = [_beside(text, at(tilt, 0).x(), plot, (colour, palette.sheet)) for text, tilt, colour in told]
    upright = [QRectF(at(tilt, 0).x() - 2, plot.top(), 4, plot.height()) for tilt in (needed, closing, tilt_deg)]
    limit = QRectF(plot.left(), at(0.0, 1.0).y() - 2, plot.width(), 4)
    taken = [
        limit,
        *upright,
        *(square(point, 5.0) for point in _points(at, result, broke)),
        square(at(broke, use), 7.0),
    ]
    paint_words(painter, placed_words(words, taken, plot.adjusted(2, 0, 0, -2)))


def _beside(text: str, x: float, plot: QRectF, inks: tuple[str, str]) -> Word:
    """Words beside an upright line, on either side and as high up as they may; ``inks``: of words and paper."""
    word = Word(text, (), *inks)
    aside = word.box_size.width() / 2 + 5
    rows = [plot.top() + 10 + 9 * number for number in range(max(int((plot.height() - 18) // 9), 1))]
    return replace(word, middles=tuple(QPointF(x + side * aside, up) for up in rows for side in (1, -1)))


def _curve(c: Canvas, at: At, result: Assessment, broke_deg: float, colour: str, style: Qt.PenStyle) -> None:
    """Up to where the hinge lets go; what it would have been after that is no longer there."""
    c.painter.setBrush(Qt.BrushStyle.NoBrush)
    c.painter.setPen(pen(colour, 2.2, style))
    c.painter.drawPolyline(QPolygonF(_points(at, result, broke_deg)))


def _points(at: At, result: Assessment, broke_deg: float) -> list[QPointF]:
    """The curve in the plot."""
    use = result.parts.use
    shown = [
        (tilt, value)
        for tilt, value in zip(use.tilt_deg.tolist(), use.use.tolist(), strict=True)
        if tilt < broke_deg and value <= MOST
    ]
    shown.append((broke_deg, min(use.at(broke_deg), MOST)))
    return [at(tilt, value) for tilt, value in shown]
