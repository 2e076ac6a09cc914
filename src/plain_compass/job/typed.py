"""Typed values: metric or imperial, fractions, percentages of the wood's depth, bearings by name.

A small parser of our own: the usual unit packages cost more than the whole start-up of the program and know
neither ``10 %D`` nor ``2 1/4 in`` (see docs/decisions.md). It never guesses: pieces add up only where their units fall,
as in ``5 ft 3 1/2 in``, one separator is a decimal sign, and everything else is refused with what would be taken.
"""

from __future__ import annotations

import math
import re
from fractions import Fraction

from ..core.base.errors import InputError
from ..core.base.frames import full_turn_deg
from ..core.base.frozen import dataclass
from .language import in_english, tr, tr_mark
from .units import (
    ANGLE_KINDS,
    COMPASS,
    DEFAULT_UNIT,
    EXAMPLES,
    FORCES,
    LENGTH_KINDS,
    MASSES,
    METRES,
    NAMED,
    PACE_M,
    PACES,
    SPEED_NAMES,
    SPEED_UNIT,
    SPEEDS,
    TIMES,
)

LONGEST = 60
"""Characters of one entry; no measure needs more, and a longer one is a slip of the clipboard."""
NEXT_DOWN = {"m": ("cm", 100), "ft": ("in", 12)}
"""What a bare number after this unit is counted in, and how many of them there are to it: ``1 m 40``."""
WINDS = {"north": "N", "east": "E", "south": "S", "west": "W"}
_PLUS_MINUS = re.compile(r"\s*(?:±|\+-|\+/-)\s*")
_NUMBER = r"(?:\d+\s+\d+/\d+|\d+/\d+|\d+(?:[.,]\d+)?|[.,]\d+)"
_PIECE = re.compile(rf"({_NUMBER})(?![.,\d/])\s*([a-zA-Z°%\"'″′]*)\s*")
_QUADRANT = re.compile(r"([NS])\s*(\d+(?:[.,]\d+)?)\s*°?\s*([EW])")
WORDS = (tr_mark("left"), tr_mark("right"), tr_mark("beside"), tr_mark("paces"), tr_mark("girth"))
"""Words that are understood beside numbers and units."""
_FRACTIONS = {"½": " 1/2", "¼": " 1/4", "¾": " 3/4"}
Piece = tuple[float, str]


class TypedError(InputError):
    """What was typed could not be read as a quantity; ``text`` is what was typed."""

    def __init__(self, text: str, kind: str, why: str = "") -> None:
        self.text = text
        self.why = why or tr(
            "it is not read as {what}", what=tr("an angle") if kind in ANGLE_KINDS else tr("a measure")
        )
        super().__init__(kind, text, kind=kind, reason=self.why)

    def sentence(self) -> str:
        """What was typed and what can be typed instead."""
        clean = "".join(letter if letter.isprintable() else " " for letter in self.text).strip()
        shown = clean if len(clean) <= LONGEST else f"{clean[:LONGEST]}…"
        return tr(
            "“{shown}”: {why}; type for example {examples}.",
            shown=shown or "nothing",
            why=self.why,
            examples=EXAMPLES.get(self.kind, "1"),
        )


@dataclass(frozen=True, slots=True)
class Typed:
    """A quantity as typed.

    Attributes:
        spread: the spread typed with it; None where none was.
        paced: whether it was paced.
        guessed: whether a bare number was taken for the next smaller unit, which is worth telling.
    """

    value: float
    spread: float | None = None
    paced: bool = False
    guessed: bool = False


@dataclass(frozen=True, slots=True)
class _Entry:
    """One entry being read: the text as typed, and whose units it is in."""

    text: str
    kind: str
    units: str
    depth_m: float | None
    pace_m: float

    def refused(self, why: str = "") -> TypedError:
        return TypedError(self.text, self.kind, why)


def parse(text: str, kind: str, units: str, depth_m: float | None = None, pace_m: float = PACE_M) -> float:
    """Read typed text as a quantity of ``kind`` in SI units (degrees for angles).

    Args:
        depth_m: the wood's depth along the lay, to which ``%D`` refers; None where it means nothing.
        pace_m: length of this person's pace.

    Raises TypedError with a sentence when the text cannot be read.
    """
    entry = _Entry(text, kind, units, depth_m, pace_m)
    if len(text) > LONGEST:
        raise entry.refused(tr("it is longer than {longest} characters", longest=LONGEST))
    clean = _clean(text)
    if kind == "bearing" and (bearing := _named_bearing(clean)) is not None:
        return bearing
    sign, clean = (-1.0, clean[1:].strip()) if clean.startswith("-") else (1.0, clean)
    if kind == "speed":
        return sign * _speed(clean, entry)
    if kind == "beside":
        side, away = _sided(clean)
        return sign * side * parse(away, "span", units, depth_m, pace_m)
    if kind == "offset_angle":
        clean = _side_last(clean)
    pieces = _pieces(clean, entry)
    if kind in LENGTH_KINDS:
        return sign * _length(pieces, entry)
    if kind == "time":
        return sign * _time(pieces, entry)
    if len(pieces) != 1:
        raise entry.refused(tr("it is more than one number"))
    return sign * _single(*pieces[0], entry)


def parse_typed(text: str, kind: str, units: str, depth_m: float | None = None, pace_m: float = PACE_M) -> Typed:
    """Read ``17.5 m ± 0.4 m`` or ``12 paces``; see ``parse``. Raises TypedError when either part cannot be read."""
    parts = _PLUS_MINUS.split(text, maxsplit=1)
    unit = re.search(r"([a-z]+)\s*$", _clean(parts[0]).lower())
    paced = kind == "span" and unit is not None and unit[1] in PACES
    value = parse(parts[0], kind, units, depth_m, pace_m)
    spread = abs(parse(parts[1], kind, units, depth_m, pace_m)) if len(parts) == 2 else None
    guessed = kind in LENGTH_KINDS and re.search(r"[a-zA-Z'′]\s*\d+\s*$", _clean(parts[0])) is not None
    return Typed(value, spread, paced, guessed)


def _clean(text: str) -> str:
    """One sort of space, of minus and of fraction, English words, and no full stop behind a unit."""
    text = in_english(text, WORDS)
    for sign, plain in (("−", "-"), *_FRACTIONS.items()):
        text = text.replace(sign, plain)
    text = " ".join(text.split())
    return re.sub(r"(?<=[a-zA-Z])\.(?=\s|$)", "", text)


def _named_bearing(clean: str) -> float | None:
    """``SW``, ``south-west`` or ``S45W`` in degrees; None where it is none of these."""
    word = clean.lower()
    for name, letter in WINDS.items():
        word = word.replace(name, letter)
    letters = re.sub(r"[\s-]", "", word).upper()
    if letters in COMPASS:
        return COMPASS.index(letters) * 22.5
    match = _QUADRANT.fullmatch(clean.upper())
    if match is None or (angle := float(match[2].replace(",", "."))) > 90:
        return None
    towards = angle if match[3] == "E" else -angle
    return full_turn_deg(towards if match[1] == "N" else 180.0 - towards)


def _side_last(clean: str) -> str:
    """``L20`` as ``20L``."""
    match = re.fullmatch(r"(l|left|r|right)\s*(\d.*)", clean, re.IGNORECASE)
    return f"{match[2]}{match[1]}" if match else clean.replace("° ", "°")


def _sided(clean: str) -> tuple[float, str]:
    """(1 for left and -1 for right, the rest) of ``3 paces R``; left where no side is said."""
    match = re.fullmatch(r"(?:(l|left|r|right)\b\s*)?(.*?)\s*(?:\b(l|left|r|right|beside))?", clean, re.IGNORECASE)
    side = ((match[1] or match[3] or "") if match else "").lower()
    return -1.0 if side.startswith("r") else 1.0, match[2] if match else clean


def _time(pieces: list[Piece], entry: _Entry) -> float:
    """Hours, minutes and seconds together; a bare number behind hours is minutes."""
    total, before = 0.0, math.inf
    for number, unit in pieces:
        seconds = TIMES.get(unit)
        if seconds is None or seconds >= before:
            raise entry.refused(tr("accepted are hours, minutes and seconds, in that order"))
        total, before = total + number * seconds, seconds
    return total


def _pieces(clean: str, entry: _Entry) -> list[Piece]:
    """The numbers typed, each with its unit in lower case."""
    found: list[Piece] = []
    at = 0
    while at < len(clean):
        match = _PIECE.match(clean, at)
        if match is None:
            raise entry.refused(_why(clean, at))
        number, unit = _number(match[1], entry), match[2].lower()
        at = match.end()
        if not unit.endswith("girth") and (word := re.match(r"girth\s*", clean[at:], re.IGNORECASE)):
            unit, at = f"{unit}girth", at + word.end()
        found.append((number, unit))
    if not found:
        raise entry.refused()
    return found


def _why(clean: str, at: int) -> str:
    if re.match(r"[\d.,/]*[.,][\d.,]*[.,]", clean[at:]):
        return tr("it has more than one separator, and only one can be the decimal sign")
    return ""


def _number(text: str, entry: _Entry) -> float:
    whole, _, part = text.rpartition(" ")
    try:
        fraction = Fraction(part.replace(",", "."))
    except ZeroDivisionError:
        raise entry.refused(tr("a fraction over zero has no value")) from None
    if whole and fraction >= 1:
        raise entry.refused(tr("{part} is no part of one", part=part))
    return float(fraction + (int(whole) if whole else 0))


def _length(pieces: list[Piece], entry: _Entry) -> float:
    number, unit = pieces[-1]
    if unit.endswith("girth"):
        if entry.kind != "girth":
            raise entry.refused(tr("a girth is not wanted here"))
        pieces = [*pieces[:-1], (number, unit.removesuffix("girth"))]
        return _added(pieces, entry) / math.pi
    return _added(pieces, entry)


def _added(pieces: list[Piece], entry: _Entry) -> float:
    """Pieces of falling unit together; a single one may be a percentage or paces."""
    if len(pieces) == 1:
        return _one_length(*pieces[0], entry)
    total, before = 0.0, math.inf
    for index, (number, unit) in enumerate(pieces):
        name = NAMED.get(unit) or _next_down(pieces, index, entry)
        if METRES[name] >= before:
            raise entry.refused(tr("only pieces of falling unit add up"))
        if index < len(pieces) - 1 and number != int(number):
            raise entry.refused(tr("only the last piece can have a fraction"))
        total, before = total + number * METRES[name], METRES[name]
    return total


def _next_down(pieces: list[Piece], index: int, entry: _Entry) -> str:
    """The unit of a bare number behind one with a unit, where that can only be one thing."""
    number, unit = pieces[index]
    if unit:
        raise entry.refused(tr("“{unit}” does not add up with other pieces", unit=unit))
    name, most = NEXT_DOWN.get(NAMED.get(pieces[index - 1][1], ""), ("", 0)) if index else ("", 0)
    if not name or index < len(pieces) - 1 or not number < most:
        raise entry.refused(tr("it is more than one number, and the units do not say how they add up"))
    return name


def _one_length(number: float, unit: str, entry: _Entry) -> float:
    if unit in ("%d", "%"):
        if entry.depth_m is None:
            raise entry.refused(tr("there is no diameter to take a percentage of here"))
        return number / 100 * entry.depth_m
    if unit in PACES and entry.kind == "span":
        return number * entry.pace_m
    name = NAMED.get(unit or DEFAULT_UNIT[entry.units][entry.kind])
    if name is None:
        raise entry.refused(tr("“{unit}” is not a unit of length here", unit=unit))
    return number * METRES[name]


def _speed(clean: str, entry: _Entry) -> float:
    """A speed: the one kind whose units hold a stroke."""
    match = re.fullmatch(r"(\d+(?:[.,]\d+)?)\s*([a-zA-Z/]*)", clean)
    typed = (match[2].lower() if match else "") or SPEED_UNIT[entry.units]
    unit = SPEED_NAMES.get(typed, typed)
    if match is None or unit not in SPEEDS:
        raise entry.refused(tr("accepted units: {names}", names=", ".join(SPEEDS)))
    return float(match[1].replace(",", ".")) * SPEEDS[unit]


def _single(number: float, unit: str, entry: _Entry) -> float:
    kind = entry.kind
    if kind == "offset_angle" and unit in ("l", "left", "°l", "°left", "r", "right", "°r", "°right"):
        return number if "l" in unit else -number
    if kind == "angle" and unit == "%":
        return math.degrees(math.atan(number / 100))
    if kind in ANGLE_KINDS and unit in ("", "°", "deg", "degree", "degrees"):
        return number
    if kind == "ratio" and unit in ("", "%"):
        return number / 100 if unit == "%" else number
    if kind == "count" and unit in ("", "x") and number == int(number):
        return number
    if kind == "energy" and unit in ("", "j"):
        return number
    if kind == "force" and unit in FORCES:
        return number * FORCES[unit]
    if kind == "mass" and unit in MASSES:
        return number * MASSES[unit]
    if kind == "number" and unit == "":
        return number
    raise entry.refused()
