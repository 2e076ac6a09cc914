"""The page of the Fall step: clock and slider, strobe beside fan, the hinge's curve beside the table."""

from __future__ import annotations

import time

from PySide6.QtCore import Qt, QTimer
from PySide6.QtWidgets import QHBoxLayout, QLabel, QSlider, QVBoxLayout, QWidget

from ....core.judge.findings import Finding
from ....job.language import tr
from ...drawing.palette import font
from ...drawing.text import unbroken
from ...frame.commands import Commands
from ...frame.page import Picture
from ...frame.plain_label import PlainLabel
from ...frame.scrolled import scrolled
from ...frame.store import Snapshot, Store
from .describe import describe
from .playback import Playback
from .views import FanView, StrobeView, UseView

FRAME_MS = 33
"""Thirty frames a second."""
SLIDER_STEPS = 500
"""Finer than the slider is long in pixels."""


class FallPage(QWidget):
    """See the fall."""

    def __init__(self, store: Store, commands: Commands, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store, self.commands = store, commands
        self.playback = Playback()
        self.strobe = StrobeView(store, self.playback, self)
        self.fan = FanView(store, self.playback, self)
        self.use = UseView(store, self.playback, self)
        self.use.setAccessibleName(tr("Use of the strip that steers, against tilt"))
        self.words = QLabel()
        self.words.setTextFormat(Qt.TextFormat.RichText)
        self.words.setWordWrap(True)
        self.words.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.words.setFont(font(13))
        self.words.setAccessibleName(tr("The fall in numbers"))
        self.clock = PlainLabel()
        self.clock.setFont(font(14, strong=True))
        self.clock.setMinimumWidth(220)
        self.slider = QSlider(Qt.Orientation.Horizontal)
        self.slider.setRange(0, SLIDER_STEPS)
        self.slider.setMinimumWidth(90)
        self.slider.setAccessibleName(tr("Tilt of the tree"))
        self.slider.valueChanged.connect(self._slid)
        self._timer = QTimer(self)
        self._timer.setInterval(FRAME_MS)
        self._timer.timeout.connect(self._tick)
        self._last = 0.0
        self._compose(commands)
        for view in (self.strobe, self.fan, self.use):
            view.tilted.connect(self.to_tilt)

    def _compose(self, commands: Commands) -> None:
        row = QHBoxLayout()
        row.setContentsMargins(10, 4, 10, 4)
        row.addWidget(commands.button("fall.play"))
        row.addWidget(self.slider, 1)
        row.addWidget(self.clock)
        for name in ("fall.keep", "fall.aim", "fall.export"):
            row.addWidget(commands.button(name))
        top = QHBoxLayout()
        top.setSpacing(1)
        top.addWidget(self.strobe, 1)
        top.addWidget(self.fan, 1)
        bottom = QHBoxLayout()
        bottom.setSpacing(1)
        bottom.addWidget(self.use, 1)
        bottom.addWidget(scrolled(self.words), 1)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(1)
        whole.addLayout(row)
        whole.addLayout(top, 62)
        whole.addLayout(bottom, 38)

    # Playing -------------------------------------------------------------------------------------------

    def play(self) -> None:
        """Play, or pause."""
        if self.playback.playing:
            self.playback.pause()
        else:
            self.playback.start()
        self._last = time.perf_counter()
        if self.playback.playing:
            self._timer.start()
        self._show()
        self.commands.refresh()

    def _tick(self) -> None:
        now = time.perf_counter()
        self.playback.advance(now - self._last)
        self._last = now
        self._show()

    def to_tilt(self, tilt_deg: float) -> None:
        """To a tilt; playing stops."""
        self.playback.pause()
        self.playback.to_tilt(tilt_deg)
        self._show()

    def _slid(self, value: int) -> None:
        self.playback.pause()
        self.playback.to_share(value / SLIDER_STEPS)
        self._show()

    def keep(self) -> None:
        """Keep this design to be compared with, or let the kept one go."""
        if self.playback.kept is None:
            self.playback.keep(tr("kept"))
        else:
            self.playback.drop()
        self._show()

    def _show(self) -> None:
        if not self.playback.playing and self._timer.isActive():
            self._timer.stop()
            self.commands.refresh()
        self.slider.blockSignals(True)
        self.slider.setValue(round(self.playback.share * SLIDER_STEPS))
        self.slider.blockSignals(False)
        self.clock.setText(self.playback.clock(self.store.snapshot.speech))
        self.words.setText(unbroken(describe(self.playback, self.store.snapshot)))
        for view in (self.strobe, self.fan, self.use):
            view.update()

    # The window's requests -----------------------------------------------------------------------------

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document."""
        self.playback.follow(snapshot)
        self._show()

    def bring_out(self, finding: Finding) -> None:
        """To the moment a finding is about: the hinge's end, or the ground."""
        now = self.playback.now
        if now is not None:
            about_hinge = finding.group in ("hinge", "face", "balance", "wedge", "split")
            self.to_tilt(now.fall.hinge_broke_at_deg if about_hinge else now.fall.end_deg)

    def fit(self) -> None:
        """Back to the beginning."""
        self.to_tilt(0.0)

    def zoom(self, factor: float) -> None:
        """Nothing to zoom: the fall fills its place."""

    def pictures(self) -> tuple[Picture, ...]:
        """The drawings, for copying."""
        return self.strobe.picture(), self.fan.picture(), self.use.picture()
