"""The fall reckoned behind every change, a slice at a time: a quick look at once, the whole soon after."""

from __future__ import annotations

import time
from collections.abc import Iterator

from PySide6.QtCore import QObject, QTimer

from ...core.base.errors import PlainCompassError
from ...core.fall.fan import Fan
from ...core.fall.nominal import NominalFall
from ...core.plan.case import Case
from ...job.fall import fall_in_steps
from .store import Snapshot, Store

SLICE_S = 0.008
"""Longest stretch of reckoning between two looks at the mouse: half a frame at 60 a second."""
REMEMBERED = 8
"""Falls kept for undo and redo to show at once."""


class FallWatch(QObject):
    """Follows the document; nothing is reckoned while something is dragged, and what was reckoned is remembered."""

    def __init__(self, store: Store) -> None:
        super().__init__()
        self.store = store
        self._known: list[tuple[Case, NominalFall, Fan]] = []
        self._case: Case | None = None
        self._steps: Iterator[tuple[NominalFall, Fan] | None] = iter(())
        self._timer = QTimer(self)
        self._timer.setInterval(0)
        self._timer.timeout.connect(self.step)
        store.changed.connect(self.follow)
        self.follow(store.snapshot)

    @property
    def busy(self) -> bool:
        """Whether something is still being reckoned."""
        return self._timer.isActive()

    def follow(self, snapshot: Snapshot) -> None:
        """Begin anew for another plan; show at once what is known of it."""
        case = snapshot.result.case
        if self.store.dragging or self.store.previewing:
            self._timer.stop()
            self._case = None
            return
        if snapshot.fall is not None or (self._case is not None and case == self._case):
            return
        known = next((each for each in self._known if each[0] == case), None)
        # What is known is told a moment later too: others are still being told of the change itself.
        self._case = case
        self._steps = iter([known[1:]]) if known is not None else fall_in_steps(snapshot.plan, snapshot.result)
        self._timer.start()

    def step(self) -> None:
        """Reckon for a few milliseconds."""
        until = time.perf_counter() + SLICE_S
        newest: tuple[NominalFall, Fan] | None = None
        try:
            while time.perf_counter() < until and newest is None:
                newest = next(self._steps)
        except StopIteration:
            self._timer.stop()
        except (PlainCompassError, ArithmeticError, ValueError):
            # A plan that does not hold together with some input moved, or whose fall runs out of numbers.
            self._timer.stop()
            if self.store.snapshot.fan is None:
                self.store.miss_fall()
        if newest is not None:
            self._remember(*newest)
            self.store.take_fall(*newest)

    def stop(self) -> None:
        """Follow no longer: the window is going."""
        self._timer.stop()
        self.store.changed.disconnect(self.follow)

    def finish(self) -> None:
        """Reckon all that is left, now."""
        while self.busy:
            self.step()

    def _remember(self, fall: NominalFall, fan: Fan) -> None:
        assert self._case is not None
        others = [each for each in self._known if each[0] != self._case]
        self._known = [(self._case, fall, fan), *others][:REMEMBERED]
