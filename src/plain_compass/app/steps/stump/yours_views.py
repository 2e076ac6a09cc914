"""The drawings of *Yours*: one quantity's records over time, and whether the chances were right."""

from __future__ import annotations

import math

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter
from PySide6.QtWidgets import QSizePolicy, QWidget

from ....core.stump.learning import Learned
from ....core.stump.quantities import Known, Records, after_each
from ....core.stump.reliability import in_fan_share, reliability
from ....job.language import tr
from ....job.learned_words import quantity_name, said
from ...drawing.palette import font, pen
from ...drawing.stump.learned_painter import MOST_DOTS, REACH_PX, dots_of, paint_over_time, paint_reliability
from ...frame.painted import PaintedView
from ...frame.store import Store

HEAD_PX = 40.0
"""Room for the title of a drawing and what is picked."""
SIDE_PX = 190.0
"""Most side of the square of chances."""


class OverTimeView(PaintedView):
    """The records of one quantity; a click, or arrows and Space, leaves one out or takes it in again.

    Signals:
        toggled: row of the records, of the one that was picked.
    """

    toggled = Signal(int)

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.known: Known | None = None
        self.records: Records | None = None
        self.chosen = -1
        self._after: list[Learned] = []
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Records over time"))
        self.setToolTip(tr("Click a record to leave it out; arrow keys and Space do the same."))
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)

    def show_known(self, known: Known | None, records: Records) -> None:
        """Another quantity, or the same known better."""
        self.known, self.records = known, records
        self._after = [] if known is None else after_each(known, MOST_DOTS)
        self.update()

    def box(self) -> QRectF:
        """Where the records are drawn."""
        return QRectF(self.rect()).adjusted(14, HEAD_PX, -14, -10)

    def draw(self, painter: QPainter) -> None:
        """Title, the record that is chosen, records."""
        painter.setFont(font(14, strong=True))
        painter.setPen(pen(self.palette_in_use.ink))
        known, speech = self.known, self.store.snapshot.speech
        title = (
            tr("Over time")
            if known is None
            else tr("{quantity_name} over time", quantity_name=quantity_name(known.key, speech))
        )
        painter.drawText(QPointF(12, 18), title)
        if known is None:
            return
        painter.setFont(font(12, narrow=True))
        painter.setPen(pen(self.palette_in_use.quiet))
        painter.drawText(QPointF(12, 34), self._told(known))
        paint_over_time(painter, self.box(), known, (self._after, self.chosen), self.palette_in_use)

    def _told(self, known: Known) -> str:
        """The record that is chosen, or how one is."""
        if self.records is None or not 0 <= self.chosen < len(known.values):
            return tr("grey: shipped · green: yours · click a record: left out")
        value = float(known.values[self.chosen])
        value = math.exp(value) if known.factor is not None else value
        day = self.records.days[int(known.rows[self.chosen])]
        state = (
            tr("left out")
            if known.out[self.chosen]
            else tr("stands out")
            if known.marked[self.chosen]
            else tr("counts")
        )
        return tr(
            "{day}: {said}; {state}. Space turns it.",
            day=day,
            said=said(known.key, value, known.kind, self.store.snapshot.speech),
            state=state,
        )

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """The record under the pointer is left out, or taken in again."""
        self.setFocus(Qt.FocusReason.MouseFocusReason)
        if self.known is None:
            return
        near = [
            (math.hypot((at - event.position()).x(), (at - event.position()).y()), index)
            for at, index in dots_of(self.box(), self.known)
        ]
        away, index = min(near, default=(math.inf, -1))
        if away <= REACH_PX:
            self.chosen = index
            self.toggled.emit(int(self.known.rows[index]))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Walk through the records; Space turns the one that is chosen."""
        count = 0 if self.known is None else len(self.known.values)
        step = {Qt.Key.Key_Right: 1, Qt.Key.Key_Left: -1}.get(Qt.Key(event.key()), 0)
        if step and count:
            self.chosen = min(max(self.chosen + step, 0), count - 1) if self.chosen >= 0 else count - 1
            self.update()
        elif event.key() == Qt.Key.Key_Space and self.known is not None and 0 <= self.chosen < count:
            self.toggled.emit(int(self.known.rows[self.chosen]))
        else:
            super().keyPressEvent(event)


class ChancesView(PaintedView):
    """Were the chances right."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.records: Records | None = None
        self.setAccessibleName(tr("Chances told against what happened"))
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)

    def draw(self, painter: QPainter) -> None:
        """Title and square."""
        painter.setFont(font(14, strong=True))
        painter.setPen(pen(self.palette_in_use.ink))
        painter.drawText(QPointF(12, 18), tr("Were the chances right?  ~"))
        if self.records is None:
            return
        told = reliability(self.records)
        side = min(self.height() - 58.0, self.width() - 60.0, SIDE_PX)
        box = QRectF(36, 34, side, side)
        paint_reliability(painter, box, told, self.palette_in_use)
        painter.setFont(font(12, narrow=True))
        painter.setPen(pen(self.palette_in_use.ink))
        inside, count = in_fan_share(self.records)
        lost = self.store.snapshot.speech.say("[hinge] lost early:")
        lines = [
            tr("{inside} of {count} tops", inside=inside, count=count),
            tr("in nine in ten"),
            "",
            tr("splits, sits back,"),
            lost,
        ]
        lines += [
            tr("told {told:.0%}: {happened:.0%} of {count}", told=each.told, happened=each.happened, count=each.count)
            for each in told
        ]
        room = QRectF(box.right() + 12, 30, self.width() - box.right() - 16, self.height() - 34)
        painter.drawText(room, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop, "\n".join(lines))
