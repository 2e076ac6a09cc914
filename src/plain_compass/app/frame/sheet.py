"""The side sheet: what cannot be drawn. Built from the declarations, a row a field."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFormLayout, QLabel, QLineEdit, QPlainTextEdit, QScrollArea, QVBoxLayout, QWidget

from ...job.edits import rename_tree
from ...job.fields import choice_at, quantity_at
from ...job.spreads import COMPASS_NAMES
from ..drawing.palette import font
from .choice_edit import LABELS, TABLES, ChoiceEdit
from .field_edit import FieldEdit
from .store import Snapshot, Store

SECTIONS: tuple[tuple[str, tuple[str, ...]], ...] = (
    (
        "Tree",
        (
            "tree.species",
            "girth:tree.trunk.diameter_m",
            "tree.trunk.diameter_m",
            "tree.trunk.at_m",
            "tree.trunk.cross_diameter_m",
            "tree.trunk.diameter_bearing_deg",
            "tree.trunk.butt_diameter_m",
            "tree.trunk.butt_at_m",
            "tree.trunk.bark_m",
            "tree.height_m",
            "tree.condition",
            "tree.crack",
        ),
    ),
    ("Crown, paced from the stem", ("tree.crown.base_m", "tree.crown.leaf", "tree.crown.readings.*.radius_m")),
    (
        "Lean",
        (
            "tree.lean.angle_deg",
            "tree.lean.bearing_deg",
            "tree.lean.method",
            "tree.lean.sweep_m",
            "tree.lean.sweep_bearing_deg",
        ),
    ),
    (
        "Rot at the cut",
        (
            "tree.decay.kind",
            "tree.decay.offset_m",
            "tree.decay.bearing_deg",
            "tree.decay.radius_m",
            "tree.decay.shell.*.sound_m",
        ),
    ),
    (
        "Saw and wedges",
        (
            "kit.bar_m",
            "kit.bar_width_m",
            "kit.kerf_m",
            "kit.wedge_length_m",
            "kit.wedge_thickness_m",
            "kit.wedge_width_m",
            "kit.wedge_seat_m",
            "kit.wedge_count",
            "kit.maul_J",
        ),
    ),
    ("Job", ("practice", "site.kept_away_lengths", "units", "words")),
)
CHOICES = (
    "tree.species",
    "tree.condition",
    "tree.crack",
    "tree.crown.leaf",
    "tree.lean.method",
    "tree.decay.kind",
    "practice",
    "units",
    "words",
)


def is_shown(path: str, snapshot: Snapshot) -> bool:
    """Rot's fields only where its kind uses them; a second diameter's bearing only when there is one."""
    kind = snapshot.plan.tree.decay.kind
    if path in ("tree.decay.offset_m", "tree.decay.bearing_deg", "tree.decay.radius_m"):
        return kind == "cavity"
    if path.startswith("tree.decay.shell"):
        return kind == "shell"
    if path == "tree.trunk.diameter_bearing_deg":
        return snapshot.plan.tree.trunk.cross_diameter_m is not None
    if path == "tree.trunk.butt_at_m":
        return snapshot.plan.tree.trunk.butt_diameter_m is not None
    return True


class Sheet(QScrollArea):
    """All fields that are not on the drawing."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.setObjectName("sheet")
        self.setWidgetResizable(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._rows: dict[str, tuple[QLabel, QWidget]] = {}
        self._shape: tuple[tuple[str, tuple[str, ...]], ...] = ()

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document; rows are made anew only when which rows there are has changed."""
        if not self.isVisible():
            return
        shape = self._paths(snapshot)
        if shape != self._shape:
            self._shape = shape
            self._build(snapshot)
        for path, (label, widget) in self._rows.items():
            label.setText(self._label(path, snapshot))
            if isinstance(widget, (FieldEdit, ChoiceEdit)):
                widget.refresh(snapshot)
            widget.setAccessibleName(label.text())
        self._show_texts(snapshot)

    def _paths(self, snapshot: Snapshot) -> tuple[tuple[str, tuple[str, ...]], ...]:
        return tuple((title, tuple(self._expanded(paths, snapshot))) for title, paths in SECTIONS)

    @staticmethod
    def _expanded(paths: tuple[str, ...], snapshot: Snapshot) -> list[str]:
        found = []
        for path in paths:
            plain = path.removeprefix("girth:")
            if not is_shown(plain, snapshot):
                continue
            if ".*." in path:
                base, rest = path.split(".*.")
                found += [f"{base}.{i}.{rest}" for i in range(len(snapshot.value(base)))]
            else:
                found.append(path)
        return found

    def _build(self, snapshot: Snapshot) -> None:
        focused = self.focusWidget().objectName() if self.focusWidget() else ""
        self._rows = {}
        body = QWidget()
        body.setObjectName("sheetbody")
        column = QVBoxLayout(body)
        column.setContentsMargins(12, 8, 10, 12)
        column.setSpacing(4)
        column.addLayout(self._texts())
        for title, paths in self._shape:
            heading = QLabel(title)
            heading.setFont(font(14, strong=True))
            heading.setContentsMargins(0, 10, 0, 2)
            column.addWidget(heading)
            column.addLayout(self._form(paths))
        column.addStretch()
        if (old := self.takeWidget()) is not None:
            # The change may come from a field of the old body, still in the middle of its key press.
            old.hide()
            old.deleteLater()
        self.setWidget(body)
        for _, widget in self._rows.values():
            if widget.objectName() == focused and focused:
                widget.setFocus()

    def _form(self, paths: tuple[str, ...]) -> QFormLayout:
        form = QFormLayout()
        form.setLabelAlignment(Qt.AlignmentFlag.AlignLeft)
        form.setFieldGrowthPolicy(QFormLayout.FieldGrowthPolicy.AllNonFixedFieldsGrow)
        form.setVerticalSpacing(4)
        for path in paths:
            label = QLabel()
            label.setFont(font(13))
            widget: QWidget
            if path in CHOICES:
                widget = ChoiceEdit(self.store, path)
            else:
                widget = FieldEdit(self.store, path.removeprefix("girth:"), as_girth=path.startswith("girth:"))
                widget.setFixedWidth(100)
            self._rows[path] = (label, widget)
            form.addRow(label, widget)
        return form

    def _texts(self) -> QFormLayout:
        form = QFormLayout()
        form.setLabelAlignment(Qt.AlignmentFlag.AlignLeft)
        self.tree_name, self.job_name, self.notes = QLineEdit(), QLineEdit(), QPlainTextEdit()
        self.notes.setFixedHeight(54)
        self.notes.setTabChangesFocus(True)
        for words, widget in (("Tree", self.tree_name), ("Job", self.job_name), ("Notes", self.notes)):
            widget.setFont(font(14))
            widget.setAccessibleName(words)
            label = QLabel(words)
            label.setFont(font(13))
            form.addRow(label, widget)
        self.tree_name.editingFinished.connect(self._rename)
        self.job_name.editingFinished.connect(lambda: self._set_text("name", self.job_name.text(), "job name"))
        self.notes.textChanged.connect(lambda: self._set_text("notes", self.notes.toPlainText(), "notes"))
        return form

    def _show_texts(self, snapshot: Snapshot) -> None:
        for widget, text in ((self.tree_name, snapshot.plan.id), (self.job_name, snapshot.job.name)):
            if not widget.hasFocus() and widget.text() != text:
                widget.setText(text)
        if self.notes.toPlainText() != snapshot.plan.notes:
            self.notes.blockSignals(True)
            self.notes.setPlainText(snapshot.plan.notes)
            self.notes.blockSignals(False)

    def _set_text(self, path: str, text: str, title: str) -> None:
        if text != self.store.snapshot.value(path):
            self.store.set(path, text, title, joins=True)

    def _rename(self) -> None:
        store, name = self.store, self.tree_name.text().strip()
        if name == store.tree_id:
            return
        try:
            job = rename_tree(store.snapshot.job, store.tree_id, name)
        except ValueError as error:
            store.refused.emit(store.snapshot.speech.error(error))
            return
        store.edit(f"tree called {name}", job, name)

    @staticmethod
    def _label(path: str, snapshot: Snapshot) -> str:
        if path.startswith("girth:"):
            return "girth"
        if path in CHOICES:
            label = LABELS[path][0] if path in TABLES else choice_at(path)[0]
            return snapshot.speech.say(label)
        if ".readings." in path or ".shell." in path:
            bearing = snapshot.value(path.rsplit(".", 1)[0]).bearing_deg
            return COMPASS_NAMES.get(bearing, snapshot.speech.show(bearing, "bearing"))
        return snapshot.speech.label(quantity_at(path))
