"""Wedging as a plan: what is driven, stacked, thinned and jacked, in the order of the craft, and judged as a whole."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from builders import assessed, finding, plain_cut, round_tree, told
from plain_compass.core.assess import Assessment, assess
from plain_compass.core.cuts.moving import wedging_lines
from plain_compass.core.design.cut import GOES_ON, WedgeSeat
from plain_compass.core.mechanics.wedge_plan import WAYS
from plain_compass.core.plan.driven import thin_share

PAIR = (WedgeSeat(-25.0), WedgeSeat(25.0))
TWO_WEDGES = {"wedge_count": 2, "wedge_thickness_m": 0.025, "wedge_length_m": 0.20}


def textbook(thick: float, lean: float = 0.5, **kit: float | str) -> Assessment:
    """An oak that leans back a little, a fifth deep, hinge a tenth, two ordinary wedges."""
    tree = round_tree(
        trunk__diameter_m=thick, trunk__butt_diameter_m=thick, height_m=8.0 + 26.0 * thick,
        lean__angle_deg=lean, lean__bearing_deg=180.0,
    )  # fmt: skip
    cut = plain_cut(face__depth_m=0.22 * thick, hinge__left_m=0.1 * thick, hinge__right_m=0.1 * thick, wedges=PAIR)
    return assessed(tree, cut, **(TWO_WEDGES | kit))


def going(result: Assessment, how: str) -> Assessment:
    return assess(replace(result.case, cut=replace(result.case.cut, goes_on=how)))


@pytest.mark.parametrize("thick", [0.3, 0.4, 0.5, 0.6, 0.8, 1.0])
def test_a_textbook_cut_on_an_upright_tree_is_no_stop(thick: float) -> None:
    result = textbook(thick)
    for id in ("balance.over", "wedge.drive", "wedge.room"):
        assert finding(result, id).level != "stop", id


def test_the_ways_on_come_in_the_order_of_the_craft_as_the_tree_gets_bigger() -> None:
    names = [textbook(thick, 1.0).parts.wedge_plan.name for thick in (0.3, 0.5, 0.7, 0.9, 1.1)]
    assert [WAYS.index(name) for name in names] == sorted(WAYS.index(name) for name in names)
    assert names[0] == "wedges" and names[-1] != "wedges"


@settings(max_examples=30, deadline=None)
@given(thick=st.floats(0.3, 1.1), lean=st.floats(0.0, 4.0))
def test_going_on_further_never_makes_a_plan_worse(thick: float, lean: float) -> None:
    """Whatever one may do beside what was done before can only help: the least that is asked never grows."""
    result = textbook(thick, lean, jack_rise_m=0.1)
    asked = []
    for how in GOES_ON:
        plan = going(result, how).parts.wedge_plan
        asked.append(max(plan.lift_use, plan.drive_use, plan.room_use))
    # The first way that does it is told, however little it has to spare: only those that do not do it are compared.
    for before, after in pairwise(asked):
        assert after <= max(before, 1.0) + 1e-9


def test_a_second_wedge_lifts_its_whole_head_more_and_is_driven_harder() -> None:
    placed, stacked = (going(textbook(0.8, 1.0), how).parts.wedge_plan for how in ("wedges", "stack"))
    assert stacked.name == "stack"
    assert stacked.have_m - placed.have_m == pytest.approx(0.025)
    assert stacked.lift_m == pytest.approx(placed.lift_m)
    assert stacked.advance_m < placed.advance_m


def test_thinned_to_what_is_told_the_wedges_bring_it_over() -> None:
    result = textbook(0.5, 1.0, wedge_count=1, stackable="no")
    single = assess(replace(result.case, cut=replace(result.case.cut, wedges=(WedgeSeat(0.0),))))
    assert single.parts.wedge_plan.name == "thin"
    share = thin_share(single.case, single.parts)
    assert 0.5 <= share < 1.0
    hinge = single.case.cut.hinge
    thin = replace(hinge, left_m=share * hinge.left_m, right_m=share * hinge.right_m)
    cut = assess(replace(single.case, cut=replace(single.case.cut, hinge=thin, goes_on="wedges")))
    assert cut.parts.wedge_plan.lift_use == pytest.approx(1.0, abs=0.05)


def test_a_jack_takes_over_where_wedges_end() -> None:
    hard = textbook(0.8, 8.0)
    assert finding(hard, "balance.over").level == "stop"
    jacked = textbook(0.8, 8.0, jack_rise_m=0.15, jack_N=200_000.0)
    assert jacked.parts.wedge_plan.name == "jack"
    assert finding(jacked, "balance.over").level != "stop"
    assert "jack" in told(finding(jacked, "balance.over").sentence)
    weak = textbook(0.8, 8.0, jack_rise_m=0.15, jack_N=1000.0)
    assert finding(weak, "wedge.drive").level == "stop" or weak.parts.wedge_plan.name != "jack"


def test_without_a_lever_a_small_stem_is_pushed_with_less() -> None:
    with_lever, without = (textbook(0.22, 2.0, lever=each).parts.wedging.by_hand_Nm for each in ("yes", "no"))
    assert with_lever - without == pytest.approx(600.0)


def test_the_card_tells_each_thing_with_the_lift_at_which_it_is_done() -> None:
    lines = [told(line) for line in wedging_lines(textbook(0.8, 1.0))]
    assert lines[0].startswith("Drive the wedges in turn")
    assert lines[-1].startswith("If it still holds then, stop")
    at = [next((i for i, line in enumerate(lines) if word in line), -1) for word in ("second wedge", "thin the")]
    assert 0 < at[0] < at[1] < len(lines) - 1
    assert all("mm" in lines[i] for i in at)


def test_a_millimetre_a_blow_is_going_and_less_is_not() -> None:
    """Twenty blows on a stem of 87 cm, forty on one of a metre, are work and no stop."""
    big = textbook(0.87, 0.3)
    assert finding(big, "wedge.drive").level != "stop"
    feeble = textbook(1.1, 2.5, maul_J=20.0)
    assert feeble.parts.wedge_plan.advance_m < 0.001 or feeble.parts.wedge_plan.blows > 120
    assert finding(feeble, "wedge.drive").level == "stop"


def test_what_a_push_sends_over_needs_no_wedge_and_nothing_says_otherwise() -> None:
    """A small stem cut with the axe: no wedge is placed, and none is asked for."""
    small = {"trunk__diameter_m": 0.16, "trunk__butt_diameter_m": 0.16, "height_m": 11.0}
    tree = round_tree(lean__angle_deg=0.5, lean__bearing_deg=180.0, **small)
    cut = plain_cut(
        back__form="axe", face__depth_m=0.06, hinge__left_m=0.02, hinge__right_m=0.02, back__step_m=0.03, wedges=()
    )
    result = assessed(tree, cut, **TWO_WEDGES)
    assert result.parts.wedging.goes_by_hand
    assert "push" in told(finding(result, "balance.over").sentence)
    assert finding(result, "balance.over").level != "stop"
    assert finding(result, "wedge.drive").level != "stop"
