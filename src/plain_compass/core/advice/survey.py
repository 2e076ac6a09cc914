"""What to measure better: how far each measured input, moved by its own spread, moves the least margin."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace

from ..assess import Assessment, assess
from ..base.errors import InputError
from ..base.paths import value_at, with_value
from ..judge.findings import Finding
from ..plan.case import Case


@dataclass(frozen=True, slots=True)
class Sensitivity:
    """One measured input of the tree.

    Attributes:
        path: dotted path from the case, such as ``tree.lean.angle_deg``.
        value, spread: in the input's own unit; the spread is one standard deviation.
        effect: how far the least physical margin moves for one spread, either way; the larger of both.
    """

    path: str
    value: float
    spread: float
    effect: float


def least(result: Assessment, leaving_out: tuple[str, ...] = ()) -> Finding:
    """The finding with the least margin among what the physics judges; ``leaving_out``: how passed-over ids begin."""
    judged = (f for f in result.findings if f.margin is not None and f.source == "physics")
    return min((f for f in judged if not f.id.startswith(leaving_out)), key=margin_left)


def least_margin(result: Assessment) -> float:
    """The least margin among what the physics judges."""
    return margin_left(least(result))


def margin_left(finding: Finding) -> float:
    """Its margin; infinite where there is none."""
    return math.inf if finding.margin is None else finding.margin


def survey(case: Case, spreads: Mapping[str, float]) -> tuple[Sensitivity, ...]:
    """Move every input by its spread, both ways, and see what that does; the most harmful first.

    An input that cannot be moved one way (the tree would not hold together) is judged by the other.
    """
    base = least_margin(assess(case))
    found = []
    for path, spread in spreads.items():
        value = float(value_at(case, path))
        moved = [_margin_at(case, path, value + sign * spread) for sign in (1, -1)]
        effect = max((abs(margin - base) for margin in moved if margin is not None), default=0.0)
        found.append(Sensitivity(path, value, spread, effect))
    return tuple(sorted(found, key=lambda each: -each.effect))


def _margin_at(case: Case, path: str, value: float) -> float | None:
    if path.endswith("bearing_deg"):
        value %= 360.0
    try:
        return least_margin(assess(replace(case, tree=with_value(case.tree, path.removeprefix("tree."), value))))
    except InputError:
        return None
