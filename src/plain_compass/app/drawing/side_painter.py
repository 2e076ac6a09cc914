"""The stump from its right side, to scale, the lay to the right."""

from __future__ import annotations

import math

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPolygonF

from ...core.assess import Assessment
from ...job.language import tr
from .canvas import Canvas
from .marks import paint_arrow, paint_measure
from .palette import fill, pen
from .scale import box_pixels
from .words import Word, paint_words, placed_words, square

Align = Qt.AlignmentFlag


def shown_height_m(result: Assessment) -> float:
    """How far up the stem the side view reaches."""
    face, cut, depth = result.parts.face, result.case.cut, result.parts.section.depth_m
    return cut.height_m + max(face.roof_height_m, cut.back.step_m + 0.15 * depth) + 0.25 * depth


def paint_side(c: Canvas) -> None:
    """Paint the stump from the side."""
    c.painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    _stem(c)
    _rot(c)
    _hinge(c)
    _kerf(c)
    _face(c)
    _wedge(c)
    _ground(c)
    _measures(c)
    paint_words(c.painter, side_words(c))


def _box(c: Canvas, left: float, right: float, low: float, high: float) -> QRectF:
    return QRectF(c.scale.point(left, high), c.scale.point(right, low))


def _stem(c: Canvas) -> None:
    section, top = c.result.parts.section, shown_height_m(c.result)
    back, front = float(section.bark[:, 0].min()), float(section.bark[:, 0].max())
    c.painter.setPen(Qt.PenStyle.NoPen)
    c.painter.setBrush(fill(c.palette.bark))
    c.painter.drawRect(_box(c, back, front, c.ground_m, top))
    c.painter.setBrush(fill(c.palette.sapwood))
    c.painter.drawRect(_box(c, section.back_m, section.front_m, c.ground_m, top))
    c.painter.setPen(pen(c.palette.ink, 1.4 * c.size))
    for x in (back, front):
        c.painter.drawLine(c.scale.point(x, c.ground_m), c.scale.point(x, top))
    c.painter.setBrush(Qt.BrushStyle.NoBrush)
    _break_line(c, back, front, top)


def _break_line(c: Canvas, back: float, front: float, up: float) -> None:
    """A wavy line: the stem goes on."""
    steps = 24
    start, end = c.scale.point(back, up), c.scale.point(front, up)
    wave = [
        start + (end - start) * (i / steps) + QPointF(0, 4 * c.size * math.sin(i * math.pi / 3))
        for i in range(steps + 1)
    ]
    c.painter.drawPolyline(QPolygonF(wave))


def _rot(c: Canvas) -> None:
    """Extent of the rot along the lay, at the cut only: how it runs up and down is not known here."""
    rot = c.result.parts.section.rot
    if len(rot) == 0:
        return
    level, tall = c.result.case.cut.height_m, 0.10
    c.painter.setPen(c.outline("rot", 1.2, c.palette.rot, Qt.PenStyle.DashLine))
    c.painter.setBrush(Qt.BrushStyle.NoBrush)
    box = _box(c, float(rot[:, 0].min()), float(rot[:, 0].max()), level - tall, level + tall)
    c.painter.drawRect(box)
    c.hatch(box_pixels(box), c.palette.rot, 7, cross=True)


def _hinge(c: Canvas) -> None:
    face, cut = c.result.parts.face, c.result.case.cut
    thick = max(cut.hinge.left_m, cut.hinge.right_m)
    low, high = cut.height_m - 0.02, cut.height_m + max(cut.back.step_m, 0.02)
    c.painter.setPen(c.outline("hinge", 1.0, style=Qt.PenStyle.DashLine))
    c.painter.setBrush(fill(c.palette.heart))
    c.painter.drawRect(_box(c, face.hinge_front_m - thick, face.hinge_front_m, low, high))


def _kerf(c: Canvas) -> None:
    section, face, cut, kerf = (
        c.result.parts.section,
        c.result.parts.face,
        c.result.case.cut,
        c.result.case.kit.kerf_m,
    )
    low = cut.height_m + cut.back.step_m
    near = face.hinge_front_m - min(cut.hinge.left_m, cut.hinge.right_m)
    back = float(section.bark[:, 0].min())
    start = section.back_m + cut.back.strap_m if cut.back.strapped else back - 0.002
    c.painter.setPen(c.outline("step" if c.mark == "step" else "kerf", 1.0))
    c.painter.setBrush(fill(c.palette.cut))
    c.painter.drawRect(_box(c, start, near, low, low + kerf))
    if cut.back.strapped:
        c.painter.setPen(c.outline("strap", 1.0, style=Qt.PenStyle.DashLine))
        c.painter.setBrush(fill(c.palette.heart))
        c.painter.drawRect(_box(c, section.back_m, start, low - 0.01, low + kerf + 0.01))


def _face(c: Canvas) -> None:
    section, face, cut = c.result.parts.section, c.result.parts.face, c.result.case.cut
    level, out = cut.height_m, float(section.bark[:, 0].max()) + 0.003
    stretch = (out - face.apex_forward_m) / max(section.front_m - face.apex_forward_m, 1e-6)
    # Roof and floor end one over the other where they were sawn past each other; else twice at the same place.
    roof = level + cut.face.apart_m
    corners = [
        c.scale.point(face.apex_forward_m, level),
        c.scale.point(face.apex_forward_m, roof),
        c.scale.point(out, roof + face.roof_height_m * stretch),
        c.scale.point(out, level - face.floor_drop_m * stretch),
    ]
    c.painter.setPen(Qt.PenStyle.NoPen)
    c.painter.setBrush(fill(c.palette.cut))
    c.painter.drawPolygon(QPolygonF(corners))
    c.painter.setPen(c.outline("face", 1.6))
    c.painter.drawPolyline(QPolygonF([corners[2], corners[1], corners[0], corners[3]]))
    if cut.face.traits.blocked_out:
        c.painter.setBrush(fill(c.palette.cut))
        c.painter.drawRect(_box(c, face.apex_forward_m, out, level, level + cut.face.block_m))
    if cut.face.overcut_m > 0:
        c.painter.setPen(pen(c.palette.load, 2 * c.size))
        c.painter.setBrush(fill(c.palette.cut))
        c.painter.drawRect(_box(c, face.hinge_front_m, face.apex_forward_m, level, level + c.result.case.kit.kerf_m))


def _wedge(c: Canvas) -> None:
    """One wedge in the kerf, as the seats are all alike from the side."""
    kit, cut = c.result.case.kit, c.result.case.cut
    for seat in c.result.parts.wedging.seats[:1]:
        tip = seat.edge_forward_m + min(kit.wedge_seat_m, seat.room_m)
        tail, low = tip - kit.wedge_length_m, cut.height_m + cut.back.step_m
        head = kit.wedge_thickness_m * seat.stacked
        points = [c.scale.point(tip, low), c.scale.point(tail, low), c.scale.point(tail, low + head)]
        c.painter.setPen(c.outline("wedges", 1.6, c.palette.wedge))
        c.painter.setBrush(fill(c.palette.cut))
        c.painter.drawPolygon(QPolygonF(points))
        c.hatch(np.array([[p.x(), p.y()] for p in points]), c.palette.wedge, 5)


def _ground(c: Canvas) -> None:
    section = c.result.parts.section
    back, front = float(section.bark[:, 0].min()), float(section.bark[:, 0].max())
    start, end = (
        c.scale.point(back, c.ground_m) - QPointF(30 * c.size, 0),
        c.scale.point(front, c.ground_m) + QPointF(60 * c.size, 0),
    )
    c.painter.setPen(pen(c.palette.ink, 1.6 * c.size))
    if c.ground_m > 0:
        _break_line(c, back, front, c.ground_m)
    else:
        c.painter.drawLine(start, end)
        c.painter.setPen(pen(c.palette.quiet, 0.8 * c.size))
        for number in range(int((end.x() - start.x()) / (10 * c.size))):
            at = start + QPointF(10 * c.size * (number + 1), 0)
            c.painter.drawLine(at, at + QPointF(-6 * c.size, 7 * c.size))
    c.painter.setPen(pen(c.palette.lay, 2 * c.size))
    paint_arrow(c.painter, _over_front(c), _over_front(c) + QPointF(44 * c.size, 0), 10 * c.size)


def _over_front(c: Canvas) -> QPointF:
    """Where the arrow of the lay begins: over the front of the stem."""
    top = c.scale.point(c.result.parts.section.front_m, shown_height_m(c.result))
    return top + QPointF(10 * c.size, -12 * c.size)


def side_words(c: Canvas) -> list[tuple[Word, QRectF]]:
    """How far the face opens, and the lay."""
    section, face, cut = c.result.parts.section, c.result.parts.face, c.result.case.cut
    inside = c.scale.point(section.front_m - 0.12 * cut.face.depth_m, cut.height_m)
    opening = f"{face.opening_deg:.0f}°"
    places = tuple(
        inside + QPointF(x, y) * c.size for x, y in ((-24, -9), (-24, 9), (-12, -9), (0, -9), (14, -9), (14, 9))
    )
    lay = _over_front(c) + QPointF(58 * c.size, 0)
    handles = square(c.scale.point(face.hinge_front_m, cut.height_m), 4.0)
    words = [
        Word(tr("lay"), (lay, lay - QPointF(36, 14) * c.size), c.palette.lay, size=12 * c.size),
        Word(opening, places, c.palette.quiet, c.palette.cut, size=12 * c.size),
    ]
    return placed_words(words, [*c.taken, handles], c.page)


def _measures(c: Canvas) -> None:
    section, cut = c.result.parts.section, c.result.case.cut
    front = c.scale.point(float(section.bark[:, 0].max()), 0).x() + 24 * c.size
    level = c.scale.point(0, cut.height_m).y()
    c.painter.setPen(pen(c.palette.ink, 1.1 * c.size))
    paint_measure(c.painter, QPointF(front, c.scale.point(0, c.ground_m).y()), QPointF(front, level), 3 * c.size)
    c.painter.setPen(pen(c.palette.quiet, 0.7 * c.size, Qt.PenStyle.DotLine))
    c.painter.drawLine(c.scale.point(c.result.parts.face.apex_forward_m, cut.height_m), QPointF(front, level))
