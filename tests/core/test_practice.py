"""Practice: the rule is proper, made-up cases are what they say, and an eye that is off is found."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from plain_compass.core.practice.learner import Answer, bias, calibration, level_for, next_seed, next_skill, reliability
from plain_compass.core.practice.scoring import NO_SENSE, brier, scored_choice, scored_number, scored_outcome
from plain_compass.core.practice.skills import BY_KEY, SKILLS
from plain_compass.core.practice.stumps import side_of
from plain_compass.core.practice.trees import BY_LEVEL, made_tree
from plain_compass.job.tables import species_table

SHARES = st.floats(0.0, 1.0)
WOODS = tuple(species_table().values())


@given(SHARES, SHARES)
def test_who_says_what_he_believes_expects_the_most(believed: float, said: float) -> None:
    def expected(sure: float) -> float:
        return believed * brier(sure, True) + (1 - believed) * brier(sure, False)

    assert expected(believed) >= expected(said) - 1e-12


@given(SHARES, SHARES, SHARES)
def test_so_too_where_what_came_of_it_counts(believed: float, said: float, worth: float) -> None:
    def expected(sure: float) -> float:
        best, other = scored_outcome(1.0, 1.0, sure), scored_outcome(worth * 0.99, 1.0, sure)
        return believed * best.score + (1 - believed) * other.score

    assert expected(believed) >= expected(said) - 1e-12


@given(st.floats(-100, 100), st.floats(1, 50), SHARES)
def test_a_number_is_near_within_its_tolerance_and_its_error_is_told(given: float, truth: float, sure: float) -> None:
    found = scored_number(BY_KEY["height"], given, truth, sure)
    assert found.error == pytest.approx(given - truth) and found.near == (abs(given - truth) <= 0.05 * truth + 1e-9)
    assert 0.0 <= found.score <= 1.0


def test_tolerances_are_those_that_were_asked_for() -> None:
    assert BY_KEY["height"].tolerance(20.0) == 1.0 and BY_KEY["lean"].tolerance(7.0) == 1.0
    assert BY_KEY["weight"].tolerance(-0.1) == 0.2 and BY_KEY["reach"].tolerance(6.0) == pytest.approx(0.6)


@pytest.mark.parametrize("sure", [-0.1, 1.1, math.nan, math.inf])
def test_an_answer_that_makes_no_sense_scores_nothing(sure: float) -> None:
    assert scored_number(BY_KEY["lean"], 3.0, 3.0, sure) is NO_SENSE
    assert scored_choice("a", "a", ("a",), sure) is NO_SENSE and scored_outcome(1.0, 1.0, sure) is NO_SENSE
    assert scored_number(BY_KEY["lean"], math.nan, 3.0, 0.5) is NO_SENSE
    assert scored_choice("x", "a", ("a", "b"), 0.5) is NO_SENSE


@pytest.mark.parametrize("level", [1, 2, 3])
def test_no_level_draws_what_it_does_not_allow(level: int) -> None:
    allowed = BY_LEVEL[level]
    for seed in range(200):
        tree = made_tree(WOODS, level, np.random.default_rng(seed))
        assert allowed.lean_deg[0] <= tree.lean.angle_deg <= allowed.lean_deg[1]
        assert tree.lean.sweep_m <= allowed.sweep_share * tree.height_m + 0.005
        assert allowed.forks > 0 or tree.fork.kind == "none"
        assert allowed.dead > 0 or all(each.state == "live" for each in tree.crown.readings)
    drawn = [made_tree(WOODS, 3, np.random.default_rng(seed)) for seed in range(60)]
    assert any(tree.fork.kind == "second" for tree in drawn), "what the hardest level allows it also draws"
    assert any(each.state == "dead" for tree in drawn for each in tree.crown.readings)


def test_the_same_seed_is_the_same_tree() -> None:
    one, other = (made_tree(WOODS, 3, np.random.default_rng(5)) for _ in range(2))
    assert one == other != made_tree(WOODS, 3, np.random.default_rng(6))


@pytest.mark.parametrize(("off", "side"), [(0.0, "on-mark"), (1.9, "on-mark"), (2.1, "left"), (-5.0, "right")])
def test_a_top_lies_left_right_or_on_its_mark(off: float, side: str) -> None:
    assert side_of(off) == side


def answer(skill: str = "height", *, day: int = 0, near: bool = True, error: float = 0.0, **more: float) -> Answer:
    values = {"level": 1, "seed": 1, "truth": 20.0, "sure": 0.6, "score": 0.8} | more
    return Answer(
        day,
        skill,
        int(values["level"]),
        int(values["seed"]),
        near,
        error,
        *(values[k] for k in ("truth", "sure", "score")),
    )


def test_a_learner_with_a_known_bias_is_found_within_thirty_answers() -> None:
    # An eye that takes heights twelve in a hundred too tall and scatters by six, in tolerances 2.4 and 1.2.
    rng, answers = np.random.default_rng(11), list[Answer]()
    for number in range(30):
        truth = float(rng.uniform(10, 25))
        error = truth * float(rng.normal(0.12, 0.06))
        answers.append(answer(error=error, truth=truth, near=abs(error) <= 0.05 * truth, seed=number))
    found = bias("height", answers)
    assert found is not None and found.mean == pytest.approx(2.4 * 30 / 35, abs=0.5) and found.interval(0.99)[0] > 0.5
    assert bias("goes", answers) is None and bias("lean", answers) is None


@given(st.lists(st.booleans(), max_size=30))
def test_reliability_is_the_flat_posterior_s_mean(hits: list[bool]) -> None:
    answers = [answer(near=hit) for hit in hits]
    found = reliability("height", answers, 0)
    assert found.mean == pytest.approx((1 + sum(hits)) / (2 + len(hits))) and 0.0 <= found.low < found.mean


def test_what_is_known_to_be_worst_is_asked_first_and_never_twice_in_a_row() -> None:
    answers = [answer(skill.key, near=skill.key != "lean", day=0) for skill in SKILLS for _ in range(8)]
    answers.append(answer("height"))
    assert next_skill(answers, today=400) == "lean"
    assert next_skill([*answers, answer("lean", near=False)], today=400) != "lean"
    assert next_skill([], 0, among=["now"]) == "now"


def test_what_was_answered_well_is_asked_again_after_twice_as_long() -> None:
    waits = [reliability("height", [answer(day=0)] * count, 0).due_in_days for count in (1, 2, 3, 4)]
    assert waits == [1.0, 2.0, 4.0, 8.0]
    assert reliability("height", [answer(day=0)] * 40, 0).due_in_days == 60.0
    assert reliability("height", [answer(day=0), answer(day=3, near=False)], 3).due_in_days == 0.0
    # One that is not due is passed over for one that is, however much worse it is known to be.
    answers = [answer("height", near=False, day=0)] * 3 + [answer("height", day=5)] + [answer("lean", day=0)] * 5
    assert next_skill(answers, 5, among=["height", "goes", "lean"]) == "goes"


def test_levels_rise_with_four_of_five_and_fall_with_two() -> None:
    assert level_for("height", []) == 1
    assert level_for("height", [answer()] * 4) == 1 and level_for("height", [answer()] * 5) == 2
    hard = [replace(answer(near=False), level=3)] * 3 + [replace(answer(), level=3)] * 2
    assert level_for("height", hard) == 2
    assert level_for("height", [replace(answer(), level=3)] * 5) == 3


def test_never_the_same_picture_twice() -> None:
    assert next_seed([]) == 1 and next_seed([answer(seed=7), answer(seed=3)]) == 8


def test_calibration_counts_every_answer_once() -> None:
    answers = [answer(sure=sure, near=near) for sure in (0.2, 0.4, 0.95, 1.0) for near in (True, False)]
    found = calibration(answers)
    assert sum(count for *_, count in found) == len(answers)
    assert [share for _, share, _ in found] == [0.5] * len(found)
