"""Paper that is painted on sheet after sheet and becomes a PDF file."""

from __future__ import annotations

from PySide6.QtCore import QBuffer, QByteArray, QIODevice, QMarginsF
from PySide6.QtGui import QPageLayout, QPageSize, QPainter, QPdfWriter

RESOLUTION = 1200
"""Dots per inch, a fiftieth of a millimetre: text and hatching are lines, this says how finely they are placed."""
SIZES = {"A4": QPageSize.PageSizeId.A4, "Letter": QPageSize.PageSizeId.Letter}
Way = QPageLayout.Orientation


class PdfSheets:
    """Laid out in 1/96 inch; to be closed in any case: a painter must not outlive what it paints on."""

    def __init__(self, paper: str, title: str, *, on_its_side: bool = False) -> None:
        self._content = QByteArray()
        self._buffer = QBuffer(self._content)
        self._buffer.open(QIODevice.OpenModeFlag.WriteOnly)
        self._writer = QPdfWriter(self._buffer)
        self._writer.setResolution(RESOLUTION)
        way = Way.Landscape if on_its_side else Way.Portrait
        self._writer.setPageLayout(QPageLayout(QPageSize(SIZES[paper]), way, QMarginsF(0, 0, 0, 0)))
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
