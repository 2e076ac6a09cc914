"""The back-test of *Yours*: every stump told anew by what the ones before it taught, a stump at a time."""

from __future__ import annotations

from collections.abc import Generator, Iterator

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QHBoxLayout, QWidget

from ....core.stump.quantities import Records
from ....job.document import LogEntry
from ....job.language import tr
from ....log.backtest import BackTest, backtest_in_steps
from ...drawing.palette import font
from ...frame.fitted_button import FittedButton
from ...frame.plain_label import PlainLabel

BEGIN, STOP = tr("Back-test"), tr("Stop")


def _answers(steps: Generator[None, None, BackTest]) -> Iterator[BackTest | None]:
    found = yield from steps
    yield found


class BackTestLine(QWidget):
    """A button, how far it is, and what came out."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.button, self.words = FittedButton(), PlainLabel("")
        self.button.setText(BEGIN)
        self.button.setProperty("framed", True)
        self.button.setToolTip(tr("Tells every stump anew by the ones before it, and counts how many lay inside."))
        self.words.setFont(font(12))
        self.words.setWordWrap(True)
        row = QHBoxLayout(self)
        row.setContentsMargins(10, 2, 10, 4)
        row.addWidget(self.button)
        row.addWidget(self.words, 1)
        self._steps: Iterator[BackTest | None] = iter(())
        self._done = 0
        self._timer = QTimer(self)
        self._timer.timeout.connect(self.step)

    @property
    def is_running(self) -> bool:
        """Whether it is still telling."""
        return self._timer.isActive()

    def begin(self, entries: list[LogEntry], records: Records, faller: str) -> None:
        """Begin with these stumps."""
        self._steps, self._done = _answers(backtest_in_steps(entries, records, faller)), 0
        self.button.setText(STOP)
        self._timer.start(0)

    def stop(self, words: str) -> None:
        """End it, and say so."""
        self._timer.stop()
        self.button.setText(BEGIN)
        self.words.setText(words)

    def step(self) -> None:
        """One stump more."""
        answer = next(self._steps, None)
        self._done += 1
        if answer is None:
            self.words.setText(tr("Telling stumps anew: {done} …", done=self._done))
            return
        shipped = tr(
            "{before} lay in nine in ten as shipped ({before_deg:.1f}° wide)",
            before=answer.before,
            before_deg=answer.before_deg,
        )
        yours = tr(
            "{after} by the stumps before each ({after_deg:.1f}°)", after=answer.after, after_deg=answer.after_deg
        )
        self.stop(tr("Of {count} told anew, {shipped}, {yours}.", count=answer.count, shipped=shipped, yours=yours))

    def finish(self) -> None:
        """All of it, now."""
        while self.is_running:
            self.step()
