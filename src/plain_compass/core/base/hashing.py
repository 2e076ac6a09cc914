"""Frozen values that are looked up many times a frame keep their hash."""

from __future__ import annotations

from dataclasses import fields
from typing import TypeVar

T = TypeVar("T")


def hashed_once(cls: type[T]) -> type[T]:
    """Give a frozen dataclass (without slots) a hash of all its fields that is reckoned once an object."""
    names = tuple(item.name for item in fields(cls))  # type: ignore[arg-type]

    def hash_of(self: T) -> int:
        kept = self.__dict__
        if "_hash" not in kept:
            kept["_hash"] = hash(tuple(getattr(self, name) for name in names))
        found: int = kept["_hash"]
        return found

    cls.__hash__ = hash_of  # type: ignore[assignment]
    return cls
