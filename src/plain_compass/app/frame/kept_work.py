"""Unsaved work of earlier runs, and work set aside: found, offered and taken up, with nothing lost on either side."""

from __future__ import annotations

from datetime import datetime
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QMenu, QMessageBox

from ...core.base.errors import PlainCompassError
from ...job.files import Opened, read_job
from ...job.language import tr
from .desk import Desk
from .recovery import Recovered


def clock(seconds: float) -> str:
    """A time as people tell it: with the day where it is not today's."""
    at = datetime.fromtimestamp(seconds)
    return f"{at:%H:%M:%S}" if at.date() == datetime.now().date() else f"{at:%d %b %Y, %H:%M}"


class KeptWork:
    """The window's side of recovery. Dialogs are methods, so that tests can answer them."""

    def __init__(self, desk: Desk) -> None:
        self.desk = desk

    def ask_which(self, kept: Recovered) -> str:
        """``file`` or ``kept``, when either holds something that the other has not."""
        assert kept.path is not None
        box = QMessageBox(self.desk.frame)
        box.setTextFormat(Qt.TextFormat.PlainText)
        box.setText(tr("{name} and unsaved work on it each hold something that the other has not.", name=kept.name))
        box.setInformativeText(tr("Which one to go on with? The other stays one undo away."))
        written = clock(kept.path.stat().st_mtime)
        box.addButton(tr("The file, written {written}", written=written), QMessageBox.ButtonRole.AcceptRole)
        chosen = box.addButton(
            tr("The unsaved work, kept {clock}", clock=clock(kept.kept_at)), QMessageBox.ButtonRole.AcceptRole
        )
        box.exec()
        return "kept" if box.clickedButton() is chosen else "file"

    def at_start(self, path: Path | None, *, asked_for: bool) -> str:
        """Bring back unsaved work when the program starts; returns a sentence about it, empty when there is none.

        Args:
            path: the file that was opened, None for the demo or a new job.
            asked_for: whether the person named what to open; then work on something else is only offered.
        """
        found = self._worth_offering()
        first = next((kept for kept in found if kept.belongs_to(path)), None)
        if first is None and not asked_for:
            first = next(iter(found), None)
        told = self._take(first) if first else ""
        others = len(found) - (1 if told else 0)
        more = (
            tr("Unsaved work on other jobs is kept too ({others}): Job menu, Kept work.", others=others)
            if others
            else ""
        )
        return " ".join(part for part in (told, more) if part)

    def of_file(self, path: Path) -> str:
        """Take up what is kept of a file that has just been opened; returns a sentence, empty when there is none."""
        kept = next((kept for kept in self._worth_offering() if kept.belongs_to(path)), None)
        return self._take(kept) if kept else ""

    def _worth_offering(self) -> list[Recovered]:
        """Everything kept that its file does not have; the rest is removed."""
        recovery, found = self.desk.autosave.recovery, []
        for kept in recovery.orphans():
            if kept.standing() == "nothing new":
                recovery.discard(kept)
            else:
                found.append(kept)
        return found

    def fill(self, menu: QMenu) -> None:
        """An entry for everything kept."""
        found = self._worth_offering()
        for kept in found:
            action = menu.addAction(
                tr("{name}, kept {clock}", name=kept.name.replace("&", "&&"), clock=clock(kept.kept_at))
            )
            action.triggered.connect(lambda _=False, k=kept: self.open(k))
        menu.setEnabled(bool(found))

    def open(self, kept: Recovered) -> None:
        """Put kept work in place of the job that is open, which is set aside if it has unsaved work itself."""
        if self.desk.store.unsaved and not self.desk.autosave.set_aside():
            return
        self.desk.message.tell(self._take(kept) or tr("Another window of Plain Compass has taken that work up."))

    def _take(self, kept: Recovered) -> str:
        standing, on_file = kept.standing(), self._on_file(kept)
        goes_on = "kept" if standing == "newer" or on_file is None else self.ask_which(kept)
        try:
            if not self.desk.autosave.recovery.adopt(kept):
                return ""
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
        store = self.desk.store
        if goes_on == "kept":
            store.take_up(kept.opened, on_file, kept.path)
            also = tr(" The file as it is now is one undo away.") if standing == "both" else ""
            return tr(
                "Unsaved work on {name} was found and brought back. Save keeps it.{also}", name=kept.name, also=also
            )
        assert on_file is not None
        store.take_up(on_file, kept.opened, kept.path, file=on_file)
        return tr("{name} is shown as its file has it. The unsaved work is one undo away.", name=kept.name)

    @staticmethod
    def _on_file(kept: Recovered) -> Opened | None:
        if kept.path is None:
            return None
        try:
            return read_job(kept.path)
        except PlainCompassError:
            return None
