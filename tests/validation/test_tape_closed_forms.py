"""Tape marks against arcs of a circle and the perimeter of an ellipse."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import assessed, plain_cut, round_tree
from plain_compass.core.assess import Assessment
from plain_compass.core.design.cut import WedgeSeat
from plain_compass.core.mechanics.tape import TapeMark, bark_tape


def mark(result: Assessment, key: str, nth: int = 0) -> TapeMark:
    return [m for m in result.tape_marks if m.key == key][nth]


@given(depth=st.floats(0.03, 0.17), bark=st.floats(0.0, 0.03))
def test_a_face_corner_lies_at_r_acos_a_over_r(depth: float, bark: float) -> None:
    """The apex lies bark plus depth in from the front: a = R - bark - depth, R over bark."""
    result = assessed(
        round_tree(trunk__bark_m=bark), plain_cut(face__depth_m=depth, hinge__left_m=0.03, hinge__right_m=0.03)
    )
    expected = 0.20 * math.acos((0.20 - bark - depth) / 0.20)
    corner = mark(result, "face_corner")
    assert corner.left_m == pytest.approx(expected, rel=2e-3, abs=2e-4)
    assert corner.right_m == pytest.approx(expected, rel=2e-3, abs=2e-4)


def test_even_hinge_backs_lie_on_one_line() -> None:
    back = mark(assessed(), "hinge_back")
    expected = 0.20 * math.acos((0.20 - 0.08 - 0.04) / 0.20)
    assert back.left_m == pytest.approx(expected, rel=1e-3)
    assert back.left_m == pytest.approx(back.right_m, rel=1e-4)


def test_the_back_centre_is_half_the_girth_from_both_sides() -> None:
    back = mark(assessed(), "back_centre")
    assert back.left_m == pytest.approx(math.pi * 0.20, rel=1e-4)
    assert back.right_m == pytest.approx(math.pi * 0.20, rel=1e-4)


def test_a_wedge_is_marked_on_its_own_side() -> None:
    result = assessed(cut=plain_cut(wedges=(WedgeSeat(30.0), WedgeSeat(-20.0), WedgeSeat(0.0))))
    left, right, middle = (mark(result, "wedge_seat", n) for n in range(3))
    assert left.right_m is None
    assert left.left_m == pytest.approx(0.20 * math.radians(150.0), rel=1e-3)
    assert right.left_m is None
    assert right.right_m == pytest.approx(0.20 * math.radians(160.0), rel=1e-3)
    assert middle.left_m == pytest.approx(middle.right_m, rel=1e-3)


def test_a_bored_cut_adds_bore_and_strap_in_order_round_the_bark() -> None:
    result = assessed(cut=plain_cut(back__form="bored"))
    keys = [m.key for m in result.tape_marks]
    assert keys == ["lay", "face_corner", "hinge_back", "bore", "strap_edge", "wedge_seat", "back_centre"]
    lefts = [m.left_m for m in result.tape_marks if m.key != "wedge_seat"]
    assert lefts == sorted(lefts)


def test_an_overcut_is_marked_behind_the_face_corner() -> None:
    result = assessed(cut=plain_cut(face__overcut_m=0.02))
    assert mark(result, "overcut_end").left_m > mark(result, "face_corner").left_m


def test_the_tape_goes_all_the_way_round_an_ellipse() -> None:
    """Perimeter by Ramanujan's second approximation, good to 1e-7 at this roundness."""
    result = assessed(round_tree(trunk__cross_diameter_m=0.32))
    a, b = 0.20, 0.16
    h = ((a - b) / (a + b)) ** 2
    perimeter = math.pi * (a + b) * (1 + 3 * h / (10 + math.sqrt(4 - 3 * h)))
    assert bark_tape(result.parts.section).girth_m == pytest.approx(perimeter, rel=1e-4)


def test_a_tapered_hinge_marks_its_thicker_end_further_round() -> None:
    back = mark(assessed(cut=plain_cut(hinge__left_m=0.06)), "hinge_back")
    assert back.left_m > back.right_m
