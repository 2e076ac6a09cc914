"""What can be done with the fall: play, keep, aim off, write out. Dialogs are methods: tests can answer them."""

from __future__ import annotations

from pathlib import Path
from typing import cast

from PySide6.QtWidgets import QFileDialog, QInputDialog

from ....core.base.errors import PlainCompassError
from ....core.base.quantity import Kind
from ....job.disk import file_name, write_atomically
from ....job.fall import samples_csv
from ....job.fan_geojson import fan_geojson
from ....job.language import tr
from ...frame.commands import Command
from ...frame.desk import Desk
from ...frame.store import Snapshot
from .frames import FORMATS, write_frames
from .page import FallPage

WRITTEN = {
    "png": tr("Frames of the fall as PNG pictures"),
    "svg": tr("Frames of the fall as SVG drawings"),
    "csv": tr("Likely falls as CSV, a row each"),
    "geojson": tr("The fan as GeoJSON"),
}
ROUND_DEG = 0.5
"""Nobody sights a gun mark more finely."""
MOST_OFF_DEG = 30.0
"""Aimed further beside the lay than this it is another lay."""


class FallActions:
    """The commands of the group ``fall``."""

    def __init__(self, desk: Desk) -> None:
        self.desk, self.store = desk, desk.store

    def commands(self) -> list[Command]:
        """Play, keep, aim off, write out."""
        return [
            Command("fall.play", self._play_title, "Ctrl+Shift+P", lambda: self._page().play(), self._reckoned),
            Command("fall.keep", self._keep_title, "Ctrl+K", self.keep, self._reckoned),
            Command("fall.aim", self._aim_title, "Ctrl+J", self.aim, lambda: abs(self._wanted()) >= ROUND_DEG),
            Command("fall.export", tr("Write out…"), "", self.write_out, self._reckoned),
        ]

    def _reckoned(self) -> bool:
        return self.store.snapshot.fan is not None

    def _page(self) -> FallPage:
        self.desk.show_step("fall")
        return cast(FallPage, self.desk.pages["fall"])

    def _opened(self) -> FallPage | None:
        """The page, once it has been opened; the commands are there before any page is."""
        return cast(FallPage | None, self.desk.pages.get("fall"))

    def _play_title(self) -> str:
        page = self._opened()
        return tr("Pause") if page is not None and page.playback.playing else tr("Play")

    def _keep_title(self) -> str:
        page = self._opened()
        kept = page is not None and page.playback.kept is not None
        return tr("Stop comparing") if kept else tr("Keep to compare")

    def keep(self) -> None:
        """Keep this design to compare others with, or stop comparing."""
        self._page().keep()
        self.desk.commands.refresh()

    # Aiming off ----------------------------------------------------------------------------------------

    def _wanted(self) -> float:
        """How much farther left to aim, rounded to what can be sighted."""
        fan = self.store.snapshot.fan
        return 0.0 if fan is None else round(fan.aim_off_deg / ROUND_DEG) * ROUND_DEG

    def _aim_title(self) -> str:
        wanted = self._wanted()
        if abs(wanted) < ROUND_DEG:
            return tr("Aim off")
        return tr("Aim {off}", off=self.store.snapshot.speech.show(wanted, Kind.ASIDE))

    def aim(self) -> None:
        """Turn the cut beside the lay, so that the middle of the fan comes to lie on it."""
        snapshot = self.store.snapshot
        off = min(max(snapshot.plan.cut.aim_off_deg + self._wanted(), -MOST_OFF_DEG), MOST_OFF_DEG)
        self.store.set("cut.aim_off_deg", off, tr("aim off {off}", off=snapshot.speech.show(off, Kind.ASIDE)))

    # Writing out ---------------------------------------------------------------------------------------

    def ask_what(self) -> str:
        """What to write: a key of ``WRITTEN``; empty for nothing."""
        words = list(WRITTEN.values())
        picked, is_ok = QInputDialog.getItem(self.desk.frame, tr("Write out"), tr("What:"), words, 0, False)
        return list(WRITTEN)[words.index(picked)] if is_ok else ""

    def ask_where(self, what: str) -> str:
        """A folder for frames, a file for the rest; empty for nowhere."""
        if what in FORMATS:
            return QFileDialog.getExistingDirectory(self.desk.frame, WRITTEN[what], str(Path.home()))
        name = Path.home() / f"{file_name(self.store.tree_id, 'tree')}-fall.{what}"
        return QFileDialog.getSaveFileName(self.desk.frame, WRITTEN[what], str(name), f"(*.{what})")[0]

    def write_out(self) -> None:
        """Frames, samples or the fan, as is asked."""
        what = self.ask_what()
        where = self.ask_where(what) if what else ""
        if not where:
            return
        try:
            told = self._written(what, Path(where), self.store.snapshot)
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
            return
        self.desk.message.tell(told)

    def _written(self, what: str, where: Path, snapshot: Snapshot) -> str:
        assert snapshot.fan is not None
        if what in FORMATS:
            count = write_frames(self._page(), where, what)
            return tr("{count} frames written to {where}.", count=count, where=where)
        if what == "csv":
            write_atomically(where, samples_csv(snapshot.plan, snapshot.result, snapshot.fan))
        else:
            write_atomically(where, fan_geojson(snapshot.job, snapshot.plan, snapshot.result, snapshot.fan))
        return tr("{written} written to {where}.", written=WRITTEN[what], where=where)
