"""The fan: a point without spread, the same for a seed, close to brute force, mirrored with the tree."""

from __future__ import annotations

import math
from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from builders import case, finding, plain_cut, round_tree, told
from plain_compass.core.assess import Assessment, assess, with_fall
from plain_compass.core.base.errors import InputError, ReckoningError
from plain_compass.core.base.paths import with_value
from plain_compass.core.fall.butt import BUTTS, runs_m, throws_m
from plain_compass.core.fall.fan import Fan, fan_of
from plain_compass.core.fall.nominal import nominal_fall
from plain_compass.core.fall.reckon import rod_of
from plain_compass.core.fall.rods import BROKE_BY
from plain_compass.core.fall.spread import TOGETHER, samples_of, slopes_in_steps
from plain_compass.core.judge.fall import hit_chances
from plain_compass.core.plan.case import Case
from plain_compass.core.plan.driven import thin_share
from plain_compass.core.site.site import Obstacle, Place, Site
from plain_compass.core.tree.tree import Measured
from plain_compass.job.demo import demo_job
from plain_compass.job.document import assess_tree, with_tree
from plain_compass.job.edits import set_value
from plain_compass.job.fall import OWN_INPUTS, Draw, fan_for, with_its_fall
from plain_compass.job.spreads import cutting_spreads, judged_tree

STILL = {"aim_deg": 0.0, "hinge_m": 0.0, "hinge_share": 0.0, "wind": 0.0}
CUTTING = {"aim_deg": 2.0, "hinge_m": 0.006, "hinge_share": 0.0, "wind": 0.0}
SPREADS = {
    "tree.lean.angle_deg": 0.7,
    "tree.height_m": 0.6,
    "tree.crown.readings.1.radius_m": 0.3,
    "tree.trunk.diameter_m": 0.008,
    "tree.trunk.butt_diameter_m": 0.008,
    "wood.rupture": 0.16,
    "wood.shear": 0.14,
    "wood.density": 0.10,
    "wood.fibre": 0.15,
}
SIDE = {"lean__angle_deg": 2.0, "lean__bearing_deg": 120.0}


def leaning(**changes: object) -> Assessment:
    return assess(case(round_tree(**(SIDE | changes))))


def fan(result: Assessment, count: int = 1024, seed: int = 3, **changes: float) -> Fan:
    return fan_of(result, SPREADS, CUTTING | changes, count, seed)


def with_things(whole: Case, *things: Obstacle) -> Assessment:
    return assess(replace(whole, site=Site(obstacles=things)))


# What the samples are --------------------------------------------------------------------------------------


def test_a_fan_of_zero_spread_is_a_point_and_that_point_is_the_plans_own_fall() -> None:
    result = leaning()
    found, fall = fan_of(result, {}, STILL, 64, 1), nominal_fall(result)
    assert np.ptp(found.landings.off_deg) < 1e-9 and np.ptp(found.landings.reach_m) < 1e-9
    assert found.off_deg[1] == pytest.approx(fall.bearing_error_deg, abs=1e-6)
    assert found.landings.east_m[0] == pytest.approx(fall.top_east_m, abs=1e-6)
    assert found.drivers == ()


def test_the_same_seed_gives_the_same_fan_and_another_gives_another() -> None:
    result = leaning()
    assert fan(result).off_deg == fan(result).off_deg
    assert fan(result, seed=4).off_deg != fan(result).off_deg


def test_aiming_alone_spreads_the_top_as_the_aim() -> None:
    upright = assess(case(round_tree(lean__angle_deg=3.0, lean__bearing_deg=0.0)))
    found = fan_of(upright, {}, STILL | {"aim_deg": 2.0}, 2048, 1)
    # Off its own line by the aim, a leaning tree drifts back a little: within a tenth.
    assert found.off_deg[2] - found.off_deg[0] == pytest.approx(2 * 1.645 * 2.0, rel=0.1)
    assert found.off_deg[2] - found.off_deg[0] < 2 * 1.645 * 2.0
    assert found.drivers[0][0] == "cut.aim" and found.drivers[0][1] > 0.98


def test_a_cut_aimed_aside_by_mistake_is_the_same_cut_on_that_bearing() -> None:
    result = leaning(lean__angle_deg=5.0)
    samples = samples_of(result, {}, STILL | {"aim_deg": 8.0}, 64, 1)
    for row in (2, 9, 33):
        lay = float(samples.rods.lay_deg[row])
        anew = rod_of(assess(with_value(result.case, "cut.lay_deg", lay % 360)))
        for name in ("ahead_Nm", "left_Nm"):
            wanted = float(getattr(anew, name)[0])
            assert getattr(samples.rods, name)[row] == pytest.approx(wanted, abs=0.02 * result.parts.mass.weight_N)
        assert samples.rods.top_left_m[row] == pytest.approx(float(anew.top_left_m[0]), abs=0.03)


def test_shares_of_the_drivers_do_not_pass_the_whole() -> None:
    found = fan(leaning())
    assert 0.5 < sum(share for _, share in found.drivers) <= 1.02
    assert [share for _, share in found.drivers] == sorted((s for _, s in found.drivers), reverse=True)


def test_a_mirrored_tree_has_a_mirrored_fan() -> None:
    one = fan_of(leaning(), {}, STILL, 4, 1)
    other = fan_of(leaning(lean__bearing_deg=240.0), {}, STILL, 4, 1)
    # The two ends of a hinge are drawn in turn: what is left is the sampling's own.
    assert one.off_deg[1] == pytest.approx(-other.off_deg[1], abs=0.06)
    assert one.off_deg[1] < -0.05


def test_slopes_stand_for_whole_cases_reckoned_anew() -> None:
    """Brute force: every input moved in the case itself, each case assessed and felled by itself."""
    result = leaning(lean__angle_deg=2.5)
    inputs = {path: spread for path, spread in SPREADS.items() if path.startswith("tree.")}
    quick = fan_of(result, inputs, STILL, 2048, 5)
    rng = np.random.default_rng(8)
    offs, reaches = [], []
    for _ in range(120):
        tree = result.case.tree
        for path, spread in inputs.items():
            name = path.removeprefix("tree.")
            now = tree
            for part in name.split("."):
                now = now[int(part)] if part.isdigit() else getattr(now, part)
            tree = with_value(tree, name, float(now) + spread * float(np.clip(rng.normal(), -3, 3)))
        fall = nominal_fall(assess(replace(result.case, tree=tree)))
        offs.append(fall.bearing_error_deg)
        reaches.append(math.hypot(fall.top_east_m, fall.top_north_m))
    assert np.mean(offs) == pytest.approx(quick.landings.off_deg.mean(), abs=4 * np.std(offs) / 11 + 0.02)
    assert np.std(offs) == pytest.approx(quick.landings.off_deg.std(), rel=0.3, abs=0.02)
    assert np.mean(reaches) == pytest.approx(quick.landings.reach_m.mean(), rel=0.02)
    assert np.std(reaches) == pytest.approx(quick.landings.reach_m.std(), rel=0.25)


def test_an_input_that_can_only_be_moved_down_has_the_same_slope_as_one_moved_up() -> None:
    """With more bark the face would pass the pith: the slope is taken the other way, and is still that of more."""
    barky = round_tree(trunk__bark_m=0.01)
    tight, roomy = (assess(case(barky, plain_cut(face__depth_m=depth))) for depth in (0.188, 0.12))
    with pytest.raises(InputError):
        assess(case(with_value(barky, "trunk.bark_m", 0.014), plain_cut(face__depth_m=0.188)))
    down, up = (
        list(slopes_in_steps(each, {"tree.trunk.bark_m": 0.004}, whole=True))[-1]["tree.trunk.bark_m"]
        for each in (tight, roomy)
    )
    for name in ("peak", "side", "twist"):
        assert down[name] < 0
        assert up[name] < 0


def test_energy_gained_is_weight_times_height_in_every_likely_fall() -> None:
    samples = samples_of(leaning(), {"tree.height_m": {"mass": 0.08, "up": 0.03}}, STILL, 64, 3)
    moved = samples.moved[:, samples.inputs.index("tree.height_m")]
    assert samples.gains == pytest.approx(np.exp(0.11 * moved))


def test_dense_wood_is_strong_and_stiff_together_and_each_keeps_its_spread() -> None:
    slopes = {"wood.rupture": {"peak": 0.16}, "wood.elasticity": {"stiffness": 0.12}, "wood.shear": {"split": 0.1}}
    samples = samples_of(leaning(), slopes, STILL, 1024, 3)
    strong, stiff, shear = (samples.moved[:, samples.inputs.index(name)] for name in slopes)
    assert np.corrcoef(strong, stiff)[0, 1] == pytest.approx(TOGETHER, abs=0.05)
    assert abs(np.corrcoef(strong, shear)[0, 1]) < 0.05
    assert np.std(stiff) == pytest.approx(1.0, abs=0.05)


def test_thickness_moves_the_hinge_by_its_own_powers() -> None:
    result = leaning()
    samples = samples_of(result, {}, STILL | {"hinge_m": 0.01}, 256, 2)
    left, right = (0.04 + 0.01 * samples.moved[:, column] for column in (1, 2))
    thick = (np.maximum(left, 0.004) + np.maximum(right, 0.004)) / 0.08
    nominal = result.parts.strength
    assert samples.rods.peak_Nm == pytest.approx(nominal.peak_Nm * thick**2)
    assert samples.rods.side_capacity_Nm == pytest.approx(nominal.side_capacity_Nm * thick)
    for row in (3, 70, 200):
        cut = replace(result.case.cut.hinge, left_m=float(left[row]), right_m=float(right[row]))
        anew = assess(replace(result.case, cut=replace(result.case.cut, hinge=cut))).parts.strength
        assert samples.rods.peak_Nm[row] == pytest.approx(anew.peak_Nm, rel=0.1)
        assert samples.rods.stiffness_Nm[row] == pytest.approx(anew.stiffness_Nm, rel=0.25)
        assert np.degrees(samples.rods.break_rad[row]) == pytest.approx(anew.break_angle_deg, rel=0.05)


# What they say ---------------------------------------------------------------------------------------------


def test_the_chance_of_a_hit_is_the_share_of_tops_that_cover_it() -> None:
    whole = case(round_tree(lean__angle_deg=2.0, lean__bearing_deg=0.0))
    ahead = Obstacle("rock", "stone", "nuisance", "spot", (Place(0.0, 10.0),), 0.5, 0.5)
    behind = Obstacle("roof", "hut", "never", "spot", (Place(0.0, -9.0),), 1.0, 3.0)
    far = Obstacle("roof", "barn", "never", "spot", (Place(0.0, 40.0),), 1.0, 3.0)
    chances = {c.index: c.share for c in fan(with_things(whole, ahead, behind, far)).hits}
    assert chances == {0: pytest.approx(1.0, abs=0.01)}


def test_a_target_beside_the_lay_is_hit_as_often_as_counting_says() -> None:
    # Its weight takes it to the right, where the hut stands.
    whole = case(round_tree(lean__angle_deg=6.0, lean__bearing_deg=75.0))
    beside = Obstacle("roof", "hut", "never", "spot", (Place(4.4, 11.0),), 0.4, 3.0)
    result = with_things(whole, beside)
    found = fan(result, 4096)
    half = 3.0
    lands, hit = found.landings, 0
    for off, length in zip(lands.off_deg.tolist(), found.samples.rods.length_m.tolist(), strict=True):
        turn = math.radians(round(-off % 360))
        along = 4.4 * math.sin(turn) + 11.0 * math.cos(turn)
        aside = abs(4.4 * math.cos(turn) - 11.0 * math.sin(turn))
        hit += along - 0.4 <= length and aside - 0.4 <= half
    assert found.hits[0].share == pytest.approx(hit / 4096, abs=0.01)
    judged = with_fall(result, nominal_fall(result), found)
    assert 0 < found.hits[0].share < 1
    assert finding(judged, "fall.targets").level == "stop"
    assert hit_chances(result, found)[0][0] == "hut"


def test_a_neighbour_across_the_way_holds_the_tree_up_and_aiming_beside_it_lowers_the_chance() -> None:
    whole = case(round_tree(lean__angle_deg=2.0, lean__bearing_deg=0.0))
    tree = Obstacle("tree", "ash", "none", "spot", (Place(0.3, 8.0),), 2.5, 14.0, 3.0, "no")
    result = with_things(whole, tree)
    assert fan(result).hangs.share > 0.9
    fall = nominal_fall(result)
    assert fall.hangs_on is not None and fall.butt == "hangs" and "ash" in fall.first_contact
    aside = assess(with_value(result.case, "cut.lay_deg", 60.0))
    assert fan(aside).hangs.share < 0.05


def test_backward_weight_sits_back_unless_a_wedge_stands_first() -> None:
    behind = round_tree(lean__angle_deg=4.0, lean__bearing_deg=180.0, trunk__diameter_m=0.2, trunk__butt_diameter_m=0.2)
    plain = case(behind)
    plain = replace(plain, cut=replace(plain.cut, hinge=replace(plain.cut.hinge, left_m=0.02, right_m=0.02)))
    plain = with_value(plain, "cut.face.depth_m", 0.04)
    assert fan(assess(plain), hinge_m=0.002).sits_back.share > 0.3
    assert fan(assess(with_value(plain, "cut.back.form", "quarter")), hinge_m=0.002).sits_back.share < 0.02


def test_aiming_off_by_what_the_fan_says_brings_its_middle_onto_the_lay() -> None:
    result = leaning(lean__angle_deg=4.0)
    off = fan(result)
    assert abs(off.off_deg[1]) > 0.5
    aimed = assess(with_value(result.case, "cut.aim_off_deg", off.aim_off_deg))
    assert abs(fan(aimed).off_deg[1]) < 0.35 * abs(off.off_deg[1])
    assert aimed.case.cut.gun_deg == pytest.approx((result.case.cut.lay_deg - off.aim_off_deg) % 360)


def test_aiming_off_is_the_same_cut_as_turning_the_lay_by_as_much() -> None:
    aimed = leaning()
    aimed = assess(with_value(aimed.case, "cut.aim_off_deg", 12.0))
    turned = assess(with_value(aimed.case, "cut.aim_off_deg", 0.0))
    turned = assess(with_value(turned.case, "cut.lay_deg", (turned.case.cut.lay_deg - 12.0) % 360))
    assert aimed.parts.balance == turned.parts.balance
    assert aimed.parts.strength.side_capacity_Nm == turned.parts.strength.side_capacity_Nm
    assert nominal_fall(aimed).bearing_error_deg == pytest.approx(
        nominal_fall(turned).bearing_error_deg + 12.0, abs=0.2
    )


# What is told ----------------------------------------------------------------------------------------------


def test_the_fall_joins_the_findings_once_and_rules_the_verdict_with_them() -> None:
    result, _ = judged_tree(demo_job(), "WH-24")
    plan = demo_job().plan("WH-24")
    once = with_its_fall(plan, result)
    again = with_fall(once, nominal_fall(result), fan_for(plan, result))
    assert [f.id for f in once.findings] == [f.id for f in again.findings]
    assert sum(f.id.startswith("fall.") for f in once.findings) >= 3
    assert once.verdict.ruling is not None


def test_a_drift_past_what_is_allowed_is_to_watch_and_says_how_far_to_aim_off() -> None:
    result = leaning(lean__angle_deg=5.0)
    found = fan(result)
    drift = finding(with_fall(result, nominal_fall(result), found), "fall.drift")
    assert abs(found.off_deg[1]) > result.case.practice.tolerance_deg
    assert drift.level == "watch" and "Aim off" in told(drift.change) and drift.indicative


def test_without_a_plan_of_the_ground_what_may_be_hit_is_unknown_and_not_clear() -> None:
    result = leaning()
    ids = {f.id: f.level for f in with_fall(result, nominal_fall(result), fan(result)).findings}
    assert ids["fall.not_judged"] == "unknown" and "fall.targets" not in ids


def test_a_dead_or_forked_top_is_warned_of() -> None:
    dead = leaning(condition="dead")
    told = finding(with_fall(dead, nominal_fall(dead), fan(dead)), "fall.top")
    assert told.level == "watch" and told.indicative


@pytest.mark.parametrize(("face", "butt"), [("open", "stays"), ("conventional", "stays"), ("reverse", "slides")])
def test_the_face_decides_whether_the_butt_stays_on_level_ground(face: str, butt: str) -> None:
    assert nominal_fall(assess(with_value(case(), "cut.face.form", face))).butt == butt


def test_rising_ground_throws_the_butt_back_once_the_hinge_is_gone() -> None:
    """Up a slope steeper than bark holds on there is nothing to stop it once it is over the step."""
    narrow = with_value(with_value(case(), "cut.face.roof_deg", 25.0), "cut.back.step_m", 0.0)
    fall = nominal_fall(assess(replace(narrow, site=Site(slope_deg=30.0, downhill_deg=180.0))))
    assert fall.end_deg < 84 and fall.butt == "kicks back" and fall.butt_m < 0
    assert fall.butt_at(0.0)[1] == fall.butt_m


def ran_m(slope_deg: float, step_m: float = 0.0) -> float:
    whole = with_value(case(round_tree(height_m=24.0)), "cut.back.step_m", step_m)
    result = assess(replace(whole, site=Site(slope_deg=slope_deg, downhill_deg=180.0)))
    return runs_m(16.0, slope_deg, result)


def test_the_butt_runs_farther_the_steeper_it_is_without_a_slope_at_which_it_starts() -> None:
    """By hand at ten degrees, and no jump of more than its own length in a hundred between one slope and the next."""
    constants, parts = case().constants, assess(case(round_tree(height_m=24.0))).parts
    turn = math.radians(10.0)
    speed = constants.butt_speed_share * 16.0 * math.sin(turn) * parts.mass.com_up_m / (24.0 - 0.3)
    holds = constants.slide_friction * math.cos(turn) - math.sin(turn)
    assert ran_m(10.0) == pytest.approx(speed**2 / (2 * 9.81 * holds), rel=0.02)
    far = [ran_m(slope) for slope in np.arange(0.0, 25.5, 0.5).tolist()]
    assert far == sorted(far) and far[0] == 0.0
    assert max(b - a for a, b in pairwise(far)) < 1.0
    assert ran_m(10.0, step_m=0.05) == 0.0


@settings(max_examples=30, deadline=None)
@given(roof=st.floats(40.0, 85.0), more=st.floats(1.0, 20.0))
def test_a_wider_face_throws_the_tree_less_far(roof: float, more: float) -> None:
    """A narrow one lets go early and lets it fly; the reach of the top shows it."""

    def thrown(opening: float) -> float:
        cut = plain_cut(face__roof_deg=min(opening, 90.0), face__floor_deg=0.0)
        result = assess(case(round_tree(species="hornbeam"), cut))
        rods, weight = rod_of(result), np.array([result.parts.mass.weight_N])
        return float(throws_m(rods, nominal_fall(result).falls, weight, 0.15)[0])

    assert thrown(roof) >= thrown(roof + more) - 1e-9


def test_a_narrow_face_lands_the_top_farther_than_a_wide_one() -> None:
    narrow, wide = (
        nominal_fall(assess(case(round_tree(species="hornbeam"), plain_cut(face__roof_deg=r, face__floor_deg=f))))
        for r, f in ((30.0, 0.0), (60.0, 30.0))
    )
    assert narrow.butt == "flies" and wide.butt == "stays"
    assert math.hypot(narrow.top_east_m, narrow.top_north_m) > math.hypot(wide.top_east_m, wide.top_north_m) + 0.3


def test_the_demos_six_trees_fall_in_six_unlike_ways() -> None:
    job = demo_job()
    falls = {plan.id: nominal_fall(assess_tree(job, plan.id)) for plan in job.trees}
    fans = {plan.id: fan_for(plan, assess_tree(job, plan.id), Draw(512)) for plan in job.trees}
    clean = falls["WH-07"]
    assert clean.hinge_broke_by == "face shut" and abs(clean.bearing_error_deg) < 1 and clean.butt == "stays"
    assert falls["WH-12"].hinge_broke_by == "side load" and falls["WH-12"].bearing_error_deg < -2
    assert falls["WH-15"].first_contact == "ground: middle" and fans["WH-15"].breaks.share > 0.05
    assert falls["WH-18"].hinge_broke_by == "face shut" and falls["WH-18"].hinge_broke_at_deg < 50
    assert falls["WH-21"].hangs_on is not None and fans["WH-21"].hangs.share > 0.5
    assert fans["WH-24"].sits_back.share > 0.1
    assert {fall.butt for fall in falls.values()} <= set(BUTTS)
    assert {fall.hinge_broke_by for fall in falls.values()} <= set(BROKE_BY)


def test_every_input_of_a_fall_has_a_name_a_person_knows() -> None:
    job = demo_job()
    plan = job.plan("WH-12")
    inputs = fan_for(plan, assess_tree(job, "WH-12"), Draw(64)).samples.inputs
    assert all(path in OWN_INPUTS or path.startswith("tree.") for path in inputs)
    assert set(cutting_spreads()) == set(STILL)


def test_a_fall_that_runs_out_of_numbers_is_a_sentence_and_an_unknown(monkeypatch: pytest.MonkeyPatch) -> None:
    """A mass of a kilogram measured a hand above the cut turns no index into nonsense and no chance into zero."""
    nothing = np.array([math.nan])
    monkeypatch.setattr("plain_compass.core.fall.rods.tops_of", lambda *_: (nothing, nothing))
    job = set_value(demo_job(), "WH-07", "site.wind_m_s", None)
    plan = job.trees[0]
    known = Measured(mass_kg=1.0, com_up_m=0.1, com_offset_m=0.0)
    job = with_tree(job, plan.id, replace(plan, tree=replace(plan.tree, measured=known)))
    result = assess_tree(job, plan.id)
    with pytest.raises(ReckoningError, match="its numbers run away"):
        fan_for(job.plan(plan.id), result)
    after = with_its_fall(job.plan(plan.id), result)
    waiting = [f for f in after.findings if f.id.startswith("fall.")]
    assert {f.level for f in waiting} == {"unknown"}
    assert "could not be reckoned" in told(waiting[0].sentence)


# Where it starts ---------------------------------------------------------------------------------------------


@settings(max_examples=40, deadline=None)
@given(
    back_deg=st.floats(-2.0, 3.0),
    height_m=st.floats(10.0, 26.0),
    thick_m=st.floats(0.02, 0.06),
    taper_m=st.floats(-0.01, 0.01),
)
def test_the_fall_begins_where_the_wedges_are_reckoned_to_bring_the_tree(
    back_deg: float, height_m: float, thick_m: float, taper_m: float
) -> None:
    """One answer to when it goes: that of the hinge's law, for wedges and fall."""
    tree = round_tree(
        lean__angle_deg=abs(back_deg), lean__bearing_deg=180.0 if back_deg > 0 else 0.0, height_m=height_m
    )
    cut = plain_cut(hinge__left_m=thick_m + taper_m, hinge__right_m=thick_m - taper_m)
    result = assess(case(tree, cut))
    fall = nominal_fall(result)
    if not fall.goes or result.parts.wedging.shuts_first:
        return
    plan, thin = result.parts.wedge_plan, thin_share(result.case, result.parts)
    if thin == 1.0:
        assert fall.start_deg == pytest.approx(result.parts.wedging.tilt_deg, abs=0.02)
    else:
        # Thinned to where the wedges bring it, it goes from there.
        assert fall.start_deg == pytest.approx(math.degrees(math.atan(plan.have_m / plan.arm_m)), abs=0.02)
