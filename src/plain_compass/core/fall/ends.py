"""What ends a fall, by bearing: the ground under the stem, and the neighbours that would hold the tree up."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ..base.frames import half_turn_deg
from ..base.frozen import dataclass
from ..base.kept import kept
from ..base.polygon import Array
from ..mechanics.resting import first_touches
from ..plan.case import Case
from ..site.ground import profiles_on
from ..site.hang_up import Faller, catches_by_bearing
from ..site.landing import Footprint, Sampled, along_and_aside, sampled
from ..site.site import Place, Site
from .rods import BEARINGS, Ends, level_ends

CATCH_EVERY_DEG = 2.0
"""Bearings at which it is worked out what catches the crown: less than half a crown's width at its reach."""
CATCH_REACH_DEG = 50.0
"""How far to either side of the lay neighbours are looked for, and how finely."""


@kept("ground all round", 16)
def ends_of(site: Site, at: Place, height_m: float, cut_m: float) -> Ends:
    """The tilt at which a stem cut at a height first meets the ground, all the way round."""
    if not site.spots and site.slope_deg == 0 and not any(o.height_m > 0 for o in site.obstacles):
        length = height_m - cut_m
        return level_ends(float(np.pi / 2 + np.arcsin(min(cut_m / length, 1.0))))
    bearings = np.arange(BEARINGS) * (360.0 / BEARINGS)
    tilts = first_touches(profiles_on(site, at, bearings.tolist(), height_m), cut_m, height_m - cut_m)[0]
    return Ends(np.radians(np.minimum(tilts, 150.0)))


def ends_for(case: Case) -> Ends:
    """The same for a case's own tree, place and cut."""
    return ends_of(case.site, case.at, case.tree.height_m, case.cut.height_m)


@dataclass(frozen=True, slots=True, eq=False)
class Catches:
    """Neighbours that a tree meets on its way down, by bearing.

    Attributes:
        bearings_deg: even steps across the lay, shape (b,).
        use: the largest share of the energy gained that one takes; infinite where stem strikes stem, shape (b,).
        tilt_rad: tilt at which that one is met, shape (b,).
        which: its index among the obstacles, -1 where none is met, shape (b,).
    """

    bearings_deg: Array
    use: Array
    tilt_rad: Array
    which: NDArray[np.intp]

    def at(self, bearing_deg: Array) -> NDArray[np.intp]:
        """Row for each bearing; the last one at either side for those beyond."""
        first = self.bearings_deg[0]
        away = half_turn_deg(bearing_deg - first - CATCH_REACH_DEG) + CATCH_REACH_DEG
        row = np.rint(away / CATCH_EVERY_DEG).astype(np.intp)
        found: NDArray[np.intp] = np.clip(row, 0, len(self.bearings_deg) - 1)
        return found


def catches_round(
    site: Site, at: Place, footprint: Footprint, lay_deg: float, faller: Faller, stops_J_m2: float
) -> Catches:
    """The neighbour that takes most, on every bearing within reach of the lay."""
    steps = np.arange(-CATCH_REACH_DEG, CATCH_REACH_DEG + CATCH_EVERY_DEG / 2, CATCH_EVERY_DEG)
    use, tilt, which = np.zeros(len(steps)), np.full(len(steps), np.pi), np.full(len(steps), -1)
    caught_on = catches_by_bearing(site, at, footprint, lay_deg + steps, faller.each(len(steps)), stops_J_m2)
    for row, caught in enumerate(caught_on):
        for catch in caught:
            taken = np.inf if catch.on_stem else catch.use
            if taken > use[row]:
                use[row], tilt[row], which[row] = taken, np.radians(catch.tilt_deg), catch.index
    return Catches(lay_deg + steps, use, tilt, which)


@kept("obstacles all round", 16)
def reach_round(site: Site, at: Place, footprint: Footprint, every_deg: float = 1.0) -> Array:
    """Length of tree that just reaches each obstacle, by bearing; infinite where it lies beside; shape (b, k).

    The footprint's own width is the tree's alone: how far off its lay it may come is what the samples say.
    """
    bearings = np.arange(0.0, 360.0, every_deg)
    found = np.full((len(bearings), len(site.obstacles)), np.inf)
    points = sampled(site, at)
    if len(points.owner):
        # Samples of one obstacle follow one another.
        starts = np.nonzero(np.diff(points.owner, prepend=-1))[0]
        along = _along(points, footprint, bearings)
        found[:, points.owner[starts]] = np.minimum.reduceat(along, starts, axis=1)
    found[:, list(points.inside)] = 0.0
    return found


def _along(points: Sampled, footprint: Footprint, bearings_deg: Array) -> Array:
    """How far along each bearing every sample begins to lie under the tree; infinite where it does not, (b, k)."""
    along, aside = along_and_aside(points, bearings_deg)
    under = (aside - points.half_m <= footprint.half_width_m(along)) & (along + points.half_m > 0)
    found: Array = np.where(under, np.maximum(along - points.half_m, 0.0), np.inf)
    return found
