"""The shortcut sheet (F1): every command with its keys, and what the mouse does on a drawing."""

from __future__ import annotations

from PySide6.QtWidgets import QDialog, QGridLayout, QHBoxLayout, QVBoxLayout, QWidget

from ..drawing.palette import font
from .commands import Command, Commands
from .plain_label import PlainLabel

GROUPS = {
    "job": "Job",
    "edit": "Edit",
    "tree": "Tree",
    "wedge": "Wedges",
    "cut": "Cut",
    "step": "Steps",
    "view": "View",
    "copy": "Copy",
    "fall": "Fall",
    "card": "Card",
    "help": "Help",
}
FIRST_COLUMN = 5
"""How many groups stand in the first of the two columns."""
ON_A_DRAWING = (
    ("Tab, Shift+Tab", "next or previous dimension"),
    ("type, Enter", "set a dimension: 55, 2 1/4 in, 10 %D"),
    ("Up, Down", "move a dimension by its step"),
    ("Escape", "restore a dimension, let go of a drag"),
    ("drag a ring", "move what it stands on"),
    ("wheel", "zoom; middle button or space pans"),
)


class ShortcutSheet(QDialog):
    """Shown by F1; Escape closes it."""

    def __init__(self, commands: Commands, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Keys")
        self.setObjectName("keys")
        columns = QHBoxLayout(self)
        columns.setContentsMargins(24, 14, 24, 18)
        columns.setSpacing(36)
        groups = [
            (title, [(c.shortcut, c.words) for c in commands if self._belongs(c, key)]) for key, title in GROUPS.items()
        ]
        groups = [*(group for group in groups if group[1]), ("On a drawing", list(ON_A_DRAWING))]
        for part in (groups[:FIRST_COLUMN], groups[FIRST_COLUMN:]):
            column = QVBoxLayout()
            for title, rows in part:
                self._fill(column, title, rows)
            column.addStretch(1)
            columns.addLayout(column)

    @staticmethod
    def _belongs(command: Command, group: str) -> bool:
        return bool(command.shortcut) and command.id.split(".")[0] == group

    @staticmethod
    def _fill(column: QVBoxLayout, title: str, rows: list[tuple[str, str]]) -> None:
        heading = PlainLabel(title)
        heading.setFont(font(15, strong=True))
        heading.setContentsMargins(0, 8, 0, 0)
        column.addWidget(heading)
        grid = QGridLayout()
        grid.setHorizontalSpacing(14)
        grid.setVerticalSpacing(2)
        grid.setColumnMinimumWidth(0, 104)
        grid.setColumnStretch(1, 1)
        for row, pair in enumerate(rows):
            for at, text in enumerate(pair):
                label = PlainLabel(text)
                label.setFont(font(14, strong=at == 0, narrow=at == 0))
                grid.addWidget(label, row, at)
        column.addLayout(grid)
