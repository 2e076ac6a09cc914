"""The whole tree from the side, to scale: stem, crown, limbs, centre of mass and the hinge under it."""

from __future__ import annotations

import math

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPolygonF

from ....core.assess import Assessment
from ....core.base.frames import half_turn_deg, rotated, to_tree
from ....core.base.polygon import Array
from ....core.base.quantity import Kind
from ....core.tree.crown import crown_outline
from ..canvas import Canvas
from ..marks import paint_arrow
from ..palette import fill, font, pen
from ..scale import polygon
from .brackets import paint_bracket, paint_centre, paint_reading
from .surveyed import ALONG, Facing, Surveyed, axis_right_all_m, axis_right_m, stem_radius_m

Align = Qt.AlignmentFlag
STEPS = 48


def crown_reach_m(result: Assessment, facing: Facing) -> tuple[float, float]:
    """Crown edge to the left and to the right on the page, from the pith at the cut."""
    case = result.case
    edge = rotated(crown_outline(case.tree.crown.readings), case.tree.crown.readings[0].bearing_deg, case.cut.gun_deg)
    across = edge[:, 0] if facing is ALONG else -edge[:, 1]
    base = axis_right_m(result, facing, 0.0)
    return float(across.min()) + base, float(across.max()) + base


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
    case = c.result.case
    left, right = crown_reach_m(c.result, facing)
    base, top = case.tree.crown.base_m, case.tree.height_m
    t = np.linspace(0.0, 1.0, STEPS)
    bulge = _bulge(t, case.wood.group == "conifer")
    heights = base + (top - base) * t
    axis = axis_right_all_m(c.result, facing, heights)
    across = np.concatenate([axis * (1 - bulge) + right * bulge, (axis * (1 - bulge) + left * bulge)[::-1]])
    outline = polygon(c.scale.side(np.column_stack([across, np.concatenate([heights, heights[::-1]])])))
    c.painter.setPen(c.outline("crown", 1.3, c.palette.quiet, Qt.PenStyle.DashLine))
    c.painter.setBrush(fill(c.palette.paper))
    c.painter.drawPolygon(outline)


def _bulge(t: Array, is_conifer: bool) -> Array:
    """Share of the way from axis to edge at each share of the crown's length: a sketch, not a measurement."""
    if is_conifer:
        low: Array = np.minimum(t / 0.12, 1.0) * (1 - t) ** 0.9 / 0.88**0.9
        return np.clip(low, 0.0, 1.0)
    below, above = np.clip(t / 0.4, 0, 1), np.clip((t - 0.4) / 0.6, 0, 1)
    round_off: Array = np.where(t < 0.4, np.sqrt(1 - (1 - below) ** 2), np.sqrt(1 - above**2))
    return round_off


def _stems(c: Canvas, facing: Facing) -> None:
    tree = c.result.case.tree
    heights = np.concatenate([np.linspace(0.0, min(1.6, tree.height_m / 3), 8), np.linspace(1.7, tree.height_m, 14)])
    heights = heights[heights <= tree.height_m]
    at = axis_right_all_m(c.result, facing, heights).tolist()
    axis = [(x, h, stem_radius_m(c.result, h)) for x, h in zip(at, heights.tolist(), strict=True)]
    if tree.fork.kind == "second":
        _second_stem(c, facing)
    _tapered(c, axis)


def _second_stem(c: Canvas, facing: Facing) -> None:
    fork, lay = c.result.case.tree.fork, c.result.case.cut.gun_deg
    start = axis_right_m(c.result, facing, fork.height_m)
    lean = math.tan(math.radians(fork.lean_deg))
    steps = [
        (
            start + facing.right_m(*to_tree(fork.bearing_deg, lean * up, lay)),
            fork.height_m + up,
            fork.diameter_m / 2 * (1 - up / (fork.top_m - fork.height_m)),
        )
        for up in np.linspace(0.0, fork.top_m - fork.height_m, 8).tolist()
    ]
    _tapered(c, steps)


def _tapered(c: Canvas, axis: list[tuple[float, float, float]]) -> None:
    """A stem by (right, height, radius) along its axis; never thinner than can be seen."""
    least = 0.8 / c.scale.px_per_m
    left = [c.scale.point(x - max(r, least), h) for x, h, r in axis]
    right = [c.scale.point(x + max(r, least), h) for x, h, r in axis]
    c.painter.setPen(c.outline("stem", 1.0, c.palette.bark))
    c.painter.setBrush(fill(c.palette.sapwood))
    c.painter.drawPolygon(QPolygonF([*left, *reversed(right)]))


def _limbs(c: Canvas, facing: Facing) -> None:
    lay = c.result.case.cut.gun_deg
    for limb in c.result.case.tree.limbs:
        start = axis_right_m(c.result, facing, limb.height_m)
        out = facing.right_m(*to_tree(limb.bearing_deg, limb.length_m, lay))
        c.painter.setPen(pen(c.palette.bark, max(limb.diameter_m * c.scale.px_per_m, 2.5)))
        c.painter.drawLine(c.scale.point(start, limb.height_m), c.scale.point(start + out, limb.height_m))


def _hinge(c: Canvas, facing: Facing, surveyed: Surveyed) -> None:
    """The cut, the hinge in it, and the plumb line from the centre of mass down beside it."""
    parts, cut = c.result.parts, c.result.case.cut
    centre = surveyed.centre
    hinge = parts.hinge.outline
    ends = [facing.right_m(*point) for point in hinge.tolist()] or [0.0]
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
    left, right = c.scale.point(min(ends), cut.height_m), c.scale.point(max(ends), cut.height_m)
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
        off, side = balance.ahead_m, "ahead of" if balance.ahead_m >= 0 else "behind"
    else:
        off, side = balance.left_m, "left of" if balance.left_m >= 0 else "right of"
    text = c.speech.say(f"weight {c.speech.show(abs(off), Kind.LENGTH)} {side} the [hinge]")
    if c.result.case.tree.stand_ins:
        text = "where its weight is: not known"
    ground = c.scale.point(0, 0).y()
    width = c.painter.viewport().width()
    c.painter.setFont(font(13, strong=True, narrow=True))
    c.painter.setPen(pen(c.palette.load))
    middle = min(max(foot.x(), 100), width - 100)
    c.painter.drawText(QRectF(middle - 100, ground + 9, 200, 18), Align.AlignCenter, text)


def _brackets(c: Canvas, facing: Facing, s: Surveyed) -> None:
    """The spread of what is measured in this view, as brackets at its place."""
    tree, px = c.result.case.tree, c.scale.px_per_m
    top = c.scale.point(axis_right_m(c.result, facing, tree.height_m), tree.height_m)
    up, right = QPointF(0, -1), QPointF(1, 0)
    if facing is ALONG:
        beside = top - QPointF(16, 0)
        paint_bracket(
            c.painter, beside, up, s.spread("tree.height_m") * px, c.palette, worst=s.worst == "tree.height_m"
        )
        for value, left_out in s.readings.get("tree.height_m", ()):
            at = QPointF(beside.x() - 9, c.scale.point(0, value).y())
            paint_reading(c.painter, at, c.palette, left_out=left_out)
        base = c.scale.point(axis_right_m(c.result, facing, tree.crown.base_m), tree.crown.base_m)
        name = "tree.crown.base_m"
        paint_bracket(c.painter, base - QPointF(16, 0), up, s.spread(name) * px, c.palette, worst=s.worst == name)
    swing = math.radians(s.spread("tree.lean.angle_deg")) * tree.height_m * px
    worst = s.worst.startswith("tree.lean")
    paint_bracket(c.painter, top - QPointF(0, 12), right, swing, c.palette, worst=worst)
    _lean_readings(c, facing, s, top.y() - 24)
    low, high = crown_reach_m(c.result, facing)
    widest = tree.crown.base_m + (0.1 if c.result.case.wood.group == "conifer" else 0.4) * (
        tree.height_m - tree.crown.base_m
    )
    for edge, bearing in ((low, 180.0), (high, 0.0)):
        spread, is_worst = _edge_spread(c, s, facing, bearing)
        paint_bracket(c.painter, c.scale.point(edge, widest), right, spread * px, c.palette, worst=is_worst)


def _lean_readings(c: Canvas, facing: Facing, s: Surveyed, level: float) -> None:
    """Each lean reading as where it would put the top in this view, above the bracket."""
    tree, cut = c.result.case.tree, c.result.case.cut
    bow = axis_right_m(c.result, facing, tree.height_m) - _straight_m(
        c, facing, tree.lean.angle_deg, tree.lean.bearing_deg
    )
    for angle, bearing, left_out in s.leans:
        at = c.scale.point(_straight_m(c, facing, angle, bearing) + bow, cut.height_m).x()
        paint_reading(c.painter, QPointF(at, level), c.palette, left_out=left_out)


def _straight_m(c: Canvas, facing: Facing, angle_deg: float, bearing_deg: float) -> float:
    """Where a stem without sweep would have its top in this view."""
    case = c.result.case
    out = math.tan(math.radians(angle_deg)) * (case.tree.height_m - case.cut.height_m)
    return facing.right_m(*to_tree(bearing_deg, out, case.cut.gun_deg))


def _edge_spread(c: Canvas, s: Surveyed, facing: Facing, off_deg: float) -> tuple[float, bool]:
    """Spread of the crown edge nearest to a side of the page, and whether it is the one that hurts most."""
    wanted = c.result.case.cut.gun_deg + facing.bearing_off_deg + off_deg
    readings = c.result.case.tree.crown.readings
    nearest = min(range(len(readings)), key=lambda i: abs(half_turn_deg(readings[i].bearing_deg - wanted)))
    path = f"tree.crown.readings.{nearest}.radius_m"
    return s.spread(path), s.worst == path
