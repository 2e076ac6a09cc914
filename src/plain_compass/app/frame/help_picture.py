"""The drawing on a page of the handbook, of the tree that is open: forms in the round, parts where they lie, pegs."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, QSize
from PySide6.QtGui import QColor, QImage, QPainter

from ...core.cuts import form_of
from ...core.judge.places import where_of
from ..drawing.canvas import Canvas
from ..drawing.dimensions import paint_with_dimensions
from ..drawing.layout import plan_layout, side_layout
from ..drawing.palette import Palette
from ..drawing.plan_painter import paint_plan
from ..drawing.round_painter import paint_round
from ..drawing.scale import Scale
from ..drawing.shapes import Shapes
from ..drawing.side_painter import paint_side, shown_height_m
from .band import Strip, paint_strip, strip_of
from .form_drawn import LOOK, drawn_on
from .store import Snapshot

PICTURE_PX = QSize(520, 360)
"""Beside the list of pages in the smallest window."""
STUMP_PX, PEG_PX = QSize(590, 290), QSize(340, 110)
"""Of the stump from above and from its side; of the ruler of a limit state."""
GAP, NAMES_PX, LAY_PX = 22.0, 84.0, 44.0
"""Bark to ring, room beside the ring for names, and over it for the lay."""
MARKS = {
    "cut.face": "face", "cut.hinge": "hinge", "cut.back.strap": "strap", "cut.back.step": "step", "cut.back": "kerf",
    "cut.wedges": "wedges", "kit.wedge": "wedges", "cut.height": "kerf", "tree.decay": "rot", "tree.trunk": "bark",
}  # fmt: skip
"""How the path of a field begins -> the part of the stump it is about; longer beginnings before shorter ones."""
Paint = Callable[[QPainter, QRectF], None]


def picture_on(page: str, snapshot: Snapshot, colours: Palette) -> QImage | None:
    """The picture of a page; None where it has none, or where the form cannot be cut on this stem."""
    kind, _, rest = page.partition(":")
    if kind == "form":
        return _form(rest, snapshot, colours)
    if kind == "group":
        strip = strip_of(snapshot.result.findings, rest)
        return _image(PEG_PX, colours, lambda p, box: _peg(p, box, strip, snapshot, colours))
    field = rest if kind == "field" else where_of(rest).field if kind == "finding" else ""
    found = [finding.mark for finding in snapshot.result.findings if kind == "finding" and finding.id == rest]
    found += [part for begins, part in MARKS.items() if field.startswith(begins)]
    mark = next(iter(found), "")
    if mark not in MARKS.values():
        return None
    return _image(STUMP_PX, colours, lambda p, box: _stump(p, box, snapshot, colours, (mark, field)))


def _image(size: QSize, colours: Palette, paint: Paint) -> QImage:
    """A picture twice as fine as the page, so that it stays sharp on fine screens."""
    image = QImage(size * 2, QImage.Format.Format_RGB32)
    image.setDevicePixelRatio(2.0)
    image.fill(QColor(colours.sheet))
    with QPainter(image) as painter:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint(painter, QRectF(0.0, 0.0, size.width(), size.height()))
    return image


def _form(which: str, snapshot: Snapshot, colours: Palette) -> QImage | None:
    part, _, key = which.partition(".")
    (drawn,) = drawn_on(snapshot.result, [form_of(part, key)])
    if drawn is None:
        return None
    solid = Shapes(drawn).solid
    return _image(PICTURE_PX, colours, lambda p, box: paint_round(p, box, solid, LOOK, colours, speech=snapshot.speech))


def _peg(painter: QPainter, box: QRectF, strip: Strip, snapshot: Snapshot, colours: Palette) -> None:
    paint_strip(painter, box.adjusted(14, 10, -14, -8), strip, snapshot.speech, colours, 1.7)


def _stump(painter: QPainter, box: QRectF, snapshot: Snapshot, colours: Palette, about: tuple[str, str]) -> None:
    """The stump from above and from its right side, a part brought out, with the one dimension that is asked about."""
    mark, path = about
    result, cut_m = snapshot.result, snapshot.plan.cut.height_m
    half = box.width() / 2
    ring = min(half / 2 - NAMES_PX + GAP, (box.height() - LAY_PX) / 2)
    per_m = (ring - GAP) / result.parts.section.reach_m
    middle = Scale(per_m, QPointF(half / 2 + 24, box.center().y() + LAY_PX / 3))
    above = Canvas(painter, snapshot.shapes, middle, snapshot.speech, colours, mark, gap=GAP, page=_left(box))
    shown = tuple(place for place in plan_layout(result, middle, GAP).fields if place.path == path)
    paint_with_dimensions(paint_plan, above, shown)
    top_m = shown_height_m(result)
    level = box.center().y() + (top_m - cut_m) * per_m / 2
    beside = Scale(per_m, QPointF(1.42 * half, level + cut_m * per_m))
    bottom = box.bottom() - 16
    side = Canvas(painter, snapshot.shapes, beside, snapshot.speech, colours, mark, bottom_px=bottom)
    shown = tuple(place for place in side_layout(result, beside, bottom, 14.0).fields if place.path == path)
    paint_with_dimensions(paint_side, side, shown)


def _left(box: QRectF) -> QRectF:
    return QRectF(box.left(), box.top(), box.width() / 2, box.height())
