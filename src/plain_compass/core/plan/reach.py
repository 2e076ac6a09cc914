"""What a planned tree could reach: what it covers, what it meets, what a miss would hit, where to stand."""

from __future__ import annotations

from dataclasses import replace
from typing import NamedTuple

import numpy as np

from ..base.frames import full_turn_deg
from ..base.kept import kept
from ..base.rows import Array, Mask, N
from ..mechanics.mass import Mass
from ..site.hang_up import Catch, Faller, catches_by_bearing, catches_on
from ..site.landing import Footprint, footprint_of, hits_by_bearing, sampled
from ..site.site import KINDS, Obstacle, Place, Site
from ..site.standing import Side, sides
from .case import Case, Standing

MISSES_DEG = np.arange(-60.0, 61.0, 15.0)
"""Bearings, off straight back, on which a tree that sits back may fall."""


DEAR = ("never", "matters")
"""Costs at which a miss would cost something."""


def called(obstacle: Obstacle) -> str:
    """What a person calls an obstacle."""
    return obstacle.name or KINDS[obstacle.kind]


def lying(case: Case) -> Footprint:
    """What the tree of a case covers when it lies."""
    return footprint_of(case.tree, case.cut.height_m, case.practice.tolerance_deg)


def tree_alone(case: Case) -> Footprint:
    """The same without what it may miss its lay by: for falls that each have a bearing of their own."""
    return replace(lying(case), spread_deg=0.0)


def faller_of(case: Case, mass: Mass[N]) -> Faller[N]:
    """What comes down in a case."""
    return Faller(mass.weight_N, mass.com_up_m, mass.com_forward_m, case.cut.height_m, case.wood.group == "conifer")


def caught(case: Case, mass: Mass) -> tuple[Catch, ...]:
    """Neighbours that the tree of a case meets on its way down, the earliest met first."""
    stops = case.constants.crown_stops_J_m2
    return catches_on(case.site, case.at, lying(case), case.cut.lay_deg, faller_of(case, mass), stops)


def caught_by_bearing(case: Case, mass: Mass[Array], lays_deg: Array) -> tuple[tuple[Catch, ...], ...]:
    """The same on several lays, the tree standing on each as it is weighed there, shapes (B,)."""
    stops = case.constants.crown_stops_J_m2
    return catches_by_bearing(case.site, case.at, lying(case), lays_deg, faller_of(case, mass), stops)


class Meets(NamedTuple):
    """Indices of the obstacles under the tree on a lay, and of those a tree that sits back would reach."""

    targets: tuple[int, ...]
    missed: tuple[int, ...]


def meets_by_bearing(case: Case, lays_deg: Array) -> tuple[Meets, ...]:
    """What the tree would meet on several lays, all in one pass; see ``behind``."""
    return _meets(case.site, case.at, lying(case), lays_deg)


def _meets(site: Site, at: Place, footprint: Footprint, lays_deg: Array) -> tuple[Meets, ...]:
    wanted = full_turn_deg(lays_deg[:, None] + np.concatenate([[0.0], 180.0 + MISSES_DEG]))
    # Not by np.unique, for whose sake NumPy imports its masked arrays: a thirtieth of a start.
    bearings = np.array(sorted(set(wanted.ravel().tolist())))
    place = np.searchsorted(bearings, wanted)
    table = hits_by_bearing(sampled(site, at), footprint, bearings, len(site.obstacles))
    under, missed = table[place[:, 0]], np.any(table[place[:, 1:]], axis=1)
    return tuple(Meets(_indices(one), _indices(other)) for one, other in zip(under, missed, strict=True))


@kept("what a miss would reach", 512)
def _behind(site: Site, at: Place, footprint: Footprint, lay_deg: float) -> tuple[int, ...]:
    return _meets(site, at, footprint, np.array([lay_deg]))[0].missed


def _indices(met: Mask) -> tuple[int, ...]:
    return tuple(np.nonzero(met)[0].tolist())


def behind(case: Case, lay_deg: float) -> tuple[int, ...]:
    """Obstacles that a tree that sits back instead of going would reach, within sixty degrees of straight back."""
    return _behind(case.site, case.at, lying(case), lay_deg)


def in_reach(case: Case) -> str:
    """What a tree could hit on any bearing that matters or must never be hit; empty where there is nothing."""
    return _in_reach(case.site, case.at, lying(case))


@kept("what a miss would reach", 64)
def _in_reach(site: Site, at: Place, footprint: Footprint) -> str:
    bearings = np.arange(0.0, 360.0, 10.0)
    table = hits_by_bearing(sampled(site, at), footprint, bearings, len(site.obstacles))
    reached = np.any(table, axis=0).reshape(-1).tolist()
    dear = [o for o, hit in zip(site.obstacles, reached, strict=True) if hit and o.cost in DEAR]
    return called(dear[0]) if dear else ""


def better_side(case: Case, parts: Standing) -> tuple[Side, Side]:
    """Both sides of the stump, the better one to stand on for the back cut first."""
    return sides(case.site, case.at, case.cut.lay_deg, parts.balance.left_m, case.cut.ways)
