"""The stump log as the window has it: one's own file, or the demo's made anew; opened when it is first wanted."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from pathlib import Path

from PySide6.QtCore import QObject, QTimer, Signal

from ...core.base.errors import PlainCompassError
from ...job.demo import demo_job
from ...job.document import LogEntry
from ...job.language import tr
from ...log.exchange import entries_in
from ...log.places import demo_entries
from ...log.store import LogError, StumpLog
from .store import Store

LOOK_MS = 2000
"""How often it is looked whether another window has written."""


class LogBook(QObject):
    """Gives the log that belongs to the job that is open.

    Signals:
        changed: there is more in it, or less, or it is another one.
    """

    changed = Signal()

    def __init__(self, store: Store, file: Path) -> None:
        super().__init__()
        self.store, self.file = store, file
        self._own: StumpLog | None = None
        self._demo: StumpLog | None = None
        self._coming: Iterator[LogEntry] = iter(())
        self._seen = 0
        self.arrived = self.expected = 0
        self._filling, self._looking = QTimer(self), QTimer(self)
        self._filling.timeout.connect(self.step)
        self._looking.setInterval(LOOK_MS)
        self._looking.timeout.connect(self.look)

    @property
    def is_demo(self) -> bool:
        """Whether the job that is open is the demo, unsaved: its stumps are kept apart from one's own."""
        return self.store.path is None and self.store.snapshot.job.name == demo_job().name

    @property
    def is_filling(self) -> bool:
        """Whether the demo's stumps are still being taken in."""
        return self._filling.isActive()

    def log(self) -> StumpLog | None:
        """The log; None where it cannot be opened, which is told."""
        return self._demo_log() if self.is_demo else self._own_log()

    def _own_log(self) -> StumpLog | None:
        if self._own is None:
            try:
                self._own = StumpLog(self.file)
            except LogError as error:
                self.store.refused.emit(str(error))
                return None
            if self._own.troubles:
                self.store.refused.emit(" ".join(self._own.troubles))
            self._seen = self._own.changes()
            self._looking.start()
        return self._own

    def _demo_log(self) -> StumpLog:
        if self._demo is None:
            self._demo = StumpLog(None)
            entries = demo_entries()
            self.arrived, self.expected, self._coming = 0, len(entries), iter(entries)
            self._filling.start(0)
        return self._demo

    def step(self) -> None:
        """Take in one more of the demo's stumps: each takes a while to be judged."""
        entry = next(self._coming, None)
        if entry is None or self._demo is None:
            self._filling.stop()
        else:
            self._demo.add([entry])
            self.arrived += 1
        if self.arrived % 10 == 0 or not self.is_filling:
            self.changed.emit()

    def finish(self) -> None:
        """All of the demo's stumps, now."""
        while self.is_filling:
            self.step()

    def look(self) -> None:
        """Tell when another window has written to the file."""
        if self._own is not None and self._own.changes() != self._seen:
            self._seen = self._own.changes()
            self.changed.emit()

    def put(self, entry: LogEntry) -> bool:
        """Put an entry in, in the place of the one it corrects; False, with a sentence, when that cannot be done."""
        return self._written(lambda log: log.correct(entry))

    def take_in(self, entries: Iterable[LogEntry]) -> int:
        """Take entries in, each once; returns how many were new, and -1, with a sentence, when that cannot be done."""
        added = -1

        def add(log: StumpLog) -> None:
            nonlocal added
            added = log.add(entries)

        self._written(add)
        return added

    def take_in_file(self, *paths: Path) -> None:
        """Stumps of files that were given away, all of them or none; says how many were new."""
        try:
            entries = [entry for path in paths for entry in entries_in(path)]
        except PlainCompassError as error:
            self.store.refused.emit(tr("{error} Nothing was taken in.", error=error))
            return
        added, log = self.take_in(entries), self.log()
        if added >= 0 and log is not None:
            self.store.told.emit(
                tr(
                    "{added} of {count} new: the log has {held} stumps now.",
                    added=added,
                    count=len(entries),
                    held=log.count(),
                )
            )

    def leave_out(self, number: int, quantity: str, *, out: bool) -> bool:
        """Leave an entry out of what is learned of a quantity, or take it in again."""
        return self._written(lambda log: log.leave_out(number, quantity, out=out))

    def _written(self, write: Callable[[StumpLog], object]) -> bool:
        log = self.log()
        if log is None:
            return False
        try:
            write(log)
        except LogError as error:
            self.store.refused.emit(str(error))
            return False
        self._seen = log.changes() if log is self._own else self._seen
        self.changed.emit()
        return True

    def close(self) -> None:
        """The window is going."""
        self._filling.stop()
        self._looking.stop()
        if self._own is not None:
            self._own.close()
            self._own = None
