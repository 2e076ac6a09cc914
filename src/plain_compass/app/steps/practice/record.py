"""One's own record: how reliable each skill is, bias and spread of the eye, whether one is as sure as one is right."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QWidget

from ....core.base.phrase import phrase
from ....core.practice.learner import Answer, Reliability, bias, calibration, reliability
from ....core.practice.skills import SKILLS
from ....job.language import tr
from ....job.words import Speech
from ....log.answers import AnswerLog, today_number
from ...drawing.fitted import paint_fitted
from ...drawing.palette import Palette, fill, font, pen
from ...frame.painted import PaintedView

Align = Qt.AlignmentFlag
ROW_PX, HEAD_PX = 44.0, 40.0
"""Height of a skill, and of the titles."""
NAMES_PX, BAR_PX = 150.0, 260.0
"""Width of a skill's name and of its bar."""
SQUARE_PX = 240.0
"""Of the drawing of sureness against what was so."""


class RecordView(PaintedView):
    """Paints the record."""

    def __init__(self, record: AnswerLog, speech: Callable[[], Speech], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._record, self._speech = record, speech
        self.answers: tuple[Answer, ...] = ()
        self.known: list[Reliability] = []
        self.setAccessibleName(tr("Own record"))

    def refresh(self) -> None:
        """As it is now."""
        self.answers = self._record.answers()
        today = today_number()
        self.known = [reliability(skill.key, self.answers, today) for skill in SKILLS]
        self.setAccessibleDescription(" ".join(self.lines()))
        self.update()

    def lines(self) -> list[str]:
        """The record in sentences, for those who do not see it and for the page alike."""
        return [self._known_words(each) for each in self.known] + self._sure_words()

    def _known_words(self, each: Reliability) -> str:
        speech = self._speech()
        name = speech.tell(f"practice.skill.{each.skill}")
        if not each.count:
            return speech.phrase(phrase("practice.unasked", skill=name))
        mean = f"{100 * each.mean:.0f} %"
        return speech.phrase(phrase("practice.known", skill=name, mean=mean, count=float(each.count)))

    def _bias_words(self, skill: str) -> str:
        found, speech = bias(skill, self.answers), self._speech()
        if found is None:
            return ""
        by = tr("too much") if found.mean > 0 else tr("too little")
        values = {"times": f"{abs(found.mean):.1f}", "spread": f"{found.spread:.1f}"}
        return speech.phrase(phrase("practice.bias", by=by, **values))

    def _sure_words(self) -> list[str]:
        speech = self._speech()
        told = []
        for sure, share, count in calibration(self.answers):
            values = {"sure": f"{100 * sure:.0f} %", "share": f"{100 * share:.0f} %"}
            told.append(speech.phrase(phrase("practice.sure", count=float(count), **values)))
        return told

    def draw(self, painter: QPainter) -> None:
        """Bars by skill at the left, sureness at the right."""
        palette = self.palette_in_use
        painter.setFont(font(15, strong=True))
        painter.setPen(pen(palette.ink))
        painter.drawText(QPointF(20, 26), tr("What you know: {count} answers", count=len(self.answers)))
        for row, each in enumerate(self.known):
            self._row(painter, 20.0, HEAD_PX + row * ROW_PX, each)
        left = max(self.width() - SQUARE_PX - 60.0, NAMES_PX + BAR_PX + 60.0)
        painter.setFont(font(15, strong=True))
        painter.setPen(pen(palette.ink))
        painter.drawText(QPointF(left, 26), tr("As sure as you are right?"))
        self._sureness(painter, QRectF(left, HEAD_PX + 6, SQUARE_PX, SQUARE_PX), palette)

    def _row(self, painter: QPainter, x: float, y: float, each: Reliability) -> None:
        palette, speech = self.palette_in_use, self._speech()
        painter.setFont(font(14))
        painter.setPen(pen(palette.ink))
        named = QRectF(x, y, NAMES_PX - 6, 22)
        paint_fitted(painter, named, Align.AlignVCenter, speech.phrase(f"practice.skill.{each.skill}"))
        bar = QRectF(x + NAMES_PX, y + 5, BAR_PX, 12)
        painter.setPen(pen(palette.quiet, 1.0))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(bar)
        painter.setFont(font(12, narrow=True))
        if not each.count:
            painter.setPen(pen(palette.quiet))
            painter.drawText(bar.adjusted(6, -5, 0, 5), Align.AlignVCenter, tr("not asked yet"))
            return
        painter.fillRect(QRectF(bar.left(), bar.top(), BAR_PX * each.low, bar.height()), fill(palette.lay))
        painter.setPen(pen(palette.ink, 2.0))
        at = bar.left() + BAR_PX * each.mean
        painter.drawLine(QPointF(at, bar.top() - 3), QPointF(at, bar.bottom() + 3))
        painter.setPen(pen(palette.quiet))
        due = (
            tr("due now")
            if each.due_in_days <= 0
            else tr("again in {due_in_days:.0f} days", due_in_days=each.due_in_days)
        )
        words = tr(
            "near in {percent:.0f} % · {count} asked · {due}", percent=100 * each.mean, count=each.count, due=due
        )
        painter.drawText(QPointF(bar.right() + 12, y + 16), words)
        painter.drawText(QPointF(x + NAMES_PX, y + 34), self._bias_words(each.skill))

    def _sureness(self, painter: QPainter, box: QRectF, palette: Palette) -> None:
        painter.setPen(pen(palette.quiet, 1.0))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(box)
        painter.setPen(pen(palette.lay, 1.6, Qt.PenStyle.DashLine))
        painter.drawLine(box.bottomLeft(), box.topRight())
        painter.setFont(font(12, narrow=True))
        painter.setPen(pen(palette.quiet))
        painter.drawText(
            QPointF(box.left(), box.bottom() + 16), tr("how sure: a guess … certain; up: how often it was so")
        )
        for sure, share, count in calibration(self.answers):
            at = QPointF(box.left() + sure * box.width(), box.bottom() - share * box.height())
            painter.setPen(pen(palette.ink, 1.4))
            painter.setBrush(fill(palette.heart))
            size = 4.0 + min(count, 40) ** 0.5
            painter.drawEllipse(at, size, size)
            painter.drawText(at + QPointF(size + 4, 4), str(count))
        if not self.answers:
            painter.drawText(box, Align.AlignCenter, tr("nothing answered yet"))
