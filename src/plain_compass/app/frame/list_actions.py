"""Tree lists and raw readings in and out as CSV."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

from PySide6.QtWidgets import QFileDialog

from ...core.base.errors import PlainCompassError
from ...job.disk import read_text, write_atomically
from ...job.document import TreePlan
from ...job.language import tr
from ...job.readings_csv import readings_csv
from ...job.tree_list import Progress, export_csv, import_in_steps
from .commands import Command
from .desk import Desk
from .progress import followed

FILTER = tr("Tables (*.csv);;All files (*)")


class ListActions:
    """What the Job menu does with tables. Dialogs are methods, so that tests can answer them."""

    def __init__(self, desk: Desk) -> None:
        self.desk = desk
        self.store = desk.store

    def commands(self) -> list[Command]:
        """The commands of the group ``list``."""
        return [
            Command("list.import", tr("Add trees from a list (CSV)…"), "", self.import_trees),
            Command("list.export", tr("Tree list as CSV…"), "", self.export_trees),
            Command("list.readings", tr("Raw readings as CSV…"), "", self.export_readings),
        ]

    def ask_open(self) -> str:
        """Which list to read; empty for none."""
        return QFileDialog.getOpenFileName(self.desk.frame, tr("Add trees from a list"), str(Path.home()), FILTER)[0]

    def ask_save(self, suggestion: str) -> str:
        """Where to write; empty for nowhere."""
        return QFileDialog.getSaveFileName(self.desk.frame, tr("Save table"), str(Path.home() / suggestion), FILTER)[0]

    def import_trees(self, path: Path | None = None) -> bool:
        """Add the trees of a list; one that cannot be taken, or has an id that is there, changes nothing."""
        if path is None:
            name = self.ask_open()
            if not name:
                return False
            path = Path(name)
        job = self.store.snapshot.job
        try:
            made = self._read(import_in_steps(read_text(path), path.name, job.practice))
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
            return False
        if made is None:
            self.desk.message.tell(tr("Cancelled; nothing was added."))
            return False
        job = self.store.snapshot.job  # anew: the window was awake meanwhile
        twice = sorted({plan.id for plan in made} & {plan.id for plan in job.trees})
        if twice:
            self.desk.message.refuse(
                tr("Trees called {names} are here already; nothing was added.", names=", ".join(twice))
            )
            return False
        self.store.edit(tr("{count} trees added", count=len(made)), replace(job, trees=(*job.trees, *made)), made[0].id)
        self.desk.message.tell(tr("{count} trees added from {name}.", count=len(made), name=path.name))
        return True

    def _read(self, steps: Iterator[Progress]) -> tuple[TreePlan, ...] | None:
        """The trees of a list, with progress where it takes long; None when the person has had enough."""
        words = tr("Reading the list: each tree is assessed with a first cut.")
        last = followed(steps, self.desk.frame, tr("Add trees from a list"), words)
        return (last.plans or None) if last is not None else None

    def export_trees(self) -> None:
        """The job's trees as a list."""
        self._write("trees.csv", export_csv(self.store.snapshot.job))

    def export_readings(self) -> None:
        """The job's raw readings."""
        self._write("readings.csv", readings_csv(self.store.snapshot.job))

    def _write(self, suggestion: str, content: str) -> None:
        name = self.ask_save(suggestion)
        if not name:
            return
        try:
            write_atomically(Path(name), content)
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
            return
        self.desk.message.tell(tr("Table written to {name}.", name=name))
