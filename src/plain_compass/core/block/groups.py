"""Many trees in groups by nearness: each ordered by itself, the groups one after another, the lower first."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from .trees import BlockTree

MOST = 64
"""Trees ordered together: with twelve lays each their tables take some megabytes and a search some seconds."""
AT_ONCE = 32
"""Trees of a group where there are several."""


def groups_of(trees: Sequence[BlockTree]) -> tuple[tuple[int, ...], ...]:
    """Indices of the trees of each group, in the order in which the groups are felled."""
    places = np.array([[tree.east_m, tree.north_m] for tree in trees])
    ground = np.array([tree.ground_m for tree in trees])
    if len(trees) <= MOST:
        return (tuple(range(len(trees))),)
    found = _split(places, np.arange(len(trees)))
    # From the lowest on, always to the nearest of those that are left.
    left = sorted(found, key=lambda group: float(ground[group].mean()))
    order = [left.pop(0)]
    while left:
        here = places[order[-1]].mean(axis=0)
        order.append(left.pop(int(np.argmin([np.hypot(*(places[group].mean(axis=0) - here)) for group in left]))))
    return tuple(tuple(group.tolist()) for group in order)


def _split(places: NDArray[np.float64], rows: NDArray[np.intp]) -> list[NDArray[np.intp]]:
    """Halves across the longer side, until each is small enough."""
    if len(rows) <= AT_ONCE:
        return [rows]
    spread = places[rows].max(axis=0) - places[rows].min(axis=0)
    along = places[rows, int(np.argmax(spread))]
    order = np.argsort(along, kind="stable")
    half = len(rows) // 2
    return [*_split(places, rows[order[:half]]), *_split(places, rows[order[half:]])]
