"""The four drawings of the Look step."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import TYPE_CHECKING

import numpy as np
from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QWidget

from ....core.advice.rising import Rising
from ....core.base.levels import Group
from ....core.base.quantity import Kind
from ....core.judge.unmeasured import LEAN
from ....job.fields import quantity_at
from ....job.language import tr
from ...drawing.canvas import Canvas
from ...drawing.layout import Layout
from ...drawing.look.butt_painter import paint_butt
from ...drawing.look.crown_painter import paint_crown
from ...drawing.look.look_layout import butt_layout, crown_layout, side_layout
from ...drawing.look.rising_painter import paint_rising
from ...drawing.look.surveyed import Surveyed
from ...drawing.look.tree_painter import paint_tree
from ...drawing.palette import font, pen
from ...drawing.scale import Scale
from ...drawing.shapes import ALONG, Facing
from ...frame.drawing_view import DrawingView, caption
from ...frame.store import Snapshot, Store

CAPTION = 26
"""Height of a drawing's title."""
FIRST_ROW = 78.0
"""First place for a label below the title and the words about the top."""
MOST_OFF = 2.2
"""Radii of the stump within which the centre of mass is shown at its place."""
BELOW = 34
"""Room under the ground line for the words about the weight."""

if TYPE_CHECKING:
    from collections.abc import Callable


class LookView(DrawingView):
    """A drawing that is handed the spreads of the tree it shows."""

    def __init__(self, store: Store, surveyed: Callable[[Snapshot], Surveyed], parent: QWidget | None = None) -> None:
        self.surveyed_of = surveyed
        self._key: tuple[object, ...] | None = None
        super().__init__(store, parent)

    def shows(self, snapshot: Snapshot) -> tuple[object, ...] | None:
        """Everything this drawing depends on; None where it is always to be painted anew."""
        return None

    def refresh(self, snapshot: Snapshot) -> None:
        """Place and paint anew, unless nothing that is on this drawing has changed."""
        shown = self.shows(snapshot)
        surveyed = self.surveyed_of(snapshot)
        view = (self.viewport.zoom, self.viewport.pan.toTuple(), self.size().toTuple(), self.mark, snapshot.speech)
        key = None if shown is None else (shown, view, surveyed.worst, surveyed.readings, surveyed.leans)
        if key is not None and key == self._key:
            return
        super().refresh(snapshot)
        # What has not been placed yet is not known to be.
        self._key = None if self.lag.is_behind else key

    def with_spreads(self, layout: Layout, snapshot: Snapshot) -> Layout:
        """The layout with every dimension's spread in its tag, and the one most worth measuring better named."""
        surveyed, show = self.surveyed_of(snapshot), snapshot.speech.show
        places = []
        for place in layout.fields:
            spread = surveyed.spread(place.path)
            tag = place.tag
            if spread > 0:
                tag += f" ± {show(spread, quantity_at(place.path).kind)}"
            if place.path == surveyed.worst:
                tag = tr("measure better: {tag}", tag=tag)
            places.append(replace(place, tag=tag))
        return Layout(tuple(places), layout.grips)


def standing(snapshot: Snapshot) -> tuple[object, ...]:
    """What the drawings of the whole tree depend on: everything but the rot, and where the hinge lies under it."""
    plan, parts = snapshot.plan, snapshot.result.parts
    tree = plan.tree
    grown = (tree.species, tree.height_m, tree.trunk, tree.crown, tree.lean, tree.fork, tree.limbs, tree.measured)
    return (*grown, plan.cut, parts.balance, parts.hinge.length_m)


class TreeView(LookView):
    """The whole tree from one side."""

    tells_of = (Group.BALANCE, Group.AROUND)
    title = ""

    def __init__(
        self, store: Store, surveyed: Callable[[Snapshot], Surveyed], facing: Facing, title: str, parent: QWidget
    ) -> None:
        self.facing, self.title = facing, title
        super().__init__(store, surveyed, parent)

    def scale_for(self, snapshot: Snapshot) -> Scale:
        """The tree fills the height; both views share one scale, since both have the same height."""
        height = snapshot.plan.tree.height_m
        free = self.height() - CAPTION - BELOW - 52
        low, high = snapshot.shapes.tree(self.facing).crown_reach_m
        span = max(high - low, 0.25 * height)
        scale = min(free / height, (self.width() - 56) / span)
        middle = (low + high) / 2
        return Scale(scale, QPointF(self.width() / 2 - middle * scale, self.height() - BELOW))

    def shows(self, snapshot: Snapshot) -> tuple[object, ...]:
        """The tree; buttresses and rot do not show from afar."""
        return standing(snapshot)

    def layout_for(self, snapshot: Snapshot, scale: Scale) -> Layout:
        """Heights on one view, lean on the other."""
        layout = side_layout(snapshot.shapes, scale, self.facing, self.width(), FIRST_ROW)
        return self.with_spreads(layout, snapshot)

    def paint(self, painter: QPainter, snapshot: Snapshot, scale: Scale) -> None:
        """Tree and caption."""
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_tree(self.canvas(painter, snapshot), self.facing, self.surveyed_of(snapshot))
        caption(painter, self, self.title)
        painter.setFont(font(12, narrow=True))
        painter.setPen(pen(self.palette_in_use.quiet))
        painter.drawText(QPointF(12, 38), self._top_offset(snapshot))

    def _top_offset(self, snapshot: Snapshot) -> str:
        """The lean as fallers say it: how far the top stands off the base in this view."""
        if {"height_m", *LEAN} & {*snapshot.plan.tree.stand_ins}:
            return tr("not measured: drawn as a stand-in")
        off = snapshot.shapes.tree(self.facing).top_off_m
        sides = (tr("ahead of"), tr("behind")) if self.facing is ALONG else (tr("right of"), tr("left of"))
        return tr(
            "top {off} {what} the base",
            off=snapshot.speech.show(abs(off), Kind.LENGTH),
            what=sides[0] if off >= 0 else sides[1],
        )


class CrownView(LookView):
    """The crown from above."""

    tells_of = (Group.BALANCE, Group.AROUND)

    def scale_for(self, snapshot: Snapshot) -> Scale:
        """The crown, its limbs and its centre of mass inside the labels."""
        tree = snapshot.plan.tree
        reach = max([r.radius_m for r in tree.crown.readings] + [limb.length_m for limb in tree.limbs] + [1.0])
        room = min(self.width() / 2 - 96, (self.height() - CAPTION) / 2 - 44)
        return Scale(max(room, 30) / reach, QPointF(self.width() / 2, CAPTION + (self.height() - CAPTION) / 2))

    def shows(self, snapshot: Snapshot) -> tuple[object, ...]:
        """The crown, and the stump under it."""
        return (*standing(snapshot), snapshot.plan.tree.lobes)

    def layout_for(self, snapshot: Snapshot, scale: Scale) -> Layout:
        """Edges."""
        layout = crown_layout(snapshot.result, scale, (self.width(), self.height() - CAPTION))
        return self.with_spreads(layout, snapshot)

    def paint(self, painter: QPainter, snapshot: Snapshot, scale: Scale) -> None:
        """Crown and caption."""
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_crown(self.canvas(painter, snapshot), self.surveyed_of(snapshot))
        caption(painter, self, tr("Crown from above"))


class ButtView(LookView):
    """The section at the cut, and beside it what raising the cut would do."""

    tells_of = (Group.DECAY, Group.BAR)
    rising: Rising | None = None

    def plot_box(self) -> QRectF | None:
        """Where the soundness by height is drawn; None where there is no rot to show."""
        if self.rising is None or float(np.min(self.rising.shell_ratio)) >= 1.0:
            return None
        wide = min(max(self.width() * 0.33, 112), 220)
        return QRectF(self.width() - wide, 8, wide - 4, self.height() - 64)

    def scale_for(self, snapshot: Snapshot) -> Scale:
        """The section in what the plot leaves."""
        box = self.plot_box()
        right = box.left() if box else float(self.width())
        mass = snapshot.result.parts.mass
        bark = float(np.hypot(*snapshot.result.parts.section.bark.T).max())
        # The centre of mass belongs in the picture, unless that would make the stump a dot.
        radius = max(bark, min(math.hypot(mass.com_forward_m, mass.com_left_m) + 0.05, MOST_OFF * bark))
        room = min(right / 2 - 46, (self.height() - CAPTION - 50) / 2 - 34)
        at = QPointF(right / 2, CAPTION + 24 + (self.height() - CAPTION - 74) / 2)
        return Scale(max(room, 20) / radius, at)

    def layout_for(self, snapshot: Snapshot, scale: Scale) -> Layout:
        """Diameter, bark, buttresses, probes, cavity."""
        return self.with_spreads(butt_layout(snapshot.shapes, scale, self.width(), self.height()), snapshot)

    def paint(self, painter: QPainter, snapshot: Snapshot, scale: Scale) -> None:
        """Section, plot, caption."""
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_butt(self.canvas(painter, snapshot), self.surveyed_of(snapshot))
        box = self.plot_box()
        if box is not None and self.rising is not None:
            if painter.device() is self:
                # It is reckoned only when the hands are still.
                drawn = (self.rising, snapshot.plan.cut.height_m, snapshot.speech)
                painter.drawPixmap(0, 0, self.layers.painted("plot", drawn, self._plot, sheet=False))
            else:
                self._plot(self.canvas(painter, snapshot))
        show = snapshot.speech.show
        caption(painter, self, tr("At the cut, {height_m} up", height_m=show(snapshot.plan.cut.height_m, "length")))

    def _plot(self, c: Canvas) -> None:
        """Soundness by height."""
        box = self.plot_box()
        assert box is not None and self.rising is not None
        cut_m = self.store.snapshot.plan.cut.height_m
        paint_rising(c.painter, box, self.rising, cut_m, c.speech, self.palette_in_use)
