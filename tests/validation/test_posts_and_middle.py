"""Posts on the spurs of a butt, and a hinge left thick in its middle: exact shapes against closed forms."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from builders import case, round_tree, told
from plain_compass.core.advice.faults import FAULTS, play
from plain_compass.core.assess import Assessment, assess
from plain_compass.core.base.paths import with_value
from plain_compass.core.base.polygon import contains, moments
from plain_compass.core.cuts import form_of
from plain_compass.core.cuts.posts import Posts, posts_on
from plain_compass.core.cuts.stages import kept_outlines, stages_of, states_at
from plain_compass.core.tree.butt import Lobe

DIAGONAL = (45.0, 135.0, 225.0, 315.0)


def on_spurs(*bearings: float, lay: float = 0.0, out: float = 0.08, **tree: object) -> Assessment:
    lobes = tuple(Lobe(bearing, out, 0.25, 0.8) for bearing in bearings)
    whole = case(round_tree(lobes=lobes, lean__angle_deg=3.0, lean__bearing_deg=lay, **tree))
    whole = replace(whole, cut=replace(whole.cut, lay_deg=lay))
    cut = form_of("back", "posts").design(whole)
    return assess(replace(whole, cut=replace(cut, read="back:posts")))


def posts_of(result: Assessment) -> Posts:
    return posts_on(result.parts.section, result.parts.face, result.case.cut.back)


# Posts -----------------------------------------------------------------------------------------------------


def test_every_post_stands_on_a_spur_and_holds_its_tip() -> None:
    result = on_spurs(*DIAGONAL)
    standing = stages_of(result)[-2]
    outlines = kept_outlines(result.parts.section, standing.kept)
    assert len(result.parts.section.spurs) == 4 and posts_of(result).on_spurs
    for tip in result.parts.section.spurs:
        inside = tip * 0.97
        assert sum(bool(contains(outline, inside[None])[0]) for outline in outlines) == 1


def test_front_posts_are_the_foremost_spurs_on_either_side_wherever_the_lay_points() -> None:
    one = posts_of(on_spurs(*DIAGONAL))
    turned = posts_of(on_spurs(*((b + 70.0) % 360 for b in DIAGONAL), lay=70.0))
    assert np.allclose(one.front, turned.front, atol=2e-3)
    assert one.line[1] == pytest.approx(0.0, abs=0.02)


def test_of_several_spurs_the_foremost_carry_the_hinge_and_the_rearmost_the_rest() -> None:
    posts = posts_of(on_spurs(35.0, 80.0, 145.0, 215.0, 280.0, 325.0, out=0.03))
    four = posts_of(on_spurs(35.0, 145.0, 215.0, 325.0, out=0.03))
    assert np.allclose(posts.front, four.front, atol=0.03) and np.allclose(posts.rear, four.rear, atol=0.03)


def test_mirrored_spurs_give_mirrored_posts() -> None:
    one, other = posts_of(on_spurs(40.0, 130.0, 240.0, 310.0)), posts_of(on_spurs(320.0, 230.0, 120.0, 50.0))
    assert one.line[1] == pytest.approx(-other.line[1], abs=0.02)
    for (low, high, at), (other_low, other_high, other_at) in zip(one.front, reversed(other.front), strict=True):
        assert (low, high, at) == pytest.approx((-other_high, -other_low, other_at), abs=5e-3)


def test_spurs_askew_to_the_lay_fold_the_tree_off_it_and_the_form_names_the_bearing() -> None:
    result = on_spurs(30.0, 120.0, 240.0, 300.0)
    off = posts_of(result).off_square_deg
    fit = form_of("back", "posts").fits(result)
    assert abs(off) > 10 and fit.level == "poor"
    wanted = (0.0 + off) % 360
    assert f"to {wanted:.0f} degrees" in told(fit.why)
    straightened = with_value(result.case, "cut.lay_deg", wanted)
    assert abs(posts_of(assess(straightened)).off_square_deg) < 0.4 * abs(off)


def test_without_a_spur_on_either_side_ahead_posts_are_refused() -> None:
    result = on_spurs(10.0, 100.0, 190.0)
    fit = form_of("back", "posts").fits(result)
    assert fit.level == "refused" and "between two spurs" in told(fit.why)


@settings(max_examples=20)
@given(st.floats(-12.0, 12.0), st.floats(0.05, 0.12))
def test_front_posts_are_what_the_hinge_is_reckoned_from(turn: float, post: float) -> None:
    result = on_spurs(*(b + turn for b in DIAGONAL))
    result = assess(with_value(result.case, "cut.back.strap_m", post))
    hinge = result.parts.hinge
    assert len(hinge.spans) == 2
    slope = posts_of(result).line[1]
    # Two parallelograms, each at least as wide as the post: area is thickness times width.
    lefts = [min(high, hinge.left_m) - max(low, hinge.right_m) for low, high in hinge.spans]
    thick = result.case.cut.hinge.left_m
    assert hinge.region.area_m2 == pytest.approx(thick * sum(lefts), rel=0.12)
    assert math.degrees(math.atan(slope)) == pytest.approx(posts_of(result).off_square_deg)


# Thick in the middle ---------------------------------------------------------------------------------------


def bulged(middle_m: float) -> Assessment:
    whole = case(round_tree())
    return assess(with_value(whole, "cut.hinge.middle_m", middle_m))


def test_a_bulge_adds_a_triangle_of_wood_and_leaves_the_ends_as_they_are() -> None:
    plain, thick = bulged(0.0), bulged(0.03)
    length = plain.parts.face.hinge_length_m
    added = thick.parts.hinge.region.area_m2 - plain.parts.hinge.region.area_m2
    assert added == pytest.approx(length * 0.03 / 2, rel=0.03)
    assert thick.parts.hinge.region.left_m == pytest.approx(plain.parts.hinge.region.left_m, abs=1e-6)


def test_a_bulge_stiffens_the_fold_by_its_own_thickness_and_hardly_helps_the_side() -> None:
    plain, thick = bulged(0.0), bulged(0.03)
    t, length = plain.case.cut.hinge.left_m, plain.parts.face.hinge_length_m
    # Integral of (t + 0.03 (1 - |x|))^2 over the length, against t^2.
    wanted = (t * t + t * 0.03 + 0.03**2 / 3) / (t * t)
    found = thick.parts.strength.peak_Nm / plain.parts.strength.peak_Nm
    assert found == pytest.approx(wanted, rel=0.04)
    side = thick.parts.strength.side_capacity_Nm / plain.parts.strength.side_capacity_Nm
    assert side - 1 < 0.5 * (found - 1)
    assert thick.parts.strength.break_angle_deg < plain.parts.strength.break_angle_deg
    assert length > 0


@pytest.mark.parametrize("back", ["plain", "bored", "quarter", "sides", "corner", "vees"])
def test_cutting_to_a_bulged_hinge_never_adds_wood_and_ends_on_it_exactly(back: str) -> None:
    whole = case(round_tree(lean__angle_deg=3.0, lean__bearing_deg=0.0))
    cut = form_of("back", back).design(with_value(whole, "cut.hinge.middle_m", 0.02))
    result = assess(replace(whole, cut=cut))
    for stage in stages_of(result)[1:]:
        assert stage.step is not None
        areas = states_at(result, [stage.step.kept(s) for s in np.linspace(0, 1, 15).tolist()]).uncut_area_m2
        assert (np.diff(areas) <= 1e-6).all()
    last = kept_outlines(result.parts.section, stages_of(result)[-1].kept)
    assert sum(moments(o).area_m2 for o in last) == pytest.approx(result.parts.hinge.region.area_m2, rel=1e-6)


def test_the_mistake_played_in_is_a_bulge_and_not_a_thicker_hinge() -> None:
    result = bulged(0.0)
    played = play(result, next(fault for fault in FAULTS if fault.key == "thick-middle")).result
    assert played is not None
    assert played.case.cut.hinge.left_m == result.case.cut.hinge.left_m
    assert played.case.cut.hinge.middle_m == pytest.approx(result.case.cut.hinge.left_m / 2)
