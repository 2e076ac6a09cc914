"""What is to be said, without the words: a key of the catalogue, and the values that belong into its sentence."""

from __future__ import annotations

from functools import lru_cache
from typing import TypeAlias

from .frozen import dataclass


@dataclass(frozen=True, slots=True)
class Row:
    """Things in a row, with commas alone between them; a plain tuple is told as *one, two and three*."""

    items: tuple[str | Phrase, ...]


@dataclass(frozen=True)
class Phrase:
    """A sentence to be shown in a person's own units and words.

    Attributes:
        key: where its words stand in the catalogue.
        values: name and value of each placeholder in them: a quantity in SI (its kind stands in the catalogue), a
            person's own words, another phrase, or several of either.
    """

    key: str
    values: tuple[tuple[str, Value], ...] = ()


Value: TypeAlias = float | str | Phrase | Row | tuple[str | Phrase, ...]


def phrase(key: str, **values: Value) -> Phrase:
    """Build a Phrase: ``phrase("bar.reach.across", across=0.4)``."""
    return Phrase(key, tuple(values.items())) if values else _bare(key)


@lru_cache(maxsize=1024)
def _bare(key: str) -> Phrase:
    """A sentence without values is the same each time it is said."""
    return Phrase(key)
