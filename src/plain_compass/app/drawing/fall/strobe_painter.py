"""The falling tree from its side, over the real ground: ghosts of it on the way down, and where it is now."""

from __future__ import annotations

import math

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt

from ....core.base.quantity import Kind
from ....core.fall.nominal import NominalFall
from ....core.fall.trace import UPRIGHT, Pose
from ..canvas import Canvas
from ..ground.profile_painter import paint_ground
from ..marks import paint_word
from ..palette import fill, pen
from ..scale import Scale, polygon

GHOSTS_DEG = (0.0, 20.0, 40.0, 60.0, 80.0)
"""Tilts at which a ghost of the tree stands: evenly spread, few enough to tell apart."""
PATH_POINTS = 40
"""Points of the path of the top; at full width a segment is a few pixels long."""
TOLD_AT = 0.62
"""How far up the stem the words about the hinge stand."""


def strobe_scale(width: float, height: float, tree_m: float, low_m: float) -> Scale:
    """One scale for both axes: the upright tree and its whole length along the ground."""
    left, head, foot, right = 0.16 * tree_m, 34.0, 22.0, 0.08 * tree_m
    px = min((width - 16) / (tree_m + left + right), (height - head - foot) / (tree_m + max(-low_m, 0.0) + 0.6))
    return Scale(px, QPointF(8 + left * px, height - foot - max(-low_m, 0.0) * px - 0.3 * px))


def paint_strobe(c: Canvas, box: QRectF, fall: NominalFall, pose: Pose, kept: Pose | None = None) -> None:
    """Ground, neighbours, ghosts, the path of the top, the tree as it is now; another design's stem dashed."""
    paint_ground(c, c.scale, box)
    _neighbours(c)
    _path(c, fall)
    for tilt in GHOSTS_DEG:
        if tilt < fall.end_deg:
            at = fall.trace.pose_at(fall.trace.time_at(math.radians(tilt))) if tilt else UPRIGHT
            _tree(c, at, strong=False)
    if kept is not None:
        _stem(c, kept)
    _tree(c, pose, strong=True)
    _marks(c, fall)


def _neighbours(c: Canvas) -> None:
    """Neighbours the crown may touch on this lay, as upright outlines."""
    for other in c.shapes.fallen.neighbours:
        along, foot = other.along_m, other.foot_m
        top = c.scale.point(along - other.radius_m, foot + other.height_m)
        bottom = c.scale.point(along + other.radius_m, foot + max(other.base_m, 0.3))
        c.painter.setPen(pen(c.palette.quiet, 1.2, Qt.PenStyle.DashLine))
        c.painter.setBrush(Qt.BrushStyle.NoBrush)
        c.painter.drawRoundedRect(QRectF(top, bottom), 8, 8)
        c.painter.drawLine(c.scale.point(along, foot), c.scale.point(along, foot + other.base_m))
        if other.name:
            name = QPointF((bottom.x() + top.x()) / 2, max(top.y() - 9, 36.0))
            paint_word(c.painter, name, other.name, c.palette)


def _tree(c: Canvas, pose: Pose, *, strong: bool) -> None:
    """Stem and crown; ghosts in a thin line."""
    fallen = c.shapes.fallen
    crown, stem = (c.scale.side(fallen.placed(outline, pose)) for outline in (fallen.crown, fallen.stem))
    c.painter.setBrush(Qt.BrushStyle.NoBrush)
    if not strong:
        c.painter.setPen(pen(c.palette.line, 1.0))
        c.painter.drawPolygon(polygon(crown))
        c.painter.setPen(pen(c.palette.quiet, 0.8))
        c.painter.drawPolygon(polygon(stem))
        return
    c.painter.setPen(pen(c.palette.lay, 1.8))
    c.painter.drawPolygon(polygon(crown))
    c.hatch(crown, c.palette.lay, 14)
    c.painter.setPen(pen(c.palette.ink, 1.2))
    c.painter.setBrush(fill(c.palette.heart))
    c.painter.drawPolygon(polygon(stem))


def _stem(c: Canvas, pose: Pose) -> None:
    """The kept design's stem, dashed."""
    fallen = c.shapes.fallen
    ends = c.scale.side(np.vstack([fallen.on_stem(pose, 0.0), fallen.on_stem(pose)]))
    c.painter.setPen(pen(c.palette.wedge, 2.4, Qt.PenStyle.DashLine))
    c.painter.drawPolyline(polygon(ends))


def _path(c: Canvas, fall: NominalFall) -> None:
    """Where the top goes, up to where the fall ends."""
    trace = fall.trace
    times = np.linspace(0.0, trace.time_at(math.radians(fall.end_deg)), PATH_POINTS).tolist()
    tips = [c.scale.side(c.shapes.fallen.on_stem(trace.pose_at(t))) for t in times]
    c.painter.setPen(pen(c.palette.quiet, 1.0, Qt.PenStyle.DotLine))
    c.painter.setBrush(Qt.BrushStyle.NoBrush)
    c.painter.drawPolyline(polygon(np.vstack(tips)))


def _marks(c: Canvas, fall: NominalFall) -> None:
    """Where the hinge lets go, on the top's path; what ends the fall."""
    trace, broke = fall.trace, fall.hinge_broke_at_deg
    if broke < fall.end_deg - 0.5:
        pose = trace.pose_at(trace.time_at(math.radians(broke)))
        (tip,) = c.scale.side(c.shapes.fallen.on_stem(pose, TOLD_AT)).tolist()
        at = QPointF(*tip)
        c.painter.setPen(pen(c.palette.load, 2.0))
        c.painter.drawLine(c.scale.point(0.0, c.result.case.cut.height_m), at)
        why = c.speech.named("lets_go_by", fall.hinge_broke_by)
        text = f"{c.speech.say('[hinge] lets go')}, {c.speech.show(broke, Kind.ANGLE)}: {why}"
        paint_word(c.painter, at + QPointF(66, -10), text, c.palette)


def contact_words(fall: NominalFall) -> str:
    """What the tree meets first, as a person says it."""
    what, _, name = fall.first_contact.partition(": ")
    if what == "neighbour":
        return f"hangs in {name}"
    if what == "obstacle":
        return f"on {name} first"
    return f"{'lower stem' if name == 'butt' else name} first" if name else what
