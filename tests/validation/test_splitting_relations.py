"""Splitting against the split-beam formula, its limits, and the equation that says when a tree begins to go."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import assessed, finding, finding_ids, plain_cut, round_tree, section, sections_alone
from plain_compass.core.base.edges import breadth_m
from plain_compass.core.base.polygon import ahead_of, moments
from plain_compass.core.mechanics.splitting import kerfs_at, resistance_J_m2
from plain_compass.core.tree.timber import fracture_J_m2
from plain_compass.core.tree.tree import Decay, Measured, Tree
from plain_compass.core.tree.wood import Wood
from plain_compass.job.tables import indicative, wood_of

LEANER = round_tree(lean__angle_deg=14.0, lean__bearing_deg=0.0)


def energy(forward_m: float, moment_Nm: float) -> float:
    kerf = kerfs_at(sections_alone(), np.array([forward_m]))
    return float(kerf.energy_J_m2(np.array([moment_Nm]), np.array([9e9]))[0])


def test_energy_release_is_that_of_a_split_beam() -> None:
    found = section()
    front = moments(ahead_of(found.wood, 0.05)).second_fall_m4
    whole = math.pi * 0.4**4 / 64
    breadth = 2 * math.sqrt(0.2**2 - 0.05**2)
    expected = 1e4**2 / (2 * breadth * 9e9) * (1 / front - 1 / whole)
    assert energy(0.05, 1e4) == pytest.approx(expected, rel=2e-3)


@given(moment=st.floats(10.0, 1e5), factor=st.floats(1.1, 5.0))
def test_energy_goes_with_the_square_of_the_moment(moment: float, factor: float) -> None:
    one, more = (energy(0.0, m) for m in (moment, factor * moment))
    assert more == pytest.approx(one * factor**2, rel=1e-9)


@given(line=st.floats(-0.15, 0.12))
def test_a_kerf_nearer_the_face_frees_more_energy(line: float) -> None:
    """The thinner the part that must bend alone, the worse: depth acts hard on the index."""
    assert energy(line + 0.02, 1e4) > energy(line, 1e4)


def test_a_chord_through_rot_is_only_as_long_as_its_sound_wood() -> None:
    found = sections_alone(round_tree(decay=Decay(kind="cavity", radius_m=0.1)))
    assert breadth_m(found.edges, np.zeros(1))[0] == pytest.approx(0.4 - 0.2, rel=1e-2)


def resistance(wood: Wood, crack: str, diameter_m: float) -> float:
    return float(resistance_J_m2(fracture_J_m2(wood, ("live", crack), indicative()), np.array([diameter_m]))[0])


@pytest.mark.parametrize(("name", "base"), [("ash", 270.0), ("oak", 390.0), ("spruce-norway", 570.0), ("lime", 780.0)])
def test_resistance_goes_by_splitting_class(name: str, base: float) -> None:
    assert resistance(wood_of(name), "none", 0.40) == pytest.approx(base)


def test_resistance_grows_with_size_within_bounds_and_an_old_crack_halves_it() -> None:
    oak = wood_of("oak")
    assert resistance(oak, "none", 0.10) == pytest.approx(390 * 0.7)
    assert resistance(oak, "none", 0.60) == pytest.approx(390 * math.sqrt(1.5))
    assert resistance(oak, "none", 3.00) == pytest.approx(390 * 1.6)
    assert resistance(oak, "present", 0.40) == pytest.approx(195.0)


def test_a_tree_cut_from_behind_goes_where_its_moment_meets_what_the_wood_resists() -> None:
    parts = assessed(LEANER).parts
    at = parts.splitting.moves_at_m
    assert at is not None
    assert at > parts.hinge.reach_m
    moment = np.interp(-at, -parts.sweep.ligament_m, parts.sweep.moment_Nm)
    resists = np.interp(-at, -parts.sweep.ligament_m, parts.sweep.peak_Nm)
    assert moment == pytest.approx(resists, rel=0.01)


def test_an_upright_tree_goes_only_from_its_hinge() -> None:
    parts = assessed(round_tree(lean__angle_deg=2.0, lean__bearing_deg=180.0)).parts
    assert parts.splitting.moves_at_m is None
    assert parts.splitting.split_index_plain == pytest.approx(parts.splitting.split_index_bored)


def test_a_forward_leaner_cut_from_behind_is_a_stop_and_boring_mends_it() -> None:
    ash = round_tree(species="ash", height_m=22.0, lean__angle_deg=14.0, lean__bearing_deg=0.0)
    behind, bored = assessed(ash), assessed(ash, plain_cut(back__form="bored", back__strap_m=0.08))
    assert finding(behind, "split.index").level == "stop"
    assert finding(behind, "split.bore").source == "practice"
    assert bored.parts.splitting.split_index < behind.parts.splitting.split_index
    assert "split.bore" not in finding_ids(bored)


def test_boring_does_not_depend_on_the_lean() -> None:
    bored = plain_cut(back__form="bored")
    upright, leaning = assessed(round_tree(), bored), assessed(LEANER, bored)
    assert leaning.parts.splitting.split_index == pytest.approx(upright.parts.splitting.split_index, rel=1e-6)


def test_the_sweep_runs_from_the_whole_stem_to_the_hinge() -> None:
    parts = assessed(LEANER).parts
    assert parts.sweep.ligament_m[0] == pytest.approx(parts.face.hinge_front_m - parts.section.back_m)
    assert parts.sweep.ligament_m[-1] == pytest.approx(0.04)
    # Lines through the stem on the way in, exact at the hinge: two roads to one number.
    assert parts.sweep.peak_Nm[-1] == pytest.approx(parts.strength.peak_Nm, rel=2e-3)
    assert (np.diff(parts.sweep.peak_Nm) < 0).all()


def test_the_strap_carries_the_moment_over_its_arm() -> None:
    parts = assessed(LEANER, plain_cut(back__form="bored")).parts
    angle = 2 * math.acos((0.20 - 0.05) / 0.20)
    area = 0.20**2 / 2 * (angle - math.sin(angle))
    centre = 4 * 0.20 * math.sin(angle / 2) ** 3 / (3 * (angle - math.sin(angle)))
    arm = parts.hinge.region.forward_m + centre
    expected = parts.balance.moment_forward_Nm / arm / (wood_of("oak").rupture_Pa * area / 3)
    assert parts.splitting.strap_area_m2 == pytest.approx(area, rel=1e-3)
    assert parts.splitting.strap_utilisation == pytest.approx(expected, rel=1e-3)


def test_a_strap_too_thin_for_the_lean_is_a_stop() -> None:
    heavy = round_tree(height_m=28.0, lean__angle_deg=14.0, lean__bearing_deg=0.0)
    thin = assessed(heavy, plain_cut(back__form="bored", back__strap_m=0.006))
    assert finding(thin, "split.strap").level == "stop"


def test_an_overcut_shuts_at_its_slot_and_not_at_the_face() -> None:
    """Kerf 8 mm high and 20 mm long shuts after atan(0.4), about 22 degrees."""
    found = assessed(cut=plain_cut(face__overcut_m=0.02)).parts.face
    assert found.closing_angle_deg == pytest.approx(math.degrees(math.atan(0.008 / 0.02)))
    assert found.shuts_on_overcut


def test_no_overcut_leaves_no_slot() -> None:
    found = assessed().parts.face
    assert found.closing_angle_deg == pytest.approx(70.0)
    assert not found.shuts_on_overcut


def test_an_overcut_adds_its_own_splitting() -> None:
    clean, over = assessed(), assessed(cut=plain_cut(face__overcut_m=0.02))
    assert clean.parts.splitting.split_index_overcut == 0.0
    assert over.parts.splitting.split_index_overcut > 0.0
    assert over.parts.splitting.split_index >= over.parts.splitting.split_index_overcut
    assert finding(over, "face.overcut").level == "stop"


def test_rot_makes_splitting_worse_or_no_better() -> None:
    rotten = round_tree(decay=Decay(kind="cavity", radius_m=0.08), lean__angle_deg=9.0)
    sound = round_tree(lean__angle_deg=9.0)
    assert assessed(rotten).parts.splitting.energy_J_m2 > 0.8 * assessed(sound).parts.splitting.energy_J_m2


# Check numbers and dead wood --------------------------------------------------------------------------------


def ash(lean_deg: float, condition: str = "live") -> Tree:
    """An ash of 50 cm and 1.85 t, its centre 7.87 m up and leaning ahead."""
    tree = round_tree(species="ash", height_m=22.0, trunk__diameter_m=0.5, trunk__butt_diameter_m=0.5)
    ahead = 7.87 * math.sin(math.radians(lean_deg))
    known = Measured(mass_kg=1850.0, com_up_m=7.87, com_offset_m=ahead, com_bearing_deg=0.0)
    return replace(tree, measured=known, condition=condition)


FIFTH = plain_cut(face__depth_m=0.11, hinge__left_m=0.05, hinge__right_m=0.05)


@pytest.mark.parametrize(("lean_deg", "index"), [(0.0, 0.34), (7.0, 0.66), (10.0, 1.11)])
def test_the_index_has_the_numbers_it_was_checked_with(lean_deg: float, index: float) -> None:
    """Face 22 %, hinge 5 cm, cut from behind: upright it is far from splitting, ten degrees ahead it splits."""
    assert assessed(ash(lean_deg), FIFTH).parts.splitting.split_index == pytest.approx(index, abs=0.01)


@pytest.mark.parametrize("lean_deg", [0.0, 7.0, 10.0])
def test_a_dead_ash_never_comes_out_better_than_a_live_one(lean_deg: float) -> None:
    """Half the resistance, the same stiffness, and no weaker hinge to spare it."""
    live, dead = (assessed(ash(lean_deg, state), FIFTH).parts.splitting for state in ("live", "dead"))
    assert dead.split_index == pytest.approx(2 * live.split_index)
