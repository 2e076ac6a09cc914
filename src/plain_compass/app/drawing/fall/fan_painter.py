"""The fan over the site plan, north up: where the top may come to lie, what lies there, and how likely each is hit."""

from __future__ import annotations

import math
from itertools import pairwise

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPolygonF

from ....core.fall.fan import Fan
from ....core.fall.nominal import NominalFall
from ....core.site.site import Cost
from ....job.language import tr
from ....job.units import chance_words
from ..canvas import Canvas
from ..ground.site_painter import on_page, paint_grid, paint_obstacles
from ..marks import paint_arrow, paint_word
from ..palette import fill, font, pen
from ..scale import Scale, towards

Align = Qt.AlignmentFlag
DOTS = 400
"""Likely tops drawn: more run together into a patch and say no more."""
TOLD = 4
"""Chances written on the plan: more cover what they are about."""
GRID_PX = 60.0
"""What the caption of the grid takes of the same line."""
ROOM, BACK = 1.5, 0.52
"""Tree lengths across the drawing, and how far the stump stands from its middle."""


def fan_scale(width: float, height: float, tree_m: float, lay_deg: float) -> Scale:
    """The stump off the middle, so that there is most room where the tree goes."""
    px = (min(width, height) - 24) / (ROOM * tree_m)
    back = towards(lay_deg) * (-BACK * tree_m * px)
    return Scale(px, QPointF(width / 2 + back.x(), height / 2 + back.y()))


def paint_fan(c: Canvas, fan: Fan, fall: NominalFall, kept: Fan | None = None) -> None:
    """Grid, obstacles, likely tops, the fan's edges and middle, the plan's own fall."""
    paint_grid(c)
    paint_obstacles(c)
    lay = c.result.case.cut.lay_deg
    _dots(c, fan)
    if kept is not None:
        paint_sector(c, kept, lay, c.palette.wedge, Qt.PenStyle.DashLine)
    paint_sector(c, fan, lay, c.palette.lay)
    c.painter.setPen(pen(c.palette.ink, 1.2, Qt.PenStyle.DashLine))
    paint_arrow(c.painter, c.scale.origin, c.scale.origin + towards(lay) * (fan.reach_m[1] * c.scale.px_per_m), 8)
    top = c.scale.point(fall.top_east_m, fall.top_north_m)
    c.painter.setPen(pen(c.palette.bark, 2.0))
    c.painter.drawLine(c.scale.origin, top)
    c.painter.setPen(pen(c.palette.ink, 1.2))
    c.painter.setBrush(fill(c.palette.sapwood))
    c.painter.drawEllipse(c.scale.origin, 4, 4)
    _chances(c, fan)


def paint_sector(c: Canvas, fan: Fan, lay_deg: float, colour: str, style: Qt.PenStyle = Qt.PenStyle.SolidLine) -> None:
    """The fan's outline, and its middle: nine likely falls in ten lie between the edges."""
    low, middle, high = fan.off_deg
    px = c.scale.px_per_m
    arc = [
        c.scale.origin + towards(lay_deg - off) * (reach * px)
        for reach, offs in ((fan.reach_m[2], np.linspace(low, high, 14)), (fan.reach_m[0], np.linspace(high, low, 14)))
        for off in offs.tolist()
    ]
    c.painter.setPen(pen(colour, 2.0, style))
    if style == Qt.PenStyle.SolidLine:
        shade = QColor(colour)
        shade.setAlpha(46)
        c.painter.setBrush(shade)
    else:
        c.painter.setBrush(Qt.BrushStyle.NoBrush)
    c.painter.drawPolygon(QPolygonF(arc))
    c.painter.setPen(pen(colour, 1.2, style))
    for off in (low, high):
        c.painter.drawLine(c.scale.origin, c.scale.origin + towards(lay_deg - off) * (fan.reach_m[2] * px))
    c.painter.setPen(pen(colour, 2.0, Qt.PenStyle.DotLine))
    c.painter.drawLine(c.scale.origin, c.scale.origin + towards(lay_deg - middle) * (fan.reach_m[1] * px))


def _dots(c: Canvas, fan: Fan) -> None:
    """Some of the likely tops; those that hang or go the other way in the load's colour."""
    lands = fan.landings
    step = max(len(fan.samples) // DOTS, 1)
    x = c.scale.origin.x() + lands.east_m[::step] * c.scale.px_per_m
    y = c.scale.origin.y() - lands.north_m[::step] * c.scale.px_per_m
    wrong = ((lands.hangs >= 0) | lands.behind)[::step]
    for bad, colour in ((False, c.palette.lay), (True, c.palette.load)):
        points = [QPointF(*at) for at in np.column_stack([x, y])[wrong == bad].tolist()]
        c.painter.setPen(pen(colour, 1.8))
        c.painter.drawPoints(points)


def _chances(c: Canvas, fan: Fan) -> None:
    """How likely the dearest and likeliest things are hit, beside them."""
    obstacles = c.result.case.site.obstacles
    told = [chance for chance in fan.hits if obstacles[chance.index].cost != Cost.NONE][:TOLD]
    for chance in told:
        obstacle = obstacles[chance.index]
        points = on_page(c, obstacle)
        reach = math.radians(c.result.case.cut.lay_deg - fan.off_deg[1])
        toward = c.scale.point(fan.reach_m[1] * math.sin(reach), fan.reach_m[1] * math.cos(reach))
        at = _nearest(points, toward)
        view = QRectF(c.painter.viewport()).adjusted(70, 16, -70, -34)
        if view.contains(at):
            name = obstacle.name or obstacle.kind
            paint_word(c.painter, at + QPointF(0, -26), f"{name}: {chance_words(chance.share)}", c.palette)


def _nearest(points: list[QPointF], to: QPointF) -> QPointF:
    """The place on a line of points that lies nearest to another."""
    best, least = points[0], math.inf
    ends = points if len(points) > 1 else [points[0], points[0]]
    for start, end in pairwise(ends):
        along = end - start
        long = along.x() ** 2 + along.y() ** 2
        share = 0.0 if long == 0 else QPointF.dotProduct(to - start, along) / long
        at = start + along * min(max(share, 0.0), 1.0)
        away = math.hypot((at - to).x(), (at - to).y())
        if away < least:
            best, least = at, away
    return best


def paint_fan_caption(c: Canvas, box: QRectF, count: int) -> None:
    """What the drawing means, in a corner."""
    c.painter.setFont(font(12, narrow=True))
    text = tr("~ {count:,} likely falls · edges: nine in ten", count=count)
    more = text + tr(" · dotted: the middle")
    if c.painter.fontMetrics().horizontalAdvance(more) < box.width() - GRID_PX:
        text = more
    wide = c.painter.fontMetrics().horizontalAdvance(text) + 12
    at = QRectF(box.right() - wide, box.bottom() - 22, wide, 20)
    c.painter.fillRect(at, fill(c.palette.sheet))
    c.painter.setPen(pen(c.palette.quiet))
    c.painter.drawText(at, Align.AlignCenter, text)
