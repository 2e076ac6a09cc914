"""The three best designs for this tree: progress and cancel while they are searched, one key to take one over."""

from __future__ import annotations

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QApplication,
    QDialog,
    QLabel,
    QProgressBar,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from ...core.advice.suggest import Suggested, suggest
from ...core.base.quantity import Kind
from ...core.judge.unmeasured import UnmeasuredError
from ...job.document import with_plan
from ...job.spreads import spreads_of
from ..drawing.palette import font
from ..drawing.text import unbroken
from .plain_label import PlainLabel
from .store import Store


class SuggestDialog(QDialog):
    """Searches when it opens; keys 1, 2 and 3 take a design over, Escape leaves everything as it is."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.found: Suggested | None = None
        self.cancelled = self.searching = False
        self.setWindowTitle("Suggested designs")
        self.resize(680, 520)
        body = QWidget()
        self.column = QVBoxLayout(body)
        self.column.setSpacing(6)
        self.head = self._label("Searching the table of cuts …", strong=True)
        area = QScrollArea()
        area.setWidget(body)
        area.setWidgetResizable(True)
        whole = QVBoxLayout(self)
        whole.addWidget(area)
        self.bar = QProgressBar()
        self.bar.setRange(0, 100)
        whole.addWidget(self.bar)
        self.stop = QPushButton("Cancel")
        self.stop.clicked.connect(self.reject)
        whole.addWidget(self.stop)
        QTimer.singleShot(0, self, self.search)

    def _label(self, text: str, *, strong: bool = False) -> QLabel:
        label = PlainLabel(unbroken(text))
        label.setWordWrap(True)
        label.setFont(font(14, strong=strong))
        self.column.addWidget(label)
        return label

    def search(self) -> None:
        """Search a design at a time; the window stays awake in between."""

        def tell(share: float) -> bool:
            self.bar.setValue(round(100 * share))
            QApplication.processEvents()
            return not self.cancelled

        if self.searching:
            return
        self.searching = True
        try:
            found = suggest(self.store.snapshot.result, tell, spreads_of(self.store.snapshot.plan))
        except UnmeasuredError as error:
            self.bar.hide()
            self.head.setText(self.store.snapshot.speech.phrase(error.sentence))
            self.column.addStretch()
            self.stop.setText("Leave the cut as it is")
            return
        if found is not None:
            self._show(found)

    def _show(self, found: Suggested) -> None:
        self.found = found
        self.bar.hide()
        speech = self.store.snapshot.speech
        count = f"{found.tried} designs of the table were assessed for this tree, lay and kit."
        self.head.setText(count if found.best else f"{count} None is good enough: a rope, a machine, or another lay.")
        for number, each in enumerate(found.best, start=1):
            words, margin = speech.phrase(each.words), speech.show(max(each.margin, 0.0), Kind.RATIO)
            self._label(f"{number}. {words}: least margin {margin}", strong=True)
            self._label(speech.verdict(each.result.verdict))
            if each.gives_up:
                self._label("Gives up: " + " ".join(speech.phrase(finding.sentence) for finding in each.gives_up[:2]))
            take = QPushButton(f"Take it over (key {number})")
            take.setObjectName(f"take:{number}")
            take.clicked.connect(lambda _=False, n=number: self.take(n))
            self.column.addWidget(take)
        if found.nearest is not None:
            self._label(f"Nearest: {speech.tell(found.nearest.words)}. Stopped by:")
            for finding in found.nearest.stops[:3]:
                self._label("⊘ " + speech.phrase(finding.sentence))
        self.column.addStretch()
        self.stop.setText("Leave the cut as it is")

    def take(self, number: int) -> None:
        """Put a design in place of the cut, as one step."""
        if self.found is None or not 1 <= number <= len(self.found.best):
            return
        each, tree = self.found.best[number - 1], self.store.tree_id
        words = self.store.snapshot.speech.tell(each.words)
        self.store.change(f"suggestion: {words}", lambda job: with_plan(job, tree, "cut", each.cut))
        self.accept()

    def reject(self) -> None:
        """Stop searching and leave the cut as it is."""
        self.cancelled = True
        super().reject()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """1, 2 and 3 take a design over."""
        if Qt.Key.Key_1 <= event.key() <= Qt.Key.Key_3:
            self.take(event.key() - Qt.Key.Key_0)
        else:
            super().keyPressEvent(event)
