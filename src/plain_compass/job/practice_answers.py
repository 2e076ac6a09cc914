"""Answers to cases of practice: read, scored, and kept as one file that a class gives to its teacher."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Sequence
from dataclasses import field, replace
from pathlib import Path

from ..core.assess import assess
from ..core.base.errors import InputError, PlainCompassError
from ..core.base.frozen import dataclass
from ..core.base.levels import Level
from ..core.base.quantity import Kind, name, quantity
from ..core.design.cut import Cut, WedgeSeat
from ..core.practice.now import BY_KEY as SIGNS
from ..core.practice.now import WORTH, now_truth
from ..core.practice.scoring import NO_SENSE, Scored, scored_choice, scored_number, scored_outcome
from ..core.practice.skills import BY_KEY
from ..core.practice.stumps import BESIDE_DEG
from .headed import Head, headed_text, read_headed
from .language import tr
from .practice_case import SetCase, case_of_set
from .practice_set import PracticeSet
from .practice_terms import names_of
from .practice_words import question_of, truth_of
from .typed import parse
from .words import Speech

HEAD = Head("plain-compass-practice-answers", 1, tr("holds no answers"))
CUT_ACCEPTED = tr("[face] 9 cm; [hinge] 4 cm 4 cm; bored; [strap] 5 cm; wedges 2")
"""How a design is written, in anybody's words."""
SIDES_DEG = ((0.0,), BESIDE_DEG, (0.0, *BESIDE_DEG))
"""Where one, two or three wedges are set, from straight behind."""
MOST = 1000
"""Answers in one file."""


@dataclass(frozen=True, slots=True)
class Given:
    """One answer: number of its case from 1, what was answered, how sure of it."""

    case: int = quantity(1, kind=Kind.COUNT, low=1, high=MOST, label="case", help="Its number in the set.")
    answer: str = name("", "answer")
    sure: float = quantity(0.5, kind=Kind.RATIO, low=0.0, high=1.0, label="sureness", help="How sure, from 0 to 1.")


@dataclass(frozen=True, slots=True)
class Answers:
    """All of one person."""

    who: str = name("", "who")
    answers: tuple[Given, ...] = field(default_factory=tuple)


def cut_of(text: str, planned: Cut, units: str) -> Cut:
    """A design as it is typed, put into the planned cut. Raises InputError naming the piece."""
    cut = planned
    for piece in filter(None, (each.strip().lower() for each in text.split(";"))):
        word, rest = _word_of(piece)
        if word == "face":
            cut = replace(cut, face=replace(cut.face, depth_m=_length(rest, units, piece)))
        elif word == "hinge":
            ends = [_length(each, units, piece) for each in re.findall(r"\d[\d.,]*\s*[a-z\"”]*", rest)]
            if not ends:
                raise _refused(piece)
            cut = replace(cut, hinge=replace(cut.hinge, left_m=ends[0], right_m=ends[-1]))
        elif word in ("plain", "bored"):
            cut = replace(cut, back=replace(cut.back, form=word))
        elif word == "strap":
            cut = replace(cut, back=replace(cut.back, strap_m=_length(rest, units, piece)))
        elif word == "wedges" and rest.isdigit() and int(rest) <= len(SIDES_DEG):
            seats = SIDES_DEG[int(rest) - 1] if int(rest) else ()
            cut = replace(cut, wedges=tuple(WedgeSeat(at) for at in seats))
        else:
            raise _refused(piece)
    return cut


def _word_of(piece: str) -> tuple[str, str]:
    """(term, what follows it) of a piece that begins with a term in any vocabulary."""
    for term in ("face", "hinge", "strap"):
        for own in names_of(term):
            if piece.startswith(f"{own} ") or piece == own:
                return term, piece[len(own) :].strip()
    word, _, rest = piece.partition(" ")
    return word, rest


def _length(text: str, units: str, piece: str) -> float:
    try:
        return parse(text.strip(), Kind.LENGTH, units)
    except PlainCompassError:
        raise _refused(piece) from None


def _refused(piece: str) -> InputError:
    return InputError("cut", piece, reason=tr("accepted: {accepted}", accepted=CUT_ACCEPTED))


def level_of_cut(kept: SetCase, cut: Cut) -> Level:
    """What the core says of a design; a stop where it would not hold together at all."""
    try:
        return assess(replace(case_of_set(kept), cut=cut)).verdict.level
    except InputError:
        return Level.STOP


def scored(kept: SetCase, answer: str, sure: float, speech: Speech) -> Scored:
    """An answer held against the truth; what makes no sense scores nothing."""
    skill = BY_KEY[kept.asks]
    try:
        if skill.key == "cut":
            worth = WORTH[level_of_cut(kept, cut_of(answer, kept.plan.cut, speech.units))]
            return scored_outcome(worth, 1.0, sure)
        if skill.kind is not None:
            return _number(kept, parse(answer, skill.kind, speech.units), sure)
    except PlainCompassError:
        return NO_SENSE
    if skill.key == "now":
        truth = now_truth(case_of_set(kept), SIGNS[kept.sign])
        if answer not in truth.outcomes:
            return NO_SENSE
        return scored_outcome(truth.outcomes[answer].worth, truth.best, sure)
    return scored_choice(answer, str(truth_of(kept)), question_of(kept, speech).keys, sure)


def _number(kept: SetCase, given: float, sure: float) -> Scored:
    truth = truth_of(kept)
    assert isinstance(truth, float)
    return scored_number(BY_KEY[kept.asks], given, truth, sure)


@dataclass(frozen=True, slots=True)
class Result:
    """One person's results: by case, what was scored of it; None where nothing was answered."""

    who: str
    scores: tuple[Scored | None, ...]

    @property
    def score(self) -> float:
        """All of it: what was not answered scores nothing."""
        return sum(each.score for each in self.scores if each is not None)


def result_of(practice: PracticeSet, answers: Answers, speech: Speech) -> Result:
    """A set held against one person's answers; the last answer to a case counts."""
    given = {each.case: each for each in answers.answers if each.case <= len(practice.cases)}
    scores = [
        scored(kept, given[number].answer, given[number].sure, speech) if number in given else None
        for number, kept in enumerate(practice.cases, 1)
    ]
    return Result(answers.who, tuple(scores))


def most_often_wrong(practice: PracticeSet, results: Sequence[Result]) -> tuple[tuple[str, int, int], ...]:
    """(skill, how many answers were not near, of how many) of a class, the worst first."""
    asked, wrong = Counter[str](), Counter[str]()
    for result in results:
        for kept, score in zip(practice.cases, result.scores, strict=True):
            if score is not None and score.near is not None:
                asked[kept.asks] += 1
                wrong[kept.asks] += not score.near
    return tuple((key, wrong[key], asked[key]) for key in sorted(asked, key=lambda key: -wrong[key] / asked[key]))


def answers_text(answers: Answers) -> str:
    """As a file."""
    return headed_text(HEAD, answers)


def read_answers(path: Path) -> Answers:
    """Answers from a file. Raises JobFileError with a sentence naming what is wrong."""
    return read_headed(Answers, path, HEAD)
