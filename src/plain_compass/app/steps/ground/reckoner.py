"""The lay rose reckoned some bearings at a time, so that the window never waits for it."""

from __future__ import annotations

import time

import numpy as np
from PySide6.QtCore import QObject, QTimer, Signal

from ....core.advice.rose import BLOCK, Spoke, spokes_at, turned_away
from ....core.advice.sectors import Sector, sectors_of, sort_of
from ....core.base.frames import full_turn_deg, half_turn_deg
from ....core.plan.case import Case
from ....core.plan.reach import Meets, meets_by_bearing
from ....core.site.site import Site
from ...frame.store import Snapshot

SLICE_S = 0.012
"""About as long as a stretch of reckoning may last between two looks at the mouse: within a frame at 60 a second."""
LEAST_AT_ONCE, MOST_AT_ONCE = 18, BLOCK
"""Bearings of one stretch: many at once cost little more than one, and the first round of them has so many."""
TOLD_EVERY_S = 0.1
"""How often the plan is painted anew while the rose grows: painting costs as much as reckoning."""
COARSE = (20, 10, 5, 2, 1)
"""Steps in degrees: the whole rose is there coarsely first, then finer."""


def in_order() -> tuple[int, ...]:
    """All 360 bearings, every twentieth degree first."""
    found: dict[int, None] = {}
    for step in COARSE:
        found.update(dict.fromkeys(range(0, 360, step)))
    return tuple(found)


class RoseReckoner(QObject):
    """Follows the document; what a spoke depends on does not include the lay, so turning it costs nothing.

    Attributes:
        version: grows with every change of the spokes.
        stale: whether the spokes are of the plan as it was before a drag that is still going on.

    Signals:
        grown: more spokes are there.
    """

    grown = Signal()

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.spokes: dict[int, Spoke] = {}
        self.version = 0
        self._key: Case | None = None
        self.stale = False
        self._case: Case | None = None
        self._left: list[int] = []
        self._meets: tuple[Meets, ...] = ()
        self._at_once = LEAST_AT_ONCE
        self._told_at = 0.0
        self._gathered: tuple[int, tuple[Sector, ...]] | None = None
        self._timer = QTimer(self)
        self._timer.setInterval(0)
        self._timer.timeout.connect(self.step)

    @property
    def done(self) -> bool:
        """Whether every bearing is there."""
        return not self._left

    def follow(self, snapshot: Snapshot, *, dragging: bool) -> None:
        """Begin anew when something a spoke depends on has changed; not while it is still being dragged."""
        case = snapshot.result.case
        key = turned_away(case)
        self.stale = key != self._key
        if dragging:
            # The hand has the frame to itself; what is shown meanwhile is said to be of before.
            self._timer.stop()
            return
        if not self.stale:
            if self._left:
                self._timer.start()
            return
        self._key, self._case, self.stale = key, case, False
        self.spokes = {}
        self.version += 1
        # Of a tree that is not measured there is nothing to reckon; the page says what is missing.
        self._left = [] if case.tree.stand_ins else list(reversed(in_order()))
        self._meets = ()
        self._timer.start()
        self.grown.emit()

    def step(self) -> None:
        """Reckon for a few milliseconds."""
        assert self._case is not None
        self._reckon(self._at_once)
        now = time.perf_counter()
        if not self._left or now - self._told_at > TOLD_EVERY_S:
            self._told_at = now
            self.grown.emit()

    def _reckon(self, count: int) -> None:
        """Reckon the next bearings, and see how many the next stretch can hold."""
        assert self._case is not None
        began = time.perf_counter()
        if not self._meets:
            self._meets = meets_by_bearing(self._case, np.arange(360.0))
        bearings = [self._left.pop() for _ in range(min(count, len(self._left)))]
        meets = [self._meets[bearing] for bearing in bearings]
        spokes = spokes_at(self._case, [float(bearing) for bearing in bearings], meets)
        self.spokes.update(zip(bearings, spokes, strict=True))
        self.version += 1
        took = max(time.perf_counter() - began, 1e-4)
        # Doubled or halved at most: one slow moment of the machine says little.
        wanted = len(bearings) * min(max(SLICE_S / took, 0.5), 2.0)
        self._at_once = min(max(round(wanted), LEAST_AT_ONCE), MOST_AT_ONCE)
        if not self._left:
            self._timer.stop()

    def pause(self) -> None:
        """Reckon no further until ``follow`` is called again."""
        self._timer.stop()

    def finish(self) -> None:
        """Reckon all that is left, now."""
        while self._left:
            self._reckon(MOST_AT_ONCE)
        self.grown.emit()

    @property
    def site(self) -> Site:
        """The ground that the bearings were reckoned on."""
        return Site() if self._case is None else self._case.site

    @property
    def sectors(self) -> tuple[Sector, ...]:
        """The bearings gathered into sectors; none before every one is there."""
        if self._left or not self.spokes or self._case is None:
            return ()
        if self._gathered is None or self._gathered[0] != self.version:
            case, spokes = self._case, [self.spokes[bearing] for bearing in sorted(self.spokes)]
            sorts = [sort_of(each, len(case.cut.wedges), case.kit) for each in spokes]
            self._gathered = self.version, sectors_of(spokes, sorts)
        return self._gathered[1]

    def at(self, bearing_deg: float) -> Spoke | None:
        """The spoke nearest to a bearing; None before any is there."""
        if not self.spokes:
            return None
        wanted = full_turn_deg(round(bearing_deg))
        return self.spokes.get(wanted) or min(
            self.spokes.values(), key=lambda s: abs(half_turn_deg(s.bearing_deg - wanted))
        )
