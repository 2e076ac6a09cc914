"""Below the findings: what is most worth measuring better, reckoned when the hands are still."""

from __future__ import annotations

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QWidget

from ...core.judge.unmeasured import lacking_of, missing, taken
from ...core.stump.hand import HEIGHT, LEAN, Hand
from ...job.language import tr
from ...job.learned_words import hand_words
from ...job.spreads import measure_better
from ..drawing.palette import font
from ..drawing.text import unbroken
from .plain_label import PlainLabel
from .store import Snapshot, Store

EYE = (HEIGHT, LEAN)
"""Quantities whose spread is that of one's own eye where it is used."""
STILL_MS = 250
"""Thirty assessments wait until the hands are still for so long."""


class SurveyLine(PlainLabel):
    """One sentence. It takes some thirty assessments, so it waits until nothing has changed for a moment."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent=parent)
        self.store = store
        self.setObjectName("survey")
        self.setFont(font(13))
        self.setWordWrap(True)
        self.setContentsMargins(12, 8, 8, 8)
        self.setAccessibleName(tr("What to measure better"))
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(STILL_MS)
        self._timer.timeout.connect(self.compute)
        self._tree_id = store.tree_id
        store.changed.connect(self._follow)
        self._timer.start()

    def _follow(self, snapshot: Snapshot) -> None:
        """Wait until the hands are still; what was said of another tree is not said of this one meanwhile."""
        if snapshot.plan.id != self._tree_id:
            self._tree_id = snapshot.plan.id
            self.setText("")
        self._timer.start()

    def compute(self) -> None:
        """Reckon and show the sentence, now."""
        self._timer.stop()
        if self.store.dragging:
            self._timer.start()
            return
        snapshot = self.store.snapshot
        lacking, words = lacking_of(snapshot.plan.tree), snapshot.speech.tell
        if lacking:
            how = words(f"measured.{missing(snapshot.plan.tree)[0]}.change")
            done, all_of_it = taken(snapshot.plan.tree)
            sentence = tr(
                "{done} of {all_of_it} taken. Measure next: {words}. {how}",
                done=done,
                all_of_it=all_of_it,
                words=words(lacking),
                how=how,
            )
        else:
            sentence = measure_better(snapshot.plan, snapshot.result, snapshot.chances, snapshot.speech)
        eye = tuple(used for used in snapshot.job.hand.used if used.key.startswith(EYE))
        if eye:
            sentence = f"{sentence} {hand_words(Hand(eye), snapshot.speech)}".strip()
        self.setText(unbroken(sentence))
        self.setAccessibleDescription(sentence)
        self.setVisible(bool(sentence))
