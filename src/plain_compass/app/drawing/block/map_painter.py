"""All trees on the ground, north up: crowns, lays, order numbers, what lies already, and who must come first."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import NamedTuple

from PySide6.QtCore import QPointF, QRectF, QSizeF, Qt
from PySide6.QtGui import QPainter, QPolygonF

from ....core.base.frozen import dataclass
from ....core.site.site import Obstacle
from ....job.language import tr
from ..marks import paint_arrow
from ..palette import Palette, fill, font, pen
from ..scale import Scale, towards

Align = Qt.AlignmentFlag
NUMBER_PX = 10.0
"""Radius of the disc with the number."""
STEPS_M = (5.0, 10.0, 20.0, 50.0, 100.0, 200.0)
"""Steps of the grid."""


@dataclass(frozen=True, slots=True)
class Drawn:
    """One tree on the map.

    Attributes:
        number: its place in the order; 0 where it has none.
        state: ``standing``, ``down``, or ``left`` where nothing is planned for it.
        lay_deg: None where it has no lay.
        zone: (bearing, metres) all round within which nobody else may be; ends_of_ways: where its ways out end.
        is_before: whether it lies by the time the picked one is felled.
        is_reached: whether it stands within where nobody may be then.
    """

    id: str
    east_m: float
    north_m: float
    crown_m: float
    length_m: float
    lay_deg: float | None
    number: int
    state: str
    is_stop: bool = False
    zone: tuple[tuple[float, float], ...] = ()
    ends_of_ways: tuple[tuple[float, float], ...] = ()
    is_before: bool = False
    is_reached: bool = False

    @property
    def lies(self) -> bool:
        """Whether it stands no more, now or by then."""
        return self.is_before or self.state in GONE


GONE = ("down", "over")
"""States in which a tree stands no more."""


class Look(NamedTuple):
    """The tree that is picked, the colours, and the size of what is painted on."""

    picked: str
    palette: Palette
    page: QSizeF


TITLE_PX = 44.0
"""Above this nothing is written: there stands the title."""
SIGNS = {"down": "×", "over": "×", "hung": "!", "off": "…"}
"""What stands in the disc of a tree that has no number."""


def map_scale(width: float, height: float, trees: Sequence[Drawn], beyond: float = 0.75) -> Scale:
    """All trees within the view, and so many lengths of the longest beyond them."""
    reach = [each.length_m for each in trees] or [10.0]
    east = [each.east_m for each in trees] or [0.0]
    north = [each.north_m for each in trees] or [0.0]
    room = beyond * max(reach)
    low_e, high_e, low_n, high_n = min(east) - room, max(east) + room, min(north) - room, max(north) + room
    px = min((width - 24) / (high_e - low_e), (height - 40) / (high_n - low_n))
    middle_e, middle_n = (low_e + high_e) / 2, (low_n + high_n) / 2
    return Scale(px, QPointF(width / 2 - middle_e * px, height / 2 + 8 + middle_n * px))


def paint_map(
    painter: QPainter,
    scale: Scale,
    ground: Sequence[Obstacle],
    trees: Sequence[Drawn],
    arrows: Sequence[tuple[str, str, bool]],
    look: Look,
) -> None:
    """Paint it.

    Args:
        arrows: (earlier, later, whether the order breaks it) of those that are to be shown.
    """
    chosen, palette, page = look
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    _grid(painter, scale, palette, page)
    for obstacle in ground:
        _obstacle(painter, scale, obstacle, look)
    by_id = {each.id: each for each in trees}
    for each in trees:
        if each.zone:
            _zone(painter, scale, each, palette, hot=each.id == chosen)
    for each in trees:
        _lies(painter, scale, each, palette, hot=each.id == chosen)
    for each in trees:
        _stands(painter, scale, each, palette, hot=each.id == chosen)
    for earlier, later, is_broken in arrows:
        _arrow(painter, scale, (by_id[earlier], by_id[later]), palette, is_broken)
    for each in trees:
        _number(painter, scale, each, palette, hot=each.id == chosen)


def paint_edges(
    painter: QPainter, scale: Scale, edges: Sequence[Sequence[tuple[float, float]]], palette: Palette
) -> None:
    """The edge of all zones together, in east and north."""
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setPen(pen(palette.load, 1.8, Qt.PenStyle.DashDotLine))
    for edge in edges:
        painter.drawPolygon(QPolygonF([scale.point(*at) for at in edge]))


def _grid(painter: QPainter, scale: Scale, palette: Palette, view: QSizeF) -> None:
    step = next((s for s in STEPS_M if s * scale.px_per_m >= 40), STEPS_M[-1])
    painter.setPen(pen(palette.line, 0.6))
    first_e, first_n = (math.floor(v / step) * step for v in scale.metres(QPointF(0, view.height())))
    for index in range(60):
        at = scale.point(first_e + index * step, first_n + index * step)
        if at.x() <= view.width():
            painter.drawLine(QPointF(at.x(), 0), QPointF(at.x(), view.height()))
        if at.y() >= 0:
            painter.drawLine(QPointF(0, at.y()), QPointF(view.width(), at.y()))
    painter.setFont(font(12, narrow=True))
    painter.setPen(pen(palette.quiet))
    painter.drawText(QPointF(10, view.height() - 8), tr("grid {step:g} m · north up", step=step))


def _obstacle(painter: QPainter, scale: Scale, obstacle: Obstacle, look: Look) -> None:
    palette = look.palette
    points = [scale.point(each.east_m, each.north_m) for each in obstacle.points]
    is_dear = obstacle.cost in ("never", "matters")
    painter.setPen(pen(palette.load if is_dear else palette.quiet, 1.4, Qt.PenStyle.DashLine))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    if obstacle.shape == "spot":
        radius = max(obstacle.radius_m * scale.px_per_m, 3.0)
        painter.drawEllipse(points[0], radius, radius)
    elif obstacle.shape == "area":
        painter.drawPolygon(QPolygonF(points))
    else:
        painter.drawPolyline(QPolygonF(points))
    if obstacle.name:
        painter.setFont(font(11, narrow=True))
        wide = painter.fontMetrics().horizontalAdvance(obstacle.name)
        # A line that begins out of sight is named at the edge where it comes in.
        near = min(max(points[0].x() + 4, 8.0), look.page.width() - wide - 8.0)
        line = _height_at(points, near)
        painter.drawText(QPointF(near, line - 4 if line > TITLE_PX else line + 13), obstacle.name)


def _height_at(points: Sequence[QPointF], x: float) -> float:
    """How far down a line of points is at a place across; that of its first point where it does not go there."""
    for one, other in pairwise(points):
        low, high = sorted((one, other), key=lambda each: each.x())
        if low.x() <= x <= high.x() and high.x() > low.x():
            return low.y() + (high.y() - low.y()) * (x - low.x()) / (high.x() - low.x())
    return points[0].y()


def _zone(painter: QPainter, scale: Scale, tree: Drawn, palette: Palette, *, hot: bool) -> None:
    """Where nobody else may be, and both ways out."""
    foot = scale.point(tree.east_m, tree.north_m)
    round_it = [foot + towards(bearing) * (far_m * scale.px_per_m) for bearing, far_m in tree.zone]
    is_hung = tree.state == "hung"
    painter.setBrush(fill(palette.load, Qt.BrushStyle.BDiagPattern) if is_hung else Qt.BrushStyle.NoBrush)
    painter.setPen(pen(palette.load if is_hung else palette.quiet, 1.6 if hot else 0.8, Qt.PenStyle.DotLine))
    painter.drawPolygon(QPolygonF(round_it))
    painter.setPen(pen(palette.ink, 3.0, Qt.PenStyle.DotLine))
    for east_m, north_m in tree.ends_of_ways:
        painter.drawLine(foot, scale.point(east_m, north_m))


def _lies(painter: QPainter, scale: Scale, tree: Drawn, palette: Palette, *, hot: bool) -> None:
    """The stem along its lay: dashed where it is still to fall, wood where it lies."""
    if tree.lay_deg is None:
        return
    foot = scale.point(tree.east_m, tree.north_m)
    top = foot + towards(tree.lay_deg) * (tree.length_m * scale.px_per_m)
    if tree.state == "hung":
        return
    if tree.lies:
        painter.setPen(pen(palette.bark, 4.0))
        painter.drawLine(foot, top)
        return
    if not tree.number:
        # Planned, but not in the order: quietly.
        painter.setPen(pen(palette.quiet, 1.0, Qt.PenStyle.DotLine))
        paint_arrow(painter, foot, top, 6)
        return
    colour = palette.load if tree.is_stop else palette.lay
    painter.setPen(pen(palette.focus if hot else colour, 2.4 if hot else 1.6, Qt.PenStyle.DashLine))
    paint_arrow(painter, foot, top, 9)


def _stands(painter: QPainter, scale: Scale, tree: Drawn, palette: Palette, *, hot: bool) -> None:
    if tree.lies:
        return
    at, radius = scale.point(tree.east_m, tree.north_m), tree.crown_m * scale.px_per_m
    painter.setPen(pen(palette.focus if hot else palette.quiet, 2.0 if hot else 1.0))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawEllipse(at, radius, radius)
    if tree.is_reached:
        painter.setPen(pen(palette.load, 1.6, Qt.PenStyle.DotLine))
        painter.drawEllipse(at, NUMBER_PX + 3, NUMBER_PX + 3)


def _arrow(painter: QPainter, scale: Scale, pair: tuple[Drawn, Drawn], palette: Palette, is_broken: bool) -> None:
    """From the one that comes first to the one that waits for it."""
    start, end = (scale.point(each.east_m, each.north_m) for each in pair)
    away = end - start
    long = math.hypot(away.x(), away.y()) or 1.0
    step = away * ((NUMBER_PX + 3) / long)
    painter.setPen(pen(palette.load if is_broken else palette.wedge, 2.0))
    paint_arrow(painter, start + step, end - step, 9)


def _number(painter: QPainter, scale: Scale, tree: Drawn, palette: Palette, *, hot: bool) -> None:
    at = scale.point(tree.east_m, tree.north_m)
    painter.setPen(pen(palette.focus if hot else palette.ink, 2.0 if hot else 1.2))
    painter.setBrush(fill(palette.sapwood if tree.lies else palette.sheet))
    painter.drawEllipse(at, NUMBER_PX, NUMBER_PX)
    painter.setPen(pen(palette.ink))
    painter.setFont(font(12, strong=True, narrow=True))
    box = QRectF(at.x() - 14, at.y() - 9, 28, 18)
    painter.drawText(box, Align.AlignCenter, str(tree.number) if tree.number else SIGNS.get(tree.state, "–"))
    painter.setFont(font(11, narrow=True))
    painter.drawText(QRectF(at.x() - 40, at.y() + NUMBER_PX, 80, 14), Align.AlignCenter, tree.id)
