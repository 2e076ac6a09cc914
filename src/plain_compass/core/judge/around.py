"""Findings from the walk round: what is above and around the tree, and whether it may be felled."""

from __future__ import annotations

from ..base.frozen import dataclass
from ..base.kept import kept
from ..base.levels import Group, Level
from ..base.phrase import Phrase, phrase
from ..tree.around import ABOVE, LEAVE, LIFE, Around, with_answer, words_of
from ..tree.tree import Tree
from .findings import Finding, Limit, stated


@dataclass(frozen=True, slots=True)
class Question:
    """Several items answered together, and what an answer against the plan means."""

    id: str
    names: tuple[str, ...]
    against: str
    levels: dict[str, str]


QUESTIONS = (
    Question("around.above", ABOVE, "yes", {"hung_pieces": Level.STOP, "wires": Level.STOP}),
    Question("around.life", LIFE, "yes", {"nests": Level.STOP, "roosts": Level.STOP}),
    Question("around.leave", LEAVE, "no", {"leave": Level.STOP, "licence": Level.STOP, "season": Level.STOP}),
)


def around_findings(tree: Tree) -> tuple[Finding, ...]:
    """One finding a question; whatever is unanswered keeps it unknown, whatever is against the plan rules first."""
    return _of_all(tree.around)


@kept("walk round", 32)
def _of_all(around: Around) -> tuple[Finding, ...]:
    return tuple(_answered(question, around) for question in QUESTIONS)


def _answered(question: Question, around: Around) -> Finding:
    against = with_answer(around, question.names, question.against)
    unanswered = with_answer(around, question.names, "unknown")
    levels = {question.levels.get(name, Level.WATCH) for name in against}
    level = (
        Level.STOP if Level.STOP in levels else Level.UNKNOWN if unanswered else Level.WATCH if against else Level.CLEAR
    )
    found = phrase(f"{question.id}.against", items=_named(against, around)) if against else None
    asked = phrase(f"{question.id}.open", items=_named(unanswered, around)) if unanswered else None
    both = phrase("around.both", found=found, asked=asked) if found and asked else None
    sentence = both or found or asked or phrase(f"{question.id}.clear")
    return stated(Limit(question.id, Group.AROUND, "crown"), level, sentence, f"{question.id}.change", source="site")


def _named(names: tuple[str, ...], around: Around) -> tuple[str | Phrase, ...]:
    """What was asked, each in the words of its question; a tangle with where it is."""
    return tuple(
        phrase("around.towards", what=words_of(name), at=around.tangled_deg)
        if _is_tangle(name, around)
        else words_of(name)
        for name in names
    )


def _is_tangle(name: str, around: Around) -> bool:
    return name == "tangled" and around.tangled == "yes"
