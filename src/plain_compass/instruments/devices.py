"""Simulated instruments pointed at a made-up tree: noise, dropped lines and wrong units on request."""

from __future__ import annotations

import math
import random
from collections.abc import Callable

from ..core.base.frozen import dataclass
from .protocol import encode


@dataclass(frozen=True, slots=True)
class Truth:
    """The made-up tree and weather the instruments look at."""

    height_m: float = 17.5
    distance_m: float = 20.0
    eye_m: float = 1.6
    girth_m: float = 1.634
    sound_shell_m: float = 0.11
    radius_m: float = 0.26
    wind_m_s: float = 3.5


@dataclass(frozen=True, slots=True)
class Faults:
    """What goes wrong, as shares of lines: lost, in another unit, or not a line at all."""

    noise: float = 1.0
    lost: float = 0.0
    other_unit: float = 0.0
    garbage: float = 0.0


@dataclass(frozen=True, slots=True)
class Device:
    """One instrument: what it is called and how it makes one line from its own random stream."""

    name: str
    line: Callable[[random.Random, int, Truth, Faults], bytes]


def _clinometer(rng: random.Random, seq: int, truth: Truth, faults: Faults) -> bytes:
    """Top and base in turn, and every third time the distance."""
    if seq % 3 == 2:
        return RANGE.line(rng, seq, truth.distance_m, faults)
    aim = "top" if seq % 3 == 0 else "base"
    up = (truth.height_m if aim == "top" else 0.0) - truth.eye_m
    angle = math.degrees(math.atan2(up, truth.distance_m)) + rng.gauss(0.0, 0.25 * faults.noise)
    if rng.random() < faults.other_unit:
        return encode("rangefinder", seq, "angle", "pct", aim=aim, value=round(100 * math.tan(math.radians(angle)), 2))
    return encode("rangefinder", seq, "angle", "deg", aim=aim, value=round(angle, 2))


FACTORS = {"m": 1.0, "ft": 0.3048, "mm": 0.001, "in": 0.0254, "m/s": 1.0, "km/h": 1 / 3.6}
"""Metres or metres a second in one of each unit that an instrument may send."""


@dataclass(frozen=True, slots=True)
class Gauge:
    """An instrument that tells one number: its kind, its usual and its other unit, its spread in SI."""

    name: str
    kind: str
    units: tuple[str, str]
    spread: float

    def line(self, rng: random.Random, seq: int, value: float, faults: Faults) -> bytes:
        """One line about a true value in SI."""
        unit = self.units[1] if rng.random() < faults.other_unit else self.units[0]
        noisy = max(value + rng.gauss(0.0, self.spread * faults.noise), 0.0)
        return encode(self.name, seq, self.kind, unit, value=round(noisy / FACTORS[unit], 3))


RANGE = Gauge("rangefinder", "distance", ("m", "ft"), 0.1)
TAPE = Gauge("tape", "girth", ("mm", "in"), 0.004)
WIND = Gauge("windmeter", "wind", ("m/s", "km/h"), 0.6)


def _tape(rng: random.Random, seq: int, truth: Truth, faults: Faults) -> bytes:
    return TAPE.line(rng, seq, truth.girth_m, faults)


def _wind(rng: random.Random, seq: int, truth: Truth, faults: Faults) -> bytes:
    return WIND.line(rng, seq, truth.wind_m_s, faults)


def _probe(rng: random.Random, seq: int, truth: Truth, faults: Faults) -> bytes:
    """Resistance in percent against depth: high in sound wood, low in rot, rough everywhere."""
    depths = range(0, round(truth.radius_m * 1000), 2)
    values = [
        round(max((60.0 if depth < truth.sound_shell_m * 1000 else 8.0) + rng.gauss(0.0, 5.0 * faults.noise), 0.0), 1)
        for depth in depths
    ]
    return encode("probe", seq, "profile", "mm", depth=list(depths), value=values)


DEVICES = (
    Device("rangefinder", _clinometer), Device("tape", _tape), Device("probe", _probe), Device("windmeter", _wind),
)  # fmt: skip


def lines(device: Device, count: int, seed: int, truth: Truth, faults: Faults) -> list[bytes]:
    """The first lines of a device. Each device has a random stream of its own: same seed, same lines."""
    rng = random.Random(f"{seed}/{device.name}")
    found = []
    for seq in range(count):
        line = device.line(rng, seq, truth, faults)
        fate = rng.random()
        if fate < faults.lost:
            continue
        if fate < faults.lost + faults.garbage:
            line = bytes(rng.randrange(256) for _ in range(rng.randrange(1, 60))) + b"\n"
        found.append(line)
    return found
