"""Ways out of what troubles a plan, looked for behind every change while nobody has a hand on anything."""

from __future__ import annotations

import time
from collections.abc import Iterator, Mapping

from PySide6.QtCore import QObject, QTimer, Signal

from ...core.advice.mend import Mends, mends_in_steps, to_mend
from ...core.base.errors import PlainCompassError
from ...core.judge.unmeasured import missing
from ...core.plan.case import Case
from ...job.spreads import spreads_of
from .store import Snapshot, Store

STILL_MS = 120
"""The search begins when nothing has changed for so long."""
SLICE_S = 0.008
"""Longest stretch of searching between two looks at the mouse."""
REMEMBERED = 8
"""Answers kept for undo and redo to show at once."""


class MendWatch(QObject):
    """Follows the document; a search is given up as soon as the plan is another.

    Signals:
        found: what can be done, by the finding's id; None while it is looked for.
    """

    found = Signal(object)

    def __init__(self, store: Store) -> None:
        super().__init__()
        self.store = store
        self.answer: Mapping[str, Mends] | None = None
        self._key: tuple[Case, tuple[str, ...]] | None = None
        self._known: list[tuple[tuple[Case, tuple[str, ...]], Mapping[str, Mends]]] = []
        self._steps: Iterator[float | dict[str, Mends]] = iter(())
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self.step)
        store.changed.connect(self.follow)
        self.follow(store.snapshot)

    @property
    def busy(self) -> bool:
        """Whether something is still looked for."""
        return self._timer.isActive()

    def follow(self, snapshot: Snapshot) -> None:
        """Begin anew for another plan; say at once what is known of it."""
        if self.store.previewing:
            return
        if self.store.dragging or snapshot.chances is None or missing(snapshot.plan.tree):
            self._forget()
            return
        key = snapshot.result.case, tuple(finding.id for finding in to_mend(snapshot.result))
        if key == self._key:
            return
        # What was looked for was of another plan.
        self._timer.stop()
        self._key = key
        self.answer = next((answer for known, answer in self._known if known == key), None)
        if self.answer is None:
            spreads = spreads_of(snapshot.plan)
            self._steps = mends_in_steps(snapshot.result, spreads, snapshot.chances, key[1])
            self._timer.start(STILL_MS)
        self.found.emit(self.answer)

    def _forget(self) -> None:
        self._timer.stop()
        self._key, self.answer = None, None

    def step(self) -> None:
        """Search for a few milliseconds."""
        until = time.perf_counter() + SLICE_S
        try:
            while time.perf_counter() < until:
                each = next(self._steps)
                if isinstance(each, dict):
                    self._take(each)
                    return
        except StopIteration:
            return
        except (PlainCompassError, ArithmeticError, ValueError):
            # A change whose plan does not hold together with some input moved: nothing is offered.
            self._take({})
            return
        self._timer.start(0)

    def _take(self, answer: Mapping[str, Mends]) -> None:
        assert self._key is not None
        self.answer = answer
        self._known = [(self._key, answer), *(each for each in self._known if each[0] != self._key)][:REMEMBERED]
        self.found.emit(answer)

    def finish(self) -> None:
        """Search to the end, now."""
        while self.busy:
            self._timer.stop()
            self.step()

    def stop(self) -> None:
        """Follow no longer: the window is going."""
        self._timer.stop()
        self.store.changed.disconnect(self.follow)
