"""Where the dimensions and grips of the stump lie on the page: shared by screen and paper."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import replace

from PySide6.QtCore import QPointF

from ...core.assess import Assessment
from ...core.base.frames import full_turn_deg
from ...core.base.frozen import dataclass
from ...core.mechanics.hinge import ends_back_m
from ...job.language import tr
from .scale import Scale, towards

FIELD_GAP = 49.0
"""Least distance between two labels of a column: a field and its name over it."""
BESIDE_HANDLE_PX = 90.0
"""From the left of a label inside the stem to a handle right of it: the label, half a handle, and paper between."""
BESIDE_PX, OFF_HANDLE_PX = 70.0, 27.0
"""A handle so near to a label's inner end may lie under it in a narrow view; half a label, half a handle, and paper."""
LABEL_PX = (41.0, 25.0, 48.0)
"""How far a label with its name reaches over, under and beside its place, a handle's own half and some paper added."""
HALF_LABEL_PX = 17.0
"""Half the height of a field, and a little."""
RING_GAP = 40.0
"""Bark to bearing ring, in pixels: room for the dimension lines between them."""


@dataclass(frozen=True, slots=True)
class FieldPlace:
    """One dimension that can be typed.

    Attributes:
        path: dotted path in the tree's plan.
        at: where its label stands, in pixels; ``align`` is ``left``, ``right`` or ``centre`` of that point.
        tag: short name painted beside it.
        leader: where its leader line ends on the drawing, None for no leader.
    """

    path: str
    at: QPointF
    align: str
    tag: str
    leader: QPointF | None = None


@dataclass(frozen=True, slots=True)
class Grip:
    """One handle that can be dragged.

    Attributes:
        path: what it sets.
        at: where it stands, in pixels.
        drag: from a pointer position in metres (right, up) to the new value, or to several by path.
        hint: what it does, for the tooltip.
    """

    path: str
    at: QPointF
    drag: Callable[[float, float], float | Mapping[str, float]]
    hint: str
    quiet: bool = False


@dataclass(frozen=True, slots=True)
class Layout:
    """Everything on one drawing that can be typed or dragged."""

    fields: tuple[FieldPlace, ...]
    grips: tuple[Grip, ...]


def ring_radius(result: Assessment, scale: Scale, gap: float = RING_GAP) -> float:
    """Radius of the bearing ring round the stump, in pixels; ``gap`` between bark and ring."""
    return result.parts.section.reach_m * scale.px_per_m + gap


def spread(places: list[FieldPlace], gap: float = FIELD_GAP) -> list[FieldPlace]:
    """Move labels of one column apart so that none overlaps, keeping their order and their middle."""
    ordered = sorted(places, key=lambda place: place.at.y())
    ys: list[float] = []
    for place in ordered:
        ys.append(max(place.at.y(), ys[-1] + gap) if ys else place.at.y())
    shift = sum(place.at.y() - y for place, y in zip(ordered, ys, strict=True)) / max(len(ys), 1)
    return [replace(p, at=QPointF(p.at.x(), y + shift)) for p, y in zip(ordered, ys, strict=True)]


def plan_layout(result: Assessment, scale: Scale, gap: float = RING_GAP) -> Layout:
    """Dimensions and grips of the stump from above, the lay up the page; ``gap`` between bark and ring."""
    section, face, cut = result.parts.section, result.parts.face, result.case.cut
    ring = ring_radius(result, scale, gap)
    left_x, right_x = scale.origin.x() - ring - 10, scale.origin.x() + ring + 10
    back_left, back_right = ends_back_m(face, cut.hinge)
    edge = float(section.bark[:, 1].max()) + gap / 3 / scale.px_per_m

    def side(path: str, tag: str, low_m: float, high_m: float, is_left: bool) -> FieldPlace:
        y = scale.point(0, (low_m + high_m) / 2).y()
        leader = scale.point(-edge if is_left else edge, (low_m + high_m) / 2)
        return FieldPlace(path, QPointF(left_x if is_left else right_x, y), "right" if is_left else "left", tag, leader)

    lefts = [
        side("cut.face.depth_m", tr("[face]"), face.apex_forward_m, section.front_m, True),
        side("cut.hinge.left_m", tr("[hinge] left"), back_left, face.hinge_front_m, True),
    ]
    rights = [side("cut.hinge.right_m", tr("[hinge] right"), back_right, face.hinge_front_m, False)]
    if cut.back.strapped:
        rights.append(side("cut.back.strap_m", tr("[strap]"), section.back_m, section.back_m + cut.back.strap_m, False))
    lay = FieldPlace("cut.lay_deg", scale.origin + QPointF(0, -ring - 44), "centre", tr("lay"))
    grips = _plan_grips(result, scale)
    wedges = [grip.at for grip in grips if grip.path.startswith("cut.wedges")]
    columns = (*_over(spread(lefts), wedges), *_over(spread(rights), wedges))
    return Layout((lay, *columns, *_wedge_fields(result, scale, ring)), grips)


def _over(places: list[FieldPlace], handles: list[QPointF]) -> list[FieldPlace]:
    """A column of labels beside the ring, moved up where one of them would lie on a wedge's handle."""
    rise = 0.0
    for place in places:
        for handle in handles:
            beside = abs(handle.x() - place.at.x()) < BESIDE_PX
            if beside and abs(handle.y() - place.at.y()) < OFF_HANDLE_PX:
                rise = max(rise, place.at.y() + OFF_HANDLE_PX - handle.y())
    return [replace(each, at=each.at - QPointF(0, rise)) for each in places] if rise else places


def _wedge_fields(result: Assessment, scale: Scale, ring: float) -> list[FieldPlace]:
    found, north = [], _north(result, scale)
    for index, seat in enumerate(result.case.cut.wedges):
        turn = math.radians(seat.at_deg)
        # Flatter than the ring, so that neighbouring labels keep apart sideways.
        at = scale.origin + QPointF(-math.sin(turn) * (ring + 64), math.cos(turn) * (ring + 26))
        foot = scale.origin + QPointF(-math.sin(turn) * (ring - 10), math.cos(turn) * (ring - 10))
        at = _below(at, north)
        tag = tr("2 wedges") if seat.stacked == 2 else tr("wedge")
        found.append(FieldPlace(f"cut.wedges.{index}.at_deg", at, "centre", tag, foot))
    return found


def _below(at: QPointF, grip: QPointF) -> QPointF:
    """A dimension's place, moved down off a handle that its name would touch."""
    over, under, aside = LABEL_PX
    meets = abs(at.x() - grip.x()) < aside and grip.y() - under < at.y() < grip.y() + over
    return QPointF(at.x(), grip.y() + over) if meets else at


def _plan_grips(result: Assessment, scale: Scale) -> tuple[Grip, ...]:
    section, face, cut = result.parts.section, result.parts.face, result.case.cut
    back_left, back_right = ends_back_m(face, cut.hinge)
    front, hinge_front = section.front_m, face.hinge_front_m
    inset = 0.06 * face.hinge_length_m
    grips = [
        Grip("cut.face.depth_m", scale.point(0, face.apex_forward_m), lambda _, up: front - up, tr("drag the apex")),
        Grip(
            "cut.hinge.left_m",
            scale.point(-face.end_left_m + inset, back_left),
            lambda _, up: hinge_front - up,
            tr("drag the left end of the [hinge]"),
        ),
        Grip(
            "cut.hinge.right_m",
            scale.point(-face.end_right_m - inset, back_right),
            lambda _, up: hinge_front - up,
            tr("drag the right end of the [hinge]"),
        ),
    ]
    if cut.back.strapped:
        back = section.back_m
        grips.append(
            Grip(
                "cut.back.strap_m",
                scale.point(0, back + cut.back.strap_m),
                lambda _, up: up - back,
                tr("drag the [strap]"),
            )
        )
    for index, seat in enumerate(result.parts.wedging.seats):
        outside = 1 + 20 / scale.px_per_m / max(math.hypot(seat.edge_forward_m, seat.edge_left_m), 1e-3)
        at = scale.point(-seat.edge_left_m * outside, seat.edge_forward_m * outside)
        grips.append(Grip(f"cut.wedges.{index}.at_deg", at, _round_the_back, tr("drag the wedge round the back")))
    grips.append(_ring_grip(result, scale))
    return tuple(grips)


def _round_the_back(right_m: float, up_m: float) -> float:
    return math.degrees(math.atan2(-right_m, -up_m))


def _north(result: Assessment, scale: Scale) -> QPointF:
    """North on the bearing ring."""
    return scale.origin + towards(-result.case.cut.gun_deg) * ring_radius(result, scale)


def _ring_grip(result: Assessment, scale: Scale) -> Grip:
    """North on the bearing ring: turning the ring turns the lay under it."""
    at = _north(result, scale)

    def turned(right_m: float, up_m: float) -> float:
        aimed = result.case.cut.aim_off_deg
        return full_turn_deg(round(-math.degrees(math.atan2(right_m, up_m)) * 2) / 2 + aimed)

    return Grip("cut.lay_deg", at, turned, tr("turn the ring: north goes round, the lay stays up the page"))


def side_layout(result: Assessment, scale: Scale, bottom_px: float, lift: float = 40.0) -> Layout:
    """Dimensions and grips of the stump from its right side: the lay to the right, (right, up) from the ground.

    Args:
        bottom_px: lowest place for a label; the ground may lie below it.
        lift: how far labels inside the stem stand off the cut they measure, in pixels.
    """
    section, face, cut = result.parts.section, result.parts.face, result.case.cut
    level = cut.height_m
    bark_front, bark_back = float(section.bark[:, 0].max()), float(section.bark[:, 0].min())
    right_x = scale.point(bark_front, 0).x() + 34
    ground = min(scale.point(0, 0).y(), bottom_px)
    height_y = (ground + scale.point(0, level - face.floor_drop_m).y()) / 2
    rights = [
        *_slopes(result, scale, right_x),
        FieldPlace("cut.height_m", QPointF(right_x, height_y), "left", tr("height")),
    ]
    slopes = _slope_grips(result, scale)
    # In a stem narrower than they are they stand out of its back rather than on a handle of the face.
    inside = min([scale.point(bark_back, 0).x() + 14, *(grip.at.x() - BESIDE_HANDLE_PX for grip in slopes)])
    kerf_up = level + cut.back.step_m
    lefts = [
        FieldPlace(
            "cut.back.step_m",
            QPointF(inside, scale.point(0, kerf_up).y() - lift),
            "left",
            tr("step"),
            scale.point(section.back_m, kerf_up),
        ),
        FieldPlace(
            "cut.face.overcut_m",
            QPointF(inside, scale.point(0, level).y() + lift + 14),
            "left",
            tr("[overcut]"),
            scale.point(face.apex_forward_m, level),
        ),
    ]
    half_kerf = result.case.kit.kerf_m / 2
    grips = [
        *slopes,
        Grip(
            "cut.height_m",
            scale.point(bark_front + 24 / scale.px_per_m, level),
            lambda _, up: up,
            tr("drag the cut height"),
        ),
        Grip(
            "cut.back.step_m",
            scale.point(bark_back - 12 / scale.px_per_m, kerf_up + half_kerf),
            lambda _, up: up - level - half_kerf,
            tr("drag the step"),
        ),
    ]
    return Layout((*_raised(spread(rights), bottom_px), *_raised(lefts, bottom_px)), tuple(grips))


def _raised(places: list[FieldPlace], bottom_px: float) -> list[FieldPlace]:
    """A column of labels, moved up where the lowest would reach below the drawing."""
    over = max(place.at.y() for place in places) + HALF_LABEL_PX - bottom_px
    return [replace(each, at=each.at - QPointF(0, over)) for each in places] if over > 0 else places


def _slopes(result: Assessment, scale: Scale, right_x: float) -> list[FieldPlace]:
    """Typed slopes of the face cuts that slope in this form."""
    face, cut = result.parts.face, result.case.cut
    near = result.parts.section.front_m - 0.1 * cut.face.depth_m
    found = []
    for path, tag, level, is_used in (
        ("cut.face.roof_deg", tr("roof"), cut.height_m + 0.9 * face.roof_height_m, "roof" in cut.face.traits.slopes),
        ("cut.face.floor_deg", tr("floor"), cut.height_m - 0.9 * face.floor_drop_m, "floor" in cut.face.traits.slopes),
    ):
        if is_used:
            found.append(
                FieldPlace(path, QPointF(right_x, scale.point(0, level).y()), "left", tag, scale.point(near, level))
            )
    return found


def _slope_grips(result: Assessment, scale: Scale) -> list[Grip]:
    face, cut = result.parts.face, result.case.cut
    front, level = result.parts.section.front_m, cut.height_m
    found = []
    if "roof" in cut.face.traits.slopes:
        at = scale.point(front, level + face.roof_height_m)
        found.append(Grip("cut.face.roof_deg", at, _slope(face.apex_forward_m, level, 1), tr("drag the roof")))
    if "floor" in cut.face.traits.slopes:
        at = scale.point(front, level - face.floor_drop_m)
        found.append(Grip("cut.face.floor_deg", at, _slope(face.apex_forward_m, level, -1), tr("drag the floor")))
    return found


def _slope(apex_m: float, level_m: float, sign: int) -> Callable[[float, float], float]:
    def slope(right_m: float, up_m: float) -> float:
        run = max(right_m - apex_m, 1e-3)
        return round(math.degrees(math.atan2(sign * (up_m - level_m), run)))

    return slope
