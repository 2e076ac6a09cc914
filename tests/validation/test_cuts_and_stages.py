"""The table of cuts: every form's geometry, its standing states, and what the model says of them."""

from __future__ import annotations

from dataclasses import replace
from importlib import import_module
from itertools import pairwise
from pkgutil import iter_modules

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from shapely import union_all
from shapely.geometry import Polygon
from shapely.ops import unary_union

from builders import case, finding, finding_ids, round_tree, told
from plain_compass.core import cuts
from plain_compass.core.assess import Assessment, assess
from plain_compass.core.base.errors import InputError
from plain_compass.core.base.paths import with_value
from plain_compass.core.base.polygon import added, moments
from plain_compass.core.cuts import PARTS, form_of, forms, forms_of
from plain_compass.core.cuts.form import Bands, CutForm
from plain_compass.core.cuts.slot_back import resting_m, slide_deg
from plain_compass.core.cuts.stages import TRAPS_FROM, kept_outlines, stages_of, states_at, steps_of, sweep_of
from plain_compass.core.design.cut import BACK_FORMS, FACE_FORMS, HINGE_FORMS
from plain_compass.core.plan.case import Case
from plain_compass.core.site.site import Obstacle, Place, Site
from plain_compass.core.tree.butt import Lobe
from plain_compass.core.tree.tree import Decay
from plain_compass.job.demo import demo_job
from plain_compass.job.document import assess_tree

ALL = sorted(forms())
SPURS = tuple(Lobe(bearing, 0.05, 0.2, 0.8) for bearing in (45.0, 135.0, 225.0, 315.0))


def planned(part: str, key: str, **tree: object) -> Assessment:
    """A leaning tree with spurs, cut in one form."""
    whole = case(round_tree(**({"lean__angle_deg": 3.0, "lean__bearing_deg": 0.0} | tree)))
    return designed(whole, part, key)


def designed(whole: Case, part: str, key: str) -> Assessment:
    cut = form_of(part, key).design(whole)
    return assess(replace(whole, cut=replace(cut, read=f"{part}:{key}")))


def area_of(result: Assessment, kept: Bands) -> float:
    outlines = kept_outlines(result.parts.section, kept)
    # On a grid of a nanometre: two pieces that share an edge may otherwise come out of the union as one of them.
    return float(union_all([Polygon(o).buffer(0) for o in outlines], grid_size=1e-9).area) if outlines else 0.0


# The registry ----------------------------------------------------------------------------------------------


def test_every_file_with_a_form_is_registered() -> None:
    files = [item.name for item in iter_modules(cuts.__path__)]
    made = [getattr(import_module(f"{cuts.__name__}.{name}"), "FORM", None) for name in files]
    assert {id(form) for form in made if form is not None} == {id(form) for form in forms().values()}


def test_every_form_that_can_be_chosen_is_in_the_table_and_the_other_way_round() -> None:
    for part, options in (("face", FACE_FORMS), ("back", BACK_FORMS), ("hinge", HINGE_FORMS)):
        assert {form.key for form in forms_of(part)} == set(options)


@pytest.mark.parametrize(("part", "key"), ALL)
def test_every_form_has_geometry_stages_card_and_drill_text(part: str, key: str) -> None:
    form = form_of(part, key)
    assert told(form.name) and told(form.purpose) and told(form.drill).endswith(".")
    result = planned(part, key, lobes=SPURS)
    assert form.fits(result).level in ("fits", "poor", "refused")
    steps = steps_of(result)
    assert steps[-1][0] == "back"
    for _, step in steps:
        assert told(step.do) and told(step.stand) and told(step.look) and told(step.stop_if).endswith(".")
    assert len(stages_of(result)) == len(steps) + 1
    assert kept_outlines(result.parts.section, steps[-1][1].kept(1.0))


def test_specialist_forms_are_the_four_that_the_trade_says() -> None:
    assert {key for (_, key), form in forms().items() if form.specialist} == {"posts", "slot", "lengthened", "relieved"}


# Conservation ----------------------------------------------------------------------------------------------


@pytest.mark.parametrize(("part", "key"), ALL)
def test_wood_gone_and_wood_left_make_the_section_and_nothing_grows_back(part: str, key: str) -> None:
    for tree in ({}, {"lobes": SPURS}, {"decay": Decay(kind="cavity", radius_m=0.06, offset_m=0.03)}):
        result = planned(part, key, **tree)
        wood = Polygon(result.parts.section.wood).buffer(0)
        before = wood
        for stage in stages_of(result):
            kept = unary_union([Polygon(o).buffer(0) for o in kept_outlines(result.parts.section, stage.kept)])
            gone = wood.difference(kept)
            assert kept.area + gone.area == pytest.approx(wood.area, rel=1e-6)
            assert kept.difference(before.buffer(2e-4)).area < 1e-6
            before = kept


@settings(max_examples=25)
@given(st.sampled_from(ALL), st.floats(0.0, 1.0), st.floats(0.25, 0.9), st.floats(0.0, 359.0))
def test_slices_and_exact_polygons_agree_on_the_wood_that_holds(
    form: tuple[str, str], share: float, diameter: float, lay: float
) -> None:
    whole = case(round_tree(trunk__diameter_m=diameter, trunk__butt_diameter_m=diameter, height_m=20.0))
    whole = replace(whole, cut=replace(whole.cut, lay_deg=lay))
    try:
        result = designed(whole, *form)
    except InputError:
        assume(False)
    for _, step in steps_of(result):
        kept = step.kept(share)
        sliced = float(states_at(result, [kept]).uncut_area_m2[0])
        assert sliced == pytest.approx(area_of(result, kept), rel=0.02, abs=2e-4)


@pytest.mark.parametrize(("part", "key"), ALL)
def test_each_step_only_takes_wood_away_as_it_goes(part: str, key: str) -> None:
    result = planned(part, key)
    for _, step in steps_of(result):
        areas = states_at(result, [step.kept(share) for share in np.linspace(0, 1, 12).tolist()]).uncut_area_m2
        assert (np.diff(areas) <= 1e-6).all()


@given(st.lists(st.floats(0.05, 0.4), min_size=2, max_size=4))
def test_moments_of_pieces_add_up_to_those_of_the_whole(widths: list[float]) -> None:
    edges = np.cumsum([0.0, *widths])
    pieces = [np.array([[0, a], [0.3, a], [0.3, b], [0, b]]) for a, b in pairwise(edges)]
    whole = moments(np.array([[0, 0], [0.3, 0], [0.3, edges[-1]], [0, edges[-1]]]))
    found = added(*(moments(piece) for piece in pieces))
    for name in ("area_m2", "forward_m", "left_m", "second_fall_m4", "second_side_m4"):
        assert getattr(found, name) == pytest.approx(getattr(whole, name), rel=1e-9, abs=1e-12)


# The mechanics of a state ----------------------------------------------------------------------------------


@given(st.floats(0.02, 0.06), st.floats(0.0, 6.0))
def test_the_finished_hinge_stands_as_the_balance_says(thick: float, lean: float) -> None:
    whole = case(round_tree(lean__angle_deg=lean, lean__bearing_deg=180.0))
    result = assess(with_value(with_value(whole, "cut.hinge.left_m", thick), "cut.hinge.right_m", thick))
    last = stages_of(result)[-1]
    wanted = result.parts.balance.standing_utilisation
    # Near the weight that tips it over by itself both grow without bound: compared well short of that.
    if result.parts.strength.stiffness_Nm > 2 * result.parts.mass.toppling_Nm:
        assert last.standing == pytest.approx(wanted, rel=0.12)
    assert last.split_index == pytest.approx(
        max(result.parts.splitting.split_index_bored, result.parts.splitting.split_index_overcut), rel=0.05
    )


@pytest.mark.parametrize("lean", [2.0, 4.6, 7.0, 9.0])
@pytest.mark.parametrize("thick", [0.35, 0.48, 0.60])
def test_the_worst_stage_splits_as_the_finding_says(lean: float, thick: float) -> None:
    """A hornbeam of 48 cm at 4.6 degrees once had 0.10 on its stages and 0.70 in its finding."""
    tree = {"species": "hornbeam", "height_m": 22.0, "trunk__diameter_m": thick, "trunk__butt_diameter_m": thick}
    plain = planned("back", "plain", **tree, lean__angle_deg=lean)
    most = max(stage.split_index for stage in stages_of(plain) if stage.part == "back")
    assert most == pytest.approx(plain.parts.splitting.split_index, rel=0.35)


@pytest.mark.parametrize("thick", [0.22, 0.26, 0.30, 0.40])
def test_a_wedge_fits_on_the_stages_where_the_plan_says_it_fits(thick: float) -> None:
    result = planned("back", "plain", trunk__diameter_m=thick, trunk__butt_diameter_m=thick)
    assert any(stage.wedge_fits for stage in stages_of(result)) == result.parts.wedging.first_fits


def test_the_same_tree_splits_from_behind_and_is_clear_when_bored() -> None:
    tree = {"species": "ash", "height_m": 24.0, "trunk__diameter_m": 0.6, "trunk__butt_diameter_m": 0.6}
    tree |= {"lean__angle_deg": 14.0}
    plain, bored = planned("back", "plain", **tree), planned("back", "bored", **tree)
    # The stage tells the worst within it, not its end: what the sweep passes through.
    most = max(s.split_index for s in stages_of(plain))
    assert most == pytest.approx(sweep_of(plain).states.split_index.max(), rel=0.1)
    assert sweep_of(plain).states.split_index.max() > 1.0
    assert sweep_of(bored).states.split_index.max() < 1.0
    assert form_of("back", "plain").fits(plain).level == "refused"
    assert form_of("back", "plain").fits(plain).instead == "bored"


def test_the_sweep_sees_the_worst_moment_between_two_stages() -> None:
    tree = {"species": "ash", "height_m": 24.0, "trunk__diameter_m": 0.6, "trunk__butt_diameter_m": 0.6}
    result = planned("back", "plain", **tree, lean__angle_deg=14.0)
    sweep = sweep_of(result)
    assert 0.0 < sweep.worst["split"] < 1.0
    assert not any(sweep.worst["split"] == pytest.approx(end, abs=1e-3) for end in sweep.ends)


def test_more_wood_on_the_tension_side_lowers_side_use() -> None:
    whole = case(round_tree(lean__angle_deg=12.0, lean__bearing_deg=90.0))
    even, tapered = designed(whole, "hinge", "strip"), designed(whole, "hinge", "tapered")
    thick = replace(tapered.case.cut.hinge, left_m=0.06, right_m=0.03)
    right_way = assess(replace(whole, cut=replace(whole.cut, hinge=thick)))
    wrong_way = assess(replace(whole, cut=replace(whole.cut, hinge=replace(thick, left_m=0.03, right_m=0.06))))
    assert tapered.case.cut.hinge.left_m > tapered.case.cut.hinge.right_m
    assert right_way.parts.use.use[0] < wrong_way.parts.use.use[0]
    assert stages_of(right_way)[-1].side_utilisation < stages_of(wrong_way)[-1].side_utilisation
    assert even.case.cut.hinge.left_m == even.case.cut.hinge.right_m


def test_nips_and_a_narrower_face_bring_the_break_earlier_and_longer_fibres_bring_it_later() -> None:
    whole = case(round_tree(lean__angle_deg=2.0, lean__bearing_deg=60.0))
    base = assess(whole).parts.use
    nipped = assess(with_value(whole, "cut.hinge.nip_m", 0.05)).parts.use
    assert nipped.side_utilisation > base.side_utilisation
    closed = assess(with_value(whole, "cut.face.roof_deg", 20.0)).parts.use
    assert closed.lets_go_deg < base.lets_go_deg
    hinge = replace(whole.cut.hinge, form="lengthened", lengthen_m=0.12)
    longer = assess(replace(whole, cut=replace(whole.cut, hinge=hinge))).parts
    assert longer.strength.break_angle_deg > assess(whole).parts.strength.break_angle_deg


def test_a_blocked_out_gap_shuts_later_by_its_own_angle() -> None:
    conventional = replace(case().cut.face, form="conventional", roof_deg=45.0)
    blocked = replace(conventional, form="blocked", block_m=0.03)
    one, other = (assess(replace(case(), cut=replace(case().cut, face=f))).parts.face for f in (conventional, blocked))
    gained = other.closing_angle_deg - one.closing_angle_deg
    assert gained == pytest.approx(np.degrees(np.arctan2(0.03, conventional.depth_m)))


@pytest.mark.parametrize(("form", "area"), [("heart", 2), ("strip", 1)])
def test_a_heart_bore_parts_the_hinge_and_keeps_its_ends(form: str, area: int) -> None:
    result = planned("hinge", form)
    assert len(result.parts.hinge.spans) == area
    ends = result.parts.hinge
    whole = planned("hinge", "strip").parts.hinge
    assert (ends.left_m, ends.right_m) == pytest.approx((whole.left_m, whole.right_m), abs=0.005)


def test_a_slot_doubles_the_outer_hinges_rests_on_its_floor_and_cannot_be_steered() -> None:
    result = planned("back", "slot")
    assert len(result.parts.hinge.spans) == 2
    assert result.case.cut.hinge.left_m > 1.8 * sum(result.case.practice.hinge_ratio) / 2 * result.parts.section.depth_m
    assert resting_m(result) == result.case.cut.height_m
    assert next(f for f in result.findings if f.id == "hinge.thickness").level == "clear"
    higher = assess(with_value(result.case, "cut.height_m", 1.0))
    assert resting_m(higher) == 1.0 and slide_deg(higher) > slide_deg(result)
    leaning = planned("back", "slot", lean__angle_deg=6.0, lean__bearing_deg=90.0)
    assert form_of("back", "slot").fits(leaning).level == "refused"


# Bar, wedges and setback through the stages ----------------------------------------------------------------


def test_a_back_leaner_cut_from_behind_without_a_wedge_holds_the_bar_and_with_one_it_does_not() -> None:
    tree = {"lean__angle_deg": 5.0, "lean__bearing_deg": 180.0}
    with_wedge = planned("back", "plain", **tree)
    bare = assess(replace(with_wedge.case, cut=replace(with_wedge.case.cut, wedges=())))
    assert not all(stage.bar_free for stage in stages_of(bare))
    assert sweep_of(bare).states.kerf_shut.max() > TRAPS_FROM
    assert stages_of(with_wedge)[-1].bar_free


def test_a_tree_sits_back_when_its_hinge_no_longer_carries_it_unless_a_wedge_is_in() -> None:
    tree = {"lean__angle_deg": 9.0, "lean__bearing_deg": 180.0}
    result = planned("back", "plain", **tree)
    bare = assess(replace(result.case, cut=replace(result.case.cut, wedges=())))
    assert any(stage.sits_back for stage in stages_of(bare))


def test_a_quarter_cut_has_its_wedge_in_while_half_of_the_back_still_holds() -> None:
    small = {"trunk__diameter_m": 0.22, "trunk__butt_diameter_m": 0.22, "height_m": 11.0, "crown__base_m": 3.0}
    result = planned("back", "quarter", **small, lean__angle_deg=1.0, lean__bearing_deg=180.0)
    uncut, _, first, second, *_ = stages_of(result)
    assert first.wedge_fits and not first.sits_back
    assert uncut.uncut_area_m2 > first.uncut_area_m2 > second.uncut_area_m2
    assert finding(result, "wedge.fits_first").level == "clear"


# Refused by name -------------------------------------------------------------------------------------------

SMALL = {"trunk__diameter_m": 0.18, "trunk__butt_diameter_m": 0.18, "height_m": 10.0, "crown__base_m": 3.0}
BACK = {"lean__angle_deg": 4.0, "lean__bearing_deg": 180.0}
SIDE = {"lean__angle_deg": 14.0, "lean__bearing_deg": 90.0}


@pytest.mark.parametrize(
    ("part", "key", "tree", "instead"),
    [
        ("face", "blocked", SMALL, "open"),
        ("face", "flare", {}, "open"),
        ("face", "none", {}, "open"),
        ("face", "narrow", SIDE, "open"),
        ("back", "bored", SMALL, "vees"),
        ("back", "toothed", SMALL, "vees"),
        ("back", "toothed", BACK, "plain"),
        ("back", "vees", {}, "bored"),
        ("back", "corner", SMALL, "quarter"),
        ("back", "posts", {}, "bored"),
        ("back", "slot", SIDE, "bored"),
        ("back", "axe", {}, "plain"),
        ("hinge", "relieved", {}, "strip"),
    ],
)
def test_a_form_past_its_limits_is_refused_and_names_another(part: str, key: str, tree: dict, instead: str) -> None:
    result = planned(part, key, **tree)
    fit = form_of(part, key).fits(result)
    assert (fit.level, fit.instead) == ("refused", instead)
    found = finding(result, f"cut.{part}")
    assert found.level == "stop"
    assert told(form_of(part, instead).name).lower() in told(found.change).lower()


def test_a_reverse_face_too_near_the_ground_is_refused() -> None:
    low = with_value(with_value(case(), "cut.height_m", 0.05), "cut.face.form", "reverse")
    assert form_of("face", "reverse").fits(assess(with_value(low, "cut.face.floor_deg", 60.0))).level == "refused"


@pytest.mark.parametrize("form", [form for form in forms().values() if form.specialist], ids=lambda form: form.key)
def test_a_specialist_cut_opens_after_its_statement_and_only_where_a_miss_costs_nothing(form: CutForm) -> None:
    read = planned(form.part, form.key, lobes=SPURS)
    unread = assess(with_value(read.case, "cut.read", ""))
    assert "cut.statement" not in finding_ids(read)
    found = finding(unread, "cut.statement")
    assert (found.level, told(found.change)) == ("stop", told(form.needs))
    dear = Site(obstacles=(Obstacle(name="hut", cost="matters", points=(Place(0, -6),)),))
    assert finding(assess(replace(read.case, site=dear)), "cut.specialist").level == "stop"


def test_uneven_snipes_say_which_way_the_butt_is_turned() -> None:
    face = replace(planned("face", "blocked").case.cut.face, snipe_left_m=0.02, snipe_right_m=0.06)
    result = assess(replace(case(), cut=replace(case().cut, face=face)))
    assert "first on the left" in told(finding(result, "cut.face").sentence)


@pytest.mark.parametrize("part", PARTS)
def test_mirrored_trees_and_cuts_fit_alike(part: str) -> None:
    for form in forms_of(part):
        one, other = (
            planned(part, form.key, lean__angle_deg=4.0, lean__bearing_deg=bearing, lobes=SPURS)
            for bearing in (40.0, 320.0)
        )
        assert form.fits(one).level == form.fits(other).level, form.key


def test_each_of_the_demo_trees_uses_forms_that_fit_and_they_are_not_all_alike() -> None:
    backs = set()
    for plan in demo_job().trees:
        result = assess_tree(demo_job(), plan.id)
        cut = result.case.cut
        for part, key in (("face", cut.face.form), ("hinge", cut.hinge.form), ("back", cut.back.form)):
            assert form_of(part, key).fits(result).level == "fits", (plan.id, key)
        backs.add(cut.back.form)
    assert len(backs) >= 4


def test_a_limp_hinge_stands_on_nothing_by_both_accounts() -> None:
    whole = case(round_tree(lean__angle_deg=6.0, lean__bearing_deg=180.0))
    thin = assess(with_value(with_value(whole, "cut.hinge.left_m", 0.012), "cut.hinge.right_m", 0.012))
    assert thin.parts.balance.standing_utilisation > 1.0
    assert stages_of(thin)[-1].standing > 1.0


@given(st.floats(0.05, 0.95))
def test_a_back_cut_that_goes_deeper_never_stands_better_on_what_holds(share: float) -> None:
    result = planned("back", "plain", lean__angle_deg=5.0)
    step = next(step for part, step in steps_of(result) if part == "back" and step.key == "hinge")
    shallow, deep = (states_at(result, [step.kept(s)]).standing[0] for s in (share, min(share + 0.05, 1.0)))
    assert deep >= shallow - 1e-6


def test_side_use_of_a_state_is_mirrored_with_the_lean() -> None:
    one, other = (
        stages_of(planned("back", "plain", lean__angle_deg=4.0, lean__bearing_deg=bearing)) for bearing in (60.0, 300.0)
    )
    for left, right in zip(one, other, strict=True):
        assert left.side_utilisation == pytest.approx(right.side_utilisation, rel=1e-3, abs=1e-6)
        assert left.uncut_area_m2 == pytest.approx(right.uncut_area_m2, rel=1e-6)


@pytest.mark.parametrize("key", ["sides", "quarter"])
def test_half_a_back_cut_folds_nothing_yet(key: str) -> None:
    result = planned("back", key)
    by_key = {stage.step.key: stage for stage in stages_of(result) if stage.step}
    assert by_key["first"].split_index < 0.5 * by_key["second"].split_index
    assert by_key["second"].split_index == pytest.approx(result.parts.splitting.split_index_bored, rel=0.05)


@pytest.mark.parametrize(
    ("index", "level", "instead"), [(0.4, "fits", ""), (0.8, "poor", "bored"), (1.2, "refused", "bored")]
)
def test_a_cut_from_behind_is_refused_from_where_the_stem_would_split(index: float, level: str, instead: str) -> None:
    result = assess(case(round_tree(lean__angle_deg=6.0, lean__bearing_deg=0.0)))
    parts = replace(result.parts, splitting=replace(result.parts.splitting, split_index_plain=index))
    fit = form_of("back", "plain").fits(replace(result, parts=parts))
    assert (fit.level, fit.instead) == (level, instead)


@pytest.mark.parametrize(("bearing", "thicker"), [(90.0, "left_m"), (270.0, "right_m")])
def test_a_tapered_hinge_is_thicker_on_the_side_away_from_the_weight(bearing: float, thicker: str) -> None:
    """The end in tension is the one the tree leans away from; leaning right (90 from the lay) that is the left one."""
    whole = case(round_tree(lean__angle_deg=3.0, lean__bearing_deg=bearing))
    hinge = form_of("hinge", "tapered").design(whole).hinge
    assert max(hinge.left_m, hinge.right_m) == getattr(hinge, thicker)
    assert hinge.left_m != hinge.right_m


@pytest.mark.parametrize("tree_id", [plan.id for plan in demo_job().trees])
def test_the_slices_of_the_stages_are_near_the_exact_hinge(tree_id: str) -> None:
    """The last state of a cut from behind is the hinge, whose area is known exactly."""
    whole = assess_tree(demo_job(), tree_id).case
    result = assess(replace(whole, cut=replace(whole.cut, back=replace(whole.cut.back, form="plain"))))
    last, exact = stages_of(result)[-1], result.parts.hinge.region.area_m2
    assert last.uncut_area_m2 == pytest.approx(exact, rel=0.01)
    uncut = stages_of(result)[0]
    assert uncut.uncut_area_m2 == pytest.approx(result.parts.section.sound_moments.area_m2, rel=0.005)
