"""What practice says of an eye for leans, to be used in plans where a lean was judged by eye."""

from __future__ import annotations

from collections.abc import Sequence

from ..core.practice.learner import Answer
from ..core.stump.hand import LEAN, Used
from ..core.stump.learning import learned
from .spreads import spreads

KEY = f"{LEAN}:eye"
"""As stumps teach it: a lean judged by eye."""


def eye_of(answers: Sequence[Answer], faller: str) -> Used | None:
    """Mean and spread of the error of leans, begun from what ships; None where none was ever judged."""
    errors = [each.error for each in answers if each.skill == "lean" and each.error is not None]
    if not errors:
        return None
    found = learned(errors, 0.0, float(spreads()["lean_deg"]["eye"]))
    return Used(KEY, faller, found.count, found.mean, found.next_spread)
