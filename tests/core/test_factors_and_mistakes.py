"""Factors from stumps against closed forms; which mistake a stump looks like; what was told against what happened."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from plain_compass.core.design.cut import BackCut
from plain_compass.core.stump.as_cut import AsCut
from plain_compass.core.stump.factors import FARTHEST, GRID, PRIOR, RECORD_SPREAD, factor_of, split_factor_of
from plain_compass.core.stump.learning import learned
from plain_compass.core.stump.mistakes import SEEN, mistakes_of
from plain_compass.core.stump.told import Told, came_true, in_fan
from plain_compass.core.tree.tree import Decay
from plain_compass.job.demo import demo_job
from plain_compass.job.document import case_of

logs = st.lists(st.floats(-0.5, 0.5), max_size=25)


# Factors -----------------------------------------------------------------------------------------------------


def test_nothing_logged_leaves_the_constant_as_shipped() -> None:
    none = factor_of([])
    assert none.value == 1.0 and none.mean == pytest.approx(0.0, abs=1e-9)
    assert none.spread == pytest.approx(RECORD_SPREAD / math.sqrt(PRIOR), rel=1e-3)


@given(logs)
def test_the_grid_gives_the_normal_posterior_in_the_logarithm(found: list[float]) -> None:
    """Closed form: the records' sum over their number and what the prior is worth."""
    known = factor_of(found)
    assert known.mean == pytest.approx(sum(found) / (len(found) + PRIOR), abs=1e-4)
    assert known.spread == pytest.approx(RECORD_SPREAD / math.sqrt(len(found) + PRIOR), rel=2e-3)


@given(logs, st.floats(0.2, 2.0))
def test_a_record_that_follows_its_constant_less_tells_less(found: list[float], slope: float) -> None:
    """Each is a record of a multiple: least squares with the slopes as weights."""
    known = factor_of(found, [slope] * len(found))
    worth = slope**2 * len(found) + PRIOR
    assert known.mean == pytest.approx(slope * sum(found) / worth, abs=1e-4)


@given(st.lists(st.floats(-30, 30), min_size=1, max_size=10))
def test_a_factor_stays_within_a_third_and_three_times(found: list[float]) -> None:
    known = factor_of(found)
    assert 1 / FARTHEST <= known.value <= FARTHEST
    low, high = known.interval(0.9)
    assert 1 / FARTHEST - 1e-9 <= low <= high <= FARTHEST + 1e-9


def test_the_posterior_of_splitting_is_the_product_of_its_likelihoods() -> None:
    """By brute force, without bins: every stem's chance at every factor."""
    random = np.random.default_rng(1)
    at = random.normal(-0.2, 0.5, 60)
    did = (random.random(60) < 0.4).astype(float)
    scale = RECORD_SPREAD * math.sqrt(3) / math.pi
    log = -0.5 * PRIOR * (GRID / RECORD_SPREAD) ** 2
    for index, happened in zip(at, did, strict=True):
        chance = 1 / (1 + np.exp(-(index - GRID) / scale))
        log = log + np.log(chance if happened else 1 - chance)
    weight = np.exp(log - log.max())
    weight /= weight.sum()
    known = split_factor_of(at, did)
    assert known.mean == pytest.approx(float((weight * GRID).sum()), abs=3e-3)


def test_stems_that_hold_though_told_to_split_raise_what_a_crack_takes() -> None:
    held = split_factor_of([0.4] * 12, [0.0] * 12)
    split = split_factor_of([-0.4] * 12, [1.0] * 12)
    assert held.value > 1.15 and split.value < 0.87
    assert split_factor_of([-6.0] * 50, [0.0] * 50).value == pytest.approx(1.0, abs=1e-3), "nobody doubted these"


# A known hand found again ------------------------------------------------------------------------------------


def test_with_forty_stumps_the_interval_holds_the_truth_in_85_to_95_of_100_seeds() -> None:
    """Hands drawn as the prior has them, so that nine in ten is exact."""
    inside, shipped = 0, 2.0
    for seed in range(400):
        random = np.random.default_rng(seed)
        variance = 5.0 * shipped**2 / random.chisquare(5.0)
        mean = random.normal(0.0, math.sqrt(variance / 5.0))
        known = learned(random.normal(mean, math.sqrt(variance), 40), 0.0, shipped)
        low, high = known.interval(0.9)
        inside += low <= mean <= high
    assert 85 <= inside / 4 <= 95


# Mistakes ----------------------------------------------------------------------------------------------------


def test_a_stump_as_planned_looks_like_no_mistake() -> None:
    case = case_of(demo_job(), "WH-07")
    cut = case.cut
    alike = AsCut(
        towards_deg=cut.gun_deg, hinge_left_m=cut.hinge.left_m, hinge_right_m=cut.hinge.right_m, overcut_m=0.0,
        step_left_m=cut.back.step_m, corners="no", rot="none",
    )  # fmt: skip
    assert mistakes_of(case, alike, {}) == ()
    assert mistakes_of(case, AsCut(), {}) == (), "what nobody looked at is no mistake"


@pytest.mark.parametrize(
    ("read", "key"),
    [
        ({"towards_deg": 208.0}, "aim"),
        ({"overcut_m": 0.02, "overcut_of": "roof"}, "roof-overcut"),
        ({"overcut_m": 0.02, "overcut_of": "floor"}, "floor-overcut"),
        ({"hinge_left_m": 0.065, "hinge_right_m": 0.05}, "uneven"),
        ({"corners": "yes"}, "bored-far"),
        ({"step_left_m": 0.01, "step_right_m": 0.03}, "low-step"),
        ({"rot_m": 0.08}, "rot"),
    ],
)
def test_each_mistake_is_seen_on_the_stump_that_has_it(read: dict[str, object], key: str) -> None:
    case = case_of(demo_job(), "WH-07")
    sound = replace(case, tree=replace(case.tree, decay=Decay()))
    assert mistakes_of(sound, AsCut(**read), {}) == (key,)  # type: ignore[arg-type]


def test_rot_that_was_known_beforehand_is_no_mistake_when_it_is_met() -> None:
    case = case_of(demo_job(), "WH-07")
    assert case.tree.decay.kind == "cavity" and mistakes_of(case, AsCut(rot_m=0.1), {}) == ()


def test_a_thin_strap_is_one_only_where_there_was_to_be_a_strap() -> None:
    case = case_of(demo_job(), "WH-07")
    thin = AsCut(strap_m=0.01)
    assert mistakes_of(case, thin, {}) == ()
    bored = replace(case, cut=replace(case.cut, back=BackCut("bored", 0.03, 0.06)))
    assert mistakes_of(bored, thin, {}) == ("thin-strap",)


def test_what_moved_the_tree_most_is_told_first() -> None:
    case = case_of(demo_job(), "WH-07")
    read = AsCut(towards_deg=208.0, hinge_left_m=0.07, hinge_right_m=0.05)
    assert mistakes_of(case, read, {"aim": 6.0, "left": 0.5}) == ("aim", "uneven")
    assert mistakes_of(case, read, {"aim": 0.1, "left": 0.5}) == ("uneven", "aim")
    assert set(SEEN) > {"aim", "uneven"}


# Told and happened -------------------------------------------------------------------------------------------


def test_what_was_told_and_looked_at_is_held_against_what_happened() -> None:
    told = Told(low_deg=-3.0, middle_deg=0.0, high_deg=4.0, splits=0.1, sits_back=0.2, lost_early=0.3)
    assert came_true(told, AsCut()) == {}
    read = AsCut(split="no", sat_back="yes", broke="side")
    assert came_true(told, read) == {"splits": (0.1, False), "sits_back": (0.2, True), "lost_early": (0.3, True)}
    assert came_true(told, replace(read, broke_deg=70.0))["lost_early"] == (0.3, False), "a tilt seen goes first"
    assert in_fan(told, 4.0) is True and in_fan(told, 4.1) is False and in_fan(Told(), 0.0) is None


@settings(max_examples=30)
@given(st.floats(0, 1), st.booleans())
def test_nothing_is_told_to_have_happened_where_no_chance_was_told(chance: float, did: bool) -> None:
    read = AsCut(split_m=0.3 if did else 0.0)
    assert came_true(Told(), read) == {}
    assert came_true(Told(splits=chance), read) == {"splits": (chance, did)}


@pytest.mark.parametrize(
    ("words", "hit"), [("", False), ("none", False), ("No.", False), ("-", False), ("a branch", True), ("fence", True)]
)
def test_what_is_written_for_nothing_hit_is_nothing_hit(words: str, hit: bool) -> None:
    assert AsCut(hit=words).has_hit is hit
