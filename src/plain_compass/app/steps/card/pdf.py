"""The card as a PDF file, with or without a screen."""

from __future__ import annotations

import os
from datetime import date
from pathlib import Path

from PySide6.QtCore import QMarginsF
from PySide6.QtGui import QGuiApplication, QPageSize, QPainter, QPdfWriter

from ....job.document import Job, assess_tree
from ....job.files import JobFileError
from ...drawing.palette import load_fonts
from ...frame.store import Snapshot
from .painter import paint_card

RESOLUTION = 1200


def today() -> str:
    """Today's date as the card shows it."""
    return date.today().strftime("%-d %B %Y")


def write_card(snapshot: Snapshot, output: Path, paper: str = "A4") -> None:
    """Write one tree's card. Raises JobFileError with a sentence; a card already there then stays as it was."""
    if output.is_dir():
        raise JobFileError(f"{output} is a folder; give the card a file name.")
    part = output.with_name(f".{output.name}.part")
    writer = QPdfWriter(str(part))
    writer.setResolution(RESOLUTION)
    writer.setPageSize(QPageSize(QPageSize.PageSizeId.A4 if paper == "A4" else QPageSize.PageSizeId.Letter))
    writer.setPageMargins(QMarginsF(0, 0, 0, 0))
    writer.setTitle(f"{snapshot.plan.id}: felling card")
    writer.setCreator("Plain Compass")
    painter = QPainter()
    if not painter.begin(writer):
        raise JobFileError(f"{output} could not be written: no such folder, no permission, or no room on the disk.")
    painter.scale(RESOLUTION / 96, RESOLUTION / 96)
    paint_card(painter, snapshot, paper, today())
    painter.end()
    try:
        if part.stat().st_size < 1000 or not part.read_bytes().rstrip().endswith(b"%%EOF"):
            raise OSError(28, "no room on the disk")
        os.replace(part, output)
    except OSError as error:
        part.unlink(missing_ok=True)
        raise JobFileError(f"{output} could not be written: {(error.strerror or str(error)).lower()}.") from None


def write_card_without_screen(job: Job, tree_id: str, output: Path, paper: str) -> None:
    """Write a card from the command line, where there may be no screen at all."""
    if QGuiApplication.instance() is None:
        os.environ["QT_QPA_PLATFORM"] = "offscreen"
        write_card_without_screen.application = QGuiApplication([])  # type: ignore[attr-defined]
    load_fonts()
    write_card(Snapshot(job, job.plan(tree_id), assess_tree(job, tree_id)), output, paper)
