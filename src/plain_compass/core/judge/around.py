"""Findings from the walk round: what is above and around the tree, and whether it may be felled."""

from __future__ import annotations

from dataclasses import dataclass

from ..base.phrase import Phrase, listed, phrase
from ..tree.around import ABOVE, LEAVE, LIFE, Around, with_answer, words_of
from ..tree.tree import Tree
from .findings import Finding, stated


@dataclass(frozen=True, slots=True)
class Question:
    """Several items answered together, and what an answer against the plan means."""

    id: str
    names: tuple[str, ...]
    against: str
    levels: dict[str, str]
    said: str
    open_words: str
    clear_words: str
    change: str


QUESTIONS = (
    Question(
        "around.above",
        ABOVE,
        "yes",
        {"hung_pieces": "stop", "wires": "stop"},
        "Seen above and around: {items}.",
        "Nobody has looked for {items}.",
        "Looked up and round: nothing hangs, ties or threatens.",
        "Walk round and look up, from two sides; hung pieces and wires are for those qualified for them.",
    ),
    Question(
        "around.life",
        LIFE,
        "yes",
        {"nests": "stop", "roosts": "stop"},
        "Found in or beside the tree: {items}.",
        "Nobody has looked for {items}.",
        "No nest and no roost feature was found.",
        "Look before the saw starts; what lives there may make felling unlawful now.",
    ),
    Question(
        "around.leave",
        LEAVE,
        "no",
        {"leave": "stop", "licence": "stop", "season": "stop"},
        "Not given: {items}.",
        "Not asked yet: {items}.",
        "Leave, permit and season are settled and people have been told.",
        "Ask the owner and the authority, and tell everyone who may come near.",
    ),
)


def around_findings(tree: Tree) -> tuple[Finding, ...]:
    """One finding a question; whatever is unanswered keeps it unknown, whatever is against the plan rules first."""
    return tuple(_answered(question, tree.around) for question in QUESTIONS)


def _answered(question: Question, around: Around) -> Finding:
    against = with_answer(around, question.names, question.against)
    unanswered = with_answer(around, question.names, "unknown")
    levels = {question.levels.get(name, "watch") for name in against}
    level = "stop" if "stop" in levels else "unknown" if unanswered else "watch" if against else "clear"
    texts = [question.said.format(items=_named(against, around))] if against else []
    texts += [question.open_words.format(items=_named(unanswered, around))] if unanswered else []
    sentence = _sentence(" ".join(texts) or question.clear_words, around, against)
    return stated(question.id, "around", level, sentence, question.change, source="site", mark="crown")


def _named(names: tuple[str, ...], around: Around) -> str:
    return listed([words_of(name) + (" towards {tangled}" if _is_tangle(name, around) else "") for name in names])


def _is_tangle(name: str, around: Around) -> bool:
    return name == "tangled" and around.tangled == "yes"


def _sentence(text: str, around: Around, against: tuple[str, ...]) -> Phrase:
    if any(_is_tangle(name, around) for name in against):
        return phrase(text, tangled=(around.tangled_deg, "bearing"))
    return phrase(text)
