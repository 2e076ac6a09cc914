"""The drawing on a page of the handbook about a form of cut: in the round, on the tree that is open."""

from __future__ import annotations

from PySide6.QtCore import QRectF, QSize
from PySide6.QtGui import QColor, QImage, QPainter

from ...core.cuts import form_of
from ..drawing.palette import Palette
from ..drawing.round_painter import paint_round
from ..drawing.shapes import Shapes
from .form_drawn import LOOK, drawn_on
from .store import Snapshot

PICTURE_PX = QSize(520, 360)
"""Beside the list of pages in the smallest window."""


def picture_on(page: str, snapshot: Snapshot, colours: Palette) -> QImage | None:
    """The picture of a page; None where it has none, or where the form cannot be cut on this stem."""
    kind, _, rest = page.partition(":")
    if kind != "form":
        return None
    part, _, key = rest.partition(".")
    (drawn,) = drawn_on(snapshot.result, [form_of(part, key)])
    if drawn is None:
        return None
    image = QImage(PICTURE_PX * 2, QImage.Format.Format_RGB32)
    image.setDevicePixelRatio(2.0)
    image.fill(QColor(colours.sheet))
    with QPainter(image) as painter:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = QRectF(0.0, 0.0, PICTURE_PX.width(), PICTURE_PX.height())
        paint_round(painter, box, Shapes(drawn).solid, LOOK, colours, speech=snapshot.speech)
    return image
