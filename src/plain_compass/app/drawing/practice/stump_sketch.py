"""A stump as it looks: from above and cut through along the lay, to scale, without a number or a name."""

from __future__ import annotations

import math

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPolygonF

from ....core.assess import Assessment
from ..marks import paint_arrow, paint_hatch
from ..palette import Palette, fill, pen
from ..scale import Scale, polygon
from ..shapes import Shapes

KERF_M = 0.012
"""Height of the kerf between stump and butt as drawn: so wide that it is seen."""
STUB_M = 0.05
"""How far the torn hinge stands up."""


def paint_stump_above(painter: QPainter, box: QRectF, shapes: Shapes, palette: Palette) -> None:
    """From above, the lay that was planned up the page."""
    result, stump = shapes.result, shapes.stump
    reach = result.parts.section.reach_m * 1.25
    scale = Scale(min(box.width(), box.height()) / (2 * reach), box.center())
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.save()
    # The stump's own frame points where its face was cut; the page has the planned lay up.
    painter.translate(box.center())
    painter.rotate(-result.case.cut.aim_off_deg)
    painter.translate(-box.center())
    for outline, colour in ((stump.bark, palette.bark), (stump.wood, palette.sapwood)):
        painter.setPen(pen(palette.ink, 1.2))
        painter.setBrush(fill(colour))
        painter.drawPolygon(polygon(scale.plan(outline)))
    _kerf(painter, scale, shapes, palette)
    painter.restore()
    painter.setPen(pen(palette.lay, 2.2))
    paint_arrow(painter, QPointF(box.center().x(), box.top() + 34), QPointF(box.center().x(), box.top() + 2), 9)


def _kerf(painter: QPainter, scale: Scale, shapes: Shapes, palette: Palette) -> None:
    stump = shapes.stump
    painter.setPen(pen(palette.ink, 1.0))
    if stump.face is not None:
        painter.setBrush(fill(palette.cut))
        painter.drawPolygon(polygon(scale.plan(stump.face)))
    paint_hatch(painter, scale.plan(stump.kerf), palette.bark, 7)
    painter.setBrush(fill(palette.heart))
    for piece in (*stump.hinge, *([] if stump.strap is None else [stump.strap])):
        painter.setPen(pen(palette.ink, 1.2))
        painter.drawPolygon(polygon(scale.plan(piece)))
    if stump.slot is not None:
        painter.setPen(pen(palette.load, 1.4, Qt.PenStyle.DashLine))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPolygon(polygon(scale.plan(stump.slot)))


def paint_stump_side(painter: QPainter, box: QRectF, result: Assessment, palette: Palette) -> None:
    """Cut through along the lay: the stump below, the butt above it, the lay to the right."""
    section, face, cut = result.parts.section, result.parts.face, result.case.cut
    back, front, apex = section.back_m, section.front_m, face.apex_forward_m
    roof, floor = (math.tan(math.radians(each)) for each in cut.face.angles_deg)
    rear = apex - cut.hinge.mean_m
    deep = 0.55 * section.depth_m
    high = max((front - apex) * roof, cut.back.step_m + KERF_M) + 0.35 * section.depth_m
    scale = Scale(
        min(box.width() / (section.depth_m * 1.3), box.height() / (deep + high)),
        QPointF(box.center().x(), box.top() + high * box.height() / (deep + high)),
    )
    step, over = cut.back.step_m, cut.face.overcut_m
    stump = [(back, -deep), (back, step), (rear, step), (rear, step + STUB_M), (apex, STUB_M), (apex, 0.0)]
    stump += [(front, -(front - apex) * floor), (front, -deep)]
    butt = [(back, high), (back, step + KERF_M), (rear, step + KERF_M), (rear, step + STUB_M + KERF_M)]
    butt += [(apex, STUB_M + KERF_M), (apex, KERF_M), (front, (front - apex) * roof + KERF_M), (front, high)]
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(pen(palette.ink, 1.3))
    painter.setBrush(fill(palette.sapwood))
    for outline in (stump, butt):
        painter.drawPolygon(QPolygonF([scale.point(*at) for at in outline]))
    if cut.back.strapped:
        painter.setPen(pen(palette.ink, 1.0))
        painter.setBrush(fill(palette.heart))
        held = QRectF(scale.point(back, step + KERF_M), scale.point(back + cut.back.strap_m, step))
        painter.drawRect(held)
    if over > 0:
        # A cut that ran past the other goes on behind the apex.
        painter.setPen(pen(palette.load, 2.6))
        painter.drawLine(scale.point(apex, 0.0), scale.point(apex - over, over * floor if floor else 0.0))
    painter.setPen(pen(palette.lay, 2.0))
    paint_arrow(painter, scale.point(front, -deep * 0.8), scale.point(front + 0.16 * section.depth_m, -deep * 0.8), 8)
