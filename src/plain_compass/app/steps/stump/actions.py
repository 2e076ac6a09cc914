"""What can be done with stumps: read in few words, put in the log, given away and taken in. Dialogs are methods."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING, cast
from uuid import uuid4

from PySide6.QtWidgets import QFileDialog

from ....core.base.errors import PlainCompassError
from ....job.disk import write_atomically
from ....job.language import tr
from ....job.log_entries import entry_of, entry_of_tree, is_in_log, logged
from ....job.stump_edits import as_planned, on_its_mark, unread
from ...frame.commands import Command
from ...frame.desk import Desk
from ...frame.store import now

if TYPE_CHECKING:
    from ....log.store import StumpLog
    from .days import DaysPage
    from .page import StumpPage

LOGS = tr("Stumps (*.jsonl *.csv)")
"""Files a log is given away in."""


class StumpActions:
    """The commands of the group ``stump``. What paints is imported when it is first asked for."""

    def __init__(self, desk: Desk) -> None:
        self.desk, self.store = desk, desk.store

    def commands(self) -> list[Command]:
        """Reading, the log, what it teaches."""
        return [
            Command("stump.planned", tr("Cut as planned"), "Alt+P", self.planned),
            Command("stump.mark", tr("Lies on its mark"), "Alt+M", self.mark),
            Command("stump.unread", tr("Nothing read"), "", self.unread, self._is_read),
            Command("stump.log", self._log_title, "Alt+B", self.log, self._may_log),
            Command("stump.take", tr("Take this job's stumps into the log"), "", self.take, self._has_entries),
            Command("stump.import", tr("Take a log in…"), "", self.take_in),
            Command("stump.export", tr("Write out the log…"), "", self.write_out),
            Command(
                "stump.yours", tr("Yours: what your stumps teach"), "Alt+O", lambda: self._page().show_mode("yours")
            ),
            Command("stump.days", tr("Day and year"), "Alt+T", lambda: self._page().show_mode("days")),
            Command("stump.days_csv", tr("CSV…"), "", lambda: self.write_days("csv")),
            Command("stump.days_pdf", tr("PDF…"), "", lambda: self.write_days("pdf")),
        ]

    def _page(self) -> StumpPage:
        self.desk.show_step("stump")
        return cast("StumpPage", self.desk.pages["stump"])

    # Reading -------------------------------------------------------------------------------------------

    def _is_read(self) -> bool:
        return self.store.snapshot.plan.as_cut.is_read

    def planned(self) -> None:
        """What was not read of the cut came out as planned."""
        tree_id, day = self.store.tree_id, date.today().isoformat()
        self._page().show_mode("stump")
        self.store.change(tr("cut as planned"), lambda job: as_planned(job, tree_id, day))

    def mark(self) -> None:
        """The top lies on its mark."""
        tree_id = self.store.tree_id
        self._page().show_mode("stump")
        self.store.change(tr("lies on its mark"), lambda job: on_its_mark(job, tree_id))

    def unread(self) -> None:
        """The stump as if nobody had looked at it."""
        tree_id = self.store.tree_id
        self.store.change(tr("nothing read off the stump"), lambda job: unread(job, tree_id))

    # The log -------------------------------------------------------------------------------------------

    def _log_title(self) -> str:
        known = entry_of_tree(self.store.snapshot.job, self.store.tree_id)
        return tr("Put in the log") if known is None else tr("Correct it in the log")

    def _may_log(self) -> bool:
        job = self.store.snapshot.job
        return self._is_read() and not is_in_log(job, self.store.tree_id)

    def log(self) -> None:
        """Freeze the stump with its plan: into the job, and into the log."""
        from ....core.stump.told import told_of

        self.desk.settle()
        self.desk.falls.finish()
        snapshot = self.store.snapshot
        known = entry_of_tree(snapshot.job, snapshot.plan.id)
        id = uuid4().hex if known is None else known.id
        told = told_of(snapshot.result, snapshot.fall, snapshot.fan) if known is None else known.told
        entry = entry_of(snapshot.job, snapshot.plan.id, told, now(), id)
        if not self.store.change(tr("put in the log"), lambda job: logged(job, entry)):
            return
        if self.desk.book.put(entry):
            self._tell_count(tr("In the log"))

    def _has_entries(self) -> bool:
        return any(entry.id for entry in self.store.snapshot.job.log)

    def take(self) -> None:
        """What the job's own log holds, each once."""
        added = self.desk.book.take_in([entry for entry in self.store.snapshot.job.log if entry.id])
        if added >= 0:
            self._tell_count(tr("{added} new", added=added))

    def _tell_count(self, what: str) -> None:
        log = self.desk.book.log()
        if log is not None:
            self.desk.message.tell(tr("{what}: it has {count} stumps now.", what=what, count=log.count()))

    # Giving away and taking in -------------------------------------------------------------------------

    def ask_what_to_take(self) -> list[str]:
        """Files to take in; none for nothing."""
        return QFileDialog.getOpenFileNames(self.desk.frame, tr("Take a log in"), str(Path.home()), LOGS)[0]

    def take_in(self) -> None:
        """Other people's logs, or one's own from elsewhere: each stump once."""
        names = self.ask_what_to_take()
        if names:
            self.desk.book.take_in_file(*map(Path, names))

    def ask_where(self, title: str, name: str, kinds: str) -> str:
        """A file to write; empty for none."""
        return QFileDialog.getSaveFileName(self.desk.frame, title, str(Path.home() / name), kinds)[0]

    def write_out(self) -> None:
        """The whole log as JSON Lines or CSV, by the file's name."""
        from ....log.exchange import csv_text, lines_text

        where = self.ask_where(tr("Write out the log"), "stumps.jsonl", LOGS)
        log = self.desk.book.log() if where else None
        if log is not None:
            entries = list(log.entries())
            text = csv_text(entries) if where.lower().endswith(".csv") else lines_text(entries)
            self._write(
                lambda: write_atomically(Path(where), text),
                tr("{count} stumps written to {where}.", count=len(entries), where=where),
            )

    def write_days(self, kind: str) -> None:
        """Day and year as it is shown, as CSV or PDF."""
        page = self._page()
        page.show_mode("days")
        days, log = cast("DaysPage", page.parts["days"]), self.desk.book.log()
        where = self.ask_where(tr("Day and year"), f"stumps.{kind}", f"(*.{kind})") if log is not None else ""
        if log is None or not where:
            return
        self._write(
            lambda: self._days(Path(where), kind, log, days), tr("Day and year written to {where}.", where=where)
        )

    def _days(self, path: Path, kind: str, log: StumpLog, days: DaysPage) -> None:
        from ....log.days import days_csv
        from ...drawing.pages import write_pages
        from .days import days_html

        speech = self.store.snapshot.speech
        if kind == "csv":
            write_atomically(path, days_csv(log, days.wanted, speech))
        else:
            title = f"Stumps, {days.periods.currentText()}"
            write_pages(path, f"<h2 style='font-weight:600'>{title}</h2>{days_html(log, days.wanted, speech)}", title)

    def _write(self, do: Callable[[], object], told: str) -> None:
        try:
            do()
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
            return
        self.desk.message.tell(told)
