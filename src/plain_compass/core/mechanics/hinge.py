"""The hinge: what is left standing, how stiff and strong it is, and how far it steers."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ..base.polygon import Array, Moments, across, added, clip, moments
from ..design.cut import BackCut, Cut, Hinge
from ..tree.section import Section, sound_powers
from ..tree.timber import Timber
from ..tree.wood import Indicative
from .balance import Balance, Mass
from .face import FaceGeometry

CURVE_STEP_DEG = 1.0
"""Step of the curve of use over tilt, straight between two of them: far finer than a tilt is ever seen."""
BEYOND_m = 2.0
"""Past any stem."""
CURVE_TILTS_DEG: Array = np.arange(0.0, 90.0 + CURVE_STEP_DEG / 2, CURVE_STEP_DEG)
"""Upright to lying."""


@dataclass(frozen=True, slots=True, eq=False)
class HingeGeometry:
    """The hinge as a region of sound wood.

    Attributes:
        outline, rot: the strip between apex line and back cut, and the rot in it; shapes (n, 2), (k, 2).
        region: moments of the sound part.
        length_m: along the apex line, on the wood.
        thickness_m: mean, sound area over length.
        reach_m: mean of the thickness at the two ends: how far behind the apex line the kerf stops.
        sound_fraction: sound area over the strip's whole area.
        spans: (from_m, to_m) of every piece of it across the lay, shape as a tuple of pairs.
        width_thickness2_m3: integral of thickness squared over the width.
        left_m, right_m: outermost sound wood across the lay.
    """

    outline: Array
    rot: Array
    region: Moments
    length_m: float
    thickness_m: float
    reach_m: float
    sound_fraction: float
    width_thickness2_m3: float
    left_m: float
    right_m: float
    spans: tuple[tuple[float, float], ...]

    @property
    def forward_m(self) -> float:
        """Centroid of its sound part along the lay."""
        return self.region.forward_m


@dataclass(frozen=True, slots=True, eq=False)
class HingeStrength:
    """What the hinge can do.

    Attributes:
        stiffness_Nm: K, moment per radian of tilt (its length is indicative).
        plastic_Nm: M_p, the most it resists in folding: (rupture/6) times integral of thickness^2.
        side_capacity_Nm: C_b, bending across the lay.
        twist_capacity_Nm: C_t, twisting.
        break_angle_deg: tilt at which it parts by itself (indicative).
    """

    stiffness_Nm: float
    plastic_Nm: float
    side_capacity_Nm: float
    twist_capacity_Nm: float
    break_angle_deg: float


@dataclass(frozen=True, slots=True, eq=False)
class HingeUse:
    """How hard the hinge works on the way down.

    Attributes:
        tilt_deg, use: the curve U(tilt), shapes (t,).
        lets_go_deg: first tilt at which U reaches 1 or the face is shut.
        lets_go_by: ``side load``, ``its own limit`` or ``face shut``.
        needed_tilt_deg: past this tilt, losing the hinge moves the top less than the tolerance (indicative).
        side_utilisation: most U between 0 and the lesser of shutting and needed tilt.
    """

    tilt_deg: Array
    use: Array
    lets_go_deg: float
    lets_go_by: str
    needed_tilt_deg: float
    side_utilisation: float

    def at(self, tilt_deg: float) -> float:
        """The use at a tilt, between those of the curve."""
        return float(np.interp(tilt_deg, self.tilt_deg, self.use))


def front_line(section: Section, face: FaceGeometry, back: BackCut) -> tuple[float, float]:
    """(forward_m at left = 0, slope) of the hinge's front: the apex line, or across both front posts without a face."""
    own = back.traits.front
    return own(section, face, back)[0] if own else (face.hinge_front_m, 0.0)


def rear_line(section: Section, face: FaceGeometry, cut: Cut) -> tuple[float, float]:
    """(forward_m at left = 0, slope) of the line where the back cut stops, linear between the two ends."""
    hinge, (front, skew) = cut.hinge, front_line(section, face, cut.back)
    slope = (hinge.left_m - hinge.right_m) / face.hinge_length_m
    return front - hinge.right_m + slope * face.end_right_m, skew - slope


def rear_lines(section: Section, face: FaceGeometry, cut: Cut) -> tuple[tuple[float, float], ...]:
    """The hinge's rear as it is: one line, or two that meet where its middle was left thicker (right, then left)."""
    at, slope = rear_line(section, face, cut)
    bulge, half = cut.hinge.middle_m, face.hinge_length_m / 2
    if bulge <= 0:
        return ((at, slope),)
    middle, steeper = (face.end_left_m + face.end_right_m) / 2, bulge / half
    return ((at - bulge + steeper * middle, slope - steeper), (at - bulge - steeper * middle, slope + steeper))


def ends_back_m(face: FaceGeometry, hinge: Hinge) -> tuple[float, float]:
    """Positions along the lay of the hinge's back at its left and its right end."""
    return face.hinge_front_m - hinge.left_m, face.hinge_front_m - hinge.right_m


def rearmost_m(face: FaceGeometry, hinge: Hinge) -> float:
    """How far back the hinge comes along the lay, at its thicker end or its middle."""
    mean = (hinge.left_m + hinge.right_m) / 2
    return face.hinge_front_m - max(hinge.left_m, hinge.right_m, mean + hinge.middle_m)


def bored_m(hinge: Hinge) -> float:
    """Width bored out of the middle of a hinge from the face."""
    return hinge.traits.gap_m(hinge) if hinge.traits.gap_m else 0.0


def spans_of(section: Section, face: FaceGeometry, hinge: Hinge, back: BackCut) -> tuple[tuple[float, float], ...]:
    """Pieces of the hinge across the lay: nips shorten it, a heart bore or a slot parts it, relief takes one end."""
    if back.traits.front:
        return back.traits.front(section, face, back)[1]
    # An end that is not worked on runs out with the wood, which is wider behind the apex than at it.
    low = face.end_right_m + hinge.nip_m if hinge.nip_m > 0 else face.end_right_m - BEYOND_m
    high = face.end_left_m - hinge.nip_m if hinge.nip_m > 0 else face.end_left_m + BEYOND_m
    if hinge.traits.shortened:
        low, high = hinge.traits.shortened(hinge, (low, high), face)
    middle = (face.end_left_m + face.end_right_m) / 2
    gap = bored_m(hinge) or (back.traits.gap_m(back) if back.traits.gap_m else 0.0)
    if gap <= 0:
        return ((low, high),) if high > low else ()
    pieces = ((low, min(middle - gap / 2, high)), (max(middle + gap / 2, low), high))
    return tuple(piece for piece in pieces if piece[1] > piece[0])


def hinge_on(section: Section, face: FaceGeometry, cut: Cut) -> HingeGeometry:
    """Cut the hinge out of the section: behind the apex line, ahead of the back-cut line, in its pieces."""
    hinge, length = cut.hinge, face.hinge_length_m
    front_at, skew = front_line(section, face, cut.back)
    rears = rear_lines(section, face, cut)

    def strip(points: Array) -> Array:
        ahead = clip(points, 1.0, -skew, front_at)
        for at, slope in rears:
            ahead = clip(ahead, -1.0, slope, -at)
        return ahead

    outline, rot = strip(section.wood), strip(section.rot)
    spans = spans_of(section, face, hinge, cut.back)
    lefts = section.strips.left_m
    if len(spans) == 1 and spans[0][0] < face.end_right_m and spans[0][1] > face.end_left_m:
        region, whole = moments(outline, rot), moments(outline)
        within: Array | bool = True
    else:
        region = added(*(moments(across(outline, *span), across(rot, *span)) for span in spans))
        whole = added(*(moments(across(outline, *span)) for span in spans))
        within = np.any([(lefts >= low) & (lefts <= high) for low, high in spans], axis=0) if spans else False
        reaches = [max(min(high, face.end_left_m) - max(low, face.end_right_m), 1e-3) for low, high in spans]
        length = max(sum(reaches), 1e-6)
    front = front_at + skew * lefts
    rear = np.minimum(np.max([at + slope * lefts for at, slope in rears], axis=0), front)
    thickness, _, _ = sound_powers(section.strips, rear, front)
    thickness = np.where(within, thickness, 0.0)
    sound = lefts[thickness > 1e-6]
    half = section.strips.width_m / 2
    return HingeGeometry(
        outline=outline,
        rot=rot,
        region=region,
        length_m=length,
        thickness_m=region.area_m2 / length,
        reach_m=(hinge.left_m + hinge.right_m + hinge.middle_m) / 2,
        sound_fraction=region.area_m2 / whole.area_m2 if whole.area_m2 else 0.0,
        width_thickness2_m3=float((thickness**2).sum() * section.strips.width_m),
        left_m=float(sound.max() + half) if len(sound) else 0.0,
        right_m=float(sound.min() - half) if len(sound) else 0.0,
        spans=spans,
    )


def fibre_length_m(thickness_m: float, step_m: float, constants: Indicative) -> float:
    """Length of fibre that bends: 1.5 thicknesses plus the step (indicative)."""
    return constants.hinge_length_factor * thickness_m + step_m


def hinge_strength(
    hinge: HingeGeometry, timber: Timber, *, step_m: float, load_left_m: float, diameter_m: float
) -> HingeStrength:
    """Stiffness and capacities from the hinge's exact moments.

    Args:
        load_left_m: side offset of the load from the hinge's centroid; its sign says which end is in tension.
        diameter_m: D of the break angle.

    ``rupture`` is a modulus of rupture, 6M/(b t^2) by definition, so that the folding moment divides by 6.
    Twist takes the polar moment over the distance to the tension end: the crushed end still carries shear.
    """
    region, strength, constants = hinge.region, timber.strength, timber.constants
    to_right = region.left_m - hinge.right_m
    to_left = hinge.left_m - region.left_m
    tension = to_right if load_left_m > 0 else to_left if load_left_m < 0 else max(to_left, to_right)
    tension = max(tension, 1e-9)
    length = max(fibre_length_m(hinge.thickness_m, step_m, constants), 1e-9)
    return HingeStrength(
        stiffness_Nm=strength.elasticity_Pa * region.second_fall_m4 / length,
        plastic_Nm=strength.rupture_Pa / 6 * hinge.width_thickness2_m3,
        side_capacity_Nm=strength.rupture_Pa * region.second_side_m4 / tension,
        twist_capacity_Nm=strength.shear_Pa * (region.second_fall_m4 + region.second_side_m4) / tension,
        break_angle_deg=break_angle_deg(
            hinge.thickness_m, step_m, diameter_m, timber.wood.suppleness, timber.condition, constants
        ),
    )


def break_angle_deg(
    thickness_m: float, step_m: float, diameter_m: float, suppleness: str, condition: str, constants: Indicative
) -> float:
    """Tilt at which the hinge parts by itself, within 10 to 100 degrees (indicative).

    f (0.10 D/t)^(1/3) (1 + step/(1.5 t))^(1/3): thin and stepped hinges bend further.
    """
    thickness = max(thickness_m, 1e-4)
    base = constants.break_base_deg[suppleness] * (constants.break_dead_factor if condition == "dead" else 1.0)
    thin = math.cbrt(0.10 * diameter_m / thickness)
    stepped = math.cbrt(1 + step_m / (constants.hinge_length_factor * thickness))
    return min(max(base * thin * stepped, 10.0), 100.0)


def hinge_use(
    mass: Mass,
    strength: HingeStrength,
    balance: Balance,
    steady_left_Nm: float,
    closing_deg: float,
    tolerance_deg: float,
) -> HingeUse:
    """Use of the hinge against tilt.

    U = sqrt(((m g Y cos + S)/C_b)^2 + (m g Y sin/C_t)^2) + (tilt/break angle)^2.

    Args:
        steady_left_Nm: S, what wind and rope add to side bending at every tilt. Where it eases the weight's it is
            left out: a gust drops and a rope goes slack.
    """
    tilt = CURVE_TILTS_DEG
    side = abs(balance.left_m) * mass.weight_N
    turn = np.radians(tilt)
    steady = steady_left_Nm if balance.left_m >= 0 else -steady_left_Nm
    bent = np.maximum(side * np.cos(turn), np.abs(side * np.cos(turn) + steady))
    carried = bent * _ratio(1.0, strength.side_capacity_Nm)
    twisted = _ratio(side, strength.twist_capacity_Nm) * np.sin(turn)
    side_use = np.hypot(carried, twisted)
    use: Array = side_use + (tilt / strength.break_angle_deg) ** 2
    lets_go, by = _lets_go(tilt, use, side_use, closing_deg)
    needed = needed_tilt_deg(balance.ahead_m / mass.com_up_m, balance.left_m / mass.com_up_m, tolerance_deg)
    reach = min(closing_deg, needed)
    at_end = float(np.interp(reach, tilt, use))
    return HingeUse(tilt, use, lets_go, by, needed, max(float(use[tilt <= reach].max()), at_end))


def _ratio(load: float, capacity: float) -> float:
    if load == 0:
        return 0.0
    return load / capacity if capacity > 0 else 1e9


def _lets_go(tilt: Array, use: Array, side_use: Array, closing_deg: float) -> tuple[float, str]:
    """First tilt at which the hinge is spent, and what spends it."""
    spent = np.nonzero(use >= 1.0)[0]
    if len(spent) == 0:
        return min(closing_deg, 90.0), "face shut"
    first = int(spent[0])
    by = "side load" if side_use[first] > use[first] - side_use[first] else "its own limit"
    if first == 0:
        return 0.0, by
    before, after = float(use[first - 1]), float(use[first])
    angle = float(tilt[first - 1] + CURVE_STEP_DEG * (1.0 - before) / (after - before))
    return (closing_deg, "face shut") if closing_deg < angle else (angle, by)


def needed_tilt_deg(ahead_ratio: float, left_ratio: float, tolerance_deg: float) -> float:
    """Tilt past which losing the hinge moves the top off the lay by less than the tolerance (indicative).

    After the hinge is lost the thin rod of section 10 of the model falls free. Linear in the side angle psi,
    with w^2 = 2 ((1 - cos) + (X/Z) sin) in units of m g Z/I, psi'' = (cos - w^2) psi + (Y/Z) cos. The final
    psi for *every* tilt at which the hinge may be lost comes from one backward sweep of the adjoint.

    Args:
        ahead_ratio, left_ratio: X/Z and Y/Z, centre of mass from the hinge over its height.
    """
    if left_ratio == 0:
        return 0.0
    final = _final_side_angle(ahead_ratio) * abs(left_ratio)
    over = np.nonzero(np.degrees(final) > tolerance_deg)[0]
    if len(over) == 0:
        return 0.0
    last = int(over[-1])
    if last + 1 >= len(final):
        return 90.0
    high, low = float(np.degrees(final[last])), float(np.degrees(final[last + 1]))
    return float(CURVE_TILTS_DEG[last] + CURVE_STEP_DEG * (high - tolerance_deg) / (high - low))


def _final_side_angle(ahead_ratio: float) -> Array:
    """Side angle on the ground per unit of Y/Z, for a hinge lost at each of ``CURVE_TILTS_DEG``; shape (t,)."""
    h = math.radians(CURVE_STEP_DEG)
    middles = np.radians(CURVE_TILTS_DEG[1:]) - h / 2
    speeds = _speeds(middles, ahead_ratio)
    cosines = np.cos(middles)
    stiffs = (cosines - speeds * speeds) / speeds
    l1, l2, total = 1.0, 0.0, 0.0
    falling = [0.0]
    for speed, stiff, cosine in zip(speeds[::-1].tolist(), stiffs[::-1].tolist(), cosines[::-1].tolist(), strict=True):
        # Midpoint rule for dl1/dtilt = -stiff l2, dl2/dtilt = -l1/speed, run backwards.
        m1, m2 = l1 + h / 2 * stiff * l2, l2 + h / 2 * l1 / speed
        l1, l2 = l1 + h * stiff * m2, l2 + h * m1 / speed
        total += h * m2 * cosine / speed
        falling.append(min(total, 50.0))
    return np.array(falling[::-1])


def _speeds(tilts_rad: Array, ahead_ratio: float) -> Array:
    """Tilt rates in units of sqrt(m g Z/I) for a tree let go at rest where it just goes; never quite zero."""
    start = max(math.atan(-ahead_ratio), 0.0)
    at_rest = (1 - math.cos(start)) + ahead_ratio * math.sin(start)
    squares = 2 * ((1 - np.cos(tilts_rad)) + ahead_ratio * np.sin(tilts_rad) - at_rest)
    found: Array = np.sqrt(np.maximum(np.where(tilts_rad < start, 0.0, squares), 1e-3))
    return found
