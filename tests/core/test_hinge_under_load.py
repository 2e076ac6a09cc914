"""The hinge on the way down: closed forms of its use, with each load's sign, each sum and each limit of its own."""

from __future__ import annotations

import math

import numpy as np
import pytest

from builders import batch
from plain_compass.core.base.polygon import Moments
from plain_compass.core.base.rows import row
from plain_compass.core.mechanics.hinge import HingeGeometry, HingeStrength
from plain_compass.core.mechanics.mass import Mass
from plain_compass.core.mechanics.use import HingeUse, hinge_uses

WEIGHT_N = 10_000.0
MASS = Mass(WEIGHT_N / 9.81, 6.0, 0.3, 0.1, 5e4, 0.0, 0.0, 300.0, 3.0)
ENDLESS = 1e9


def strength(**changes: float) -> HingeStrength:
    plain = {"stiffness_Nm": 2e5, "peak_Nm": 4e3, "side_capacity_Nm": 1e4, "twist_capacity_Nm": 5e3}
    law = {"live_peak_Nm": 4e3, "peaks_at": 3.0, "softens_over": 2.5, "tail": 0.15, "holding": 1.0}
    return HingeStrength(**plain | law | {"break_angle_deg": ENDLESS} | changes)


def hinge(left_m: float, steered_deg: float = 0.0) -> HingeGeometry:
    """A hinge that has the tree's weight so far to its left, and is folded about a line turned so far."""
    own = Moments(0.02, 0.0, MASS.com_left_m - left_m, 1e-6, 1e-4, 0.0)
    across = {"left_m": 0.2, "right_m": -0.2, "steered_deg": steered_deg}
    even = {"even_forward_m": 0.0, "even_left_m": MASS.com_left_m - left_m}
    return HingeGeometry(own, 0.4, 0.05, 0.05, -0.05, 1.0, 1e-3, 5e-5, spans=(), **across, **even)


def used(
    left_m: float, steady_Nm: float = 0.0, closing_deg: float = 70.0, tolerance: float = 3.0, **more: float
) -> HingeUse:
    given = batch((MASS, hinge(left_m), strength(**more), steady_Nm, closing_deg))
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
