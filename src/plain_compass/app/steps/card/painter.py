"""The card: one page with both drawings, tape marks, order of the cuts, findings and cautions."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QFontMetricsF, QPainter

from ....core.base.levels import GROUPS
from ....core.base.quantity import Kind
from ....job.document import size_words
from ....job.words import Speech
from ...drawing.canvas import Canvas
from ...drawing.dimensions import paint_dimensions
from ...drawing.layout import plan_layout, ring_radius, side_layout
from ...drawing.marks import paint_level
from ...drawing.palette import LIGHT, font, pen
from ...drawing.plan_painter import paint_plan
from ...drawing.round_painter import Look, paint_round
from ...drawing.scale import Scale
from ...drawing.side_painter import paint_side, shown_height_m
from ...drawing.tape_painter import paint_tape
from ...drawing.text import unbroken
from ...frame.band import paint_strip, strip_of
from ...frame.store import Snapshot
from .flow import WRAP, Item, flow
from .items import finding_items, plan_items

PX_PER_M = 96 / 0.0254
"""The card is laid out in points of 1/96 inch, so that a stated scale is true on paper."""
PAPERS = {"A4": (210 / 25.4 * 96, 297 / 25.4 * 96), "Letter": (8.5 * 96, 11 * 96)}
"""Width and height in 1/96 inch."""
SCALES = (1, 2, 2.5, 3, 4, 5, 6, 7.5, 10, 12, 15, 20, 25, 30, 40, 50)
"""Scales a person can measure with: 1 : N for these N."""
MARGIN = 40.0
"""What common printers leave white, and a little more."""
LEAST_ROUND_PX = 76.0
"""Smaller than two centimetres the stump in the round shows nothing."""
GAP, LABEL, BESIDE = 26.0, 70.0, 150.0
"""Bark to ring, room for labels beside the ring, and room beside the side view."""
Align = Qt.AlignmentFlag


@dataclass(frozen=True, slots=True)
class Page:
    """Where on the page things lie, in 1/96 inch."""

    width: float
    height: float

    @property
    def inner(self) -> float:
        """Width between the margins."""
        return self.width - 2 * MARGIN


def paint_card(
    painter: QPainter, snapshot: Snapshot, paper: str, printed: str, turn_over: Callable[[], object] = lambda: None
) -> int:
    """Paint the whole card, laid out in 1/96 inch from the painter's origin; returns how many pages it took.

    Args:
        paper: ``A4`` or ``Letter``.
        printed: the date it was made, as text.
        turn_over: called before each further page, to begin it or to move the painter's origin there.
    """
    page = Page(*PAPERS[paper])
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    y = _head(painter, snapshot, page, printed)
    y = _drawings(painter, snapshot, page, y)
    y = _strips(painter, snapshot, page, y)
    foot = page.height - MARGIN - _cautions_height(page, snapshot.speech)
    rest = _columns(painter, snapshot, page, y, foot - 24)
    _cautions(painter, page, foot, snapshot.speech)
    pages = 1
    if rest:
        _overleaf(painter, page, foot - 18)
    while rest:
        turn_over()
        pages += 1
        top = _head(painter, snapshot, page, f"{printed} · page {pages}")
        rest = flow(painter, rest, QRectF(MARGIN, top + 4, page.inner, foot - 24 - top))
        _cautions(painter, page, foot, snapshot.speech)
        if rest:
            _overleaf(painter, page, foot - 18)
    return pages


def _overleaf(painter: QPainter, page: Page, y: float) -> None:
    painter.setFont(font(12, italic=True))
    painter.setPen(pen(LIGHT.ink))
    painter.drawText(QRectF(MARGIN, y, page.inner, 16), Align.AlignRight, "goes on overleaf")


def _head(painter: QPainter, snapshot: Snapshot, page: Page, printed: str) -> float:
    plan, speech, wood = snapshot.plan, snapshot.speech, snapshot.result.case.wood
    trunk, height = size_words(plan, speech)
    painter.setPen(pen(LIGHT.ink))
    painter.setFont(font(24, strong=True))
    lay = speech.show(plan.cut.lay_deg, Kind.BEARING)
    if plan.cut.aim_off_deg:
        lay += f"   gun mark {speech.show(plan.cut.gun_deg, Kind.BEARING)}"
    painter.drawText(QRectF(MARGIN, MARGIN - 8, page.inner, 30), Align.AlignLeft, f"{plan.id}   lay {lay}")
    painter.setFont(font(13))
    about = f"{wood.name}, diameter {trunk}, height {height}"
    painter.drawText(QRectF(MARGIN, MARGIN - 4, page.inner, 18), Align.AlignRight, about)
    place = " · ".join(text for text in (snapshot.job.name, snapshot.job.site.name) if text)
    painter.drawText(QRectF(MARGIN, MARGIN + 14, page.inner, 18), Align.AlignRight, f"{place} · {printed}")
    verdict = snapshot.result.verdict
    paint_level(painter, QPointF(MARGIN + 11, MARGIN + 46), 9, verdict.level, LIGHT)
    used = _paragraph(
        painter, QRectF(MARGIN + 28, MARGIN + 36, page.inner - 28, 40), speech.verdict(verdict), 14, strong=True
    )
    painter.setPen(pen(LIGHT.ink, 1))
    bottom = MARGIN + 40 + max(used, 18)
    painter.drawLine(QPointF(MARGIN, bottom), QPointF(page.width - MARGIN, bottom))
    return bottom + 6


def _paragraph(
    painter: QPainter, box: QRectF, text: str, size: float, *, strong: bool = False, colour: str = LIGHT.ink
) -> float:
    """Paint wrapped text; returns its height."""
    text = unbroken(text)
    painter.setFont(font(size, strong=strong))
    painter.setPen(pen(colour))
    needed = painter.boundingRect(QRectF(box.left(), box.top(), box.width(), 2000), WRAP, text)
    painter.drawText(needed, WRAP, text)
    return needed.height()


def drawing_scale(snapshot: Snapshot, width: float, height: float) -> float:
    """N of the scale 1 : N at which both drawings fit: one of a few round numbers, so that it can be stated."""
    bark, reach = snapshot.result.parts.section.bark, snapshot.result.parts.section.reach_m
    deep = float(bark[:, 0].max() - bark[:, 0].min())
    tall = shown_height_m(snapshot.result) - snapshot.plan.cut.height_m + 0.6 * deep
    for n in SCALES:
        per_m = PX_PER_M / n
        across = 2 * (reach * per_m + GAP + LABEL) + deep * per_m + BESIDE
        if across <= width and max(2 * (reach * per_m + GAP) + 100, tall * per_m + 40) <= height:
            return n
    return SCALES[-1]


def _drawings(painter: QPainter, snapshot: Snapshot, page: Page, top: float) -> float:
    """Both drawings at one stated scale, with the dimensions as text where they are typed on the screen."""
    result, height = snapshot.result, 346.0 if page.height > 1100 else 306.0
    n = drawing_scale(snapshot, page.inner, height)
    per_m = PX_PER_M / n
    half = ring_radius(result, Scale(per_m, QPointF()), GAP) + LABEL
    plan = Scale(per_m, QPointF(MARGIN + half, top + height / 2 + 8))
    above = Canvas(painter, snapshot.shapes, plan, snapshot.speech, size=0.95, gap=GAP)
    paint_plan(above)
    paint_dimensions(above, plan_layout(result, plan, GAP).fields)
    bottom = top + height - 14
    left = MARGIN + 2 * half + 30 - float(result.parts.section.bark[:, 0].min()) * per_m
    level = max(
        bottom - snapshot.plan.cut.height_m * per_m,
        top + 34 + (shown_height_m(result) - snapshot.plan.cut.height_m) * per_m,
    )
    side = Scale(per_m, QPointF(left, level + snapshot.plan.cut.height_m * per_m))
    beside = Canvas(painter, snapshot.shapes, side, snapshot.speech, size=0.95, bottom_px=bottom)
    paint_side(beside)
    paint_dimensions(beside, side_layout(result, side, bottom, 20.0).fields)
    over = side.point(0, shown_height_m(result)).y() - 24
    _round(painter, snapshot, QRectF(left, top + 20, page.width - MARGIN - left, over - top - 20))
    painter.setFont(font(12, narrow=True))
    painter.setPen(pen(LIGHT.quiet))
    painter.drawText(QRectF(MARGIN, top, page.inner, 16), Align.AlignLeft, "from above")
    painter.drawText(QRectF(MARGIN + 2 * half + 20, top, 200, 16), Align.AlignLeft, "from its right side")
    painter.drawText(
        QRectF(MARGIN, top, page.inner, 16), Align.AlignRight, f"true to scale 1 : {n:g} when printed at 100 %"
    )
    return top + height + 4


def _round(painter: QPainter, snapshot: Snapshot, room: QRectF) -> None:
    """The stump in the round, where there is room for it over the side view."""
    if room.height() >= LEAST_ROUND_PX:
        paint_round(painter, room, snapshot.shapes.solid, Look(), LIGHT)


def _strips(painter: QPainter, snapshot: Snapshot, page: Page, top: float) -> float:
    """The margin band, as on the screen, in two rows."""
    across = -(-len(GROUPS) // 2)
    width = page.inner / across
    for index, group in enumerate(GROUPS):
        row, column = divmod(index, across)
        box = QRectF(MARGIN + column * width, top + 42 * row, width - 12, 40)
        strip = strip_of(snapshot.result.findings, group)
        paint_strip(painter, box, strip, snapshot.speech, LIGHT, 0.78)
    return top + 88


def _columns(painter: QPainter, snapshot: Snapshot, page: Page, top: float, bottom: float) -> list[Item]:
    """Order of the cuts, wedges, ground and notes on the left; tape marks and findings on the right.

    Returns what there was no room for.
    """
    gap, result = 22.0, snapshot.result
    left_width = page.inner * 0.48
    right, right_width = MARGIN + left_width + gap, page.inner - left_width - gap
    left_over = flow(painter, list(plan_items(snapshot)), QRectF(MARGIN, top - 3, left_width, bottom - top + 3))
    rows = 44 + 16 * len(result.tape_marks)
    paint_tape(painter, QRectF(right, top, right_width, rows), result.tape_marks, snapshot.speech, LIGHT, 0.9)
    below = QRectF(right, top + rows - 1, right_width, bottom - top - rows + 1)
    return [*left_over, *flow(painter, list(finding_items(snapshot)), below)]


def _cautions_height(page: Page, speech: Speech) -> float:
    metrics = QFontMetricsF(font(12))
    lines = (
        metrics.boundingRect(QRectF(0, 0, page.inner - 12, 500), int(WRAP), text).height() for text in speech.cautions()
    )
    return sum(lines) + 14


def _cautions(painter: QPainter, page: Page, top: float, speech: Speech) -> None:
    painter.setPen(pen(LIGHT.ink, 1.6))
    painter.drawLine(QPointF(MARGIN, top), QPointF(page.width - MARGIN, top))
    y = top + 6
    for text in speech.cautions():
        y += _paragraph(painter, QRectF(MARGIN, y, page.inner - 12, 40), text, 12)
