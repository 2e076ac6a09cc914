"""What the window asks of a step's page."""

from __future__ import annotations

from collections.abc import Callable
from typing import Protocol, TypeAlias

from PySide6.QtWidgets import QWidget

from ...core.findings import Finding
from .commands import Commands
from .store import Snapshot, Store


class Page(Protocol):
    """A step's page: a widget that follows the document."""

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document."""

    def bring_out(self, finding: Finding) -> None:
        """Bring out what a finding is about."""

    def fit(self) -> None:
        """Back to the whole drawing."""

    def picture(self) -> tuple[QWidget, ...]:
        """The drawings, for copying as a picture."""


PageFactory: TypeAlias = Callable[[Store, Commands, QWidget], QWidget]
