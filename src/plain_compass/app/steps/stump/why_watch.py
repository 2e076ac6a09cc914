"""Why a tree lies where it lies, reckoned behind every change while somebody looks."""

from __future__ import annotations

from collections.abc import Generator, Iterator

from PySide6.QtCore import Signal

from ....core.plan.case import Case
from ....core.stump.as_cut import AsCut
from ....job.stump_why import Story, story_in_steps
from ...frame.store import Snapshot, Store
from ...frame.watch import Watch

Key = tuple[Case, AsCut]


def _answers(steps: Generator[None, None, Story]) -> Iterator[Story | None]:
    """None while it is being reckoned, then the answer."""
    found = yield from steps
    yield found


class WhyWatch(Watch[Key, Story]):
    """Reckons only while its page is in sight, and not in a drag.

    Signals:
        told: there is an answer, or none any more.
    """

    told = Signal()

    def __init__(self, store: Store) -> None:
        self.story: Story | None = None
        self.failed = self.in_sight = False
        super().__init__(store)

    def follow(self, snapshot: Snapshot) -> None:
        """Begin anew for another stump; what is known of it is told at once."""
        key = snapshot.result.case, snapshot.plan.as_cut
        if key == self._key and (self.busy or self.story is not None or self.failed):
            return
        self.story, self.failed = None, False
        if self.store.dragging or not self.in_sight or not snapshot.plan.as_cut.is_read:
            self._forget()
            return
        self._key = key
        known = self._recalled(key)
        self._begin(iter([known]) if known is not None else _answers(story_in_steps(snapshot.job, snapshot.plan.id)))

    def pause(self) -> None:
        """Nobody looks: what is under way is given up."""
        self.in_sight = False
        if self.busy:
            self._forget()

    def _take(self, answer: Story) -> None:
        self.story = answer
        self.told.emit()

    def _miss(self) -> None:
        self.failed = True
        self.told.emit()
