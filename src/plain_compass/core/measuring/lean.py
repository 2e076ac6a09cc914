"""Lean of a stem: plumb line, clinometer along two faces, or by eye; and the bow of the stem above."""

from __future__ import annotations

import math
import statistics

from ..base.errors import InputError
from ..base.frames import bearing_of, full_turn_deg
from ..base.frozen import dataclass
from ..base.quantity import Kind
from .estimate import MAD_TO_SPREAD, OUTLIER_SPREADS, Estimate, Reading, propagated, tan_deg, weighted_mean


@dataclass(frozen=True, slots=True)
class EyeClass:
    """A lean judged by eye: its words, and the angle and spread it stands for (indicative)."""

    words: str
    angle_deg: float
    spread_deg: float


@dataclass(frozen=True, slots=True)
class LeanEstimate:
    """A measured lean.

    Attributes:
        angle_deg: from vertical.
        bearing_deg: towards which it leans, 0 to 360; its spread grows without bound as the lean goes to nothing.
    """

    angle_deg: Estimate
    bearing_deg: Estimate

    def top_offset_m(self, height_m: float) -> float:
        """The same lean as fallers say it: how far the top stands out."""
        return height_m * math.tan(math.radians(self.angle_deg.value))


def lean_by_plumb(offset_m: Reading, drop_m: Reading, bearing_deg: Reading) -> LeanEstimate:
    """Lean from a plumb line hung beside the stem: offset of the stem from the line over the line's drop."""
    if not drop_m.value > 0:
        raise InputError("drop", drop_m.value, kind=Kind.SPAN, low=0.01, reason="the line must hang down some way")
    if offset_m.value < 0:
        raise InputError("offset", offset_m.value, kind=Kind.SPAN, low=0.0, reason="say the other way by its bearing")
    angle = propagated(
        lambda offset, drop: math.degrees(math.atan2(offset, drop)), {"offset": offset_m, "drop": drop_m}
    )
    return LeanEstimate(angle, Estimate(full_turn_deg(bearing_deg.value), bearing_deg.spread))


def lean_by_faces(first_deg: Reading, second_deg: Reading, bearing_deg: float) -> LeanEstimate:
    """Lean from a clinometer held along two faces at right angles.

    Args:
        first_deg: lean of the stem towards ``bearing_deg``, negative away from it.
        second_deg: lean towards ``bearing_deg`` + 90.

    The tangents are the components of the lean: tan^2 lean = tan^2 first + tan^2 second.
    """
    for name, face in (("first", first_deg), ("second", second_deg)):
        if not abs(face.value) < 80.0:
            raise InputError(name, face.value, kind=Kind.ANGLE, low=-80.0, high=80.0)
    inputs = {"first": first_deg, "second": second_deg}
    tilt = propagated(
        lambda first, second: math.degrees(math.atan(math.hypot(tan_deg(first), tan_deg(second)))), inputs
    )
    aside = propagated(lambda first, second: _turn(first, second, first_deg.value, second_deg.value), inputs)
    turn = math.degrees(math.atan2(tan_deg(second_deg.value), tan_deg(first_deg.value)))
    spread = min(aside.spread, 180.0) if tilt.value > 0 else 180.0
    return LeanEstimate(tilt, Estimate(full_turn_deg(bearing_deg + turn), spread, aside.shares))


def _tilt(first: float, second: float) -> float:
    """Angle from vertical of a stem that leans so far along its two faces."""
    return math.degrees(math.atan(math.hypot(tan_deg(first), tan_deg(second))))


def _turn(first: float, second: float, at_first: float, at_second: float) -> float:
    """Angle from the first bearing, counted from its value at the readings so that it never jumps by a turn."""
    here = math.atan2(tan_deg(at_second), tan_deg(at_first))
    turn = math.atan2(tan_deg(second), tan_deg(first)) - here
    return math.degrees(math.remainder(turn, 2 * math.pi))


def lean_by_eye(judged: EyeClass, bearing_deg: Reading) -> LeanEstimate:
    """Lean from a class judged by eye, with the large spread that has."""
    return LeanEstimate(
        Estimate(judged.angle_deg, judged.spread_deg, (("eye", 1.0),)),
        Estimate(full_turn_deg(bearing_deg.value), bearing_deg.spread),
    )


def lean_by_sighting(first_m: Reading, second_m: Reading, height_m: Reading, bearing_deg: float) -> LeanEstimate:
    """Lean from sighting the whole stem against a hung line or a wall, from two places at right angles.

    Args:
        first_m: how far the top stands off the vertical through the base, seen across ``bearing_deg``: positive
            towards that bearing.
        second_m: the same towards ``bearing_deg`` + 90, seen from the other place.
        height_m: height over which it was seen.
    """
    if not height_m.value > 0:
        raise InputError("height", height_m.value, kind=Kind.SPAN, low=0.1, reason="the stem must have some height")
    faces = [
        propagated(
            lambda offset, height: math.degrees(math.atan2(offset, height)), {"offset": each, "height": height_m}
        )
        for each in (first_m, second_m)
    ]
    first, second = (Reading(face.value, face.spread) for face in faces)
    return lean_by_faces(first, second, bearing_deg)


@dataclass(frozen=True, slots=True)
class LeanReading:
    """One lean as measured: its angle with the spread that has, and the bearing."""

    angle_deg: float
    bearing_deg: float
    spread_deg: float


def averaged_lean(readings: tuple[LeanReading, ...]) -> tuple[LeanEstimate, tuple[int, ...]]:
    """Average leans as what they are, vectors: the tangents' north and east parts, each averaged by itself.

    A reading is left out when it is further from the one nearest to all others than three of the larger of its own
    spread and the readings' common distance from that one: a rule that does not care where north is. Returns the lean
    and the positions of the readings left out.
    """
    out = _off_the_others(readings)
    kept = [r for i, r in enumerate(readings) if i not in out]
    north, east = (
        weighted_mean([Reading(part, math.radians(r.spread_deg)) for part, r in zip(parts, kept, strict=True)])
        for parts in zip(*(_vector(r) for r in kept), strict=True)
    )
    tangent = math.hypot(north.value, east.value)
    spread = math.degrees(math.hypot(north.spread, east.spread) / math.sqrt(2))
    aside = min(spread / max(tangent, 1e-9), 180.0)
    return LeanEstimate(
        Estimate(math.degrees(math.atan(tangent)), spread),
        Estimate(full_turn_deg(bearing_of(east.value, north.value)), aside),
    ), out


def _vector(reading: LeanReading) -> tuple[float, float]:
    """North and east parts of a lean's tangent."""
    tangent, turn = tan_deg(reading.angle_deg), math.radians(reading.bearing_deg)
    return tangent * math.cos(turn), tangent * math.sin(turn)


def _off_the_others(readings: tuple[LeanReading, ...]) -> tuple[int, ...]:
    if len(readings) < 3:
        return ()
    at = [_vector(reading) for reading in readings]
    apart = [[math.dist(one, other) for other in at] for one in at]
    middle = min(range(len(at)), key=lambda i: sum(apart[i]))
    common = MAD_TO_SPREAD * statistics.median(apart[middle])
    spreads = [max(math.radians(reading.spread_deg), common) for reading in readings]
    return tuple(i for i, away in enumerate(apart[middle]) if away > OUTLIER_SPREADS * spreads[i])


def sweep_from_middle_m(middle_m: Reading) -> Estimate:
    """Sweep at the top from the stem's offset half way up, both off the line of the lower stem.

    The bow goes with the square of the height, so the top stands out four times as far as the middle.
    """
    return propagated(lambda middle: 4 * middle, {"middle": middle_m})
