"""What the plan means on the ground, metres east and north of the tree."""

from __future__ import annotations

import math

import numpy as np

from ....core.assess import Assessment
from ....core.base.frozen import dataclass
from ....core.base.levels import Level
from ....core.base.polygon import Array
from ....core.judge.findings import level_of_ids
from ....core.plan.reach import better_side, lying
from ....core.site.ground import ground_of
from ....core.site.ways_out import WayOut, kept_away_m, ways_out
from ....core.tree.crown import crown_outline

EVERY_DEG = 4
"""Step of the kept-away zone's rim and the crown's edge: finer is not seen on a plan of the ground."""


@dataclass(frozen=True, slots=True, eq=False)
class SiteShapes:
    """This lay on the ground.

    Attributes:
        kept_away: (bearing, distance) round the zone in which nobody else may be.
        crown: crown edge as it stands, (east, north), shape (n, 2).
        along_m, half_m: half width of the lying tree at places along it, shapes (4,).
        length_m: of the lying tree.
        ways: both ways out.
        stand: side of the stump on which to stand for the back cut.
        break_level: how the bending of the lying stem is judged.
        spots_over_m: every spot height over the ground at this tree's stump.
    """

    kept_away: tuple[tuple[float, float], ...]
    crown: Array
    along_m: Array
    half_m: Array
    length_m: float
    ways: tuple[WayOut, ...]
    stand: str
    break_level: Level
    spots_over_m: tuple[float, ...]


def site_shapes(result: Assessment) -> SiteShapes:
    """Make them."""
    case, print_ = result.case, lying(result.case)
    along = np.array([0.0, max(print_.crown_from_m - 0.01, 0.0), print_.crown_from_m, print_.length_m])
    best, _ = better_side(case, result.parts)
    return SiteShapes(
        kept_away=tuple(
            (float(b), kept_away_m(case.site, case.at, case.tree.height_m, b)) for b in range(0, 360, EVERY_DEG)
        ),
        crown=_crown(result),
        along_m=along,
        half_m=print_.half_width_m(along),
        length_m=print_.length_m,
        ways=tuple(ways_out(case.site, case.at, case.cut.lay_deg, case.cut.ways)),
        stand=best.side,
        break_level=level_of_ids(result.findings, ("landing.break",)),
        spots_over_m=_spots(result),
    )


def _crown(result: Assessment) -> Array:
    readings = result.case.tree.crown.readings
    turn = math.radians(readings[0].bearing_deg)
    outline = crown_outline(readings)
    east = outline[:, 0] * math.sin(turn) - outline[:, 1] * math.cos(turn)
    north = outline[:, 0] * math.cos(turn) + outline[:, 1] * math.sin(turn)
    return np.column_stack([east, north])[::EVERY_DEG]


def _spots(result: Assessment) -> tuple[float, ...]:
    case = result.case
    if not case.site.spots:
        return ()
    foot = float(ground_of(case.site).height_at_m(np.array([case.at.east_m]), np.array([case.at.north_m]))[0])
    return tuple(spot.height_m - foot for spot in case.site.spots)
