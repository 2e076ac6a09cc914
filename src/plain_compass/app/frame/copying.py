"""The open page's drawings onto the clipboard, as a picture or as SVG."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtCore import QBuffer, QByteArray, QMimeData, QPoint, QSize
from PySide6.QtGui import QGuiApplication, QPainter, QPixmap
from PySide6.QtWidgets import QWidget

if TYPE_CHECKING:
    from .window import Window


def _size(widgets: tuple[QWidget, ...]) -> QSize:
    return QSize(sum(w.width() for w in widgets), max(w.height() for w in widgets))


def picture_of(widgets: tuple[QWidget, ...]) -> QPixmap:
    """The drawings side by side, twice as fine as on the screen."""
    picture = QPixmap(_size(widgets) * 2)
    picture.setDevicePixelRatio(2.0)
    painter = QPainter(picture)
    left = 0
    for widget in widgets:
        widget.render(painter, QPoint(left, 0))
        left += widget.width()
    painter.end()
    return picture


def svg_of(widgets: tuple[QWidget, ...]) -> bytes:
    """The drawings side by side as SVG."""
    # Imported here for start-up time only.
    from PySide6.QtSvg import QSvgGenerator

    content = QByteArray()
    buffer = QBuffer(content)
    generator = QSvgGenerator()
    generator.setOutputDevice(buffer)
    generator.setSize(_size(widgets))
    generator.setTitle("Plain Compass")
    painter = QPainter(generator)
    left = 0
    for widget in widgets:
        widget.render(painter, QPoint(left, 0))
        left += widget.width()
    painter.end()
    return bytes(content.data())


def copy_picture(window: Window) -> None:
    """Copy as a picture."""
    QGuiApplication.clipboard().setPixmap(picture_of(window.page.picture()))
    window.message.tell("The drawing is on the clipboard as a picture.")


def copy_svg(window: Window) -> None:
    """Copy as SVG."""
    mime = QMimeData()
    content = svg_of(window.page.picture())
    mime.setData("image/svg+xml", content)
    mime.setText(content.decode("utf-8"))
    QGuiApplication.clipboard().setMimeData(mime)
    window.message.tell("The drawing is on the clipboard as SVG.")
