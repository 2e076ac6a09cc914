"""One sentence over the foot of the page: why something was refused, or what has been done."""

from __future__ import annotations

from PySide6.QtCore import QEvent, QObject, Qt, QTimer
from PySide6.QtWidgets import QLabel, QWidget

from ...job.language import tr
from ..drawing.palette import font

TOLD_MS = 6000
"""Long enough to read two lines, short enough not to cover the next thing."""


class MessageBar(QLabel):
    """Floats over its parent's lower edge, so that nothing moves when it comes and goes."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self._over = parent
        self.setFont(font(14))
        self.setTextFormat(Qt.TextFormat.PlainText)  # a sentence may quote what a person, or a file, has named
        self.setWordWrap(True)
        self.setContentsMargins(14, 8, 14, 8)
        self.setAccessibleName(tr("Message"))
        self.hide()
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self.hide)
        parent.installEventFilter(self)

    def refuse(self, sentence: str) -> None:
        """Say why something was not done; stays until the next change."""
        self._timer.stop()
        self._say(sentence, "refused")

    def tell(self, sentence: str) -> None:
        """Say what was done; goes by itself."""
        self._say(sentence, "told")
        self._timer.start(TOLD_MS)

    def clear_refusal(self) -> None:
        """Something could be done: the last refusal has had its time."""
        if self.objectName() == "refused":
            self.hide()

    def _say(self, sentence: str, name: str) -> None:
        self.setObjectName(name)
        self.style().unpolish(self)
        self.style().polish(self)
        self.setText(sentence)
        self.setAccessibleDescription(sentence)
        self._place()
        self.show()
        self.raise_()

    def _place(self) -> None:
        area = self._over.rect()
        width = min(area.width() - 32, 900)
        height = self.heightForWidth(width)
        self.setGeometry(area.left() + 16, area.bottom() - height - 12, width, height)

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """Keep to the parent's edge."""
        if event.type() == QEvent.Type.Resize and self.isVisible():
            self._place()
        return False
