"""Mass and its place against quadrature and against bodies whose centre is known."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import case, plain_cut, round_tree
from plain_compass.core.base.polygon import moments
from plain_compass.core.mechanics.mass import Mass, tree_mass
from plain_compass.core.tree.body import AboveCut
from plain_compass.core.tree.crown import crown_body, crown_outline
from plain_compass.core.tree.outline import diameters_at
from plain_compass.core.tree.stem import Body, axis_at, profile_ratio, stem_body
from plain_compass.core.tree.tree import Crown, CrownReading, Lean, Measured, Trunk
from plain_compass.job.tables import indicative

NODES, WEIGHTS = np.polynomial.legendre.leggauss(80)


def stem(exponent: float = 0.85, cut_m: float = 0.3, height_m: float = 18.0, lean: Lean | None = None) -> Body:
    return stem_body(
        Trunk(diameter_m=0.45), lean or Lean(), AboveCut(cut_m, height_m, 0.0), exponent=exponent, density_kg_m3=1000.0
    )


def by_quadrature(exponent: float, cut_m: float, height_m: float, power: int) -> float:
    """Integral of mass times (height above the cut)^power, by Gauss and Legendre in x = H - h."""
    above = height_m - cut_m
    x = above * (NODES + 1) / 2
    diameter = 0.45 * (x / (height_m - 1.3)) ** exponent
    return float((WEIGHTS * 1000.0 * math.pi / 4 * diameter**2 * (above - x) ** power).sum() * above / 2)


@given(exponent=st.floats(0.5, 1.2), cut_m=st.floats(0.05, 2.0), height_m=st.floats(8.0, 45.0))
def test_stem_integrals_agree_with_quadrature(exponent: float, cut_m: float, height_m: float) -> None:
    found = stem(exponent, cut_m, height_m)
    mass = by_quadrature(exponent, cut_m, height_m, 0)
    assert found.mass_kg == pytest.approx(mass, rel=1e-4)
    assert found.up_m == pytest.approx(by_quadrature(exponent, cut_m, height_m, 1) / mass, rel=1e-4)
    assert found.second_up_kg_m2 == pytest.approx(by_quadrature(exponent, cut_m, height_m, 2), rel=1e-4)


def test_a_cone_has_its_centre_a_quarter_up() -> None:
    assert stem(exponent=1.0, cut_m=0.0, height_m=20.0).up_m == pytest.approx(5.0)


def test_lean_moves_the_centre_by_its_tangent() -> None:
    found = stem(lean=Lean(angle_deg=10.0, bearing_deg=0.0))
    assert found.forward_m == pytest.approx(found.up_m * math.tan(math.radians(10.0)))
    assert found.left_m == pytest.approx(0.0, abs=1e-12)


def test_sweep_moves_the_centre_by_the_mean_of_its_parabola() -> None:
    exponent, above = 0.85, 18.0 - 0.3
    found = stem(exponent, lean=Lean(sweep_m=2.0, sweep_bearing_deg=270.0))
    mean = by_quadrature(exponent, 0.3, 18.0, 2) / by_quadrature(exponent, 0.3, 18.0, 0) / above**2
    assert found.left_m == pytest.approx(2.0 * mean, rel=1e-4)
    assert found.forward_m == pytest.approx(0.0, abs=1e-12)


def test_the_taper_is_one_at_its_own_reference_and_nothing_at_the_top() -> None:
    assert profile_ratio(1.3, 1.3, 18.0, 0.7) == 1.0
    assert profile_ratio(18.0, 1.3, 18.0, 0.7) == 0.0


def test_a_taped_butt_overrides_the_taper() -> None:
    with_butt = Trunk(diameter_m=0.40, butt_diameter_m=0.55, butt_at_m=0.3)
    assert diameters_at(with_butt, 0.3, 18.0, 0.85)[0] == pytest.approx(0.55)
    assert diameters_at(Trunk(diameter_m=0.40), 1.3, 18.0, 0.85)[0] == pytest.approx(0.40)


def circle_readings(radius: float, east: float, bearings: list[float]) -> tuple[CrownReading, ...]:
    """Edge distances from the stem of a circular crown standing ``east`` of it."""
    found = []
    for bearing in bearings:
        along = east * math.sin(math.radians(bearing))
        across = east * math.cos(math.radians(bearing))
        found.append(CrownReading(bearing, along + math.sqrt(radius**2 - across**2)))
    return tuple(found)


@pytest.mark.parametrize("bearings", [[0, 90, 180, 270], [10, 100, 190, 280], [0, 60, 120, 180, 240, 300]])
def test_a_round_crown_off_the_stem_keeps_its_centre(bearings: list[float]) -> None:
    """Side weight is what people miss; the outline must not lose it between four paced edges."""
    readings = circle_readings(4.0, 1.0, [float(b) for b in bearings])
    crown = crown_body(
        Crown(base_m=4.0, readings=readings),
        Lean(),
        stem().mass_kg,
        AboveCut(0.3, 18.0, 90.0),
        group="broadleaf",
        constants=indicative(),
    )
    assert crown.forward_m == pytest.approx(1.0, rel=0.03)
    assert crown.left_m == pytest.approx(0.0, abs=0.02)


def test_an_even_crown_is_a_circle() -> None:
    outline = moments(crown_outline(tuple(CrownReading(b, 3.0) for b in (0.0, 90.0, 180.0, 270.0))))
    assert outline.area_m2 == pytest.approx(math.pi * 9.0, rel=1e-3)
    assert (outline.forward_m, outline.left_m) == pytest.approx((0.0, 0.0), abs=1e-9)


def test_readings_are_met_by_the_outline() -> None:
    readings = tuple(CrownReading(b, r) for b, r in ((0.0, 5.0), (80.0, 2.0), (200.0, 3.0), (300.0, 4.0)))
    outline = crown_outline(readings)
    for reading in readings:
        turn = math.radians(-reading.bearing_deg) % (2 * math.pi)
        nearest = outline[round(turn / (2 * math.pi) * len(outline)) % len(outline)]
        assert math.hypot(*nearest) == pytest.approx(reading.radius_m, rel=0.02)


def mass_of(**changes: object) -> Mass:
    made = case(round_tree(**changes))
    return tree_mass(made.tree, made.wood, made.cut, made.constants)


def test_stem_and_crown_add_up() -> None:
    made = case(round_tree())
    whole = tree_mass(made.tree, made.wood, made.cut, made.constants)
    bare = stem_body(
        made.tree.trunk,
        made.tree.lean,
        AboveCut(0.3, 15.0, 0.0),
        exponent=made.constants.profile_exponent[made.wood.group],
        density_kg_m3=made.wood.density_kg_m3,
    )
    assert whole.mass_kg == pytest.approx(bare.mass_kg + whole.crown_mass_kg)
    assert whole.com_up_m > bare.up_m


def test_leaves_weigh() -> None:
    assert mass_of(crown__leaf="leaf").mass_kg > mass_of(crown__leaf="bare").mass_kg


def test_a_measured_mass_overrides_and_takes_the_inertia_along() -> None:
    free = mass_of()
    known = mass_of(measured=Measured(mass_kg=2 * free.mass_kg))
    assert known.mass_kg == pytest.approx(2 * free.mass_kg)
    assert known.inertia_kg_m2 == pytest.approx(2 * free.inertia_kg_m2)
    assert known.com_up_m == pytest.approx(free.com_up_m)


def test_a_measured_centre_overrides() -> None:
    known = mass_of(measured=Measured(com_up_m=6.0, com_offset_m=0.5, com_bearing_deg=90.0))
    assert known.com_up_m == pytest.approx(6.0)
    assert known.com_left_m == pytest.approx(-0.5)
    assert known.com_forward_m == pytest.approx(0.0, abs=1e-12)


def test_the_top_offset_says_the_same_as_the_centre() -> None:
    found = mass_of(lean__angle_deg=5.0, lean__bearing_deg=0.0)
    assert found.top_offset_forward_m / (15.0 - 0.3) == pytest.approx(found.com_forward_m / found.com_up_m)
    assert plain_cut().height_m == 0.3


@pytest.mark.parametrize(("share", "aside"), [(0.25, 0.0625), (0.5, 0.25), (1.0, 1.0)])
def test_a_swept_stem_is_a_parabola_from_the_cut_to_the_top(share: float, aside: float) -> None:
    lean = Lean(sweep_m=1.2, sweep_bearing_deg=0.0)
    forward, left = axis_at(lean, 0.3 + share * 14.7, cut_m=0.3, tree_height_m=15.0, lay_deg=0.0)
    assert forward == pytest.approx(1.2 * aside)
    assert left == pytest.approx(0.0, abs=1e-12)
