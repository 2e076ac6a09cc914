"""The side sheet: what cannot be drawn. Built from the declarations, a row a field."""

from __future__ import annotations

from PySide6.QtCore import Qt, QTimer
from PySide6.QtWidgets import (
    QFormLayout,
    QLabel,
    QLineEdit,
    QPlainTextEdit,
    QScrollArea,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from ...job.edits import nothing_seen, rename_tree, unseen
from ...job.fields import choice_at, is_choice, quantity_at
from ...job.language import tr
from ...job.lists import LISTS, add_item, remove_item
from ..drawing.palette import font
from .choice_edit import LABELS, TABLES, ChoiceEdit
from .field_edit import FieldEdit
from .fitted_button import FittedButton
from .item_row import ItemRow
from .plain_label import PlainLabel
from .sheet_sections import SECTIONS, WALK_ROUND, expanded
from .store import Snapshot, Store


class Sheet(QScrollArea):
    """All fields that are not on the drawing."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.setObjectName("sheet")
        self.setAccessibleName(tr("Tree sheet"))
        self.setWidgetResizable(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._rows: dict[str, tuple[QLabel, QWidget]] = {}
        self._items: list[ItemRow] = []
        self._shape: tuple[tuple[str, tuple[str, ...]], ...] = ()

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document; rows are made anew only when which rows there are has changed."""
        if not self.isVisible():
            return
        shape = self._paths(snapshot)
        if shape != self._shape:
            self._shape = shape
            self._build(snapshot)
        self.seen.setEnabled(bool(unseen(snapshot.plan.tree)))
        for item in self._items:
            item.refresh(snapshot)
        for path, (label, widget) in self._rows.items():
            label.setText(self._label(path, snapshot))
            if isinstance(widget, (FieldEdit, ChoiceEdit)):
                widget.refresh(snapshot)
        self._show_texts(snapshot)

    def _paths(self, snapshot: Snapshot) -> tuple[tuple[str, tuple[str, ...]], ...]:
        return tuple((title, tuple(expanded(paths, snapshot))) for title, paths in SECTIONS)

    def _build(self, snapshot: Snapshot) -> None:
        focused = self.focusWidget().objectName() if self.focusWidget() else ""
        seen = self.verticalScrollBar().value()
        self._rows, self._items = {}, []
        body = QWidget()
        body.setObjectName("sheetbody")
        column = QVBoxLayout(body)
        column.setContentsMargins(12, 8, 10, 12)
        column.setSpacing(4)
        column.addLayout(self._texts())
        for title, paths in self._shape:
            heading = PlainLabel(title)
            heading.setFont(font(14, strong=True))
            heading.setWordWrap(True)
            heading.setContentsMargins(0, 10, 0, 2)
            column.addWidget(heading)
            if title == WALK_ROUND:
                column.addWidget(self._nothing_seen())
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
        # The person stays where he was; how far the new rows reach is known once they are laid out.
        QTimer.singleShot(0, self, lambda: self.verticalScrollBar().setValue(seen))

    def _form(self, paths: tuple[str, ...]) -> QFormLayout:
        form = QFormLayout()
        form.setLabelAlignment(Qt.AlignmentFlag.AlignLeft)
        form.setFieldGrowthPolicy(QFormLayout.FieldGrowthPolicy.AllNonFixedFieldsGrow)
        form.setVerticalSpacing(4)
        for path in paths:
            kind, _, base = path.partition(":")
            if kind in ("item", "more"):
                form.addRow(self._item(base) if kind == "item" else self._more(base))
                continue
            label = PlainLabel()
            label.setFont(font(13))
            label.setWordWrap(True)
            widget: QWidget
            if _is_choice(path):
                widget = ChoiceEdit(self.store, path)
            else:
                widget = FieldEdit(self.store, path.removeprefix("girth:"), as_girth=path.startswith("girth:"))
                widget.setFixedWidth(100)
            # Where the name of a choice is its text, as on this desktop, its label says what is chosen.
            label.setBuddy(widget)
            self._rows[path] = (label, widget)
            form.addRow(label, widget)
        return form

    def _nothing_seen(self) -> QToolButton:
        """The walk round answered at once."""
        store, self.seen = self.store, FittedButton()
        self.seen.setText(tr("All looked at: nothing above, no life"))
        self.seen.setObjectName("nothing_seen")
        self.seen.setProperty("framed", True)
        self.seen.setFont(font(13))
        self.seen.setToolTip(tr("Answers with no whatever here is still unknown (Alt+N); leave and licence stay open."))
        self.seen.clicked.connect(
            lambda: store.change(tr("all looked at"), lambda job: nothing_seen(job, store.tree_id))
        )
        return self.seen

    def _item(self, path: str) -> ItemRow:
        base, _, number = path.rpartition(".")
        row = ItemRow(self.store, path, lambda: self._remove(base, int(number)))
        self._items.append(row)
        return row

    def _more(self, base: str) -> QToolButton:
        button = FittedButton()
        button.setText(tr("Add {name}", name=LISTS[base].name))
        button.setObjectName(f"add:{base}")
        button.setFont(font(13))
        button.clicked.connect(lambda: self._add(base))
        return button

    def _add(self, base: str) -> None:
        store = self.store
        store.change(tr("{name} added", name=LISTS[base].name), lambda job: add_item(job, store.tree_id, base))

    def _remove(self, base: str, index: int) -> None:
        store = self.store
        store.change(
            tr("{name} removed", name=LISTS[base].name), lambda job: remove_item(job, store.tree_id, base, index)
        )

    def _texts(self) -> QFormLayout:
        form = QFormLayout()
        form.setLabelAlignment(Qt.AlignmentFlag.AlignLeft)
        self.tree_name, self.job_name, self.who, self.notes = QLineEdit(), QLineEdit(), QLineEdit(), QPlainTextEdit()
        self.who.setToolTip(tr("Your name or initials: what a duty is ticked with."))
        self.notes.setFixedHeight(54)
        self.notes.setTabChangesFocus(True)
        rows = (
            (tr("Tree"), self.tree_name),
            (tr("Job"), self.job_name),
            (tr("You"), self.who),
            (tr("Notes"), self.notes),
        )
        for words, widget in rows:
            widget.setFont(font(14))
            widget.setAccessibleName(words)
            label = PlainLabel(words)
            label.setFont(font(13))
            label.setBuddy(widget)
            form.addRow(label, widget)
        self.tree_name.editingFinished.connect(self._rename)
        self.job_name.editingFinished.connect(lambda: self._set_text("name", self.job_name.text(), tr("job name")))
        self.who.editingFinished.connect(lambda: self._set_text("person.name", self.who.text(), tr("your name")))
        self.notes.textChanged.connect(lambda: self._set_text("notes", self.notes.toPlainText(), "notes"))
        return form

    def _show_texts(self, snapshot: Snapshot) -> None:
        names = (
            (self.tree_name, snapshot.plan.id),
            (self.job_name, snapshot.job.name),
            (self.who, snapshot.job.person.name),
        )
        for widget, text in names:
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
        store.edit(tr("tree called {name}", name=name), job, name)

    @staticmethod
    def _label(path: str, snapshot: Snapshot) -> str:
        if path.startswith("girth:"):
            return tr("girth")
        if _is_choice(path):
            label = LABELS[path][0] if path in TABLES else choice_at(path)[0]
            return snapshot.speech.say(label)
        return snapshot.speech.label(quantity_at(path))


def _is_choice(path: str) -> bool:
    return path in TABLES or (not path.startswith("girth:") and is_choice(path))
