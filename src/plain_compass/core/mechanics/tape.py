"""Tape marks: every mark of the design as a distance round the bark from the lay mark."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from ..base.frozen import dataclass
from ..base.kept import kept
from ..base.polygon import Array, following
from ..design.cut import Cut
from ..tree.section import Section
from .face import FaceGeometry
from .hinge import rear_line


@dataclass(frozen=True, slots=True)
class TapeMark:
    """One mark, left and right of the lay mark, round the outside of the bark.

    Attributes:
        key: what it marks, such as ``face_corner``; shown through the glossary.
        left_m, right_m: distances round the bark; None on the side where it has no place.
    """

    key: str
    left_m: float | None
    right_m: float | None


@dataclass(frozen=True, slots=True, eq=False)
class BarkTape:
    """Arc length round the bark from the lay mark: ``turn`` is the angle at the pith, left positive.

    Attributes:
        turn_rad: shape (n,), rising from -pi to pi; 0 is the lay.
        arc_m: signed distance round the bark, left positive, shape (n,).
        girth_m: all the way round.
    """

    turn_rad: Array
    arc_m: Array
    girth_m: float

    def at(self, turn_rad: float) -> float:
        """Signed distance round the bark of the point seen at an angle from the pith."""
        return float(np.interp(turn_rad, self.turn_rad, self.arc_m))


@kept("tape marks", 16)
def bark_tape(section: Section) -> BarkTape:
    """Lay a tape round the bark, zero at the lay. Between buttresses it runs straight, as a tape does."""
    turn = np.arctan2(section.bark[:, 1], section.bark[:, 0])
    order = np.argsort(turn)
    turn, points = turn[order], section.bark[order]
    along, girth = _along_hull(points)
    turn = np.concatenate([[turn[-1] - 2 * np.pi], turn, [turn[0] + 2 * np.pi]])
    arc = np.concatenate([[along[-1] - girth], along, [along[0] + girth]])
    return BarkTape(turn, arc - np.interp(0.0, turn, arc), girth)


def _along_hull(points: Array) -> tuple[Array, float]:
    """Distance along the convex hull of each point of an outline, and the hull's girth.

    Args:
        points: outline in the order of its angles, shape (n, 2).

    A point the tape passes over takes the place straight out from it.
    """
    corners = _hull(points)
    start, end = points[corners], points[np.roll(corners, -1)]
    chord = end - start
    length = np.hypot(chord[:, 0], chord[:, 1])
    reached = np.concatenate([[0.0], np.cumsum(length)])
    mine = np.searchsorted(corners, np.arange(len(points)), side="right") - 1
    out = points - start[mine]
    share = (out * chord[mine]).sum(axis=1) / length[mine] ** 2
    at = reached[:-1][mine] + np.clip(share, 0.0, 1.0) * length[mine]
    # Points before the first corner lie on the last chord, a whole round earlier.
    at[: corners[0]] -= reached[-1]
    return at, float(reached[-1])


def _hull(points: Array) -> NDArray[np.intp]:
    """Which points of an outline in the order of its angles are corners of its convex hull.

    A reflex corner of an outline is never on the hull, and leaving it out keeps the order of the angles; so all
    such corners go at once, until none is left.
    """
    left = np.arange(len(points))
    while True:
        here = points[left]
        into, on = here - np.roll(here, 1, axis=0), np.roll(here, -1, axis=0) - here
        convex = into[:, 0] * on[:, 1] - into[:, 1] * on[:, 0] >= 0
        if convex.all():
            return left
        left = left[convex]


def _crossing(section: Section, forward_m: float, slope: float, left: bool) -> float | None:
    """Angle at the pith where the line forward = forward_m - slope * left_m meets the bark on one side."""
    x, y = section.bark[:, 0], section.bark[:, 1]
    off = x - forward_m + slope * y
    nxt = following(off)
    hit = np.nonzero((off > 0) != (nxt > 0))[0]
    if len(hit) < 2:
        return None
    share = off[hit] / (off[hit] - nxt[hit])
    px = x[hit] + share * (following(x)[hit] - x[hit])
    py = y[hit] + share * (following(y)[hit] - y[hit])
    pick = int(py.argmax() if left else py.argmin())
    return math.atan2(float(py[pick]), float(px[pick]))


def tape_marks(section: Section, face: FaceGeometry, cut: Cut) -> tuple[TapeMark, ...]:
    """Every mark needed to put the design on the tree, in the order in which it is marked.

    On a round stem a line at distance a ahead of the pith meets the bark at R acos(a/R) each side.
    """
    tape = bark_tape(section)

    def pair(key: str, forward_m: float, slope: float = 0.0) -> TapeMark:
        left, right = (_crossing(section, forward_m, slope, side) for side in (True, False))
        return TapeMark(key, _from_lay(tape, left, True), _from_lay(tape, right, False))

    hinge_back, rises = rear_line(section, face, cut)
    marks = [*_zero(cut, tape), pair("face_corner", face.apex_forward_m)]
    if cut.face.overcut_m > 0:
        marks.append(pair("overcut_end", face.hinge_front_m))
    marks.append(pair("hinge_back", hinge_back, -rises))
    own = FormMarks(section, tape)
    if cut.back.traits.marks:
        cut.back.traits.marks(own, section, face, cut.back, hinge_back)
    if cut.hinge.traits.marks:
        cut.hinge.traits.marks(own, section, cut.hinge)
    marks += own.found
    for seat in cut.wedges:
        marks.append(_seat_mark(tape, seat.at_deg))
    half = tape.girth_m / 2
    turn_back = tape.at(math.pi)
    marks.append(TapeMark("back_centre", min(turn_back, 2 * half), 2 * half - turn_back))
    return tuple(marks)


def _zero(cut: Cut, tape: BarkTape) -> list[TapeMark]:
    """What the tape counts from: the lay, or the gun mark beside it when the cut is aimed off."""
    if not cut.aim_off_deg:
        return [TapeMark("lay", 0.0, 0.0)]
    arc = abs(tape.at(math.radians(-cut.aim_off_deg)))
    is_left = cut.aim_off_deg > 0
    return [TapeMark("gun", 0.0, 0.0), TapeMark("lay_aside", None if is_left else arc, arc if is_left else None)]


class FormMarks:
    """The marks that only some forms ask for, as each puts them on; a ``Marker``."""

    def __init__(self, section: Section, tape: BarkTape) -> None:
        self.section, self.tape = section, tape
        self.found: list[TapeMark] = []

    def line(self, key: str, forward_m: float, side: str = "") -> None:
        """Where a line across the lay comes out, on both sides or on one."""
        left, right = (
            _from_lay(self.tape, _crossing(self.section, forward_m, 0.0, is_left), is_left) for is_left in (True, False)
        )
        self.found.append(TapeMark(key, None if side == "right" else left, None if side == "left" else right))

    def in_front(self, key: str, half_m: float) -> None:
        """Either side of the lay mark."""
        half = math.asin(min(half_m / max(self.section.front_m, 1e-6), 1.0))
        self.found.append(TapeMark(key, self.tape.at(half), -self.tape.at(-half)))

    def behind(self, key: str, half_m: float) -> None:
        """Either side of straight behind."""
        at = self.tape.at(math.pi - math.asin(min(half_m / max(-self.section.back_m, 1e-6), 1.0)))
        self.found.append(TapeMark(key, at, at))


def _from_lay(tape: BarkTape, turn: float | None, left: bool) -> float | None:
    if turn is None:
        return None
    arc = tape.at(turn)
    return arc if left else -arc


def _seat_mark(tape: BarkTape, at_deg: float) -> TapeMark:
    """A seat is marked on the side it lies on; straight behind from both sides."""
    turn = math.pi - math.radians(abs(at_deg))
    left = tape.at(turn) if at_deg >= 0 else None
    right = -tape.at(-turn) if at_deg <= 0 else None
    return TapeMark("wedge_seat", left, right)
