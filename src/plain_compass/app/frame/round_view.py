"""The stump in the round as a drawing of its own: turned by dragging and by the arrow keys."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter
from PySide6.QtWidgets import QWidget

from ...core.base.levels import Group
from ...job.language import tr
from ..drawing.palette import font, pen
from ..drawing.round_painter import Look, paint_round
from ..drawing.shapes.solid import Solid
from .lag import Lag
from .painted import PaintedView
from .store import Store

TURN_DEG_PX, UP_DEG_PX = 0.6, 0.4
"""How far a pixel of dragging turns it, and lifts the eye."""
LATER_MS = 250
"""How long it may lag behind a drag: the drawing one drags on has the frames to itself."""
KEY_DEG = 15.0
"""How far an arrow key does."""
HEAD_PX = 24.0
"""Room for the title."""
KEYS = {
    Qt.Key.Key_Left: (-KEY_DEG, 0.0),
    Qt.Key.Key_Right: (KEY_DEG, 0.0),
    Qt.Key.Key_Up: (0.0, KEY_DEG / 2),
    Qt.Key.Key_Down: (0.0, -KEY_DEG / 2),
}


class TurnedView(PaintedView):
    """Base of a drawing with something in the round in it. Subclasses paint it as ``look`` has it."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.look = Look()
        self._from: QPointF | None = None
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def turn(self, by_deg: float, up_deg: float = 0.0) -> None:
        """Look from elsewhere."""
        self.look = self.look.turned(by_deg, up_deg)
        self.update()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Take hold of it."""
        self.setFocus(Qt.FocusReason.MouseFocusReason)
        self._from = event.position()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """Turn it."""
        if self._from is None:
            return
        moved, self._from = event.position() - self._from, event.position()
        self.turn(-moved.x() * TURN_DEG_PX, moved.y() * UP_DEG_PX)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        """Let go of it."""
        self._from = None

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Arrow keys turn it, Home looks from the front again."""
        by = KEYS.get(Qt.Key(event.key()))
        if by is not None:
            self.turn(*by)
        elif event.key() == Qt.Key.Key_Home:
            self.look = Look()
            self.update()
        else:
            super().keyPressEvent(event)


class RoundView(TurnedView):
    """Shows a solid that is made when it is painted.

    Args:
        solid: gives it; asked for each painting, so that nothing is made for a drawing nobody sees.
    """

    tells_of: tuple[Group, ...] = (Group.FACE, Group.HINGE, Group.WEDGE)
    by_keys = tr("Arrow keys turn it; Home looks from the front again.")

    def __init__(self, store: Store, solid: Callable[[], Solid], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.solid = store, solid
        self._lag = Lag(self.follow, LATER_MS, self)
        self.setAccessibleName(tr("Stump in the round"))
        self.setToolTip(tr("Drag or use the arrow keys to turn it; Home looks from the front again."))
        self.setCursor(Qt.CursorShape.OpenHandCursor)

    def draw(self, painter: QPainter) -> None:
        """The stump, and what it is."""
        palette = self.palette_in_use
        painter.setPen(pen(palette.ink))
        painter.setFont(font(13, strong=True, narrow=True))
        painter.drawText(QPointF(10, 18), tr("In the round"))
        box = QRectF(self.rect()).adjusted(6, HEAD_PX, -6, -6)
        paint_round(painter, box, self.solid(), self.look, palette, speech=self.store.snapshot.speech)

    def follow(self) -> None:
        """Show the plan as it is now; while something is dragged, not in every frame of it."""
        if not self._lag.waits(self.store.dragging):
            self.update()
