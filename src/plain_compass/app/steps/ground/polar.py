"""A place typed as bearing and distance from the tree; paces too."""

from __future__ import annotations

import math

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLineEdit, QWidget

from ....core.base.frames import bearing_of, full_turn_deg
from ....core.site.site import Place
from ....job.edits import set_values
from ....job.fields import label_of
from ....job.language import tr
from ....job.typed import TypedError, parse
from ....job.units import EXAMPLES
from ....job.words.catalogue import capital
from ...drawing.palette import font
from ...frame.store import Snapshot, Store


def polar(place: Place, at: Place) -> tuple[float, float]:
    """(bearing in degrees, metres) of a place from the tree."""
    east, north = place.east_m - at.east_m, place.north_m - at.north_m
    return full_turn_deg(bearing_of(east, north)), math.hypot(east, north)


FROM_TREE = {"bearing": tr("bearing from the tree"), "distance": tr("distance from the tree")}
"""Part of a place -> what it is."""


class PlaceEdit(QLineEdit):
    """A number typed of a place that is kept as another one. Subclasses give ``now`` and ``keep``.

    Args:
        part: what is typed: ``bearing`` or ``distance``.
        name, about: what it is called, and what its tooltip says it is.
    """

    def __init__(self, store: Store, path: str, part: str, name: str, about: str, parent: QWidget | None) -> None:
        super().__init__(parent)
        self.store, self.path, self.part = store, path, part
        self.kind = {"bearing": "bearing", "distance": "span"}[part]
        self._shown = ""
        self.setFont(font(14))
        self.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.setObjectName(f"{part}:{path}")
        self.setAccessibleName(name)
        self.setToolTip(tr("{about}. Type for example {examples}.", about=about, examples=EXAMPLES[self.kind]))
        self.returnPressed.connect(self.commit)
        self.editingFinished.connect(self.commit)

    def now(self, snapshot: Snapshot) -> float:
        """What it is in the document."""
        raise NotImplementedError

    def keep(self, snapshot: Snapshot, value: float) -> bool:
        """Take it into the document; False, with a sentence, where that cannot be done."""
        raise NotImplementedError

    def refresh(self, snapshot: Snapshot) -> None:
        """Show it, unless something is being typed."""
        text = snapshot.speech.show(self.now(snapshot), self.kind)
        if text != self._shown:
            self._shown = text
            self.setText(text)

    def commit(self) -> bool:
        """Take in what was typed; what cannot be read stays, with a sentence."""
        if self.text() == self._shown:
            return True
        snapshot = self.store.snapshot
        try:
            value = parse(self.text(), self.kind, snapshot.job.units, pace_m=snapshot.job.person.pace_m)
        except TypedError as error:
            self.store.refused.emit(f"{self.accessibleName().capitalize()} {error.sentence()}")
            return False
        self._shown = ""
        done = self.keep(snapshot, value)
        self.refresh(self.store.snapshot)
        return done


class PolarEdit(PlaceEdit):
    """One of the two: ``bearing`` or ``distance``. The other stays as it is.

    Args:
        path: of the place, or of what has ``east_m`` and ``north_m``.
    """

    def __init__(self, store: Store, path: str, part: str, parent: QWidget | None = None) -> None:
        super().__init__(store, path, part, FROM_TREE[part], capital(FROM_TREE[part]), parent)

    def _polar(self, snapshot: Snapshot) -> dict[str, float]:
        held = snapshot.value(self.path)
        bearing, distance = polar(Place(held.east_m, held.north_m), snapshot.plan.at)
        return {"bearing": bearing, "distance": distance}

    def now(self, snapshot: Snapshot) -> float:
        """One of the two."""
        return self._polar(snapshot)[self.part]

    def keep(self, snapshot: Snapshot, value: float) -> bool:
        """Move the place."""
        held, at = self._polar(snapshot) | {self.part: value}, snapshot.plan.at
        turn, distance_m = math.radians(held["bearing"]), held["distance"]
        changes = {
            f"{self.path}.east_m": round(at.east_m + distance_m * math.sin(turn), 3),
            f"{self.path}.north_m": round(at.north_m + distance_m * math.cos(turn), 3),
        }
        return self.store.change(
            f"{self.part} {self.text()}", lambda job: set_values(job, self.store.tree_id, changes), path=self.path
        )


class WayEdit(PlaceEdit):
    """The bearing of a way out, typed as one reads it off a compass; kept as its angle from the lay.

    Args:
        path: ``cut.way_left_deg`` or ``cut.way_right_deg``.
    """

    def __init__(self, store: Store, path: str, parent: QWidget | None = None) -> None:
        super().__init__(store, path, "bearing", "bearing", tr("Bearing of the way out"), parent)
        self.sign = -1.0 if "left" in path else 1.0

    def now(self, snapshot: Snapshot) -> float:
        """Where it leads, set or proposed."""
        return snapshot.shapes.site.ways[self.sign > 0].bearing_deg

    def keep(self, snapshot: Snapshot, value: float) -> bool:
        """Set it; one that leads past the tree is refused with a sentence."""
        off_deg = full_turn_deg(self.sign * (value - snapshot.plan.cut.lay_deg))
        return self.store.set(self.path, off_deg, f"{label_of(self.path)} {self.text()}")
