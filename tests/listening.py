"""A painter that remembers where it wrote what: drawings are held against what a person would read on them."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QFontMetricsF, QImage, QPainter


class Listening(QPainter):
    """Paints on an image.

    Attributes:
        written: every text with the box it takes up, in the painter's own coordinates.
        page: number of the sheet, counted by whoever turns them over.
        sheets: that of each text.
    """

    def __init__(self, on: QImage) -> None:
        super().__init__(on)
        self.paper = on  # kept: the painter does not own what it paints on
        self.written: list[tuple[str, QRectF]] = []
        self.sheets: list[int] = []
        self.page = 0

    def turn_over(self) -> None:
        """Another sheet."""
        self.page += 1

    def drawText(self, *args: Any) -> Any:  # noqa: N802
        """Remember, then write."""
        where, text = args[0], args[-1]
        if isinstance(where, QRectF):
            box = QPainter.boundingRect(self, where, int(args[1]), text)
        else:
            assert isinstance(where, QPointF)
            box = QFontMetricsF(self.font()).boundingRect(text).translated(where)
        self.written.append((text, box))
        self.sheets.append(self.page)
        return super().drawText(*args)
