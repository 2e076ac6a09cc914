"""The dimensions of a stump as cut: those of the plan's drawings, each setting what was read."""

from __future__ import annotations

from dataclasses import replace

from PySide6.QtCore import QPointF

from ....core.assess import Assessment
from ....core.base.frames import full_turn_deg
from ....core.stump.as_cut import READ_AS
from ....job.language import tr
from ...drawing.layout import FieldPlace, Grip, Layout, plan_layout, side_layout
from ...drawing.scale import Scale
from ...frame.field_layer import FIELD_SIZE

TOWARDS = "as_cut.towards_deg"
STEPS = ("as_cut.step_left_m", "as_cut.step_right_m")


def read_plan_layout(result: Assessment, scale: Scale) -> Layout:
    """From above: where the face points, apex, both ends of the hinge, the strap."""
    planned = plan_layout(result, scale)
    fields, grips = [], []
    for place in planned.fields:
        if place.path == "cut.lay_deg":
            fields.append(replace(place, path=TOWARDS, tag="[face] points to"))
        elif place.path in READ_AS:
            fields.append(replace(place, path=READ_AS[place.path]))
    for grip in planned.grips:
        if grip.path == "cut.lay_deg":
            grips.append(_turned(grip, result))
        elif grip.path in READ_AS:
            grips.append(replace(grip, path=READ_AS[grip.path]))
    return Layout(tuple(fields), tuple(grips))


def _turned(ring: Grip, result: Assessment) -> Grip:
    """The ring turned sets where the face points, not the lay."""
    aimed = result.case.cut.aim_off_deg

    def drag(right_m: float, up_m: float) -> float:
        lay = ring.drag(right_m, up_m)
        assert isinstance(lay, float)
        return full_turn_deg(lay - aimed)

    return Grip(TOWARDS, ring.at, drag, tr("turn the ring: north goes round, the [face] stays up the page"))


def read_side_layout(result: Assessment, scale: Scale, bottom_px: float, over_px: float) -> Layout:
    """From its right side: the step at either end, typed at ``over_px``, and the overcut."""
    planned = side_layout(result, scale, bottom_px)
    fields: list[FieldPlace] = []
    for place in planned.fields:
        if place.path == "cut.back.step_m":
            at = QPointF(10.0, over_px)
            beside = QPointF(FIELD_SIZE[0] + 8, 0)
            fields.append(replace(place, path=STEPS[0], tag="step left", at=at, leader=None))
            fields.append(replace(place, path=STEPS[1], tag="step right", at=at + beside, leader=None))
        elif place.path == "cut.face.overcut_m":
            fields.append(replace(place, path=READ_AS[place.path]))
    grips = tuple(_both_steps(grip) for grip in planned.grips if grip.path == "cut.back.step_m")
    return Layout(tuple(fields), grips)


def _both_steps(grip: Grip) -> Grip:
    """From the side both ends are seen as one."""

    def drag(right_m: float, up_m: float) -> dict[str, float]:
        step = grip.drag(right_m, up_m)
        assert isinstance(step, float)
        return dict.fromkeys(STEPS, step)

    return Grip(STEPS[0], grip.at, drag, tr("drag the step"))
