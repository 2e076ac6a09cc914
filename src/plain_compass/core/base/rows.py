"""Results of one case and of many: the same class, of numbers for one, of arrays with an axis of cases for many."""

from __future__ import annotations

from dataclasses import fields
from functools import lru_cache
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
    for name in _names(many.__class__):
        value = getattr(many, name)
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


@lru_cache(maxsize=64)
def _names(of: type) -> tuple[str, ...]:
    """Names of a result's fields, in the order in which it is made."""
    return tuple(item.name for item in fields(of))
