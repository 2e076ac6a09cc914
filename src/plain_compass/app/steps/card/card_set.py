"""The cards of every tree of a job in one PDF, to be printed the evening before."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

from ....core.base.errors import PlainCompassError
from ....job.disk import JobFileError, write_atomically
from ....job.document import Job
from ...frame.progress import Step
from .painter import paint_card
from .paper import LayoutWanted
from .pdf import draw_without_screen, judged_snapshot, today
from .sheets import PdfSheets


class CardSet:
    """The cards of all trees, in the job's order, added one at a time.

    Attributes:
        missing: id of each tree that has no card, and why: it is told, never left out in silence.
    """

    def __init__(self, job: Job, wanted: LayoutWanted) -> None:
        self.job, self.wanted = job, wanted
        self.missing: dict[str, str] = {}
        self._sheets = PdfSheets(wanted.paper, f"{job.name}: felling cards")

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
                paint_card(self._sheets.painter, snapshot, self.wanted, today(), self._sheets.turn_over)
            yield Step(before + 1, len(self.job.trees))

    def write(self, output: Path) -> str:
        """Write the file; returns what is to be told. Raises JobFileError, also where no tree has a card."""
        written = len(self.job.trees) - len(self.missing)
        without = " ".join(f"{tree_id} has no card: {why}" for tree_id, why in self.missing.items())
        if not written:
            raise JobFileError(f"No card could be made. {without}")
        write_atomically(output, self._sheets.content())
        return f"{written} card{'s' if written != 1 else ''} written to {output}. {without}".strip()


def write_cards_without_screen(job: Job, output: Path, wanted: LayoutWanted) -> str:
    """Write all cards from the command line; returns what is to be told. Raises JobFileError."""
    draw_without_screen()
    with CardSet(job, wanted) as cards:
        for _ in cards:
            pass
        return cards.write(output)
