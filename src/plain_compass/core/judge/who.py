"""How hard a tree is, with its reasons, and whether the person who wants to fell it says it is theirs to fell.

The grades are this program's own; local schemes differ and are named as such.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from enum import StrEnum

from ..base.frozen import dataclass
from ..base.levels import Group, Level
from ..base.phrase import Phrase, phrase
from ..base.quantity import Kind, choice, quantity
from ..cuts import form_of
from ..plan.case import Case, Parts, Planned
from ..plan.reach import in_reach
from ..site.ground import slope_at
from .bar import reach_m
from .findings import Finding, Limit, stated, unknown


class Grade(StrEnum):
    """From easiest to hardest."""

    PLAIN = "plain"
    DEMANDING = "demanding"
    HARD = "hard"
    SPECIALIST = "specialist"


GRADES = tuple(Grade)
TRAINED = {
    "not said": "not said",
    Grade.PLAIN: "plain trees",
    Grade.DEMANDING: "demanding trees",
    Grade.HARD: "hard trees",
    Grade.SPECIALIST: "specialist work",
}
COMPANY = {"not said": "not said", "together": "somebody is with you", "alone": "alone"}


@dataclass(frozen=True, slots=True)
class Stated:
    """What a person says of their own limits."""

    trained: str = choice("not said", TRAINED, "trained for", "The hardest trees you are trained to fell.")
    biggest_m: float | None = quantity(
        None,
        kind=Kind.LENGTH,
        low=0.05,
        high=4.0,
        label="biggest stem",
        step=0.05,
        optional=True,
        help="The thickest stem at the cut that you fell; empty sets no limit.",
    )
    company: str = choice("not said", COMPANY, "company", "Whether somebody is within call while you fell.")


@dataclass(frozen=True, slots=True)
class Difficulty:
    """How hard a tree is.

    Attributes:
        grade: of its hardest reason; plain where there is none.
        reasons: what makes it harder than plain, each with its grade, the hardest first.
    """

    grade: Grade
    reasons: tuple[tuple[Grade, Phrase], ...]


STEPS: dict[str, tuple[float, float]] = {
    "lean": (5.0, 8.0),
    "side": (0.5, 0.8),
    "lift": (0.6, 1.0),
    "split": (0.5, 1.0),
    "slope": (15.0, 25.0),
    "stem": (1.0, 2.0),
}
"""What is reckoned: from where it is demanding, and from where it is hard (judgement)."""
MORE_THAN_DRIVEN = 0.61
"""Share of the lift told where a second wedge, a thinner hinge or a jack has to do it."""
SHELLS = (0.5, 0.3)
"""The same of the sound shell, the other way round."""


def difficulty_of(planned: Planned) -> Difficulty:
    """How hard a tree is with the cut designed for it."""
    found = [*_reckoned(planned), *_seen(planned.case, planned.parts), *_forms(planned)]
    found.sort(key=lambda each: -GRADES.index(each[0]))
    return Difficulty(found[0][0] if found else Grade.PLAIN, tuple(found))


def _reckoned(planned: Planned) -> Iterator[tuple[Grade, Phrase]]:
    case, parts = planned.case, planned.parts
    mass, wedging = parts.mass, parts.wedging
    ahead = math.degrees(math.atan2(mass.com_forward_m, mass.com_up_m))
    reach, slope = reach_m(case), slope_at(case.site, case.at)[0]
    side, split = parts.use.side_utilisation, parts.splitting.split_index_plain
    # A tree that wants more than its wedges driven is no plain one, however well that does it.
    lifts = max(parts.wedge_plan.lift_use, 0.0 if parts.wedge_plan.name == "wedges" else MORE_THAN_DRIVEN)
    values = {
        "lean": (max(ahead, 0.0), phrase("grade.lean", lean=ahead)),
        "side": (side, phrase("grade.side", use=min(side, 9.99))),
        "lift": (lifts if wedging.wanted and wedging.seats else 0.0, phrase("grade.lift", use=min(lifts, 9.99))),
        "split": (split, phrase("grade.split", index=split)),
        "slope": (slope, phrase("grade.slope", slope=slope)),
        "stem": (parts.section.width_m / reach, phrase("grade.stem", across=parts.section.width_m, bar=reach)),
    }
    for key, (value, words) in values.items():
        demanding, hard = STEPS[key]
        if value > demanding:
            yield (Grade.HARD if value > hard else Grade.DEMANDING), words


def _seen(case: Case, parts: Parts) -> Iterator[tuple[Grade, Phrase]]:
    around, shell = case.tree.around, parts.section.shell_ratio
    if shell is not None and shell < SHELLS[0]:
        yield (Grade.HARD if shell < SHELLS[1] else Grade.DEMANDING), phrase("grade.shell", shell=shell)
    if case.tree.condition == "dead":
        yield Grade.HARD, phrase("grade.dead")
    if case.tree.condition in ("frozen", "frozen sapwood"):
        yield Grade.DEMANDING, phrase("grade.frozen")
    if around.dead_limbs == "yes":
        yield Grade.DEMANDING, phrase("grade.dead_limbs")
    if around.tangled == "yes":
        yield Grade.HARD, phrase("grade.tangled")
    if around.hung_pieces == "yes":
        yield Grade.SPECIALIST, phrase("grade.hung")
    if case.tree.fork.union == "cracked":
        yield Grade.SPECIALIST, phrase("grade.fork")
    dear = in_reach(case)
    if dear:
        yield Grade.DEMANDING, phrase("grade.target", name=dear)


def _forms(planned: Planned) -> Iterator[tuple[Grade, Phrase]]:
    case = planned.case
    for part, key in case.cut.forms.items():
        form = form_of(part, key)
        if form.specialist:
            yield Grade.SPECIALIST, phrase("grade.form", name=phrase(form.name))
    if case.cut.is_aloft:
        yield Grade.SPECIALIST, phrase("grade.aloft")
    if case.rope.use == "set":
        yield Grade.HARD, phrase("grade.rope")


def who_findings(planned: Planned, stated_by: Stated) -> tuple[Finding, ...]:
    """Whether the tree is within what the person who plans it says of themselves."""
    return (_company(stated_by), _trained(planned, stated_by), *_biggest(planned, stated_by))


def _company(by: Stated) -> Finding:
    if by.company == "not said":
        return unknown("who.company", Group.AROUND, "who.company.unsaid", "who.company.say")
    limit, alone = Limit("who.company", Group.AROUND), by.company == "alone"
    text = "who.company.alone" if alone else "who.company.together"
    return stated(limit, Level.STOP if alone else Level.CLEAR, phrase(text), "who.company.change", source="site")


def _trained(planned: Planned, by: Stated) -> Finding:
    if by.trained == "not said":
        return unknown("who.trained", Group.AROUND, "who.trained.unsaid", "who.trained.say")
    found = difficulty_of(planned)
    past = GRADES.index(found.grade) > GRADES.index(Grade(by.trained))
    grade, limit = phrase(f"grade.{found.grade}"), Limit("who.trained", Group.AROUND)
    if not past:
        why = tuple(words for _, words in found.reasons)
        text = "who.trained.within_for" if why else "who.trained.within"
        within = phrase(text, grade=grade, why=why) if why else phrase(text, grade=grade)
        return stated(limit, Level.CLEAR, within, "who.trained.change", source="site")
    why = tuple(words for each, words in found.reasons if GRADES.index(each) > GRADES.index(Grade(by.trained)))
    sentence = phrase("who.trained.past", grade=grade, why=why, trained=phrase(f"grade.{by.trained}"))
    return stated(limit, Level.STOP, sentence, "who.trained.change", source="site")


def _biggest(planned: Planned, by: Stated) -> list[Finding]:
    across = planned.parts.section.diameter_m
    if by.biggest_m is None or across <= by.biggest_m:
        return []
    sentence = phrase("who.stem.past", across=across, most=by.biggest_m)
    return [stated(Limit("who.stem", Group.AROUND), Level.STOP, sentence, "who.stem.change", source="site")]
