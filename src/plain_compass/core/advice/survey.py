"""What to measure better: how far each measured input, moved by its own spread, moves the least margin."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from ..assess import Assessment, fits
from ..base.frozen import dataclass
from ..base.paths import value_at
from ..judge.limits import shares_of
from ..plan.case import Case
from ..plan.many import many_of
from ..tree.moved import ACROSS, moved


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


def least_margin(result: Assessment) -> float:
    """The least margin among what the physics judges."""
    return min(f.margin for f in result.findings if f.margin is not None and f.source == "physics")


def survey(case: Case, spreads: Mapping[str, float]) -> tuple[Sensitivity, ...]:
    """Move every input by its spread, both ways, and see what that does; the most harmful first.

    An input that cannot be moved one way (the tree would not hold together) is judged by the other.
    """
    moved = [(path, one) for path, spread in spreads.items() for one in _moved(case, path, spread)]
    margins = shares_of(many_of([case, *(one for _, one in moved)])).ruling()[1].tolist()
    base, effects = margins[0], dict.fromkeys(spreads, 0.0)
    for (path, _), margin in zip(moved, margins[1:], strict=True):
        effects[path] = max(effects[path], abs(margin - base))
    found = (Sensitivity(path, _value(case, path), spreads[path], effects[path]) for path in spreads)
    return tuple(sorted(found, key=lambda each: -each.effect))


def _value(case: Case, path: str) -> float:
    return 0.0 if path == f"tree.{ACROSS}" else float(value_at(case, path))


def _moved(case: Case, path: str, spread: float) -> list[Case]:
    """The case with one input moved up and down by its spread, where the tree and its cut still hold together."""
    found = []
    for sign in (1, -1):
        one = replace(case, tree=moved(case.tree, path.removeprefix("tree."), sign * spread))
        if fits(one):
            found.append(one)
    return found
