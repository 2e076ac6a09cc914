"""What answers show of a person: how reliable each skill is, how far the eye is off, and what to ask next.

Reliability is a Beta posterior begun flat (Gelman et al., Bayesian Data Analysis, 2.4), one a skill; the eye's bias is
the same posterior as of a hand (``stump.learning``), of errors in shares of the tolerance.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise

from ..base.frozen import dataclass
from ..stump.learning import Learned, learned
from .skills import BY_KEY, LEVELS, SKILLS

FIRST_DAYS = 1.0
"""A skill just answered well is asked again after a day; after every good answer more in a row twice as long."""
LONGEST_DAYS = 60.0
"""And after two months at the latest."""
SHARE_LOW = 1.0
"""Spreads below its mean at which a reliability is known to lie: what is little known counts as low."""
SURE_STEPS = (0.0, 0.2, 0.4, 0.6, 0.8, 1.0)
"""Edges of the bins in which calibration is told."""


@dataclass(frozen=True, slots=True)
class Answer:
    """One answer as it is remembered.

    Attributes:
        day: as a number of days; skill, level, seed: of what was asked.
        near: as scored; error in the answer's own unit, truth the true value, both None of one that was picked.
        sure, score: as in ``scoring.Scored``.
    """

    day: int
    skill: str
    level: int
    seed: int
    near: bool
    error: float | None
    truth: float | None
    sure: float
    score: float


@dataclass(frozen=True, slots=True)
class Reliability:
    """How often a skill's answers are near.

    Attributes:
        count: answers; mean, low: of the posterior, and a spread below it.
        due_in_days: until it is to be asked again; not positive where it is due.
    """

    skill: str
    count: int
    mean: float
    low: float
    due_in_days: float


def reliability(skill: str, answers: Sequence[Answer], today: int) -> Reliability:
    """One skill's, of a flat beginning."""
    mine = [each for each in answers if each.skill == skill]
    hits = sum(each.near for each in mine)
    a, b = 1.0 + hits, 1.0 + len(mine) - hits
    mean = a / (a + b)
    spread = math.sqrt(a * b / ((a + b) ** 2 * (a + b + 1.0)))
    return Reliability(skill, len(mine), mean, max(mean - SHARE_LOW * spread, 0.0), _due_in(mine, today))


def _due_in(mine: Sequence[Answer], today: int) -> float:
    if not mine:
        return 0.0
    row = 0
    for each in reversed(mine):
        if not each.near:
            break
        row += 1
    wait = 0.0 if row == 0 else min(FIRST_DAYS * 2.0 ** (row - 1), LONGEST_DAYS)
    return mine[-1].day + wait - today


def next_skill(answers: Sequence[Answer], today: int, among: Sequence[str] | None = None) -> str:
    """What to ask: of those that are due the one known to be least reliable; where none is due, that of all.

    Never the one asked last, where there is another.
    """
    keys = [skill.key for skill in SKILLS if among is None or skill.key in among]
    if answers and len(keys) > 1:
        keys = [key for key in keys if key != answers[-1].skill]
    known = [reliability(key, answers, today) for key in keys]
    due = [each for each in known if each.due_in_days <= 0.0]
    return min(due or known, key=lambda each: (each.low, each.count)).skill


def level_for(skill: str, answers: Sequence[Answer]) -> int:
    """How hard to ask: a level up after four of the last five were near, one down after two."""
    mine = [each for each in answers if each.skill == skill][-5:]
    if not mine:
        return 1
    level, hits = mine[-1].level, sum(each.near for each in mine)
    if len(mine) == 5 and hits >= 4:
        return min(level + 1, LEVELS[-1])
    return max(level - 1, 1) if len(mine) == 5 and hits <= 2 else level


def next_seed(answers: Sequence[Answer]) -> int:
    """A seed no answer has had: never the same picture twice."""
    return max((each.seed for each in answers), default=0) + 1


def bias(skill: str, answers: Sequence[Answer]) -> Learned | None:
    """Bias and spread of the eye in a quantity, in tolerances; None of one that is picked, or that was never asked."""
    of, found = BY_KEY[skill], []
    for each in answers:
        if each.skill == skill and each.error is not None and each.truth is not None:
            found.append(each.error / of.tolerance(each.truth))
    return learned(found, 0.0, 1.0) if found else None


def calibration(answers: Sequence[Answer]) -> tuple[tuple[float, float, int], ...]:
    """(mean sureness, share that was near, how many) by how sure one was."""
    found = []
    for low, high in pairwise(SURE_STEPS):
        here = [each for each in answers if low <= each.sure < high or (high == 1.0 and each.sure == 1.0)]
        if here:
            count = len(here)
            found.append((sum(e.sure for e in here) / count, sum(e.near for e in here) / count, count))
    return tuple(found)
