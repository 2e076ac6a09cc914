"""From metres to pixels and back."""

from __future__ import annotations

from dataclasses import dataclass

from PySide6.QtCore import QPointF
from PySide6.QtGui import QPolygonF

from ...core.polygon import Array


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

    def polygon(self, right_m: Array, up_m: Array) -> QPolygonF:
        """Outline in pixels; both arrays of shape (n,)."""
        ox, oy, k = self.origin.x(), self.origin.y(), self.px_per_m
        xs, ys = (ox + k * right_m).tolist(), (oy - k * up_m).tolist()
        return QPolygonF([QPointF(x, y) for x, y in zip(xs, ys, strict=True)])

    def plan(self, outline: Array) -> QPolygonF:
        """A section outline (forward, left) seen from above with the lay up the page."""
        return self.polygon(-outline[:, 1], outline[:, 0])
