"""The page of the Card step: the card as it prints, and where to send it."""

from __future__ import annotations

from dataclasses import replace

from PySide6.QtCore import QEvent, QObject, QRectF, QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QCheckBox, QComboBox, QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from ....core.base.levels import GROUPS
from ....core.judge.findings import Finding
from ....job.language import tr
from ...drawing.palette import LIGHT, fill, font, pen
from ...frame.commands import Commands
from ...frame.page import Picture
from ...frame.plain_label import PlainLabel
from ...frame.store import Snapshot, Store
from .painter import paint_card
from .paper import PAPERS, LayoutWanted
from .pdf import today

GAP, RIM = 14, 32
"""Between two pages of the preview, and round the paper."""
SMALLEST, LARGEST = 0.5, 3.0
"""How far the preview can be zoomed."""
BUTTONS = (
    ("card.survey", tr("Survey sheet…")),
    ("card.all", tr("All cards…")),
    ("card.pdf", tr("PDF…")),
    ("card.print", tr("Print…")),
)
"""Commands at hand here, with words short enough for the narrowest window."""


class Preview(QWidget):
    """The card on its paper."""

    tells_of = GROUPS

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.wanted = LayoutWanted()
        self.zoom = 1.0
        self.pages = 1
        self.setAccessibleName(tr("Card as it prints"))

    @property
    def paper_size(self) -> tuple[float, float]:
        """Width and height of the paper, before zooming."""
        paper = PAPERS[self.wanted.paper]
        return paper.width, paper.height

    def sizeHint(self) -> QSize:
        """The paper with a rim of table round it."""
        width, height = self.paper_size
        return QSize(round(width * self.zoom) + RIM, round((height + GAP) * self.pages * self.zoom) + RIM)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Paint the card with the code that prints it."""
        painter = QPainter(self)
        painter.translate(max((self.width() - self.paper_size[0] * self.zoom) / 2, 0), 12)
        painter.scale(self.zoom, self.zoom)
        self._sheet(painter)
        pages = self.paint_on(painter)
        painter.end()
        if pages != self.pages:
            self.pages = pages
            self.setMinimumSize(self.sizeHint())
            self.update()

    def _sheet(self, painter: QPainter) -> None:
        painter.setPen(pen(LIGHT.quiet, 1))
        painter.setBrush(fill("#FFFFFF"))
        painter.drawRect(QRectF(0, 0, *self.paper_size))

    def paint_on(self, painter: QPainter) -> int:
        """Paint the card itself, its pages under one another; returns how many there are."""

        def turn_over() -> None:
            painter.translate(0, self.paper_size[1] + GAP)
            self._sheet(painter)

        return paint_card(painter, self.store.snapshot, self.wanted, today(), turn_over)


class CardPage(QWidget):
    """Look at the card, choose the paper, print it or write it."""

    def __init__(self, store: Store, commands: Commands, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.preview = Preview(store)
        self.zoomed_by_hand = False
        self.papers = QComboBox()
        for name in PAPERS:
            self.papers.addItem(tr(name), name)
        self.papers.setFont(font(14))
        self.papers.setAccessibleName(tr("Paper"))
        self.papers.setAccessibleDescription(tr("Paper of the card"))
        self.papers.currentIndexChanged.connect(lambda _: self._paper_picked(self.papers.currentData()))
        self.stump_page = QCheckBox(tr("Page for the stump"))
        self.stump_page.setFont(font(14))
        self.stump_page.setChecked(True)
        self.stump_page.setToolTip(
            tr("A page to fill in at the stump after the fall: what was planned, and how it really was.")
        )
        self.stump_page.toggled.connect(self._stump_page_picked)
        self.table = QScrollArea()
        self.table.setWidget(self.preview)
        self.table.setWidgetResizable(True)
        self.table.setAlignment(Qt.AlignmentFlag.AlignHCenter)
        self.table.setAccessibleName(tr("Pages of the card"))
        self.table.setFrameShape(QScrollArea.Shape.NoFrame)
        self.table.viewport().installEventFilter(self)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addLayout(self._tools(commands))
        whole.addWidget(self.table, 1)
        self._resized()

    def _tools(self, commands: Commands) -> QHBoxLayout:
        tools = QHBoxLayout()
        tools.setContentsMargins(10, 6, 10, 4)
        words = PlainLabel(tr("Paper"))
        words.setFont(font(14))
        words.setBuddy(self.papers)
        for widget in (words, self.papers, self.stump_page):
            tools.addWidget(widget)
        tools.addStretch()
        for name, text in BUTTONS:
            tools.addWidget(commands.button(name, text))
        return tools

    @property
    def layout_wanted(self) -> LayoutWanted:
        """How the card is wanted, for whoever prints or writes it."""
        return self.preview.wanted

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document."""
        self.preview.update()

    def bring_out(self, finding: Finding) -> None:
        """The card shows every finding already."""

    def fit(self) -> None:
        """Back to the size it prints, or to the room there is."""
        self.zoomed_by_hand = False
        self._fit_room()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """Follow the room there is, as long as nobody has zoomed."""
        if event.type() == QEvent.Type.Resize and not self.zoomed_by_hand:
            self._fit_room()
        return super().eventFilter(watched, event)

    def _fit_room(self) -> None:
        room = self.table.viewport().width() - RIM
        self.preview.zoom = min(max(room / self.preview.paper_size[0], SMALLEST), 1.0)
        self._resized()

    def _resized(self) -> None:
        self.preview.setMinimumSize(self.preview.sizeHint())
        self.preview.update()

    def zoom(self, factor: float) -> None:
        """The paper larger or smaller."""
        self.zoomed_by_hand = True
        self.preview.zoom = min(max(self.preview.zoom * factor, SMALLEST), LARGEST)
        self._resized()

    def pictures(self) -> tuple[Picture, ...]:
        """The card, for copying."""
        width, height = (round(side) for side in self.preview.paper_size)
        whole = QSize(width, (height + GAP) * self.preview.pages)

        def paint(painter: QPainter) -> None:
            self.preview.paint_on(painter)

        return (Picture(whole, paint),)

    def _paper_picked(self, paper: str) -> None:
        self.preview.wanted = replace(self.preview.wanted, paper=paper)
        self.stump_page.setEnabled(PAPERS[paper].written_on)
        self._fit_room()

    def _stump_page_picked(self, wanted: bool) -> None:
        self.preview.wanted = replace(self.preview.wanted, with_stump_page=wanted)
        self.preview.update()
