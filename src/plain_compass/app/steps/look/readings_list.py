"""The raw readings of the tree, gathered by what they measure, each with a tick for whether it counts."""

from __future__ import annotations

from PySide6.QtWidgets import QCheckBox, QVBoxLayout, QWidget

from ....core.base.quantity import Kind
from ....job.fields import quantity_at
from ....job.language import tr
from ....job.readings import EDGE, LEAN, SHELL, WIND, Group, Taken, groups_of
from ....job.taking import use_reading
from ....job.ways import way_name
from ....job.words import Speech
from ...drawing.palette import font
from ...drawing.text import unbroken
from ...frame.plain_label import PlainLabel, plain_tip
from ...frame.store import Snapshot, Store


def describe_reading(what: str, values: tuple[float, ...], spreads: tuple[float, ...], speech: Speech) -> str:
    """Values of a reading with its spread, as a person reads them."""
    if what == WIND:
        return tr("{values:.1f} m/s ± {spreads:.1f} m/s", values=values[0], spreads=spreads[0])
    if what == LEAN:
        shown = f"{speech.show(values[0], Kind.ANGLE)} ± {speech.show(spreads[0], Kind.ANGLE)}"
        return tr("{shown} to {values}", shown=shown, values=speech.show(values[1], Kind.BEARING))
    kind = {EDGE: "span", SHELL: "length"}.get(what) or quantity_at(what).kind
    return f"{speech.show(values[-1], kind)} ± {speech.show(spreads[-1], kind)}"


def named(group: Group, about: Taken, speech: Speech) -> str:
    """What a group of readings measures."""
    if about.what in (EDGE, SHELL):
        return f"{tr(about.what)} {speech.show(about.values[0], Kind.BEARING)}"
    return tr(about.what) if about.what in (LEAN, WIND) else speech.label(quantity_at(group.key))


class ReadingsList(QWidget):
    """One heading a thing with its average, one tick a reading. Made anew when the readings change."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.ticks: list[QCheckBox] = []
        self._shown: tuple[object, ...] = ()
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 6, 0, 0)
        self._column.setSpacing(2)

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document."""
        shown = (snapshot.plan.id, snapshot.plan.readings, snapshot.speech)
        if shown == self._shown:
            return
        self._shown = shown
        while (item := self._column.takeAt(0)) is not None:
            if (gone := item.widget()) is not None:
                gone.hide()
                gone.deleteLater()
        self.ticks = []
        for group in groups_of(snapshot.plan.readings):
            self._add_group(group, snapshot)
        if not snapshot.plan.readings:
            self._add_line(tr("No readings taken yet: values stand as typed."), strong=False)

    def _add_group(self, group: Group, snapshot: Snapshot) -> None:
        readings, speech = snapshot.plan.readings, snapshot.speech
        about = readings[group.positions[0]]
        heading = named(group, about, speech)
        if group.estimates:
            values = tuple(e.value for e in group.estimates)
            spreads = tuple(e.spread for e in group.estimates)
            if about.what in (EDGE, SHELL):
                values, spreads = (about.values[0], *values), (0.0, *spreads)
            heading += f": {describe_reading(about.what, values, spreads, speech)}"
        else:
            heading += tr(": typed over")
        self._add_line(heading, strong=True)
        for position in group.positions:
            self._add_tick(position, readings[position], position in group.outliers, speech)

    def _add_line(self, text: str, *, strong: bool) -> None:
        line = PlainLabel(unbroken(text[:1].upper() + text[1:]))
        line.setFont(font(13, strong=strong))
        line.setWordWrap(True)
        self._column.addWidget(line)

    def _add_tick(self, position: int, taken: Taken, left_out: bool, speech: Speech) -> None:
        text = f"{describe_reading(taken.what, taken.values, taken.spreads, speech)} · {way_name(taken.by)}"
        if left_out:
            text += tr(" · off the others, left out")
        tick = QCheckBox(unbroken(text))
        tick.setObjectName(f"reading:{position}")
        tick.setFont(font(13, narrow=True))
        tick.setChecked(taken.used)
        note = taken.note if len(taken.note) < 300 else f"{taken.note[:297]}..."
        tick.setToolTip(plain_tip("\n".join(part for part in (note, taken.at) if part) or tr("no note")))
        tick.toggled.connect(lambda used, p=position: self._use(p, used))
        self._column.addWidget(tick)
        self.ticks.append(tick)

    def _use(self, position: int, used: bool) -> None:
        store = self.store
        title = tr("reading counted") if used else tr("reading left out")
        if not store.change(title, lambda job: use_reading(job, store.tree_id, position, used=used)):
            # The tick goes back to what the document says.
            self._shown = ()
            self.refresh(store.snapshot)
