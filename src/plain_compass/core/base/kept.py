"""What has been worked out is kept while what it was worked out from stays the same: every such place in one list.

An edit reckons again only what rests on it, since each stage is asked by its own inputs and by nothing else. The list
says which stages there are, how often each was worked out anew, and lets all of it be forgotten.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import lru_cache
from typing import ParamSpec, TypeVar

P = ParamSpec("P")
T = TypeVar("T")

_STAGES: list[tuple[str, Callable[..., object]]] = []


def kept(what: str, count: int) -> Callable[[Callable[P, T]], Callable[P, T]]:
    """Keep the last ``count`` results of a pure function of values that can be hashed.

    Args:
        what: what it works out, in words; several functions may share in one thing.
    """

    def keeping(of: Callable[P, T]) -> Callable[P, T]:
        once = lru_cache(maxsize=count)(of)
        _STAGES.append((what, once))
        return once  # type: ignore[return-value]  # called just as ``of`` is

    return keeping


def worked_out() -> dict[str, int]:
    """How often each thing has been worked out since all was forgotten, the core's stages in their order."""
    found: dict[str, int] = {}
    for what, once in _STAGES:
        found[what] = found.get(what, 0) + once.cache_info().misses  # type: ignore[attr-defined]
    return found


def forget() -> None:
    """Forget everything: the next question is answered from nothing."""
    for _, once in _STAGES:
        once.cache_clear()  # type: ignore[attr-defined]
