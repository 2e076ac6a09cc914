"""Keeps unsaved work on disk while it is being done, a moment after every change."""

from __future__ import annotations

from PySide6.QtCore import QObject, QTimer

from ...core.errors import PlainCompassError
from .recovery import Recovered, Recovery
from .store import Store

DELAY_MS = 400


class Autosave(QObject):
    """Follows the store's steps; says so when the disk will not take them."""

    def __init__(self, store: Store, recovery: Recovery) -> None:
        super().__init__()
        self.store, self.recovery = store, recovery
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(DELAY_MS)
        self._timer.timeout.connect(self.write)
        store.stepped.connect(self._timer.start)

    def write(self) -> bool:
        """Write down what is unsaved, now; False when it could not be."""
        self._timer.stop()
        store = self.store
        if not store.unsaved:
            self.recovery.forget()
            return True
        try:
            self.recovery.keep(store.history.now.job, store.raw, store.path)
        except PlainCompassError as error:
            store.refused.emit(f"Your latest changes are not on disk yet: {error}")
            return False
        return True

    def set_aside(self) -> bool:
        """Leave what is unsaved where the next start finds it, and begin a file of its own for what comes."""
        if not self.write():
            return False
        self.recovery.close(keep=True)
        self.recovery = Recovery(self.recovery.folder)
        return True

    def take_up(self) -> str:
        """Bring back unsaved work of a run that died; returns a sentence about it, empty when there is none."""
        orphans = self.recovery.orphans()
        if not orphans:
            return ""
        first = orphans[0]
        self._adopt(first)
        name = first.path.name if first.path else first.opened.job.name
        more = f" {len(orphans) - 1} older ones are kept in {self.recovery.folder}." if len(orphans) > 1 else ""
        return f"Unsaved work on {name} was found and brought back. Save keeps it.{more}"

    def _adopt(self, recovered: Recovered) -> None:
        self.recovery.adopt(recovered)
        self.store.replace(recovered.opened, recovered.path, saved=False)

    def end(self, *, keep: bool) -> None:
        """The window closes."""
        self._timer.stop()
        if keep:
            self.write()
        self.recovery.close(keep=keep)
