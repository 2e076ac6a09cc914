"""The page of the Block: the map, beside it the order with its reasons, below it the days."""

from __future__ import annotations

from datetime import date

from PySide6.QtCore import Qt
from PySide6.QtGui import QHideEvent, QShowEvent
from PySide6.QtWidgets import QHBoxLayout, QLabel, QSizePolicy, QStackedWidget, QVBoxLayout, QWidget

from ....core.judge.findings import Finding
from ....job.block_edits import moved_in_order
from ....job.block_progress import is_past
from ....job.block_why import moved_words
from ....job.language import tr
from ...drawing.palette import font
from ...frame.commands import Commands
from ...frame.page import Picture
from ...frame.plain_label import PlainLabel
from ...frame.scrolled import scrolled
from ...frame.store import Snapshot, Store
from .days_view import DaysView
from .decided import Decided
from .hands import Hands
from .map_view import MapView
from .order_list import OrderList
from .told import block_lines, order_rows, tree_lines
from .watch import BlockWatch

SIDE_PX = 268
"""Width of the order beside the map."""
HANDS_PX = 400
"""Width of crew and kit in its place: a set of kit is a long line."""

STATE_PX = 130
"""Least width of the line that says how far it is."""


class BlockPage(QWidget):
    """All trees of the job."""

    def __init__(self, store: Store, commands: Commands, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.commands = store, commands
        self.watch = BlockWatch(self)
        self.map, self.days = MapView(store, self.watch, self), DaysView(store, self.watch, self)
        self.list = OrderList(self)
        self.decided, self.hands = Decided(store, self._told_min, self), Hands(store, commands, self)
        self.warning, self.side = "", QStackedWidget()
        self.state, self.why = PlainLabel(), QLabel()
        self.state.setFont(font(13))
        self.state.setWordWrap(True)
        self.state.setMinimumWidth(STATE_PX)
        self.state.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        self.why.setTextFormat(Qt.TextFormat.PlainText)
        self.why.setWordWrap(True)
        self.why.setFont(font(13))
        self.why.setAccessibleName(tr("Why it stands there"))
        self._compose()
        self.watch.told.connect(self._show)
        self.map.chosen.connect(self.pick)
        for view in (self.map, self.list):
            view.opened.connect(self.open_tree)
        self.list.chosen.connect(self.pick)
        self.list.moved.connect(self.move_to)

    def _compose(self) -> None:
        tools = QHBoxLayout()
        tools.setContentsMargins(10, 4, 10, 4)
        tools.addWidget(self.state, 1)
        for name in ("block.take", "block.fix", "block.free", "block.zones", "block.hands", "block.sheet"):
            tools.addWidget(self.commands.button(name))
        left, right, middle = QVBoxLayout(), QVBoxLayout(), QHBoxLayout()
        left.addWidget(self.map, 1)
        left.addWidget(self.days)
        why = scrolled(self.why)
        self.why.setAlignment(Qt.AlignmentFlag.AlignTop)
        order, column = QWidget(), QVBoxLayout()
        order.setLayout(column)
        column.setContentsMargins(0, 0, 0, 0)
        for each, share in ((self.list, 62), (why, 38)):
            column.addWidget(each, share)
        column.addWidget(self.decided)
        self.side.setFixedWidth(SIDE_PX)
        for shown in (order, self.hands):
            self.side.addWidget(shown)
        right.addWidget(self.side)
        for layout in (left, right, middle, column):
            layout.setSpacing(1)
        middle.addLayout(left, 1)
        middle.addLayout(right)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addLayout(tools)
        whole.addLayout(middle, 1)

    # Following -----------------------------------------------------------------------------------------

    def showEvent(self, event: QShowEvent) -> None:
        """What is looked at is planned."""
        super().showEvent(event)
        self.watch.follow(self.store.snapshot.job)

    def hideEvent(self, event: QHideEvent) -> None:
        """Nothing is searched for a page that nobody looks at."""
        self.watch.stop()
        super().hideEvent(event)

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document."""
        if self.isVisible() and not self.store.dragging:
            self.watch.follow(snapshot.job)
        self._show()

    def _show(self) -> None:
        block, found = self.watch.block, self.watch.found
        rows: list[tuple[str, str, str]] = []
        if block is not None and found is not None:
            rows = order_rows(self.store.snapshot.job, block, found)
        self.list.show_rows(rows, self.map.picked)
        self.state.setText(self._state())
        self._tell()
        self._show_decided()
        self.map.update()
        self.days.update()
        self.commands.refresh()

    def _show_decided(self) -> None:
        """What people said of the picked tree, and of the block."""
        self.decided.refresh(self.store.snapshot, self.map.picked)
        self.hands.refresh(self.store.snapshot)

    def show_hands(self) -> None:
        """Hours, crew and kit in the order's place, or the order again."""
        self.side.setCurrentIndex(1 - self.side.currentIndex())
        self.side.setFixedWidth(HANDS_PX if self.side.currentIndex() else SIDE_PX)
        self.commands.refresh()

    def _told_min(self, tree_id: str) -> float | None:
        """Minutes the order gives a tree; None where it has none."""
        block, found = self.watch.block, self.watch.found
        if block is None or found is None:
            return None
        slots = (slot for slot in found.slots if block.trees[slot.tree].id == tree_id)
        return next((slot.ends_min - slot.begins_min for slot in slots), None)

    def _state(self) -> str:
        if self.watch.error is not None:
            return self.store.snapshot.speech.error(self.watch.error)
        if self.watch.block is None:
            return tr("Judging lays: {judged} trees so far …", judged=self.watch.judged)
        broken = 0 if self.watch.found is None else sum(each.is_broken for each in self.watch.found.against)
        more = tr(" · looking for better …") if self.watch.busy else ""
        wrong = tr(" · {broken} stand against it", broken=broken) if broken else ""
        job = self.store.snapshot.job
        past = tr(" · the first day, {begins}, is past", begins=job.block.begins) if is_past(job, date.today()) else ""
        return tr(
            "{count} trees to fell{wrong}{past}{more}",
            count=len(self.watch.block.trees),
            wrong=wrong,
            past=past,
            more=more,
        )

    def _tell(self) -> None:
        """Why the picked tree stands where it does; else the days, and what to take along."""
        block, found = self.watch.block, self.watch.found
        if block is None or found is None:
            self.why.setText(self.warning)
            return
        job = self.store.snapshot.job
        if self.map.picked not in [tree.id for tree in block.trees]:
            self.why.setText("\n".join(block_lines(job, block, found)))
            return
        fan = self.store.snapshot.fan if self.store.tree_id == self.map.picked else None
        warned = [self.warning, ""] if self.warning else []
        self.why.setText("\n".join([*warned, *tree_lines(job, block, found, self.map.picked, fan)]))

    # Asked for -----------------------------------------------------------------------------------------

    def pick(self, id: str) -> None:
        """Bring a tree out on map, list and days."""
        if id != self.map.picked:
            self.warning = ""
        self.map.picked = self.days.picked = id
        for row in range(self.list.count()):
            if self.list.item(row).data(Qt.ItemDataRole.UserRole) == id:
                self.list.blockSignals(True)
                self.list.setCurrentRow(row)
                self.list.blockSignals(False)
        if id and id != self.store.tree_id:
            self.store.look_at(id)
        self._tell()
        self._show_decided()
        self.map.update()
        self.days.update()
        self.commands.refresh()

    def open_tree(self, id: str) -> None:
        """Look at one tree, on its cut."""
        self.store.look_at(id)
        self.commands.run("step.cut")

    def move_to(self, id: str, place: int) -> None:
        """A tree is to be felled earlier or later: kept as what people decided, all else ordered round it."""
        block, found = self.watch.block, self.watch.found
        if block is None or found is None:
            return
        order = [block.trees[at].id for at in found.plan.order]
        self.map.picked = self.days.picked = id
        broken = moved_words(block, found, block.index(id), place, self.store.snapshot.speech)
        self.store.change(tr("{id} moved in the order", id=id), lambda job: moved_in_order(job, order, id, place))
        self.warning = broken
        self._show()

    # The window's requests -----------------------------------------------------------------------------

    def bring_out(self, finding: Finding) -> None:
        """Findings are of one tree."""

    def fit(self) -> None:
        """The whole block in sight."""
        self.map.fit()

    def zoom(self, factor: float) -> None:
        """Nearer to the map's middle, or farther."""
        self.map.zoom(factor)

    def pictures(self) -> tuple[Picture, ...]:
        """Map and days, for copying."""
        return self.map.picture(), self.days.picture()
