"""The page of the Stump step: the stump as cut beside the ground it lies on, and why."""

from __future__ import annotations

from collections.abc import Callable
from typing import Protocol, cast

from PySide6.QtCore import QPointF
from PySide6.QtGui import QHideEvent, QShowEvent
from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QSizePolicy, QStackedWidget, QToolButton, QVBoxLayout, QWidget

from ....core.judge.findings import Finding
from ....job.language import tr
from ....job.log_entries import is_in_log
from ....job.stump_edits import read_count
from ...drawing.palette import font
from ...frame.commands import Commands
from ...frame.fitted_button import FittedButton
from ...frame.log_book import LogBook
from ...frame.page import Picture
from ...frame.plain_label import PlainLabel
from ...frame.round_view import RoundView
from ...frame.store import Snapshot, Store
from .days import DaysPage
from .views import AsCutSide, AsCutView, LieView
from .why_view import WhyView
from .why_watch import WhyWatch
from .yours import YoursPage

MODES = {"stump": tr("This stump"), "yours": tr("Yours"), "days": tr("Day and year")}
"""What the page shows."""

STATE_PX = 130
"""Least width of the line that says how far it is."""


class StumpPage(QWidget):
    """Read the stump, and see why it lies there."""

    def __init__(
        self, store: Store, commands: Commands, book: LogBook, dress: Callable[[QWidget], None], parent: QWidget
    ) -> None:
        super().__init__(parent)
        self.store, self.commands, self.book, self._dress = store, commands, book, dress
        self.watch = WhyWatch(store)
        self.watch.setParent(self)
        self.plan, self.side, self.lie = AsCutView(store, self), AsCutSide(store, self), LieView(store, self)
        self.plan.setAccessibleName(tr("Stump as it was cut, from above"))
        self.side.setAccessibleName(tr("Stump as it was cut, from its right side"))
        self.lie.setAccessibleName(tr("Where the tree lies"))
        self.round = RoundView(store, lambda: store.snapshot.as_cut.solid, self)
        self.why = WhyView(store, self.watch, self)
        self.mode = "stump"
        self.modes: dict[str, QToolButton] = {}
        self.parts: dict[str, YoursPage | DaysPage] = {}
        self.state = PlainLabel()
        self.state.setFont(font(13))
        self.state.setWordWrap(True)
        self.state.setMinimumWidth(STATE_PX)
        self.state.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        self._compose(commands)
        self.watch.told.connect(lambda: self.why.refresh(self.store.snapshot))

    def _compose(self, commands: Commands) -> None:
        tools = QHBoxLayout()
        tools.setContentsMargins(10, 4, 10, 4)
        for button in self._modes():
            tools.addWidget(button)
        tools.addWidget(self.state, 1)
        for name in ("stump.planned", "stump.mark", "stump.log"):
            tools.addWidget(commands.button(name))
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
        stump = QWidget()
        stump.setLayout(drawings)
        drawings.setContentsMargins(0, 0, 0, 0)
        self.stack = QStackedWidget()
        self.stack.addWidget(stump)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addLayout(tools)
        whole.addWidget(self.stack, 1)

    def _modes(self) -> list[FittedButton]:
        """Buttons of what is shown: this stump, what is known of one's hand, day and year."""
        group, found = QButtonGroup(self), []
        for key, words in MODES.items():
            button = FittedButton()
            button.setText(words)
            button.setObjectName(f"stump:{key}")
            button.setCheckable(True)
            button.setProperty("tab", True)
            button.clicked.connect(lambda _=False, k=key: self.show_mode(k))
            group.addButton(button)
            found.append(button)
            self.modes[key] = button
        return found

    def show_mode(self, key: str) -> None:
        """Show one of them."""
        self.modes[key].setChecked(True)
        self.mode = key
        self.stack.setCurrentWidget(self._part(key))
        self.refresh(self.store.snapshot)

    def _part(self, key: str) -> QWidget:
        """The widget of a mode, made when it is first wanted."""
        if key == "stump":
            first = self.stack.widget(0)
            assert first is not None
            return first
        if key not in self.parts:
            made: YoursPage | DaysPage = (
                YoursPage(self.store, self.book, self)
                if key == "yours"
                else DaysPage(self.store, self.book, self.commands, self)
            )
            self.parts[key] = made
            self.stack.addWidget(made)
            self._dress(made)
        return self.parts[key]

    def showEvent(self, event: QShowEvent) -> None:
        """What is looked at is reckoned."""
        self.watch.in_sight = True
        super().showEvent(event)
        self.watch.follow(self.store.snapshot)

    def hideEvent(self, event: QHideEvent) -> None:
        """Nothing is reckoned for a page that nobody looks at."""
        self.watch.pause()
        super().hideEvent(event)

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document."""
        if self.mode != "stump":
            self.parts[self.mode].refresh(snapshot)
            self.state.setText("")
            return
        for view in (self.plan, self.side, self.lie):
            view.refresh(snapshot)
        self.round.follow()
        self.why.refresh(snapshot)
        self.state.setText(snapshot.as_cut_trouble or self._state(snapshot))

    @staticmethod
    def _state(snapshot: Snapshot) -> str:
        """How far it is read, and whether the log has it."""
        plan = snapshot.plan
        read, all_ = read_count(plan.as_cut)
        standing = tr("still stands · ") if plan.state == "standing" else ""
        logged = tr(" · in the log") if is_in_log(snapshot.job, plan.id) else ""
        return tr("{standing}{read} of {all} read{logged}", standing=standing, read=read, all=all_, logged=logged)

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
        if self.mode != "stump":
            return self.parts[self.mode].pictures()
        return self.plan.picture(), self.lie.picture(), self.side.picture(), self.round.picture()


class Holder(Protocol):
    """What holds the page: it has the log, and dresses what is made later."""

    book: LogBook

    def dress(self, whole: QWidget) -> None:
        """Hand the scheme's colours to everything that paints itself."""


def stump_page(store: Store, commands: Commands, parent: QWidget) -> StumpPage:
    """The page in its window."""
    holder = cast(Holder, parent)
    return StumpPage(store, commands, holder.book, holder.dress, parent)
