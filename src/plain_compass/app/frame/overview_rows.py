"""What the overview says of each tree of a job, and how it is judged behind the window, a tree at a time."""

from __future__ import annotations

from collections.abc import Iterator

from ...core.base.errors import PlainCompassError
from ...core.base.frozen import dataclass
from ...core.base.levels import LEVELS, FindingKind, Level
from ...core.judge.who import Difficulty
from ...job.document import STATES, Job, TreePlan, size_words
from ...job.fall import judged_with_fall
from ...job.language import tr
from ...job.tables import wood_of

COLUMNS = (
    "",
    tr("tree"),
    tr("species"),
    tr("diameter"),
    tr("height"),
    tr("lay"),
    tr("how hard"),
    tr("duties left"),
    tr("the tree"),
    tr("verdict"),
)
WAITING = tr("being judged …")


@dataclass(frozen=True, slots=True)
class Judged:
    """What was found of one tree.

    Attributes:
        level: of its verdict; None while it has not been judged.
        sentence: its verdict.
        duties: how many are still to be done.
        difficulty: how hard it is; None where it could not be judged.
    """

    level: Level | None = None
    sentence: str = WAITING
    duties: int = 0
    difficulty: Difficulty | None = None


def judged(job: Job, plan: TreePlan) -> Judged:
    """The whole judgement of one tree, its fall included: what the window says when it is looked at."""
    try:
        result, _ = judged_with_fall(job, plan.id)
    except PlainCompassError as error:
        return Judged(Level.UNKNOWN, str(error))
    left = sum(f.kind == FindingKind.DUTY and f.is_open for f in result.findings)
    return Judged(result.verdict.level, job.speech.verdict(result.verdict), left, result.difficulty)


def one_by_one(job: Job, known: dict[str, Judged]) -> Iterator[str]:
    """Judge what is not known yet, a tree a step; yields its id."""
    for plan in job.trees:
        if plan.id not in known:
            known[plan.id] = judged(job, plan)
            yield plan.id


def cells(job: Job, plan: TreePlan, found: Judged) -> tuple[str, ...]:
    """A row, as ``COLUMNS``."""
    speech, (diameter, height) = job.speech, size_words(plan, job.speech)
    hard = "" if found.difficulty is None else speech.tell(f"grade.{found.difficulty.grade}")
    state = "" if plan.state == "standing" else STATES[plan.state]
    duties = "" if found.level is None else str(found.duties) if found.duties else tr("none")
    lay = speech.show(plan.cut.lay_deg, "bearing")
    species = tr(wood_of(plan.tree.species).name)
    return ("", plan.id, species, diameter, height, lay, hard, duties, state or tr("standing"), found.sentence)


def order_of(plan: TreePlan, found: Judged, column: int) -> float | None:
    """By what a column is sorted; nothing where its text is in its order."""
    return {
        0: -1.0 if found.level is None else float(LEVELS.index(found.level)),
        3: plan.tree.trunk.diameter_m,
        4: plan.tree.height_m,
        5: plan.cut.lay_deg,
        7: float(found.duties),
    }.get(column)
