"""Instruments in the side column: connect, see readings arrive, drop each onto what it measures."""

from __future__ import annotations

import math
from contextlib import ExitStack
from dataclasses import replace

from PySide6.QtWidgets import QGridLayout, QLineEdit, QToolButton, QVBoxLayout, QWidget

from ....core.base.errors import InputError
from ....core.base.frames import full_turn_deg
from ....instruments.assemble import Assembler
from ....instruments.devices import DEVICES, Faults, Truth
from ....instruments.protocol import Sample
from ....instruments.server import FIRST_PORT, Instruments
from ....job.language import tr
from ....job.readings import SHELL, WIND, Taken
from ....job.typed import TypedError, parse
from ....job.ways import way_name
from ...drawing.palette import font
from ...frame.fitted_button import FittedButton
from ...frame.plain_label import PlainLabel
from ...frame.store import Store, now
from .chips import Chip, target_paths
from .link import Link
from .readings_list import describe_reading

MOST_OF_A_KIND = 3
"""Readings of one thing shown waiting; older ones give way, since nobody took them."""
ORDER = ("tree.height_m", "tree.trunk.diameter_m", SHELL, WIND)


class InstrumentPanel(QWidget):
    """Connects to instruments on this machine and lays their readings out to be taken."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self.links: list[Link] = []
        self.chips: list[Chip] = []
        self.assembler = Assembler()
        self.every_s = 0.8
        self._own = ExitStack()
        self._compose()
        self.destroyed.connect(lambda _=None, own=self._own: own.close())

    def _compose(self) -> None:
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 10, 0, 0)
        column.setSpacing(4)
        heading = PlainLabel(tr("Instruments"))
        heading.setFont(font(14, strong=True))
        column.addWidget(heading)
        grid = QGridLayout()
        self.port, self.bearing = QLineEdit(str(FIRST_PORT)), QLineEdit("0")
        for row, (words, field, name) in enumerate(
            (
                (tr("first port"), self.port, "instrument:port"),
                (tr("probe drilled at"), self.bearing, "instrument:bearing"),
            )
        ):
            label = PlainLabel(words)
            label.setFont(font(13, narrow=True))
            label.setBuddy(field)
            field.setFont(font(14))
            field.setFixedWidth(70)
            field.setObjectName(name)
            field.setAccessibleName(words)
            grid.addWidget(label, row, 0)
            grid.addWidget(field, row, 1)
        self.connect_button = self._button(tr("Connect"), self.toggle, "instrument:connect")
        self.own_button = self._button(tr("Stand-ins"), self.start_own, "instrument:own")
        self.own_button.setToolTip(tr("Simulated instruments on this machine, pointed at a tree like this one"))
        grid.addWidget(self.connect_button, 0, 2)
        grid.addWidget(self.own_button, 1, 2)
        column.addLayout(grid)
        self.state = PlainLabel(tr("Not connected."))
        self.state.setFont(font(13, narrow=True))
        self.state.setWordWrap(True)
        self.state.setAccessibleName(tr("State of the instruments"))
        column.addWidget(self.state)
        self.tray = QVBoxLayout()
        self.tray.setSpacing(3)
        column.addLayout(self.tray)

    def _button(self, text: str, do: object, name: str) -> QToolButton:
        button = FittedButton()
        button.setText(text)
        button.setObjectName(name)
        button.setProperty("framed", True)
        button.clicked.connect(do)
        return button

    # Connecting ----------------------------------------------------------------------------------------

    def toggle(self) -> None:
        """Connect, or close what is connected."""
        if self.links:
            self.close_links()
            return
        try:
            port = int(self.port.text())
            if not 1024 <= port <= 65535 - len(DEVICES):
                raise ValueError
        except ValueError:
            most = 65535 - len(DEVICES)
            self.store.refused.emit(
                tr("First port “{port}” is no port; accepted: 1024 to {most}.", port=self.port.text(), most=most)
            )
            return
        self.connect_to({device.name: port + number for number, device in enumerate(DEVICES)})

    def start_own(self) -> None:
        """Run the stand-ins inside the window and connect to them."""
        self.close_links()
        tree = self.store.snapshot.plan.tree
        truth = Truth(
            height_m=tree.height_m,
            distance_m=max(round(tree.height_m * 1.2), 8),
            girth_m=math.pi * tree.trunk.diameter_m,
            radius_m=tree.trunk.diameter_m / 2,
            sound_shell_m=tree.trunk.diameter_m / 5,
        )
        stand_ins = Instruments(int(tree.height_m * 100), Faults(lost=0.05), truth=truth, every_s=self.every_s)
        self.connect_to(self._own.enter_context(stand_ins).ports)

    def connect_to(self, ports: dict[str, int]) -> None:
        """Connect to instruments by name and port."""
        for name, port in ports.items():
            link = Link(name, port, self)
            link.arrived.connect(self._arrived)
            link.refused.connect(lambda _: self._show_state())
            link.changed.connect(self._show_state)
            self.links.append(link)
        self._show_state()

    def close_links(self) -> None:
        """Close every connection; readings that have come in stay."""
        for link in self.links:
            link.close()
            link.deleteLater()
        self.links = []
        self._own.close()
        self._show_state()

    def _show_state(self) -> None:
        self.connect_button.setText(tr("Close") if self.links else tr("Connect"))
        if not self.links:
            self.state.setText(tr("Not connected. Readings that came in stay."))
            return
        parts = []
        for link in self.links:
            faults = [tr("{missed} lost", missed=link.missed)] if link.missed else []
            faults += [tr("{rejected} not readable", rejected=link.rejected)] if link.rejected else []
            parts.append(
                f"{link.name}: {link.state}, {', '.join([tr('{accepted} lines', accepted=link.accepted), *faults])}"
            )
        self.state.setText("\n".join(parts))

    # Readings ------------------------------------------------------------------------------------------

    def _arrived(self, sample: Sample) -> None:
        try:
            self.assembler.probe_bearing_deg = full_turn_deg(parse(self.bearing.text(), "bearing", "metric"))
        except TypedError:
            self.assembler.probe_bearing_deg = 0.0
        try:
            taken = self.assembler.add(sample, now())
        except InputError:
            return
        if taken is not None:
            self._offer(taken)

    def _offer(self, taken: Taken) -> None:
        """One more reading in the tray, the newest on top."""
        speech = self.store.snapshot.speech
        name = tr("girth, as diameter") if taken.what == "tree.trunk.diameter_m" else taken.what.split(".")[-1]
        read = describe_reading(taken.what, taken.values, taken.spreads, speech)
        text = f"{name.removesuffix('_m').replace('_', ' ')} {read}"
        chip = Chip(taken, text, self)
        chip.dropped.connect(lambda path, c=chip: self.drop(c, path))
        # One that is being carried stays until it is dropped.
        of_its_kind = [c for c in self.chips if c.taken.what == taken.what and not c.isDown()]
        for old in of_its_kind[MOST_OF_A_KIND - 1 :]:
            self._remove(old)
        # By kind, the newest of each on top: a reading one reaches for does not run away under the pointer.
        before = [c for c in self.chips if ORDER.index(c.taken.what) < ORDER.index(taken.what)]
        self.tray.insertWidget(len(before), chip)
        self.chips.insert(len(before), chip)

    def _remove(self, chip: Chip) -> None:
        self.chips.remove(chip)
        self.tray.removeWidget(chip)
        chip.hide()
        chip.deleteLater()

    def drop(self, chip: Chip, path: str) -> None:
        """Take a waiting reading: onto the dimension at ``path``, or where it belongs when that is empty."""
        store, taken = self.store, chip.taken
        if path and path not in target_paths(taken, store.snapshot.plan):
            store.refused.emit(
                tr("A reading of {chip} does not measure that; drop it on its own.", chip=chip.text().split(" ")[0])
            )
            return
        if path and taken.what == SHELL:
            taken = replace(taken, values=(store.snapshot.value(path.rsplit(".", 1)[0]).bearing_deg, taken.values[1]))
        elif path.startswith("tree.trunk."):
            taken = replace(taken, what=path)
        if store.record_reading(taken, tr("{by} reading taken", by=way_name(taken.by)), path):
            self._remove(chip)
