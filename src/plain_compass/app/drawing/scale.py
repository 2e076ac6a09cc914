"""From metres to pixels and back."""

from __future__ import annotations

import math

import numpy as np
from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QPolygonF

from ...core.base.frozen import dataclass
from ...core.base.polygon import Array


@dataclass(frozen=True, slots=True)
class Scale:
    """A drawing's axes: ``right`` and ``up`` in metres to pixels, one scale for both.

    Attributes:
        px_per_m: pixels per metre.
        origin: where (0, 0) lies, in pixels.
    """

    px_per_m: float
    origin: QPointF

    def point(self, right_m: float, up_m: float) -> QPointF:
        """Pixel position of a point."""
        return QPointF(self.origin.x() + right_m * self.px_per_m, self.origin.y() - up_m * self.px_per_m)

    def metres(self, at: QPointF) -> tuple[float, float]:
        """(right_m, up_m) of a pixel position."""
        return (at.x() - self.origin.x()) / self.px_per_m, (self.origin.y() - at.y()) / self.px_per_m

    def side(self, points: Array) -> Array:
        """Points (right, up) in pixels; shape (n, 2)."""
        return np.column_stack(
            [self.origin.x() + self.px_per_m * points[:, 0], self.origin.y() - self.px_per_m * points[:, 1]]
        )

    def plan(self, outline: Array) -> Array:
        """A section outline (forward, left) in pixels, seen from above with the lay up the page; shape (n, 2)."""
        return np.column_stack(
            [self.origin.x() - self.px_per_m * outline[:, 1], self.origin.y() - self.px_per_m * outline[:, 0]]
        )


def towards(turn_deg: float) -> QPointF:
    """Unit direction on the page, clockwise from up it."""
    turn = math.radians(turn_deg)
    return QPointF(math.sin(turn), -math.cos(turn))


def polygon(pixels: Array) -> QPolygonF:
    """A shape in pixels as Qt wants it."""
    return QPolygonF(list(map(QPointF, pixels[:, 0].tolist(), pixels[:, 1].tolist())))


def box_pixels(box: QRectF) -> Array:
    """The corners of a box, shape (4, 2)."""
    return np.array(
        [[box.left(), box.top()], [box.right(), box.top()], [box.right(), box.bottom()], [box.left(), box.bottom()]]
    )
