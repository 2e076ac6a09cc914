"""What has not been measured is unknown in everything that rests on it, until it is typed or taken."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from builders import assessed, round_tree, told
from plain_compass.cli import main
from plain_compass.core.advice.rose import whole_rose
from plain_compass.core.advice.suggest import suggest
from plain_compass.core.assess import with_unknowns
from plain_compass.core.judge.unmeasured import STAND_INS, UnmeasuredError, missing
from plain_compass.job.document import Job, assess_tree, case_of
from plain_compass.job.edits import add_tree, new_job, set_value, set_values
from plain_compass.job.fall import with_its_fall
from plain_compass.job.files import job_text, parse_job, write_job
from plain_compass.job.readings import EDGE, Taken
from plain_compass.job.spreads import plan_spreads
from plain_compass.job.taking import record_reading
from plain_compass.job.tree_list import import_csv

TYPED = {
    "tree.trunk.diameter_m": 0.4,
    "tree.height_m": 15.0,
    "tree.crown.base_m": 5.0,
    "tree.lean.angle_deg": 0.0,
    **{f"tree.crown.readings.{index}.radius_m": 3.0 for index in range(4)},
}


def measured(leaving_out: str = "") -> Job:
    job = new_job()
    return set_values(job, "1", {path: value for path, value in TYPED.items() if path != leaving_out})


def test_nothing_of_a_new_tree_is_clear_that_rests_on_its_stand_ins() -> None:
    result = assess_tree(new_job(), "1")
    assert not [f.id for f in result.findings if f.level == "clear" and f.margin is not None]
    assert {f.id for f in result.findings if f.id.startswith("measured.")} == {
        "measured.diameter", "measured.height", "measured.crown", "measured.lean",
    }  # fmt: skip
    assert result.verdict.level in ("unknown", "stop")


def test_the_fall_of_a_new_tree_is_unknown_too() -> None:
    job = new_job()
    result = with_its_fall(job.plan("1"), assess_tree(job, "1"))
    falls = [f for f in result.findings if f.id.startswith("fall.")]
    assert falls and all(f.level == "unknown" for f in falls)


def test_the_same_values_typed_are_measurements() -> None:
    plan = measured().plan("1")
    assert plan.tree.stand_ins == ()
    assert plan.tree.lean.method == "eye", "a lean that was typed is judged, without a second box"
    assert any(f.level == "clear" and f.margin is not None for f in assess_tree(measured(), "1").findings)


def test_a_lean_is_known_when_angle_and_bearing_are_and_one_that_is_none_at_once() -> None:
    """Which way it leans decides what it does: an angle alone would be taken to lean to the north."""
    job, tree_id = add_tree(new_job())
    half = set_value(job, tree_id, "tree.lean.angle_deg", 3.0)
    assert "lean" in missing(half.plan(tree_id).tree)
    assert "lean.bearing_deg" in half.plan(tree_id).tree.stand_ins
    assert "lean" not in missing(set_value(half, tree_id, "tree.lean.bearing_deg", 120.0).plan(tree_id).tree)
    assert "lean" not in missing(set_value(job, tree_id, "tree.lean.angle_deg", 0.0).plan(tree_id).tree)
    assert "lean" in missing(set_value(job, tree_id, "tree.lean.method", "plumb").plan(tree_id).tree)


@pytest.mark.parametrize(
    ("path", "key"),
    [
        ("tree.height_m", "height"), ("tree.crown.readings.2.radius_m", "crown"), ("tree.crown.base_m", "crown"),
        ("tree.lean.angle_deg", "lean"), ("tree.trunk.diameter_m", "diameter"),
    ],
)  # fmt: skip
def test_one_thing_that_is_missing_is_named_and_holds_back_balance(path: str, key: str) -> None:
    job = measured(leaving_out=path)
    assert missing(job.plan("1").tree) == (key,)
    over = next(f for f in assess_tree(job, "1").findings if f.id == "balance.over")
    assert (over.level, over.margin) == ("unknown", None)
    assert told(over.sentence).startswith("Not known before")


def test_what_does_not_rest_on_the_height_is_judged_without_it() -> None:
    job = measured(leaving_out="tree.height_m")
    found = {f.id: f.level for f in assess_tree(job, "1").findings}
    full = {f.id: f.level for f in assess_tree(measured(), "1").findings}
    assert found["bar.reach"] == full["bar.reach"] != "unknown"


def test_a_stand_in_has_no_spread() -> None:
    assert "tree.height_m" not in plan_spreads(measured(leaving_out="tree.height_m").plan("1"))
    assert "tree.height_m" in plan_spreads(measured().plan("1"))


def test_a_reading_taken_makes_its_crown_edge_a_measurement() -> None:
    job = record_reading(new_job(), "1", Taken(what=EDGE, by="paced", values=(90.0, 4.0), spreads=(2.0, 0.3)))
    left = job.plan("1").tree.stand_ins
    assert "crown.readings.1.radius_m" not in left and "crown.readings.0.radius_m" in left


def test_stand_ins_are_kept_in_the_file_and_a_file_that_does_not_say_has_none() -> None:
    job = set_value(new_job(), "1", "tree.height_m", 20.0)
    assert parse_job(job_text(job), "job").job == job
    older = job_text(job).replace('"version": 3', '"version": 2')
    raw = parse_job(older.replace('"stand_ins"', '"elsewhere"'), "job").job
    assert raw.trees[0].tree.stand_ins == ()


def test_a_list_that_leaves_columns_out_leaves_them_unmeasured() -> None:
    (plan,) = import_csv("id,diameter [cm],height [m]\nA,40,17\n", "list.csv", "fifth-and-tenth")
    assert missing(plan.tree) == ("crown", "lean")


def test_a_stop_by_stand_ins_is_not_known_either_and_a_measured_tree_is_left_as_it_is() -> None:
    result = assessed(round_tree())
    assert with_unknowns(result) is result
    bare = replace(result, case=replace(result.case, tree=replace(result.case.tree, stand_ins=STAND_INS)))
    assert not [f.id for f in with_unknowns(bare).findings if f.margin is not None and f.group != "around"]


def test_the_best_of_many_by_stand_ins_is_no_answer() -> None:
    job = new_job()
    with pytest.raises(UnmeasuredError) as new:
        suggest(assess_tree(job, "1"))
    assert "the height, the crown and the lean have not been measured" in told(new.value.sentence)
    with pytest.raises(UnmeasuredError) as nearly:
        whole_rose(case_of(measured(leaving_out="tree.lean.angle_deg"), "1"), np.array([0.0]))
    assert told(nearly.value.sentence).startswith("What each bearing would mean cannot be told: the lean has not")
    assert suggest(assess_tree(measured(), "1")) is not None


def test_on_the_command_line_a_tree_by_stand_ins_is_said_to_be_one(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    path = tmp_path / "new.pcjob.json"
    write_job(path, new_job())
    for command in ("suggest", "rose"):
        assert main([command, str(path)]) == 2
        assert "have not been measured. Tape the stem" in capsys.readouterr().err
    for command in ("fall", "stages"):
        assert main([command, str(path), "--json"]) == 0
        told = capsys.readouterr()
        assert "What follows is by stand-ins." in told.err
        assert json.loads(told.out)["not_measured"] == ["the diameter", "the height", "the crown", "the lean"]
