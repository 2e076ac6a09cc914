"""The open page's drawings onto the clipboard, as a picture or as SVG."""

from __future__ import annotations

from PySide6.QtCore import QBuffer, QByteArray, QMimeData, QSize, Qt
from PySide6.QtGui import QGuiApplication, QPainter, QPixmap

from ...job.language import tr
from .desk import Desk
from .page import Picture


def _size(pictures: tuple[Picture, ...]) -> QSize:
    return QSize(sum(p.size.width() for p in pictures), max(p.size.height() for p in pictures))


def _paint_side_by_side(painter: QPainter, pictures: tuple[Picture, ...]) -> None:
    for picture in pictures:
        picture.paint(painter)
        painter.translate(picture.size.width(), 0)
    painter.end()


def picture_of(pictures: tuple[Picture, ...]) -> QPixmap:
    """The drawings side by side, twice as fine as on the screen."""
    found = QPixmap(_size(pictures) * 2)
    found.setDevicePixelRatio(2.0)
    found.fill(Qt.GlobalColor.white)
    _paint_side_by_side(QPainter(found), pictures)
    return found


def svg_of(pictures: tuple[Picture, ...]) -> bytes:
    """The drawings side by side as SVG."""
    # Imported here for start-up time only.
    from PySide6.QtSvg import QSvgGenerator

    content = QByteArray()
    buffer = QBuffer(content)
    generator = QSvgGenerator()
    generator.setOutputDevice(buffer)
    size = _size(pictures)
    generator.setSize(size)
    generator.setViewBox(generator.viewBox().adjusted(0, 0, size.width(), size.height()))
    generator.setTitle("Plain Compass")
    _paint_side_by_side(QPainter(generator), pictures)
    return bytes(content.data())


def copy_picture(desk: Desk) -> None:
    """Copy as a picture."""
    QGuiApplication.clipboard().setPixmap(picture_of(desk.page.pictures()))
    desk.message.tell(tr("The drawing is on the clipboard as a picture."))


def copy_svg(desk: Desk) -> None:
    """Copy as SVG."""
    mime = QMimeData()
    content = svg_of(desk.page.pictures())
    mime.setData("image/svg+xml", content)
    mime.setText(content.decode("utf-8"))
    QGuiApplication.clipboard().setMimeData(mime)
    desk.message.tell(tr("The drawing is on the clipboard as SVG."))
