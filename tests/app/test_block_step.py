"""The Block driven by mouse and keyboard: plan, move one up, read why, keep a lay, mark one down, write the sheet."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

import pytest
from pypdf import PdfReader
from PySide6.QtCore import QPoint, QPointF, QSizeF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLineEdit
from shapely.geometry import Point, Polygon

from plain_compass.app.drawing.pages import MM_PX, scale_for
from plain_compass.app.frame.window import Window
from plain_compass.app.steps.block.actions import BlockActions
from plain_compass.app.steps.block.page import BlockPage
from plain_compass.app.steps.block.papers import BlockPapers
from plain_compass.app.steps.block.sheet import DaySheet, print_on, sheet_preview
from plain_compass.core.base.levels import Level
from plain_compass.core.base.paths import with_value
from plain_compass.job.block_edits import fixed_lay
from plain_compass.job.document import Job, with_tree
from plain_compass.job.edits import set_value

Left = Qt.MouseButton.LeftButton


@pytest.fixture
def block(window: Window) -> Iterator[BlockPage]:
    """The demo's six, of which three stand, put in order."""
    QTest.keyClick(window, Qt.Key.Key_8)
    page = window.pages["block"]
    assert isinstance(page, BlockPage)
    page.watch.finish()
    QApplication.processEvents()
    yield page
    page.watch.stop()


@pytest.fixture
def meeting(window: Window, block: BlockPage) -> Iterator[BlockPage]:
    """The same with WH-12 ten metres north of WH-07, which is kept on a lay straight into it."""

    def towards(job: Job) -> Job:
        here = job.plan("WH-07").at
        beside = with_value(job.plan("WH-12"), "at", replace(here, north_m=here.north_m + 10.0))
        turned = with_value(job.plan("WH-07"), "cut.lay_deg", 0.0)
        both = with_tree(with_tree(job, "WH-07", turned), "WH-12", beside)
        return fixed_lay(both, "WH-07", stays=True)

    window.store.change("straight into it", towards)
    block.watch.finish()
    yield block
    window.commands.run("edit.undo")


def ids(page: BlockPage) -> list[str]:
    return [page.list.item(row).data(Qt.ItemDataRole.UserRole) for row in range(page.list.count())]


@pytest.mark.real_window
def test_the_main_path_plan_move_one_up_read_why_keep_a_lay_mark_one_down(window: Window, block: BlockPage) -> None:
    order = ids(block)
    assert set(order) == {"WH-07", "WH-12", "WH-21"} and "3 trees to fell" in block.state.text()
    last = order[-1]
    at = block.map.scale().point(*next((t.east_m, t.north_m) for t in block.map.trees() if t.id == last))
    QTest.mouseClick(block.map, Left, pos=at.toPoint())
    assert block.map.picked == last and block.list.currentRow() == 2
    QTest.keyClick(block.list, Qt.Key.Key_Up, Qt.KeyboardModifier.ControlModifier)
    assert [(e.earlier, e.later) for e in window.store.snapshot.job.block.first] == [(last, order[1])]
    block.watch.finish()
    assert ids(block).index(last) < ids(block).index(order[1])
    window.commands.run("block.fix")
    block.watch.finish()
    assert window.store.snapshot.job.block.of(last).lay == "fixed"
    drawn = next(t for t in block.map.trees() if t.id == last)
    assert drawn.lay_deg == window.store.snapshot.job.plan(last).cut.lay_deg
    window.store.change("felled", lambda job: set_value(job, order[0], "state", "down"))
    block.watch.finish()
    assert order[0] not in ids(block) and "2 trees to fell" in block.state.text()
    for _ in range(3):
        window.commands.run("edit.undo")
    block.watch.finish()
    assert ids(block) == order


def test_what_is_picked_says_why_it_stands_there_and_the_rest_what_to_take_along(meeting: BlockPage) -> None:
    assert "To take along:" in meeting.why.text() and "bar of" in meeting.why.text()
    meeting.pick("WH-12")
    assert "WH-12 before WH-07" in meeting.why.text()
    assert ("WH-12", "WH-07", False) in meeting.map.arrows()


def test_what_a_move_breaks_is_said_at_once_with_the_nearest_place_that_does_not(
    window: Window, meeting: BlockPage
) -> None:
    order = ids(meeting)
    assert order.index("WH-12") < order.index("WH-07")
    meeting.pick("WH-07")
    assert "Why not elsewhere:" in meeting.why.text() and "Not as early as" in meeting.why.text()
    meeting.move_to("WH-07", 0)
    # Said before anything is reckoned anew, and still there once it is.
    assert "WH-07 would fall into WH-12, which still stands" in meeting.why.text()
    assert "WH-07 at 1" in meeting.why.text()
    meeting.watch.finish()
    assert meeting.why.text().startswith("WH-07 at 1:")
    meeting.pick("WH-21")
    assert "WH-07 at 1:" not in meeting.why.text()
    window.commands.run("edit.undo")


def test_one_that_hangs_is_marked_and_everything_near_it_waits(window: Window, block: BlockPage) -> None:
    block.pick("WH-12")
    assert window.store.tree_id == "WH-12" and block.decided.isVisible()
    combo = block.decided.state
    combo.setFocus()
    # Down the list: still stands, is down, hangs in another.
    for _ in range(2):
        QTest.keyClick(combo, Qt.Key.Key_Down)
    assert window.store.snapshot.plan.state == "hung"
    block.watch.finish()
    assert "WH-12" not in ids(block)
    assert window.top.verdict.accessibleDescription().startswith("It hangs. Nobody under it")
    assert window.top.sign.level == Level.STOP
    block.pick("")
    text = block.why.text()
    assert "WH-12: it hangs: for those qualified" in text
    for _ in range(2):
        window.commands.run("edit.undo")
    block.watch.finish()
    assert "WH-12" in ids(block)


def test_a_season_is_typed_and_a_day_that_is_none_is_said(window: Window, block: BlockPage) -> None:
    block.pick("WH-21")
    edit = block.decided.days["not_before"]
    edit.setFocus()
    QTest.keyClicks(edit, "soon")
    QTest.keyClick(edit, Qt.Key.Key_Return)
    assert "2026-09-01" in window.message.text() and edit.text() == "soon"
    edit.selectAll()
    QTest.keyClicks(edit, "2030-03-01")
    QTest.keyClick(edit, Qt.Key.Key_Return)
    assert window.store.snapshot.job.block.of("WH-21").not_before == "2030-03-01"
    block.watch.finish()
    window.commands.run("edit.undo")


def test_what_could_not_be_taken_of_one_tree_is_not_said_of_another(block: BlockPage) -> None:
    block.pick("WH-21")
    edit = block.decided.wind
    edit.setFocus()
    QTest.keyClicks(edit, "a breeze")
    QTest.keyClick(edit, Qt.Key.Key_Return)
    assert edit.text() == "a breeze"
    block.pick("WH-07")
    assert edit.text() == ""


def test_a_tree_or_an_arrow_that_is_pointed_at_says_why(meeting: BlockPage) -> None:
    meeting.pick("WH-12")
    place = {t.id: meeting.map.scale().point(t.east_m, t.north_m) for t in meeting.map.trees()}
    assert "WH-12 before WH-07" in meeting.map.pointed_at(place["WH-12"])
    assert "WH-12 before WH-07" in meeting.map.pointed_at((place["WH-12"] + place["WH-07"]) / 2)
    assert meeting.map.pointed_at(QPointF(2.0, 2.0)) == ""


def test_a_forecast_is_read_and_a_limit_typed_and_the_tree_waits_for_the_wind(
    window: Window, block: BlockPage, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    begins = "2030-03-01"
    window.store.change("begins", lambda job: with_value(job, "block.begins", begins))
    table = tmp_path / "wind.csv"
    table.write_text("hour,speed\n" + "".join(f"{begins} {h:02d}:00,{9 if h < 11 else 3}\n" for h in range(8, 14)))
    monkeypatch.setattr(BlockActions, "ask_forecast", lambda _: str(table))
    window.commands.run("block.forecast")
    assert "6 hours of wind taken in." in window.message.text()
    block.watch.finish()
    block.pick(first := ids(block)[0])
    edit = block.decided.wind
    edit.setFocus()
    QTest.keyClicks(edit, "6")
    QTest.keyClick(edit, Qt.Key.Key_Return)
    assert edit.text() == "6 m/s"
    block.watch.finish()
    assert f"Wind: {first} goes up to 6 m/s; above it from 08:00 to 11:00" in block.why.text()
    found, at = block.watch.found, block.watch.block.index(first)
    assert next(slot for slot in found.slots if slot.tree == at).begins_min >= 180.0
    for _ in range(3):
        window.commands.run("edit.undo")


def typed(edit: QLineEdit, text: str) -> None:
    edit.setFocus()
    edit.selectAll()
    QTest.keyClick(edit, Qt.Key.Key_Delete)
    QTest.keyClicks(edit, text)
    QTest.keyClick(edit, Qt.Key.Key_Return)


def test_the_days_of_the_block_are_typed_beside_the_map(window: Window, block: BlockPage) -> None:
    window.commands.run("block.hands")
    hours = block.hands.hours
    assert hours["first day"].isVisible() and not block.list.isVisible()
    for name, text in (("hours a day", "0.75 h"), ("first day", "2031-05-05"), ("work begins", "7:30"), ("break", "")):
        typed(hours[name], text)
    wanted = window.store.snapshot.job.block
    assert (wanted.day_s, wanted.begins, wanted.starts_s, wanted.break_s) == (2700.0, "2031-05-05", 27000.0, 0.0)
    assert [hours[name].text() for name in ("hours a day", "work begins", "break")] == ["0.75", "07:30", ""]
    block.watch.finish()
    assert max(slot.day for slot in block.watch.found.slots) >= 1
    strip = block.days.strip()
    assert (strip.from_min, strip.to_min) == (450.0, 495.0) and strip.break_min[0] == strip.break_min[1]
    typed(hours["first day"], "2001-05-05")
    assert "it is past; accepted: " in window.message.text() and hours["first day"].text() == "2001-05-05"
    assert window.store.snapshot.job.block.begins == "2031-05-05"
    typed(hours["wind"], "8-10 5 m/s SW")
    assert len(window.store.snapshot.job.block.forecast) == 2 and hours["wind"].text() == "8-10 5 m/s 225°"
    window.commands.run("block.hands")
    assert block.list.isVisible() and not hours["first day"].isVisible()
    for _ in range(5):
        window.commands.run("edit.undo")


def test_crew_and_kit_are_typed_in_lines_and_a_set_is_left_at_home(
    window: Window, block: BlockPage, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path))
    window.commands.run("block.hands")
    typed(block.hands.crew.edits[0], "Wren, specialist work")
    typed(block.hands.crew.edits[1], "Tarn, plain")
    typed(block.hands.kit.edits[0], "saw (Wren): bar 60 cm, 4 wedges 25 mm, maul")
    job = window.store.snapshot.job
    assert [each.name for each in job.block.crew] == ["Wren", "Tarn"] and job.block.kits[0].wedges == 4
    assert block.hands.crew.edits[1].text() == "Tarn, plain trees" and block.hands.crew.edits[2].isVisible()
    typed(block.hands.kit.edits[1], "anvil")
    assert "a name and a colon come first" in window.message.text() and block.hands.kit.edits[1].text() == "anvil"
    QTest.mouseClick(block.hands.ticks[0], Left)
    assert window.store.snapshot.job.block.kits[0].packed == "no"
    window.commands.run("block.keep_kit")
    assert "1 sets of kit" in window.message.text() and "saw (Wren)" in (tmp_path / "plain-compass/kit.txt").read_text()
    typed(block.hands.kit.edits[0], "")
    assert window.store.snapshot.job.block.kits == ()
    window.commands.run("block.take_kit")
    assert [each.name for each in window.store.snapshot.job.block.kits] == ["saw"]
    window.commands.run("block.hands")
    block.watch.finish()
    block.pick("WH-07")
    assert "for Wren" in block.why.text()
    for _ in range(6):
        window.commands.run("edit.undo")


def test_one_felled_in_the_window_is_kept_with_its_time(window: Window, block: BlockPage) -> None:
    block.pick(first := ids(block)[0])
    state = block.decided.state
    state.setCurrentIndex(state.findData("down"))
    state.activated.emit(state.currentIndex())
    (done,) = window.store.snapshot.job.block.progress
    assert (done.tree, done.state) == (first, "down") and window.store.snapshot.job.plan(first).state == "down"
    assert first in block.hands.done.text()
    window.commands.run("edit.undo")
    assert window.store.snapshot.job.block.progress == ()


def test_those_before_lie_as_one_walks_through_the_order(window: Window, block: BlockPage) -> None:
    order = ids(block)
    block.pick(order[1])
    lies = {each.id: each.is_before for each in block.map.trees()}
    assert [lies[id] for id in order] == [True, False, False]


def test_the_map_is_zoomed_with_the_wheel_moved_and_fits_again(window: Window, block: BlockPage) -> None:
    whole, at = block.map.scale(), QPointF(200.0, 150.0)
    block.map.zoom(4.0, at)
    assert block.map.scale().px_per_m == pytest.approx(4 * whole.px_per_m)
    assert block.map.scale().metres(at) == pytest.approx(whole.metres(at)), "what is pointed at stays where it is"
    QTest.mousePress(block.map, Qt.MouseButton.MiddleButton, pos=QPoint(100, 100))
    QTest.mouseMove(block.map, QPoint(130, 90))
    QTest.mouseRelease(block.map, Qt.MouseButton.MiddleButton, pos=QPoint(130, 90))
    assert block.map.scale().metres(at + QPointF(30.0, -10.0)) == pytest.approx(whole.metres(at))
    block.fit()
    assert block.map.scale() == whole


def test_zones_of_all_are_one_edge_round_every_tree_of_the_order(window: Window, block: BlockPage) -> None:
    assert block.map.zones() == []
    window.commands.run("block.zones")
    (edge,) = block.map.zones()
    for each in block.map.trees():
        if each.number:
            assert Polygon(edge).contains(Point(each.east_m, each.north_m).buffer(1.9 * each.length_m))
    window.commands.run("block.zones")


def test_the_sheet_is_printed_by_way_of_a_preview(window: Window, block: BlockPage, tmp_path: Path) -> None:
    dialog = sheet_preview(window, window.store.snapshot.job, block.watch.block, block.watch.found)
    printer = dialog.printer()
    printer.setOutputFileName(str(tmp_path / "sheet.pdf"))
    assert print_on(printer, DaySheet(window.store.snapshot.job, block.watch.block, block.watch.found)) >= 2
    dialog.deleteLater()
    text = PdfReader(tmp_path / "sheet.pdf").pages[-1].extract_text()
    assert "printed" in text and "WH-07" in text


def test_the_site_on_paper_is_true_to_its_scale() -> None:
    page = QSizeF(679.0, 950.0)
    assert scale_for(100.0, 100.0, page) == 1000 and scale_for(89.0, 89.0, page) == 500
    assert scale_for(0.1, 0.1, page) == 1
    one_to = scale_for(130.0, 40.0, page)
    assert 130.0 * 1000.0 / one_to <= page.width() / MM_PX


def test_a_tree_is_opened_from_the_list_and_from_the_map(window: Window, block: BlockPage) -> None:
    block.pick("WH-21")
    QTest.keyClick(block.list, Qt.Key.Key_Return)
    assert window.store.tree_id == "WH-21" and window.step == "cut"
    window.show_step("block")
    at = block.map.scale().point(*next((t.east_m, t.north_m) for t in block.map.trees() if t.id == "WH-12"))
    QTest.mouseDClick(block.map, Left, pos=at.toPoint())
    assert window.store.tree_id == "WH-12" and window.step == "cut"


def test_the_lays_of_the_order_are_taken_over_as_one_step(window: Window, block: BlockPage) -> None:
    before = window.store.snapshot.job
    turned = {t.id: t.lay_deg for t in block.map.trees()}
    window.commands.run("block.take")
    assert {plan.id: plan.cut.lay_deg for plan in window.store.snapshot.job.trees} == turned
    window.commands.run("edit.undo")
    assert window.store.snapshot.job == before


@pytest.mark.parametrize("name", ["day.pdf", "order.csv", "lays.geojson", "days.ics"])
def test_the_sheet_and_the_order_are_written(
    window: Window, block: BlockPage, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, name: str
) -> None:
    where = tmp_path / name
    monkeypatch.setattr(BlockPapers, "ask_where", lambda _: str(where))
    window.commands.run("block.sheet")
    assert where.exists() and str(where) in window.message.text()
    if name == "day.pdf":
        told = " ".join(" ".join(page.extract_text() for page in PdfReader(where).pages).split())
        assert "Meeting point" in told and "WH-21" in told and "Trained people only" in told


def test_cards_are_written_in_order_once_the_lays_are_planned(
    window: Window, block: BlockPage, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "cards.pdf"
    monkeypatch.setattr(BlockPapers, "ask_cards", lambda _: str(path))
    window.commands.run("block.cards")
    assert "take its lays over first" in window.message.text() and not path.exists()
    window.commands.run("block.take")
    block.watch.finish()
    window.commands.run("block.cards")
    text = " ".join(" ".join(page.extract_text() for page in PdfReader(path).pages).split())
    at = [text.index(tree_id) for tree_id in ids(block)]
    assert at == sorted(at) and "3 cards written" in window.message.text()
    window.commands.run("edit.undo")


def test_trees_on_one_spot_are_a_sentence_and_nothing_is_lost(window: Window, block: BlockPage) -> None:
    at = window.store.snapshot.job.plan("WH-07").at
    window.store.change("moved", lambda job: set_value(job, "WH-12", "at.east_m", at.east_m))
    window.store.change("moved", lambda job: set_value(job, "WH-12", "at.north_m", at.north_m))
    block.watch.finish()
    assert "stands where WH-07 does" in block.state.text() and ids(block) == []
    window.commands.run("edit.undo")
    block.watch.finish()
    assert len(ids(block)) == 3


def test_nothing_is_searched_for_a_page_nobody_looks_at(window: Window, block: BlockPage) -> None:
    window.show_step("cut")
    window.store.set("cut.lay_deg", 200.0, "lay")
    assert not block.watch.busy
    window.show_step("block")
    assert block.watch.busy
    block.watch.finish()
