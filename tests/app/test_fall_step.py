"""The Fall step as a person uses it: play, drag the tilt, compare, aim off, undo, write out."""

from __future__ import annotations

import json
import math
import re
from itertools import combinations, pairwise
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, QPointF, QRectF, Qt
from PySide6.QtGui import QImage
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QToolButton
from pytestqt.qtbot import QtBot

from listening import Listening
from plain_compass.app.drawing.fall.strobe_painter import MOST_GHOSTS, STEPS_S, ghost_times
from plain_compass.app.frame.fall_watch import FallWatch
from plain_compass.app.frame.store import Store
from plain_compass.app.frame.window import Window
from plain_compass.app.main import PAGES
from plain_compass.app.steps.fall.actions import FallActions
from plain_compass.app.steps.fall.page import FallPage
from plain_compass.app.steps.fall.playback import Playback
from plain_compass.job.demo import demo_job
from plain_compass.job.files import Opened

Left = Qt.MouseButton.LeftButton


@pytest.fixture
def fall(window: Window) -> FallPage:
    """The step opened by its key, with everything reckoned."""
    QTest.keyClick(window, Qt.Key.Key_5)
    window.falls.finish()
    page = window.page
    assert isinstance(page, FallPage)
    return page


def button(page: FallPage, name: str) -> QToolButton:
    found = page.findChild(QToolButton, f"button:{name}")
    assert isinstance(found, QToolButton)
    return found


def look_at(window: Window, tree_id: str) -> None:
    window.store.look_at(tree_id)
    window.falls.finish()


# Playing and dragging --------------------------------------------------------------------------------------


@pytest.mark.real_window
def test_the_fall_is_played_paused_by_its_button_and_stops_by_itself(qtbot: QtBot, fall: FallPage) -> None:
    play = button(fall, "fall.play")
    QTest.mouseClick(play, Left)
    assert play.text() == "Pause"
    qtbot.waitUntil(lambda: fall.playback.time_s > 0.1, timeout=3000)
    QTest.mouseClick(play, Left)
    held = fall.playback.time_s
    qtbot.wait(90)
    assert fall.playback.time_s == held and not fall.playback.playing
    assert play.text() == "Play"
    fall.playback.time_s = fall.playback.ends_s - 0.05
    QTest.mouseClick(play, Left)
    qtbot.waitUntil(lambda: not fall.playback.playing, timeout=3000)
    assert fall.playback.tilt_deg == pytest.approx(fall.playback.now.fall.end_deg, abs=0.5)
    QTest.mouseClick(play, Left)
    assert fall.playback.time_s < 1.0
    fall.play()


@pytest.mark.real_window
def test_the_tilt_is_dragged_on_the_tree_on_the_curve_and_on_the_slider(fall: FallPage) -> None:
    scale = fall.strobe.scale_now()
    cut = fall.store.snapshot.plan.cut.height_m
    for tilt in (30.0, 62.0):
        turn = math.radians(tilt)
        at = scale.point(8 * math.sin(turn), cut + 8 * math.cos(turn)).toPoint()
        QTest.mouseClick(fall.strobe, Left, pos=at)
        assert fall.playback.tilt_deg == pytest.approx(tilt, abs=1.0)
    y = fall.use.height() // 2
    QTest.mousePress(fall.use, Left, pos=QPoint(fall.use.width() // 3, y))
    first = fall.playback.tilt_deg
    QTest.mouseMove(fall.use, QPoint(fall.use.width() // 2, y))
    QTest.mouseRelease(fall.use, Left, pos=QPoint(fall.use.width() // 2, y))
    assert fall.playback.tilt_deg > first + 5
    fall.slider.setValue(fall.slider.maximum())
    assert fall.playback.tilt_deg == pytest.approx(fall.playback.now.fall.end_deg, abs=0.5)
    assert f"tilt {fall.playback.tilt_deg:.0f}°" in fall.clock.text()


def test_arrow_keys_go_a_degree_and_with_shift_ten(fall: FallPage) -> None:
    fall.to_tilt(40.0)
    QTest.keyClick(fall.strobe, Qt.Key.Key_Right)
    assert fall.playback.tilt_deg == pytest.approx(41.0, abs=0.1)
    QTest.keyClick(fall.strobe, Qt.Key.Key_Left, Qt.KeyboardModifier.ShiftModifier)
    assert fall.playback.tilt_deg == pytest.approx(31.0, abs=0.1)


def test_a_finding_brings_out_its_moment(window: Window, fall: FallPage) -> None:
    told = {f.id: f for f in window.store.snapshot.result.findings}
    fall.bring_out(told["hinge.side"])
    assert fall.playback.tilt_deg == pytest.approx(fall.playback.now.fall.hinge_broke_at_deg, abs=0.5)
    fall.bring_out(told["fall.drift"])
    assert fall.playback.tilt_deg == pytest.approx(fall.playback.now.fall.end_deg, abs=0.5)


def test_a_tree_that_hangs_stops_where_it_hangs(window: Window, fall: FallPage) -> None:
    look_at(window, "WH-21")
    fall.to_tilt(90.0)
    assert fall.playback.tilt_deg == pytest.approx(fall.playback.now.fall.end_deg, abs=0.5)
    assert fall.playback.now.fall.end_deg < 40
    assert "hangs in leaning ash" in fall.words.text()


# Comparing and aiming off ----------------------------------------------------------------------------------


@pytest.mark.real_window
def test_a_kept_design_is_compared_in_all_three_drawings_and_the_table(window: Window, fall: FallPage) -> None:
    look_at(window, "WH-12")
    fall.to_tilt(50.0)
    plain = [view.grab().toImage() for view in (fall.strobe, fall.fan, fall.use)]
    QTest.mouseClick(button(fall, "fall.keep"), Left)
    window.store.set("cut.hinge.left_m", 0.09, "thicker")
    window.falls.finish()
    assert fall.playback.kept is not None and fall.playback.now is not None
    assert fall.playback.kept.fall.hinge_broke_at_deg != fall.playback.now.fall.hinge_broke_at_deg
    assert "<b>kept</b>" in fall.words.text()
    compared = [view.grab().toImage() for view in (fall.strobe, fall.fan, fall.use)]
    assert all(one != other for one, other in zip(plain, compared, strict=True))
    assert button(fall, "fall.keep").text() == "Stop comparing"
    QTest.mouseClick(button(fall, "fall.keep"), Left)
    assert fall.playback.kept is None and "<b>kept</b>" not in fall.words.text()


@pytest.mark.real_window
def test_aiming_off_centres_the_fan_moves_the_gun_mark_and_is_undone(window: Window, fall: FallPage) -> None:
    look_at(window, "WH-12")
    before = window.store.snapshot
    assert before.fan is not None and before.fan.off_deg[1] < -2
    QTest.mouseClick(button(fall, "fall.aim"), Left)
    window.falls.finish()
    after = window.store.snapshot
    assert after.fan is not None and abs(after.fan.off_deg[1]) < 0.6
    assert after.plan.cut.aim_off_deg > 2 and after.plan.cut.lay_deg == before.plan.cut.lay_deg
    assert {"gun", "lay_aside"} <= {mark.key for mark in after.result.tape_marks}
    window.show_step("card")
    window.store.undo()
    window.falls.finish()
    assert window.store.snapshot.plan.cut == before.plan.cut
    assert window.store.snapshot.fan is before.fan, "what was reckoned before is remembered"


def test_after_undo_the_page_shows_the_fall_that_was_reckoned_before(
    qtbot: QtBot, window: Window, fall: FallPage
) -> None:
    look_at(window, "WH-12")
    before = window.store.snapshot.fall
    window.store.set("cut.hinge.left_m", 0.08, "thicker")
    window.falls.finish()
    window.store.undo()
    assert fall.playback.now is not None, "the last fall stays until the next is there"
    qtbot.waitUntil(lambda: not window.falls.busy, timeout=5000)
    assert fall.playback.now.fall is before
    assert "Reckoning" not in fall.words.text()
    window.store.look_at("WH-21")
    assert fall.playback.now is None and "Reckoning" in fall.words.text()


def test_the_aim_can_be_typed_on_the_cut_page_and_the_ring_shows_the_lay(window: Window) -> None:
    window.store.set("cut.aim_off_deg", 5.0, "aim off")
    window.show_step("cut")
    window.falls.finish()
    assert window.store.snapshot.result.case.cut.gun_deg == pytest.approx((214.0 - 5.0) % 360)
    assert not window.grab().isNull()


# Behind the window -----------------------------------------------------------------------------------------


def test_a_first_look_comes_before_the_whole_and_the_findings_join_the_others(store: Store) -> None:
    watch = FallWatch(store)
    counts = []
    store.changed.connect(lambda snapshot: counts.append(len(snapshot.fan.samples) if snapshot.fan else 0))
    watch.finish()
    assert counts == [512, 2048]
    assert any(f.id == "fall.drift" for f in store.snapshot.result.findings)
    watch.stop()


def test_nothing_is_reckoned_while_something_is_dragged(store: Store) -> None:
    watch = FallWatch(store)
    watch.finish()
    store.preview({"cut.hinge.left_m": 0.06})
    assert store.snapshot.fan is None and not watch.busy
    store.finish("hinge")
    assert watch.busy
    watch.finish()
    assert store.snapshot.fan is not None
    watch.stop()


def test_every_step_with_a_page_is_said_to_be_built_and_practice_stands_apart(window: Window) -> None:
    assert set(window.trail.buttons) == set(PAGES) - {"practice"}


def test_the_clock_runs_to_the_last_of_both_designs() -> None:
    store = Store(Opened(demo_job()))
    watch = FallWatch(store)
    watch.finish()
    play = Playback()
    assert play.ends_s == 0.0 and play.clock(store.snapshot.speech) == ""
    play.follow(store.snapshot)
    play.keep("kept")
    store.look_at("WH-21")
    watch.finish()
    play.follow(store.snapshot)
    assert play.now is not None and play.kept is not None
    assert play.ends_s == max(play.now.ends_s, play.kept.ends_s)
    play.start()
    play.advance(100.0)
    assert not play.playing and play.share == pytest.approx(1.0)
    watch.stop()


# Writing out -----------------------------------------------------------------------------------------------


@pytest.mark.parametrize("what", ["png", "svg", "csv", "geojson"])
def test_frames_samples_and_fan_are_written(
    window: Window, fall: FallPage, tmp_path: Path, what: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    look_at(window, "WH-24")
    where = tmp_path if what in ("png", "svg") else tmp_path / f"fall.{what}"
    monkeypatch.setattr(FallActions, "ask_what", lambda *_: what)
    monkeypatch.setattr(FallActions, "ask_where", lambda *_: str(where))
    monkeypatch.setattr("plain_compass.app.steps.fall.frames.PER_SECOND", 2)
    QTest.mouseClick(button(fall, "fall.export"), Left)
    if what in ("png", "svg"):
        files = sorted(tmp_path.glob(f"*.{what}"))
        assert len(files) > 4 and files[0].name == f"WH-24-fall-000.{what}"
        assert files[0].read_bytes() != files[-1].read_bytes()
    elif what == "csv":
        lines = where.read_text().splitlines()
        assert len(lines) == 2049 and lines[0].startswith("sample,bearing_error_deg,reach_m")
    else:
        whole = json.loads(where.read_text())
        assert [f["properties"]["kind"] for f in whole["features"]] == ["fan", "middle of the fan"]
        ring = whole["features"][0]["geometry"]["coordinates"][0]
        assert ring[0] == ring[-1] and len(ring) > 10


def test_a_folder_that_cannot_be_written_is_said_in_a_sentence(
    window: Window, fall: FallPage, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(FallActions, "ask_what", lambda *_: "csv")
    monkeypatch.setattr(FallActions, "ask_where", lambda *_: "/nowhere/at/all.csv")
    window.commands.run("fall.export")
    assert "all.csv" in window.message.text()


def test_the_fan_stands_on_ground_and_cut_too(window: Window, fall: FallPage) -> None:
    for step in ("ground", "cut"):
        window.show_step(step)
        with_fan = window.page.plan.grab().toImage()
        window.store.dragging = True
        window.store.preview({"cut.hinge.left_m": 0.0451})
        without = window.page.plan.grab().toImage()
        window.store.abandon()
        window.falls.finish()
        assert with_fan != without, step


def test_every_demo_tree_is_told_in_whole_sentences(window: Window, fall: FallPage) -> None:
    for plan in window.store.snapshot.job.trees:
        look_at(window, plan.id)
        words = re.sub(r"<[^>]+>", " ", fall.words.text())
        assert "{" not in words and "[" not in words and "nan" not in words
        assert not fall.strobe.grab().isNull()
        assert fall.strobe.tilt_at(QPointF(300, 100)) is not None


# What the drawings say -------------------------------------------------------------------------------------


@pytest.mark.parametrize("tree_id", ["WH-07", "WH-12", "WH-21", "WH-24"])
def test_ghosts_stand_at_equal_times_few_enough_and_the_faster_the_farther_apart(
    window: Window, fall: FallPage, tree_id: str
) -> None:
    look_at(window, tree_id)
    now = fall.playback.now
    assert now is not None
    step, times = ghost_times(now.fall)
    assert step in STEPS_S and 2 <= len(times) <= MOST_GHOSTS + 1
    whole_s = now.fall.trace.time_at(math.radians(now.fall.end_deg))
    assert whole_s - times[-1] < step, "they stand all the way down"
    assert [later - earlier for earlier, later in pairwise(times)] == pytest.approx([step] * (len(times) - 1))
    angles = [now.fall.trace.pose_at(time).tilt_rad for time in times]
    turned = [later - earlier for earlier, later in pairwise(angles)]
    # It gathers speed until something is met.
    assert all(later >= earlier - 1e-6 for earlier, later in pairwise(turned[:-1]))


@pytest.mark.parametrize("size", [(1100, 700), (1280, 800), (1920, 1080)])
@pytest.mark.parametrize("tree_id", ["WH-07", "WH-12", "WH-15", "WH-18", "WH-21", "WH-24"])
def test_on_the_falls_drawings_no_word_is_cut_or_lies_over_another(
    window: Window, fall: FallPage, tree_id: str, size: tuple[int, int]
) -> None:
    window.resize(*size)
    look_at(window, tree_id)
    QApplication.processEvents()
    for view in (fall.strobe, fall.use):
        with Listening(QImage(view.size(), QImage.Format.Format_RGB32)) as painter:
            view.paint(painter)
        texts = painter.written
        assert texts
        for text, box in texts:
            assert QRectF(view.rect()).adjusted(-1, -2, 1, 2).contains(box), (text, view.title)
        for (one, box), (other, beside) in combinations(texts, 2):
            assert not box.adjusted(1, 3, -1, -3).intersects(beside), (one, other)


def test_the_scale_is_stated_and_is_the_one_it_is_drawn_at(window: Window, fall: FallPage) -> None:
    look_at(window, "WH-07")
    with Listening(QImage(fall.strobe.size(), QImage.Format.Format_RGB32)) as painter:
        fall.strobe.paint(painter)
    told = next(text for text, _ in painter.written if "up as along" in text)
    assert re.match(r"\d+ m, up as along · a ghost each [\d.]+ s$", told)
