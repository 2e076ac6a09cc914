"""Where the tree can go: labelled sectors on a ring where its top would come down.

Each has a hatch of its own, so that it reads in grey: open where it goes by itself, slanted with wedges, dotted with a
rope, crossed where this kit does not do it, crossed closely where the ground refuses it. A flag marks the best lay of
each that is to be had; the thin line inside is the least margin, the ring being all of it.
"""

from __future__ import annotations

import math
from collections.abc import Iterable

import numpy as np
from PySide6.QtCore import QPointF, QRectF, QSizeF, Qt
from PySide6.QtGui import QFontMetricsF, QPainter, QPolygonF

from ....core.advice.rose import Spoke
from ....core.advice.sectors import Sector, Takes
from ....core.base.frames import half_turn_deg
from ....core.base.polygon import Array
from ..labels import Label
from ..marks import paint_arrow, paint_hatch
from ..palette import Palette, fill, font, pen
from ..scale import polygon, towards

Align = Qt.AlignmentFlag
BAND_PX = 24.0
"""How deep the ring is."""
FLAG_PX = 13.0
"""How far a flag stands out of it."""
OUTSIDE_PX = (FLAG_PX + 5, FLAG_PX + 24, FLAG_PX + 46, FLAG_PX + 72)
"""How far outside the ring words may begin."""
LEADER_FROM_PX = 24.0
"""Words farther from the ring than this have a line to it."""
STEP_DEG = 2.0
"""Step of its edges: within a tenth of a pixel of a circle as large as a screen."""


def colour_of(takes: Takes, palette: Palette) -> str:
    """The colour that goes with a sort; hatch and words always go with it."""
    return {
        Takes.NOTHING: palette.lay,
        Takes.WEDGES: palette.lay,
        Takes.ROPE: palette.wedge,
        Takes.MORE: palette.load,
        Takes.REFUSED: palette.load,
    }[takes]


def paint_sectors(
    painter: QPainter, centre: QPointF, ring_px: float, sectors: Iterable[Sector], palette: Palette
) -> None:
    """The ring, its outer edge where the top comes down."""
    for sector in sectors:
        shape = _band(centre, ring_px, sector)
        colour = colour_of(sector.sort.takes, palette)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(fill(palette.sheet))
        painter.drawPolygon(polygon(shape))
        _hatched(painter, shape, sector, palette)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(pen(colour, 1.5))
        painter.drawPolygon(polygon(shape))
        if sector.sort.takes in (Takes.NOTHING, Takes.WEDGES, Takes.ROPE):
            _flag(painter, centre, ring_px, sector.best.bearing_deg, palette)


def _hatched(painter: QPainter, shape: Array, sector: Sector, palette: Palette) -> None:
    takes, colour = sector.sort.takes, colour_of(sector.sort.takes, palette)
    if takes == Takes.NOTHING:
        painter.setOpacity(painter.opacity() * 0.22)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(fill(colour))
        painter.drawPolygon(polygon(shape))
        painter.setOpacity(painter.opacity() / 0.22)
    elif takes == Takes.ROPE:
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(fill(colour, Qt.BrushStyle.Dense6Pattern))
        painter.drawPolygon(polygon(shape))
    else:
        spacing = {Takes.WEDGES: 7.0, Takes.MORE: 11.0, Takes.REFUSED: 6.0}[takes]
        paint_hatch(painter, shape, colour, spacing, cross=takes != Takes.WEDGES)


def _band(centre: QPointF, ring_px: float, sector: Sector) -> Array:
    """A sector of the ring, shape (n, 2)."""
    count = max(math.ceil(sector.width_deg / STEP_DEG), 1)
    turn = np.radians(sector.from_deg + np.linspace(0.0, sector.width_deg, count + 1))
    # A bearing stands for the half degree to either side of it.
    turn -= math.radians(0.5)
    out = np.column_stack([np.sin(turn), -np.cos(turn)])
    middle = np.array([centre.x(), centre.y()])
    return np.vstack([middle + out * ring_px, (middle + out * (ring_px - BAND_PX))[::-1]])


def _flag(painter: QPainter, centre: QPointF, ring_px: float, bearing_deg: float, palette: Palette) -> None:
    out = towards(bearing_deg)
    foot, top = centre + out * ring_px, centre + out * (ring_px + FLAG_PX)
    aside = QPointF(-out.y(), out.x())
    painter.setPen(pen(palette.ink, 1.6))
    painter.drawLine(foot, top)
    painter.setBrush(fill(palette.ink))
    painter.drawPolygon(QPolygonF([top, top - out * 7, top - out * 3.5 + aside * 9]))


def paint_margin(painter: QPainter, centre: QPointF, ring_px: float, spokes: Iterable[Spoke], palette: Palette) -> None:
    """The least margin on every bearing as one thin line: at the ring all of it is left, in the middle nothing."""
    reach = ring_px - BAND_PX
    rim = [centre + towards(each.bearing_deg) * (reach * min(max(each.margin, 0.0), 1.0)) for each in spokes]
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setPen(pen(palette.quiet, 1.0))
    painter.drawPolygon(QPolygonF(rim))


def paint_ring(painter: QPainter, centre: QPointF, ring_px: float, lay_deg: float, palette: Palette) -> None:
    """The four winds inside the ring, and the lay as an arrow out to it."""
    painter.setFont(font(12, strong=True))
    painter.setPen(pen(palette.quiet))
    for number, name in enumerate("NESW"):
        at = centre + towards(90.0 * number) * (ring_px - BAND_PX - 11)
        painter.drawText(QRectF(at.x() - 10, at.y() - 9, 20, 18), Align.AlignCenter, name)
    painter.setPen(pen(palette.lay, 2.4))
    paint_arrow(painter, centre, centre + towards(lay_deg) * (ring_px - 3), 12)


def paint_waiting(painter: QPainter, centre: QPointF, ring_px: float, palette: Palette) -> None:
    """The ring before its bearings are reckoned: open, and said so."""
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setPen(pen(palette.quiet, 1.2, Qt.PenStyle.DotLine))
    for radius in (ring_px, ring_px - BAND_PX):
        painter.drawEllipse(centre, radius, radius)


def paint_read(painter: QPainter, centre: QPointF, ring_px: float, bearing_deg: float, palette: Palette) -> None:
    """The bearing that is being read."""
    out = towards(bearing_deg)
    painter.setPen(pen(palette.focus, 2.4))
    painter.drawLine(centre + out * (ring_px - BAND_PX - 4), centre + out * (ring_px + 6))


def sector_label(centre: QPointF, ring_px: float, key: str, lines: tuple[str, str], sector: Sector) -> Label:
    """Where a sector's words may stand: outside the ring, within its own bearings, the middle first."""
    size = QSizeF(max(_width(lines[0], strong=True), _width(lines[1], strong=False)) + 4, 32.0)
    half = max(sector.width_deg / 2 - 4.0, 0.0)
    turns = [0.0, *(sign * half * share for share in (0.25, 0.5, 0.75, 1.0) for sign in (1, -1))]
    # Where others stand there: farther out, then a little past its own bearings.
    aside = [sign * (half + more) for more in (9.0, 18.0, 27.0) for sign in (1, -1)]
    middles = []
    for away, turn in [(away, turn) for each in (turns, aside) for away in OUTSIDE_PX for turn in each]:
        out = towards(sector.middle_deg + turn)
        reach = ring_px + away + abs(out.x()) * size.width() / 2 + abs(out.y()) * size.height() / 2
        middles.append(centre + out * reach)
    # Inside the ring where there is no room outside it.
    for turn in turns:
        out = towards(sector.middle_deg + turn)
        reach = ring_px - BAND_PX - 8 - abs(out.x()) * size.width() / 2 - abs(out.y()) * size.height() / 2
        middles.append(centre + out * max(reach, 0.0))
    return Label(key, size, tuple(middles))


def paint_leader(
    painter: QPainter, centre: QPointF, ring_px: float, box: QRectF, sector: Sector, palette: Palette
) -> None:
    """From its words to the ring, where they stand away from it."""
    away = box.center() - centre
    # As near to the words as its own bearings reach.
    turn = math.degrees(math.atan2(away.x(), -away.y())) - sector.middle_deg
    half = sector.width_deg / 2 - 1.0
    turn = max(min(half_turn_deg(turn), half), -half) if half > 0 else 0.0
    foot = centre + towards(sector.middle_deg + turn) * ring_px
    near = QPointF(min(max(foot.x(), box.left()), box.right()), min(max(foot.y(), box.top()), box.bottom()))
    if math.hypot(near.x() - foot.x(), near.y() - foot.y()) > LEADER_FROM_PX:
        painter.setPen(pen(colour_of(sector.sort.takes, palette), 1.0))
        painter.drawLine(foot, near)


def paint_label(painter: QPainter, box: QRectF, lines: tuple[str, str], takes: Takes, palette: Palette) -> None:
    """Its words: what it takes, and from where to where."""
    painter.fillRect(box, fill(palette.sheet))
    painter.setFont(font(13, strong=True, narrow=True))
    painter.setPen(pen(colour_of(takes, palette)))
    painter.drawText(QRectF(box.left(), box.top(), box.width(), 17), Align.AlignCenter, lines[0])
    painter.setFont(font(12, narrow=True))
    painter.setPen(pen(palette.quiet))
    painter.drawText(QRectF(box.left(), box.top() + 16, box.width(), 16), Align.AlignCenter, lines[1])


def _width(text: str, *, strong: bool) -> float:
    return QFontMetricsF(font(13 if strong else 12, strong=strong, narrow=True)).horizontalAdvance(text)
