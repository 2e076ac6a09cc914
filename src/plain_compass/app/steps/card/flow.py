"""Text that flows down the card and on to further pages: nothing that belongs on it is ever left out."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter

from ....core.base.frozen import dataclass
from ....core.base.levels import LEVELS, Level
from ....job.language import tr
from ...drawing.marks import paint_level, paint_tick
from ...drawing.palette import LIGHT, font, pen
from ...drawing.text import unbroken

Align = Qt.AlignmentFlag
WRAP = Qt.TextFlag.TextWordWrap
TO_DO, DONE = tr("to do"), "done"
"""Signs of a duty: a box, and a ticked one."""
WORDS_A_PIECE = 90
"""Words of a note that stay together; a longer one may go on overleaf between two pieces."""

GOES_ON = tr(" (on)")
"""Behind a heading that is repeated on another page or column."""


@dataclass(frozen=True, slots=True)
class Item:
    """One row: a heading (no sign), or a line with a sign before it, which may be a level."""

    text: str
    sign: str = ""
    heading: bool = False


def heading(text: str) -> Item:
    """The heading of what follows."""
    return Item(text, heading=True)


def notes_in_pieces(notes: str) -> list[Item]:
    """A note as rows that may part between pages: a line each, long lines in pieces."""
    found = []
    for line in notes.splitlines():
        words = line.split()
        found += [" ".join(words[i : i + WORDS_A_PIECE]) for i in range(0, len(words), WORDS_A_PIECE)]
    return [Item(text) for text in found]


def flow(painter: QPainter, items: list[Item], box: QRectF, size: float = 1.0) -> list[Item]:
    """Paint rows down a box while there is room; returns those left over, under their heading again.

    Args:
        size: of the text, against a full sheet's.
    """
    y, last = box.top(), None
    for number, item in enumerate(items):
        tall = height_of(painter, item, box.width(), size)
        # A heading is not left alone at the foot.
        wanted = tall + (height_of(painter, items[number + 1], box.width(), size) if _leads(items, number) else 0.0)
        if y + wanted > box.bottom() and y > box.top():
            rest = items[number:]
            return rest if rest[0].heading or last is None else [_again(last), *rest]
        _paint(painter, item, QRectF(box.left(), y, box.width(), tall), size)
        y += tall
        last = item if item.heading else last
    return []


def _leads(items: list[Item], number: int) -> bool:
    return items[number].heading and number + 1 < len(items)


def _again(item: Item) -> Item:
    return item if item.text.endswith(GOES_ON) else heading(item.text + GOES_ON)


def _indent(item: Item) -> float:
    return 20.0 if item.sign else 0.0


def height_of(painter: QPainter, item: Item, width: float, size: float = 1.0) -> float:
    """Height of a row, the space after it included."""
    if item.heading:
        return 22.0 * size
    painter.setFont(font(12 * size))
    room = QRectF(0, 0, width - _indent(item), 4000)
    return float(painter.boundingRect(room, WRAP, unbroken(item.text)).height()) + 3.0


def _paint(painter: QPainter, item: Item, box: QRectF, size: float) -> None:
    painter.setPen(pen(LIGHT.ink))
    if item.heading:
        painter.setFont(font(13 * size, strong=True, narrow=True))
        painter.drawText(box.adjusted(0, 3, 0, 0), Align.AlignLeft, item.text)
        return
    painter.setFont(font(12 * size))
    if item.sign in LEVELS:
        paint_level(painter, QPointF(box.left() + 7, box.top() + 8), 5, Level(item.sign), LIGHT)
        painter.setPen(pen(LIGHT.ink))
    elif item.sign in (TO_DO, DONE):
        paint_tick(painter, QPointF(box.left() + 7, box.top() + 8), 5, LIGHT, is_done=item.sign == DONE)
        painter.setPen(pen(LIGHT.ink))
    elif item.sign:
        painter.drawText(QRectF(box.left(), box.top(), 16, 16), Align.AlignLeft, item.sign)
    painter.drawText(box.adjusted(_indent(item), 0, 0, 0), WRAP, unbroken(item.text))
