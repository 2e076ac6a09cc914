"""The site plan, north up the page, metres from the tree: grid, obstacles, kept-away zone, footprint, ways out."""

from __future__ import annotations

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPolygonF

from ....core.base.quantity import Kind
from ....core.site.site import Cost, Obstacle, Place
from ....core.site.ways_out import LENGTH_M, WayOut
from ....job.language import tr
from ..canvas import Canvas
from ..marks import paint_arrow
from ..palette import Palette, fill, font, pen
from ..scale import Scale, polygon, towards

Align = Qt.AlignmentFlag
STAND_DEG = 100.0
"""From the lay to where one stands for the back cut: beside the hinge and a little behind it."""
STEPS_M = (1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0)
"""Steps of the grid a person counts in; the first that leaves room between its lines is taken."""


def paint_grid(c: Canvas) -> None:
    """Lines every few metres from the tree, the step said in a corner."""
    view = c.painter.viewport()
    step = next((s for s in STEPS_M if s * c.scale.px_per_m >= 28), STEPS_M[-1])
    c.painter.setPen(pen(c.palette.line, 0.6))
    for index in range(-60, 61):
        x = c.scale.origin.x() + index * step * c.scale.px_per_m
        y = c.scale.origin.y() + index * step * c.scale.px_per_m
        if 0 <= x <= view.width():
            c.painter.drawLine(QPointF(x, 0), QPointF(x, view.height()))
        if 0 <= y <= view.height():
            c.painter.drawLine(QPointF(0, y), QPointF(view.width(), y))
    c.painter.setFont(font(12, narrow=True))
    c.painter.setPen(pen(c.palette.quiet))
    text = tr("grid {step} · north up", step=c.speech.show(step, Kind.SPAN))
    c.painter.drawText(QRectF(8, view.height() - 22, 200, 18), Align.AlignLeft, text)


def paint_ground(c: Canvas, picked: str) -> None:
    """What is drawn on the ground, whatever the lay."""
    paint_grid(c)
    paint_obstacles(c, picked)
    # Their heights step back until one of them is asked for.
    if picked.startswith("site.spots"):
        _spots(c)


def paint_lay(c: Canvas) -> None:
    """What this lay means there."""
    _zone(c)
    _crown(c)
    _footprint(c)
    _rope(c)
    _ways(c)
    _stand(c)
    c.painter.setPen(pen(c.palette.ink, 1.2))
    c.painter.setBrush(fill(c.palette.sapwood))
    c.painter.drawEllipse(c.scale.origin, 4, 4)


def paint_obstacles(c: Canvas, picked: str = "") -> None:
    """What stands and lies there."""
    for index, obstacle in enumerate(c.result.case.site.obstacles):
        _obstacle(c, obstacle, hot=picked == f"site.obstacles.{index}")


def on_page(c: Canvas, obstacle: Obstacle) -> list[QPointF]:
    """An obstacle's points on the page."""
    at = c.result.case.at
    return [c.scale.point(p.east_m - at.east_m, p.north_m - at.north_m) for p in obstacle.points]


def _zone(c: Canvas) -> None:
    """Where nobody else may be; longer downhill."""
    rim = [c.scale.origin + towards(b) * (distance * c.scale.px_per_m) for b, distance in c.shapes.site.kept_away]
    c.painter.setBrush(Qt.BrushStyle.NoBrush)
    c.painter.setPen(pen(c.palette.load, 1.2, Qt.PenStyle.DashDotLine))
    c.painter.drawPolygon(QPolygonF(rim))


def _obstacle(c: Canvas, obstacle: Obstacle, *, hot: bool) -> None:
    """Areas hatched, lines as wide as they are, spots as circles; dearer ones in the load's colour."""
    dear = obstacle.cost in ("matters", "never")
    colour = c.palette.focus if hot else c.palette.load if dear else c.palette.quiet
    points = on_page(c, obstacle)
    c.painter.setBrush(Qt.BrushStyle.NoBrush)
    if obstacle.shape == "area":
        shape = np.array([[p.x(), p.y()] for p in points])
        c.painter.setPen(pen(colour, 2.2 if hot else 1.6))
        c.painter.drawPolygon(polygon(shape))
        c.hatch(shape, colour, 6 if obstacle.cost == Cost.NEVER else 10, cross=obstacle.cost == Cost.NEVER)
    elif obstacle.shape == "line":
        # A pale band as wide as it is, and its middle as a line that says what it costs.
        c.painter.setPen(pen(c.palette.line, max(2 * obstacle.radius_m * c.scale.px_per_m, 2.0)))
        c.painter.drawPolyline(QPolygonF(points))
        style = Qt.PenStyle.DashLine if obstacle.kind in ("track", "wire") else Qt.PenStyle.SolidLine
        c.painter.setPen(pen(colour, 2.6 if hot else 1.8, style))
        c.painter.drawPolyline(QPolygonF(points))
    else:
        is_tree = obstacle.kind in ("tree", "save")
        radius = max(obstacle.radius_m * c.scale.px_per_m, 3.0)
        c.painter.setPen(pen(colour, 2.2 if hot else 1.4, Qt.PenStyle.DashLine if is_tree else Qt.PenStyle.SolidLine))
        c.painter.drawEllipse(points[0], radius, radius)
        if is_tree:
            c.painter.setBrush(fill(c.palette.bark))
            c.painter.drawEllipse(points[0], 3, 3)


def _spots(c: Canvas) -> None:
    """Spot heights as small numbers, over the ground at this tree's stump."""
    case = c.result.case
    c.painter.setFont(font(12, narrow=True))
    for spot, over in zip(case.site.spots, c.shapes.site.spots_over_m, strict=True):
        at = c.scale.point(spot.east_m - case.at.east_m, spot.north_m - case.at.north_m)
        if c.painter.viewport().contains(at.toPoint()):
            c.painter.setPen(pen(c.palette.quiet, 1.2))
            sign = "+" if over >= 0.05 else "−" if over <= -0.05 else ""
            text = f"{sign}{c.speech.show(abs(round(over, 1)), Kind.SPAN)}"
            c.painter.drawText(QRectF(at.x() + 9, at.y() - 8, 60, 16), Align.AlignLeft | Align.AlignVCenter, text)


def _rope(c: Canvas) -> None:
    """The line from the tree past the redirect to the anchor, the haul to whoever pulls, and their names."""
    case, rope = c.result.case, c.result.case.rope
    if rope.use != "set":
        return

    def page(place: Place) -> QPointF:
        return c.scale.point(place.east_m - case.at.east_m, place.north_m - case.at.north_m)

    anchor, hauler = page(rope.anchor), page(rope.hauler)
    line = [c.scale.origin, page(rope.corner), anchor] if rope.redirect == "set" else [c.scale.origin, anchor]
    c.painter.setBrush(Qt.BrushStyle.NoBrush)
    c.painter.setPen(c.outline("rope", 2.4, c.palette.wedge))
    c.painter.drawPolyline(QPolygonF(line))
    c.painter.setPen(c.outline("rope", 1.6, c.palette.wedge, Qt.PenStyle.DotLine))
    c.painter.drawLine(anchor, hauler)


def places_named(c: Canvas) -> list[tuple[str, QPointF]]:
    """What the lay brings with it, by name: the rope's places, both ways out, and where to stand."""
    case, rope = c.result.case, c.result.case.rope
    found = []
    if rope.use == "set":
        places = {tr("anchor"): rope.anchor, tr("hauler"): rope.hauler}
        places |= {tr("redirect"): rope.corner} if rope.redirect == "set" else {}
        for name, place in places.items():
            found.append((name, c.scale.point(place.east_m - case.at.east_m, place.north_m - case.at.north_m)))
    for way, name in zip(c.shapes.site.ways, (tr("way out left"), tr("way out right")), strict=True):
        found.append((name, way_end(c.scale, way)))
    return [*found, (tr("stand"), _stand_at(c))]


def _crown(c: Canvas) -> None:
    c.painter.setPen(pen(c.palette.lay, 1.2, Qt.PenStyle.DashLine))
    c.painter.setBrush(Qt.BrushStyle.NoBrush)
    c.painter.drawPolygon(polygon(c.scale.side(c.shapes.site.crown)))


def _footprint(c: Canvas) -> None:
    """The tree as it would lie: stem, crown, and how far off the lay it may come to rest."""
    site = c.shapes.site
    ahead = towards(c.result.case.cut.lay_deg)
    aside = QPointF(-ahead.y(), ahead.x())
    px = c.scale.px_per_m
    widths = list(zip(site.along_m.tolist(), site.half_m.tolist(), strict=True))
    right = [c.scale.origin + ahead * a * px + aside * h * px for a, h in widths]
    left = [c.scale.origin + ahead * a * px - aside * h * px for a, h in widths]
    c.painter.setPen(c.outline("lay", 1.8, c.palette.lay))
    c.painter.setBrush(Qt.BrushStyle.NoBrush)
    c.painter.drawPolygon(QPolygonF([*right, *reversed(left)]))
    c.painter.setPen(pen(c.palette.bark, 3.0))
    c.painter.drawLine(c.scale.origin, c.scale.origin + ahead * site.length_m * px)


def _ways(c: Canvas) -> None:
    """Both ways out, dashed; one that is barred ends in a cross where it is barred."""
    for way in c.shapes.site.ways:
        end = way_end(c.scale, way)
        c.painter.setPen(pen(c.palette.wedge, 2.2, Qt.PenStyle.DashLine))
        if way.free:
            paint_arrow(c.painter, c.scale.origin, end, 9)
            continue
        c.painter.drawLine(c.scale.origin, end)
        c.painter.setPen(pen(c.palette.load, 2.6))
        c.painter.drawLine(end + QPointF(-6, -6), end + QPointF(6, 6))
        c.painter.drawLine(end + QPointF(-6, 6), end + QPointF(6, -6))


def way_end(scale: Scale, way: WayOut) -> QPointF:
    """Where a way out ends, or where it is barred."""
    reach = (way.blocked_at_m if way.blocked_by is not None else LENGTH_M) * scale.px_per_m
    return scale.origin + towards(way.bearing_deg) * max(reach, 14)


def paint_aim(painter: QPainter, at: QPointF, palette: Palette) -> None:
    """Where the keys would draw something new."""
    painter.setPen(pen(palette.focus, 2.0))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawEllipse(at, 9.0, 9.0)
    for along in (QPointF(1, 0), QPointF(0, 1)):
        painter.drawLine(at - along * 18, at - along * 4)
        painter.drawLine(at + along * 4, at + along * 18)


def _stand_at(c: Canvas) -> QPointF:
    turn = c.result.case.cut.lay_deg + (STAND_DEG if c.shapes.site.stand == "right" else -STAND_DEG)
    return c.scale.origin + towards(turn) * 13


def _stand(c: Canvas) -> None:
    """On which side of the stump to stand for the back cut."""
    at = _stand_at(c)
    c.painter.setPen(pen(c.palette.sheet, 1.0))
    c.painter.setBrush(fill(c.palette.ink))
    c.painter.drawRect(QRectF(at.x() - 4, at.y() - 4, 8, 8))


def paint_wind(c: Canvas, at: QPointF) -> None:
    """The wind as an arrow beside the fields it is typed in, the way it blows."""
    site = c.result.case.site
    if site.wind_m_s is None:
        return
    along = towards(site.wind_from_deg + 180.0) * 15
    c.painter.setPen(pen(c.palette.wedge, 2.6))
    paint_arrow(c.painter, at - along, at + along, 10)
