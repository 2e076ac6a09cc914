"""The card as a PDF file, with or without a screen."""

from __future__ import annotations

import os
from datetime import date
from pathlib import Path

from PySide6.QtGui import QGuiApplication

from ....job.disk import write_atomically
from ....job.document import Job
from ....job.fall import judged_with_fall
from ....job.language import tr
from ...drawing.palette import load_fonts
from ...frame.store import Snapshot
from .painter import paint_card
from .paper import LayoutWanted
from .sheets import PdfSheets
from .tape_strip import write_strip


def today() -> str:
    """Today's date as the card shows it."""
    return date.today().strftime("%-d %B %Y")


def card_pdf(snapshot: Snapshot, wanted: LayoutWanted) -> bytes:
    """One tree's card as the content of a PDF file."""
    with PdfSheets(wanted.paper, tr("{id}: felling card", id=snapshot.plan.id)) as sheets:
        paint_card(sheets.painter, snapshot, wanted, today(), sheets.turn_over)
        return sheets.content()


def judged_snapshot(job: Job, tree_id: str) -> Snapshot:
    """One tree as its card shows it, its fall reckoned. Raises PlainCompassError where it cannot be judged."""
    result, chances = judged_with_fall(job, tree_id)
    return Snapshot(job, job.plan(tree_id), result, chances=chances)


def write_card(snapshot: Snapshot, output: Path, wanted: LayoutWanted) -> None:
    """Write one tree's card. Raises JobFileError with a sentence; a card already there then stays as it was."""
    write_atomically(output, card_pdf(snapshot, wanted))


def draw_without_screen() -> None:
    """Make drawing possible from the command line, where there may be no screen at all."""
    if QGuiApplication.instance() is None:
        os.environ["QT_QPA_PLATFORM"] = "offscreen"
        draw_without_screen.application = QGuiApplication([])  # type: ignore[attr-defined]
    load_fonts()


def write_card_without_screen(job: Job, tree_id: str, output: Path, wanted: LayoutWanted) -> None:
    """Write a card from the command line."""
    draw_without_screen()
    write_card(judged_snapshot(job, tree_id), output, wanted)


def write_strip_without_screen(job: Job, tree_id: str, output: Path, paper: str) -> None:
    """Write a tape strip from the command line."""
    draw_without_screen()
    write_strip(judged_snapshot(job, tree_id), output, paper)
