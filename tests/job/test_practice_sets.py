"""Cases and sets of practice: the truth is the core's, files are checked like jobs, answers scored, names taken out."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path

import pytest

from plain_compass.core.assess import assess
from plain_compass.core.base.errors import InputError
from plain_compass.core.base.levels import Level
from plain_compass.core.fall.nominal import falls_beside_deg, nominal_fall
from plain_compass.core.practice.look import look_truth
from plain_compass.core.practice.now import BY_KEY as SIGNS
from plain_compass.core.practice.now import GO_ON, LEAVE, now_truth, ruling_of
from plain_compass.core.practice.skills import SKILLS, Task
from plain_compass.core.practice.stumps import FAULTS_BY_LEVEL, LEAST_SHARE, STEERS, stump_truth
from plain_compass.core.stump.as_cut import case_as
from plain_compass.job.demo import demo_job
from plain_compass.job.disk import JobFileError
from plain_compass.job.document import assess_tree, case_of
from plain_compass.job.practice_answers import Answers, Given, answers_text, cut_of, read_answers, result_of, scored
from plain_compass.job.practice_case import SetCase, case_of_set, job_of, make_case
from plain_compass.job.practice_eye import eye_of
from plain_compass.job.practice_set import PracticeSet, case_from_tree, made_set, mixed_set, read_set, set_text
from plain_compass.job.practice_words import question_of, told_of, truth_of
from plain_compass.job.words import Speech

SPEECH = Speech("metric", "hinge")
SEEDS = range(1, 9)


@pytest.mark.parametrize("level", [1, 2, 3])
def test_a_stump_has_just_the_wanted_fault_and_that_alone_is_what_moved_the_tree(level: int) -> None:
    for seed in SEEDS:
        kept = make_case("fault", level, seed)
        case = case_of_set(kept)
        truth = stump_truth(case, kept.plan.as_cut)
        assert truth is not None and truth.fault in FAULTS_BY_LEVEL[level] and truth.share >= LEAST_SHARE
        assert truth_of(kept) == truth.fault and truth_of(replace(kept, asks="went")) == truth.side
        fall = nominal_fall(assess(case_as(case, kept.plan.as_cut)))
        assert truth.why.told_deg == pytest.approx(fall.bearing_error_deg, abs=1e-9)
        assert (truth.side == "on-mark") == (abs(fall.bearing_error_deg) < 2.0) != (truth.fault in STEERS)


@pytest.mark.parametrize("level", [1, 2, 3])
def test_in_a_moment_going_on_is_as_bad_as_the_sign_says_and_leaving_is_never_worth_less(level: int) -> None:
    for seed in SEEDS:
        kept = make_case("now", level, seed)
        sign = SIGNS[kept.sign]
        outcomes = now_truth(case_of_set(kept), sign).outcomes
        assert sign.level <= level and outcomes[LEAVE.key].worth >= outcomes[GO_ON.key].worth
        ruling = ruling_of(assess(case_of_set(kept)))
        if sign.rules:
            assert ruling is not None and ruling.level == Level.STOP and ruling.id.startswith(sign.rules)
            assert outcomes[GO_ON.key].worth == 0.0
        else:
            assert ruling is None and outcomes[GO_ON.key].worth == 1.0
        sure_of_it = [scored(kept, each, 0.8, SPEECH).score for each in (LEAVE.key, GO_ON.key)]
        assert sure_of_it[0] >= sure_of_it[1], "stopping is never scored below going on"


def test_a_tree_to_look_at_is_what_the_core_weighs() -> None:
    for seed in SEEDS:
        kept = make_case("goes", 3, seed)
        truth, mass = look_truth(case_of_set(kept)), assess(case_of_set(kept)).parts.mass
        assert truth.weight_left_m == pytest.approx(mass.com_left_m) and truth.is_plain
        # Weight to the west and north: it would go north-west, away and to the left.
        west, north = mass.com_left_m > 0, mass.com_forward_m > 0
        assert ("left" in truth.way) <= west and ("away" in truth.way) <= north
        assert ("right" in truth.way) <= (not west) and ("towards" in truth.way) <= (not north)


@pytest.mark.parametrize("skill", [skill.key for skill in SKILLS])
def test_the_same_seed_is_the_same_case_with_a_question_a_truth_and_what_gave_it_away(skill: str) -> None:
    kept = make_case(skill, 2, 3)
    assert kept == make_case(skill, 2, 3) != make_case(skill, 2, 4)
    question = question_of(kept, SPEECH)
    assert "?" in question.text or skill == "cut"
    assert (question.kind is None) == bool(question.options) or skill == "cut"
    assert all("{" not in line and "[" not in line for line in (question.text, *told_of(kept, SPEECH)))
    assert told_of(kept, SPEECH)
    if question.options:
        assert truth_of(kept) in question.keys and len(set(question.keys)) == len(question.keys)


def test_the_right_answer_said_for_certain_scores_all_and_the_wrong_one_nothing_much() -> None:
    for skill in ("fault", "went", "goes", "words"):
        kept = make_case(skill, 2, 3)
        wrong = next(key for key in question_of(kept, SPEECH).keys if key != truth_of(kept))
        assert scored(kept, str(truth_of(kept)), 1.0, SPEECH).score == 1.0
        assert scored(kept, wrong, 1.0, SPEECH).score == 0.0
    tall = make_case("height", 1, 3)
    assert scored(tall, f"{truth_of(tall)} m", 1.0, SPEECH).score == 1.0
    assert scored(tall, "66 ft", 0.5, Speech("imperial", "hinge")).near is not None
    assert scored(tall, "very", 0.5, SPEECH).near is None


def test_a_design_is_judged_by_its_limits() -> None:
    kept = make_case("cut", 1, 4)
    planned = kept.plan.cut
    design = cut_of("face 9 cm; hinge 3 cm 4 cm; bored; strap 6 cm; wedges 2", planned, "metric")
    assert (design.face.depth_m, design.hinge.left_m, design.hinge.right_m) == (0.09, 0.03, 0.04)
    assert (design.back.form, design.back.strap_m, len(design.wedges)) == ("bored", 0.06, 2)
    level = assess(replace(case_of_set(kept), cut=design)).verdict.level
    worth = {"clear": 1.0, "watch": 0.6, "stop": 0.0, "unknown": 0.0}[level]
    near = worth == 1.0
    found = scored(kept, "face 9 cm; hinge 3 cm 4 cm; bored; strap 6 cm; wedges 2", 0.5, SPEECH)
    assert found.near == near and found.score == pytest.approx((0.75 + worth) / 2)
    assert scored(kept, "hinge 90 cm", 0.5, SPEECH).score == pytest.approx(0.375), "one that cannot be is worth nothing"
    for typed in ("notch 4 cm", "wedges many", "wedges 9", "hinge", "face deep"):
        with pytest.raises(InputError, match="accepted"):
            cut_of(typed, planned, "metric")
        assert scored(kept, typed, 0.5, SPEECH).near is None


def test_a_set_is_written_and_read_and_every_case_opens_as_a_job(tmp_path: Path) -> None:
    practice = mixed_set(2, 1, 12)
    assert {kept.task for kept in practice.cases} == set(Task)
    path = tmp_path / "set.json"
    path.write_text(set_text(practice))
    assert read_set(path) == practice
    for kept in practice.cases:
        job = job_of(kept, "metric", "hinge")
        assert assess_tree(job, kept.plan.id).case == replace(case_of(job, kept.plan.id))


def spoiled(tmp_path: Path, how: str) -> Path:
    raw = json.loads(set_text(made_set("stump", 1, 1, 2)))
    if how == "format":
        raw["format"] = "something"
    elif how == "version":
        raw["version"] = 9
    elif how == "asks":
        raw["cases"][1]["asks"] = "colour"
    elif how == "height":
        raw["cases"][1]["plan"]["tree"]["height_m"] = 900.0
    elif how == "hinge":
        raw["cases"][1]["plan"]["cut"]["hinge"]["left_m"] = 0.9
    elif how == "fault":
        raw["cases"][1]["plan"]["as_cut"] = {}
    elif how == "species":
        raw["cases"][1]["plan"]["tree"]["species"] = "triffid"
    elif how == "none":
        raw["cases"] = []
    path = tmp_path / "set.json"
    path.write_text("[" if how == "json" else json.dumps(raw))
    return path


@pytest.mark.parametrize(
    ("how", "told"),
    [
        ("json", "it is no JSON"),
        ("format", "field “format” should say"),
        ("version", "field “version” is 9"),
        ("asks", "asks"),
        ("height", "height_m"),
        ("hinge", "case 2"),
        ("fault", "case 2: stump is 'P-002': it shows no fault"),
        ("species", "triffid"),
        ("none", "has 0 cases"),
    ],
)
def test_a_set_with_anything_wrong_is_refused_in_a_sentence(tmp_path: Path, how: str, told: str) -> None:
    with pytest.raises(JobFileError) as refused:
        read_set(spoiled(tmp_path, how))
    assert told in str(refused.value) and "set.json" in str(refused.value)


def test_answers_are_scored_by_case_and_what_was_not_answered_scores_nothing(tmp_path: Path) -> None:
    practice = made_set("words", 1, 1, 4)
    right = tuple(Given(number, str(truth_of(kept)), 1.0) for number, kept in enumerate(practice.cases[:3], 1))
    path = tmp_path / "answers.json"
    path.write_text(answers_text(Answers("Fen", (*right, Given(99, "strap", 1.0)))))
    result = result_of(practice, read_answers(path), SPEECH)
    assert (result.who, result.score, result.scores[3]) == ("Fen", 3.0, None)


ANSWERS = '{"format": "plain-compass-practice-answers", "version": '


@pytest.mark.parametrize("text", ["[", "{}", ANSWERS + "2}", ANSWERS + '1, "answers": [{"sure": 7}]}'])
def test_a_file_of_no_answers_is_refused(tmp_path: Path, text: str) -> None:
    path = tmp_path / "answers.json"
    path.write_text(text)
    with pytest.raises(JobFileError, match=r"answers\.json"):
        read_answers(path)


def test_a_real_tree_or_stump_becomes_a_case_without_anybody_s_name() -> None:
    job = demo_job()
    plan = job.plan("WH-07")
    kept = case_from_tree(job, replace(plan, notes="Tarn's tree"), "height")
    text = set_text(PracticeSet("mine", (kept,)))
    assert truth_of(kept) == plan.tree.height_m
    assert all(each not in text for each in ("Tarn", "WH-07", "Withy Holm", "hide"))
    read = next(each for each in job.trees if each.as_cut.is_read)
    try:
        stump = case_from_tree(job, read, "fault")
    except InputError as error:
        assert "it shows no fault, or several" in str(error)
    else:
        assert stump.plan.as_cut.faller == "" and truth_of(stump)
    with pytest.raises(InputError, match="it shows no fault"):
        case_from_tree(job, plan, "fault")


def test_an_eye_for_leans_is_begun_from_what_ships_and_nothing_is_made_up() -> None:
    from plain_compass.core.practice.learner import Answer

    assert eye_of((), "Wren") is None
    answers = [Answer(0, "lean", 1, n, False, 3.0, 5.0, 0.5, 0.5) for n in range(20)]
    used = eye_of(answers, "Wren")
    assert used is not None and used.key == "lean:eye" and used.count == 20 and 1.5 < used.mean < 3.0


def test_where_a_tree_lies_is_told_without_its_course_just_as_with_it() -> None:
    for plan in demo_job().trees:
        result = assess(case_of(demo_job(), plan.id))
        for breaks_deg in (None, 20.0):
            fall = nominal_fall(result, breaks_deg)
            told = falls_beside_deg(result, breaks_deg)
            assert told == (pytest.approx(fall.bearing_error_deg, abs=1e-9), fall.goes)


def test_a_case_of_every_kind_keeps_what_is_asked_and_no_more() -> None:
    assert SetCase("height").task == Task.LOOK and not SetCase().sign
    for task in Task:
        practice = made_set(task, 1, 1, 3)
        assert all(kept.task == task and (kept.sign != "") == (task == Task.NOW) for kept in practice.cases)
        assert all((kept.word != "") == (task == Task.WORDS) for kept in practice.cases)
        assert all(kept.plan.as_cut.is_read == (task == Task.STUMP) for kept in practice.cases)
