"""The card on a printer, by way of a preview."""

from __future__ import annotations

from dataclasses import replace

from PySide6.QtGui import QPageLayout, QPainter
from PySide6.QtPrintSupport import QPrinter, QPrintPreviewDialog
from PySide6.QtWidgets import QWidget

from ....job.language import tr
from ...frame.store import Snapshot
from .painter import paint_card
from .paper import PAPERS, LayoutWanted
from .pdf import today
from .sheets import page_layout


def set_up(printer: QPrinter, wanted: LayoutWanted, title: str) -> None:
    """Set a printer to the paper chosen on the page, to its very edges: the card keeps its own margins."""
    printer.setDocName(title)
    printer.setFullPage(True)
    printer.setPageLayout(page_layout(wanted.paper))


def paper_in(layout: QPageLayout) -> str:
    """The card's paper that is nearest to what lies in the printer: it is laid out anew for that, not stretched."""
    lying = layout.fullRect(QPageLayout.Unit.Millimeter)
    return min(
        PAPERS, key=lambda name: abs(PAPERS[name].wide_mm - lying.width()) + abs(PAPERS[name].tall_mm - lying.height())
    )


def paint_on_printer(printer: QPrinter, snapshot: Snapshot, wanted: LayoutWanted) -> int:
    """Paint the card on what the printer holds now; returns how many pages it took."""
    painter = QPainter(printer)
    painter.scale(printer.resolution() / 96, printer.resolution() / 96)
    try:
        lying = replace(wanted, paper=paper_in(printer.pageLayout()))
        return paint_card(painter, snapshot, lying, today(), printer.newPage)
    finally:
        painter.end()


def print_preview(frame: QWidget, snapshot: Snapshot, wanted: LayoutWanted) -> QPrintPreviewDialog:
    """The preview, from which the printer is chosen and the card printed."""
    dialog = QPrintPreviewDialog(frame)
    set_up(dialog.printer(), wanted, tr("{id}: felling card", id=snapshot.plan.id))
    dialog.setWindowTitle(tr("Print the card of {id}", id=snapshot.plan.id))
    dialog.resize(frame.size() * 0.9)
    dialog.paintRequested.connect(lambda printer: paint_on_printer(printer, snapshot, wanted))
    return dialog


def print_card(frame: QWidget, snapshot: Snapshot, wanted: LayoutWanted) -> None:
    """Open the preview over the window until it is closed."""
    print_preview(frame, snapshot, wanted).exec()
