"""A small drawing of how each way of measuring is done."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QPolygonF
from PySide6.QtWidgets import QWidget

from ....job.language import tr
from ...drawing.palette import LIGHT, Palette, fill, font, pen

Align = Qt.AlignmentFlag
HEIGHT = 128
"""Height of the small drawing over a way of measuring."""
GROUND = 108.0
"""Where its ground line lies."""


class Explanation(QWidget):
    """Paints one way; its sentence stands beside it in the panel."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.palette_in_use: Palette = LIGHT
        self.way = ("height", "clinometer")
        self.setFixedHeight(HEIGHT)
        self.setAccessibleName(tr("How it is measured"))

    def show_way(self, thing: str, way: str) -> None:
        """Explain another way."""
        self.way = (thing, way)
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        """The drawing of the way, on a ground line."""
        with QPainter(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.fillRect(self.rect(), fill(self.palette_in_use.sheet))
            sketch = Sketch(painter, self.palette_in_use, float(self.width()))
            DRAWINGS.get(self.way, _nothing)(sketch)


class Sketch:
    """A few strokes: trees, eyes, lines of sight, lengths with their names."""

    def __init__(self, painter: QPainter, palette: Palette, width: float) -> None:
        self.painter, self.palette, self.width = painter, palette, width

    def ground(self) -> None:
        """The ground."""
        self.painter.setPen(pen(self.palette.ink, 1.4))
        self.painter.drawLine(QPointF(6, GROUND), QPointF(self.width - 6, GROUND))

    def tree(self, x: float, tall: float = 84.0, lean: float = 0.0) -> tuple[QPointF, QPointF]:
        """A tree on the ground; returns (base, top). ``lean`` moves its top sideways."""
        base, top = QPointF(x, GROUND), QPointF(x + lean, GROUND - tall)
        self.painter.setPen(pen(self.palette.quiet, 1.0, Qt.PenStyle.DashLine))
        self.painter.setBrush(fill(self.palette.paper))
        middle = base + (top - base) * 0.66
        self.painter.drawEllipse(middle, tall * 0.26, tall * 0.36)
        self.painter.setPen(pen(self.palette.bark, 1.0))
        self.painter.setBrush(fill(self.palette.sapwood))
        self.painter.drawPolygon(QPolygonF([base - QPointF(5, 0), base + QPointF(5, 0), top]))
        return base, top

    def eye(self, x: float, up: float = 26.0) -> QPointF:
        """An eye that looks."""
        at = QPointF(x, GROUND - up)
        self.painter.setPen(pen(self.palette.ink, 1.6))
        self.painter.setBrush(fill(self.palette.sheet))
        self.painter.drawEllipse(at, 6, 4)
        self.painter.setBrush(fill(self.palette.ink))
        self.painter.drawEllipse(at, 1.8, 1.8)
        self.painter.drawLine(at + QPointF(0, 5), QPointF(x, GROUND))
        return at

    def sight(self, start: QPointF, end: QPointF, name: str = "", share: float = 0.5) -> None:
        """A line of sight with a name on it."""
        self.painter.setPen(pen(self.palette.wedge, 1.4))
        self.painter.drawLine(start, end)
        if name:
            self.word(start + (end - start) * share, name)

    def length(self, start: QPointF, end: QPointF, name: str) -> None:
        """A measured length with its name."""
        self.painter.setPen(pen(self.palette.load, 1.6))
        self.painter.drawLine(start, end)
        along = end - start
        across = QPointF(-along.y(), along.x()) / max((along.x() ** 2 + along.y() ** 2) ** 0.5, 1e-6) * 4
        for at in (start, end):
            self.painter.drawLine(at - across, at + across)
        self.word((start + end) / 2, name)

    def word(self, at: QPointF, text: str) -> None:
        """A word on a patch of paper."""
        self.painter.setFont(font(12, narrow=True))
        box = self.painter.boundingRect(QRectF(at.x() - 70, at.y() - 8, 140, 16), Align.AlignCenter, text)
        self.painter.fillRect(box.adjusted(-2, 0, 2, 0), fill(self.palette.sheet))
        self.painter.setPen(pen(self.palette.ink))
        self.painter.drawText(box, Align.AlignCenter, text)

    def stem(self, points: list[QPointF], half: float) -> None:
        """A piece of stem along a line of points."""
        side = [p - QPointF(half, 0) for p in points] + [p + QPointF(half, 0) for p in reversed(points)]
        self.painter.setPen(pen(self.palette.bark, 1.2))
        self.painter.setBrush(fill(self.palette.sapwood))
        self.painter.drawPolygon(QPolygonF(side))


def _nothing(_: Sketch) -> None:
    return


def _clinometer(s: Sketch) -> None:
    s.ground()
    base, top = s.tree(s.width - 52)
    eye = s.eye(40)
    s.painter.setPen(pen(s.palette.quiet, 1.0, Qt.PenStyle.DotLine))
    s.painter.drawLine(eye, QPointF(base.x(), eye.y()))
    s.sight(eye, top, tr("top"), 0.4)
    s.sight(eye, base, tr("base"), 0.5)
    s.length(QPointF(40, GROUND + 10), QPointF(base.x(), GROUND + 10), tr("distance, along the ground (slope)"))


def _stick(s: Sketch) -> None:
    s.ground()
    base, top = s.tree(s.width - 52)
    eye = s.eye(34)
    low, high = (eye + (end - eye) * 0.3 for end in (base, top))
    s.sight(eye, top)
    s.sight(eye, base)
    s.length(low, high, tr("stick"))
    s.word(QPointF(eye.x() + 18, eye.y() + 22), tr("reach"))
    s.length(QPointF(34, GROUND + 10), QPointF(base.x(), GROUND + 10), tr("distance"))


def _shadow(s: Sketch) -> None:
    s.ground()
    _, top = s.tree(74, 80)
    s.length(QPointF(74, GROUND + 10), QPointF(170, GROUND + 10), tr("shadow"))
    s.sight(top, QPointF(170, GROUND))
    foot = QPointF(212, GROUND)
    s.length(foot, foot - QPointF(0, 40), tr("stick"))
    s.sight(foot - QPointF(0, 40), foot + QPointF(48, 0))
    s.length(QPointF(212, GROUND + 10), QPointF(260, GROUND + 10), tr("its shadow"))


def _two_sightings(s: Sketch) -> None:
    middle, top = QPointF(s.width - 80, 52), QPointF(s.width - 52, 40)
    for at, name in ((QPointF(30, 52), tr("first place")), (QPointF(s.width - 80, GROUND + 8), tr("second place"))):
        s.sight(at, middle)
        s.sight(at, top, tr("aside"), 0.62)
        s.word(at + QPointF(24, 12) if name.startswith("first") else at - QPointF(56, 0), name)
    s.painter.setBrush(fill(s.palette.sapwood))
    s.painter.setPen(pen(s.palette.bark, 1.2))
    s.painter.drawEllipse(middle, 8, 8)
    s.painter.drawEllipse(top, 3, 3)
    s.word(top + QPointF(20, -12), tr("top"))
    s.word(QPointF(56, 14), tr("seen from above"))


def _plumb(s: Sketch) -> None:
    s.ground()
    s.stem([QPointF(130, GROUND), QPointF(168, 10)], 18)
    line_top, line_end = QPointF(150 + 38, 10), QPointF(188, GROUND - 4)
    s.length(line_top, line_end, tr("drop"))
    s.length(QPointF(150, GROUND - 6), QPointF(186, GROUND - 6), tr("offset"))


def _faces(s: Sketch) -> None:
    s.ground()
    s.stem([QPointF(80, GROUND), QPointF(104, 10)], 16)
    s.length(QPointF(102, 80), QPointF(112, 36), tr("first"))
    s.stem([QPointF(200, GROUND), QPointF(212, 10)], 16)
    s.length(QPointF(221, 80), QPointF(226, 36), tr("second"))
    s.word(QPointF(s.width / 2 + 4, GROUND + 12), tr("then a quarter turn to the right"))


def _sighting(s: Sketch) -> None:
    s.ground()
    base, top = s.tree(s.width / 2 - 10, 86, 30)
    s.painter.setPen(pen(s.palette.ink, 1.2, Qt.PenStyle.DashLine))
    s.painter.drawLine(base, QPointF(base.x(), 10))
    s.length(QPointF(base.x(), 16), QPointF(top.x(), 16), tr("off"))
    s.length(QPointF(base.x() - 40, GROUND), QPointF(base.x() - 40, top.y()), tr("height"))
    s.word(QPointF(s.width - 50, 60), tr("hung line"))


def _eye(s: Sketch) -> None:
    s.ground()
    for index, (word, lean) in enumerate(
        ((tr("upright"), 0), (tr("slight"), 5), (tr("marked"), 11), (tr("strong"), 19))
    ):
        x = s.width * (index + 0.5) / 4 - lean / 2
        s.tree(x, 76, lean)
        s.word(QPointF(s.width * (index + 0.5) / 4, GROUND + 12), word)


def _girth(s: Sketch) -> None:
    middle = QPointF(s.width / 2, 60)
    s.painter.setPen(pen(s.palette.bark, 4))
    s.painter.setBrush(fill(s.palette.sapwood))
    s.painter.drawEllipse(middle, 44, 42)
    s.painter.setPen(pen(s.palette.load, 1.8))
    s.painter.setBrush(Qt.BrushStyle.NoBrush)
    s.painter.drawEllipse(middle, 50, 48)
    s.word(QPointF(s.width / 2, 118), tr("girth, all the way round"))


def _across(s: Sketch) -> None:
    middle = QPointF(s.width / 2, 58)
    s.painter.setPen(pen(s.palette.bark, 4))
    s.painter.setBrush(fill(s.palette.sapwood))
    s.painter.drawEllipse(middle, 52, 42)
    s.length(middle - QPointF(52, 0), middle + QPointF(52, 0), tr("first"))
    s.length(middle - QPointF(0, 42), middle + QPointF(0, 42), "")
    s.word(middle + QPointF(26, 26), tr("second"))


def _bark(s: Sketch) -> None:
    middle = QPointF(s.width / 2, 58)
    s.painter.setPen(pen(s.palette.bark, 12))
    s.painter.setBrush(fill(s.palette.sapwood))
    s.painter.drawEllipse(middle, 44, 44)
    s.length(middle - QPointF(50, 0), middle + QPointF(50, 0), tr("diameter"))
    s.word(middle + QPointF(82, -34), tr("bark"))


def _sweep(s: Sketch) -> None:
    s.ground()
    points = [QPointF(90 + 60 * (i / 8) ** 2, GROUND - 98 * i / 8) for i in range(9)]
    s.stem(points, 6)
    s.painter.setPen(pen(s.palette.ink, 1.2, Qt.PenStyle.DashLine))
    s.painter.drawLine(points[0], QPointF(90, 10))
    s.length(QPointF(90, points[4].y()), points[4], "")
    s.word(points[4] + QPointF(42, 2), tr("middle"))
    s.length(QPointF(90, 12), QPointF(150, 12), tr("sweep"))


def _room(s: Sketch) -> None:
    s.ground()
    base, top = s.tree(50, 92)
    s.length(QPointF(20, GROUND), QPointF(20, top.y()), tr("height"))
    s.stem([QPointF(76, GROUND - 18), QPointF(76 + 150, GROUND - 8)], 3)
    s.painter.setPen(pen(s.palette.ink, 3))
    s.painter.drawLine(QPointF(232, GROUND), QPointF(232, GROUND - 34))
    s.length(QPointF(base.x(), GROUND + 10), QPointF(232, GROUND + 10), tr("room"))


DRAWINGS: dict[tuple[str, str], Callable[[Sketch], None]] = {
    ("height", "clinometer"): _clinometer,
    ("height", "stick"): _stick,
    ("height", "shadow"): _shadow,
    ("height", "two-sightings"): _two_sightings,
    ("lean", "plumb"): _plumb,
    ("lean", "faces"): _faces,
    ("lean", "sighting"): _sighting,
    ("lean", "eye"): _eye,
    ("girth", "tape"): _girth,
    ("girth", "calliper"): _across,
    ("girth", "two-diameters"): _across,
    ("girth", "under-bark"): _bark,
    ("sweep", "middle"): _sweep,
    ("room", "top"): _room,
}
