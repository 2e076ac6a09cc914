"""Bad input to the core: each is a sentence that names the field, the value and what would be accepted."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from builders import assessed, case, plain_cut, round_tree, section, told
from plain_compass.core.assess import assess
from plain_compass.core.base.errors import InputError, PlainCompassError
from plain_compass.core.base.quantity import Quantity, check_ranges, declared
from plain_compass.core.cuts.sequence import order_of_cuts, wedge_plan
from plain_compass.core.design.checks import LEAST_BACK_M
from plain_compass.core.design.cut import Cut, Face
from plain_compass.core.design.first import first_design, resized
from plain_compass.core.tree.tree import CrownReading, Decay, Tree
from plain_compass.job.tables import practice_of


@pytest.mark.parametrize(
    ("tree", "field"),
    [
        ({"height_m": -3.0}, "tree.height_m"),
        ({"height_m": 0.0}, "tree.height_m"),
        ({"height_m": math.nan}, "tree.height_m"),
        ({"height_m": math.inf}, "tree.height_m"),
        ({"trunk__diameter_m": 40.0 / math.pi}, "tree.trunk.diameter_m"),
        ({"trunk__diameter_m": 0.0}, "tree.trunk.diameter_m"),
        ({"trunk__bark_m": 0.14, "trunk__butt_diameter_m": 0.2}, "tree.trunk.bark_m"),
        ({"crown__base_m": 16.0}, "tree.crown.base_m"),
        ({"crown__readings": ()}, "tree.crown.readings"),
        ({"crown__readings": (CrownReading(0.0, 2.0), CrownReading(360.0, 3.0))}, "tree.crown.readings"),
        ({"lean__bearing_deg": 720.0}, "tree.lean.bearing_deg"),
        ({"lean__angle_deg": 75.0}, "tree.lean.angle_deg"),
        ({"lean__method": "guess"}, "tree.lean.method"),
        ({"decay": Decay(kind="cavity", offset_m=0.25, radius_m=0.05)}, "tree.decay.offset_m"),
        ({"decay": Decay(kind="cavity", radius_m=0.199)}, "tree.decay.radius_m"),
        ({"decay": Decay(kind="shell")}, "tree.decay.shell"),
        ({"height_m": 1.5, "crown__base_m": 0.5, "trunk__at_m": 1.6}, "tree.trunk.at_m"),
    ],
)
def test_an_impossible_tree_is_refused_by_field(tree: dict[str, object], field: str) -> None:
    with pytest.raises(InputError) as caught:
        assessed(round_tree(**tree))
    assert caught.value.field == field
    assert field in str(caught.value)
    assert "accepted" in str(caught.value)


@pytest.mark.parametrize(
    ("cut", "field"),
    [
        ({"face__depth_m": 0.201}, "cut.face.depth_m"),
        ({"face__depth_m": 0.35}, "cut.face.depth_m"),
        ({"face__depth_m": -0.1}, "cut.face.depth_m"),
        ({"hinge__left_m": 0.5}, "cut.hinge.left_m"),
        ({"hinge__right_m": 0.32}, "cut.hinge.right_m"),
        ({"hinge__left_m": 0.0, "hinge__right_m": 0.0}, "cut.hinge.left_m"),
        ({"back__form": "bored", "back__strap_m": 0.3}, "cut.back.strap_m"),
        ({"face__overcut_m": 0.2}, "cut.face.overcut_m"),
        ({"lay_deg": 720.0}, "cut.lay_deg"),
        ({"lay_deg": math.nan}, "cut.lay_deg"),
        ({"height_m": 14.0}, "cut.height_m"),
        ({"back__step_m": 5.0}, "cut.back.step_m"),
    ],
)
def test_an_impossible_cut_is_refused_by_field(cut: dict[str, object], field: str) -> None:
    with pytest.raises(InputError) as caught:
        assessed(cut=plain_cut(**cut))
    assert caught.value.field == field


@pytest.mark.parametrize(("share", "fits"), [(0.55, True), (0.65, False), (0.9, False)])
def test_a_strap_takes_at_most_three_fifths_of_what_the_face_leaves(share: float, fits: bool) -> None:
    """More would leave the bar no room; what is said to be accepted ends there too."""
    room = 0.40 - 0.08 - LEAST_BACK_M
    cut = plain_cut(back__form="bored", back__strap_m=share * room)
    if fits:
        assert assessed(cut=cut)
        return
    with pytest.raises(InputError, match="the strap would meet the hinge") as caught:
        assessed(cut=cut)
    assert caught.value.high == pytest.approx(0.6 * room, rel=1e-3)


def test_what_is_said_to_be_accepted_is_accepted() -> None:
    with pytest.raises(InputError) as caught:
        assessed(cut=plain_cut(face__depth_m=0.3))
    assert caught.value.high is not None
    assessed(cut=plain_cut(face__depth_m=caught.value.high, hinge__left_m=0.02, hinge__right_m=0.02))
    with pytest.raises(InputError) as caught:
        assessed(cut=plain_cut(hinge__left_m=0.5))
    assert caught.value.high is not None
    assessed(cut=plain_cut(hinge__left_m=caught.value.high))


def test_errors_are_of_one_family_and_also_value_errors() -> None:
    error = InputError("tree.height_m", -1.0, kind="span", low=1.5, high=120.0)
    assert isinstance(error, PlainCompassError)
    assert isinstance(error, ValueError)
    assert str(error) == "tree.height_m is -1; accepted: 1.5 to 120."


def test_a_truth_value_is_not_a_number() -> None:
    with pytest.raises(InputError):
        Quantity("length", 0.0, 1.0, "x", "x").check("x", True)
    with pytest.raises(InputError):
        Quantity("length", 0.0, 1.0, "x", "x").check("x", "0.5")


def test_what_is_optional_may_be_missing_and_nothing_else_may() -> None:
    Quantity("length", 0.0, 1.0, "x", "x", optional=True).check("x", None)
    with pytest.raises(InputError):
        Quantity("length", 0.0, 1.0, "x", "x").check("x", None)


def test_declarations_are_found_by_name() -> None:
    assert declared(Face, "depth_m").kind == "length"
    with pytest.raises(KeyError):
        declared(Face, "form")


def test_every_default_is_within_its_own_bounds() -> None:
    for value in (Tree(), Cut()):
        check_ranges(value)


@settings(max_examples=60)
@given(
    depth=st.floats(-0.1, 0.5),
    left=st.floats(-0.05, 0.5),
    right=st.floats(-0.05, 0.5),
    strap=st.floats(0.0, 0.5),
    overcut=st.floats(0.0, 0.3),
    lay=st.floats(0.0, 360.0),
    form=st.sampled_from(["plain", "bored"]),
    face=st.sampled_from(["conventional", "open", "reverse"]),
)
def test_any_cut_is_either_answered_or_refused_by_field(
    depth: float, left: float, right: float, strap: float, overcut: float, lay: float, form: str, face: str
) -> None:
    """Nothing in between: no other exception, and no number that is not one."""
    made = case(
        round_tree(lean__angle_deg=3.0, lean__bearing_deg=100.0, decay__kind="cavity"),
        plain_cut(
            face__depth_m=depth,
            hinge__left_m=left,
            hinge__right_m=right,
            back__strap_m=strap,
            back__form=form,
            face__overcut_m=overcut,
            lay_deg=lay,
            face__form=face,
        ),
    )
    try:
        result = assess(made)
    except InputError as error:
        assert error.field.startswith("cut.")
        return
    for item in result.findings:
        assert item.margin is None or math.isfinite(item.margin)
    assert math.isfinite(result.parts.splitting.split_index)
    assert math.isfinite(result.parts.hinge.thickness_m)


@settings(max_examples=40)
@given(diameter=st.floats(0.06, 2.5), height=st.floats(4.0, 60.0), lay=st.floats(0.0, 360.0))
def test_the_first_design_of_any_tree_fits_it_and_the_practice(diameter: float, height: float, lay: float) -> None:
    tree = round_tree(
        trunk__diameter_m=diameter, trunk__butt_diameter_m=None, height_m=height, crown__base_m=height * 0.4
    )
    made = case(tree)
    cut = first_design(tree, made.wood, lay, made.practice, made.constants)
    result = assess(replace(made, cut=cut))
    by_id = {f.id: f for f in result.findings}
    assert by_id["face.depth"].level == "clear"
    assert by_id["face.opening"].level == "clear"
    assert by_id["hinge.step"].level == "clear"


def test_a_cut_resized_keeps_its_share_of_the_stem() -> None:
    cut = resized(plain_cut(face__overcut_m=0.01), 1.5)
    assert cut.face.depth_m == pytest.approx(0.12)
    assert (cut.hinge.left_m, cut.hinge.right_m) == pytest.approx((0.06, 0.06))
    assert cut.face.roof_deg == 50.0


def test_the_section_is_not_reckoned_twice_for_the_same_question() -> None:
    tree = round_tree()
    assert section(tree) is section(tree)


def test_the_order_of_cuts_goes_from_chalk_to_walking_away() -> None:
    back = round_tree(lean__angle_deg=2.0, lean__bearing_deg=180.0)
    plain = [told(p) for p in order_of_cuts(assessed(back))]
    assert plain[0].startswith("Clear both ways out")
    assert "roof" in plain[1]
    assert "floor" in plain[2]
    assert any("wedges once" in line for line in plain)
    assert any("blows" in line or "thin the hinge" in line.lower() for line in plain)
    assert "way out" in plain[-1]


def test_a_bored_cut_sets_the_wedges_before_the_strap_goes() -> None:
    back = round_tree(lean__angle_deg=2.0, lean__bearing_deg=180.0)
    lines = [told(p) for p in order_of_cuts(assessed(back, plain_cut(back__form="bored")))]
    bore = next(i for i, line in enumerate(lines) if line.startswith("Bore"))
    snug = next(i for i, line in enumerate(lines) if "snug" in line)
    drive = next(i for i, line in enumerate(lines) if "blows" in line or "thin the hinge" in line.lower())
    assert bore < snug < drive


def test_a_forward_leaner_is_released_and_left() -> None:
    lines = [told(p) for p in order_of_cuts(assessed(round_tree(lean__angle_deg=14.0), plain_cut(back__form="bored")))]
    assert any(line.startswith("Release") for line in lines)
    assert not any("blows" in line for line in lines)


def test_a_practice_may_cut_the_floor_first() -> None:
    made = case()
    other = assess(replace(made, practice=replace(practice_of("fifth-and-tenth"), order="floor first")))
    lines = [told(p) for p in order_of_cuts(other)]
    assert "floor" in lines[1]


def test_the_wedge_plan_has_a_line_a_seat_or_says_there_is_none() -> None:
    back = round_tree(lean__angle_deg=2.0, lean__bearing_deg=180.0)
    assert len(wedge_plan(assessed(back))) == 1
    assert told(wedge_plan(assessed(back, plain_cut(wedges=())))[0]) == "No wedge is placed."
