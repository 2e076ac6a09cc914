"""A button whose words stay whole: where they have no room they are written narrower, then smaller."""

from __future__ import annotations

from PySide6.QtCore import QSize
from PySide6.QtGui import QFont, QFontMetrics, QResizeEvent, QShowEvent
from PySide6.QtWidgets import QSizePolicy, QToolButton

from ..drawing.palette import CONDENSED, font

LEAST_PX = 10
"""Smaller words cannot be read; longer ones than fit then are cut short, and stand whole in the tooltip."""


class FittedButton(QToolButton):
    """A tool button that asks for the room of its own type, and makes do with less."""

    def __init__(self) -> None:
        super().__init__()
        self._size = 0
        self._own: QFont | None = None
        self._frame_px = 0
        self._asked = QSize()
        self.setSizePolicy(QSizePolicy.Policy.Maximum, QSizePolicy.Policy.Fixed)
        # The words of a tab that is picked are stronger, and so wider.
        self.toggled.connect(self._fit)

    def fill_row(self) -> None:
        """Take the whole of its share of a row, also where its words want less."""
        self.setSizePolicy(QSizePolicy.Policy.MinimumExpanding, QSizePolicy.Policy.Fixed)

    def setText(self, text: str) -> None:
        """Other words, in the type that fits."""
        super().setText(text)
        self._write(0)
        self._asked = super().sizeHint()
        self._fit()

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Another width may want another type."""
        super().resizeEvent(event)
        self._fit()

    def showEvent(self, event: QShowEvent) -> None:
        """Fit before it is seen."""
        super().showEvent(event)
        self._fit()

    def sizeHint(self) -> QSize:
        """What its words want in its own type, however they are written now."""
        if not self._size or not self._asked.isValid():
            self._asked = super().sizeHint()
        return self._asked

    def minimumSizeHint(self) -> QSize:
        """Its words in the smallest type."""
        asked = self.sizeHint()
        return QSize(min(asked.width(), self._wide(LEAST_PX)), asked.height())

    def is_whole(self) -> bool:
        """Whether its words can be read to the end."""
        return self._wide(self._size) <= self.width()

    def _fit(self) -> None:
        if not self.isVisible():
            return  # its type is settled when it is first seen
        largest = self._settled().pixelSize()
        sizes = (0, *range(largest, LEAST_PX - 1, -1))
        self._write(next((size for size in sizes if self._wide(size) <= self.width()), LEAST_PX))

    def _write(self, size: int) -> None:
        """Write in its own type (0), or narrow in this size. A style sheet of its own is stronger than the window's."""
        if size != self._size:
            self._size = size
            self.setStyleSheet(f'font-family: "{CONDENSED}"; font-size: {size}px;' if size else "")

    def _settled(self) -> QFont:
        """Its own type, and what its style leaves round words in it; known only while it is written in that type."""
        if self._own is None or not self._size:
            self.ensurePolished()
            self._own = QFont(self.font())
            # A tool button asks for two spaces more than its style takes.
            self._frame_px = super().sizeHint().width() - _wide(self._own, self.text()) - _wide(self._own, "  ")
        return self._own

    def _wide(self, size: int) -> int:
        """Width of the whole button with its words in a size; 0 is its own type."""
        own = self._settled()
        strong = own.weight() > QFont.Weight.Medium or (bool(self.property("tab")) and self.isChecked())
        return self._frame_px + _wide(font(size, strong=strong, narrow=True) if size else own, self.text())


def _wide(of: QFont, text: str) -> int:
    measured = QFontMetrics(of)
    return max(measured.horizontalAdvance(line) for line in text.split("\n"))
