"""The top of the window: which tree, the verdict, and the few commands always at hand."""

from __future__ import annotations

from html import escape

from PySide6.QtCore import QPointF, QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QLabel, QMenu, QSizePolicy, QToolButton, QWidget

from ...core.base.levels import Level
from ...core.base.phrase import phrase
from ...core.base.quantity import Kind
from ...job.document import size_words
from ...job.language import tr
from ...job.words.catalogue import small
from ..drawing.marks import paint_level
from ..drawing.palette import LIGHT, Palette, font
from ..drawing.text import unbroken
from .commands import Commands
from .plain_label import PlainLabel, plain_tip
from .store import Snapshot


class LevelSign(QWidget):
    """The sign of the verdict, large."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.level = Level.UNKNOWN
        self.palette_in_use: Palette = LIGHT
        self.setFixedSize(QSize(38, 38))

    def paintEvent(self, event: QPaintEvent) -> None:
        """Paint the sign."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_level(painter, QPointF(19, 19), 13, self.level, self.palette_in_use)


VERDICT_TYPES = ((14, False), (14, True), (13, True), (12, True), (11, True))
"""Size, and whether narrow: the first in which the verdict fits its two to four lines."""


class TopBar(QWidget):
    """Tree, verdict, commands."""

    def __init__(self, commands: Commands, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("topbar")
        self.tree = QToolButton()
        self.tree.setObjectName("tree")
        self.tree.setFont(font(15, strong=True))
        self.tree.setToolTip(tr("The trees of this job (F9)"))
        self.sign = LevelSign()
        self.verdict = QLabel()
        self.verdict.setFont(font(14))
        self.verdict.setWordWrap(True)
        self.verdict.setObjectName("verdict")
        self.verdict.setAccessibleName(tr("Verdict"))
        self.verdict.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Ignored)
        self.verdict.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.job = job = QToolButton()
        job.setText(tr("Job"))
        job.setObjectName("job")
        job.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        job.setMenu(QMenu(job))
        row = QHBoxLayout(self)
        row.setContentsMargins(10, 6, 10, 6)
        row.setSpacing(6)
        row.addWidget(self.tree)
        row.addWidget(self.sign)
        row.addWidget(self.verdict, 1)
        self.mode = PlainLabel()
        self.mode.setFont(font(17, strong=True))
        self.mode.setVisible(False)
        row.insertWidget(0, self.mode, 1)
        self.of_job = [commands.button("edit.undo", tr("Undo")), commands.button("edit.redo", tr("Redo")), job]
        for widget in (*self.of_job, commands.button("train.open"), commands.button("help.this", tr("Help"))):
            row.addWidget(widget)
        self.setFixedHeight(58)

    def show_mode(self, name: str) -> None:
        """The name of a mode in the place of tree, verdict and what is the job's; the job again where there is none."""
        self.mode.setText(name)
        self.mode.setVisible(bool(name))
        for part in (self.tree, self.sign, self.verdict, *self.of_job):
            part.setVisible(not name)

    def refresh(self, snapshot: Snapshot, *, unsaved: bool) -> None:
        """Follow the document."""
        plan, speech = snapshot.plan, snapshot.speech
        diameter, _ = size_words(plan, speech)
        species = tr(snapshot.result.case.wood.name)
        dot = " •" if unsaved else ""
        name = f"{plan.id}  {species} {diameter}\n{tr('lay')} {speech.show(plan.cut.lay_deg, Kind.BEARING)}{dot}"
        if name != self.tree.text():
            self.tree.setText(name)
            self.tree.setAccessibleName(name.replace("\n", ", "))
        verdict = snapshot.result.verdict
        text, level = speech.verdict(verdict), verdict.level
        if plan.state != "standing":
            planned = speech.phrase(phrase(f"state.{plan.state}_planned", verdict=small(text)))
            text = f"{speech.phrase(f'state.{plan.state}')} {planned}"
            level = Level.STOP if plan.state in ("hung", "over") else level
        if text == self.verdict.accessibleDescription() and self.sign.level == level:
            return
        self.sign.level = level
        self.sign.update()
        lead = speech.lead(verdict) if plan.state == "standing" else speech.phrase(f"state.{plan.state}")
        rest = unbroken(text[len(lead) :])
        self.verdict.setText(f"<span style='font-weight:600'>{escape(lead)}</span>{escape(rest)}")
        self.verdict.setAccessibleDescription(text)
        self.verdict.setToolTip(plain_tip(text))
        self._fit_verdict()

    def resizeEvent(self, event: QResizeEvent) -> None:
        """The verdict never runs out of its room."""
        super().resizeEvent(event)
        self._fit_verdict()

    def _fit_verdict(self) -> None:
        """The largest type in which the whole verdict can be read."""
        for size, narrow in VERDICT_TYPES:
            self.verdict.setFont(font(size, narrow=narrow))
            if self.verdict.heightForWidth(self.verdict.width()) <= self.verdict.height():
                return
