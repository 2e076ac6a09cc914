"""The fall against closed forms, conservation laws, symmetries and a general-purpose integrator."""

from __future__ import annotations

import math
from dataclasses import fields

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.special import ellipk, ellipkinc

from fall_truth import by_solver, made_up
from plain_compass.core.fall import falls as many
from plain_compass.core.fall import loose
from plain_compass.core.fall.falls import fall_all
from plain_compass.core.fall.held import held_fall, hinge_mean_Nm
from plain_compass.core.fall.motion import goes_from, hinge_Nm, lets_go, planar_Nm, use_of
from plain_compass.core.fall.rods import Ends, Falls, Rods, bearing_error_deg, level_ends, one_rod, tops_of, turned
from plain_compass.core.fall.trace import trace_of

FREE = {
    "inertia_kg_m2": 1.0e5,
    "toppling_Nm": 1.2e5,
    "ahead_Nm": 0.0,
    "left_Nm": 0.0,
    "drag_kg_m2": 0.0,
    "wind_forward_Nm": 0.0,
    "wind_left_Nm": 0.0,
    "stiffness_Nm": 1.0,
    "peak_Nm": 1e-6,
    "peaks_at": 3.0,
    "softens_over": 2.5,
    "tail": 0.15,
    "side_capacity_Nm": 1e9,
    "twist_capacity_Nm": 1e9,
    "break_rad": math.radians(100.0),
    "closing_rad": math.radians(120.0),
    "pull": 0.0,
    "wedged_rad": math.radians(4.0),
    "margin_rad": 0.0,
    "length_m": 17.0,
    "top_forward_m": 0.0,
    "top_left_m": 0.0,
    "lay_deg": 30.0,
}
"""A rod without a hinge to speak of, let go at four degrees; nothing but its weight acts."""


def rod(**changes: float) -> Rods:
    known = FREE | changes
    return one_rod(**({"bent_Nm": known["toppling_Nm"]} | known))


def energy_J(rods: Rods, tilt: float, side: float, rate: float) -> float:
    """Kinetic and potential energy of a single row."""
    i, p = float(rods.inertia_kg_m2[0]), float(rods.toppling_Nm[0])
    x, y = float(rods.ahead_Nm[0]), float(rods.left_Nm[0])
    high = p * math.cos(tilt) * math.cos(side) - x * math.sin(tilt) - y * math.cos(tilt) * math.sin(side)
    return i * rate**2 / 2 + high


# Closed forms ----------------------------------------------------------------------------------------------


@pytest.mark.parametrize("start_deg", [1.0, 4.0, 15.0])
def test_a_thin_rod_takes_the_time_of_the_elliptic_integral(start_deg: float) -> None:
    """t = (K(m) - F(asin(sin(theta/2)/sin(theta0/2)), m))/k from rest, angles from hanging; pendulum, any textbook."""
    found = fall_all(rod(wedged_rad=math.radians(start_deg)), level_ends())
    k, hanging = math.sqrt(1.2), math.pi - math.radians(start_deg)
    m = math.sin(hanging / 2) ** 2
    reached = math.asin(math.sin(math.pi / 4) / math.sin(hanging / 2))
    assert found.time_s[0] == pytest.approx((ellipk(m) - ellipkinc(reached, m)) / k, abs=2e-3)


@given(st.floats(0.5, 3.0), st.floats(1.2, 3.0))
def test_near_upright_the_tilt_grows_as_a_hyperbolic_cosine(start_deg: float, times: float) -> None:
    start = math.radians(start_deg)
    found = fall_all(rod(wedged_rad=start), level_ends(start * times))
    assert found.time_s[0] == pytest.approx(math.acosh(times) / math.sqrt(1.2), rel=3e-3)


def test_the_rate_at_the_ground_is_that_of_the_energy() -> None:
    found = fall_all(rod(), level_ends())
    wanted = math.sqrt(2 * 1.2 * math.cos(math.radians(4.0)))
    assert found.rate_rad_s[0] == pytest.approx(wanted, rel=1e-5)


@settings(max_examples=40)
@given(
    ahead=st.floats(-0.3, 0.6), left=st.floats(-0.5, 0.5), lost_deg=st.floats(12.0, 70.0), drag=st.sampled_from([0.0])
)
def test_energy_is_kept_without_hinge_wind_and_drag(ahead: float, left: float, lost_deg: float, drag: float) -> None:
    rods = rod(ahead_Nm=ahead * 2e4, left_Nm=left * 2e4, closing_rad=math.radians(lost_deg), drag_kg_m2=drag)
    found = fall_all(rods, level_ends())
    begun = energy_J(rods, float(found.start_rad[0]), 0.0, 0.0)
    ended = energy_J(rods, float(found.tilt_rad[0]), float(found.side_rad[0]), float(found.rate_rad_s[0]))
    assert ended == pytest.approx(begun, abs=2e-4 * 1.2e5)


def work_J(rods: Rods, start: np.ndarray, end: np.ndarray) -> np.ndarray:
    """What the hinge takes between two tilts, parted where it resists most."""
    yields = np.clip(rods.law.peaks_rad, start, end)
    before = hinge_mean_Nm(rods, start, yields, yielded=False) * (yields - start)
    return before + hinge_mean_Nm(rods, yields, end, yielded=True) * (end - yields)


def test_the_hinge_takes_what_it_resists() -> None:
    rods = rod(stiffness_Nm=5e5, peak_Nm=9e3, break_rad=math.radians(70.0))
    tilts = np.linspace(0, math.radians(69.0), 20001)
    wide = rods.picked(np.zeros(len(tilts), dtype=int))
    steps = (hinge_Nm(wide, tilts)[1:] + hinge_Nm(wide, tilts)[:-1]) / 2 * tilts[1]
    table = np.concatenate([[0.0], np.cumsum(steps)])
    assert work_J(wide, np.zeros(len(tilts)), tilts) == pytest.approx(table, rel=1e-5, abs=1e-3)


def test_the_work_of_weight_and_hinge_is_the_energy_at_the_end_of_the_hinge() -> None:
    rods = rod(stiffness_Nm=5e5, peak_Nm=9e3, break_rad=math.radians(70.0), ahead_Nm=2e3)
    start, end = np.array([0.12]), np.array([1.0])
    square, _, stalls = held_fall(rods, start, end)
    weight = 1.2e5 * (math.cos(0.12) - math.cos(1.0)) + 2e3 * (math.sin(1.0) - math.sin(0.12))
    taken = float(work_J(rods, start, end)[0])
    assert square[0] == pytest.approx(2 * (weight - taken) / 1e5, rel=1e-9)
    assert not stalls[0]


def test_drag_with_a_steady_moment_follows_the_exponential_law() -> None:
    """Over a small range y' + a y = 2 N/I has y = (2 N/(a I))(1 - e^(-a phi)) for a steady N."""
    rods = rod(toppling_Nm=1e-3, ahead_Nm=1e3, drag_kg_m2=4e6, wedged_rad=0.0)
    square, _, _ = held_fall(rods, np.array([0.0]), np.array([0.05]))
    a = 2 * 4e6 / 1e5
    assert square[0] == pytest.approx(2 * 1e3 / (a * 1e5) * (1 - math.exp(-a * 0.05)), rel=2e-3)


# Directions ------------------------------------------------------------------------------------------------


def test_a_fall_that_the_hinge_holds_stays_in_its_plane() -> None:
    rods = rod(left_Nm=1e4, side_capacity_Nm=1e6, twist_capacity_Nm=1e6, peak_Nm=8e3, stiffness_Nm=4e5)
    found = fall_all(rods, level_ends(math.radians(88.0)))
    assert found.broke_by[0] == 4 and found.side_rad[0] == 0.0


@given(st.floats(-math.pi, math.pi))
def test_a_hinge_lost_at_once_lets_the_tree_fall_along_the_resultant_of_its_weight(turn: float) -> None:
    rods = rod(
        ahead_Nm=9e3 * math.cos(turn),
        left_Nm=9e3 * math.sin(turn),
        side_capacity_Nm=1.0,
        twist_capacity_Nm=1.0,
        wedged_rad=0.0,
    )
    found = fall_all(rods, level_ends())
    if found.broke_by[0] == 3:
        off = (float(bearing_error_deg(rods, found)[0]) - math.degrees(turn) + 180) % 360 - 180
        assert abs(off) < 0.05


@settings(max_examples=15)
@given(st.integers(0, 10_000))
def test_a_mirrored_tree_falls_mirrored(seed: int) -> None:
    rods, _ = made_up(40, seed)
    mirrored = rods.changed(
        left_Nm=-rods.left_Nm, wind_left_Nm=-rods.wind_left_Nm, pull=-rods.pull, top_left_m=-rods.top_left_m
    )
    one, other = fall_all(rods, level_ends()), fall_all(mirrored, level_ends())
    assert bearing_error_deg(rods, one) == pytest.approx(-bearing_error_deg(mirrored, other), abs=2e-3)
    assert one.time_s == pytest.approx(other.time_s, abs=2e-3)


@settings(max_examples=15)
@given(st.integers(0, 10_000), st.floats(0.0, 360.0))
def test_turning_the_world_turns_the_fall(seed: int, by_deg: float) -> None:
    rods, _ = made_up(30, seed)
    one, other = fall_all(rods, level_ends()), fall_all(rods.changed(lay_deg=rods.lay_deg + by_deg), level_ends())
    assert one.side_rad == pytest.approx(other.side_rad, abs=1e-6)


@given(st.floats(0.2, 5.0))
def test_a_tree_of_other_scale_takes_the_square_root_of_the_time(scale: float) -> None:
    """Lengths by s: moments by s^4, inertia by s^5, so that times go by the root of s; directions stay."""
    rods, _ = made_up(20, 3)
    rods = rods.changed(wind_forward_Nm=0.0, wind_left_Nm=0.0)
    moments = [f.name for f in fields(Rods) if f.name.endswith("_Nm")]
    lengths = [f.name for f in fields(Rods) if f.name.endswith("_m")]
    bigger = rods.changed(
        inertia_kg_m2=rods.inertia_kg_m2 * scale**5,
        drag_kg_m2=rods.drag_kg_m2 * scale**5,
        **{name: getattr(rods, name) * scale**4 for name in moments},
        **{name: getattr(rods, name) * scale for name in lengths},
    )
    one, other = fall_all(rods, level_ends()), fall_all(bigger, level_ends())
    assert other.time_s == pytest.approx(one.time_s * math.sqrt(scale), rel=1e-3, abs=2e-3)
    assert other.side_rad == pytest.approx(one.side_rad, abs=1e-4)


def test_a_perfect_hinge_still_lays_a_left_leaning_top_to_the_left() -> None:
    rods = rod(top_left_m=0.8, peak_Nm=8e3, stiffness_Nm=4e5)
    _, left = tops_of(rods, fall_all(rods, level_ends()))
    assert left[0] == pytest.approx(0.8)


def test_the_shutting_face_pulls_towards_the_thicker_end() -> None:
    rods = rod(pull=0.05, closing_rad=math.radians(60.0))
    assert bearing_error_deg(rods, fall_all(rods, level_ends()))[0] > 0.5


# The hinge -------------------------------------------------------------------------------------------------


@settings(max_examples=20)
@given(st.integers(0, 10_000))
def test_the_hinge_lets_go_where_its_use_first_passes_one_or_the_face_shuts(seed: int) -> None:
    rods, _ = made_up(50, seed)
    broke, by = lets_go(rods)
    for row in range(len(rods)):
        one = rods.picked(slice(row, row + 1))
        tilts = np.linspace(0.0, min(float(one.closing_rad[0]), float(one.break_rad[0])), 4001)
        use = use_of(one.picked(np.zeros(len(tilts), dtype=int)), tilts)
        over = np.nonzero(use >= 1.0)[0]
        wanted = tilts[over[0]] if len(over) else float(one.closing_rad[0])
        assert broke[row] == pytest.approx(wanted, abs=1.5e-3)
        assert (by[row] == 0) == (len(over) == 0)


def test_it_goes_by_itself_only_past_the_last_tilt_at_which_the_hinge_wins() -> None:
    rods, _ = made_up(200, 5)
    broke, _ = lets_go(rods)
    goes = goes_from(rods, broke)
    for row in np.nonzero((goes > 0) & (goes < broke - 0.02))[0].tolist():
        one = rods.picked(np.full(60, row))
        past = np.linspace(goes[row] + 1e-4, broke[row], 60)
        assert (planar_Nm(one, past) - hinge_Nm(one, past)).min() > -2e-3 * rods.toppling_Nm[row]


def test_a_tree_at_rest_with_its_weight_behind_a_lost_hinge_does_not_go_over() -> None:
    rods = rod(ahead_Nm=-6e4, closing_rad=math.radians(10.0), peak_Nm=2e4, stiffness_Nm=1e6, wedged_rad=math.radians(2))
    assert not fall_all(rods, level_ends()).fell[0]


# Against a general-purpose integrator ----------------------------------------------------------------------


def stem_bearing_deg(found: Falls) -> np.ndarray:
    return np.degrees(np.arctan2(np.sin(found.side_rad), np.sin(found.tilt_rad) * np.cos(found.side_rad)))


def test_unlike_falls_agree_with_a_general_purpose_integrator() -> None:
    rods, ends = made_up(150, 11)
    found = fall_all(rods, ends)
    aside, plane = stem_bearing_deg(found), turned(rods, found.turned_rad)
    errors, times = [], []
    for row in np.nonzero(found.fell)[0].tolist():
        time, bearing, rate = by_solver(plane, row, ends, float(found.start_rad[row]), 1e-8)
        errors.append(abs((aside[row] - bearing + 180) % 360 - 180))
        times.append(abs(found.time_s[row] - time))
        assert found.rate_rad_s[row] == pytest.approx(rate, rel=2e-3)
    assert max(errors) < 0.1 and np.quantile(errors, 0.99) < 0.02
    assert np.quantile(times, 0.97) < 0.005


def test_steps_of_time_agree_with_steps_of_tilt(monkeypatch: pytest.MonkeyPatch) -> None:
    rods, ends = made_up(60, 12)
    over_tilt = fall_all(rods, ends)
    monkeypatch.setattr(loose, "FAR_ASIDE", 0.0)
    over_time = fall_all(rods, ends)
    assert over_time.stepped.sum() > 40
    both = over_tilt.fell & ~over_tilt.stepped
    assert over_time.side_rad[both] == pytest.approx(over_tilt.side_rad[both], abs=2e-3)
    assert over_time.time_s[both] == pytest.approx(over_tilt.time_s[both], abs=5e-3)


def test_the_integrator_is_of_the_fourth_order(monkeypatch: pytest.MonkeyPatch) -> None:
    rods = rod(left_Nm=2e4, closing_rad=math.radians(25.0), drag_kg_m2=2e4)
    monkeypatch.setattr(loose, "AT_SPEED", 0.0)
    monkeypatch.setattr(loose, "single", lambda *columns: columns)
    sides = []
    for steps in (4, 8, 16, 64):
        monkeypatch.setattr(loose, "MORE", steps)
        sides.append(float(fall_all(rods, level_ends()).side_rad[0]))
    errors = [abs(side - sides[-1]) for side in sides[:3]]
    orders = [math.log2(errors[i] / errors[i + 1]) for i in range(2)]
    assert all(3.3 < order < 5.5 for order in orders), orders


def test_the_traced_fall_ends_where_the_quick_one_does() -> None:
    rods, ends = made_up(12, 4)
    for row in range(len(rods)):
        falls, trace = trace_of(rods.picked(slice(row, row + 1)), ends)
        assert trace.time_s[-1] == pytest.approx(float(falls.time_s[0]))
        # The last frame is set to the end; the one before it must lie on the way there.
        step = float(trace.rate_rad_s[-1]) * float(trace.time_s[-1] - trace.time_s[-2])
        assert abs(trace.whole_rad[-1] - trace.whole_rad[-2] - step) < 0.35 * step + 0.02


# Many at once ----------------------------------------------------------------------------------------------


def test_how_the_rows_are_shared_out_does_not_change_the_answer(monkeypatch: pytest.MonkeyPatch) -> None:
    rods, ends = made_up(300, 9)
    monkeypatch.setattr(many, "BLOCK", 100)
    blocks = many.blocks_of(rods)
    forwards = many.finished(rods, ends, [many.initial_falls(block, ends) for block in blocks])
    backwards = [many.initial_falls(block, ends) for block in reversed(blocks)][::-1]
    other = many.finished(rods, ends, backwards)
    for field in fields(Falls):
        assert np.array_equal(getattr(forwards, field.name), getattr(other, field.name), equal_nan=True)


def test_ends_are_found_between_the_bearings_that_are_tabled() -> None:
    ends = Ends(np.linspace(1.0, 2.0, 120))
    assert ends.at(np.array([0.0, 3.0, 4.5, 357.0, 360.0, -3.0])) == pytest.approx(
        [1.0, 1.0 + 1 / 119, 1.0 + 1.5 / 119, 2.0, 1.0, 2.0]
    )
