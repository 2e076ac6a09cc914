"""Hours, crew, kit and wind of the block: a line each, as people write them; beside the map in the order's place."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QCheckBox, QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from ....core.block.hours import clock_words
from ....job import block_crew, block_kit
from ....job.block_edits import begun, breaking, starting, winded, worked
from ....job.block_progress import progress_words
from ....job.document import Job
from ....job.forecast_typed import ACCEPTED as WIND_ACCEPTED
from ....job.forecast_typed import forecast_words
from ....job.language import in_words, tr
from ...drawing.palette import font
from ...frame.commands import Commands
from ...frame.plain_label import PlainLabel
from ...frame.store import Snapshot, Store
from .line_edits import WordEdit, in_rows

Change = Callable[[Job, str], Job]
HOURS: tuple[tuple[str, str, str, Change], ...] = (
    (tr("first day"), tr("today"), tr("a day, as 2026-12-01; empty for today"), begun),
    (tr("hours a day"), "6", tr("hours of work, breaks left out, as 6 or 7.5"), worked),
    (tr("work begins"), "8:00", tr("a time of day, as 8:00 or 7:30"), starting),
    (tr("break"), tr("none"), tr("when and how long, as 12:00 30 min; empty for none"), breaking),
    (tr("wind"), tr("not known"), WIND_ACCEPTED, winded),
)
"""Name of a field, what stands in it where nothing is said, what may be typed, and what takes it in."""


class Lines(QWidget):
    """Some lines of one sort, an empty one for another at the end.

    Args:
        title: what they are; empty: what the empty line invites to; accepted: what may be typed.
        keep: takes in what was typed at a place.
    """

    def __init__(self, title: str, empty: str, accepted: str, keep: Callable[[int, str], bool]) -> None:
        super().__init__()
        self.title, self._empty, self._accepted, self._keep = title, empty, accepted, keep
        self.edits: list[WordEdit] = []
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(10, 4, 6, 4)
        self._column.setSpacing(3)
        head = PlainLabel(title)
        head.setFont(font(14, strong=True))
        self._column.addWidget(head)

    def show_lines(self, lines: Sequence[str], before: Callable[[int], QWidget | None] = lambda _: None) -> None:
        """What is kept, by line, with what stands before each."""
        while len(self.edits) <= len(lines):
            self._add(len(self.edits), before)
        for place, edit in enumerate(self.edits):
            is_there = place < len(lines)
            edit.show_kept(lines[place] if is_there else "")
            edit.setVisible(place <= len(lines))

    def _add(self, place: int, before: Callable[[int], QWidget | None]) -> None:
        edit = WordEdit(f"{self.title} {place + 1}", self._empty, self._accepted, partial(self._keep, place))
        row, mark = QHBoxLayout(), before(place)
        row.setSpacing(4)
        if mark is not None:
            row.addWidget(mark)
        row.addWidget(edit, 1)
        self.edits.append(edit)
        self._column.addLayout(row)


class Hands(QScrollArea):
    """All of it, as far down as it goes."""

    def __init__(self, store: Store, commands: Commands, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.hours = {
            name: WordEdit(name, empty, accepted, partial(self._set, name, how)) for name, empty, accepted, how in HOURS
        }
        self.crew = Lines(tr("Crew"), tr("another of the crew"), block_crew.ACCEPTED, self._set_worker)
        self.kit = Lines(tr("Kit"), tr("another set of kit"), block_kit.ACCEPTED, self._set_kit)
        self.ticks: list[QCheckBox] = []
        self.done = PlainLabel()
        self.done.setWordWrap(True)
        self.done.setFont(font(13))
        self.done.setAccessibleName(tr("What was done"))
        self._compose(commands)

    def _compose(self, commands: Commands) -> None:
        body, hours = QWidget(), QWidget()
        body.setObjectName("page")
        in_rows(hours, self.hours.items())
        column = QVBoxLayout(body)
        column.setContentsMargins(0, 0, 0, 6)
        column.setSpacing(4)
        stored = QHBoxLayout()
        stored.setContentsMargins(10, 0, 6, 0)
        for name in ("block.keep_kit", "block.take_kit"):
            stored.addWidget(commands.button(name))
        stored.addStretch()
        for each in (hours, self.crew, self.kit):
            column.addWidget(each)
        column.addLayout(stored)
        self.done.setContentsMargins(10, 4, 6, 4)
        column.addWidget(self.done)
        column.addStretch()
        self.setObjectName("page")
        self.setAccessibleName(tr("Hours, crew and kit"))
        self.setWidget(body)
        self.setWidgetResizable(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)

    def refresh(self, snapshot: Snapshot) -> None:
        """Show the job's."""
        job, speech = snapshot.job, snapshot.speech
        wanted, hours = job.block, job.block.hours
        rest = f"{clock_words(hours.break_at_min)} {hours.break_min:.0f} min" if hours.break_min else ""
        said = (
            wanted.begins,
            in_words(f"{wanted.day_s / 3600:g}"),
            clock_words(hours.starts_min),
            rest,
            forecast_words(wanted.forecast, wanted.begins, speech),
        )
        for edit, words in zip(self.hours.values(), said, strict=True):
            edit.show_kept(words)
        self.crew.show_lines([block_crew.worker_words(each, speech) for each in wanted.crew])
        self.kit.show_lines([block_kit.kit_set_words(each, speech) for each in wanted.kits], self._tick)
        for place, tick in enumerate(self.ticks):
            tick.setVisible(place < len(wanted.kits))
            tick.blockSignals(True)
            tick.setChecked(place < len(wanted.kits) and wanted.kits[place].packed == "yes")
            tick.blockSignals(False)
        done = progress_words(job, speech)
        self.done.setText("\n".join([tr("Done:"), *done]) if done else "")

    def _tick(self, place: int) -> QWidget:
        tick = QCheckBox()
        tick.setAccessibleName(tr("Kit {place} comes along", place=place + 1))
        tick.setToolTip(tr("Comes along; unticked it stays at home."))
        tick.toggled.connect(partial(self._set_packed, place))
        self.ticks.append(tick)
        return tick

    def _set(self, name: str, how: Change, typed: str) -> bool:
        return self._change(f"{name} {typed or tr('not said')}", lambda job: how(job, typed))

    def _set_worker(self, place: int, typed: str) -> bool:
        return self._change(
            tr("crew: {typed}", typed=typed or tr("one less")), lambda job: block_crew.with_worker(job, place, typed)
        )

    def _set_kit(self, place: int, typed: str) -> bool:
        return self._change(
            tr("kit: {typed}", typed=typed or tr("one set less")), lambda job: block_kit.with_kit_set(job, place, typed)
        )

    def _set_packed(self, place: int, comes: bool) -> None:
        words = tr("comes along") if comes else tr("stays at home")
        name = self.store.snapshot.job.block.kits[place].name
        self._change(f"{name} {words}", lambda job: block_kit.packed(job, place, comes=comes))

    def _change(self, title: str, how: Callable[[Job], Job]) -> bool:
        if not self.store.change(title, how):
            return False
        self.refresh(self.store.snapshot)
        return True
