"""The stump in the round: its surfaces in (forward, left, up) metres, up from the apex of the face.

From the same outlines as the plan view: what still holds stands as a stub over the kerf, the face falls away before the
apex, wedges lie in the kerf as driven.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple, TypeAlias

import numpy as np

from ....core.base.frozen import dataclass
from ....core.base.polygon import Array, ahead_of, behind
from ....core.plan.case import Planned
from ....job.language import tr

EVERY = 4
"""Each so many points of an outline: sixty round a stump."""
STUB = 0.14
"""How far what holds stands over the kerf, in diameters: as much of it as shows that it is not cut."""
DEEP = 0.62
"""How far down the stump is drawn, in diameters, where the ground does not come first."""
BEHIND = 0.3
"""Shares of the depth: a hinge is thinner, and what is held behind stands farther back."""
ON_LINE_m = 2e-3
"""A point this near to a line lies on it."""


Up: TypeAlias = Callable[[Array], Array]
"""Height of a surface over points (forward, left)."""


class Wall(NamedTuple):
    """A side face below an edge of an outline.

    Attributes:
        top, bottom: both ends of it, shapes (2, 3).
        part: ``bark``, ``cut`` (end grain never shows there) or ``wedge``.
        body: which standing piece it belongs to; 0 the stump itself.
    """

    top: Array
    bottom: Array
    part: str
    body: int


class Top(NamedTuple):
    """A surface seen from above, shape (n, 3), by part: bark, floor, kerf, holds, rot, wedge."""

    points: Array
    part: str
    body: int


@dataclass(frozen=True, slots=True, eq=False)
class Solid:
    """Everything there is to draw of a stump.

    Attributes:
        walls, tops: its faces; of one body after another, the stump first.
        places: where each part may be named, by part, shape (3,).
        lay: the arrow from over the face to where the tree is to go, shape (2, 3).
        reach_m: of the whole from its middle; ``middle_up_m`` where that is.
    """

    walls: tuple[Wall, ...]
    tops: tuple[Top, ...]
    places: dict[str, Array]
    lay: Array
    reach_m: float
    middle_up_m: float


def solid_of(planned: Planned, holds: tuple[Array, ...], *, face_cut: bool, wedged: bool) -> Solid:
    """Make it.

    Args:
        holds: outlines of the wood that still holds, (forward, left).
        face_cut: whether the face is out already.
        wedged: whether the wedges are in.
    """
    maker = _Maker(planned, face_cut=face_cut and planned.case.cut.face.traits.is_cut)
    maker.stump()
    for outline in holds:
        if len(outline) >= 3:
            maker.stub(outline)
    if wedged:
        maker.wedges()
    return maker.made()


class _Maker:
    """Gathers the faces of one stump."""

    def __init__(self, planned: Planned, *, face_cut: bool) -> None:
        self.planned, self.face_cut = planned, face_cut
        section, cut = planned.parts.section, planned.case.cut
        self.wood, self.bark = section.wood[::EVERY], section.bark[::EVERY]
        self.step_m = cut.back.step_m if face_cut else 0.0
        self.apex_m = planned.parts.face.apex_forward_m
        self.fall = math.tan(math.radians(cut.face.angles_deg[1]))
        self.low_m = -min(cut.height_m, DEEP * section.diameter_m)
        self.stub_m = STUB * section.diameter_m
        self.walls: list[Wall] = []
        self.tops: list[Top] = []
        self.places: dict[str, Array] = {}
        self.bodies = 0

    def made(self) -> Solid:
        section = self.planned.parts.section
        high = self.step_m + self.stub_m
        front = section.front_m + 0.08 * section.diameter_m
        arrow = np.array([[front, 0.0, 0.0], [front + 0.42 * section.diameter_m, 0.0, 0.0]])
        reach = math.hypot(section.reach_m, (high - self.low_m) / 2)
        return Solid(tuple(self.walls), tuple(self.tops), self.places, arrow, reach, (high + self.low_m) / 2)

    # The stump ----------------------------------------------------------------------------------------

    def stump(self) -> None:
        """Its sides, the face and the kerf's plane, and rot where it shows."""
        rot = self.planned.parts.section.rot
        if self.face_cut:
            self._flat(ahead_of(self.bark, self.apex_m), "bark", self._floor_up)
            self._flat(ahead_of(self.wood, self.apex_m), "floor", self._floor_up, "[face]")
            self._flat(ahead_of(rot, self.apex_m), "rot", self._floor_up)
            self._sides(ahead_of(self.bark, self.apex_m), self._floor_up)
            self._riser()
        rest = behind(self.bark, self.apex_m) if self.face_cut else self.bark
        wood = behind(self.wood, self.apex_m) if self.face_cut else self.wood
        self._flat(rest, "bark", self._kerf_up)
        self._flat(wood, "kerf", self._kerf_up, tr("[back cut]"))
        self._flat(behind(rot, self.apex_m) if self.face_cut else rot, "rot", self._kerf_up)
        self._sides(rest, self._kerf_up)

    def _floor_up(self, points: Array) -> Array:
        found: Array = np.maximum(-(points[:, 0] - self.apex_m) * self.fall, self.low_m)
        return found

    def _kerf_up(self, points: Array) -> Array:
        return np.full(len(points), self.step_m)

    def _flat(self, outline: Array, part: str, up: Up, name: str = "") -> None:
        if len(outline) < 3:
            return
        points = np.column_stack([outline, up(outline)])
        self.tops.append(Top(points, part, 0))
        if name:
            self.places[name] = points.mean(axis=0)

    def _sides(self, outline: Array, up: Up) -> None:
        """The bark below an outline; nothing below the line along the apex."""
        if len(outline) < 3:
            return
        top = np.column_stack([outline, up(outline)])
        following = np.roll(top, -1, axis=0)
        on_apex = np.abs(top[:, 0] - self.apex_m) + np.abs(following[:, 0] - self.apex_m) < ON_LINE_m
        for ends, inner in zip(np.stack([top, following], axis=1), on_apex.tolist(), strict=True):
            if not (inner and self.face_cut):
                self._wall(ends, self.low_m, "bark", 0)

    def _riser(self) -> None:
        """Between apex and kerf, where the back cut stands over the apex."""
        across = np.sort(ahead_of(self.wood, self.apex_m)[:, 1])
        if len(across) and self.step_m > 0:
            ends = np.array([[self.apex_m, across[0], self.step_m], [self.apex_m, across[-1], self.step_m]])
            self._wall(ends, 0.0, "cut", 0)

    def _wall(self, top: Array, low_m: float, part: str, body: int) -> None:
        bottom = top.copy()
        bottom[:, 2] = np.minimum(low_m, top[:, 2])
        self.walls.append(Wall(top, bottom, part, body))

    # What stands on it --------------------------------------------------------------------------------

    def stub(self, outline: Array) -> None:
        """A piece of wood that holds: its sides down to the kerf, in front down to the apex."""
        self.bodies += 1
        high = self.step_m + self.stub_m
        points = np.column_stack([outline, np.full(len(outline), high)])
        self.tops.append(Top(points, "holds", self.bodies))
        following = np.roll(points, -1, axis=0)
        is_bark = self._depth_m((points + following)[:, :2] / 2) < ON_LINE_m
        in_front = np.maximum(np.abs(points[:, 0] - self.apex_m), np.abs(following[:, 0] - self.apex_m)) < ON_LINE_m
        for ends, bark, front in zip(np.stack([points, following], axis=1), is_bark, in_front, strict=True):
            self._wall(ends, 0.0 if front else self.step_m, "bark" if bark else "cut", self.bodies)
        self.places.setdefault(self._called(outline), points.mean(axis=0))

    def _called(self, outline: Array) -> str:
        """What a piece that holds is, by where it stands and how deep it is."""
        deep = self.planned.parts.section.depth_m
        if outline[:, 0].max() < self.apex_m - BEHIND * deep:
            return tr("held behind")
        return tr("[hinge]") if self.face_cut and np.ptp(outline[:, 0]) < BEHIND * deep else tr("still holds")

    def _depth_m(self, points: Array) -> Array:
        """How far points lie inside the wood's outline, along their own radius."""
        wood = self.planned.parts.section.wood
        turns, reach = np.arctan2(wood[:, 1], wood[:, 0]), np.hypot(wood[:, 0], wood[:, 1])
        order = np.argsort(turns)
        at = np.arctan2(points[:, 1], points[:, 0])
        rim = np.interp(at, turns[order], reach[order], period=2 * math.pi)
        found: Array = rim - np.hypot(points[:, 0], points[:, 1])
        return found

    def wedges(self) -> None:
        """Each as driven when the tree tips, thin end in; two laid on each other twice as thick."""
        kit = self.planned.case.kit
        for seat in self.planned.parts.wedging.seats:
            self.bodies += 1
            tip = min(seat.edge_forward_m + max(seat.driven_m, kit.wedge_seat_m), seat.edge_forward_m + seat.room_m)
            tail, half = tip - kit.wedge_length_m, kit.wedge_width_m / 2
            thick = kit.wedge_thickness_m * seat.stacked
            left = seat.edge_left_m
            corners = np.array([[tail, left - half], [tip, left - half], [tip, left + half], [tail, left + half]])
            top = np.column_stack([corners, self.step_m + np.array([thick, 0.0, 0.0, thick])])
            self.tops.append(Top(top, "wedge", self.bodies))
            for one, other in zip(top, np.roll(top, -1, axis=0), strict=True):
                self._wall(np.array([one, other]), self.step_m, "wedge", self.bodies)
            self.places.setdefault("wedge", top.mean(axis=0))
