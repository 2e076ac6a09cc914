"""The cards of every tree of a job in one PDF, to be printed the evening before."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import TYPE_CHECKING

from ....core.base.errors import PlainCompassError
from ....job.disk import JobFileError, write_atomically
from ....job.document import Job
from ....job.language import tr, tr_count
from ...frame.progress import Step, followed
from .painter import paint_card
from .paper import LayoutWanted
from .pdf import draw_without_screen, judged_snapshot, today
from .sheets import PdfSheets

if TYPE_CHECKING:
    from ...frame.desk import Desk


class CardSet:
    """The cards of all trees, in the job's order or as each has its turn, added one at a time.

    Attributes:
        turns: (the job then, id of the tree) of each card.
        missing: id of each tree that has no card, and why: it is told, never left out in silence.
    """

    def __init__(self, job: Job, wanted: LayoutWanted, turns: Sequence[tuple[Job, str]] = ()) -> None:
        self.job, self.wanted = job, wanted
        self.turns = tuple(turns) or tuple((job, plan.id) for plan in job.trees)
        self.missing: dict[str, str] = {}
        self._sheets = PdfSheets(wanted.paper, tr("{name}: felling cards", name=job.name))

    def __enter__(self) -> CardSet:
        return self

    def __exit__(self, *_: object) -> None:
        self._sheets.close()

    def __iter__(self) -> Iterator[Step]:
        """Add the cards, a tree a step."""
        for before, (job, tree_id) in enumerate(self.turns):
            try:
                snapshot = judged_snapshot(job, tree_id)
            except PlainCompassError as error:
                self.missing[tree_id] = self.job.speech.error(error, "")
            else:
                if before > len(self.missing):
                    self._sheets.turn_over()
                paint_card(self._sheets.painter, snapshot, self.wanted, today(), self._sheets.turn_over)
            yield Step(before + 1, len(self.turns))

    def write(self, output: Path) -> str:
        """Write the file; returns what is to be told. Raises JobFileError, also where no tree has a card."""
        written = len(self.turns) - len(self.missing)
        without = " ".join(
            tr("{tree_id} has no card: {why}", tree_id=tree_id, why=why) for tree_id, why in self.missing.items()
        )
        if not written:
            raise JobFileError(tr("No card could be made. {without}", without=without))
        write_atomically(output, self._sheets.content())
        return tr_count(
            "{count} card written to {output}. {without}",
            "{count} cards written to {output}. {without}",
            written,
            output=output,
            without=without,
        ).strip()


def write_cards_without_screen(
    job: Job, output: Path, wanted: LayoutWanted, turns: Sequence[tuple[Job, str]] = ()
) -> str:
    """Write all cards, or those of some turns, without a window; returns what is to be told. Raises JobFileError."""
    draw_without_screen()
    with CardSet(job, wanted, turns) as cards:
        for _ in cards:
            pass
        return cards.write(output)


def write_followed(desk: Desk, cards: CardSet, output: Path, title: str) -> None:
    """Make and write cards with progress, and a way to think better of it; says what came of it."""
    with cards:
        if followed(cards, desk.frame, title, tr("Each tree is judged and its card made.")) is None:
            desk.message.tell(tr("Cancelled; no cards were written."))
            return
        try:
            told = cards.write(output)
        except PlainCompassError as error:
            desk.message.refuse(str(error))
            return
    (desk.message.refuse if cards.missing else desk.message.tell)(told)
