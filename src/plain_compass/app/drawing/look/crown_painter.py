"""The crown from above, the lay up the page, with paced edges and the centre of mass over the hinge."""

from __future__ import annotations

import numpy as np
from PySide6.QtCore import QPointF, Qt

from ..canvas import Canvas
from ..marks import paint_arrow, paint_north, paint_word
from ..palette import fill, pen
from ..scale import polygon, towards
from .brackets import paint_bracket, paint_centre, paint_reading
from .surveyed import Surveyed


def paint_crown(c: Canvas, surveyed: Surveyed) -> None:
    """Paint the crown from above."""
    c.painter.setPen(c.outline("crown", 1.5, c.palette.quiet))
    c.painter.setBrush(fill(c.palette.paper))
    c.painter.drawPolygon(polygon(c.scale.plan(c.shapes.crown.outline[::3])))
    _sectors(c)
    paint_north(c.painter, QPointF(c.painter.viewport().width() - 28, 32), c.result.case.cut.gun_deg, c.palette)
    _edges(c, surveyed)
    _limbs(c)
    _lay_and_hinge(c)
    _centre(c, surveyed)


def _sectors(c: Canvas) -> None:
    """Dead sectors hatched, missing ones crossed out."""
    for state, outline in c.shapes.crown.sectors:
        sector = c.scale.plan(outline)
        if state == "missing":
            c.painter.setPen(pen(c.palette.quiet, 1.0, Qt.PenStyle.DotLine))
            c.painter.setBrush(fill(c.palette.sheet))
            c.painter.drawPolygon(polygon(sector))
        else:
            c.hatch(sector, c.palette.quiet, 8)
        paint_word(c.painter, QPointF(*sector[1:].mean(axis=0)) * 0.55 + c.scale.origin * 0.45, state, c.palette)


def _edges(c: Canvas, s: Surveyed) -> None:
    """Each paced edge: a line out to it, its bracket, and the raw readings beside it."""
    lay = c.result.case.cut.gun_deg
    for index, reading in enumerate(c.result.case.tree.crown.readings):
        out = towards(reading.bearing_deg - lay)
        at = c.scale.origin + out * (reading.radius_m * c.scale.px_per_m)
        path = f"tree.crown.readings.{index}.radius_m"
        c.painter.setPen(pen(c.palette.line, 1.0))
        c.painter.drawLine(c.scale.origin, at)
        paint_bracket(c.painter, at, out, s.spread(path) * c.scale.px_per_m, c.palette, worst=s.worst == path)
        aside = QPointF(-out.y(), out.x()) * 9
        for value, left_out in s.readings.get(path, ()):
            there = c.scale.origin + out * (value * c.scale.px_per_m) + aside
            paint_reading(c.painter, there, c.palette, left_out=left_out)


def _limbs(c: Canvas) -> None:
    case = c.result.case
    for limb in case.tree.limbs:
        c.painter.setPen(pen(c.palette.bark, max(limb.diameter_m * c.scale.px_per_m, 3.0)))
        end = c.scale.origin + towards(limb.bearing_deg - case.cut.gun_deg) * (limb.length_m * c.scale.px_per_m)
        c.painter.drawLine(c.scale.origin, end)
    if c.shapes.crown.second_top is not None:
        forward, left = c.shapes.crown.second_top
        end = c.scale.point(-left, forward)
        c.painter.setPen(pen(c.palette.bark, 3.0))
        c.painter.drawLine(c.scale.origin, end)
        c.painter.setBrush(fill(c.palette.sapwood))
        c.painter.drawEllipse(end, 4, 4)


def _lay_and_hinge(c: Canvas) -> None:
    """The stem, the hinge through it drawn out across the page, and the lay."""
    parts = c.result.parts
    forward, left = c.shapes.crown.pith
    hinge_at = parts.hinge.region.forward_m + forward
    reach = c.shapes.crown.reach_m
    c.painter.setPen(pen(c.palette.ink, 1.0, Qt.PenStyle.DashLine))
    c.painter.drawLine(c.scale.point(-reach, hinge_at), c.scale.point(reach, hinge_at))
    c.painter.setPen(pen(c.palette.bark, 1.0))
    c.painter.setBrush(fill(c.palette.sapwood))
    shifted = parts.section.bark[::4] + np.array([forward, left])
    c.painter.drawPolygon(polygon(c.scale.plan(shifted)))
    c.painter.setPen(c.outline("hinge", 4.0))
    c.painter.drawLine(
        c.scale.point(-parts.face.end_left_m - left, hinge_at), c.scale.point(-parts.face.end_right_m - left, hinge_at)
    )
    c.painter.setPen(pen(c.palette.lay, 2.2))
    start = c.scale.point(0, 0.35 * reach)
    paint_arrow(c.painter, start, c.scale.point(0, reach) - QPointF(0, 4), 11)


def _centre(c: Canvas, s: Surveyed) -> None:
    forward, left = c.shapes.crown.pith
    centre = s.centre
    at = c.scale.point(-centre.left_m - left, centre.forward_m + forward)
    half = centre.long_m * c.scale.px_per_m, centre.short_m * c.scale.px_per_m
    # Forward is up the page and left is left: an angle from forward to left turns counter-clockwise from up.
    paint_centre(c.painter, at, (half, 90.0 + centre.turn_deg), c.palette, hot=c.mark == "centre", size=3.5)
