"""The ground under the lay, to scale, with the stem as it would lie: what it bears on and where it would break."""

from __future__ import annotations

import numpy as np
from PySide6.QtCore import QLineF, QPointF, QRectF, Qt
from PySide6.QtGui import QPolygonF

from ....core.base.quantity import Kind
from ....core.mechanics.resting import BREAKS_TO_m
from ....job.language import tr
from ..canvas import Canvas
from ..marks import paint_word
from ..palette import fill, font, level_colour, pen
from ..scale import Scale, polygon

Align = Qt.AlignmentFlag
MARGIN_PX, HEAD_PX, FOOT_PX = 14.0, 42.0, 24.0
"""Room at the sides, above for the words about the first touch, below for the distances."""
TITLE_PX = 110.0
"""Room for the title before them."""
STEP_M = 5.0
"""Distances are written each so many metres, about a good pace of five."""
BENT_PX = 26.0
"""How far over the stem the line of bending stands where it breaks."""


def profile_scale(width: float, height: float, along_m: float, low_m: float, high_m: float) -> Scale:
    """One scale for both axes, the stump at the left."""
    px = min((width - 2 * MARGIN_PX) / (along_m + 1.0), (height - HEAD_PX - FOOT_PX) / max(high_m - low_m, 0.8))
    middle = HEAD_PX + (height - HEAD_PX - FOOT_PX) / 2
    return Scale(px, QPointF(MARGIN_PX + 0.5 * px, middle + (high_m + low_m) / 2 * px))


def paint_profile(c: Canvas, box: QRectF) -> None:
    """Ground, stump, stem, and what the numbers say about them."""
    case, lying = c.result.case, c.result.parts.resting
    profile = case.profile
    top = profile.top_m
    aloft = case.cut.is_aloft
    high = float(max(top.max(), case.cut.height_m, 0.0 if aloft else (lying.lies_m + lying.thick_m).max()))
    scale = profile_scale(box.width(), box.height(), float(profile.along_m[-1]), float(top.min()), high)
    paint_ground(c, scale, box)
    _ticks(c, scale, float(profile.along_m[-1]), box.height())
    if not aloft:
        _stem(c, scale)
        _words(c, scale)


def paint_ground(c: Canvas, scale: Scale, box: QRectF) -> None:
    """The ground along the lay across a whole drawing, and the stump on it."""
    profile = c.result.case.profile
    line = scale.side(np.column_stack([profile.along_m, profile.top_m]))
    left, right = np.array([[box.left(), line[0, 1]]]), np.array([[box.right(), line[-1, 1]]])
    ground = np.vstack([left, line, right, [[box.right(), box.bottom()], [box.left(), box.bottom()]]])
    c.painter.setPen(Qt.PenStyle.NoPen)
    c.painter.setBrush(fill(c.palette.paper))
    c.painter.drawPolygon(polygon(ground))
    c.hatch(ground, c.palette.line, 9)
    c.painter.setPen(pen(c.palette.ink, 1.6))
    c.painter.drawPolyline(polygon(np.vstack([left, line, right])))
    cut, half = c.result.case.cut.height_m, c.result.parts.section.diameter_m / 2
    c.painter.setPen(pen(c.palette.ink, 1.2))
    c.painter.setBrush(fill(c.palette.sapwood))
    c.painter.drawRect(QRectF(scale.point(-half, cut), scale.point(half, 0.0)))


def _stem(c: Canvas, scale: Scale) -> None:
    """The stem bent over what it bears on; ticks below where it bears, the worst place in the load's colour."""
    lying = c.result.parts.resting
    under = scale.side(np.column_stack([lying.along_m, lying.lies_m]))
    over = scale.side(np.column_stack([lying.along_m, lying.lies_m + lying.thick_m]))
    c.painter.setPen(pen(c.palette.ink, 1.2))
    c.painter.setBrush(fill(c.palette.heart))
    c.painter.drawPolygon(polygon(np.vstack([under, over[::-1]])))
    c.painter.setPen(pen(c.palette.wedge, 2.0))
    bears = [QPointF(*at) for at, load in zip(under.tolist(), lying.contact_N.tolist(), strict=True) if load > 0]
    c.painter.drawLines([QLineF(at + QPointF(0, 2), at + QPointF(0, 9)) for at in bears])
    bent = np.column_stack([over[:, 0], over[:, 1] - BENT_PX * np.minimum(lying.index, 1.2)])
    c.painter.setPen(pen(c.palette.load, 1.4))
    c.painter.drawPolyline(polygon(bent[lying.thick_m >= BREAKS_TO_m]))
    worst = int(lying.index.argmax())
    colour = level_colour(c.palette, c.shapes.site.break_level)
    c.painter.setPen(pen(colour, 2.4))
    c.painter.drawLine(QPointF(*under[worst]) + QPointF(0, 7), QPointF(*over[worst]) + QPointF(0, -7))
    touch = scale.point(lying.touches_at_m, float(np.interp(lying.touches_at_m, lying.along_m, lying.lies_m)))
    c.painter.setBrush(fill(c.palette.lay))
    c.painter.setPen(Qt.PenStyle.NoPen)
    c.painter.drawPolygon(QPolygonF([touch, touch + QPointF(-5, 10), touch + QPointF(5, 10)]))


def _ticks(c: Canvas, scale: Scale, length_m: float, bottom: float) -> None:
    c.painter.setFont(font(12, narrow=True))
    for at in np.arange(0.0, length_m + 0.1, STEP_M).tolist():
        x = scale.point(at, 0).x()
        c.painter.setPen(pen(c.palette.quiet))
        c.painter.drawLine(QPointF(x, bottom - 6), QPointF(x, bottom))
        text = c.speech.show(at, Kind.SPAN)
        c.painter.drawText(QRectF(x + 3, bottom - 18, 70, 16), Align.AlignLeft | Align.AlignVCenter, text)


def _words(c: Canvas, scale: Scale) -> None:
    lying = c.result.parts.resting
    worst = scale.point(lying.breaks_at_m, float(np.interp(lying.breaks_at_m, lying.along_m, lying.lies_m)))
    text = tr("~{break_index} of breaking", break_index=c.speech.show(lying.break_index, Kind.RATIO))
    view = c.painter.viewport()
    paint_word(c.painter, QPointF(min(max(worst.x(), 60), view.width() - 60), worst.y() - 26), text, c.palette)
    by = {"top": tr("top"), "middle": tr("middle"), "butt": tr("lower stem")}[lying.touches_by]
    c.painter.setPen(pen(c.palette.quiet))
    c.painter.setFont(font(12, narrow=True))
    tilt = c.speech.show(lying.touches_deg, Kind.ANGLE)
    told = tr("▲ touches first: {by}, at {tilt} of tilt", by=by, tilt=tilt)
    whole = tr("{told} · ticks: where it bears · upper line: bending", told=told)
    room = QRectF(TITLE_PX, 6, view.width() - 12 - TITLE_PX, 18)
    fits = c.painter.fontMetrics().horizontalAdvance(whole) <= room.width()
    c.painter.drawText(room, Align.AlignRight | Align.AlignVCenter, whole if fits else told)
