"""The drawing of a case: a tree from two sides, a stump from above, cut through and in the round."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QSizePolicy, QWidget

from ....core.assess import Assessment
from ....core.base.polygon import Array
from ....core.practice.look import PERSON_M
from ....core.practice.skills import Task
from ....job.language import tr
from ....job.practice_case import SetCase
from ....job.practice_terms import PARTS
from ....job.words import Speech
from ...drawing.marks import paint_word
from ...drawing.palette import Palette, pen
from ...drawing.practice.stump_sketch import paint_stump_above, paint_stump_side
from ...drawing.practice.tree_sketch import Sketch, paint_sketch, paint_title, sketch_scale
from ...drawing.round_painter import Look, Projection, paint_round
from ...drawing.shapes import ACROSS, ALONG, Shapes, TreeShapes
from ...drawing.shapes.solid import Solid, solid_of
from ...frame.round_view import TurnedView

BESIDE = {1: "pole", 2: "person", 3: "person"}
"""Level -> who stands beside a tree, for scale."""
SWAY_DEG = {1: 0.0, 2: 0.0, 3: 2.0}
"""Level -> how far the wind bends a crown."""
HEAD_PX = 26.0
"""Above a drawing stands from where it is seen."""
SIDES = (tr("from the south, looking north"), tr("from the east, looking west"))
VIEWS = (tr("from above"), tr("cut through along the lay"), tr("in the round: drag to turn it"))


class CaseView(TurnedView):
    """Shows the case that is asked; a stump in the round is turned by dragging or by the arrow keys.

    Args:
        speech: how the person is spoken to.
    """

    def __init__(self, speech: Callable[[], Speech], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._speech = speech
        self.case: SetCase | None = None
        self.result: Assessment | None = None
        self.truth: list[str] = []
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)
        self.setAccessibleName(tr("The case"))

    def show_case(self, case: SetCase, result: Assessment) -> None:
        """Another case, or the same with another cut."""
        if self.case is None or case.seed != self.case.seed or case.asks != self.case.asks:
            self.look = Look()
        self.case, self.result, self.truth = case, result, []
        self.setAccessibleDescription(
            tr("A drawing to be judged by eye: {task}, level {level}.", task=case.task, level=case.level)
        )
        self.update()

    def show_truth(self, marks: list[str]) -> None:
        """The truth over the answer."""
        self.truth = marks
        self.update()

    def draw(self, painter: QPainter) -> None:
        """The case by its sort."""
        if self.case is None or self.result is None:
            return
        box = QRectF(self.rect()).adjusted(14, 8, -14, -18)
        paint_case(painter, box, (self.case, self.result), self.palette_in_use, look=self.look, truth=self.truth)


Case = tuple[SetCase, Assessment]


def paint_case(
    painter: QPainter,
    box: QRectF,
    case: Case,
    palette: Palette,
    *,
    look: Look | None = None,
    truth: list[str] | None = None,
) -> None:
    """Paint a case: on the screen, or on a sheet."""
    kept, _ = case
    if kept.task == Task.LOOK:
        _trees(painter, box, case, palette, truth or [])
    elif kept.task == Task.CUT:
        half = box.width() * 0.42
        _trees(painter, QRectF(box.left(), box.top(), half, box.height()), case, palette, [])
        _stumps(painter, box.adjusted(half + 20, 0, 0, 0), case, palette, look or Look())
    else:
        _stumps(painter, box, case, palette, look or Look())


def sketches_of(case: Case) -> tuple[Sketch, ...]:
    """Both views of a tree."""
    kept, result = case
    beside, sway = BESIDE[kept.level], SWAY_DEG[kept.level]
    seed = kept.seed or 1
    return tuple(Sketch(TreeShapes(result, facing), facing, seed, beside, sway) for facing in (ACROSS, ALONG))


def fallen_solid(shapes: Shapes) -> Solid:
    """The stump in the round once the tree is down: what held it, no wedges."""
    strap = () if shapes.stump_coarse.strap is None else (shapes.stump_coarse.strap,)
    return solid_of(shapes.result, (*shapes.stump_coarse.hinge, *strap), face_cut=True, wedged=False)


def _trees(painter: QPainter, box: QRectF, case: Case, palette: Palette, truth: list[str]) -> None:
    sketches = sketches_of(case)
    half = box.width() / 2
    boxes = [QRectF(box.left() + half * n + 4, box.top() + HEAD_PX, half - 8, box.height() - HEAD_PX) for n in (0, 1)]
    px = sketch_scale(boxes[0], sketches)
    for place, sketch, title in zip(boxes, sketches, SIDES, strict=True):
        paint_sketch(painter, place, sketch, px, palette)
        paint_title(painter, QPointF(place.left(), box.top() + 14), title, palette)
    if truth:
        _plumb(painter, boxes, sketches, px, palette)
        for row, words in enumerate(truth):
            paint_word(painter, QPointF(box.center().x(), boxes[0].top() + 12 + 20 * row), words, palette)


def _plumb(painter: QPainter, boxes: list[QRectF], sketches: tuple[Sketch, ...], px: float, palette: Palette) -> None:
    """The truth over both views: upright over the butt, the line of its stem, and its height in persons."""
    for place, sketch in zip(boxes, sketches, strict=True):
        tall = sketch.shapes.result.case.tree.height_m
        foot = QPointF(place.center().x(), place.bottom())
        painter.setPen(pen(palette.lay, 1.4, Qt.PenStyle.DashLine))
        painter.drawLine(foot, foot - QPointF(0.0, tall * px))
        mass = sketch.shapes.result.parts.mass
        weight = sketch.facing.right_m(mass.com_forward_m, mass.com_left_m)
        at = foot + QPointF(weight * px, -(mass.com_up_m + sketch.shapes.result.case.cut.height_m) * px)
        painter.setPen(pen(palette.load, 2.0))
        painter.drawLine(at - QPointF(7, 0), at + QPointF(7, 0))
        painter.drawLine(at - QPointF(0, 7), at + QPointF(0, 7))
        painter.setPen(pen(palette.wedge, 1.2))
        for times in range(1, int(tall / PERSON_M) + 1):
            y = place.bottom() - times * PERSON_M * px
            painter.drawLine(QPointF(place.left(), y), QPointF(place.left() + (12 if times % 5 == 0 else 6), y))


def _stumps(painter: QPainter, box: QRectF, case: Case, palette: Palette, look: Look) -> None:
    kept, result = case
    shapes = Shapes(result)
    # A stump that is read has no wedges in it any more.
    solid = shapes.solid if kept.task != Task.STUMP else fallen_solid(shapes)
    top = box.height() * 0.5
    across = box.width() / 2
    titles = [QPointF(box.left(), box.top() + 14), QPointF(box.left() + across, box.top() + 14)]
    above = QRectF(box.left(), box.top() + HEAD_PX, across - 12, top - HEAD_PX - 8)
    beside = QRectF(box.left() + across + 10, box.top() + HEAD_PX, across - 20, top - HEAD_PX - 8)
    rounded = QRectF(box.left(), box.top() + top + HEAD_PX, box.width(), box.height() - top - HEAD_PX)
    paint_stump_above(painter, above, shapes, palette)
    paint_stump_side(painter, beside, result, palette)
    paint_round(painter, rounded, solid, look, palette)
    for at, title in zip([*titles, QPointF(box.left(), box.top() + top + 14)], VIEWS, strict=True):
        paint_title(painter, at, title, palette)
    how, _, term = kept.word.partition(":")
    if how == "part" and PARTS[term] in shapes.solid.places:
        _pointed(painter, rounded, (Projection(shapes.solid, look, rounded), shapes.solid.places[PARTS[term]]), palette)


def _pointed(painter: QPainter, box: QRectF, at: tuple[Projection, Array], palette: Palette) -> None:
    """A line from a question mark to the part that is asked for."""
    to, place = at
    end, start = to.point(place), QPointF(box.right() - 60, box.top() + 30)
    painter.setPen(pen(palette.load, 2.0))
    painter.drawLine(start, end)
    painter.drawEllipse(end, 4, 4)
    paint_word(painter, start, "?", palette, 1.4)
