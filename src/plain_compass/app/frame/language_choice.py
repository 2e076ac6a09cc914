"""Choosing the language that is spoken from the next start on."""

from __future__ import annotations

from typing import Protocol

from PySide6.QtWidgets import QInputDialog, QWidget

from ...job.language import LanguageError, named_languages, own_folder, spoken, tr
from ...job.language_kept import choose
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

    def ask(self) -> str:
        """The code that is wanted; nothing where all is left as it is."""
        names, _ = named_languages()
        codes = list(names)
        now = codes.index(spoken().code) if spoken().code in codes else 0
        picked, is_ok = QInputDialog.getItem(
            self.desk.frame,
            tr("Language"),
            tr("Files of your own lie in {folder}.", folder=own_folder()),
            list(names.values()),
            now,
            False,
        )
        return next((code for code, name in names.items() if is_ok and name == picked), "")

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
