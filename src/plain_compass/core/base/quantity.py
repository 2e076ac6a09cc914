"""What each input measures, between which bounds, and how it is explained: said once, next to the field.

Checks, typed entry, spin steps, tooltips and the published schema all read these declarations.
"""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from dataclasses import MISSING, field, fields, is_dataclass
from enum import StrEnum
from functools import lru_cache
from typing import Any, TypeAlias

from .errors import InputError
from .frozen import dataclass


class Kind(StrEnum):
    """What a quantity measures: ``LENGTH`` stump-sized, ``SPAN`` tree-sized, ``BESIDE`` a span left or right."""

    GIRTH = "girth"
    LENGTH = "length"
    FINE_LENGTH = "fine_length"
    SPAN = "span"
    ANGLE = "angle"
    BEARING = "bearing"
    DEGREES = "degrees"
    OFFSET_ANGLE = "offset_angle"
    ENERGY = "energy"
    RATIO = "ratio"
    COUNT = "count"
    NUMBER = "number"
    MASS = "mass"
    SPEED = "speed"
    TIME = "time"
    FORCE = "force"
    CHANCE = "chance"
    TIMES = "times"
    ASIDE = "aside"
    BESIDE = "beside"


KINDS: dict[Kind, str] = {
    Kind.GIRTH: "m",
    Kind.LENGTH: "m",
    Kind.FINE_LENGTH: "m",
    Kind.SPAN: "m",
    Kind.ANGLE: "deg",
    Kind.BEARING: "deg",
    Kind.DEGREES: "deg",
    Kind.OFFSET_ANGLE: "deg",
    Kind.ENERGY: "J",
    Kind.RATIO: "",
    Kind.COUNT: "",
    Kind.NUMBER: "",
    Kind.MASS: "kg",
    Kind.SPEED: "m/s",
    Kind.TIME: "s",
    Kind.FORCE: "N",
    Kind.CHANCE: "",
    Kind.TIMES: "",
    Kind.ASIDE: "deg",
    Kind.BESIDE: "m",
}
"""Kind of a quantity -> its SI (or degree) unit."""


NAME_LENGTH = 120
"""Longer names fit no list and no card."""
NAME_PATTERN = "[^\\x00-\\x1f\\x7f-\\x9f\\u2028\\u2029]*"


@dataclass(frozen=True, slots=True)
class Quantity:
    """Declaration of one numeric input.

    Attributes:
        kind: what it measures.
        low, high: closed bounds, in the kind's unit.
        label: short name with vocabulary words in square brackets, such as ``"[face] depth"``.
        help: one sentence explaining the term.
        step: how far one press of an arrow key moves it.
        optional: whether None (not measured) is allowed.
    """

    kind: Kind
    low: float
    high: float
    label: str
    help: str
    step: float = 0.005
    optional: bool = False

    @property
    def unit(self) -> str:
        """The unit in which the value is kept."""
        return KINDS[self.kind]

    def check(self, path: str, value: object) -> None:
        """Raise InputError unless ``value`` is a finite number within the bounds (or None where optional)."""
        if value is None and self.optional:
            return
        if _is_finite_number(value) and self.low <= value <= self.high:  # type: ignore[operator]
            return
        raise InputError(path, value, kind=self.kind, low=self.low, high=self.high)


def _is_finite_number(value: object) -> bool:
    return isinstance(value, (int, float)) and not isinstance(value, bool) and math.isfinite(value)


def quantity(default: Any = MISSING, **declared: Any) -> Any:
    """A dataclass field with its ``Quantity``; keywords are those of ``Quantity``."""
    return field(default=default, metadata={"quantity": Quantity(**declared)})


def bearing(label: str, help: str) -> Any:
    """A dataclass field for a bearing, clockwise from north."""
    return quantity(0.0, kind="bearing", low=0.0, high=360.0, label=label, step=5.0, help=help)


def choice(default: str, options: dict[str, str], label: str, help: str = "") -> Any:
    """A dataclass field holding one key of ``options`` (key -> words shown to a person)."""
    return field(default=default, metadata={"choice": options, "label": label, "help": help})


def name(default: str, label: str) -> Any:
    """A dataclass field holding a name a person gives: one line of at most ``NAME_LENGTH`` characters."""
    return field(default=default, metadata={"name": label, "label": label})


def check_name(path: str, text: str) -> None:
    """Raise InputError unless the text is a name: no control characters, not endless."""
    if len(text) > NAME_LENGTH:
        shown = f"{text[:40]}…"
        raise InputError(path, shown, kind="name", reason=f"it has {len(text)} characters, {NAME_LENGTH} at most")
    if not re.fullmatch(NAME_PATTERN, text):
        shown = "".join(letter if letter.isprintable() else "\N{REPLACEMENT CHARACTER}" for letter in text)
        raise InputError(path, shown, kind="name", reason="a name has no line breaks or other control characters")


def declared(cls: type, name: str) -> Quantity:
    """The declaration of field ``name`` of dataclass ``cls``; KeyError when it has none."""
    for item in fields(cls):
        if item.name == name:
            found: Quantity = item.metadata["quantity"]
            return found
    raise KeyError(name)


def check_ranges(value: Any, path: str = "") -> None:
    """Check every declared field of a frozen dataclass tree; raises InputError at the first that fails."""
    head = f"{path}." if path else ""
    for field_name, found, is_name, options in _declarations(value.__class__):
        held = getattr(value, field_name)
        if found is not None:
            # What is a number in range, nearly every time, is told by comparing alone.
            if not (type(held) is float and found.low <= held <= found.high):
                found.check(head + field_name, held)
        elif is_name:
            check_name(head + field_name, held)
        elif options is not None:
            if held not in options:
                raise InputError(head + field_name, held, reason="not one of the known words: " + ", ".join(options))
        elif is_dataclass(held):
            check_ranges(held, head + field_name)
        elif isinstance(held, tuple):
            for index, each in enumerate(held):
                if is_dataclass(each):
                    check_ranges(each, f"{head}{field_name}[{index}]")


Declaration: TypeAlias = tuple[str, Quantity | None, bool, Mapping[str, str] | None]


@lru_cache(maxsize=64)
def _declarations(cls: type) -> tuple[Declaration, ...]:
    """(field, its quantity, whether it is a name, its choices) of every field of a class."""
    return tuple(
        (item.name, item.metadata.get("quantity"), bool(item.metadata.get("name")), item.metadata.get("choice"))
        for item in fields(cls)
    )
