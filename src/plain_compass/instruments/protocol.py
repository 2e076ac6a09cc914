"""The protocol of the instruments: one JSON object a line, UTF-8, ended by a newline.

Every line says which device it is, what it measured, in which unit, and counts up:

    {"device": "clinometer", "seq": 17, "kind": "angle", "value": 41.25, "unit": "deg"}
    {"device": "probe", "seq": 3, "kind": "profile", "depth": [0, 5, 10], "value": [62, 60, 11], "unit": "mm"}

Kinds and units: ``distance`` m, ft · ``angle`` deg, pct (slope in percent) · ``girth`` mm, cm, m, in · ``wind`` m/s,
km/h, kn · ``profile`` with depths in mm, cm or in and resistances in percent. An angle may say
what it was aimed at: ``"aim": "top"`` or ``"base"``. Unknown members are passed over. The
decoder takes bytes as they come and survives garbage, half lines, floods and repeated lines.
"""

from __future__ import annotations

import json
import math
from dataclasses import replace
from itertools import pairwise
from typing import Any

from ..core.base.frozen import dataclass
from ..job.language import tr

LONGEST_LINE = 16_384
"""A longer line is no reading of anything."""
UNITS: dict[str, dict[str, float]] = {
    "distance": {"m": 1.0, "ft": 0.3048},
    "angle": {"deg": 1.0, "pct": math.nan},
    "girth": {"mm": 0.001, "cm": 0.01, "m": 1.0, "in": 0.0254},
    "wind": {"m/s": 1.0, "km/h": 1 / 3.6, "kn": 0.514444},
    "profile": {"mm": 0.001, "cm": 0.01, "in": 0.0254},
}
"""Kind -> unit -> factor to SI (degrees for angles; a slope in percent goes through its tangent)."""
LIMITS = {"distance": (0.0, 1000.0), "angle": (-90.0, 90.0), "girth": (0.0, 30.0), "wind": (0.0, 80.0)}
"""Values outside are no reading of such an instrument."""
MOST_DEPTHS = 4000
"""Points of a probe's profile: forty centimetres at a tenth of a millimetre."""


@dataclass(frozen=True, slots=True)
class Sample:
    """One accepted line.

    Attributes:
        value: in SI units (degrees for angles); for a profile the deepest point.
        depths_m, resistance: a probe's profile, empty for everything else.
        raw: the line as it came, kept with the job.
        aim: what an angle was aimed at, ``top`` or ``base``; empty where the line does not say.
        missed: how many lines of this device are missing before it, as its count tells.
    """

    device: str
    seq: int
    kind: str
    value: float
    raw: str
    missed: int = 0
    aim: str = ""
    depths_m: tuple[float, ...] = ()
    resistance: tuple[float, ...] = ()


@dataclass(frozen=True, slots=True)
class Rejected:
    """One line that was not taken, and why, as a sentence."""

    raw: str
    why: str


def encode(device: str, seq: int, kind: str, unit: str, **members: Any) -> bytes:
    """A line as a device sends it."""
    content = {"device": device, "seq": seq, "kind": kind, **members, "unit": unit}
    return (json.dumps(content) + "\n").encode("utf-8")


class Decoder:
    """Bytes in, samples and rejected lines out. What has been accepted is never taken back."""

    def __init__(self) -> None:
        self._rest = b""
        self._skipping = False
        self._last: dict[str, int] = {}

    def restart(self) -> None:
        """Forget a half line: its connection has broken. Devices begin to count anew when they come back."""
        self._rest, self._skipping = b"", False
        self._last.clear()

    def feed(self, data: bytes) -> list[Sample | Rejected]:
        """Take bytes as they come, whole lines or not."""
        *lines, self._rest = (self._rest + data).split(b"\n")
        found: list[Sample | Rejected] = []
        for line in lines:
            if self._skipping:
                self._skipping = False
            elif line.strip():
                found.append(self._line(line))
        if len(self._rest) > LONGEST_LINE:
            # A flood without line ends: keep none of it, and nothing up to its end.
            if not self._skipping:
                found.append(Rejected("", tr("A line is longer than {longest_line} bytes.", longest_line=LONGEST_LINE)))
            self._rest, self._skipping = b"", True
        return found

    def _line(self, line: bytes) -> Sample | Rejected:
        raw = line[:LONGEST_LINE].decode("utf-8", errors="replace").strip()
        if len(line) > LONGEST_LINE:
            return Rejected("", tr("A line is longer than {longest_line} bytes.", longest_line=LONGEST_LINE))
        try:
            sample = _sample(json.loads(raw), raw)
        except (ValueError, TypeError, KeyError, OverflowError, RecursionError) as error:
            return Rejected(raw, tr("A line could not be read: {reason}.", reason=_reason(error)))
        if self._last.get(sample.device) == sample.seq:
            return Rejected(raw, tr("Line {seq} of {device} came twice.", seq=sample.seq, device=sample.device))
        missed = max(sample.seq - self._last.get(sample.device, sample.seq - 1) - 1, 0)
        self._last[sample.device] = sample.seq
        return replace(sample, missed=missed)


def _reason(error: Exception) -> str:
    if isinstance(error, json.JSONDecodeError):
        return tr("it is not JSON")
    return tr("{error} is missing", error=error) if isinstance(error, KeyError) else str(error) or type(error).__name__


def _sample(content: Any, raw: str) -> Sample:
    if not isinstance(content, dict):
        raise ValueError(tr("it is not an object"))
    device, seq, kind, unit = (content[name] for name in ("device", "seq", "kind", "unit"))
    if not isinstance(device, str) or not isinstance(seq, int) or isinstance(seq, bool):
        raise ValueError(tr("device or seq is of the wrong kind"))
    if kind not in UNITS:
        raise ValueError(tr("kind {kind!r} is not known", kind=kind))
    if unit not in UNITS[kind]:
        raise ValueError(tr("unit {unit!r} is not one of {names}", unit=unit, names=", ".join(UNITS[kind])))
    if kind == "profile":
        return _profile(content, device, seq, unit, raw)
    value = _in_si(_number(content["value"]), kind, unit)
    low, high = LIMITS[kind]
    if not low <= value <= high:
        raise ValueError(
            tr("{kind} {value:g} is outside {low:g} to {high:g}", kind=kind, value=value, low=low, high=high)
        )
    aim = content.get("aim")
    return Sample(device, seq, kind, value, raw, aim=aim if aim in ("top", "base") else "")


def _in_si(value: float, kind: str, unit: str) -> float:
    return math.degrees(math.atan(value / 100)) if unit == "pct" else value * UNITS[kind][unit]


def _number(value: Any) -> float:
    if isinstance(value, bool) or not isinstance(value, (int, float)) or not math.isfinite(value):
        raise ValueError(tr("{value!r} is not a finite number", value=value))
    return float(value)


def _profile(content: dict[str, Any], device: str, seq: int, unit: str, raw: str) -> Sample:
    depths, values = content["depth"], content["value"]
    if not isinstance(depths, list) or not isinstance(values, list) or len(depths) != len(values):
        raise ValueError(tr("a profile wants as many depths as values"))
    if not 2 <= len(depths) <= MOST_DEPTHS:
        raise ValueError(tr("a profile wants 2 to {most_depths} depths", most_depths=MOST_DEPTHS))
    in_m = tuple(_number(depth) * UNITS["profile"][unit] for depth in depths)
    if any(after <= before for before, after in pairwise(in_m)) or in_m[0] < 0:
        raise ValueError(tr("the depths of a profile must rise from zero"))
    resistance = tuple(_number(value) for value in values)
    return Sample(device, seq, "profile", in_m[-1], raw, depths_m=in_m, resistance=resistance)
