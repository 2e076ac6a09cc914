"""Files that come to a window, by drop, by double click or from another start of the program: each to its reader."""

from __future__ import annotations

import sys
from collections.abc import Callable, Sequence
from pathlib import Path

from PySide6.QtCore import QProcess

from .desk import Desk
from .job_actions import JobActions
from .list_actions import ListActions
from .site_actions import SiteActions

MOST = 24
"""Files taken at once: more were picked by mistake."""


class Arrivals:
    """Takes files in: a job is opened here and each further job in a window of its own."""

    def __init__(self, desk: Desk, jobs: JobActions, lists: ListActions, sites: SiteActions) -> None:
        self.desk, self.jobs = desk, jobs
        self._readers: dict[str, Callable[[Path], object]] = {
            ".csv": lists.import_trees,
            ".geojson": sites.take_in,
            ".jsonl": self._logs,
        }

    def _logs(self, path: Path) -> None:
        self.desk.book.take_in_file(path)

    def take(self, paths: Sequence[Path]) -> None:
        """Each file to its reader by its name."""
        if len(paths) > MOST:
            self.desk.message.refuse(f"{len(paths)} files at once; accepted: up to {MOST}.")
            return
        jobs = [path for path in paths if path.suffix.lower() not in self._readers]
        for place, path in enumerate(jobs):
            if place == 0:
                self.jobs.open(path)
            else:
                self.open_beside(path)
        for path in paths:
            reader = self._readers.get(path.suffix.lower())
            if reader is not None:
                reader(path)

    def open_beside(self, path: Path) -> bool:
        """A job in a window of its own, which goes on when this one is closed."""
        command = ["-m", "plain_compass.cli", "open", "--new-window", str(path)]
        started, _ = QProcess.startDetached(sys.executable, command)
        if not started:
            self.desk.message.refuse(f"No window of its own could be opened for {path.name}.")
        return bool(started)
