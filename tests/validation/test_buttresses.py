"""Buttressed butts: the tape measures the hull, the wood is the outline, and symmetries hold."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from builders import assessed, plain_cut, round_tree, section
from plain_compass.core.base.errors import InputError
from plain_compass.core.mechanics.tape import bark_tape
from plain_compass.core.tree.butt import Lobe, standing_m
from plain_compass.core.tree.outline import hull_girth_m, round_share

LOBES = st.lists(
    st.builds(
        Lobe,
        bearing_deg=st.floats(0, 359.9),
        projection_m=st.floats(0.01, 0.1),
        width_m=st.floats(0.15, 0.4),
        top_m=st.floats(0.5, 2.0),
    ),
    min_size=1,
    max_size=5,
).map(tuple)


@given(LOBES)
def test_a_tape_pulled_round_the_drawn_butt_reads_what_was_typed(lobes: tuple[Lobe, ...]) -> None:
    tree = replace(round_tree(), lobes=lobes)
    try:
        at_tape = section(tree, height_m=tree.trunk.butt_at_m)
    except InputError:
        assume(False)
    assert hull_girth_m(at_tape.bark) == pytest.approx(math.pi * 0.40, rel=1e-3)
    assert bark_tape(at_tape).girth_m == pytest.approx(math.pi * 0.40, rel=1e-3)


def test_the_hull_of_a_circle_and_of_a_square_is_their_own_girth() -> None:
    turn = np.linspace(0, 2 * np.pi, 720, endpoint=False)
    assert hull_girth_m(np.column_stack([np.cos(turn), np.sin(turn)])) == pytest.approx(2 * math.pi, rel=1e-4)
    square = np.array([[0.0, 0.0], [1.0, 0.0], [1.0, 1.0], [0.0, 1.0]])
    assert hull_girth_m(square) == pytest.approx(4.0, rel=1e-3)


@given(LOBES, st.floats(0, 359))
def test_turning_tree_and_lay_together_leaves_the_section_as_it_was(lobes: tuple[Lobe, ...], turn: float) -> None:
    turned = tuple(replace(lobe, bearing_deg=(lobe.bearing_deg + turn) % 360.0) for lobe in lobes)
    try:
        one = section(replace(round_tree(), lobes=lobes))
        other = section(replace(round_tree(), lobes=turned), lay_deg=turn)
    except InputError:
        assume(False)
    # The outline's points lie elsewhere on the same curve, so only integrals are equal, and to their spacing.
    assert other.wood_moments.area_m2 == pytest.approx(one.wood_moments.area_m2, rel=2e-3)
    assert other.wood_moments.second_fall_m4 == pytest.approx(one.wood_moments.second_fall_m4, rel=1e-2)


@given(LOBES)
def test_mirrored_buttresses_give_mirrored_results(lobes: tuple[Lobe, ...]) -> None:
    mirrored = tuple(replace(lobe, bearing_deg=(-lobe.bearing_deg) % 360.0) for lobe in lobes)
    try:
        one, other = (assessed(replace(round_tree(), lobes=each)) for each in (lobes, mirrored))
    except InputError:
        assume(False)
    assert other.parts.hinge.length_m == pytest.approx(one.parts.hinge.length_m, rel=1e-6)
    assert other.parts.hinge.region.left_m == pytest.approx(-one.parts.hinge.region.left_m, abs=1e-6)
    for mine, theirs in zip(one.tape_marks, other.tape_marks, strict=True):
        if mine.key in ("face_corner", "hinge_back"):
            assert theirs.left_m == pytest.approx(mine.right_m, abs=1e-3)


def test_a_buttress_runs_out_in_proportion_and_grows_at_most_twofold_below_the_tape() -> None:
    lobe = Lobe(0.0, 0.1, 0.3, top_m=1.3)
    assert standing_m(lobe, 0.3, 0.3) == pytest.approx(0.1)
    assert standing_m(lobe, 0.8, 0.3) == pytest.approx(0.05)
    assert standing_m(lobe, 1.3, 0.3) == 0.0
    assert standing_m(lobe, 0.0, 0.3) == pytest.approx(0.13)
    assert standing_m(replace(lobe, top_m=0.35), 0.0, 0.3) == pytest.approx(0.2)


def test_raising_the_cut_over_the_flare_leaves_a_round_stem() -> None:
    tree = replace(round_tree(), lobes=(Lobe(0.0, 0.08, 0.25, top_m=0.8), Lobe(120.0, 0.08, 0.25, top_m=0.8)))
    low, high = section(tree, 0.3), section(tree, 0.9)
    assert low.round_bark is not low.bark
    assert high.round_bark is high.bark
    assert np.ptp(np.hypot(*high.wood.T)) == pytest.approx(0.0, abs=1e-9)


def test_a_trimmed_buttress_is_gone_from_the_section_but_was_under_the_tape() -> None:
    lobes = (Lobe(0.0, 0.08, 0.25), Lobe(180.0, 0.08, 0.25))
    trimmed = tuple(replace(lobe, state="trimmed") for lobe in lobes)
    tree = round_tree()
    assert round_share(tree.trunk, lobes) == round_share(tree.trunk, trimmed) < 1.0
    standing, flush = (section(replace(tree, lobes=each)) for each in (lobes, trimmed))
    assert flush.depth_m < standing.depth_m
    assert flush.width_m == pytest.approx(standing.width_m, rel=1e-6)


def test_the_tape_bridges_the_hollow_between_two_buttresses() -> None:
    tree = replace(round_tree(), lobes=(Lobe(40.0, 0.1, 0.2), Lobe(320.0, 0.1, 0.2)))
    whole = section(tree)
    tape = bark_tape(whole)
    along = np.concatenate([whole.bark, whole.bark[:1]])
    round_the_bark = float(np.hypot(*np.diff(along, axis=0).T).sum())
    assert tape.girth_m < round_the_bark
    assert (np.diff(tape.arc_m) >= -1e-9).all()


def test_a_stem_without_buttresses_is_as_round_as_ever() -> None:
    assert round_share(round_tree().trunk, ()) == 1.0
    assert (
        assessed(round_tree(), plain_cut()).parts.section.round_wood is assessed(round_tree()).parts.section.round_wood
    )
