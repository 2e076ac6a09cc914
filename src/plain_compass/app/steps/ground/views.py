"""The site plan with the lay rose round it: turn the lay, read a bearing, drop and drag obstacles."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from ....core.base.frames import bearing_of, full_turn_deg
from ....core.site.site import Place, SpotHeight
from ...drawing.canvas import Canvas
from ...drawing.fall.fan_painter import paint_sector
from ...drawing.ground.rose_painter import OUT_PX, paint_legend, paint_read, paint_ring, paint_rose
from ...drawing.ground.site_painter import paint_ground, paint_lay, paint_names
from ...drawing.layout import FieldPlace, Grip, Layout
from ...drawing.palette import LIGHT, Palette
from ...drawing.scale import Scale, towards
from ...frame.drawing_view import DrawingView, caption
from ...frame.store import Snapshot, Store
from .reckoner import RoseReckoner

LENGTHS_SHOWN = 1.45
"""Tree lengths from the stump to the ring."""


class SiteView(DrawingView):
    """The plan.

    Signals:
        read: the bearing under the pointer, or chosen by the arrow keys.
        picked: path of what was taken hold of: an obstacle, a spot height, a place of the rope.
        dropped: where a new obstacle was dropped, as (east, north) metres.
    """

    read = Signal(float)
    picked = Signal(str)
    dropped = Signal(float, float)
    has_own_sheet = True

    def __init__(self, store: Store, rose: RoseReckoner, parent: QWidget | None = None) -> None:
        self.rose = rose
        self._read_deg: float | None = None
        self.chosen = ""
        self.dropping = ""
        super().__init__(store, parent)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    @property
    def ring_px(self) -> float:
        """Radius of the ring on the page; zooming leaves it."""
        return max(min(self.width(), self.height()) / 2 - OUT_PX - 34, 60.0)

    def scale_for(self, snapshot: Snapshot) -> Scale:
        """The tree in the middle, one and a half lengths to the ring."""
        reach = LENGTHS_SHOWN * snapshot.plan.tree.height_m
        return Scale(self.ring_px / reach, QPointF(self.width() / 2, self.height() / 2))

    def layout_for(self, snapshot: Snapshot, scale: Scale) -> Layout:
        """The lay typed in a corner and dragged on the ring; every corner of every obstacle dragged."""
        lay = snapshot.plan.cut.lay_deg
        fields = (
            FieldPlace("cut.lay_deg", QPointF(self.width() - 8, 42), "right", "lay"),
            FieldPlace("site.slope_deg", QPointF(8, 52), "left", "slope"),
            FieldPlace("site.downhill_deg", QPointF(8, 98), "left", "downhill towards"),
            FieldPlace("site.wind_m_s", QPointF(8, self.height() - 94), "left", "wind"),
            FieldPlace("site.wind_from_deg", QPointF(8, self.height() - 48), "left", "wind from"),
        )
        middle = QPointF(self.width() / 2, self.height() / 2)
        offset = scale.metres(middle)

        def turned(right_m: float, up_m: float) -> float:
            return full_turn_deg(round(bearing_of(right_m - offset[0], up_m - offset[1])))

        grips = [Grip("cut.lay_deg", middle + towards(lay) * (self.ring_px - 14), turned, "turn the lay")]
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
        """Spot heights, and the rope's anchor, redirect and hauler."""
        at, rope, found = snapshot.plan.at, snapshot.plan.rope, []
        for index, spot in enumerate(snapshot.job.site.spots):
            path = f"site.spots.{index}"
            found += self._grip(scale, path, spot, at, quiet=self.chosen != path)
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
        if not self.rect().contains(where.toPoint()):
            return []
        return [Grip(f"{path}.east_m", where, _moved(path, at), "drag", quiet)]

    def paint(self, painter: QPainter, snapshot: Snapshot, scale: Scale) -> None:
        """Plan, rose, lay."""
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        canvas = self.canvas(painter, snapshot)
        middle = QPointF(self.width() / 2, self.height() / 2)
        if painter.device() is self:
            drawn = (snapshot.result.case.site, snapshot.plan.at, self.chosen, snapshot.job.units, snapshot.job.words)
            painter.drawPixmap(0, 0, self.layers.painted("ground", drawn, lambda c: paint_ground(c, self.chosen)))
            names = self.layers.painted("names", drawn, paint_names, sheet=False)
            paint_lay(canvas, lambda c: c.painter.drawPixmap(0, 0, names))
        else:
            paint_ground(canvas, self.chosen)
            paint_lay(canvas, paint_names)
        if snapshot.fan is not None:
            paint_sector(canvas, snapshot.fan, snapshot.plan.cut.lay_deg, self.palette_in_use.lay)
        painter.setOpacity(0.35 if self.rose.stale else 1.0)
        if painter.device() is self:
            painter.drawPixmap(0, 0, self.layers.painted("rose", (self.rose.version,), self._paint_rose, sheet=False))
        else:
            self._paint_rose(canvas)
        painter.setOpacity(1.0)
        paint_ring(painter, middle, self.ring_px, snapshot.plan.cut.lay_deg, self.palette_in_use)
        paint_read(painter, middle, self.ring_px, self.read_deg, self.palette_in_use)
        caption(painter, self, "Site plan and lay rose")

    def _paint_rose(self, c: Canvas) -> None:
        middle = QPointF(self.width() / 2, self.height() / 2)
        paint_rose(c.painter, middle, self.ring_px, tuple(self.rose.spokes.values()), self.palette_in_use)

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
            self.store.set("cut.lay_deg", bearing, f"lay turned to {bearing:.0f}°")

    def show_read(self, bearing_deg: float) -> None:
        """Read another bearing."""
        self._read_deg = full_turn_deg(bearing_deg)
        self.read.emit(self.read_deg)
        self.update()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """Near the ring the pointer reads the bearing it is on."""
        away = event.position() - QPointF(self.width() / 2, self.height() / 2)
        distance = math.hypot(away.x(), away.y())
        if self._dragged is None and abs(distance - self.ring_px - OUT_PX / 3) < OUT_PX:
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
        if self._dragged is not None and self._dragged.path.startswith(("site.", "rope.")):
            parts = self._dragged.path.split(".")
            self.picked.emit(".".join(parts[:3] if parts[0] == "site" else parts[:2]))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Arrow keys read the next bearing, ten at a time with Shift; Enter turns the lay there."""
        step = 10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
        if event.key() in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            self.show_read(self.read_deg + (step if event.key() == Qt.Key.Key_Right else -step))
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.turn_to_read()
        else:
            super().keyPressEvent(event)


class Legend(QWidget):
    """What the strokes of the rose mean."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.palette_in_use: Palette = LIGHT
        self.setFixedHeight(104)
        self.setAccessibleName("Strokes of the rose")

    def paintEvent(self, event: QPaintEvent) -> None:
        """Strokes and their names."""
        with QPainter(self) as painter:
            paint_legend(painter, QRectF(self.rect()), self.store.snapshot.speech, self.palette_in_use)


def _moved(path: str, at: Place) -> Callable[[float, float], Mapping[str, float]]:
    def moved(right_m: float, up_m: float) -> Mapping[str, float]:
        return {f"{path}.east_m": round(at.east_m + right_m, 1), f"{path}.north_m": round(at.north_m + up_m, 1)}

    return moved
