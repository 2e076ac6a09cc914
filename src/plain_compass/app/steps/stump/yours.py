"""*Yours*: what one's own stumps teach of hand, eye and constants; records over time; were the chances right."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QComboBox, QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from ....core.stump.quantities import Known, Records, known_of
from ....job.language import tr
from ....job.spreads import shipped
from ....log.records import records_of
from ....log.store import Filter
from ...drawing.palette import font
from ...frame.log_book import LogBook
from ...frame.page import Picture
from ...frame.plain_label import PlainLabel
from ...frame.store import Snapshot, Store
from .back_test import BackTestLine
from .days import fill_box
from .known_row import KnownRow
from .yours_views import ChancesView, OverTimeView

ALL = {"faller": tr("everybody"), "saw": tr("any")}
"""What is picked where nobody is."""


class YoursPage(QWidget):
    """Everything that is known of one's own hand."""

    def __init__(self, store: Store, book: LogBook, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.book = store, book
        self.rows: dict[str, KnownRow] = {}
        self.known: dict[str, Known] = {}
        self.records: Records | None = None
        self.picked = "aim"
        self.fallers, self.saws, self.state = QComboBox(), QComboBox(), PlainLabel()
        self.over_time, self.chances = OverTimeView(store, self), ChancesView(store, self)
        self.test = BackTestLine(self)
        self._compose()
        self.test.button.clicked.connect(self._turn_test)
        self.over_time.toggled.connect(self._toggle)
        for box in (self.fallers, self.saws):
            box.activated.connect(lambda _: self.read_log())
        book.changed.connect(self._log_changed)

    def _compose(self) -> None:
        tools = QHBoxLayout()
        tools.setContentsMargins(10, 2, 10, 2)
        tools.setSpacing(8)
        for box, name in ((self.fallers, tr("faller")), (self.saws, tr("saw"))):
            label = PlainLabel(name)
            label.setFont(font(13))
            label.setBuddy(box)
            box.setAccessibleName(tr("Whose stumps: {name}", name=name))
            box.setMinimumContentsLength(9)
            tools.addWidget(label)
            tools.addWidget(box)
        self.state.setFont(font(13))
        tools.addWidget(self.state, 1)
        body = QWidget()
        body.setObjectName("sheetbody")
        self.column = QVBoxLayout(body)
        self.column.setContentsMargins(0, 0, 0, 0)
        self.column.setSpacing(2)
        self.column.addStretch()
        area = QScrollArea()
        area.setObjectName("sheet")
        area.setAccessibleName(tr("What is known of your hand"))
        area.setWidget(body)
        area.setWidgetResizable(True)
        area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        right = QVBoxLayout()
        right.setSpacing(1)
        right.addWidget(self.over_time, 52)
        right.addWidget(self.chances, 48)
        right.addWidget(self.test)
        middle = QHBoxLayout()
        middle.setSpacing(1)
        middle.addWidget(area, 50)
        middle.addLayout(right, 50)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addLayout(tools)
        whole.addLayout(middle, 1)

    # Reading the log -----------------------------------------------------------------------------------

    @property
    def wanted(self) -> Filter:
        """Whose stumps, with which saw."""
        faller, saw = (box.currentData() or "" for box in (self.fallers, self.saws))
        return Filter(faller=faller, saw=saw)

    def _log_changed(self) -> None:
        if self.isVisible():
            self.read_log()

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document: what is used in plans."""
        if not self.isVisible():
            return
        if self.records is None:
            self.read_log()
        else:
            self._show(snapshot)

    def read_log(self) -> None:
        """What the log says now."""
        log = self.book.log()
        if log is None:
            self.state.setText(tr("The log cannot be opened."))
            return
        own = self.store.snapshot.job.person.name
        for box, column, first in ((self.fallers, "faller", own), (self.saws, "saw", "")):
            there: dict[str, object] = {value: value for value in log.values(column) if value}
            fill_box(box, {ALL[column]: ""} | there, first)
        self.records = records_of(log, self.wanted)
        self.known = {each.key: each for each in known_of(self.records, shipped())}
        self.test.words.setText("")
        self._show(self.store.snapshot)

    def _show(self, snapshot: Snapshot) -> None:
        assert self.records is not None
        count = len(self.records.numbers)
        more = (
            tr("; {arrived} of {expected} taken in", arrived=self.book.arrived, expected=self.book.expected)
            if self.book.is_filling
            else ""
        )
        whose = tr("made-up stumps of the demo") if self.book.is_demo else tr("stumps of your log")
        self.state.setText(f"{count} {whose}{more}")
        for key in [key for key in self.rows if key not in self.known]:
            self.rows.pop(key).deleteLater()
        for number, (key, known) in enumerate(self.known.items()):
            row = self.rows.get(key)
            if row is None:
                row = self.rows[key] = KnownRow(self.store, key, self)
                row.picked.connect(self.pick)
                row.strip.palette_in_use = self.over_time.palette_in_use
                self.column.insertWidget(number, row)
            row.show_known(known, self.wanted.faller, snapshot)
        if self.picked not in self.known:
            self.picked = next(iter(self.known), "")
        self.over_time.show_known(self.known.get(self.picked), self.records)
        self.chances.records = self.records
        self.chances.update()

    def pick(self, key: str) -> None:
        """Show the records of another quantity."""
        self.picked, self.over_time.chosen = key, -1
        self._show(self.store.snapshot)

    def _toggle(self, row: int) -> None:
        """Leave a record out, or take it in again."""
        known = self.known.get(self.picked)
        if known is None or self.records is None:
            return
        at = known.rows.tolist().index(row)
        self.book.leave_out(int(self.records.numbers[row]), self.picked, out=not bool(known.out[at]))

    def _turn_test(self) -> None:
        """Begin the back-test, or give it up."""
        log = self.book.log()
        if self.test.is_running:
            self.test.stop(tr("Given up."))
        elif log is not None and self.records is not None:
            self.test.begin(list(log.entries(self.wanted)), self.records, self.wanted.faller)

    def pictures(self) -> tuple[Picture, ...]:
        """The drawings, for copying."""
        return self.over_time.picture(), self.chances.picture()
