"""The plan by keyboard: draw where the keys aim, walk through what stands there, move it, remove it."""

from __future__ import annotations

from typing import Protocol

from PySide6.QtCore import Qt, SignalInstance
from PySide6.QtGui import QKeyEvent

from ....core.site.ways_out import FARTHEST_LAY_DEG, NEAREST_LAY_DEG
from ....job.edits import set_values
from ....job.fields import label_of
from ....job.language import tr
from ....job.site_edits import move_obstacle
from ...frame.store import Store
from .things import WAYS, things_of

FINE_M, COARSE_M = 0.5, 5.0
"""A key moves so far, and with Shift."""
TURN_DEG = 5.0
"""A key turns a way out so far."""
DIRECTIONS = {
    Qt.Key.Key_Left: (-1.0, 0.0),
    Qt.Key.Key_Right: (1.0, 0.0),
    Qt.Key.Key_Up: (0.0, 1.0),
    Qt.Key.Key_Down: (0.0, -1.0),
}
"""Arrow key -> (east, north)."""
ENTER = (Qt.Key.Key_Return, Qt.Key.Key_Enter)


class Plan(Protocol):
    """What the keys ask of the drawing they are pressed on."""

    store: Store
    chosen: str
    dropping: str
    picked: SignalInstance
    dropped: SignalInstance
    removed: SignalInstance
    laid_aside: SignalInstance

    def update(self) -> None:
        """Paint anew."""


class GroundKeys:
    """Where the keys aim while something is being drawn, and what they do to what is picked.

    Attributes:
        aim: (east, north) of the tree in metres.
    """

    def __init__(self, plan: Plan) -> None:
        self.plan = plan
        self.aim = (0.0, 0.0)

    def start(self, east_m: float, north_m: float) -> None:
        """Aim at a place, from which the arrows go on."""
        self.aim = (round(east_m, 1), round(north_m, 1))

    def pressed(self, event: QKeyEvent) -> bool:
        """Whether a key was meant for what is being drawn or is picked."""
        shift = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
        control = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
        way = DIRECTIONS.get(Qt.Key(event.key()))
        if self.plan.dropping:
            return self._drawing(event, way, COARSE_M if shift else FINE_M)
        if event.key() in (Qt.Key.Key_PageDown, Qt.Key.Key_PageUp):
            self._walk(1 if event.key() == Qt.Key.Key_PageDown else -1)
        elif event.key() == Qt.Key.Key_Delete and self.plan.chosen:
            self.plan.removed.emit(self.plan.chosen)
        elif way is not None and control and self.plan.chosen:
            self._move(way, COARSE_M if shift else FINE_M)
        else:
            return False
        return True

    def _drawing(self, event: QKeyEvent, way: tuple[float, float] | None, step_m: float) -> bool:
        """Arrows aim, Enter draws there, Escape thinks better of it."""
        if way is not None:
            self.start(self.aim[0] + way[0] * step_m, self.aim[1] + way[1] * step_m)
            self.plan.update()
        elif event.key() in ENTER:
            at = self.plan.store.snapshot.plan.at
            self.plan.dropped.emit(at.east_m + self.aim[0], at.north_m + self.aim[1])
        elif event.key() == Qt.Key.Key_Escape:
            self.plan.laid_aside.emit()
        else:
            return False
        return True

    def _walk(self, steps: int) -> None:
        """The next thing on the plan, round and round."""
        paths = [thing.path for thing in things_of(self.plan.store.snapshot)]
        at = paths.index(self.plan.chosen) if self.plan.chosen in paths else (-1 if steps > 0 else 0)
        self.plan.picked.emit(paths[(at + steps) % len(paths)])

    def _move(self, way: tuple[float, float], step_m: float) -> None:
        """What is picked goes that way, keys pressed after one another joined to one step."""
        store, path = self.plan.store, self.plan.chosen
        east_m, north_m = way[0] * step_m, way[1] * step_m
        if path in WAYS:
            self._turn_way(path, way[0] or way[1])
        elif path.startswith("site.obstacles."):
            index = int(path.rpartition(".")[2])
            store.change(
                tr("obstacle moved"), lambda job: move_obstacle(job, index, east_m, north_m), path=path, joins=True
            )
        else:
            there = store.snapshot.value(path)
            values = {
                f"{path}.east_m": round(there.east_m + east_m, 3),
                f"{path}.north_m": round(there.north_m + north_m, 3),
            }
            store.change("moved", lambda job: set_values(job, store.tree_id, values), path=path, joins=True)

    def _turn_way(self, path: str, clockwise: float) -> None:
        store = self.plan.store
        way = store.snapshot.shapes.site.ways[WAYS.index(path)]
        sign = 1.0 if way.side == "right" else -1.0
        off = min(max(way.off_lay_deg + sign * clockwise * TURN_DEG, NEAREST_LAY_DEG), FARTHEST_LAY_DEG)
        store.set(path, off, tr("{label} turned", label=label_of(path)), joins=True)
