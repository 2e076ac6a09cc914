"""What is reckoned behind every change, a slice at a time, so that nobody waits for it; answers are remembered."""

from __future__ import annotations

import time
from collections.abc import Iterator
from typing import Generic, TypeVar

from PySide6.QtCore import QObject, QTimer

from ...core.base.errors import PlainCompassError
from .store import Snapshot, Store

SLICE_S = 0.008
"""Longest stretch of reckoning between two looks at the mouse: half a frame at 60 a second."""
REMEMBERED = 8
"""Answers kept for undo and redo to show at once."""

K = TypeVar("K")
A = TypeVar("A")


class Watch(QObject, Generic[K, A]):
    """Follows the document: ``_steps`` yields an answer now and then, and None between two that take long."""

    def __init__(self, store: Store) -> None:
        super().__init__()
        self.store = store
        self._key: K | None = None
        self._known: list[tuple[K, A]] = []
        self._steps: Iterator[A | None] = iter(())
        self._timer = QTimer(self)
        self._timer.timeout.connect(self.step)
        store.changed.connect(self.follow)
        self.follow(store.snapshot)

    @property
    def busy(self) -> bool:
        """Whether something is still being reckoned."""
        return self._timer.isActive()

    def follow(self, snapshot: Snapshot) -> None:
        """Begin anew for another plan."""
        raise NotImplementedError

    def _take(self, answer: A) -> None:
        """Tell an answer."""
        raise NotImplementedError

    def _miss(self) -> None:
        """Tell that there is none."""
        raise NotImplementedError

    def _begin(self, steps: Iterator[A | None], after_ms: int = 0) -> None:
        self._steps = steps
        self._timer.start(after_ms)

    def _forget(self) -> None:
        self._timer.stop()
        self._key = None

    def step(self) -> None:
        """Reckon for a few milliseconds."""
        if self._timer.interval():
            self._timer.setInterval(0)
        until = time.perf_counter() + SLICE_S
        answer: A | None = None
        try:
            while time.perf_counter() < until and answer is None:
                answer = next(self._steps)
        except StopIteration:
            self._timer.stop()
        except (PlainCompassError, ArithmeticError, ValueError):
            # A plan that does not hold together with some input moved, or that runs out of numbers.
            self._timer.stop()
            self._miss()
        if answer is not None:
            self._remember(answer)
            self._take(answer)

    def _recalled(self, key: K) -> A | None:
        return next((answer for known, answer in self._known if known == key), None)

    def _remember(self, answer: A) -> None:
        assert self._key is not None
        others = [each for each in self._known if each[0] != self._key]
        self._known = [(self._key, answer), *others][:REMEMBERED]

    def finish(self) -> None:
        """Reckon all that is left, now."""
        while self.busy:
            self.step()

    def stop(self) -> None:
        """Follow no longer: the window is going."""
        self._timer.stop()
        self.store.changed.disconnect(self.follow)
