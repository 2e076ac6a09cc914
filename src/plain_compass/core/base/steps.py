"""What takes long, worked out a little at a time: generators that pause and return their answer at the end."""

from __future__ import annotations

from collections.abc import Generator
from typing import TypeVar

T = TypeVar("T")


def finished(steps: Generator[object, None, T]) -> T:
    """The answer, all of it worked out now; what was told on the way is passed over."""
    while True:
        try:
            next(steps)
        except StopIteration as end:
            answer: T = end.value
            return answer
