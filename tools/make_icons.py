"""Render the icon to the sizes desktops ask for: ``python tools/make_icons.py``."""

from __future__ import annotations

import os
import sys
from pathlib import Path

FOLDER = Path(__file__).resolve().parent.parent / "src/plain_compass/data/desktop/icons"
SIZES = (16, 22, 24, 32, 48, 64, 128, 256, 512)
"""In pixels, as the icon theme has them."""


def main() -> int:
    """Write a PNG of each size beside the drawing."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from PySide6.QtCore import QRectF
    from PySide6.QtGui import QGuiApplication, QImage, QPainter
    from PySide6.QtSvg import QSvgRenderer

    _application = QGuiApplication([])
    drawing = QSvgRenderer(str(FOLDER / "plain-compass.svg"))
    for size in SIZES:
        image = QImage(size, size, QImage.Format.Format_ARGB32)
        image.fill(0)
        with QPainter(image) as painter:
            drawing.render(painter, QRectF(0, 0, size, size))
        image.save(str(FOLDER / f"plain-compass-{size}.png"))
    return 0


if __name__ == "__main__":
    sys.exit(main())
