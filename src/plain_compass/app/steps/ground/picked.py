"""Beside the plan: the fields of what is taken hold of, an obstacle, a spot height or a place of the rope."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QGridLayout, QLineEdit, QToolButton, QWidget

from ....core.base.paths import value_at
from ....core.site.site import Obstacle
from ....job.fields import label_of
from ....job.language import tr
from ....job.site_edits import add_corner, remove_obstacle, remove_spot
from ...drawing.palette import font
from ...frame.choice_edit import ChoiceEdit
from ...frame.field_edit import FieldEdit
from ...frame.fitted_button import FittedButton
from ...frame.plain_label import PlainLabel
from ...frame.store import Snapshot, Store
from .polar import PolarEdit, WayEdit
from .things import ROPE_PLACES, WAYS, way_state, whose

OBSTACLE = ("kind", "cost", "radius_m", "height_m", "base_m", "overhead")
ROPE = ("rope.attached_m", "rope.system", "rope.sheave", "rope.haul_N", "rope.redirect")
EDITOR_PX = 128
"""Width of a field in the column: its longest label in one line."""
Editor = FieldEdit | ChoiceEdit | PolarEdit | WayEdit
WORDS = ("kind", "cost", "overhead", "rope.system", "rope.sheave", "rope.redirect")


def tool_button(text: str, do: Callable[[], object], name: str) -> QToolButton:
    """A small button that says what it does."""
    button = FittedButton()
    button.setText(text)
    button.setObjectName(name)
    button.setProperty("framed", True)
    button.clicked.connect(lambda _=False: do())
    return button


NAMES = {"bearing": tr("bearing"), "distance": tr("distance")}
"""Part of a place -> its name in the column, where "from the tree" goes without saying."""


class PickedPanel(QWidget):
    """Fields of one thing on the plan, by its path; an empty path shows none.

    Signals:
        gone: what was shown has been removed.
    """

    gone = Signal()

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.path = ""
        self.editors: list[Editor] = []
        self.name = QLineEdit()
        self.name.setFont(font(14))
        self.name.setAccessibleName(tr("Name of the obstacle"))
        self.name.setPlaceholderText(tr("name"))
        self.name.editingFinished.connect(self._name)
        self.form = QGridLayout(self)
        self.form.setContentsMargins(0, 0, 0, 0)
        self.form.setVerticalSpacing(2)

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document."""
        for editor in self.editors:
            editor.refresh(snapshot)
        self._tell_way(snapshot)

    def show_picked(self, path: str) -> None:
        """Show the fields of another thing."""
        self.path = path
        while (item := self.form.takeAt(0)) is not None:
            if (old := item.widget()) is not None and old is not self.name:
                old.hide()
                old.deleteLater()
        self.editors = []
        self.name.setVisible(path.startswith("site.obstacles."))
        if path.startswith("site.obstacles."):
            self._obstacle(path)
        elif path.startswith("site.spots."):
            self._spot(path)
        elif path in WAYS:
            self._way(path)
        elif path:
            self._rope(path)

    def _obstacle(self, path: str) -> None:
        obstacle: Obstacle = value_at(self.store.snapshot.job, path)
        self.name.setText(obstacle.name)
        self.form.addWidget(self.name, 0, 0, 1, 2)
        shown = [n for n in OBSTACLE if n not in ("base_m", "overhead") or obstacle.kind in ("tree", "save")]
        self._rows([f"{path}.{name}" for name in shown], f"{path}.points.0")
        corner = tool_button(tr("Corner +"), lambda: self._corner(path), "ground:corner")
        corner.setEnabled(obstacle.shape != "spot")
        self._buttons(corner, tool_button(tr("Remove"), lambda: self.remove(path), "ground:remove"))

    def _spot(self, path: str) -> None:
        self._heading(tr("Spot height"))
        self._rows([f"{path}.height_m"], path)
        self._buttons(tool_button(tr("Remove"), lambda: self.remove(path), "ground:remove"))

    def _rope(self, path: str) -> None:
        self._heading(tr("Rope: {part}", part=ROPE_PLACES[path]))
        self._rows(list(ROPE), path)

    def _way(self, path: str) -> None:
        """A way out: its bearing, what is in it, and a way back to what is proposed."""
        self._heading(label_of(path).capitalize())
        self._editors([WayEdit(self.store, path)])
        self.state = PlainLabel()
        self.state.setFont(font(13))
        self.state.setWordWrap(True)
        self.form.addWidget(self.state, self.form.rowCount(), 0, 1, 2)
        self.proposing = propose = tool_button(tr("Propose one"), lambda: self._propose(path), "ground:propose")
        propose.setToolTip(
            tr("The free one nearest to 135° from the lay; it is looked for anew whenever the plan changes.")
        )
        self._buttons(propose)
        self._tell_way(self.store.snapshot)

    def _tell_way(self, snapshot: Snapshot) -> None:
        if self.path in WAYS:
            way = snapshot.shapes.site.ways[WAYS.index(self.path)]
            self.proposing.setEnabled(snapshot.value(self.path) is not None)
            self.state.setText(f"{whose(way, snapshot)}: {way_state(way, snapshot)}.".capitalize())

    def _propose(self, path: str) -> None:
        self.store.set(path, None, tr("{label} proposed", label=label_of(path)))

    def _heading(self, text: str) -> None:
        label = PlainLabel(text)
        label.setFont(font(13, strong=True))
        self.form.addWidget(label, 0, 0, 1, 2)

    def _rows(self, paths: list[str], place: str) -> None:
        editors: list[Editor] = [
            ChoiceEdit(self.store, path) if path.endswith(WORDS) else FieldEdit(self.store, path) for path in paths
        ]
        editors += [PolarEdit(self.store, place, part) for part in ("bearing", "distance")]
        editors += [FieldEdit(self.store, f"{place}.{axis}") for axis in ("east_m", "north_m")]
        self._editors(editors)

    def _editors(self, editors: list[Editor]) -> None:
        """A row each: name and field."""
        for editor in editors:
            editor.refresh(self.store.snapshot)
            row = self.form.rowCount()
            label = PlainLabel(NAMES.get(getattr(editor, "part", ""), editor.accessibleName()))
            label.setFont(font(13, narrow=True))
            label.setWordWrap(True)
            label.setBuddy(editor)
            self.form.addWidget(label, row, 0)
            editor.setFixedWidth(EDITOR_PX)
            self.form.addWidget(editor, row, 1)
        self.editors = editors

    def _buttons(self, *buttons: QToolButton) -> None:
        row = self.form.rowCount()
        for column, button in enumerate(buttons):
            self.form.addWidget(button, row, column)

    def _corner(self, path: str) -> None:
        if self.store.change(tr("corner added"), lambda job: add_corner(job, int(path.split(".")[2]))):
            self.show_picked(path)

    def remove(self, path: str) -> None:
        """Remove an obstacle or a spot height; what else is on the plan stays."""
        if not path.startswith(("site.obstacles.", "site.spots.")):
            return
        index = int(path.split(".")[2])
        spot = path.startswith("site.spots.")
        remove, title = (remove_spot, tr("spot height removed")) if spot else (remove_obstacle, tr("obstacle removed"))
        if self.store.change(title, lambda job: remove(job, index)):
            self.gone.emit()

    def _name(self) -> None:
        path = f"{self.path}.name"
        if self.path.startswith("site.obstacles.") and self.name.text() != self.store.snapshot.value(path):
            self.store.set(path, self.name.text(), tr("obstacle named"), joins=True)
