"""The drawings of the Stages step: the row of small states, the large one, and the curves with their slider."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter
from PySide6.QtWidgets import QSizePolicy, QWidget

from ....job.language import tr
from ...drawing.marks import paint_arrow, paint_level, paint_slip
from ...drawing.palette import font, pen
from ...drawing.shapes.solid import Solid, solid_of
from ...drawing.stage_painter import paint_passes, paint_stage, paint_wedges, stage_scale
from ...drawing.sweep_painter import chart_box, paint_sweep
from ...frame.painted import PaintedView
from .walk import Walk, level_at

Align = Qt.AlignmentFlag
OUT_m = 2e-3
"""Ahead of the apex by less than this is on its line."""
SMALL = 92.0
"""Height of a small drawing in the row of states, in pixels."""


def solid_at(walk: Walk) -> Solid:
    """The stump in the round at the depth that is looked at."""
    holds, apex_m = walk.holds, walk.result.parts.face.apex_forward_m
    # The face is out once nothing ahead of the apex holds any more.
    is_out = all(float(outline[:, 0].max()) <= apex_m + OUT_m for outline in holds if len(outline))
    return solid_of(walk.result, holds, face_cut=is_out, wedged=walk.wedges_in)


class StageRow(PaintedView):
    """Every standing state in a row; a click or an arrow key goes to it.

    Signals:
        picked: number of a state, 0 the uncut tree.
    """

    picked = Signal(int)

    def __init__(self, walk: Walk, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.walk = walk
        self.setFixedHeight(int(SMALL) + 44)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Standing states in their order"))

    def box(self, number: int) -> QRectF:
        """Where a state is drawn."""
        width = min(self.width() / max(len(self.walk.stages), 1), 150.0)
        return QRectF(number * width + 6, 4, width - 12, SMALL + 36)

    def draw(self, painter: QPainter) -> None:
        """Small drawings with their names and signs."""
        for number, stage in enumerate(self.walk.stages):
            box, hot = self.box(number), number == self.walk.number
            painter.setPen(pen(self.palette_in_use.focus if hot else self.palette_in_use.line, 2.4 if hot else 1.0))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(box)
            drawn = QRectF(box.left(), box.top() + 4, box.width(), SMALL - 8)
            scale = stage_scale(self.walk.result, drawn)
            paint_stage(painter, self.walk.result, scale, self.walk.outlines[number], self.palette_in_use, fine=False)
            paint_level(painter, QPointF(box.left() + 13, box.bottom() - 13), 6, level_at(stage), self.palette_in_use)
            if self.walk.played is not None and number == self.walk.made_at:
                paint_slip(painter, box.topRight() + QPointF(-14, 14), 6, self.palette_in_use)
            painter.setPen(pen(self.palette_in_use.ink))
            self._name(painter, QRectF(box.left() + 24, box.bottom() - 24, box.width() - 28, 22), number)

    def _name(self, painter: QPainter, room: QRectF, number: int) -> None:
        """The state's name, in narrower letters where the vocabulary's words are long."""
        title, hot = self.walk.title(number), number == self.walk.number
        painter.setFont(font(13, strong=hot))
        if painter.fontMetrics().horizontalAdvance(title) > room.width():
            painter.setFont(font(13, strong=hot, narrow=True))
        shown = painter.fontMetrics().elidedText(title, Qt.TextElideMode.ElideRight, int(room.width()))
        painter.drawText(room, Align.AlignLeft | Align.AlignVCenter, shown)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Go to the state under the pointer."""
        self.setFocus()
        for number in range(len(self.walk.stages)):
            if self.box(number).contains(event.position()):
                self.picked.emit(number)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Arrow keys go on and back."""
        step = {Qt.Key.Key_Right: 1, Qt.Key.Key_Left: -1}.get(Qt.Key(event.key()), 0)
        if step:
            self.picked.emit(min(max(self.walk.number + step, 0), len(self.walk.stages) - 1))
        else:
            super().keyPressEvent(event)


class StageView(PaintedView):
    """The large drawing: what holds at the depth that is looked at, the bar's passes, wedges, the lay."""

    def __init__(self, walk: Walk, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.walk = walk
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)
        self.setAccessibleName(tr("Wood that still holds, from above"))

    def draw(self, painter: QPainter) -> None:
        """The state, with the passes of a back cut and the wedges once they are in."""
        walk, palette = self.walk, self.palette_in_use
        box = QRectF(self.rect()).adjusted(10, 44, -10, -22)
        scale = stage_scale(walk.result, box)
        paint_stage(painter, walk.result, scale, walk.holds, palette, fine=True)
        if walk.wedges_in:
            paint_wedges(painter, walk.result, scale, palette)
        if walk.part == "back":
            paint_passes(painter, scale, walk.passes.passes, palette)
        front = walk.result.parts.section.front_m
        painter.setPen(pen(palette.lay, 2.6))
        start = scale.point(0, front * 0.62)
        paint_arrow(painter, start, QPointF(start.x(), 30), 11)
        painter.setPen(pen(palette.ink))
        painter.setFont(font(14, strong=True))
        painter.drawText(QPointF(12, 20), tr("Wood that still holds"))
        painter.setFont(font(12, narrow=True))
        painter.setPen(pen(palette.quiet))
        told = tr("dashed, with numbers: passes of the bar")
        if painter.fontMetrics().horizontalAdvance(told) > self.width() - 24:
            told = tr("dashed: passes of the bar")
        painter.drawText(QRectF(0, self.height() - 20, self.width() - 12, 18), Align.AlignRight, told)


class SweepView(PaintedView):
    """The curves; dragged or with the arrow keys one goes through the continuous depth.

    Signals:
        moved: progress, 0 to 1.
    """

    moved = Signal(float)

    def __init__(self, walk: Walk, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.walk = walk
        self.setFixedHeight(188)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Margins through the depth of the cut"))

    def draw(self, painter: QPainter) -> None:
        """The chart."""
        titles = tuple(self.walk.title(number) for number in range(1, len(self.walk.stages)))
        box = QRectF(self.rect())
        paint_sweep(painter, box, self.walk.sweep, titles, self.walk.progress, self.palette_in_use)

    def _go(self, x: float) -> None:
        chart = chart_box(QRectF(self.rect()))
        self.moved.emit(min(max((x - chart.left()) / chart.width(), 0.0), 1.0))

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Go to the depth under the pointer."""
        self.setFocus()
        self._go(event.position().x())

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """Drag through the depth."""
        if event.buttons() & Qt.MouseButton.LeftButton:
            self._go(event.position().x())

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """A little deeper, a little back; ten times as far with Shift."""
        step = {Qt.Key.Key_Right: 0.005, Qt.Key.Key_Left: -0.005}.get(Qt.Key(event.key()), 0.0)
        if step:
            far = 10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
            self.moved.emit(min(max(self.walk.progress + far * step, 0.0), 1.0))
        else:
            super().keyPressEvent(event)
