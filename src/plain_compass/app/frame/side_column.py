"""The right column: findings, the tree sheet, or a panel of a step; below them what to measure better."""

from __future__ import annotations

from collections.abc import Callable
from typing import cast

from PySide6.QtCore import Qt, QTimer
from PySide6.QtWidgets import (
    QButtonGroup,
    QComboBox,
    QHBoxLayout,
    QLineEdit,
    QStackedWidget,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from ...core.advice.mend import Mend
from ...job.language import tr
from .findings_list import FindingsList
from .fitted_button import FittedButton
from .late import Late
from .mend_watch import MendWatch
from .page import Panel
from .sheet import Sheet
from .store import Snapshot, Store
from .survey_line import SurveyLine

COLUMN = 306
"""Two findings' words a line at the size they are written, and three fields beside one another."""


def first_to_type_in(face: QWidget) -> QWidget | None:
    """The first entry of a form that can take the keyboard."""
    entries = (w for w in face.findChildren(QWidget) if isinstance(w, (QLineEdit, QComboBox)))
    return next((w for w in entries if w.isVisible() and w.isEnabled()), None)


class SideColumn(QWidget):
    """Faces of one width, so that the drawing never changes its size; panels are made when first shown."""

    def __init__(
        self, store: Store, panels: dict[str, Callable[[], QWidget]], dress: Callable[[QWidget], None], guide: QWidget
    ) -> None:
        super().__init__()
        self.store, self._dress = store, dress
        self.setObjectName("page")
        self.setFixedWidth(COLUMN)
        self.findings, self.sheet, self.survey = FindingsList(), Sheet(store), SurveyLine(store)
        self.mends = MendWatch(store)
        self.mends.found.connect(self._mends_found)
        self.findings.ticked.connect(store.tick)
        self.findings.taken.connect(store.take_mend)
        self.findings.pointed.connect(self._point_at)
        self.panels = Late(panels, self._panel_made)
        self.stack = QStackedWidget()
        self.stack.addWidget(self.findings)
        self.stack.addWidget(self.sheet)
        self.tabs: list[QToolButton] = []
        self.shown = 0
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(0)
        layout.addLayout(self._tab_row())
        layout.addWidget(self.stack, 1)
        layout.addWidget(guide)
        layout.addWidget(self.survey)
        self.show_face(0)

    def _tab_row(self) -> QHBoxLayout:
        row = QHBoxLayout()
        row.setContentsMargins(6, 0, 6, 0)
        group = QButtonGroup(self)
        for number, words in enumerate((tr("Findings"), tr("Tree sheet"), *map(tr, self.panels.keys_there))):
            tab = FittedButton()
            tab.setText(words)
            tab.setToolTip(f"{words} (F2)")
            tab.setCheckable(True)
            tab.setProperty("tab", True)
            tab.setProperty("narrow", True)
            tab.clicked.connect(lambda _=False, n=number: self.show_face(n))
            group.addButton(tab)
            row.addWidget(tab)
            self.tabs.append(tab)
        row.addStretch()
        return row

    def _panel_made(self, panel: QWidget) -> None:
        self.stack.addWidget(panel)
        self._dress(panel)

    def show_face(self, number: int) -> None:
        """Findings (0), sheet (1), or a panel."""
        fixed = (self.findings, self.sheet)
        later = self.panels.keys_there
        self.stack.setCurrentWidget(fixed[number] if number < len(fixed) else self.panels[later[number - len(fixed)]])
        self.tabs[number].setChecked(True)
        self.shown = number
        self._refresh_forms(self.store.snapshot)

    def follow_step(self, key: str) -> None:
        """On Stump what is read beside it, elsewhere the findings again: unless another face was asked for."""
        stump = 2 + self.panels.keys_there.index("Stump") if "Stump" in self.panels.keys_there else 0
        if key == "stump" and self.shown == 0:
            self.show_face(stump)
        elif key != "stump" and self.shown == stump:
            self.show_face(0)

    def next_face(self) -> None:
        """The next face, with the keyboard in it."""
        self.show_face((self.shown + 1) % len(self.tabs))
        face = self.stack.currentWidget()
        if face is not None:
            (first_to_type_in(face) or face).setFocus(Qt.FocusReason.TabFocusReason)

    def show_field(self, path: str) -> bool:
        """The sheet at a field, with the keyboard in it; False where the sheet has no such field."""
        if not path:
            return False
        before = self.shown
        self.show_face(1)
        field = self.sheet.findChild(QWidget, path)
        if field is None:
            self.show_face(before)
            return False
        self.sheet.ensureWidgetVisible(field)
        field.setFocus(Qt.FocusReason.OtherFocusReason)
        # And again when what brought one here has been dealt with: a click gives its own widget the keyboard last.
        QTimer.singleShot(0, field, lambda: field.setFocus(Qt.FocusReason.OtherFocusReason))
        return True

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document."""
        self._refresh_forms(snapshot)
        if self.store.previewing:
            # What is pointed at must not move away from under the pointer.
            return
        shown = snapshot.result.findings, snapshot.speech, self.mends.answer
        self.findings.show_findings(*shown, dragging=self.store.dragging)

    def _mends_found(self, _: object) -> None:
        self.refresh(self.store.snapshot)

    def _point_at(self, mend: Mend | None) -> None:
        if mend is None:
            self.store.end_look()
        else:
            self.store.look_ahead(mend)

    def _refresh_forms(self, snapshot: Snapshot) -> None:
        self.sheet.refresh(snapshot)
        for panel in self.panels.values():
            cast(Panel, panel).refresh(snapshot)
