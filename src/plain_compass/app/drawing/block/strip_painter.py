"""The day strip: a row a day by the clock, a box a tree, as long as it takes; the break, and how far it may run on."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter

from ....core.base.frozen import dataclass
from ....job.language import tr
from ..marks import paint_hatch
from ..palette import Palette, fill, font, pen
from ..scale import box_pixels

Align = Qt.AlignmentFlag
ROW_PX, HEAD_PX, NAMES_PX = 26.0, 36.0, 92.0
"""Height of a day, of title and hours, and width of the day's name."""


Across = Callable[[float], float]
"""Place across the page of a minute."""


@dataclass(frozen=True, slots=True)
class Box:
    """One tree in a day, by the clock."""

    id: str
    number: int
    day: int
    begins_min: float
    ends_min: float
    rigs: bool


@dataclass(frozen=True, slots=True)
class Strip:
    """The days.

    Attributes:
        names: what each is called; by_then_min: when each is done nine times in ten.
        from_min, to_min: hours of work by the clock; break_min: the break, from and to, the same where there is none.
        hours: (minute, words) of the full hours.
    """

    boxes: Sequence[Box]
    names: Sequence[str]
    by_then_min: Sequence[float]
    from_min: float
    to_min: float
    break_min: tuple[float, float]
    hours: Sequence[tuple[float, str]]


def paint_strip_of_days(painter: QPainter, area: QRectF, strip: Strip, look: tuple[str, Palette]) -> None:
    """Paint it; a hatched edge is the rigging of a rope, a hatched column the break, a whisker how far it may run on.

    Args:
        look: the tree that is picked, and the colours.
    """
    chosen, palette = look
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    last = max([strip.to_min, *strip.by_then_min, *(box.ends_min for box in strip.boxes)])
    px = (area.width() - NAMES_PX - 24) / max(last - strip.from_min, 1.0)

    def across(minute: float) -> float:
        return area.left() + NAMES_PX + (minute - strip.from_min) * px

    rows = [
        (day, area.top() + HEAD_PX + day * ROW_PX)
        for day in range(len(strip.names))
        if area.top() + HEAD_PX + (day + 1) * ROW_PX <= area.bottom() + 1
    ]
    _hours(painter, area.top() + HEAD_PX, [each for each in strip.hours if each[0] <= last], across, palette)
    for day, top in rows:
        painter.setFont(font(12, narrow=True))
        painter.setPen(pen(palette.quiet))
        named = QRectF(area.left() + 10, top, NAMES_PX - 14, ROW_PX)
        painter.drawText(named, Align.AlignVCenter | Align.AlignLeft, strip.names[day])
        here = [box for box in strip.boxes if box.day == day]
        rest = QRectF(across(strip.break_min[0]), top, (strip.break_min[1] - strip.break_min[0]) * px, ROW_PX)
        if rest.width() > 0:
            paint_hatch(painter, box_pixels(rest), palette.quiet, 5)
        for box in here:
            for begins, ends, is_named in _pieces(box, strip.break_min):
                shape = QRectF(across(begins), top + 2, (ends - begins) * px - 1, ROW_PX - 4)
                _box(painter, shape, box, palette, looks=(box.id == chosen, is_named))
        if not here:
            painter.drawText(QPointF(across(strip.from_min) + 4, top + 17), tr("nothing is felled"))
            continue
        painter.setPen(pen(palette.load, 1.2, Qt.PenStyle.DashLine))
        painter.drawLine(QPointF(across(strip.to_min), top), QPointF(across(strip.to_min), top + ROW_PX))
        _whisker(painter, (across(strip.by_then_min[day]), top + ROW_PX / 2), palette)


def _hours(
    painter: QPainter, foot: float, hours: Sequence[tuple[float, str]], across: Across, palette: Palette
) -> None:
    painter.setFont(font(11, narrow=True))
    painter.setPen(pen(palette.quiet))
    for minute, words in hours:
        x = across(minute)
        painter.drawLine(QPointF(x, foot - 4), QPointF(x, foot))
        painter.drawText(QRectF(x - 24, foot - 17, 48, 13), Align.AlignCenter, words)


def _whisker(painter: QPainter, end: tuple[float, float], palette: Palette) -> None:
    """An upright tick where the day is done nine times in ten."""
    painter.setPen(pen(palette.ink, 1.6))
    x, y = end
    painter.drawLine(QPointF(x, y - 6), QPointF(x, y + 6))
    painter.drawLine(QPointF(x - 7, y), QPointF(x, y))


def _pieces(box: Box, rest: tuple[float, float]) -> list[tuple[float, float, bool]]:
    """(from, to, whether its name stands there) of a tree, in two where the break comes between."""
    if not box.begins_min < rest[0] < rest[1] < box.ends_min:
        return [(box.begins_min, box.ends_min, True)]
    is_longer = rest[0] - box.begins_min >= box.ends_min - rest[1]
    return [(box.begins_min, rest[0], is_longer), (rest[1], box.ends_min, not is_longer)]


def _box(painter: QPainter, shape: QRectF, box: Box, palette: Palette, *, looks: tuple[bool, bool]) -> None:
    """One piece of one tree; it may be the one that is picked, and have the tree's name."""
    hot, is_named = looks
    painter.setPen(pen(palette.focus if hot else palette.ink, 2.0 if hot else 1.0))
    painter.setBrush(fill(palette.sapwood))
    painter.drawRect(shape)
    if box.rigs and is_named:
        rigged = QRectF(shape.left(), shape.top(), min(12.0, shape.width()), shape.height())
        paint_hatch(painter, box_pixels(rigged), palette.wedge, 4)
    painter.setPen(pen(palette.ink))
    painter.setFont(font(12, narrow=True))
    if is_named:
        painter.drawText(shape, Align.AlignCenter, box.id if shape.width() > 40 else str(box.number))
