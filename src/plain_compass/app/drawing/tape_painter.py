"""The tape marks as a table: left and right round the bark from the lay mark."""

from __future__ import annotations

from itertools import zip_longest

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QPainter

from ...core.base.quantity import Kind
from ...core.mechanics.tape import TapeMark
from ...job.language import tr
from ...job.units import tape_rounded
from ...job.words import Speech
from .palette import Palette, font, pen

Align = Qt.AlignmentFlag
HEAD_PX, ROW_PX = 22.0, 20.0
"""Height of the heading and of a row, where the room is not too small for that."""


def tape_rows(marks: tuple[TapeMark, ...], speech: Speech) -> list[tuple[str, str, str]]:
    """(left, name, right) of every mark but the lay itself, rounded as they are chalked."""

    def side(value: float | None) -> str:
        return "" if value is None else speech.show(tape_rounded(value, speech.units), Kind.LENGTH)

    return [(side(m.left_m), speech.named("marks", m.key), side(m.right_m)) for m in _paired(marks) if m.key != "lay"]


def _paired(marks: tuple[TapeMark, ...]) -> list[TapeMark]:
    """Wedge seats side by side in one row: the first on the left with the first on the right."""
    seats = [m for m in marks if m.key == "wedge_seat"]
    lefts = [m for m in seats if m.left_m is not None and m.right_m is None]
    rights = [m for m in seats if m.right_m is not None and m.left_m is None]
    both = [m for m in seats if m not in lefts and m not in rights]
    pairs = [
        TapeMark("wedge_seat", a.left_m if a else None, b.right_m if b else None) for a, b in zip_longest(lefts, rights)
    ]
    others = [m for m in marks if m.key != "wedge_seat"]
    return [*others[:-1], *pairs, *both, others[-1]]


def tape_height(marks: tuple[TapeMark, ...], size: float = 1.0) -> float:
    """Height of the table, its heading included."""
    rows = sum(mark.key != "lay" for mark in _paired(marks))
    return (HEAD_PX + ROW_PX * (rows + 1)) * size


def paint_tape(
    painter: QPainter, box: QRectF, marks: tuple[TapeMark, ...], speech: Speech, palette: Palette, size: float = 1.0
) -> None:
    """Paint the table: left distances, names in the middle, right distances."""
    rows = tape_rows(marks, speech)
    painter.setPen(pen(palette.ink))
    painter.setFont(font(13 * size, strong=True, narrow=True))
    painter.drawText(
        QRectF(box.left(), box.top(), box.width(), 18 * size),
        Align.AlignLeft,
        tr("Tape round the bark from the lay mark"),
    )
    head = box.top() + HEAD_PX * size
    step = min((box.height() - 40 * size) / max(len(rows), 1), ROW_PX * size)
    whole = min(box.width(), 390 * size)
    for number, row in enumerate(((tr("left"), "", tr("right")), *rows)):
        line = QRectF(box.left(), head + number * step, whole, step)
        _row(painter, line, row, palette, size, is_head=number == 0)


def _row(
    painter: QPainter, line: QRectF, cells: tuple[str, str, str], palette: Palette, size: float, *, is_head: bool
) -> None:
    whole = line.width()
    lefts, widths = (0.0, 0.28 * whole, 0.72 * whole), (0.28 * whole, 0.44 * whole, 0.28 * whole)
    painter.setFont(font(12 * size if is_head else 13 * size, narrow=is_head))
    painter.setPen(pen(palette.quiet if is_head else palette.ink))
    for column, align in enumerate((Align.AlignRight, Align.AlignCenter, Align.AlignLeft)):
        cell = QRectF(line.left() + lefts[column], line.top(), widths[column], line.height())
        painter.drawText(cell, align | Align.AlignVCenter, cells[column])
    if not is_head:
        painter.setPen(pen(palette.line, 0.8 * size))
        painter.drawLine(line.topLeft(), line.topRight())
