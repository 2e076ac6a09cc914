"""Words painted on a drawing of the stump, placed so that they keep off fields, handles, wedges and one another."""

from __future__ import annotations

from functools import lru_cache

from PySide6.QtCore import QPointF, QRectF, QSizeF, Qt
from PySide6.QtGui import QFont, QFontMetricsF, QPainter

from ...core.base.frozen import dataclass
from .labels import Label, placed_in_turn
from .palette import fill, font

TALL = 18.0
"""Height of a line of words, before the drawing's own size."""


@dataclass(frozen=True, slots=True)
class Word:
    """What is to be written, and where it may stand.

    Attributes:
        middles: where its middle may stand, the best first.
        colour: of the letters; patch: of the paper laid under them, empty for none.
        wanted: whether it is written at its first place even where there is room nowhere.
    """

    text: str
    middles: tuple[QPointF, ...]
    colour: str
    patch: str = ""
    strong: bool = False
    size: float = 12.0
    wanted: bool = False

    @property
    def box_size(self) -> QSizeF:
        """Room the word takes."""
        return QSizeF(_wide(self.text, self.size, self.strong) + 6, TALL * self.size / 12)

    @property
    def font(self) -> QFont:
        """What it is written in."""
        return font(self.size, strong=self.strong, narrow=not self.strong)


@lru_cache(maxsize=512)
def _wide(text: str, size: float, strong: bool) -> float:
    return QFontMetricsF(font(size, strong=strong, narrow=not strong)).horizontalAdvance(text)


def placed_words(words: list[Word], taken: list[QRectF], page: QRectF) -> list[tuple[Word, QRectF]]:
    """Every word that finds room with its box, the earlier ones first."""
    labels = [Label(str(number), word.box_size, word.middles) for number, word in enumerate(words)]
    boxes = placed_in_turn(labels, taken, page)
    found = []
    for label, word in zip(labels, words, strict=True):
        box = boxes.get(label.key)
        if box is None and word.wanted:
            box = QRectF(QPointF(), word.box_size)
            box.moveCenter(word.middles[0])
        if box is not None:
            found.append((word, box))
    return found


def paint_words(painter: QPainter, words: list[tuple[Word, QRectF]]) -> None:
    """Write them."""
    for word, box in words:
        if word.patch:
            painter.fillRect(box, fill(word.patch))
        painter.setFont(word.font)
        painter.setPen(word.colour)
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, word.text)


def square(at: QPointF, half_px: float) -> QRectF:
    """A square round a point, such as a handle's."""
    return QRectF(at.x() - half_px, at.y() - half_px, 2 * half_px, 2 * half_px)
