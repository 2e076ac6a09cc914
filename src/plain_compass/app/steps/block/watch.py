"""The block judged and ordered behind the page, the best so far shown at once."""

from __future__ import annotations

import time
from collections.abc import Generator

from PySide6.QtCore import QObject, QTimer, Signal

from ....core.base.errors import PlainCompassError
from ....core.block.groups import MOST
from ....job.block import Block, Ordered, block_in_steps, first_in_steps, order_in_steps
from ....job.document import Job

SLICE_S = 0.012
"""Longest stretch between two looks at the mouse, but for one step of the search."""


class BlockWatch(QObject):
    """Follows a job while somebody looks.

    Signals:
        told: a block is judged, or there is a better order, or neither can be.
    """

    told = Signal()

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.block: Block | None = None
        self.found: Ordered | None = None
        self._whole: Block | None = None
        self.judged = 0
        self.error: PlainCompassError | None = None
        self._job: Job | None = None
        self._key: object = None
        self._first: Generator[None, None, tuple[Block, Ordered]] | None = None
        self._judging: Generator[None, None, Block] | None = None
        self._ordering: Generator[Ordered | None, None, Ordered] | None = None
        self._timer = QTimer(self)
        self._timer.timeout.connect(self.step)

    @property
    def busy(self) -> bool:
        """Whether it is still searching."""
        return self._timer.isActive()

    def follow(self, job: Job) -> None:
        """Begin anew where what a block rests on has changed."""
        key = job.trees, job.site, job.kit, job.block, job.practice, job.hand
        if key == self._key:
            return
        self._key, self._job = key, job
        self.block, self.found, self.error, self.judged = None, None, None, 0
        self._judging, self._ordering = block_in_steps(job), None
        self._first = first_in_steps(job) if len(job.trees) <= MOST else None
        self._timer.start(0)
        self.told.emit()

    def stop(self) -> None:
        """What was found so far is kept."""
        self._timer.stop()
        self.told.emit()

    def step(self) -> None:
        """Judge or search for a few milliseconds."""
        until = time.perf_counter() + SLICE_S
        try:
            while time.perf_counter() < until and self.busy:
                self._next()
        except PlainCompassError as error:
            self._timer.stop()
            self.error = error
            self.told.emit()

    def _next(self) -> None:
        assert self._job is not None
        try:
            if self._first is not None:
                next(self._first)
                return
            if self._ordering is None:
                assert self._judging is not None
                next(self._judging)
                self.judged += 1
                return
            better = next(self._ordering)
        except StopIteration as end:
            self._ended(end.value)
            return
        if better is not None:
            self.block, self.found = self._whole, better
            self.told.emit()

    def _ended(self, answer: tuple[Block, Ordered] | Block | Ordered) -> None:
        """On their own lays: all of them are judged; judged: the search begins; searched: it is done."""
        assert self._job is not None
        if isinstance(answer, tuple):
            self._first, (self.block, self.found) = None, answer
            self.told.emit()
            return
        if isinstance(answer, Block):
            # What stands on the page until the search has its first order is of the block before.
            self._whole, self._ordering = answer, order_in_steps(answer, self._job)
            return
        assert self._whole is not None
        self.block = self._whole
        self.found = answer
        self._timer.stop()
        self.told.emit()

    def finish(self) -> None:
        """All of it, now."""
        while self.busy:
            self.step()
