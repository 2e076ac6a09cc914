"""The tape marks as a strip at true scale: printed at 100 %, cut out, glued end to end and laid round the bark."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QFontMetricsF, QPainter

from ....core.base.frozen import dataclass
from ....core.base.quantity import Kind
from ....core.mechanics.tape import TapeMark, bark_tape
from ....job.disk import write_atomically
from ....job.language import tr
from ...drawing.palette import LIGHT, font, pen
from ...frame.store import Snapshot
from .paper import PAPERS, PX_PER_MM
from .sheets import PdfSheets

Align = Qt.AlignmentFlag
PIECE_MM, MARGIN_MM, ROW_MM, HEAD_MM, WIDE_MM = 250.0, 14.0, 30.0, 12.0, 20.0
"""The longest piece there is; on short papers it is what fits. Rows leave room to cut between them."""
LINE_PX = 14.0
"""Height of one line of words on the strip."""


@dataclass(frozen=True, slots=True)
class Place:
    """One mark on the strip: millimetres leftwards round the bark from the lay, and what is written there."""

    at_mm: float
    words: str


def girth_of(snapshot: Snapshot) -> float:
    """Girth of the bark at the cut in metres, by the tape."""
    return bark_tape(snapshot.result.parts.section).girth_m


def places_of(snapshot: Snapshot) -> tuple[Place, ...]:
    """Every mark of the design, in its order round the bark."""
    girth = girth_of(snapshot)
    found = [place for mark in snapshot.result.tape_marks for place in _both(mark, girth, snapshot)]
    return tuple(sorted(found, key=lambda place: place.at_mm))


def _both(mark: TapeMark, girth_m: float, snapshot: Snapshot) -> list[Place]:
    name = snapshot.speech.named("marks", mark.key)
    found = []
    if mark.left_m is not None:
        found.append(Place(mark.left_m % girth_m * 1000, tr("{name} left", name=name) if mark.left_m else name))
    if mark.right_m:
        found.append(Place(-mark.right_m % girth_m * 1000, tr("{name} right", name=name)))
    return found


def strip_pdf(snapshot: Snapshot, paper: str) -> bytes:
    """The strip as the content of a PDF file, on as many pages as it takes."""
    with PdfSheets(paper, tr("{id}: tape strip", id=snapshot.plan.id), on_its_side=True) as sheets:
        _pages(sheets, snapshot, paper)
        return sheets.content()


def _pages(sheets: PdfSheets, snapshot: Snapshot, paper: str) -> None:
    painter = sheets.painter
    girth_mm = girth_of(snapshot) * 1000
    places = places_of(snapshot)
    sheet = PAPERS[paper]
    # The paper lies on its side.
    rows = int((sheet.wide_mm - 2 * MARGIN_MM - HEAD_MM) // ROW_MM)
    long_mm = min(PIECE_MM, (sheet.tall_mm - 2 * MARGIN_MM) // 10 * 10)
    for piece in range(int(-(-girth_mm // long_mm))):
        if piece % rows == 0:
            if piece:
                sheets.turn_over()
            girth = snapshot.speech.show(girth_mm / 1000, Kind.LENGTH)
            head = tr(
                "{id}: tape marks leftwards round the bark from the lay; girth {girth}; print at 100 %",
                id=snapshot.plan.id,
                girth=girth,
            )
            painter.setFont(font(14, strong=True))
            painter.setPen(pen(LIGHT.ink))
            painter.drawText(QPointF(MARGIN_MM * PX_PER_MM, (MARGIN_MM + 4) * PX_PER_MM), head)
        top_mm = MARGIN_MM + HEAD_MM + (piece % rows) * ROW_MM
        _piece(painter, top_mm, piece * long_mm, min(long_mm, girth_mm - piece * long_mm), places)


def _piece(painter: QPainter, top_mm: float, start_mm: float, length_mm: float, places: tuple[Place, ...]) -> None:
    """One piece: a tick each centimetre, longer each ten, and the marks that fall on it."""
    left, top = MARGIN_MM * PX_PER_MM, top_mm * PX_PER_MM
    painter.setPen(pen(LIGHT.ink, 0.8))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawRect(QRectF(left, top, length_mm * PX_PER_MM, WIDE_MM * PX_PER_MM))
    painter.setFont(font(11, narrow=True))
    for tick in range(0, int(length_mm) + 1, 10):
        whole = round(start_mm + tick) % 100 == 0
        x = left + tick * PX_PER_MM
        painter.drawLine(QPointF(x, top), QPointF(x, top + (5 if whole else 2) * PX_PER_MM))
        if whole and tick < length_mm - 12:  # a number that would stand past the end begins the next piece
            painter.drawText(
                QPointF(x + 3, top + 5 * PX_PER_MM), tr("{start_mm:.0f} cm", start_mm=(start_mm + tick) / 10)
            )
    here = [place for place in places if 0 <= place.at_mm - start_mm < length_mm]
    boxes = label_boxes([(place.at_mm - start_mm) * PX_PER_MM for place in here], length_mm * PX_PER_MM, _wide(here))
    for place, box in zip(here, boxes, strict=True):
        x = left + (place.at_mm - start_mm) * PX_PER_MM
        painter.setPen(pen(LIGHT.load, 2.0))
        painter.drawLine(QPointF(x, top + 6 * PX_PER_MM), QPointF(x, top + WIDE_MM * PX_PER_MM))
        painter.setPen(pen(LIGHT.ink))
        painter.drawText(box.translated(left, top + 8 * PX_PER_MM), Align.AlignLeft, place.words)


def _wide(places: list[Place]) -> list[float]:
    metrics = QFontMetricsF(font(11, narrow=True))
    return [metrics.horizontalAdvance(place.words) + 2 for place in places]


def label_boxes(at_px: list[float], length_px: float, widths_px: list[float]) -> list[QRectF]:
    """Where the words of marks go on one piece: beside their mark, in the first row where they cover nobody.

    Args:
        at_px: where the marks stand along the piece, in order.
        length_px: of the piece; words that would pass its end stand before their mark instead.
    """
    found: list[QRectF] = []
    for at, width in zip(at_px, widths_px, strict=True):
        left = at + 4 if at + 4 + width <= length_px else max(at - 4 - width, 0.0)
        box = QRectF(left, 0.0, width, LINE_PX)
        while any(box.intersects(other) for other in found):
            box.translate(0.0, LINE_PX)
        found.append(box)
    return found


def write_strip(snapshot: Snapshot, output: Path, paper: str = "A4") -> None:
    """Write one tree's strip. Raises JobFileError with a sentence; one already there then stays as it was."""
    write_atomically(output, strip_pdf(snapshot, paper))
