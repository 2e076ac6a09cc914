"""Typed values and shown values: metric or imperial, fractions, percentages of the wood's depth.

A small parser of our own: the usual unit packages cost more than the whole start-up of the program and know
neither ``10 %D`` nor ``2 1/4 in`` (see docs/decisions.md).
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from fractions import Fraction

from ..core.errors import InputError

UNITS = {"metric": "metric (cm, m)", "imperial": "imperial (in, ft)"}

METRES = {
    "mm": 0.001,
    "cm": 0.01,
    "m": 1.0,
    "in": 0.0254,
    '"': 0.0254,
    "″": 0.0254,
    "inch": 0.0254,
    "inches": 0.0254,
    "ft": 0.3048,
    "'": 0.3048,
    "′": 0.3048,
    "foot": 0.3048,
    "feet": 0.3048,
}
PACES = ("pace", "paces", "p")
PACE_M = 0.75
"""A pace of somebody who has not measured his own."""
SPEEDS = {"m/s": 1.0, "km/h": 1 / 3.6, "kn": 0.514444, "mph": 0.44704}
SPEED_UNIT = {"metric": "m/s", "imperial": "mph"}
FORCES = {"": 1000.0, "kn": 1000.0, "n": 1.0}
MASSES = {"": 1.0, "kg": 1.0, "t": 1000.0, "lb": 0.45359237}
LENGTH_KINDS = ("length", "fine_length", "girth", "span")
ANGLE_KINDS = ("angle", "bearing", "degrees", "offset_angle")
DEFAULT_UNIT = {
    "metric": {"length": "cm", "girth": "cm", "span": "m", "fine_length": "mm"},
    "imperial": {"length": "in", "girth": "in", "span": "ft", "fine_length": "in"},
}
COMPASS = ["N", "NNE", "NE", "ENE", "E", "ESE", "SE", "SSE", "S", "SSW", "SW", "WSW", "W", "WNW", "NW", "NNW"]
EXAMPLES = {
    "length": "55, 12.5 cm, 2 1/4 in, 10 %D",
    "fine_length": "8, 8 mm, 3/8 in",
    "girth": "52, 163 cm girth, 20 1/2 in",
    "span": "17.5, 17.5 m, 57 ft 5 in, 12 paces",
    "angle": "70, 70°, 35 % (a slope)",
    "bearing": "214, 214°, SW",
    "degrees": "-2.31745, 54.0021",
    "offset_angle": "20 L, 20 R, -20",
    "ratio": "2, 250 %",
    "count": "2",
    "energy": "80, 80 J",
    "number": "1500",
    "speed": "4, 4 m/s, 15 km/h, 9 mph",
    "force": "3.5, 3.5 kN, 400 N",
    "mass": "350, 350 kg, 1.2 t, 800 lb",
}
_PLUS_MINUS = re.compile(r"\s*(?:±|\+-|\+/-)\s*")
_NUMBER = r"(?:\d+\s+\d+/\d+|\d+/\d+|\d+(?:[.,]\d+)?|[.,]\d+)"
_PART = re.compile(rf"\s*({_NUMBER})\s*([a-zA-Z°%\"'″′]*)\s*")


class TypedError(InputError):
    """What was typed could not be read as a quantity; ``text`` is what was typed."""

    def __init__(self, text: str, kind: str, why: str = "") -> None:
        self.text = text
        self.why = why or f"it is not read as {'an angle' if kind in ANGLE_KINDS else 'a measure'}"
        super().__init__(kind, text, kind=kind, reason=self.why)

    def sentence(self) -> str:
        """What was typed and what can be typed instead."""
        shown = self.text.strip() or "nothing"
        return f"“{shown}”: {self.why}; type for example {EXAMPLES.get(self.kind, '1')}."


def parse(text: str, kind: str, units: str, depth_m: float | None = None, pace_m: float = PACE_M) -> float:
    """Read typed text as a quantity of ``kind`` in SI units (degrees for angles).

    Args:
        depth_m: the wood's depth along the lay, to which ``%D`` refers; None where it means nothing.
        pace_m: length of this person's pace.

    Raises TypedError with a sentence when the text cannot be read.
    """
    clean = text.strip().replace("−", "-").replace("½", " 1/2").replace("¼", " 1/4").replace("¾", " 3/4").strip()
    if kind == "bearing" and clean.upper() in COMPASS:
        return COMPASS.index(clean.upper()) * 22.5
    sign, clean = (-1.0, clean[1:]) if clean.startswith("-") else (1.0, clean)
    if kind == "speed":
        return sign * _speed(clean, text, units)
    parts = _parts(clean.replace(" ", "") if kind == "offset_angle" else clean, text, kind)
    if kind in LENGTH_KINDS:
        return sign * _length(parts, text, kind, units, depth_m, pace_m)
    if len(parts) != 1:
        raise TypedError(text, kind)
    number, unit = parts[0]
    return sign * _single(number, unit, text, kind)


@dataclass(frozen=True, slots=True)
class Typed:
    """A quantity as typed: its value, the spread typed with it (None where none was), and whether it was paced."""

    value: float
    spread: float | None = None
    paced: bool = False


def parse_typed(text: str, kind: str, units: str, depth_m: float | None = None, pace_m: float = PACE_M) -> Typed:
    """Read ``17.5 m ± 0.4 m`` or ``12 paces``; see ``parse``. Raises TypedError when either part cannot be read."""
    pieces = _PLUS_MINUS.split(text, maxsplit=1)
    paced = kind == "span" and re.search(r"\b(?:p|paces?)\s*$", pieces[0].strip().lower()) is not None
    value = parse(pieces[0], kind, units, depth_m, pace_m)
    spread = abs(parse(pieces[1], kind, units, depth_m, pace_m)) if len(pieces) == 2 else None
    return Typed(value, spread, paced)


def _parts(clean: str, text: str, kind: str) -> list[tuple[float, str]]:
    found: list[tuple[float, str]] = []
    at = 0
    while at < len(clean):
        match = _PART.match(clean, at)
        if match is None:
            word = re.match(r"\s*girth\s*$", clean[at:], re.IGNORECASE)
            if word and found:
                found.append((math.nan, "girth"))
                break
            raise TypedError(text, kind)
        try:
            number = float(sum(Fraction(piece.replace(",", ".")) for piece in match[1].split()))
        except ZeroDivisionError:
            raise TypedError(text, kind, "a fraction over zero has no value") from None
        unit = match[2].lower()
        if unit.endswith("girth"):
            found += [(number, unit.removesuffix("girth")), (math.nan, "girth")]
        else:
            found.append((number, unit))
        at = match.end()
    if not found:
        raise TypedError(text, kind)
    return found


def _length(
    parts: list[tuple[float, str]], text: str, kind: str, units: str, depth_m: float | None, pace_m: float
) -> float:
    is_girth = parts[-1][1] == "girth"
    if is_girth and kind != "girth":
        raise TypedError(text, kind, "a girth is not wanted here")
    total = 0.0
    for number, unit in parts[:-1] if is_girth else parts:
        if unit in ("%d", "%"):
            if depth_m is None:
                raise TypedError(text, kind, "there is no diameter to take a percentage of here")
            total += number / 100 * depth_m
        elif unit in PACES and kind == "span":
            total += number * pace_m
        else:
            name = unit or DEFAULT_UNIT[units][kind]
            if name not in METRES:
                raise TypedError(text, kind, f"“{unit}” is not a unit of length")
            total += number * METRES[name]
    return total / math.pi if is_girth else total


def _speed(clean: str, text: str, units: str) -> float:
    """A speed: the one kind whose units hold a stroke."""
    match = re.fullmatch(r"(\d+(?:[.,]\d+)?)\s*([a-zA-Z/]*)", clean)
    unit = (match[2].lower() if match else "") or SPEED_UNIT[units]
    if match is None or unit not in SPEEDS:
        raise TypedError(text, "speed", f"accepted units: {', '.join(SPEEDS)}")
    return float(match[1].replace(",", ".")) * SPEEDS[unit]


def _single(number: float, unit: str, text: str, kind: str) -> float:
    if kind == "offset_angle" and unit in ("l", "left", "°l", "r", "right", "°r"):
        return number if "l" in unit else -number
    if kind == "angle" and unit == "%":
        return math.degrees(math.atan(number / 100))
    if kind in ANGLE_KINDS and unit in ("", "°", "deg", "degrees"):
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
    raise TypedError(text, kind)


def shown(value: float | None, kind: str, units: str) -> str:
    """A quantity as a person reads it, always with its unit."""
    if value is None:
        return "–"
    if math.isinf(value):
        return "no limit" if value > 0 else "none"
    if kind in LENGTH_KINDS:
        return _shown_length(value, kind, units)
    if kind == "speed":
        unit = SPEED_UNIT[units]
        return f"{_trim(value / SPEEDS[unit], 1)} {unit}"
    if kind == "mass":
        return f"{value:.0f} kg" if units == "metric" else f"{value / MASSES['lb']:.0f} lb"
    if kind == "offset_angle":
        return f"{abs(value):.0f}° {'L' if value >= 0.5 else 'R' if value <= -0.5 else ''}".strip()
    return {
        "angle": f"{_trim(value, 1)}°",
        "bearing": f"{_trim(value % 360 if value != 360 else 360, 1)}°",
        "degrees": f"{value:.6f}°",
        "ratio": f"{value * 100:.0f} %",
        "count": f"{value:.0f}",
        "energy": f"{value:.0f} J",
        "time": f"{value:.1f} s",
        "force": f"{value / 1000:.1f} kN",
        "chance": chance_words(value),
        "aside": f"{_trim(abs(value), 1)}° {'left' if value > 0 else 'right'}",
    }.get(kind, f"{value:.2f}")


def chance_words(share: float) -> str:
    """A chance as people say it: about 1 time in 12."""
    if share < 0.001:
        return "fewer than 1 time in 1,000"
    if share >= 0.95:
        return "nearly always"
    if share > 0.5:
        return f"about {round(share * 10)} times in 10"
    times = 1 / share
    step = 1 if times < 20 else 5 if times < 100 else 50
    return f"about 1 time in {round(times / step) * step:,}"


def _shown_length(value: float, kind: str, units: str) -> str:
    if units == "metric":
        if kind == "span":
            return f"{_trim(value, 2)} m"
        return f"{_trim(value * 1000, 1)} mm" if kind == "fine_length" else f"{_trim(value * 100, 1)} cm"
    if kind == "span":
        return _feet(value)
    if kind == "fine_length":
        return f"{value / 0.0254:.2f} in"
    return f"{_eighths(value / 0.0254)} in"


def _trim(value: float, digits: int) -> str:
    text = f"{value:.{digits}f}"
    text = text.rstrip("0").rstrip(".") if "." in text else text
    return "0" if text == "-0" else text


def _eighths(inches: float) -> str:
    sign, eighths = ("-" if inches < 0 else ""), round(abs(inches) * 8)
    whole, rest = divmod(eighths, 8)
    if not rest:
        return f"{sign if whole else ''}{whole}"
    part = Fraction(rest, 8)
    return f"{sign}{f'{whole} ' if whole else ''}{part.numerator}/{part.denominator}"


def _feet(value: float) -> str:
    inches = round(abs(value) / 0.0254)
    feet, rest = divmod(inches, 12)
    sign = "-" if value < 0 and inches else ""
    return f"{sign}{feet} ft {rest} in" if rest else f"{sign}{feet} ft"


def tape_rounded(value_m: float, units: str) -> float:
    """A tape mark rounded as it is chalked: to 5 mm, or to an eighth of an inch."""
    grain = 0.005 if units == "metric" else 0.0254 / 8
    return round(value_m / grain) * grain
