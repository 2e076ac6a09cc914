"""The falling tree from its side, over the real ground: ghosts of it on the way down, and where it is now."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt

from ....core.base.quantity import Kind
from ....core.fall.nominal import NominalFall
from ....core.fall.trace import UPRIGHT, Pose
from ....job.language import tr
from ..canvas import Canvas
from ..ground.profile_painter import paint_ground
from ..labels import about
from ..marks import paint_measure
from ..palette import fill, font, pen
from ..scale import Scale, polygon
from ..words import Word, paint_words, placed_words

STEPS_S = (0.1, 0.2, 0.25, 0.5, 1.0, 2.0, 5.0)
"""Times between two ghosts, of which the first that gives few enough is taken."""
MOST_GHOSTS = 12
"""More cannot be told apart where the top is fast."""
BARS_M = (1.0, 2.0, 5.0, 10.0, 20.0)
"""Lengths of the bar that says how large everything is: the longest that takes no more than its share of the width."""
BAR_SHARE = 0.3
PATH_POINTS = 40
"""Points of the path of the top; at full width a segment is a few pixels long."""
TOLD_AT = 0.62
"""How far up the stem the words about the hinge stand."""


def strobe_scale(width: float, height: float, tree_m: float, low_m: float) -> Scale:
    """One scale for both axes: the upright tree and its whole length along the ground."""
    left, head, foot, right = 0.16 * tree_m, 34.0, 22.0, 0.08 * tree_m
    px = min((width - 16) / (tree_m + left + right), (height - head - foot) / (tree_m + max(-low_m, 0.0) + 0.6))
    return Scale(px, QPointF(8 + left * px, height - foot - max(-low_m, 0.0) * px - 0.3 * px))


def ghost_times(fall: NominalFall) -> tuple[float, tuple[float, ...]]:
    """(seconds between two ghosts, when they stand): equal times, so that speed is seen as distance."""
    whole_s = fall.trace.time_at(math.radians(fall.end_deg))
    step = next((step for step in STEPS_S if whole_s / step <= MOST_GHOSTS), STEPS_S[-1])
    return step, tuple(step * number for number in range(min(int(whole_s / step), MOST_GHOSTS) + 1))


def paint_strobe(c: Canvas, box: QRectF, fall: NominalFall, pose: Pose, kept: Pose | None = None) -> None:
    """Ground, neighbours, ghosts, the path of the top, the tree as it is now; another design's stem dashed."""
    paint_ground(c, c.scale, box)
    words = _neighbours(c)
    _path(c, fall)
    step, times = ghost_times(fall)
    _tree(c, UPRIGHT, strong=False)
    for time in times:
        _tree(c, fall.trace.pose_at(time), strong=False)
    if kept is not None:
        _stem(c, kept)
    _tree(c, pose, strong=True)
    words += _lets_go(c, fall)
    told = _scale_told(c, box, step)
    paint_words(c.painter, placed_words(words, [*c.taken, told], c.page))


def _scale_told(c: Canvas, box: QRectF, step_s: float) -> QRectF:
    """A bar of a round length, and what else the drawing means; returns where that stands."""
    length = max((m for m in BARS_M if m * c.scale.px_per_m <= BAR_SHARE * box.width()), default=BARS_M[0])
    text = tr(
        "{length}, up as along · a ghost each {step_s:g} s", length=c.speech.show(length, Kind.SPAN), step_s=step_s
    )
    c.painter.setFont(font(12, narrow=True))
    wide, px = c.painter.fontMetrics().horizontalAdvance(text) + 8, length * c.scale.px_per_m
    at = QRectF(box.left() + 6, box.bottom() - 22, px + wide + 12, 20)
    c.painter.fillRect(at, fill(c.palette.sheet))
    c.painter.setPen(pen(c.palette.ink, 1.4))
    left, level = at.left() + 4, at.center().y()
    paint_measure(c.painter, QPointF(left, level), QPointF(left + px, level), 4)
    c.painter.setPen(pen(c.palette.quiet))
    c.painter.drawText(at.adjusted(px + 12, 0, 0, 0), Qt.AlignmentFlag.AlignVCenter, text)
    return at


def _neighbours(c: Canvas) -> list[Word]:
    """Neighbours the crown may touch on this lay, as upright outlines; returns their names."""
    found = []
    for other in c.shapes.fallen.neighbours:
        along, foot = other.along_m, other.foot_m
        top = c.scale.point(along - other.radius_m, foot + other.height_m)
        bottom = c.scale.point(along + other.radius_m, foot + max(other.base_m, 0.3))
        c.painter.setPen(pen(c.palette.quiet, 1.2, Qt.PenStyle.DashLine))
        c.painter.setBrush(Qt.BrushStyle.NoBrush)
        c.painter.drawRoundedRect(QRectF(top, bottom), 8, 8)
        c.painter.drawLine(c.scale.point(along, foot), c.scale.point(along, foot + other.base_m))
        if other.name:
            middle = (bottom.x() + top.x()) / 2
            ups = (max(top.y() - 12, 36.0), top.y() + 14, (top.y() + bottom.y()) / 2, bottom.y() - 14)
            places = tuple(QPointF(middle + aside, up) for up in ups for aside in (0.0, -30.0, 30.0))
            found.append(Word(other.name, places, c.palette.ink, c.palette.sheet))
    return found


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


def _lets_go(c: Canvas, fall: NominalFall) -> list[Word]:
    """Where the hinge lets go, as a line up the stem; returns the words for it."""
    trace, broke = fall.trace, fall.hinge_broke_at_deg
    if broke < fall.end_deg - 0.5:
        pose = trace.pose_at(trace.time_at(math.radians(broke)))
        (tip,) = c.scale.side(c.shapes.fallen.on_stem(pose, TOLD_AT)).tolist()
        at = QPointF(*tip)
        c.painter.setPen(pen(c.palette.load, 2.0))
        c.painter.drawLine(c.scale.point(0.0, c.result.case.cut.height_m), at)
        why = c.speech.named("lets_go_by", fall.hinge_broke_by)
        text = f"{c.speech.say('[hinge] lets go')}, {c.speech.show(broke, Kind.ANGLE)}: {why}"
        word = Word(text, (), c.palette.ink, c.palette.sheet)
        return [replace(word, middles=about(at, word.box_size, 6.0))]
    return []


def contact_words(fall: NominalFall) -> str:
    """What the tree meets first, as a person says it."""
    what, _, name = fall.first_contact.partition(": ")
    if what == "neighbour":
        return tr("hangs in {name}", name=name)
    if what == "obstacle":
        return tr("on {name} first", name=name)
    return tr("{what} first", what=tr("lower stem") if name == "butt" else tr(name)) if name else tr(what)
