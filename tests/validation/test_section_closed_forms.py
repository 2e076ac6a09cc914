"""Sections against textbook closed forms: circle, ellipse, ring, segment (any table of plane areas)."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import plain_cut, round_tree, section, sections_alone
from plain_compass.core.base.polygon import _crossed, ahead_of, behind, clip, intervals, moments, overlap
from plain_compass.core.base.rows import row
from plain_compass.core.design.designs import designs_of
from plain_compass.core.mechanics.face import FaceGeometry, faces_on
from plain_compass.core.tree.butt import Lobe
from plain_compass.core.tree.section import section_at, sound_powers
from plain_compass.core.tree.tree import Decay, ShellReading

NEAR = 2e-4


def test_a_solid_round_stem_has_the_area_and_second_moment_of_a_circle() -> None:
    found = section(round_tree())
    assert found.sound_moments.area_m2 == pytest.approx(math.pi * 0.40**2 / 4, rel=NEAR)
    assert found.sound_moments.second_fall_m4 == pytest.approx(math.pi * 0.40**4 / 64, rel=NEAR)
    assert found.sound_moments.second_side_m4 == pytest.approx(math.pi * 0.40**4 / 64, rel=NEAR)
    assert found.sound_moments.product_m4 == pytest.approx(0.0, abs=1e-9)


def test_bark_is_taken_off_all_round() -> None:
    found = section(round_tree(trunk__bark_m=0.015))
    assert found.wood_moments.area_m2 == pytest.approx(math.pi * 0.185**2, rel=NEAR)
    assert found.depth_m == pytest.approx(0.37, rel=NEAR)


def test_a_central_cavity_leaves_a_ring() -> None:
    found = section(round_tree(decay=Decay(kind="cavity", radius_m=0.10)))
    assert found.sound_moments.area_m2 == pytest.approx(math.pi * (0.2**2 - 0.1**2), rel=1e-3)
    assert found.sound_moments.second_fall_m4 == pytest.approx(math.pi / 4 * (0.2**4 - 0.1**4), rel=1e-3)
    assert found.shell_ratio == pytest.approx(0.5, abs=1e-3)
    assert found.sound_fraction == pytest.approx(0.75, abs=1e-3)


def test_an_even_shell_is_the_same_ring() -> None:
    ring = section(round_tree(decay=Decay(kind="cavity", radius_m=0.12)))
    shell = section(round_tree(decay=Decay(kind="shell", shell=(ShellReading(0.0, 0.08),))))
    assert shell.sound_moments.area_m2 == pytest.approx(ring.sound_moments.area_m2, rel=1e-3)
    assert shell.shell_ratio == pytest.approx(0.4, abs=1e-3)


def test_the_shell_ratio_of_a_cavity_off_the_pith_is_its_thinnest_side() -> None:
    found = section(round_tree(decay=Decay(kind="cavity", offset_m=0.05, bearing_deg=90.0, radius_m=0.10)))
    assert found.shell_ratio == pytest.approx((0.2 - 0.15) / 0.2, abs=1e-3)


def test_a_cavity_open_to_the_bark_is_cut_off_there() -> None:
    found = section(round_tree(decay=Decay(kind="cavity", offset_m=0.15, radius_m=0.10)))
    assert found.shell_ratio == pytest.approx(0.0, abs=2e-3)
    removed = found.wood_moments.area_m2 - found.sound_moments.area_m2
    assert 0.5 * math.pi * 0.1**2 < removed < math.pi * 0.1**2


def test_two_diameters_make_an_ellipse_turned_with_its_bearing() -> None:
    tree = round_tree(trunk__cross_diameter_m=0.30, trunk__diameter_bearing_deg=90.0)
    along, across = section(tree, lay_deg=90.0), section(tree, lay_deg=0.0)
    assert along.depth_m == pytest.approx(0.40, rel=NEAR)
    assert across.depth_m == pytest.approx(0.30, rel=NEAR)
    assert along.sound_moments.second_fall_m4 == pytest.approx(math.pi / 64 * 0.40**3 * 0.30, rel=NEAR)
    assert along.sound_moments.area_m2 == pytest.approx(math.pi / 4 * 0.40 * 0.30, rel=NEAR)


def face_of(depth_m: float) -> FaceGeometry:
    found: FaceGeometry = row(faces_on(sections_alone(), designs_of([plain_cut(face__depth_m=depth_m)]), 0.008), 0)
    return found


@pytest.mark.parametrize("share", [0.1, 0.2, 0.25, 0.33, 0.45])
def test_the_hinge_length_is_the_chord_at_the_face_depth(share: float) -> None:
    depth = share * 0.40
    found = face_of(depth)
    assert found.hinge_length_m == pytest.approx(2 * math.sqrt(depth * (0.40 - depth)), rel=2 * NEAR)


def test_a_face_a_fifth_deep_leaves_a_hinge_four_fifths_of_the_diameter_long() -> None:
    found = face_of(0.2 * 0.40)
    assert found.depth_ratio == pytest.approx(0.2, rel=NEAR)
    assert found.hinge_length_m / 0.40 == pytest.approx(0.8, rel=NEAR)


@given(line=st.floats(-0.19, 0.19))
def test_a_clipped_circle_has_the_area_of_a_segment(line: float) -> None:
    radius = 0.2
    angle = 2 * math.acos(line / radius)
    segment = radius**2 / 2 * (angle - math.sin(angle))
    assert moments(ahead_of(section(round_tree()).wood, line)).area_m2 == pytest.approx(segment, abs=3e-5)


@given(line=st.floats(-0.19, 0.19))
def test_both_sides_of_a_line_make_the_whole(line: float) -> None:
    wood = section(round_tree()).wood
    front, back, whole = moments(ahead_of(wood, line)), moments(behind(wood, line)), moments(wood)
    assert front.area_m2 + back.area_m2 == pytest.approx(whole.area_m2, rel=1e-9)
    first = front.area_m2 * front.forward_m + back.area_m2 * back.forward_m
    assert first == pytest.approx(whole.area_m2 * whole.forward_m, abs=1e-9)


@given(rear=st.floats(-0.19, 0.18), deep=st.floats(0.005, 0.2))
def test_strips_agree_with_the_exact_polygon(rear: float, deep: float) -> None:
    """Two roads to one number: clipped polygons with Green's theorem, and slices along the lay."""
    found = section(round_tree(decay=Decay(kind="cavity", offset_m=0.03, bearing_deg=200.0, radius_m=0.06)))
    front = min(rear + deep, 0.2)
    lefts = found.strips.left_m
    zero, first, second = sound_powers(found.strips, np.full_like(lefts, rear), np.full_like(lefts, front))
    exact = moments(ahead_of(behind(found.wood, front), rear), ahead_of(behind(found.rot, front), rear))
    width = found.strips.width_m
    assert zero.sum() * width == pytest.approx(exact.area_m2, rel=5e-3, abs=2e-5)
    assert first.sum() * width == pytest.approx(exact.area_m2 * exact.forward_m, rel=5e-3, abs=1e-5)
    about_pith = exact.second_fall_m4 + exact.area_m2 * exact.forward_m**2
    assert second.sum() * width == pytest.approx(about_pith, rel=6e-3, abs=1e-6)


def test_clipping_a_polygon_that_is_not_convex_keeps_its_area_exact() -> None:
    bent = np.array([[0.0, 0.0], [4.0, 0.0], [4.0, 4.0], [2.0, 1.0], [0.0, 4.0]])
    kept = moments(clip(bent, 0.0, 1.0, 2.0)).area_m2
    above = 2 * 0.5 * 2.0 * (4.0 / 3.0)
    assert moments(bent).area_m2 - kept == pytest.approx(above)


@given(lefts=st.lists(st.floats(-0.25, 0.25), min_size=1, max_size=9))
def test_the_quick_way_of_slicing_agrees_with_crossing_every_edge(lefts: list[float]) -> None:
    wood, lines = section(round_tree(trunk__cross_diameter_m=0.3)).wood, np.array(lefts)
    assert intervals(wood, lines) == pytest.approx(_crossed(wood, lines), abs=1e-9)


def test_lines_through_a_bent_polygon_find_every_piece() -> None:
    bent = np.array([[0.0, 0.0], [4.0, 0.0], [4.0, 4.0], [2.0, 1.0], [0.0, 4.0]])
    (pieces,) = intervals(bent, np.array([2.0]))
    assert pieces.shape == (2, 2)
    assert pieces[:, 1].sum() - pieces[:, 0].sum() == pytest.approx(8.0 / 3.0)


def test_the_overlap_of_shapes_that_do_not_meet_is_empty() -> None:
    square = np.array([[0.0, 0.0], [1.0, 0.0], [1.0, 1.0], [0.0, 1.0]])
    assert len(overlap(square, square + 5.0)) == 0
    assert moments(overlap(square, square + 0.5)).area_m2 == pytest.approx(0.25)


@pytest.mark.parametrize("lay", [17.0, 90.0, 203.5, 359.0])
def test_a_turned_section_is_the_one_that_would_be_cut_out_there(lay: float) -> None:
    """Outlines and moments are those of the turned polygon, and what has no direction stays."""
    butt = round_tree(
        lobes=(Lobe(40.0, 0.06, 0.25, 1.0),),
        decay=Decay(kind="cavity", radius_m=0.08, offset_m=0.04, bearing_deg=130.0),
        trunk__cross_diameter_m=0.44,
    )
    north, turned = (section_at(butt, 0.3, each, 1.0) for each in (0.0, lay))
    found, wanted = turned.sound_moments, moments(turned.wood, turned.rot)
    for name in ("area_m2", "forward_m", "left_m", "second_fall_m4", "second_side_m4", "product_m4"):
        assert getattr(found, name) == pytest.approx(getattr(wanted, name), rel=1e-9, abs=1e-12)
    assert turned.shell_ratio == north.shell_ratio
    # The buttress stands where it stood: seen from the lay it has turned the other way.
    away = math.degrees(math.atan2(turned.spurs[0, 1], turned.spurs[0, 0]))
    assert (lay - 40.0 - away + 180.0) % 360.0 - 180.0 == pytest.approx(0.0, abs=1e-6)
