"""The dimensions as text, where on the screen they are typed: for the card and for copied pictures."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt

from ...core.base.paths import value_at
from ...job.fields import quantity_at
from .canvas import Canvas
from .layout import FieldPlace
from .palette import font, pen

Align = Qt.AlignmentFlag
WIDTH = 84.0
"""Room for a dimension on paper, wide enough for `12 1/2 in` at the size it is printed."""
FAULTS = ("cut.face.overcut_m", "cut.face.apart_m")
SIDE = {"left": Align.AlignLeft, "right": Align.AlignRight, "centre": Align.AlignHCenter}


def paint_dimensions(c: Canvas, places: tuple[FieldPlace, ...]) -> None:
    """Paint name, value and leader of every dimension; of the face's faults only those that there are."""
    for place in places:
        value = value_at(c.result.case, place.path)
        if place.path in FAULTS and value == 0:
            continue
        left = {"left": 0.0, "right": -WIDTH, "centre": -WIDTH / 2}[place.align]
        box = QRectF(place.at.x() + left, place.at.y() - 14, WIDTH, 28)
        if place.leader is not None:
            edge = {"left": box.left() - 2, "right": box.right() + 2, "centre": box.center().x()}[place.align]
            c.painter.setPen(pen(c.palette.quiet, 0.6))
            level = box.top() if place.align == "centre" else box.center().y()
            c.painter.drawLine(QPointF(edge, level), place.leader)
        c.painter.setPen(pen(c.palette.quiet))
        c.painter.setFont(font(11, narrow=True))
        align = SIDE[place.align] | Align.AlignVCenter
        c.painter.drawText(box.adjusted(0, -1, 0, -14), align, c.speech.say(place.tag))
        c.painter.setPen(pen(c.palette.ink))
        c.painter.setFont(font(14, strong=True))
        c.painter.drawText(box.adjusted(0, 11, 0, 3), align, c.speech.show(value, quantity_at(place.path).kind))
