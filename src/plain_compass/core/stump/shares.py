"""Sharing out a difference fairly: what each change adds, averaged over every order in which they can be made."""

from __future__ import annotations

import math
from collections.abc import Mapping
from itertools import combinations

Players = tuple[str, ...]


def coalitions(players: Players) -> list[frozenset[str]]:
    """Every set of them, the empty one first: 2 to the power of their number."""
    return [frozenset(each) for size in range(len(players) + 1) for each in combinations(players, size)]


def shapley(players: Players, value: Mapping[frozenset[str], float]) -> dict[str, float]:
    """The share of each player of ``value(all) - value(none)``.

    Each player's gain over every set of others, weighted by how many orders of joining have just that set before it
    (Shapley 1953). The shares add up to the whole; one that never changes anything has none; two that are alike
    have the same.

    Args:
        value: of every coalition of ``players``.
    """
    whole = math.factorial(len(players))
    found = {}
    for player in players:
        others = tuple(each for each in players if each != player)
        share = 0.0
        for before in coalitions(others):
            orders = math.factorial(len(before)) * math.factorial(len(others) - len(before))
            share += orders / whole * (value[before | {player}] - value[before])
        found[player] = share
    return found
