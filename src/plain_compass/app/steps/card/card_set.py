"""The cards of every tree of a job in one PDF, to be printed the evening before."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

from PySide6.QtWidgets import QFileDialog

from ....core.base.errors import PlainCompassError
from ....job.disk import JobFileError, write_atomically
from ....job.document import Job
from ...frame.progress import Step, followed
from ...frame.window import Window
from .page import CardPage
from .painter import paint_card
from .pdf import draw_without_screen, judged_snapshot, today
from .sheets import PdfSheets


class CardSet:
    """The cards of all trees, in the job's order, added one at a time.

    Attributes:
        missing: id of each tree that has no card, and why: it is told, never left out in silence.
    """

    def __init__(self, job: Job, paper: str) -> None:
        self.job, self.paper = job, paper
        self.missing: dict[str, str] = {}
        self._sheets = PdfSheets(paper, f"{job.name}: felling cards")

    def __enter__(self) -> CardSet:
        return self

    def __exit__(self, *_: object) -> None:
        self._sheets.close()

    def __iter__(self) -> Iterator[Step]:
        """Add the cards, a tree a step."""
        for before, plan in enumerate(self.job.trees):
            try:
                snapshot = judged_snapshot(self.job, plan.id)
            except PlainCompassError as error:
                self.missing[plan.id] = self.job.speech.error(error, "")
            else:
                if before > len(self.missing):
                    self._sheets.turn_over()
                paint_card(self._sheets.painter, snapshot, self.paper, today(), self._sheets.turn_over)
            yield Step(before + 1, len(self.job.trees))

    def write(self, output: Path) -> str:
        """Write the file; returns what is to be told. Raises JobFileError, also where no tree has a card."""
        written = len(self.job.trees) - len(self.missing)
        without = " ".join(f"{tree_id} has no card: {why}" for tree_id, why in self.missing.items())
        if not written:
            raise JobFileError(f"No card could be made. {without}")
        write_atomically(output, self._sheets.content())
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
        if followed(cards, window, "Cards of all trees", "Each tree is judged and its card made.") is None:
            window.message.tell("Cancelled; no cards were written.")
            return
        try:
            told = cards.write(Path(name))
        except PlainCompassError as error:
            window.message.refuse(str(error))
            return
    (window.message.refuse if cards.missing else window.message.tell)(told)
