"""Rich text and drawings as pages of a paper: of a PDF, or of a printer."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from pathlib import Path

from PySide6.QtCore import QBuffer, QIODevice, QMarginsF, QRectF, QSizeF
from PySide6.QtGui import QPagedPaintDevice, QPageLayout, QPageSize, QPainter, QPdfWriter, QTextDocument

from ...job.disk import write_atomically
from .palette import font

DPI = 96
"""Of the pages: a pixel of the screen is one of the paper."""
MM_PX = DPI / 25.4
"""Pixels in a millimetre of paper."""
MARGIN_MM = 15.0
"""Round the page."""
Drawn = Callable[[QPainter, QSizeF], None]
"""What paints a page of so many pixels."""


def page_layout() -> QPageLayout:
    """A4, upright."""
    margins = QMarginsF(*[MARGIN_MM] * 4)
    size, upright = QPageSize(QPageSize.PageSizeId.A4), QPageLayout.Orientation.Portrait
    return QPageLayout(size, upright, margins, QPageLayout.Unit.Millimeter)


def paint_pages(device: QPagedPaintDevice, resolution: int, html: str, drawings: Sequence[Drawn] = ()) -> int:
    """Paint the text and then the drawings, a page each; returns how many pages it took."""
    document = QTextDocument()
    document.setDefaultFont(font(12))
    page = QSizeF(device.pageLayout().paintRectPixels(DPI).size())
    document.setPageSize(page)
    document.setHtml(html)
    count = document.pageCount()
    with QPainter(device) as painter:
        painter.scale(resolution / DPI, resolution / DPI)
        for number in range(count):
            if number:
                device.newPage()
            painter.save()
            painter.translate(0.0, -number * page.height())
            document.drawContents(painter, QRectF(0.0, number * page.height(), page.width(), page.height()))
            painter.restore()
        for draw in drawings:
            device.newPage()
            draw(painter, page)
    return count + len(drawings)


def write_pages(path: Path, html: str, title: str, drawings: Sequence[Drawn] = ()) -> None:
    """Write it as PDF, whole or not at all. Raises JobFileError."""
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    writer = QPdfWriter(buffer)
    writer.setResolution(DPI)
    writer.setTitle(title)
    writer.setPageLayout(page_layout())
    paint_pages(writer, DPI, html, drawings)
    del writer
    buffer.close()
    write_atomically(path, bytes(buffer.data().data()))


def scale_for(wide_m: float, tall_m: float, page: QSizeF) -> int:
    """The largest of the usual scales at which so much ground fits on a page of pixels: 500 for 1 to 500."""
    least = max(wide_m / (page.width() / MM_PX / 1000.0), tall_m / (page.height() / MM_PX / 1000.0), 1.0)
    power = 10.0 ** math.floor(math.log10(least))
    return round(next(each * power for each in (1.0, 2.0, 2.5, 5.0, 10.0) if each * power >= least - 1e-9))
