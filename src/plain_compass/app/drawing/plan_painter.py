"""The stump from above, to scale, the lay up the page."""

from __future__ import annotations

import math

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter

from ...core.base.polygon import Array
from ...core.fall.fan import Fan
from .canvas import Canvas
from .layout import ring_radius
from .marks import paint_arrow, paint_measure
from .palette import fill, pen
from .plan_words import CENTRE_PX, centre_mark, plan_words, weight_leader
from .scale import polygon, towards
from .words import paint_words

Align = Qt.AlignmentFlag


def paint_plan(c: Canvas) -> None:
    """Paint the stump from above."""
    paint_standing(c)
    paint_design(c)


def paint_standing(c: Canvas) -> None:
    """What stands there whatever the cut: bearing ring, bark and wood."""
    c.painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    _ring(c)
    _wood(c)


def paint_design(c: Canvas) -> None:
    """The cut, and what it means, over what stands there."""
    c.painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    _taken_out(c)
    _back(c)
    _hinge(c)
    _rot(c)
    _wedges(c)
    _tape_ticks(c)
    _aimed_off(c)
    _centre(c)
    _measures(c)
    _written(c)


def _written(c: Canvas) -> None:
    """Its words, and the line to the one of the weight where that stands farther off."""
    words = plan_words(c)
    leader = weight_leader(c, words)
    if leader is not None:
        c.painter.setPen(pen(c.palette.load, 0.8 * c.size))
        c.painter.drawLine(leader)
    paint_words(c.painter, words)


def paint_small(c: Canvas) -> None:
    """The stump and the cut alone, without a word: to be held against others at a glance."""
    c.painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    _wood(c)
    _taken_out(c)
    _back(c)
    _hinge(c)
    _rot(c)
    _wedges(c)
    c.painter.setPen(pen(c.palette.lay, 2.0 * c.size))
    paint_arrow(c.painter, _front(c), _front(c) + QPointF(0, -22 * c.size), 9 * c.size)


def _ring(c: Canvas) -> None:
    """Bearing ring with the lay at the top, and the arrow of the lay."""
    radius, lay = ring_radius(c.result, c.scale, c.gap), c.result.case.cut.gun_deg
    c.painter.setPen(pen(c.palette.line, 1.2 * c.size))
    c.painter.setBrush(Qt.BrushStyle.NoBrush)
    c.painter.drawEllipse(c.scale.origin, radius, radius)
    for bearing in range(0, 360, 10):
        out = towards(bearing - lay)
        major = bearing % 90 == 0
        c.painter.setPen(pen(c.palette.quiet if major else c.palette.line, (1.6 if major else 1.0) * c.size))
        c.painter.drawLine(
            c.scale.origin + out * radius, c.scale.origin + out * (radius + (7 if bearing % 30 == 0 else 4) * c.size)
        )
    c.painter.setPen(pen(c.palette.lay, 2.4 * c.size))
    top = c.scale.origin + QPointF(0, -radius)
    paint_arrow(c.painter, _front(c), top + QPointF(0, -22 * c.size), 12 * c.size)


def _front(c: Canvas) -> QPointF:
    return c.scale.point(0, float(c.result.parts.section.bark[:, 0].max()))


def _wood(c: Canvas) -> None:
    c.painter.setPen(pen(c.palette.ink, 1.2 * c.size))
    c.painter.setBrush(fill(c.palette.bark))
    c.painter.drawPolygon(polygon(c.scale.plan(c.stump.bark)))
    c.painter.setBrush(fill(c.palette.sapwood))
    c.painter.setPen(pen(c.palette.bark, 0.8 * c.size))
    c.painter.drawPolygon(polygon(c.scale.plan(c.stump.wood)))


def _taken_out(c: Canvas) -> None:
    """Wood taken out in front, bark and all."""
    face, slot = c.stump.face, c.stump.slot
    if face is not None:
        c.painter.setBrush(fill(c.palette.cut))
        c.painter.setPen(c.outline("face", 1.2))
        c.painter.drawPolygon(polygon(c.scale.plan(face)))
    if slot is not None:
        c.painter.setBrush(fill(c.palette.cut))
        c.painter.setPen(pen(c.palette.load, 1.2 * c.size))
        c.painter.drawPolygon(polygon(c.scale.plan(slot)))
        c.hatch(c.scale.plan(slot), c.palette.load, 4)


def paint_ring_fan(c: Canvas, fan: Fan) -> None:
    """On the bearing ring: where nine likely tops in ten point, and their middle."""
    radius, aimed = ring_radius(c.result, c.scale, c.gap), c.result.case.cut.aim_off_deg
    low, middle, high = fan.off_deg
    box = QRectF(c.scale.origin.x() - radius, c.scale.origin.y() - radius, 2 * radius, 2 * radius)
    c.painter.setBrush(Qt.BrushStyle.NoBrush)
    c.painter.setPen(pen(c.palette.lay, 6 * c.size))
    c.painter.drawArc(box, round((90 - aimed + low) * 16), round((high - low) * 16))
    c.painter.setPen(pen(c.palette.ink, 2 * c.size))
    out = towards(aimed - middle)
    c.painter.drawLine(c.scale.origin + out * (radius - 7 * c.size), c.scale.origin + out * (radius + 7 * c.size))


def _aimed_off(c: Canvas) -> None:
    """The lay, where the face is aimed beside it."""
    aimed = c.result.case.cut.aim_off_deg
    if aimed:
        out, radius = towards(aimed), ring_radius(c.result, c.scale, c.gap)
        c.painter.setPen(pen(c.palette.lay, 1.6 * c.size, Qt.PenStyle.DashLine))
        c.painter.drawLine(c.scale.origin + out * (radius - 40 * c.size), c.scale.origin + out * (radius + 14 * c.size))


def _back(c: Canvas) -> None:
    """The kerf behind the hinge, and the strap of a bored cut."""
    kerf, strap = c.scale.plan(c.stump.kerf), c.stump.strap
    c.painter.setPen(c.outline("kerf", 1.0))
    c.painter.setBrush(fill(c.palette.cut))
    c.painter.drawPolygon(polygon(kerf))
    c.hatch(kerf, c.palette.quiet, 9)
    _left_standing(c, () if strap is None else (strap,))


def _left_standing(c: Canvas, outlines: tuple[Array, ...]) -> None:
    """Wood that holds until it is let go: a strap, a corner, a rib, posts."""
    c.painter.setPen(c.outline("strap", 1.6))
    c.painter.setBrush(fill(c.palette.heart))
    for outline in outlines:
        c.painter.drawPolygon(polygon(c.scale.plan(outline)))


def _hinge(c: Canvas) -> None:
    _left_standing(c, c.stump.held)
    c.painter.setPen(c.outline("hinge", 2))
    c.painter.setBrush(fill(c.palette.heart))
    for piece in c.stump.hinge:
        c.painter.drawPolygon(polygon(c.scale.plan(piece)))


def _rot(c: Canvas) -> None:
    """Rot where it is known; where it is not, the words of the drawing say so."""
    rot = c.result.parts.section.rot
    if len(rot):
        c.painter.setPen(c.outline("rot", 1.6, c.palette.rot, Qt.PenStyle.DashLine))
        c.painter.setBrush(Qt.BrushStyle.NoBrush)
        c.painter.drawPolygon(polygon(c.scale.plan(rot)))
        c.hatch(c.scale.plan(rot), c.palette.rot, 7, cross=True)


def _wedges(c: Canvas) -> None:
    """Wedges as driven when the tree tips, drawn along the lay at their seats."""
    for corners, middle in zip(c.stump.wedges, c.stump.wedge_middles, strict=True):
        shape = c.scale.plan(corners)
        c.painter.setPen(c.outline("wedges", 1.8, c.palette.wedge))
        c.painter.setBrush(fill(c.palette.cut))
        c.painter.drawPolygon(polygon(shape))
        c.hatch(shape, c.palette.wedge, 5)
        if middle is not None:
            c.painter.drawPolyline(polygon(c.scale.plan(middle)))


def _tape_ticks(c: Canvas) -> None:
    """Short chalk ticks across the bark where the tape marks lie."""
    c.painter.setPen(pen(c.palette.sheet, 2 * c.size))
    for outer, inner in c.stump.ticks:
        c.painter.drawLine(c.scale.point(-outer[1], outer[0]), c.scale.point(-inner[1], inner[0]))


def _centre(c: Canvas) -> None:
    """Centre of mass, dropped onto the stump: where the whole tree stands."""
    at, _ = centre_mark(c)
    radius = (9 if c.mark == "centre" else CENTRE_PX) * c.size
    c.painter.setPen(pen(c.palette.load, 2 * c.size))
    c.painter.setBrush(fill(c.palette.sheet))
    c.painter.drawEllipse(at, radius, radius)
    c.painter.drawLine(at - QPointF(radius, 0), at + QPointF(radius, 0))
    c.painter.drawLine(at - QPointF(0, radius), at + QPointF(0, radius))


def _measures(c: Canvas) -> None:
    """Dimension lines in the gap between bark and ring."""
    section, face, cut = c.result.parts.section, c.result.parts.face, c.result.case.cut
    back_left, back_right = c.stump.hinge_back_m
    edge = float(section.bark[:, 1].max()) + c.gap / 3 / c.scale.px_per_m
    spans = [
        (-edge, face.apex_forward_m, section.front_m),
        (-edge, back_left, face.hinge_front_m),
        (edge, back_right, face.hinge_front_m),
    ]
    if cut.back.strapped:
        spans.append((edge, section.back_m, section.back_m + cut.back.strap_m))
    for right, low, high in spans:
        c.painter.setPen(pen(c.palette.quiet, 0.7 * c.size, Qt.PenStyle.DotLine))
        inner = math.copysign(abs(right) * 0.55, right)
        for line in (low, high):
            c.painter.drawLine(c.scale.point(inner, line), c.scale.point(right, line))
        c.painter.setPen(pen(c.palette.ink, 1.2 * c.size))
        paint_measure(c.painter, c.scale.point(right, low), c.scale.point(right, high), 3 * c.size)
