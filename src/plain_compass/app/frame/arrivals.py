"""Files that come to a window, by drop, by double click or from another start of the program: each to its reader."""

from __future__ import annotations

import sys
from collections.abc import Callable, Sequence
from pathlib import Path

from PySide6.QtCore import QProcess

from ...job.files import OTHERS, is_job_file
from ...job.language import tr
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
        readers: tuple[Callable[[Path], object], ...] = (lists.import_trees, sites.take_in, self._logs)
        self._readers = dict(zip(OTHERS, readers, strict=True))

    def _logs(self, path: Path) -> None:
        self.desk.book.take_in_file(path)

    def take(self, paths: Sequence[Path]) -> None:
        """Each file to its reader by its name."""
        if len(paths) > MOST:
            self.desk.message.refuse(tr("{count} files at once; accepted: up to {most}.", count=len(paths), most=MOST))
            return
        jobs = [path for path in paths if is_job_file(path)]
        for place, path in enumerate(jobs):
            if place == 0:
                self.jobs.open(path)
            else:
                self.open_beside(path)
        for path in paths:
            if not is_job_file(path):
                self._readers[path.suffix.lower()](path)

    def open_beside(self, path: Path) -> bool:
        """A job in a window of its own, which goes on when this one is closed."""
        command = ["-m", "plain_compass.cli", "open", "--new-window", str(path)]
        started, _ = QProcess.startDetached(sys.executable, command)
        if not started:
            self.desk.message.refuse(tr("No window of its own could be opened for {name}.", name=path.name))
        return bool(started)
