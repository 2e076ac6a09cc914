"""Fields of the Block in a person's own words, and names and fields below one another."""

from __future__ import annotations

from collections.abc import Callable, Iterable

from PySide6.QtWidgets import QGridLayout, QWidget

from ...drawing.palette import font
from ...frame.plain_label import PlainLabel
from ...frame.text_edit import LineEdit


class WordEdit(LineEdit):
    """A day, hours, somebody or a limit as they are typed.

    Args:
        name: what it is; empty: what stands there where nothing is said; accepted: what may be typed.
        keep: takes what was typed in and shows it again.
    """

    def __init__(self, name: str, empty: str, accepted: str, keep: Callable[[str], bool]) -> None:
        super().__init__()
        self._keep = keep
        self.setAccessibleName(name)
        self.setPlaceholderText(empty)
        self.setToolTip(f"{name}: {accepted}")

    def take(self, text: str) -> bool:
        """As whoever made it wants it."""
        return self._keep(text)


def in_rows(widget: QWidget, asked: Iterable[tuple[str, QWidget]]) -> None:
    """Names and fields below one another."""
    grid = QGridLayout(widget)
    grid.setContentsMargins(10, 4, 6, 4)
    grid.setSpacing(3)
    for row, (name, edit) in enumerate(asked):
        label = PlainLabel(name)
        label.setFont(font(13))
        grid.addWidget(label, row, 0)
        grid.addWidget(edit, row, 1)
