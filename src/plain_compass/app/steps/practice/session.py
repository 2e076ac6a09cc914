"""What is going on in practice, without a window: the case that is asked, what was answered, what comes next."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import replace

from ....core.base.errors import PlainCompassError
from ....core.base.frozen import dataclass
from ....core.base.phrase import phrase
from ....core.practice.learner import Answer, level_for, next_seed, next_skill
from ....core.practice.scoring import NO_SENSE, Scored
from ....core.practice.skills import BY_KEY, Task, skills_of
from ....job.language import tr
from ....job.practice_answers import Answers, Given, scored
from ....job.practice_case import NoCaseError, SetCase, make_case
from ....job.practice_set import PracticeSet
from ....job.practice_words import Question, question_of, told_of, truth_of
from ....job.words import Speech
from ....log.answers import AnswerLog, today_number

ROUND_S = 600.0
"""A round lasts ten minutes: longer, and nobody looks properly."""
MOST_SEEDS = 50
"""Seeds tried for one case."""


@dataclass(frozen=True, slots=True)
class Told:
    """What an answer was worth and what was true.

    Attributes:
        answer: as it was given; lines: the truth and what gave it away.
    """

    answer: str
    scored: Scored
    truth: float | str
    lines: tuple[str, ...]


class Session:
    """A person at practice.

    Args:
        record: where answers are kept; speech: how the person is spoken to.
        clock: seconds that only go on.

    Attributes:
        case, question: what is asked now; told what came of it, None until it is answered.
        among: sort of cases that is asked, None for whatever is known least; worked: the set that is worked through.
        scores: of this round.
    """

    def __init__(
        self, record: AnswerLog, speech: Callable[[], Speech], clock: Callable[[], float] = time.monotonic
    ) -> None:
        self.record, self._speech, self._clock = record, speech, clock
        self.among: Task | None = None
        self.worked: PracticeSet | None = None
        self.given = Answers()
        self.scores: list[float] = []
        self._begun = clock()
        self.trouble = ""
        self.case: SetCase | None = None
        self.question: Question | None = None
        self.told: Told | None = None

    @property
    def place(self) -> int:
        """Number of the case of a set that is asked, from 1."""
        return len(self.given.answers) + (1 if self.told is None else 0)

    @property
    def is_over(self) -> bool:
        """Whether the set is through, or the round has lasted long enough."""
        if self.worked is not None:
            return self.told is not None and len(self.given.answers) >= len(self.worked.cases)
        return self._clock() - self._begun >= ROUND_S and bool(self.scores)

    def begin(self, among: Task | None = None, worked: PracticeSet | None = None) -> None:
        """A new round, of one sort of case, of all, or of a set."""
        self.among, self.worked, self.given = among, worked, Answers()
        self.scores, self._begun = [], self._clock()
        self.ask_next()

    def ask_next(self) -> None:
        """The next case: of the set, or what is known least and due."""
        self.told, self.trouble = None, ""
        if self.worked is not None:
            at = min(len(self.given.answers), len(self.worked.cases) - 1)
            self._show(self.worked.cases[at])
            return
        answers = self.record.answers()
        keys = None if self.among is None else [skill.key for skill in skills_of(self.among)]
        skill = next_skill(answers, today_number(), keys)
        level, seed = level_for(skill, answers), next_seed(answers)
        for _ in range(MOST_SEEDS):
            try:
                self._show(make_case(skill, level, seed))
                return
            except NoCaseError:
                seed += 1
        self.trouble = tr("No case of {skill} was found just now.", skill=skill)

    def ask(self, kept: SetCase) -> None:
        """One case that somebody picked."""
        self.told, self.trouble = None, ""
        self._show(kept)

    def _show(self, kept: SetCase) -> None:
        self.case, self.question = kept, question_of(kept, self._speech())

    def answer(self, given: str, sure: float) -> Told | None:
        """Score an answer and keep it; None where there is nothing to answer."""
        if self.case is None or self.told is not None:
            return None
        kept, speech = self.case, self._speech()
        found = scored(kept, given, sure, speech)
        self.told = Told(given, found, truth_of(kept), tuple(told_of(kept, speech)))
        if self.worked is not None:
            answers = (*self.given.answers, Given(len(self.given.answers) + 1, given[:120], sure))
            self.given = replace(self.given, answers=answers)
        if found is not NO_SENSE and found.near is not None:
            self.scores.append(found.score)
            self._keep(kept, found)
        return self.told

    def _keep(self, kept: SetCase, found: Scored) -> None:
        truth = self.told.truth if self.told is not None and isinstance(self.told.truth, float) else None
        near = bool(found.near)
        day = today_number()
        answer = Answer(day, kept.asks, kept.level, kept.seed, near, found.error, truth, found.sure, found.score)
        try:
            self.record.add(answer)
        except PlainCompassError as error:
            self.trouble = str(error)

    def error_words(self) -> str:
        """How an answer did, in a sentence."""
        told, speech = self.told, self._speech()
        if told is None or self.case is None:
            return ""
        if told.scored.near is None:
            return speech.phrase("practice.no_sense")
        kind = BY_KEY[self.case.asks].kind
        if kind is None:
            return speech.phrase("practice.right" if told.scored.near else "practice.wrong")
        error = speech.show(abs(told.scored.error or 0.0), "span" if kind == "beside" else kind)
        said = speech.phrase("practice.near") if told.scored.near else ""
        return f"{said} {speech.phrase(phrase('practice.off', error=error))}".strip()
