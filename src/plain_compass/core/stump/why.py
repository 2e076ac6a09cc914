"""Why a tree lies where it lies: the fall reckoned again with the stump as it was cut, the miss shared out."""

from __future__ import annotations

import math
from collections.abc import Generator, Mapping, Sequence
from dataclasses import replace

from ..assess import check
from ..base.errors import InputError
from ..base.frames import half_turn_deg
from ..base.frozen import dataclass
from ..base.steps import finished
from ..fall.nominal import falls_beside_deg
from ..plan.case import Case, Planned
from ..plan.many import many_of
from ..tree.moved import moved
from .as_cut import AsCut, breaks_at_deg, case_as, differing, miss_deg, named_as_read
from .shares import coalitions, shapley

LEAST_DEG = 0.1
"""Less than this is not looked for: it cannot be read off the ground."""
AT_ONCE = 4
"""Cases whose physics is reckoned together: as quick as two by themselves, and a step stays short."""
FARTHEST = 3.0
"""Spreads past which an input is no explanation."""


@dataclass(frozen=True, slots=True)
class Why:
    """A miss and what it is made of; degrees, left of the lay positive.

    Attributes:
        planned_deg: what the plan would have missed by as it was drawn.
        shares: group -> its part of what the cut changed; only those in which the stump is not as planned.
        told_deg: what the stump as cut makes the tree miss by: planned and all shares.
        miss_deg: what it really missed by; None where that was not read.
        goes: whether the tree goes by the stump as cut.
    """

    planned_deg: float
    shares: dict[str, float]
    told_deg: float
    miss_deg: float | None
    goes: bool

    @property
    def unexplained_deg(self) -> float | None:
        """What neither plan nor cut explains."""
        return None if self.miss_deg is None else half_turn_deg(self.miss_deg - self.told_deg)

    def miss_m(self, height_m: float) -> float | None:
        """The same at the top of a tree of this height: how far beside its lay the top lies."""
        return None if self.miss_deg is None else height_m * math.sin(math.radians(self.miss_deg))


def why(case: Case, as_cut: AsCut) -> Why:
    """Share out a miss at once; see ``why_in_steps``."""
    return finished(why_in_steps(case, as_cut))


def why_in_steps(case: Case, as_cut: AsCut) -> Generator[None, None, Why]:
    """Share out a miss, a fall at a time.

    Two to the power of the differing groups falls are reckoned, at most 256; a set under which the tree does not go
    counts with where it stopped.

    Args:
        case: as it was planned.

    Raises InputError, naming the field, where what was read cannot be.
    """
    players = differing(case, as_cut)
    groups, value, goes = coalitions(players), {}, True
    for first in range(0, len(groups), AT_ONCE):
        some = groups[first : first + AT_ONCE]
        for group, planned in zip(some, _planned([case_as(case, as_cut, group) for group in some]), strict=True):
            value[group], goes = falls_beside_deg(planned, breaks_at_deg(as_cut, group))
            yield
    nobody: frozenset[str] = frozenset()
    missed = miss_deg(case.cut, as_cut, case.tree.height_m - case.cut.height_m)
    return Why(value[nobody], shapley(players, value), value[frozenset(players)], missed, goes)


def _planned(cases: Sequence[Case]) -> list[Planned]:
    """Cases with what is reckoned of each; what is found of them is not asked: where a tree lies hangs on its parts.

    Raises InputError, naming the field as it was read.
    """
    try:
        for case in cases:
            check(case)
        found: dict[int, Planned] = {}
        # The wind is one of the things that differ, and cases reckoned together share their site.
        for site in dict.fromkeys(case.site for case in cases):
            places = [at for at, case in enumerate(cases) if case.site == site]
            many = many_of([cases[at] for at in places])
            found |= {at: Planned(cases[at], many.parts(row)) for row, at in enumerate(places)}
        return [found[at] for at in range(len(cases))]
    except InputError as error:
        raise named_as_read(error) from error


@dataclass(frozen=True, slots=True)
class Explanation:
    """One input of the tree that would explain what the cut does not.

    Attributes:
        path: of the input, such as ``tree.height_m``, or the lean across its bearing.
        by: how far it would have to be off, in its own unit.
        spreads: how many of its own spreads that is.
        chance: how likely it is at least so far off.
    """

    path: str
    by: float
    spreads: float

    @property
    def chance(self) -> float:
        """Of an error at least so large, either way, by the normal law."""
        return math.erfc(abs(self.spreads) / math.sqrt(2.0))


def explanations(case: Case, as_cut: AsCut, found: Why, spreads: Mapping[str, float]) -> tuple[Explanation, ...]:
    """Which inputs of the tree would each explain the rest; see ``explanations_in_steps``."""
    return finished(explanations_in_steps(case, as_cut, found, spreads))


def explanations_in_steps(
    case: Case, as_cut: AsCut, found: Why, spreads: Mapping[str, float]
) -> Generator[None, None, tuple[Explanation, ...]]:
    """Which inputs of the tree would each explain the rest by itself, the likeliest first; an input at a time.

    The fall of the stump as cut is reckoned one spread either side of each input; the value that closes the gap is
    taken along the line between them, and is told only within ``FARTHEST`` spreads.

    Args:
        spreads: path of an input of the tree -> one standard deviation, as measured.
    """
    rest, told = found.unexplained_deg, []
    cut, breaks_deg = case_as(case, as_cut), breaks_at_deg(as_cut)
    asked = spreads if rest is not None and abs(rest) >= LEAST_DEG else {}
    for path, spread in asked.items():
        per_spread = _per_spread(cut, path, spread, breaks_deg) if spread and path.startswith("tree.") else None
        yield
        assert rest is not None
        if per_spread is None or abs(per_spread) < LEAST_DEG / FARTHEST or abs(rest / per_spread) > FARTHEST:
            continue
        told.append(Explanation(path, rest / per_spread * spread, rest / per_spread))
    return tuple(sorted(told, key=lambda each: abs(each.spreads)))


def _per_spread(case: Case, path: str, spread: float, breaks_deg: float | None) -> float | None:
    """How many degrees farther left the top comes for one spread more of an input; None where that cannot be."""
    try:
        trees = [moved(case.tree, path.removeprefix("tree."), by) for by in (-spread, spread)]
        ends = [
            falls_beside_deg(each, breaks_deg)[0] for each in _planned([replace(case, tree=tree) for tree in trees])
        ]
    except InputError:
        return None
    return half_turn_deg(ends[1] - ends[0]) / 2
