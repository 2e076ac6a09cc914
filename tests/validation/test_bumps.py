"""What stands under a lay, all sides against all lays at once, against the distance of each obstacle by itself."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import LineString, Point

from plain_compass.core.site.bumps import LEAST_BUMP_M, bumps_on
from plain_compass.core.site.site import Obstacle, Place, Site

Corners = list[tuple[float, float]]
CORNER = st.tuples(st.floats(-20.0, 20.0), st.floats(-20.0, 20.0))
THING = st.tuples(
    st.sampled_from(["spot", "line", "area"]),
    st.lists(CORNER, min_size=3, max_size=7),
    st.floats(0.0, 2.0),
    st.floats(0.1, 3.0),
)
ALONG = np.linspace(0.0, 15.0, 31)


def obstacle(shape: str, corners: Corners, radius_m: float, height_m: float) -> Obstacle:
    points = tuple(Place(*corner) for corner in (corners[:1] if shape == "spot" else corners))
    return Obstacle("bank", "", "none", shape, points, radius_m, height_m)


def is_inside(corners: Corners, point: Point) -> bool:
    """Whether a ray northwards crosses the closed border an odd number of times."""
    count = 0
    for (x0, y0), (x1, y1) in zip(corners, [*corners[1:], corners[0]], strict=True):
        if (x0 > point.x) != (x1 > point.x):
            count += y0 + (point.x - x0) / (x1 - x0) * (y1 - y0) > point.y
    return count % 2 == 1


def height_at(one: Obstacle, point: Point) -> float:
    corners = [(p.east_m, p.north_m) for p in one.points]
    border = Point(corners[0]) if one.shape == "spot" else LineString(corners + corners[:1] * (one.shape == "area"))
    away = border.distance(point) / max(one.radius_m, LEAST_BUMP_M)
    if one.shape == "area" and is_inside(corners, point):
        return one.height_m
    return float(one.height_m * np.sqrt(1.0 - min(away, 1.0) ** 2))


@given(st.lists(THING, min_size=1, max_size=6), st.floats(0.0, 360.0))
def test_what_stands_under_a_lay_is_as_high_as_its_distance_says(
    things: list[tuple[str, Corners, float, float]], lay: float
) -> None:
    found = [obstacle(*thing) for thing in things]
    bumps = bumps_on(Site(obstacles=tuple(found)), Place(), np.array([lay, lay + 90.0]), ALONG)
    for row, turn in enumerate(np.radians([lay, lay + 90.0])):
        for x, bump in zip(ALONG, bumps[row], strict=True):
            point = Point(x * np.sin(turn), x * np.cos(turn))
            # A ridge is steepest at its foot: a nanometre there is some tenths of a millimetre of height.
            assert bump == pytest.approx(max(height_at(one, point) for one in found), abs=1e-3)


def test_nothing_hard_is_no_bump() -> None:
    soft = Obstacle("track", "", "none", "line", (Place(-5, 5), Place(5, 5)), 1.0, 1.0)
    assert not bumps_on(Site(obstacles=(soft,)), Place(), np.array([0.0]), ALONG).any()
