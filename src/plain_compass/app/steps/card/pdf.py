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


class CardFile:
    """A PDF file that cards are added to, each on pages of its own; to be closed whether it was wanted or not."""

    def __init__(self, paper: str, title: str) -> None:
        self.paper = paper
        self._content = QByteArray()
        self._buffer = QBuffer(self._content)
        self._buffer.open(QIODevice.OpenModeFlag.WriteOnly)
        self._writer = QPdfWriter(self._buffer)
        self._writer.setResolution(RESOLUTION)
        self._writer.setPageSize(QPageSize(QPageSize.PageSizeId.A4 if paper == "A4" else QPageSize.PageSizeId.Letter))
        self._writer.setPageMargins(QMarginsF(0, 0, 0, 0))
        self._writer.setTitle(title)
        self._writer.setCreator("Plain Compass")
        self._painter: QPainter | None = None

    def add(self, snapshot: Snapshot) -> None:
        """Add one tree's card."""
        if self._painter is None:
            self._painter = QPainter(self._writer)
            self._painter.scale(RESOLUTION / 96, RESOLUTION / 96)
        else:
            self._writer.newPage()
        paint_card(self._painter, snapshot, self.paper, today(), self._writer.newPage)

    def content(self) -> bytes:
        """The file as it is to be written; nothing can be added after this."""
        self.close()
        return bytes(self._content.data())

    def close(self) -> None:
        """End the painting: a painter must not outlive what it paints on."""
        if self._painter is not None and self._painter.isActive():
            self._painter.end()
        self._buffer.close()


def card_pdf(snapshot: Snapshot, paper: str) -> bytes:
    """One tree's card as the content of a PDF file."""
    file = CardFile(paper, f"{snapshot.plan.id}: felling card")
    file.add(snapshot)
    return file.content()


def judged_snapshot(job: Job, tree_id: str) -> Snapshot:
    """One tree as its card shows it, its fall reckoned. Raises PlainCompassError where it cannot be judged."""
    plan = job.plan(tree_id)
    result, chances = judged_tree(job, tree_id)
    return Snapshot(job, plan, with_its_fall(plan, result), chances=chances)


def write_card(snapshot: Snapshot, output: Path, paper: str = "A4") -> None:
    """Write one tree's card. Raises JobFileError with a sentence; a card already there then stays as it was."""
    write_atomically(output, card_pdf(snapshot, paper))


def draw_without_screen() -> None:
    """Make drawing possible from the command line, where there may be no screen at all."""
    if QGuiApplication.instance() is None:
        os.environ["QT_QPA_PLATFORM"] = "offscreen"
        draw_without_screen.application = QGuiApplication([])  # type: ignore[attr-defined]
    load_fonts()


def write_card_without_screen(job: Job, tree_id: str, output: Path, paper: str, *, strip: bool = False) -> None:
    """Write a card, or its tape strip, from the command line."""
    draw_without_screen()
    (write_strip if strip else write_card)(judged_snapshot(job, tree_id), output, paper)
