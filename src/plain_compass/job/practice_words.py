"""What a case of practice asks, in words, with what may be answered; and what was true of it and gave it away."""

from __future__ import annotations

import math

from ..core.advice.suggest import suggest
from ..core.assess import assess
from ..core.base.errors import InputError
from ..core.base.frozen import dataclass
from ..core.base.phrase import Phrase, phrase
from ..core.base.quantity import Kind
from ..core.practice import now, stumps
from ..core.practice.look import PERSON_M, WAYS, look_truth
from ..core.practice.skills import BY_KEY, Task
from ..core.tree.stem import axis_at
from .language import tr
from .practice_case import SetCase, case_of_set, seeded
from .practice_terms import PARTS, names_of, word_questions
from .words import Speech
from .words.catalogue import glossary

OPTIONS = 4
"""Words to pick from."""


@dataclass(frozen=True, slots=True)
class Question:
    """What is asked.

    Attributes:
        text: the question; kind of what is to be typed, None where one of ``options`` is picked.
        options: (key, words) of each; of a cut there are none.
    """

    text: str
    kind: Kind | None
    options: tuple[tuple[str, str], ...] = ()

    @property
    def keys(self) -> tuple[str, ...]:
        """Of the options."""
        return tuple(key for key, _ in self.options)


def question_of(kept: SetCase, speech: Speech) -> Question:
    """The question, as one is spoken to."""
    skill = BY_KEY[kept.asks]
    if skill.task == Task.WORDS:
        return _word_question(kept, speech)
    sign = phrase(f"practice.sign.{kept.sign}") if kept.sign else Phrase("practice.ask.now")
    text = speech.phrase(phrase(f"practice.ask.{kept.asks}", sign=sign) if kept.asks == "now" else _ask(kept.asks))
    return Question(text, skill.kind, tuple((key, speech.phrase(words)) for key, words in _options(kept)))


def _ask(asks: str) -> Phrase:
    return Phrase(f"practice.ask.{asks}")


def _options(kept: SetCase) -> list[tuple[str, Phrase]]:
    if kept.asks == "goes":
        return [(way, Phrase(f"practice.way.{way}")) for way in WAYS]
    if kept.asks == "fault":
        return [(key, Phrase(f"mistake.{key}")) for key in stumps.FAULTS_BY_LEVEL[3]]
    if kept.asks == "went":
        return [(side, Phrase(f"practice.side.{side}")) for side in stumps.SIDES]
    if kept.asks == "now":
        return [(each.key, Phrase(f"practice.do.{each.key}")) for each in now.BY_KEY[kept.sign].actions]
    return []


def _word_question(kept: SetCase, speech: Speech) -> Question:
    how, term = kept.word.split(":", 1)
    terms, keys = glossary()["terms"], tuple(glossary()["vocabularies"])
    mine = speech.words
    wanted = next(key for key in keys if key != mine) if how == "other" else mine
    texts = {
        "meaning": phrase("practice.ask.meaning", meaning=speech.say(terms[term]["meaning"])),
        "part": Phrase("practice.ask.part"),
        "other": phrase("practice.ask.other", word=terms[term][mine], vocabulary=glossary()["vocabularies"][wanted]),
    }
    others = [key for key in (PARTS if how == "part" else terms) if key != term]
    random = seeded(kept.word, kept.level, kept.seed)
    picked = [term, *(others[at] for at in random.permutation(len(others))[: OPTIONS - 1].tolist())]
    order = random.permutation(len(picked)).tolist()
    return Question(speech.phrase(texts[how]), None, tuple((picked[at], terms[picked[at]][wanted]) for at in order))


def truth_of(kept: SetCase) -> float | str:
    """The true answer: a number in its own unit, or the key of an option; of a moment the best action.

    Raises InputError where the case has none: it asks of a stump that has no fault, or of a word nobody knows.
    """
    case, skill = case_of_set(kept), BY_KEY[kept.asks]
    if skill.task == Task.LOOK:
        truth = look_truth(case)
        return truth.way if kept.asks == "goes" else truth.of(kept.asks)
    if skill.task == Task.STUMP:
        found = stumps.stump_truth(case, kept.plan.as_cut)
        if found is None:
            raise InputError(
                "stump", kept.plan.id, reason=tr("it shows no fault, or several; accepted: a stump with one")
            )
        return found.fault if kept.asks == "fault" else found.side
    if skill.task == Task.NOW:
        outcomes = now.now_truth(case, _sign_of(kept)).outcomes
        return max(outcomes, key=lambda key: outcomes[key].worth)
    if skill.task == Task.WORDS:
        if kept.word not in word_questions(3):
            raise InputError(
                "word", kept.word, reason=tr("accepted: {names} and the like", names=", ".join(word_questions(3)[:3]))
            )
        return kept.word.split(":", 1)[1]
    return ""


def _sign_of(kept: SetCase) -> now.Sign:
    if kept.sign not in now.BY_KEY:
        raise InputError("sign", kept.sign, reason=tr("accepted: {accepted}", accepted=", ".join(now.BY_KEY)))
    return now.BY_KEY[kept.sign]


def told_of(kept: SetCase, speech: Speech) -> list[str]:
    """What was true of it and gave it away, a sentence each."""
    task = BY_KEY[kept.asks].task
    if task == Task.CUT:
        return [speech.phrase(each) for each in _of_cut(kept)]
    told = {Task.LOOK: _of_look, Task.STUMP: _of_stump, Task.NOW: _of_now, Task.WORDS: _of_words}
    return [speech.phrase(each) for each in told[task](kept, speech)]


def _of_look(kept: SetCase, speech: Speech) -> list[Phrase]:
    case = case_of_set(kept)
    truth, tree = look_truth(case), case.tree
    asks = f"practice.told.{kept.asks}"
    if kept.asks == "height":
        times = f"{truth.height_m / PERSON_M:.1f}"
        return [phrase(asks, truth=truth.height_m, person=PERSON_M, times=times)]
    if kept.asks == "lean":
        return [phrase(asks, truth=truth.lean_deg, off=truth.height_m * math.tan(math.radians(truth.lean_deg)))]
    if kept.asks == "reach":
        edges = {reading.bearing_deg: reading.radius_m for reading in tree.crown.readings}
        return [phrase(asks, truth=truth.reach_right_m, left=edges.get(270.0, truth.reach_right_m))]
    if kept.asks == "goes":
        return [phrase(asks, way=speech.tell(f"practice.way.{truth.way}"), off=truth.off_m)]
    if abs(truth.weight_left_m) < 0.05:
        return [Phrase("practice.told.weight_middle")]
    middle = case.cut.height_m + 0.4 * (tree.height_m - case.cut.height_m)
    over = {"cut_m": case.cut.height_m, "tree_height_m": tree.height_m, "lay_deg": case.cut.gun_deg}
    return [phrase(asks, truth=truth.weight_left_m, lean=axis_at(tree.lean, middle, **over)[1])]


def _of_stump(kept: SetCase, speech: Speech) -> list[Phrase]:
    truth = stumps.stump_truth(case_of_set(kept), kept.plan.as_cut)
    if truth is None:
        return []
    fault, side = speech.tell(f"mistake.{truth.fault}"), speech.tell(f"practice.side.{truth.side}")
    told = [phrase("practice.told.fault", fault=fault)]
    told.append(phrase("practice.told.went", side=side, off=truth.why.told_deg))
    if truth.fault in stumps.STEERS:
        told.append(phrase("practice.told.moved", fault=fault, share=f"{100 * truth.share:.0f} %"))
    return [*told, Phrase(f"drill.{truth.fault}")]


def _of_now(kept: SetCase, speech: Speech) -> list[Phrase]:
    sign = _sign_of(kept)
    found = now.now_truth(case_of_set(kept), sign)
    return [_outcome(sign, each, speech) for each in found.outcomes.values()]


def _outcome(sign: now.Sign, outcome: now.Outcome, speech: Speech) -> Phrase:
    do = speech.tell(f"practice.do.{outcome.action}")
    if outcome.action == now.LEAVE.key:
        return phrase("practice.out.leave", do=do)
    if sign.key == "crack":
        return phrase("practice.out.split", do=do)
    if outcome.result is None:
        return phrase("practice.out.apart", do=do)
    if outcome.ruling is None:
        return phrase("practice.out.clear", do=do)
    return phrase("practice.out.ruled", do=do, why=outcome.ruling.sentence)


def _of_words(kept: SetCase, speech: Speech) -> list[Phrase]:
    term = kept.word.split(":", 1)[1]
    entry = glossary()["terms"][term]
    words = " / ".join(dict.fromkeys(names_of(term)))
    return [phrase("practice.told.word", word=words, meaning=speech.say(entry["meaning"]))]


def _of_cut(kept: SetCase) -> list[Phrase]:
    found = suggest(assess(case_of_set(kept)))
    best = None if found is None or not found.best else found.best[0]
    if best is None or best.watched:
        return [Phrase("practice.told.none_clear")]
    cut = best.cut
    return [phrase("practice.told.simplest", forms=best.words, depth=cut.face.depth_m, hinge=cut.hinge.mean_m)]
