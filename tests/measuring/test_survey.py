"""What to measure better: real sensitivities of the least margin, told in a sentence."""

from __future__ import annotations

from dataclasses import replace

import pytest

from builders import assessed, case, plain_cut, round_tree
from plain_compass.app.frame.window import Window
from plain_compass.core.advice.survey import least_margin, survey
from plain_compass.core.assess import assess
from plain_compass.core.base.paths import value_at, with_value
from plain_compass.core.tree.moved import ACROSS, moved
from plain_compass.job.demo import demo_job
from plain_compass.job.document import assess_tree, case_of
from plain_compass.job.edits import set_value
from plain_compass.job.spreads import judged_tree, measure_better, named_input, usual_spreads
from plain_compass.job.words import Speech

BACK = round_tree(lean__angle_deg=2.0, lean__bearing_deg=180.0)
DRIVEN = plain_cut(goes_on="wedges")
"""Nothing but the wedges placed: what they lift rules, and the lean with it."""
BY_EYE = replace(BACK, lean=replace(BACK.lean, method="eye"))


def test_an_effect_is_the_slope_times_the_spread_where_the_margin_is_smooth() -> None:
    """Against a finite difference taken a hundred times closer."""
    made = case(BACK)
    (found,) = survey(made, {"tree.lean.angle_deg": 0.02})

    def margin(angle: float) -> float:
        return least_margin(assess(replace(made, tree=with_value(made.tree, "lean.angle_deg", angle))))

    slope = (margin(2.0002) - margin(1.9998)) / 0.0004
    assert found.effect == pytest.approx(abs(slope) * 0.02, rel=0.02)


def test_an_effect_is_the_larger_of_both_ways() -> None:
    """Near a limit one way may do nothing and the other much: neither is left out."""
    worse_down = 0
    made = case(BACK)
    for path, spread in usual_spreads(BY_EYE).items():
        (found,) = survey(made, {path: spread})
        ways = []
        for sign in (1, -1):
            tree = moved(made.tree, path.removeprefix("tree."), sign * spread)
            ways.append(abs(least_margin(assess(replace(made, tree=tree))) - least_margin(assess(made))))
        assert found.effect == pytest.approx(max(ways))
        worse_down += ways[1] > ways[0] + 1e-6
    assert worse_down


def test_the_most_harmful_input_comes_first() -> None:
    found = survey(case(BY_EYE, DRIVEN), usual_spreads(BY_EYE))
    effects = [each.effect for each in found]
    assert effects == sorted(effects, reverse=True)
    assert found[0].path == "tree.lean.angle_deg"


def test_a_lean_by_eye_matters_more_than_one_by_plumb() -> None:
    by_eye = replace(BACK, lean=replace(BACK.lean, method="eye"))
    eye, plumb = (
        next(s.effect for s in survey(case(t, DRIVEN), usual_spreads(t)) if s.path == "tree.lean.angle_deg")
        for t in (by_eye, BACK)
    )
    assert eye > 2 * plumb


def test_an_input_that_cannot_be_moved_one_way_is_judged_by_the_other() -> None:
    tight = round_tree(crown__base_m=14.8)
    (found,) = survey(case(tight), {"tree.crown.base_m": 1.0})
    assert found.effect >= 0.0


def test_what_is_exact_moves_nothing() -> None:
    (found,) = survey(case(BACK), {"tree.height_m": 0.0})
    assert found.effect == 0.0


def test_every_spread_belongs_to_an_input_that_is_there() -> None:
    job = demo_job()
    made = case_of(job, "WH-07")
    spreads = usual_spreads(made.tree)
    assert "tree.decay.radius_m" in spreads and "tree.trunk.butt_diameter_m" in spreads
    assert all(isinstance(value_at(made, path), float) for path in spreads if path != f"tree.{ACROSS}")
    assert spreads[f"tree.{ACROSS}"] == spreads["tree.lean.angle_deg"]
    assert "tree.decay.radius_m" not in usual_spreads(BACK)


def test_the_sentence_names_the_input_as_people_do() -> None:
    speech = Speech()
    job = set_value(set_value(demo_job(), "WH-18", "tree.lean.method", "eye"), "WH-18", "cut.goes_on", "wedges")
    result, chances = judged_tree(job, "WH-18")
    sentence = measure_better(job.plan("WH-18"), result, chances, speech)
    assert "lean. A plumb line from two sides would make balance clear" in sentence
    assert named_input(BACK, "tree.crown.readings.1.radius_m", speech) == "crown edge east"
    assert measure_better(job.plan("WH-18"), result, None, speech) == ""


def test_the_window_names_it_once_the_hands_are_still(window: Window) -> None:
    window.store.set("cut.goes_on", "wedges", "goes on")
    window.side.survey.compute()
    assert "Most worth measuring better" in window.side.survey.text()
    window.store.preview({"cut.face.depth_m": 0.13})
    before = window.side.survey.text()
    window.side.survey.compute()
    assert window.side.survey.text() == before
    window.store.abandon()


def test_the_least_margin_is_one_of_the_findings() -> None:
    result = assess_tree(demo_job(), "WH-07")
    assert least_margin(result) in [f.margin for f in result.findings]
    assert least_margin(assessed()) <= 1.0
