"""Slender stems in leaf: the air takes most of their fall, and every number of it stays finite."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest

from builders import ROUND, case, round_tree
from fall_truth import by_solver
from plain_compass.core.advice.begin import begun
from plain_compass.core.assess import assess
from plain_compass.core.fall.falls import fall_all
from plain_compass.core.fall.nominal import nominal_fall
from plain_compass.core.fall.rods import Rods, level_ends, one_rod
from plain_compass.core.plan.case import Case
from plain_compass.job.tables import wood_of

LONGEST_s = 60.0


def slender(drag: float) -> Rods:
    """A stem of ninety kilos on a hinge of little strength, wedged to two degrees."""
    inertia, toppling = 5000.0, 6000.0
    return one_rod(
        inertia_kg_m2=inertia,
        toppling_Nm=toppling,
        bent_Nm=toppling,
        ahead_Nm=100.0,
        left_Nm=30.0,
        drag_kg_m2=drag * inertia,
        wind_forward_Nm=0.0,
        wind_left_Nm=0.0,
        stiffness_Nm=5000.0,
        peak_Nm=150.0,
        peaks_at=3.0,
        softens_over=2.5,
        tail=0.15,
        side_capacity_Nm=400.0,
        twist_capacity_Nm=400.0,
        break_rad=math.radians(65.0),
        closing_rad=math.radians(70.0),
        pull=0.0,
        wedged_rad=math.radians(2.0),
        margin_rad=math.radians(0.5),
        length_m=15.0,
        top_forward_m=0.0,
        top_left_m=0.0,
        lay_deg=0.0,
    )


@pytest.mark.parametrize("drag", [0.5, 0.9, 1.1, 2.9, 6.0])
def test_a_fall_that_the_air_holds_back_is_that_of_a_general_purpose_integrator(drag: float) -> None:
    rods, ends = slender(drag), level_ends(math.radians(88.0))
    falls = fall_all(rods, ends)
    time, bearing, rate = by_solver(rods, 0, ends, float(falls.start_rad[0]), rtol=1e-8)
    assert float(falls.time_s[0]) == pytest.approx(time, rel=0.01)
    assert float(falls.rate_rad_s[0]) == pytest.approx(rate, rel=0.01)
    turned = math.degrees(math.atan2(math.sin(falls.side_rad[0]), math.sin(falls.tilt_rad[0])))
    assert turned == pytest.approx(bearing, abs=0.1)


def test_where_the_air_holds_much_the_stem_turns_at_its_terminal_rate() -> None:
    rods = slender(8.0)
    falls = fall_all(rods, level_ends(math.radians(60.0)))
    tilt = float(falls.tilt_rad[0])
    pulls = float(rods.toppling_Nm[0]) * math.sin(tilt) + float(rods.ahead_Nm[0]) * math.cos(tilt)
    terminal = math.sqrt(pulls / float(rods.drag_kg_m2[0]))
    # It still gathers speed as it leans over: just behind what the tilt would let it reach.
    assert 0.8 * terminal < float(falls.rate_rad_s[0]) <= terminal


def drawn(rng: np.random.Generator) -> Case:
    """A stem eighty to a hundred and fifty diameters tall, in leaf."""
    species = str(rng.choice(["birch-silver", "spruce-norway", "larch-european", "rowan", "hazel"]))
    thick = float(rng.uniform(0.08, 0.20))
    tall, wide = thick * float(rng.uniform(80.0, 150.0)), float(rng.uniform(1.0, 3.0))
    edges = tuple(replace(each, radius_m=wide) for each in ROUND)
    tree = round_tree(species=species, height_m=tall, trunk__diameter_m=thick, trunk__butt_diameter_m=None)
    crown = replace(tree.crown, base_m=0.4 * tall, readings=edges, leaf="leaf")
    lean = replace(tree.lean, angle_deg=float(rng.uniform(0.0, 3.0)))
    made = replace(case(), tree=replace(tree, crown=crown, lean=lean), wood=wood_of(species))
    return replace(made, cut=begun(made))


def test_no_slender_stem_falls_for_more_than_a_minute_or_into_nothing() -> None:
    rng = np.random.default_rng(6)
    for _ in range(40):
        one = drawn(rng)
        fall = nominal_fall(assess(one))
        assert 0.0 <= fall.time_s < LONGEST_s, one.tree
        assert math.isfinite(fall.top_north_m), one.tree
        assert math.isfinite(fall.tip_speed_m_s), one.tree


@pytest.mark.parametrize(
    ("species", "thick", "tall", "wide"), [("birch-silver", 0.12, 15.0, 2.0), ("spruce-norway", 0.15, 18.0, 2.5)]
)
def test_stems_whose_fall_once_had_no_end_have_one(species: str, thick: float, tall: float, wide: float) -> None:
    edges = tuple(replace(each, radius_m=wide) for each in ROUND)
    tree = round_tree(species=species, height_m=tall, trunk__diameter_m=thick, trunk__butt_diameter_m=None)
    crown = replace(tree.crown, base_m=0.4 * tall, readings=edges, leaf="leaf")
    made = replace(case(), tree=replace(tree, crown=crown), wood=wood_of(species))
    assert 2.0 < nominal_fall(assess(replace(made, cut=begun(made)))).time_s < 30.0
