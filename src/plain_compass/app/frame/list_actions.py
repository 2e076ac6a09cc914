"""Tree lists and raw readings in and out as CSV."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QFileDialog

from ...core.errors import PlainCompassError
from ...job.disk import read_text, write_atomically
from ...job.readings_csv import readings_csv
from ...job.tree_list import export_csv, import_csv
from .commands import Command

if TYPE_CHECKING:
    from .window import Window

FILTER = "Tables (*.csv);;All files (*)"


class ListActions:
    """What the Job menu does with tables. Dialogs are methods, so that tests can answer them."""

    def __init__(self, window: Window) -> None:
        self.window = window
        self.store = window.store

    def commands(self) -> list[Command]:
        """The commands of the group ``list``."""
        return [
            Command("list.import", "Add trees from a list (CSV)…", "", self.import_trees),
            Command("list.export", "Tree list as CSV…", "", self.export_trees),
            Command("list.readings", "Raw readings as CSV…", "", self.export_readings),
        ]

    def ask_open(self) -> str:
        """Which list to read; empty for none."""
        return QFileDialog.getOpenFileName(self.window, "Add trees from a list", str(Path.home()), FILTER)[0]

    def ask_save(self, suggestion: str) -> str:
        """Where to write; empty for nowhere."""
        return QFileDialog.getSaveFileName(self.window, "Save table", str(Path.home() / suggestion), FILTER)[0]

    def import_trees(self, path: Path | None = None) -> bool:
        """Add the trees of a list; one that cannot be taken, or has an id that is there, changes nothing."""
        if path is None:
            name = self.ask_open()
            if not name:
                return False
            path = Path(name)
        job = self.store.snapshot.job
        try:
            made = import_csv(read_text(path), path.name, job.practice)
        except PlainCompassError as error:
            self.window.message.refuse(str(error))
            return False
        twice = sorted({plan.id for plan in made} & {plan.id for plan in job.trees})
        if twice:
            self.window.message.refuse(f"Trees called {', '.join(twice)} are here already; nothing was added.")
            return False
        self.store.edit(f"{len(made)} trees added", replace(job, trees=(*job.trees, *made)), made[0].id)
        self.window.message.tell(f"{len(made)} trees added from {path.name}.")
        return True

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
            self.window.message.refuse(str(error))
            return
        self.window.message.tell(f"Table written to {name}.")
