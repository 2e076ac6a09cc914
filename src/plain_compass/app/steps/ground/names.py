"""The words on the plan, kept apart: sectors first, then what stands there, then ways out and places."""

from __future__ import annotations

import math
from typing import NamedTuple, Protocol

from PySide6.QtCore import QPointF, QRectF, QSize, QSizeF
from PySide6.QtGui import QFontMetricsF, QPainter

from ....core.advice.sectors import Sector
from ....core.base.frozen import dataclass
from ....core.plan.reach import called
from ....job.language import tr
from ...drawing.canvas import Canvas
from ...drawing.ground.sector_painter import BAND_PX, sector_label
from ...drawing.ground.site_painter import on_page, places_named
from ...drawing.labels import Label, about, placed
from ...drawing.layout import Layout
from ...drawing.palette import font
from ...drawing.scale import Scale
from ...drawing.words import square
from ...frame.drawing_view import GRIP_RADIUS
from ...frame.store import Snapshot, Store
from .reader import sector_words
from .reckoner import RoseReckoner

HANDLE_PX = GRIP_RADIUS + 2
MIDDLE_PX = 9.0
"""Round the stump no word may lie."""


class Plan(Protocol):
    """What is asked of the drawing that the words are for."""

    store: Store
    rose: RoseReckoner
    chosen: str
    scale_now: Scale
    layout_now: Layout

    @property
    def ring_px(self) -> float:
        """Radius of the ring of sectors."""

    @property
    def plan_box(self) -> QRectF:
        """Where words may stand."""

    def canvas(self, painter: QPainter, snapshot: Snapshot) -> Canvas:
        """What the shared painters are handed."""

    def size(self) -> QSize:
        """Size of the drawing."""

    def height(self) -> int:
        """Height of it."""


class Told(NamedTuple):
    """A sector that found room for its words: where, both lines, and which it is."""

    box: QRectF
    lines: tuple[str, str]
    sector: Sector


@dataclass(frozen=True, slots=True)
class Words:
    """What is written on the plan.

    Attributes:
        sectors: those that found room.
        plain: box and word of everything else.
    """

    sectors: tuple[Told, ...]
    plain: tuple[tuple[QRectF, str], ...]


class Names:
    """Places the words of one plan; while something is dragged they stay where they were."""

    def __init__(self, view: Plan) -> None:
        self.view = view
        self._known: tuple[object, Words] | None = None

    def now(self, snapshot: Snapshot) -> Words:
        """The words as they stand now."""
        view = self.view
        key = (
            snapshot.result.case.site,
            snapshot.plan.at,
            snapshot.plan.rope,
            snapshot.plan.cut.lay_deg,
            snapshot.job.units,
            snapshot.job.words,
            # Sectors are told only of a whole rose: while it grows nothing has to be placed anew.
            view.rose.version if view.rose.done else 0,
            view.chosen,
            view.scale_now.px_per_m,
            view.scale_now.origin.toTuple(),
            view.size().toTuple(),
        )
        if self._known is None or (self._known[0] != key and not view.store.dragging):
            self._known = key, self._placed(snapshot)
        return self._known[1]

    def _placed(self, snapshot: Snapshot) -> Words:
        view, speech, site = self.view, snapshot.speech, self.view.rose.site
        lines = {f"sector {n}": sector_words(each, speech, site) for n, each in enumerate(view.rose.sectors)}
        around = (view.scale_now.origin, view.ring_px)
        by_width = sorted(zip(lines, view.rose.sectors, strict=True), key=lambda each: -each[1].width_deg)
        labels = [sector_label(*around, key, lines[key], each) for key, each in by_width]
        texts = _named(view, snapshot)
        words = {f"word {n}": text for n, (text, _) in enumerate(texts)}
        for key, (text, at) in zip(words, texts, strict=True):
            size = QSizeF(QFontMetricsF(font(12, narrow=True)).horizontalAdvance(text) + 8, 18.0)
            labels.append(Label(key, size, self._off_the_ring(about(at, size, HANDLE_PX), size)))
        boxes = placed(labels, self._taken(), view.plan_box.adjusted(2, 2, -2, -2))
        return Words(
            tuple(
                Told(boxes[key], lines[key], each)
                for key, each in zip(lines, view.rose.sectors, strict=True)
                if key in boxes
            ),
            tuple((boxes[key], text) for key, text in words.items() if key in boxes),
        )

    def _off_the_ring(self, middles: tuple[QPointF, ...], size: QSizeF) -> tuple[QPointF, ...]:
        """A word's places, those that leave the sectors free first."""
        view, found, over = self.view, [], []
        for middle in middles:
            away, half = middle - view.scale_now.origin, math.hypot(size.width(), size.height()) / 2
            distance = math.hypot(away.x(), away.y())
            if distance - half > view.ring_px or distance + half < view.ring_px - BAND_PX or not view.rose.sectors:
                found.append(middle)
            else:
                over.append(middle)
        return (*found, *over)

    def _taken(self) -> list[QRectF]:
        """Handles, the stump, and the scale in its corner."""
        view = self.view
        found = [square(grip.at, HANDLE_PX) for grip in view.layout_now.grips if not grip.quiet]
        return [*found, square(view.scale_now.origin, MIDDLE_PX), QRectF(0, view.height() - 26, 150, 26)]


def _named(view: Plan, snapshot: Snapshot) -> list[tuple[str, QPointF]]:
    """Words and what they name: every obstacle in sight, then the rope's places, the ways out and where to stand."""
    canvas = view.canvas(None, snapshot)  # type: ignore[arg-type]  # nothing is painted
    found = []
    for obstacle in snapshot.result.case.site.obstacles:
        points = on_page(canvas, obstacle)
        at = sum(points[1:], points[0]) / len(points) if obstacle.shape != "line" else points[len(points) // 2]
        found.append((tr(called(obstacle)), at))
    return [(text, at) for text, at in (*found, *places_named(canvas)) if view.plan_box.contains(at)]
