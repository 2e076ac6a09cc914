"""Where the dimensions and grips of the standing tree lie: from the side, from above, and at the cut."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping

from PySide6.QtCore import QPointF

from ....core.assess import Assessment
from ....core.base.frames import full_turn_deg, half_turn_deg
from ....core.tree.butt import standing_m
from ....core.tree.outline import taped_height_m
from ....job.language import tr
from ..layout import FieldPlace, Grip, Layout
from ..scale import Scale, towards
from ..shapes import ALONG, Facing, Shapes, TreeShapes

SNAP_DEG = 4.0
"""A crown edge or buttress keeps its bearing until the pointer is this far off it."""
LEAN_AT = 0.7
"""Share of the height at which the stem is taken hold of to lean it."""


def side_layout(shapes: Shapes, scale: Scale, facing: Facing, width: float, top: float) -> Layout:
    """Dimensions and grips of the tree from one side, heights from the ground; ``top`` is the first row for labels."""
    tree, cut, seen = shapes.result.case.tree, shapes.result.case.cut, shapes.tree(facing)
    right = width - 8.0
    base = scale.point(seen.crown_base_m, tree.crown.base_m)
    tip = scale.point(seen.top_m, tree.height_m)
    first = max(top, tip.y() - 26)
    held_at = tree.height_m * LEAN_AT
    lean_at = scale.point(seen.axis_right_m(held_at), held_at)
    grips = [Grip("tree.lean.angle_deg", lean_at, _leaned(seen, held_at), tr("drag the stem into its lean"))]
    if facing is ALONG:
        low = scale.point(0, 0).y() - 16
        fields = [
            FieldPlace("tree.height_m", QPointF(8, first), "left", tr("height"), tip - QPointF(22, 0)),
            FieldPlace("tree.crown.base_m", QPointF(8, min(base.y() + 30, low - 46)), "left", tr("crown base"), base),
            FieldPlace("cut.height_m", QPointF(right, low), "right", tr("cut height"), scale.point(0.3, cut.height_m)),
        ]
        grips += [
            Grip("tree.height_m", tip, lambda _, up: up, tr("drag the top")),
            Grip("tree.crown.base_m", base, lambda _, up: up, tr("drag the lowest live crown")),
        ]
    else:
        fields = [
            FieldPlace("tree.lean.angle_deg", QPointF(right, first), "right", tr("lean"), tip + QPointF(8, -10)),
            FieldPlace("tree.lean.bearing_deg", QPointF(right, first + 46), "right", tr("leans towards")),
            FieldPlace("tree.lean.sweep_m", QPointF(8, first), "left", tr("sweep"), tip),
        ]
    return Layout(tuple(fields), tuple(grips))


def _leaned(seen: TreeShapes, height_m: float) -> Callable[[float, float], Mapping[str, float]]:
    """The lean whose part in this view passes through the pointer, its part in the other view kept."""
    result, facing = seen.result, seen.facing
    lean, lay = result.case.tree.lean, result.case.cut.gun_deg
    sweep = seen.axis_right_m(height_m) - _lean_only(result, facing, height_m)
    tangent, turn = math.tan(math.radians(lean.angle_deg)), math.radians(lean.bearing_deg - lay)
    forward, right = tangent * math.cos(turn), tangent * math.sin(turn)
    above = height_m - result.case.cut.height_m

    def leaned(right_m: float, _: float) -> Mapping[str, float]:
        part = (right_m - sweep) / above
        new_forward, new_right = (part, right) if facing is ALONG else (forward, part)
        angle = math.degrees(math.atan(math.hypot(new_forward, new_right)))
        bearing = full_turn_deg(lay + math.degrees(math.atan2(new_right, new_forward)))
        if angle < 0.05:
            return {"tree.lean.angle_deg": 0.0}
        return {"tree.lean.angle_deg": round(angle, 1), "tree.lean.bearing_deg": round(bearing)}

    return leaned


def _lean_only(result: Assessment, facing: Facing, height_m: float) -> float:
    lean, cut = result.case.tree.lean, result.case.cut
    out = math.tan(math.radians(lean.angle_deg)) * (height_m - cut.height_m)
    turn = math.radians(lean.bearing_deg - cut.gun_deg)
    return out * (math.cos(turn) if facing is ALONG else math.sin(turn))


def _polar(right_m: float, up_m: float, lay_deg: float) -> tuple[float, float]:
    """(distance, bearing) of a point on a drawing with the lay up the page."""
    return math.hypot(right_m, up_m), full_turn_deg(lay_deg + math.degrees(math.atan2(right_m, up_m)))


def _snapped(bearing_deg: float, held_deg: float) -> float:
    off = half_turn_deg(bearing_deg - held_deg)
    return held_deg if abs(off) <= SNAP_DEG else full_turn_deg(round(bearing_deg))


def crown_layout(result: Assessment, scale: Scale, size: tuple[float, float]) -> Layout:
    """Paced edges round the crown, and heavy limbs: typed beside it, dragged along and round."""
    lay, readings = result.case.cut.gun_deg, result.case.tree.crown.readings
    fields, grips = [], []
    for index, reading in enumerate(readings):
        out = towards(reading.bearing_deg - lay)
        at = scale.origin + out * (reading.radius_m * scale.px_per_m)
        path = f"tree.crown.readings.{index}"
        place = QPointF(
            scale.origin.x() + out.x() * (size[0] / 2 - 42), scale.origin.y() + out.y() * (size[1] / 2 - 34) + 6
        )
        fields.append(FieldPlace(f"{path}.radius_m", place, "centre", f"{reading.bearing_deg:.0f}°"))
        grips.append(Grip(f"{path}.radius_m", at, _edge(path, reading.bearing_deg, lay), tr("drag the crown edge")))
    for index, limb in enumerate(result.case.tree.limbs):
        end = scale.origin + towards(limb.bearing_deg - lay) * (limb.length_m * scale.px_per_m)
        grips.append(
            Grip(f"tree.limbs.{index}.length_m", end, _limb(index, limb.bearing_deg, lay), tr("drag the limb"))
        )
    return Layout(tuple(fields), tuple(grips))


def _edge(path: str, held_deg: float, lay_deg: float) -> Callable[[float, float], Mapping[str, float]]:
    def edge(right_m: float, up_m: float) -> Mapping[str, float]:
        distance, bearing = _polar(right_m, up_m, lay_deg)
        return {f"{path}.radius_m": round(distance, 2), f"{path}.bearing_deg": _snapped(bearing, held_deg)}

    return edge


def _limb(index: int, held_deg: float, lay_deg: float) -> Callable[[float, float], Mapping[str, float]]:
    def limb(right_m: float, up_m: float) -> Mapping[str, float]:
        distance, bearing = _polar(right_m, up_m, lay_deg)
        head = f"tree.limbs.{index}"
        return {f"{head}.length_m": round(distance, 2), f"{head}.bearing_deg": _snapped(bearing, held_deg)}

    return limb


def butt_layout(shapes: Shapes, scale: Scale, width: float, height: float) -> Layout:
    """The section at the cut: its diameter and bark typed; buttresses, probes and cavity dragged."""
    tree = shapes.result.case.tree
    path = "tree.trunk.diameter_m" if tree.trunk.butt_diameter_m is None else "tree.trunk.butt_diameter_m"
    tag = tr("breast height") if tree.trunk.butt_diameter_m is None else tr("butt, taped")
    fields = [
        FieldPlace(path, QPointF(8, height - 18), "left", tag),
        FieldPlace("tree.trunk.bark_m", QPointF(width - 8, height - 18), "right", tr("bark")),
    ]
    grips = [*_lobe_grips(shapes, scale), *_probe_grips(shapes, scale), *_cavity_grips(shapes.result, scale)]
    return Layout(tuple(fields), tuple(grips))


def _lobe_grips(shapes: Shapes, scale: Scale) -> list[Grip]:
    """Tip of each standing buttress (projection and bearing) and its flank (width)."""
    case, found = shapes.result.case, []
    lay, tree = case.cut.gun_deg, case.tree
    for index, (lobe, stem) in enumerate(zip(tree.lobes, shapes.butt.lobe_edges_m, strict=True)):
        at_m = taped_height_m(tree.trunk)
        share = standing_m(lobe, case.cut.height_m, at_m) / max(lobe.projection_m, 1e-6)
        if lobe.state != "standing" or (share <= 0 and lobe.projection_m > 0):
            continue
        path = f"tree.lobes.{index}"
        tip = stem + lobe.projection_m * share
        at = scale.origin + towards(lobe.bearing_deg - lay) * (tip * scale.px_per_m)
        found.append(
            Grip(f"{path}.projection_m", at, _lobe(path, stem, share, lobe.bearing_deg, lay), tr("drag the buttress"))
        )
        half = math.degrees(lobe.width_m / 2 / stem)
        foot = scale.origin + towards(lobe.bearing_deg + half - lay) * (stem * scale.px_per_m)
        found.append(
            Grip(f"{path}.width_m", foot, _width(path, stem, lobe.bearing_deg, lay), tr("drag the buttress's width"))
        )
    return found


def _lobe(
    path: str, stem_m: float, share: float, held_deg: float, lay_deg: float
) -> Callable[[float, float], Mapping[str, float]]:
    def lobe(right_m: float, up_m: float) -> Mapping[str, float]:
        distance, bearing = _polar(right_m, up_m, lay_deg)
        out = round(max(distance - stem_m, 0.0) / max(share, 0.1), 3)
        return {f"{path}.projection_m": out, f"{path}.bearing_deg": _snapped(bearing, held_deg)}

    return lobe


def _width(
    path: str, stem_m: float, bearing_deg: float, lay_deg: float
) -> Callable[[float, float], Mapping[str, float]]:
    def width(right_m: float, up_m: float) -> Mapping[str, float]:
        _, bearing = _polar(right_m, up_m, lay_deg)
        half = abs(half_turn_deg(bearing - bearing_deg))
        return {f"{path}.width_m": round(2 * math.radians(half) * stem_m, 2)}

    return width


def _probe_grips(shapes: Shapes, scale: Scale) -> list[Grip]:
    decay, lay = shapes.result.case.tree.decay, shapes.result.case.cut.gun_deg
    if decay.kind != "shell":
        return []
    found = []
    for index, (probe, edge) in enumerate(zip(decay.shell, shapes.butt.probe_edges_m, strict=True)):
        at = scale.origin + towards(probe.bearing_deg - lay) * (max(edge - probe.sound_m, 0.0) * scale.px_per_m)
        turn = math.radians(probe.bearing_deg - lay)

        def sound(right_m: float, up_m: float, edge: float = edge, turn: float = turn) -> float:
            return round(max(edge - (right_m * math.sin(turn) + up_m * math.cos(turn)), 0.0), 3)

        found.append(Grip(f"tree.decay.shell.{index}.sound_m", at, sound, tr("drag the end of the sound wood")))
    return found


def _cavity_grips(result: Assessment, scale: Scale) -> list[Grip]:
    decay, lay = result.case.tree.decay, result.case.cut.gun_deg
    if decay.kind != "cavity":
        return []
    middle = towards(decay.bearing_deg - lay) * (decay.offset_m * scale.px_per_m)
    out = middle / max(math.hypot(middle.x(), middle.y()), 1e-6) if decay.offset_m > 0.005 else QPointF(1, 0)
    rim = middle + out * (decay.radius_m * scale.px_per_m)
    centre = (middle.x() / scale.px_per_m, -middle.y() / scale.px_per_m)

    def moved(right_m: float, up_m: float) -> Mapping[str, float]:
        distance, bearing = _polar(right_m, up_m, lay)
        return {"tree.decay.offset_m": round(distance, 3), "tree.decay.bearing_deg": full_turn_deg(round(bearing))}

    def grown(right_m: float, up_m: float) -> float:
        return round(math.hypot(right_m - centre[0], up_m - centre[1]), 3)

    return [
        Grip("tree.decay.offset_m", scale.origin + middle, moved, tr("drag the cavity")),
        Grip("tree.decay.radius_m", scale.origin + rim, grown, tr("drag the cavity's rim")),
    ]
