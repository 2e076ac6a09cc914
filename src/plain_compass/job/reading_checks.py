"""Checks of readings that come from a file: each has what its kind wants."""

from __future__ import annotations

import math

from ..core.base.errors import InputError
from .fields import quantity_at
from .language import tr
from .readings import EDGE, LEAN, SHELL, WIND, Taken


def check_readings(readings: tuple[Taken, ...]) -> None:
    """Raise InputError unless every reading has the values its kind wants, finite, with spreads to match."""
    for index, taken in enumerate(readings):
        if taken.what not in (LEAN, EDGE, SHELL, WIND) and not _is_dimension(taken.what):
            raise InputError(
                f"readings[{index}].what", taken.what, reason=tr("nothing of a tree is measured by that name")
            )
        wanted = 2 if taken.what in (LEAN, EDGE, SHELL) else 1
        for name, numbers in (("values", taken.values), ("spreads", taken.spreads)):
            if len(numbers) != wanted or not all(math.isfinite(number) for number in numbers):
                given = ", ".join(f"{number:g}" for number in numbers) or "empty"
                raise InputError(
                    f"readings[{index}].{name}",
                    given,
                    reason=tr("a {what} has {wanted} of them", what=taken.what, wanted=wanted),
                )
        if any(spread < 0 for spread in taken.spreads):
            raise InputError(
                f"readings[{index}].spreads", min(taken.spreads), low=0.0, reason=tr("a spread is never negative")
            )


def _is_dimension(path: str) -> bool:
    """Whether a path names a number of the tree."""
    try:
        return path.startswith("tree.") and quantity_at(path) is not None
    except (KeyError, StopIteration, TypeError):
        return False
