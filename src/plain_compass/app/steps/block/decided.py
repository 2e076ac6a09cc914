"""What people say of a block and of one tree of it: its days, a tree's state, season and wind."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from functools import partial

from PySide6.QtWidgets import QGridLayout, QWidget

from ....core.base.quantity import Kind
from ....job.block_edits import begun, decided, wind_limited, worked
from ....job.document import Job
from ...drawing.palette import font
from ...frame.choice_edit import ChoiceEdit
from ...frame.plain_label import PlainLabel
from ...frame.store import Snapshot, Store
from ...frame.text_edit import LineEdit

DAYS = {"not_before": "not before", "not_after": "not after"}
"""Fields of a tree of the block that hold a day -> their names."""
WIND = "wind up to"
"""Name of the field for a limit of wind."""


class WordEdit(LineEdit):
    """A day, hours or a limit as they are typed.

    Args:
        name: what it is; empty: what stands there where nothing is said; accepted: what may be typed.
        keep: takes what was typed in and shows it again.
    """

    def __init__(self, name: str, empty: str, accepted: str, keep: Callable[[str], bool]) -> None:
        super().__init__()
        self._keep = keep
        self.setAccessibleName(name)
        self.setPlaceholderText(empty)
        self.setToolTip(f"{name}: {accepted}")

    def take(self, text: str) -> bool:
        """As whoever made it wants it."""
        return self._keep(text)


class OfAll(QWidget):
    """What is said of the whole block: when it begins and how long a day is."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        began, hours = "first day", "hours a day"
        accepted = "hours of work, breaks left out, as 6 or 7.5"
        self.begins = WordEdit(
            began, "today", "a day, as 2026-12-01; empty for today", partial(self._set, began, begun)
        )
        self.hours = WordEdit(hours, "6", accepted, partial(self._set, hours, worked))
        _in_rows(self, ((began, self.begins), (hours, self.hours)))

    def refresh(self, snapshot: Snapshot) -> None:
        """Show the job's."""
        self.begins.show_kept(snapshot.job.block.begins)
        self.hours.show_kept(f"{snapshot.job.block.day_s / 3600:g}")

    def _set(self, name: str, how: Callable[[Job, str], Job], typed: str) -> bool:
        if not self.store.change(f"{name} {typed or 'not said'}", lambda job: how(job, typed)):
            return False
        self.refresh(self.store.snapshot)
        return True


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
        self.days = {key: WordEdit(name, "any day", a_day, partial(self._set_day, key)) for key, name in DAYS.items()}
        a_speed = "mean wind at the crowns, as 6 m/s; held against the forecast"
        self.wind = WordEdit(WIND, "not said", a_speed, self._set_wind)
        _in_rows(self, (("the tree", self.state), *((DAYS[k], e) for k, e in self.days.items()), (WIND, self.wind)))

    def refresh(self, snapshot: Snapshot, picked: str) -> None:
        """Show one tree; none where none is picked."""
        anew, self.picked = picked != self.picked, picked
        self.setVisible(bool(picked))
        if not picked:
            return
        self.state.refresh(snapshot)
        of_tree = snapshot.job.block.of(picked)
        for key, edit in self.days.items():
            edit.show_kept(getattr(of_tree, key), anew=anew)
        limit = of_tree.wind_m_s
        self.wind.show_kept("" if limit is None else snapshot.speech.show(limit, Kind.SPEED), anew=anew)

    def _set_day(self, key: str, day: str) -> bool:
        return self._set(f"{DAYS[key]} {day or 'any day'}", lambda job: decided(job, self.picked, key, day))

    def _set_wind(self, typed: str) -> bool:
        return self._set(f"{WIND} {typed or 'not said'}", lambda job: wind_limited(job, self.picked, typed))

    def _set(self, words: str, how: Callable[[Job], Job]) -> bool:
        if not self.picked:
            return False
        if not self.store.change(f"{self.picked}: {words}", how):
            return False
        self.refresh(self.store.snapshot, self.picked)
        return True
