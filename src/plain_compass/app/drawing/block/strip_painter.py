"""The day strip: a row a day, a box a tree, as long as it takes."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QPainter

from ..marks import paint_hatch
from ..palette import Palette, fill, font, pen
from ..scale import box_pixels

Align = Qt.AlignmentFlag
ROW_PX, HEAD_PX, NAMES_PX = 26.0, 22.0, 92.0
"""Height of a day, of the title, and width of the day's name."""


@dataclass(frozen=True, slots=True)
class Box:
    """One tree in a day."""

    id: str
    number: int
    day: int
    begins_min: float
    ends_min: float
    rigs: bool


def paint_strip_of_days(
    painter: QPainter, area: QRectF, boxes: Sequence[Box], days: tuple[Sequence[str], float], look: tuple[str, Palette]
) -> None:
    """Paint it; a hatched edge is the rigging of a rope.

    Args:
        days: what each is called, and minutes of work in one; look: the tree that is picked, and the colours.
    """
    (names, day_min), (chosen, palette) = days, look
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    px = (area.width() - NAMES_PX - 16) / max([day_min, *(box.ends_min for box in boxes)])
    for day, name in enumerate(names):
        top = area.top() + HEAD_PX + day * ROW_PX
        if top + ROW_PX > area.bottom() + 1:
            break
        painter.setFont(font(12, narrow=True))
        painter.setPen(pen(palette.quiet))
        named = QRectF(area.left() + 10, top, NAMES_PX - 14, ROW_PX)
        painter.drawText(named, Align.AlignVCenter | Align.AlignLeft, name)
        end = area.left() + NAMES_PX + day_min * px
        painter.setPen(pen(palette.load, 1.2, Qt.PenStyle.DashLine))
        painter.drawLine(round(end), round(top), round(end), round(top + ROW_PX))
        for box in boxes:
            if box.day == day:
                wide = (box.ends_min - box.begins_min) * px - 1
                shape = QRectF(area.left() + NAMES_PX + box.begins_min * px, top + 2, wide, ROW_PX - 4)
                _box(painter, shape, box, palette, hot=box.id == chosen)


def _box(painter: QPainter, shape: QRectF, box: Box, palette: Palette, *, hot: bool) -> None:
    painter.setPen(pen(palette.focus if hot else palette.ink, 2.0 if hot else 1.0))
    painter.setBrush(fill(palette.sapwood))
    painter.drawRect(shape)
    if box.rigs:
        rigged = QRectF(shape.left(), shape.top(), min(12.0, shape.width()), shape.height())
        paint_hatch(painter, box_pixels(rigged), palette.wedge, 4)
    painter.setPen(pen(palette.ink))
    painter.setFont(font(12, narrow=True))
    painter.drawText(shape, Align.AlignCenter, box.id if shape.width() > 40 else str(box.number))
