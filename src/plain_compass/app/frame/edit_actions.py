"""Undo, trees, wedges, view: the commands that change the document or how it is shown."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, Protocol, cast

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QInputDialog

from ...core.base.errors import PlainCompassError
from ...core.judge.unmeasured import lacking_of
from ...job import edits
from ...job.document import Job
from ...job.language import tr
from ...job.units import UNITS
from ...job.words import vocabularies
from .commands import Command
from .desk import Desk
from .field_edit import FieldEdit, to_measure

if TYPE_CHECKING:
    from .practice_dialog import PracticeDialog

MOST_WEDGES = 6
"""More wedges than this round one kerf leave no room to drive them."""


class Suggesting(Protocol):
    """A page that shows suggested designs in place of its drawings."""

    def suggest(self) -> Any:
        """Begin to search, and show what is found."""


class EditActions:
    """What can be done to the document from anywhere in the window."""

    def __init__(self, desk: Desk) -> None:
        self.desk = desk
        self.store = desk.store

    def commands(self) -> list[Command]:
        """All commands of the groups ``edit``, ``tree`` and ``wedge``."""
        store = self.store
        return [
            Command(
                "edit.undo",
                lambda: tr("Undo {undo_title}", undo_title=store.history.undo_title).strip(),
                "Ctrl+Z",
                store.undo,
                lambda: bool(store.history.undo_title),
            ),
            Command(
                "edit.redo",
                lambda: tr("Redo {redo_title}", redo_title=store.history.redo_title).strip(),
                "Ctrl+Shift+Z",
                store.redo,
                lambda: bool(store.history.redo_title),
            ),
            Command("tree.add", tr("Add a tree"), "Ctrl+T", self.add_tree),
            Command("tree.rename", tr("Rename this tree…"), "", self.rename_tree),
            Command(
                "tree.remove", tr("Remove this tree"), "", self.remove_tree, lambda: len(store.snapshot.job.trees) > 1
            ),
            Command("tree.redesign", tr("Begin this cut afresh from the practice"), "Ctrl+R", self.redesign),
            Command("cut.suggest", tr("Suggest…"), "Ctrl+G", self.suggest),
            Command("practice.read", tr("Practices…"), "", self.read_practices),
            Command("wedge.add", tr("Add wedge"), "Alt+W", self.add_wedge, lambda: len(self._seats()) < MOST_WEDGES),
            Command("wedge.remove", tr("Remove wedge"), "Alt+R", self.remove_wedge, lambda: bool(self._seats())),
            Command("wedge.stack", tr("Two on each other"), "Alt+D", self.stack_wedge, lambda: bool(self._seats())),
        ]

    def suggest(self) -> Any:
        """Search the table of cuts for this tree, if there is one to search for."""
        snapshot = self.store.snapshot
        lacking = lacking_of(snapshot.plan.tree)
        if lacking:
            words = snapshot.speech.tell(lacking)
            self.desk.message.refuse(
                tr("No cut is suggested for a tree that is not measured: {words} first.", words=words)
            )
            return None
        self.desk.show_step("cut")
        return cast(Suggesting, self.desk.page).suggest()

    def read_practices(self) -> PracticeDialog:
        """The schools and where they disagree."""
        from .practice_dialog import PracticeDialog

        dialog = PracticeDialog(self.store, self.desk.frame)
        dialog.finished.connect(self.desk.frame.activateWindow)
        dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        dialog.open()
        return dialog

    def _seats(self) -> tuple[object, ...]:
        return self.store.snapshot.plan.cut.wedges

    def _picked_wedge(self) -> int:
        """The wedge whose dimension has the focus, otherwise the last one placed."""
        focused = self.desk.last_field
        if isinstance(focused, FieldEdit) and focused.path.startswith("cut.wedges."):
            return min(int(focused.path.split(".")[2]), len(self._seats()) - 1)
        return len(self._seats()) - 1

    def _edit(self, title: str, change: object, tree_id: str | None = None) -> None:
        assert isinstance(change, Job)
        self.store.edit(title, change, tree_id)

    def add_wedge(self) -> None:
        """One more wedge."""
        self._edit(tr("wedge added"), edits.add_wedge(self.store.snapshot.job, self.store.tree_id))

    def remove_wedge(self) -> None:
        """One wedge less."""
        self._edit(
            tr("wedge removed"), edits.remove_wedge(self.store.snapshot.job, self.store.tree_id, self._picked_wedge())
        )

    def stack_wedge(self) -> None:
        """One wedge in the seat, or two on each other."""
        self._edit(
            tr("wedges on each other"),
            edits.toggle_stacked(self.store.snapshot.job, self.store.tree_id, self._picked_wedge()),
        )

    def add_tree(self) -> None:
        """One more tree, and look at it: what is to be measured first has the keyboard."""
        job, tree_id = edits.add_tree(self.store.snapshot.job)
        self._edit(tr("tree {tree_id} added", tree_id=tree_id), job, tree_id)
        self.desk.show_step("look")
        to_measure(self.desk.frame)

    def ask_name(self) -> str:
        """A new name for the tree; empty for none."""
        name, ok = QInputDialog.getText(
            self.desk.frame, tr("Rename tree"), tr("Name of the tree"), text=self.store.tree_id
        )
        return name if ok else ""

    def rename_tree(self) -> None:
        """Another name for this tree."""
        name = self.ask_name().strip()
        if not name:
            return
        try:
            self._edit(
                tr("tree called {name}", name=name),
                edits.rename_tree(self.store.snapshot.job, self.store.tree_id, name),
                name,
            )
        except PlainCompassError as error:
            self.desk.message.refuse(self.store.snapshot.speech.error(error))

    def remove_tree(self) -> None:
        """This tree out of the job; undo brings it back."""
        gone = self.store.tree_id
        job = edits.remove_tree(self.store.snapshot.job, gone)
        self._edit(tr("tree {gone} removed", gone=gone), job, job.trees[0].id)

    def redesign(self) -> None:
        """The cut begun afresh."""
        self._edit(tr("cut begun afresh"), edits.redesigned(self.store.snapshot.job, self.store.tree_id))

    def next_units(self) -> None:
        """Metric to imperial and back."""
        self._next("units", list(UNITS))

    def next_words(self) -> None:
        """The other vocabulary."""
        self._next("words", list(vocabularies()))

    def _next(self, path: str, options: list[str]) -> None:
        now = self.store.snapshot.value(path)
        then = options[(options.index(now) + 1) % len(options)]
        self.store.set(path, then, f"{path}: {then}")
