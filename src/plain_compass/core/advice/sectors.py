"""Where a tree can go: the bearings of a rose gathered into sectors, each with what it takes.

A sector is told as hard as the hardest bearing in it: what is too narrow to be told by itself goes to a neighbour that
is harder, and what is harder than both its neighbours stays, however narrow.
"""

from __future__ import annotations

from collections.abc import Sequence
from enum import StrEnum

from ..base.frames import full_turn_deg
from ..base.frozen import dataclass
from ..base.levels import Level
from ..design.kit import Kit
from .rose import Spoke

LEAST_DEG = 6
"""A sector is told by itself from this width on: nobody turns a lay more finely than he aims."""


class Takes(StrEnum):
    """What a bearing takes, from easiest to hardest."""

    NOTHING = "nothing"
    WEDGES = "wedges"
    ROPE = "rope"
    MORE = "more"
    REFUSED = "refused"


TAKES = tuple(Takes)


@dataclass(frozen=True, slots=True)
class Sort:
    """One sort of bearing: alike are those that take the same, for the same reason.

    Attributes:
        takes: what it takes; ``more`` where this kit does not do it, or a limit is past.
        wedges: how many of them, where wedges do it.
        why: id of what refuses it, or of the limit that is past; empty where a rope that is not carried would do.
        obstacle: index of the obstacle that refuses it; -1 without one.
    """

    takes: Takes
    wedges: int = 0
    why: str = ""
    obstacle: int = -1

    @property
    def rank(self) -> tuple[int, int]:
        """How hard it is; larger is harder."""
        return TAKES.index(self.takes), self.wedges


@dataclass(frozen=True, slots=True)
class Sector:
    """Neighbouring bearings of one sort.

    Attributes:
        sort: what they take.
        from_deg, to_deg: first bearing, and the one after the last, clockwise; 360 apart where it is all the way round.
        best: of its own bearings the one with the largest margin.
        pull_N: the hardest pull in it, where a rope does it.
    """

    sort: Sort
    from_deg: float
    to_deg: float
    best: Spoke
    pull_N: float

    @property
    def width_deg(self) -> float:
        """How wide it is."""
        return full_turn_deg(self.to_deg - self.from_deg) or 360.0

    @property
    def middle_deg(self) -> float:
        """Its middle bearing."""
        return full_turn_deg(self.from_deg + self.width_deg / 2)


def sort_of(spoke: Spoke, seats: int, kit: Kit) -> Sort:
    """What one bearing takes.

    Args:
        seats: places for wedges round the stump.
    """
    if spoke.refused:
        return Sort(Takes.REFUSED, why=spoke.refused_by, obstacle=spoke.refused_at)
    if spoke.level == Level.STOP:
        return Sort(Takes.MORE, why=spoke.ruled_by)
    if spoke.help == "not with this kit":
        return Sort(Takes.MORE)
    if spoke.help == "rope":
        return Sort(Takes.ROPE)
    if spoke.help == "wedges":
        stacked = 2 if "stack" in spoke.way else 1
        return Sort(Takes.WEDGES, wedges=min(max(seats, 1) * stacked, max(kit.wedge_count, 1)))
    return Sort(Takes.NOTHING)


def sectors_of(spokes: Sequence[Spoke], sorts: Sequence[Sort], least_deg: float = LEAST_DEG) -> tuple[Sector, ...]:
    """Gather bearings at even steps all the way round into sectors, from the first that begins after north.

    Args:
        spokes, sorts: of each bearing, the bearings rising.
        least_deg: width from which a sector is told by itself.
    """
    step = 360.0 / len(spokes)
    told = _widened(list(sorts), least_deg / step)
    starts = [at for at in range(len(told)) if told[at] != told[at - 1]] or [0]
    found = []
    for place, start in enumerate(starts):
        count = (starts[(place + 1) % len(starts)] - start) % len(told) or len(told)
        rows = [(start + offset) % len(told) for offset in range(count)]
        own = [at for at in rows if sorts[at] == told[start]]
        best = max(own, key=lambda at: spokes[at].margin)
        first = spokes[start].bearing_deg
        pull = max(spokes[at].pull_N for at in own) if told[start].takes == Takes.ROPE else 0.0
        found.append(Sector(told[start], first, full_turn_deg(first + count * step), spokes[best], pull))
    return tuple(found)


def _widened(sorts: list[Sort], least: float) -> list[Sort]:
    """Runs narrower than the least taken over by the easier of those neighbours that are at least as hard."""
    while True:
        starts = [at for at in range(len(sorts)) if sorts[at] != sorts[at - 1]]
        if len(starts) < 2:
            return sorts
        runs = [
            (start, (after - start) % len(sorts)) for start, after in zip(starts, [*starts[1:], starts[0]], strict=True)
        ]
        for start, count in sorted(runs, key=lambda run: (run[1], run[0])):
            if count >= least:
                return sorts
            own, around = sorts[start], (sorts[start - 1], sorts[(start + count) % len(sorts)])
            harder = [each for each in around if each.rank >= own.rank]
            if harder:
                other = min(harder, key=lambda each: each.rank)
                for offset in range(count):
                    sorts[(start + offset) % len(sorts)] = other
                break
        else:
            return sorts
