"""How near one looks at a drawing, and where."""

from __future__ import annotations

from PySide6.QtCore import QPointF

from .scale import Scale

NEAREST, FURTHEST = 8.0, 0.5
"""Zoom that still shows where one is, and the whole with room round it."""


class Viewport:
    """Zoom and pan laid over a scale that fits the whole drawing."""

    def __init__(self) -> None:
        self.reset()

    def reset(self) -> None:
        """The whole drawing."""
        self.zoom, self.pan = 1.0, QPointF(0, 0)

    def applied(self, fitted: Scale) -> Scale:
        """The scale as it is looked at."""
        return Scale(fitted.px_per_m * self.zoom, fitted.origin + self.pan)

    def zoom_about(self, at: QPointF, factor: float, fitted: Scale) -> None:
        """Zoom so that what lies at a point of the view stays there."""
        zoom = min(max(self.zoom * factor, FURTHEST), NEAREST)
        away = at - fitted.origin - self.pan
        self.pan -= away * (zoom / self.zoom - 1)
        self.zoom = zoom
