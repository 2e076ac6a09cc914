"""A blank sheet to take along to trees of which nothing has been typed yet: what to measure, and what to look for."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import fields
from pathlib import Path

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter

from ....core.tree.around import Around
from ....job.disk import write_atomically
from ....job.fields import label_of
from ....job.language import tr
from ....job.words import Speech
from ....job.words.catalogue import capital
from ...drawing.marks import paint_tick
from ...drawing.palette import LIGHT, font, pen
from .head import cautions_height, foot_lines, paint_cautions
from .paper import PAPERS, Paper
from .pdf import draw_without_screen
from .sheets import PdfSheets

Align = Qt.AlignmentFlag
MEASURED = (
    "tree.trunk.diameter_m", "tree.trunk.at_m", "tree.height_m", "tree.crown.base_m",
    "tree.lean.angle_deg", "tree.lean.bearing_deg",
)  # fmt: skip
"""Fields of the window, called there as they are here."""
FIRST, EDGES = (
    (tr("species"), tr("place")),
    (tr("crown edge north"), tr("crown edge east"), tr("crown edge south"), tr("crown edge west")),
)
LAST = (
    tr("sounds dull or soft at"),
    tr("rot, cracks, limbs"),
    tr("slope, downhill to"),
    tr("wind"),
    tr("lay wanted"),
    tr("ways out"),
)
"""What is drawn in the window rather than typed has its line all the same."""
HEAD_PX, ROW_PX, GAP = 46.0, 24.0, 18.0
LOOK_PX = 20.0
"""Height of one question of the walk round."""
NAME_SHARE, LABEL_SHARE, TICKS = 0.2, 0.42, (0.42, 0.72)
"""Where the line to write on begins, in the head and in a row, and where the boxes stand."""


def write_survey_sheet(trees: int, speech: Speech, output: Path, paper: str) -> None:
    """Write blank sheets for so many trees. Raises JobFileError with a sentence."""
    draw_without_screen()
    with PdfSheets(paper, tr("Survey sheet")) as sheets:
        paint_survey_sheet(sheets.painter, trees, speech, PAPERS[paper], sheets.turn_over)
        write_atomically(output, sheets.content())


def asked(speech: Speech) -> tuple[str, ...]:
    """What is to be written down of each tree, in the order of the walk round it."""
    return (*FIRST, *(speech.say(label_of(path)) for path in MEASURED), *EDGES, *LAST)


def looked_at() -> tuple[tuple[str, tuple[str, str]], ...]:
    """Every question of the walk round with the two answers that can be ticked."""
    found = []
    for item in fields(Around):
        if "choice" in item.metadata:
            words = list(item.metadata["choice"].values())[1:3]
            found.append((tr(item.metadata["label"]), (tr(words[0]), tr(words[1]))))
    return tuple(found)


def block_height(paper: Paper, speech: Speech) -> float:
    """Height of one tree's rows on this paper."""
    rows = -(-len(asked(speech)) // paper.columns)
    return HEAD_PX + rows * ROW_PX + GAP + -(-len(looked_at()) // paper.columns) * LOOK_PX + 30


def paint_survey_sheet(
    painter: QPainter, trees: int, speech: Speech, paper: Paper, turn_over: Callable[[], object]
) -> int:
    """Paint the sheets, as many trees on each as there is room for; returns how many pages they took."""
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    foot = paper.height - paper.margin_px - cautions_height(paper, foot_lines(speech, ""))
    each = block_height(paper, speech)
    on_page = max(int((foot - paper.margin_px) // each), 1)
    for number in range(trees):
        place = number % on_page
        if number and not place:
            turn_over()
        if not place:
            paint_cautions(painter, paper, foot, foot_lines(speech, ""))
            _hint(painter, paper)
        _tree(painter, speech, paper, paper.margin_px + place * each)
    return -(-trees // on_page)


def _hint(painter: QPainter, paper: Paper) -> None:
    painter.setFont(font(12, italic=True))
    painter.setPen(pen(LIGHT.quiet))
    box = QRectF(paper.margin_px, paper.margin_px - 20, paper.inner, 16)
    painter.drawText(box, Align.AlignLeft, tr("What was not looked at stays empty: it is unknown, not clear."))


def _tree(painter: QPainter, speech: Speech, paper: Paper, top: float) -> None:
    """One tree: head, lines to write on, boxes to tick."""
    left, width = paper.margin_px, (paper.inner - GAP * (paper.columns - 1)) / paper.columns
    for number, words in enumerate((tr("tree"), tr("date"), tr("who"))):
        third = paper.inner / 3
        _line(painter, words, QRectF(left + number * third, top, third - 10, HEAD_PX - 16), 15, NAME_SHARE)
    top += HEAD_PX - 8
    rows = -(-len(asked(speech)) // paper.columns)
    for number, words in enumerate(asked(speech)):
        column, row = divmod(number, rows)
        box = QRectF(left + column * (width + GAP), top + row * ROW_PX, width, ROW_PX)
        _line(painter, capital(words), box, 12, LABEL_SHARE)
    top += rows * ROW_PX + GAP
    rows = -(-len(looked_at()) // paper.columns)
    for number, (words, answers) in enumerate(looked_at()):
        column, row = divmod(number, rows)
        _look(
            painter, capital(words), answers, QRectF(left + column * (width + GAP), top + row * LOOK_PX, width, LOOK_PX)
        )


def _line(painter: QPainter, words: str, box: QRectF, size: float, share: float) -> None:
    painter.setPen(pen(LIGHT.ink))
    painter.setFont(font(size, strong=size > 12, narrow=size <= 12))
    painter.drawText(box, Align.AlignLeft | Align.AlignBottom, words)
    painter.setPen(pen(LIGHT.ink, 0.8))
    painter.drawLine(QPointF(box.left() + share * box.width(), box.bottom()), box.bottomRight())


def _look(painter: QPainter, words: str, answers: tuple[str, str], box: QRectF) -> None:
    """One question with its two boxes; both left empty stays what it is: not looked at."""
    painter.setFont(font(12, narrow=True))
    painter.setPen(pen(LIGHT.ink))
    painter.drawText(box, Align.AlignLeft | Align.AlignVCenter, words)
    for share, answer in zip(TICKS, answers, strict=True):
        x = box.left() + share * box.width()
        paint_tick(painter, QPointF(x, box.center().y()), 5, LIGHT, is_done=False)
        painter.setPen(pen(LIGHT.ink))
        painter.drawText(box.adjusted(x + 10 - box.left(), 0, 0, 0), Align.AlignLeft | Align.AlignVCenter, answer)
