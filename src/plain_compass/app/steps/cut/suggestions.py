"""Suggested designs in the page: three small stumps side by side with their pegs, each taken over by one key."""

from __future__ import annotations

from PySide6.QtCore import QEvent, QPointF, QRectF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import QKeyEvent, QPainter
from PySide6.QtWidgets import (
    QApplication,
    QFrame,
    QHBoxLayout,
    QLabel,
    QProgressBar,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from ....core.advice.suggest import Suggested, Suggestion, suggest
from ....core.base.levels import Group
from ....core.judge.unmeasured import UnmeasuredError
from ....job.document import with_plan
from ....job.language import tr
from ....job.spreads import spreads_of
from ....job.words import Speech
from ...drawing.canvas import Canvas
from ...drawing.palette import font
from ...drawing.plan_painter import paint_small
from ...drawing.scale import Scale
from ...drawing.shapes import Shapes
from ...drawing.text import unbroken
from ...frame.band import paint_strip, strip_of
from ...frame.painted import PaintedView
from ...frame.plain_label import PlainLabel
from ...frame.store import Store

PEGS = (Group.BALANCE, Group.HINGE, Group.SPLIT, Group.WEDGE, Group.FACE, Group.BAR)
"""Limit states that the choice of a cut changes."""
STUMP_PX, STRIP_PX = 190, 46
"""Height of a small stump, and of a row of pegs under it."""


KEYS = (Qt.Key.Key_1, Qt.Key.Key_2, Qt.Key.Key_3, Qt.Key.Key_Escape)
"""Keys that take a design over, or leave."""


class Tile(PaintedView):
    """One design: its stump from above, the lay up the page, and its pegs."""

    def __init__(self, design: Suggestion, speech: Speech, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.shapes, self.speech = Shapes(design.result), speech
        self.setMinimumHeight(self.sizeHint().height())
        strips = [strip_of(design.result.findings, group) for group in PEGS]
        told = [f"{speech.named('groups', each.group)}: {each.word}" for each in strips]
        self.setAccessibleName(speech.phrase(design.words))
        self.setAccessibleDescription("; ".join(told))
        self.strips = strips

    def sizeHint(self) -> QSize:
        """Room for the stump and three rows of pegs."""
        return QSize(250, STUMP_PX + 3 * STRIP_PX + 8)

    def draw(self, painter: QPainter) -> None:
        """Stump above, pegs below."""
        diameter = self.shapes.result.parts.section.diameter_m
        scale = Scale((STUMP_PX - 46) / diameter, QPointF(self.width() / 2, STUMP_PX / 2 + 12))
        paint_small(Canvas(painter, self.shapes, scale, self.speech, self.palette_in_use, size=0.9))
        across = self.width() / 2
        for number, strip in enumerate(self.strips):
            row, column = divmod(number, 2)
            box = QRectF(4 + column * across, STUMP_PX + 4 + row * STRIP_PX, across - 12, 42)
            paint_strip(painter, box, strip, self.speech, self.palette_in_use, 0.9)


class Suggestions(QWidget):
    """Searches when it is shown; keys 1, 2 and 3 take a design over, Escape leaves everything as it is.

    Signals:
        finished: it is done with, one way or the other.
    """

    finished = Signal()

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        # What they are made for: another tree, site or kit wants others, and another cut too.
        self.about = store.snapshot.result.case
        self.found: Suggested | None = None
        self.cancelled = self._is_searching = False
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Suggested designs"))
        self.head = self._label(tr("Searching the table of cuts …"), strong=True)
        self.bar = QProgressBar()
        self.bar.setRange(0, 100)
        self.stop = QPushButton(tr("Cancel"))
        self.stop.clicked.connect(self.reject)
        self.columns = QHBoxLayout()
        self.columns.setSpacing(10)
        body = QWidget()
        body.setObjectName("page")
        body.setLayout(self.columns)
        area = QScrollArea()
        area.setWidget(body)
        area.setWidgetResizable(True)
        area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        area.setFrameShape(QFrame.Shape.NoFrame)
        whole = QVBoxLayout(self)
        top = QHBoxLayout()
        top.addWidget(self.head, 1)
        top.addWidget(self.stop)
        whole.addLayout(top)
        whole.addWidget(self.bar)
        whole.addWidget(area, 1)
        QTimer.singleShot(0, self, self.search)

    def _label(self, text: str, *, strong: bool = False, size: int = 14) -> QLabel:
        label = PlainLabel(unbroken(text))
        label.setWordWrap(True)
        label.setFont(font(size, strong=strong))
        return label

    def search(self) -> None:
        """Search some designs at a time; the window stays awake in between."""

        def tell(share: float) -> bool:
            self.bar.setValue(round(100 * share))
            QApplication.processEvents()
            return not self.cancelled

        if self._is_searching:
            return
        self._is_searching, snapshot = True, self.store.snapshot
        try:
            found = suggest(snapshot.result, tell, spreads_of(snapshot.plan, snapshot.job.hand))
        except UnmeasuredError as error:
            self.bar.hide()
            self.head.setText(snapshot.speech.phrase(error.sentence))
            return
        if found is not None and not self.cancelled:
            self._show(found)

    def _show(self, found: Suggested) -> None:
        self.found = found
        self.bar.hide()
        self.stop.setText(tr("Leave the cut as it is (Esc)"))
        count = tr("{tried} designs of the table were assessed for this tree, lay and kit.", tried=found.tried)
        self.head.setText(
            count if found.best else tr("{count} None is good enough: a rope, a machine, or another lay.", count=count)
        )
        for number, each in enumerate(found.best, start=1):
            self.columns.addWidget(self._column(number, each), 1)
        if found.nearest is not None:
            self.columns.addWidget(self._nearest(found.nearest), 1)
        self.setFocus(Qt.FocusReason.OtherFocusReason)

    def _column(self, number: int, design: Suggestion) -> QWidget:
        speech = self.store.snapshot.speech
        column, card = QVBoxLayout(), QWidget()
        own = tr("The practice's own: ") if design.is_own else ""
        column.addWidget(self._label(f"{number}  {own}{speech.phrase(design.words)}", strong=True))
        tile = Tile(design, speech)
        column.addWidget(tile)
        told = "" if not design.watched else speech.phrase(design.watched[0].sentence)
        column.addWidget(self._label(told or speech.phrase("suggest.clear"), size=13))
        if design.gives_up:
            gives = " ".join(speech.phrase(finding.sentence) for finding in design.gives_up[:1])
            column.addWidget(self._label(tr("Gives up: {gives}", gives=gives), size=13))
        column.addStretch()
        take = QPushButton(tr("Take it over (key {number})", number=number))
        take.setObjectName(f"take:{number}")
        take.clicked.connect(lambda _=False, n=number: self.take(n))
        column.addWidget(take)
        card.setLayout(column)
        return card

    def _nearest(self, design: Suggestion) -> QWidget:
        """The best of those that something stops, to be seen and not taken."""
        speech = self.store.snapshot.speech
        column, card = QVBoxLayout(), QWidget()
        column.addWidget(self._label(tr("Nearest: {words}. Stopped by:", words=speech.tell(design.words)), strong=True))
        for finding in design.stops[:3]:
            column.addWidget(self._label("⊘ " + speech.phrase(finding.sentence)))
        column.addWidget(Tile(design, speech))
        column.addStretch()
        card.setLayout(column)
        return card

    def take(self, number: int) -> None:
        """Put a design in place of the cut, as one step."""
        if self.found is None or not 1 <= number <= len(self.found.best):
            return
        each, tree = self.found.best[number - 1], self.store.tree_id
        words = self.store.snapshot.speech.tell(each.words)
        self.store.change(tr("suggestion: {words}", words=words), lambda job: with_plan(job, tree, "cut", each.cut))
        self.finished.emit()

    def reject(self) -> None:
        """Stop searching and leave the cut as it is."""
        self.cancelled = True
        self.finished.emit()

    def event(self, event: QEvent) -> bool:
        """The keys that take a design over are this page's own; elsewhere they open a step."""
        if event.type() == QEvent.Type.ShortcutOverride and isinstance(event, QKeyEvent) and event.key() in KEYS:
            event.accept()
            return True
        return super().event(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """1, 2 and 3 take a design over, Escape leaves."""
        if event.key() in KEYS[:-1]:
            self.take(event.key() - Qt.Key.Key_0)
        elif event.key() == Qt.Key.Key_Escape:
            self.reject()
        else:
            super().keyPressEvent(event)
