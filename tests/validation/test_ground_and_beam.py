"""The ground between spot heights, and the stem as a beam laid on it, against closed forms."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import case, finding, finding_ids, round_tree, told
from plain_compass.core.assess import Assessment, assess
from plain_compass.core.base.errors import InputError
from plain_compass.core.base.paths import with_value
from plain_compass.core.base.rows import row
from plain_compass.core.mechanics.beam import Beam, beams_on
from plain_compass.core.mechanics.resting import first_touches
from plain_compass.core.site.ground import ground_of, profile_on, rises_along_deg, slope_at
from plain_compass.core.site.site import Obstacle, Place, Site, SpotHeight

HERE = Place()
FIRM = 1e12
"""A bed that does not give."""
few = st.lists(
    st.tuples(st.integers(-40, 40), st.integers(-40, 40), st.floats(-5.0, 5.0)),
    min_size=1,
    max_size=12,
    unique_by=lambda spot: spot[:2],
)


def heights(site: Site, *places: tuple[float, float]) -> list[float]:
    east, north = np.array(places, dtype=float).T
    return ground_of(site).height_at_m(east, north).tolist()  # type: ignore[no-any-return]


def spots(*rows: tuple[float, float, float], **more: float) -> Site:
    return Site(spots=tuple(SpotHeight(*row) for row in rows), **more)  # type: ignore[arg-type]


def lying(site: Site, lay: float = 0.0, **tree: object) -> Assessment:
    whole = case(round_tree(**tree))
    return assess(replace(whole, site=site, cut=replace(whole.cut, lay_deg=lay)))


# The surface -----------------------------------------------------------------------------------------------


@given(few, st.floats(0.0, 30.0))
def test_the_surface_passes_through_every_spot(rows: list[tuple[int, int, float]], slope: float) -> None:
    site = spots(*rows, slope_deg=slope, downhill_deg=70.0)
    assert heights(site, *[row[:2] for row in rows]) == pytest.approx([row[2] for row in rows], abs=1e-6)


@given(st.floats(-0.4, 0.4), st.floats(-0.4, 0.4))
def test_spots_on_a_plane_give_that_plane_everywhere(east: float, north: float) -> None:
    def plane(e: float, n: float) -> float:
        return 3.0 + east * e + north * n

    site = spots(*[(e, n, plane(e, n)) for e, n in ((0, 0), (20, 3), (-7, 15), (4, -18))])
    assert heights(site, (100, -50), (-3, 8)) == pytest.approx([plane(100, -50), plane(-3, 8)], abs=1e-6)
    slope, down = slope_at(site, HERE)
    assert math.tan(math.radians(slope)) == pytest.approx(math.hypot(east, north), abs=1e-6)
    if math.hypot(east, north) > 0.01:
        assert math.cos(math.radians(down) - math.atan2(-east, -north)) == pytest.approx(1.0, abs=1e-6)


def test_without_spots_the_typed_slope_is_the_ground_and_one_spot_only_lifts_it() -> None:
    bare, lifted = Site(slope_deg=10.0, downhill_deg=180.0), spots((5, 0, 7.0), slope_deg=10.0, downhill_deg=180.0)
    assert heights(bare, (0, 0), (0, 10)) == pytest.approx([0.0, 10 * math.tan(math.radians(10))])
    assert heights(lifted, (0, 0), (0, 10)) == pytest.approx([7.0, 7.0 + 10 * math.tan(math.radians(10))])
    assert float(rises_along_deg(bare, HERE, np.array([0.0]), 8.0)[0]) == pytest.approx(10.0)
    assert float(rises_along_deg(bare, HERE, np.array([180.0]), 8.0)[0]) == pytest.approx(-10.0)


def test_between_two_heights_the_ground_stays_between_them() -> None:
    site = spots((0, 0, 0.0), (0, 20, 2.0))
    between = heights(site, *[(0, n) for n in range(0, 21, 2)])
    assert between == sorted(between)
    assert between[5] == pytest.approx(1.0)


def test_two_heights_for_one_place_are_refused_by_name() -> None:
    with pytest.raises(InputError, match="same place") as caught:
        lying(spots((1, 1, 0.0), (1, 1, 2.0)))
    assert caught.value.field == "site.spots.1.height_m"


@given(st.floats(0, 359))
def test_turning_ground_and_lay_together_leaves_the_profile(turn: float) -> None:
    rows = [(0.0, 0.0, 0.0), (4.0, 9.0, 1.0), (-6.0, 12.0, -0.7), (9.0, -3.0, 0.4)]
    cos, sin = math.cos(math.radians(turn)), math.sin(math.radians(turn))
    turned = [(e * cos + n * sin, -e * sin + n * cos, h) for e, n, h in rows]
    one, other = profile_on(spots(*rows), HERE, 20.0, 15.0), profile_on(spots(*turned), HERE, 20.0 + turn, 15.0)
    assert other.ground_m == pytest.approx(one.ground_m, abs=1e-6)
    assert other.across_deg == pytest.approx(one.across_deg, abs=1e-4)


def test_a_bank_is_a_ridge_where_the_lay_crosses_it_and_water_is_none() -> None:
    bank = Obstacle(kind="bank", shape="line", points=(Place(-9, 6), Place(9, 6)), radius_m=1.0, height_m=0.8)
    site = Site(obstacles=(bank, replace(bank, kind="water", height_m=3.0)))
    profile = profile_on(site, HERE, 0.0, 15.0)
    assert profile.bump_m.max() == pytest.approx(0.8)
    assert profile.along_m[profile.bump_m > 0].tolist() == pytest.approx(np.arange(5.25, 6.9, 0.25).tolist())
    area = replace(bank, kind="rock", shape="area", points=(Place(-2, 3), Place(2, 3), Place(2, 8), Place(-2, 8)))
    within = profile_on(Site(obstacles=(area,)), HERE, 0.0, 15.0)
    assert within.bump_m[(within.along_m >= 3) & (within.along_m <= 8)] == pytest.approx(0.8)


# The beam --------------------------------------------------------------------------------------------------


def beam_on(along: np.ndarray, bending: np.ndarray, weight: np.ndarray, bed: np.ndarray, firm: float) -> Beam:
    """One beam."""
    found: Beam = row(beams_on(along[None], bending[None], weight[None], bed[None], firm), 0)
    return found


def beam(bed: dict[int, float]) -> Beam:
    """A uniform beam of ten metres over points of support at its 41 nodes, far above everything else."""
    ground = np.full(41, -100.0)
    for node, height in bed.items():
        ground[node] = height
    return beam_on(np.linspace(0.0, 10.0, 41), np.full(40, 2e6), np.full(40, 500.0), ground, FIRM)


def test_a_beam_on_two_humps_bends_as_the_textbook_says() -> None:
    """Simply supported at the ends: w L^2/8 in the middle; deflection 5 w L^4/(384 E I)."""
    found = beam({0: 0.0, 40: 0.0})
    assert found.moment_Nm[20] == pytest.approx(-500 * 100 / 8, rel=1e-6)
    assert found.down_m[20] - found.down_m[0] == pytest.approx(5 * 500 * 1e4 / (384 * 2e6), rel=1e-3)
    assert found.contact_N[[0, 40]] == pytest.approx([2500.0, 2500.0])


def test_overhangs_hog_over_the_humps_as_the_textbook_says() -> None:
    """Humps two metres in from either end: w a^2/2 over them, and w a^2/2 - w b^2/8 between."""
    found = beam({8: 0.0, 32: 0.0})
    assert found.moment_Nm[[8, 32]] == pytest.approx([1000.0, 1000.0], rel=1e-6)
    assert found.moment_Nm[20] == pytest.approx(1000 - 500 * 36 / 8, rel=1e-6)


def test_a_beam_over_three_even_humps_shares_its_weight_as_the_textbook_says() -> None:
    """Two equal spans: 3/16, 10/16 and 3/16 of the whole load; w l^2/8 hogging over the middle."""
    found = beam({0: 0.0, 20: 0.0, 40: 0.0})
    assert found.contact_N[[0, 20, 40]] == pytest.approx([937.5, 3125.0, 937.5], rel=2e-3)
    assert found.moment_Nm[20] == pytest.approx(500 * 25 / 8, rel=3e-3)


def test_on_level_ground_nothing_bends_and_it_sinks_by_its_weight() -> None:
    along = np.linspace(0.0, 10.0, 41)
    found = beam_on(along, np.full(40, 2e6), np.full(40, 500.0), np.zeros(41), 4e5)
    assert found.moment_Nm == pytest.approx(np.zeros(41), abs=1e-3 * 500 * 100 / 8)
    assert found.down_m == pytest.approx(np.full(41, 500 / 4e5), rel=3e-3)


@given(st.lists(st.floats(-1.0, 1.0), min_size=21, max_size=21), st.floats(1e4, 1e8))
def test_what_the_ground_carries_is_the_weight_and_never_pulls(bed: list[float], firm: float) -> None:
    along = np.linspace(0.0, 12.0, 21)
    found = beam_on(along, np.linspace(5e6, 2e4, 20), np.linspace(900.0, 30.0, 20), np.array(bed), firm)
    middles = (along[1:] + along[:-1]) / 2
    load = np.linspace(900.0, 30.0, 20) * 0.6
    assert found.contact_N.sum() == pytest.approx(load.sum(), rel=1e-5)
    assert float(found.contact_N @ along) == pytest.approx(float(load @ middles), rel=1e-4)
    assert abs(found.moment_Nm[-1]) < 1e-3 * load.sum() * 12


def test_a_stem_spanning_a_hollow_is_nearer_to_breaking_the_wider_it_is_and_brittle_wood_more() -> None:
    def hollow(wide: float) -> Site:
        rim = [(0.0, 0.0, 0.0), (0.0, 4.0, 0.0), (0.0, 4.0 + wide, 0.0), (0.0, 15.0, 0.0)]
        return spots(*rim, *[(side, n, h) for _, n, h in rim for side in (-6.0, 6.0)], (0.0, 4.0 + wide / 2, -3.0))

    indices = [lying(hollow(wide)).parts.resting.break_index for wide in (2.0, 5.0, 8.0)]
    assert indices == sorted(indices)
    flat = lying(spots((0, 0, 0), (10, 0, 0), (0, 20, 0))).parts.resting
    assert flat.break_index < indices[0]
    brittle = replace(case().wood, suppleness="brittle")
    whole = replace(case(), site=hollow(8.0))
    assert assess(replace(whole, wood=brittle)).parts.resting.break_index == pytest.approx(
        indices[2] * 1.3 / whole.constants.break_by_class[whole.wood.suppleness], rel=1e-6
    )


@given(st.lists(st.floats(-0.5, 0.5), min_size=15, max_size=15), st.floats(1e5, 1e7))
def test_a_tapered_beam_on_humps_rests_where_forces_and_couples_balance(humps: list[float], firm: float) -> None:
    """However many rounds it takes: the bed carries the weight, and nothing bends the free top."""
    along, bed = np.linspace(0.0, 14.0, 15), np.array(humps)
    thick = np.linspace(0.4, 0.05, 14)
    bending, weight = 9e9 * math.pi * thick**4 / 64, 8000.0 * thick**2
    found = beam_on(along, bending, weight, bed, firm)
    whole = float(weight.sum())
    assert found.contact_N.sum() == pytest.approx(whole, rel=1e-6)
    assert found.moment_Nm[-1] == pytest.approx(0.0, abs=1e-5 * whole)
    # The bent shape is that of its moments: each stretch turns by what bends it, cubic shapes aside.
    assert (found.contact_N >= 0).all()
    deep = np.maximum(bed + found.down_m, 0.0)
    springs = np.full(15, firm)
    springs[[0, -1]] /= 2
    assert found.contact_N == pytest.approx(springs * deep, rel=1e-9, abs=1e-9)
    # In place of the elements: curvature M/(E I), integrated twice over fine steps from the moments alone.
    fine = np.linspace(0.0, 14.0, 14 * 200 + 1)
    middle = (fine[1:] + fine[:-1]) / 2
    bends = np.zeros_like(middle)
    for x, force in zip(along, found.contact_N, strict=True):
        bends += force * np.maximum(middle - x, 0.0)
    for x, load in zip(along, weight, strict=False):
        bends -= load * (np.clip(middle, x, x + 1.0) - x) * (middle - (np.clip(middle, x, x + 1.0) + x) / 2)
    curve = bends / np.repeat(bending, 200)
    slope = np.concatenate([[0.0], np.cumsum(curve) * (fine[1] - fine[0])])
    bow = np.concatenate([[0.0], np.cumsum((slope[1:] + slope[:-1]) / 2) * (fine[1] - fine[0])])[::200]
    # But for a straight line, which the bed decides.
    line = np.polyfit(along, -found.down_m - bow, 1)
    assert -found.down_m - bow == pytest.approx(np.polyval(line, along), abs=1e-3 * (1.0 + np.ptp(bow)))


def test_a_tall_bank_across_the_lay_breaks_the_stem_and_is_named_a_stop() -> None:
    bank = Obstacle(kind="bank", shape="line", points=(Place(-9, 7), Place(9, 7)), radius_m=0.5, height_m=3.0)
    found = finding(lying(Site(obstacles=(bank,)), height_m=26.0, trunk__diameter_m=0.3), "landing.break")
    assert found.indicative
    assert found.level in ("watch", "stop")
    low = finding(lying(Site(obstacles=(replace(bank, height_m=0.3),)), height_m=26.0), "landing.break")
    assert low.use < found.use


# What is met first -----------------------------------------------------------------------------------------


@given(st.floats(0.0, 25.0))
def test_uphill_the_top_lands_that_much_earlier(slope: float) -> None:
    """A stem of length L whose hinge stands h over a slope s meets it at the tilt 90 - s + asin(h cos s/L)."""
    profile = profile_on(Site(slope_deg=slope, downhill_deg=180.0), HERE, 0.0, 20.0)
    tilt, at = (float(each[0]) for each in first_touches([profile], 0.3, 18.0))
    exact = 90.0 - slope + math.degrees(math.asin(0.3 * math.cos(math.radians(slope)) / 18.0))
    assert tilt == pytest.approx(exact, abs=0.3)
    assert at > 16.0


def test_a_rock_near_the_stump_is_met_by_the_lower_stem() -> None:
    rock = Obstacle(kind="rock", points=(Place(0, 3),), radius_m=1.0, height_m=1.2)
    found = lying(Site(obstacles=(rock,)))
    assert found.parts.resting.touches_by == "butt"
    assert finding(found, "landing.touch").level == "watch"


def test_a_fall_up_a_steep_slope_slides_back_and_is_a_stop() -> None:
    steep = Site(slope_deg=32.0, downhill_deg=180.0)
    found = lying(steep)
    assert finding(found, "landing.slide").level == "stop"
    assert "drives the stem back" in told(finding(found, "landing.touch").sentence)
    down = lying(steep, 180.0)
    assert finding(down, "landing.slide").level == "watch"
    assert "falls away" in told(finding(down, "landing.touch").sentence)


def test_across_a_slope_the_stem_may_roll_downhill_left_and_right_mirrored() -> None:
    slope = Site(slope_deg=15.0, downhill_deg=270.0)
    one, other = lying(slope, 0.0), lying(slope, 180.0)
    assert one.parts.resting.rolls_deg == pytest.approx(15.0, abs=0.01)
    assert other.parts.resting.rolls_deg == pytest.approx(-15.0, abs=0.01)
    assert "to the left" in told(finding(one, "landing.roll").sentence)
    assert "to the right" in told(finding(other, "landing.roll").sentence)
    assert "landing.roll" not in finding_ids(lying(Site(slope_deg=5.0, downhill_deg=270.0)))


def test_ground_without_spot_heights_is_said_to_be_a_guess_until_somebody_has_looked() -> None:
    result = lying(Site())
    assert finding(result, "landing.ground_not_judged").level == "unknown"
    assert "landing.ground_not_judged" not in finding_ids(lying(Site(looked="yes")))
    assert "landing.ground_not_judged" not in finding_ids(lying(spots((0, 0, 0))))


# Where to stand --------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("downhill", "lean", "side"),
    [(270.0, 0.0, "right"), (90.0, 0.0, "left"), (0.0, 90.0, "left"), (0.0, 270.0, "right")],
)
def test_one_stands_uphill_and_away_from_the_side_weight(downhill: float, lean: float, side: str) -> None:
    tree = {"lean__angle_deg": 3.0, "lean__bearing_deg": lean} if lean else {}
    rock = Obstacle(kind="rock", points=(Place(0, 90),))
    result = lying(Site(slope_deg=12.0, downhill_deg=downhill, obstacles=(rock,)), **tree)
    assert f"on the {side}" in told(finding(result, "way_out.stand").sentence)


def test_a_barred_way_out_outweighs_slope_and_weight() -> None:
    wall = Obstacle(kind="wall", shape="line", points=(Place(2, -9), Place(2, 9)))
    result = lying(Site(slope_deg=12.0, downhill_deg=270.0, obstacles=(wall,)))
    found = finding(result, "way_out.stand")
    assert (found.level, "Neither side" in told(found.sentence)) == ("watch", True)


def test_ground_survives_scaling_of_everything_it_holds() -> None:
    small = spots((0, 0, 0.0), (3, 8, 1.0), (-5, 6, -0.5))
    large = spots((0, 0, 0.0), (6, 16, 2.0), (-10, 12, -1.0))
    assert with_value(large, "slope_deg", 0.0) == large
    assert heights(large, (4, 10))[0] == pytest.approx(2 * heights(small, (2, 5))[0])
