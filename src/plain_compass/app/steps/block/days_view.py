"""The strip of days of a block."""

from __future__ import annotations

from datetime import timedelta

from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QWidget

from ....job.block_days import day_of
from ...drawing.block.strip_painter import HEAD_PX, ROW_PX, Box, paint_strip_of_days
from ...drawing.palette import font, pen
from ...frame.painted import PaintedView
from ...frame.store import Store
from .watch import BlockWatch

MOST_DAYS = 4
"""Days shown in the strip at once."""


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
        boxes = [
            Box(block.trees[slot.tree].id, number, slot.day, slot.begins_min, slot.ends_min, slot.rigs)
            for number, slot in enumerate(found.slots, 1)
        ]
        days = range(max(slot.day for slot in found.slots) + 1)
        names = [f"{begins + timedelta(days=day):%a %d %b}" for day in days]
        hours, look = (names, job.block.day_s / 60.0), (self.picked, self.palette_in_use)
        paint_strip_of_days(painter, QRectF(self.rect()), boxes, hours, look)
