"""The shortcut sheet (Ctrl+F1): every command with its keys, and what the mouse does on a drawing."""

from __future__ import annotations

from PySide6.QtCore import QSize
from PySide6.QtWidgets import QDialog, QGridLayout, QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from ...job.language import tr
from ..drawing.palette import font
from .commands import Command, Commands
from .plain_label import PlainLabel

GROUPS = {
    "job": tr("Job"),
    "edit": tr("Edit"),
    "tree": tr("Tree"),
    "answer": tr("Answers"),
    "wedge": tr("Wedges"),
    "cut": tr("Cut"),
    "step": tr("Steps"),
    "view": tr("View"),
    "copy": tr("Copy"),
    "fall": tr("Fall"),
    "stump": tr("Stump"),
    "block": tr("Block"),
    "train": tr("Practice"),
    "card": tr("Card"),
    "help": tr("Help"),
}
COLUMNS = 3
"""Three fit the smallest window without scrolling."""
ROOM_PX = 48
"""What is left of the window round the sheet, so that it is seen to lie on it."""
ON_A_DRAWING = (
    (tr("Tab, Shift+Tab"), tr("next or previous dimension")),
    (tr("type, Enter"), tr("set it: 55, 2 1/4 in, 10 %D")),
    (tr("Up, Down"), tr("move a dimension by its step")),
    (tr("Escape"), tr("restore, let go of a drag")),
    (tr("drag a ring"), tr("move what it stands on")),
    (tr("wheel"), tr("zoom; middle button or space pans")),
    (tr("Page Up, Down"), tr("on Ground: the next thing")),
    (tr("Ctrl and arrows"), tr("on Ground: move it; Shift: farther")),
    (tr("Delete"), tr("on Ground: remove it")),
)


Group = tuple[str, list[tuple[str, str]]]


def in_columns(groups: list[Group], count: int) -> list[list[Group]]:
    """The groups in their order, in so many columns whose longest is as short as it can be."""
    heights = [len(rows) + 2 for _, rows in groups]

    def split(most: int) -> list[list[Group]]:
        found: list[list[Group]] = [[]]
        filled = 0
        for group, height in zip(groups, heights, strict=True):
            if filled + height > most and found[-1]:
                found.append([])
                filled = 0
            found[-1].append(group)
            filled += height
        return found

    return next(parts for most in range(max(heights), sum(heights) + 1) if len(parts := split(most)) <= count)


class ShortcutSheet(QDialog):
    """Shown by Ctrl+F1; Escape closes it."""

    def __init__(self, commands: Commands, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle(tr("Keys"))
        self.setObjectName("keys")
        body = QWidget()
        body.setObjectName("page")
        columns = QHBoxLayout(body)
        columns.setContentsMargins(18, 8, 14, 10)
        columns.setSpacing(16)
        groups = [
            (title, [(c.shortcut, c.words) for c in commands if self._belongs(c, key)]) for key, title in GROUPS.items()
        ]
        groups = [*(group for group in groups if group[1]), (tr("On a drawing"), list(ON_A_DRAWING))]
        for part in in_columns(groups, COLUMNS):
            column = QVBoxLayout()
            column.setSpacing(2)
            for title, rows in part:
                self._fill(column, title, rows)
            column.addStretch(1)
            columns.addLayout(column)
        self._scrolled(body, parent)

    def _scrolled(self, body: QWidget, parent: QWidget) -> None:
        """As large as it wants to be, but never larger than the window it lies on; what is over is scrolled to."""
        area = QScrollArea()
        area.setObjectName("page")
        area.setWidget(body)
        area.setWidgetResizable(True)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addWidget(area)
        wanted, bar = body.sizeHint(), area.verticalScrollBar().sizeHint().width()
        room = parent.window().size() - QSize(ROOM_PX, ROOM_PX)
        self.resize(min(wanted.width() + bar + 4, room.width()), min(wanted.height() + 4, room.height()))

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
        grid.setHorizontalSpacing(10)
        grid.setVerticalSpacing(2)
        grid.setColumnMinimumWidth(0, 88)
        grid.setColumnStretch(1, 1)
        for row, pair in enumerate(rows):
            for at, text in enumerate(pair):
                label = PlainLabel(text)
                label.setFont(font(13, strong=at == 0))
                grid.addWidget(label, row, at)
        column.addLayout(grid)
