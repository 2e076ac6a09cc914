"""Where a finding comes from (Shift+F1): share, chance, relation, and the inputs it hangs on with their readings."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QVBoxLayout, QWidget

from ...core.judge.findings import Finding
from ...job.explain import explained
from ...job.language import tr
from ..drawing.palette import font
from .plain_label import PlainLabel
from .store import Snapshot

WIDE_PX = 560
"""Wide enough for a sentence of a finding in two lines."""


class Explanation(QDialog):
    """What leads back from one finding, a line each; Escape closes it."""

    def __init__(self, snapshot: Snapshot, finding: Finding, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle(tr("Where this comes from"))
        self.setObjectName("page")
        whole = QVBoxLayout(self)
        whole.setContentsMargins(20, 16, 20, 16)
        whole.setSpacing(8)
        for number, line in enumerate(
            explained(snapshot.job, snapshot.plan, snapshot.result, snapshot.chances, finding.id)
        ):
            label = PlainLabel(line)
            label.setFont(font(15, strong=number == 0))
            label.setWordWrap(True)
            label.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
            whole.addWidget(label)
        # Wrapped labels ask for more height than they take at this width.
        self.resize(WIDE_PX, whole.heightForWidth(WIDE_PX))
