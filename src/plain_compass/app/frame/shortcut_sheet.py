"""The shortcut sheet (F1): every command with its keys, and what the mouse does on a drawing."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QGridLayout, QLabel, QWidget

from ..drawing.palette import font
from .commands import Command, Commands

GROUPS = {
    "job": "Job",
    "edit": "Edit",
    "tree": "Tree",
    "wedge": "Wedges",
    "step": "Steps",
    "view": "View",
    "copy": "Copy",
    "card": "Card",
    "help": "Help",
}
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
        self.grid = QGridLayout(self)
        self.grid.setContentsMargins(24, 18, 24, 18)
        self.grid.setHorizontalSpacing(14)
        self.grid.setVerticalSpacing(3)
        columns: list[list[tuple[str, list[tuple[str, str]]]]] = [[], []]
        for number, (key, title) in enumerate(GROUPS.items()):
            rows = [(c.shortcut, c.words) for c in commands if self._belongs(c, key)]
            if rows:
                columns[0 if number < 3 else 1].append((title, rows))
        columns[1].append(("On a drawing", list(ON_A_DRAWING)))
        for at, column in enumerate(columns):
            self._fill(at * 3, column)

    @staticmethod
    def _belongs(command: Command, group: str) -> bool:
        return bool(command.shortcut) and command.id.split(".")[0] == group

    def _fill(self, column: int, groups: list[tuple[str, list[tuple[str, str]]]]) -> None:
        row = 0
        for title, rows in groups:
            heading = QLabel(title)
            heading.setFont(font(15, strong=True))
            heading.setContentsMargins(0, 8, 0, 2)
            self.grid.addWidget(heading, row, column, 1, 2)
            row += 1
            for keys, words in rows:
                for offset, text in enumerate((keys, words)):
                    label = QLabel(text)
                    label.setFont(font(14, strong=offset == 0, narrow=offset == 0))
                    self.grid.addWidget(label, row, column + offset, Qt.AlignmentFlag.AlignTop)
                row += 1
