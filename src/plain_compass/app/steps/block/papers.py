"""What of a block goes on paper or into files: cards in order, the day sheet, the order, lays and days."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QFileDialog

from ....core.base.errors import PlainCompassError
from ....job.disk import write_atomically
from ....job.language import tr
from ...frame.commands import Command
from ...frame.desk import Desk

if TYPE_CHECKING:
    from ....job.block import Block, Ordered


class BlockPapers:
    """Commands that write and print. What paints is imported when it is first asked for.

    Args:
        answer: the block and its order; None until there is one.
    """

    def __init__(self, desk: Desk, answer: Callable[[], tuple[Block, Ordered] | None]) -> None:
        self.desk, self.store, self._answer = desk, desk.store, answer

    def commands(self) -> list[Command]:
        """Cards, sheet, files."""

        def is_there() -> bool:
            return self._answer() is not None

        return [
            Command("block.cards", tr("Cards in order…"), "", self.write_cards, is_there),
            Command("block.print", tr("Print the day sheet…"), "", self.print_sheet, is_there),
            Command("block.sheet", tr("Write out…"), "", self.write_out, is_there),
        ]

    def ask_cards(self) -> str:
        """A PDF to write cards to; empty for none."""
        name, kind = str(Path.home() / "cards.pdf"), tr("Cards (*.pdf)")
        return QFileDialog.getSaveFileName(self.desk.frame, tr("Cards in the order of felling"), name, kind)[0]

    def write_cards(self) -> None:
        """The card of every tree, in order, each as things stand when its turn comes."""
        from ....job.block_turns import turns_of
        from ..card.card_set import CardSet, write_followed
        from ..card.paper import LayoutWanted

        answer, job = self._answer(), self.store.snapshot.job
        if answer is None:
            return
        try:
            turns = turns_of(job, *answer)
        except PlainCompassError as error:
            self.desk.message.refuse(self.store.snapshot.speech.error(error))
            return
        where = self.ask_cards()
        if where:
            write_followed(self.desk, CardSet(job, LayoutWanted(), turns), Path(where), tr("Cards in order"))

    def print_sheet(self) -> None:
        """The day sheet on a printer, by way of a preview."""
        from .sheet import sheet_preview

        answer = self._answer()
        if answer is not None:
            sheet_preview(self.desk.frame, self.store.snapshot.job, *answer).exec()

    def ask_where(self) -> str:
        """A file to write; empty for none."""
        kinds = tr("Day sheet (*.pdf);;Order (*.csv);;Lays (*.geojson);;Calendar (*.ics)")
        name = str(Path.home() / "day.pdf")
        return QFileDialog.getSaveFileName(self.desk.frame, tr("Write out the block"), name, kinds)[0]

    def write_out(self) -> None:
        """The day sheet, the order, the lays or the days, by the file's name."""
        from ....job.block_report import WRITERS
        from .sheet import write_day_sheet

        answer, where = self._answer(), self.ask_where()
        if answer is None or not where:
            return
        job, path = self.store.snapshot.job, Path(where)
        kind = WRITERS.get(path.suffix.lower())
        try:
            if kind is None:
                write_day_sheet(job, *answer, path)
            else:
                write_atomically(path, kind(job, *answer))
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
            return
        self.desk.message.tell(tr("Written to {path}.", path=path))
