"""The section at the cut as it was sounded, probed and taped."""

from __future__ import annotations

from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QFontMetricsF

from ....core.base.quantity import Kind
from ....core.tree.soundness import SOUNDS
from ....job.language import tr
from ..canvas import Canvas
from ..marks import paint_arrow, paint_north, paint_word
from ..palette import fill, font, pen
from ..plan_words import OFF, UNSOUNDED
from ..scale import polygon, towards
from .brackets import paint_bracket, paint_centre, paint_reading
from .surveyed import Surveyed

SOUND_GAP = 9.0
"""Bark to the first stroke of a sounding, in pixels."""
DEFECT_SIGNS = {
    "bracket": tr("bracket"),
    "crack": tr("crack"),
    "wound": tr("wound"),
    "stain": tr("stain"),
    "metal": tr("metal"),
}


def paint_butt(c: Canvas, surveyed: Surveyed) -> None:
    """Paint the section."""
    section, lay = c.result.parts.section, c.result.case.cut.gun_deg
    c.painter.setPen(c.outline("bark", 1.2))
    c.painter.setBrush(fill(c.palette.bark))
    c.painter.drawPolygon(polygon(c.scale.plan(c.stump.bark)))
    c.painter.setBrush(fill(c.palette.sapwood))
    c.painter.setPen(pen(c.palette.bark, 0.8))
    c.painter.drawPolygon(polygon(c.scale.plan(c.stump.wood)))
    if section.round_bark is not section.bark:
        c.painter.setBrush(Qt.BrushStyle.NoBrush)
        c.painter.setPen(pen(c.palette.quiet, 1.0, Qt.PenStyle.DotLine))
        c.painter.drawPolygon(polygon(c.scale.plan(section.round_bark)))
    _design(c)
    _rot(c)
    _probes(c, surveyed)
    _sounds(c)
    _defects(c)
    _centre(c, surveyed)
    c.painter.setPen(pen(c.palette.lay, 2.0))
    front = c.scale.point(0, float(section.bark[:, 0].max()))
    paint_arrow(c.painter, front - QPointF(0, 4), front - QPointF(0, 26), 9)
    paint_north(c.painter, QPointF(26, 62), lay, c.palette)


def _design(c: Canvas) -> None:
    """Face and hinge as thin lines, to see what they would stand in."""
    c.painter.setBrush(Qt.BrushStyle.NoBrush)
    c.painter.setPen(pen(c.palette.quiet, 1.0, Qt.PenStyle.DashLine))
    c.painter.drawPolygon(polygon(c.scale.plan(c.stump.notch)))
    c.painter.setPen(c.outline("hinge", 1.4))
    c.painter.drawPolygon(polygon(c.scale.plan(c.shapes.butt.hinge)))


def _rot(c: Canvas) -> None:
    section = c.result.parts.section
    if len(section.rot):
        shape = c.scale.plan(section.rot)
        c.painter.setPen(c.outline("rot", 1.5, c.palette.rot, Qt.PenStyle.DashLine))
        c.painter.setBrush(Qt.BrushStyle.NoBrush)
        c.painter.drawPolygon(polygon(shape))
        c.hatch(shape, c.palette.rot, 7, cross=True)
    elif section.shell_ratio is None:
        paint_word(c.painter, c.scale.point(0, -0.3 * section.diameter_m / 2), UNSOUNDED, c.palette)


def _probes(c: Canvas, s: Surveyed) -> None:
    """Each probe hole: the sound part of it as a line in from the bark, its end bracketed."""
    tree, lay = c.result.case.tree, c.result.case.cut.gun_deg
    if tree.decay.kind != "shell":
        return
    for index, (probe, edge) in enumerate(zip(tree.decay.shell, c.shapes.butt.probe_edges_m, strict=True)):
        out = towards(probe.bearing_deg - lay)
        path = f"tree.decay.shell.{index}.sound_m"
        start, end = (c.scale.origin + out * (r * c.scale.px_per_m) for r in (edge, max(edge - probe.sound_m, 0.0)))
        c.painter.setPen(pen(c.palette.ink, 2.0))
        c.painter.drawLine(start, end)
        paint_bracket(c.painter, end, out, s.spread(path) * c.scale.px_per_m, c.palette, worst=s.worst == path)
        aside = QPointF(-out.y(), out.x()) * 8
        for value, left_out in s.readings.get(path, ()):
            there = c.scale.origin + out * ((edge - value) * c.scale.px_per_m) + aside
            paint_reading(c.painter, there, c.palette, left_out=left_out)


def _sounds(c: Canvas) -> None:
    """How each side sounded: one, two or three strokes beside the bark; a word where it is not sound."""
    lay = c.result.case.cut.gun_deg
    for each, edge_m in zip(c.result.case.tree.decay.soundings, c.shapes.butt.sound_edges_m, strict=True):
        out, edge = towards(each.bearing_deg - lay), edge_m * c.scale.px_per_m
        aside = QPointF(-out.y(), out.x())
        strokes = {"sound": 1, "dull": 2, "hollow": 3, "unknown": 0}[each.sound]
        c.painter.setPen(pen(c.palette.ink if strokes < 2 else c.palette.load, 1.6))
        for stroke in range(strokes):
            at = c.scale.origin + out * (edge + SOUND_GAP + 4 * stroke)
            c.painter.drawLine(at - aside * 7, at + aside * 7)
        if strokes == 0:
            c.painter.setBrush(Qt.BrushStyle.NoBrush)
            c.painter.drawEllipse(c.scale.origin + out * (edge + SOUND_GAP), 3, 3)
        if strokes > 1:
            _word(c, c.scale.origin + out * (edge + SOUND_GAP + 26), tr(SOUNDS[each.sound]))


def _defects(c: Canvas) -> None:
    """Defects beside their side of the bark, with the height at which they were seen."""
    lay = c.result.case.cut.gun_deg
    for each, edge_m in zip(c.result.case.tree.defects, c.shapes.butt.defect_edges_m, strict=True):
        out, edge = towards(each.bearing_deg - lay), edge_m * c.scale.px_per_m
        at = c.scale.origin + out * (edge + 6)
        c.painter.setPen(pen(c.palette.load, 2.0))
        c.painter.drawLine(c.scale.origin + out * (edge - 8), at)
        c.painter.setBrush(fill(c.palette.load))
        c.painter.drawEllipse(at, 3.5, 3.5)
        text = tr(
            "{sign} {height_m} up", sign=DEFECT_SIGNS[each.kind], height_m=c.speech.show(each.height_m, Kind.SPAN)
        )
        _word(c, at + out * 16 + QPointF(0, 14), text)


def _centre(c: Canvas, s: Surveyed) -> None:
    """The centre of mass dropped onto the stump, with the ellipse of its spread: side weight seen from above."""
    centre, px = s.centre, c.scale.px_per_m
    at = c.scale.point(-centre.left_m, centre.forward_m)
    view = c.painter.viewport()
    inside = QPointF(min(max(at.x(), 14.0), view.width() - 14.0), min(max(at.y(), 40.0), view.height() - 60.0))
    half = (centre.long_m * px, centre.short_m * px) if inside == at else (0.0, 0.0)
    paint_centre(c.painter, inside, (half, 90.0 + centre.turn_deg), c.palette, hot=c.mark == "centre")
    if inside != at:
        paint_word(c.painter, inside + QPointF(0, 18), OFF, c.palette)


def _word(c: Canvas, at: QPointF, text: str) -> None:
    """A word beside the bark, kept inside the drawing."""
    half = QFontMetricsF(font(12, narrow=True)).horizontalAdvance(text) / 2 + 5
    inside = min(max(at.x(), half), c.painter.viewport().width() - half)
    paint_word(c.painter, QPointF(inside, at.y()), text, c.palette)
