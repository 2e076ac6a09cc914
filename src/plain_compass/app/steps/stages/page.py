"""The page of the Stages step: states in a row, the large one with what it means, the curves below."""

from __future__ import annotations

from html import escape

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QSizePolicy, QVBoxLayout, QWidget

from ....core.advice.faults import FAULTS
from ....core.base.levels import Level
from ....core.judge.findings import Finding
from ....job.language import tr
from ....job.words.catalogue import level_word
from ...drawing.palette import font
from ...drawing.text import unbroken
from ...frame.commands import Commands
from ...frame.page import Picture
from ...frame.plain_label import PlainLabel
from ...frame.round_view import RoundView
from ...frame.scrolled import scrolled
from ...frame.store import Snapshot, Store
from .views import StageRow, StageView, SweepView, solid_at
from .walk import Walk

BESIDE = 350
"""Width of what is said of a state, six rows of numbers and the step's words."""
SIGNS = {Level.CLEAR: "●", Level.WATCH: "◐", Level.UNKNOWN: "○", Level.STOP: "⊘"}


class StagesPage(QWidget):
    """The cut as standing states."""

    def __init__(self, store: Store, commands: Commands, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.walk = Walk(store.snapshot.result, store.snapshot.speech)
        self.row = StageRow(self.walk, self)
        self.large = StageView(self.walk, self)
        self.round = RoundView(store, lambda: solid_at(self.walk), self)
        # What a state says is told of this state, not of the finished cut.
        self.round.tells_of = ()
        self.round.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)
        self.curves = SweepView(self.walk, self)
        self.words = QLabel()
        self.words.setWordWrap(True)
        self.words.setTextFormat(Qt.TextFormat.RichText)
        self.words.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.words.setFont(font(14))
        self.words.setAccessibleName(tr("What this state means"))
        self.faults = QComboBox()
        self.faults.setFont(font(14))
        self.faults.setAccessibleName(tr("Mistake played in"))
        self.faults.addItem(tr("No mistake"), "")
        for fault in FAULTS:
            self.faults.addItem(self.walk.speech.phrase(fault.name), fault.key)
        self._compose()
        self.row.picked.connect(self.go_to)
        self.curves.moved.connect(self.move_to)
        self.faults.activated.connect(lambda _: self.play(self.faults.currentData()))

    def _compose(self) -> None:
        label = PlainLabel(tr("Mistake made here:"))
        label.setFont(font(13))
        label.setBuddy(self.faults)
        top = QHBoxLayout()
        top.setContentsMargins(12, 6, 12, 6)
        top.setSpacing(8)
        top.addWidget(label)
        top.addWidget(self.faults, 1)
        right = QVBoxLayout()
        right.setSpacing(0)
        right.addLayout(top)
        right.addWidget(scrolled(self.words), 1)
        holder = QWidget()
        holder.setObjectName("page")
        holder.setFixedWidth(BESIDE)
        holder.setLayout(right)
        right.setContentsMargins(0, 0, 0, 0)
        middle = QHBoxLayout()
        middle.setSpacing(1)
        middle.addWidget(self.large, 1)
        middle.addWidget(self.round, 1)
        middle.addWidget(holder)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(1)
        whole.addWidget(self.row)
        whole.addLayout(middle, 1)
        whole.addWidget(self.curves)

    # Walking -------------------------------------------------------------------------------------------

    def go_to(self, number: int) -> None:
        """To a standing state."""
        self.walk.go_to(number)
        self._show()

    def move_to(self, progress: float) -> None:
        """To a depth."""
        self.walk.progress = progress
        self._show()

    def play(self, key: str) -> None:
        """Play a mistake in."""
        self.walk.set_fault(key)
        self.faults.setCurrentIndex(self.faults.findData(key))
        self._show()

    def _show(self) -> None:
        self.words.setText(unbroken(self._told()))
        said = self._said()
        for view in (self.row, self.large, self.round, self.curves):
            view.setAccessibleDescription(said)
            view.update()

    def _said(self) -> str:
        """The state in a sentence, for those who do not see it."""
        walk, speech = self.walk, self.store.snapshot.speech
        numbers = "; ".join(f"{name} {value}, {level_word(level)}" for name, value, level in walk.numbers(speech))
        return f"{walk.number}. {walk.title(walk.number)}: {numbers}."

    def _told(self) -> str:
        walk, speech = self.walk, self.store.snapshot.speech
        step = walk.stage.step
        parts = [f"<b>{walk.number}. {escape(walk.title(walk.number))}</b>"]
        if walk.played is not None and walk.number >= walk.made_at:
            parts.append(self._fault())
        if step is None:
            parts.append(tr("The tree as it stands. Clear both ways out; look up once more."))
        else:
            parts.append(escape(speech.phrase(step.do)))
            for name, text in ((tr("Stand"), step.stand), (tr("Look at"), step.look), (tr("Stop if"), step.stop_if)):
                parts.append(f"<b>{name}:</b> {escape(speech.tell(text))}")
        rows = "".join(
            f"<tr><td>{SIGNS[level]}</td><td style='padding-right:8px'>{escape(name)}</td><td>{escape(value)}</td></tr>"
            for name, value, level in walk.numbers(speech)
        )
        parts.append(f"<table cellspacing='2'>{rows}</table>")
        if walk.part == "back":
            parts.append(self._bar())
        return "".join(f"<p style='margin-top:0;margin-bottom:7px'>{part}</p>" for part in parts)

    def _fault(self) -> str:
        walk = self.walk
        played, speech = walk.played, self.store.snapshot.speech
        assert played is not None
        mend = tr("<b>Mend:</b> {mend}", mend=escape(speech.tell(played.fault.mends)))
        if played.result is None:
            return tr("<b>With this mistake</b> the cut does not hold together at all. {mend}", mend=mend)
        at = f"{walk.made_at}. {escape(walk.title(walk.made_at))}"
        worse = " ".join(escape(speech.phrase(each.sentence)) for each in played.worse[:2])
        return tr(
            "<b>With this mistake, made at {at}:</b> {worse} {mend}",
            at=at,
            worse=worse or tr("Nothing gets clearly worse."),
            mend=mend,
        )

    def _bar(self) -> str:
        plan, speech = self.walk.passes, self.store.snapshot.speech
        show = speech.show
        told = [tr("<b>Bar:</b> {reach_m} inside the bark.", reach_m=show(plan.reach_m, "length"))]
        for number, one in enumerate(plan.passes, start=1):
            lower = tr(", {lower_m} lower", lower_m=show(one.lower_m, "fine_length")) if one.lower_m else ""
            told.append(tr("Pass {number}{lower}: {stand}.", number=number, lower=lower, stand=speech.tell(one.stand)))
        if plan.corner_share > 0.002:
            told.append(
                tr("A blind corner stays: {corner_share} of the kerf.", corner_share=show(plan.corner_share, "ratio"))
            )
        return " ".join(told)

    # The window's requests -----------------------------------------------------------------------------

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document; not while something is dragged elsewhere."""
        if not self.store.dragging:
            if snapshot.speech != self.walk.speech:
                self.walk.speech = snapshot.speech
                for row, fault in enumerate(FAULTS, start=1):
                    self.faults.setItemText(row, snapshot.speech.phrase(fault.name))
            self.walk.follow(snapshot.result)
            self._show()

    def bring_out(self, finding: Finding) -> None:
        """To the moment at which a finding's margin is worst."""
        name = {"split": "split", "hinge": "side", "balance": "standing", "wedge": "kerf"}.get(finding.group)
        if name is not None:
            self.move_to(self.walk.sweep.worst[name])

    def fit(self) -> None:
        """Back to the uncut tree."""
        self.go_to(0)

    def zoom(self, factor: float) -> None:
        """Nothing to zoom: the state fills its place."""

    def pictures(self) -> tuple[Picture, ...]:
        """The large state, for copying."""
        return self.large.picture(), self.round.picture()
