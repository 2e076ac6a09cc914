"""Paper that is painted on sheet after sheet and becomes a PDF file, or goes to a printer."""

from __future__ import annotations

from PySide6.QtCore import QBuffer, QByteArray, QIODevice, QMarginsF, QSizeF
from PySide6.QtGui import QPageLayout, QPageSize, QPainter, QPdfWriter

from .paper import PAPERS

RESOLUTION = 1200
"""Dots per inch, a fiftieth of a millimetre: text and hatching are lines, this says how finely they are placed."""
Way = QPageLayout.Orientation


def page_layout(paper: str, *, on_its_side: bool = False) -> QPageLayout:
    """A paper as Qt knows it, without margins of its own: the card keeps them."""
    sheet = PAPERS[paper]
    size = QPageSize(QSizeF(sheet.wide_mm, sheet.tall_mm), QPageSize.Unit.Millimeter, paper)
    return QPageLayout(size, Way.Landscape if on_its_side else Way.Portrait, QMarginsF(0, 0, 0, 0))


class PdfSheets:
    """Laid out in 1/96 inch; to be closed in any case: a painter must not outlive what it paints on."""

    def __init__(self, paper: str, title: str, *, on_its_side: bool = False) -> None:
        self._content = QByteArray()
        self._buffer = QBuffer(self._content)
        self._buffer.open(QIODevice.OpenModeFlag.WriteOnly)
        self._writer = QPdfWriter(self._buffer)
        self._writer.setResolution(RESOLUTION)
        self._writer.setPageLayout(page_layout(paper, on_its_side=on_its_side))
        self._writer.setTitle(title)
        self._writer.setCreator("Plain Compass")
        self.painter = QPainter(self._writer)
        self.painter.scale(RESOLUTION / 96, RESOLUTION / 96)

    def __enter__(self) -> PdfSheets:
        return self

    def __exit__(self, *_: object) -> None:
        self.close()

    def turn_over(self) -> None:
        """Begin another sheet."""
        self._writer.newPage()

    def content(self) -> bytes:
        """The file as it is to be written; nothing can be painted after this."""
        self.close()
        return bytes(self._content.data())

    def close(self) -> None:
        """End the painting."""
        if self.painter.isActive():
            self.painter.end()
        self._buffer.close()
