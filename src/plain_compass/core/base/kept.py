"""What has been worked out is kept while what it was worked out from stays the same: every such place in one list.

An edit reckons again only what rests on it, since each stage is asked by its own inputs and by nothing else. The list
says which stages there are, how often each was worked out anew, and lets all of it be forgotten.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable, Sequence
from functools import lru_cache
from typing import Generic, NamedTuple, ParamSpec, TypeVar

P = ParamSpec("P")
T = TypeVar("T")
K = TypeVar("K", bound=Hashable)

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


class Counted(NamedTuple):
    """How often something was worked out anew."""

    misses: int


class KeptEach(Generic[K, T]):
    """A function that answers many questions at once, asked only those whose answers are not kept."""

    def __init__(self, of: Callable[[Sequence[K]], Sequence[T]], count: int) -> None:
        self._of, self._count, self._known, self._misses = of, count, dict[K, T](), 0

    def __call__(self, asked: Sequence[K]) -> tuple[T, ...]:
        """An answer to each, in order."""
        new = [key for key in dict.fromkeys(asked) if key not in self._known]
        if new:
            self._misses += len(new)
            self._known |= dict(zip(new, self._of(new), strict=True))
        answers = tuple(self._known[key] for key in asked)
        for key in [*self._known][: max(len(self._known) - self._count, 0)]:
            # The oldest go first, whenever they were last asked for: what is asked for again is soon made again.
            del self._known[key]
        return answers

    def cache_info(self) -> Counted:
        """As of the others that are kept."""
        return Counted(self._misses)

    def cache_clear(self) -> None:
        """Forget the answers and how often they were worked out."""
        self._known.clear()
        self._misses = 0


def kept_each(what: str, count: int) -> Callable[[Callable[[Sequence[K]], Sequence[T]]], KeptEach[K, T]]:
    """Keep the last ``count`` answers of a pure function that answers many questions at once, each by itself."""

    def keeping(of: Callable[[Sequence[K]], Sequence[T]]) -> KeptEach[K, T]:
        each = KeptEach(of, count)
        _STAGES.append((what, each))
        return each

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
