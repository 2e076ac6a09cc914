"""A standing tree as it looks from one side, true to scale: stem, branches by its habit, crown; no numbers."""

from __future__ import annotations

import math

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPainterPath, QPolygonF

from ....core.base.frozen import dataclass
from ....core.base.polygon import Array
from ....core.practice.look import PERSON_M
from ..palette import Palette, fill, font, pen
from ..scale import Scale
from ..shapes import Facing, TreeShapes

Align = Qt.AlignmentFlag
POLE_M = 4.0
"""The pole that is leaned against nothing, for scale, where nobody stands beside it."""
TUFTS = 34
"""Bumps round a broadleaf's crown; a conifer's edge has a tooth for every whorl."""
ROUGH = 0.09
"""How far they stand out, as a share of the crown's half width there."""
BRANCH_DEG = {"conifer": 78.0, "ring-porous": 48.0}
"""From the stem's upward line: conifers' go out level, ring-porous broadleaves' (oak, ash, chestnut) stiffly aslant."""
STEEP_DEG = 36.0
"""Of all others."""
BRANCHES = 12
"""Drawn up a crown."""
STROKE_PX2 = 260.0
"""Pixels of a crown to a short stroke, as of leaves or needles."""


@dataclass(frozen=True, slots=True)
class Sketch:
    """What is drawn of a tree.

    Attributes:
        shapes, facing: the tree and from where it is seen.
        seed: of its raggedness, the same at every painting; beside: ``person``, ``pole`` or nothing for scale.
        sway_deg: how far the wind bends its crown to the right.
    """

    shapes: TreeShapes
    facing: Facing
    seed: int
    beside: str = "person"
    sway_deg: float = 0.0


def sketch_scale(box: QRectF, sketches: tuple[Sketch, ...]) -> float:
    """Pixels in a metre at which every one of them fits into a box: the same for all, so that they compare."""
    wide = max(_reach_m(each) for each in sketches)
    tall = max(each.shapes.result.case.tree.height_m for each in sketches)
    return min(box.width() / (2 * wide + 2.0), box.height() / (tall * 1.04))


def _reach_m(sketch: Sketch) -> float:
    low, high = sketch.shapes.crown_reach_m
    return max(abs(low), abs(high), abs(sketch.shapes.top_m), 2.5)


def paint_sketch(painter: QPainter, box: QRectF, sketch: Sketch, px_per_m: float, palette: Palette) -> None:
    """Paint it on its ground, its butt in the middle of the box."""
    scale = Scale(px_per_m, QPointF(box.center().x(), box.bottom()))
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    random = np.random.default_rng(sketch.seed)
    _ground(painter, box, palette)
    crown = _swayed(sketch, sketch.shapes.crown)
    edge = _edge(scale, crown, random, toothed=_is_conifer(sketch))
    _leaves(painter, edge, random, palette)
    for side in (-1.0, 1.0):
        if _is_dead(sketch, side):
            _bare(painter, (box, edge), side, palette)
    for stem in (sketch.shapes.second_stem, sketch.shapes.stem):
        _stem(painter, scale, _swayed_axis(sketch, stem), palette)
    painter.save()
    painter.setClipPath(edge)
    _branches(painter, scale, (sketch, crown), random, palette)
    painter.restore()
    _limbs(painter, scale, sketch, palette)
    _beside(painter, scale, sketch, palette)


def _swayed(sketch: Sketch, points: Array) -> Array:
    """Points bent over by the wind: as the square of their height."""
    tall = sketch.shapes.result.case.tree.height_m
    by = math.tan(math.radians(sketch.sway_deg)) * np.clip(points[:, 1], 0.0, None) ** 2 / tall
    return np.column_stack([points[:, 0] + by, points[:, 1]])


Axis = tuple[tuple[float, float, float], ...]


def _swayed_axis(sketch: Sketch, axis: Axis) -> Axis:
    if not axis:
        return ()
    rows = np.array(axis)
    moved = _swayed(sketch, rows[:, :2])
    return tuple(zip(moved[:, 0].tolist(), moved[:, 1].tolist(), rows[:, 2].tolist(), strict=True))


def _ground(painter: QPainter, box: QRectF, palette: Palette) -> None:
    painter.setPen(pen(palette.ink, 1.6))
    painter.drawLine(box.bottomLeft(), box.bottomRight())
    painter.setPen(pen(palette.line, 1.0))
    for x in range(round(box.left()), round(box.right()) - 8, 14):
        painter.drawLine(QPointF(x + 8, box.bottom()), QPointF(x, box.bottom() + 8))


def _is_conifer(sketch: Sketch) -> bool:
    return sketch.shapes.result.case.wood.group == "conifer"


def _leaves(painter: QPainter, edge: QPainterPath, random: np.random.Generator, palette: Palette) -> None:
    """The crown, ragged as its kind is, with short strokes inside as of leaves or needles."""
    painter.setPen(pen(palette.quiet, 1.1))
    painter.setBrush(fill(palette.paper))
    painter.drawPath(edge)
    painter.save()
    painter.setClipPath(edge)
    painter.setPen(pen(palette.line, 1.0))
    room = edge.boundingRect()
    for _ in range(int(room.width() * room.height() / STROKE_PX2)):
        across, down = random.uniform(0.0, 1.0, 2).tolist()
        point = QPointF(room.left() + across * room.width(), room.top() + down * room.height())
        long, turn = 2.0 + 3.0 * float(random.random()), float(random.uniform(0.0, math.pi))
        reach = QPointF(long * math.cos(turn), long * math.sin(turn))
        painter.drawLine(point - reach, point + reach)
    painter.restore()


def _is_dead(sketch: Sketch, side: float) -> bool:
    """Whether the crown is dead towards the right (1) or the left (-1) of the page."""
    reading = sketch.shapes.nearest_edge(0.0 if side > 0 else 180.0)
    return sketch.shapes.result.case.tree.crown.readings[reading].state != "live"


def _bare(painter: QPainter, drawn: tuple[QRectF, QPainterPath], side: float, palette: Palette) -> None:
    """Dead: no leaf on that side of the stem, its branches bare against the sky."""
    box, edge = drawn
    middle = box.center().x()
    half = (
        QRectF(middle, box.top(), box.width(), box.height())
        if side > 0
        else QRectF(middle - box.width(), box.top(), box.width(), box.height())
    )
    painter.save()
    painter.setClipRect(half)
    painter.setPen(pen(palette.line, 1.2, Qt.PenStyle.DotLine))
    painter.setBrush(fill(palette.sheet))
    painter.drawPath(edge)
    painter.restore()


def _edge(scale: Scale, crown: Array, random: np.random.Generator, *, toothed: bool) -> QPainterPath:
    """The outline as its kind has it: round tufts of a broadleaf, the tips of a conifer's whorls."""
    pixels = scale.side(crown)
    steps = np.hypot(*np.diff(pixels, axis=0, append=pixels[:1]).T)
    around = np.concatenate([[0.0], np.cumsum(steps)])
    closed = np.vstack([pixels, pixels[:1]])
    at = np.linspace(0.0, around[-1], TUFTS + 1)[:-1] + random.uniform(-0.25, 0.25, TUFTS) * around[-1] / TUFTS
    points = np.column_stack([np.interp(at, around, closed[:, axis], period=around[-1]) for axis in (0, 1)])
    middle = points.mean(axis=0)
    if toothed:
        # Between two whorls the edge steps back towards the stem.
        points[1::2] = middle + (points[1::2] - middle) * np.array([1.0 - 2.2 * ROUGH, 1.0])
    path = QPainterPath(QPointF(*points[0].tolist()))
    for one, other in zip(points, np.roll(points, -1, axis=0), strict=True):
        half = (one + other) / 2
        out = (
            half
            + (half - middle) / max(float(np.hypot(*(half - middle))), 1e-6) * float(np.hypot(*(other - one))) * 0.42
        )
        if toothed:
            path.lineTo(QPointF(*other.tolist()))
        else:
            path.quadTo(QPointF(*out.tolist()), QPointF(*other.tolist()))
    path.closeSubpath()
    return path


def _stem(painter: QPainter, scale: Scale, axis: Axis, palette: Palette) -> None:
    if not axis:
        return
    least = 0.8 / scale.px_per_m
    left = [scale.point(x - max(r, least), h) for x, h, r in axis]
    right = [scale.point(x + max(r, least), h) for x, h, r in axis]
    painter.setPen(pen(palette.bark, 1.0))
    painter.setBrush(fill(palette.bark))
    painter.drawPolygon(QPolygonF([*left, *reversed(right)]))


def _branches(
    painter: QPainter, scale: Scale, drawn: tuple[Sketch, Array], random: np.random.Generator, palette: Palette
) -> None:
    """Branches from the stem to the crown's edge, at the angle of their kind."""
    sketch, crown = drawn
    tree, case = sketch.shapes.result.case.tree, sketch.shapes.result.case
    rows = np.array(_swayed_axis(sketch, sketch.shapes.stem))
    half = len(crown) // 2
    right, left = crown[:half], crown[half:][::-1]
    steep = math.radians(90.0 - BRANCH_DEG.get(case.wood.group, STEEP_DEG))
    base, long = tree.crown.base_m, tree.height_m - tree.crown.base_m
    for number in range(BRANCHES):
        for edge in (left, right):
            # No two whorls or forks stand alike: begun, reaching and rising each a little at random.
            begins_at = base - 0.04 * long + 0.84 * long * (number + float(random.uniform(0.1, 0.9))) / BRANCHES
            rise = steep * float(random.uniform(0.75, 1.2))
            start = float(np.interp(begins_at, rows[:, 1], rows[:, 0]))
            ends_at = begins_at
            for _ in range(3):
                out = float(np.interp(ends_at, edge[:, 1], edge[:, 0]))
                ends_at = min(begins_at + abs(out - start) * math.tan(rise), tree.height_m * 0.985)
            share = float(random.uniform(0.6, 0.95))
            end = start + (out - start) * share, begins_at + (ends_at - begins_at) * share
            thick = max(0.05 * (1.0 - number / BRANCHES) * scale.px_per_m, 1.0)
            _branch(painter, scale, ((start, begins_at), end), random, (thick, palette))


def _branch(
    painter: QPainter,
    scale: Scale,
    ends: tuple[tuple[float, float], tuple[float, float]],
    random: np.random.Generator,
    look: tuple[float, Palette],
) -> None:
    """One branch, bowed, with some twigs on it."""
    thick, palette = look
    start, end = (scale.point(*each) for each in ends)
    along = end - start
    bow = QPointF(along.y(), -along.x()) * (0.10 if along.x() < 0 else -0.10) * float(random.uniform(0.3, 1.5))
    middle = (start + end) / 2 + bow
    path = QPainterPath(start)
    path.quadTo(middle, end)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setPen(pen(palette.bark, thick))
    painter.drawPath(path)
    painter.setPen(pen(palette.bark, max(thick * 0.4, 0.8)))
    for share in (0.45, 0.65, 0.85):
        at = path.pointAtPercent(share)
        for side in (-1.0, 1.0):
            turn = math.radians(side * float(random.uniform(25.0, 50.0)))
            reach = along * float(random.uniform(0.12, 0.25))
            twig = QPointF(
                reach.x() * math.cos(turn) - reach.y() * math.sin(turn),
                reach.x() * math.sin(turn) + reach.y() * math.cos(turn),
            )
            painter.drawLine(at, at + twig)


def _limbs(painter: QPainter, scale: Scale, sketch: Sketch, palette: Palette) -> None:
    for start, end, height, diameter in sketch.shapes.limbs:
        painter.setPen(pen(palette.bark, max(diameter * scale.px_per_m, 2.0)))
        painter.drawLine(scale.point(start, height), scale.point(end, height))


def _beside(painter: QPainter, scale: Scale, sketch: Sketch, palette: Palette) -> None:
    """A person or a pole at the foot, for scale."""
    trunk = sketch.shapes.result.case.tree.trunk.diameter_m
    at = -(trunk / 2 + 0.9)
    painter.setPen(pen(palette.ink, 1.6))
    painter.setBrush(fill(palette.ink))
    if sketch.beside == "pole":
        for metre in range(int(POLE_M)):
            painter.setPen(pen(palette.ink if metre % 2 else palette.load, 3.0))
            painter.drawLine(scale.point(at, float(metre)), scale.point(at, metre + 1.0))
        return
    if sketch.beside != "person":
        return
    head = max(0.11 * scale.px_per_m, 1.4)
    painter.drawEllipse(scale.point(at, PERSON_M - 0.11), head, head)
    painter.setPen(pen(palette.ink, max(0.16 * scale.px_per_m, 1.6)))
    painter.drawLine(scale.point(at, PERSON_M - 0.25), scale.point(at, 0.8))
    painter.setPen(pen(palette.ink, max(0.10 * scale.px_per_m, 1.2)))
    for aside in (-0.16, 0.16):
        painter.drawLine(scale.point(at, 0.85), scale.point(at + aside, 0.0))
        painter.drawLine(scale.point(at, PERSON_M - 0.35), scale.point(at + 2 * aside, 0.85))


def paint_title(painter: QPainter, at: QPointF, text: str, palette: Palette) -> None:
    """From where a drawing is seen."""
    painter.setFont(font(13, strong=True, narrow=True))
    painter.setPen(pen(palette.ink))
    painter.drawText(at, text)
