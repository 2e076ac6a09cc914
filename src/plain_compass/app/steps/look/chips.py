"""A reading that waits to be taken: click takes it, or drag it onto the dimension it measures."""

from __future__ import annotations

from PySide6.QtCore import QPoint, Qt, Signal
from PySide6.QtGui import QMouseEvent
from PySide6.QtWidgets import QPushButton, QSizePolicy, QWidget

from ....job.document import TreePlan
from ....job.language import tr
from ....job.readings import SHELL, Taken
from ....job.ways import way_name
from ...drawing.palette import font
from ...drawing.text import unbroken
from ...frame.field_edit import FieldEdit
from ...frame.plain_label import plain_tip

DRAG_FROM_PX = 8
"""A hand that clicks moves less than this."""


def target_paths(taken: Taken, plan: TreePlan) -> tuple[str, ...]:
    """The dimensions a reading may be dropped on: a tape goes round breast height or the butt."""
    if taken.what.startswith("tree.trunk."):
        return "tree.trunk.diameter_m", "tree.trunk.butt_diameter_m"
    if taken.what == SHELL:
        return tuple(f"tree.decay.shell.{index}.sound_m" for index in range(len(plan.tree.decay.shell)))
    return (taken.what,)


class Chip(QPushButton):
    """One waiting reading.

    Signals:
        dropped: the path of the dimension it was dropped on; empty when it was clicked.
    """

    dropped = Signal(str)

    def __init__(self, taken: Taken, text: str, parent: QWidget | None = None) -> None:
        super().__init__(unbroken(text), parent)
        self.taken = taken
        self.setFont(font(13, narrow=True))
        self.setObjectName("chip")
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.setToolTip(
            plain_tip(
                tr("{by}, {at}. Click to take it, or drag it onto its dimension.", by=way_name(taken.by), at=taken.at)
            )
        )
        self._pressed: QPoint | None = None
        self._carried = False
        self.clicked.connect(self._clicked)

    def _clicked(self) -> None:
        if not self._carried:
            self.dropped.emit("")

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Begin to carry."""
        self._pressed, self._carried = event.position().toPoint(), False
        super().mousePressEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """Carried once it has moved far enough to be meant."""
        away = event.position().toPoint() - (self._pressed or QPoint())
        if self._pressed is not None and away.manhattanLength() > DRAG_FROM_PX:
            self._carried = True
            self.setCursor(Qt.CursorShape.DragCopyCursor)
        super().mouseMoveEvent(event)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        """Dropped: on a dimension, or nowhere."""
        carried, where = self._carried, event.globalPosition().toPoint()
        self.unsetCursor()
        super().mouseReleaseEvent(event)
        self._pressed, self._carried = None, False
        if carried:
            # Looked for by place and not by what is uppermost: a message may lie over the dimension.
            fields = self.window().findChildren(FieldEdit)
            under = [f for f in fields if f.isVisible() and f.rect().contains(f.mapFromGlobal(where))]
            if under:
                self.dropped.emit(under[0].path)
