"""What people say of a block and of one tree of it: its days, a tree's state, season and wind."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QGridLayout, QLineEdit, QWidget

from ....core.base.quantity import Kind
from ....job.block_edits import begun, decided, wind_limited, worked
from ....job.document import Job
from ...drawing.palette import font
from ...frame.choice_edit import ChoiceEdit
from ...frame.plain_label import PlainLabel
from ...frame.store import Snapshot, Store

DAYS = {"not_before": "not before", "not_after": "not after"}
"""Fields of a tree of the block that hold a day -> their names."""
WIND = "wind up to"
"""Name of the field for a limit of wind."""


class WordEdit(QLineEdit):
    """A day or a limit as it is typed; Escape restores it."""

    def __init__(self, name: str, empty: str, accepted: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.kept = ""
        self.setFont(font(14))
        self.setAccessibleName(name)
        self.setPlaceholderText(empty)
        self.setToolTip(f"{name}: {accepted}")

    def show_kept(self, words: str) -> None:
        """Show what is kept."""
        if words != self.kept or not self.hasFocus():
            self.kept = words
            self.setText(words)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Escape restores."""
        if event.key() == Qt.Key.Key_Escape:
            self.setText(self.kept)
            return
        super().keyPressEvent(event)


class OfAll(QWidget):
    """What is said of the whole block: when it begins and how long a day is."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.begins = WordEdit("first day", "today", "a day, as 2026-12-01; empty for today")
        self.hours = WordEdit("hours a day", "6", "hours of work, breaks left out, as 6 or 7.5")
        _in_rows(self, (("first day", self.begins), ("hours a day", self.hours)))
        self.begins.editingFinished.connect(partial(self._set, self.begins, begun))
        self.hours.editingFinished.connect(partial(self._set, self.hours, worked))

    def refresh(self, snapshot: Snapshot) -> None:
        """Show the job's."""
        self.begins.show_kept(snapshot.job.block.begins)
        self.hours.show_kept(f"{snapshot.job.block.day_s / 3600:g}")

    def _set(self, edit: WordEdit, how: Callable[[Job, str], Job]) -> None:
        """Take it in; what cannot be taken stays, with a sentence."""
        typed = edit.text().strip()
        if typed != edit.kept and self.store.change(
            f"{edit.accessibleName()} {typed or 'not said'}", lambda job: how(job, typed)
        ):
            edit.kept = ""
            self.refresh(self.store.snapshot)


def _in_rows(widget: QWidget, asked: Iterable[tuple[str, QWidget]]) -> None:
    """Names and fields below one another."""
    grid = QGridLayout(widget)
    grid.setContentsMargins(10, 4, 6, 4)
    grid.setSpacing(3)
    for row, (name, edit) in enumerate(asked):
        label = PlainLabel(name)
        label.setFont(font(13))
        grid.addWidget(label, row, 0)
        grid.addWidget(edit, row, 1)


class Decided(QWidget):
    """Of the tree that is picked."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.picked = store, ""
        self.state = ChoiceEdit(store, "state")
        a_day = "a day, as 2026-12-01; empty where the season does not matter"
        self.days = {key: WordEdit(name, "any day", a_day) for key, name in DAYS.items()}
        self.wind = WordEdit(WIND, "not said", "mean wind at the crowns, as 6 m/s; held against the forecast")
        asked = (("the tree", self.state), *zip(DAYS.values(), self.days.values(), strict=True), (WIND, self.wind))
        _in_rows(self, asked)
        for key, edit in self.days.items():
            edit.editingFinished.connect(partial(self._set, key))
        self.wind.editingFinished.connect(self._set_wind)

    def refresh(self, snapshot: Snapshot, picked: str) -> None:
        """Show one tree; none where none is picked."""
        self.picked = picked
        self.setVisible(bool(picked))
        if not picked:
            return
        self.state.refresh(snapshot)
        of_tree = snapshot.job.block.of(picked)
        for key, edit in self.days.items():
            edit.show_kept(getattr(of_tree, key))
        limit = of_tree.wind_m_s
        self.wind.show_kept("" if limit is None else snapshot.speech.show(limit, Kind.SPEED))

    def _set(self, key: str) -> None:
        """Take a day in; what is none stays, with a sentence."""
        edit, picked = self.days[key], self.picked
        day = edit.text().strip()
        if not picked or day == edit.kept:
            return
        title = f"{picked}: {DAYS[key]} {day or 'any day'}"
        if self.store.change(title, lambda job: decided(job, picked, key, day)):
            edit.kept = day

    def _set_wind(self) -> None:
        """Take the limit in; what is no speed stays, with a sentence."""
        picked, typed = self.picked, self.wind.text().strip()
        if not picked or typed == self.wind.kept:
            return
        title = f"{picked}: {WIND} {typed or 'not said'}"
        if self.store.change(title, lambda job: wind_limited(job, picked, typed)):
            self.wind.kept = ""
            self.refresh(self.store.snapshot, picked)
