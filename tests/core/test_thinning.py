"""A hinge the wedges cannot bring to where it goes: how thin it must be, and when it may not be thinned so far."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from builders import assessed, case, finding, plain_cut, round_tree, told
from plain_compass.core.assess import Assessment, assess
from plain_compass.core.mechanics.thinning import Thinning
from plain_compass.core.plan.driven import thinning_of
from plain_compass.core.tree.tree import Tree


def leaning(back_deg: float, aside_deg: float = 0.0) -> Tree:
    """An oak that leans back from a lay to the north, and to the left of it."""
    towards = 180.0 + math.degrees(math.atan2(aside_deg, back_deg))
    return round_tree(lean__angle_deg=math.hypot(back_deg, aside_deg), lean__bearing_deg=towards)


def cut_to(thick_m: float, tree: Tree) -> Assessment:
    """One wedge is carried: nothing can be stacked, and what the wedge does not lift the hinge has to give."""
    return assessed(tree, plain_cut(hinge__left_m=thick_m, hinge__right_m=thick_m), wedge_count=1)


def told_of(result: Assessment) -> Thinning:
    return thinning_of(result.case, result.parts)


def test_thinning_ends_at_half_the_thickness_at_the_practices_least_and_where_the_side_weight_takes_it() -> None:
    plain = cut_to(0.06, leaning(1.0))
    assert plain.parts.wedge_plan.share == pytest.approx(0.5)
    assert cut_to(0.03, leaning(1.0)).parts.wedge_plan.share == pytest.approx(plain.case.practice.hinge_least_m / 0.03)
    aside = [cut_to(0.05, leaning(1.0, each)).parts.wedge_plan.share for each in (0.0, 4.0, 8.0, 30.0)]
    assert aside == sorted(aside)
    assert aside[-1] == 1.0


def wedges_reach(result: Assessment) -> bool:
    brought = min(math.atan(seat.available_m / seat.arm_m) for seat in result.parts.wedging.seats)
    return result.parts.wedging.tilt_deg <= math.degrees(brought)


@given(back=st.floats(1.2, 3.0), thick_m=st.floats(0.055, 0.07))
def test_cut_to_the_thickness_that_is_told_it_goes_and_a_millimetre_thicker_it_does_not(
    back: float, thick_m: float
) -> None:
    tree = leaning(back)
    to_m = told_of(cut_to(thick_m, tree)).to_m
    assert to_m is not None and to_m < thick_m
    assert wedges_reach(cut_to(to_m - 0.001, tree)) and not wedges_reach(cut_to(to_m + 0.001, tree))


def test_nothing_is_told_where_the_wedges_reach_as_it_is() -> None:
    result = cut_to(0.03, leaning(1.0))
    assert wedges_reach(result)
    assert told_of(result) == Thinning(None)


def test_the_finding_names_the_thinner_hinge() -> None:
    result = cut_to(0.05, leaning(1.0))
    assert told_of(result).allowed_m == pytest.approx(0.0424, abs=0.0005)
    # What the wedge lacks the hinge gives: no reason to stop.
    assert finding(result, "balance.over").level == "clear"
    assert "thin the hinge to 4.2 cm" in told(finding(result, "balance.over").sentence)


def test_a_hinge_thinner_than_the_practice_leaves_is_refused_and_not_offered() -> None:
    plain = case(leaning(1.0), plain_cut(hinge__left_m=0.05, hinge__right_m=0.05), wedge_count=1)
    result = assess(replace(plain, practice=replace(plain.practice, hinge_least_m=0.045)))
    thinning = told_of(result)
    assert thinning.refused == "least"
    assert thinning.to_m is not None and thinning.allowed_m is None
    assert "4.2 cm" not in told(finding(result, "balance.over").sentence)
    assert finding(result, "balance.over").level == "stop"


@given(aside=st.floats(0.0, 18.0), thick_m=st.floats(0.05, 0.06))
def test_thinning_is_refused_where_the_hinge_cut_so_could_not_carry_the_side_weight(
    aside: float, thick_m: float
) -> None:
    tree = leaning(3.0, aside)
    thinning = told_of(cut_to(thick_m, tree))
    assume(thinning.to_m is not None)
    assert thinning.to_m is not None
    use = cut_to(thinning.to_m, tree).parts.use.side_utilisation
    # Its use is scaled from the hinge as it is; near the limit either answer is right.
    assume(abs(use - 1.0) > 0.1)
    if use > 1.0:
        assert thinning.refused in ("side", "least")
    else:
        assert thinning.refused != "side"


def test_a_hinge_too_thin_for_the_side_weight_is_not_offered() -> None:
    result = cut_to(0.05, leaning(3.0, 14.0))
    thinning = told_of(result)
    assert result.parts.use.side_utilisation < 1.0
    assert thinning.allowed_m is None
    assert "thin the hinge" not in told(finding(result, "balance.over").sentence)
