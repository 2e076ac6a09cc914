"""The handbook as a PDF, from the same texts as the help in the window: ``make handbook``."""

from __future__ import annotations

import os
import sys
from pathlib import Path

TARGET = Path(__file__).resolve().parent.parent / "docs" / "handbook.pdf"


def main() -> int:
    """Write it, and say so."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from PySide6.QtGui import QTextDocument

    from plain_compass.app.drawing.pages import write_pages
    from plain_compass.app.drawing.rich_text import give_room
    from plain_compass.app.main import application
    from plain_compass.job.handbook import whole
    from plain_compass.job.words import Speech

    target = Path(sys.argv[1]) if len(sys.argv) > 1 else TARGET
    app = application()
    text = QTextDocument()
    text.setMarkdown(whole(Speech()))
    give_room(text)
    write_pages(target, text.toHtml(), "Plain Compass handbook")
    app.quit()
    print(f"{target.name}: {target.stat().st_size / 1e3:.0f} kB.")
    return 0


if __name__ == "__main__":
    sys.exit(main())
