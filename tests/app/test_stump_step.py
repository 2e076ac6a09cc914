"""The Stump step driven by mouse and keyboard: read a stump, see why, log it, learn from it."""

from __future__ import annotations

import csv
from pathlib import Path

import pytest
from pypdf import PdfReader
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot
from test_cut_step import drag, type_into

from plain_compass.app.frame.recovery import Recovery
from plain_compass.app.frame.settings import Settings
from plain_compass.app.frame.window import Window
from plain_compass.app.main import make_window
from plain_compass.app.steps.stump.days import DaysPage
from plain_compass.app.steps.stump.page import StumpPage
from plain_compass.app.steps.stump.why_view import bars_of
from plain_compass.app.steps.stump.yours import YoursPage
from plain_compass.core.stump.as_cut import AsCut
from plain_compass.job.demo import demo_job
from plain_compass.job.edits import set_values
from plain_compass.job.files import Opened, job_text, parse_job
from plain_compass.job.log_entries import entry_of_tree
from plain_compass.log.places import demo_entries
from plain_compass.log.store import StumpLog

Left = Qt.MouseButton.LeftButton


def stump(window: Window, tree_id: str = "WH-12") -> StumpPage:
    window.store.look_at(tree_id)
    QTest.keyClick(window, Qt.Key.Key_7)
    page = window.pages["stump"]
    assert isinstance(page, StumpPage) and window.step == "stump"
    QApplication.processEvents()
    return page


def yours(window: Window, page: StumpPage) -> YoursPage:
    window.book.log()
    window.book.finish()
    QTest.mouseClick(page.modes["yours"], Left)
    shown = page.parts["yours"]
    assert isinstance(shown, YoursPage)
    shown.fallers.setCurrentIndex(shown.fallers.findText("Wren"))
    shown.read_log()
    return shown


@pytest.mark.real_window
def test_the_main_path_mark_drag_read_why_learn_undo(window: Window) -> None:
    """As planned by one key, what differs by hand, why it lies there; the fan moves with what was learned, and back."""
    page, store = stump(window), window.store
    before = store.snapshot.plan
    QTest.keyClick(window, Qt.Key.Key_P, Qt.KeyboardModifier.AltModifier)
    read = store.snapshot.plan.as_cut
    assert (read.hinge_left_m, read.towards_deg, read.sat_back) == (before.cut.hinge.left_m, before.cut.gun_deg, "no")
    assert store.snapshot.plan.state == "down" and read.top_deg is None, "where it lies is another question"

    scale = page.plan.scale_now.px_per_m
    drag(page.plan, "as_cut.hinge_left_m", QPoint(0, 6))
    thick = store.snapshot.plan.as_cut.hinge_left_m
    assert thick == pytest.approx(before.cut.hinge.left_m + 6 / scale, abs=1.5 / scale)
    assert store.snapshot.plan.cut == before.cut, "the plan stays what it was"

    QTest.keyClick(window, Qt.Key.Key_M, Qt.KeyboardModifier.AltModifier)
    drag(page.lie, "as_cut.top_deg", QPoint(-30, 0))
    lies = store.snapshot.plan.as_cut
    assert lies.top_deg is not None and 0 < (before.cut.lay_deg - lies.top_deg) % 360 < 60

    page.watch.finish()
    story = page.watch.story
    assert story is not None and set(story.why.shares) == {"left"}
    bars = bars_of(story, store.snapshot)
    assert bars[-1].end_deg == pytest.approx(bars[-2].end_deg), "the parts add up to the miss"
    assert "left of the lay" in page.why.words.text() and "not explained" in page.why.words.text()

    window.falls.finish()
    fan = store.snapshot.fan
    shown = yours(window, page)
    QTest.mouseClick(shown.rows["aim"].switch, Left, pos=QPoint(8, shown.rows["aim"].switch.height() // 2))
    assert store.snapshot.job.hand.get("aim") is not None
    window.falls.finish()
    moved = store.snapshot.fan
    assert fan is not None and moved is not None
    assert moved.off_deg[1] > fan.off_deg[1] + 1.0, "Wren aims left"
    assert any(f.id == "learned.used" for f in store.snapshot.result.findings)
    window.commands.run("edit.undo")
    window.falls.finish()
    assert store.snapshot.fan is not None and store.snapshot.fan.off_deg == fan.off_deg
    assert not shown.rows["aim"].switch.isChecked()


def test_five_taps_are_enough_for_the_usual_stump(window: Window) -> None:
    """As planned, on its mark, one thing that differs, into the log."""
    page = stump(window)
    for name in ("stump.planned", "stump.mark"):
        window.commands.run(name)
    field = page.plan.fields.edits["as_cut.hinge_right_m"]
    QTest.mouseClick(field, Left)
    QTest.keyClicks(field, "6")
    QTest.keyClick(field, Qt.Key.Key_Return)
    window.commands.run("stump.log")
    entry = entry_of_tree(window.store.snapshot.job, "WH-12")
    assert entry is not None and entry.plan.as_cut.hinge_right_m == pytest.approx(0.06)
    assert entry.told.is_told and entry.model and len(entry.constants) == 12


def test_what_cannot_be_is_a_sentence_at_the_field_and_nothing_is_taken(window: Window, qtbot: QtBot) -> None:
    page, store = stump(window), window.store
    with qtbot.waitSignal(store.refused) as told:
        type_into(page.plan, "as_cut.hinge_left_m", "60 cm")
    assert "Hinge left" in told.args[0] and "60 cm" in told.args[0] and "accepted" in told.args[0]
    field = page.plan.fields.edits["as_cut.hinge_left_m"]
    assert field.property("wrong") and field.text() == "60 cm" and store.snapshot.plan.as_cut == AsCut()
    QTest.keyClick(field, Qt.Key.Key_Escape)
    assert field.text() == "" and not field.property("wrong")
    with qtbot.waitSignal(store.refused) as told:
        type_into(page.plan, "as_cut.depth_m", "40 cm")
    assert "apex" in told.args[0].lower() and store.snapshot.plan.as_cut == AsCut()


def test_what_was_not_read_shows_the_plan_pale_and_counts_as_unread(window: Window) -> None:
    page = stump(window)
    field = page.plan.fields.edits["as_cut.hinge_left_m"]
    assert field.text() == "" and field.placeholderText() == "plan 5 cm" and field.property("unmeasured")
    assert "0 of " in page.state.text() and "still stands" in page.state.text()
    type_into(page.plan, "as_cut.hinge_left_m", "5")
    assert field.text() == "5 cm" and not field.property("unmeasured")
    assert page.state.text().startswith("1 of ")


def test_a_top_told_in_paces_off_its_mark(window: Window) -> None:
    page, store = stump(window), window.store
    type_into(page.lie, "as_cut.beside_m", "3 paces R")
    assert store.snapshot.plan.as_cut.beside_m == pytest.approx(-3 * store.snapshot.job.person.pace_m)
    assert page.lie.fields.edits["as_cut.beside_m"].text().endswith("right")
    page.watch.finish()
    assert page.watch.story is not None and (page.watch.story.why.miss_deg or 0.0) < -5.0


def test_the_list_beside_has_every_field_and_sets_what_is_on_no_drawing(window: Window) -> None:
    page = stump(window)
    panel = window.side.stack.currentWidget()
    assert window.side.tabs[window.side.shown].text() == "Stump", "it is opened with the step"
    paths = [editor.path for editor in panel.editors]
    assert paths == [f"as_cut.{name}" for name in AsCut.__slots__]
    words = next(editor for editor in panel.editors if editor.path == "as_cut.rot")
    words.setText("brown, a hand deep")
    words.commit()
    assert window.store.snapshot.plan.as_cut.rot == "brown, a hand deep"
    window.show_step("cut")
    assert window.side.shown == 0
    assert page is not None


def test_a_read_stump_goes_into_the_job_and_the_log_and_is_corrected_there(window: Window) -> None:
    page, store = stump(window, "WH-15"), window.store
    window.book.finish()
    log = window.book.log()
    assert log is not None
    window.book.finish()
    before = log.count()
    window.commands.run("stump.log")
    assert log.count() == before + 1 and "in the log" in page.state.text()
    assert not window.commands._commands["stump.log"].enabled()
    entry = entry_of_tree(store.snapshot.job, "WH-15")
    assert entry is not None and log.entry(entry.id) == entry
    type_into(page.plan, "as_cut.hinge_left_m", "7.5")
    window.commands.run("stump.log")
    assert log.count() == before + 1
    mended = log.entry(entry.id)
    assert mended is not None and mended.plan.as_cut.hinge_left_m == pytest.approx(0.075)
    again = parse_job(job_text(store.snapshot.job), "job").job
    assert again.log == store.snapshot.job.log and len(again.log) == 1


def test_the_demo_keeps_its_stumps_apart_from_ones_own(window: Window) -> None:
    stump(window, "WH-15")
    window.commands.run("stump.log")
    assert window.book.is_demo and not window.book.file.exists()


def test_ones_own_job_has_ones_own_log_which_another_window_sees(window: Window, qtbot: QtBot, tmp_path: Path) -> None:
    path = tmp_path / "own.pcjob.json"
    window.store.save(path)
    page = stump(window, "WH-15")
    assert not window.book.is_demo
    window.commands.run("stump.log")
    other = StumpLog(window.book.file)
    assert other.count() == 1
    other.add(demo_entries()[:3])
    with qtbot.waitSignal(window.book.changed):
        window.book.look()
    window.commands.run("stump.yours")
    shown = page.parts["yours"]
    assert isinstance(shown, YoursPage) and shown.records is not None and len(shown.records.numbers) == 4


def test_a_job_given_away_keeps_its_stumps_and_they_are_taken_in_once(qtbot: QtBot, tmp_path: Path) -> None:
    from plain_compass.app.main import application

    application()
    from dataclasses import replace

    given = replace(demo_job(), name="Given away", log=tuple(demo_entries()[:4]))
    made = make_window(Opened(given), None, Settings(tmp_path / "s.ini"), Recovery(tmp_path / "r"))
    made.jobs.ask_unsaved = lambda: "keep"  # type: ignore[method-assign]
    for _ in range(2):
        made.commands.run("stump.take")
        log = made.book.log()
        assert log is not None and log.count() == 4
    made.close()


def test_a_log_given_away_is_taken_in_whole_or_not_at_all(window: Window, qtbot: QtBot, tmp_path: Path) -> None:
    stump(window)
    window.book.log()
    window.book.finish()
    good, bad = tmp_path / "good.jsonl", tmp_path / "bad.jsonl"
    from dataclasses import replace

    from plain_compass.log.exchange import lines_text

    others = [replace(entry, id=f"crew-{n}") for n, entry in enumerate(demo_entries()[:3])]
    good.write_text(lines_text(others), encoding="utf-8")
    bad.write_text(lines_text(others[:1]) + "{", encoding="utf-8")
    with qtbot.waitSignal(window.store.refused) as told:
        window.book.take_in_file(good, bad)
    assert "bad.jsonl, line 2" in told.args[0] and "Nothing was taken in" in told.args[0]
    with qtbot.waitSignal(window.store.told) as told:
        window.book.take_in_file(good)
    assert told.args[0] == "3 of 3 new: the log has 43 stumps now."


def test_a_record_is_left_out_by_a_click_and_by_keys(window: Window) -> None:
    shown = yours(window, stump(window))
    view = shown.over_time
    from plain_compass.app.drawing.stump.learned_painter import dots_of

    assert view.known is not None and view.known.count == 20
    at, index = dots_of(view.box(), view.known)[4]
    QTest.mouseClick(view, Left, pos=at.toPoint())
    assert view.known.count == 19 and bool(view.known.out[index])
    QTest.keyClick(view, Qt.Key.Key_Space)
    assert view.known.count == 20
    QTest.keyClick(view, Qt.Key.Key_Right)
    assert view.chosen == 5
    QTest.keyClick(view, Qt.Key.Key_Space)
    assert bool(view.known.out[5])


def test_another_quantity_is_picked_and_the_back_test_told(window: Window) -> None:
    shown = yours(window, stump(window))
    QTest.mouseClick(shown.rows["hinge_left"].strip, Left)
    assert shown.over_time.known is not None and shown.over_time.known.key == "hinge_left"
    QTest.mouseClick(shown.test.button, Left)
    assert shown.test.button.text() == "Stop"
    shown.test.finish()
    assert "17 told anew" in shown.test.words.text() and shown.test.button.text() == "Back-test"


def test_day_and_year_are_shown_filtered_and_written(window: Window, tmp_path: Path) -> None:
    page = stump(window)
    window.book.log()
    window.book.finish()
    window.commands.run("stump.days")
    days = page.parts["days"]
    assert isinstance(days, DaysPage) and "trees felled" in days.words.text() and ">40<" in days.words.text()
    days.fallers.setCurrentIndex(days.fallers.findText("Tarn"))
    days.periods.setCurrentIndex(days.periods.findText("2025"))
    days.read_log()
    assert "Wren" not in days.words.text() and ">40<" not in days.words.text()
    for kind in ("csv", "pdf"):
        where = tmp_path / f"days.{kind}"
        page_actions(window, str(where))
        window.commands.run(f"stump.days_{kind}")
        assert where.exists()
    rows = list(csv.reader((tmp_path / "days.csv").open(encoding="utf-8")))
    assert ["Faller", "Tarn", "3"] in rows
    told = " ".join(page.extract_text() for page in PdfReader(tmp_path / "days.pdf").pages)
    assert "trees felled" in " ".join(told.split())


def page_actions(window: Window, where: str) -> None:
    """Answer the question for a file."""
    for command in window.commands:
        if command.id.startswith("stump.days_"):
            owner = command.do.__closure__[0].cell_contents  # type: ignore[attr-defined]
            owner.ask_where = lambda *_: where


def test_a_plan_changed_after_its_stump_was_read_is_told_and_nothing_is_lost(window: Window) -> None:
    page, store = stump(window), window.store
    type_into(page.plan, "as_cut.depth_m", "12")
    thin = {"tree.trunk.diameter_m": 0.15, "tree.trunk.butt_diameter_m": None}
    store.change("thinner", lambda job: set_values(job, "WH-12", thin))
    assert store.snapshot.as_cut_trouble and page.state.text() == store.snapshot.as_cut_trouble
    assert store.snapshot.plan.as_cut.depth_m == pytest.approx(0.12)
    page.watch.finish()
    page.why.refresh(store.snapshot)


def test_reading_a_stump_asks_nothing_of_the_plan_anew(window: Window) -> None:
    """What the plan tells stays while its stump is read: it does not rest on it."""
    stump(window)
    window.store.set("as_cut.hinge_left_m", 0.05, "hinge left")
    window.falls.finish()
    before = window.store.snapshot
    window.store.set("as_cut.hinge_left_m", 0.055, "hinge left")
    after = window.store.snapshot
    assert after.result is before.result and after.fan is before.fan and after.chances is before.chances
