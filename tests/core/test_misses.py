"""What a miss costs the others: counted among likely falls, against geometry drawn by hand."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from block_builders import tree
from plain_compass.core.block.misses import missed_into
from plain_compass.core.block.trees import BlockTree

FELLED = tree("a", 0.0, 0.0, 90.0)


def test_the_share_of_falls_that_meet_a_crown_is_its_chance_to_hang() -> None:
    # Ten metres north stands one; its crown of 2 m and that of the falling one, 2 m too, meet within 4 m aside.
    bearings = np.arange(0.0, 360.0, 1.0)
    (met,) = missed_into(FELLED, bearings, [tree("b", 0.0, 10.0, 0.0)])
    aside = 10.0 * np.abs(np.sin(np.radians(bearings)))
    expected = np.mean((aside < 4.0) & (np.cos(np.radians(bearings)) > 0))
    assert met.hangs == pytest.approx(expected, abs=2 / 360)


def test_on_its_lay_and_out_of_reach_it_meets_nothing() -> None:
    assert missed_into(FELLED, np.full(50, 90.0), [tree("b", 0.0, 12.0, 0.0)]) == ()
    assert missed_into(FELLED, np.linspace(0.0, 359.0, 50), [tree("b", 0.0, 60.0, 0.0)]) == ()
    assert missed_into(FELLED, np.full(50, 90.0), []) == ()


def test_one_that_would_lie_across_the_others_way_out_is_told_apart_from_one_that_hangs() -> None:
    # Laid past the other, five metres off its stem: its ways out, 135 degrees off its lay, reach that far.
    other = tree("b", 8.0, -5.0, 180.0)
    (met,) = missed_into(FELLED, np.full(20, 90.0), [other])
    assert met.hangs == 0.0 and met.bars == 1.0
    (hung,) = missed_into(FELLED, np.full(20, 122.0), [other])
    assert hung.hangs == 1.0 and hung.bars == 0.0


@given(
    st.lists(st.floats(0, 359), min_size=1, max_size=40, unique=True),
    st.floats(1.0, 14.0),
    st.floats(0, 360),
    st.floats(0, 360),
)
def test_chances_are_shares_and_do_not_hang_on_where_north_is(
    bearings: list[float], away_m: float, at_deg: float, turned_deg: float
) -> None:
    def placed(deg: float) -> BlockTree:
        turn = np.radians(at_deg + deg)
        return tree("b", away_m * float(np.sin(turn)), away_m * float(np.cos(turn)), 30.0 + deg)

    one = missed_into(FELLED, np.array(bearings), [placed(0.0)])
    other = missed_into(FELLED, np.array(bearings) + turned_deg, [placed(turned_deg)])
    for met in (*one, *other):
        assert 0.0 <= met.hangs <= 1.0 and 0.0 <= met.bars <= 1.0 and met.hangs + met.bars <= 1.0 + 1e-9
    sums = [sum(met.hangs for met in found) for found in (one, other)]
    # A fall on the very edge, on either side, may round to in or out.
    assert abs(sums[0] - sums[1]) <= 2.0 / len(bearings) + 1e-9
