"""Both drawings of the stump on the card, at one stated scale, and the stump in the round beside them."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter

from ....core.base.frozen import dataclass
from ....job.language import tr
from ...drawing.canvas import Canvas
from ...drawing.dimensions import paint_with_dimensions
from ...drawing.fitted import paint_fitted
from ...drawing.layout import plan_layout, ring_radius, side_layout
from ...drawing.palette import LIGHT, PRINTED, font, pen
from ...drawing.plan_painter import paint_plan
from ...drawing.round_painter import Look, paint_round
from ...drawing.scale import Scale
from ...drawing.side_painter import paint_side, shown_height_m
from ...frame.store import Snapshot
from .paper import PX_PER_MM, Paper

PX_PER_M = PX_PER_MM * 1000
SCALES = (1, 2, 2.5, 3, 4, 5, 6, 7.5, 10, 12, 15, 20, 25, 30, 40, 50)
"""Scales a person can measure with: 1 : N for these N."""
LEAST_ROUND_PX = 76.0
"""Smaller than two centimetres the stump in the round shows nothing."""
GAP, LABEL, BESIDE = 26.0, 70.0, 150.0
"""Bark to ring, room for labels beside the ring, and room beside the side view."""
OVER, UNDER = 50.0, 40.0
"""Room over and under the ring for lay and wedges, and over and under the side view."""
Align = Qt.AlignmentFlag


@dataclass(frozen=True, slots=True)
class Sizes:
    """What both drawings take up at a scale, in 1/96 inch.

    Attributes:
        ring: radius of the bearing ring of the plan.
        deep, tall: of the side view, labels left out.
    """

    ring: float
    deep: float
    tall: float

    def fits(self, paper: Paper, room_px: float) -> bool:
        """Whether the drawings have their room on this paper, in so much height, labels and all."""
        plan_wide, plan_tall = 2 * (self.ring + LABEL), 2 * self.ring + 2 * OVER
        side_wide, side_tall = self.deep + BESIDE, self.tall + UNDER
        if paper.beside:
            return plan_wide + side_wide <= paper.inner and max(plan_tall, side_tall) <= room_px
        return max(plan_wide, side_wide) <= paper.inner and plan_tall + side_tall <= room_px


def sizes_at(snapshot: Snapshot, n: float) -> Sizes:
    """Sizes of the drawings at 1 : n."""
    section, per_m = snapshot.result.parts.section, PX_PER_M / n
    deep = float(section.bark[:, 0].max() - section.bark[:, 0].min())
    tall = shown_height_m(snapshot.result) - snapshot.plan.cut.height_m + 0.6 * deep
    return Sizes(section.reach_m * per_m + GAP, deep * per_m, tall * per_m)


def drawing_scale(snapshot: Snapshot, paper: Paper, room_px: float) -> float:
    """N of the scale 1 : N at which both drawings fit: one of a few round numbers, so that it can be stated."""
    return next((n for n in SCALES if sizes_at(snapshot, n).fits(paper, room_px)), SCALES[-1])


def paint_drawings(painter: QPainter, snapshot: Snapshot, paper: Paper, box: QRectF) -> float:
    """Both drawings, with the dimensions as text where they are typed on the screen; returns where they end.

    Args:
        box: its top, and its height as far as the paper has no height of its own for them.
    """
    result, margin, top = snapshot.result, paper.margin_px, box.top()
    height = paper.drawings_px or box.height()
    n = drawing_scale(snapshot, paper, height)
    per_m = PX_PER_M / n
    ring = ring_radius(result, Scale(per_m, QPointF()), GAP)
    if paper.beside:
        plan_at = QPointF(margin + ring + LABEL, top + height / 2 + 8)
        side_top, side_left = top, margin + 2 * (ring + LABEL) + 30
    else:
        plan_at = QPointF(margin + paper.inner / 2, top + ring + OVER + 8)
        side_top, side_left = top + 2 * (ring + OVER), margin + UNDER
    wide = 2 * (ring + LABEL) + 20 if paper.beside else paper.inner
    # What is written on the plan does not run into the side view.
    _plan(painter, snapshot, Scale(per_m, plan_at), QRectF(margin, top, wide, 2 * (ring + OVER) + 16))
    _side(
        painter, snapshot, per_m, QRectF(side_left, side_top, paper.width - margin - side_left, top + height - side_top)
    )
    _captions(painter, paper, top, QPointF(side_left - 10, side_top), n)
    return top + height + 4


def _plan(painter: QPainter, snapshot: Snapshot, scale: Scale, page: QRectF) -> None:
    page.moveCenter(QPointF(page.center().x(), scale.origin.y()))
    above = Canvas(painter, snapshot.shapes, scale, snapshot.speech, PRINTED, size=0.95, gap=GAP, page=page)
    fields = plan_layout(snapshot.result, scale, GAP).fields
    paint_with_dimensions(paint_plan, above, fields)


def _side(painter: QPainter, snapshot: Snapshot, per_m: float, room: QRectF) -> None:
    """The side view at the foot of its room, the stump in the round over it or at its right."""
    result, cut_m = snapshot.result, snapshot.plan.cut.height_m
    bottom = room.bottom() - 14
    rear_m, front_m = float(result.parts.section.bark[:, 0].min()), float(result.parts.section.bark[:, 0].max())
    left = room.left() - rear_m * per_m
    level = max(bottom - cut_m * per_m, room.top() + 34 + (shown_height_m(result) - cut_m) * per_m)
    side = Scale(per_m, QPointF(left, level + cut_m * per_m))
    beside = Canvas(painter, snapshot.shapes, side, snapshot.speech, PRINTED, size=0.95, bottom_px=bottom)
    fields = side_layout(result, side, bottom, 20.0).fields
    paint_with_dimensions(paint_side, beside, fields)
    over = side.point(0, shown_height_m(result)).y() - 24
    right = left + front_m * per_m + BESIDE - UNDER
    for box in (
        QRectF(left, room.top() + 20, room.right() - left, over - room.top() - 20),
        QRectF(right, room.top(), room.right() - right, room.height() - 20),
    ):
        if min(box.height(), box.width()) >= LEAST_ROUND_PX:
            paint_round(painter, box, snapshot.shapes.solid, Look(), LIGHT)
            return


def _captions(painter: QPainter, paper: Paper, top: float, side_at: QPointF, n: float) -> None:
    whole = QRectF(paper.margin_px, top, paper.inner, 16)
    painter.setFont(font(12, narrow=True))
    painter.setPen(pen(LIGHT.quiet))
    painter.drawText(whole, Align.AlignLeft, tr("from above"))
    scale = (
        tr("true to scale 1 : {n:g} when printed at 100 %", n=n) if paper.written_on else tr("to scale 1 : {n:g}", n=n)
    )
    painter.drawText(whole, Align.AlignRight, scale)
    left = side_at.x() if paper.beside else whole.left()
    # Where both stand on one line, this one has what the scale leaves of it.
    ends = whole.right() - painter.fontMetrics().horizontalAdvance(scale) - 12 if paper.beside else whole.right()
    named = QRectF(left, side_at.y(), max(ends - left, 0.0), 16)
    paint_fitted(painter, named, Align.AlignLeft, tr("from its right side"))
