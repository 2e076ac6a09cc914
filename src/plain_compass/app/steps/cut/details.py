"""Below the choosers: the numbers that only some forms of cut have."""

from __future__ import annotations

from PySide6.QtWidgets import QHBoxLayout, QWidget

from ....job.fields import is_choice
from ...drawing.palette import font
from ...frame.choice_edit import ChoiceEdit
from ...frame.field_edit import FieldEdit
from ...frame.plain_label import PlainLabel
from ...frame.store import Snapshot, Store

FIELDS: dict[tuple[str, str], tuple[str, ...]] = {
    ("face", "narrow"): ("cut.hinge.nip_m",),
    ("face", "blocked"): ("cut.face.block_m", "cut.face.snipe_left_m", "cut.face.snipe_right_m"),
    ("hinge", "heart"): ("cut.hinge.heart_m",),
    ("hinge", "lengthened"): ("cut.hinge.side", "cut.hinge.lengthen_m"),
    ("hinge", "relieved"): ("cut.hinge.side", "cut.hinge.relief_ratio"),
    ("back", "toothed"): ("cut.back.lower_m",),
    ("back", "vees"): ("cut.back.strap_m",),
    ("back", "corner"): ("cut.back.side", "cut.back.strap_m", "cut.back.lower_m"),
    ("back", "quarter"): ("cut.back.side",),
    ("back", "sides"): ("cut.back.side", "cut.back.shaved"),
    ("back", "posts"): ("cut.back.strap_m",),
    ("back", "slot"): ("cut.back.slot_m", "cut.back.slot_length_m", "cut.back.strap_m"),
}
NAMES = {
    ("vees", "cut.back.strap_m"): "rib",
    ("corner", "cut.back.strap_m"): "corner, half",
    ("posts", "cut.back.strap_m"): "post",
}
"""What a length is called where it is not a strap."""


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

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document."""
        cut = snapshot.plan.cut
        paths = tuple(path for key in cut.forms.items() for path in FIELDS.get(key, ()))
        if cut.aim_off_deg:
            paths = ("cut.aim_off_deg", *paths)
        for name in ("nip_m", "middle_m"):
            if getattr(cut.hinge, name) > 0 and f"cut.hinge.{name}" not in paths:
                paths = (f"cut.hinge.{name}", *paths)
        if paths != self._shown:
            self._fill(paths, snapshot)
        for editor in self.editors:
            editor.refresh(snapshot)
        self.setVisible(bool(paths))

    def _fill(self, paths: tuple[str, ...], snapshot: Snapshot) -> None:
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
            name = NAMES.get((snapshot.plan.cut.back.form, path), editor.accessibleName())
            label = PlainLabel(name)
            label.setFont(font(13, narrow=True))
            self.row.addWidget(label)
            self.row.addWidget(editor)
            self.editors.append(editor)
        self.row.addStretch()
