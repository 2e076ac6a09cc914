"""The hinge against beam formulas, and the needed tilt against a falling rod integrated step by step."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from builders import assessed, batch, finding, plain_cut, round_tree
from plain_compass.core.base.polygon import Moments
from plain_compass.core.base.rows import row
from plain_compass.core.design.cut import BackCut
from plain_compass.core.mechanics.hinge import HingeGeometry, HingeStrength, break_angles_deg
from plain_compass.core.mechanics.mass import Mass
from plain_compass.core.mechanics.use import HingeUse, hinge_uses, needed_tilts_deg
from plain_compass.core.tree.tree import Decay
from plain_compass.job.tables import indicative, wood_of

ACROSS_THE_PITH = plain_cut(face__depth_m=0.185, hinge__left_m=0.03, hinge__right_m=0.03)
"""Straddles the pith, where the sides of the stem run parallel: the hinge is a rectangle but for 0.3 %."""


def test_the_peak_is_eight_tenths_of_a_sixth_of_rupture_times_b_t_squared() -> None:
    """A modulus of rupture is 6M/(b t^2) by definition; stump wood carries 0.8 of clear specimens."""
    result = assessed(cut=ACROSS_THE_PITH)
    hinge = result.parts.hinge
    assert hinge.width_thickness2_m3 == pytest.approx(hinge.length_m * 0.03**2, rel=0.01)
    expected = 0.8 * wood_of("oak").rupture_Pa / 6 * hinge.width_thickness2_m3
    assert result.parts.strength.peak_Nm == pytest.approx(expected)


def test_stiffness_is_e_i_by_slices_over_the_bending_fibre() -> None:
    result = assessed(cut=replace(ACROSS_THE_PITH, back=BackCut(step_m=0.05)))
    hinge = result.parts.hinge
    fibre = 1.9 * hinge.thickness_m + 0.05
    expected = wood_of("oak").elasticity_Pa * hinge.length_m * 0.03**3 / 12 / fibre
    assert result.parts.strength.stiffness_Nm == pytest.approx(expected, rel=0.02)


def test_side_capacity_is_that_of_a_plank_on_edge() -> None:
    result = assessed(round_tree(lean__angle_deg=3.0, lean__bearing_deg=270.0))
    hinge = result.parts.hinge
    expected = 0.8 * wood_of("oak").rupture_Pa * hinge.thickness_m * hinge.length_m**2 / 6
    assert result.parts.strength.side_capacity_Nm == pytest.approx(expected, rel=0.05)


def test_thickness_at_the_two_ends_is_kept() -> None:
    """The strip is a trapezium: its centroid moves towards the thicker end by L (a-b)/(6 (a+b))."""
    result = assessed(cut=plain_cut(face__depth_m=0.185, hinge__left_m=0.04, hinge__right_m=0.02))
    hinge = result.parts.hinge
    assert hinge.thickness_m == pytest.approx(0.03, rel=0.01)
    assert hinge.region.left_m == pytest.approx(hinge.length_m * (0.04 - 0.02) / (6 * 0.06), rel=0.03)


def test_rot_in_the_hinge_takes_its_share() -> None:
    rotten = assessed(round_tree(decay=Decay(kind="cavity", offset_m=0.10, bearing_deg=0.0, radius_m=0.05)))
    hinge = rotten.parts.hinge
    assert 0.5 < hinge.sound_fraction < 0.9
    assert rotten.parts.strength.peak_Nm < assessed().parts.strength.peak_Nm


def test_dead_wood_is_weaker_and_breaks_sooner() -> None:
    live, dead = assessed().parts.strength, assessed(round_tree(condition="dead")).parts.strength
    factor = indicative().dead_strength_factor
    assert dead.peak_Nm == pytest.approx(factor * live.peak_Nm)
    assert dead.stiffness_Nm == live.stiffness_Nm
    assert dead.live_peak_Nm == live.peak_Nm
    assert dead.peaks_at == pytest.approx(live.peaks_at / 2) and dead.softens_over == pytest.approx(
        live.softens_over / 2
    )
    assert dead.break_angle_deg < live.break_angle_deg


def break_angle_deg(thickness_m: float, step_m: float, diameter_m: float, suppleness: str, condition: str) -> float:
    constants = indicative()
    base = constants.break_base_deg[suppleness] * (constants.break_dead_factor if condition == "dead" else 1.0)
    return float(break_angles_deg(*batch((thickness_m, step_m, diameter_m, base)), constants)[0])


def needed_tilt_deg(ahead: float, left: float, tolerance_deg: float) -> float:
    return float(needed_tilts_deg(*batch((ahead, left)), tolerance_deg)[0])


def test_a_hinge_of_a_tenth_breaks_at_its_base_angle() -> None:
    assert break_angle_deg(0.04, 0.0, 0.40, "average", "live") == pytest.approx(65.0)
    assert break_angle_deg(0.04, 0.0, 0.40, "supple", "live") == pytest.approx(85.0)
    assert break_angle_deg(0.04, 0.0, 0.40, "brittle", "dead") == pytest.approx(24.0)


@given(thickness=st.floats(0.001, 0.5), step=st.floats(0.0, 0.3), diameter=st.floats(0.1, 3.0))
def test_the_break_angle_stays_within_its_bounds(thickness: float, step: float, diameter: float) -> None:
    angle = break_angle_deg(thickness, step, diameter, "average", "live")
    assert 10.0 <= angle <= 100.0
    assert break_angle_deg(thickness / 2, step, diameter, "average", "live") >= angle


def test_without_side_weight_only_the_hinges_own_limit_counts() -> None:
    use = assessed().parts.use
    angle = assessed().parts.strength.break_angle_deg
    assert use.use == pytest.approx((use.tilt_deg / angle) ** 2, abs=1e-6)
    assert use.needed_tilt_deg == 0.0


def test_the_hinge_lets_go_when_the_face_shuts_if_nothing_spends_it_before() -> None:
    use = assessed(cut=plain_cut(face__roof_deg=30.0, face__floor_deg=0.0)).parts.use
    assert (use.lets_go_deg, use.lets_go_by) == (30.0, "face shut")


def bare(side_capacity: float, twist_capacity: float, left_m: float, closing: float = 70.0) -> HingeUse:
    mass = Mass(1000.0, 8.0, 0.0, left_m, 90_000.0, 0.0, 0.0, 200.0, 3.0)
    strength = HingeStrength(1e6, 1e4, 1e4, side_capacity, twist_capacity, 90.0, 3.0, 2.5, 0.15, 1.0)
    own = Moments(0.02, 0.0, 0.0, 1e-6, 1e-4, 0.0)
    hinge = HingeGeometry(own, 0.4, 0.05, 0.05, -0.05, 1.0, 1e-3, 5e-5, 0.2, -0.2, 0.0, 0.0, 0.0, ())
    many = hinge_uses(*batch((mass, hinge, strength, 0.0, closing)), 2.0)
    found: HingeUse = row(many, 0)
    return found


def test_side_load_past_capacity_lets_go_at_once() -> None:
    use = bare(side_capacity=100.0, twist_capacity=100.0, left_m=0.5)
    assert (use.lets_go_deg, use.lets_go_by) == (0.0, "side load")
    assert use.side_utilisation > 1.0


def test_the_let_go_angle_solves_the_use_curve() -> None:
    """With bending only, sqrt((w cos)^2) + (tilt/90)^2 = 1 has one root; found here by bisection."""
    use = bare(side_capacity=1000 * 9.81 * 0.5 / 0.9, twist_capacity=1e12, left_m=0.5, closing=90.0)
    low, high = 0.0, 90.0
    while high - low > 1e-6:
        middle = (low + high) / 2
        spent = 0.9 * math.cos(math.radians(middle)) + (middle / 90.0) ** 2 >= 1.0
        low, high = (low, middle) if spent else (middle, high)
    assert use.lets_go_deg == pytest.approx(high, abs=0.05)


def falling_rod(lost_at_deg: float, ahead: float, left: float) -> float:
    """Side angle on the ground of the linear rod whose hinge is lost at a tilt, stepped in tilt; radians."""
    steps = 6000
    tilts = np.linspace(math.radians(lost_at_deg), math.pi / 2, steps + 1)
    psi = rate = 0.0
    h = tilts[1] - tilts[0]

    def slope(tilt: float, psi: float, rate: float) -> tuple[float, float]:
        speed = math.sqrt(2 * ((1 - math.cos(tilt)) + ahead * math.sin(tilt)))
        pull = (math.cos(tilt) - speed**2) * psi + left * math.cos(tilt)
        return rate / speed, pull / speed

    for tilt in tilts[:-1]:
        a = slope(tilt, psi, rate)
        b = slope(tilt + h / 2, psi + h / 2 * a[0], rate + h / 2 * a[1])
        psi, rate = psi + h * b[0], rate + h * b[1]
    return psi


@settings(max_examples=12)
@given(ahead=st.floats(0.005, 0.05), left=st.floats(0.01, 0.10))
def test_losing_the_hinge_at_the_needed_tilt_just_meets_the_tolerance(ahead: float, left: float) -> None:
    """The adjoint answers every tilt at once; here one fall is stepped forwards from the answer."""
    needed = needed_tilt_deg(ahead, left, 2.0)
    if needed > 8.0:
        assert math.degrees(falling_rod(needed, ahead, left)) == pytest.approx(2.0, rel=0.04)


@given(left=st.floats(0.0, 0.2), more=st.floats(0.0, 0.1))
def test_more_side_weight_never_needs_the_hinge_for_less(left: float, more: float) -> None:
    assert needed_tilt_deg(0.01, left + more, 2.0) >= needed_tilt_deg(0.01, left, 2.0)


def test_a_face_that_shuts_too_soon_is_a_stop() -> None:
    tree = round_tree(lean__angle_deg=8.0, lean__bearing_deg=270.0)
    narrow = assessed(tree, plain_cut(face__form="conventional", face__roof_deg=15.0))
    assert finding(narrow, "hinge.holds").level == "stop"
    wide = assessed(tree, plain_cut(face__roof_deg=60.0, face__floor_deg=25.0))
    assert finding(wide, "hinge.holds").margin > finding(narrow, "hinge.holds").margin
