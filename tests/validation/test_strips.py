"""Exact strips and thicknesses against general-purpose polygon geometry, and one case against many."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import LineString, Polygon, box

from builders import round_tree, sections_alone
from plain_compass.core.base.edges import Line, breadth_m, ends_m
from plain_compass.core.base.strips import Integrals, ahead, bands, strip
from plain_compass.core.base.thickness import between, even_lines, thickness_at_m
from plain_compass.core.tree.butt import Lobe
from plain_compass.core.tree.sections import Place, Sections, sections_of
from plain_compass.core.tree.tree import Decay, Tree

LOBES = tuple(Lobe(bearing_deg=b, projection_m=0.08, width_m=0.25, top_m=1.2) for b in (10.0, 130.0, 250.0))
TREES = {
    "round": round_tree(),
    "oval": round_tree(trunk__cross_diameter_m=0.3),
    "rotten": round_tree(decay=Decay(kind="cavity", offset_m=0.04, bearing_deg=200.0, radius_m=0.08)),
    "open to the bark": round_tree(decay=Decay(kind="cavity", offset_m=0.15, bearing_deg=200.0, radius_m=0.08)),
    "lobed": round_tree(lobes=LOBES),
    "lobed and rotten": round_tree(lobes=LOBES, decay=Decay(kind="cavity", offset_m=0.03, radius_m=0.07)),
}
KINDS = st.sampled_from(sorted(TREES))
BEARINGS = st.floats(0.0, 360.0)
LEVEL = st.integers(-220_000, 220_000).map(lambda micrometres: micrometres * 1e-6)
"""To a micrometre: general-purpose geometry stumbles over numbers that are next to nothing but not nothing."""
LEVELS = st.tuples(LEVEL, LEVEL).map(sorted)
FAR = 9.0


def solid(sections: Sections) -> Polygon:
    """The sound wood of one section, x to the left and y along the lay."""
    section = sections.section(0)
    wood = Polygon(section.wood[:, ::-1])
    return wood.difference(Polygon(section.rot[:, ::-1])) if len(section.rot) else wood


def at(value: float) -> np.ndarray:
    return np.array([value])


@given(kind=KINDS, lay=BEARINGS, levels=LEVELS)
def test_a_strip_is_the_polygon_between_two_lines(kind: str, lay: float, levels: list[float]) -> None:
    one = sections_alone(TREES[kind], lay_deg=lay)
    low, high = levels
    whole = solid(one)
    cut = whole.intersection(box(-FAR, low, FAR, high))
    found = strip(one.edges, at(low), at(high), Integrals)
    assert found.one[0] == pytest.approx(cut.area, abs=1e-11 * whole.area)
    if cut.area > 1e-6:
        assert found.left_m[0] == pytest.approx(cut.centroid.x, abs=1e-9)
        assert found.forward_m[0] == pytest.approx(cut.centroid.y, abs=1e-9)


@given(kind=KINDS, lay=BEARINGS, level=LEVEL, slope=LEVEL)
def test_what_lies_ahead_of_a_sloped_line_is_the_polygon_ahead_of_it(
    kind: str, lay: float, level: float, slope: float
) -> None:
    one = sections_alone(TREES[kind], lay_deg=lay)
    whole = solid(one)
    sides = [(-FAR, level - FAR * slope), (FAR, level + FAR * slope), (FAR, 99.0), (-FAR, 99.0)]
    cut = whole.intersection(Polygon(sides))
    found = ahead(one.edges, at(level), at(slope))
    assert found.one[0] == pytest.approx(cut.area, abs=1e-11)
    if cut.area > 1e-6:
        assert found.forward_m[0] == pytest.approx(cut.centroid.y, abs=1e-9)


@given(kind=KINDS, lay=BEARINGS, levels=LEVELS, sides=LEVELS)
def test_a_stretch_across_the_lay_cuts_the_strip_off_at_both_ends(
    kind: str, lay: float, levels: list[float], sides: list[float]
) -> None:
    one = sections_alone(TREES[kind], lay_deg=lay)
    cut = solid(one).intersection(box(sides[0], levels[0], sides[1], levels[1]))
    found = strip(one.edges.within(at(sides[0]), at(sides[1])), at(levels[0]), at(levels[1]), Integrals)
    assert found.one[0] == pytest.approx(cut.area, abs=1e-11)


@given(kind=KINDS, lay=BEARINGS, levels=st.lists(st.floats(-0.3, 0.3), min_size=3, max_size=9).map(sorted))
def test_bands_add_up_to_the_strip_they_make(kind: str, lay: float, levels: list[float]) -> None:
    one = sections_alone(TREES[kind], lay_deg=lay)
    parts = bands(one.edges, np.array([levels]), Integrals)
    whole = strip(one.edges, at(levels[0]), at(levels[-1]), Integrals)
    for name in ("one", "u", "v", "uu", "vv", "uv"):
        assert getattr(parts, name).sum() == pytest.approx(getattr(whole, name)[0], abs=1e-14)


@given(kind=KINDS, lay=BEARINGS, level=LEVEL)
def test_a_breadth_is_the_line_inside_the_wood(kind: str, lay: float, level: float) -> None:
    one = sections_alone(TREES[kind], lay_deg=lay)
    line = LineString([(-FAR, level), (FAR, level)])
    assert breadth_m(one.edges, at(level))[0] == pytest.approx(solid(one).intersection(line).length, abs=1e-9)
    left, right = ends_m(one.wood, at(level))
    wood = Polygon(one.section(0).wood[:, ::-1]).intersection(line)
    if wood.length > 1e-9:
        assert (right[0], left[0]) == pytest.approx((wood.bounds[0], wood.bounds[2]), abs=1e-9)


def thick(whole: Polygon, u: float, low: float, high: float) -> float:
    return float(whole.intersection(LineString([(u, min(low, high)), (u, high)])).length) if high > low else 0.0


@settings(max_examples=25)
@given(kind=KINDS, lay=BEARINGS, levels=LEVELS, slope=LEVEL, sides=LEVELS)
def test_the_thickness_squared_between_two_lines_is_that_of_many_thin_lines(
    kind: str, lay: float, levels: list[float], slope: float, sides: list[float]
) -> None:
    one, (low, high), (right, left) = sections_alone(TREES[kind], lay_deg=lay), levels, sides
    # A rear line that crosses the front one has no hinge beyond: the stretch ends there.
    if slope:
        crosses = (high - low) / slope
        right, left = (right, min(left, crosses)) if slope > 0 else (max(right, crosses), left)
    if left - right < 1e-3 or high - low < 1e-3:
        return
    found = between(one.edges, Line(at(low), at(slope)), Line(at(high), at(0.0)), at(right), at(left))
    whole = solid(one)
    width = (left - right) / 400
    lines = [right + width * (i + 0.5) for i in range(400)]
    thicknesses = [thick(whole, u, low + slope * u, high) for u in lines]
    assert found.square_m3[0] == pytest.approx(sum(t * t for t in thicknesses) * width, rel=2e-3, abs=2e-7)
    solid_lines = [u for u, t in zip(lines, thicknesses, strict=True) if t > 1e-6]
    if solid_lines:
        assert found.left_m[0] == pytest.approx(max(solid_lines), abs=1.01 * width)
        assert found.right_m[0] == pytest.approx(min(solid_lines), abs=1.01 * width)


@given(kind=KINDS, lay=BEARINGS, u=LEVEL, levels=LEVELS)
def test_a_line_through_the_wood_is_as_long_as_it_is(kind: str, lay: float, u: float, levels: list[float]) -> None:
    one = sections_alone(TREES[kind], lay_deg=lay)
    low, high = levels
    found = thickness_at_m(one.edges, np.array([[u]]), np.array([[low]]), np.array([[high]]))
    assert found[0, 0] == pytest.approx(thick(solid(one), u, low, high), abs=1e-9)


@given(kind=KINDS, lay=BEARINGS)
def test_even_lines_carry_the_area_between_them(kind: str, lay: float) -> None:
    one = sections_alone(TREES[kind], lay_deg=lay)
    lines = even_lines(one.edges)
    through = (lines.ends_m - lines.begins_m).sum(axis=0)
    assert (through * lines.width_m).sum() == pytest.approx(solid(one).area, rel=8e-4)


@given(kind=KINDS, lay=BEARINGS, levels=LEVELS)
def test_squares_on_even_lines_are_near_those_between_two_lines(kind: str, lay: float, levels: list[float]) -> None:
    one = sections_alone(TREES[kind], lay_deg=lay)
    low, high = (np.array([level]) for level in levels)
    level, wide = np.zeros(1), np.array([FAR])
    exact = between(one.edges, Line(low, level), Line(high, level), -wide, wide).square_m3[0]
    found = even_lines(one.edges).squares_m3(np.array([[*low, *low]]), high)
    assert found[0] == pytest.approx(exact, rel=0.01, abs=1e-5 * solid(one).area)


@given(st.lists(st.tuples(KINDS, BEARINGS), min_size=2, max_size=8), LEVELS)
def test_many_sections_are_each_of_them_alone(asked: list[tuple[str, float]], levels: list[float]) -> None:
    """Turned from one outline, stacked with others of unlike length, or by itself: the same section."""
    places = [Place(TREES[kind], 0.3, lay, 1.0) for kind, lay in asked]
    many = sections_of(places)
    low, high = np.full(len(many), levels[0]), np.full(len(many), levels[1])
    together = strip(many.edges, low, high, Integrals)
    for row, place in enumerate(places):
        alone = sections_of([place])
        one = strip(alone.edges, low[:1], high[:1], Integrals)
        assert together.one[row] == pytest.approx(one.one[0], abs=1e-14)
        assert together.vv[row] == pytest.approx(one.vv[0], abs=1e-14)
        assert many.front_m[row] == pytest.approx(alone.front_m[0], abs=1e-12)
        assert many.sound.second_side_m4[row] == pytest.approx(alone.sound.second_side_m4[0], rel=1e-9)


def test_trees_of_the_check_are_what_their_names_say() -> None:
    rotten = {kind for kind, tree in TREES.items() if sections_alone(tree).rotten[0]}
    assert rotten == {"rotten", "open to the bark", "lobed and rotten"}
    assert all(isinstance(tree, Tree) for tree in TREES.values())
