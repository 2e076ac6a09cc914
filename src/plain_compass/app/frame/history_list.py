"""Every step so far as a list (Ctrl+H): one goes back to any of them, and forward again."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QListWidget, QListWidgetItem, QVBoxLayout, QWidget

from ...job.language import tr
from ..drawing.palette import font
from .plain_label import PlainLabel
from .store import Store

SIZE_PX = (460, 420)
"""A dozen steps at a time."""
BEGINNING = tr("as it was opened")


class HistoryList(QDialog):
    """Shown by Ctrl+H: the latest step first, the one that is shown chosen; Enter goes there, Escape stays."""

    def __init__(self, store: Store, parent: QWidget) -> None:
        super().__init__(parent)
        self.store = store
        self.setWindowTitle(tr("Steps so far"))
        self.setObjectName("page")
        self.list = QListWidget()
        self.list.setFont(font(14))
        self.list.setAccessibleName(tr("Steps so far, the latest first"))
        history = store.history
        for at in range(len(history.states) - 1, -1, -1):
            taken_back = tr("  (taken back)") if at > history.at else ""
            item = QListWidgetItem(f"{history.titles[at] or BEGINNING}{taken_back}")
            item.setData(Qt.ItemDataRole.UserRole, at)
            self.list.addItem(item)
        self.list.setCurrentRow(len(history.states) - 1 - history.at)
        self.list.itemActivated.connect(lambda _: self.go())
        told = PlainLabel(
            tr("Enter goes to a step, Escape stays. A change made there takes the place of what follows.")
        )
        told.setFont(font(13))
        told.setWordWrap(True)
        whole = QVBoxLayout(self)
        whole.addWidget(self.list, 1)
        whole.addWidget(told)
        self.resize(*SIZE_PX)

    def go(self) -> None:
        """To the step that is chosen."""
        item = self.list.currentItem()
        if item is not None:
            self.accept()
            self.store.go_to(item.data(Qt.ItemDataRole.UserRole))
