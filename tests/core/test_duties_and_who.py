"""Duties that are ticked for what they were done for, and whose tree it is: difficulty and a person's stated limits."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import pytest

from builders import assessed, case, finding, finding_ids, plain_cut, round_tree, told
from plain_compass.core.assess import assess, with_duties_done, with_person
from plain_compass.core.base.levels import FindingKind
from plain_compass.core.judge.findings import Done
from plain_compass.core.judge.who import GRADES, Grade, Stated, difficulty_of
from plain_compass.core.site.site import Site
from plain_compass.core.tree.tree import Decay
from plain_compass.job.demo import demo_job
from plain_compass.job.document import assess_tree
from plain_compass.job.edits import set_value, tick
from plain_compass.job.files import read_job, write_job
from plain_compass.job.words import Speech

TOGETHER = Stated(trained="hard", company="together")


def test_every_plan_asks_for_two_ways_out_and_a_zone_without_people() -> None:
    duties = [f for f in assessed().findings if f.kind == FindingKind.DUTY]
    assert [f.id for f in duties] == ["duty.ways", "duty.people"]
    assert all(f.is_open and f.level == "clear" and f.margin is None for f in duties)


def test_a_duty_done_for_one_lay_is_to_do_again_for_another() -> None:
    result = assess(case())
    ways = finding(result, "duty.ways")
    done = (Done("duty.ways", ways.about, "AB", "2026-11-26 08:10"),)
    assert finding(with_duties_done(result, done), "duty.ways").done == done[0]
    turned = assess(case(cut=plain_cut(lay_deg=40.0)))
    assert finding(with_duties_done(turned, done), "duty.ways").is_open
    nearly = assess(case(cut=plain_cut(lay_deg=2.0)))
    assert not finding(with_duties_done(nearly, done), "duty.ways").is_open


def test_ticks_are_kept_in_the_file_taken_back_and_told_in_the_verdict(tmp_path: Path) -> None:
    job = demo_job()
    before = assess_tree(job, "WH-07").verdict.duties
    duty = finding(assess_tree(job, "WH-07"), "duty.people")
    ticked = tick(job, "WH-07", duty, "AB", "2026-11-26 08:10")
    write_job(tmp_path / "job.pcjob.json", ticked)
    again = read_job(tmp_path / "job.pcjob.json").job
    assert again.plan("WH-07").duties == (Done("duty.people", duty.about, "AB", "2026-11-26 08:10"),)
    assert assess_tree(again, "WH-07").verdict.duties == before - 1
    assert assess_tree(again, "WH-12").verdict.duties == assess_tree(job, "WH-12").verdict.duties
    undone = tick(again, "WH-07", finding(assess_tree(again, "WH-07"), "duty.people"), "AB", "2026-11-26 08:12")
    assert undone.plan("WH-07").duties == ()


@pytest.mark.parametrize(("company", "level"), [("alone", "stop"), ("not said", "unknown"), ("together", "clear")])
def test_felling_alone_is_a_stop_and_unsaid_is_to_be_said(company: str, level: str) -> None:
    result = with_person(assess(case()), replace(TOGETHER, company=company))
    assert finding(result, "who.company").level == level


def test_a_tree_past_what_a_person_is_trained_for_says_so_with_its_reasons() -> None:
    leaner = assess(case(round_tree(lean__angle_deg=25.0)))
    plain = with_person(leaner, Stated(trained="plain", company="together"))
    past = finding(plain, "who.trained")
    assert past.level == "stop" and plain.verdict.level == "stop"
    assert "leans" in told(past.sentence) and "hard" in told(past.sentence)
    assert finding(with_person(leaner, TOGETHER), "who.trained").level == "clear"
    assert finding(with_person(leaner, Stated(company="together")), "who.trained").level == "unknown"


def test_a_stem_thicker_than_a_person_says_is_a_stop() -> None:
    result = assess(case())
    assert finding(with_person(result, replace(TOGETHER, biggest_m=0.3)), "who.stem").level == "stop"
    assert "who.stem" not in finding_ids(with_person(result, replace(TOGETHER, biggest_m=0.5)))


def test_difficulty_rises_with_what_makes_a_tree_hard_and_never_falls() -> None:
    grades = [difficulty_of(assessed(round_tree(lean__angle_deg=angle))).grade for angle in (6.0, 9.0, 13.0, 25.0)]
    places = [GRADES.index(grade) for grade in grades]
    assert places == sorted(places)
    assert (grades[0], grades[-1]) == (Grade.PLAIN, Grade.HARD)
    hollow = difficulty_of(assessed(round_tree(decay=Decay(kind="cavity", radius_m=0.15))))
    assert hollow.grade == Grade.HARD and any(words.key == "grade.shell" for _, words in hollow.reasons)
    hung = difficulty_of(assessed(round_tree(around__hung_pieces="yes")))
    assert hung.grade == Grade.SPECIALIST
    steep = difficulty_of(assess(replace(case(), site=Site(slope_deg=30.0))))
    assert steep.grade == Grade.HARD


def test_the_verdict_is_ready_when_its_duties_are_done_and_never_says_more() -> None:
    speech, result = Speech(), assess(case())
    quiet = tuple(f for f in result.findings if f.level == "clear")
    from plain_compass.core.judge.findings import verdict_of

    text = speech.verdict(verdict_of(quiet))
    assert text.startswith("Ready when 2 duties are done")
    done = tuple(replace(f, done=Done(f.id)) if f.kind == FindingKind.DUTY else f for f in quiet)
    assert speech.verdict(verdict_of(done)).startswith("Nothing reckoned or seen stands against it")
    assert "safe" not in text.lower()


def test_ground_looked_at_and_found_empty_settles_what_nobody_drew() -> None:
    job = demo_job()
    bare = replace(job, site=Site(wind_m_s=0.0), trees=job.trees[:1])
    asked = {f.id for f in assess_tree(bare, "WH-07").findings if f.kind == FindingKind.UNKNOWN}
    assert {"way_out.not_judged", "landing.not_judged", "landing.ground_not_judged"} <= asked
    looked = set_value(bare, "WH-07", "site.looked", "yes")
    assert not {f.id for f in assess_tree(looked, "WH-07").findings if f.kind == FindingKind.UNKNOWN}
