"""Choosing a form of cut from the table: its statement is read first where it is a specialist's."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtGui import QWheelEvent
from PySide6.QtWidgets import QComboBox, QMessageBox, QWidget

from ....core.cuts import form_of, forms_of
from ....core.cuts.form import CutForm
from ....core.judge.cut import was_read
from ....job.edits import take_form
from ....job.language import tr
from ....job.words import Speech
from ...drawing.palette import LIGHT, Palette, font
from ...frame.plain_label import plain_tip
from ...frame.store import Snapshot, Store
from .tiles import FormTiles

TITLES = {"face": tr("Form of the [face]"), "hinge": tr("Form of the [hinge]"), "back": tr("Form of the [back cut]")}


def ask_read(parent: QWidget, form: CutForm, speech: Speech) -> bool:
    """Show what a specialist form needs; whether the person says it was read for this tree."""
    box = QMessageBox(parent)
    box.setTextFormat(Qt.TextFormat.PlainText)
    box.setText(tr("{name}: a specialist cut.", name=speech.phrase(form.name)))
    box.setInformativeText(speech.phrase(form.needs))
    read = box.addButton(tr("Read, for this tree"), QMessageBox.ButtonRole.AcceptRole)
    box.addButton(tr("Leave it"), QMessageBox.ButtonRole.RejectRole)
    box.exec()
    return box.clickedButton() is read


class FormChoice(QComboBox):
    """The forms of one part of the cut. ``ask`` is a plain attribute, so that tests can answer it."""

    def __init__(self, store: Store, part: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.part = store, part
        self.ask: Callable[[QWidget, CutForm, Speech], bool] = ask_read
        self._speech: Speech | None = None
        self.palette_in_use: Palette = LIGHT
        self.setFont(font(14))
        self.setObjectName(f"form:{part}")
        self.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.setMinimumContentsLength(10)
        for form in sorted(forms_of(part), key=lambda form: (form.specialist, form.name)):
            self.addItem("", form.key)
        self._name_forms(store.snapshot.speech)
        self.activated.connect(self._picked)

    def _name_forms(self, speech: Speech) -> None:
        """The rows in someone's words; they stay the same rows, so that a choice being made is not lost."""
        if speech == self._speech:
            return
        self._speech = speech
        self.setAccessibleName(speech.say(TITLES[self.part]))
        for row in range(self.count()):
            form = form_of(self.part, self.itemData(row))
            name = speech.phrase(form.name)
            self.setItemText(row, tr("{name} (specialist)", name=name) if form.specialist else name)
            about = plain_tip(
                tr(
                    "{purpose}\nWatch for: {drill}",
                    purpose=speech.phrase(form.purpose),
                    drill=speech.phrase(form.drill),
                )
            )
            self.setItemData(row, about, Qt.ItemDataRole.ToolTipRole)

    def refresh(self, snapshot: Snapshot) -> None:
        """Show the document's form."""
        key = snapshot.value(f"cut.{self.part}.form")
        self._name_forms(snapshot.speech)
        self.setCurrentIndex(self.findData(key))
        form = form_of(self.part, key)
        fit = form.fits(snapshot.result)
        say = snapshot.speech.phrase
        self.setToolTip(
            plain_tip("\n".join((say(form.purpose), say(fit.why), tr("Watch for: {drill}", drill=say(form.drill)))))
        )

    def showPopup(self) -> None:
        """The forms as tiles, each drawn on this tree."""
        snapshot = self.store.snapshot
        forms = [form_of(self.part, self.itemData(row)) for row in range(self.count())]
        now = snapshot.value(f"cut.{self.part}.form")
        self.tiles = FormTiles(snapshot.result, forms, now, snapshot.speech, self)
        self.tiles.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.tiles.dress(self.palette_in_use)
        self.tiles.taken.connect(lambda key: self._picked(self.findData(key)))
        # Below the choice, moved left as far as it must be to lie on the window.
        at, window = self.mapToGlobal(self.rect().bottomLeft()), self.window()
        right = window.mapToGlobal(window.rect().bottomRight()).x() - self.tiles.width() - 8
        self.tiles.move(max(min(at.x(), right), window.mapToGlobal(window.rect().topLeft()).x()), at.y())
        self.tiles.show()
        self.tiles.begin()

    def _picked(self, index: int) -> None:
        key = self.itemData(index)
        snapshot = self.store.snapshot
        if key == snapshot.value(f"cut.{self.part}.form"):
            return
        form = form_of(self.part, key)
        read = False
        if form.specialist and not was_read(snapshot.plan.cut.read, form):
            read = self.ask(self, form, snapshot.speech)
            if not read:
                self.refresh(snapshot)
                return
        tree = self.store.tree_id
        if not self.store.change(
            snapshot.speech.tell(form.name), lambda job: take_form(job, tree, self.part, key, read=read)
        ):
            self.refresh(self.store.snapshot)

    def wheelEvent(self, event: QWheelEvent) -> None:
        """Scrolling past a choice must not change it."""
        event.ignore()
