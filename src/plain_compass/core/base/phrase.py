"""Sentences with quantities still in SI: templates whose words and units are put in when they are shown."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Phrase:
    """A sentence with quantities still in SI, to be shown in a person's own units and words.

    Attributes:
        template: text with ``{name}`` for quantities and ``[word]`` for vocabulary.
        values: (name, value, kind) of each quantity; kinds are those of ``core.quantity``.
    """

    template: str
    values: tuple[tuple[str, float, str], ...] = ()


def capital(template: str) -> str:
    """A template begun with a capital, the word of the vocabulary included: ``[hinge] thin`` gives ``[Hinge] thin``."""
    at = 1 if template.startswith("[") else 0
    return f"{template[:at]}{template[at : at + 1].upper()}{template[at + 1 :]}"


def small(template: str) -> str:
    """A template begun with a small letter, to stand inside a sentence."""
    at = 1 if template.startswith("[") else 0
    return f"{template[:at]}{template[at : at + 1].lower()}{template[at + 1 :]}"


def phrase(template: str, **values: tuple[float, str]) -> Phrase:
    """Build a Phrase: ``phrase("{t} thick", t=(0.04, "length"))``."""
    return Phrase(template, tuple((name, float(value), kind) for name, (value, kind) in values.items()))


def listed(words: Sequence[str]) -> str:
    """Words in a row, as they are said: one, two and three."""
    return words[0] if len(words) == 1 else ", ".join(words[:-1]) + " and " + words[-1]


def escaped(name: str) -> str:
    """A person's own words inside a template."""
    return name.replace("{", "(").replace("}", ")").replace("[", "(").replace("]", ")")
