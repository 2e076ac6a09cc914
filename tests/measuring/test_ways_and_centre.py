"""Ways of measuring beyond the simplest, averaging, and how spread passes on to the centre of mass."""

from __future__ import annotations

import json
import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import assessed, case, round_tree
from plain_compass.cli import main
from plain_compass.core.advice.centre import centre_spread
from plain_compass.core.base.errors import InputError
from plain_compass.core.base.paths import value_at, with_value
from plain_compass.core.measuring.estimate import Reading
from plain_compass.core.measuring.lean import LeanReading, averaged_lean, lean_by_sighting
from plain_compass.core.mechanics.mass import tree_mass
from plain_compass.job.measuring import MeasureError, measure, measure_repeated, taken_from, typed_reading
from plain_compass.job.person import Person
from plain_compass.job.typed import TypedError, parse_typed
from plain_compass.job.ways import EYE, METHODS, Wanted

EXACT = Reading(0.0, 0.0)


@given(st.floats(0.5, 20.0), st.floats(0.0, 359.0), st.floats(0.0, 359.0), st.floats(8.0, 30.0))
def test_sighting_from_two_places_gives_any_lean_back(lean: float, bearing: float, first: float, height: float) -> None:
    out = height * math.tan(math.radians(lean))
    toward, right = (out * f(math.radians(bearing - first)) for f in (math.cos, math.sin))
    found = lean_by_sighting(Reading(toward, 0.1), Reading(right, 0.1), Reading(height, 0.0), first)
    assert found.angle_deg.value == pytest.approx(lean, abs=1e-6)
    assert math.remainder(found.bearing_deg.value - bearing, 360.0) == pytest.approx(0.0, abs=1e-4)


@given(st.lists(st.tuples(st.floats(0.5, 15.0), st.floats(0.0, 359.0)), min_size=1, max_size=4), st.floats(0, 359))
def test_averaging_leans_turns_with_the_world(leans: list[tuple[float, float]], turn: float) -> None:
    here, _ = averaged_lean(tuple(LeanReading(a, b, 1.0) for a, b in leans))
    there, _ = averaged_lean(tuple(LeanReading(a, b + turn, 1.0) for a, b in leans))
    assert there.angle_deg.value == pytest.approx(here.angle_deg.value, abs=1e-6)


def test_one_lean_is_its_own_average_and_a_wild_one_is_left_out() -> None:
    alone, out = averaged_lean((LeanReading(3.0, 80.0, 0.5),))
    assert (alone.angle_deg.value, alone.bearing_deg.value, out) == (pytest.approx(3.0), pytest.approx(80.0), ())
    near = tuple(LeanReading(3.0 + 0.1 * i, 80.0, 0.5) for i in range(4))
    both, out = averaged_lean((*near, LeanReading(14.0, 260.0, 0.5)))
    assert out == (4,)
    assert both.angle_deg.value == pytest.approx(3.15, abs=0.01)


@pytest.mark.parametrize(("word", "angle", "spread"), [("upright", 0.0, 2.0), ("Marked", 7.0, 3.0)])
def test_a_lean_by_eye_is_a_word_with_a_large_spread(word: str, angle: float, spread: float) -> None:
    assert typed_reading(word, Wanted(EYE, ("", "")), "metric") == Reading(angle, spread)


def test_a_word_that_is_no_class_says_which_there_are() -> None:
    with pytest.raises(TypedError, match="upright, slight, marked, strong"):
        typed_reading("a bit", Wanted(EYE, ("", "")), "metric")


def test_paces_go_by_the_persons_own_and_carry_their_repeatability() -> None:
    person = Person(0.8, 0.06)
    wanted = Wanted("span", ("distance", "tape"))
    assert typed_reading("25 paces", wanted, "metric", person) == Reading(20.0, pytest.approx(1.2))  # type: ignore[arg-type]
    assert typed_reading("25 p ± 0.5 m", wanted, "metric", person) == Reading(20.0, 0.5)
    with pytest.raises(TypedError):
        parse_typed("3 paces", "length", "metric")


def test_a_lean_is_also_told_as_the_offset_of_the_top() -> None:
    answers = {
        a.name: a for a in measure("lean", "plumb", {"offset": "10 cm", "drop": "2 m", "height": "20"}, "metric")
    }
    assert answers["top_offset_m"].estimate.value == pytest.approx(1.0)


def test_two_diameters_are_one_circle_and_the_room_says_how_high_to_cut() -> None:
    (mean,) = measure("girth", "two-diameters", {"first": "40", "second": "90"}, "metric")
    assert mean.estimate.value == pytest.approx(0.60)
    (cut,) = measure("room", "top", {"height": "17.5", "room": "12"}, "metric")
    assert cut.estimate.value == pytest.approx(5.5)
    assert taken_from((cut,), "top", "") is None


def test_a_leaning_top_is_corrected_by_two_sightings() -> None:
    typed = {"distance": "20", "top": "45", "base": "-4.5739", "aside": "0"}
    typed |= {"distance-2": "20", "top-2": "42", "base-2": "-4.5739", "aside-2": "6"}
    height, toward, _ = measure("height", "two-sightings", typed, "metric")
    assert toward.estimate.value == pytest.approx(20 * math.tan(math.radians(6)))
    one_place = 20 * (math.tan(math.radians(45)) + math.tan(math.radians(4.5739)))
    assert height.estimate.value < one_place


def test_repeated_readings_are_averaged_and_the_odd_one_named() -> None:
    times = [{"distance": "20", "top": top, "base": "-4"} for top in ("40", "40.5", "55")]
    found = measure_repeated("height", "clinometer", times, "metric")
    assert found.outliers == (2,)
    assert found.answers[0].estimate.value == pytest.approx(18.3, abs=0.2)


def test_the_command_averages_what_is_given_again_and_refuses_uneven_counts(capsys: pytest.CaptureFixture[str]) -> None:
    typed = ["measure", "height", "--distance", "20", "--top", "40", "--top", "41", "--base", "-4", "--json"]
    assert main(typed) == 0
    assert json.loads(capsys.readouterr().out)["left_out"] == []
    assert main([*typed, "--base", "-4", "--base", "-5"]) == 2
    assert "--top was given 2 times; accepted: once, or 3 times" in capsys.readouterr().err


def test_every_way_that_is_kept_measures_something_a_tree_has() -> None:
    for ways in METHODS.values():
        for method in ways.values():
            assert method.how
    with pytest.raises(MeasureError, match="--distance is missing"):
        measure("height", "stick", {}, "metric")


# The centre of mass ----------------------------------------------------------------------------------------

SPREADS = {
    "tree.lean.angle_deg": 0.5,
    "tree.height_m": 0.6,
    "tree.crown.readings.1.radius_m": 0.4,
    "tree.crown.base_m": 0.5,
}


def test_the_ellipse_agrees_with_moving_everything_at_random() -> None:
    whole = case(round_tree(lean__angle_deg=3.0, lean__bearing_deg=40.0))
    found = centre_spread(whole, SPREADS)
    rng = np.random.default_rng(1)
    at = []
    for _ in range(1500):
        tree = whole.tree
        for path, spread in SPREADS.items():
            name = path.removeprefix("tree.")
            tree = with_value(tree, name, value_at(tree, name) + spread * rng.standard_normal())
        mass = tree_mass(tree, whole.wood, whole.cut, whole.constants)
        at.append((mass.com_forward_m, mass.com_left_m, mass.com_up_m))
    spread = np.std(at, axis=0)
    assert found.forward_spread_m == pytest.approx(spread[0], rel=0.08)
    assert found.left_spread_m == pytest.approx(spread[1], rel=0.08)
    assert found.up_spread_m == pytest.approx(spread[2], rel=0.08)
    covariance = np.cov(np.array(at)[:, :2].T)
    assert found.long_m == pytest.approx(math.sqrt(np.linalg.eigvalsh(covariance)[1]), rel=0.08)


def test_without_spread_the_centre_is_a_point_where_the_balance_has_it() -> None:
    found = centre_spread(case(), {})
    mass = assessed().parts.mass
    assert (found.forward_m, found.left_m, found.up_m) == (mass.com_forward_m, mass.com_left_m, mass.com_up_m)
    assert (found.long_m, found.short_m) == (0.0, 0.0)


@given(st.floats(0.0, 359.0))
def test_the_ellipse_does_not_care_which_way_the_lay_points(lay: float) -> None:
    whole = case(round_tree(lean__angle_deg=3.0, lean__bearing_deg=40.0))
    turned = replace(whole, cut=replace(whole.cut, lay_deg=lay))
    here, there = centre_spread(whole, SPREADS), centre_spread(turned, SPREADS)
    assert there.long_m == pytest.approx(here.long_m, rel=1e-6)
    assert there.short_m == pytest.approx(here.short_m, rel=1e-4, abs=1e-6)
    off = math.remainder((there.turn_deg - here.turn_deg) - lay, 180.0)
    assert off == pytest.approx(0.0, abs=1e-3)


def test_a_lean_is_worth_its_spread_times_the_height_of_the_centre() -> None:
    whole = case(round_tree())
    found = centre_spread(whole, {"tree.lean.angle_deg": 1.0})
    stem_only = math.radians(1.0) * found.up_m
    # The crown is paced from the base, so that it does not swing with the stem.
    assert 0.3 * stem_only < found.forward_spread_m < stem_only


def test_an_input_at_its_bound_is_moved_the_other_way() -> None:
    tree = round_tree(crown__base_m=14.95)
    assert centre_spread(case(tree), {"tree.crown.base_m": 0.5}).up_spread_m > 0


def test_a_plumb_line_must_hang_and_a_sighted_stem_have_a_height() -> None:
    with pytest.raises(InputError):
        lean_by_sighting(EXACT, EXACT, Reading(0.0, 0.0), 0.0)
