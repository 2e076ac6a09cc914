"""What people say of one tree of a block: its state, its season and the wind it may be felled in."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime
from functools import partial

from PySide6.QtWidgets import QWidget

from ....core.base.quantity import Kind
from ....job.block_edits import decided, wind_limited
from ....job.block_progress import marked
from ....job.document import Job
from ....job.language import tr
from ...frame.choice_edit import ChoiceEdit
from ...frame.store import Snapshot, Store
from .line_edits import WordEdit, in_rows

DAYS = {"not_before": tr("not before"), "not_after": tr("not after")}
"""Fields of a tree of the block that hold a day -> their names."""
WIND = tr("wind up to")
"""Name of the field for a limit of wind."""


class StateEdit(ChoiceEdit):
    """The state of the tree that is looked at; when it is said is kept.

    Args:
        told_min: minutes reckoned of a tree, by its id; None where there are none.
    """

    def __init__(self, store: Store, told_min: Callable[[str], float | None]) -> None:
        super().__init__(store, "state")
        self._told_min = told_min

    def _picked(self, index: int) -> None:
        state, id = self.itemData(index), self.store.tree_id
        if state == self.store.snapshot.value(self.path):
            return
        told = self._told_min(id)
        title = f"{id}: {self.itemText(index)}"
        if not self.store.change(title, lambda job: marked(job, id, state, datetime.now(), told), path=self.path):
            self.refresh(self.store.snapshot)


class Decided(QWidget):
    """Of the tree that is picked.

    Args:
        told_min: minutes reckoned of a tree, by its id.
    """

    def __init__(self, store: Store, told_min: Callable[[str], float | None], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.picked = store, ""
        self.state = StateEdit(store, told_min)
        a_day = tr("a day, as 2026-12-01; empty where the season does not matter")
        self.days = {
            key: WordEdit(name, tr("any day"), a_day, partial(self._set_day, key)) for key, name in DAYS.items()
        }
        a_speed = tr("mean wind at the crowns, as 6 m/s; held against the forecast")
        self.wind = WordEdit(WIND, tr("not said"), a_speed, self._set_wind)
        in_rows(self, ((tr("the tree"), self.state), *((DAYS[k], e) for k, e in self.days.items()), (WIND, self.wind)))

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
        return self._set(f"{DAYS[key]} {day or tr('any day')}", lambda job: decided(job, self.picked, key, day))

    def _set_wind(self, typed: str) -> bool:
        return self._set(f"{WIND} {typed or tr('not said')}", lambda job: wind_limited(job, self.picked, typed))

    def _set(self, words: str, how: Callable[[Job], Job]) -> bool:
        if not self.picked:
            return False
        if not self.store.change(f"{self.picked}: {words}", how):
            return False
        self.refresh(self.store.snapshot, self.picked)
        return True
