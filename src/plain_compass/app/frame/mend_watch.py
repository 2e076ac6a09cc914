"""Ways out of what troubles a plan, looked for behind every change while nobody has a hand on anything."""

from __future__ import annotations

from collections.abc import Mapping
from typing import TypeAlias

from PySide6.QtCore import Signal

from ...core.advice.mend import Mends, mends_in_steps, to_mend
from ...core.judge.unmeasured import missing
from ...core.plan.case import Case
from ...core.stump.hand import Hand
from ...job.spreads import spreads_of
from .store import Snapshot, Store
from .watch import Watch

STILL_MS = 120
"""The search begins when nothing has changed for so long."""

Troubles: TypeAlias = tuple[Case, Hand, tuple[str, ...]]
"""A plan, the hand it is cut by, and the ids of what is to be mended in it."""


class MendWatch(Watch[Troubles, Mapping[str, Mends]]):
    """A search is given up as soon as the plan is another.

    Signals:
        found: what can be done, by the finding's id; None while it is looked for.
    """

    found = Signal(object)

    def __init__(self, store: Store) -> None:
        self.answer: Mapping[str, Mends] | None = None
        super().__init__(store)

    def follow(self, snapshot: Snapshot) -> None:
        """Begin anew for another plan; say at once what is known of it."""
        if self.store.previewing:
            return
        if self.store.dragging or snapshot.chances is None or missing(snapshot.plan.tree):
            self._forget()
            self.answer = None
            return
        hand = snapshot.job.hand
        key = snapshot.result.case, hand, tuple(finding.id for finding in to_mend(snapshot.result))
        if key == self._key:
            return
        # What was looked for was of another plan.
        self._forget()
        self._key, self.answer = key, self._recalled(key)
        if self.answer is None:
            steps = mends_in_steps(snapshot.result, spreads_of(snapshot.plan, hand), snapshot.chances, key[2])
            self._begin((each if isinstance(each, dict) else None for each in steps), STILL_MS)
        self.found.emit(self.answer)

    def _take(self, answer: Mapping[str, Mends]) -> None:
        self._timer.stop()
        self.answer = answer
        self.found.emit(answer)

    def _miss(self) -> None:
        # A change whose plan does not hold together with some input moved: nothing is offered.
        self._remember({})
        self._take({})
