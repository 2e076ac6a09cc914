"""What can be taken hold of on the plan: paths and words of every obstacle, way out, place of the rope, spot height."""

from __future__ import annotations

from PySide6.QtCore import QSignalBlocker, Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QListWidget, QListWidgetItem, QWidget

from ....core.base.frozen import dataclass
from ....core.base.quantity import Kind
from ....core.plan.reach import called
from ....core.site.site import Place
from ....core.site.ways_out import WayOut
from ....job.fields import label_of
from ....job.language import tr
from ....job.words import Speech
from ...drawing.palette import font
from ...frame.store import Snapshot
from .polar import polar

WAYS = ("cut.way_left_deg", "cut.way_right_deg")
"""Paths of both ways out, in the order in which a plan has them."""
ROPE_PLACES = {"rope.anchor": "anchor", "rope.corner": "redirect", "rope.hauler": "hauler"}
ROWS_SHOWN = 9
"""Rows the list shows without scrolling: more would push the fields of what is picked off a small screen."""


@dataclass(frozen=True, slots=True)
class Thing:
    """One of them: the path of what is held in the document, and how it is called with its place."""

    path: str
    words: str


def things_of(snapshot: Snapshot) -> tuple[Thing, ...]:
    """Everything on the plan, as one walks through it."""
    plan, speech, site = snapshot.plan, snapshot.speech, snapshot.job.site
    found = [
        Thing(path, f"{label_of(path)}: {way_words(way, snapshot)}")
        for path, way in zip(WAYS, snapshot.shapes.site.ways, strict=True)
    ]
    if plan.rope.use == "set":
        places = {"rope.anchor": plan.rope.anchor, "rope.hauler": plan.rope.hauler}
        places |= {"rope.corner": plan.rope.corner} if plan.rope.redirect == "set" else {}
        found += [
            Thing(path, tr("rope {part}: {where}", part=ROPE_PLACES[path], where=_where(place, plan.at, speech)))
            for path, place in places.items()
        ]
    for index, obstacle in enumerate(site.obstacles):
        words = f"{tr(called(obstacle))}: {_where(obstacle.points[0], plan.at, speech)}"
        found.append(Thing(f"site.obstacles.{index}", words))
    for index, spot in enumerate(site.spots):
        at = Place(spot.east_m, spot.north_m)
        found.append(Thing(f"site.spots.{index}", tr("spot height: {where}", where=_where(at, plan.at, speech))))
    return tuple(found)


def _where(place: Place, at: Place, speech: Speech) -> str:
    bearing, distance = polar(place, at)
    # As one paces it: what is exact stands in the fields.
    return f"{speech.show(round(bearing), Kind.BEARING)}, {speech.show(round(distance, 1), Kind.SPAN)}"


def way_words(way: WayOut, snapshot: Snapshot) -> str:
    """Where a way out leads, whose choice that is, and what bars it."""
    barred = "" if way.free else f", {way_state(way, snapshot)}"
    return f"{snapshot.speech.show(way.bearing_deg, Kind.BEARING)}, {whose(way, snapshot)}{barred}"


def whose(way: WayOut, snapshot: Snapshot) -> str:
    """Whether a person has set it."""
    return tr("proposed") if getattr(snapshot.plan.cut, f"way_{way.side}_deg") is None else tr("set")


def way_state(way: WayOut, snapshot: Snapshot) -> str:
    """Whether it can be walked; what nobody has looked at is never called free."""
    obstacles = snapshot.result.case.site.obstacles
    if way.blocked_by is not None:
        return tr("barred by {called}", called=called(obstacles[way.blocked_by]))
    if way.under_dead:
        return tr("under dead wood")
    if not way.free:
        return tr("too steep")
    return tr("overhead not looked at") if way.under_unseen else tr("nothing drawn in it")


class ThingsList(QListWidget):
    """The list of them: picking a row picks the thing on the plan.

    Signals:
        chosen: path of the row picked.
        removed: path of the row on which Delete was pressed.
    """

    chosen = Signal(str)
    removed = Signal(str)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setFont(font(13, narrow=True))
        self.setObjectName("ground:things")
        self.setAccessibleName(tr("What is on the ground"))
        self.setToolTip(tr("Up and Down walk through what is on the plan; Delete removes an obstacle."))
        self.setWordWrap(True)
        self._shown: tuple[Thing, ...] = ()
        self.currentItemChanged.connect(self._tell)

    def show_things(self, things: tuple[Thing, ...], chosen: str) -> None:
        """Follow the plan: rows, and which of them is picked. Nothing is told back."""
        with QSignalBlocker(self):
            if things != self._shown:
                self._shown = things
                self.clear()
                for thing in things:
                    item = QListWidgetItem(thing.words, self)
                    item.setData(Qt.ItemDataRole.UserRole, thing.path)
                tall = self.sizeHintForRow(0) * min(max(len(things), 1), ROWS_SHOWN)
                self.setFixedHeight(tall + 2 * self.frameWidth() + 4)
            paths = [thing.path for thing in things]
            self.setCurrentRow(paths.index(chosen) if chosen in paths else -1)

    def _tell(self, item: QListWidgetItem | None) -> None:
        if item is not None:
            self.chosen.emit(item.data(Qt.ItemDataRole.UserRole))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Delete removes what is picked."""
        item = self.currentItem()
        if event.key() == Qt.Key.Key_Delete and item is not None:
            self.removed.emit(item.data(Qt.ItemDataRole.UserRole))
        else:
            super().keyPressEvent(event)
