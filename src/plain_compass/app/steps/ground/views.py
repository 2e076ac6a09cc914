"""The site plan with the sectors of the lay rose round it: turn the lay, read a bearing, drop and drag obstacles."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter
from PySide6.QtWidgets import QWidget

from ....core.base.frames import bearing_of, full_turn_deg
from ....core.base.levels import Group
from ....core.site.site import Place, SpotHeight
from ....core.site.ways_out import FARTHEST_LAY_DEG, NEAREST_LAY_DEG
from ....job.language import tr
from ...drawing.canvas import Canvas
from ...drawing.fall.fan_painter import paint_sector
from ...drawing.ground.sector_painter import (
    BAND_PX,
    paint_label,
    paint_leader,
    paint_margin,
    paint_read,
    paint_ring,
    paint_sectors,
    paint_waiting,
)
from ...drawing.ground.site_painter import paint_aim, paint_ground, paint_lay, paint_wind, way_end
from ...drawing.layout import FieldPlace, Grip, Layout
from ...drawing.marks import paint_word
from ...drawing.palette import fill, pen
from ...drawing.scale import Scale, towards
from ...frame.drawing_view import DrawingView
from ...frame.store import Snapshot, Store
from .keys import GroundKeys
from .names import Names
from .reckoner import RoseReckoner
from .things import WAYS

LENGTHS_SHOWN = 1.8
"""Tree lengths from the stump to the edge of the plan: the ring of sectors, and room for their words outside it."""
STRIP_PX = 56
"""Height of the strip over the plan, in which lay, slope and wind are typed."""
TYPED = (
    ("cut.lay_deg", "lay"),
    ("site.slope_deg", "slope"),
    ("site.downhill_deg", tr("downhill towards")),
    ("site.wind_m_s", "wind"),
    ("site.wind_from_deg", tr("wind from")),
)
"""What is typed there, from left to right."""
NEAR_PX = 22.0
"""How near to the ring the pointer reads a bearing."""


class SiteView(DrawingView):
    """The plan.

    Signals:
        read: the bearing under the pointer, or chosen by the arrow keys.
        picked: path of what was taken hold of: an obstacle, a spot height, a place of the rope.
        dropped: where a new obstacle was dropped, as (east, north) metres.
        removed: path of what is to be removed.
        laid_aside: what was about to be drawn is not.
    """

    read = Signal(float)
    picked = Signal(str)
    dropped = Signal(float, float)
    removed = Signal(str)
    laid_aside = Signal()
    has_own_sheet = True
    tells_of = (Group.LANDING, Group.WAY_OUT, Group.AROUND)

    def __init__(self, store: Store, rose: RoseReckoner, parent: QWidget | None = None) -> None:
        self.rose = rose
        self._read_deg: float | None = None
        self.chosen = ""
        self.dropping = ""
        self.names = Names(self)
        self.keys = GroundKeys(self)
        super().__init__(store, parent)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    @property
    def middle(self) -> QPointF:
        """Middle of the plan, below the strip."""
        return QPointF(self.width() / 2, STRIP_PX + (self.height() - STRIP_PX) / 2)

    @property
    def ring_px(self) -> float:
        """Radius of the ring on the page: where the top would come down."""
        return self.store.snapshot.shapes.site.length_m * self.scale_now.px_per_m

    @property
    def plan_box(self) -> QRectF:
        """The page without the strip over it."""
        return QRectF(0, STRIP_PX, self.width(), self.height() - STRIP_PX)

    def scale_for(self, snapshot: Snapshot) -> Scale:
        """The tree in the middle, nearly two of its lengths to the edge."""
        half = max(min(self.width(), self.height() - STRIP_PX) / 2, 60.0)
        return Scale(half / (LENGTHS_SHOWN * snapshot.plan.tree.height_m), self.middle)

    def layout_for(self, snapshot: Snapshot, scale: Scale) -> Layout:
        """Lay, slope and wind typed over the plan; the lay dragged on the ring, every corner of every obstacle too."""
        lay, apart = snapshot.plan.cut.lay_deg, (self.width() - 44) / len(TYPED)
        fields = tuple(
            FieldPlace(path, QPointF((number + 0.5) * apart, 36), "centre", tag)
            for number, (path, tag) in enumerate(TYPED)
        )

        def turned(right_m: float, up_m: float) -> float:
            return full_turn_deg(round(bearing_of(right_m, up_m)))

        # On a plan drawn nearer than the ring is, the handle stays in sight.
        ring = snapshot.shapes.site.length_m * scale.px_per_m
        reach = min(ring + BAND_PX / 2, max(self.plan_box.height() / 2 - 20, 30.0))
        grips = [Grip("cut.lay_deg", scale.origin + towards(lay) * reach, turned, tr("turn the lay"))]
        return Layout(fields, (*grips, *self._corners(snapshot, scale), *self._places(snapshot, scale)))

    def _corners(self, snapshot: Snapshot, scale: Scale) -> list[Grip]:
        """Corners of the obstacle that is picked, and the first corner of every other one."""
        at, found = snapshot.plan.at, []
        for index, obstacle in enumerate(snapshot.job.site.obstacles):
            shown = len(obstacle.points) if self.chosen == f"site.obstacles.{index}" else 1
            for corner, point in enumerate(obstacle.points[:shown]):
                found += self._grip(scale, f"site.obstacles.{index}.points.{corner}", point, at)
        return found

    def _places(self, snapshot: Snapshot, scale: Scale) -> list[Grip]:
        """Ways out, spot heights, and the rope's anchor, redirect and hauler."""
        at, rope, found = snapshot.plan.at, snapshot.plan.rope, []
        for index, spot in enumerate(snapshot.job.site.spots):
            path = f"site.spots.{index}"
            found += self._grip(scale, path, spot, at, quiet=self.chosen != path)
        for path, way in zip(WAYS, snapshot.shapes.site.ways, strict=True):
            end = way_end(scale, way)
            if self.plan_box.contains(end):
                found.append(Grip(path, end, _turned_aside(path, snapshot.plan.cut.lay_deg), tr("drag the way out")))
        if rope.use == "set":
            places = {"anchor": rope.anchor, "hauler": rope.hauler}
            places |= {"corner": rope.corner} if rope.redirect == "set" else {}
            for name, place in places.items():
                found += self._grip(scale, f"rope.{name}", place, at)
        return found

    def _grip(
        self, scale: Scale, path: str, place: Place | SpotHeight, at: Place, *, quiet: bool = False
    ) -> list[Grip]:
        """The grip of a place, where it is in sight."""
        where = scale.point(place.east_m - at.east_m, place.north_m - at.north_m)
        if not self.plan_box.contains(where):
            return []
        return [Grip(f"{path}.east_m", where, _moved(path, at), "drag", quiet)]

    def paint(self, painter: QPainter, snapshot: Snapshot, scale: Scale) -> None:
        """Plan, lay, sectors, words."""
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        canvas = self.canvas(painter, snapshot)
        if painter.device() is self:
            drawn = (snapshot.result.case.site, snapshot.plan.at, self.chosen, snapshot.job.units, snapshot.job.words)
            painter.drawPixmap(0, 0, self.layers.painted("ground", drawn, lambda c: paint_ground(c, self.chosen)))
        else:
            paint_ground(canvas, self.chosen)
        painter.setOpacity(0.35 if self.rose.stale else 1.0)
        if painter.device() is self:
            key = (self.rose.version, self.rose.done)
            painter.drawPixmap(0, 0, self.layers.painted("rose", key, self._paint_rose, sheet=False))
        else:
            self._paint_rose(canvas)
        painter.setOpacity(1.0)
        paint_lay(canvas)
        if snapshot.fan is not None:
            paint_sector(canvas, snapshot.fan, snapshot.plan.cut.lay_deg, self.palette_in_use.lay)
        paint_ring(painter, scale.origin, self.ring_px, snapshot.plan.cut.lay_deg, self.palette_in_use)
        paint_read(painter, scale.origin, self.ring_px, self.read_deg, self.palette_in_use)
        self._paint_words(painter, snapshot)
        if self.dropping:
            paint_aim(painter, scale.point(*self.keys.aim), self.palette_in_use)
        self._paint_strip(canvas)

    def _paint_rose(self, c: Canvas) -> None:
        sectors, spokes = self.rose.sectors, self.rose.spokes
        if not sectors:
            paint_waiting(c.painter, c.scale.origin, self.ring_px, self.palette_in_use)
            return
        paint_sectors(c.painter, c.scale.origin, self.ring_px, sectors, self.palette_in_use)
        around = (spokes[bearing] for bearing in sorted(spokes))
        paint_margin(c.painter, c.scale.origin, self.ring_px, around, self.palette_in_use)

    def _paint_words(self, painter: QPainter, snapshot: Snapshot) -> None:
        """Sectors, obstacles and places by name, kept apart from one another and from the handles."""
        words = self.names.now(snapshot)
        for box, text in words.plain:
            paint_word(painter, box.center(), text, self.palette_in_use)
        painter.setOpacity(0.35 if self.rose.stale else 1.0)
        for told in words.sectors:
            paint_leader(painter, self.scale_now.origin, self.ring_px, told.box, told.sector, self.palette_in_use)
        for told in words.sectors:
            paint_label(painter, told.box, told.lines, told.sector.sort.takes, self.palette_in_use)
        painter.setOpacity(1.0)

    def _paint_strip(self, c: Canvas) -> None:
        """The paper over the plan on which lay, slope and wind are typed, and the wind as an arrow."""
        c.painter.fillRect(QRectF(0, 0, self.width(), STRIP_PX), fill(self.palette_in_use.sheet))
        c.painter.setPen(pen(self.palette_in_use.line, 1.0))
        c.painter.drawLine(QPointF(0, STRIP_PX), QPointF(self.width(), STRIP_PX))
        paint_wind(c, QPointF(self.width() - 26, STRIP_PX / 2))

    # Reading and turning -------------------------------------------------------------------------------

    @property
    def read_deg(self) -> float:
        """The bearing read; the lay until another one has been."""
        return self.store.snapshot.plan.cut.lay_deg if self._read_deg is None else self._read_deg

    def forget_read(self) -> None:
        """Reading starts at the lay again."""
        self._read_deg = None

    def turn_to_read(self) -> None:
        """Turn the lay to the bearing read."""
        bearing = self.read_deg
        if bearing != self.store.snapshot.plan.cut.lay_deg:
            self.store.set("cut.lay_deg", bearing, tr("lay turned to {bearing:.0f}°", bearing=bearing))

    def show_read(self, bearing_deg: float) -> None:
        """Read another bearing."""
        self._read_deg = full_turn_deg(bearing_deg)
        self.read.emit(self.read_deg)
        self.update()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """Near the ring the pointer reads the bearing it is on."""
        away = event.position() - self.scale_now.origin
        distance = math.hypot(away.x(), away.y())
        if self._dragged is None and abs(distance - self.ring_px + BAND_PX / 2) < NEAR_PX:
            self.show_read(full_turn_deg(round(bearing_of(away.x(), -away.y()))))
        super().mouseMoveEvent(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Drop what is held ready; otherwise take hold of a grip, which picks its obstacle."""
        if self.dropping and event.button() == Qt.MouseButton.LeftButton:
            at = self.store.snapshot.plan.at
            right, up = self.scale_now.metres(event.position())
            self.dropped.emit(at.east_m + right, at.north_m + up)
            return
        super().mousePressEvent(event)
        if self._dragged is not None and (
            self._dragged.path in WAYS or self._dragged.path.startswith(("site.", "rope."))
        ):
            parts = self._dragged.path.split(".")
            self.picked.emit(".".join(parts[:3] if parts[0] == "site" else parts[:2]))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Arrows read bearings, Enter turns the lay there; what is being drawn or is picked has the keys first."""
        if self.keys.pressed(event):
            return
        step = 10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
        if event.key() in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            self.show_read(self.read_deg + (step if event.key() == Qt.Key.Key_Right else -step))
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.turn_to_read()
        else:
            super().keyPressEvent(event)


def _turned_aside(path: str, lay_deg: float) -> Callable[[float, float], float]:
    """A way out dragged: its angle from the lay, to five degrees, as one paces it."""
    sign = -1.0 if "left" in path else 1.0

    def turned(right_m: float, up_m: float) -> float:
        off = full_turn_deg(sign * (bearing_of(right_m, up_m) - lay_deg))
        # On the other side of the tree it stays at the nearer end of its range.
        off = off if off <= 270.0 else 0.0
        return float(np.clip(round(off / 5.0) * 5.0, NEAREST_LAY_DEG, FARTHEST_LAY_DEG))

    return turned


def _moved(path: str, at: Place) -> Callable[[float, float], Mapping[str, float]]:
    def moved(right_m: float, up_m: float) -> Mapping[str, float]:
        return {f"{path}.east_m": round(at.east_m + right_m, 1), f"{path}.north_m": round(at.north_m + up_m, 1)}

    return moved
