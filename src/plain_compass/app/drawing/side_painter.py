"""The stump from its right side, to scale, the lay to the right."""

from __future__ import annotations

import math

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPolygonF

from ...core.plan import Assessment
from .marks import paint_arrow, paint_measure
from .palette import Palette, fill, font, pen
from .scale import Scale

Align = Qt.AlignmentFlag


def shown_height_m(result: Assessment) -> float:
    """How far up the stem the side view reaches."""
    face, cut = result.parts.face, result.case.cut
    return cut.height_m + max(face.roof_height_m, cut.back.step_m) + 0.25 * result.parts.section.depth_m


def paint_side(
    painter: QPainter, result: Assessment, scale: Scale, palette: Palette, bottom_px: float, mark: str = "", size: float = 1.0
) -> None:
    """Paint the stump from the side; ``mark`` and ``size`` as in ``paint_plan``.

    Args:
        bottom_px: lowest place to draw; a stump that reaches below it is broken off there.
    """
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    ground_m = max(scale.metres(QPointF(0, bottom_px))[1], 0.0)
    _stem(painter, result, scale, palette, size, ground_m)
    _rot(painter, result, scale, palette, size, mark == "rot")
    _hinge(painter, result, scale, palette, size, mark == "hinge")
    _kerf(painter, result, scale, palette, size, mark)
    _face(painter, result, scale, palette, size, mark == "face")
    _wedge(painter, result, scale, palette, size, mark == "wedges")
    _ground(painter, result, scale, palette, size, ground_m)
    _measures(painter, result, scale, palette, size, ground_m)


def _box(scale: Scale, left: float, right: float, low: float, high: float) -> QRectF:
    return QRectF(scale.point(left, high), scale.point(right, low))


def _stem(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float, ground_m: float) -> None:
    section, top = result.parts.section, shown_height_m(result)
    back, front = float(section.bark[:, 0].min()), float(section.bark[:, 0].max())
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(fill(palette.bark))
    painter.drawRect(_box(scale, back, front, ground_m, top))
    painter.setBrush(fill(palette.sapwood))
    painter.drawRect(_box(scale, section.back_m, section.front_m, ground_m, top))
    painter.setPen(pen(palette.ink, 1.4 * size))
    for x in (back, front):
        painter.drawLine(scale.point(x, ground_m), scale.point(x, top))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    _break_line(painter, scale, back, front, top, size)


def _break_line(painter: QPainter, scale: Scale, back: float, front: float, up: float, size: float) -> None:
    """A wavy line: the stem goes on."""
    steps = 24
    start, end = scale.point(back, up), scale.point(front, up)
    wave = [start + (end - start) * (i / steps) + QPointF(0, 4 * size * math.sin(i * math.pi / 3)) for i in range(steps + 1)]
    painter.drawPolyline(QPolygonF(wave))


def _rot(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float, hot: bool) -> None:
    """Extent of the rot along the lay, at the cut only: how it runs up and down is not known here."""
    rot = result.parts.section.rot
    if len(rot) == 0:
        return
    level, tall = result.case.cut.height_m, 0.10
    painter.setPen(pen(palette.focus if hot else palette.rot, (3 if hot else 1.2) * size, Qt.PenStyle.DashLine))
    painter.setBrush(fill(palette.rot, Qt.BrushStyle.DiagCrossPattern))
    painter.drawRect(_box(scale, float(rot[:, 0].min()), float(rot[:, 0].max()), level - tall, level + tall))


def _hinge(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float, hot: bool) -> None:
    face, cut = result.parts.face, result.case.cut
    thick = max(cut.hinge.left_m, cut.hinge.right_m)
    low, high = cut.height_m - 0.02, cut.height_m + max(cut.back.step_m, 0.02)
    painter.setPen(pen(palette.focus if hot else palette.ink, (3 if hot else 1) * size, Qt.PenStyle.DashLine))
    painter.setBrush(fill(palette.heart))
    painter.drawRect(_box(scale, face.hinge_front_m - thick, face.hinge_front_m, low, high))


def _kerf(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float, mark: str) -> None:
    section, face, cut, kerf = result.parts.section, result.parts.face, result.case.cut, result.case.kit.kerf_m
    low = cut.height_m + cut.back.step_m
    near = face.hinge_front_m - min(cut.hinge.left_m, cut.hinge.right_m)
    back = float(section.bark[:, 0].min())
    start = section.back_m + cut.back.strap_m if cut.back.form == "bored" else back - 0.002
    hot = mark in ("kerf", "step")
    painter.setPen(pen(palette.focus if hot else palette.ink, (2.4 if hot else 1) * size))
    painter.setBrush(fill(palette.cut))
    painter.drawRect(_box(scale, start, near, low, low + kerf))
    if cut.back.form == "bored":
        painter.setPen(pen(palette.focus if mark == "strap" else palette.ink, (3 if mark == "strap" else 1) * size, Qt.PenStyle.DashLine))
        painter.setBrush(fill(palette.heart))
        painter.drawRect(_box(scale, section.back_m, start, low - 0.01, low + kerf + 0.01))


def _face(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float, hot: bool) -> None:
    section, face, cut = result.parts.section, result.parts.face, result.case.cut
    level, out = cut.height_m, float(section.bark[:, 0].max()) + 0.003
    stretch = (out - face.apex_forward_m) / max(section.front_m - face.apex_forward_m, 1e-6)
    corners = [
        scale.point(face.apex_forward_m, level),
        scale.point(out, level + face.roof_height_m * stretch),
        scale.point(out, level - face.floor_drop_m * stretch),
    ]
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(fill(palette.cut))
    painter.drawPolygon(QPolygonF(corners))
    painter.setPen(pen(palette.focus if hot else palette.ink, (3 if hot else 1.6) * size))
    painter.drawPolyline(QPolygonF([corners[1], corners[0], corners[2]]))
    if cut.face.overcut_m > 0:
        painter.setPen(pen(palette.load, 2 * size))
        painter.setBrush(fill(palette.cut))
        painter.drawRect(_box(scale, face.hinge_front_m, face.apex_forward_m, level, level + result.case.kit.kerf_m))
    painter.setPen(pen(palette.quiet))
    painter.setFont(font(12 * size, narrow=True))
    at = scale.point(section.front_m - 0.12 * cut.face.depth_m, level)
    painter.drawText(QRectF(at.x() - 46, at.y() - 9 * size, 44, 18 * size), Align.AlignRight | Align.AlignVCenter, f"{face.opening_deg:.0f}°")


def _wedge(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float, hot: bool) -> None:
    """One wedge in the kerf, as the seats are all alike from the side."""
    kit, cut = result.case.kit, result.case.cut
    for seat in result.parts.wedging.seats[:1]:
        tip = seat.edge_forward_m + min(kit.wedge_seat_m, seat.room_m)
        tail, low = tip - kit.wedge_length_m, cut.height_m + cut.back.step_m
        head = kit.wedge_thickness_m * seat.stacked
        shape = QPolygonF([scale.point(tip, low), scale.point(tail, low), scale.point(tail, low + head)])
        painter.setPen(pen(palette.wedge, (3 if hot else 1.6) * size))
        painter.setBrush(fill(palette.wedge, Qt.BrushStyle.Dense6Pattern))
        painter.drawPolygon(shape)


def _ground(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float, ground_m: float) -> None:
    section = result.parts.section
    back, front = float(section.bark[:, 0].min()), float(section.bark[:, 0].max())
    start, end = scale.point(back, ground_m) - QPointF(30 * size, 0), scale.point(front, ground_m) + QPointF(60 * size, 0)
    painter.setPen(pen(palette.ink, 1.6 * size))
    if ground_m > 0:
        _break_line(painter, scale, back, front, ground_m, size)
    else:
        painter.drawLine(start, end)
        painter.setPen(pen(palette.quiet, 0.8 * size))
        for number in range(int((end.x() - start.x()) / (10 * size))):
            at = start + QPointF(10 * size * (number + 1), 0)
            painter.drawLine(at, at + QPointF(-6 * size, 7 * size))
    painter.setPen(pen(palette.lay, 2 * size))
    top = scale.point(section.front_m, shown_height_m(result)) + QPointF(14 * size, 8 * size)
    paint_arrow(painter, top, top + QPointF(44 * size, 0), 10 * size)
    painter.setFont(font(12 * size, narrow=True))
    painter.drawText(QRectF(top.x(), top.y() - 20 * size, 60 * size, 16 * size), Align.AlignLeft, "lay")


def _measures(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float, ground_m: float) -> None:
    section, cut = result.parts.section, result.case.cut
    front = scale.point(float(section.bark[:, 0].max()), 0).x() + 24 * size
    level = scale.point(0, cut.height_m).y()
    painter.setPen(pen(palette.ink, 1.1 * size))
    paint_measure(painter, QPointF(front, scale.point(0, ground_m).y()), QPointF(front, level), 3 * size)
    painter.setPen(pen(palette.quiet, 0.7 * size, Qt.PenStyle.DotLine))
    painter.drawLine(scale.point(result.parts.face.apex_forward_m, cut.height_m), QPointF(front, level))
