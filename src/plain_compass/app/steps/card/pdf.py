"""The card as a PDF file, with or without a screen."""

from __future__ import annotations

import os
from datetime import date
from pathlib import Path

from PySide6.QtCore import QBuffer, QByteArray, QIODevice, QMarginsF
from PySide6.QtGui import QGuiApplication, QPageSize, QPainter, QPdfWriter

from ....job.disk import write_atomically
from ....job.document import Job
from ....job.fall import with_its_fall
from ....job.spreads import judged_tree
from ...drawing.palette import load_fonts
from ...frame.store import Snapshot
from .painter import paint_card
from .tape_strip import write_strip

RESOLUTION = 1200
"""Dots per inch: text and hatching are lines, this only says how finely their places are rounded."""


def today() -> str:
    """Today's date as the card shows it."""
    return date.today().strftime("%-d %B %Y")


def card_pdf(snapshot: Snapshot, paper: str) -> bytes:
    """One tree's card as the content of a PDF file."""
    content = QByteArray()
    buffer = QBuffer(content)
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    writer = QPdfWriter(buffer)
    writer.setResolution(RESOLUTION)
    writer.setPageSize(QPageSize(QPageSize.PageSizeId.A4 if paper == "A4" else QPageSize.PageSizeId.Letter))
    writer.setPageMargins(QMarginsF(0, 0, 0, 0))
    writer.setTitle(f"{snapshot.plan.id}: felling card")
    writer.setCreator("Plain Compass")
    painter = QPainter(writer)
    painter.scale(RESOLUTION / 96, RESOLUTION / 96)
    paint_card(painter, snapshot, paper, today(), writer.newPage)
    painter.end()
    return bytes(content.data())


def write_card(snapshot: Snapshot, output: Path, paper: str = "A4") -> None:
    """Write one tree's card. Raises JobFileError with a sentence; a card already there then stays as it was."""
    write_atomically(output, card_pdf(snapshot, paper))


def write_card_without_screen(job: Job, tree_id: str, output: Path, paper: str, *, strip: bool = False) -> None:
    """Write a card, or its tape strip, from the command line, where there may be no screen at all."""
    if QGuiApplication.instance() is None:
        os.environ["QT_QPA_PLATFORM"] = "offscreen"
        write_card_without_screen.application = QGuiApplication([])  # type: ignore[attr-defined]
    load_fonts()
    write = write_strip if strip else write_card
    plan = job.plan(tree_id)
    result, chances = judged_tree(job, tree_id)
    write(Snapshot(job, plan, with_its_fall(plan, result), chances=chances), output, paper)
