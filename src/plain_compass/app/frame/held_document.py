"""The document of the window with its history and its file: opened, taken up, saved, and told to every view."""

from __future__ import annotations

from dataclasses import replace
from functools import cached_property
from pathlib import Path
from typing import Any

from PySide6.QtCore import QObject, Signal

from ...core.assess import FAILED, Assessment, assess, awaiting_fall
from ...core.base.errors import InputError
from ...core.base.frozen import dataclass
from ...core.base.paths import value_at
from ...core.fall.fan import Fan
from ...core.fall.nominal import NominalFall
from ...core.judge.chances import Chances
from ...core.stump.as_cut import stump_as_cut
from ...job.disk import JobFileError, content_hash, hash_on_disk, write_atomically
from ...job.document import Job, TreePlan
from ...job.fields import quantity_at, root_of
from ...job.files import Opened, job_bytes, merged
from ...job.language import tr
from ...job.spreads import judged_before, judged_tree
from ...job.words import Speech
from ..drawing.shapes import Shapes
from .history import History, State


@dataclass(frozen=True, eq=False)
class Snapshot:
    """What every view is told: the document, the tree looked at, and what the numbers say."""

    job: Job
    plan: TreePlan
    result: Assessment
    fall: NominalFall | None = None
    fan: Fan | None = None
    chances: Chances | None = None

    @cached_property
    def shapes(self) -> Shapes:
        """What the drawings show, each made once."""
        return Shapes(self.result)

    @cached_property
    def _read(self) -> tuple[Shapes, str]:
        try:
            return Shapes(assess(stump_as_cut(self.result.case, self.plan.as_cut))), ""
        except InputError as error:
            # The plan was changed after the stump was read: what was read does not fit it any more.
            return self.shapes, self.speech.error(error, quantity_at(error.field).label)

    @property
    def as_cut(self) -> Shapes:
        """What the drawings show of the stump as it was cut; what was not read is as planned."""
        return self._read[0]

    @property
    def as_cut_trouble(self) -> str:
        """Why what was read cannot be shown on this plan, as a sentence; empty where it can."""
        return self._read[1]

    @property
    def fall_failed(self) -> bool:
        """Whether its fall was tried and could not be reckoned."""
        return any(finding.id.startswith(FAILED) for finding in self.result.findings)

    @property
    def speech(self) -> Speech:
        """How to speak to this person."""
        return self.job.speech

    def value(self, path: str) -> Any:
        """The value at a path of the plan or the job."""
        return value_at(self.plan if root_of(path) is TreePlan else self.job, path)


def retold(before: Snapshot, state: State) -> Snapshot | None:
    """What was found before, told of a state that differs only in what was read off the stump, or logged.

    None where anything else is different: then it has to be found anew.
    """
    if any(finding.is_pending for finding in before.result.findings):
        # What is still being reckoned, or was of before a drag, is no answer to be kept.
        return None
    job, plan = state.job, state.job.plan(state.tree_id)
    alike = replace(plan, as_cut=before.plan.as_cut) == before.plan
    if not alike or replace(job, trees=before.job.trees, log=before.job.log) != before.job:
        return None
    if [each for each in job.trees if each is not plan] != [each for each in before.job.trees if each.id != plan.id]:
        return None
    found = replace(before, job=job, plan=plan)
    if "shapes" in vars(before):
        vars(found)["shapes"] = before.shapes
    return found


def found_of(state: State, before: Snapshot, *, dragging: bool) -> Snapshot:
    """What the numbers say of a state: what was found before as far as it still holds."""
    told = retold(before, state)
    if told is not None:
        return told
    return assessed_in_a_drag(state, before.chances) if dragging and before.chances is not None else assessed(state)


class ChangedElsewhereError(JobFileError):
    """The job's file is no longer as it was read: another window or program has written it."""


def assessed(state: State) -> Snapshot:
    """What the numbers say of a state, its fall still to come."""
    result, chances = judged_tree(state.job, state.tree_id)
    return Snapshot(state.job, state.job.plan(state.tree_id), awaiting_fall(result), chances=chances)


def assessed_in_a_drag(state: State, before: Chances) -> Snapshot:
    """The same in a frame of a drag: its limits by the spreads of before it, told as still being reckoned."""
    result = judged_before(state.job, state.tree_id, before)
    return Snapshot(state.job, state.job.plan(state.tree_id), awaiting_fall(result), chances=before)


class HeldDocument(QObject):
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
        self._begin(opened)

    def _begin(self, opened: Opened) -> None:
        self.raw, self.hash = opened.raw, opened.hash
        self.history = History([State(opened.job, opened.job.trees[0].id)])
        self.saved = opened.job
        self.snapshot = assessed(self.history.now)

    @property
    def tree_id(self) -> str:
        """Id of the tree looked at."""
        return self.snapshot.plan.id

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
            title = tr("taking the file as it is") if opened is on_file else tr("bringing back unsaved work")
            self.history = History([before, self.history.now], ["", title], 1)
        self._tell_all()

    def _tell_all(self) -> None:
        self.changed.emit(self.snapshot)
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
            raise ChangedElsewhereError(
                tr("{name} has been changed by somebody else since it was read here.", name=path.name)
            )
        self.saving.emit(content_hash(content))
        write_atomically(path, content, over_read_only=over_read_only)
        self.path, self.saved, self.hash = path, job, content_hash(content)
        self.saved_whole.emit()
        self._tell_all()
        self.told.emit(tr("Saved as {name}.", name=path.name))
