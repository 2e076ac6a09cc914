"""A drawing with dimensions typed in place and grips to drag, zoom and pan. Steps say what is on it."""

from __future__ import annotations

import math
from collections.abc import Mapping

from PySide6.QtCore import QEvent, QPoint, QPointF, QRectF, Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QRegion, QResizeEvent, QWheelEvent
from PySide6.QtWidgets import QToolTip, QWidget

from ...core.base.levels import Group
from ...job.language import tr
from ..drawing.canvas import Canvas
from ..drawing.dimensions import paint_dimensions
from ..drawing.layout import Grip, Layout
from ..drawing.marks import paint_cross, paint_handle
from ..drawing.palette import LIGHT, Palette, fill, font, pen
from ..drawing.scale import Scale
from ..drawing.viewport import Viewport
from ..drawing.words import square
from .field_layer import FieldLayer
from .lag import Lag
from .layers import Layers
from .page import Picture
from .painted import paint_focus
from .settling import Settling
from .store import Snapshot, Store

LAG_MS = 120
"""How long a drawing may stay behind a drag on another one."""
GRIP_RADIUS = 8.0
"""A handle is drawn smaller than it is taken hold of: work gloves and small screens."""
REACH = 18.0  # a handle is taken hold of from further away than it is drawn


def nearest_grip(grips: tuple[Grip, ...], at: QPointF) -> Grip | None:
    """The grip within reach of a point, the nearest if there are several."""

    def distance(grip: Grip) -> float:
        away = grip.at - at
        return math.hypot(away.x(), away.y())

    near = min(grips, key=distance, default=None)
    return near if near is not None and distance(near) <= REACH else None


def caption(painter: QPainter, view: DrawingView, text: str) -> None:
    """Title of a drawing, in its upper left corner."""
    painter.setPen(pen(view.palette_in_use.ink))
    painter.setFont(font(14, strong=True))
    painter.drawText(QPointF(12, 20), text)


def handles_of(layout: Layout) -> list[QRectF]:
    """Where the handles of a drawing stand; those that step back may be written over."""
    return [square(grip.at, GRIP_RADIUS + 2) for grip in layout.grips if not grip.quiet]


class DrawingView(QWidget):
    """Base of every interactive drawing. Subclasses give ``scale_for``, ``layout_for`` and ``paint``."""

    has_own_sheet = False
    """Whether the first layer it paints is its paper."""
    is_as_cut = False
    """Whether it draws the stump as it was cut rather than as planned."""
    tells_of: tuple[Group, ...] = ()
    """Limit states it is about: its sentence for those who do not see it is made from them."""
    captions: tuple[QRectF, ...] = ()
    """Where words stand that belong to the view rather than to what is drawn."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.palette_in_use: Palette = LIGHT
        self.mark = ""
        self.fields = FieldLayer(store, self)
        self.viewport = Viewport()
        self._dragged: Grip | None = None
        self._hot: str = ""
        self.layers = Layers(self)
        self._panned_from: QPointF | None = None
        self._space = False
        self.lag = Lag(lambda: DrawingView.refresh(self, self.store.snapshot), LAG_MS, self)
        self._settling = Settling(lambda: DrawingView.refresh(self, self.store.snapshot), self)
        self.scale_now = Scale(100.0, QPointF(0, 0))
        self.layout_now = Layout((), ())
        self.setMouseTracking(True)
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)
        self.setFocusPolicy(Qt.FocusPolicy.ClickFocus)

    # What subclasses say -------------------------------------------------------------------------------

    def scale_for(self, snapshot: Snapshot) -> Scale:
        """The scale that fits the drawing into the view."""
        raise NotImplementedError

    def layout_for(self, snapshot: Snapshot, scale: Scale) -> Layout:
        """Dimensions and grips at a scale."""
        raise NotImplementedError

    def paint(self, painter: QPainter, snapshot: Snapshot, scale: Scale) -> None:
        """Paint the drawing itself."""
        raise NotImplementedError

    def canvas(self, painter: QPainter, snapshot: Snapshot, bottom_px: float = 1e6) -> Canvas:
        """What the shared painters are handed."""
        return Canvas(
            painter,
            snapshot.as_cut if self.is_as_cut else snapshot.shapes,
            self.scale_now,
            snapshot.speech,
            self.palette_in_use,
            self.mark,
            bottom_px=bottom_px,
            taken=(*self.captions, *self.fields.taken(snapshot), *handles_of(self.layout_now)),
            page=QRectF(self.rect()).adjusted(2, 2, -2, -2),
        )

    def picture(self) -> Picture:
        """The drawing for copying: dimensions as text, without grips."""

        def paint(painter: QPainter) -> None:
            snapshot = self.store.snapshot
            self.paint(painter, snapshot, self.scale_now)
            paint_dimensions(self.canvas(painter, snapshot), self.layout_now.fields)

        return Picture(self.size(), paint)

    # Following the document ----------------------------------------------------------------------------

    def refresh(self, snapshot: Snapshot) -> None:
        """Place the dimensions anew and repaint; a drawing beside the one that is dragged on may lag behind."""
        if self.lag.waits(self.store.dragging and self._dragged is None):
            return
        # Leaving one field for another sets a value: what was aimed at must not move away under the pointer.
        clicked = self._panned_from is None and self._settling.waits()
        if not clicked and not self.store.dragging:
            # While something is dragged the paper stays where it is.
            self.scale_now = self.viewport.applied(self.scale_for(snapshot))
        self.layout_now = self.layout_for(snapshot, self.scale_now)
        self.fields.place(self.layout_now.fields, snapshot)
        # The typed dimensions paint themselves, and only when they change.
        self.update(QRegion(self.rect()).subtracted(self.fields.region()))

    def grip(self, path: str) -> Grip:
        """The grip that sets a path."""
        return next(grip for grip in self.layout_now.grips if grip.path == path)

    # Painting ------------------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        """Drawing, then tags and leaders of the dimensions, then grips."""
        # Ended by the with statement: a painter left open by an error would take the process down with it.
        with QPainter(self) as painter:
            if not self.has_own_sheet:
                painter.fillRect(self.rect(), fill(self.palette_in_use.sheet))
            snapshot = self.store.snapshot
            self.paint(painter, snapshot, self.scale_now)
            self.fields.paint_tags(painter, snapshot, self.palette_in_use)
            for grip in self.layout_now.grips:
                hot = grip.path == self._hot
                if grip.quiet and not hot:
                    paint_cross(painter, grip.at, self.palette_in_use)
                else:
                    paint_handle(painter, grip.at, GRIP_RADIUS, self.palette_in_use, hot=hot)
            paint_focus(painter, self, self.palette_in_use)

    # Mouse and keys ------------------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Take hold of a grip, or of the paper."""
        wants_pan = event.button() == Qt.MouseButton.MiddleButton or self._space
        if wants_pan:
            self._panned_from = event.position() - self.viewport.pan
            return
        self.setFocus(Qt.FocusReason.MouseFocusReason)
        grip = nearest_grip(self.layout_now.grips, event.position())
        if grip is not None and event.button() == Qt.MouseButton.LeftButton:
            self._dragged = grip

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """Drag what is held; otherwise bring out the grip under the pointer."""
        if self._panned_from is not None:
            self.viewport.pan = event.position() - self._panned_from
            self.refresh(self.store.snapshot)
        elif self._dragged is not None:
            moved = self._dragged.drag(*self.scale_now.metres(event.position()))
            self.store.preview(moved if isinstance(moved, Mapping) else {self._dragged.path: moved})
        else:
            self._hover(event.position(), event.globalPosition().toPoint())

    def _hover(self, at: QPointF, on_screen: QPoint) -> None:
        grip = nearest_grip(self.layout_now.grips, at)
        name = grip.path if grip else ""
        if name != self._hot:
            self._hot = name
            self.setCursor(Qt.CursorShape.PointingHandCursor if grip else Qt.CursorShape.ArrowCursor)
            if grip:
                QToolTip.showText(on_screen, self.store.snapshot.speech.say(grip.hint), self)
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        """A whole drag is one step."""
        self._panned_from = None
        if self._dragged is not None:
            path, self._dragged = self._dragged.path, None
            field = self.fields.edits.get(path)
            name = field.accessibleName() if field else path
            self.store.finish(tr("{name} dragged", name=name))

    def wheelEvent(self, event: QWheelEvent) -> None:
        """Zoom about the pointer."""
        self.zoom_about(event.position(), 1.0015 ** event.angleDelta().y())

    def zoom_about(self, at: QPointF, factor: float) -> None:
        """Zoom so that what lies at a point stays there."""
        self.viewport.zoom_about(at, factor, self.scale_for(self.store.snapshot))
        self.refresh(self.store.snapshot)

    def fit(self) -> None:
        """Back to the whole drawing."""
        self.viewport.reset()
        self.refresh(self.store.snapshot)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Escape lets go of a drag without keeping it; space turns the pointer into a hand."""
        if event.key() == Qt.Key.Key_Escape and self._dragged is not None:
            self._dragged = None
            self.store.abandon()
        elif event.key() != Qt.Key.Key_Space:
            super().keyPressEvent(event)
        elif not event.isAutoRepeat():
            self._space = True
            self.setCursor(Qt.CursorShape.OpenHandCursor)

    def keyReleaseEvent(self, event: QKeyEvent) -> None:
        """The pointer is a pointer again."""
        if event.key() == Qt.Key.Key_Space and not event.isAutoRepeat():
            self._space = False
            self.setCursor(Qt.CursorShape.ArrowCursor)

    def leaveEvent(self, event: QEvent) -> None:
        """Nothing is under the pointer."""
        self._hot = ""
        self.update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Fit anew."""
        super().resizeEvent(event)
        self.scale_now = self.viewport.applied(self.scale_for(self.store.snapshot))
        self.refresh(self.store.snapshot)
