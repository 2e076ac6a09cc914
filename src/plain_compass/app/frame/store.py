"""The one document of the window: every change goes through here and is told to every view."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from datetime import datetime
from pathlib import Path
from typing import Any

from PySide6.QtCore import QObject, Signal

from ...core.errors import InputError, PlainCompassError
from ...core.falling.fan import Fan
from ...core.falling.nominal import NominalFall
from ...core.judge_fall import awaiting_fall, with_fall
from ...core.paths import held
from ...core.plan import Assessment
from ...core.survey import Sensitivity, survey
from ...job.disk import JobFileError, content_hash, hash_on_disk, write_atomically
from ...job.document import Job, TreePlan, assess_tree
from ...job.edits import set_value, set_values
from ...job.fields import quantity_at, root_of
from ...job.files import Opened, job_bytes, merged
from ...job.readings import Taken
from ...job.spreads import plan_spreads
from ...job.taking import take
from ...job.words import Speech
from .history import History, State


def now() -> str:
    """The time of a reading, to the second."""
    return datetime.now().isoformat(sep=" ", timespec="seconds")


@dataclass(frozen=True, slots=True, eq=False)
class Snapshot:
    """What every view is told: the document, the tree looked at, and what the numbers say."""

    job: Job
    plan: TreePlan
    result: Assessment
    fall: NominalFall | None = None
    fan: Fan | None = None

    @property
    def speech(self) -> Speech:
        """How to speak to this person."""
        return self.job.speech

    def value(self, path: str) -> Any:
        """The value at a path of the plan or the job."""
        return held(self.plan if root_of(path) is TreePlan else self.job, path)


class ChangedElsewhereError(JobFileError):
    """The job's file is no longer as it was read: another window or program has written it."""


def _assessed(state: State) -> Snapshot:
    result = awaiting_fall(assess_tree(state.job, state.tree_id))
    return Snapshot(state.job, state.job.plan(state.tree_id), result)


class Store(QObject):
    """Holds the document, its undo history and its file.

    Signals:
        changed: a new Snapshot, on every change, drag previews included.
        stepped: the history has a new step, or has moved.
        refused: a sentence saying why a change was not made.
        told: a sentence worth knowing, such as where the job was saved.
        saving: hash of what is about to be written to the job's file.
        saved_whole: the file now has everything; comes before that is told.
    """

    changed = Signal(object)
    stepped = Signal()
    refused = Signal(str)
    told = Signal(str)
    saving = Signal(str)
    saved_whole = Signal()

    def __init__(self, opened: Opened, path: Path | None = None) -> None:
        super().__init__()
        self.path = path
        self.dragging = False
        self._surveyed: tuple[Snapshot, tuple[Sensitivity, ...]] | None = None
        self._begin(opened)

    def _begin(self, opened: Opened) -> None:
        self.raw, self.hash = opened.raw, opened.hash
        self.history = History([State(opened.job, opened.job.trees[0].id)])
        self.saved = opened.job
        self.snapshot = _assessed(self.history.now)

    @property
    def tree_id(self) -> str:
        """Id of the tree looked at."""
        return self.snapshot.plan.id

    def survey(self) -> tuple[Sensitivity, ...]:
        """What is worth measuring better, the most harmful first; some thirty assessments, reckoned once a snapshot."""
        snapshot = self.snapshot
        if self._surveyed is None or self._surveyed[0].result.case is not snapshot.result.case:
            self._surveyed = snapshot, survey(snapshot.result.case, plan_spreads(snapshot.plan))
        return self._surveyed[1]

    @property
    def unsaved(self) -> bool:
        """Whether there is work the file does not have."""
        return self.history.now.job != self.saved

    def replace(self, opened: Opened, path: Path | None) -> None:
        """Put another job in place of this one, as its file has it."""
        self._begin(opened)
        self.path = path
        self._tell_all()

    def take_up(self, opened: Opened, other: Opened | None, path: Path | None, file: Opened | None = None) -> None:
        """Put kept work, or the file it belongs to, in place of this job; the other one stays an undo step.

        Args:
            other: what can be had back with undo; None where there is nothing else.
            file: which of them is what the file has; None means ``other``.
        """
        on_file = file or other
        self._begin(opened)
        self.path, self.saved = path, on_file.job if on_file else Job(name="", trees=())
        self.hash = on_file.hash if on_file else ""
        if other is not None:
            # Fields that only one of the two knows are kept, whichever is gone on with.
            self.raw = merged(other.raw, opened.raw)
            before = State(other.job, other.job.trees[0].id)
            title = "taking the file as it is" if opened is on_file else "bringing back unsaved work"
            self.history = History([before, self.history.now], ["", title], 1)
        self._tell_all()

    def _tell_all(self) -> None:
        self.changed.emit(self.snapshot)
        self.stepped.emit()

    def edit(self, title: str, job: Job, tree_id: str | None = None, *, joins: bool = False) -> bool:
        """Make ``job`` the document, as one named step. False, with a sentence, when it cannot be worked with."""
        if not self._show(State(job, tree_id or self.tree_id)):
            return False
        self.history.push(title, State(job, self.tree_id), joins=joins)
        self.stepped.emit()
        return True

    def change(
        self, title: str, how: Callable[[Job], Job], *, path: str = "", tree_id: str | None = None, joins: bool = False
    ) -> bool:
        """Change the document as one named step. False, with a sentence naming ``path``, when it cannot be done."""
        try:
            job = how(self.snapshot.job)
        except PlainCompassError as error:
            self._refuse(error, path)
            return False
        return self.edit(title, job, tree_id, joins=joins)

    def set(self, path: str, value: Any, title: str, *, joins: bool = False) -> bool:
        """Change one value as one named step."""
        return self.change(title, lambda job: set_value(job, self.tree_id, path, value), path=path, joins=joins)

    def take(self, taken: Taken, title: str, path: str = "") -> bool:
        """Keep a reading with the tree and average it into what it measures, as one named step."""
        return self.change(title, lambda job: take(job, self.tree_id, taken), path=path)

    def preview(self, values: Mapping[str, float]) -> None:
        """Follow a drag: show the values, by path, without a step. What does not fit stays, with a sentence."""
        held_in = {path: min(max(v, quantity_at(path).low), quantity_at(path).high) for path, v in values.items()}
        try:
            job = set_values(self.history.now.job, self.tree_id, held_in)
        except PlainCompassError as error:
            self._refuse(error, next(iter(values)))
            return
        self.dragging = True
        self._show(State(job, self.tree_id))

    def finish(self, title: str) -> None:
        """End a drag: what is shown becomes one step."""
        self.dragging = False
        self.history.push(title, State(self.snapshot.job, self.tree_id))
        self.changed.emit(self.snapshot)
        self.stepped.emit()

    def abandon(self) -> None:
        """End a drag without keeping it."""
        self.dragging = False
        self._show(self.history.now)

    def look_at(self, tree_id: str) -> None:
        """Look at another tree of the job. Not a change, so not a step."""
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
        self._show(self.history.move(-1))
        self.stepped.emit()

    def redo(self) -> None:
        """Do the step taken back again."""
        self._show(self.history.move(1))
        self.stepped.emit()

    def save(self, path: Path, *, over: bool = False, over_read_only: bool = False) -> None:
        """Write the job to its file.

        Args:
            over: whether to write over what somebody else has put there since.
            over_read_only: whether to write over a file that is read-only.

        Raises ChangedElsewhereError, ReadOnlyFileError or JobFileError with a sentence; the document stays as it is.
        """
        job = self.history.now.job
        content = job_bytes(job, self.raw)
        if not over and path == self.path and hash_on_disk(path) not in ("", self.hash):
            raise ChangedElsewhereError(f"{path.name} has been changed by somebody else since it was read here.")
        self.saving.emit(content_hash(content))
        write_atomically(path, content, over_read_only=over_read_only)
        self.path, self.saved, self.hash = path, job, content_hash(content)
        self.saved_whole.emit()
        self._tell_all()
        self.told.emit(f"Saved as {path.name}.")

    def _show(self, state: State) -> bool:
        try:
            self.snapshot = _assessed(state)
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
