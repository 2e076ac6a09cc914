"""Passes of the bar, mistakes played in, suggestions, and practices as files."""

from __future__ import annotations

import json
import math
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon
from shapely.ops import unary_union

from builders import assessed, case, finding, finding_ids, plain_cut, round_tree, told
from plain_compass.cli import main
from plain_compass.core.advice.faults import FAULTS, play
from plain_compass.core.advice.suggest import _Search, _shifted, suggest
from plain_compass.core.advice.survey import least_margin
from plain_compass.core.assess import Assessment, assess
from plain_compass.core.base.paths import with_value
from plain_compass.core.base.polygon import clip
from plain_compass.core.cuts.stages import stages_of, states_at, sweep_of
from plain_compass.core.design.cut import BackCut
from plain_compass.core.judge.bar import bar_plan_of
from plain_compass.core.mechanics.bar import NICKS_DEG
from plain_compass.core.mechanics.hinge import hinge_outline
from plain_compass.job.demo import demo_job
from plain_compass.job.document import assess_tree
from plain_compass.job.practice_files import PracticeError, practice_from, practice_text
from plain_compass.job.tables import disagreements, forget_tables, practices


def with_bar(bar_m: float, diameter: float = 0.4, **cut: object) -> Assessment:
    tree = round_tree(trunk__diameter_m=diameter, trunk__butt_diameter_m=diameter, trunk__bark_m=0.01, height_m=20.0)
    return assessed(tree, plain_cut(**cut), bar_m=bar_m)


def kerf_of(result: Assessment) -> Polygon:
    face, hinge = result.parts.face, result.case.cut.hinge
    slope = (hinge.left_m - hinge.right_m) / face.hinge_length_m
    offset = face.hinge_front_m - hinge.right_m + slope * face.end_right_m
    return Polygon(clip(result.parts.section.wood, 1.0, slope, offset)).buffer(0)


# The bar ---------------------------------------------------------------------------------------------------


@settings(max_examples=40)
@given(st.floats(0.15, 0.9), st.floats(0.3, 0.9), st.floats(0.02, 0.05), st.floats(0.02, 0.05))
def test_passes_cover_the_kerf_and_spare_the_hinge(bar: float, diameter: float, left: float, right: float) -> None:
    result = with_bar(bar, diameter, hinge__left_m=left, hinge__right_m=right)
    plan = bar_plan_of(result)
    kerf = kerf_of(result)
    swept = unary_union([Polygon(one.outline).buffer(0) for one in plan.passes if len(one.outline) >= 3])
    corner = Polygon(plan.corner).buffer(0) if len(plan.corner) >= 3 else Polygon()
    missed = kerf.difference(swept.union(corner).buffer(0.006))
    assert missed.area < 0.02 * kerf.area
    hinge = Polygon(hinge_outline(result.parts.section, result.parts.face, result.case.cut)).buffer(-0.006)
    assert swept.intersection(hinge).area < 1e-4
    reaches = 2 * plan.reach_m >= result.parts.section.width_m - 0.002
    assert (plan.corner_share < 0.003) == reaches or plan.corner_share < 0.01


def test_a_long_bar_takes_one_pass_and_a_short_one_two_with_the_second_lower() -> None:
    one, two = bar_plan_of(with_bar(0.6)).passes, bar_plan_of(with_bar(0.25)).passes
    assert [p.side for p in one] == ["right"]
    assert [p.side for p in two] == ["right", "left"]
    assert two[1].lower_m > two[0].lower_m
    assert two[0].entry_left_m < two[0].nose_left_m
    assert "step over" in told(two[1].stand)


def test_bark_eats_reach_unless_it_is_shaved() -> None:
    thick = with_value(with_bar(0.4).case, "tree.trunk.bark_m", 0.03)
    shaved = with_value(thick, "cut.back.shaved", "yes")
    assert bar_plan_of(assess(shaved)).reach_m - bar_plan_of(assess(thick)).reach_m == pytest.approx(0.03)


def test_a_heart_bore_takes_the_middle_that_neither_side_reaches() -> None:
    short = with_bar(0.2, 0.5)
    assert bar_plan_of(short).corner_share > 0.01
    assert finding(short, "bar.reach").level == "stop"
    bored = with_value(with_value(short.case, "cut.hinge.form", "heart"), "cut.hinge.heart_m", 0.2)
    plan = bar_plan_of(assess(bored))
    assert [p.side for p in plan.passes] == ["right", "left", "face"]
    assert plan.corner_share < bar_plan_of(short).corner_share


def test_a_heart_bore_leaves_the_bar_less_to_reach_across() -> None:
    """Half a metre of wood less 20 cm bored through the face, from two sides of 19 cm each."""
    plain = with_bar(0.2, 0.5)
    heart = with_value(with_value(plain.case, "cut.hinge.form", "heart"), "cut.hinge.heart_m", 0.2)
    across, reach = plain.parts.section.width_m, bar_plan_of(plain).reach_m
    assert finding(plain, "bar.reach").use == pytest.approx(across / (2 * reach), rel=1e-6)
    assert finding(assess(heart), "bar.reach").use == pytest.approx((across - 0.2) / (2 * reach), rel=1e-6)


def test_a_bore_out_of_line_is_off_by_its_angle_at_the_far_end_and_through_a_thin_hinge_it_is_a_stop() -> None:
    result = with_bar(0.6, back=BackCut("bored", 0.03, 0.05))
    plan = bar_plan_of(result)
    length = result.parts.section.width_m
    assert plan.far_m == pytest.approx(length * math.tan(math.radians(NICKS_DEG)), rel=0.02)
    thin = with_bar(0.6, back=BackCut("bored", 0.03, 0.05), hinge__left_m=0.012, hinge__right_m=0.012)
    assert (finding(result, "bar.nick").level, finding(thin, "bar.nick").level) == ("clear", "stop")
    assert "bar.nick" not in finding_ids(with_bar(0.6))


# Mistakes --------------------------------------------------------------------------------------------------


@pytest.mark.parametrize("fault", FAULTS, ids=lambda fault: fault.key)
def test_every_mistake_can_be_played_into_every_demo_tree_and_says_what_mends_it(fault: object) -> None:
    for plan in demo_job().trees:
        played = play(assess_tree(demo_job(), plan.id), fault)  # type: ignore[arg-type]
        assert told(played.fault.mends).endswith(".")
        assert played.result is None or played.result.case != assess_tree(demo_job(), plan.id).case


def test_an_overcut_is_worse_and_a_perfect_cut_is_not() -> None:
    by_key = {fault.key: fault for fault in FAULTS}
    worse = {f.id for f in play(assessed(), by_key["floor-overcut"]).worse}
    assert {"face.overcut", "split.index"} & worse
    thin = with_bar(0.6, back=BackCut("bored", 0.03, 0.06))
    leaning = assess(with_value(with_value(thin.case, "tree.lean.angle_deg", 12.0), "tree.lean.bearing_deg", 0.0))
    assert any(f.id == "split.strap" for f in play(leaning, by_key["thin-strap"]).worse)


def test_rot_met_while_boring_shows_in_the_shell_and_in_the_hinge() -> None:
    fault = next(f for f in FAULTS if f.key == "rot")
    assert {"decay.shell", "decay.hinge"} & {f.id for f in play(assessed(), fault).worse}


# Suggestions -----------------------------------------------------------------------------------------------


def test_suggestions_hold_by_these_numbers_are_unlike_and_say_what_they_give_up() -> None:
    found = suggest(assess_tree(demo_job(), "WH-12"))
    assert found is not None and len(found.best) == 3
    assert len({each.forms[1:] for each in found.best}) == 3
    for each in found.best:
        assert not each.stops
        assert assess(each.result.case).verdict.level == each.result.verdict.level
        assert "posts" not in each.forms and "slot" not in each.forms
    margins = [each.margin for each in found.best]
    assert all(m > 0 for m in margins)


def test_where_nothing_is_good_enough_it_says_so_and_names_the_nearest() -> None:
    hopeless = case(round_tree(lean__angle_deg=25.0, lean__bearing_deg=180.0), wedge_count=1)
    found = suggest(assess(hopeless))
    assert found is not None and found.best == ()
    assert found.nearest is not None and found.nearest.stops


def test_a_search_is_cancelled_when_it_is_told_to_and_tells_how_far_it_is() -> None:
    told: list[float] = []
    assert suggest(assessed(), lambda share: told.append(share) or len(told) < 5) is None  # type: ignore[func-returns-value]
    assert told == sorted(told) and len(told) == 5


def test_a_margin_won_by_depth_alone_counts_half() -> None:
    won = 0
    for tree in ("WH-07", "WH-12", "WH-18", "WH-24"):
        search = _Search(assess_tree(demo_job(), tree), None)
        for start in search.tried([("open", "strip", "plain"), ("conventional", "strip", "bored")]):
            deeper = assess(_shifted(start, (0.8, 0.0)))
            plain, told = least_margin(deeper), search._moved(start, (0.8, 0.0), deeper).margin
            if plain > start.margin:
                won += 1
                assert told == pytest.approx((start.margin + plain) / 2)
            else:
                assert told == pytest.approx(plain)
    assert won


def test_suggestions_stay_within_the_depths_of_the_practice() -> None:
    found = suggest(assess_tree(demo_job(), "WH-12"))
    assert found is not None
    for each in found.best:
        _low, high = each.result.case.practice.face_depth_ratio
        if each.forms[0] not in ("flare",):
            assert each.result.parts.face.depth_ratio <= high + 0.01


# Practices -------------------------------------------------------------------------------------------------


@pytest.mark.parametrize("key", sorted(practices()))
def test_every_practice_goes_to_its_file_and_back_and_assesses_the_demo(key: str) -> None:
    practice = practices()[key]
    assert practice_from(practice_text(practice), "mine.json") == practice
    result = assess(with_value(case(), "practice", practice))
    assert result.verdict.level in ("clear", "watch", "stop", "unknown")


def test_schools_differ_in_when_they_bore() -> None:
    leaning = case(round_tree(lean__angle_deg=6.0, lean__bearing_deg=0.0))
    told = {
        key: "split.bore" in finding_ids(assess(with_value(leaning, "practice", practice)))
        for key, practice in practices().items()
    }
    assert told["always-bored"] and told["quarter-to-third"]
    assert not told["axe-half"]


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"face_depth_ratio": [0.4, 0.2]}, "lower one first"),
        ({"hinge_ratio": [0.1]}, "two numbers"),
        ({"opening_default_deg": "wide"}, "opening_default_deg is 'wide'"),
        ({"bore_when": "sometimes"}, "always, forward lean"),
        ({"name": ""}, "name is ''"),
        ({"step_m": [0.0, 9.0]}, "0.0 to 0.3"),
    ],
)
def test_a_practice_that_cannot_be_is_refused_by_its_field(change: dict, words: str) -> None:
    raw = json.loads(practice_text(practices()["fifth-and-tenth"])) | change
    with pytest.raises(PracticeError, match=words):
        practice_from(json.dumps(raw), "mine.json")


@given(st.recursive(st.none() | st.booleans() | st.floats() | st.text(), lambda inner: st.lists(inner), max_leaves=6))
def test_any_file_is_a_practice_or_refused_in_a_sentence(content: object) -> None:
    with pytest.raises(PracticeError):
        practice_from(json.dumps({"key": content}), "odd.json")


def test_every_disagreement_has_schools_a_choice_and_a_reason() -> None:
    assert len(disagreements()) == 11
    for row in disagreements():
        assert len(row["schools"]) >= 2 and row["choice"] and row["reason"].endswith(".")


# The command line ------------------------------------------------------------------------------------------


def test_stages_in_json_have_what_is_asked_of_them(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["stages", "demo", "--tree", "WH-12", "--json"]) == 0
    whole = json.loads(capsys.readouterr().out)
    wanted = {"uncut_area_m2", "side_utilisation", "split_index", "bar_free", "sits_back", "stop_if"}
    assert all(set(stage) >= wanted for stage in whole["stages"])
    assert len(whole["sweep"]["progress"]) == len(whole["sweep"]["split_index"]) == 200
    assert {fault["key"] for fault in whole["faults"]} == {fault.key for fault in FAULTS}


def test_cuts_suggest_and_practices_answer(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path / "config"))
    forget_tables()
    assert main(["cuts"]) == 0
    assert "slot lock  (specialist)" in capsys.readouterr().out
    assert main(["suggest", "demo", "--tree", "WH-18", "--json"]) == 0
    assert 1 <= len(json.loads(capsys.readouterr().out)["best"]) <= 3
    assert main(["suggest", "demo", "--tree", "WH-18"]) == 0
    assert "1. " in capsys.readouterr().out
    mine = tmp_path / "mine.json"
    assert main(["practices", "--save", "four-fifths", str(mine)]) == 0
    raw = json.loads(mine.read_text()) | {"key": "mine", "name": "My own"}
    mine.write_text(json.dumps(raw))
    assert main(["practices", "--add", str(mine)]) == 0
    forget_tables()
    assert practices()["mine"].name == "My own"
    assert main(["practices", "--json"]) == 0
    assert len(json.loads(capsys.readouterr().out.split("\n", 2)[2])["disagreements"]) == 11
    forget_tables()


def test_numbers_of_a_sweep_are_finite() -> None:
    states = sweep_of(assess_tree(demo_job(), "WH-21")).states
    assert all(np.isfinite(getattr(states, name)).all() for name in ("standing", "side_utilisation", "split_index"))


# Kit and caches --------------------------------------------------------------------------------------------


def test_a_blow_comes_from_the_maul_and_its_swing_or_is_typed() -> None:
    kit = case().kit
    assert kit.blow_J == kit.maul_J
    heavy = with_value(with_value(kit, "maul_kg", 3.0), "swing", "full")
    assert heavy.blow_J == pytest.approx(0.5 * 3.0 * 8.0**2)
    blows = [with_value(heavy, "swing", swing).blow_J for swing in ("short", "full", "over")]
    assert blows == sorted(blows)
    back = case(round_tree(lean__angle_deg=3.0, lean__bearing_deg=180.0))
    light, strong = (assess(with_value(with_value(back, "kit.maul_kg", kg), "kit.swing", "full")) for kg in (1.5, 4.0))
    assert light.parts.wedging.blows > strong.parts.wedging.blows


def test_equal_trees_and_sites_have_equal_hashes_and_unequal_ones_are_told_apart() -> None:
    one, other = round_tree(), round_tree()
    assert one == other and hash(one) == hash(other) and len({one, other}) == 1
    taller = with_value(one, "height_m", 16.0)
    assert taller != one and hash(taller) != hash(one)
    assert hash(with_value(taller, "height_m", one.height_m)) == hash(one)


def test_a_coarser_sweep_agrees_with_every_slice() -> None:
    result = assess_tree(demo_job(), "WH-21")
    sweep = sweep_of(result)
    kept = [stage.kept for stage in stages_of(result)]
    fine, coarse = states_at(result, kept), states_at(result, kept, every=4)
    assert coarse.uncut_area_m2 == pytest.approx(fine.uncut_area_m2, rel=0.03)
    assert coarse.standing == pytest.approx(fine.standing, rel=0.06, abs=0.01)
    assert coarse.split_index == pytest.approx(fine.split_index, rel=0.1, abs=0.01)
    assert sweep.progress[0] == 0.0 and sweep.progress[-1] == 1.0 == sweep.ends[-1]
