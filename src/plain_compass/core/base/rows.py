"""Results of one case and of many: the same class, of numbers for one, of arrays with an axis of cases for many."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import fields
from functools import lru_cache
from operator import attrgetter
from typing import Any, TypeAlias

import numpy as np
from numpy.typing import NDArray
from typing_extensions import TypeVar

Array: TypeAlias = NDArray[np.float64]
Mask: TypeAlias = NDArray[np.bool_]
Index: TypeAlias = NDArray[np.intp]
N = TypeVar("N", float, Array, default=float)
"""A quantity: a number for one case, shape (B,) for many."""


def row(many: Any, at: int) -> Any:
    """One case out of many: every array's entry, every tuple's element; what is not a number becomes None."""
    values = []
    for value in _all_of(many.__class__)(many):
        if value.__class__ is np.ndarray:
            value = value.item(at) if value.ndim == 1 else value[at]
            # Only what is not a number differs from itself.
            values.append(value if value.__class__ is not float or value == value else None)
        else:
            values.append(value[at] if value.__class__ is tuple else row(value, at))
    return many.__class__(*values)


def taken(many: Any, places: Index) -> Any:
    """Some cases out of many, in that order, one of them as often as it is named."""
    if isinstance(many, np.ndarray):
        return many[places]
    return type(many)(*[taken(getattr(many, name), places) for name in _names(many.__class__)])


def expanded(first: Index, counts: Index) -> tuple[Index, Index, Index]:
    """Runs of whole numbers, one after another: (row, column, number) of all, for a table of firsts and lengths."""
    row, column = np.nonzero(counts)
    repeats = counts[row, column]
    number = np.repeat(first[row, column] - (np.cumsum(repeats) - repeats), repeats) + np.arange(int(repeats.sum()))
    return np.repeat(row, repeats), np.repeat(column, repeats), number


def limited(values: Array, low: Array | float, high: Array | float) -> Array:
    """Values held between two others: ``np.clip`` without what it looks at first, which takes longer for a few."""
    found: Array = np.minimum(np.maximum(values, low), high)
    return found


def in_blocks(count: int, size: int) -> Iterator[slice]:
    """``count`` rows in blocks of at most ``size``: so many that what is worked on stays near the processor."""
    return (slice(first, first + size) for first in range(0, count, size))


@lru_cache(maxsize=64)
def _all_of(of: type) -> Callable[[Any], tuple[Any, ...]]:
    """What reads every field of a result at once."""
    return attrgetter(*_names(of))


@lru_cache(maxsize=64)
def _names(of: type) -> tuple[str, ...]:
    """Names of a result's fields, in the order in which it is made."""
    return tuple(item.name for item in fields(of))
