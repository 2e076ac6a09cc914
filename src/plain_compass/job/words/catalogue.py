"""The one catalogue of sentences and trade words: files by subject, read once."""

from __future__ import annotations

import json
from functools import cache
from typing import Any

from ..tables import DATA

FILES = ("findings", "cuts", "guide", "stump", "block", "practice")
"""Sentences by what they are about; every key stands in one of them."""


@cache
def glossary() -> dict[str, Any]:
    """The glossary file: terms, vocabularies, labels and cautions."""
    content: dict[str, Any] = json.loads((DATA / "words" / "glossary.json").read_text(encoding="utf-8"))
    return content


@cache
def sentences() -> dict[str, str]:
    """Every sentence by its key: ``[term]`` for the vocabulary, ``{name:kind}`` for what is put in.

    A kind is one of ``core.base.quantity.KINDS``; ``{name}`` takes words, which ``{name:small}`` and
    ``{name:capital}`` begin so.
    """
    found: dict[str, str] = {}
    for name in FILES:
        found |= json.loads((DATA / "words" / f"{name}.json").read_text(encoding="utf-8"))
    return found


def vocabularies() -> dict[str, str]:
    """Every vocabulary, key -> how it is described."""
    found: dict[str, str] = glossary()["vocabularies"]
    return found


def listed(words: list[str]) -> str:
    """Words in a row, as they are said: one, two and three."""
    return words[0] if len(words) == 1 else ", ".join(words[:-1]) + " and " + words[-1] if words else ""


def capital(text: str) -> str:
    """A text begun with a capital."""
    return text[:1].upper() + text[1:]


def small(text: str) -> str:
    """A text begun with a small letter, to stand inside a sentence."""
    return text[:1].lower() + text[1:]
