"""What opens over the window: keys, commands by words, trees, steps so far."""

from __future__ import annotations

from typing import Protocol

from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QCursor
from PySide6.QtWidgets import QApplication, QDialog, QWidget

from ...core.judge.findings import Finding
from ...job.document import Job
from ..drawing.palette import Palette
from .band import MarginBand
from .command_finder import CommandFinder
from .commands import Commands
from .history_list import HistoryList
from .overview import Overview
from .overview_rows import Judged
from .shortcut_sheet import ShortcutSheet
from .store import Store


class Under(Protocol):
    """What dialogs ask of the window they lie on."""

    store: Store
    commands: Commands

    @property
    def frame(self) -> QWidget:
        """The window itself."""

    @property
    def colours(self) -> Palette:
        """Those of the scheme in use."""


class Dialogs:
    """Opens them, one over the window at a time."""

    def __init__(self, under: Under) -> None:
        self.under = under
        self._judged: tuple[Job | None, dict[str, Judged]] = (None, {})

    def keys(self) -> None:
        """The shortcut sheet."""
        self._open(ShortcutSheet(self.under.commands, self.under.frame))

    def help(self, step: str) -> None:
        """The handbook at the page about the peg that is pointed at, or about what has the keyboard."""
        pointed = QApplication.widgetAt(QCursor.pos())
        if isinstance(pointed, MarginBand) and (
            group := pointed.group_at(pointed.mapFromGlobal(QPointF(QCursor.pos())))
        ):
            self.help_page(f"group:{group}")
            return
        from .help_window import page_about  # the handbook is read when first asked for: it is no part of the start

        self.help_page(page_about(QApplication.focusWidget(), step))

    def help_page(self, page: str) -> None:
        """The handbook at a page."""
        from .help_window import HelpWindow

        self._open(HelpWindow(self.under.store.snapshot, page, self.under.colours, self.under.frame))

    def explain(self, finding: Finding | None) -> None:
        """Where a finding comes from; that which rules where none is picked."""
        snapshot = self.under.store.snapshot
        about = finding or snapshot.result.verdict.ruling
        if about is not None:
            from .explanation import Explanation  # few ask where a number comes from

            self._open(Explanation(snapshot, about, self.under.frame))

    def find(self) -> None:
        """Find a command by words."""
        self._open(CommandFinder(self.under.commands, self.under.frame))

    def history(self) -> None:
        """Every step so far."""
        self._open(HistoryList(self.under.store, self.under.frame))

    def trees(self) -> None:
        """All trees of the job; what was judged of them is kept while the job stays as it is."""
        job = self.under.store.snapshot.job
        if self._judged[0] != job:
            self._judged = job, {}
        self._open(Overview(self.under.store, self.under.colours, self._judged[1], self.under.frame))

    def _open(self, dialog: QDialog) -> None:
        """Over the window, which has the keyboard again when it is gone."""
        dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        dialog.finished.connect(self.under.frame.activateWindow)
        dialog.open()
