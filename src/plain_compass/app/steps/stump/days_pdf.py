"""Day and year on paper."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import QBuffer, QIODevice, QMarginsF
from PySide6.QtGui import QPageLayout, QPageSize, QPdfWriter, QTextDocument

from ....job.disk import write_atomically
from ...drawing.palette import font

DPI = 96
"""Of the pages: a pixel of the screen is one of the paper."""


def write_days_pdf(path: Path, html: str, title: str) -> None:
    """Write the page as PDF, whole or not at all. Raises JobFileError."""
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    writer = QPdfWriter(buffer)
    writer.setResolution(DPI)
    writer.setTitle(title)
    page, upright = QPageSize(QPageSize.PageSizeId.A4), QPageLayout.Orientation.Portrait
    writer.setPageLayout(QPageLayout(page, upright, QMarginsF(15, 15, 15, 15), QPageLayout.Unit.Millimeter))
    document = QTextDocument()
    document.setDefaultFont(font(12))
    document.setPageSize(writer.pageLayout().paintRectPixels(DPI).size().toSizeF())
    document.setHtml(html)
    document.print_(writer)
    del document, writer
    buffer.close()
    write_atomically(path, bytes(buffer.data().data()))
