"""The schools and where they disagree, readable in the program; a practice saved and taken in as one file."""

from __future__ import annotations

from collections.abc import Callable
from html import escape
from pathlib import Path

from PySide6.QtWidgets import QDialog, QFileDialog, QHBoxLayout, QPushButton, QTextBrowser, QVBoxLayout, QWidget

from ...core.base.errors import PlainCompassError
from ...core.cuts import NEVER_PLANNED
from ...job.disk import write_atomically
from ...job.language import tr
from ...job.practice_files import practice_text
from ...job.tables import disagreements, practice_of, practices, take_practice_in
from ..drawing.palette import font
from .store import Store

FILTER = tr("Practices (*.json);;All files (*)")


class PracticeDialog(QDialog):
    """A page to read, and two buttons. Dialogs are methods, so that tests can answer them."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.setWindowTitle(tr("Practices"))
        self.resize(760, 560)
        self.text = QTextBrowser()
        self.text.setFont(font(14))
        self.text.setAccessibleName(tr("Practices and where they disagree"))
        save, add, close = (
            QPushButton(tr("Save this job's practice…")),
            QPushButton(tr("Take one in…")),
            QPushButton(tr("Close")),
        )
        save.clicked.connect(self.save)
        add.clicked.connect(self.add)
        close.clicked.connect(self.accept)
        row = QHBoxLayout()
        for button in (save, add, close):
            row.addWidget(button)
        column = QVBoxLayout(self)
        column.addWidget(self.text)
        column.addLayout(row)
        self._show()

    def _show(self) -> None:
        chosen, say = self.store.snapshot.job.practice, self.store.snapshot.speech.say
        mine = tr(" (this job)")
        schools = "".join(
            f"<p><b>{escape(tr(each.name))}</b>{mine if key == chosen else ''}<br>{escape(say(each.note))}</p>"
            for key, each in practices().items()
        )
        rows = "".join(
            f"<tr><td><b>{escape(say(row['question']))}</b></td><td>{escape('; '.join(map(say, row['schools'])))}</td>"
            f"<td>{escape(say(row['choice']))}. {escape(say(row['reason']))}</td></tr>"
            for row in disagreements()
        )
        named = "".join(f"<th>{name}</th>" for name in (tr("Question"), tr("Schools"), tr("Here")))
        table = f"<table cellpadding='5' border='1' cellspacing='0'><tr>{named}</tr>{rows}</table>"
        never = escape(self.store.snapshot.speech.phrase(NEVER_PLANNED))
        heads = (tr("Schools"), tr("Where practitioners disagree"))
        self.text.setHtml(f"<h3>{heads[0]}</h3>{schools}<h3>{heads[1]}</h3>{table}<p>{never}</p>")

    def ask_save(self) -> str:
        """Where to write; empty for nowhere."""
        name = f"{self.store.snapshot.job.practice}.json"
        return QFileDialog.getSaveFileName(self, tr("Save practice"), str(Path.home() / name), FILTER)[0]

    def ask_open(self) -> str:
        """Which file to take in; empty for none."""
        return QFileDialog.getOpenFileName(self, tr("Take a practice in"), str(Path.home()), FILTER)[0]

    def save(self) -> None:
        """The job's practice as one file."""
        name = self.ask_save()
        if name:
            self._try(
                lambda: write_atomically(Path(name), practice_text(practice_of(self.store.snapshot.job.practice)))
            )

    def add(self) -> None:
        """A practice from a file, kept for every job from now on."""
        name = self.ask_open()
        if name:
            self._try(lambda: take_practice_in(Path(name)))
            self._show()

    def _try(self, do: Callable[[], object]) -> None:
        try:
            do()
        except PlainCompassError as error:
            self.store.refused.emit(str(error))
