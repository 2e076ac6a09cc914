"""The page of the Ground step: the plan with the rose, and beside it the bearing read and the obstacle picked."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPointF, Qt
from PySide6.QtWidgets import (
    QComboBox,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QSizePolicy,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from ....core.findings import Finding
from ....core.site import KINDS, Place
from ....job.site_edits import add_corner, add_obstacle, remove_obstacle
from ...drawing.palette import font
from ...drawing.text import unbroken
from ...frame.choice_edit import ChoiceEdit
from ...frame.commands import Commands
from ...frame.field_edit import FieldEdit
from ...frame.page import Picture
from ...frame.store import Snapshot, Store
from .reader import told
from .reckoner import RoseReckoner
from .views import Legend, SiteView

BESIDE = 236
FIELDS = ("kind", "cost", "radius_m", "height_m", "base_m", "points.0.east_m", "points.0.north_m")


class GroundPage(QWidget):
    """Choose the lay for the whole tree on its ground."""

    def __init__(self, store: Store, commands: Commands, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.rose = RoseReckoner(self)
        self.plan = SiteView(store, self.rose, self)
        self.plan.setAccessibleName("Site plan and lay rose")
        self.plan.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)
        self.editors: list[FieldEdit | ChoiceEdit] = []
        self._compose()
        self.rose.grown.connect(self._grown)
        self.plan.read.connect(lambda _: self._tell())
        self.plan.picked.connect(self.pick)
        self.plan.dropped.connect(self._drop)

    def _compose(self) -> None:
        self.words = QLabel()
        self.words.setWordWrap(True)
        self.words.setFont(font(14))
        self.words.setTextFormat(Qt.TextFormat.RichText)
        self.words.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.words.setMinimumHeight(150)
        self.words.setAccessibleName("The bearing read")
        self.turn = self._button("Turn the lay here", self._turn, "ground:turn")
        self.kinds = QComboBox()
        self.kinds.setFont(font(14))
        self.kinds.setAccessibleName("What to draw")
        for key, words in KINDS.items():
            self.kinds.addItem(words[:1].upper() + words[1:], key)
        self.draw = self._button("Draw it", self._ready, "ground:draw")
        self.draw.setCheckable(True)
        self.picked_name = QLineEdit()
        self.picked_name.setFont(font(14))
        self.picked_name.setAccessibleName("Name of the obstacle")
        self.picked_name.editingFinished.connect(self._name)
        self.form = QGridLayout()
        self.form.setVerticalSpacing(2)
        self.form_body = QWidget()
        self.form_body.setLayout(self.form)
        column = QVBoxLayout()
        column.setContentsMargins(10, 8, 10, 8)
        self.legend = Legend(self.store)
        for item in (self._heading("Bearing read"), self.words, self.turn, self.legend, self._heading("On the ground")):
            column.addWidget(item)
        row = QHBoxLayout()
        row.addWidget(self.kinds, 1)
        row.addWidget(self.draw)
        column.addLayout(row)
        column.addWidget(self.form_body)
        column.addStretch()
        beside = QWidget()
        beside.setObjectName("page")
        beside.setFixedWidth(BESIDE)
        beside.setLayout(column)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(1)
        whole.addWidget(self.plan, 1)
        whole.addWidget(beside)

    @staticmethod
    def _heading(text: str) -> QLabel:
        label = QLabel(text)
        label.setFont(font(14, strong=True))
        return label

    @staticmethod
    def _button(text: str, do: Callable[[], object], name: str) -> QToolButton:
        button = QToolButton()
        button.setText(text)
        button.setObjectName(name)
        button.clicked.connect(lambda _=False: do())
        return button

    # Following -----------------------------------------------------------------------------------------

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document; the rose follows when the hand lets go."""
        self.rose.follow(snapshot, dragging=self.store.dragging)
        if self.plan.chosen >= len(snapshot.job.site.obstacles):
            self.pick(-1)
        self.plan.refresh(snapshot)
        for editor in self.editors:
            editor.refresh(snapshot)
        self._tell()

    def _grown(self) -> None:
        self.plan.update()
        self._tell()

    def _tell(self) -> None:
        spoke = self.rose.at(self.plan.read_deg)
        wait = "" if self.rose.done else f" <i>({len(self.rose.spokes)} of 360 bearings so far)</i>"
        self.words.setText(
            "…"
            if spoke is None
            else unbroken(told(spoke, self.store.snapshot.job, self.store.snapshot.result.case.site)) + wait
        )

    def _turn(self) -> None:
        bearing = self.plan.read_deg
        self.store.set("cut.lay_deg", bearing, f"lay turned to {bearing:.0f}°")

    # Obstacles -----------------------------------------------------------------------------------------

    def _ready(self) -> None:
        self.plan.dropping = self.kinds.currentData() if self.draw.isChecked() else ""

    def _drop(self, east_m: float, north_m: float) -> None:
        kind, self.plan.dropping = self.plan.dropping, ""
        self.draw.setChecked(False)
        if self.store.change(f"{KINDS[kind]} drawn", lambda job: add_obstacle(job, kind, Place(east_m, north_m))):
            self.pick(len(self.store.snapshot.job.site.obstacles) - 1)

    def pick(self, index: int) -> None:
        """Show an obstacle's fields; -1 shows none."""
        self.plan.chosen = index
        while (item := self.form.takeAt(0)) is not None:
            if (gone := item.widget()) is not None and gone is not self.picked_name:
                gone.hide()
                gone.deleteLater()
        self.editors = []
        self.picked_name.setVisible(index >= 0)
        if index >= 0:
            self._fill(index)
        self.plan.refresh(self.store.snapshot)

    def _fill(self, index: int) -> None:
        snapshot = self.store.snapshot
        obstacle = snapshot.job.site.obstacles[index]
        self.picked_name.setText(obstacle.name)
        self.picked_name.setPlaceholderText("name")
        self.form.addWidget(self.picked_name, 0, 0, 1, 2)
        for row, name in enumerate(FIELDS, start=1):
            if name == "base_m" and obstacle.kind not in ("tree", "save"):
                continue
            path = f"site.obstacles.{index}.{name}"
            is_word = name in ("kind", "cost")
            editor = ChoiceEdit(self.store, path) if is_word else FieldEdit(self.store, path)
            editor.refresh(snapshot)
            label = QLabel(editor.accessibleName())
            label.setFont(font(13, narrow=True))
            self.form.addWidget(label, row, 0)
            self.form.addWidget(editor, row, 1)
            self.editors.append(editor)
        corner = self._button("Corner +", lambda: self._corner(index), "ground:corner")
        corner.setEnabled(obstacle.shape != "spot")
        gone = self._button("Remove", lambda: self._remove(index), "ground:remove")
        self.form.addWidget(corner, len(FIELDS) + 1, 0)
        self.form.addWidget(gone, len(FIELDS) + 1, 1)

    def _corner(self, index: int) -> None:
        if self.store.change("corner added", lambda job: add_corner(job, index)):
            self.pick(index)

    def _remove(self, index: int) -> None:
        if self.store.change("obstacle removed", lambda job: remove_obstacle(job, index)):
            self.pick(-1)

    def _name(self) -> None:
        index = self.plan.chosen
        path = f"site.obstacles.{index}.name"
        if index >= 0 and self.picked_name.text() != self.store.snapshot.value(path):
            self.store.set(path, self.picked_name.text(), "obstacle named", joins=True)

    # The window's requests -----------------------------------------------------------------------------

    def bring_out(self, finding: Finding) -> None:
        """Bring out what a finding is about."""
        self.plan.mark = finding.mark
        self.plan.update()

    def fit(self) -> None:
        """Back to the whole plan."""
        self.plan.fit()

    def zoom(self, factor: float) -> None:
        """Nearer or further."""
        self.plan.zoom_about(QPointF(self.plan.rect().center()), factor)

    def pictures(self) -> tuple[Picture, ...]:
        """The plan, for copying."""
        return (self.plan.picture(),)
