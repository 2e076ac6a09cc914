"""The typed dimensions on one drawing: made, placed, chained for Tab, and tagged."""

from __future__ import annotations

from functools import lru_cache
from itertools import pairwise

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QFontMetricsF, QPainter, QRegion
from PySide6.QtWidgets import QWidget

from ..drawing.layout import FieldPlace
from ..drawing.palette import Palette, fill, font, pen
from .field_edit import FieldEdit
from .store import Snapshot, Store

FIELD_SIZE = (76, 32)
"""As tall as a finger wants; holds `12 1/2 in` and `1.25 m` at the size of the numbers."""
Align = Qt.AlignmentFlag


@lru_cache(maxsize=256)
def _tag_width(text: str) -> float:
    """Width of the name of a dimension."""
    return QFontMetricsF(font(12, narrow=True)).horizontalAdvance(text)


class FieldLayer:
    """Keeps one FieldEdit a dimension, as the layout says."""

    def __init__(self, store: Store, view: QWidget) -> None:
        self.store, self.view = store, view
        self.edits: dict[str, FieldEdit] = {}
        self._places: tuple[FieldPlace, ...] = ()

    def place(self, places: tuple[FieldPlace, ...], snapshot: Snapshot) -> None:
        """Put every dimension where the layout wants it; new ones are made, old ones go."""
        wanted = {place.path for place in places}
        for path in [p for p in self.edits if p not in wanted]:
            gone = self.edits.pop(path)
            gone.hide()
            gone.deleteLater()
        for place in places:
            edit = self.edits.get(place.path)
            if edit is None:
                edit = self.edits[place.path] = FieldEdit(self.store, place.path, self.view)
                edit.show()
            edit.refresh(snapshot)
            edit.setGeometry(self._box(place).toRect())
        if [p.path for p in places] != [p.path for p in self._places]:
            for before, after in pairwise(places):
                QWidget.setTabOrder(self.edits[before.path], self.edits[after.path])
        self._places = places

    def region(self) -> QRegion:
        """Where the dimensions stand."""
        found = QRegion()
        for edit in self.edits.values():
            found += edit.geometry()
        return found

    def taken(self, snapshot: Snapshot) -> tuple[QRectF, ...]:
        """Where the dimensions and their names stand: no word of the drawing may."""
        boxes = [self._box(place) for place in self._places]
        names = [self._tag(box, snapshot.speech.say(p.tag)) for box, p in zip(boxes, self._places, strict=True)]
        return (*boxes, *names)

    def _tag(self, box: QRectF, text: str) -> QRectF:
        """Where the name of a dimension stands: over it, kept inside the drawing."""
        width = _tag_width(text)
        tag = QRectF(box.center().x() - width / 2, box.top() - 15, width, 15)
        tag.moveLeft(max(min(tag.left(), self.view.width() - tag.width() - 3), 3.0))
        return tag

    def _box(self, place: FieldPlace) -> QRectF:
        width, height = FIELD_SIZE
        left = {"left": 0.0, "right": -float(width), "centre": -width / 2}[place.align]
        box = QRectF(place.at.x() + left, place.at.y() - height / 2, width, height)
        box.moveLeft(min(max(box.left(), 2), self.view.width() - width - 2))
        box.moveTop(min(max(box.top(), 2), self.view.height() - height - 2))
        return box

    def paint_tags(self, painter: QPainter, snapshot: Snapshot, palette: Palette) -> None:
        """Name and leader of every dimension."""
        painter.setFont(font(12, narrow=True))
        for place in self._places:
            box = self._box(place)
            painter.setPen(pen(palette.quiet, 0.8))
            if place.leader is not None:
                painter.drawLine(self._near_edge(box, place), place.leader)
            painter.setPen(pen(palette.quiet))
            text = snapshot.speech.say(place.tag)
            # On a patch of paper: it may stand on wood or hatching.
            tag = self._tag(box, text)
            painter.fillRect(tag.adjusted(-2, 0, 2, 0), fill(palette.sheet))
            painter.drawText(tag, Align.AlignCenter, text)

    @staticmethod
    def _near_edge(box: QRectF, place: FieldPlace) -> QPointF:
        if place.align == "centre":
            return QPointF(box.center().x(), box.top() - 15)
        return QPointF(box.left() if place.align == "left" else box.right(), box.center().y())
