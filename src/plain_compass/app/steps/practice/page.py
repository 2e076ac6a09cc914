"""Practice: one drawing, one question, an answer with how sure one is, then the truth over the answer."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Protocol, cast

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QStackedWidget, QToolButton, QVBoxLayout, QWidget

from ....core.assess import Assessment, assess
from ....core.base.errors import PlainCompassError
from ....core.judge.findings import Finding
from ....core.plan.case import Case
from ....core.practice.skills import TASKS, Task
from ....core.stump.as_cut import case_as
from ....job.language import tr
from ....job.practice_answers import CUT_ACCEPTED, cut_of
from ....job.practice_case import SetCase, case_of_set
from ....job.practice_set import PracticeSet
from ....job.words import Speech
from ....log.answers import AnswerLog
from ...drawing.palette import font
from ...frame.commands import Commands
from ...frame.fitted_button import FittedButton
from ...frame.page import Picture
from ...frame.plain_label import PlainLabel
from ...frame.scrolled import scrolled
from ...frame.settings import Settings
from ...frame.store import Snapshot, Store
from .answering import Answering
from .record import RecordView
from .session import Session
from .view import CaseView

SIDE_PX = 380
"""Width of question and answer."""
CAUTION = tr("Practice on paper is no training with a saw: that is learned from people, outside.")
"""Under everything."""


def result_of(kept: SetCase, case: Case | None = None) -> Assessment:
    """What is drawn: the case, or a stump as it was cut."""
    drawn = case or case_of_set(kept)
    return assess(case_as(drawn, kept.plan.as_cut) if kept.task == Task.STUMP else drawn)


class PracticePage(QWidget):
    """The mode.

    Args:
        speech: how the person is spoken to.

    Signals:
        wanted: a case that is to be opened as a job.
        worked: a set was gone through to its end.
    """

    wanted = Signal(object)
    worked = Signal()

    def __init__(self, record: AnswerLog, speech: Callable[[], Speech], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.session = Session(record, speech)
        self._speech = speech
        self.view, self.answering = CaseView(speech, self), Answering(self)
        self.record = RecordView(record, speech, self)
        self.heading, self.question, self.told = PlainLabel(), PlainLabel(), PlainLabel()
        self.go, self.show_me = FittedButton(), FittedButton()
        self.modes: dict[str, QToolButton] = {}
        self.middle = QStackedWidget()
        self._typing = QTimer(self)
        self._typing.setSingleShot(True)
        self._typing.timeout.connect(self._show_design)
        self._compose()
        self.answering.answered.connect(self.advance)
        self.answering.typed.connect(lambda _: self._typing.start(120))
        self.go.clicked.connect(self.advance)
        self.show_me.clicked.connect(lambda: self.wanted.emit(self.session.case))

    # Composition ---------------------------------------------------------------------------------------

    def _compose(self) -> None:
        for label in (self.question, self.told):
            label.setWordWrap(True)
            label.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.question.setFont(font(17, strong=True))
        self.question.setAccessibleName(tr("Question"))
        self.told.setFont(font(14))
        self.told.setAccessibleName(tr("What was true"))
        self.heading.setFont(font(13))
        self.show_me.setText(tr("Show me: open it as a job"))
        for button in (self.go, self.show_me):
            button.setProperty("framed", True)
        side = QWidget()
        column = QVBoxLayout(side)
        column.setContentsMargins(14, 10, 14, 10)
        column.setSpacing(8)
        told = scrolled(self.told)
        buttons = QHBoxLayout()
        self.go.fill_row()
        buttons.addWidget(self.go, 1)
        buttons.addWidget(self.show_me)
        for widget in (self.heading, self.question):
            column.addWidget(widget)
        column.addWidget(self.answering, 3)
        column.addLayout(buttons)
        column.addWidget(told, 2)
        caution = PlainLabel(CAUTION)
        caution.setFont(font(12))
        caution.setWordWrap(True)
        column.addWidget(caution)
        side.setFixedWidth(SIDE_PX)
        asked = QWidget()
        row = QHBoxLayout(asked)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self.view, 1)
        row.addWidget(side)
        for each in (asked, self.record):
            self.middle.addWidget(each)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addLayout(self._modes())
        whole.addWidget(self.middle, 1)

    def _modes(self) -> QHBoxLayout:
        row = QHBoxLayout()
        row.setContentsMargins(10, 4, 10, 4)
        speech = self._speech()
        names = {"mixed": tr("What I need")} | {task.value: speech.phrase(f"practice.task.{task}") for task in TASKS}
        for key, name in (names | {"record": tr("Own record")}).items():
            button = FittedButton()
            button.setText(name)
            button.setCheckable(True)
            button.setProperty("tab", True)
            button.setAccessibleName(tr("Practice: {name}", name=name))
            button.clicked.connect(lambda _=False, key=key: self.choose(key))
            self.modes[key] = button
            row.addWidget(button)
        row.addStretch()
        return row

    # What is going on ----------------------------------------------------------------------------------

    def choose(self, key: str) -> None:
        """A sort of case, whatever is needed most, or one's own record."""
        for name, button in self.modes.items():
            button.setChecked(name == key)
        if key == "record":
            self.record.refresh()
            self.middle.setCurrentIndex(1)
            return
        self.middle.setCurrentIndex(0)
        self.session.begin(None if key == "mixed" else Task(key))
        self._show()

    def begin(self) -> None:
        """Something is asked as soon as the mode is opened."""
        if self.session.case is None:
            self.choose("mixed")

    def work_through(self, practice: PracticeSet) -> None:
        """A set, case by case."""
        for button in self.modes.values():
            button.setChecked(False)
        self.middle.setCurrentIndex(0)
        self.session.begin(worked=practice)
        self._show()

    def advance(self) -> None:
        """Answer, or go on to the next."""
        session = self.session
        if session.told is not None:
            if session.worked is not None and session.is_over:
                self.worked.emit()
                return
            if session.is_over:
                session.begin(session.among)
            else:
                session.ask_next()
            self._show()
            return
        given = self.answering.answer
        if not given:
            self.told.setText(tr("Type an answer or pick one first; a guess is an answer, said to be one."))
            return
        session.answer(given, self.answering.sure)
        self._show_truth()

    def _show(self) -> None:
        session = self.session
        self.told.setText(session.trouble)
        if session.case is None or session.question is None:
            return
        self.view.show_case(session.case, result_of(session.case))
        self.question.setText(session.question.text)
        self.answering.ask(session.question, session.case.asks, self._speech().say(CUT_ACCEPTED))
        self.heading.setText(self._heading())
        self.go.setText(tr("Answer  ⏎"))

    def _heading(self) -> str:
        session = self.session
        assert session.case is not None
        task = self._speech().phrase(f"practice.task.{session.case.task}")
        if session.worked is not None:
            return tr(
                "{name}: case {place} of {count}",
                name=session.worked.name,
                place=session.place,
                count=len(session.worked.cases),
            )
        done = tr(" · {count} in this round", count=len(session.scores)) if session.scores else ""
        return tr("{task} · level {level}{done}", task=task, level=session.case.level, done=done)

    def _show_truth(self) -> None:
        session = self.session
        assert session.told is not None and session.case is not None
        lines = [
            session.error_words(),
            tr("Score {score:.0f} of 100.", score=100 * session.told.scored.score),
            "",
            *session.told.lines,
        ]
        if session.trouble:
            lines += ["", session.trouble]
        over = session.worked is not None and session.is_over
        if session.is_over:
            mean = 100 * sum(session.scores) / max(len(session.scores), 1)
            what = tr("The set is through") if over else tr("Ten minutes are a round")
            lines += [
                "",
                tr(
                    "{what}: {count} answers, {mean:.0f} of 100 on the whole.",
                    what=what,
                    count=len(session.scores),
                    mean=mean,
                ),
            ]
        self.told.setText("\n".join(lines))
        self.answering.setEnabled(False)
        self.go.setText(tr("Done  ⏎") if over else tr("Next  ⏎"))
        self.go.setFocus()
        if session.case.task == Task.LOOK:
            self.view.show_truth([session.told.lines[0]] if session.told.lines else [])

    def _show_design(self) -> None:
        """The design as far as it is typed."""
        session = self.session
        if session.case is None or session.case.asks != "cut" or session.told is not None:
            return
        try:
            cut = cut_of(self.answering.edit.text(), session.case.plan.cut, self._speech().units)
            case = case_of_set(session.case)
            self.view.show_case(session.case, result_of(session.case, replace(case, cut=cut)))
            self.told.setText("")
        except PlainCompassError as error:
            self.told.setText(self._speech().error(error))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Enter goes on."""
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.advance()
        else:
            super().keyPressEvent(event)

    # The window's requests -----------------------------------------------------------------------------

    def refresh(self, _: Snapshot) -> None:
        """Practice is apart from the job."""

    def bring_out(self, finding: Finding) -> None:
        """Findings are of a job."""

    def fit(self) -> None:
        """The whole case is always in sight."""

    def zoom(self, factor: float) -> None:
        """The whole case is always in sight."""

    def pictures(self) -> tuple[Picture, ...]:
        """For copying."""
        return (self.view.picture(),)


class Holder(Protocol):
    """What holds the page: its settings say where a person's answers are kept."""

    settings: Settings


def practice_page(store: Store, _: Commands, parent: QWidget) -> PracticePage:
    """The page in its window."""
    record = AnswerLog(cast(Holder, parent).settings.log_file.with_name("practice.sqlite"))
    return PracticePage(record, lambda: store.snapshot.speech, parent)
