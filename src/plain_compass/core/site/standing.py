"""Where to stand for the back cut: the better side of the stump, and why."""

from __future__ import annotations

from ..base.frames import half_turn_deg
from ..base.frozen import dataclass
from .ground import slope_at
from .site import Place, Site
from .ways_out import PROPOSED, Ways, ways_out

DOWNHILL_FROM_DEG = 5.0
"""Slope from which a side of the stump counts as downhill."""


@dataclass(frozen=True, slots=True)
class Side:
    """One side of the stump, looking along the lay.

    Attributes:
        side: ``left`` or ``right``.
        way_free: whether the way out on that side is free.
        downhill: whether it is the downhill side, where stem and butt may roll.
        under_weight: whether the side weight hangs over it.
    """

    side: str
    way_free: bool
    downhill: bool
    under_weight: bool

    @property
    def against(self) -> int:
        """How much speaks against it: a barred way most, then downhill, then the weight overhead."""
        return 4 * (not self.way_free) + 2 * self.downhill + self.under_weight


def sides(site: Site, at: Place, lay_deg: float, load_left_m: float, ways: Ways = PROPOSED) -> tuple[Side, Side]:
    """Both sides, the better one first; the left where nothing tells them apart.

    Args:
        load_left_m: how far the weight stands to the left of the hinge.
    """
    slope, down_deg = slope_at(site, at)
    off = half_turn_deg(down_deg - lay_deg)
    found = []
    for way in ways_out(site, at, lay_deg, ways):
        sign = 1.0 if way.side == "left" else -1.0
        downhill = slope >= DOWNHILL_FROM_DEG and sign * off < 0 and 15.0 < abs(off) < 165.0
        under = sign * load_left_m > 0.05
        found.append(Side(way.side, way.free, downhill, under))
    found.sort(key=lambda side: side.against)
    return found[0], found[1]
