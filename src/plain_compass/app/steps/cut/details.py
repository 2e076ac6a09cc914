"""Below the choosers: the numbers that only some forms of cut have."""

from __future__ import annotations

from PySide6.QtWidgets import QHBoxLayout, QWidget

from ....core.cuts import form_of
from ....job.fields import is_choice
from ...drawing.palette import font
from ...frame.choice_edit import ChoiceEdit
from ...frame.field_edit import FieldEdit
from ...frame.plain_label import PlainLabel
from ...frame.store import Snapshot, Store


class Details(QWidget):
    """One row of fields, made anew when a form changes; hidden where no form has any."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.editors: list[FieldEdit | ChoiceEdit] = []
        self._shown: tuple[str, ...] = ()
        self.row = QHBoxLayout(self)
        self.row.setContentsMargins(10, 0, 10, 4)
        self.row.setSpacing(6)

    def refresh(self, snapshot: Snapshot) -> bool:
        """Follow the document; returns whether there are other fields now."""
        cut = snapshot.plan.cut
        forms = [form_of(*each) for each in cut.forms.items()]
        paths = tuple(path for form in forms for path in form.fields)
        if cut.aim_off_deg:
            paths = ("cut.aim_off_deg", *paths)
        for name in ("nip_m", "middle_m"):
            if getattr(cut.hinge, name) > 0 and f"cut.hinge.{name}" not in paths:
                paths = (f"cut.hinge.{name}", *paths)
        others = paths != self._shown
        if others:
            self._fill(paths, {path: name for form in forms for path, name in form.labels.items()}, snapshot)
        for editor in self.editors:
            editor.refresh(snapshot)
        self.setVisible(bool(paths))
        return others

    def _fill(self, paths: tuple[str, ...], labels: dict[str, str], snapshot: Snapshot) -> None:
        self._shown = paths
        while (item := self.row.takeAt(0)) is not None:
            if (old := item.widget()) is not None:
                old.hide()
                old.deleteLater()
        self.editors = []
        for path in paths:
            editor = ChoiceEdit(self.store, path) if is_choice(path) else FieldEdit(self.store, path)
            editor.refresh(snapshot)
            editor.setFixedWidth(104 if is_choice(path) else 76)
            label = PlainLabel(snapshot.speech.tell(labels[path]) if path in labels else editor.accessibleName())
            label.setFont(font(13, narrow=True))
            label.setBuddy(editor)
            self.row.addWidget(label)
            self.row.addWidget(editor)
            self.editors.append(editor)
        self.row.addStretch()
