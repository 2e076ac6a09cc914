"""A job's trees as one block: judged, ordered with reasons, put into days; what people decide is kept; files out."""

from __future__ import annotations

import csv
import io
import json
import math
from dataclasses import replace

import pytest
from shapely.geometry import Point, Polygon

from plain_compass.app.steps.block.drawn import drawn_trees
from plain_compass.core.base.errors import InputError
from plain_compass.core.base.kept import forget, worked_out
from plain_compass.core.base.paths import with_value
from plain_compass.core.base.steps import finished
from plain_compass.core.block.judged import Turning, judged
from plain_compass.core.block.wanted import BlockWanted, OfTree
from plain_compass.core.judge.unmeasured import STAND_INS
from plain_compass.core.plan.minutes import ROUND_MIN
from plain_compass.job.block import block_in_steps, order_in_steps, place_reasons, planned_block, taken_over
from plain_compass.job.block_edits import decided, fixed_lay, let_go, moved_in_order
from plain_compass.job.block_kit import kit_of, piece_words
from plain_compass.job.block_report import block_to_plain, order_calendar, order_csv, order_geojson
from plain_compass.job.block_turns import turned_ids, turns_of
from plain_compass.job.block_why import miss_words
from plain_compass.job.demo import demo_coupe, demo_job
from plain_compass.job.document import Job, assess_tree, case_alone, case_of
from plain_compass.job.edits import set_value
from plain_compass.job.fall import Draw, fan_for
from plain_compass.job.files import job_text, parse_job

JOB = demo_job()
COUPE = replace(demo_coupe(), trees=demo_coupe().trees[:9])
"""Nine trees: the demo's coupe is searched for seconds, which tells no more."""


def order_of(job: Job) -> list[str]:
    block, found = planned_block(job)
    return [block.trees[at].id for at in found.plan.order]


def test_only_what_stands_and_is_measured_is_put_in_order() -> None:
    bare = replace(JOB.plan("WH-12"), tree=replace(JOB.plan("WH-12").tree, stand_ins=STAND_INS))
    job = replace(JOB, trees=tuple(bare if each.id == "WH-12" else each for each in JOB.trees))
    block, found = planned_block(job)
    assert {tree.id for tree in block.trees} == {"WH-07", "WH-21"}, "three of the demo's trees are down"
    assert [(id, job.speech.tell(what)) for id, what in block.left_out] == [("WH-12", "not measured yet: the diameter")]
    assert len(found.slots) == 2


def test_a_tree_is_judged_as_if_the_others_did_not_stand_for_they_are_ordered() -> None:
    block = finished(block_in_steps(COUPE))
    assert all(not lay.why.startswith("landing.hang_up") for tree in block.trees for lay in tree.lays)
    assert all(len(tree.lays) == 13 and tree.lays[0].lay_deg == COUPE.plan(tree.id).cut.lay_deg for tree in block.trees)


def test_trees_judged_together_are_what_each_is_by_itself() -> None:
    together = finished(block_in_steps(COUPE)).trees
    for tree in together:
        forget()
        plan = COUPE.plan(tree.id)
        (alone,) = judged([Turning(case_alone(COUPE, plan), True)])
        assert ROUND_MIN + alone.cutting_min == pytest.approx(tree.minutes, rel=1e-9)
        for one, other in zip(alone.lays, tree.lays, strict=True):
            assert (one.takes, one.wedges, one.why, one.lay_deg) == (
                other.takes,
                other.wedges,
                other.why,
                other.lay_deg,
            )
            assert (one.margin, one.pull_N, one.harm) == pytest.approx(
                (other.margin, other.pull_N, other.harm), rel=1e-9
            )


def test_one_tree_that_changes_has_no_other_judged_anew() -> None:
    finished(block_in_steps(COUPE))
    begun = worked_out()["lays of a block's trees"]
    thicker = with_value(COUPE.plan("K-03"), "tree.trunk.diameter_m", 0.31)
    trees = (thicker, *(each for each in COUPE.trees if each.id != "K-03"))
    finished(block_in_steps(replace(COUPE, trees=trees)))
    assert worked_out()["lays of a block's trees"] == begun + 1


def test_an_order_never_goes_against_a_meeting_that_another_order_or_lay_avoids() -> None:
    block, found = planned_block(COUPE)
    assert not any(each.is_broken and each.kind != "breaks" for each in found.against)
    why = place_reasons(block, found, COUPE.speech)
    assert all(line.endswith(("in it", "way out")) or "across" in line for lines in why.values() for line in lines)


def test_the_same_seed_gives_the_same_order() -> None:
    assert planned_block(COUPE, 3)[1] == planned_block(COUPE, 3)[1]


def test_one_dragged_up_comes_before_the_one_it_was_put_before_and_stays_so() -> None:
    order = order_of(COUPE)
    moved = moved_in_order(COUPE, order, order[-1], 0)
    assert [(each.earlier, each.later) for each in moved.block.first] == [(order[-1], order[0])]
    again = order_of(moved)
    assert again.index(order[-1]) < again.index(order[0])
    # Dragged down behind the one it was put before, it is the other way about.
    behind = [each for each in again if each != order[-1]].index(order[0]) + 1
    back = moved_in_order(moved, again, order[-1], behind)
    assert all(
        {each.earlier, each.later} != {order[-1], order[0]} or each.earlier == order[0] for each in back.block.first
    )
    assert let_go(moved).block.first == () and let_go(moved, order[-1]).block.first == ()
    kept = parse_job(job_text(moved), "job").job
    assert kept.block == moved.block


def test_decisions_that_go_round_in_a_circle_are_told_and_not_taken() -> None:
    ids = [plan.id for plan in COUPE.trees[:3]]
    job = moved_in_order(COUPE, [ids[1], ids[0], ids[2]], ids[0], 0)
    job = moved_in_order(job, [ids[0], ids[2], ids[1]], ids[1], 1)
    with pytest.raises(InputError, match="round in a circle"):
        moved_in_order(job, [ids[0], ids[1], ids[2]], ids[2], 0)


def test_a_lay_that_was_fixed_is_the_one_the_tree_gets() -> None:
    first = COUPE.trees[0].id
    job = fixed_lay(COUPE, first, stays=True)
    block, found = planned_block(job)
    at = block.index(first)
    assert block.trees[at].lays[found.plan.lays[at]].lay_deg == COUPE.plan(first).cut.lay_deg
    assert fixed_lay(job, first, stays=False).block == COUPE.block


def test_lays_taken_over_are_the_trees_own_and_ask_for_nothing_more() -> None:
    block, found = planned_block(COUPE)
    job = taken_over(COUPE, block, found)
    for at, tree in enumerate(block.trees):
        assert job.plan(tree.id).cut.lay_deg == tree.lays[found.plan.lays[at]].lay_deg
    assert replace(job, trees=COUPE.trees) == COUPE


def test_a_tree_waits_for_its_season_and_those_that_wait_for_it_with_it() -> None:
    job = demo_coupe()
    block = finished(block_in_steps(job))
    first = next(filter(None, order_in_steps(block, job)))
    days = {block.trees[slot.tree].id: slot.day for slot in first.slots}
    assert days["K-23"] >= 2 and days["K-24"] >= 2
    place = {slot.tree: at for at, slot in enumerate(first.slots)}
    for each in first.against:
        if not each.is_broken:
            assert place[each.other] < place[each.tree]


def test_a_hung_tree_stops_all_work_within_its_reach_until_it_is_down() -> None:
    job = demo_coupe()
    hung = set_value(job, "K-01", "state", "hung")
    block = finished(block_in_steps(hung))
    left = {tree_id: what.key for tree_id, what in block.left_out}
    assert left["K-01"] == "block.hung" and "block.near_hung" in left.values()
    here = job.plan("K-01")
    for plan in job.trees:
        apart_m = math.hypot(plan.at.east_m - here.at.east_m, plan.at.north_m - here.at.north_m)
        # Level or uphill of it the rule's lengths, downhill half as far again.
        if apart_m < 2.0 * here.tree.height_m:
            assert plan.id in left
        if apart_m > 3.0 * here.tree.height_m:
            assert plan.id not in left
    down = set_value(hung, "K-01", "state", "down")
    after = finished(block_in_steps(down))
    assert not after.left_out and len(after.trees) == 23


@pytest.mark.parametrize(("state", "key"), [("off", "block.put_off"), ("over", "block.blown_over")])
def test_one_put_off_or_blown_over_is_left_and_said(state: str, key: str) -> None:
    block, found = planned_block(set_value(COUPE, "K-05", "state", state))
    assert [(tree_id, what.key) for tree_id, what in block.left_out] == [("K-05", key)]
    assert len(found.plan.order) == 8


def test_a_tree_put_off_or_hung_is_still_in_the_way_of_the_others_and_one_blown_over_is_not() -> None:
    job = COUPE
    for state, stands in (("off", True), ("hung", True), ("over", False), ("down", False)):
        names = {o.name for o in case_of(set_value(job, "K-05", "state", state), "K-04").site.obstacles}
        assert any("K-05" in name for name in names) is stands


def test_after_one_is_felled_the_rest_keep_their_order_where_they_can() -> None:
    job = COUPE
    order = order_of(job)
    after = order_of(set_value(job, order[0], "state", "down"))
    place = {tree_id: at for at, tree_id in enumerate(after)}
    rest = order[1:]
    kept = sum(place[a] < place[b] for at, a in enumerate(rest) for b in rest[at + 1 :])
    assert set(after) == set(rest) and kept / (len(rest) * (len(rest) - 1) / 2) > 0.8


@pytest.mark.parametrize(
    ("key", "day", "told"),
    [("not_before", "tomorrow", "2026-09-01"), ("not_after", "2026-02-01", "no day is left between")],
)
def test_days_that_are_none_are_told_and_not_taken(key: str, day: str, told: str) -> None:
    job = decided(demo_coupe(), "K-05", "not_before", "2026-03-01")
    with pytest.raises(InputError, match=told):
        decided(job, "K-05", key, day)
    assert decided(job, "K-05", "not_before", "").block == demo_coupe().block


def test_a_season_that_is_over_leaves_the_tree_and_says_so() -> None:
    over = replace(COUPE, block=BlockWanted(begins="2026-12-01", trees=(OfTree("K-01", not_after="2026-11-01"),)))
    block, found = planned_block(over)
    assert [block.trees[at].id for at in found.late] == ["K-01"] and len(found.slots) == 8


@pytest.mark.parametrize(
    ("job", "told"),
    [
        (replace(COUPE, trees=tuple(with_value(each, "state", "down") for each in COUPE.trees)), "no tree of this job"),
        (
            replace(COUPE, trees=(COUPE.trees[0], replace(COUPE.trees[1], at=COUPE.trees[0].at))),
            "stands where K-01 does",
        ),
        (replace(COUPE, block=BlockWanted(begins="soon")), "written as 2026-09-01"),
        (replace(COUPE, block=BlockWanted(trees=(OfTree("K-01", not_before="1.2.26"),))), "written as 2026-09-01"),
    ],
)
def test_what_cannot_be_planned_is_a_sentence(job: Job, told: str) -> None:
    with pytest.raises(InputError, match=told):
        planned_block(job)


def test_the_order_is_written_as_csv_geojson_and_calendar() -> None:
    block, found = planned_block(COUPE)
    rows = list(csv.DictReader(io.StringIO(order_csv(COUPE, block, found))))
    assert [row["tree"] for row in rows] == [row["tree"] for row in block_to_plain(COUPE, block, found)["order"]]
    lays = json.loads(order_geojson(COUPE, block, found))
    kinds = [feature["properties"]["kind"] for feature in lays["features"]]
    assert kinds.count("lay") == kinds.count("kept away") == 9
    for feature in lays["features"]:
        if feature["properties"]["kind"] == "kept away":
            zone = Polygon(feature["geometry"]["coordinates"][0])
            tree = block.trees[block.index(feature["properties"]["tree"])]
            # By the site's rule; on this slope farther downhill. Counterclockwise, as the format wants its rings.
            assert zone.exterior.is_ccw and zone.is_valid
            assert zone.contains(Point(tree.east_m, tree.north_m).buffer(1.9 * tree.height_m))
            continue
        (east, north), (top_e, top_n) = feature["geometry"]["coordinates"]
        tree = block.trees[block.index(feature["properties"]["tree"])]
        assert ((top_e - east) ** 2 + (top_n - north) ** 2) ** 0.5 == pytest.approx(tree.length_m)
    days = order_calendar(COUPE, block, found)
    assert days.startswith("BEGIN:VCALENDAR\r\n") and days.count("BEGIN:VEVENT") == days.count("END:VEVENT") == 1
    assert "DTSTART;VALUE=DATE:20261201" in days and all(len(line.encode()) <= 75 for line in days.split("\r\n"))
    assert "SUMMARY:Withy Holm\\, the coupe: 9 trees" in days


def test_the_kit_says_what_each_piece_is_for_and_whether_it_is_packed() -> None:
    block, found = planned_block(JOB)
    ids = [block.trees[slot.tree].id for slot in found.slots]
    words = [piece_words(piece, ids, JOB.speech) for piece in kit_of(JOB, block, found)]
    assert any("wedges" in each and "(packed)" in each for each in words)
    bare = replace(JOB, kit=replace(JOB.kit, wedge_count=0, bar_m=0.2))
    words = [piece_words(piece, ids, bare.speech) for piece in kit_of(bare, block, found)]
    assert any("a bar of" in each and "(not packed: without it 3 trees put off)" in each for each in words)
    assert any("wedges" in each and "(not packed: without it" in each for each in words)
    assert kit_of(JOB, block, found, day=99) == ()


def test_a_tree_that_is_down_is_drawn_where_its_top_was_seen_to_lie() -> None:
    job = set_value(COUPE, "K-01", "as_cut.top_deg", 90.0)
    block, found = planned_block(job)
    lays = json.loads(order_geojson(job, block, found))
    lying = next(each for each in lays["features"] if each["properties"]["kind"] == "lies")
    (east, north), (top_e, top_n) = lying["geometry"]["coordinates"]
    assert lying["properties"]["tree"] == "K-01" and top_n == pytest.approx(north) and top_e > east + 3.0


def test_when_a_trees_turn_comes_those_before_it_are_down_and_no_longer_in_its_way() -> None:
    block, found = planned_block(COUPE)
    assert turned_ids(block, found)
    with pytest.raises(InputError, match="take its lays over first"):
        turns_of(COUPE, block, found)
    job = taken_over(COUPE, block, found)
    block, found = planned_block(job)
    turns = turns_of(job, block, found)
    assert [tree_id for _, tree_id in turns] == [block.trees[slot.tree].id for slot in found.slots]
    for place, (then, _) in enumerate(turns):
        assert {plan.id for plan in then.trees if plan.state == "down"} == {tree_id for _, tree_id in turns[:place]}
    last_job, last = turns[-1]
    assert not any("K-" in obstacle.name for obstacle in case_of(last_job, last).site.obstacles)


def test_what_a_miss_does_is_told_on_a_planned_lay_and_said_to_be_unknown_on_another() -> None:
    block, found = planned_block(COUPE)
    turned = block.index(turned_ids(block, found)[0])
    assert "not known on this lay" in miss_words(COUPE, block, found, turned, None)[0]
    own = replace(found, plan=replace(found.plan, lays=(0,) * len(block.trees)))
    assert "being reckoned" in miss_words(COUPE, block, own, turned, None)[0]
    first = own.plan.order[0]
    plan = COUPE.plan(block.trees[first].id)
    fan = fan_for(plan, assess_tree(COUPE, plan.id), Draw(256, 1))
    told = miss_words(COUPE, block, own, first, fan)
    after = {block.trees[at].id for at in own.plan.order[1:]}
    assert told and all(any(tree_id in line for tree_id in after) or "meets none" in line for line in told)
    assert miss_words(COUPE, block, own, own.plan.order[-1], fan) == [COUPE.speech.phrase("block.miss_none")]


def test_a_trees_name_is_no_formula_in_the_order() -> None:
    job = replace(COUPE, trees=(replace(COUPE.trees[0], id="=1+1"), *COUPE.trees[1:3]))
    rows = list(csv.DictReader(io.StringIO(order_csv(job, *planned_block(job)))))
    assert "'=1+1" in [row["tree"] for row in rows] and "=1+1" not in [row["tree"] for row in rows]


def test_what_is_decided_of_an_order_judges_no_lay_anew() -> None:
    order = order_of(COUPE)
    before = worked_out()["lays of a block's trees"]
    for job in (moved_in_order(COUPE, order, order[3], 1), decided(COUPE, "K-05", "not_before", "2027-03-01")):
        planned_block(job)
    planned_block(set_value(COUPE, "K-02", "state", "down"))
    assert worked_out()["lays of a block's trees"] == before
    finished(block_in_steps(set_value(COUPE, "K-02", "cut.lay_deg", 12.0)))
    assert worked_out()["lays of a block's trees"] == before + 1


def test_one_number_for_one_tree_wherever_it_is_told() -> None:
    # K-03 waits for its season and is overtaken; for K-05 there is no day.
    job = decided(decided(COUPE, "K-03", "not_before", "2026-12-04"), "K-05", "not_after", "2026-11-30")
    block, found = planned_block(job)
    felled = [block.trees[slot.tree].id for slot in found.slots]
    order = [block.trees[at].id for at in found.plan.order]
    assert order == [*felled, "K-05"] and felled.index("K-03") > 0
    assert [row["tree"] for row in block_to_plain(job, block, found)["order"]] == felled
    assert {each.id: each.number for each in drawn_trees(job, block, found)} == {
        **{tree_id: number for number, tree_id in enumerate(felled, 1)},
        "K-05": 0,
    }
    place = {at: number for number, at in enumerate(found.plan.order)}
    assert all(
        each.is_broken is (place[each.tree] < place[each.other]) for each in found.against if each.kind != "breaks"
    )
