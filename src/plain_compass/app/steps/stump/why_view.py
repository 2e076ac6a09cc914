"""Why it lies there: bars that add up to the miss, the sentences, and whether what was told happened."""

from __future__ import annotations

from html import escape

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QLabel, QVBoxLayout, QWidget

from ....core.base.levels import Group
from ....core.stump.as_cut import miss_deg
from ....core.stump.told import Told, told_of
from ....job.language import tr
from ....job.stump_told import told_rows
from ....job.stump_why import Story, parts_of, sentences_of
from ...drawing.palette import font, pen
from ...drawing.stump.why_painter import Bar, paint_bars
from ...drawing.text import unbroken
from ...frame.painted import PaintedView
from ...frame.scrolled import scrolled
from ...frame.store import Snapshot, Store
from .why_watch import WhyWatch

HEAD_PX = 26.0
"""Room for the title."""
FOOT_PX, ROW_PX = 20, 19
"""Below the bars, and a bar's row."""
SIGNS = {True: "✓", False: "✗", None: "·"}
"""Beside a row: came out as told, did not, or neither can be said."""


def bars_of(story: Story, snapshot: Snapshot) -> list[Bar]:
    """A bar for every part of the miss, each from where the one before ends, and the miss itself."""
    speech, found, at = snapshot.speech, [], 0.0
    for name, share in parts_of(story.why).items():
        kind = "rest" if name == "rest" else "part"
        found.append(Bar(speech.phrase(f"why.name.{name}"), at, at + share, speech.show(share, "aside"), kind))
        at += share
    whole = "told" if story.why.miss_deg is None else "miss"
    end = story.why.told_deg if story.why.miss_deg is None else story.why.miss_deg
    return [*found, Bar(speech.phrase(f"why.name.{whole}"), 0.0, end, speech.show(end, "aside"), "whole")]


class BarsView(PaintedView):
    """The bars."""

    tells_of = (Group.LANDING,)

    def __init__(self, store: Store, watch: WhyWatch, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.watch = store, watch
        self.setAccessibleName(tr("What the miss is made of"))

    def draw(self, painter: QPainter) -> None:
        """Title and bars; what is not reckoned yet says so."""
        painter.setFont(font(14, strong=True))
        painter.setPen(pen(self.palette_in_use.ink))
        painter.drawText(QRectF(12, 4, self.width() - 24, 20), Qt.AlignmentFlag.AlignLeft, tr("Why  ~"))
        box = QRectF(self.rect()).adjusted(12, HEAD_PX, -12, -4)
        story, snapshot = self.watch.story, self.store.snapshot
        if story is not None:
            paint_bars(painter, box, bars_of(story, snapshot), self.palette_in_use)
            return
        painter.setFont(font(13))
        painter.setPen(pen(self.palette_in_use.quiet))
        read = snapshot.plan.as_cut.is_read
        words = "why.failed" if self.watch.failed else "why.reckoning" if read else "why.nothing_read"
        painter.drawText(box, Qt.AlignmentFlag.AlignLeft, snapshot.speech.phrase(words))


class WhyView(QWidget):
    """Bars over sentences and rows."""

    def __init__(self, store: Store, watch: WhyWatch, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.watch = store, watch
        self.bars = BarsView(store, watch, self)
        self.words = QLabel()
        self.words.setTextFormat(Qt.TextFormat.RichText)
        self.words.setWordWrap(True)
        self.words.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.words.setFont(font(13))
        self.words.setAccessibleName(tr("Why it lies there"))
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.bars)
        column.addWidget(scrolled(self.words), 1)

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document and the answer."""
        self.bars.update()
        story = self.watch.story
        rows = 1 if story is None else len(bars_of(story, snapshot))
        self.bars.setFixedHeight(round(HEAD_PX) + rows * ROW_PX + FOOT_PX)
        told = [] if story is None else list(sentences_of(snapshot.job, snapshot.plan.id, story))
        text = "".join(f"<p style='margin-top:2px'>{escape(each)}</p>" for each in told)
        self.words.setText(unbroken(text + _rows(snapshot, told_now(snapshot))))


def told_now(snapshot: Snapshot) -> Told:
    """What the plan tells as it stands."""
    return told_of(snapshot.result, snapshot.fall, snapshot.fan)


def _rows(snapshot: Snapshot, told: Told) -> str:
    """Did what was told happen."""
    plan = snapshot.plan
    missed = miss_deg(plan.cut, plan.as_cut, plan.tree.height_m - plan.cut.height_m)
    rows = told_rows(plan, told, missed, snapshot.speech)
    if not rows:
        return ""
    cells = "".join(
        f"<tr><td>{SIGNS[row.agrees]}&nbsp;</td><td style='padding-right:8px'>{escape(row.name)}</td>"
        f"<td style='padding-right:8px'>{escape(row.told)}</td><td>{escape(row.happened)}</td></tr>"
        for row in rows
    )
    head = f"<tr><td></td><td></td><td><i>{tr('was told')}</i></td><td><i>{tr('happened')}</i></td></tr>"
    return f"<table cellspacing='1' style='margin-top:4px'>{head}{cells}</table>"
