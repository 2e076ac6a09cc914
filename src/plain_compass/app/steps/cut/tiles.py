"""The table of cuts as tiles: every form of a part drawn in the round on this very tree, with whether it fits."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QFocusEvent, QKeyEvent, QMouseEvent, QPainter
from PySide6.QtWidgets import QFrame, QGridLayout, QScrollArea, QVBoxLayout, QWidget

from ....core.assess import Assessment
from ....core.base.levels import Level
from ....core.cuts.form import CutForm
from ....job.language import tr
from ....job.words import Speech
from ...drawing.marks import paint_level
from ...drawing.palette import Palette, font, pen
from ...drawing.round_painter import paint_round
from ...drawing.shapes import Shapes
from ...frame.form_drawn import LOOK, drawn_on
from ...frame.painted import PaintedView
from ...frame.plain_label import PlainLabel, plain_tip

TILE_PX = QSize(176, 148)
COLUMNS = 4
"""As many beside one another as the smallest window holds."""
FITS = {"fits": tr("fits"), "poor": tr("poor"), "refused": tr("refused")}
LEVELS = {"fits": Level.CLEAR, "poor": Level.WATCH, "refused": Level.STOP}
"""Whether a form fits, as a sign; its word stands beside it."""
Align = Qt.AlignmentFlag


class FormTile(PaintedView):
    """One form. A click, Enter or Space takes it.

    Signals:
        taken: key of the form.
        moved: by how many tiles an arrow key goes on.
    """

    taken = Signal(str)
    moved = Signal(int)

    def __init__(self, form: CutForm, drawn: Assessment | None, fit: tuple[str, str], speech: Speech) -> None:
        super().__init__()
        self.form, self.speech = form, speech
        self.level, why = fit
        self.fits = FITS[self.level]
        self.solid = None if drawn is None else Shapes(drawn).solid
        self.is_now = False
        self.setFixedSize(TILE_PX)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setObjectName(f"tile:{form.key}")
        self.setAccessibleName(f"{speech.phrase(form.name)}: {self.fits}")
        self.setAccessibleDescription(why)
        purpose, drill = speech.phrase(form.purpose), speech.phrase(form.drill)
        self.setToolTip(plain_tip(tr("{purpose}\n{why}\nWatch for: {drill}", purpose=purpose, why=why, drill=drill)))

    def draw(self, painter: QPainter) -> None:
        """The stump with this form, its name, and whether it fits."""
        palette, box = self.palette_in_use, QRectF(self.rect())
        if self.solid is not None:
            paint_round(painter, QRectF(8, 4, box.width() - 16, box.height() - 58), self.solid, LOOK, palette)
        else:
            self._write(painter, QRectF(8, 30, box.width() - 16, 40), tr("not on this stem"))
        painter.setPen(pen(palette.ink))
        painter.setFont(font(13, strong=True, narrow=True))
        name = self.speech.phrase(self.form.name)
        painter.drawText(QRectF(8, box.bottom() - 54, box.width() - 16, 34), NAME, name)
        paint_level(painter, QPointF(16, box.bottom() - 11), 6, LEVELS[self.level], palette)
        told = tr("{fits} · specialist", fits=self.fits) if self.form.specialist else self.fits
        painter.setFont(font(12, narrow=True))
        painter.drawText(QRectF(28, box.bottom() - 20, box.width() - 32, 18), Align.AlignVCenter, told)
        # A popup need not be the active window to have the keyboard.
        hot = self.window().focusWidget() is self
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(pen(palette.focus if hot else palette.ink if self.is_now else palette.line, 2.4 if hot else 1.4))
        painter.drawRect(box.adjusted(1, 1, -1, -1))

    def _write(self, painter: QPainter, box: QRectF, text: str) -> None:
        painter.setFont(font(12, narrow=True))
        painter.setPen(pen(self.palette_in_use.quiet))
        painter.drawText(box, Align.AlignCenter, text)

    def focusInEvent(self, event: QFocusEvent) -> None:
        """Brought out."""
        self.update()

    def focusOutEvent(self, event: QFocusEvent) -> None:
        """No longer."""
        self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        """Taken."""
        if self.rect().contains(event.position().toPoint()):
            self.taken.emit(self.form.key)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Enter or Space takes it, arrows go on to another."""
        steps = {Qt.Key.Key_Right: 1, Qt.Key.Key_Left: -1, Qt.Key.Key_Down: COLUMNS, Qt.Key.Key_Up: -COLUMNS}
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.taken.emit(self.form.key)
        elif Qt.Key(event.key()) in steps:
            self.moved.emit(steps[Qt.Key(event.key())])
        else:
            super().keyPressEvent(event)


NAME = Align.AlignTop | Align.AlignLeft | Qt.TextFlag.TextWordWrap


class FormTiles(QFrame):
    """All forms of a part, over the page until one is taken or Escape leaves things as they are.

    Signals:
        taken: key of the form.
    """

    taken = Signal(str)

    def __init__(self, result: Assessment, forms: list[CutForm], now: str, speech: Speech, parent: QWidget) -> None:
        super().__init__(parent, Qt.WindowType.Popup)
        self.setObjectName("page")
        self.tiles: list[FormTile] = []
        grid = QGridLayout()
        grid.setSpacing(6)
        for number, (form, drawn) in enumerate(zip(forms, drawn_on(result, forms), strict=True)):
            fit = form.fits(result)
            tile = FormTile(form, drawn, (fit.level, speech.phrase(fit.why)), speech)
            tile.is_now = form.key == now
            tile.taken.connect(self._take)
            tile.moved.connect(self._move)
            grid.addWidget(tile, *divmod(number, COLUMNS))
            self.tiles.append(tile)
        body = QWidget()
        body.setObjectName("page")
        body.setLayout(grid)
        area = QScrollArea()
        area.setObjectName("page")
        area.setWidget(body)
        area.setFrameShape(QFrame.Shape.NoFrame)
        told = PlainLabel(tr("Each as it begins on this tree · arrows and Enter choose, Escape leaves it"))
        told.setFont(font(13))
        whole = QVBoxLayout(self)
        whole.addWidget(told)
        whole.addWidget(area)
        wanted, room = body.sizeHint(), parent.window().height() - 220
        self.resize(wanted.width() + 46, min(wanted.height(), room) + 56)

    def dress(self, palette: Palette) -> None:
        """The scheme's colours."""
        for tile in self.tiles:
            tile.palette_in_use = palette

    def begin(self) -> None:
        """The form that is in use has the keyboard."""
        next((tile for tile in self.tiles if tile.is_now), self.tiles[0]).setFocus()

    def _take(self, key: str) -> None:
        self.close()
        self.taken.emit(key)

    def _move(self, step: int) -> None:
        """From tile to tile, as far as there is one."""
        at = next((number for number, tile in enumerate(self.tiles) if tile is self.focusWidget()), 0)
        if 0 <= at + step < len(self.tiles):
            self.tiles[at + step].setFocus()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Escape leaves things as they are."""
        if event.key() == Qt.Key.Key_Escape:
            self.close()
        else:
            super().keyPressEvent(event)
