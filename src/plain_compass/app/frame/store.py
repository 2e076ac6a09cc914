"""The one document of the window: every change goes through here and is told to every view."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import replace
from datetime import datetime
from pathlib import Path
from typing import Any

from ...core.advice.mend import Mend
from ...core.assess import awaiting_fall, with_fall
from ...core.base.errors import InputError, PlainCompassError
from ...core.fall.fan import Fan
from ...core.fall.nominal import NominalFall
from ...core.judge.findings import Finding
from ...job.document import Job
from ...job.edits import mended, set_value, set_values, tick
from ...job.fields import quantity_at
from ...job.files import Opened
from ...job.language import tr
from ...job.readings import Taken
from ...job.taking import record_reading
from .held_document import ChangedElsewhereError, HeldDocument, Snapshot, found_of
from .history import State

__all__ = ["ChangedElsewhereError", "Snapshot", "Store", "now"]


def now() -> str:
    """The time of a reading, to the second."""
    return datetime.now().isoformat(sep=" ", timespec="seconds")


class Store(HeldDocument):
    """Changes the held document: named steps, drags, undo."""

    def __init__(self, opened: Opened, path: Path | None = None) -> None:
        super().__init__(opened, path)
        self.dragging = self.previewing = False

    def edit(self, title: str, job: Job, tree_id: str | None = None, *, joins: bool = False) -> bool:
        """Make ``job`` the document, as one named step. False, with a sentence, when it cannot be worked with."""
        self.end_look()
        if not self._show(State(job, tree_id or self.tree_id)):
            return False
        self.history.push(title, State(job, self.tree_id), joins=joins)
        self.stepped.emit()
        return True

    def change(
        self, title: str, how: Callable[[Job], Job], *, path: str = "", tree_id: str | None = None, joins: bool = False
    ) -> bool:
        """Change the document as one named step. False, with a sentence naming ``path``, when it cannot be done."""
        self.end_look()
        try:
            job = how(self.snapshot.job)
        except PlainCompassError as error:
            self._refuse(error, path)
            return False
        return self.edit(title, job, tree_id, joins=joins)

    def set(self, path: str, value: Any, title: str, *, joins: bool = False) -> bool:
        """Change one value as one named step."""
        return self.change(title, lambda job: set_value(job, self.tree_id, path, value), path=path, joins=joins)

    def record_reading(self, taken: Taken, title: str, path: str = "") -> bool:
        """Keep a reading with the tree and average it into what it measures, as one named step."""
        return self.change(title, lambda job: record_reading(job, self.tree_id, taken), path=path)

    def preview(self, values: Mapping[str, float]) -> None:
        """Follow a drag: show the values, by path, without a step. What does not fit stays, with a sentence."""
        self.end_look()
        held_in = {path: min(max(v, quantity_at(path).low), quantity_at(path).high) for path, v in values.items()}
        try:
            job = set_values(self.history.now.job, self.tree_id, held_in)
        except PlainCompassError as error:
            self._refuse(error, next(iter(values)))
            return
        self.dragging = True
        self._show(State(job, self.tree_id))

    def look_ahead(self, mend: Mend) -> None:
        """Show the plan as a mend would have it, until ``end_look``: no step, and nothing of it is kept."""
        job = mended(self.history.now.job, self.tree_id, mend)
        self.previewing = True
        if not self._show(State(job, self.tree_id)):
            self.previewing = False

    def end_look(self) -> None:
        """Show the document as it is again."""
        if self.previewing:
            self.previewing = False
            self._show(self.history.now)

    def take_mend(self, mend: Mend) -> None:
        """Take a mend over, as one named step."""
        tree_id, title = self.tree_id, self.snapshot.speech.tell(mend.words).rstrip(".")
        self.change(title, lambda job: mended(job, tree_id, mend))

    def tick(self, duty: Finding) -> None:
        """Tick a duty as done, by who works here and at this time, or take the tick back; one named step."""
        tree_id, who = self.tree_id, self.snapshot.job.person.name
        title = tr("duty taken back") if duty.done is not None else tr("duty done")
        self.change(title, lambda job: tick(job, tree_id, duty, who, now()))

    def finish(self, title: str) -> None:
        """End a drag: what is shown becomes one step."""
        self.dragging = False
        state = State(self.snapshot.job, self.tree_id)
        self.history.push(title, state)
        self._show(state)
        self.stepped.emit()

    def abandon(self) -> None:
        """End a drag without keeping it."""
        self.dragging = False
        self._show(self.history.now)

    def look_at(self, tree_id: str) -> None:
        """Look at another tree of the job. Not a change, so not a step."""
        self.end_look()
        state = State(self.snapshot.job, tree_id)
        if self._show(state):
            self.history.states[self.history.at] = state

    def take_fall(self, fall: NominalFall, fan: Fan) -> None:
        """Add what was reckoned of the fall to what every view is told. Not a change of the document."""
        now = self.snapshot
        self.snapshot = replace(now, result=with_fall(now.result, fall, fan), fall=fall, fan=fan)
        self.changed.emit(self.snapshot)

    def miss_fall(self) -> None:
        """The fall of this plan cannot be reckoned: every view is told, and nothing of it is shown as clear."""
        self.snapshot = replace(self.snapshot, result=awaiting_fall(self.snapshot.result, failed=True))
        self.changed.emit(self.snapshot)

    def undo(self) -> None:
        """Take back the last step."""
        self.previewing = False
        self._show(self.history.move(-1))
        self.stepped.emit()

    def redo(self) -> None:
        """Do the step taken back again."""
        self.previewing = False
        self._show(self.history.move(1))
        self.stepped.emit()

    def go_to(self, at: int) -> None:
        """Back, or forward again, to one of the steps so far, counted from the beginning."""
        self.previewing = False
        self._show(self.history.move(at - self.history.at))
        self.stepped.emit()

    def _show(self, state: State) -> bool:
        try:
            self.snapshot = found_of(state, self.snapshot, dragging=self.dragging)
        except PlainCompassError as error:
            self._refuse(error, "")
            return False
        self.changed.emit(self.snapshot)
        return True

    def _refuse(self, error: PlainCompassError, path: str) -> None:
        label = ""
        if isinstance(error, InputError):
            try:
                label = quantity_at(error.field if "." in error.field else path).label
            except (KeyError, AssertionError, StopIteration):
                label = ""
        self.refused.emit(self.snapshot.speech.error(error, label))
