"""After any edits every screen shows what it would show if it had been opened on that job just now."""

from __future__ import annotations

import random
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import numpy as np
import pytest
from PySide6.QtCore import QPoint
from PySide6.QtGui import QImage
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QWidget

from plain_compass.app.frame.fall_watch import FallWatch
from plain_compass.app.frame.recovery import Recovery
from plain_compass.app.frame.settings import Settings
from plain_compass.app.frame.window import Window
from plain_compass.app.main import make_window
from plain_compass.core.base import kept
from plain_compass.job.document import Job
from plain_compass.job.fields import quantity_at
from plain_compass.job.files import Opened

EDITS = 200
PATHS = (
    "tree.height_m",
    "tree.lean.angle_deg",
    "tree.lean.bearing_deg",
    "tree.crown.base_m",
    "tree.crown.readings.0.radius_m",
    "tree.trunk.diameter_m",
    "tree.trunk.bark_m",
    "cut.lay_deg",
    "cut.height_m",
    "cut.face.depth_m",
    "cut.face.roof_deg",
    "cut.hinge.left_m",
    "cut.hinge.right_m",
    "cut.back.step_m",
    "cut.aim_off_deg",
    "cut.wedges.0.at_deg",
    "site.wind_from_deg",
    "site.slope_deg",
    "site.downhill_deg",
    "site.kept_away_lengths",
    "kit.bar_m",
    "kit.wedge_thickness_m",
    "kit.maul_kg",
)
"""One of every kind: what is measured, what is cut, what stands round it, what is carried."""
STEPS = ("look", "ground", "cut", "stages", "fall", "card")


def edit(window: Window, chance: random.Random) -> None:
    """One edit as a person makes them: typed, dragged and let go, dragged and given up, undone, another tree."""
    store, kind = window.store, chance.random()
    if kind < 0.08:
        store.undo()
        return
    if kind < 0.12:
        store.redo()
        return
    if kind < 0.20:
        store.look_at(chance.choice(store.snapshot.job.trees).id)
        return
    path = chance.choice(PATHS)
    try:
        value = store.snapshot.value(path)
    except (IndexError, LookupError):
        return
    if value is None:
        return
    known = quantity_at(path)
    to = value + chance.uniform(-1, 1) * max(abs(value) * 0.1, 4 * known.step)
    to = to % 360.0 if path.endswith(("bearing_deg", "lay_deg", "downhill_deg", "from_deg")) else to
    to = min(max(to, known.low), known.high)
    if kind < 0.6:
        store.set(path, to, "edit")
        return
    for share in (0.3, 0.7, 1.0):
        store.preview({path: value + share * (to - value)})
    if kind < 0.9:
        store.finish("dragged")
    else:
        store.abandon()


def finished(window: Window) -> None:
    """Let everything that is reckoned in slices come to its end."""
    for watch in window.findChildren(FallWatch):
        watch.finish()
    window.pages["ground"].rose.finish()  # type: ignore[attr-defined]
    window.side.mends.finish()
    QTest.qWait(5)


def picture(window: Window, step: str) -> np.ndarray:
    """The page of a step as pixels."""
    window.show_step(step)
    finished(window)
    # What waits until the hands are still (the survey, the centre's ellipse) has had its pause, on a slow machine too:
    # nothing changes any more.
    QTest.qWait(450)
    shot = grabbed(window.page)
    for _ in range(20):
        QTest.qWait(150)
        before, shot = shot, grabbed(window.page)
        if before.shape == shot.shape and not (before != shot).any():
            break
    return shot


def grabbed(page: QWidget) -> np.ndarray:
    """A widget as pixels."""
    shot = page.grab().toImage().convertToFormat(QImage.Format.Format_RGB32)
    return np.frombuffer(shot.constBits(), dtype=np.uint8).reshape(shot.height(), shot.width(), 4)[:, :, :3].copy()


@contextmanager
def opened_on(job: Job, tree_id: str, folder: Path) -> Iterator[Window]:
    """A window opened on a job just now, with nothing kept from before."""
    kept.forget()
    window = make_window(Opened(job), None, Settings(folder / "s.ini"), Recovery(folder / "r"))
    window.jobs.ask_unsaved = lambda: "keep"  # type: ignore[method-assign]
    window.resize(1280, 800)
    window.show()
    window.store.look_at(tree_id)
    yield window
    window.close()
    window.deleteLater()


def test_every_screen_is_as_one_opened_just_now_after_two_hundred_edits(window: Window, tmp_path: Path) -> None:
    chance = random.Random(14)
    for number in range(EDITS):
        edit(window, chance)
        if number % 10 == 0:
            window.show_step(chance.choice(STEPS))
        if number % 25 == 0:
            QTest.qWait(20)
    assert len(window.store.history.states) > 60
    # Nothing has the keyboard, and nothing is pointed at.
    window.setFocus()
    QTest.mouseMove(window, QPoint(1, 1))
    job, tree_id = window.store.snapshot.job, window.store.tree_id
    here = {step: picture(window, step) for step in STEPS}
    findings = window.store.snapshot.result.findings
    with opened_on(job, tree_id, tmp_path) as fresh:
        fresh.setFocus()
        there = {step: picture(fresh, step) for step in STEPS}
        assert fresh.store.snapshot.result.findings == findings
    for step in STEPS:
        assert here[step].shape == there[step].shape
        differs = np.argwhere((here[step] != there[step]).any(axis=2))
        assert not len(differs), f"{step}: {len(differs)} points differ, the first at {differs[0][::-1]}"


def test_a_screen_that_was_not_told_would_be_seen(window: Window) -> None:
    before = picture(window, "cut")
    window.store.set("cut.hinge.left_m", window.store.snapshot.plan.cut.hinge.left_m + 0.02, "edit")
    assert (picture(window, "cut") != before).any()


@pytest.mark.parametrize(
    ("step", "tree_id", "path", "value"),
    [
        ("ground", "WH-07", "site.obstacles.0.points.0.north_m", 9.0),
        ("ground", "WH-07", "site.obstacles.0.name", "old wall"),
        ("ground", "WH-07", "kit.wedge_thickness_m", 0.06),
        ("cut", "WH-21", "cut.lay_deg", 100.0),
        ("look", "WH-15", "tree.decay.shell.0.sound_m", 0.05),
    ],
)
def test_a_layer_is_painted_anew_when_what_it_shows_changes(
    window: Window, tmp_path: Path, step: str, tree_id: str, path: str, value: object
) -> None:
    """At one scale and one size: what is kept of a drawing is kept by what it shows."""
    window.store.look_at(tree_id)
    before = picture(window, step)
    window.store.set(path, value, "edit")
    here = picture(window, step)
    assert (here != before).any()
    window.setFocus()
    with opened_on(window.store.snapshot.job, tree_id, tmp_path) as fresh:
        fresh.setFocus()
        assert not (picture(fresh, step) != here).any()
