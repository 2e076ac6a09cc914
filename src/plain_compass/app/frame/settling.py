"""Waiting for the hand to let go of the mouse, so that nothing moves under a click."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QObject, QTimer
from PySide6.QtGui import QGuiApplication

LOOK_EVERY_MS = 40
"""How often it is looked whether the button is still down."""


class Settling(QTimer):
    """Does something once no button of the mouse is down."""

    def __init__(self, then: Callable[[], None], parent: QObject) -> None:
        super().__init__(parent, singleShot=True, interval=LOOK_EVERY_MS)
        self._then = then
        self.timeout.connect(self._look)

    def waits(self) -> bool:
        """Whether a button is down; if so it is looked again until none is, and then done."""
        if QGuiApplication.mouseButtons():
            self.start()
            return True
        return False

    def _look(self) -> None:
        if not self.waits():
            self._then()
