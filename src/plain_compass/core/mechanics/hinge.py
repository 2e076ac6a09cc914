"""The hinge: where it stands, how stiff and strong it is, and in which plane it leads the tree."""

from __future__ import annotations

from collections.abc import Iterator
from functools import cached_property
from typing import Generic, NamedTuple

import numpy as np

from ..base.edges import Edges, Line
from ..base.frozen import changed, dataclass
from ..base.polygon import EMPTY, Array, Moments, clip
from ..base.rows import Index, Mask, N, limited, row
from ..base.strips import Integrals, area_between_lines, between_lines, counted
from ..base.thickness import Between, between
from ..design.cut import BackCut, Cut, Hinge
from ..design.designs import Designs
from ..tree.section import Section
from ..tree.sections import Sections
from ..tree.timber import Timbers
from ..tree.wood import Indicative
from .face import FaceGeometry
from .law import HingeLaw
from .mass import Mass

BEYOND_m = 2.0
"""Past any stem."""
LEAST_LENGTH_m = 1e-3
"""A piece of hinge that reaches over nothing still has a length to divide by."""


@dataclass(frozen=True, eq=False)
class HingeGeometry(Generic[N]):
    """The hinge as a region of sound wood, exact.

    Attributes:
        region: moments of the sound part.
        length_m: along the apex line, on the wood.
        thickness_m: mean, sound area over length.
        reach_m: mean of the thickness at the two ends: how far behind the apex line the kerf stops.
        back_m: rearmost line of it along the lay, at its thicker end or its middle.
        sound_fraction: sound area over the strip's whole area.
        width_thickness2_m3, width_thickness3_m4: integrals of thickness squared, and cubed, over the width.
        left_m, right_m: outermost sound wood across the lay.
        steered_deg: how far its mid-line, about which it folds, is turned towards its thicker end, left positive.
        even_forward_m, even_left_m: centroid an even hinge of the same area would have on the same line.
        spans: (from_m, to_m) of every piece of it across the lay; of many, one tuple of pieces a case.
    """

    region: Moments[N]
    length_m: N
    thickness_m: N
    reach_m: N
    back_m: N
    sound_fraction: N
    width_thickness2_m3: N
    width_thickness3_m4: N
    left_m: N
    right_m: N
    steered_deg: N
    even_forward_m: N
    even_left_m: N
    spans: tuple[tuple[float, float], ...]

    @property
    def forward_m(self) -> N:
        """Centroid of its sound part along the lay."""
        return self.region.forward_m


@dataclass(frozen=True, eq=False)
class HingeStrength(Generic[N]):
    """What the hinge can do.

    Attributes:
        stiffness_Nm: K, moment per radian of tilt (its length is indicative).
        peak_Nm: M_u, the most it resists in folding: 0.8 (rupture/6) times integral of thickness^2.
        live_peak_Nm: the same as if the wood were alive: what a crack up the stem is driven by.
        side_capacity_Nm: C_b, bending across the lay.
        twist_capacity_Nm: C_t, twisting.
        break_angle_deg: tilt at which it parts by itself (indicative).
        peaks_at, softens_over, tail: of the law of the hinge, see ``HingeLaw`` (indicative).
        holding: times as much as the hinge of an unknown species may resist where that is the worse; 1 of a known one.
    """

    stiffness_Nm: N
    peak_Nm: N
    live_peak_Nm: N
    side_capacity_Nm: N
    twist_capacity_Nm: N
    break_angle_deg: N
    peaks_at: N
    softens_over: N
    tail: N
    holding: N

    @cached_property
    def law(self: HingeStrength[Array]) -> HingeLaw:
        """The law by which B hinges resist as they fold."""
        return HingeLaw(
            stiffness_Nm=self.stiffness_Nm,
            peak_Nm=self.peak_Nm,
            break_rad=np.radians(self.break_angle_deg),
            peaks_at=self.peaks_at,
            softens_over=self.softens_over,
            tail=self.tail,
        )

    @cached_property
    def holding_law(self: HingeStrength[Array]) -> HingeLaw:
        """The law by which B hinges resist at most: where holding long is the worse, and the species unknown."""
        law = self.law
        if (self.holding == 1.0).all():
            return law
        return changed(law, stiffness_Nm=law.stiffness_Nm * self.holding, peak_Nm=law.peak_Nm * self.holding)


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


def hinge_outline(section: Section, face: FaceGeometry, cut: Cut) -> Array:
    """The strip a hinge stands in, for a drawing, shape (n, 2): behind its front, ahead of its rear, not yet parted."""
    front, skew = front_line(section, face, cut.back)
    found = clip(section.wood, 1.0, -skew, front)
    for at, slope in rear_lines(section, face, cut):
        found = clip(found, -1.0, slope, -at)
    return found if len(found) else EMPTY


class _Pieces(NamedTuple):
    """Pieces of B hinges, each between its rear and its front line over a stretch across the lay; shapes (p,).

    ``one_each`` says that every hinge is one piece, in their order.
    """

    owner: Index
    low_m: Array
    high_m: Array
    rear: Line
    front: Line
    one_each: bool = False

    def some(self, which: Mask) -> _Pieces:
        """Some of the pieces."""
        if which.all():
            return self
        rear, front = (Line(line.at_m[which], line.slope[which]) for line in (self.rear, self.front))
        return _Pieces(self.owner[which], self.low_m[which], self.high_m[which], rear, front)

    def own(self, edges: Edges) -> Edges:
        """Every piece's own section."""
        return edges if self.one_each else edges.rows(self.owner)

    def together(self, values: Array, count: int) -> Array:
        """Values of the pieces added up by hinge."""
        return values if self.one_each else counted(self.owner, values, count)


def hinges_on(sections: Sections, designs: Designs, face: FaceGeometry[Array]) -> HingeGeometry[Array]:
    """Cut B hinges out of their sections: behind the apex line, ahead of the back-cut line, in their pieces."""
    pieces, spans, length = _pieces(sections, designs, face)
    edges = pieces.own(sections.edges)
    region = _regions(edges, sections, pieces)
    if not pieces.one_each:
        region = region.summed(pieces.owner, len(sections))
    fraction = np.ones(len(sections))
    if _meets_rot(sections, pieces):
        areas = _areas_m2(pieces.own(sections.wood), sections, pieces)
        whole = np.maximum(pieces.together(areas, len(sections)), 0.0)
        fraction = np.where(whole > 0, region.area_m2 / np.where(whole > 0, whole, 1.0), 0.0)
    elif not region.area_m2.all():
        fraction = np.where(region.area_m2 > 0, 1.0, 0.0)
    thick = between(edges, pieces.rear, pieces.front, pieces.low_m, pieces.high_m)
    mean = (designs.left_m + designs.right_m) / 2
    rearmost = np.maximum(np.maximum(designs.left_m, designs.right_m), mean + designs.middle_m)
    left, right = _outermost_m(thick, pieces, len(sections))
    return HingeGeometry(
        region=moments_from(region),
        length_m=length,
        thickness_m=region.area_m2 / length,
        reach_m=(designs.left_m + designs.right_m + designs.middle_m) / 2,
        back_m=face.hinge_front_m - rearmost,
        sound_fraction=fraction,
        width_thickness2_m3=pieces.together(thick.square_m3, len(sections)),
        width_thickness3_m4=pieces.together(thick.cube_m4, len(sections)),
        left_m=left,
        right_m=right,
        steered_deg=np.degrees(np.arctan2(designs.left_m - designs.right_m, length) / 2),
        even_forward_m=face.hinge_front_m - region.area_m2 / length / 2,
        even_left_m=_even_left_m(designs, face, spans),
        spans=spans,  # type: ignore[arg-type]  # one tuple of pieces a case
    )


def _outermost_m(thick: Between, pieces: _Pieces, count: int) -> tuple[Array, Array]:
    """(left, right) outermost wood of each hinge; 0, 0 of one that has none."""
    if pieces.one_each:
        return thick.left_m, thick.right_m
    left, right = np.full(count, -np.inf), np.full(count, np.inf)
    np.maximum.at(left, pieces.owner, np.where(thick.square_m3 > 0, thick.left_m, -np.inf))
    np.minimum.at(right, pieces.owner, np.where(thick.square_m3 > 0, thick.right_m, np.inf))
    return np.where(np.isfinite(left), left, 0.0), np.where(np.isfinite(right), right, 0.0)


def _even_left_m(
    designs: Designs, face: FaceGeometry[Array], spans: tuple[tuple[tuple[float, float], ...], ...]
) -> Array:
    """Middle of each hinge across the lay, were it as thick everywhere: of the apex line, or of its pieces on it."""
    found: Array = (face.end_left_m + face.end_right_m) / 2
    for at in np.nonzero(designs.shaped)[0].tolist():
        low, high = float(face.end_right_m[at]), float(face.end_left_m[at])
        pieces = [(max(a, low), min(b, high)) for a, b in spans[at] if min(b, high) > max(a, low)]
        long = sum(b - a for a, b in pieces)
        if long > 0:
            found[at] = sum((b - a) * (a + b) / 2 for a, b in pieces) / long
    return found


def _meets_rot(sections: Sections, pieces: _Pieces) -> bool:
    """Whether any piece of a hinge may have rot in it, by how far rot and piece reach along the lay."""
    reach = np.maximum(sections.left_m, -sections.right_m)[pieces.owner]
    rear = pieces.rear.at_m - np.abs(pieces.rear.slope) * reach
    front = pieces.front.at_m + np.abs(pieces.front.slope) * reach
    ahead, behind = sections.rot_back_m[pieces.owner] > front, sections.rot_front_m[pieces.owner] < rear
    return bool((sections.rotten[pieces.owner] & ~ahead & ~behind).any())


def moments_from(of: Integrals) -> Moments[Array]:
    """Area moments about the centroid from integrals about the pith."""
    product = of.uv - of.u * of.forward_m
    return Moments(of.area_m2, of.forward_m, of.left_m, of.second_fall_m4, of.second_side_m4, product)


def _pieces(
    sections: Sections, designs: Designs, face: FaceGeometry[Array]
) -> tuple[_Pieces, tuple[tuple[tuple[float, float], ...], ...], Array]:
    """(every piece, the spans of each hinge, length of each hinge along the apex line)."""
    count, front = len(sections), face.hinge_front_m
    slope = (designs.left_m - designs.right_m) / face.hinge_length_m
    rear = front - designs.right_m + slope * face.end_right_m
    plain = ~designs.shaped & (designs.middle_m <= 0)
    ends = zip((face.end_right_m - BEYOND_m).tolist(), (face.end_left_m + BEYOND_m).tolist(), strict=True)
    spans: list[tuple[tuple[float, float], ...]] = [(pair,) for pair in ends]
    length = face.hinge_length_m.copy()
    table = np.zeros((7, count))
    table[0], table[1], table[2] = np.arange(count), -BEYOND_m, BEYOND_m
    table[3], table[4], table[5] = rear, -slope, front
    if not plain.all():
        shaped = []
        for at in np.nonzero(~plain)[0].tolist():
            own, spans[at], length[at] = _shaped(sections, designs.cuts[at], row(face, at), at)
            shaped.append(own)
        table = np.concatenate([table[:, plain], *shaped], axis=1)
    owner, low, high, rear_at, rear_slope, front_at, front_slope = table
    low, high = _uncrossed(low, high, (rear_at, rear_slope, front_at, front_slope))
    rears, fronts = Line(rear_at, rear_slope), Line(front_at, front_slope)
    pieces = _Pieces(owner.astype(np.intp), low, high, rears, fronts, one_each=bool(plain.all()))
    return pieces, tuple(spans), np.maximum(length, 1e-6)


def _shaped(
    sections: Sections, cut: Cut, face: FaceGeometry, at: int
) -> tuple[Array, tuple[tuple[float, float], ...], float]:
    """Pieces of one hinge that has a shape of its own, (7, p); its spans; its length along the apex line."""
    section = sections.section(at)
    spans = spans_of(section, face, cut.hinge, cut.back)
    front, rears = front_line(section, face, cut.back), rear_lines(section, face, cut)
    middle = (face.end_left_m + face.end_right_m) / 2
    halves = ((-BEYOND_m, BEYOND_m),) if len(rears) == 1 else ((-BEYOND_m, middle), (middle, BEYOND_m))
    found = []
    for low, high in spans:
        for half, rear in zip(halves, rears, strict=True):
            if min(high, half[1]) > max(low, half[0]):
                found.append((at, max(low, half[0]), min(high, half[1]), *rear, *front))
    length = face.hinge_length_m
    if len(spans) != 1 or spans[0][0] >= face.end_right_m or spans[0][1] <= face.end_left_m:
        reaches = (min(high, face.end_left_m) - max(low, face.end_right_m) for low, high in spans)
        length = sum(max(reach, LEAST_LENGTH_m) for reach in reaches)
    return np.array(found, dtype=np.float64).reshape(-1, 7).T, spans, length


def _uncrossed(low: Array, high: Array, lines: tuple[Array, Array, Array, Array]) -> tuple[Array, Array]:
    """Each stretch as far as its rear line stays behind its front line: past where they cross there is no hinge."""
    rear, rear_slope, front, front_slope = lines
    room, opens = front - rear, front_slope - rear_slope
    crosses = np.where(opens == 0, np.inf, -room / np.where(opens == 0, 1.0, opens))
    low = np.where((opens > 0) & np.isfinite(crosses), limited(crosses, low, high), low)
    high = np.where((opens < 0) & np.isfinite(crosses), limited(crosses, low, high), high)
    return low, np.where((opens == 0) & (room <= 0), low, high)


def _stretches(edges: Edges, sections: Sections, pieces: _Pieces) -> Iterator[tuple[Mask, Edges, _Pieces]]:
    """(which pieces, the wood between their ends, those pieces): what only two lines bound is the whole outline."""
    reach = np.maximum(sections.left_m, -sections.right_m)[pieces.owner]
    bounded = (pieces.low_m > -reach) | (pieces.high_m < reach)
    if not bounded.all():
        yield ~bounded, edges if not bounded.any() else edges.rows(~bounded), pieces.some(~bounded)
    if bounded.any():
        yield bounded, edges.rows(bounded).within(pieces.low_m[bounded], pieces.high_m[bounded]), pieces.some(bounded)


def _regions(edges: Edges, sections: Sections, pieces: _Pieces) -> Integrals:
    """Integrals over every piece."""
    found = Integrals(*np.zeros((6, len(edges))))
    for which, wood, some in _stretches(edges, sections, pieces):
        found.put(which, between_lines(wood, some.rear, some.front))
    return found


def _areas_m2(edges: Edges, sections: Sections, pieces: _Pieces) -> Array:
    """Area of every piece, shape (p,)."""
    found = np.zeros(len(edges))
    for which, wood, some in _stretches(edges, sections, pieces):
        found[which] = area_between_lines(wood, some.rear, some.front)
    return found


def hinge_strengths(
    hinge: HingeGeometry[Array], designs: Designs, timbers: Timbers, *, load_left_m: Array, diameter_m: Array
) -> HingeStrength[Array]:
    """Stiffness and capacities of B hinges from their exact moments.

    Args:
        load_left_m: side offset of the load from the hinge's centroid; its sign says which end is in tension.
        diameter_m: D of the break angle.

    ``rupture`` is a modulus of rupture, 6M/(b t^2) by definition, so that the folding moment divides by 6; stump wood
    carries 0.8 of clear specimens (indicative). The hinge folds about its mid-line, so that its stiffness goes with the
    integral of thickness^3/12. Twist takes the polar moment over the distance to the tension end: the crushed end still
    carries shear.
    """
    region, step, constants = hinge.region, designs.step_m + designs.lengthened_m, timbers.constants
    to_right, to_left = region.left_m - hinge.right_m, hinge.left_m - region.left_m
    tension = np.where(load_left_m > 0, to_right, np.where(load_left_m < 0, to_left, np.maximum(to_left, to_right)))
    tension = np.maximum(tension, 1e-9)
    length = np.maximum(constants.hinge_length_factor * hinge.thickness_m + step, 1e-9)
    folds, bent = constants.peak_share * hinge.width_thickness2_m3 / 6, constants.peak_share / tension
    return HingeStrength(
        stiffness_Nm=timbers.elasticity_Pa * hinge.width_thickness3_m4 / 12 / length,
        peak_Nm=timbers.rupture_Pa * folds,
        live_peak_Nm=timbers.live_rupture_Pa * folds,
        side_capacity_Nm=timbers.rupture_Pa * region.second_side_m4 * bent,
        twist_capacity_Nm=timbers.shear_Pa * (region.second_fall_m4 + region.second_side_m4) * bent,
        break_angle_deg=break_angles_deg(hinge.thickness_m, step, diameter_m, timbers.break_base_deg, constants),
        peaks_at=timbers.peaks_at,
        softens_over=timbers.softens_over,
        tail=np.full(len(length), constants.law_tail),
        holding=timbers.holding,
    )


def break_angles_deg(
    thickness_m: Array, step_m: Array | float, diameter_m: Array | float, base_deg: Array | float, constants: Indicative
) -> Array:
    """Tilt at which the hinge parts by itself, within 10 to 100 degrees (indicative).

    f (0.10 D/t)^(1/3) (1 + step/(1.5 t))^(1/3): thin and stepped hinges bend further.

    Args:
        base_deg: f, by the wood's suppleness and condition.
    """
    thickness = np.maximum(thickness_m, 1e-4)
    thin = np.cbrt(0.10 * diameter_m / thickness)
    stepped = np.cbrt(1 + step_m / (constants.break_length_factor * thickness))
    return limited(base_deg * thin * stepped, 10.0, 100.0)


def led_m(mass: Mass[N], hinge: HingeGeometry[N]) -> tuple[N, N]:
    """(ahead of the hinge, left) of the tree's centre, in the plane in which the hinge leads it.

    To the left it counts from the even hinge's middle (indicative): as an uneven hinge folds, its crushed end yields
    and the line it turns about does not follow its centroid to the thicker end. Practice leaves more wood away from a
    side weight and is helped by it.
    """
    turn = np.radians(hinge.steered_deg)
    ahead, left = mass.com_forward_m - hinge.region.forward_m, mass.com_left_m - hinge.even_left_m
    cos, sin = np.cos(turn), np.sin(turn)
    return ahead * cos + left * sin, left * cos - ahead * sin
