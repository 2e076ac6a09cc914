"""The whole tree from the side, to scale: stem, crown, limbs, centre of mass and the hinge under it."""

from __future__ import annotations

import math

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPolygonF

from ....core.base.quantity import Kind
from ....job.language import tr
from ..canvas import Canvas
from ..fitted import paint_fitted
from ..marks import paint_arrow
from ..palette import fill, font, pen
from ..scale import polygon
from ..shapes import ALONG, Facing
from .brackets import paint_bracket, paint_centre, paint_reading
from .surveyed import Surveyed

Align = Qt.AlignmentFlag


def paint_tree(c: Canvas, facing: Facing, surveyed: Surveyed) -> None:
    """Paint the tree and what is known of it."""
    _ground(c)
    _crown(c, facing)
    _stems(c, facing)
    _limbs(c, facing)
    _hinge(c, facing, surveyed)
    _brackets(c, facing, surveyed)


def _ground(c: Canvas) -> None:
    level = c.scale.point(0, 0).y()
    width = c.painter.viewport().width()
    c.painter.setPen(pen(c.palette.ink, 1.6))
    c.painter.drawLine(QPointF(0, level), QPointF(width, level))
    c.painter.setPen(pen(c.palette.line, 1.0))
    for x in range(-8, width, 14):
        c.painter.drawLine(QPointF(x + 8, level), QPointF(x, level + 8))


def _crown(c: Canvas, facing: Facing) -> None:
    """The crown between its base, its paced edges and the top; the curve between them is a sketch."""
    outline = polygon(c.scale.side(c.shapes.tree(facing).crown))
    c.painter.setPen(c.outline("crown", 1.3, c.palette.quiet, Qt.PenStyle.DashLine))
    c.painter.setBrush(fill(c.palette.paper))
    c.painter.drawPolygon(outline)


def _stems(c: Canvas, facing: Facing) -> None:
    tree = c.shapes.tree(facing)
    if tree.second_stem:
        _tapered(c, tree.second_stem)
    _tapered(c, tree.stem)


def _tapered(c: Canvas, axis: tuple[tuple[float, float, float], ...]) -> None:
    """A stem by (right, height, radius) along its axis; never thinner than can be seen."""
    least = 0.8 / c.scale.px_per_m
    left = [c.scale.point(x - max(r, least), h) for x, h, r in axis]
    right = [c.scale.point(x + max(r, least), h) for x, h, r in axis]
    c.painter.setPen(c.outline("stem", 1.0, c.palette.bark))
    c.painter.setBrush(fill(c.palette.sapwood))
    c.painter.drawPolygon(QPolygonF([*left, *reversed(right)]))


def _limbs(c: Canvas, facing: Facing) -> None:
    for start, end, height, diameter in c.shapes.tree(facing).limbs:
        c.painter.setPen(pen(c.palette.bark, max(diameter * c.scale.px_per_m, 2.5)))
        c.painter.drawLine(c.scale.point(start, height), c.scale.point(end, height))


def _hinge(c: Canvas, facing: Facing, surveyed: Surveyed) -> None:
    """The cut, the hinge in it, and the plumb line from the centre of mass down beside it."""
    cut, centre = c.result.case.cut, surveyed.centre
    at = c.scale.point(facing.right_m(centre.forward_m, centre.left_m), cut.height_m + centre.up_m)
    foot = QPointF(at.x(), c.scale.point(0, cut.height_m).y())
    c.painter.setPen(pen(c.palette.load, 1.4, Qt.PenStyle.DashLine))
    c.painter.drawLine(at, foot)
    if facing is ALONG:
        half = max(c.result.parts.section.diameter_m, 0.6)
        c.painter.setPen(pen(c.palette.lay, 1.4))
        start = c.scale.point(half, cut.height_m)
        paint_arrow(c.painter, start, start + QPointF(34, 0), 9)
    c.painter.setPen(c.outline("hinge", 5.0))
    left, right = (c.scale.point(end, cut.height_m) for end in c.shapes.tree(facing).hinge)
    c.painter.drawLine(left, right if right.x() - left.x() >= 3 else left + QPointF(3, 0))
    across = centre.forward_spread_m if facing is ALONG else centre.left_spread_m
    spread_px = (across * c.scale.px_per_m, centre.up_spread_m * c.scale.px_per_m)
    paint_centre(c.painter, at, (spread_px, 0.0), c.palette, hot=c.mark == "centre")
    c.painter.setPen(pen(c.palette.load, 3.0))
    c.painter.drawLine(foot - QPointF(spread_px[0], 0), foot + QPointF(spread_px[0], 0))
    _offset(c, facing, foot)


def _offset(c: Canvas, facing: Facing, foot: QPointF) -> None:
    """How far the weight stands off the hinge, in words, below the ground line."""
    balance = c.result.parts.balance
    if facing is ALONG:
        off, side = balance.ahead_m, tr("ahead of") if balance.ahead_m >= 0 else tr("behind")
    else:
        off, side = balance.left_m, tr("left of") if balance.left_m >= 0 else tr("right of")
    text = c.speech.say(tr("weight {off} {side} the [hinge]", off=c.speech.show(abs(off), Kind.LENGTH), side=side))
    if c.result.case.tree.stand_ins:
        text = tr("where its weight is: not known")
    ground = c.scale.point(0, 0).y()
    width = c.painter.viewport().width()
    c.painter.setFont(font(13, strong=True, narrow=True))
    c.painter.setPen(pen(c.palette.load))
    half = min(width, c.painter.fontMetrics().horizontalAdvance(text) + 4) / 2
    middle = min(max(foot.x(), half), width - half)
    paint_fitted(c.painter, QRectF(middle - half, ground + 9, 2 * half, 18), Align.AlignCenter, text)


def _brackets(c: Canvas, facing: Facing, s: Surveyed) -> None:
    """The spread of what is measured in this view, as brackets at its place."""
    tree, px, shapes = c.result.case.tree, c.scale.px_per_m, c.shapes.tree(facing)
    top = c.scale.point(shapes.top_m, tree.height_m)
    up, right = QPointF(0, -1), QPointF(1, 0)
    if facing is ALONG:
        beside = top - QPointF(16, 0)
        paint_bracket(
            c.painter, beside, up, s.spread("tree.height_m") * px, c.palette, worst=s.worst == "tree.height_m"
        )
        for value, left_out in s.readings.get("tree.height_m", ()):
            at = QPointF(beside.x() - 9, c.scale.point(0, value).y())
            paint_reading(c.painter, at, c.palette, left_out=left_out)
        base = c.scale.point(shapes.crown_base_m, tree.crown.base_m)
        name = "tree.crown.base_m"
        paint_bracket(c.painter, base - QPointF(16, 0), up, s.spread(name) * px, c.palette, worst=s.worst == name)
    swing = math.radians(s.spread("tree.lean.angle_deg")) * tree.height_m * px
    worst = s.worst.startswith("tree.lean")
    paint_bracket(c.painter, top - QPointF(0, 12), right, swing, c.palette, worst=worst)
    _lean_readings(c, facing, s, top.y() - 24)
    low, high = shapes.crown_reach_m
    for edge, bearing in ((low, 180.0), (high, 0.0)):
        spread, is_worst = _edge_spread(c, s, facing, bearing)
        paint_bracket(
            c.painter, c.scale.point(edge, shapes.crown_widest_m), right, spread * px, c.palette, worst=is_worst
        )


def _lean_readings(c: Canvas, facing: Facing, s: Surveyed, level: float) -> None:
    """Each lean reading as where it would put the top in this view, above the bracket."""
    tree, cut, shapes = c.result.case.tree, c.result.case.cut, c.shapes.tree(facing)
    bow = shapes.top_m - shapes.straight_m(tree.lean.angle_deg, tree.lean.bearing_deg)
    for angle, bearing, left_out in s.leans:
        at = c.scale.point(shapes.straight_m(angle, bearing) + bow, cut.height_m).x()
        paint_reading(c.painter, QPointF(at, level), c.palette, left_out=left_out)


def _edge_spread(c: Canvas, s: Surveyed, facing: Facing, off_deg: float) -> tuple[float, bool]:
    """Spread of the crown edge nearest to a side of the page, and whether it is the one that hurts most."""
    path = f"tree.crown.readings.{c.shapes.tree(facing).nearest_edge(off_deg)}.radius_m"
    return s.spread(path), s.worst == path
