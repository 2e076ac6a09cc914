"""Wood that is not green: dead or dry, frozen in its sapwood or through."""

from __future__ import annotations

import pytest

from builders import assessed, finding, round_tree

CONDITIONS = ("live", "frozen sapwood", "frozen")


def test_frozen_wood_is_no_weaker_but_parts_and_splits_sooner_the_more_of_it_is_frozen() -> None:
    green, sap, through = (assessed(round_tree(condition=each)).parts for each in CONDITIONS)
    assert green.strength.peak_Nm == sap.strength.peak_Nm == through.strength.peak_Nm
    breaks = [each.strength.break_angle_deg for each in (green, sap, through)]
    assert breaks == sorted(breaks, reverse=True)
    assert through.strength.break_angle_deg == pytest.approx(0.6 * green.strength.break_angle_deg)
    resists = [each.splitting.resistance_J_m2 for each in (green, sap, through)]
    assert resists[1:] == pytest.approx([0.75 * resists[0], 0.5 * resists[0]])


def test_dead_wood_is_weaker_too_and_its_least_hinge_is_not_that_of_live_wood() -> None:
    green, dead = (assessed(round_tree(condition=each)).parts for each in ("live", "dead"))
    assert dead.strength.peak_Nm < green.strength.peak_Nm
    assert dead.splitting.resistance_J_m2 == pytest.approx(0.5 * green.splitting.resistance_J_m2)


def test_a_frozen_tree_is_a_demanding_one_and_splits_nearer_its_limit() -> None:
    leaner = {"species": "ash", "height_m": 22.0, "lean__angle_deg": 6.0}
    green, frozen = (assessed(round_tree(condition=each, **leaner)) for each in ("live", "frozen"))
    assert finding(frozen, "split.index").use == pytest.approx(2 * finding(green, "split.index").use)
    assert "grade.frozen" in {words.key for _, words in frozen.difficulty.reasons}
