"""The map of the block: a click picks a tree, a double click opens it, pointing at a tree or an arrow says why."""

from __future__ import annotations

import math
from collections.abc import Sequence

from PySide6.QtCore import QEvent, QPointF, QRectF, QSizeF, Qt, Signal
from PySide6.QtGui import QHelpEvent, QMouseEvent, QPainter, QWheelEvent
from PySide6.QtWidgets import QSizePolicy, QToolTip, QWidget

from ....job.block import place_reasons, reason_words
from ....job.language import tr
from ...drawing.block.map_painter import NUMBER_PX, Drawn, Look, map_scale, paint_edges, paint_map
from ...drawing.palette import font, pen
from ...drawing.scale import Scale
from ...frame.painted import PaintedView
from ...frame.store import Store
from .drawn import all_zones, drawn_trees
from .watch import BlockWatch

TITLE = tr("All trees, in order")
"""Of the map."""
MOST_ZOOM = 12.0
"""A tree fills the map by then."""
ARROW_PX = 6.0
"""As near to an arrow one points at it."""


def _apart_px(at: QPointF, one: QPointF, other: QPointF) -> float:
    """From a point to the stretch between two."""
    along, away = other - one, at - one
    share = min(max(QPointF.dotProduct(along, away) / max(QPointF.dotProduct(along, along), 1e-9), 0.0), 1.0)
    off = away - along * share
    return math.hypot(off.x(), off.y())


class MapView(PaintedView):
    """The map; a click picks a tree, a double click opens it.

    Signals:
        chosen, opened: id of a tree.
    """

    chosen = Signal(str)
    opened = Signal(str)

    def __init__(self, store: Store, watch: BlockWatch, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.watch, self.picked, self.all_zones = store, watch, "", False
        self._zoom, self._moved = 1.0, QPointF(0.0, 0.0)
        self._held: QPointF | None = None
        self.setAccessibleName(tr("Map of the block"))
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)

    def trees(self) -> list[Drawn]:
        """Every tree of the job as it is drawn."""
        return drawn_trees(self.store.snapshot.job, self.watch.block, self.watch.found, self.picked)

    def zones(self) -> list[tuple[tuple[float, float], ...]]:
        """The edge of where nobody may be as any of them falls, where that is asked for."""
        block, job = self.watch.block, self.store.snapshot.job
        return all_zones(job, [tree.id for tree in block.trees]) if self.all_zones and block is not None else []

    def scale(self) -> Scale:
        """Everything in sight, or nearer as somebody has zoomed and moved it."""
        return self._nearer(self._whole(self.trees()))

    def _whole(self, trees: Sequence[Drawn]) -> Scale:
        beyond = self.store.snapshot.job.site.kept_away_lengths + 0.1 if self.all_zones else 0.75
        return map_scale(self.width(), self.height(), trees, beyond)

    def _nearer(self, whole: Scale) -> Scale:
        middle = QPointF(self.width() / 2, self.height() / 2)
        return Scale(whole.px_per_m * self._zoom, middle + (whole.origin - middle) * self._zoom + self._moved)

    def zoom(self, factor: float, at: QPointF | None = None) -> None:
        """Nearer or farther about a place of the drawing, its middle without one."""
        about = at or QPointF(self.width() / 2, self.height() / 2)
        zoomed = min(max(self._zoom * factor, 1.0), MOST_ZOOM)
        by, middle = zoomed / self._zoom, QPointF(self.width() / 2, self.height() / 2)
        self._moved = (about - middle) * (1.0 - by) + self._moved * by if zoomed > 1.0 else QPointF(0.0, 0.0)
        self._zoom = zoomed
        self.update()

    def fit(self) -> None:
        """Everything in sight."""
        self._zoom, self._moved = 1.0, QPointF(0.0, 0.0)
        self.update()

    def wheelEvent(self, event: QWheelEvent) -> None:
        """Zoom where the pointer is."""
        self.zoom(1.2 ** (event.angleDelta().y() / 120), event.position())

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """Dragged with the middle button it moves."""
        if self._held is not None:
            self._moved += event.position() - self._held
            self._held = event.position()
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        """Let go."""
        self._held = None

    def arrows(self) -> list[tuple[str, str, bool]]:
        """(earlier, later, broken) of the tree that is picked; all that are broken where none is."""
        block, found = self.watch.block, self.watch.found
        if block is None or found is None:
            return []
        pairs: dict[tuple[str, str], bool] = {}
        for each in found.against:
            one, other = block.trees[each.other].id, block.trees[each.tree].id
            if each.is_broken or self.picked in (one, other):
                pairs[(one, other)] = pairs.get((one, other), False) or each.is_broken
        return [(one, other, broken) for (one, other), broken in pairs.items()]

    def draw(self, painter: QPainter) -> None:
        """Map and title."""
        site = self.store.snapshot.job.site
        look, trees = Look(self.picked, self.palette_in_use, QSizeF(self.size())), self.trees()
        scale = self._nearer(self._whole(trees))
        paint_map(painter, scale, site.obstacles, trees, self.arrows(), look)
        paint_edges(painter, scale, self.zones(), self.palette_in_use)
        painter.setFont(font(14, strong=True))
        painter.fillRect(
            QRectF(0, 0, painter.fontMetrics().horizontalAdvance(TITLE) + 24, 26), self.palette_in_use.sheet
        )
        painter.setPen(pen(self.palette_in_use.ink))
        painter.drawText(QPointF(12, 20), TITLE)

    def event(self, event: QEvent) -> bool:
        """Pointed at, a tree or an arrow says why."""
        if isinstance(event, QHelpEvent) and event.type() == QEvent.Type.ToolTip:
            QToolTip.showText(event.globalPos(), self.pointed_at(QPointF(event.pos())), self)
            return True
        return super().event(event)

    def pointed_at(self, at: QPointF) -> str:
        """What stands behind an arrow or a tree's place, in sentences; empty where nothing is."""
        block, found, speech = self.watch.block, self.watch.found, self.store.snapshot.speech
        if block is None or found is None:
            return ""
        id = self._at(at, NUMBER_PX)
        if id in [tree.id for tree in block.trees]:
            return "\n".join(place_reasons(block, found, speech)[block.index(id)])
        scale, foot = self.scale(), {each.id: (each.east_m, each.north_m) for each in self.trees()}
        for one, other, _ in self.arrows():
            if _apart_px(at, scale.point(*foot[one]), scale.point(*foot[other])) < ARROW_PX:
                pair = {block.index(one), block.index(other)}
                said = [reason_words(block, each, speech) for each in found.against if {each.tree, each.other} == pair]
                return "\n".join(dict.fromkeys(said))
        return ""

    def _at(self, at: QPointF, within_px: float = 2.5 * NUMBER_PX) -> str:
        scale = self.scale()
        near = [((scale.point(t.east_m, t.north_m) - at), t.id) for t in self.trees()]
        close = [(away.x() ** 2 + away.y() ** 2, id) for away, id in near]
        distance, id = min(close, default=(1e9, ""))
        return id if distance <= within_px**2 else ""

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Pick a tree, or none; the middle button takes hold of the map."""
        if event.button() == Qt.MouseButton.MiddleButton:
            self._held = event.position()
            return
        self.chosen.emit(self._at(event.position()))

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        """Open one."""
        id = self._at(event.position())
        if id:
            self.opened.emit(id)
