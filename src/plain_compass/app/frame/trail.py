"""The trail: the work in order, each step with its state."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QFontMetrics, QPainter, QPaintEvent
from PySide6.QtWidgets import QAbstractButton, QButtonGroup, QVBoxLayout, QWidget

from ...core.base.frozen import dataclass
from ...core.base.levels import Level
from ...core.judge.findings import Finding
from ...core.judge.places import level_at_step
from ...job.language import tr
from ...job.step_names import STEP_NAMES
from ...job.words.catalogue import level_word
from ..drawing.marks import paint_level
from ..drawing.palette import LIGHT, Palette, fill, font, pen


@dataclass(frozen=True, slots=True)
class Step:
    """One step of the work: its key, number and name."""

    key: str
    number: int
    name: str


STEPS = tuple(Step(key, number, name) for number, (key, name) in enumerate(STEP_NAMES.items(), 1))


class StepButton(QAbstractButton):
    """A step: number, name, and the sign of its state."""

    def __init__(self, step: Step, parent: QWidget) -> None:
        super().__init__(parent)
        self.trail = parent
        self.step = step
        self.level, self.state = Level.UNKNOWN, ""
        self.palette_in_use: Palette = LIGHT
        self.setCheckable(True)
        self.setText(step.name)
        self.setAccessibleName(tr("Step {number}: {name}", number=step.number, name=step.name))
        self.setToolTip(tr("{name} (key {number})", name=step.name, number=step.number))
        self.setFixedHeight(58)

    def sizeHint(self) -> QSize:
        """Fits the trail."""
        return QSize(self.trail.width() - 2, 58)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Name, number, and sign; a bar at the left of the step that is open."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.isChecked():
            painter.fillRect(self.rect(), fill(self.palette_in_use.sheet))
            painter.fillRect(0, 0, 4, self.height(), fill(self.palette_in_use.ink))
        if self.hasFocus():
            painter.setPen(pen(self.palette_in_use.focus, 2))
            painter.drawRect(QRectF(self.rect()).adjusted(2, 2, -2, -2))
        painter.setPen(pen(self.palette_in_use.ink))
        painter.setFont(font(15, strong=self.isChecked()))
        painter.drawText(
            QRectF(14, 8, self.width() - 16, 22),
            Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter,
            self.step.name,
        )
        paint_level(painter, QPointF(20, 42), 5, self.level, self.palette_in_use)
        painter.setFont(font(12, narrow=True))
        painter.setPen(pen(self.palette_in_use.quiet))
        painter.drawText(
            QRectF(30, 33, self.width() - 31, 18),
            Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter,
            self.state or level_word(self.level),
        )


def _widest() -> int:
    """Room for the longest name of a step, and for the longest word of its state."""
    names, words = QFontMetrics(font(15, strong=True)), QFontMetrics(font(12, narrow=True))
    states = [*map(level_word, Level), tr("not read"), tr("{count} left", count=99)]
    return max(
        max(names.horizontalAdvance(step.name) for step in STEPS),
        max(words.horizontalAdvance(word) for word in states) + 16,
    )


class Trail(QWidget):
    """All steps from top to bottom."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("trail")
        self.setFixedWidth(max(78, _widest() + 16))
        self.buttons: dict[str, StepButton] = {}
        self.group = QButtonGroup(self)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 8, 0, 8)
        column.setSpacing(2)
        for step in STEPS:
            column.addWidget(self._button(step))
        column.addStretch()

    def _button(self, step: Step) -> StepButton:
        button = StepButton(step, self)
        self.buttons[step.key] = button
        self.group.addButton(button)
        return button

    def show_findings(self, findings: tuple[Finding, ...], verdict: Level) -> None:
        """Each step with the worst of what is put right there, the card with the verdict."""
        for key in ("look", "ground", "cut", "stages", "fall"):
            self.show_level(key, level_at_step(findings, key))
        self.show_level("card", verdict)

    def show_left(self, count: int) -> None:
        """How many trees of the block still stand."""
        self.show_level("block", Level.UNKNOWN if count else Level.CLEAR, tr("{count} left", count=count))

    def show_read(self, read: bool) -> None:
        """Whether the stump has been looked at: no limit rules there."""
        self.show_level("stump", Level.CLEAR if read else Level.UNKNOWN, tr("read") if read else tr("not read"))

    def show_level(self, key: str, level: Level, state: str = "") -> None:
        """Show the state of a step, in a word of its own where it has one."""
        button = self.buttons[key]
        if (button.level, button.state) != (level, state):
            button.level, button.state = level, state
            button.update()
