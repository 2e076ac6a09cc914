"""The stump from above, to scale, the lay up the page."""

from __future__ import annotations

import math

from PySide6.QtCore import QPointF, QRectF, QSizeF, Qt
from PySide6.QtGui import QFontMetricsF, QPainter

from ...core.base.polygon import Array
from ...core.base.quantity import Kind
from ...core.fall.fan import Fan
from .canvas import Canvas
from .labels import Label, placed
from .layout import ring_radius
from .marks import paint_arrow, paint_measure, paint_word
from .palette import fill, font, pen
from .scale import polygon, towards

Align = Qt.AlignmentFlag
CENTRE = "centre of weight"
"""What is said at the mark of the weight while it stands over the stump."""
FAR_PX = 400.0
"""Farther from its mark it is never looked for a place."""
OFF, LABEL_PX = "weight, off the stump", 130.0
"""What is said of a weight that stands off the stump, and the room its words want."""


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
    _face(c)
    _back(c)
    _hinge(c)
    _rot(c)
    _wedges(c)
    _tape_ticks(c)
    _centre(c)
    _measures(c)


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
        if major and bearing:
            c.painter.setPen(pen(c.palette.quiet))
            c.painter.setFont(font(12 * c.size, strong=True))
            at = c.scale.origin + out * (radius - 12 * c.size)
            c.painter.drawText(QRectF(at.x() - 12, at.y() - 9, 24, 18), Align.AlignCenter, "NESW"[bearing // 90])
    c.painter.setPen(pen(c.palette.lay, 2.4 * c.size))
    top = c.scale.origin + QPointF(0, -radius)
    paint_arrow(c.painter, _front(c), top + QPointF(0, -22 * c.size), 12 * c.size)
    # Beside its mark, not on it: with the lay to the north the arrow passes there.
    at = c.scale.origin + towards(-lay - math.degrees(18 * c.size / radius)) * (radius - 11 * c.size)
    c.painter.setFont(font(13 * c.size, strong=True))
    c.painter.setPen(pen(c.palette.ink))
    c.painter.drawText(QRectF(at.x() - 12, at.y() - 9, 24, 18), Align.AlignCenter, "N")


def _front(c: Canvas) -> QPointF:
    return c.scale.point(0, float(c.result.parts.section.bark[:, 0].max()))


def _wood(c: Canvas) -> None:
    c.painter.setPen(pen(c.palette.ink, 1.2 * c.size))
    c.painter.setBrush(fill(c.palette.bark))
    c.painter.drawPolygon(polygon(c.scale.plan(c.stump.bark)))
    c.painter.setBrush(fill(c.palette.sapwood))
    c.painter.setPen(pen(c.palette.bark, 0.8 * c.size))
    c.painter.drawPolygon(polygon(c.scale.plan(c.stump.wood)))


def _face(c: Canvas) -> None:
    """Wood taken out in front, and how long the hinge behind it is."""
    _taken_out(c)
    if c.stump.face is not None:
        _hinge_length(c)


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
    """On the bearing ring: where nine likely tops in ten point, their middle, and the lay when it is aimed beside."""
    radius, aimed = ring_radius(c.result, c.scale, c.gap), c.result.case.cut.aim_off_deg
    low, middle, high = fan.off_deg
    box = QRectF(c.scale.origin.x() - radius, c.scale.origin.y() - radius, 2 * radius, 2 * radius)
    c.painter.setBrush(Qt.BrushStyle.NoBrush)
    c.painter.setPen(pen(c.palette.lay, 6 * c.size))
    c.painter.drawArc(box, round((90 - aimed + low) * 16), round((high - low) * 16))
    c.painter.setPen(pen(c.palette.ink, 2 * c.size))
    out = towards(aimed - middle)
    c.painter.drawLine(c.scale.origin + out * (radius - 7 * c.size), c.scale.origin + out * (radius + 7 * c.size))
    if aimed:
        out = towards(aimed)
        c.painter.setPen(pen(c.palette.lay, 1.6 * c.size, Qt.PenStyle.DashLine))
        c.painter.drawLine(c.scale.origin + out * (radius - 40 * c.size), c.scale.origin + out * (radius + 14 * c.size))
        paint_word(c.painter, c.scale.origin + out * (radius - 48 * c.size), "lay", c.palette, c.size)


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


def _hinge_length(c: Canvas) -> None:
    """Length of the hinge, read off rather than typed, in the room the face leaves."""
    face = c.result.parts.face
    at = c.scale.point(0, face.apex_forward_m + 0.5 * c.result.case.cut.face.depth_m)
    c.painter.setFont(font(12 * c.size, narrow=True))
    c.painter.setPen(pen(c.palette.quiet))
    text = c.speech.say(f"[hinge] {c.speech.show(face.hinge_length_m, Kind.LENGTH)} long")
    if QFontMetricsF(c.painter.font()).horizontalAdvance(text) > 0.9 * face.hinge_length_m * c.scale.px_per_m:
        return
    c.painter.drawText(
        QRectF(at.x() - 90 * c.size, at.y() - 4 * c.size, 180 * c.size, 18 * c.size), Align.AlignCenter, text
    )


def _rot(c: Canvas) -> None:
    """Rot where it is known; where it is not, the drawing says so."""
    rot = c.result.parts.section.rot
    if len(rot):
        c.painter.setPen(c.outline("rot", 1.6, c.palette.rot, Qt.PenStyle.DashLine))
        c.painter.setBrush(Qt.BrushStyle.NoBrush)
        c.painter.drawPolygon(polygon(c.scale.plan(rot)))
        c.hatch(c.scale.plan(rot), c.palette.rot, 7, cross=True)
        paint_word(c.painter, polygon(c.scale.plan(rot)).boundingRect().center(), "rot", c.palette, c.size)
    elif c.result.parts.section.shell_ratio is None:
        radius = c.result.parts.section.diameter_m / 2
        paint_word(c.painter, c.scale.point(0, -0.35 * radius), "not sounded: rot unknown", c.palette, c.size)


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


def _beside_centre(c: Canvas, at: QPointF, radius: float) -> QPointF:
    """Where the words of the centre stand: below its mark, or where no wedge lies under them.

    On either side grips and the hinge's own words stand in the way first.
    """
    half = c.painter.fontMetrics().horizontalAdvance(CENTRE) / 2 + 4 * c.size
    down, aside = radius + 9 * c.size, half + radius + 4 * c.size
    wedges = [polygon(c.scale.plan(each)).boundingRect() for each in c.stump.wedges]
    steps = (0, down), (0, -down), (aside, 0), (-aside, 0), (aside, down), (-aside, down)
    label = Label(CENTRE, QSizeF(2 * half, 18 * c.size), tuple(at + QPointF(x, y) for x, y in steps))
    around = QRectF(at.x() - FAR_PX, at.y() - FAR_PX, 2 * FAR_PX, 2 * FAR_PX)
    found = placed([label], wedges, around).get(CENTRE)
    return label.middles[0] if found is None else found.center()


def _centre(c: Canvas) -> None:
    """Centre of mass, dropped onto the stump: where the whole tree stands."""
    mass = c.result.parts.mass
    reach = ring_radius(c.result, c.scale, c.gap) - 10 * c.size
    at = c.scale.point(-mass.com_left_m, mass.com_forward_m) - c.scale.origin
    distance = math.hypot(at.x(), at.y())
    outside = distance > reach
    at = c.scale.origin + (at * (reach / distance) if outside else at)
    radius = (9 if c.mark == "centre" else 7) * c.size
    c.painter.setPen(pen(c.palette.load, 2 * c.size))
    c.painter.setBrush(fill(c.palette.sheet))
    c.painter.drawEllipse(at, radius, radius)
    c.painter.drawLine(at - QPointF(radius, 0), at + QPointF(radius, 0))
    c.painter.drawLine(at - QPointF(0, radius), at + QPointF(0, radius))
    c.painter.setFont(font(12 * c.size, narrow=True))
    if not outside:
        paint_word(c.painter, _beside_centre(c, at, radius), CENTRE, c.palette, c.size)
        return
    right = at.x() >= c.scale.origin.x()
    if not right and at.x() < LABEL_PX:
        # No room beside its mark: below it, as far in as its words reach.
        paint_word(c.painter, QPointF(max(at.x(), LABEL_PX / 2), at.y() + radius + 9 * c.size), OFF, c.palette, c.size)
        return
    box = QRectF(at.x() + (radius + 3 if right else -radius - 123), at.y() - 20 * c.size, 120, 16 * c.size)
    c.painter.drawText(box, (Align.AlignLeft if right else Align.AlignRight) | Align.AlignVCenter, OFF)


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
