"""A practice as one file: read with a sentence for what is wrong, written to be shared."""

from __future__ import annotations

import json
import re
from dataclasses import asdict, fields
from typing import Any

from ..core.base.errors import PlainCompassError
from ..core.design.practice import BORES, Practice
from .language import tr

KEY = re.compile(r"[a-z0-9-]{1,60}")
NAME_LENGTH = 120
"""Longer names fit no list and no card."""
ORDERS = ("roof first", "floor first")
RANGES = {
    "face_depth_ratio": (0.05, 0.6),
    "opening_deg": (10.0, 150.0),
    "hinge_ratio": (0.02, 0.3),
    "step_m": (0.0, 0.3),
}
"""Pairs of numbers, each between these bounds."""
NUMBERS = {
    "opening_default_deg": (10.0, 150.0),
    "hinge_least_m": (0.0, 0.3),
    "tolerance_deg": (0.1, 20.0),
    "kept_away_lengths": (1.5, 5.0),
}
"""Single numbers, each between these bounds."""


class PracticeError(PlainCompassError, ValueError):
    """A file that is no practice; the text names it, the field and what would be accepted."""


def practice_from(text: str, name: str) -> Practice:
    """A practice from the text of its file. Raises PracticeError; fields it does not know are passed over."""
    try:
        raw = json.loads(text)
    except (ValueError, RecursionError):
        raise PracticeError(
            tr("{name} is not JSON; accepted: a practice as this program writes it.", name=name)
        ) from None
    if not isinstance(raw, dict):
        raise PracticeError(tr("{name} is no practice; accepted: one JSON object.", name=name))
    known = {item.name for item in fields(Practice)}
    values: dict[str, Any] = {key: value for key, value in raw.items() if key in known}
    for field in ("key", "name", "note"):
        if not isinstance(values.get(field), str) or not values[field].strip():
            raise PracticeError(
                tr(
                    "{name}: {field} is {values!r}; accepted: some words.",
                    name=name,
                    field=field,
                    values=values.get(field),
                )
            )
    if not KEY.fullmatch(values["key"]):
        # The key becomes a file name, so nothing of a path may be in it.
        raise PracticeError(
            tr("{name}: key is {key!r}; accepted: 1 to 60 of a to z, 0 to 9 and -.", name=name, key=values["key"][:80])
        )
    if (name_of := values["name"])[NAME_LENGTH:] or any(ord(letter) < 32 for letter in name_of):
        raise PracticeError(
            tr(
                "{name}: name is {called!r}; accepted: up to {name_length} characters on one line.",
                name=name,
                called=name_of[:80],
                name_length=NAME_LENGTH,
            )
        )
    for field, (low, high) in RANGES.items():
        values[field] = _pair(values.get(field), low, high, f"{name}: {field}")
    for field, (low, high) in NUMBERS.items():
        if field in values or field != "kept_away_lengths":
            values[field] = _number(values.get(field), low, high, f"{name}: {field}")
    for field, options in (("order", ORDERS), ("bore_when", BORES)):
        if values.get(field, options[0]) not in options:
            raise PracticeError(
                tr(
                    "{name}: {field} is {values!r}; accepted: {names}.",
                    name=name,
                    field=field,
                    values=values[field],
                    names=", ".join(options),
                )
            )
    values["level_when_bored_open"] = values.get("level_when_bored_open") is True
    values.setdefault("order", ORDERS[0])
    return Practice(**values)


def _number(value: Any, low: float, high: float, what: str) -> float:
    if isinstance(value, bool) or not isinstance(value, (int, float)) or not low <= value <= high:
        raise PracticeError(
            tr("{what} is {value!r}; accepted: {low} to {high}.", what=what, value=value, low=low, high=high)
        )
    return float(value)


def _pair(value: Any, low: float, high: float, what: str) -> tuple[float, float]:
    if not isinstance(value, list) or len(value) != 2:
        raise PracticeError(tr("{what} is {value!r}; accepted: two numbers, low and high.", what=what, value=value))
    one, other = (_number(each, low, high, what) for each in value)
    if one > other:
        raise PracticeError(tr("{what} is {value!r}; accepted: the lower one first.", what=what, value=value))
    return one, other


def practice_text(practice: Practice) -> str:
    """The file of a practice."""
    return json.dumps(asdict(practice), indent=2, ensure_ascii=False) + "\n"
