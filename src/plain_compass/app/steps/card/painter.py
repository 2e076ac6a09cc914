"""The card: both drawings, tape marks, order of the cuts, findings and cautions, on as many pages as it takes."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QPainter

from ....core.base.levels import GROUPS
from ....job.language import tr
from ...drawing.palette import LIGHT, font, pen
from ...drawing.tape_painter import paint_tape, tape_height
from ...frame.band import paint_strip, strip_of
from ...frame.store import Snapshot
from .drawings import paint_drawings
from .flow import Item, flow, heading
from .head import cautions_height, foot_lines, paint_cautions, paint_head
from .items import finding_items, plan_items
from .paper import PAPERS, LayoutWanted, Paper
from .stump_page import paint_stump_page

Align = Qt.AlignmentFlag
COLUMN_GAP = 22.0
"""Between the two columns of text."""
STRIP_ROW = 42.0
"""A row of the margin band."""
TAPE_SIZE = 0.9
"""Of the table of tape marks, against the screen's."""


class CardPainter:
    """One card on one paper, page after page."""

    def __init__(self, painter: QPainter, snapshot: Snapshot, paper: Paper, printed: str) -> None:
        self.painter, self.snapshot, self.paper, self.printed = painter, snapshot, paper, printed
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        self.lines = foot_lines(snapshot.speech, snapshot.job.practice)
        cautions = cautions_height(self.paper, self.lines) if self.paper.written_on else 0.0
        self.foot = self.paper.height - self.paper.margin_px - cautions
        self.pages = 0

    def begin(self) -> float:
        """Head and foot of a page; returns where what is on it begins."""
        self.pages += 1
        printed = (
            self.printed if self.pages == 1 else tr("{printed} · page {pages}", printed=self.printed, pages=self.pages)
        )
        brief = self.pages > 1 and not self.paper.beside
        # The head first: so is it read out, and so is it found in the file.
        top = paint_head(self.painter, self.snapshot, self.paper, printed, brief=brief)
        if self.paper.written_on:
            paint_cautions(self.painter, self.paper, self.foot, self.lines)
        return top

    def drawn(self) -> list[Item]:
        """The first page: both drawings, and on wide paper what there is room for under them. Returns the rest."""
        top = self.begin()
        top = paint_drawings(self.painter, self.snapshot, self.paper, QRectF(0.0, top, 0.0, self.foot - 24 - top))
        if self.paper.columns > 1:
            return self._columns(self._strips(top))
        items = [*plan_items(self.snapshot), *finding_items(self.snapshot)]
        if not self.paper.written_on:
            items += [heading(tr("Cautions")), *(Item(text, "·") for text in self.lines)]
        return items

    def overleaf(self, rest: list[Item]) -> list[Item]:
        """A further page of text; narrow paper has margin band and tape marks on its second. Returns the rest."""
        top = self.begin() + 4
        if self.paper.columns == 1 and self.pages == 2:
            top = self._tape(QRectF(self.paper.margin_px, self._strips(top), self.paper.inner, 0.0))
        return self._text(rest, top)

    def goes_on(self) -> None:
        """Say at the foot that there is more."""
        self.painter.setFont(font(12, italic=True))
        self.painter.setPen(pen(LIGHT.ink))
        box = QRectF(self.paper.margin_px, self.foot - 18, self.paper.inner, 16)
        self.painter.drawText(box, Align.AlignRight, tr("goes on overleaf") if self.paper.written_on else tr("goes on"))

    def _text(self, items: list[Item], top: float) -> list[Item]:
        box = QRectF(self.paper.margin_px, top, self.paper.inner, self.foot - 24 - top)
        return flow(self.painter, items, box, self.paper.size)

    def _strips(self, top: float) -> float:
        """The margin band, as on the screen, in rows."""
        across = self.paper.across
        width = self.paper.inner / across
        for index, group in enumerate(GROUPS):
            row, column = divmod(index, across)
            box = QRectF(self.paper.margin_px + column * width, top + STRIP_ROW * row, width - 12, STRIP_ROW - 2)
            strip = strip_of(self.snapshot.result.findings, group)
            paint_strip(self.painter, box, strip, self.snapshot.speech, LIGHT, 0.78)
        return top + STRIP_ROW * -(-len(GROUPS) // across) + 4

    def _columns(self, top: float) -> list[Item]:
        """Order of the cuts, wedges, ground and notes on the left; tape marks and findings on the right.

        Returns what there was no room for.
        """
        left_width = self.paper.inner * 0.48
        right, bottom = self.paper.margin_px + left_width + COLUMN_GAP, self.foot - 24
        right_width = self.paper.inner - left_width - COLUMN_GAP
        box = QRectF(self.paper.margin_px, top - 3, left_width, bottom - top + 3)
        left_over = flow(self.painter, list(plan_items(self.snapshot)), box, self.paper.size)
        below = self._tape(QRectF(right, top, right_width, 0.0))
        box = QRectF(right, below, right_width, bottom - below)
        return [*left_over, *flow(self.painter, list(finding_items(self.snapshot)), box, self.paper.size)]

    def _tape(self, box: QRectF) -> float:
        """The tape marks as a table; returns where what follows begins."""
        marks, tall = self.snapshot.result.tape_marks, tape_height(self.snapshot.result.tape_marks, TAPE_SIZE)
        room = QRectF(box.left(), box.top(), box.width(), tall + 20)
        paint_tape(self.painter, room, marks, self.snapshot.speech, LIGHT, TAPE_SIZE)
        return box.top() + tall + 10


def paint_card(
    painter: QPainter,
    snapshot: Snapshot,
    wanted: LayoutWanted,
    printed: str,
    turn_over: Callable[[], object] = lambda: None,
) -> int:
    """Paint the whole card, laid out in 1/96 inch from the painter's origin; returns how many pages it took.

    Args:
        printed: the date it was made, as text.
        turn_over: called before each further page, to begin it or to move the painter's origin there.
    """
    card = CardPainter(painter, snapshot, PAPERS[wanted.paper], printed)
    rest = card.drawn()
    while rest:
        card.goes_on()
        turn_over()
        rest = card.overleaf(rest)
    if wanted.stump_page_on_paper:
        turn_over()
        paint_stump_page(painter, snapshot, card.paper, card.begin(), card.foot)
    return card.pages
