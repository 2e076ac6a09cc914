"""What the window asks of a step's page."""

from __future__ import annotations

from collections.abc import Callable
from typing import Protocol, TypeAlias

from PySide6.QtCore import QSize
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QWidget

from ...core.base.frozen import dataclass
from ...core.judge.findings import Finding
from .commands import Commands
from .store import Snapshot, Store


@dataclass(frozen=True, slots=True)
class Picture:
    """A drawing that can be painted anywhere: its size in pixels, and how."""

    size: QSize
    paint: Callable[[QPainter], None]


class Page(Protocol):
    """A step's page: a widget that follows the document."""

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document."""

    def bring_out(self, finding: Finding) -> None:
        """Bring out what a finding is about."""

    def fit(self) -> None:
        """Back to the whole drawing."""

    def zoom(self, factor: float) -> None:
        """Nearer or further, about the middle."""

    def pictures(self) -> tuple[Picture, ...]:
        """The drawings, for copying."""


class Panel(Protocol):
    """One face of the side column that a step brings along."""

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document."""


PageFactory: TypeAlias = Callable[[Store, Commands, QWidget], QWidget]
