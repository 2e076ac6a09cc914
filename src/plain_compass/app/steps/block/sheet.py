"""The day sheet: map, each day's order, who and what help, ticks, kit, lines to fill in, and the site true to scale."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial
from html import escape
from pathlib import Path

from PySide6.QtCore import QBuffer, QByteArray, QIODevice, QPointF, QRectF, QSize, QSizeF
from PySide6.QtGui import QImage, QImageWriter, QPainter
from PySide6.QtPrintSupport import QPrinter, QPrintPreviewDialog
from PySide6.QtWidgets import QWidget

from ....core.base.frozen import dataclass
from ....core.block.hours import clock_words
from ....job.block import Block, Ordered, left_words, waits_words
from ....job.block_crew import crew_words, whose_of, whose_words
from ....job.block_kit import kit_of, piece_words, without_missing
from ....job.block_report import block_to_plain, takes_words
from ....job.block_strip import clock_of, days_of, done_words
from ....job.document import Job
from ....job.language import tr
from ....job.stamp import stamp_words
from ...drawing.block.map_painter import Drawn, Look, map_scale, paint_edges, paint_map
from ...drawing.pages import MM_PX, page_layout, paint_pages, scale_for, write_pages
from ...drawing.palette import PRINTED, font, pen
from ...drawing.scale import Scale
from ..card.pdf import draw_without_screen
from .drawn import all_zones, drawn_trees

MAP, FINER = QSize(640, 400), 2
"""Pixels of the map on the page, and how much finer it is drawn."""
B, END_B = "<span style='font-weight:600'>", "</span>"
H3 = "<h3 style='font-weight:600'>"
"""In a weight the program's type has."""
LINES = (
    tr("Meeting point"),
    tr("Radio, channel"),
    tr("Emergency, and how they find us"),
    tr("Grid reference"),
    tr("Crew"),
)
"""What is filled in on the spot."""
HEADINGS = ("", "", tr("tree"), tr("~ from"), tr("lay"), tr("takes"), tr("who"), tr("why there"))
"""Above the order of a day."""
FOOT_PX = 60.0
"""Below the site on its page stand its scale and what is drawn."""


@dataclass(frozen=True, slots=True)
class DaySheet:
    """What a sheet is made of."""

    job: Job
    block: Block
    found: Ordered

    @property
    def title(self) -> str:
        """Of the sheet."""
        return tr("{name}: day sheet", name=self.job.name)

    def html(self, picture: str) -> str:
        """The sheet as rich text, every word of a person's escaped."""
        speech = self.job.speech
        rows = self._rows()
        days = "".join(self._day(day, rows) for day in days_of(self.found) if self._slots(day))
        lines = "".join(f"<p>{line}: _______________________________________________</p>" for line in LINES)
        cautions = "".join(f"<li>{escape(each)}</li>" for each in speech.cautions())
        crew = escape(crew_words(self.job, speech))
        title, head = escape(self.title), tr("Order (times and order are indicative)")
        stamp = escape(stamp_words(self.job.practice))
        return (
            f"<h2 style='font-weight:600'>{title}</h2><img src='{picture}' width='{MAP.width()}'><p>{crew}</p>"
            f"{H3}{head}</h3>{days}{self._left()}{lines}<ul>{cautions}</ul><p>{stamp}</p>"
        )

    def _slots(self, day: int) -> list[int]:
        return [place for place, slot in enumerate(self.found.slots) if slot.day == day]

    def _day(self, day: int, rows: Sequence[str]) -> str:
        """One day: its order, when it is done, its kit, and what lacks."""
        here = self._slots(day)
        ids = [self.block.trees[self.found.slots[place].tree].id for place in here]
        speech, pieces = self.job.speech, kit_of(self.job, self.block, self.found, day)
        kit = "<br>".join(f"☐ {escape(piece_words(piece, ids, speech))}" for piece in pieces)
        waits, _ = without_missing(self.job, self.block, self.found, day)
        put_off = tr("As packed, to be put off: {names}", names=escape(", ".join(waits)))
        done, take = escape(done_words(self.job, self.found, day)), tr("To take along:")
        return (
            f"<p>{B}{done}{END_B}</p><table cellspacing='4'>{_head()}{''.join(rows[place] for place in here)}</table>"
            + (f"<p>{B}{put_off}{END_B}</p>" if waits else "")
            + f"<p>{take}<br>{kit}</p>"
        )

    def _rows(self) -> list[str]:
        """The order, a row each."""
        speech, rows = self.job.speech, list[str]()
        waits = waits_words(self.block, self.found, speech)
        order = block_to_plain(self.job, self.block, self.found)["order"]
        for row, slot in zip(order, self.found.slots, strict=True):
            begins, _ = clock_of(self.job, slot.begins_min, slot.ends_min)
            whose = whose_of(self.job, self.block, self.found, slot.tree)
            who = "" if whose is None else ", ".join(whose.can) or whose_words(whose, speech)
            cells = (
                "☐",
                f"{B}{row['number']}{END_B}",
                f"{B}{escape(row['tree'])}{END_B}",
                clock_words(begins),
                speech.show(row["lay_deg"], "bearing"),
                escape(takes_words(self.block, self.found, slot.tree, speech)),
                escape(who),
                escape("; ".join(waits[slot.tree])),
            )
            rows.append(f"<tr>{''.join(f'<td>{each}</td>' for each in cells)}</tr>")
        return rows

    def _left(self) -> str:
        left = left_words(self.block, self.found, self.job.speech)
        items = "".join(f"<li>{escape(id)}: {escape(told)}</li>" for id, told in left)
        return f"{H3}{tr('Not in this order')}</h3><ul>{items}</ul>" if left else ""

    def trees(self) -> list[Drawn]:
        """As the map has them."""
        return drawn_trees(self.job, self.block, self.found)

    def picture(self) -> str:
        """The map as a picture inside the page."""
        image = QImage(MAP * FINER, QImage.Format.Format_RGB32)
        image.setDevicePixelRatio(FINER)
        image.fill(0xFFFFFFFF)
        with QPainter(image) as painter:
            trees = self.trees()
            scale = map_scale(MAP.width(), MAP.height(), trees)
            paint_map(painter, scale, self.job.site.obstacles, trees, (), Look("", PRINTED, QSizeF(MAP)))
        buffer = QBuffer()
        buffer.open(QIODevice.OpenModeFlag.WriteOnly)
        QImageWriter(buffer, QByteArray(b"png")).write(image)
        return "data:image/png;base64," + bytes(buffer.data().toBase64().data()).decode()

    def paint_site(self, painter: QPainter, page: QSizeF) -> None:
        """The site true to scale, north up, with everything anybody is kept away from."""
        edges = all_zones(self.job, [tree.id for tree in self.block.trees])
        room = QSizeF(page.width(), page.height() - FOOT_PX)
        east, north = ([at[axis] for edge in edges for at in edge] for axis in (0, 1))
        one_to = scale_for(max(east) - min(east), max(north) - min(north), room)
        px = MM_PX * 1000.0 / one_to
        middle = QPointF((max(east) + min(east)) / 2 * px, -(max(north) + min(north)) / 2 * px)
        scale = Scale(px, QPointF(room.width() / 2, room.height() / 2) - middle)
        painter.save()
        painter.setClipRect(QRectF(QPointF(0.0, 0.0), room))
        paint_map(painter, scale, self.job.site.obstacles, self.trees(), (), Look("", PRINTED, room))
        paint_edges(painter, scale, edges, PRINTED)
        painter.restore()
        self._foot(painter, (one_to, px), room.height())

    def _foot(self, painter: QPainter, scale: tuple[int, float], top: float) -> None:
        """The scale in figures and as a ruler, and what the outer line is."""
        one_to, px = scale
        long_m = next(each for each in (100.0, 50.0, 20.0, 10.0, 5.0, 2.0, 1.0) if each * px < 260.0 or each == 1.0)
        painter.setPen(pen(PRINTED.ink, 1.2))
        y = top + 22.0
        painter.drawLine(QPointF(0.0, y), QPointF(long_m * px, y))
        for x in (0.0, long_m * px / 2, long_m * px):
            painter.drawLine(QPointF(x, y - 5), QPointF(x, y + 5))
        painter.setFont(font(12))
        ruler = self.job.speech.show(long_m, "span")
        painter.drawText(
            QPointF(long_m * px + 10, y + 4),
            tr("{ruler} · 1 : {one_to} on A4, printed at full size", ruler=ruler, one_to=one_to),
        )
        told = tr(
            "Outer line: nobody else within it while any of these falls. Places and zones are as they were measured."
        )
        painter.drawText(QPointF(0.0, y + 26), told)


def write_day_sheet(job: Job, block: Block, found: Ordered, path: Path) -> None:
    """Write the sheet as PDF. Raises JobFileError."""
    sheet = DaySheet(job, block, found)
    write_pages(path, sheet.html(sheet.picture()), sheet.title, [sheet.paint_site])


def write_day_sheet_without_screen(job: Job, block: Block, found: Ordered, path: Path) -> None:
    """The same where no window is open."""
    draw_without_screen()
    write_day_sheet(job, block, found, path)


def print_on(printer: QPrinter, sheet: DaySheet) -> int:
    """Paint the sheet on what the printer holds; returns how many pages it took."""
    return paint_pages(printer, printer.resolution(), sheet.html(sheet.picture()), [sheet.paint_site])


def sheet_preview(frame: QWidget, job: Job, block: Block, found: Ordered) -> QPrintPreviewDialog:
    """The preview, from which the printer is chosen and the sheet printed."""
    dialog, sheet = QPrintPreviewDialog(frame), DaySheet(job, block, found)
    dialog.printer().setDocName(sheet.title)
    dialog.printer().setPageLayout(page_layout())
    dialog.setWindowTitle(tr("Print the day sheet"))
    dialog.resize(frame.size() * 0.9)
    dialog.paintRequested.connect(partial(print_on, sheet=sheet))
    return dialog


def _head() -> str:
    return f"<tr>{''.join(f'<td>{words}</td>' for words in HEADINGS)}</tr>"
