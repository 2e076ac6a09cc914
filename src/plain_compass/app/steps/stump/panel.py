"""Beside the drawings: everything that can be read off a stump, in the order of the page one takes along."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QScrollArea, QSizePolicy, QVBoxLayout, QWidget

from ....job.fields import is_choice, is_number
from ....job.language import tr
from ....job.stump_rows import PARTS, Row, asked
from ...drawing.palette import font
from ...frame.choice_edit import ChoiceEdit
from ...frame.commands import Commands
from ...frame.field_edit import FieldEdit
from ...frame.plain_label import PlainLabel
from ...frame.store import Snapshot, Store
from ...frame.text_edit import TextEdit

NAMES_PX, LEAST_PX = 108, 60
"""Width of what is asked, and the least of a field beside it."""
Editor = FieldEdit | ChoiceEdit | TextEdit


class AsCutPanel(QScrollArea):
    """All of it: what is not on a drawing, and what is."""

    def __init__(self, store: Store, commands: Commands, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.setObjectName("sheet")
        self.setAccessibleName(tr("The stump as it was cut"))
        self.setWidgetResizable(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.editors: list[Editor] = []
        self._headings: list[tuple[str, PlainLabel]] = []
        self._names: list[tuple[Row, PlainLabel]] = []
        body = QWidget()
        body.setObjectName("sheetbody")
        self._column = QVBoxLayout(body)
        self._column.setContentsMargins(12, 4, 10, 12)
        self._column.setSpacing(3)
        for part, rows in PARTS.items():
            heading = PlainLabel()
            heading.setFont(font(14, strong=True))
            heading.setContentsMargins(0, 6, 0, 0)
            self._headings.append((part, heading))
            self._column.addWidget(heading)
            for row in rows:
                self._add(row)
        self._column.addStretch()
        self.setWidget(body)

    def _add(self, row: Row) -> None:
        name = PlainLabel()
        name.setFont(font(13, narrow=True))
        name.setWordWrap(True)
        name.setFixedWidth(NAMES_PX)
        self._names.append((row, name))
        line = QHBoxLayout()
        line.setSpacing(4)
        line.addWidget(name)
        for field in row:
            editor = self._editor(f"as_cut.{field}")
            if isinstance(editor, ChoiceEdit):
                editor.setMinimumContentsLength(3)
            editor.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
            editor.setMinimumWidth(LEAST_PX)
            self.editors.append(editor)
            line.addWidget(editor, 1)
        name.setBuddy(self.editors[-len(row)])
        self._column.addLayout(line)

    def _editor(self, path: str) -> Editor:
        if is_choice(path):
            return ChoiceEdit(self.store, path)
        return FieldEdit(self.store, path) if is_number(path) else TextEdit(self.store, path)

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document."""
        if not self.isVisible():
            return
        for part, heading in self._headings:
            heading.setText(snapshot.speech.named("stump_parts", part))
        for row, name in self._names:
            name.setText(asked(row, snapshot.speech))
        for editor in self.editors:
            editor.refresh(snapshot)
