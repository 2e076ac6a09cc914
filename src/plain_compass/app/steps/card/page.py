"""The page of the Card step: the card as it prints, and where to send it."""

from __future__ import annotations

from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QComboBox, QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from ....core.judge.findings import Finding
from ...drawing.palette import LIGHT, fill, font, pen
from ...frame.commands import Commands
from ...frame.page import Picture
from ...frame.plain_label import PlainLabel
from ...frame.store import Snapshot, Store
from .painter import PAPERS, paint_card
from .pdf import today

GAP = 14
"""Between two pages of the preview."""


class Preview(QWidget):
    """The card on its paper."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.paper = "A4"
        self.zoom = 1.0
        self.pages = 1
        self.setAccessibleName("Card as it prints")

    def sizeHint(self) -> QSize:
        """The paper with a rim of table round it."""
        width, height = PAPERS[self.paper]
        return QSize(round(width * self.zoom) + 32, round((height + GAP) * self.pages * self.zoom) + 32)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Paint the card with the code that prints it."""
        painter = QPainter(self)
        width, _ = PAPERS[self.paper]
        painter.translate(max((self.width() - width * self.zoom) / 2, 0), 12)
        painter.scale(self.zoom, self.zoom)
        self._sheet(painter)
        pages = self.paint_on(painter)
        painter.end()
        if pages != self.pages:
            self.pages = pages
            self.setMinimumSize(self.sizeHint())
            self.update()

    def _sheet(self, painter: QPainter) -> None:
        width, height = PAPERS[self.paper]
        painter.setPen(pen(LIGHT.quiet, 1))
        painter.setBrush(fill("#FFFFFF"))
        painter.drawRect(QRectF(0, 0, width, height))

    def paint_on(self, painter: QPainter) -> int:
        """Paint the card itself, its pages under one another; returns how many there are."""

        def turn_over() -> None:
            painter.translate(0, PAPERS[self.paper][1] + GAP)
            self._sheet(painter)

        return paint_card(painter, self.store.snapshot, self.paper, today(), turn_over)


class CardPage(QWidget):
    """Look at the card, choose the paper, write the PDF."""

    def __init__(self, store: Store, commands: Commands, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.preview = Preview(store)
        self.papers = QComboBox()
        self.papers.addItems(list(PAPERS))
        self.papers.setFont(font(14))
        self.papers.setAccessibleName("Paper")
        self.papers.currentTextChanged.connect(self._paper_picked)
        tools = QHBoxLayout()
        tools.setContentsMargins(10, 6, 10, 4)
        words = PlainLabel("Paper")
        words.setFont(font(14))
        tools.addWidget(words)
        tools.addWidget(self.papers)
        tools.addStretch()
        tools.addWidget(commands.button("card.all"))
        tools.addWidget(commands.button("card.pdf"))
        scroll = QScrollArea()
        scroll.setWidget(self.preview)
        scroll.setWidgetResizable(True)
        scroll.setAlignment(Qt.AlignmentFlag.AlignHCenter)
        scroll.setFrameShape(QScrollArea.Shape.NoFrame)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addLayout(tools)
        whole.addWidget(scroll, 1)
        self.preview.setMinimumSize(self.preview.sizeHint())

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document."""
        self.preview.update()

    def bring_out(self, finding: Finding) -> None:
        """The card shows every finding already."""

    def fit(self) -> None:
        """Back to the size it prints."""
        self.preview.zoom = 1.0
        self._resized()

    def _resized(self) -> None:
        self.preview.setMinimumSize(self.preview.sizeHint())
        self.preview.update()

    def zoom(self, factor: float) -> None:
        """The paper larger or smaller."""
        self.preview.zoom = min(max(self.preview.zoom * factor, 0.5), 3.0)
        self._resized()

    def pictures(self) -> tuple[Picture, ...]:
        """The card, for copying."""
        width, height = (round(side) for side in PAPERS[self.preview.paper])
        whole = QSize(width, (height + GAP) * self.preview.pages)

        def paint(painter: QPainter) -> None:
            self.preview.paint_on(painter)

        return (Picture(whole, paint),)

    def _paper_picked(self, paper: str) -> None:
        self.preview.paper = paper
        self._resized()
