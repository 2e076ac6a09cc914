"""The drawings of the Fall step: strobe from the side, fan from above, the hinge against tilt."""

from __future__ import annotations

import math

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter
from PySide6.QtWidgets import QSizePolicy, QWidget

from ....core.base.levels import Group
from ....job.language import tr
from ...drawing.canvas import Canvas
from ...drawing.curve_painter import plot_box
from ...drawing.fall.fan_painter import fan_scale, paint_fan, paint_fan_caption
from ...drawing.fall.strobe_painter import paint_strobe, strobe_scale
from ...drawing.fall.use_painter import TO_DEG, paint_use
from ...drawing.palette import fill, font, pen
from ...drawing.scale import Scale
from ...frame.painted import PaintedView
from ...frame.store import Store
from .playback import Playback

TITLE_PX = 210.0
"""Width of a title."""


class FallView(PaintedView):
    """Base: the drawing once the fall is reckoned, and a title.

    Signals:
        tilted: a tilt in degrees that was asked for by dragging or keys.
    """

    tilted = Signal(float)
    title = ""

    def __init__(self, store: Store, playback: Playback, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.playback = store, playback
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(self.title)

    def canvas(self, painter: QPainter, scale: Scale) -> Canvas:
        """What the painters are handed."""
        snapshot = self.store.snapshot
        page = QRectF(self.rect()).adjusted(4, 4, -4, -4)
        taken = (QRectF(0, 0, TITLE_PX, 26),)
        return Canvas(painter, snapshot.shapes, scale, snapshot.speech, self.palette_in_use, taken=taken, page=page)

    def fall(self, painter: QPainter) -> None:
        """The fall that is reckoned."""
        raise NotImplementedError

    def draw(self, painter: QPainter) -> None:
        """Fall and title."""
        if self.playback.now is not None:
            self.fall(painter)
        if not self.title:
            return
        painter.setFont(font(14, strong=True))
        box = QRectF(8, 4, painter.fontMetrics().horizontalAdvance(self.title) + 8, 21)
        painter.fillRect(box, fill(self.palette_in_use.sheet))
        painter.setPen(pen(self.palette_in_use.ink))
        painter.drawText(QPointF(12, 20), self.title)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """A degree on or back; ten with Shift."""
        step = {Qt.Key.Key_Right: 1.0, Qt.Key.Key_Left: -1.0}.get(Qt.Key(event.key()), 0.0)
        if step:
            far = 10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
            self.tilted.emit(self.playback.tilt_deg + far * step)
        else:
            super().keyPressEvent(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """To the tilt under the pointer."""
        self.setFocus()
        self._ask(event.position())

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """Drag the tilt."""
        if event.buttons() & Qt.MouseButton.LeftButton:
            self._ask(event.position())

    def _ask(self, at: QPointF) -> None:
        tilt = self.tilt_at(at)
        if tilt is not None:
            self.tilted.emit(tilt)

    def tilt_at(self, at: QPointF) -> float | None:
        """The tilt a place in the drawing stands for; None where it stands for none."""
        return None


class StrobeView(FallView):
    """From the side, across the lay; the tree is dragged by its stem."""

    title = tr("From the side, along the lay")
    tells_of = (Group.BALANCE, Group.HINGE, Group.LANDING)

    def scale_now(self) -> Scale:
        """The scale that holds the upright tree and its length."""
        case = self.store.snapshot.result.case
        return strobe_scale(self.width(), self.height(), case.tree.height_m, float(case.profile.top_m.min()))

    def fall(self, painter: QPainter) -> None:
        """Ghosts and the tree."""
        play = self.playback
        assert play.now is not None
        kept = None if play.kept is None else play.pose_of(play.kept)
        paint_strobe(self.canvas(painter, self.scale_now()), QRectF(self.rect()), play.now.fall, play.pose, kept)

    def tilt_at(self, at: QPointF) -> float | None:
        """The tilt of a line from the hinge to the pointer."""
        along, up = self.scale_now().metres(at)
        return math.degrees(math.atan2(along, up - self.store.snapshot.plan.cut.height_m))


class FanView(FallView):
    """From above, over the site plan, north up."""

    title = tr("From above, with likely tops")
    tells_of = (Group.LANDING, Group.WAY_OUT)

    def fall(self, painter: QPainter) -> None:
        """Site, fan, chances."""
        play, plan = self.playback, self.store.snapshot.plan
        assert play.now is not None
        scale = fan_scale(self.width(), self.height(), plan.tree.height_m, plan.cut.lay_deg)
        canvas = self.canvas(painter, scale)
        paint_fan(canvas, play.now.fan, play.now.fall, None if play.kept is None else play.kept.fan)
        paint_fan_caption(canvas, QRectF(self.rect()), len(play.now.fan.samples))


class UseView(FallView):
    """The hinge's use against tilt."""

    tells_of = (Group.HINGE, Group.FACE)
    title = ""

    def fall(self, painter: QPainter) -> None:
        """The curves."""
        play = self.playback
        assert play.now is not None
        kept = None if play.kept is None else (play.kept.result, play.kept.fall)
        paint_use(self.canvas(painter, Scale(1.0, QPointF())), QRectF(self.rect()), play.now.fall, play.tilt_deg, kept)

    def tilt_at(self, at: QPointF) -> float | None:
        """The tilt along the axis."""
        plot = plot_box(QRectF(self.rect()).adjusted(8, 6, -4, -4))
        return (at.x() - plot.left()) / plot.width() * TO_DEG
