"""Work that may take long: how far it is, and a way to think better of it."""

from __future__ import annotations

from collections.abc import Iterable
from typing import NamedTuple, Protocol, TypeVar

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication, QProgressDialog, QWidget

from ...job.language import tr

SOON_MS = 500
"""Work shorter than this needs no dialog that says how far it is."""


class Counted(Protocol):
    """A step of the work."""

    @property
    def done(self) -> int:
        """How much is done."""

    @property
    def of(self) -> int:
        """How much there is to do."""


class Step(NamedTuple):
    """A step that says no more than that."""

    done: int
    of: int


S = TypeVar("S", bound=Counted)


def followed(steps: Iterable[S], parent: QWidget, title: str, words: str) -> S | None:
    """Do the work step by step while the window stays awake; its last step, None when the person has had enough."""
    shown, last = QProgressDialog(words, tr("Cancel"), 0, 1, parent), None
    shown.setWindowTitle(title)
    shown.setWindowModality(Qt.WindowModality.WindowModal)
    shown.setMinimumDuration(SOON_MS)
    try:
        for last in steps:
            shown.setMaximum(last.of)
            shown.setValue(last.done)
            # Told after every step, so that the window is painted and Cancel can be pressed.
            QApplication.processEvents()
            if shown.wasCanceled():
                return None
    finally:
        shown.close()
        shown.deleteLater()
    return last
