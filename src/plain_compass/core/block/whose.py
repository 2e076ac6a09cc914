"""Whose a tree is: what each of the crew says of their own limits against how hard it is."""

from __future__ import annotations

from collections.abc import Sequence

from ..advice.sectors import Takes
from ..base.frozen import dataclass
from ..judge.who import GRADES, Grade
from .crew import Worker
from .judged import Graded
from .trees import Lay


@dataclass(frozen=True, slots=True)
class Whose:
    """Whose a tree is.

    Attributes:
        can: names of those within whose limits it is; unsaid those who do not say what they are trained for.
        grade: how hard it is.
    """

    can: tuple[str, ...]
    unsaid: tuple[str, ...]
    grade: Grade

    @property
    def is_nobodys(self) -> bool:
        """Whether it is past the limits of every one of them."""
        return not self.can and not self.unsaid


def grade_on(graded: Graded, lay: Lay) -> Grade:
    """How hard a tree is on a lay: as planned, and hard at least where it takes a rope."""
    grade = graded.difficulty.grade
    return max(grade, Grade.HARD, key=GRADES.index) if lay.takes == Takes.ROPE else grade


def whose(crew: Sequence[Worker], graded: Graded, lay: Lay) -> Whose:
    """Who of a crew may fell a tree on a lay."""
    grade, can, unsaid = grade_on(graded, lay), list[str](), list[str]()
    for each in crew:
        if each.limits.biggest_m is not None and graded.across_m > each.limits.biggest_m:
            continue
        if each.limits.trained == "not said":
            unsaid.append(each.name)
        elif GRADES.index(grade) <= GRADES.index(Grade(each.limits.trained)):
            can.append(each.name)
    return Whose(tuple(can), tuple(unsaid), grade)
