"""The stump in the round, painted from behind forwards; in parallel projection, so that it is to scale."""

from __future__ import annotations

import math
from collections.abc import Iterable
from itertools import groupby

import numpy as np
from PySide6.QtCore import QPointF, QRectF, QSizeF, Qt
from PySide6.QtGui import QFontMetricsF, QPainter

from ...core.base.frames import full_turn_deg
from ...core.base.frozen import dataclass
from ...core.base.polygon import Array
from ...job.language import tr
from ...job.words import Speech
from .labels import Label, about, placed
from .marks import paint_arrow, paint_hatch, paint_word
from .palette import Palette, fill, font, pen
from .scale import polygon
from .shapes.solid import Solid, Top, Wall

LOWEST_DEG, HIGHEST_DEG = 12.0, 80.0
"""From how low and how high it is looked at: below, the kerf's plane is a line, above, the sides are."""
ROOM = 0.86
"""Share of the room that the stump takes; the rest is for arrow and words."""
TOUCH_m = 1e-6
"""Nearer than this is the same place."""
SHADED = 118
"""Cut sides against ends, in hundredths as Qt counts darkness: which of two faces one looks at is seen in grey too."""


@dataclass(frozen=True, slots=True)
class Look:
    """From where it is looked at.

    Attributes:
        turn_deg: bearing of the eye from the lay, clockwise: 0 stands where the tree is to go.
        up_deg: height of the eye over level.
    """

    turn_deg: float = 40.0
    up_deg: float = 32.0

    def turned(self, by_deg: float, up_deg: float = 0.0) -> Look:
        """From elsewhere, never from below and never straight from above."""
        return Look(full_turn_deg(self.turn_deg + by_deg), min(max(self.up_deg + up_deg, LOWEST_DEG), HIGHEST_DEG))


class Projection:
    """From (forward, left, up) to the page."""

    def __init__(self, solid: Solid, look: Look, box: QRectF) -> None:
        turn, up = math.radians(look.turn_deg), math.radians(look.up_deg)
        self.sin, self.cos = math.sin(turn), math.cos(turn)
        self.sin_up, self.cos_up = math.sin(up), math.cos(up)
        self.px_per_m = ROOM * min(box.width(), box.height()) / (2 * solid.reach_m)
        self.middle, self.up_m = box.center(), solid.middle_up_m

    def page(self, points: Array) -> Array:
        """Pixels, shape (n, 2)."""
        across = points[:, 0] * self.sin + points[:, 1] * self.cos
        near = points[:, 0] * self.cos - points[:, 1] * self.sin
        high = (points[:, 2] - self.up_m) * self.cos_up - near * self.sin_up
        return np.column_stack([self.middle.x() + across * self.px_per_m, self.middle.y() - high * self.px_per_m])

    def point(self, at: Array) -> QPointF:
        """One of them."""
        x, y = self.page(at[None])[0].tolist()
        return QPointF(x, y)

    def nearness(self, points: Array) -> float:
        """How near to the eye their middle stands."""
        forward, left, up = points.mean(axis=0).tolist()
        return float((forward * self.cos - left * self.sin) * self.cos_up + up * self.sin_up)

    def faces(self, wall: Wall) -> bool:
        """Whether one looks at its outside: outlines run counter-clockwise seen from above."""
        (forward, left, _), (there, aside, _) = wall.top.tolist()
        # Outward of a counter-clockwise edge in (forward, left) is (d left, -d forward).
        return bool((aside - left) * self.cos + (there - forward) * self.sin > 0)


def paint_round(
    painter: QPainter, box: QRectF, solid: Solid, look: Look, palette: Palette, *, speech: Speech | None = None
) -> None:
    """The stump and what stands on it, with the lay.

    Args:
        speech: names its parts; without it they go unnamed.
    """
    to = Projection(solid, look, box)
    _stump(painter, solid, to, palette)
    bodies = sorted({top.body for top in solid.tops} - {0}, key=lambda body: _distance(solid, to, body))
    for body in bodies:
        _body(painter, solid, to, palette, body)
    painter.setPen(pen(palette.lay, 2.4))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    paint_arrow(painter, to.point(solid.lay[0]), to.point(solid.lay[1]), 9)
    if speech is not None:
        _names(painter, box, solid, (to, speech), palette)


def _distance(solid: Solid, to: Projection, body: int) -> float:
    return max(to.nearness(top.points) for top in solid.tops if top.body == body)


def _stump(painter: QPainter, solid: Solid, to: Projection, palette: Palette) -> None:
    bark = [wall for wall in solid.walls if wall.body == 0 and wall.part == "bark"]
    # Round the stump, the side of the face and that of the kerf as one.
    _walls(painter, sorted(bark, key=_bearing), to, palette)
    # The face lies lower than the kerf: its plane goes first, then what rises between both.
    for top in (top for top in solid.tops if top.body == 0):
        _top(painter, top, to, palette)
    _walls(painter, [wall for wall in solid.walls if wall.body == 0 and wall.part == "cut"], to, palette)


def _bearing(wall: Wall) -> float:
    """Round the stump, counter-clockwise from behind."""
    (forward, left, _), (there, aside, _) = wall.top.tolist()
    return math.atan2(left + aside, forward + there)


def _body(painter: QPainter, solid: Solid, to: Projection, palette: Palette, body: int) -> None:
    for part in ("bark", "cut", "wedge"):
        _walls(painter, [wall for wall in solid.walls if wall.body == body and wall.part == part], to, palette)
    for top in solid.tops:
        if top.body == body:
            _top(painter, top, to, palette)


def _walls(painter: QPainter, walls: list[Wall], to: Projection, palette: Palette) -> None:
    """Neighbouring faces as one, so that no seams show between them."""
    for part, run in _runs(walls, to):
        top, bottom = (to.page(np.vstack([getattr(wall, edge) for wall in run])) for edge in ("top", "bottom"))
        painter.setPen(pen(palette.ink, 1.1))
        colour = fill(_wall_colour(part, palette))
        painter.setBrush(colour if part == "bark" else colour.color().darker(SHADED))
        painter.drawPolygon(polygon(np.vstack([top, bottom[::-1]])))


def _wall_colour(part: str, palette: Palette) -> str:
    return {"bark": palette.bark, "wedge": palette.wedge}.get(part, palette.heart)


def _runs(walls: list[Wall], to: Projection) -> Iterable[tuple[str, list[Wall]]]:
    """Runs of neighbouring walls one looks at; those of plain cuts each by itself, since they meet in edges."""
    seen = [to.faces(wall) for wall in walls]
    for is_seen, group in groupby(range(len(walls)), key=lambda at: seen[at]):
        if not is_seen:
            continue
        run: list[Wall] = []
        for at in group:
            # Over the apex the side of the face ends lower than that of the kerf begins.
            if run and not (walls[at].part == "bark" and _joins(run[-1], walls[at])):
                yield run[0].part, run
                run = []
            run.append(walls[at])
        yield run[0].part, run


def _joins(one: Wall, other: Wall) -> bool:
    """Whether one begins where the other ends, seen from above."""
    (_, (forward, left, _)), ((there, aside, _), _) = one.top.tolist(), other.top.tolist()
    return math.hypot(there - forward, aside - left) < TOUCH_m


def _top(painter: QPainter, top: Top, to: Projection, palette: Palette) -> None:
    shape = to.page(top.points)
    colours = {
        "bark": palette.bark,
        "floor": palette.sapwood,
        "kerf": palette.sapwood,
        "holds": palette.heart,
        "wedge": palette.cut,
    }
    painter.setPen(pen(palette.ink, 1.1))
    painter.setBrush(fill(colours[top.part]) if top.part in colours else Qt.BrushStyle.NoBrush)
    painter.drawPolygon(polygon(shape))
    if top.part == "kerf":
        paint_hatch(painter, shape, palette.bark, 7)
    elif top.part == "rot":
        paint_hatch(painter, shape, palette.rot, 5, cross=True)
    elif top.part == "wedge":
        paint_hatch(painter, shape, palette.wedge, 4)


def _names(painter: QPainter, box: QRectF, solid: Solid, told: tuple[Projection, Speech], palette: Palette) -> None:
    """Each part by name with a line to it, kept apart."""
    to, speech = told
    anchors = {speech.say(name): to.point(at) for name, at in solid.places.items()}
    lay = tr("lay")
    anchors[lay] = to.point(solid.lay[1])
    labels = []
    for name, at in anchors.items():
        size = QSizeF(QFontMetricsF(font(12, narrow=True)).horizontalAdvance(name) + 8, 18.0)
        labels.append(Label(name, size, _outside(box, at, size) if name != lay else about(at, size, 4.0)))
    for name, place in placed(labels, (), box).items():
        painter.setPen(pen(palette.ink, 0.9))
        if name != lay:
            near = QPointF(place.right() if place.right() < anchors[name].x() else place.left(), place.center().y())
            painter.drawLine(near, anchors[name])
        paint_word(painter, place.center(), name, palette)


def _outside(box: QRectF, at: QPointF, size: QSizeF) -> tuple[QPointF, ...]:
    """Places for a word at the nearer edge of the drawing, level with what it names first, then at the other edge."""
    left, right = box.left() + size.width() / 2 + 3, box.right() - size.width() / 2 - 3
    sides = (right, left) if at.x() >= box.center().x() else (left, right)
    downs = [0.0, *(sign * 20.0 * step for step in range(1, 5) for sign in (-1, 1))]
    return tuple(QPointF(x, at.y() + down) for x in sides for down in downs)
