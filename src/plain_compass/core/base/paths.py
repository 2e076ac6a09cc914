"""Values inside frozen documents, reached by dotted path; numbers index tuples: ``cut.wedges.0.at_deg``."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, TypeVar

D = TypeVar("D")


def value_at(document: Any, path: str) -> Any:
    """The value at a dotted path; numbers index tuples: ``cut.wedges.0.at_deg``."""
    for name in path.split("."):
        document = document[int(name)] if name.isdigit() else getattr(document, name)
    return document


def with_value(document: D, path: str, value: Any) -> D:
    """A copy of a frozen document with the value at a dotted path replaced."""
    name, _, rest = path.partition(".")
    if name.isdigit():
        at = int(name)
        assert isinstance(document, tuple)
        inner = with_value(document[at], rest, value) if rest else value
        return (*document[:at], inner, *document[at + 1 :])  # type: ignore[return-value]
    inner = with_value(getattr(document, name), rest, value) if rest else value
    return replace(document, **{name: inner})  # type: ignore[type-var]
