"""The world has no preferred side, bearing or size: mirror, rotate and scale it, and nothing else changes."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from builders import case
from plain_compass.core.assess import Assessment, assess
from plain_compass.core.design.cut import Hinge, WedgeSeat
from plain_compass.core.plan.case import Case
from plain_compass.core.tree.tree import Crown, CrownReading, Decay, Lean, ShellReading, Tree, Trunk

LOPSIDED = Tree(
    species="hornbeam",
    height_m=17.0,
    trunk=Trunk(diameter_m=0.45, cross_diameter_m=0.40, diameter_bearing_deg=20.0, bark_m=0.01),
    crown=Crown(
        base_m=5.0, readings=tuple(CrownReading(b, r) for b, r in ((0.0, 3.0), (90.0, 5.0), (180.0, 4.0), (270.0, 2.5)))
    ),
    lean=Lean(angle_deg=3.0, bearing_deg=100.0, method="plumb", sweep_m=0.5, sweep_bearing_deg=40.0),
    decay=Decay(kind="cavity", offset_m=0.04, bearing_deg=70.0, radius_m=0.05),
    crack="none",
)


def lopsided_case() -> Case:
    made = case(LOPSIDED)
    cut = replace(made.cut, lay_deg=50.0, hinge=Hinge(0.04, 0.05), wedges=(WedgeSeat(30.0), WedgeSeat(-10.0)))
    return replace(made, cut=cut)


def turned(made: Case, by: float) -> Case:
    """The whole world turned: every bearing goes up by the same angle."""
    tree, cut = made.tree, made.cut

    def t(bearing: float) -> float:
        return (bearing + by) % 360.0

    decay = replace(
        tree.decay,
        bearing_deg=t(tree.decay.bearing_deg),
        shell=tuple(ShellReading(t(s.bearing_deg), s.sound_m) for s in tree.decay.shell),
    )
    return replace(
        made,
        tree=replace(
            tree,
            trunk=replace(tree.trunk, diameter_bearing_deg=t(tree.trunk.diameter_bearing_deg)),
            crown=replace(
                tree.crown, readings=tuple(CrownReading(t(r.bearing_deg), r.radius_m) for r in tree.crown.readings)
            ),
            lean=replace(
                tree.lean, bearing_deg=t(tree.lean.bearing_deg), sweep_bearing_deg=t(tree.lean.sweep_bearing_deg)
            ),
            decay=decay,
        ),
        cut=replace(cut, lay_deg=t(cut.lay_deg)),
    )


def mirrored(made: Case) -> Case:
    """The world in a mirror along the lay: left and right change places."""
    lay = made.cut.lay_deg
    tree, cut = made.tree, made.cut

    def m(bearing: float) -> float:
        return (2 * lay - bearing) % 360.0

    readings = tuple(CrownReading(m(r.bearing_deg), r.radius_m) for r in tree.crown.readings)
    return replace(
        made,
        tree=replace(
            tree,
            trunk=replace(tree.trunk, diameter_bearing_deg=m(tree.trunk.diameter_bearing_deg)),
            crown=replace(tree.crown, readings=readings),
            lean=replace(
                tree.lean, bearing_deg=m(tree.lean.bearing_deg), sweep_bearing_deg=m(tree.lean.sweep_bearing_deg)
            ),
            decay=replace(tree.decay, bearing_deg=m(tree.decay.bearing_deg)),
        ),
        cut=replace(
            cut,
            hinge=Hinge(cut.hinge.right_m, cut.hinge.left_m),
            wedges=tuple(WedgeSeat(-w.at_deg, w.stacked) for w in cut.wedges),
        ),
    )


def numbers(result: Assessment) -> dict[str, float]:
    """Every scalar that matters, by name."""
    parts = result.parts
    return {
        "mass": parts.mass.mass_kg,
        "ahead": parts.balance.ahead_m,
        "standing": parts.balance.standing_utilisation,
        "hinge": parts.face.hinge_length_m,
        "plastic": parts.strength.peak_Nm,
        "side capacity": parts.strength.side_capacity_Nm,
        "side use": parts.use.side_utilisation,
        "needed": parts.use.needed_tilt_deg,
        "lets go": parts.use.lets_go_deg,
        "split": parts.splitting.split_index,
        "split plain": parts.splitting.split_index_plain,
        "lift": parts.wedging.lift_m,
        "blows": parts.wedging.blows,
        "shell": parts.section.shell_ratio or 0.0,
        "hinge sound": parts.hinge.sound_fraction,
    }


@settings(max_examples=25)
@given(by=st.floats(0.0, 360.0))
def test_turning_the_world_changes_nothing(by: float) -> None:
    before, after = assess(lopsided_case()), assess(turned(lopsided_case(), by))
    assert numbers(after) == pytest.approx(numbers(before), rel=1e-6, abs=1e-9)
    assert after.parts.mass.com_left_m == pytest.approx(before.parts.mass.com_left_m, abs=1e-9)
    for one, other in zip(before.tape_marks, after.tape_marks, strict=True):
        assert (other.left_m or 0.0) == pytest.approx(one.left_m or 0.0, abs=1e-6)


def test_a_mirror_swaps_left_and_right_and_nothing_else() -> None:
    before, after = assess(lopsided_case()), assess(mirrored(lopsided_case()))
    assert numbers(after) == pytest.approx(numbers(before), rel=2e-3, abs=1e-6)
    assert after.parts.mass.com_left_m == pytest.approx(-before.parts.mass.com_left_m, rel=1e-3, abs=1e-4)
    assert after.parts.balance.moment_left_Nm == pytest.approx(-before.parts.balance.moment_left_Nm, rel=1e-2)
    corner = next(i for i, m in enumerate(before.tape_marks) if m.key == "hinge_back")
    assert after.tape_marks[corner].left_m == pytest.approx(before.tape_marks[corner].right_m, abs=1e-4)


@settings(max_examples=20)
@given(size=st.floats(0.5, 2.0))
def test_a_model_of_another_size_keeps_its_proportions(size: float) -> None:
    """Lengths go with size, mass with its cube, plastic moment with its cube, weight's moment with its fourth."""
    made = lopsided_case()
    tree, cut = made.tree, made.cut
    big = replace(
        made,
        tree=replace(
            tree,
            height_m=tree.height_m * size,
            trunk=replace(
                tree.trunk,
                diameter_m=tree.trunk.diameter_m * size,
                cross_diameter_m=0.40 * size,
                at_m=1.3 * size,
                bark_m=tree.trunk.bark_m * size,
            ),
            crown=replace(
                tree.crown,
                base_m=tree.crown.base_m * size,
                readings=tuple(CrownReading(r.bearing_deg, r.radius_m * size) for r in tree.crown.readings),
            ),
            lean=replace(tree.lean, sweep_m=tree.lean.sweep_m * size),
            decay=replace(tree.decay, offset_m=tree.decay.offset_m * size, radius_m=tree.decay.radius_m * size),
        ),
        cut=replace(
            cut,
            height_m=cut.height_m * size,
            face=replace(cut.face, depth_m=cut.face.depth_m * size),
            hinge=Hinge(cut.hinge.left_m * size, cut.hinge.right_m * size),
            back=replace(cut.back, step_m=cut.back.step_m * size),
        ),
    )
    before, after = assess(made).parts, assess(big).parts
    assert after.mass.mass_kg == pytest.approx(before.mass.mass_kg * size**3, rel=1e-6)
    assert after.mass.com_up_m == pytest.approx(before.mass.com_up_m * size, rel=1e-6)
    assert after.mass.com_left_m == pytest.approx(before.mass.com_left_m * size, rel=1e-6)
    assert after.face.hinge_length_m == pytest.approx(before.face.hinge_length_m * size, rel=1e-6)
    assert after.strength.peak_Nm == pytest.approx(before.strength.peak_Nm * size**3, rel=1e-6)
    assert after.strength.stiffness_Nm == pytest.approx(before.strength.stiffness_Nm * size**3, rel=1e-6)
    assert after.balance.moment_forward_Nm == pytest.approx(before.balance.moment_forward_Nm * size**4, rel=1e-6)
    assert after.strength.break_angle_deg == pytest.approx(before.strength.break_angle_deg, rel=1e-6)
    assert after.use.needed_tilt_deg == pytest.approx(before.use.needed_tilt_deg, rel=1e-6)


def test_the_same_question_gets_the_same_answer() -> None:
    assert numbers(assess(lopsided_case())) == numbers(assess(lopsided_case()))
