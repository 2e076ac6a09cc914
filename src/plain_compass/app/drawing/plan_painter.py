"""The stump from above, to scale, the lay up the page."""

from __future__ import annotations

import math

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPolygonF

from ...core.plan import Assessment
from ...core.polygon import ahead_of, behind, clip
from .layout import hinge_backs, ring_radius
from .marks import paint_arrow, paint_measure
from .palette import Palette, fill, font, pen
from .scale import Scale

Align = Qt.AlignmentFlag


def paint_plan(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, mark: str = "", size: float = 1.0) -> None:
    """Paint the stump from above.

    Args:
        mark: part to bring out, as named by a finding.
        size: type and line size against the screen's, for paper.
    """
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    _ring(painter, result, scale, palette, size)
    _wood(painter, result, scale, palette, size)
    _face(painter, result, scale, palette, size, mark == "face")
    _back(painter, result, scale, palette, size, mark)
    _hinge(painter, result, scale, palette, size, mark == "hinge")
    _rot(painter, result, scale, palette, size, mark == "rot")
    _wedges(painter, result, scale, palette, size, mark == "wedges")
    _tape_ticks(painter, result, scale, palette, size)
    _centre(painter, result, scale, palette, size, mark == "centre")
    _measures(painter, result, scale, palette, size)


def _ring(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float) -> None:
    """Bearing ring with the lay at the top, and the arrow of the lay."""
    radius, lay = ring_radius(result, scale), result.case.cut.lay_deg
    painter.setPen(pen(palette.line, 1.2 * size))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawEllipse(scale.origin, radius, radius)
    for bearing in range(0, 360, 10):
        turn = math.radians(bearing - lay)
        out = QPointF(math.sin(turn), -math.cos(turn))
        major = bearing % 90 == 0
        painter.setPen(pen(palette.quiet if major else palette.line, (1.6 if major else 1.0) * size))
        painter.drawLine(scale.origin + out * radius, scale.origin + out * (radius + (7 if bearing % 30 == 0 else 4) * size))
        if major and bearing:
            painter.setPen(pen(palette.quiet))
            painter.setFont(font(12 * size, strong=True))
            at = scale.origin + out * (radius - 12 * size)
            painter.drawText(QRectF(at.x() - 12, at.y() - 9, 24, 18), Align.AlignCenter, "NESW"[bearing // 90])
    painter.setPen(pen(palette.lay, 2.4 * size))
    top = scale.origin + QPointF(0, -radius)
    paint_arrow(painter, _front(result, scale), top + QPointF(0, -22 * size), 12 * size)
    north = math.radians(-lay)
    at = scale.origin + QPointF(math.sin(north) * (radius - 17 * size), -math.cos(north) * (radius - 17 * size))
    painter.setFont(font(13 * size, strong=True))
    painter.setPen(pen(palette.ink))
    painter.drawText(QRectF(at.x() - 12, at.y() - 9, 24, 18), Align.AlignCenter, "N")


def _front(result: Assessment, scale: Scale) -> QPointF:
    return scale.point(0, float(result.parts.section.bark[:, 0].max()))


def _wood(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float) -> None:
    section = result.parts.section
    painter.setPen(pen(palette.ink, 1.2 * size))
    painter.setBrush(fill(palette.bark))
    painter.drawPolygon(scale.plan(section.bark))
    painter.setBrush(fill(palette.sapwood))
    painter.setPen(pen(palette.bark, 0.8 * size))
    painter.drawPolygon(scale.plan(section.wood))


def _face(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float, hot: bool) -> None:
    """Wood taken out in front, bark and all."""
    section, face = result.parts.section, result.parts.face
    gone = scale.plan(ahead_of(section.bark, face.apex_forward_m))
    painter.setBrush(fill(palette.cut))
    painter.setPen(pen(palette.focus if hot else palette.ink, (3 if hot else 1.2) * size))
    painter.drawPolygon(gone)
    if face.hinge_front_m < face.apex_forward_m:
        slot = clip(ahead_of(section.bark, face.hinge_front_m), 1.0, 0.0, face.apex_forward_m)
        painter.setBrush(fill(palette.load, Qt.BrushStyle.Dense5Pattern))
        painter.setPen(pen(palette.load, 1.2 * size))
        painter.drawPolygon(scale.plan(slot))


def _back(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float, mark: str) -> None:
    """The kerf behind the hinge, and the strap of a bored cut."""
    section, face, cut = result.parts.section, result.parts.face, result.case.cut
    slope = (cut.hinge.left_m - cut.hinge.right_m) / face.hinge_length_m
    offset = face.hinge_front_m - cut.hinge.right_m + slope * face.end_right_m
    kerf = clip(section.bark, 1.0, slope, offset)
    if cut.back.form == "bored":
        kerf = ahead_of(kerf, section.back_m + cut.back.strap_m)
    hot = mark == "kerf"
    painter.setPen(pen(palette.focus if hot else palette.ink, (3 if hot else 1) * size))
    painter.setBrush(fill(palette.cut))
    painter.drawPolygon(scale.plan(kerf))
    painter.setBrush(fill(palette.quiet, Qt.BrushStyle.BDiagPattern))
    painter.drawPolygon(scale.plan(kerf))
    if cut.back.form == "bored":
        strap = behind(section.wood, section.back_m + cut.back.strap_m)
        hot = mark == "strap"
        painter.setPen(pen(palette.focus if hot else palette.ink, (3 if hot else 1.6) * size))
        painter.setBrush(fill(palette.heart))
        painter.drawPolygon(scale.plan(strap))


def _hinge(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float, hot: bool) -> None:
    hinge = result.parts.hinge
    painter.setPen(pen(palette.focus if hot else palette.ink, (3.4 if hot else 2) * size))
    painter.setBrush(fill(palette.heart))
    painter.drawPolygon(scale.plan(hinge.outline))


def _rot(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float, hot: bool) -> None:
    rot = result.parts.section.rot
    if len(rot):
        painter.setPen(pen(palette.focus if hot else palette.rot, (3 if hot else 1.6) * size, Qt.PenStyle.DashLine))
        painter.setBrush(fill(palette.rot, Qt.BrushStyle.DiagCrossPattern))
        painter.drawPolygon(scale.plan(rot))


def _wedges(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float, hot: bool) -> None:
    """Wedges as driven when the tree tips, drawn along the lay at their seats."""
    kit = result.case.kit
    for seat in result.parts.wedging.seats:
        tip = min(seat.edge_forward_m + max(seat.driven_m, kit.wedge_seat_m), seat.edge_forward_m + seat.room_m)
        tail = tip - kit.wedge_length_m
        half = kit.wedge_width_m / 2
        corners = [(-half, tail), (half, tail), (half * 0.8, tip), (-half * 0.8, tip)]
        shape = QPolygonF([scale.point(-seat.edge_left_m + dx, up) for dx, up in corners])
        painter.setPen(pen(palette.wedge, (3 if hot else 1.8) * size))
        painter.setBrush(fill(palette.wedge, Qt.BrushStyle.Dense6Pattern))
        painter.drawPolygon(shape)
        if seat.stacked == 2:
            painter.drawLine(scale.point(-seat.edge_left_m, tail), scale.point(-seat.edge_left_m, tip))


def _tape_ticks(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float) -> None:
    """Short chalk ticks across the bark where the tape marks lie."""
    section, face, cut = result.parts.section, result.parts.face, result.case.cut
    lines = [face.apex_forward_m, *hinge_backs(result)]
    if cut.back.form == "bored":
        lines.append(section.back_m + cut.back.strap_m)
    painter.setPen(pen(palette.sheet, 2 * size))
    bark, wood = section.bark, section.wood
    for line in lines:
        for left in (True, False):
            pick = (bark[:, 1] > 0) == left
            row = int(abs(bark[pick, 0] - line).argmin())
            outer, inner = bark[pick][row], wood[pick][row]
            painter.drawLine(scale.point(-outer[1], outer[0]), scale.point(-inner[1], inner[0]))


def _centre(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float, hot: bool) -> None:
    """Centre of mass, dropped onto the stump: where the whole tree stands."""
    mass = result.parts.mass
    reach = ring_radius(result, scale) - 10 * size
    at = scale.point(-mass.com_left_m, mass.com_forward_m) - scale.origin
    distance = math.hypot(at.x(), at.y())
    outside = distance > reach
    at = scale.origin + (at * (reach / distance) if outside else at)
    radius = (9 if hot else 7) * size
    painter.setPen(pen(palette.load, 2 * size))
    painter.setBrush(fill(palette.sheet))
    painter.drawEllipse(at, radius, radius)
    painter.drawLine(at - QPointF(radius, 0), at + QPointF(radius, 0))
    painter.drawLine(at - QPointF(0, radius), at + QPointF(0, radius))
    painter.setFont(font(12 * size, narrow=True))
    text = "weight, off the stump" if outside else "weight"
    right = at.x() >= scale.origin.x()
    box = QRectF(at.x() + (radius + 3 if right else -radius - 123), at.y() - 20 * size, 120, 16 * size)
    painter.drawText(box, (Align.AlignLeft if right else Align.AlignRight) | Align.AlignVCenter, text)


def _measures(painter: QPainter, result: Assessment, scale: Scale, palette: Palette, size: float) -> None:
    """Dimension lines in the gap between bark and ring."""
    section, face, cut = result.parts.section, result.parts.face, result.case.cut
    back_left, back_right = hinge_backs(result)
    edge = float(section.bark[:, 1].max()) + 14 / scale.px_per_m
    spans = [
        (-edge, face.apex_forward_m, section.front_m), (-edge, back_left, face.hinge_front_m),
        (edge, back_right, face.hinge_front_m),
    ]
    if cut.back.form == "bored":
        spans.append((edge, section.back_m, section.back_m + cut.back.strap_m))
    for right, low, high in spans:
        painter.setPen(pen(palette.quiet, 0.7 * size, Qt.PenStyle.DotLine))
        inner = math.copysign(abs(right) * 0.55, right)
        for line in (low, high):
            painter.drawLine(scale.point(inner, line), scale.point(right, line))
        painter.setPen(pen(palette.ink, 1.2 * size))
        paint_measure(painter, scale.point(right, low), scale.point(right, high), 3 * size)
