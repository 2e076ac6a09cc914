"""Where the tree lies, over the site plan, north up: what was told, and what happened."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt

from ....core.fall.fan import Fan
from ....job.language import tr
from ..canvas import Canvas
from ..fall.fan_painter import paint_sector
from ..ground.site_painter import paint_grid, paint_obstacles
from ..marks import paint_arrow
from ..palette import fill, pen
from ..scale import Scale, towards
from ..shapes.lies import Lies
from ..words import Word, paint_words, placed_words

ROOM, BACK = 1.55, 0.45
"""Tree lengths across the drawing, and how far the stump stands from its middle."""
WORD_PX = 26.0
"""How far the word of a place stands from it."""


def lie_scale(width: float, top: float, height: float, tree_m: float, lay_deg: float) -> Scale:
    """The stump off the middle, so that there is most room where the tree goes; below a strip of fields."""
    px = max(min(width, height - top) - 24, 40.0) / (ROOM * tree_m)
    back = towards(lay_deg) * (-BACK * tree_m * px)
    return Scale(px, QPointF(width / 2 + back.x(), top + (height - top) / 2 + back.y()))


def paint_lie(c: Canvas, fan: Fan | None, lies: Lies) -> None:
    """Grid, obstacles, the fan as it was told, the lay, and the tree where it lies."""
    paint_grid(c)
    paint_obstacles(c)
    case = c.result.case
    lay, long_px = case.cut.lay_deg, (case.tree.height_m - case.cut.height_m) * c.scale.px_per_m
    if fan is not None:
        paint_sector(c, fan, lay, c.palette.lay)
    mark = c.scale.origin + towards(lay) * long_px
    c.painter.setPen(pen(c.palette.ink, 1.2, Qt.PenStyle.DashLine))
    paint_arrow(c.painter, c.scale.origin, mark, 8)
    top, butt = c.scale.point(*lies.top_m), c.scale.point(*lies.butt_m)
    if lies.top_read:
        c.painter.setPen(pen(c.palette.bark, 5.0))
        c.painter.drawLine(butt, top)
        c.painter.setPen(pen(c.palette.load, 1.4, Qt.PenStyle.DotLine))
        c.painter.drawLine(mark, top)
    c.painter.setPen(pen(c.palette.ink, 1.2))
    c.painter.setBrush(fill(c.palette.sapwood))
    c.painter.drawEllipse(c.scale.origin, 4, 4)
    paint_words(c.painter, placed_words(_words(c, lies, (mark, top, butt)), list(c.taken), c.page))


def _words(c: Canvas, lies: Lies, places: tuple[QPointF, QPointF, QPointF]) -> list[Word]:
    mark, top, butt = places
    told = [
        Word(tr("top as it lies") if lies.top_read else tr("top: drag it to where it lies"), _round(top), c.palette.ink)
    ]
    if lies.butt_read:
        told.append(Word(tr("butt"), _round(butt), c.palette.ink))
    if lies.top_read and QRectF(mark - QPointF(30, 14), mark + QPointF(30, 14)).contains(top) is False:
        told.append(Word(tr("mark"), _round(mark), c.palette.quiet))
    return [Word(each.text, each.middles, each.colour, c.palette.sheet) for each in told]


def _round(at: QPointF) -> tuple[QPointF, ...]:
    """Places for a word round a point, nearest first."""
    return tuple(
        at + QPointF(x * WORD_PX * far, y * WORD_PX * far)
        for far in (1.0, 1.5, 2.2)
        for x, y in ((0, -1), (0, 1), (2.2, 0), (-2.2, 0), (1.8, -1), (-1.8, -1), (1.8, 1), (-1.8, 1))
    )
