"""The one catalogue of sentences and trade words: files by subject, read once."""

from __future__ import annotations

import json
from functools import cache
from typing import Any

from ..language import spoken, tr
from ..tables import DATA

FILES = ("findings", "cuts", "guide", "stump", "block", "practice")
"""Sentences by what they are about; every key stands in one of them."""


@cache
def glossary() -> dict[str, Any]:
    """Terms, vocabularies, labels and cautions, in the language spoken."""
    content: dict[str, Any] = _translated(glossary_in_english(), "glossary")
    return content


@cache
def sentences() -> dict[str, str]:
    """Every sentence by its key, in the language spoken: ``[term]`` for the vocabulary, ``{name:kind}`` for what is
    put in.

    A kind is one of ``core.base.quantity.KINDS``; ``{name}`` takes words, which ``{name:small}`` and
    ``{name:capital}`` begin so.
    """
    said = spoken().sentences
    return {key: said.get(key, text) for key, text in sentences_in_english().items()}


def glossary_in_english() -> dict[str, Any]:
    """The glossary as its file has it."""
    content: dict[str, Any] = json.loads((DATA / "words" / "glossary.json").read_text(encoding="utf-8"))
    return content


def sentences_in_english() -> dict[str, str]:
    """Every sentence by its key, as the files have it."""
    found: dict[str, str] = {}
    for name in FILES:
        found |= json.loads((DATA / "words" / f"{name}.json").read_text(encoding="utf-8"))
    return found


def _translated(content: Any, key: str) -> Any:
    """The glossary with every text as the language has it under its key: the way to it, with points between."""
    if isinstance(content, dict):
        return {name: _translated(each, f"{key}.{name}") for name, each in content.items()}
    if isinstance(content, list):
        return [_translated(each, f"{key}.{number}") for number, each in enumerate(content)]
    return spoken().sentences.get(key, content)


def vocabularies() -> dict[str, str]:
    """Every vocabulary, key -> how it is described."""
    found: dict[str, str] = glossary()["vocabularies"]
    return found


def level_word(level: str) -> str:
    """How a level is called: clear, watch, stop, unknown."""
    found: str = glossary()["levels"][level]
    return found


def listed(words: list[str]) -> str:
    """Words in a row, as they are said: one, two and three."""
    if len(words) < 2:
        return "".join(words)
    return tr("{most} and {last}", most=", ".join(words[:-1]), last=words[-1])


def capital(text: str) -> str:
    """A text begun with a capital."""
    return text[:1].upper() + text[1:]


def small(text: str) -> str:
    """A text begun with a small letter, to stand inside a sentence."""
    return text[:1].lower() + text[1:]
