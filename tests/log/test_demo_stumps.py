"""The demo's stumps: made from a stated truth, which is found again; what they teach changes plans and says so."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from plain_compass.core.assess import assess
from plain_compass.core.base.steps import finished
from plain_compass.core.fall.fan import Fan
from plain_compass.core.stump.hand import Hand
from plain_compass.core.stump.quantities import Known
from plain_compass.core.stump.reliability import in_fan_share, reliability
from plain_compass.job.demo import demo_job
from plain_compass.job.document import assess_tree
from plain_compass.job.fall import Draw, fan_for
from plain_compass.job.hand_edits import as_shipped, use_in_plans
from plain_compass.job.learned_words import hand_words, known_words
from plain_compass.job.log_entries import case_of_entry, constants_of
from plain_compass.job.made_fallers import FALLERS
from plain_compass.job.report import assessment_to_plain
from plain_compass.job.spreads import judged_tree
from plain_compass.job.stamp import constants_text
from plain_compass.job.tables import indicative
from plain_compass.log.backtest import backtest_in_steps
from plain_compass.log.places import demo_log
from plain_compass.log.records import known_in, records_of
from plain_compass.log.stats import near_misses, summary_of
from plain_compass.log.store import Filter, StumpLog

LOG = demo_log()


def known_of(faller: str, log: StumpLog = LOG) -> dict[str, Known]:
    return {each.key: each for each in known_in(log, Filter(faller=faller))}


@pytest.mark.parametrize("faller", FALLERS)
@pytest.mark.parametrize(("key", "habit"), [("aim", "aim_deg"), ("hinge_left", "left_m"), ("hinge_right", "right_m")])
def test_what_is_true_of_a_made_up_faller_is_found_again(faller: str, key: str, habit: str) -> None:
    """Within the interval that holds nine in ten, or by no more than the prior's share of the way."""
    truth, known = getattr(FALLERS[faller], habit)[0], known_of(faller)[key]
    assert known.normal is not None and known.count == 20
    low, high = known.normal.interval(0.9)
    pulled = abs(truth) * 5.0 / 25.0
    assert low - pulled <= truth <= high + pulled


def test_heights_are_found_to_be_taken_too_high_and_blows_to_drive_more() -> None:
    wren, tarn = known_of("Wren"), known_of("Tarn")
    assert 0.04 < wren["height:typed"].used("Wren").mean < 0.10
    assert abs(tarn["height:typed"].used("Tarn").mean) < 0.04
    assert tarn["blows"].used("Tarn").mean > 1.1, "held back by its prior, which is worth ten"


def test_a_stump_is_judged_again_as_it_was_told_by_the_constants_frozen_with_it() -> None:
    for entry in list(LOG.entries())[:6]:
        wedging = assess(case_of_entry(entry, constants_of(entry))).parts.wedging
        assert (entry.told.blows, entry.told.lift_m) == pytest.approx((wedging.blows, wedging.lift_m))
    harder = replace(constants_of(entry), blow_efficiency=1.2)
    assert assess(case_of_entry(entry, harder)).parts.wedging.blows == pytest.approx(wedging.blows / 2)
    other = replace(entry, constants_used=constants_text(harder))
    assert (
        constants_of(other).blow_efficiency == 1.2 and constants_of(replace(entry, constants_used="")) == indicative()
    )


def test_each_is_learned_from_alone() -> None:
    assert known_of("Wren")["aim"].used("Wren").mean > known_of("Tarn")["aim"].used("Tarn").mean + 0.8
    assert known_of("nobody")["aim"].count == 0


def test_a_plan_made_by_ones_own_hand_has_its_fan_moved_and_says_so() -> None:
    job = demo_job()
    used = known_of("Wren")["aim"].used("Wren")
    learned = use_in_plans(job, used)
    plan, result = job.plan("WH-07"), assess_tree(job, "WH-07")
    shipped, own = (fan_for(plan, result, Draw(512), each.hand) for each in (job, learned))
    assert own.off_deg[1] - shipped.off_deg[1] == pytest.approx(used.mean, abs=0.5)
    narrow = replace(used, spread=0.7)
    assert _width(fan_for(plan, result, Draw(512), Hand((narrow,)))) < _width(shipped)
    facts = [f.id for f in assess_tree(learned, "WH-07").findings if f.id == "learned.used"]
    assert facts == ["learned.used"] and not any(f.id == "learned.used" for f in result.findings)
    assert hand_words(learned.hand, job.speech) == "From your 20 stumps: aiming the face."
    again, chances = judged_tree(learned, "WH-07")
    told = assessment_to_plain(learned, plan, again, chances)
    assert any(each["id"] == "learned.used" for each in told["findings"])
    assert as_shipped(learned, "aim") == job


def _width(fan: Fan) -> float:
    return fan.off_deg[2] - fan.off_deg[0]


def test_what_is_learned_of_the_hinge_moves_the_chances_of_its_limits() -> None:
    """Ends cut 1 cm too thin by habit: the hinge fails to hold sooner than as shipped."""
    job, used = demo_job(), known_of("Tarn")["hinge_right"].used("Tarn")
    thin = use_in_plans(use_in_plans(job, replace(used, mean=-0.01)), replace(used, key="hinge_left", mean=-0.01))
    plain, learned = judged_tree(job, "WH-12")[1], judged_tree(thin, "WH-12")[1]
    assert learned.beta("hinge.side") < plain.beta("hinge.side") - 0.2


def test_taking_heights_too_tall_makes_the_tree_likely_lower() -> None:
    job, used = demo_job(), known_of("Wren")["height:typed"].used("Wren")
    plan, result = job.plan("WH-12"), assess_tree(job, "WH-12")
    shipped, own = (fan_for(plan, result, Draw(512), each.hand) for each in (job, use_in_plans(job, used)))
    assert own.reach_m[1] < shipped.reach_m[1] - 0.02 * plan.tree.height_m


def test_factors_move_the_constants_and_no_farther_than_three_times() -> None:
    job, blows = demo_job(), known_of("Tarn")["blows"].used("Tarn")
    harder, plain = (assess_tree(each, "WH-07").parts.wedging.blows for each in (use_in_plans(job, blows), job))
    assert harder == pytest.approx(plain / blows.mean, rel=0.02)
    wild = use_in_plans(job, replace(blows, mean=50.0))
    assert assess_tree(wild, "WH-07").parts.wedging.blows == pytest.approx(plain / 3.0, rel=0.05)


def test_the_back_test_tells_each_stump_by_the_ones_before_it_alone() -> None:
    wanted = Filter(faller="Wren")
    entries, records = list(LOG.entries(wanted)), records_of(LOG, wanted)
    tested = finished(backtest_in_steps(entries, records, "Wren"))
    assert tested.count == 17 and tested.after > tested.before, "he aims left, which is learned"
    first = finished(backtest_in_steps(entries[:6], records.first(6), "Wren"))
    assert first.count == 3


def test_chances_are_gathered_by_how_large_they_were() -> None:
    records = records_of(LOG)
    told = reliability(records)
    assert sum(each.count for each in told) == 120 and all(each.low <= each.told <= each.high for each in told)
    inside, count = in_fan_share(records)
    assert count == 40 and inside <= count


def test_a_record_left_out_is_not_learned_from_and_stays_in_the_list() -> None:
    log = demo_log()
    number = log.listed(Filter(faller="Wren"))[0][0]
    before = known_of("Wren", log)["aim"]
    log.leave_out(number, "aim", out=True)
    after = known_of("Wren", log)["aim"]
    assert (before.count, after.count) == (20, 19) and len(after.values) == 20
    assert known_of("Wren", log)["hinge_left"].count == 20
    rest = np.delete(before.values, before.rows.tolist().index(0)).mean() * 19 / 24
    assert after.normal is not None and after.normal.mean == pytest.approx(rest)


def test_a_record_far_from_the_others_is_marked() -> None:
    log = demo_log()
    entry = log.entry("withy-holm-01")
    assert entry is not None
    cut = entry.plan.cut
    wild = replace(entry.plan.as_cut, towards_deg=(cut.gun_deg - 25.0) % 360)
    log.correct(replace(entry, plan=replace(entry.plan, as_cut=wild)))
    known = known_of("Wren", log)["aim"]
    assert known.marked.sum() == 1 and known.values[known.marked][0] == pytest.approx(25.0)


def test_day_and_year_count_what_was_felled_and_list_what_was_too_close() -> None:
    whole, one = summary_of(LOG), summary_of(LOG, Filter(faller="Wren", since="2026-01-01", until="2026-12-31"))
    assert (whole.count, whole.by["faller"]) == (40, {"Tarn": 20, "Wren": 20})
    assert 0 < one.count < 20 and set(one.by["faller"]) == {"Wren"}
    near = near_misses(LOG, whole)
    assert [each.day for each in near] == sorted((each.day for each in near), reverse=True)
    assert any("branch" in " ".join(each.happened) for each in near)
    assert len(near) == len(whole.near)
    assert not any("Wren" in f"{each}" or "Tarn" in f"{each}" for each in near), "who it was is left out"


def test_every_quantity_is_told_in_a_sentence_in_both_units() -> None:
    for units in ("metric", "imperial"):
        speech = replace(demo_job(), units=units).speech
        for known in known_of("Wren").values():
            told = known_words(known, speech)
            assert told.endswith(".") and ("stumps" in told) == (known.count > 0)
