"""One item of a list on the tree sheet: its fields side by side under their names, and a button that removes it."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtWidgets import QGridLayout, QLabel, QToolButton, QWidget

from ...job.fields import is_choice
from ...job.language import tr
from ...job.lists import LISTS
from ..drawing.palette import font
from .choice_edit import ChoiceEdit
from .field_edit import FieldEdit
from .plain_label import PlainLabel
from .store import Snapshot, Store

IN_A_ROW = 3
"""Fields beside one another in the column at its usual width."""


class ItemRow(QWidget):
    """Editors of one item."""

    def __init__(self, store: Store, path: str, remove: Callable[[], None]) -> None:
        super().__init__()
        base, _, number = path.rpartition(".")
        what = LISTS[base]
        self.editors: list[FieldEdit | ChoiceEdit] = []
        self.labels: list[QLabel] = []
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 2, 0, 4)
        grid.setHorizontalSpacing(4)
        grid.setVerticalSpacing(0)
        for place, name in enumerate(what.fields):
            row, column = divmod(place, IN_A_ROW)
            full = f"{path}.{name}"
            editor = ChoiceEdit(store, full) if is_choice(full) else FieldEdit(store, full)
            editor.setMinimumWidth(40)
            label = PlainLabel()
            label.setFont(font(12, narrow=True))
            label.setWordWrap(True)
            label.setBuddy(editor)
            # The last one takes what is left of its row.
            span = IN_A_ROW - column if place == len(what.fields) - 1 else 1
            grid.addWidget(label, 2 * row, column, 1, span)
            grid.addWidget(editor, 2 * row + 1, column, 1, span)
            grid.setColumnStretch(column, 1)
            self.editors.append(editor)
            self.labels.append(label)
        gone = QToolButton()
        gone.setText("✕")
        gone.setObjectName(f"remove:{path}")
        gone.setToolTip(tr("Remove {name} {number}", name=what.name, number=int(number) + 1))
        gone.setAccessibleName(tr("Remove {name} {number}", name=what.name, number=int(number) + 1))
        gone.clicked.connect(remove)
        grid.addWidget(gone, 1, IN_A_ROW)

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document."""
        for label, editor in zip(self.labels, self.editors, strict=True):
            editor.refresh(snapshot)
            label.setText(editor.accessibleName())
