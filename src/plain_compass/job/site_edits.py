"""Changes to the site plan: obstacles dropped, given corners, removed."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from ..core.base.errors import InputError
from ..core.base.paths import with_value
from ..core.site.ground import ground_of
from ..core.site.site import USUAL, Obstacle, Place, SpotHeight
from .document import Job
from .language import tr

MOST_OBSTACLES = 200
"""More cannot be told apart on the plan."""
MOST_SPOTS = 200
"""More cannot be told apart on the plan."""


def add_obstacle(job: Job, kind: str, at: Place) -> Job:
    """One more obstacle, begun as its kind usually is: a spot there, a line or an area round there."""
    if len(job.site.obstacles) >= MOST_OBSTACLES:
        raise InputError("site.obstacles", len(job.site.obstacles) + 1, kind="count", low=0, high=MOST_OBSTACLES)
    cost, shape, radius, height = USUAL[kind]
    offsets = {"spot": [(0, 0)], "line": [(-5, 0), (5, 0)], "area": [(-2, -2), (2, -2), (2, 2), (-2, 2)]}[shape]
    points = tuple(Place(round(at.east_m + e, 1), round(at.north_m + n, 1)) for e, n in offsets)
    made = Obstacle(kind=kind, cost=cost, shape=shape, points=points, radius_m=radius, height_m=height)
    check_clear_of(made, job)
    return with_value(job, "site.obstacles", (*job.site.obstacles, made))


def check_clear_of(obstacle: Obstacle, job: Job) -> None:
    """Raise InputError when a spot lies on a tree of the job: nothing stands where a stem does."""
    if obstacle.shape != "spot":
        return
    place = obstacle.points[0]
    for plan in job.trees:
        away = math.hypot(place.east_m - plan.at.east_m, place.north_m - plan.at.north_m)
        if away < plan.tree.trunk.diameter_m / 2:
            raise InputError(
                "site.obstacles", round(away, 2), reason=tr("it would lie on the stem of {id}", id=plan.id)
            )


def move_obstacle(job: Job, index: int, east_m: float, north_m: float) -> Job:
    """One obstacle shifted as a whole, every corner by the same."""
    there = job.site.obstacles[index]
    points = tuple(
        replace(each, east_m=round(each.east_m + east_m, 3), north_m=round(each.north_m + north_m, 3))
        for each in there.points
    )
    moved = replace(there, points=points)
    check_clear_of(moved, job)
    return with_value(job, f"site.obstacles.{index}", moved)


def remove_obstacle(job: Job, index: int) -> Job:
    """One obstacle less."""
    there = job.site.obstacles
    return with_value(job, "site.obstacles", there[:index] + there[index + 1 :])


def add_spot(job: Job, at: Place) -> Job:
    """One more spot height, as high as the ground is thought to be there: nothing moves until it is typed."""
    if len(job.site.spots) >= MOST_SPOTS:
        raise InputError("site.spots", len(job.site.spots) + 1, kind="count", low=0, high=MOST_SPOTS)
    here = ground_of(job.site).height_at_m(np.array([at.east_m]), np.array([at.north_m]))
    made = SpotHeight(round(at.east_m, 1), round(at.north_m, 1), round(float(here[0]), 2))
    return with_value(job, "site.spots", (*job.site.spots, made))


def remove_spot(job: Job, index: int) -> Job:
    """One spot height less."""
    there = job.site.spots
    return with_value(job, "site.spots", there[:index] + there[index + 1 :])


def add_corner(job: Job, index: int) -> Job:
    """One more corner in the longest side of a line or area. Raises InputError for a spot."""
    obstacle = job.site.obstacles[index]
    if obstacle.shape == "spot":
        raise InputError("site.obstacles", obstacle.shape, reason=tr("a spot has no corners"))
    points = obstacle.points
    last = len(points) if obstacle.shape == "area" else len(points) - 1

    def length(i: int) -> float:
        one, other = points[i], points[(i + 1) % len(points)]
        return math.hypot(other.east_m - one.east_m, other.north_m - one.north_m)

    longest = max(range(last), key=length)
    one, other = points[longest], points[(longest + 1) % len(points)]
    middle = Place((one.east_m + other.east_m) / 2, (one.north_m + other.north_m) / 2)
    changed = replace(obstacle, points=(*points[: longest + 1], middle, *points[longest + 1 :]))
    return with_value(job, f"site.obstacles.{index}", changed)
