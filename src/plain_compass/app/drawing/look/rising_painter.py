"""Soundness against the height of the cut, height up the page as on the tree."""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeAlias

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPolygonF

from ....core.advice.rising import Rising
from ....core.base.quantity import Kind
from ....core.judge.limits import SOUND_HINGE_LEAST, SOUND_SHELL_LEAST
from ....job.language import tr
from ....job.words import Speech
from ..fitted import paint_fitted
from ..palette import Palette, font, pen

Align = Qt.AlignmentFlag
PlaceOf: TypeAlias = Callable[[float, float], QPointF]
"""From (share, height) to the page."""


def paint_rising(
    painter: QPainter, box: QRectF, rising: Rising, cut_m: float, speech: Speech, palette: Palette
) -> None:
    """Two curves against height, each with its limit: shell ratio whole, sound hinge dashed."""
    painter.setPen(pen(palette.ink))
    painter.setFont(font(13, strong=True, narrow=True))
    paint_fitted(painter, QRectF(box.left(), box.top(), box.width(), 16), Align.AlignLeft, tr("Sound, by cut height"))
    plot = box.adjusted(40, 56, -16, -20)
    top = float(rising.height_m[-1])

    def at(share: float, height: float) -> QPointF:
        return QPointF(plot.left() + plot.width() * min(share, 1.0), plot.bottom() - plot.height() * height / top)

    painter.setPen(pen(palette.quiet, 1.0))
    painter.drawLine(plot.bottomLeft(), plot.bottomRight())
    painter.drawLine(plot.bottomLeft(), plot.topLeft())
    _scales(painter, plot, top, speech)
    _legend(painter, box, speech, palette)
    for values, limit, style in (
        (rising.shell_ratio, SOUND_SHELL_LEAST, Qt.PenStyle.SolidLine),
        (rising.hinge_sound, SOUND_HINGE_LEAST, Qt.PenStyle.DashLine),
    ):
        painter.setPen(pen(palette.load, 1.2, style))
        painter.drawLine(at(limit, 0), at(limit, top))
        painter.setPen(pen(palette.ink, 2.0, style))
        painter.drawPolyline(QPolygonF([at(float(v), float(h)) for h, v in zip(rising.height_m, values, strict=True)]))
    painter.setPen(pen(palette.ink, 1.2, Qt.PenStyle.DotLine))
    painter.drawLine(at(0, cut_m), at(1, cut_m))
    _lowest(painter, box, rising, at, speech, palette)


def _scales(painter: QPainter, plot: QRectF, top: float, speech: Speech) -> None:
    painter.setFont(font(11, narrow=True))
    for height in np.arange(0.0, top + 0.01, 0.5).tolist():
        y = plot.bottom() - plot.height() * height / top
        box = QRectF(plot.left() - 42, y - 8, 38, 16)
        painter.drawText(box, Align.AlignRight | Align.AlignVCenter, speech.show(height, Kind.SPAN))
    for share in (0.0, 0.5, 1.0):
        x = plot.left() + plot.width() * share
        painter.drawText(QRectF(x - 20, plot.bottom() + 2, 40, 15), Align.AlignCenter, f"{share * 100:.0f} %")


def _legend(painter: QPainter, box: QRectF, speech: Speech, palette: Palette) -> None:
    """Which line is which."""
    painter.setFont(font(11, narrow=True))
    for x, style, name in (
        (0.0, Qt.PenStyle.SolidLine, tr("shell")),
        (0.42, Qt.PenStyle.DashLine, speech.say("[hinge]")),
    ):
        left = box.left() + box.width() * x
        painter.setPen(pen(palette.ink, 2.0, style))
        painter.drawLine(QPointF(left, box.top() + 42), QPointF(left + 20, box.top() + 42))
        painter.setPen(pen(palette.ink))
        painter.drawText(QRectF(left + 23, box.top() + 34, 60, 16), Align.AlignLeft | Align.AlignVCenter, name)


def _lowest(painter: QPainter, box: QRectF, rising: Rising, at: PlaceOf, speech: Speech, palette: Palette) -> None:
    """The lowest cut from which it is sound enough, as a line and in words."""
    painter.setFont(font(12, narrow=True))
    if rising.lowest_m is None:
        text = tr("not sound enough up to {height_m}", height_m=speech.show(float(rising.height_m[-1]), Kind.SPAN))
        painter.setPen(pen(palette.load))
    else:
        text = tr("lowest cut {lowest_m}", lowest_m=speech.show(rising.lowest_m, Kind.SPAN))
        painter.setPen(pen(palette.lay, 2.4))
        painter.drawLine(at(0, rising.lowest_m), at(1, rising.lowest_m))
    painter.drawText(QRectF(box.left(), box.top() + 17, box.width(), 16), Align.AlignLeft, text)
