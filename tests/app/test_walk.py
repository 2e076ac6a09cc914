"""Walking through the cut without widgets: where one is, what holds there, what a mistake changes."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import assessed, case, plain_cut, round_tree
from plain_compass.app.steps.stages.walk import Walk, level_at
from plain_compass.core.assess import assess
from plain_compass.core.cuts import form_of, forms
from plain_compass.core.cuts.stages import states_at
from plain_compass.job.demo import demo_job
from plain_compass.job.document import assess_tree

BACK = round_tree(lean__angle_deg=3.0, lean__bearing_deg=180.0)


def walk_of(tree_id: str = "WH-07") -> Walk:
    return Walk(assess_tree(demo_job(), tree_id))


def test_it_begins_with_the_uncut_tree_and_ends_on_the_hinge() -> None:
    walk = walk_of()
    assert (walk.number, walk.title(0)) == (0, "Uncut")
    walk.go_to(len(walk.stages) - 1)
    assert walk.progress == 1.0
    area = float(states_at(walk.result, [walk.kept]).uncut_area_m2[0])
    assert area == pytest.approx(walk.result.parts.hinge.region.area_m2, rel=0.03)


@given(st.floats(0.0, 1.0))
def test_the_depth_looked_at_belongs_to_the_step_it_leads_to(progress: float) -> None:
    walk = walk_of()
    walk.progress = progress
    ends = (0.0, *walk.sweep.ends)
    assert progress <= ends[walk.number] + 1e-6
    assert walk.number == 0 or progress > ends[walk.number - 1] - 1e-6


def test_every_state_is_reached_by_its_number() -> None:
    walk = walk_of("WH-24")
    for number in range(len(walk.stages)):
        walk.go_to(number)
        assert walk.number == number
        reached = float(states_at(walk.result, [walk.kept]).uncut_area_m2[0])
        assert reached == pytest.approx(walk.stages[number].uncut_area_m2, rel=1e-6)


def test_the_wedge_is_in_once_there_is_room_for_it() -> None:
    walk = Walk(assessed(BACK))
    opened = next(i for i, stage in enumerate(walk.stages) if stage.wedge_fits)
    walk.go_to(opened - 1)
    assert not walk.wedges_in
    walk.go_to(opened)
    assert walk.wedges_in


def test_numbers_carry_their_units_and_say_what_they_mean() -> None:
    walk = walk_of()
    speech = demo_job().speech
    for number in range(len(walk.stages)):
        walk.go_to(number)
        rows = {name: value for name, value, _ in walk.numbers(speech)}
        assert rows["wood that holds"].endswith("cm²")
        assert "stands" in rows["on what holds"] or "goes" in rows["on what holds"] or "back" in rows["on what holds"]
        assert rows["bar"] in ("free", "held by the kerf")


def test_a_mistake_is_played_into_the_states_and_taken_out_again() -> None:
    walk = walk_of()
    before = walk.stages[-1].uncut_area_m2
    walk.set_fault("bored-far")
    assert walk.played is not None and walk.stages[-1].uncut_area_m2 < before
    walk.set_fault("")
    assert walk.played is None and walk.stages[-1].uncut_area_m2 == pytest.approx(before)


def test_a_mistake_stays_in_while_the_plan_changes() -> None:
    walk = walk_of()
    walk.set_fault("uneven")
    other = assess_tree(demo_job(), "WH-12")
    walk.follow(other)
    assert walk.result.case.cut.hinge.left_m == pytest.approx(0.5 * other.case.cut.hinge.left_m)


def test_a_back_leaner_without_a_wedge_is_a_stop_where_the_kerf_shuts() -> None:
    bare = Walk(assessed(round_tree(lean__angle_deg=5.0, lean__bearing_deg=180.0), plain_cut(wedges=())))
    assert "stop" in {level_at(stage) for stage in bare.stages}
    upright = Walk(assessed(round_tree()))
    assert level_at(upright.stages[0]) == "clear"


@pytest.mark.parametrize(("part", "key"), sorted(forms()))
def test_every_form_is_walked_from_end_to_end(part: str, key: str) -> None:
    whole = case(round_tree(lean__angle_deg=3.0, lean__bearing_deg=0.0))
    walk = Walk(assess(replace(whole, cut=form_of(part, key).design(whole))))
    for hundredth in range(0, 101, 4):
        walk.progress = hundredth / 100
        assert walk.kept
        assert walk.numbers(demo_job().speech)
        assert level_at(walk.stage) in ("clear", "watch", "stop", "unknown")
