"""The page of the Stump step: the stump as cut beside the ground it lies on, and why."""

from __future__ import annotations

from PySide6.QtCore import QPointF
from PySide6.QtGui import QHideEvent, QShowEvent
from PySide6.QtWidgets import QHBoxLayout, QSizePolicy, QVBoxLayout, QWidget

from ....core.judge.findings import Finding
from ....job.stump_edits import read_count
from ...drawing.palette import font
from ...frame.commands import Commands
from ...frame.page import Picture
from ...frame.plain_label import PlainLabel
from ...frame.round_view import RoundView
from ...frame.store import Snapshot, Store
from .views import AsCutSide, AsCutView, LieView
from .why_view import WhyView
from .why_watch import WhyWatch


class StumpPage(QWidget):
    """Read the stump, and see why it lies there."""

    def __init__(self, store: Store, commands: Commands, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.watch = WhyWatch(store)
        self.plan, self.side, self.lie = AsCutView(store, self), AsCutSide(store, self), LieView(store, self)
        self.plan.setAccessibleName("Stump as it was cut, from above")
        self.side.setAccessibleName("Stump as it was cut, from its right side")
        self.lie.setAccessibleName("Where the tree lies")
        self.round = RoundView(store, lambda: store.snapshot.as_cut.solid, self)
        self.why = WhyView(store, self.watch, self)
        self.state = PlainLabel()
        self.state.setFont(font(13))
        self._compose(commands)
        self.watch.told.connect(lambda: self.why.refresh(self.store.snapshot))

    def _compose(self, commands: Commands) -> None:
        tools = QHBoxLayout()
        tools.setContentsMargins(10, 4, 10, 4)
        for name in ("stump.planned", "stump.mark", "stump.unread"):
            tools.addWidget(commands.button(name))
        tools.addWidget(self.state, 1)
        left, right, lower = QVBoxLayout(), QVBoxLayout(), QHBoxLayout()
        left.addWidget(self.plan, 54)
        left.addWidget(self.why, 46)
        lower.addWidget(self.side, 1)
        lower.addWidget(self.round, 1)
        right.addWidget(self.lie, 58)
        right.addLayout(lower, 42)
        drawings = QHBoxLayout()
        for layout in (left, right, lower, drawings):
            layout.setSpacing(1)
        drawings.addLayout(left, 1)
        drawings.addLayout(right, 1)
        for view in (self.plan, self.side, self.lie, self.round, self.why):
            view.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addLayout(tools)
        whole.addLayout(drawings, 1)

    def showEvent(self, event: QShowEvent) -> None:
        """What is looked at is reckoned."""
        self.watch.in_sight = True
        super().showEvent(event)
        self.watch.follow(self.store.snapshot)

    def hideEvent(self, event: QHideEvent) -> None:
        """Nothing is reckoned for a page that nobody looks at."""
        self.watch.in_sight = False
        super().hideEvent(event)

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document."""
        for view in (self.plan, self.side, self.lie):
            view.refresh(snapshot)
        self.round.follow()
        self.why.refresh(snapshot)
        read, all_ = read_count(snapshot.plan.as_cut)
        trouble = snapshot.as_cut_trouble
        standing = "still stands" if snapshot.plan.state == "standing" else "down"
        self.state.setText(trouble or f"{standing} · {read} of {all_} read")

    def bring_out(self, finding: Finding) -> None:
        """Bring out what a finding is about."""
        for view in (self.plan, self.side):
            view.mark = finding.mark
            view.update()

    def fit(self) -> None:
        """Back to the whole of every drawing."""
        for view in (self.plan, self.side, self.lie):
            view.fit()

    def zoom(self, factor: float) -> None:
        """The drawing that has the keyboard nearer or further, else the stump."""
        view = next((each for each in (self.lie, self.side) if each.hasFocus()), self.plan)
        view.zoom_about(QPointF(view.rect().center()), factor)

    def pictures(self) -> tuple[Picture, ...]:
        """The drawings, for copying."""
        return self.plan.picture(), self.lie.picture(), self.side.picture(), self.round.picture()
