"""The drawings of the Stump step: the stump as cut over its plan, and the ground with the tree where it lies."""

from __future__ import annotations

import math
from collections.abc import Mapping

from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QPainter

from ....core.base.frames import bearing_of, full_turn_deg
from ....core.base.levels import Group
from ....job.language import tr
from ...drawing.canvas import Canvas
from ...drawing.layout import RING_GAP, FieldPlace, Grip, Layout
from ...drawing.palette import fill, font, pen
from ...drawing.scale import Scale
from ...drawing.shapes.lies import lies_of
from ...drawing.side_painter import shown_height_m
from ...drawing.stump.as_cut_painter import paint_as_cut, paint_as_cut_side
from ...drawing.stump.lie_painter import lie_scale, paint_lie
from ...frame.drawing_view import DrawingView, caption
from ...frame.field_layer import FIELD_SIZE
from ...frame.store import Snapshot
from .layouts import read_plan_layout, read_side_layout

HEAD_PX = 26.0
"""Height of a drawing's title."""
STRIP_PX = 72.0
"""Over the ground: its title, and the place of the top typed."""
BESIDE_PX = FIELD_SIZE[0] + 16.0
"""Room for the dimensions beside the ring."""
TOP_PX = 50.0
"""Over the stem from its side: both steps are typed there."""
BY_HAND_M = 0.1
"""A place dragged is set to this: nobody paces more finely."""
LIES = (
    ("as_cut.top_deg", tr("top, bearing")),
    ("as_cut.top_m", tr("distance")),
    ("as_cut.beside_m", tr("or off the mark")),
)
"""What is typed over the ground, from left to right."""


class AsCutView(DrawingView):
    """The stump from above, as it was cut, its face up the page."""

    is_as_cut = True
    tells_of = (Group.HINGE, Group.FACE)
    captions = (QRectF(0, 0, 190, 42),)

    def scale_for(self, snapshot: Snapshot) -> Scale:
        """Ring in the middle."""
        reach = snapshot.result.parts.section.reach_m
        across = self.width() / 2 - BESIDE_PX - RING_GAP
        tall = (self.height() - HEAD_PX - 2 * RING_GAP - 62) / 2
        px = max(min(across, tall), 40.0) / reach
        return Scale(px, QPointF(self.width() / 2, HEAD_PX + 52 + RING_GAP + reach * px))

    def layout_for(self, snapshot: Snapshot, scale: Scale) -> Layout:
        """What was read, on what was cut."""
        return read_plan_layout(snapshot.as_cut.result, scale)

    def paint(self, painter: QPainter, snapshot: Snapshot, scale: Scale) -> None:
        """Stump, plan, caption."""
        paint_as_cut(self.canvas(painter, snapshot), snapshot.shapes)
        caption(painter, self, tr("As cut, from above"))
        painter.setFont(font(12, narrow=True))
        painter.setPen(pen(self.palette_in_use.lay))
        painter.drawText(QPointF(12, 37), tr("dashed: as planned"))


class AsCutSide(DrawingView):
    """The same from its right side."""

    is_as_cut = True
    tells_of = (Group.FACE, Group.SPLIT)
    captions = (QRectF(0, 0, 140, 26),)

    def scale_for(self, snapshot: Snapshot) -> Scale:
        """Stem and face between the title and the foot, the cut's height broken off where it is high."""
        result = snapshot.as_cut.result
        section, cut = result.parts.section, result.case.cut
        back, front = float(section.bark[:, 0].min()), float(section.bark[:, 0].max())
        tall_m = shown_height_m(result) - cut.height_m + result.parts.face.floor_drop_m
        px = max(min((self.height() - HEAD_PX - TOP_PX - 30) / tall_m, (self.width() - 90) / (front - back)), 30.0)
        top = HEAD_PX + TOP_PX + (shown_height_m(result) - cut.height_m) * px
        # Room ahead for the arrow of the lay.
        left = max((self.width() - (front - back) * px) / 2 - 18, 30.0)
        return Scale(px, QPointF(left - back * px, top + cut.height_m * px))

    def layout_for(self, snapshot: Snapshot, scale: Scale) -> Layout:
        """Steps and overcut."""
        return read_side_layout(snapshot.as_cut.result, scale, self.height() - 8, HEAD_PX + 32)

    def canvas(self, painter: QPainter, snapshot: Snapshot, bottom_px: float = 1e6) -> Canvas:
        """Broken off at the foot of the view."""
        return super().canvas(painter, snapshot, min(bottom_px, self.height() - 12))

    def paint(self, painter: QPainter, snapshot: Snapshot, scale: Scale) -> None:
        """Stump, plan, caption."""
        paint_as_cut_side(self.canvas(painter, snapshot), snapshot.shapes)
        caption(painter, self, tr("From its right side"))


class LieView(DrawingView):
    """The ground from above: the fan as it was told, and the tree where it lies; top and butt are dragged."""

    tells_of = (Group.LANDING,)
    captions = (QRectF(0, 0, 200, 26),)

    def scale_for(self, snapshot: Snapshot) -> Scale:
        """Most room where the tree goes."""
        plan = snapshot.plan
        return lie_scale(self.width(), STRIP_PX, self.height(), plan.tree.height_m, plan.cut.lay_deg)

    def layout_for(self, snapshot: Snapshot, scale: Scale) -> Layout:
        """The place of the top typed over the ground; top and butt as handles on it."""
        apart = self.width() / len(LIES)
        fields = tuple(
            FieldPlace(path, QPointF((number + 0.5) * apart, 52), "centre", tag)
            for number, (path, tag) in enumerate(LIES)
        )
        lies = lies_of(snapshot.result.case, snapshot.plan.as_cut)
        grips = (
            Grip("as_cut.top_deg", scale.point(*lies.top_m), _placed(tr("top")), tr("drag the top to where it lies")),
            Grip(
                "as_cut.butt_deg", scale.point(*lies.butt_m), _placed(tr("butt")), tr("drag the butt to where it lies")
            ),
        )
        return Layout(fields, grips)

    def paint(self, painter: QPainter, snapshot: Snapshot, scale: Scale) -> None:
        """Ground, fan, tree."""
        lies = lies_of(snapshot.result.case, snapshot.plan.as_cut)
        paint_lie(self.canvas(painter, snapshot), snapshot.fan, lies)
        painter.fillRect(QRectF(0, 0, self.width(), STRIP_PX), fill(self.palette_in_use.sheet))
        caption(painter, self, tr("Where it lies"))


class _placed:  # noqa: N801 - reads as a word where it is used
    """A drag of top or butt: its bearing and distance from the stump."""

    def __init__(self, end: str) -> None:
        self.end = end

    def __call__(self, right_m: float, up_m: float) -> Mapping[str, float]:
        away = round(math.hypot(right_m, up_m) / BY_HAND_M) * BY_HAND_M
        bearing = round(full_turn_deg(bearing_of(right_m, up_m)) * 2) / 2
        return {f"as_cut.{self.end}_deg": bearing, f"as_cut.{self.end}_m": round(away, 2)}
