"""What can be practised, and how near an answer has to be."""

from __future__ import annotations

from enum import StrEnum

from ..base.frozen import dataclass
from ..base.quantity import Kind


class Task(StrEnum):
    """Sorts of cases."""

    LOOK = "look"
    CUT = "cut"
    STUMP = "stump"
    NOW = "now"
    WORDS = "words"


TASKS = tuple(Task)
LEVELS = (1, 2, 3)
"""From what anybody can begin with to what is hard for anybody."""


@dataclass(frozen=True, slots=True)
class Skill:
    """One thing that is asked.

    Attributes:
        key: of it; task: the sort of case it is asked of.
        kind: of what is typed; None where one of several answers is picked.
        share, least: an answer counts as near within this share of the truth, or this much of its own unit.
    """

    key: str
    task: Task
    kind: Kind | None = None
    share: float = 0.0
    least: float = 0.0

    def tolerance(self, truth: float) -> float:
        """How far off an answer still counts as near, in the answer's own unit."""
        return max(self.share * abs(truth), self.least)


SKILLS = (
    Skill("height", Task.LOOK, Kind.SPAN, share=0.05),
    Skill("lean", Task.LOOK, Kind.ANGLE, least=1.0),
    Skill("weight", Task.LOOK, Kind.BESIDE, least=0.2),
    Skill("reach", Task.LOOK, Kind.SPAN, share=0.10, least=0.3),
    Skill("goes", Task.LOOK),
    Skill("cut", Task.CUT),
    Skill("fault", Task.STUMP),
    Skill("went", Task.STUMP),
    Skill("now", Task.NOW),
    Skill("words", Task.WORDS),
)
BY_KEY = {skill.key: skill for skill in SKILLS}


def skills_of(task: Task) -> tuple[Skill, ...]:
    """What is asked of one sort of case."""
    return tuple(skill for skill in SKILLS if skill.task == task)
