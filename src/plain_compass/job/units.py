"""Units a person may choose, and how a value is shown in them. What is typed is read in ``typed.py``."""

from __future__ import annotations

import math
from collections.abc import Callable
from fractions import Fraction

from ..core.base.frames import full_turn_deg
from .language import in_words, tr

UNITS = {"metric": tr("metric (cm, m)"), "imperial": tr("imperial (in, ft)")}

METRES = {"mm": 0.001, "cm": 0.01, "m": 1.0, "in": 0.0254, "ft": 0.3048, "yd": 0.9144}
"""Metres in one of each; the inch is 25.4 mm by definition."""
UNIT_NAMES = {
    "m": ("metre", "metres", "meter", "meters"),
    "cm": ("centimetre", "centimetres", "centimeter", "centimeters"),
    "mm": ("millimetre", "millimetres", "millimeter", "millimeters"),
    "in": ('"', "″", "''", "inch", "inches"),
    "ft": ("'", "′", "foot", "feet"),
    "yd": ("yard", "yards"),
}
"""Unit -> what else it is called."""
NAMED = {name: unit for unit, names in UNIT_NAMES.items() for name in (unit, *names)}
PACES = ("pace", "paces", "p", "step", "steps")
PACE_M = 0.75
"""A pace of somebody who has not measured his own."""
SPEEDS = {"m/s": 1.0, "km/h": 1 / 3.6, "kn": 0.514444, "mph": 0.44704}
"""Metres a second in one of each."""
SPEED_NAMES = {"kmh": "km/h", "kph": "km/h", "kmph": "km/h", "knots": "kn", "knot": "kn", "kt": "kn", "mps": "m/s"}
SPEED_UNIT = {"metric": "m/s", "imperial": "mph"}
FORCES = {"": 1000.0, "kn": 1000.0, "n": 1.0}
"""Newtons in one of each; a bare number is in kN."""
MASSES = {"": 1.0, "kg": 1.0, "t": 1000.0, "lb": 0.45359237}
"""Kilograms in one of each."""
TIMES = {"": 60.0, "min": 60.0, "m": 60.0, "minutes": 60.0, "h": 3600.0, "hours": 3600.0, "s": 1.0, "sec": 1.0}
"""Seconds in one of each; a bare number is in minutes."""
LENGTH_KINDS = ("length", "fine_length", "girth", "span")
ANGLE_KINDS = ("angle", "bearing", "degrees", "offset_angle")
DEFAULT_UNIT = {
    "metric": {"length": "cm", "girth": "cm", "span": "m", "fine_length": "mm"},
    "imperial": {"length": "in", "girth": "in", "span": "ft", "fine_length": "in"},
}
COMPASS = ["N", "NNE", "NE", "ENE", "E", "ESE", "SE", "SSE", "S", "SSW", "SW", "WSW", "W", "WNW", "NW", "NNW"]
EXAMPLES = {
    "length": tr("55, 12.5 cm, 2 1/4 in, 10 %D"),
    "fine_length": tr("8, 8 mm, 3/8 in"),
    "girth": tr("52, 163 cm girth, 20 1/2 in"),
    "beside": tr("2 m left, 3 paces R, 7 ft left"),
    "time": tr("25 min, 1 h 10, 90 s"),
    "span": tr("17.5, 17.5 m, 57 ft 5 in, 20 yd, 12 paces"),
    "angle": tr("70, 70°, 35 % (a slope)"),
    "bearing": tr("214, 214°, SW, south-west, S45W"),
    "degrees": "-2.31745, 54.0021",
    "offset_angle": tr("20 L, R20, -20"),
    "ratio": "2, 250 %",
    "count": "2",
    "energy": tr("80, 80 J"),
    "number": "1500",
    "speed": tr("4, 4 m/s, 15 km/h, 9 mph"),
    "force": tr("3.5, 3.5 kN, 400 N"),
    "mass": tr("350, 350 kg, 1.2 t, 800 lb"),
}


MINUTES_FROM_s = 100.0
"""Longer times are told in minutes."""
FAR_UP_m = 3.0
"""Lengths past this are shown in metres."""


def shown(value: float | None, kind: str, units: str) -> str:
    """A quantity as a person reads it, always with its unit."""
    if value is None:
        return "–"
    if math.isinf(value):
        return tr("no limit") if value > 0 else tr("none")
    if kind in LENGTH_KINDS:
        return _shown_length(value, kind, units)
    if kind == "beside":
        side = tr("left") if value > 0 else tr("right") if value < 0 else tr("beside")
        return f"{_shown_length(abs(value), 'span', units)} {side}"
    if kind == "speed":
        unit = SPEED_UNIT[units]
        return f"{_trim(value / SPEEDS[unit], 1)} {unit}"
    if kind == "mass":
        return f"{value:.0f} kg" if units == "metric" else f"{value / MASSES['lb']:.0f} lb"
    if kind == "offset_angle":
        return f"{abs(value):.0f}° {tr('L') if value >= 0.5 else tr('R') if value <= -0.5 else ''}".strip()
    written = _WRITTEN.get(kind)
    return in_words(f"{value:.2f}") if written is None else written(value)


NEVER = 0.0005
"""A chance below this is told as next to never."""


def chance_words(share: float) -> str:
    """A chance as people say it: about 1 time in 12."""
    if share < 0.001:
        return tr("fewer than 1 time in 1,000")
    if share >= 0.95:
        return tr("nearly always")
    if share > 0.5:
        return tr("about {share} times in 10", share=round(share * 10))
    times = 1 / share
    step = 1 if times < 20 else 5 if times < 100 else 50
    return tr("about 1 time in {times:,}", times=round(times / step) * step)


def times_words(share: float) -> str:
    """How often something comes out well, as people say it: 19 times in 20."""
    if share >= 0.99:
        return tr("nearly always")
    if share > 0.925:
        return tr("19 times in 20")
    if share >= 0.15:
        return tr("about {share} times in 10", share=max(round(share * 10), 2))
    return tr("1 time in {times}", times=round(1 / max(share, 0.001)))


def _time(value: float) -> str:
    return in_words(f"{value:.1f} s") if value < MINUTES_FROM_s else f"{value / 60:.0f} min"


def _aside(value: float) -> str:
    return f"{_trim(abs(value), 1)}° {tr('left') if value > 0 else tr('right')}"


_WRITTEN: dict[str, Callable[[float], str]] = {
    "angle": lambda value: f"{_trim(value, 1)}°",
    "bearing": lambda value: f"{_trim(full_turn_deg(value) if value != 360 else 360, 1)}°",
    "degrees": lambda value: in_words(f"{value:.6f}°"),
    "ratio": lambda value: f"{value * 100:.0f} %",
    "count": lambda value: f"{value:.0f}",
    "energy": lambda value: f"{value:.0f} J",
    "time": _time,
    "force": lambda value: in_words(f"{value / 1000:.1f} kN"),
    "chance": chance_words,
    "times": times_words,
    "aside": _aside,
}
"""Kind -> how it is written, whatever the units; a drag asks for hundreds."""


def _shown_length(value: float, kind: str, units: str) -> str:
    if units == "metric":
        if kind == "span":
            return f"{_trim(value, 2)} m"
        if kind == "fine_length":
            return f"{_trim(value * 1000, 1)} mm"
        # Nobody says eight hundred centimetres.
        return f"{_trim(value, 3)} m" if value > FAR_UP_m else f"{_trim(value * 100, 1)} cm"
    if kind == "span":
        return _feet(value)
    if kind == "fine_length":
        return in_words(f"{value / 0.0254:.2f} in")
    return f"{_eighths(value / 0.0254)} in"


def _trim(value: float, digits: int) -> str:
    text = f"{value:.{digits}f}"
    text = text.rstrip("0").rstrip(".") if "." in text else text
    return "0" if text == "-0" else in_words(text)


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
