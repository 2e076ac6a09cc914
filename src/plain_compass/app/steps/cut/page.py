"""The page of the Cut step: choosers above, the two drawings below."""

from __future__ import annotations

from PySide6.QtCore import QPointF
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QSizePolicy, QStackedWidget, QVBoxLayout, QWidget

from ....core.cuts import PARTS
from ....core.judge.findings import Finding
from ....job.language import tr
from ...frame.commands import Commands
from ...frame.page import Picture
from ...frame.round_view import RoundView
from ...frame.store import Snapshot, Store
from .details import Details
from .form_choice import FormChoice
from .suggestions import Suggestions
from .views import PlanView, SideView, TapeView


class CutPage(QWidget):
    """Shape the cut on the stump."""

    def __init__(self, store: Store, commands: Commands, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.plan = PlanView(store, self)
        self.side = SideView(store, self)
        self.side.plan, self.plan.side = self.plan, self.side
        self.plan.setAccessibleName(tr("Stump from above"))
        self.side.setAccessibleName(tr("Stump from its right side"))
        self.choices = [FormChoice(store, part, self) for part in PARTS]
        self.details = Details(store, self)
        tools = QHBoxLayout()
        tools.setContentsMargins(10, 6, 10, 4)
        for choice in self.choices:
            choice.setMinimumWidth(96)
            tools.addWidget(choice, 1)
        tools.addWidget(commands.button("cut.suggest"))
        self.more = more = QHBoxLayout()
        more.setContentsMargins(0, 0, 10, 2)
        more.addStretch()
        self.wedge_buttons = [commands.button(name) for name in ("wedge.add", "wedge.remove", "wedge.stack")]
        for button in self.wedge_buttons:
            more.addWidget(button)
        drawings = QHBoxLayout()
        drawings.setSpacing(1)
        self.tape = TapeView(store, self)
        self.round = RoundView(store, lambda: store.snapshot.shapes.solid, self)
        left, right = QVBoxLayout(), QVBoxLayout()
        left.addWidget(self.plan, 1)
        left.addWidget(self.tape)
        right.addWidget(self.round, 31)
        right.addWidget(self.side, 69)
        for column, share in ((left, 55), (right, 45)):
            column.setSpacing(1)
            drawings.addLayout(column, share)
        for view in (self.plan, self.side, self.round):
            view.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)
        self.whole = whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addLayout(tools)
        whole.addLayout(more)
        whole.addWidget(self.details)
        self.stack = QStackedWidget()
        sheet = QWidget()
        drawings.setContentsMargins(0, 0, 0, 0)
        sheet.setLayout(drawings)
        self.stack.addWidget(sheet)
        whole.addWidget(self.stack, 1)
        self.suggestions: Suggestions | None = None

    def suggest(self) -> Suggestions:
        """Suggested designs in place of the drawings, until one is taken over or the cut is left as it is."""
        self.leave_suggestions()
        found = self.suggestions = Suggestions(self.store, self)
        found.finished.connect(self.leave_suggestions)
        self.stack.addWidget(found)
        self.stack.setCurrentWidget(found)
        found.setFocus()
        return found

    def leave_suggestions(self) -> None:
        """Back to the drawings."""
        left, self.suggestions = self.suggestions, None
        if left is not None:
            left.cancelled = True
            self.stack.setCurrentIndex(0)
            self.stack.removeWidget(left)
            left.deleteLater()

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document: the plan first, since it sets the scale of both."""
        if self.suggestions is not None and self.suggestions.about != snapshot.result.case:
            # Designs of another plan are no answer any more.
            self.leave_suggestions()
        self.plan.refresh(snapshot)
        self.side.refresh(snapshot)
        self.tape.refresh(snapshot)
        self.round.follow()
        for choice in self.choices:
            choice.refresh(snapshot)
        if self.details.refresh(snapshot):
            self._place_details()

    def resizeEvent(self, event: QResizeEvent) -> None:
        """The numbers that only some forms have, where there is room for them now."""
        super().resizeEvent(event)
        self._place_details()

    def _place_details(self) -> None:
        """Beside what is done with wedges where there is room, else in a row of their own: rows cost the drawings."""
        buttons = sum(button.sizeHint().width() + self.more.spacing() for button in self.wedge_buttons)
        beside = self.details.sizeHint().width() + buttons <= self.width() - self.more.contentsMargins().right()
        if beside != (self.more.indexOf(self.details) == 0):
            self.whole.removeWidget(self.details)
            self.more.removeWidget(self.details)
            self.more.insertWidget(0, self.details) if beside else self.whole.insertWidget(2, self.details)

    def bring_out(self, finding: Finding) -> None:
        """Bring out what a finding is about."""
        for view in (self.plan, self.side):
            view.mark = finding.mark
            view.update()

    def fit(self) -> None:
        """Back to the whole of both drawings."""
        self.plan.fit()
        self.side.fit()

    def zoom(self, factor: float) -> None:
        """Both drawings nearer or further: they keep one scale."""
        for view in (self.plan, self.side):
            view.zoom_about(QPointF(view.rect().center()), factor)

    def pictures(self) -> tuple[Picture, ...]:
        """The drawings, for copying."""
        return self.plan.picture(), self.side.picture(), self.round.picture()
