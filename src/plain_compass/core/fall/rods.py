"""Falls as data: what a falling tree is reduced to, one row a fall.

The tree is a thin rod about the centroid of its hinge, roll neglected: tilt phi in the plane of the lay, side angle
psi out of it, the trunk along u = (sin phi cos psi, sin psi, cos phi cos psi) in (forward, left, up).
"""

from __future__ import annotations

from dataclasses import fields
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..base.errors import ReckoningError
from ..base.frames import full_turn_deg
from ..base.frozen import changed, dataclass
from ..base.polygon import Array
from ..mechanics.law import HingeLaw

BEARINGS = 120
"""Bearings at which the end of a fall is tabled, all the way round."""
BROKE_BY = ("face shut", "side load", "its own limit", "lost at once", "held to the ground")


@dataclass(frozen=True, eq=False)
class Rods:
    """Falls, one row each; every array has shape (n,).

    Attributes:
        inertia_kg_m2: about the hinge.
        toppling_Nm: m g Z; ``bent_Nm`` that of the stem as it bends while its hinge holds it.
        ahead_Nm, left_Nm: m g X and m g Y, the centre of mass ahead of the hinge's centroid and left of its middle.
        drag_kg_m2: c of the drag c * rate^2: air density / 2 times Cd A times arm cubed.
        wind_forward_Nm, wind_left_Nm: steady wind on the crown times its arm.
        stiffness_Nm, peak_Nm, peaks_at, softens_over, tail: of the law of the hinge, as its break angle.
        side_capacity_Nm, twist_capacity_Nm: C_b and C_t.
        break_rad: tilt at which the hinge parts by itself.
        closing_rad: tilt at which the face, or the slot of an overcut, shuts.
        pull: side speed the shutting face gives, in shares of the fall's speed, left positive (indicative).
        wedged_rad: tilt to which wedges or a rope bring it; 0 where it goes by itself.
        margin_rad: how far past the point of balance it is let go.
        length_m: from the hinge to the top.
        top_forward_m, top_left_m: the top off the stem's own line.
        lay_deg: bearing in which the hinge really leads it, the error of aiming included.
    """

    inertia_kg_m2: Array
    toppling_Nm: Array
    bent_Nm: Array
    ahead_Nm: Array
    left_Nm: Array
    drag_kg_m2: Array
    wind_forward_Nm: Array
    wind_left_Nm: Array
    stiffness_Nm: Array
    peak_Nm: Array
    peaks_at: Array
    softens_over: Array
    tail: Array
    side_capacity_Nm: Array
    twist_capacity_Nm: Array
    break_rad: Array
    closing_rad: Array
    pull: Array
    wedged_rad: Array
    margin_rad: Array
    length_m: Array
    top_forward_m: Array
    top_left_m: Array
    lay_deg: Array

    def __len__(self) -> int:
        return len(self.inertia_kg_m2)

    @cached_property
    def law(self) -> HingeLaw:
        """How their hinges resist."""
        law = (self.stiffness_Nm, self.peak_Nm, self.break_rad, self.peaks_at, self.softens_over, self.tail)
        return HingeLaw(*law)

    def picked(self, rows: NDArray[np.bool_] | NDArray[np.intp] | slice) -> Rods:
        """Some of the rows."""
        return Rods(*(getattr(self, f.name)[rows] for f in fields(self)))

    def single(self) -> Rods:
        """The same in single precision."""
        return Rods(*single(*(getattr(self, f.name) for f in fields(self))))

    def changed(self, **columns: Array | float) -> Rods:
        """The same falls with some columns replaced."""
        wide = {name: np.broadcast_to(np.asarray(value, float), (len(self),)) for name, value in columns.items()}
        return changed(self, **wide)


def single(*columns: Array) -> tuple[Any, ...]:
    """Columns in single precision: 6e-8 of an angle is far inside what is asked of a fall, and takes half the time."""
    return tuple(column.astype(np.float32) for column in columns)


def one_rod(**columns: float) -> Rods:
    """A single fall."""
    return Rods(**{name: np.array([float(value)]) for name, value in columns.items()})


@dataclass(frozen=True, slots=True, eq=False)
class Ends:
    """Where a fall ends: the tilt at which the stem meets the ground, by bearing.

    Attributes:
        tilt_rad: at ``BEARINGS`` even bearings from north, shape (BEARINGS,); linear between.
    """

    tilt_rad: Array

    def at(self, bearing_deg: Array) -> Array:
        """Tilt at bearings, shape as given."""
        place = full_turn_deg(bearing_deg) * (BEARINGS / 360.0)
        low = place.astype(np.intp)
        share = place - low
        first, second = self.tilt_rad[low % BEARINGS], self.tilt_rad[(low + 1) % BEARINGS]
        found: Array = first + share * (second - first)
        return found


def level_ends(tilt_rad: float = np.pi / 2) -> Ends:
    """The same tilt all round: even ground as high as the hinge."""
    return Ends(np.full(BEARINGS, tilt_rad))


@dataclass(frozen=True, eq=False)
class Falls:
    """What became of each fall; every array has shape (n,).

    Attributes:
        fell: whether it went over at all; the rest of a row that did not means nothing.
        start_rad: tilt at which it is let go.
        broke_rad: tilt at which the hinge let go; the end's where it held to the ground.
        broke_by: index into ``BROKE_BY``.
        time_s: from letting go to the ground.
        rate_rad_s: turning speed at the end.
        side_rad: side angle psi at the end.
        tilt_rad: tilt phi in the plane of the lay at the end.
        turned_rad: how far left of the lay the plane of a row's own angles was turned: upright trees that fall free
            from rest are reckoned in the plane of their weight.
        stepped: whether the row was reckoned by small steps of time, the slow way for awkward cases.
    """

    fell: NDArray[np.bool_]
    start_rad: Array
    broke_rad: Array
    broke_by: NDArray[np.int8]
    time_s: Array
    rate_rad_s: Array
    side_rad: Array
    tilt_rad: Array
    turned_rad: Array
    stepped: NDArray[np.bool_]

    def __len__(self) -> int:
        return len(self.fell)

    @property
    def end_rad(self) -> Array:
        """Whole tilt at the end."""
        return whole_rad(self.tilt_rad, self.side_rad)


def joined(parts: list[Falls]) -> Falls:
    """Several sets of falls as one, in their order."""
    return Falls(*(np.concatenate([getattr(part, f.name) for part in parts]) for f in fields(Falls)))


def whole_rad(tilt_rad: Array, side_rad: Array) -> Array:
    """Tilt off upright, whatever the direction."""
    found: Array = np.arccos(np.clip(np.cos(tilt_rad) * np.cos(side_rad), -1.0, 1.0))
    return found


def top_at(rods: Rods, tilt_rad: Array, side_rad: Array) -> tuple[Array, Array, Array]:
    """(forward, left, up) of the top: L u + X_top e1 + Y_top e2.

    e1 = (cos phi, 0, -sin phi), e2 = du/dpsi: a perfect hinge still lays a left-leaning top to the left.
    """
    sin, cos = np.sin(tilt_rad), np.cos(tilt_rad)
    aside, across = np.sin(side_rad), np.cos(side_rad)
    length, x, y = rods.length_m, rods.top_forward_m, rods.top_left_m
    return (
        length * sin * across + x * cos - y * sin * aside,
        length * aside + y * across,
        length * cos * across - x * sin - y * cos * aside,
    )


def turned(rods: Rods, left_rad: Array) -> Rods:
    """The same trees seen in a plane turned to the left."""
    cos, sin = np.cos(left_rad), np.sin(left_rad)

    def both(ahead: Array, left: Array) -> tuple[Array, Array]:
        return ahead * cos + left * sin, left * cos - ahead * sin

    ahead, left = both(rods.ahead_Nm, rods.left_Nm)
    wind_forward, wind_left = both(rods.wind_forward_Nm, rods.wind_left_Nm)
    top_forward, top_left = both(rods.top_forward_m, rods.top_left_m)
    return rods.changed(
        ahead_Nm=ahead,
        left_Nm=left,
        wind_forward_Nm=wind_forward,
        wind_left_Nm=wind_left,
        top_forward_m=top_forward,
        top_left_m=top_left,
        lay_deg=rods.lay_deg - np.degrees(left_rad),
    )


def place_of_tops(rods: Rods, tilt_rad: Array, side_rad: Array, turned_rad: Array) -> tuple[Array, Array]:
    """(forward, left) of each top in the frame of its own cut, its angles counted in a plane turned to the left."""
    forward, left, _ = top_at(turned(rods, turned_rad), tilt_rad, side_rad)
    cos, sin = np.cos(turned_rad), np.sin(turned_rad)
    return forward * cos - left * sin, forward * sin + left * cos


def tops_of(rods: Rods, falls: Falls) -> tuple[Array, Array]:
    """(forward, left) of each top where it came down, in the frame of its own cut."""
    return place_of_tops(rods, falls.tilt_rad, falls.side_rad, falls.turned_rad)


def bearing_error_deg(rods: Rods, falls: Falls) -> Array:
    """How far left of its cut's direction each top lies, as an angle at the stump; degrees."""
    forward, left = tops_of(rods, falls)
    found: Array = np.degrees(np.arctan2(left, forward))
    return found


def check_finite(rods: Rods, falls: Falls) -> None:
    """Raise ReckoningError where any fall ends nowhere: a fan with holes in it would say less than it seems to."""
    tops = tops_of(rods, falls)
    if not all(np.isfinite(each).all() for each in (*tops, falls.end_rad)):
        raise ReckoningError("The fall")
