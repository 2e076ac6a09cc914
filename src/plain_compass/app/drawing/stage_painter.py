"""One standing state of the cut from above: what still holds, what is gone, and where the bar goes next."""

from __future__ import annotations

import math

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter

from ...core.base.polygon import Array
from ...core.mechanics.bar import Pass
from ...core.plan.case import Planned
from .marks import paint_arrow, paint_hatch
from .palette import Palette, fill, font, pen
from .scale import Scale, polygon

Align = Qt.AlignmentFlag
ROOM = 1.16
"""Outermost bark to the edge of the drawing."""


def stage_scale(planned: Planned, box: QRectF) -> Scale:
    """The stump in the middle of a box, the lay up the page."""
    reach = planned.parts.section.reach_m * ROOM
    return Scale(min(box.width(), box.height()) / 2 / reach, box.center())


def paint_stage(
    painter: QPainter, planned: Planned, scale: Scale, holds: tuple[Array, ...], palette: Palette, *, fine: bool
) -> None:
    """Bark, what is gone hatched, what holds filled; rot over both.

    Args:
        holds: outlines of the wood that still holds.
        fine: False leaves the hatching out of small drawings.
    """
    section = planned.parts.section
    painter.setPen(pen(palette.bark, 1.4))
    painter.setBrush(fill(palette.cut))
    painter.drawPolygon(polygon(scale.plan(section.bark)))
    if fine:
        paint_hatch(painter, scale.plan(section.wood), palette.line, 9)
    painter.setPen(pen(palette.ink, 1.6 if fine else 1.0))
    painter.setBrush(fill(palette.heart))
    for outline in holds:
        painter.drawPolygon(polygon(scale.plan(outline)))
    if len(section.rot):
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(pen(palette.rot, 1.2, Qt.PenStyle.DashLine))
        painter.drawPolygon(polygon(scale.plan(section.rot)))
        paint_hatch(painter, scale.plan(section.rot), palette.rot, 7 if fine else 4, cross=True)
    _centre(painter, planned, scale, palette, fine=fine)


def _centre(painter: QPainter, planned: Planned, scale: Scale, palette: Palette, *, fine: bool) -> None:
    """Centre of mass dropped onto the stump; held at the bark's edge where it stands off it."""
    mass = planned.parts.mass
    bark = planned.parts.section.reach_m
    off = math.hypot(mass.com_left_m, mass.com_forward_m)
    share = min(1.0, 1.08 * bark / off) if off > 0 else 1.0
    at = scale.point(-mass.com_left_m * share, mass.com_forward_m * share)
    radius = 7.0 if fine else 3.0
    painter.setPen(pen(palette.load, 2.0 if fine else 1.2))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawEllipse(at, radius, radius)
    painter.drawLine(at - QPointF(radius, 0), at + QPointF(radius, 0))
    painter.drawLine(at - QPointF(0, radius), at + QPointF(0, radius))


def paint_passes(painter: QPainter, scale: Scale, passes: tuple[Pass, ...], palette: Palette) -> None:
    """Each pass of the bar: its region outlined, an arrow from where it goes in to where its nose begins."""
    for number, one in enumerate(passes, start=1):
        painter.setPen(pen(palette.wedge, 1.6, Qt.PenStyle.DashLine))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if len(one.outline) >= 3:
            painter.drawPolygon(polygon(scale.plan(one.outline)))
        start = scale.point(-one.entry_left_m, one.entry_forward_m)
        end = scale.point(-one.nose_left_m, one.nose_forward_m)
        painter.setPen(pen(palette.wedge, 2.2))
        paint_arrow(painter, start, end, 9)
        painter.setFont(font(12, strong=True))
        painter.setPen(pen(palette.wedge))
        out = QPointF(-16 if one.entry_left_m > 0 else 16, 0)
        painter.drawText(QRectF(start.x() + out.x() - 10, start.y() - 9, 20, 18), Align.AlignCenter, str(number))


def paint_wedges(painter: QPainter, planned: Planned, scale: Scale, palette: Palette) -> None:
    """Wedges once they are set."""
    kit = planned.case.kit
    painter.setPen(pen(palette.wedge, 1.8))
    painter.setBrush(fill(palette.cut))
    for seat in planned.parts.wedging.seats:
        half = kit.wedge_width_m / 2
        tip = seat.edge_forward_m + min(kit.wedge_seat_m, max(seat.room_m, 0.01))
        corners = [
            scale.point(-seat.edge_left_m + side, forward)
            for side, forward in (
                (-half, tip - kit.wedge_length_m),
                (half, tip - kit.wedge_length_m),
                (half, tip),
                (-half, tip),
            )
        ]
        painter.drawPolygon(corners)
