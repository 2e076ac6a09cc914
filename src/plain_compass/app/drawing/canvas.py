"""What a painter of the stump is handed: where to paint, what, and at which size."""

from __future__ import annotations

from dataclasses import field

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPen

from ...core.assess import Assessment
from ...core.base.frozen import dataclass
from ...core.base.polygon import Array
from ...job.words import Speech
from .layout import RING_GAP
from .marks import paint_hatch
from .palette import LIGHT, Palette, pen
from .scale import Scale
from .shapes import Shapes, StumpShapes

COARSE_BELOW_PX = 300.0
"""Below this radius half of the outline's points stay within a tenth of a pixel of the whole."""

EVERYWHERE = QRectF(-1e5, -1e5, 2e5, 2e5)
"""The page of a drawing that is painted without an edge of its own."""


@dataclass(frozen=True, slots=True)
class Canvas:
    """One drawing to paint.

    Attributes:
        mark: part to bring out, as named by a finding.
        size: type and line size against the screen's, for paper.
        gap: between bark and bearing ring, in pixels.
        bottom_px: lowest place to draw; a stump that reaches below it is broken off there.
        taken: where no word may stand: dimensions with their names, and handles.
        page: where words may stand.
    """

    painter: QPainter
    shapes: Shapes
    scale: Scale
    speech: Speech
    palette: Palette = LIGHT
    mark: str = ""
    size: float = 1.0
    gap: float = RING_GAP
    bottom_px: float = 1e6
    taken: tuple[QRectF, ...] = ()
    page: QRectF = field(default_factory=lambda: EVERYWHERE)

    @property
    def result(self) -> Assessment:
        """What the numbers say of the plan that is drawn."""
        return self.shapes.result

    @property
    def ground_m(self) -> float:
        """Lowest height drawn in a side view: the ground, or where the stump is broken off."""
        return max(self.scale.metres(QPointF(0, self.bottom_px))[1], 0.0)

    def outline(
        self, part: str, width: float = 1.2, colour: str = "", style: Qt.PenStyle = Qt.PenStyle.SolidLine
    ) -> QPen:
        """The pen for a part: its colour (ink by default), or the accent and bolder when it is brought out."""
        hot = part != "" and part == self.mark
        shown = self.palette.focus if hot else colour or self.palette.ink
        return pen(shown, (width + 1.8 if hot else width) * self.size, style)

    @property
    def stump(self) -> StumpShapes:
        """Stump and cut from above, with no more points than can be seen at this scale."""
        radius_px = self.result.parts.section.diameter_m / 2 * self.scale.px_per_m
        is_screen = self.size == 1.0
        return self.shapes.stump_coarse if is_screen and radius_px < COARSE_BELOW_PX else self.shapes.stump

    def hatch(self, shape: Array, colour: str, spacing: float, *, cross: bool = False) -> None:
        """Hatch a shape at this drawing's line size."""
        paint_hatch(self.painter, shape, colour, spacing * self.size, cross=cross, width=0.9 * self.size)
