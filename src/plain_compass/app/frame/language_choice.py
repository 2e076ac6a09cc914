"""Choosing the language that is spoken from the next start on."""

from __future__ import annotations

from typing import Protocol

from PySide6.QtWidgets import QInputDialog, QWidget

from ...job.language import LanguageError, choose, languages, own_folder, read_language, spoken, tr
from .message_bar import MessageBar


class Asking(Protocol):
    """What the choice needs of the window."""

    message: MessageBar

    @property
    def frame(self) -> QWidget:
        """The window itself."""


class LanguageChoice:
    """Asks, and keeps the answer. The dialog is a method, so that tests can answer it."""

    def __init__(self, desk: Asking) -> None:
        self.desk = desk

    def names(self) -> dict[str, str]:
        """Every language that can be read: its name -> its code."""
        found = {}
        for code, file in languages().items():
            try:
                found["English" if file is None else read_language(file).name] = code
            except LanguageError:
                continue  # one that cannot be read is said where it is asked for: plain-compass language check
        return found

    def ask(self) -> str:
        """The code that is wanted; nothing where all is left as it is."""
        names = self.names()
        now = next((place for place, code in enumerate(names.values()) if code == spoken().code), 0)
        picked, is_ok = QInputDialog.getItem(
            self.desk.frame,
            tr("Language"),
            tr("Files of your own lie in {folder}.", folder=own_folder()),
            list(names),
            now,
            False,
        )
        return names.get(picked, "") if is_ok else ""

    def change(self) -> None:
        """Ask for a language and keep it for the next start."""
        code = self.ask()
        if not code:
            return
        try:
            choose(code)
        except LanguageError as error:
            self.desk.message.refuse(str(error))
            return
        self.desk.message.tell(tr("From the next start on {code} is spoken.", code=code))
