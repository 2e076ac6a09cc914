"""The two drawings of the Cut step, from above and from the side, at one scale."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QWidget

from ....core.base.levels import Group
from ....job.language import tr
from ...drawing.curve_painter import paint_curve
from ...drawing.layout import RING_GAP, Layout, plan_layout, side_layout
from ...drawing.palette import font, pen
from ...drawing.plan_painter import paint_design, paint_plan, paint_ring_fan, paint_standing
from ...drawing.scale import Scale
from ...drawing.side_painter import paint_side, shown_height_m
from ...drawing.tape_painter import paint_tape, tape_rows
from ...frame.drawing_view import DrawingView, caption
from ...frame.field_layer import FIELD_SIZE
from ...frame.painted import PaintedView
from ...frame.store import Snapshot, Store

CAPTION = 26
"""Height of a drawing's title."""
TAPE_PX = 164
"""Height of the table of tape marks: its rows stand closer where there are many."""
CURVE_FROM_PX = 380
"""A lower view has no room for the curve of use: Fall shows it too."""
UNDER_FLOOR = 22.0
"""Below the end of the face's floor: its handle, and paper."""
CAPTIONS_PX = 150.0
"""Width of what stands under the title."""
LABELS = FIELD_SIZE[0] + 16
"""Room for the dimensions beside the ring."""
BESIDE = FIELD_SIZE[0] + 34 + 10 + 56
"""Room beside the stump in the side view: labels, height line, and the wedge sticking out behind."""


def by_hand(snapshot: Snapshot) -> str:
    """Whose hand the likely tops go by, where it is not the shipped one's."""
    hand = snapshot.job.hand
    return tr(" from your {count} stumps", count=hand.count) if hand.used else ""


def bark_radius_m(snapshot: Snapshot) -> float:
    """Outermost bark from the pith."""
    return snapshot.result.parts.section.reach_m


class PlanView(DrawingView):
    """The stump from above; it sets the scale of both."""

    side: SideView
    has_own_sheet = True
    tells_of = (Group.HINGE, Group.WEDGE, Group.BAR, Group.DECAY)
    captions = (QRectF(0, 0, CAPTIONS_PX, 60),)

    def px_per_m(self, snapshot: Snapshot) -> float:
        """The scale at which the ring and its labels fill the view."""
        across = self.width() / 2 - LABELS - RING_GAP
        beside = (self.side.width() - BESIDE) / 2
        tall = (self.height() - CAPTION - 2 * RING_GAP - 76 - 44) / 2
        fits = min(across, tall, beside) / bark_radius_m(snapshot)
        return max(min(fits, self.side.most_px_per_m(snapshot)), 40.0 / bark_radius_m(snapshot))

    def scale_for(self, snapshot: Snapshot) -> Scale:
        """Ring in the middle."""
        scale = self.px_per_m(snapshot)
        ring = bark_radius_m(snapshot) * scale + RING_GAP
        free = self.height() - CAPTION - 2 * ring - 120
        return Scale(scale, QPointF(self.width() / 2, CAPTION + 60 + ring + max(free, 0) / 2))

    def layout_for(self, snapshot: Snapshot, scale: Scale) -> Layout:
        """As on paper."""
        return plan_layout(snapshot.result, scale)

    def paint(self, painter: QPainter, snapshot: Snapshot, scale: Scale) -> None:
        """Stump and caption."""
        canvas = self.canvas(painter, snapshot)
        if painter.device() is self:
            # Ring and wood stay as they are in most drags.
            painter.drawPixmap(0, 0, self.layers.painted("standing", (snapshot.result.parts.section,), paint_standing))
            paint_design(canvas)
        else:
            paint_plan(canvas)
        if snapshot.fan is not None:
            paint_ring_fan(canvas, snapshot.fan)
        section = snapshot.result.parts.section
        caption(painter, self, tr("Stump from above"))
        painter.setFont(font(12, narrow=True))
        painter.setPen(pen(self.palette_in_use.quiet))
        show = snapshot.speech.show
        painter.drawText(QPointF(12, 38), tr("wood {depth_m} along the lay", depth_m=show(section.depth_m, "length")))
        if snapshot.fan is not None:
            painter.drawText(QPointF(12, 54), tr("on the ring: likely tops ~{by_hand}", by_hand=by_hand(snapshot)))


class TapeView(PaintedView):
    """The tape marks as a table."""

    tells_of = (Group.FACE, Group.HINGE)

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self._rows: list[tuple[str, str, str]] = []
        # As tall for every form of cut: the drawings stay where they are while one looks through the forms.
        self.setFixedHeight(TAPE_PX)
        self.setAccessibleName(tr("Tape round the bark from the lay mark"))

    def refresh(self, snapshot: Snapshot) -> None:
        """Paint anew where a row reads otherwise: in most of a drag none does."""
        rows = tape_rows(snapshot.result.tape_marks, snapshot.speech)
        if rows != self._rows:
            self._rows = rows
            self.update()

    def draw(self, painter: QPainter) -> None:
        """The table."""
        snapshot, box = self.store.snapshot, QRectF(self.rect()).adjusted(12, 6, -4, -2)
        paint_tape(painter, box, snapshot.result.tape_marks, snapshot.speech, self.palette_in_use)


class SideView(DrawingView):
    """The stump from its right side, at the scale of the plan, with the hinge-use curve below it."""

    plan: PlanView
    tells_of = (Group.FACE, Group.SPLIT, Group.BALANCE)

    def curve_box(self) -> QRectF:
        """Where the hinge-use curve lies."""
        tall = min(max(self.height() * 0.27, 120), 190) if self.height() >= CURVE_FROM_PX else 0.0
        return QRectF(12, self.height() - tall - 4, self.width() - 24, tall)

    def scale_for(self, snapshot: Snapshot) -> Scale:
        """Same scale as the plan; the ground at the bottom, or broken off when the cut is high."""
        scale = self.plan.scale_now.px_per_m / self.plan.viewport.zoom
        section, cut = snapshot.result.parts.section, snapshot.result.case.cut
        back = float(section.bark[:, 0].min()) * scale
        width = float(section.bark[:, 0].max()) * scale - back
        left = max((self.width() - width - 34 - FIELD_SIZE[0] - 10) * 0.7, 40)
        bottom = self.bottom() - 14
        top = CAPTION + 20 + (shown_height_m(snapshot.result) - cut.height_m) * scale
        low = max(snapshot.result.parts.face.floor_drop_m * scale + UNDER_FLOOR, 40.0)
        level = min(max(bottom - cut.height_m * scale, top), bottom - low)
        return Scale(scale, QPointF(left - back, level + cut.height_m * scale))

    def most_px_per_m(self, snapshot: Snapshot) -> float:
        """The largest scale at which stem and face, from its roof to the end of its floor, have their room."""
        tall_m = shown_height_m(snapshot.result) - snapshot.plan.cut.height_m
        drop_m = snapshot.result.parts.face.floor_drop_m
        room = self.bottom() - 14 - CAPTION - 20 - UNDER_FLOOR
        return max(room, 1.0) / max(tall_m + drop_m, 1e-3)

    def bottom(self) -> float:
        """Lowest place for the stump."""
        return self.curve_box().top() - 8

    def layout_for(self, snapshot: Snapshot, scale: Scale) -> Layout:
        """As on paper."""
        return side_layout(snapshot.result, scale, self.bottom() - 12)

    def paint(self, painter: QPainter, snapshot: Snapshot, scale: Scale) -> None:
        """Stump, caption, curve."""
        paint_side(self.canvas(painter, snapshot, self.bottom() - 12))
        caption(painter, self, tr("Stump from its right side"))
        if self.curve_box().height() > 0:
            paint_curve(painter, self.curve_box(), snapshot.result, snapshot.speech, self.palette_in_use)
