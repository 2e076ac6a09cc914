"""Text as it is set: a number never parts from its unit at the end of a line."""

from __future__ import annotations

import re
from functools import lru_cache

NO_BREAK = "\u00a0"
_BEFORE_UNIT = re.compile(r"(?<=[\d/]) (?=(?:mm|cm|m|in|ft|kN|J|s|%|L|R)\b|%)")
_BEFORE_FRACTION = re.compile(r"(?<=\d) (?=\d/\d)")


@lru_cache(maxsize=2048)
def unbroken(text: str) -> str:
    """The text with no-break spaces between numbers and units, and within mixed fractions."""
    return _BEFORE_FRACTION.sub(NO_BREAK, _BEFORE_UNIT.sub(NO_BREAK, text))
