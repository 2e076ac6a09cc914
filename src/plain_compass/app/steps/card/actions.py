"""What can be done with the card: print it, write it, all of them, the tape strip, a blank survey sheet.

Dialogs are methods: tests can answer them.
"""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, cast

from PySide6.QtWidgets import QFileDialog, QInputDialog

from ....core.base.errors import PlainCompassError
from ....job.disk import file_name
from ....job.language import tr
from ...frame.commands import Command
from ...frame.desk import Desk
from .paper import MOST_SHEETS, SHEETS

if TYPE_CHECKING:
    from .page import CardPage

NOT_RECKONED = tr("The fall of this plan could not be reckoned, so no card is written of it.")


class CardActions:
    """The commands of the group ``card``. What paints is imported when it is first asked for."""

    def __init__(self, desk: Desk) -> None:
        self.desk, self.store = desk, desk.store

    def commands(self) -> list[Command]:
        """Print, card, cards of all trees, tape strip, survey sheet."""
        return [
            Command("card.print", tr("Print the card…"), "Ctrl+P", self.print_it),
            Command("card.pdf", tr("Card as PDF…"), "Ctrl+Shift+E", self.write_card),
            Command("card.all", tr("Cards of all trees as PDF…"), "Ctrl+Alt+P", self.write_all),
            Command("card.strip", tr("Tape strip as PDF, true to scale…"), "", self.write_strip),
            Command("card.survey", tr("Blank survey sheet as PDF…"), "", self.write_survey),
        ]

    @property
    def page(self) -> CardPage:
        """The page, which knows the paper."""
        return cast("CardPage", self.desk.pages["card"])

    # Dialogs -------------------------------------------------------------------------------------------

    def ask_file(self, title: str, name: str) -> str:
        """Where to write; empty for nowhere."""
        return QFileDialog.getSaveFileName(self.desk.frame, title, str(Path.home() / name), tr("PDF (*.pdf)"))[0]

    def ask_trees(self) -> int:
        """For how many trees a survey sheet is wanted; 0 for none."""
        count, wanted = QInputDialog.getInt(
            self.desk.frame, tr("Blank survey sheet"), tr("For how many trees?"), SHEETS, 1, MOST_SHEETS
        )
        return count if wanted else 0

    # What they do --------------------------------------------------------------------------------------

    def print_it(self) -> None:
        """Show the card as the printer will make it, with a way to print from there."""
        from .printing import print_card

        if self._reckoned():
            print_card(self.desk.frame, self.store.snapshot, self.page.layout_wanted)

    def write_card(self) -> None:
        """Write the card of the tree looked at."""
        from .pdf import write_card

        wanted = self.page.layout_wanted
        self._write_of_tree(tr("Card"), "", lambda path: write_card(self.store.snapshot, path, wanted))

    def write_strip(self) -> None:
        """Write the tape strip of the tree looked at."""
        from .tape_strip import write_strip

        self._write_of_tree(
            tr("Tape strip"),
            "-tape",
            lambda path: write_strip(self.store.snapshot, path, self.page.layout_wanted.paper),
        )

    def write_survey(self) -> None:
        """Write a blank sheet to take along to trees of which nothing has been typed yet."""
        from .survey_sheet import write_survey_sheet

        count = self.ask_trees()
        name = count and self.ask_file(tr("Blank survey sheet as PDF"), "survey-sheet.pdf")
        if name:
            speech, paper = self.store.snapshot.speech, self.page.layout_wanted.paper
            self._tried(tr("Survey sheet"), name, lambda path: write_survey_sheet(count, speech, path, paper))

    def write_all(self) -> None:
        """Write the cards of every tree of the job, with progress, and with a way to think better of it."""
        from .card_set import CardSet, write_followed

        self.desk.settle()
        name = self.ask_file(tr("Cards of all trees as PDF"), "cards.pdf")
        if name:
            cards = CardSet(self.store.snapshot.job, self.page.layout_wanted)
            write_followed(self.desk, cards, Path(name), tr("Cards of all trees"))

    def _reckoned(self) -> bool:
        """Take in what is being typed and finish the fall; False, with a sentence, where that cannot be done."""
        self.desk.settle()
        self.desk.falls.finish()
        if self.store.snapshot.fan is None:
            self.desk.message.refuse(NOT_RECKONED)
            return False
        return True

    def _write_of_tree(self, what: str, ending: str, write: Callable[[Path], None]) -> None:
        if self._reckoned():
            name = self.ask_file(tr("{what} as PDF", what=what), f"{file_name(self.store.tree_id, 'tree')}{ending}.pdf")
            if name:
                self._tried(what, name, write)

    def _tried(self, what: str, name: str, write: Callable[[Path], None]) -> None:
        try:
            write(Path(name))
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
            return
        self.desk.message.tell(tr("{what} written to {name}.", what=what, name=name))
