"""The page of the Ground step: the plan with the rose, and beside it the bearing read and the obstacle picked."""

from __future__ import annotations

import math

from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QHideEvent
from PySide6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QScrollArea, QSizePolicy, QVBoxLayout, QWidget

from ....core.judge.findings import Finding
from ....core.judge.unmeasured import lacking_of
from ....core.site.rigging import initial_rope
from ....core.site.site import KINDS, Place
from ....job.document import with_plan
from ....job.language import tr
from ....job.site_edits import add_obstacle, add_spot
from ....job.words.catalogue import capital
from ...drawing.palette import font
from ...drawing.text import unbroken
from ...frame.commands import Commands
from ...frame.page import Picture
from ...frame.plain_label import PlainLabel
from ...frame.store import Snapshot, Store
from .picked import PickedPanel, tool_button
from .profile_view import ProfileView
from .reader import describe
from .reckoner import RoseReckoner
from .things import WAYS, ThingsList, things_of
from .views import SiteView

BESIDE = 258
"""Width of the column beside the plan: two fields and their names."""
SPOT = tr("spot height")
HOW_TO_DRAW = tr(
    "Click on the plan where it is; or aim with the arrow keys (Shift: farther) and press Enter. Escape lets it be."
)


class GroundPage(QWidget):
    """Choose the lay for the whole tree on its ground."""

    def __init__(self, store: Store, commands: Commands, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self._tree_id = store.tree_id
        self.rose = RoseReckoner(self)
        self.plan = SiteView(store, self.rose, self)
        self.plan.setAccessibleName(tr("Site plan: where the tree can go"))
        self.plan.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)
        self.profile = ProfileView(store, self)
        self.picked = PickedPanel(store, self)
        self.things = ThingsList(self)
        self._compose()
        self.rose.grown.connect(self._grown)
        self.plan.read.connect(lambda _: self._tell())
        self.plan.picked.connect(self.pick)
        self.picked.gone.connect(lambda: self.pick(""))
        self.plan.dropped.connect(self._drop)
        self.plan.laid_aside.connect(self._lay_aside)
        self.things.chosen.connect(self.pick)
        for who in (self.plan, self.things):
            who.removed.connect(self.picked.remove)

    def _compose(self) -> None:
        self.words = QLabel()
        self.words.setWordWrap(True)
        self.words.setFont(font(14))
        self.words.setTextFormat(Qt.TextFormat.RichText)
        self.words.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.words.setMinimumHeight(128)
        self.words.setAccessibleName(tr("The bearing read"))
        self.turn = tool_button(tr("Turn the lay here"), self._turn, "ground:turn")
        self.kinds = QComboBox()
        self.kinds.setFont(font(14))
        self.kinds.setMinimumContentsLength(5)
        self.kinds.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.kinds.setAccessibleName(tr("What to draw"))
        self.kinds.setAccessibleDescription(tr("What to draw on the plan"))
        for key, words in KINDS.items():
            self.kinds.addItem(capital(tr(words)), key)
        self.kinds.addItem(tr("Spot height"), SPOT)
        self.draw = tool_button(tr("Draw it"), self._ready, "ground:draw")
        self.draw.setCheckable(True)
        self.rope = tool_button(tr("Set a rope"), self._rope, "ground:rope")
        column = QVBoxLayout()
        column.setContentsMargins(10, 8, 10, 8)
        for item in (self._heading(tr("Bearing read")), self.words, self.turn, self._heading(tr("On the ground"))):
            column.addWidget(item)
        row = QHBoxLayout()
        row.addWidget(self.kinds, 1)
        row.addWidget(self.draw)
        column.addLayout(row)
        column.addWidget(self.rope)
        column.addWidget(self.things)
        column.addWidget(self.picked)
        column.addStretch()
        body = QWidget()
        body.setObjectName("page")
        body.setLayout(column)
        beside = QScrollArea()
        beside.setObjectName("page")
        beside.setAccessibleName(tr("Bearing read, and what is on the ground"))
        beside.setWidget(body)
        beside.setWidgetResizable(True)
        beside.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        # The bar stands beside the column: within its width it would cover the fields' right ends.
        beside.setFixedWidth(BESIDE + beside.verticalScrollBar().sizeHint().width())
        drawings = QVBoxLayout()
        drawings.setSpacing(1)
        drawings.addWidget(self.plan, 1)
        drawings.addWidget(self.profile)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(1)
        whole.addLayout(drawings, 1)
        whole.addWidget(beside)

    @staticmethod
    def _heading(text: str) -> QLabel:
        label = PlainLabel(text)
        label.setFont(font(14, strong=True))
        return label

    # Following -----------------------------------------------------------------------------------------

    def hideEvent(self, event: QHideEvent) -> None:
        """Nothing is reckoned for a page that nobody looks at; it goes on when the page is opened again."""
        self.rose.pause()
        super().hideEvent(event)

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document; the rose follows when the hand lets go."""
        if snapshot.plan.id != self._tree_id:
            self._tree_id = snapshot.plan.id
            self.plan.forget_read()
        self.rose.follow(snapshot, dragging=self.store.dragging)
        if not self._there(snapshot):
            self.pick("")
        self.plan.refresh(snapshot)
        self.picked.refresh(snapshot)
        self._list_things(snapshot)
        self.profile.update()
        self.rope.setText(tr("Take the rope off") if snapshot.plan.rope.use == "set" else tr("Set a rope"))
        self._tell()

    def _grown(self) -> None:
        self.plan.update()
        self._tell()

    def _tell(self) -> None:
        if self.plan.dropping:
            self.words.setText(HOW_TO_DRAW)
            return
        spoke = self.rose.at(self.plan.read_deg)
        snapshot = self.store.snapshot
        lacking = lacking_of(snapshot.plan.tree)
        if lacking:
            self.words.setText(
                tr("No bearing is judged before it is measured: {lacking}.", lacking=snapshot.speech.tell(lacking))
            )
            return
        wait = "" if self.rose.done else tr(" <i>({count} of 360 bearings so far)</i>", count=len(self.rose.spokes))
        if self.rose.stale:
            wait = tr(" <i>(as it was before this drag; reckoned anew when you let go)</i>")
        self.words.setText(
            "…"
            if spoke is None
            else unbroken(describe(spoke, self.store.snapshot.job, self.store.snapshot.result.case)) + wait
        )

    def _turn(self) -> None:
        self.plan.turn_to_read()

    # What is on the ground -----------------------------------------------------------------------------

    def _list_things(self, snapshot: Snapshot) -> None:
        if not self.store.dragging:
            self.things.show_things(things_of(snapshot), self.plan.chosen)

    def _ready(self) -> None:
        """Draw with the next click on the plan, or with Enter where the arrow keys aim."""
        self.plan.dropping = self.kinds.currentData() if self.draw.isChecked() else ""
        if self.plan.dropping:
            turn, half_m = math.radians(self.plan.read_deg), self.store.snapshot.shapes.site.length_m / 2
            self.plan.keys.start(half_m * math.sin(turn), half_m * math.cos(turn))
            self.plan.setFocus(Qt.FocusReason.OtherFocusReason)
        self._tell()
        self.plan.update()

    def _lay_aside(self) -> None:
        self.plan.dropping = ""
        self.draw.setChecked(False)
        self._tell()
        self.plan.update()

    def _drop(self, east_m: float, north_m: float) -> None:
        kind, self.plan.dropping = self.plan.dropping, ""
        self.draw.setChecked(False)
        site, at = self.store.snapshot.job.site, Place(east_m, north_m)
        if kind == SPOT:
            if self.store.change(tr("spot height taken"), lambda job: add_spot(job, at)):
                self.pick(f"site.spots.{len(site.spots)}")
        elif self.store.change(tr("{kinds} drawn", kinds=tr(KINDS[kind])), lambda job: add_obstacle(job, kind, at)):
            self.pick(f"site.obstacles.{len(site.obstacles)}")

    def pick(self, path: str) -> None:
        """Show the fields of something on the plan; an empty path shows none."""
        self.plan.chosen = path
        self.picked.show_picked(path)
        self.plan.refresh(self.store.snapshot)
        self._list_things(self.store.snapshot)

    def _there(self, snapshot: Snapshot) -> bool:
        """Whether what is picked is still on the plan."""
        head, _, number = self.plan.chosen.rpartition(".")
        if head.startswith("site."):
            return int(number) < len(snapshot.value(head))
        return not head or self.plan.chosen in WAYS or snapshot.plan.rope.use == "set"

    def _rope(self) -> None:
        """Set a rope, or take it off."""
        store, plan = self.store, self.store.snapshot.plan
        if plan.rope.use == "set":
            store.set("rope.use", "none", tr("rope taken off"))
            return
        rope = initial_rope(plan.rope, plan.at, plan.cut.lay_deg, plan.tree.height_m)
        if store.change(tr("rope set"), lambda job: with_plan(job, store.tree_id, "rope", rope)):
            self.pick("rope.anchor")

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
        """Plan and profile, for copying."""
        return (self.plan.picture(), self.profile.picture())
