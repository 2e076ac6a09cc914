"""Drawings that may lag behind a drag: the one that is dragged on has the frames to itself."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QObject, QTimer


class Lag:
    """Says whether a drawing is to wait, and asks for it when it has waited long enough.

    Args:
        follow: brings the drawing up to date.
        after_ms: the longest it stays behind.
    """

    def __init__(self, follow: Callable[[], object], after_ms: int, parent: QObject) -> None:
        self._follow, self._due = follow, False
        self._timer = QTimer(parent)
        self._timer.setSingleShot(True)
        self._timer.setInterval(after_ms)
        self._timer.timeout.connect(self._ask)

    def waits(self, may_lag: bool) -> bool:
        """Whether to leave the drawing as it is for now."""
        if not may_lag or self._due:
            self._due = False
            self._timer.stop()
            return False
        if not self._timer.isActive():
            self._timer.start()
        return True

    @property
    def is_behind(self) -> bool:
        """Whether the drawing is not up to date."""
        return self._timer.isActive()

    def _ask(self) -> None:
        self._due = True
        self._follow()
