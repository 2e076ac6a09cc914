"""The day sheet: map, order, who and what help, ticks, and lines to fill in; on paper."""

from __future__ import annotations

from html import escape
from pathlib import Path

from PySide6.QtCore import QBuffer, QByteArray, QIODevice, QSize, QSizeF
from PySide6.QtGui import QImage, QImageWriter, QPainter

from ....job.block import Block, Ordered, place_reasons
from ....job.block_kit import kit_of, piece_words
from ....job.block_report import block_to_plain, takes_words
from ....job.document import Job
from ...drawing.block.map_painter import Look, map_scale, paint_map
from ...drawing.palette import PRINTED
from ..card.pdf import draw_without_screen
from ..stump.days_pdf import write_days_pdf
from .drawn import drawn_trees

MAP, FINER = QSize(640, 450), 2
"""Pixels of the map on the page, and how much finer it is drawn."""
H3 = "<h3 style='font-weight:600'>"
"""In a weight the program's type has."""
LINES = ("Meeting point", "Radio, channel", "Emergency, and how they find us", "Grid reference", "Crew")
"""What is filled in on the spot."""


def sheet_html(job: Job, block: Block, found: Ordered, picture: str) -> str:
    """The sheet as rich text, every word of a person's escaped."""
    speech, why = job.speech, place_reasons(block, found, job.speech)
    rows = block_to_plain(job, block, found)["order"]
    cells = []
    for row, slot in zip(rows, found.slots, strict=True):
        takes = takes_words(block, found, slot.tree, speech)
        told = escape("; ".join(why[slot.tree]))
        cells.append(
            f"<tr><td>☐</td><td><b>{row['number']}</b></td><td><b>{escape(row['tree'])}</b></td><td>{row['day']}</td>"
            f"<td>{speech.show(row['lay_deg'], 'bearing')}</td><td>{escape(takes)}</td>"
            f"<td>{row['minutes']:.0f} min</td><td>{told}</td></tr>"
        )
    ids = [row["tree"] for row in rows]
    kit = "".join(f"<li>☐ {escape(piece_words(piece, ids, speech))}</li>" for piece in kit_of(job, block, found))
    lines = "".join(f"<p>{line}: _______________________________________________</p>" for line in LINES)
    left = "".join(f"<li>{escape(id)}: {escape(speech.tell(what))}</li>" for id, what in block.left_out)
    late = "".join(f"<li>{escape(block.trees[at].id)}: {escape(speech.tell('block.no_day'))}</li>" for at in found.late)
    cautions = "".join(f"<li>{escape(each)}</li>" for each in speech.cautions())
    head = "<tr><td></td><td></td><td>tree</td><td>day</td><td>lay</td><td>takes</td><td>~</td><td>why there</td></tr>"
    not_in = f"{H3}Not in this order</h3><ul>{left}{late}</ul>" if left or late else ""
    return (
        f"<h2 style='font-weight:600'>{escape(job.name)}: day sheet</h2><img src='{picture}' width='{MAP.width()}'>"
        f"{H3}Order (times and order are indicative)</h3><table cellspacing='4'>{head}{''.join(cells)}</table>"
        f"{H3}To take along</h3><ul>{kit}</ul>{not_in}{lines}<ul>{cautions}</ul>"
    )


def _picture(job: Job, block: Block, found: Ordered) -> str:
    """The map as a picture inside the page."""
    image = QImage(MAP * FINER, QImage.Format.Format_RGB32)
    image.setDevicePixelRatio(FINER)
    image.fill(0xFFFFFFFF)
    with QPainter(image) as painter:
        trees = drawn_trees(job, block, found)
        scale = map_scale(MAP.width(), MAP.height(), trees)
        paint_map(painter, scale, job.site.obstacles, trees, (), Look("", PRINTED, QSizeF(MAP)))
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    QImageWriter(buffer, QByteArray(b"png")).write(image)
    return "data:image/png;base64," + bytes(buffer.data().toBase64().data()).decode()


def write_day_sheet(job: Job, block: Block, found: Ordered, path: Path) -> None:
    """Write the sheet as PDF. Raises JobFileError."""
    write_days_pdf(path, sheet_html(job, block, found, _picture(job, block, found)), f"{job.name}: day sheet")


def write_day_sheet_without_screen(job: Job, block: Block, found: Ordered, path: Path) -> None:
    """The same where no window is open."""
    draw_without_screen()
    write_day_sheet(job, block, found, path)
