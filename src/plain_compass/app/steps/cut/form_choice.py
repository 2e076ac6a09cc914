"""Choosing a form of cut from the table: its statement is read first where it is a specialist's."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtGui import QWheelEvent
from PySide6.QtWidgets import QComboBox, QMessageBox, QWidget

from ....core.cuts import form_of, forms_of
from ....core.cuts.form import CutForm
from ....core.judge_cut import was_read
from ....job.edits import take_form
from ...drawing.palette import font
from ...frame.store import Snapshot, Store

TITLES = {"face": "Form of the face", "hinge": "Form of the hinge", "back": "Form of the back cut"}


def ask_read(parent: QWidget, form: CutForm) -> bool:
    """Show what a specialist form needs; whether the person says it was read for this tree."""
    box = QMessageBox(parent)
    box.setText(f"{form.name[:1].upper()}{form.name[1:]}: a specialist cut.")
    box.setInformativeText(form.needs)
    read = box.addButton("Read, for this tree", QMessageBox.ButtonRole.AcceptRole)
    box.addButton("Leave it", QMessageBox.ButtonRole.RejectRole)
    box.exec()
    return box.clickedButton() is read


class FormChoice(QComboBox):
    """The forms of one part of the cut. ``ask`` is a plain attribute, so that tests can answer it."""

    def __init__(self, store: Store, part: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.part = store, part
        self.ask: Callable[[QWidget, CutForm], bool] = ask_read
        self.setFont(font(14))
        self.setObjectName(f"form:{part}")
        self.setAccessibleName(TITLES[part])
        self.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.setMinimumContentsLength(10)
        for form in sorted(forms_of(part), key=lambda form: (form.specialist, form.name)):
            name = f"{form.name[:1].upper()}{form.name[1:]}"
            self.addItem(f"{name} (specialist)" if form.specialist else name, form.key)
            self.setItemData(self.count() - 1, f"{form.purpose}\nWatch for: {form.drill}", 3)
        self.activated.connect(self._picked)

    def refresh(self, snapshot: Snapshot) -> None:
        """Show the document's form."""
        key = snapshot.value(f"cut.{self.part}.form")
        self.setCurrentIndex(self.findData(key))
        form = form_of(self.part, key)
        fit = form.fits(snapshot.result)
        self.setToolTip(f"{form.purpose}\n{fit.why}\nWatch for: {form.drill}")

    def _picked(self, index: int) -> None:
        key = self.itemData(index)
        snapshot = self.store.snapshot
        if key == snapshot.value(f"cut.{self.part}.form"):
            return
        form = form_of(self.part, key)
        read = False
        if form.specialist and not was_read(snapshot.plan.cut.read, form):
            read = self.ask(self, form)
            if not read:
                self.refresh(snapshot)
                return
        tree = self.store.tree_id
        if not self.store.change(form.name, lambda job: take_form(job, tree, self.part, key, read=read)):
            self.refresh(self.store.snapshot)

    def wheelEvent(self, event: QWheelEvent) -> None:
        """Scrolling past a choice must not change it."""
        event.ignore()
