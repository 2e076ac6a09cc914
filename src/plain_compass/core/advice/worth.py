"""What is most worth measuring: which input of what is not clear weighs most, and how likely a better look ends it."""

from __future__ import annotations

import math
from collections.abc import Mapping

from ..base.frozen import dataclass
from ..base.levels import LEVELS, FindingKind, Level
from ..judge.chances import CLEAR_BETA, Chances, Way, below
from ..judge.findings import Finding

LEAST_SHARE = 0.05
"""Share of a limit's spread below which measuring an input better is not worth a sentence."""


@dataclass(frozen=True, slots=True)
class Worth:
    """One input that is worth measuring better.

    Attributes:
        path: the input.
        finding: the limit that is not clear.
        share: of the spread of that limit which the input accounts for.
        clears: how likely the limit comes out clear once it is measured so; None where there is no better way.
    """

    path: str
    finding: Finding
    share: float
    clears: float | None


def most_worth(findings: tuple[Finding, ...], chances: Chances, better: Mapping[str, float]) -> Worth | None:
    """The input most worth measuring better; None where nothing that is not clear hangs on a measurement.

    Args:
        better: share of its spread that a better way of measuring leaves, by path; of the inputs that have one.
    """
    troubles = [f for f in findings if f.kind == FindingKind.LIMIT and f.id in chances.ways and f.level != Level.CLEAR]
    troubles.sort(key=lambda f: (-LEVELS.index(f.level), -(f.chance or 0.0)))
    for finding in troubles:
        shares = {path: share for path, share in chances.shares(finding.id).items() if path.startswith("tree.")}
        way = chances.ways[finding.id][0]
        places = {path: chances.inputs.index(path) for path in better if path in shares}
        gains = {path: clears_after(way, at, better[path]) for path, at in places.items()}
        path = max(shares, key=lambda each: (gains.get(each, 0.0), shares[each]), default="")
        if path and shares[path] >= LEAST_SHARE:
            return Worth(path, finding, shares[path], gains.get(path))
    return None


def clears_after(way: Way, at: int, left: float) -> float:
    """Chance that a limit comes out clear once one input is measured better.

    What the new reading will say is normal about what is known now; with it the state moves along the input's slope,
    and its spread loses what the input no longer adds.

    Args:
        at: place of the input.
        left: share of its spread that a better way leaves.
    """
    slope = float(way.slopes[at])
    told = abs(slope) * math.sqrt(max(1.0 - left**2, 0.0))
    spread = math.sqrt(max(way.spread**2 - told**2, 0.0))
    wanted = CLEAR_BETA * spread
    if told <= 0:
        return 1.0 if way.state >= wanted else 0.0
    return below((way.state - wanted) / told)
