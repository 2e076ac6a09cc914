"""Readings are kept raw, averaged into what they measure, and never thrown away."""

from __future__ import annotations

import csv
import io
import json
import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import one_tree_job
from plain_compass.core.base.errors import InputError
from plain_compass.job.demo import demo_job
from plain_compass.job.disk import JobFileError
from plain_compass.job.document import Job, assess_tree, with_plan
from plain_compass.job.edits import new_job, set_value
from plain_compass.job.files import job_text, parse_job
from plain_compass.job.lists import LISTS, MOST_ITEMS, add_item, remove_item
from plain_compass.job.readings import EDGE, LEAN, SHELL, WIND, Taken, groups_of
from plain_compass.job.readings_csv import HEADINGS, readings_csv
from plain_compass.job.spreads import plan_spreads, usual_spreads
from plain_compass.job.taking import record_reading, use_reading
from plain_compass.job.tree_readings import path_taken, reading_marks

TREE = "WH-07"


def fresh() -> Job:
    """The first demo tree without its readings."""
    job = one_tree_job()
    return replace(job, trees=(replace(job.trees[0], readings=()),))


def height(value: float, spread: float = 0.5) -> Taken:
    return Taken("tree.height_m", "clinometer", (value,), (spread,))


def taking(*readings: Taken) -> Job:
    job = fresh()
    for reading in readings:
        job = record_reading(job, TREE, reading)
    return job


@given(st.lists(st.floats(15.0, 19.0), min_size=1, max_size=6))
def test_the_height_is_the_mean_of_readings_that_agree(values: list[float]) -> None:
    job = taking(*(height(value, 2.0) for value in values))
    assert job.plan(TREE).tree.height_m == pytest.approx(sum(values) / len(values))
    assert len(job.plan(TREE).readings) == len(values)


def test_an_outlier_is_kept_and_shown_but_left_out() -> None:
    job = taking(height(17.4), height(17.6), height(25.0))
    plan = job.plan(TREE)
    assert plan.tree.height_m == pytest.approx(17.5)
    assert groups_of(plan.readings)[0].outliers == (2,)
    assert reading_marks(plan)["tree.height_m"] == ((17.4, False), (17.6, False), (25.0, True))


def test_more_readings_make_the_spread_smaller() -> None:
    one, four = (plan_spreads(taking(*(height(17.5),) * n).plan(TREE))["tree.height_m"] for n in (1, 4))
    assert four == pytest.approx(one / 2)
    assert one == pytest.approx(0.5)


def test_without_readings_the_spread_is_that_of_the_usual_way() -> None:
    plan = fresh().plan(TREE)
    assert plan_spreads(plan) == usual_spreads(plan.tree)


def test_a_value_typed_over_leaves_the_readings_kept_but_unused() -> None:
    job = set_value(taking(height(17.4), height(17.6)), TREE, "tree.height_m", 18.0)
    plan = job.plan(TREE)
    assert plan.tree.height_m == 18.0
    assert [taken.used for taken in plan.readings] == [False, False]
    assert plan_spreads(plan)["tree.height_m"] == pytest.approx(usual_spreads(plan.tree)["tree.height_m"])
    back = use_reading(job, TREE, 1, used=True)
    assert back.plan(TREE).tree.height_m == pytest.approx(17.6)


def test_no_longer_using_the_last_reading_leaves_the_value() -> None:
    job = use_reading(taking(height(17.4)), TREE, 0, used=False)
    assert job.plan(TREE).tree.height_m == pytest.approx(17.4)


def test_leans_are_averaged_as_vectors() -> None:
    job = taking(Taken(LEAN, "plumb", (2.0, 350.0), (0.5, 3.0)), Taken(LEAN, "plumb", (2.0, 10.0), (0.5, 3.0)))
    lean = job.plan(TREE).tree.lean
    assert lean.bearing_deg % 360 == pytest.approx(0.0, abs=1e-6)
    assert lean.angle_deg == pytest.approx(2.0 * math.cos(math.radians(10)), rel=1e-3)
    assert lean.method == "plumb"


def test_opposite_leans_cancel_and_their_bearing_is_anyones_guess() -> None:
    job = taking(Taken(LEAN, "faces", (1.0, 90.0), (0.5, 3.0)), Taken(LEAN, "faces", (1.0, 270.0), (0.5, 3.0)))
    assert job.plan(TREE).tree.lean.angle_deg == pytest.approx(0.0, abs=1e-9)
    spreads = plan_spreads(job.plan(TREE))
    assert spreads["tree.lean.across_deg"] == spreads["tree.lean.angle_deg"] > 0


def test_crown_edges_are_averaged_by_bearing_and_a_new_bearing_is_a_new_edge() -> None:
    job = taking(
        Taken(EDGE, "paced", (90.0, 4.0), (0.0, 0.2)),
        Taken(EDGE, "paced", (92.0, 5.0), (0.0, 0.2)),
        Taken(EDGE, "paced", (45.0, 3.3), (0.0, 0.2)),
    )
    edges = {r.bearing_deg: r.radius_m for r in job.plan(TREE).tree.crown.readings}
    assert edges[90.0] == pytest.approx(4.5)
    assert edges[45.0] == pytest.approx(3.3)
    assert len(edges) == 5


def test_the_first_probe_hole_makes_the_rot_a_shell() -> None:
    job = taking(Taken(SHELL, "probe", (120.0, 0.09), (0.0, 0.004)))
    decay = job.plan(TREE).tree.decay
    assert decay.kind == "shell"
    assert [(p.bearing_deg, p.sound_m) for p in decay.shell] == [(120.0, 0.09)]
    assert plan_spreads(job.plan(TREE))["tree.decay.shell.0.sound_m"] == pytest.approx(0.004)


def test_wind_is_kept_and_changes_nothing_yet() -> None:
    job = taking(Taken(WIND, "windmeter", (3.5,), (0.6,)))
    assert job.plan(TREE).tree == fresh().plan(TREE).tree
    assert job.plan(TREE).readings[0].values == (3.5,)


def test_a_girth_read_by_tape_takes_the_cut_along() -> None:
    before = fresh()
    job = record_reading(before, TREE, Taken("tree.trunk.butt_diameter_m", "tape", (0.28,), (0.003,)))
    # In proportion to the wood, which lies inside 8 mm of bark on both sides.
    wood = (0.28 - 0.016) / (0.56 - 0.016)
    assert job.plan(TREE).cut.face.depth_m == pytest.approx(before.plan(TREE).cut.face.depth_m * wood, rel=5e-3)


def test_a_reading_no_tree_can_have_is_refused_by_name() -> None:
    with pytest.raises(InputError, match=r"tree\.height_m"):
        record_reading(fresh(), TREE, height(400.0))


def test_a_dimension_typed_with_its_spread_is_a_reading_of_what_it_measures() -> None:
    plan = fresh().plan(TREE)
    assert path_taken(plan, "tree.crown.readings.1.radius_m", (4.0, 0.2), "paced", "", "").values == (90.0, 4.0)
    assert path_taken(plan, "tree.lean.angle_deg", (1.0, 0.5), "typed", "", "").values == (1.0, 75.0)
    assert path_taken(plan, "tree.height_m", (17.0, 0.5), "typed", "", "").what == "tree.height_m"


def test_readings_are_written_and_read_back_whole() -> None:
    job = taking(height(17.4), Taken(LEAN, "plumb", (2.0, 350.0), (0.5, 3.0), "offset 7 cm", "2026-05-01 09:00:00"))
    assert parse_job(job_text(job), "back").job == job


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"values": []}, "values is 'empty'"),
        ({"values": [17.0, 18.0]}, "has 1 of them"),
        ({"spreads": [-1.0]}, "spreads is -1"),
        ({"what": "lean"}, "a lean has 2 of them"),
        ({"what": "tree.species"}, "what is 'tree.species'"),
        ({"what": "tree.nothing_m"}, "what is 'tree.nothing_m'"),
    ],
)
def test_a_file_with_readings_that_make_no_sense_is_refused_by_field(change: dict[str, object], words: str) -> None:
    content = json.loads(job_text(taking(height(17.4))))
    content["trees"][0]["readings"][0].update(change)
    with pytest.raises(JobFileError, match=words):
        parse_job(json.dumps(content), "odd")


def test_a_file_of_version_1_opens_with_everything_new_unanswered() -> None:
    content = json.loads(job_text(fresh()))
    content["version"] = 1
    tree = content["trees"][0]["tree"]
    for name in ("around", "lobes", "limbs", "fork", "defects"):
        del tree[name]
    del content["trees"][0]["readings"], content["person"]
    plan = parse_job(json.dumps(content), "old").job.plan(TREE)
    assert plan.tree.around.wires == "unknown"
    assert (plan.tree.lobes, plan.tree.limbs, plan.tree.fork.kind, plan.readings) == ((), (), "none", ())


def test_raw_readings_go_out_as_csv_a_row_each() -> None:
    job = taking(
        height(17.4),
        height(17.6),
        height(25.0),
        Taken(SHELL, "probe", (120.0, 0.09), (0.0, 0.004), '{"device": "probe"}'),
        Taken(LEAN, "plumb", (2.0, 350.0), (0.5, 3.0)),
    )
    rows = list(csv.DictReader(io.StringIO(readings_csv(job))))
    assert tuple(rows[0]) == HEADINGS
    assert [row["left out"] for row in rows[:3]] == ["no", "no", "yes"]
    assert (rows[3]["value"], rows[3]["unit"], rows[3]["bearing [deg]"]) == ("0.09", "m", "120")
    assert rows[3]["note"] == '{"device": "probe"}'
    assert (rows[4]["what"], rows[4]["unit"], rows[4]["bearing [deg]"]) == ("lean", "deg", "350")


@pytest.mark.parametrize("path", list(LISTS))
def test_items_are_added_in_the_widest_gap_and_removed_again(path: str) -> None:
    job = set_value(fresh(), TREE, "tree.decay.kind", "shell")
    before = job.plan(TREE).tree
    more = add_item(job, TREE, path)
    items = getattr_path(more, path)
    assert len(items) > len(getattr_path(job, path))
    at = [item.bearing_deg for item in items]
    assert len(set(at)) == len(at)
    back = more
    while len(getattr_path(back, path)) > len(getattr_path(job, path)):
        back = remove_item(back, TREE, path, len(getattr_path(back, path)) - 1)
    assert back.plan(TREE).tree == before


def getattr_path(job: Job, path: str) -> tuple:  # type: ignore[type-arg]
    found: object = job.plan(TREE)
    for name in path.split("."):
        found = getattr(found, name)
    return found  # type: ignore[return-value]


def test_a_crown_edge_added_stands_on_the_outline_until_it_is_paced() -> None:
    job = add_item(fresh(), TREE, "tree.crown.readings")
    new = job.plan(TREE).tree.crown.readings[-1]
    assert 3.0 < new.radius_m < 4.4


def test_soundings_begin_with_eight_unknown_sides() -> None:
    job = add_item(fresh(), TREE, "tree.decay.soundings")
    assert {s.sound for s in job.plan(TREE).tree.decay.soundings[-8:]} <= {"unknown", "sound", "dull"}


def test_lists_stay_within_their_bounds() -> None:
    job = fresh()
    for _ in range(MOST_ITEMS):
        job = add_item(job, TREE, "tree.limbs")
    with pytest.raises(InputError):
        add_item(job, TREE, "tree.limbs")
    for _ in range(3):
        job = remove_item(job, TREE, "tree.crown.readings", 0)
    with pytest.raises(InputError):
        remove_item(job, TREE, "tree.crown.readings", 0)


def test_the_six_demo_trees_each_have_a_difficulty_of_their_own() -> None:
    trees = {plan.id: plan.tree for plan in demo_job().trees}
    assert len(trees) == 6
    assert len({tree.species for tree in trees.values()}) == 6
    assert [name for name, tree in trees.items() if tree.fork.kind == "second"] == ["WH-18"]
    assert [name for name, tree in trees.items() if tree.lobes] == ["WH-21"]
    assert [name for name, tree in trees.items() if tree.limbs] == ["WH-12"]
    assert [name for name, tree in trees.items() if tree.decay.kind == "shell"] == ["WH-15"]
    assert min(trees, key=lambda name: trees[name].trunk.diameter_m) == "WH-24"


def test_a_reading_of_something_no_longer_listed_is_kept_and_using_it_is_a_sentence() -> None:
    """A file may say so, and an index may be longer than any machine's number."""
    for what in ("tree.limbs.7.length_m", "tree.crown.readings.99.radius_m", f"tree.limbs.{'9' * 40}.length_m"):
        job = with_plan(demo_job(), "WH-07", "readings", (Taken(what, "typed", (3.0,), (0.2,), used=False),))
        job = parse_job(job_text(job, {}), "stale").job
        assert assess_tree(job, "WH-07").findings
        with pytest.raises(InputError, match="not listed any more"):
            use_reading(job, "WH-07", 0, used=True)
        assert job.plan("WH-07").readings[0].what == what


def test_what_is_said_of_an_item_by_its_place_follows_it_when_one_before_it_goes() -> None:
    """Else the measured one would be called a stand-in, and the stand-in measured."""
    job = set_value(new_job(), "1", "tree.crown.readings.2.radius_m", 4.5)
    before = {edge.bearing_deg for edge in job.plan("1").tree.crown.readings}
    job = remove_item(job, "1", "tree.crown.readings", 0)
    plan = job.plan("1")
    edges = [name for name in plan.tree.stand_ins if name.startswith("crown.readings")]
    assert edges == ["crown.readings.0.radius_m", "crown.readings.2.radius_m"]
    assert plan.tree.crown.readings[1].radius_m == 4.5
    assert len(before) == len(plan.tree.crown.readings) + 1


def test_readings_of_an_item_go_with_it_and_those_of_later_ones_follow() -> None:
    job = demo_job()
    for _ in range(2):
        job = add_item(job, "WH-07", "tree.limbs")
    count = len(job.plan("WH-07").tree.limbs)
    first, second = (f"tree.limbs.{index}.length_m" for index in (count - 2, count - 1))
    taken = (Taken(first, "typed", (3.0,), (0.2,)), Taken(second, "typed", (5.0,), (0.2,)))
    job = with_plan(job, "WH-07", "readings", taken)
    job = remove_item(job, "WH-07", "tree.limbs", count - 2)
    assert [(each.what, each.values) for each in job.plan("WH-07").readings] == [(first, (5.0,))]
