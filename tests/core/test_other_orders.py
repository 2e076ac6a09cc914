"""Why not the other order: what a moved tree breaks, the nearest place that does not, and what it costs."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from block_builders import random_block, tree
from plain_compass.core.block.cost import WALK_M_MIN, reasons, total
from plain_compass.core.block.other_orders import elsewhere, held, nearest_unbroken

ROW = [tree("a", 0.0, 0.0, 90.0), tree("b", 10.0, 0.0, 90.0), tree("c", 20.0, 0.0, 90.0), tree("d", 0.0, 60.0, 90.0)]
"""Three in a row, each laid towards the next one, and one by itself."""
INWARD = [2, 1, 0, 3]


def test_moved_before_what_it_would_hang_in_it_says_so_and_names_the_nearest_place() -> None:
    block = held(ROW, [0] * 4, INWARD)
    moved = elsewhere(block, 0, 0)
    assert moved.order == (0, 2, 1, 3)
    # It would come down on b where b stands; c lies out of its reach of 15 m, being 20 m off.
    assert [(each.tree, each.other) for each in moved.broken] == [(0, 1)]
    assert nearest_unbroken(block, 0, 0) == 2


def test_one_that_nothing_stands_against_may_go_anywhere_and_only_its_walk_is_counted() -> None:
    block = held(ROW, [0] * 4, INWARD)
    moved = elsewhere(block, 3, 0)
    assert not moved.breaks and nearest_unbroken(block, 3, 0) == 0
    assert moved.minutes == pytest.approx((3600 + 400) ** 0.5 / WALK_M_MIN - 60.0 / WALK_M_MIN)


def test_what_people_decided_is_told_apart_from_what_the_trees_would_do() -> None:
    block = held(ROW, [0] * 4, INWARD, [(2, 3)])
    moved = elsewhere(block, 3, 0)
    assert moved.undone == ((2, 3),) and not moved.broken and moved.breaks


@settings(max_examples=30, deadline=None)
@given(seed=st.integers(0, 10_000), one=st.integers(0, 6), to=st.integers(0, 6))
def test_costs_and_breaks_are_those_of_the_whole_order(seed: int, one: int, to: int) -> None:
    trees, order, lays = random_block(seed, 7, 1), [3, 1, 6, 0, 2, 5, 4], [0] * 7
    block = held(trees, lays, order)
    moved = elsewhere(block, one, to)
    assert sorted(moved.order) == list(range(7)) and moved.order[to] == one
    assert moved.minutes == pytest.approx(total(block.costs, moved.order, lays) - total(block.costs, order, lays))
    before, after = (
        {(a.kind, a.tree, a.other) for a in reasons(trees, each, lays) if a.is_broken} for each in (order, moved.order)
    )
    assert {(a.kind, a.tree, a.other) for a in moved.broken} == after - before
    nearest = nearest_unbroken(block, one, to)
    assert nearest == order.index(one) or not elsewhere(block, one, nearest).breaks
    assert all(
        elsewhere(block, one, p).breaks for p in range(7) if abs(p - to) < abs(nearest - to) and p != order.index(one)
    )
