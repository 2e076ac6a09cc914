"""Second stems, heavy limbs and loaded, dead or missing parts of a crown: closed forms and limits."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import ROUND, assessed, case, round_tree
from plain_compass.core.base.polygon import moments
from plain_compass.core.mechanics.mass import tree_mass
from plain_compass.core.tree.body import AboveCut, Body, together
from plain_compass.core.tree.crown import crown_fill, crown_outline
from plain_compass.core.tree.limbs import Fork, Limb, limb_body, second_stem
from plain_compass.core.tree.tree import Tree

NOWHERE = AboveCut(0.0, 20.0, 0.0), (0.0, 0.0)


def mass_of(tree: Tree) -> object:
    whole = case(tree)
    return tree_mass(tree, whole.wood, whole.cut, whole.constants)


def test_a_limb_is_half_a_cylinder_with_its_centre_a_third_out() -> None:
    body = limb_body(Limb(90.0, 6.0, 0.2, 3.0), *NOWHERE, density=1000.0)
    assert body.mass_kg == pytest.approx(1000 * math.pi / 4 * 0.04 * 3 / 2)
    assert (body.forward_m, body.left_m, body.up_m) == pytest.approx((0.0, -1.0, 6.0))


@pytest.mark.parametrize("exponent", [0.7, 0.85, 1.0])
def test_a_second_stem_agrees_with_slicing_it(exponent: float) -> None:
    fork = Fork("second", "wide", 2.0, 0.2, 12.0, 5.0, 0.0)
    body = second_stem(fork, *NOWHERE, exponent=exponent, density=900.0)
    steps = 20_000
    mass = up = second = 0.0
    for step in range(steps):
        share = (step + 0.5) / steps
        slice_kg = 900 * math.pi / 4 * (0.2 * (1 - share) ** exponent) ** 2 * 10 / steps
        height = 2 + 10 * share
        mass, up, second = mass + slice_kg, up + slice_kg * height, second + slice_kg * height**2
    assert body.mass_kg == pytest.approx(mass, rel=1e-4)
    assert body.up_m == pytest.approx(up / mass, rel=1e-4)
    assert body.second_up_kg_m2 == pytest.approx(second, rel=1e-4)
    assert body.forward_m == pytest.approx(math.tan(math.radians(5)) * (body.up_m - 2))


def test_bodies_add_as_masses_do() -> None:
    whole = together(Body(1.0, 2.0, 0.0, 4.0, 5.0), Body(3.0, 6.0, 4.0, 0.0, 7.0))
    assert whole == Body(4.0, 5.0, 3.0, 1.0, 12.0)


@given(st.floats(0, 359), st.floats(1, 8), st.floats(0.05, 0.4))
def test_a_limb_pulls_the_centre_its_own_way_and_its_mirror_the_other(
    bearing: float, length: float, thick: float
) -> None:
    limb = Limb(bearing, 7.0, thick, length)
    here = mass_of(replace(round_tree(), limbs=(limb,)))
    there = mass_of(replace(round_tree(), limbs=(replace(limb, bearing_deg=(-bearing) % 360),)))
    assert here.com_left_m == pytest.approx(-there.com_left_m, abs=1e-9)  # type: ignore[attr-defined]
    assert here.com_forward_m == pytest.approx(there.com_forward_m, abs=1e-9)  # type: ignore[attr-defined]
    out = here.com_forward_m * math.cos(math.radians(bearing)) - here.com_left_m * math.sin(math.radians(bearing))  # type: ignore[attr-defined]
    assert out > 0


def test_two_equal_limbs_across_from_each_other_leave_the_balance() -> None:
    plain = mass_of(round_tree())
    both = mass_of(replace(round_tree(), limbs=(Limb(90.0), Limb(270.0))))
    assert both.com_left_m == pytest.approx(plain.com_left_m, abs=1e-9)  # type: ignore[attr-defined]
    assert both.mass_kg > plain.mass_kg  # type: ignore[attr-defined]


@given(st.lists(st.floats(0.5, 6.0), min_size=3, max_size=8))
def test_a_live_crown_has_the_centroid_of_its_outline(radii: list[float]) -> None:
    readings = tuple(replace(ROUND[0], bearing_deg=360.0 * i / len(radii), radius_m=r) for i, r in enumerate(radii))
    share, forward, left = crown_fill(readings, 0.35)
    outline = moments(crown_outline(readings))
    assert share == pytest.approx(1.0)
    assert (forward, left) == pytest.approx((outline.forward_m, outline.left_m), abs=1e-9)


def test_half_a_round_crown_missing_leaves_half_its_mass_and_the_centroid_of_a_half_disc() -> None:
    readings = tuple(
        replace(ROUND[0], bearing_deg=b, state="missing" if 90 < b < 270 else "live") for b in range(0, 360, 10)
    )
    share, forward, _ = crown_fill(readings, 0.35)
    # The sectors at 90 and 270 degrees reach half a step further back than the half circle does.
    half = math.radians(95)
    assert share == pytest.approx(190 / 360, rel=1e-6)
    assert forward == pytest.approx(2 * 3.0 * math.sin(half) / (3 * half), rel=1e-3)


def test_a_dead_sector_weighs_less_than_a_live_one_and_more_than_a_missing_one() -> None:
    by_state = {
        state: mass_of(round_tree(crown__readings=(replace(ROUND[0], state=state), *ROUND[1:])))
        for state in ("live", "dead", "missing")
    }
    masses = [by_state[state].crown_mass_kg for state in ("live", "dead", "missing")]  # type: ignore[attr-defined]
    assert masses[0] > masses[1] > masses[2]
    assert by_state["missing"].com_forward_m < by_state["dead"].com_forward_m < 0.01  # type: ignore[attr-defined]


def test_a_crown_with_nothing_left_adds_nothing() -> None:
    gone = tuple(replace(edge, state="missing") for edge in ROUND)
    assert mass_of(round_tree(crown__readings=gone)).crown_mass_kg == pytest.approx(0.0)  # type: ignore[attr-defined]


def test_rain_snow_and_ice_weigh_more_in_that_order_and_a_typed_weight_overrides() -> None:
    masses = [assessed(round_tree(crown__load=load)).parts.mass for load in ("dry", "wet", "snow", "ice")]
    assert sorted(m.mass_kg for m in masses) == [m.mass_kg for m in masses]
    assert sorted(m.com_up_m for m in masses) == [m.com_up_m for m in masses]
    typed = assessed(round_tree(crown__load="ice", crown__added_kg=100.0)).parts.mass
    assert typed.mass_kg == pytest.approx(masses[0].mass_kg + 100.0)
