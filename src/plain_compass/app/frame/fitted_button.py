"""A button whose words stay whole: where they have no room they are written narrower, then smaller."""

from __future__ import annotations

from math import ceil

from PySide6.QtCore import QSize
from PySide6.QtGui import QFont, QResizeEvent, QShowEvent
from PySide6.QtWidgets import QSizePolicy, QToolButton

from ..drawing.fitted import fitting, smallest, widest
from ..drawing.palette import CONDENSED


class FittedButton(QToolButton):
    """A tool button that asks for the room of its own type, and makes do with less."""

    def __init__(self) -> None:
        super().__init__()
        self._narrow: QFont | None = None
        self._own: QFont | None = None
        self._frame_px = 0.0
        self._asked = QSize()
        self.setSizePolicy(QSizePolicy.Policy.Maximum, QSizePolicy.Policy.Fixed)
        # The words of a tab that is picked are stronger, and so wider.
        self.toggled.connect(self._fit)

    def fill_row(self) -> None:
        """Take the whole of its share of a row, also where its words want less."""
        self.setSizePolicy(QSizePolicy.Policy.MinimumExpanding, QSizePolicy.Policy.Fixed)

    def setText(self, text: str) -> None:
        """Other words, in the type that fits."""
        if text == self.text():
            return
        super().setText(text)
        self._write(None)
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
        if self._narrow is None or not self._asked.isValid():
            self._asked = super().sizeHint()
        return self._asked

    def minimumSizeHint(self) -> QSize:
        """Its words in the smallest type."""
        asked, own = self.sizeHint(), self._settled()
        return QSize(min(asked.width(), ceil(self._frame_px + widest(smallest(own), self.text()))), asked.height())

    def is_whole(self) -> bool:
        """Whether its words can be read to the end."""
        own = self._settled()
        return self._frame_px + widest(self._narrow or own, self.text()) <= self.width()

    def _fit(self) -> None:
        if not self.isVisible():
            return  # its type is settled when it is first seen
        own = self._settled()
        found = fitting(own, self.text(), self.width() - self._frame_px)
        self._write(None if found == own else found)

    def _write(self, narrow: QFont | None) -> None:
        """Write in its own type, or in a narrow one. A style sheet of its own is stronger than the window's."""
        if narrow != self._narrow:
            self._narrow = narrow
            self.setStyleSheet(f'font-family: "{CONDENSED}"; font-size: {narrow.pixelSize()}px;' if narrow else "")

    def _settled(self) -> QFont:
        """Its own type, and what its style leaves round words in it; known only while it is written in that type."""
        if self._own is None or self._narrow is None:
            self.ensurePolished()
            self._own = QFont(self.font())
            # A tool button asks for two spaces more than its style takes.
            self._frame_px = super().sizeHint().width() - widest(self._own, self.text()) - widest(self._own, "  ")
        own = QFont(self._own)
        if self.property("tab") and self.isChecked():
            own.setWeight(QFont.Weight.DemiBold)
        return own
