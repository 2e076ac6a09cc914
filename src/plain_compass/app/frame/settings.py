"""What the program remembers between runs: last job, recent jobs, window, scheme."""

from __future__ import annotations

from pathlib import Path

from platformdirs import user_config_path, user_state_path
from PySide6.QtCore import QByteArray, QSettings

from ... import APP
from ...job.disk import reason_of
from ...job.language import tr
from ...log.places import own_log_file

RECENT = 8
"""Jobs offered again: a week of them."""


class Settings:
    """A small settings file at a stated place."""

    def __init__(self, file: Path | None = None) -> None:
        self.file = file or user_config_path(APP) / "settings.ini"
        # A settings file of its own is a world of its own: its log lies beside it.
        self.log_file = own_log_file() if file is None else file.with_name("stumps.sqlite")
        self.troubles: list[str] = []
        try:
            self.file.parent.mkdir(parents=True, exist_ok=True)
        except OSError as error:
            self.troubles.append(
                tr("Settings cannot be kept in {parent}: {reason}.", parent=self.file.parent, reason=reason_of(error))
            )
        self._store = QSettings(str(self.file), QSettings.Format.IniFormat)

    @staticmethod
    def recovery_folder() -> Path:
        """Where unsaved work is kept."""
        return user_state_path(APP) / "recovery"

    def recent(self) -> list[Path]:
        """Jobs opened or saved, newest first."""
        held = self._store.value("recent", [])
        names = held if isinstance(held, list) else [held] if isinstance(held, str) else []
        return [Path(str(name)) for name in names if name and "\0" not in str(name)]

    def used(self, path: Path) -> None:
        """A job was opened or saved."""
        names = [str(path.absolute()), *(str(p) for p in self.recent() if p != path.absolute())]
        self._store.setValue("recent", names[:RECENT])
        self._store.sync()

    def text(self, key: str, default: str) -> str:
        """A remembered word."""
        return str(self._store.value(key, default))

    def remember(self, key: str, value: str | QByteArray) -> None:
        """Remember a word or the window's place."""
        self._store.setValue(key, value)

    def geometry(self) -> QByteArray | None:
        """The window's place, if one is remembered."""
        held = self._store.value("geometry")
        return held if isinstance(held, QByteArray) else None
