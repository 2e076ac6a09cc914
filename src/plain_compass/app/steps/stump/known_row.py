"""One quantity of *Yours*: what it is, what is known of it, drawn and said, and whether plans go by it."""

from __future__ import annotations

from PySide6.QtCore import QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter
from PySide6.QtWidgets import QCheckBox, QHBoxLayout, QSizePolicy, QVBoxLayout, QWidget

from ....core.stump.hand import Used
from ....core.stump.quantities import Known
from ....job.hand_edits import IN_PLANS, as_shipped, use_in_plans
from ....job.language import tr
from ....job.learned_words import known_words, quantity_name
from ...drawing.palette import font
from ...drawing.stump.learned_painter import paint_known
from ...frame.painted import PaintedView
from ...frame.plain_label import PlainLabel
from ...frame.store import Snapshot, Store

STRIP_PX = 26
"""Height of the drawing of one quantity."""


class KnownStrip(PaintedView):
    """The drawing; a click, Enter or Space picks the quantity."""

    picked = Signal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.known: Known | None = None
        self.setFixedHeight(STRIP_PX)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def draw(self, painter: QPainter) -> None:
        """Shipped, records, known."""
        if self.known is not None:
            paint_known(painter, QRectF(self.rect()).adjusted(4, 2, -4, -2), self.known, self.palette_in_use)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Pick it."""
        self.setFocus(Qt.FocusReason.MouseFocusReason)
        self.picked.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Pick it by the keyboard."""
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.picked.emit()
        else:
            super().keyPressEvent(event)


class KnownRow(QWidget):
    """Name, switch, drawing, sentence.

    Signals:
        picked: its key.
    """

    picked = Signal(str)

    def __init__(self, store: Store, key: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.key, self.faller = store, key, ""
        self.known: Known | None = None
        self.name, self.words, self.strip = PlainLabel(), PlainLabel(), KnownStrip(self)
        self.name.setFont(font(14, strong=True))
        # A long name goes over two lines rather than push the switch out of sight.
        self.name.setWordWrap(True)
        self.name.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        self.words.setFont(font(12))
        self.words.setWordWrap(True)
        self.switch = QCheckBox(tr("use in plans"))
        self.switch.setFont(font(12))
        self.switch.clicked.connect(self._switched)
        self.strip.picked.connect(lambda: self.picked.emit(self.key))
        head = QHBoxLayout()
        head.addWidget(self.name, 1)
        head.addWidget(self.switch)
        column = QVBoxLayout(self)
        column.setContentsMargins(8, 2, 8, 4)
        column.setSpacing(0)
        column.addLayout(head)
        column.addWidget(self.strip)
        column.addWidget(self.words)

    def show_known(self, known: Known, faller: str, snapshot: Snapshot) -> None:
        """Follow what is known, and the document."""
        self.known, self.faller, self.strip.known = known, faller, known
        speech = snapshot.speech
        name = quantity_name(self.key, speech)
        self.name.setText(name)
        used = snapshot.job.hand.get(self.key)
        self.switch.setVisible(self.key.partition(":")[0] in IN_PLANS)
        self.switch.setEnabled(known.count > 0 or used is not None)
        self.switch.setChecked(used is not None)
        self.switch.setAccessibleName(tr("{name}: use in plans", name=name))
        self.strip.setAccessibleName(tr("{name}: records and what is known", name=name))
        words = known_words(known, speech)
        self.strip.setAccessibleDescription(words)
        if used is not None and used != known.used(faller):
            whose = used.faller or tr("everybody")
            words += tr(
                " Plans go by {count} stumps of {whose}: switch off and on to take it anew.",
                count=used.count,
                whose=whose,
            )
        self.words.setText(words)
        self.strip.update()

    def _switched(self) -> None:
        """Use it, or what ships again; one step that can be undone."""
        assert self.known is not None
        used: Used = self.known.used(self.faller)
        name, key = self.name.text(), self.key
        if self.switch.isChecked():
            self.store.change(tr("{name} from own stumps", name=name), lambda job: use_in_plans(job, used))
        else:
            self.store.change(tr("{name} as shipped", name=name), lambda job: as_shipped(job, key))
