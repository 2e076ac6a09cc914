"""What can be done with practice: the mode, sets and sheets, a tree made into a case, the record."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING, cast

from PySide6.QtWidgets import QFileDialog, QInputDialog

from ....core.base.errors import PlainCompassError
from ....job.disk import write_atomically
from ....job.language import tr
from ...frame.commands import Command
from ...frame.desk import Desk

if TYPE_CHECKING:
    from ....job.document import Job
    from ....job.practice_case import SetCase
    from .page import PracticePage

SETS = tr("Practice sets (*.json)")
"""Files that hold a set."""
MADE, LEVEL = 12, 2
"""Cases in a set that is made here, and how hard they are."""


class PracticeActions:
    """The commands of the group ``train``. What makes and paints is imported when it is first asked for.

    Args:
        opener: puts a made job in the place of the one that is open; False where somebody wants to stay with that.
    """

    def __init__(self, desk: Desk, opener: Callable[[Job], bool]) -> None:
        self.desk, self.store, self._opener, self._back = desk, desk.store, opener, "cut"

    def commands(self) -> list[Command]:
        """The mode, its sets."""
        return [
            Command("train.open", self._title, "9", self.toggle),
            Command("train.work", tr("Work through a set…"), "", self.work_through),
            Command("train.make", tr("Make a set…"), "", self.make_set),
            Command("train.sheet", tr("A set on paper…"), "", self.write_sheet),
            Command("train.keep", tr("This tree as a case…"), "", self.keep_tree),
            Command("train.record", tr("Write out the record…"), "", self.write_record),
            Command("train.eye", tr("Use my eye in plans"), "", self.use_eye),
        ]

    def _is_open(self) -> bool:
        return self.desk.step == "practice"

    def _title(self) -> str:
        return tr("Back to the job") if self._is_open() else tr("Practice")

    def page(self) -> PracticePage:
        """The page, made where it was not yet."""
        is_new = "practice" not in self.desk.pages
        page = cast("PracticePage", self.desk.pages["practice"])
        if is_new:
            page.wanted.connect(self.show_case)
            page.worked.connect(self.keep_answers)
            if page.session.record.troubles:
                self.desk.message.refuse(" ".join(page.session.record.troubles))
        return page

    def toggle(self) -> None:
        """Into practice, or back to where one was."""
        if self._is_open():
            self.desk.show_step(self._back)
            self.desk.commands.refresh()
            return
        self._back = self.desk.step
        page = self.page()
        self.desk.show_step("practice")
        page.begin()
        self.desk.commands.refresh()

    def show_case(self, kept: SetCase) -> None:
        """A case as a job of its own, to be taken apart."""
        from ....job.practice_case import job_of

        job = self.store.snapshot.job
        if self._opener(job_of(kept, job.units, job.words)):
            self.desk.show_step("stump" if kept.asks in ("fault", "went") else "cut")
            self.desk.commands.refresh()

    # Sets ----------------------------------------------------------------------------------------------

    def ask_set(self) -> str:
        """A set to open; empty for none."""
        return QFileDialog.getOpenFileName(self.desk.frame, tr("A set of practice"), str(Path.home()), SETS)[0]

    def ask_where(self, name: str, kinds: str) -> str:
        """A file to write; empty for none."""
        return QFileDialog.getSaveFileName(self.desk.frame, tr("Write to"), str(Path.home() / name), kinds)[0]

    def ask_skill(self, options: list[str]) -> str:
        """What a case is to ask; empty for nothing."""
        found, is_taken = QInputDialog.getItem(
            self.desk.frame, tr("A case"), tr("What is asked of it:"), options, 0, False
        )
        return found if is_taken else ""

    def work_through(self) -> None:
        """A set, case by case."""
        from ....job.practice_set import read_set

        where = self.ask_set()
        if not where:
            return
        try:
            practice = read_set(Path(where))
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
            return
        page = self.page()
        self._back = self._back if self._is_open() else self.desk.step
        self.desk.show_step("practice")
        page.work_through(practice)
        self.desk.commands.refresh()

    def keep_answers(self) -> None:
        """A set is through: its answers as a file for whoever teaches."""
        from ....job.practice_answers import answers_text

        page = self.page()
        answers = replace(page.session.given, who=self.store.snapshot.job.person.name)
        where = self.ask_where("answers.json", tr("Answers (*.json)"))
        if where and self._write(Path(where), answers_text(answers)):
            self.desk.message.tell(tr("{count} answers written to {where}.", count=len(answers.answers), where=where))
        page.choose("record")

    def make_set(self) -> None:
        """A mixed set by a new seed."""
        from ....core.practice.learner import next_seed
        from ....job.practice_set import mixed_set, set_text

        where = self.ask_where("practice.json", SETS)
        if not where:
            return
        practice = mixed_set(LEVEL, next_seed(self.page().session.record.answers()), MADE)
        if self._write(Path(where), set_text(practice)):
            self.desk.message.tell(tr("{made} cases written to {where}.", made=MADE, where=where))

    def write_sheet(self) -> None:
        """A set as sheets, the key on pages of its own."""
        from ....job.practice_set import read_set
        from .paper import write_set

        source = self.ask_set()
        where = self.ask_where("practice.pdf", tr("Sheets (*.pdf)")) if source else ""
        if not where:
            return
        try:
            write_set(read_set(Path(source)), self.store.snapshot.speech, Path(where))
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
            return
        self.desk.message.tell(tr("Written to {where}.", where=where))

    def keep_tree(self) -> None:
        """The tree that is looked at, or its stump, as a case of a set: names taken out."""
        from ....job.practice_set import PracticeSet, case_from_tree, read_set, set_text, with_case

        snapshot = self.store.snapshot
        asks = ["fault", "went"] if snapshot.plan.as_cut.is_read else []
        skill = self.ask_skill([*asks, "height", "lean", "weight", "reach", "goes", "cut"])
        where = self.ask_where("practice.json", SETS) if skill else ""
        if not where:
            return
        try:
            before = read_set(Path(where)) if Path(where).exists() else PracticeSet()
            practice = with_case(before, case_from_tree(snapshot.job, snapshot.plan, skill))
            write_atomically(Path(where), set_text(practice))
        except PlainCompassError as error:
            self.desk.message.refuse(snapshot.speech.error(error))
            return
        self.desk.message.tell(
            tr("{id} is case {count} of {name}.", id=snapshot.plan.id, count=len(practice.cases), name=Path(where).name)
        )

    def _write(self, path: Path, text: str) -> bool:
        try:
            write_atomically(path, text)
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
            return False
        return True

    # The record ----------------------------------------------------------------------------------------

    def write_record(self) -> None:
        """Every answer as CSV."""
        from ....log.answers import record_csv

        where = self.ask_where("practice.csv", tr("CSV (*.csv)"))
        if where and self._write(Path(where), record_csv(self.page().session.record)):
            self.desk.message.tell(tr("Written to {where}.", where=where))

    def use_eye(self) -> None:
        """Leans judged by eye are as far off, and scatter as much, as practice showed; shipped again where they are."""
        from ....job.hand_edits import as_shipped, use_in_plans
        from ....job.practice_eye import KEY, eye_of

        job = self.store.snapshot.job
        if job.hand.get(KEY) is not None:
            self.store.change(tr("eye as shipped"), lambda job: as_shipped(job, KEY))
            self.desk.message.tell(tr("Leans by eye are taken as shipped again."))
            return
        used = eye_of(self.page().session.record.answers(), job.person.name)
        if used is None:
            self.desk.message.refuse(tr("Practice says nothing of your eye for leans yet: answer some of Look first."))
            return
        self.store.change(tr("own eye in plans"), lambda job: use_in_plans(job, used))
        told = tr("off by {mean:+.1f}°, ± {spread:.1f}°", mean=used.mean, spread=used.spread)
        self.desk.message.tell(tr("Leans by eye by your {count} answers: {told}.", count=used.count, told=told))
