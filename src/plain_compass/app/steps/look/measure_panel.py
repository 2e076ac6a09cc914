"""Measuring in the side column: a way, its small drawing, what to type, the answer, and the readings taken."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QComboBox, QGridLayout, QHBoxLayout, QLineEdit, QScrollArea, QVBoxLayout, QWidget

from ....core.base.errors import PlainCompassError
from ....job.language import tr
from ....job.measuring import MeasureError, describe, measure, taken_from
from ....job.ways import EYE, METHODS, Answer, input_name, thing_name, way_name
from ...drawing.palette import font
from ...drawing.text import unbroken
from ...frame.commands import Commands
from ...frame.fitted_button import FittedButton
from ...frame.plain_label import PlainLabel
from ...frame.store import Snapshot, Store, now
from .explain import Explanation
from .instrument_panel import InstrumentPanel
from .readings_list import ReadingsList


class MeasurePanel(QScrollArea):
    """Takes one reading after another; each is kept and averaged into what it measures."""

    def __init__(self, store: Store, commands: Commands, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.setObjectName("sheet")
        self.setAccessibleName(tr("Measure"))
        self.setWidgetResizable(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.things, self.ways = QComboBox(), QComboBox()
        self.drawing = Explanation()
        self.how, self.answer = PlainLabel(), PlainLabel()
        self.inputs: dict[str, QLineEdit] = {}
        self.readings = ReadingsList(store)
        self.instruments = InstrumentPanel(store)
        self._answers: tuple[Answer, ...] = ()
        self._compose()
        self.things.addItems(list(map(thing_name, METHODS)))
        self.things.currentIndexChanged.connect(self._thing_picked)
        self.ways.currentIndexChanged.connect(self._way_picked)
        self._thing_picked()

    def _compose(self) -> None:
        body = QWidget()
        body.setObjectName("page")
        column = QVBoxLayout(body)
        column.setContentsMargins(12, 8, 12, 8)
        column.setSpacing(6)
        row = QHBoxLayout()
        for box, name in ((self.things, tr("What is measured")), (self.ways, tr("By which way"))):
            box.setFont(font(14))
            box.setAccessibleName(name)
            box.setAccessibleDescription(name)
            box.setMinimumContentsLength(5)
            box.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
            row.addWidget(box, 1)
        column.addLayout(row)
        column.addWidget(self.drawing)
        for label in (self.how, self.answer):
            label.setWordWrap(True)
            label.setFont(font(13))
        column.addWidget(self.how)
        self.form = QGridLayout()
        self.form.setVerticalSpacing(4)
        column.addLayout(self.form)
        self.answer.setFont(font(14, strong=True))
        self.answer.setAccessibleName(tr("Answer"))
        column.addWidget(self.answer)
        self.button = FittedButton()
        self.button.setObjectName("button:reading.take")
        self.button.setText(tr("Take this reading"))
        self.button.setToolTip(tr("Keep it with the tree and average it with the others (Enter)"))
        self.button.clicked.connect(self.record)
        column.addWidget(self.button)
        column.addWidget(self.readings)
        column.addWidget(self.instruments)
        column.addStretch()
        self.setWidget(body)

    # What and how --------------------------------------------------------------------------------------

    @property
    def way(self) -> tuple[str, str]:
        """(thing, way) that are picked."""
        return list(METHODS)[self.things.currentIndex()], self.ways.currentData() or ""

    def _thing_picked(self) -> None:
        self.ways.blockSignals(True)
        self.ways.clear()
        for way in METHODS[list(METHODS)[self.things.currentIndex()]]:
            self.ways.addItem(way_name(way), way)
        self.ways.blockSignals(False)
        self._way_picked()

    def _way_picked(self) -> None:
        thing, way = self.way
        method = METHODS[thing][way]
        self.drawing.show_way(thing, way)
        self.how.setText(method.how)
        typed = {name: field.text() for name, field in self.inputs.items()}
        while (item := self.form.takeAt(0)) is not None:
            if (gone := item.widget()) is not None:
                gone.hide()
                gone.deleteLater()
        self.inputs = {}
        for number, (name, wanted) in enumerate(method.wants.items()):
            self._add_input(number, name, typed.get(name, ""), wanted.kind, wanted.default)
        self._answer()

    def _add_input(self, number: int, name: str, text: str, kind: str, default: str) -> None:
        label, field = PlainLabel(input_name(name)), QLineEdit(text)
        label.setFont(font(13, narrow=True))
        label.setBuddy(field)
        field.setFont(font(14))
        field.setMinimumWidth(40)
        field.setObjectName(f"measure:{name}")
        field.setAccessibleName(tr("reading: {what}", what=label.text()))
        field.setPlaceholderText(default or (tr("upright … strong") if kind == EYE else ""))
        field.setToolTip(tr("A value, or a value ± its spread; lengths also in paces."))
        field.textChanged.connect(self._answer)
        field.returnPressed.connect(self.record)
        row, column = divmod(number, 2)
        self.form.addWidget(label, 2 * row, column)
        self.form.addWidget(field, 2 * row + 1, column)
        self.inputs[name] = field

    # Answering -----------------------------------------------------------------------------------------

    def _answer(self) -> None:
        """What the typed readings give, as soon as they are all there."""
        self._answers = ()
        typed = {name: field.text().strip() for name, field in self.inputs.items()}
        job = self.store.snapshot.job
        try:
            self._answers = measure(*self.way, typed, job.units, job.person)
            self.answer.setText(unbroken(describe(self._answers, job.speech)))
        except MeasureError:
            self.answer.setText("")
        except PlainCompassError as error:
            self.answer.setText(unbroken(job.speech.error(error)))
        _, way = self.way
        self.button.setEnabled(bool(self._answers) and taken_from(self._answers, way, "") is not None)

    def record(self) -> None:
        """Keep the reading with the tree; what it measures becomes the average."""
        _, way = self.way
        note = ", ".join(
            f"{name} {field.text().strip()}" for name, field in self.inputs.items() if field.text().strip()
        )
        taken = taken_from(self._answers, way, note, now()) if self._answers else None
        if taken is None:
            return
        self.store.record_reading(
            taken, tr("{things} by {way} taken", things=self.things.currentText().lower(), way=way_name(way))
        )

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document."""
        if self.isVisible():
            self.readings.refresh(snapshot)
            self._answer()
