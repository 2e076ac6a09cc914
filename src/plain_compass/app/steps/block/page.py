"""The page of the Block: the map, beside it the order with its reasons, below it the days."""

from __future__ import annotations

from datetime import timedelta

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QHideEvent, QMouseEvent, QPainter, QShowEvent
from PySide6.QtWidgets import QHBoxLayout, QLabel, QSizePolicy, QVBoxLayout, QWidget

from ....core.judge.findings import Finding
from ....job.block import Block, Ordered, day_of, place_reasons
from ....job.block_edits import moved_in_order
from ....job.block_report import kit_of, piece_words, takes_words
from ...drawing.block.map_painter import NUMBER_PX, Drawn, map_scale, paint_map
from ...drawing.block.strip_painter import HEAD_PX, ROW_PX, Box, paint_strip_of_days
from ...drawing.palette import font, pen
from ...drawing.scale import Scale
from ...frame.commands import Commands
from ...frame.page import Picture
from ...frame.painted import PaintedView
from ...frame.plain_label import PlainLabel
from ...frame.scrolled import scrolled
from ...frame.store import Snapshot, Store
from .drawn import drawn_trees
from .order_list import OrderList
from .watch import BlockWatch

SIDE_PX = 268
"""Width of the order beside the map."""
MOST_DAYS = 4
"""Days shown in the strip at once."""


class MapView(PaintedView):
    """The map; a click picks a tree, a double click opens it.

    Signals:
        chosen, opened: id of a tree.
    """

    chosen = Signal(str)
    opened = Signal(str)

    def __init__(self, store: Store, watch: BlockWatch, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.watch, self.picked = store, watch, ""
        self.setAccessibleName("Map of the block")
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)

    def trees(self) -> list[Drawn]:
        """Every tree of the job as it is drawn."""
        return drawn_trees(self.store.snapshot.job, self.watch.block, self.watch.found)

    def scale(self) -> Scale:
        """Everything in sight."""
        return map_scale(self.width(), self.height(), self.trees())

    def arrows(self) -> list[tuple[str, str, bool]]:
        """(earlier, later, broken) of the tree that is picked; all that are broken where none is."""
        block, found = self.watch.block, self.watch.found
        if block is None or found is None:
            return []
        pairs: dict[tuple[str, str], bool] = {}
        for each in found.against:
            one, other = block.trees[each.other].id, block.trees[each.tree].id
            if each.is_broken or self.picked in (one, other):
                pairs[(one, other)] = pairs.get((one, other), False) or each.is_broken
        return [(one, other, broken) for (one, other), broken in pairs.items()]

    def draw(self, painter: QPainter) -> None:
        """Map and title."""
        site = self.store.snapshot.job.site
        look = self.picked, self.palette_in_use
        paint_map(painter, self.scale(), site.obstacles, self.trees(), self.arrows(), look)
        painter.setFont(font(14, strong=True))
        painter.setPen(pen(self.palette_in_use.ink))
        painter.drawText(QPointF(12, 20), "All trees, in order")

    def _at(self, at: QPointF) -> str:
        scale = self.scale()
        near = [((scale.point(t.east_m, t.north_m) - at), t.id) for t in self.trees()]
        close = [(away.x() ** 2 + away.y() ** 2, id) for away, id in near]
        distance, id = min(close, default=(1e9, ""))
        return id if distance <= (2.5 * NUMBER_PX) ** 2 else ""

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Pick a tree, or none."""
        self.chosen.emit(self._at(event.position()))

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        """Open one."""
        id = self._at(event.position())
        if id:
            self.opened.emit(id)


class DaysView(PaintedView):
    """The day strip."""

    def __init__(self, store: Store, watch: BlockWatch, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.watch, self.picked = store, watch, ""
        self.setAccessibleName("The days")
        self.setFixedHeight(round(HEAD_PX + MOST_DAYS * ROW_PX + 6))

    def draw(self, painter: QPainter) -> None:
        """Title, days."""
        job, block, found = self.store.snapshot.job, self.watch.block, self.watch.found
        painter.setFont(font(14, strong=True))
        painter.setPen(pen(self.palette_in_use.ink))
        painter.drawText(QPointF(12, 16), f"Days of {job.block.day_s / 3600:g} hours  ~")
        if block is None or found is None or not found.slots:
            return
        begins = day_of(job.block.begins, "block.begins")
        number = {tree: at for at, tree in enumerate(found.plan.order, 1)}
        boxes = [
            Box(block.trees[s.tree].id, number[s.tree], s.day, s.begins_min, s.ends_min, s.rigs) for s in found.slots
        ]
        days = range(max(slot.day for slot in found.slots) + 1)
        names = [f"{begins + timedelta(days=day):%a %d %b}" for day in days]
        hours, look = (names, job.block.day_s / 60.0), (self.picked, self.palette_in_use)
        paint_strip_of_days(painter, QRectF(self.rect()), boxes, hours, look)


class BlockPage(QWidget):
    """All trees of the job."""

    def __init__(self, store: Store, commands: Commands, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.commands = store, commands
        self.watch = BlockWatch(self)
        self.map, self.days = MapView(store, self.watch, self), DaysView(store, self.watch, self)
        self.list = OrderList(self)
        self.state, self.why = PlainLabel(), QLabel()
        self.state.setFont(font(13))
        self.state.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        self.why.setTextFormat(Qt.TextFormat.PlainText)
        self.why.setWordWrap(True)
        self.why.setFont(font(13))
        self.why.setAccessibleName("Why it stands there")
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
        for name in ("block.take", "block.fix", "block.free", "block.sheet"):
            tools.addWidget(self.commands.button(name))
        left, right, middle = QVBoxLayout(), QVBoxLayout(), QHBoxLayout()
        left.addWidget(self.map, 1)
        left.addWidget(self.days)
        why = scrolled(self.why)
        self.why.setAlignment(Qt.AlignmentFlag.AlignTop)
        for each, share in ((self.list, 70), (why, 30)):
            each.setFixedWidth(SIDE_PX)
            right.addWidget(each, share)
        for layout in (left, right, middle):
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
            rows = self._rows(block, found)
        self.list.show_rows(rows, self.map.picked)
        self.state.setText(self._state())
        self._tell()
        self.map.update()
        self.days.update()
        self.commands.refresh()

    def _rows(self, block: Block, found: Ordered) -> list[tuple[str, str, str]]:
        speech, why = self.store.snapshot.speech, place_reasons(block, found, self.store.snapshot.speech)
        rows = []
        for number, at in enumerate(found.plan.order, 1):
            tree, lay = block.trees[at], block.trees[at].lays[found.plan.lays[at]]
            turned = "" if found.plan.lays[at] == 0 else f", planned {speech.show(tree.lays[0].lay_deg, 'bearing')}"
            takes = takes_words(block, found, at, speech)
            bad = " ⊘" if lay.is_stop or any(a.is_broken and a.tree == at for a in found.against) else ""
            head = f"{number}  {tree.id}{bad}   {speech.show(lay.lay_deg, 'bearing')}{turned}"
            words = f"{head}\n      {takes} · {tree.minutes:.0f} min"
            rows.append((tree.id, words, "\n".join(why[at]) or "nothing stands against another place"))
        return rows

    def _state(self) -> str:
        if self.watch.error is not None:
            return self.store.snapshot.speech.error(self.watch.error)
        if self.watch.block is None:
            return f"Judging lays: {self.watch.judged} trees so far …"
        broken = 0 if self.watch.found is None else sum(each.is_broken for each in self.watch.found.against)
        more = " · looking for better …" if self.watch.busy else ""
        wrong = f" · {broken} stand against it" if broken else ""
        return f"{len(self.watch.block.trees)} trees to fell{wrong}{more}"

    def _tell(self) -> None:
        """Why the picked tree stands where it does; else what to take along."""
        block, found, speech = self.watch.block, self.watch.found, self.store.snapshot.speech
        if block is None or found is None:
            self.why.setText("")
            return
        ids = [tree.id for tree in block.trees]
        if self.map.picked in ids:
            lines = place_reasons(block, found, speech)[ids.index(self.map.picked)]
            self.why.setText("\n".join(lines) or "Nothing stands against another place; nearness and help put it here.")
            return
        order = [block.trees[slot.tree].id for slot in found.slots]
        pieces = [piece_words(piece, order, speech) for piece in kit_of(self.store.snapshot.job, block, found)]
        out = [f"{id}: {speech.tell(what)}" for id, what in block.left_out]
        self.why.setText("\n".join(["To take along:", *pieces, *out]))

    # Asked for -----------------------------------------------------------------------------------------

    def pick(self, id: str) -> None:
        """Bring a tree out on map, list and days."""
        self.map.picked = self.days.picked = id
        for row in range(self.list.count()):
            if self.list.item(row).data(Qt.ItemDataRole.UserRole) == id:
                self.list.blockSignals(True)
                self.list.setCurrentRow(row)
                self.list.blockSignals(False)
        self._tell()
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
        self.store.change(f"{id} moved in the order", lambda job: moved_in_order(job, order, id, place))
        self._show()

    # The window's requests -----------------------------------------------------------------------------

    def bring_out(self, finding: Finding) -> None:
        """Findings are of one tree."""

    def fit(self) -> None:
        """The whole block is always in sight."""

    def zoom(self, factor: float) -> None:
        """The whole block is always in sight."""

    def pictures(self) -> tuple[Picture, ...]:
        """Map and days, for copying."""
        return self.map.picture(), self.days.picture()
