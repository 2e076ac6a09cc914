"""The cards of every tree of a job in one PDF, to be printed the evening before."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication, QFileDialog, QProgressDialog

from ....core.base.errors import PlainCompassError
from ....job.disk import JobFileError, write_atomically
from ....job.document import Job
from ...frame.window import Window
from .page import CardPage
from .pdf import CardFile, draw_without_screen, judged_snapshot

SOON_MS = 300
"""A wait shorter than this needs no telling."""


class CardSet:
    """The cards of all trees, in the job's order, added one at a time.

    Attributes:
        missing: id of each tree that has no card, and why: it is told, never left out in silence.
    """

    def __init__(self, job: Job, paper: str) -> None:
        self.job = job
        self.missing: dict[str, str] = {}
        self._file = CardFile(paper, f"{job.name}: felling cards")

    def __enter__(self) -> CardSet:
        return self

    def __exit__(self, *_: object) -> None:
        self._file.close()

    def __iter__(self) -> Iterator[int]:
        """Add the cards; yields how many trees are done after each."""
        for done, plan in enumerate(self.job.trees, 1):
            try:
                snapshot = judged_snapshot(self.job, plan.id)
            except PlainCompassError as error:
                self.missing[plan.id] = self.job.speech.error(error, "")
            else:
                self._file.add(snapshot)
            yield done

    def write(self, output: Path) -> str:
        """Write the file; returns what is to be told. Raises JobFileError, also where no tree has a card."""
        written = len(self.job.trees) - len(self.missing)
        without = " ".join(f"{tree_id} has no card: {why}" for tree_id, why in self.missing.items())
        if not written:
            raise JobFileError(f"No card could be made. {without}")
        write_atomically(output, self._file.content())
        return f"{written} card{'s' if written != 1 else ''} written to {output}. {without}".strip()


def write_cards_without_screen(job: Job, output: Path, paper: str) -> str:
    """Write all cards from the command line; returns what is to be told. Raises JobFileError."""
    draw_without_screen()
    with CardSet(job, paper) as cards:
        for _ in cards:
            pass
        return cards.write(output)


def ask_cards(window: Window) -> str:
    """Where to write the cards; empty for nowhere."""
    name = str(Path.home() / "cards.pdf")
    return QFileDialog.getSaveFileName(window, "Cards of all trees as PDF", name, "PDF (*.pdf)")[0]


def save_cards(window: Window) -> None:
    """Write the cards of every tree of the job, with progress, and with a way to think better of it."""
    window.settle()
    name = ask_cards(window)
    if not name:
        return
    page = window.pages["card"]
    assert isinstance(page, CardPage)
    with CardSet(window.store.snapshot.job, page.preview.paper) as cards:
        if not _made(window, cards):
            window.message.tell("Cancelled; no cards were written.")
            return
        try:
            told = cards.write(Path(name))
        except PlainCompassError as error:
            window.message.refuse(str(error))
            return
    (window.message.refuse if cards.missing else window.message.tell)(told)


def _made(window: Window, cards: CardSet) -> bool:
    """Make them while the window stays awake; False when the person has had enough."""
    shown = QProgressDialog("Each tree is judged and its card made.", "Cancel", 0, len(cards.job.trees), window)
    shown.setWindowTitle("Cards of all trees")
    shown.setWindowModality(Qt.WindowModality.WindowModal)
    shown.setMinimumDuration(SOON_MS)
    try:
        for done in cards:
            shown.setValue(done)
            QApplication.processEvents()
            if shown.wasCanceled():
                return False
    finally:
        shown.close()
        shown.deleteLater()
    return True
