"""Rot that shrinks upwards, and how far the cut must be raised to come into sound wood."""

from __future__ import annotations

import pytest

from builders import case, plain_cut, round_tree, section
from plain_compass.core.advice.rising import soundness_by_height
from plain_compass.core.judge.limits import SOUND_HINGE_LEAST, SOUND_SHELL_LEAST
from plain_compass.core.tree.rot import rot_share
from plain_compass.core.tree.tree import Decay, ShellReading

CONE = Decay(kind="cavity", radius_m=0.16, at_m=0.4, top_m=1.4)


def test_rot_is_a_cone_from_where_it_was_probed_to_where_it_ends() -> None:
    assert rot_share(CONE, 0.4) == 1.0
    assert rot_share(CONE, 0.9) == pytest.approx(0.5)
    assert rot_share(CONE, 1.4) == rot_share(CONE, 3.0) == 0.0
    assert rot_share(CONE, 0.2) == pytest.approx(1.2)
    assert rot_share(CONE, 0.0) == 1.25


def test_rot_whose_end_is_not_known_goes_on_unchanged() -> None:
    assert rot_share(Decay(kind="cavity", top_m=None), 5.0) == 1.0


def test_a_shell_thickens_as_the_hollow_in_it_shrinks() -> None:
    shell = tuple(ShellReading(bearing, 0.05) for bearing in (0.0, 120.0, 240.0))
    tree = round_tree(decay=Decay(kind="shell", shell=shell, at_m=0.4, top_m=1.4))
    low, high = section(tree, 0.4), section(tree, 0.9)
    assert low.shell_ratio == pytest.approx(0.25, rel=0.01)
    radius = float(abs(high.wood[:, 0]).max())
    assert high.shell_ratio == pytest.approx(1 - 0.5 * (radius - 0.05) / radius, rel=0.02)


def test_the_lowest_cut_is_the_first_from_which_everything_higher_is_sound_enough() -> None:
    rising = soundness_by_height(case(round_tree(decay=CONE)))
    assert rising is not None
    assert rising.lowest_m is not None
    for height, shell, hinge in zip(rising.height_m, rising.shell_ratio, rising.hinge_sound, strict=True):
        enough = shell >= SOUND_SHELL_LEAST and hinge >= SOUND_HINGE_LEAST
        assert enough == (height >= rising.lowest_m - 1e-9)


def test_at_the_height_of_the_cut_the_curve_says_what_the_assessment_says() -> None:
    whole = case(round_tree(decay=CONE), plain_cut(height_m=0.4))
    rising = soundness_by_height(whole)
    assert rising is not None
    at = abs(rising.height_m - 0.4).argmin()
    assert rising.shell_ratio[at] == pytest.approx(section(whole.tree, 0.4).shell_ratio)


def test_where_rot_is_not_known_raising_the_cut_promises_nothing() -> None:
    assert soundness_by_height(case(round_tree(decay=Decay()))) is None
    endless = soundness_by_height(case(round_tree(decay=Decay(kind="cavity", radius_m=0.16))))
    assert endless is not None
    assert endless.lowest_m is None


def test_sound_wood_may_be_cut_at_any_height() -> None:
    rising = soundness_by_height(case(round_tree()))
    assert rising is not None
    assert rising.lowest_m == pytest.approx(0.1)
