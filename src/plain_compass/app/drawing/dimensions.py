"""The dimensions as text, where on the screen they are typed: for the card and for copied pictures."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QFont

from ...core.base.paths import value_at
from ...job.fields import quantity_at
from .canvas import Canvas
from .layout import FieldPlace
from .palette import fill, font, pen

Align = Qt.AlignmentFlag
WIDTH = 84.0
"""Room for a dimension on paper, wide enough for `12 1/2 in` at the size it is printed."""
FAULTS = ("cut.face.overcut_m", "cut.face.apart_m")
SIDE = {"left": Align.AlignLeft, "right": Align.AlignRight, "centre": Align.AlignHCenter}


def shown_places(c: Canvas, places: tuple[FieldPlace, ...]) -> list[tuple[FieldPlace, QRectF]]:
    """The dimensions that are shown, each with its box; of the face's faults only those that there are."""
    left = {"left": 0.0, "right": -WIDTH, "centre": -WIDTH / 2}
    return [
        (place, QRectF(place.at.x() + left[place.align], place.at.y() - 14, WIDTH, 28))
        for place in places
        if not (place.path in FAULTS and value_at(c.result.case, place.path) == 0)
    ]


def with_room_for(c: Canvas, places: tuple[FieldPlace, ...]) -> Canvas:
    """The same drawing with the dimensions' places taken: its words keep off them."""
    return replace(c, taken=tuple(box for _, box in shown_places(c, places)))


def paint_with_dimensions(paint: Callable[[Canvas], None], c: Canvas, places: tuple[FieldPlace, ...]) -> None:
    """Paint a drawing, its words keeping off the dimensions, and the dimensions over it."""
    paint(with_room_for(c, places))
    paint_dimensions(c, places)


def paint_dimensions(c: Canvas, places: tuple[FieldPlace, ...]) -> None:
    """Paint name, value and leader of every dimension."""
    for place, box in shown_places(c, places):
        value = value_at(c.result.case, place.path)
        if place.leader is not None:
            edge = {"left": box.left() - 2, "right": box.right() + 2, "centre": box.center().x()}[place.align]
            c.painter.setPen(pen(c.palette.quiet, 0.6))
            level = box.top() if place.align == "centre" else box.center().y()
            c.painter.drawLine(QPointF(edge, level), place.leader)
        align = SIDE[place.align] | Align.AlignVCenter
        said = c.speech.show(value, quantity_at(place.path).kind)
        _line(c, box.adjusted(0, -1, 0, -14), align, c.speech.say(place.tag), font(11, narrow=True), c.palette.quiet)
        _line(c, box.adjusted(0, 11, 0, 3), align, said, font(14, strong=True), c.palette.ink)


def _line(c: Canvas, box: QRectF, align: Align, text: str, written: QFont, colour: str) -> None:
    """A line on a patch of paper: it may stand on wood or on a wedge."""
    c.painter.setFont(written)
    c.painter.fillRect(c.painter.boundingRect(box, align, text), fill(c.palette.sheet))
    c.painter.setPen(pen(colour))
    c.painter.drawText(box, align, text)
