"""A place typed as bearing and distance from the tree; paces too."""

from __future__ import annotations

import math

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLineEdit, QWidget

from ....core.base.frames import bearing_of, full_turn_deg
from ....core.site.site import Place
from ....job.edits import set_values
from ....job.typed import TypedError, parse
from ....job.units import EXAMPLES
from ...drawing.palette import font
from ...frame.store import Snapshot, Store


def polar(place: Place, at: Place) -> tuple[float, float]:
    """(bearing in degrees, metres) of a place from the tree."""
    east, north = place.east_m - at.east_m, place.north_m - at.north_m
    return full_turn_deg(bearing_of(east, north)), math.hypot(east, north)


class PolarEdit(QLineEdit):
    """One of the two: ``bearing`` or ``distance``. The other stays as it is.

    Args:
        path: of the place, or of what has ``east_m`` and ``north_m``.
    """

    def __init__(self, store: Store, path: str, part: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.path, self.part = store, path, part
        self.kind = {"bearing": "bearing", "distance": "span"}[part]
        self._shown = ""
        self.setFont(font(14))
        self.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.setObjectName(f"{part}:{path}")
        self.setAccessibleName(f"{part} from the tree")
        self.setToolTip(f"{part.capitalize()} from the tree. Type for example {EXAMPLES[self.kind]}.")
        self.returnPressed.connect(self.commit)
        self.editingFinished.connect(self.commit)

    def refresh(self, snapshot: Snapshot) -> None:
        """Show it, unless something is being typed."""
        text = snapshot.speech.show(self._now(snapshot)[self.part == "distance"], self.kind)
        if text != self._shown:
            self._shown = text
            self.setText(text)

    def _now(self, snapshot: Snapshot) -> tuple[float, float]:
        held = snapshot.value(self.path)
        return polar(Place(held.east_m, held.north_m), snapshot.plan.at)

    def commit(self) -> bool:
        """Move the place; what cannot be read stays, with a sentence."""
        if self.text() == self._shown:
            return True
        snapshot = self.store.snapshot
        try:
            value = parse(self.text(), self.kind, snapshot.job.units, pace_m=snapshot.job.person.pace_m)
        except TypedError as error:
            self.store.refused.emit(f"{self.accessibleName().capitalize()} {error.sentence()}")
            return False
        bearing, distance = self._now(snapshot)
        if self.part == "bearing":
            bearing = value
        else:
            distance = value
        return self._moved(snapshot, bearing, distance)

    def _moved(self, snapshot: Snapshot, bearing_deg: float, distance_m: float) -> bool:
        turn, at = math.radians(bearing_deg), snapshot.plan.at
        changes = {
            f"{self.path}.east_m": round(at.east_m + distance_m * math.sin(turn), 3),
            f"{self.path}.north_m": round(at.north_m + distance_m * math.cos(turn), 3),
        }
        done = self.store.change(
            f"{self.part} {self.text()}", lambda job: set_values(job, self.store.tree_id, changes), path=self.path
        )
        self._shown = ""
        self.refresh(self.store.snapshot)
        return done


class WayEdit(QLineEdit):
    """The bearing of a way out, typed as one reads it off a compass; kept as its angle from the lay.

    Args:
        path: ``cut.way_left_deg`` or ``cut.way_right_deg``.
    """

    def __init__(self, store: Store, path: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.path = store, path
        self.sign = -1.0 if "left" in path else 1.0
        self._shown = ""
        self.setFont(font(14))
        self.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.setObjectName(f"bearing:{path}")
        self.setAccessibleName("bearing")
        self.setToolTip(f"Bearing of the way out. Type for example {EXAMPLES['bearing']}.")
        self.returnPressed.connect(self.commit)
        self.editingFinished.connect(self.commit)

    def refresh(self, snapshot: Snapshot) -> None:
        """Show it, unless something is being typed."""
        way = snapshot.shapes.site.ways[self.sign > 0]
        text = snapshot.speech.show(way.bearing_deg, "bearing")
        if text != self._shown:
            self._shown = text
            self.setText(text)

    def commit(self) -> bool:
        """Set the way; what cannot be read, or leads past the tree, stays with a sentence."""
        if self.text() == self._shown:
            return True
        snapshot = self.store.snapshot
        try:
            bearing = parse(self.text(), "bearing", snapshot.job.units)
        except TypedError as error:
            self.store.refused.emit(f"{self.accessibleName().capitalize()} {error.sentence()}")
            return False
        off_deg = full_turn_deg(self.sign * (bearing - snapshot.plan.cut.lay_deg))
        self._shown = ""
        done = self.store.set(self.path, off_deg, f"{way_name(self.path)} {self.text()}")
        self.refresh(self.store.snapshot)
        return done


def way_name(path: str) -> str:
    """What a way out is called, by its path."""
    return "way out left" if "left" in path else "way out right"
