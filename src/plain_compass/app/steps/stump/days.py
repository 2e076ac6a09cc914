"""Day and year: what was felled, by whom, with which cut, how it came out; what was too close, for the crew's talk."""

from __future__ import annotations

from collections.abc import Mapping
from html import escape

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QVBoxLayout, QWidget

from ....job.language import tr
from ....job.words import Speech
from ....log.days import Rows, by_day, counted, told_near, totals
from ....log.stats import near_misses, summary_of
from ....log.store import Filter, StumpLog
from ...drawing.palette import font
from ...drawing.text import unbroken
from ...frame.commands import Commands
from ...frame.log_book import LogBook
from ...frame.page import Picture
from ...frame.plain_label import PlainLabel
from ...frame.scrolled import scrolled
from ...frame.store import Snapshot, Store

EVER = tr("all of it")
"""No period."""
MOST_DAYS = 14
"""Days shown: the newest; a CSV has them all."""


def days_html(log: StumpLog, wanted: Filter, speech: Speech) -> str:
    """The page as rich text, every word of a person's escaped."""
    summary = summary_of(log, wanted)
    if not summary.count:
        return f"<p>{tr('No stump of the log is of this period, place, faller and cut.')}</p>"
    parts = [_table(tr("All together"), totals(summary, speech))]
    parts += [_table(heading, rows) for heading, rows in counted(summary).items() if rows]
    parts.append(_table(tr("Day"), by_day(summary)[:MOST_DAYS]))
    # Together and species; who, how, where; by day.
    thirds = (parts[:1] + parts[2:3], _rest(parts), parts[-1:])
    columns = "".join(f"<td width='34%'>{''.join(each)}</td>" for each in thirds)
    near = [told_near(each, speech) for each in near_misses(log, summary)]
    told = "".join(f"<p style='margin-top:3px'><b>{escape(where)}</b><br>{escape(what)}</p>" for where, what in near)
    close = tr("Too close, for the crew's talk")
    none = f"<p>{tr('None is told of.')}</p>"
    talk = f"<h3 style='font-weight:600'>{close}</h3>{told or none}"
    return f"<table width='100%'><tr>{columns}</tr></table>{talk}"


def _rest(parts: list[str]) -> list[str]:
    """What is counted by, but for species and days."""
    return [parts[1], *parts[3:-1]]


def _table(heading: str, rows: Rows) -> str:
    cells = "".join(
        f"<tr><td style='padding-right:14px'>{escape(name)}</td><td>{escape(value)}</td></tr>" for name, value in rows
    )
    return f"<h3 style='font-weight:600'>{escape(heading)}</h3><table cellspacing='1'>{cells}</table>"


class DaysPage(QWidget):
    """The log by day and year."""

    def __init__(self, store: Store, book: LogBook, commands: Commands, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.book = store, book
        self.periods, self.places, self.fallers, self.cuts = (QComboBox() for _ in range(4))
        self.words = QLabel()
        self.words.setTextFormat(Qt.TextFormat.RichText)
        self.words.setWordWrap(True)
        self.words.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.words.setFont(font(14))
        self.words.setAccessibleName(tr("What was felled"))
        tools = QHBoxLayout()
        tools.setContentsMargins(10, 2, 10, 2)
        tools.setSpacing(6)
        for box, name in (
            (self.periods, tr("when")),
            (self.places, tr("where")),
            (self.fallers, tr("who")),
            (self.cuts, tr("cut")),
        ):
            label = PlainLabel(name)
            label.setFont(font(13))
            label.setBuddy(box)
            box.setAccessibleName(tr("Only: {name}", name=name))
            box.setMinimumContentsLength(7)
            box.activated.connect(lambda _: self.read_log())
            tools.addWidget(label)
            tools.addWidget(box)
        tools.addStretch()
        for command in ("stump.days_csv", "stump.days_pdf"):
            tools.addWidget(commands.button(command))
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addLayout(tools)
        whole.addWidget(scrolled(self.words), 1)
        book.changed.connect(lambda: self.read_log() if self.isVisible() else None)

    @property
    def wanted(self) -> Filter:
        """Which entries."""
        since, until = self.periods.currentData() or ("", "")
        place, faller, cut = (box.currentData() or "" for box in (self.places, self.fallers, self.cuts))
        return Filter(faller=faller, place=place, cut=cut, since=since, until=until)

    def refresh(self, _: Snapshot) -> None:
        """Follow the document."""
        if self.isVisible():
            self.read_log()

    def read_log(self) -> None:
        """What the log says now."""
        log = self.book.log()
        if log is None:
            self.words.setText(tr("The log cannot be opened."))
            return
        days = log.values("day")
        years = sorted({day[:4] for day in days}, reverse=True)
        periods = {EVER: ("", "")} | {year: (f"{year}-01-01", f"{year}-12-31") for year in years}
        periods |= {day: (day, day) for day in reversed(days)}
        fill_box(self.periods, periods)
        for box, column in ((self.places, "place"), (self.fallers, "faller"), (self.cuts, "cut")):
            fill_box(box, {"any": ""} | {value: value for value in log.values(column) if value})
        self.words.setText(unbroken(days_html(log, self.wanted, self.store.snapshot.speech)))

    def pictures(self) -> tuple[Picture, ...]:
        """Nothing is drawn here."""
        return ()


def fill_box(box: QComboBox, items: Mapping[str, object], first: str = "") -> None:
    """The choices there are; what was picked stays picked, and ``first`` is picked to begin with."""
    there = [box.itemText(index) for index in range(box.count())]
    if there == list(items):
        return
    picked = box.currentText() if there else first
    box.blockSignals(True)
    box.clear()
    for words, value in items.items():
        box.addItem(words, value)
    box.setCurrentIndex(max(box.findText(picked), 0))
    box.blockSignals(False)
