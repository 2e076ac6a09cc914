"""Trade words that practice asks for, by level."""

from __future__ import annotations

from .words.catalogue import glossary

PARTS = {"face": "[face]", "hinge": "[hinge]", "back cut": "[back cut]"}
"""Terms whose part can be pointed to in the round -> name of the part there."""


def word_questions(level: int) -> tuple[str, ...]:
    """What may be asked of words at a level: (way of asking, term), a colon between."""
    terms = tuple(glossary()["terms"])
    found = [f"meaning:{term}" for term in terms]
    if level >= 2:
        found += [f"part:{term}" for term in PARTS]
    if level >= 3:
        found += [f"other:{term}" for term in terms if len({*names_of(term)}) > 1]
    return tuple(found)


def names_of(term: str) -> tuple[str, ...]:
    """A term in every vocabulary."""
    entry = glossary()["terms"][term]
    return tuple(entry[key] for key in glossary()["vocabularies"])
