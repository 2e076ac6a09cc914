"""The strip of days of a block."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QWidget

from ....core.block.hours import Hours, clock_words
from ....job.block_strip import by_then_min, clock_of, day_name, days_of
from ....job.language import tr
from ...drawing.block.strip_painter import HEAD_PX, ROW_PX, Box, Strip, paint_strip_of_days
from ...drawing.palette import font, pen
from ...frame.painted import PaintedView
from ...frame.store import Store
from .watch import BlockWatch

MOST_DAYS = 4
"""Days shown in the strip at once."""


def _break_of(hours: Hours) -> tuple[float, float]:
    begins = hours.starts_min + hours.before_break_min
    return begins, begins + (hours.break_min if hours.before_break_min < hours.work_min else 0.0)


class DaysView(PaintedView):
    """The day strip."""

    def __init__(self, store: Store, watch: BlockWatch, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.watch, self.picked = store, watch, ""
        self.setAccessibleName(tr("The days"))
        self.setFixedHeight(round(HEAD_PX + MOST_DAYS * ROW_PX + 6))

    def strip(self) -> Strip | None:
        """The days; None where there is no order."""
        job, block, found = self.store.snapshot.job, self.watch.block, self.watch.found
        if block is None or found is None or not found.slots:
            return None
        hours = job.block.hours
        boxes = [
            Box(block.trees[slot.tree].id, number, slot.day, *clock_of(job, slot.begins_min, slot.ends_min), slot.rigs)
            for number, slot in enumerate(found.slots, 1)
        ]
        days = days_of(found)
        return Strip(
            boxes,
            [day_name(job, day) for day in days],
            [by_then_min(job, found, day) for day in days],
            hours.starts_min,
            hours.clock_min(hours.work_min, is_end=True),
            _break_of(hours),
            [(60.0 * hour, clock_words(60.0 * hour)) for hour in range(-int(-hours.starts_min // 60), 25)],
        )

    def draw(self, painter: QPainter) -> None:
        """Title, days."""
        painter.setFont(font(14, strong=True))
        painter.setPen(pen(self.palette_in_use.ink))
        painter.drawText(
            QPointF(12, 16), tr("Days of {day_s:g} hours  ~", day_s=self.store.snapshot.job.block.day_s / 3600)
        )
        strip = self.strip()
        if strip is not None:
            paint_strip_of_days(painter, QRectF(self.rect()), strip, (self.picked, self.palette_in_use))
