"""The short guide to a first tree: what to do next, told until it has been done."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from ..core.assess import Assessment, is_question
from ..core.base.frozen import dataclass
from ..core.base.levels import Level
from ..core.base.phrase import Phrase, phrase
from ..core.judge.unmeasured import missing, taken
from ..core.tree.around import LEAVE, with_answer
from .document import TreePlan
from .edits import unseen


@dataclass(frozen=True, slots=True)
class Progress:
    """What the guide looks at.

    Attributes:
        plan, result: the tree looked at, and what the numbers say of it.
        ground_looked: whether the ground was said to be drawn.
        is_own: whether it is a tree the person has added since the guide began.
        seen: keys of the steps that have been open since then.
    """

    plan: TreePlan
    result: Assessment
    ground_looked: bool
    is_own: bool
    seen: frozenset[str]

    @property
    def open_questions(self) -> int:
        """How much is unknown because nobody has said or measured it."""
        return sum(map(is_question, self.result.findings))


class GuideStep(NamedTuple):
    """One thing to do: its key, whether it is done, and the command that leads there."""

    key: str
    done: Callable[[Progress], bool]
    command: str


def _looked(p: Progress) -> bool:
    tree = p.plan.tree
    return not unseen(tree) and tree.decay.kind != "unknown" and tree.crack != "unknown"


STEPS = (
    GuideStep("add", lambda p: p.is_own, "tree.add"),
    GuideStep("measure", lambda p: not missing(p.plan.tree), "step.look"),
    GuideStep("species", lambda p: not p.plan.tree.species.startswith("unknown"), "answer.species"),
    GuideStep("round", _looked, "view.sheet"),
    GuideStep("leave", lambda p: not with_answer(p.plan.tree.around, LEAVE, "unknown"), "view.sheet"),
    GuideStep("ground", lambda p: p.ground_looked and "ground" in p.seen, "step.ground"),
    GuideStep("questions", lambda p: not p.open_questions, "answer.next"),
    GuideStep("cut", lambda p: "cut" in p.seen and p.result.verdict.level in (Level.CLEAR, Level.WATCH), "step.cut"),
    GuideStep("stages", lambda p: "stages" in p.seen, "step.stages"),
    GuideStep("card", lambda p: "card" in p.seen, "step.card"),
)
"""In the order of the work."""


def next_step(progress: Progress) -> int | None:
    """Number of the first step that is not done yet; None when all are."""
    return next((number for number, step in enumerate(STEPS) if not step.done(progress)), None)


def words_of(step: GuideStep, progress: Progress) -> Phrase:
    """What a step asks, with how far one is."""
    done, wanted = taken(progress.plan.tree)
    return phrase(f"guide.{step.key}", taken=str(done), wanted=str(wanted), count=str(progress.open_questions))
