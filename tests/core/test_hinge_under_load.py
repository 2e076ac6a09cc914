"""The hinge on the way down: closed forms of its use, with each load's sign, each sum and each limit of its own."""

from __future__ import annotations

import math

import numpy as np
import pytest

from builders import batch
from plain_compass.core.base.polygon import Moments
from plain_compass.core.base.rows import row
from plain_compass.core.mechanics.balance import Balance, Mass, balances_on
from plain_compass.core.mechanics.hinge import HingeStrength, HingeUse, hinge_uses

WEIGHT_N = 10_000.0
MASS = Mass(WEIGHT_N / 9.81, 6.0, 0.3, 0.1, 5e4, 0.0, 0.0, 300.0)
ENDLESS = 1e9


def strength(**changes: float) -> HingeStrength:
    plain = {"stiffness_Nm": 2e5, "plastic_Nm": 4e3, "side_capacity_Nm": 1e4, "twist_capacity_Nm": 5e3}
    return HingeStrength(**plain | {"break_angle_deg": ENDLESS} | changes)


def balance(left_m: float) -> Balance:
    return Balance(0.3, left_m, 3000.0, WEIGHT_N * left_m, 0.5)


def used(
    left_m: float, steady_Nm: float = 0.0, closing_deg: float = 70.0, tolerance: float = 3.0, **more: float
) -> HingeUse:
    given = batch((MASS, strength(**more), balance(left_m), steady_Nm, closing_deg))
    found: HingeUse = row(hinge_uses(*given, tolerance), 0)
    return found


def at(use: HingeUse, tilt: float) -> float:
    return float(np.interp(tilt, use.tilt_deg, use.use))


@pytest.mark.parametrize("left", [0.1, -0.1])
def test_standing_side_weight_alone_bends_and_lying_it_alone_twists(left: float) -> None:
    use = used(left)
    assert at(use, 0.0) == pytest.approx(0.1 * MASS.weight_N / 1e4)
    assert at(use, 90.0) == pytest.approx(0.1 * MASS.weight_N / 5e3, rel=1e-6)


def test_bending_and_twisting_add_as_the_sides_of_a_right_angle() -> None:
    """At 45 degrees: hypot, not the sum, which would be the harder by up to two fifths."""
    both = math.hypot(0.1 * MASS.weight_N / 1e4, 0.1 * MASS.weight_N / 5e3) * math.sqrt(0.5)
    assert at(used(0.1), 45.0) == pytest.approx(both, rel=1e-6)


@pytest.mark.parametrize(
    ("left", "steady", "counts"), [(0.1, 500.0, 1), (0.1, -500.0, 0), (-0.1, -500.0, 1), (-0.1, 500.0, 0)]
)
def test_what_pushes_to_the_heavy_side_adds_and_what_eases_it_is_no_help(
    left: float, steady: float, counts: int
) -> None:
    """A gust drops and a rope goes slack; pushing with the weight they are there when it is worst."""
    assert at(used(left, steady), 0.0) == pytest.approx((0.1 * MASS.weight_N + counts * 500.0) / 1e4)


def test_a_steady_push_past_the_weights_own_counts_whole_on_the_other_side() -> None:
    assert at(used(0.01, -5000.0), 0.0) == pytest.approx((5000.0 - 0.01 * MASS.weight_N) / 1e4)


def test_the_break_angle_enters_as_its_square() -> None:
    """Straight over its own weight nothing else works: at half the angle at which it parts a quarter is used."""
    use = used(0.0, break_angle_deg=60.0)
    assert at(use, 30.0) == pytest.approx(0.25)
    assert use.lets_go_deg == pytest.approx(60.0, abs=0.05)
    assert use.lets_go_by == "its own limit"


def test_a_face_that_shuts_first_ends_it() -> None:
    use = used(0.0, closing_deg=40.0, break_angle_deg=60.0)
    assert (use.lets_go_deg, use.lets_go_by) == (40.0, "face shut")


def test_side_load_is_told_as_what_tears_it() -> None:
    assert used(0.5, side_capacity_Nm=6e3, twist_capacity_Nm=2e3).lets_go_by == "side load"


def test_use_is_judged_only_as_far_as_the_face_lets_it_go() -> None:
    """Twisting grows with tilt: a face that shuts at 20 degrees spares the hinge what would have come after."""
    early, late = used(0.1, closing_deg=20.0, tolerance=0.1), used(0.1, closing_deg=85.0, tolerance=0.1)
    assert early.needed_tilt_deg > 20.0
    assert early.side_utilisation == pytest.approx(at(early, 20.0), rel=1e-3)
    assert late.side_utilisation > early.side_utilisation * 1.05


# Standing on it --------------------------------------------------------------------------------------------

CENTRED = Moments(0.01, 0.0, 0.0, 1e-6, 1e-4, 0.0)


def stood(ahead_m: float, stiffness_Nm: float, plastic_Nm: float, loads: tuple[float, float] = (0.0, 0.0)) -> Balance:
    mass = Mass(MASS.mass_kg, 6.0, ahead_m, 0.05, 5e4, 0.0, 0.0, 300.0)
    found: Balance = row(balances_on(*batch((mass, loads, CENTRED, stiffness_Nm, plastic_Nm))), 0)
    return found


def test_a_back_leaner_whose_hinge_carries_it_does_not_sit_back() -> None:
    carried, folded = stood(-0.05, 6e5, 4e3), stood(-0.05, 6e5, 4e2)
    assert carried.moment_forward_Nm < 0
    assert carried.stands_on_hinge
    assert not carried.sits_back
    assert folded.sits_back
    assert not folded.stands_on_hinge


def test_a_forward_leaner_that_folds_its_hinge_goes_it_does_not_sit_back() -> None:
    assert not stood(0.3, 6e5, 4e2).sits_back


def test_a_moment_grows_by_the_lean_that_it_causes() -> None:
    """The magnification of a beam-column: 1 / (1 - m g Z/K)."""
    toppling, stiffness = MASS.weight_N * 6.0, 6e5
    assert stood(0.3, stiffness, 4e3).standing_utilisation == pytest.approx(
        MASS.weight_N * 0.3 / (1 - toppling / stiffness) / 4e3
    )
    assert stood(0.3, toppling, 4e3).standing_utilisation == math.inf


def test_wind_and_rope_add_to_the_weights_moment_both_ways() -> None:
    still, pulled = stood(0.1, 6e5, 4e3), stood(0.1, 6e5, 4e3, (700.0, -300.0))
    assert pulled.moment_forward_Nm - still.moment_forward_Nm == pytest.approx(700.0)
    assert pulled.moment_left_Nm - still.moment_left_Nm == pytest.approx(-300.0)
