"""Parts of a drawing that are painted once and kept while nothing of what they show changes."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Protocol

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QColor, QPainter, QPixmap

from ..drawing.canvas import Canvas
from ..drawing.palette import Palette
from ..drawing.scale import Scale
from .store import Snapshot, Store


class Drawn(Protocol):
    """What layers ask of their view."""

    store: Store
    palette_in_use: Palette
    scale_now: Scale

    def size(self) -> QSize:
        """Size of the view."""

    def devicePixelRatioF(self) -> float:
        """Dots of the screen a pixel."""

    def canvas(self, painter: QPainter, snapshot: Snapshot) -> Canvas:
        """What the shared painters are handed."""


class Layers:
    """The layers of one view."""

    def __init__(self, view: Drawn) -> None:
        self.view = view
        self._known: dict[str, tuple[tuple[object, ...], QPixmap]] = {}

    def painted(
        self, name: str, drawn: Sequence[object], paint: Callable[[Canvas], None], *, sheet: bool = True
    ) -> QPixmap:
        """A layer, as large as the view.

        Args:
            drawn: what it shows beside scale, size and colours, compared by value.
            sheet: on paper; otherwise the rest shows through.
        """
        view, ratio = self.view, self.view.devicePixelRatioF()
        scale = view.scale_now
        key = (*drawn, scale.px_per_m, scale.origin.toTuple(), view.size().toTuple(), view.palette_in_use, ratio)
        known = self._known.get(name)
        if known is None or known[0] != key:
            pixmap = QPixmap(view.size() * ratio)
            pixmap.setDevicePixelRatio(ratio)
            pixmap.fill(QColor(view.palette_in_use.sheet) if sheet else Qt.GlobalColor.transparent)
            with QPainter(pixmap) as painter:
                painter.setRenderHint(QPainter.RenderHint.Antialiasing)
                paint(view.canvas(painter, view.store.snapshot))
            known = self._known[name] = (key, pixmap)
        return known[1]
