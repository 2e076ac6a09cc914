"""New, open, save: the commands about the job file, and what happens on closing."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFileDialog, QMessageBox

from ...core.base.errors import PlainCompassError
from ...job.demo import demo_coupe, demo_job
from ...job.disk import ReadOnlyFileError, beside, file_name
from ...job.document import SUFFIX, Job
from ...job.edits import new_job
from ...job.files import Opened, read_job
from ...job.language import tr
from .commands import Command
from .desk import Desk
from .field_edit import to_measure
from .kept_work import KeptWork
from .store import ChangedElsewhereError

FILTER = tr("Plain Compass jobs (*{suffix});;All files (*)", suffix=SUFFIX)


class JobActions:
    """The job file's side of the window. Dialogs are methods, so that tests can answer them."""

    def __init__(self, desk: Desk, kept: KeptWork) -> None:
        self.desk, self.kept = desk, kept

    def commands(self) -> list[Command]:
        """The commands of the group ``job``."""
        return [
            Command("job.new", tr("New job"), "Ctrl+N", self.new),
            Command("job.open", tr("Open job…"), "Ctrl+O", self.open),
            Command("job.demo", tr("Open the demo job"), "", self.demo),
            Command("job.coupe", tr("Open the demo's coupe"), "", self.coupe),
            Command("job.save", tr("Save"), "Ctrl+S", self.save),
            Command("job.save_as", tr("Save as…"), "Ctrl+Shift+S", self.save_as),
            Command("job.quit", tr("Quit"), "Ctrl+Q", self.desk.close),
        ]

    # Dialogs -------------------------------------------------------------------------------------------

    def ask_open(self) -> str:
        """Which file to open; empty for none."""
        return QFileDialog.getOpenFileName(self.desk.frame, tr("Open job"), self._folder(), FILTER)[0]

    def ask_save(self, suggestion: str) -> str:
        """Where to save; empty for nowhere."""
        return QFileDialog.getSaveFileName(
            self.desk.frame, tr("Save job as"), f"{self._folder()}/{suggestion}", FILTER
        )[0]

    def ask_unsaved(self) -> str:
        """``save``, ``keep`` or ``stay``, when the window is closed over unsaved work."""
        box = QMessageBox(self.desk.frame)
        box.setText(tr("This job has work that its file does not have."))
        box.setInformativeText(tr("Kept work is there again when Plain Compass starts next."))
        save = box.addButton(tr("Save"), QMessageBox.ButtonRole.AcceptRole)
        keep = box.addButton(tr("Keep for next time"), QMessageBox.ButtonRole.DestructiveRole)
        box.addButton(tr("Go on working"), QMessageBox.ButtonRole.RejectRole)
        box.exec()
        return {save: "save", keep: "keep"}.get(box.clickedButton(), "stay")  # type: ignore[call-overload, no-any-return]

    def ask_changed(self, path: Path) -> str:
        """``beside``, ``theirs``, ``over`` or ``stay``, when somebody else has written the file."""
        box = QMessageBox(self.desk.frame)
        box.setTextFormat(Qt.TextFormat.PlainText)
        box.setText(tr("{name} has been changed by somebody else since it was read here.", name=path.name))
        box.setInformativeText(tr("Saving over it would lose what they did."))
        answers = {
            box.addButton(tr("Save beside it"), QMessageBox.ButtonRole.AcceptRole): "beside",
            box.addButton(tr("Take theirs (mine one undo away)"), QMessageBox.ButtonRole.AcceptRole): "theirs",
            box.addButton(tr("Overwrite theirs"), QMessageBox.ButtonRole.DestructiveRole): "over",
            box.addButton(tr("Go on working"), QMessageBox.ButtonRole.RejectRole): "stay",
        }
        box.exec()
        return answers.get(box.clickedButton(), "stay")  # type: ignore[call-overload, no-any-return]

    def ask_read_only(self, path: Path) -> bool:
        """Whether to write over a file that is read-only."""
        box = QMessageBox(self.desk.frame)
        box.setTextFormat(Qt.TextFormat.PlainText)
        box.setText(tr("{name} is read-only: somebody did not want it changed.", name=path.name))
        over = box.addButton(tr("Overwrite it"), QMessageBox.ButtonRole.DestructiveRole)
        box.addButton(tr("Leave it as it is"), QMessageBox.ButtonRole.RejectRole)
        box.exec()
        return box.clickedButton() is over

    def _folder(self) -> str:
        path = self.desk.store.path
        return str(path.parent if path else Path.home())

    # What they do --------------------------------------------------------------------------------------

    def new(self) -> None:
        """A new job, from its first measurement; unsaved work of this one is set aside first."""
        job = self.desk.store.snapshot.job
        if self._leave_for(Opened(new_job(job.units, job.words)), None):
            self.desk.show_step("look")
            to_measure(self.desk.frame)

    def demo(self) -> None:
        """The demo job."""
        self._leave_for(Opened(demo_job()), None)

    def coupe(self) -> None:
        """The demo's coupe of many trees."""
        self._leave_for(Opened(demo_coupe()), None)

    def open_made(self, job: Job) -> bool:
        """A job that was made up elsewhere in the program; False where this one is not left."""
        return self._leave_for(Opened(job), None)

    def open(self, path: Path | None = None) -> bool:
        """Open a job file; a file that cannot be read changes nothing."""
        if path is None:
            name = self.ask_open()
            if not name:
                return False
            path = Path(name)
        try:
            opened = read_job(path)
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
            return False
        if not self._leave_for(opened, path):
            return False
        self.desk.settings.used(path)
        brought_back = self.kept.of_file(path)
        if brought_back:
            self.desk.message.tell(brought_back)
        elif opened.unknown:
            count = len(opened.unknown)
            fields = tr("field") if count == 1 else tr("fields")
            self.desk.message.tell(
                tr(
                    "{name} has {count} {fields} this version does not know; kept as they are.",
                    name=path.name,
                    count=count,
                    fields=fields,
                )
            )
        return True

    def _leave_for(self, opened: Opened, path: Path | None) -> bool:
        """Put another job in place of this one. Unsaved work is kept, never saved into its file unasked."""
        store = self.desk.store
        kept_of = store.snapshot.job.name if store.path is None else store.path.name
        unsaved = store.unsaved
        if unsaved and not self.desk.autosave.set_aside():
            return False
        store.replace(opened, path)
        if unsaved:
            self.desk.message.tell(tr("Unsaved work on {kept} is kept: Job menu, Kept work.", kept=kept_of))
        return True

    def save(self) -> bool:
        """Save to the job's file, asking for one if it has none."""
        path = self.desk.store.path
        return self.save_as() if path is None else self._save_to(path)

    def save_as(self) -> bool:
        """Save to a file of the person's choosing."""
        name = self.ask_save(f"{file_name(self.desk.store.snapshot.job.name)}{SUFFIX}")
        if not name:
            return False
        return self._save_to(Path(name if name.endswith(".json") else name + SUFFIX))

    def _save_to(self, path: Path, *, over: bool = False, over_read_only: bool = False) -> bool:
        self.desk.settle()
        try:
            self.desk.store.save(path, over=over, over_read_only=over_read_only)
        except ChangedElsewhereError:
            return self._settle_changed(path)
        except ReadOnlyFileError:
            answer = self.ask_read_only(path)
            return answer and self._save_to(path, over=over, over_read_only=True)
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
            return False
        self.desk.settings.used(path)
        return True

    def _settle_changed(self, path: Path) -> bool:
        """Somebody else has written the file: as the person chooses, and neither work is lost without a choice."""
        answer = self.ask_changed(path)
        if answer == "beside":
            return self._save_to(beside(path))
        if answer == "over":
            return self._save_to(path, over=True)
        if answer == "theirs":
            self._take_theirs(path)
        return False

    def _take_theirs(self, path: Path) -> None:
        store = self.desk.store
        try:
            theirs = read_job(path)
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
            return
        store.take_up(theirs, Opened(store.history.now.job, store.raw), path, file=theirs)
        self.desk.message.tell(tr("{name} is shown as it is now. Your own work is one undo away.", name=path.name))
