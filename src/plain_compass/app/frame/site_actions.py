"""The site in and out of the window: GeoJSON and spot heights, with a list of what could not be taken."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFileDialog, QMessageBox

from ...core.base.errors import PlainCompassError
from ...job.disk import read_text, write_atomically
from ...job.geojson import site_geojson
from ...job.language import tr
from ...job.projection import origin_of
from ...job.site_files import with_site_file
from .commands import Command
from .desk import Desk
from .plain_label import plain_tip

FILTER = tr("Site plans and spot heights (*.geojson *.json *.csv);;All files (*)")
SHOWN = 200
"""Sentences of a skip list that are shown."""


class SiteActions:
    """What the Job menu does with the site. Dialogs are methods, so that tests can answer them."""

    def __init__(self, desk: Desk) -> None:
        self.desk = desk
        self.store = desk.store

    def commands(self) -> list[Command]:
        """The commands of the group ``site``."""
        return [
            Command("site.import", tr("Site from GeoJSON or spot heights (CSV)…"), "", self.take_in),
            Command("site.export", tr("Site as GeoJSON…"), "", self.write_out),
        ]

    def ask_open(self) -> str:
        """Which file to read; empty for none."""
        return QFileDialog.getOpenFileName(self.desk.frame, tr("Site from a file"), str(Path.home()), FILTER)[0]

    def ask_save(self) -> str:
        """Where to write; empty for nowhere."""
        usual = str(Path.home() / "site.geojson")
        return QFileDialog.getSaveFileName(self.desk.frame, tr("Site as GeoJSON"), usual, FILTER)[0]

    def show_skipped(self, name: str, sentences: tuple[str, ...]) -> None:
        """What could not be taken, a line each."""
        box = QMessageBox(self.desk.frame)
        box.setTextFormat(Qt.TextFormat.PlainText)
        box.setText(
            tr(
                "{name}: {count} could not be taken, or only with a guess; the rest is on the plan.",
                name=name,
                count=len(sentences),
            )
        )
        box.setInformativeText(plain_tip(sentences[0]))
        box.setDetailedText("\n".join(sentences[:SHOWN]))
        box.exec()

    def take_in(self, path: Path | None = None) -> bool:
        """Put a file's obstacles or spot heights in place of the site's own, as one step that can be undone."""
        if path is None:
            name = self.ask_open()
            if not name:
                return False
            path = Path(name)
        try:
            job, told, skipped = with_site_file(self.store.snapshot.job, read_text(path), path.name)
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
            return False
        if not self.store.edit(tr("{told} from {name}", told=told, name=path.name), job):
            return False
        self.desk.message.tell(tr("{told} taken from {name}.", told=told, name=path.name))
        if skipped:
            self.show_skipped(path.name, skipped)
        return True

    def write_out(self) -> None:
        """The site as GeoJSON: longitude and latitude where the job states its origin, local metres otherwise."""
        name = self.ask_save()
        if not name:
            return
        job = self.store.snapshot.job
        try:
            write_atomically(Path(name), site_geojson(job, positions=origin_of(job.site) is not None))
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
            return
        self.desk.message.tell(tr("Site written to {name}.", name=name))
