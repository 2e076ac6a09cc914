"""The stump as it was cut, from above and from the side, with the plan as dashed lines over it."""

from __future__ import annotations

from PySide6.QtCore import QPointF, Qt

from ....core.base.frames import half_turn_deg
from ..canvas import Canvas
from ..layout import ring_radius
from ..palette import pen
from ..plan_painter import paint_small, paint_standing
from ..scale import polygon, towards
from ..shapes import Shapes
from ..side_painter import paint_side

PLANNED_PX = 1.8
"""Width of the plan's lines: they must be seen over hatching."""


def paint_as_cut(c: Canvas, planned: Shapes) -> None:
    """From above, the face as it was cut up the page."""
    paint_standing(c)
    paint_small(c)
    _over(c, planned)


def _over(c: Canvas, planned: Shapes) -> None:
    """The plan's face and hinge where they should have been: turned as the face was aimed off."""
    turned = half_turn_deg(planned.result.case.cut.gun_deg - c.result.case.cut.gun_deg)
    stump = planned.stump_coarse
    c.painter.save()
    c.painter.translate(c.scale.origin)
    c.painter.rotate(turned)
    c.painter.translate(-c.scale.origin)
    c.painter.setBrush(Qt.BrushStyle.NoBrush)
    c.painter.setPen(pen(c.palette.lay, PLANNED_PX * c.size, Qt.PenStyle.DashLine))
    for outline in (*stump.hinge, *(() if stump.face is None else (stump.face,))):
        c.painter.drawPolygon(polygon(c.scale.plan(outline)))
    c.painter.restore()
    if abs(turned) > 0:
        out, radius = towards(turned), ring_radius(c.result, c.scale, c.gap)
        c.painter.drawLine(c.scale.origin + out * (radius - 40 * c.size), c.scale.origin + out * (radius + 14 * c.size))


def paint_as_cut_side(c: Canvas, planned: Shapes) -> None:
    """From its right side, the plan's apex, step and hinge over it."""
    paint_side(c)
    face, cut = planned.result.parts.face, planned.result.case.cut
    level = cut.height_m
    thick = max(cut.hinge.left_m, cut.hinge.right_m)
    kerf = level + cut.back.step_m
    c.painter.setBrush(Qt.BrushStyle.NoBrush)
    c.painter.setPen(pen(c.palette.lay, PLANNED_PX * c.size, Qt.PenStyle.DashLine))
    front, apex = planned.result.parts.section.front_m, c.scale.point(face.apex_forward_m, level)
    c.painter.drawLine(apex, c.scale.point(front, level + face.roof_height_m))
    c.painter.drawLine(apex, c.scale.point(front, level - face.floor_drop_m))
    back: QPointF = c.scale.point(face.hinge_front_m - thick, kerf)
    c.painter.drawLine(c.scale.point(planned.result.parts.section.back_m, kerf), back)
