"""The job's trees as the map has them."""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import lru_cache

import numpy as np

from ....core.site.site import Place, Site
from ....core.site.ways_out import LENGTH_M, kept_away_on_m, ways_out
from ....core.tree.crown import mean_radius_m
from ....job.block import Block, Ordered, reaches
from ....job.document import Job, TreePlan
from ...drawing.block.map_painter import Drawn

ROUND_DEG = np.arange(0.0, 360.0, 10.0)
"""Bearings at which the edge of a zone is drawn."""


def _zone(job: Job, plan: TreePlan) -> tuple[tuple[float, float], ...]:
    """Within it nobody else may be: (bearing, metres) all round."""
    far_m = kept_away_on_m(job.site, plan.at, plan.tree.height_m, ROUND_DEG)
    return tuple(zip(ROUND_DEG.tolist(), far_m.tolist(), strict=True))


def all_zones(job: Job, ids: Sequence[str]) -> list[tuple[tuple[float, float], ...]]:
    """Edges of the zones of some trees together, east and north: nobody else may be within as one of them falls."""
    return _together(job.site, tuple((plan.at, plan.tree.height_m) for plan in map(job.plan, ids)))


@lru_cache(maxsize=4)
def _together(site: Site, trees: tuple[tuple[Place, float], ...]) -> list[tuple[tuple[float, float], ...]]:
    from shapely.geometry import Polygon
    from shapely.ops import unary_union

    turn, shapes = np.radians(ROUND_DEG), []
    for at, height_m in trees:
        far_m = kept_away_on_m(site, at, height_m, ROUND_DEG)
        shapes.append(Polygon(np.column_stack([at.east_m + far_m * np.sin(turn), at.north_m + far_m * np.cos(turn)])))
    whole = unary_union(shapes)
    parts = [whole] if isinstance(whole, Polygon) else [*whole.geoms]
    return [tuple(map(tuple, ring.coords)) for part in parts for ring in (part.exterior, *part.interiors)]


def _ways(job: Job, plan: TreePlan, lay_deg: float) -> tuple[tuple[float, float], ...]:
    """Where both ways out end, east and north, on the lay the order gives."""
    turns = [math.radians(way.bearing_deg) for way in ways_out(job.site, plan.at, lay_deg)]
    east_m, north_m = plan.at.east_m, plan.at.north_m
    return tuple((east_m + LENGTH_M * math.sin(turn), north_m + LENGTH_M * math.cos(turn)) for turn in turns)


def drawn_trees(job: Job, block: Block | None, found: Ordered | None, picked: str = "") -> list[Drawn]:
    """Each with the lay and number the order gives it, or its own lay and none; with what is round the picked one.

    What is felled before the picked one lies by then.
    """
    place: dict[str, tuple[int, int]] = {}
    if block is not None and found is not None:
        place = {block.trees[slot.tree].id: (number, slot.tree) for number, slot in enumerate(found.slots, 1)}
    drawn, turn = [], place.get(picked, (0, 0))[0]
    of_picked = next((plan for plan in job.trees if plan.id == picked), None)
    later = [plan.id for plan in job.trees if place.get(plan.id, (0, 0))[0] > turn > 0]
    reached = {id for id in later if of_picked is not None and reaches(job, of_picked, job.plan(id))}
    # Where it is all of them that is said in words, and no ring tells more.
    reached = set() if len(reached) == len(later) else reached
    for plan in job.trees:
        number, lay_deg, is_stop = 0, plan.cut.lay_deg, False
        if plan.id in place and block is not None and found is not None:
            number, at = place[plan.id]
            lay = block.trees[at].lays[found.plan.lays[at]]
            lay_deg, is_stop = lay.lay_deg, lay.is_stop
        drawn.append(
            Drawn(
                id=plan.id,
                east_m=plan.at.east_m,
                north_m=plan.at.north_m,
                crown_m=mean_radius_m(plan.tree.crown),
                length_m=plan.tree.height_m - plan.cut.height_m,
                lay_deg=lay_deg,
                number=number,
                state=plan.state,
                is_stop=is_stop,
                zone=_zone(job, plan) if plan.id == picked or plan.state == "hung" else (),
                ends_of_ways=_ways(job, plan, lay_deg) if plan.id == picked and number else (),
                is_before=0 < number < turn,
                is_reached=plan.id in reached,
            )
        )
    return drawn
