"""The fall reckoned behind every change: a quick look at once, the whole soon after."""

from __future__ import annotations

from ...core.fall.fan import Fan
from ...core.fall.nominal import NominalFall
from ...core.plan.case import Case
from ...core.stump.hand import Hand
from ...job.fall import fall_in_steps
from .store import Snapshot
from .watch import Watch

Key = tuple[Case, Hand]


class FallWatch(Watch[Key, tuple[NominalFall, Fan]]):
    """Nothing is reckoned while something is dragged or only looked at."""

    def follow(self, snapshot: Snapshot) -> None:
        """Begin anew for another plan; show at once what is known of it."""
        key = snapshot.result.case, snapshot.job.hand
        if self.store.dragging or self.store.previewing:
            self._forget()
            return
        under_way = self.busy and key == self._key
        if snapshot.fall is not None or under_way or snapshot.fall_failed:
            return
        # The same case may come again without its fall: a duty ticked, other units, the tree chosen once more.
        known = self._recalled(key)
        # What is known is told a moment later too: others are still being told of the change itself.
        self._key = key
        steps = iter([known]) if known is not None else fall_in_steps(snapshot.plan, snapshot.result, snapshot.job.hand)
        self._begin(steps)

    def _take(self, answer: tuple[NominalFall, Fan]) -> None:
        self.store.take_fall(*answer)

    def _miss(self) -> None:
        if self.store.snapshot.fan is None:
            self.store.miss_fall()
