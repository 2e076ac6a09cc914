"""A choice among few words: the one kind of drop-down in the program."""

from __future__ import annotations

from PySide6.QtGui import QWheelEvent
from PySide6.QtWidgets import QComboBox, QWidget

from ...job.fields import choice_at
from ...job.language import tr
from ...job.tables import practices, species_table
from ..drawing.palette import font
from .field_names import own_name
from .store import Snapshot, Store

TABLES = {
    "tree.species": lambda: {key: tr(wood.name) for key, wood in species_table().items()},
    "practice": lambda: {key: tr(practice.name) for key, practice in practices().items()},
}
LABELS = {
    "tree.species": (tr("species"), tr("Sets density, strength and readiness to split.")),
    "practice": (tr("practice"), tr("The school whose ranges the design is held against.")),
}


class ChoiceEdit(QComboBox):
    """Shows one choice of the document; picking another sets it."""

    def __init__(self, store: Store, path: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.path = store, path
        self.setFont(font(14))
        self.setObjectName(path)
        self.setMinimumContentsLength(10)
        self.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self._told: tuple[str, ...] = ()
        self.activated.connect(self._picked)

    def options(self) -> tuple[str, dict[str, str], str]:
        """(label, options, help)."""
        if self.path in TABLES:
            label, text = LABELS[self.path]
            return label, TABLES[self.path](), text
        return choice_at(self.path)

    def refresh(self, snapshot: Snapshot) -> None:
        """Show the document's choice in the person's vocabulary."""
        label, options, text = self.options()
        told = tuple(snapshot.speech.say(words) for words in options.values())
        if told != self._told:
            self._told = told
            self.blockSignals(True)
            self.clear()
            for key, words in zip(options, told, strict=True):
                self.addItem(words[:1].upper() + words[1:], key)
            self.blockSignals(False)
            self.setAccessibleName(own_name(snapshot.speech.say(label), self.path, snapshot))
            self.setToolTip(snapshot.speech.say(text))
        self.setCurrentIndex(self.findData(snapshot.value(self.path)))

    def _picked(self, index: int) -> None:
        key = self.itemData(index)
        if key == self.store.snapshot.value(self.path):
            return
        if not self.store.set(self.path, key, f"{self.accessibleName()}: {self.itemText(index)}"):
            self.refresh(self.store.snapshot)

    def wheelEvent(self, event: QWheelEvent) -> None:
        """Scrolling past a choice must not change it."""
        event.ignore()
