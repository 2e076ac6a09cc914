"""Below the plan: the ground along the lay with the stem laid on it."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QWidget

from ....core.base.levels import Group
from ....job.language import tr
from ...drawing.canvas import Canvas
from ...drawing.ground.profile_painter import paint_profile
from ...drawing.palette import font, pen
from ...drawing.scale import Scale
from ...frame.painted import PaintedView
from ...frame.store import Store

HEIGHT = 138
"""Tall enough for a stem bent over a hollow, low enough to leave the plan its room."""


class ProfileView(PaintedView):
    """Follows the document; nothing to type here."""

    tells_of = (Group.LANDING,)

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.setFixedHeight(HEIGHT)
        self.setAccessibleName(tr("Ground along the lay, with the stem as it would lie"))

    def draw(self, painter: QPainter) -> None:
        """The profile and its title."""
        snapshot = self.store.snapshot
        scale = Scale(1.0, QPointF(0, 0))
        paint_profile(
            Canvas(painter, snapshot.shapes, scale, snapshot.speech, self.palette_in_use), QRectF(self.rect())
        )
        painter.setPen(pen(self.palette_in_use.ink))
        painter.setFont(font(14, strong=True))
        painter.drawText(QPointF(12, 20), tr("Along the lay"))
