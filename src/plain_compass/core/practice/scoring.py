"""What an answer is worth: by its error in own units, and by a proper rule for how sure one was of it.

Sureness p that the answer is near (or the right one) is scored 1 - (p - hit)²: the quadratic rule (Brier, Monthly
Weather Review 78, 1950). Whoever believes q and says q expects the most: the expected score 1 - q(1-p)² - (1-q)p² has
its maximum at p = q, which is what makes the rule proper.
"""

from __future__ import annotations

import math

from ..base.frozen import dataclass
from .skills import Skill

LEAST_SURE = 0.0
"""Sureness goes from nothing to all."""


@dataclass(frozen=True, slots=True)
class Scored:
    """One answer held against the truth.

    Attributes:
        near: whether it is within the tolerance, or the right one; None where the answer makes no sense.
        error: answer less truth in the answer's own unit; None where one was picked.
        score: 0 to 1; 0 of one that makes no sense.
        sure: as it was said.
    """

    near: bool | None
    error: float | None
    score: float
    sure: float


NO_SENSE = Scored(None, None, 0.0, 0.0)
"""Of an answer that makes no sense: it scores nothing and teaches nothing."""


def brier(sure: float, hit: bool) -> float:
    """Score of saying so sure of something that was so, or was not."""
    return 1.0 - (sure - float(hit)) ** 2


def scored_number(skill: Skill, given: float, truth: float, sure: float) -> Scored:
    """A number that was typed."""
    if not (math.isfinite(given) and _is_share(sure)):
        return NO_SENSE
    near = abs(given - truth) <= skill.tolerance(truth) + 1e-9
    return Scored(near, given - truth, brier(sure, near), sure)


def scored_choice(given: str, truth: str, options: tuple[str, ...], sure: float) -> Scored:
    """One that was picked of several."""
    if given not in options or not _is_share(sure):
        return NO_SENSE
    return Scored(given == truth, None, brier(sure, given == truth), sure)


def scored_outcome(worth: float, best: float, sure: float) -> Scored:
    """Something that was done: half for what came of it, half for how sure one was that nothing better was to be had.

    What came of it does not hang on how sure one said one was, so that the rule stays proper.

    Args:
        worth: of what came of it, 0 to 1; best: of the best there was.
    """
    if not _is_share(sure):
        return NO_SENSE
    near = worth >= best - 1e-9
    return Scored(near, None, (brier(sure, near) + worth) / 2.0, sure)


def _is_share(sure: float) -> bool:
    return math.isfinite(sure) and LEAST_SURE <= sure <= 1.0
