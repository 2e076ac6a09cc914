"""Widgets made when they are first wanted: a step nobody opens costs nothing at the start."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtWidgets import QWidget


class Late(dict[str, QWidget]):
    """Made widgets by key; asking for one that is not made makes it.

    Iterating goes over those that are made; ``keys_there`` are all.
    """

    def __init__(self, factories: dict[str, Callable[[], QWidget]], made: Callable[[QWidget], None]) -> None:
        super().__init__()
        self._factories, self._made = factories, made

    @property
    def keys_there(self) -> tuple[str, ...]:
        """Every key, made or not, in order."""
        return tuple(self._factories)

    def __missing__(self, key: str) -> QWidget:
        """Make it, put it in its place."""
        widget = self[key] = self._factories[key]()
        self._made(widget)
        return widget
