"""Type as large as the desktop asks for: the whole window grows with it, so that nothing is cut."""

from __future__ import annotations

import os

from PySide6.QtGui import QFontDatabase
from PySide6.QtWidgets import QApplication

USUAL_PT = 11.0
"""Size of a desktop's text at which this program's own is as it was drawn; smaller ones leave it so."""
MOST = 2.0
"""More than twice as large no window would hold."""
BY_HAND = "QT_SCALE_FACTOR"
"""Who sets this in the environment has chosen already."""


def growth(text_pt: float) -> float:
    """How much larger everything is drawn for a desktop's text size in points; 1 to 2, in steps of a twentieth."""
    return min(max(round(text_pt / USUAL_PT * 20) / 20, 1.0), MOST)


def system_growth() -> float:
    """The same for this desktop. A larger resolution of text, as most desktops have it, Qt follows by itself."""
    return growth(QFontDatabase.systemFont(QFontDatabase.SystemFont.GeneralFont).pointSizeF())


def grow(app: QApplication) -> bool:
    """Ask for larger drawing; True where the application has to be made anew for that: it is read only then."""
    wanted = system_growth()
    if wanted == 1.0 or BY_HAND in os.environ:
        return False
    os.environ[BY_HAND] = str(wanted)
    app.shutdown()
    return True
