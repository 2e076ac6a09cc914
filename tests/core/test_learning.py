"""Learning from one's own stumps: closed forms, no order, nothing from nothing, and a known hand found again."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.stats import t

from plain_compass.core.base.student import student_quantile
from plain_compass.core.stump.facts import NAMES
from plain_compass.core.stump.learning import FARTHEST, PRIOR, learned
from plain_compass.core.stump.quantities import Records, Shipped, known_of

records = st.lists(st.floats(-20, 20), max_size=30)


def test_nothing_logged_leaves_what_was_shipped() -> None:
    known = learned([], 0.5, 2.0)
    assert (known.mean, known.spread, known.next_spread, known.count) == (0.5, 2.0, 2.0, 0)


@given(records, st.randoms())
def test_the_order_of_the_records_does_not_matter(found: list[float], shuffle: object) -> None:
    mixed = list(found)
    shuffle.shuffle(mixed)  # type: ignore[attr-defined]
    one, other = learned(found, 0.0, 2.0), learned(mixed, 0.0, 2.0)
    assert (one.mean, one.scale) == pytest.approx((other.mean, other.scale), abs=1e-12)


def test_one_record_by_hand() -> None:
    """Shipped 0 and 2, worth five; one record of 6: the mean a sixth of the way, the scale by the closed form."""
    known = learned([6.0], 0.0, 2.0)
    assert known.mean == pytest.approx(1.0)
    assert known.scale == pytest.approx(math.sqrt((5 * 4 + 5 / 6 * 36) / 6))
    assert known.next_spread == pytest.approx(known.spread * math.sqrt(7 / 6))


@given(records)
def test_what_is_learned_stays_within_what_can_be_believed(found: list[float]) -> None:
    known = learned(found, 1.0, 2.0)
    assert abs(known.mean - 1.0) <= FARTHEST * 2.0 + 1e-12
    assert 2.0 / FARTHEST - 1e-12 <= known.spread <= 2.0 * FARTHEST + 1e-12


def test_the_posterior_is_that_of_the_likelihood_on_a_grid() -> None:
    """Mean and spread of the mean, by brute force over mean and variance, for the same prior."""
    data, shipped = np.array([1.2, -0.4, 2.9, 1.7, 0.3]), 2.0
    mu, variance = np.linspace(-4, 5, 401)[:, None], np.exp(np.linspace(math.log(0.05), math.log(80), 600))[None, :]
    log = -(PRIOR / 2 + 1) * np.log(variance) - PRIOR * shipped**2 / (2 * variance)
    log = log - 0.5 * np.log(variance) - PRIOR * mu**2 / (2 * variance)
    for each in data:
        log = log - 0.5 * np.log(variance) - (each - mu) ** 2 / (2 * variance)
    weight = np.exp(log - log.max()) * variance  # the grid is even in the logarithm
    weight /= weight.sum()
    known = learned(data.tolist(), 0.0, shipped)
    assert (weight * mu).sum() == pytest.approx(known.mean, abs=2e-3)
    low, high = known.interval(0.9)
    inside = weight[(mu[:, 0] >= low) & (mu[:, 0] <= high)].sum()
    assert inside == pytest.approx(0.9, abs=0.01)


def test_a_known_hand_is_found_again_as_often_as_is_told() -> None:
    """A thousand hands drawn from what is shipped, forty stumps each: nine intervals in ten hold the truth."""
    held = 0
    for seed in range(1000):
        rng = np.random.default_rng(seed)
        variance = PRIOR * 2.0**2 / rng.chisquare(PRIOR)
        truth = rng.normal(0.0, math.sqrt(variance / PRIOR))
        low, high = learned(rng.normal(truth, math.sqrt(variance), 40).tolist(), 0.0, 2.0).interval(0.9)
        held += low <= truth <= high
    # Three standard errors of a share of a thousand.
    assert held / 1000 == pytest.approx(0.9, abs=0.0285)


@given(st.floats(0.001, 0.999), st.floats(1.0, 400.0))
def test_quantiles_of_students_t_are_those_of_the_library(share: float, freedom: float) -> None:
    assert student_quantile(share, freedom) == pytest.approx(float(t.ppf(share, freedom)), rel=1e-6, abs=1e-9)


def test_quantiles_outside_of_a_probability_are_refused() -> None:
    for share, freedom in ((0.0, 5.0), (1.0, 5.0), (0.5, 0.0), (math.nan, 5.0)):
        with pytest.raises(ValueError, match="no quantile"):
            student_quantile(share, freedom)


@pytest.mark.parametrize("spread", [0.0, -1.0, math.nan])
def test_a_spread_that_is_none_is_refused(spread: float) -> None:
    with pytest.raises(ValueError, match="positive"):
        learned([1.0], 0.0, spread)


def test_each_way_of_measuring_and_each_kind_of_wood_is_learned_from_its_own_records_alone() -> None:
    # Kind 0 took heights by stick, a tenth too high; kinds 1 and 2 by clinometer, truly.
    kinds = np.array([0, 1, 2, 0, 1])
    facts = np.full((5, len(NAMES)), np.nan)
    facts[:, NAMES.index("height_share")] = np.where(kinds == 0, 0.1, 0.0)
    classes = {
        "height_by": ["stick", "clinometer", "clinometer"],
        "lean_by": ["unknown"] * 3,
        "supple": ["usual"] * 3,
        "splits": ["usual"] * 3,
    }
    records = Records(np.arange(1, 6), ["2026-01-01"] * 5, facts, kinds, classes, {})
    shipped = Shipped(
        aim_deg=2.0, depth_m=0.01, step_m=0.01, hinge_m=0.005, hinge_share=0.1, height=0.05, lean_deg={"unknown": 1.0}
    )
    known = {each.key: each for each in known_of(records, shipped)}
    assert known["height:stick"].values.tolist() == [0.1, 0.1] and known["height:stick"].rows.tolist() == [0, 3]
    assert known["height:clinometer"].values.tolist() == [0.0, 0.0, 0.0]
