"""Keeps unsaved work on disk while it is being done, a moment after every change."""

from __future__ import annotations

import math
import time

from PySide6.QtCore import QObject, QTimer

from ...core.base.errors import PlainCompassError
from ...job.document import Job
from ...job.language import tr
from .recovery import Recovery
from .store import Store

DELAY_MS = 400
"""From the first change that is not on disk, not from the last one: who types steadily is kept as well."""
RETRY_MS = 1000
"""A full disk is tried again so soon: what may be lost stays within a second or two."""


class Autosave(QObject):
    """Follows the store's changes, drags included; says so when the disk will not take them."""

    def __init__(self, store: Store, recovery: Recovery) -> None:
        super().__init__()
        self.store, self.recovery = store, recovery
        self._kept: Job | None = None
        self._told = ""
        self._written_at = -math.inf
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self.write)
        store.changed.connect(self._soon)
        store.stepped.connect(self._now_or_soon)
        store.saving.connect(self._before_save)
        store.saved_whole.connect(self.forget)

    def _now_or_soon(self) -> None:
        """A step after a pause is written at once, before anything that follows it can hold the window up."""
        if time.monotonic() - self._written_at > DELAY_MS / 1000:
            self.write()
        else:
            self._soon()

    def _soon(self) -> None:
        if not self._timer.isActive():
            self._timer.start(DELAY_MS)

    @property
    def _job(self) -> Job:
        return self.store.snapshot.job if self.store.dragging else self.store.history.now.job

    def write(self, becoming: str = "") -> bool:
        """Write down what is unsaved, now; False, with a sentence, when it could not be."""
        self._timer.stop()
        self._written_at = time.monotonic()
        store, job = self.store, self._job
        if job == store.saved:
            self.forget()
            return True
        if job is self._kept and not becoming:
            return True
        try:
            self.recovery.keep(job, store.raw, store.path, store.hash, becoming)
        except (PlainCompassError, ValueError, RecursionError) as error:
            self._failed(tr("Your latest changes are not on disk yet: {error}", error=error))
            return False
        self._kept, self._told = job, ""
        return True

    def _failed(self, sentence: str) -> None:
        self._timer.start(RETRY_MS)
        if sentence != self._told:
            self._told = sentence
            self.store.refused.emit(sentence)

    def _before_save(self, becoming: str) -> None:
        """What is kept knows what the file is about to hold, so that it never beats the file if the run dies."""
        if self.recovery.file.exists():
            self.write(becoming)

    def forget(self) -> None:
        """Nothing is unsaved any more."""
        self._kept = None
        self.recovery.forget()

    def set_aside(self) -> bool:
        """Leave what is unsaved where it is found again, and begin a file of its own for what comes."""
        self._told = ""
        if not self.write():
            return False
        self.recovery.close(keep=True)
        self.recovery = Recovery(self.recovery.folder)
        self._kept = None
        return True

    def end(self, *, keep: bool) -> None:
        """The window closes."""
        self._timer.stop()
        self.recovery.close(keep=keep)
