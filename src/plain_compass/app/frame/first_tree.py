"""The guide to a first tree, beside the real window: it notices what was done, and can be closed for good."""

from __future__ import annotations

from PySide6.QtWidgets import QFrame, QHBoxLayout, QVBoxLayout, QWidget

from ...job.first_tree import STEPS, Progress, next_step, words_of
from ...job.language import tr
from ..drawing.palette import font
from .commands import Commands
from .fitted_button import FittedButton
from .plain_label import PlainLabel
from .settings import Settings
from .store import Snapshot, Store

SETTING, CLOSED = "first_tree", "closed"
"""Where it is remembered that the guide is not wanted any more."""


class FirstTree(QFrame):
    """Shown once, until it is done or closed; found again by its command."""

    def __init__(self, store: Store, settings: Settings, commands: Commands, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.settings, self.commands = store, settings, commands
        self.setObjectName("guide")
        self.setAccessibleName(tr("First tree"))
        self._there: frozenset[str] = frozenset()
        self._seen: frozenset[str] = frozenset()
        self.at: int | None = 0
        self.title, self.words = PlainLabel(), PlainLabel()
        self.title.setFont(font(14, strong=True))
        self.words.setFont(font(14))
        self.words.setWordWrap(True)
        self.words.setAccessibleName(tr("What to do next"))
        self.lead, self.end = FittedButton(), FittedButton()
        self.lead.setText(tr("Take me there"))
        self.lead.clicked.connect(lambda _=False: self._go())
        self.end.setText(tr("Close for good"))
        self.end.clicked.connect(lambda _=False: self.close_for_good())
        for button in (self.lead, self.end):
            button.setProperty("framed", True)
        row = QHBoxLayout()
        row.addWidget(self.lead)
        row.addStretch()
        row.addWidget(self.end)
        column = QVBoxLayout(self)
        column.setContentsMargins(12, 8, 12, 8)
        column.addWidget(self.title)
        column.addWidget(self.words)
        column.addLayout(row)
        self.hide()

    def offer(self) -> None:
        """Begin, unless it was closed for good."""
        if self.settings.text(SETTING, "") != CLOSED:
            self.begin()

    def begin(self) -> None:
        """From the beginning."""
        self._there = frozenset(plan.id for plan in self.store.snapshot.job.trees)
        self._seen = frozenset()
        self.show()
        self.refresh(self.store.snapshot, "")

    def close_for_good(self) -> None:
        """Not to be shown by itself again."""
        self.settings.remember(SETTING, CLOSED)
        self.hide()

    def refresh(self, snapshot: Snapshot, step: str) -> None:
        """Notice what was done; ``step`` is the one that is open."""
        if self.isHidden() or self.store.dragging:
            return
        is_own = snapshot.plan.id not in self._there
        if is_own and step:
            self._seen |= {step}
        ground_looked = snapshot.job.site.looked == "yes"
        progress = Progress(snapshot.plan, snapshot.result, ground_looked, is_own, self._seen)
        self.at = next_step(progress)
        if self.at is None:
            self.title.setText(tr("First tree: done"))
            self.words.setText(tr("You have planned a tree from the first measurement to its card."))
            self.lead.hide()
            return
        self.lead.show()
        self.title.setText(tr("First tree: {at} of {count}", at=self.at + 1, count=len(STEPS)))
        self.words.setText(snapshot.speech.phrase(words_of(STEPS[self.at], progress)))

    def _go(self) -> None:
        if self.at is not None:
            self.commands.run(STEPS[self.at].command)
