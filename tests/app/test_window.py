"""The frame: trail, findings, sheet, speech, files, recovery, accessibility."""

from __future__ import annotations

import os
import shutil
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest
from PySide6.QtCore import QMimeData, QPointF, Qt, QTimer, QUrl
from PySide6.QtGui import QDropEvent, QGuiApplication
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QAbstractButton, QApplication, QComboBox, QLabel, QProgressDialog, QScrollArea, QWidget
from pytestqt.qtbot import QtBot

from plain_compass.app.frame.choice_edit import ChoiceEdit
from plain_compass.app.frame.copying import picture_of, svg_of
from plain_compass.app.frame.field_edit import FieldEdit
from plain_compass.app.frame.item_row import ItemRow
from plain_compass.app.frame.recovery import Recovery
from plain_compass.app.frame.settings import Settings
from plain_compass.app.frame.shortcut_sheet import ShortcutSheet
from plain_compass.app.frame.trail import STEPS
from plain_compass.app.frame.window import Window
from plain_compass.app.main import _first_job, fit_screen, run
from plain_compass.job.demo import demo_job
from plain_compass.job.document import with_plan
from plain_compass.job.files import read_job, write_job


def sheet_field(window: Window, name: str) -> FieldEdit:
    window.side.show_face(1)
    found = window.side.sheet.findChild(FieldEdit, name)
    assert isinstance(found, FieldEdit)
    return found


def enter(field: FieldEdit, text: str) -> None:
    field.setFocus()
    field.selectAll()
    QTest.keyClicks(field, text)
    QTest.keyClick(field, Qt.Key.Key_Return)


def told(window: Window, id: str) -> str:
    """What a finding says, whether it is shown or folded away."""
    snapshot = window.store.snapshot
    return snapshot.speech.phrase(next(f for f in snapshot.result.findings if f.id == id).sentence)


def test_the_demo_opens_with_a_verdict_that_reads_as_sense(window: Window) -> None:
    text = window.top.verdict.text()
    assert "Holds with little to spare" in text
    assert "dull at" in text
    assert "WH-07" in window.top.tree.text() and "hornbeam" in window.top.tree.text()


def test_the_trail_has_the_work_in_order_from_the_look_to_the_stump(window: Window) -> None:
    assert [b.text() for b in window.trail.buttons.values()] == [s.name for s in STEPS]
    assert [s.name for s in STEPS] == ["Look", "Ground", "Cut", "Stages", "Fall", "Card", "Stump", "Block"]


def test_number_keys_open_steps_unless_one_is_typing(window: Window) -> None:
    window.side.findings.setFocus()
    QTest.keyClick(window.side.findings, Qt.Key.Key_6)
    assert window.stack.currentWidget() is window.pages["card"]
    QTest.keyClick(window, Qt.Key.Key_3)
    assert window.stack.currentWidget() is window.pages["cut"]
    field = window.pages["cut"].findChild(FieldEdit, "cut.face.depth_m")
    assert isinstance(field, FieldEdit)
    field.setFocus()
    QTest.keyClick(field, Qt.Key.Key_6)
    assert window.stack.currentWidget() is window.pages["cut"]
    assert field.text() == "6"


def test_the_sheet_holds_every_value_that_is_not_drawn(window: Window) -> None:
    window.side.show_face(1)
    names = {w.objectName() for w in window.side.sheet.findChildren(QWidget)}
    for path in (
        "tree.species", "tree.trunk.diameter_m", "girth:tree.trunk.diameter_m", "tree.trunk.bark_m", "tree.height_m",
        "tree.crown.base_m", "tree.crown.readings.0.radius_m", "tree.crown.readings.3.radius_m", "tree.lean.angle_deg",
        "tree.lean.bearing_deg", "tree.decay.kind", "tree.decay.radius_m", "practice", "units", "words",
    ):  # fmt: skip
        assert path in names, path


def test_girth_and_diameter_are_one_value(window: Window) -> None:
    enter(sheet_field(window, "girth:tree.trunk.diameter_m"), "157.1")
    assert window.store.snapshot.plan.tree.trunk.diameter_m == pytest.approx(0.50, abs=1e-4)
    assert sheet_field(window, "tree.trunk.diameter_m").text() == "50 cm"
    enter(sheet_field(window, "tree.trunk.diameter_m"), "188.5 cm girth")
    assert window.store.snapshot.plan.tree.trunk.diameter_m == pytest.approx(0.60, abs=1e-4)


def test_an_optional_measure_can_be_left_out(window: Window) -> None:
    field = sheet_field(window, "tree.trunk.cross_diameter_m")
    assert field.text() == ""
    enter(field, "48")
    assert window.store.snapshot.plan.tree.trunk.cross_diameter_m == pytest.approx(0.48)
    assert isinstance(window.side.sheet.findChild(FieldEdit, "tree.trunk.diameter_bearing_deg"), FieldEdit)
    field = sheet_field(window, "tree.trunk.cross_diameter_m")
    field.setFocus()
    field.clear()
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert window.store.snapshot.plan.tree.trunk.cross_diameter_m is None


@pytest.mark.parametrize(
    ("name", "text", "words"),
    [
        ("girth:tree.trunk.diameter_m", "40 m", "accepted"),
        ("tree.crown.base_m", "30", "above the top"),
        ("tree.lean.bearing_deg", "720", "accepted: 0° to 360°"),
        ("tree.decay.offset_m", "60", "outside the stem"),
        ("tree.height_m", "-4", "accepted"),
        ("tree.height_m", "0", "accepted"),
        ("tree.height_m", "nan", "type for example"),
    ],
)
def test_the_absurd_is_refused_at_the_field_in_a_sentence(window: Window, name: str, text: str, words: str) -> None:
    before = window.store.snapshot.job
    field = sheet_field(window, name)
    enter(field, text)
    assert words in window.message.text()
    assert field.text() == text
    assert window.store.snapshot.job == before


def test_what_could_not_be_read_stays_while_other_things_change(window: Window) -> None:
    field = sheet_field(window, "tree.height_m")
    enter(field, "tall")
    enter(sheet_field(window, "tree.crown.base_m"), "5")
    assert window.store.snapshot.plan.tree.crown.base_m == 5.0
    assert (field.text(), field.property("wrong")) == ("tall", True)
    enter(field, "18")
    assert (field.text(), field.property("wrong")) == ("18 m", False)


def test_escape_restores_an_empty_field_too(window: Window) -> None:
    field = sheet_field(window, "tree.trunk.cross_diameter_m")
    enter(field, "wide")
    assert field.property("wrong")
    QTest.keyClick(field, Qt.Key.Key_Escape)
    assert (field.text(), field.property("wrong")) == ("", False)


def test_a_name_in_the_middle_of_being_typed_is_saved_too(window: Window, tmp_path: Path) -> None:
    window.side.show_face(1)
    window.side.sheet.job_name.setFocus()
    window.side.sheet.job_name.selectAll()
    QTest.keyClicks(window.side.sheet.job_name, "South bank")
    window.jobs.ask_save = lambda _: str(tmp_path / "s.pcjob.json")  # type: ignore[method-assign]
    QTest.keyClick(window.side.sheet.job_name, Qt.Key.Key_S, Qt.KeyboardModifier.ControlModifier)
    assert read_job(tmp_path / "s.pcjob.json").job.name == "South bank"


def test_rot_is_described_by_its_kind(window: Window) -> None:
    window.side.show_face(1)
    kind = window.side.sheet.findChild(ChoiceEdit, "tree.decay.kind")
    assert isinstance(kind, ChoiceEdit)
    kind.setCurrentIndex(kind.findData("shell"))
    kind.activated.emit(kind.currentIndex())
    assert window.side.sheet.findChild(FieldEdit, "tree.decay.shell.2.sound_m") is not None
    window.store.set("tree.decay.kind", "unknown", "unknown")
    assert window.store.snapshot.result.verdict.level == "unknown"
    assert "Settle first" in window.top.verdict.text()


def test_units_and_words_switch_live_and_undo(window: Window) -> None:
    page = window.pages["cut"]
    field = page.findChild(FieldEdit, "cut.face.depth_m")
    assert isinstance(field, FieldEdit)
    window.commands.run("view.units")
    assert field.text() == "4 3/4 in"
    window.commands.run("view.words")
    assert "gob" in field.accessibleName()
    assert "holding wood" in told(window, "balance.over")
    window.store.undo()
    window.store.undo()
    assert field.text() == "12 cm"


def test_every_entry_has_a_name_an_explanation_and_a_tooltip(window: Window) -> None:
    window.side.show_face(1)
    entries = [*window.findChildren(FieldEdit), *window.findChildren(ChoiceEdit)]
    assert len(entries) > 40
    for entry in entries:
        assert entry.accessibleName(), entry.objectName()
        assert entry.toolTip(), entry.objectName()
    for button in window.findChildren(QAbstractButton):
        assert button.accessibleName() or button.text() or button.objectName().startswith("qt_")


def test_findings_are_told_to_a_screen_reader_with_level_and_limit(window: Window) -> None:
    model = window.side.findings.findings_model
    assert model.data(model.index(0)) == "Watch"
    window.store.set("cut.goes_on", "wedges", "goes no further")
    window.falls.finish()
    watched = [str(model.data(model.index(row))) for row in range(1, 6)]
    assert watched[0].startswith("watch: ")
    assert any("against" in text for text in watched)
    assert "Balance: watch" in window.band.accessibleDescription()
    assert "Ways out: to do" in window.band.accessibleDescription()


def test_the_findings_follow_a_drag_and_are_right_when_it_ends(window: Window, qtbot: QtBot) -> None:
    def first() -> str:
        return str(window.side.findings.findings_model.data(window.side.findings.findings_model.index(1)))

    before = first()
    window.store.preview({"cut.hinge.left_m": 0.09})
    qtbot.waitUntil(lambda: first() != before)
    window.store.preview({"cut.hinge.left_m": 0.015})
    window.store.finish("hinge left dragged")
    assert window.side.findings.findings_model.findings == window.store.snapshot.result.findings


def test_the_shortcut_sheet_lists_every_shortcut(window: Window, qtbot: QtBot) -> None:
    window.commands.run("help.keys")
    sheet = window.findChild(ShortcutSheet)
    assert isinstance(sheet, ShortcutSheet)
    told = {label.text() for label in sheet.findChildren(QLabel)}
    for command in window.commands:
        if command.shortcut:
            assert command.shortcut in told
    QTest.keyClick(sheet, Qt.Key.Key_Escape)


def test_no_two_commands_share_a_shortcut(window: Window) -> None:
    shortcuts = [c.shortcut for c in window.commands if c.shortcut]
    assert len(shortcuts) == len(set(shortcuts))


def test_undo_in_a_field_takes_back_the_documents_step(window: Window) -> None:
    """A field's own undo would only take back letters, which is not what anybody means by it here."""
    field = window.pages["cut"].findChild(FieldEdit, "cut.face.depth_m")
    assert isinstance(field, FieldEdit)
    enter(field, "13")
    assert field.hasFocus()
    QTest.keyClick(field, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert window.store.snapshot.plan.cut.face.depth_m == pytest.approx(0.12)
    assert field.text() == "12 cm"


def test_zooming_by_key_keeps_both_drawings_at_one_scale(window: Window) -> None:
    page = window.pages["cut"]
    before = page.plan.scale_now.px_per_m  # type: ignore[attr-defined]
    window.commands.run("view.zoom_in")
    assert page.plan.scale_now.px_per_m == pytest.approx(1.25 * before)  # type: ignore[attr-defined]
    assert page.side.scale_now.px_per_m == pytest.approx(1.25 * before)  # type: ignore[attr-defined]
    window.commands.run("view.zoom_out")
    window.commands.run("step.card")
    window.commands.run("view.zoom_in")
    window.commands.run("view.fit")


def test_the_job_menu_lists_the_jobs_of_late(window: Window, tmp_path: Path) -> None:
    path = tmp_path / "late.pcjob.json"
    write_job(path, demo_job())
    assert window.jobs.open(path)
    window.top.job.menu().aboutToShow.emit()
    (recent,) = [a.menu() for a in window.top.job.menu().actions() if a.text() == "Recent jobs"]
    assert [a.text() for a in recent.actions()] == ["late.pcjob.json"]
    recent.actions()[0].trigger()
    assert window.store.path == path


def test_a_disk_that_does_not_take_the_unsaved_work_is_told(window: Window, tmp_path: Path) -> None:
    shutil.rmtree(tmp_path / "recovery")
    window.store.set("notes", "x", "notes")
    assert not window.autosave.write()
    assert "not on disk yet" in window.message.text()
    assert window.store.snapshot.plan.notes == "x"
    (tmp_path / "recovery").mkdir()


def test_starting_opens_the_last_job_or_says_why_not(tmp_path: Path) -> None:
    settings = Settings(tmp_path / "s.ini")
    assert _first_job(None, False, settings)[1] is None
    path = tmp_path / "last.pcjob.json"
    write_job(path, demo_job())
    settings.used(path)
    assert _first_job(None, False, settings)[1:] == (path, "")
    assert _first_job(None, True, settings)[1] is None
    path.unlink()
    opened, used, trouble = _first_job(None, False, settings)
    assert (opened.job, used) == (demo_job(), None)
    assert "last.pcjob.json" in trouble


def test_a_whole_run_shows_the_window_and_takes_up_what_was_left(
    qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path / "config"))
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path / "state"))
    left = Recovery(Settings.recovery_folder())
    left.keep(with_plan(demo_job(), "WH-07", "notes", "left over"), {}, None)
    left.close(keep=True)
    seen: list[str] = []

    def look() -> int:
        (window,) = [w for w in QApplication.topLevelWidgets() if isinstance(w, Window) and w.isVisible()]
        seen.extend([window.store.snapshot.plan.notes, window.message.text()])
        window.jobs.ask_unsaved = lambda: "keep"  # type: ignore[method-assign]
        window.close()
        return 0

    monkeypatch.setattr(QApplication, "exec", staticmethod(look))
    assert run(demo=True) == 0
    assert seen[0] == "left over"
    assert "brought back" in seen[1]


def test_unsaved_work_is_marked_at_once_and_no_longer_when_saved(window: Window, tmp_path: Path) -> None:
    window.store.set("cut.face.depth_m", 0.13, "face depth")
    assert window.top.tree.text().endswith("•")
    assert window.windowTitle().startswith("•")
    window.store.save(tmp_path / "a.pcjob.json")
    assert not window.top.tree.text().endswith("•")
    assert window.windowTitle().startswith("a.pcjob.json")
    window.store.undo()
    assert window.top.tree.text().endswith("•")


def test_undo_and_redo_name_their_step(window: Window) -> None:
    window.store.set("cut.face.depth_m", 0.13, "face depth 13 cm")
    titles = {c.id: c.words for c in window.commands}
    assert titles["edit.undo"] == "Undo face depth 13 cm"
    window.store.undo()
    assert {c.id: c.words for c in window.commands}["edit.redo"] == "Redo face depth 13 cm"


def test_trees_are_added_and_changed_to(window: Window) -> None:
    window.commands.run("tree.add")
    assert window.store.tree_id == "7"
    window.edits.ask_name = lambda: "WH-08"  # type: ignore[method-assign]
    window.commands.run("tree.rename")
    assert window.store.tree_id == "WH-08"
    window.store.look_at("WH-07")
    assert window.store.tree_id == "WH-07"
    window.commands.run("tree.remove")
    assert window.store.tree_id == "WH-12"
    window.commands.run("tree.redesign")


def test_notes_are_kept_as_they_are_typed_and_undone_as_one(window: Window) -> None:
    window.side.show_face(1)
    window.side.sheet.notes.setFocus()
    window.side.sheet.notes.selectAll()
    QTest.keyClicks(window.side.sheet.notes, "mind the hide")
    assert window.store.snapshot.plan.notes == "mind the hide"
    window.store.undo()
    assert window.store.snapshot.plan.notes == demo_job().trees[0].notes


def test_a_broken_file_is_a_sentence_and_the_job_stays(window: Window, tmp_path: Path) -> None:
    broken = tmp_path / "broken.pcjob.json"
    broken.write_text('{"format": "plain-compass-job", "version": 1, "trees": [')
    before = window.store.snapshot.job
    assert not window.jobs.open(broken)
    assert "line 1" in window.message.text()
    assert window.store.snapshot.job == before


def test_a_save_that_fails_is_a_sentence_and_nothing_is_lost(window: Window) -> None:
    window.store.set("notes", "x", "notes")
    window.jobs.ask_save = lambda _: "/proc/none/a.pcjob.json"  # type: ignore[method-assign]
    assert not window.jobs.save()
    assert "could not be written" in window.message.text()
    assert window.store.unsaved


def test_a_job_file_is_opened_by_dropping_it(window: Window, tmp_path: Path) -> None:
    path = tmp_path / "dropped.pcjob.json"
    write_job(path, demo_job())
    mime = QMimeData()
    mime.setUrls([QUrl.fromLocalFile(str(path))])
    drop = QDropEvent(
        QPointF(50, 50), Qt.DropAction.CopyAction, mime, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
    )
    window.dropEvent(drop)
    assert window.store.path == path
    assert Settings(window.settings.file).recent()[0] == path


def test_closing_over_unsaved_work_asks_and_staying_stays(window: Window) -> None:
    window.store.set("notes", "x", "notes")
    window.jobs.ask_unsaved = lambda: "stay"  # type: ignore[method-assign]
    assert not window.close()
    assert window.isVisible()


def test_work_kept_at_closing_is_there_at_the_next_start(window: Window, tmp_path: Path) -> None:
    window.store.set("notes", "keep me", "notes")
    assert window.close()
    (found,) = Recovery(tmp_path / "recovery").orphans()
    assert found.opened.job.trees[0].notes == "keep me"


def test_unsaved_work_is_brought_back_into_the_window(window: Window, tmp_path: Path) -> None:
    lost = Recovery(tmp_path / "recovery")
    lost.keep(read_job_with_notes(tmp_path), {}, None)
    lost.close(keep=True)
    sentence = window.kept.at_start(None, asked_for=False)
    assert "brought back" in sentence
    assert window.store.snapshot.plan.notes == "from before the crash"
    assert window.store.unsaved


def read_job_with_notes(folder: Path) -> object:
    path = folder / "x.pcjob.json"
    write_job(path, demo_job())
    return with_plan(read_job(path).job, "WH-07", "notes", "from before the crash")


KILLED = """
import sys
from pathlib import Path
from PySide6.QtCore import QTimer
from plain_compass.app.frame.item_row import ItemRow
from plain_compass.app.frame.recovery import Recovery
from plain_compass.app.frame.settings import Settings
from plain_compass.app.main import application, make_window
from plain_compass.app.main import _first_job, fit_screen, run
from plain_compass.job.demo import demo_job
from plain_compass.job.document import with_plan
from plain_compass.job.files import Opened

folder = Path(sys.argv[1])
app = application()
window = make_window(Opened(demo_job()), None, Settings(folder / "s.ini"), Recovery(folder / "recovery"))
window.show()
QTimer.singleShot(0, lambda: window.store.set("notes", "typed just before", "notes"))
app.exec()
"""


def test_a_killed_program_loses_nothing_that_was_typed(tmp_path: Path) -> None:
    """A real process, really killed: its work is found because its lock died with it."""
    environment = os.environ | {"QT_QPA_PLATFORM": "offscreen"}
    child = subprocess.Popen([sys.executable, "-c", KILLED, str(tmp_path)], env=environment)
    folder = tmp_path / "recovery"
    for _ in range(400):
        if folder.exists() and list(folder.glob("*.json")):
            break
        time.sleep(0.05)
    child.send_signal(signal.SIGKILL)
    child.wait()
    (found,) = Recovery(folder).orphans()
    assert found.opened.job.trees[0].notes == "typed just before"


def test_the_drawing_is_copied_as_picture_and_as_svg(window: Window) -> None:
    window.commands.run("copy.picture")
    assert not QGuiApplication.clipboard().pixmap().isNull()
    pictures = window.page.pictures()
    assert picture_of(pictures).width() == 2 * sum(p.size.width() for p in pictures)
    svg = svg_of(pictures).decode("utf-8")
    assert svg.lstrip().startswith("<?xml")
    assert svg.count("<path") + svg.count("<poly") > 20
    assert "12 cm" in svg
    window.commands.run("copy.svg")
    assert "<svg" in QGuiApplication.clipboard().text()


def test_the_dark_scheme_reaches_every_painted_part(window: Window) -> None:
    window.commands.run("view.dark")
    dark = window.band.palette_in_use
    assert window.scheme == "dark"
    assert all(w.palette_in_use is dark for w in window.findChildren(QWidget) if hasattr(w, "palette_in_use"))
    window.commands.run("view.dark")
    assert window.band.palette_in_use is not dark


def test_no_text_of_the_window_is_smaller_than_eleven_pixels(window: Window) -> None:
    window.side.show_face(1)
    QApplication.processEvents()
    for widget in window.findChildren(QWidget):
        if isinstance(widget, (QLabel, QAbstractButton, FieldEdit, ChoiceEdit)) and widget.isVisible():
            size = widget.font().pixelSize()
            assert size == -1 or size >= 11, widget.objectName()


def test_a_click_on_a_dimension_selects_it_so_that_typing_replaces(window: Window) -> None:
    field = window.pages["cut"].findChild(FieldEdit, "cut.face.depth_m")
    assert isinstance(field, FieldEdit)
    QTest.mouseClick(field, Qt.MouseButton.LeftButton)
    assert field.selectedText() == field.text() != ""
    QTest.keyClicks(field, "13")
    assert field.text() == "13"


def test_clear_waits_for_the_fall(window: Window) -> None:
    """Straight after an edit nothing of hinge and landing is known that the fall could still take away."""
    window.store.set("cut.lay_deg", window.store.snapshot.plan.cut.lay_deg + 1, "lay")
    waiting = {f.group for f in window.store.snapshot.result.findings if f.id.startswith("fall.reckoning")}
    assert waiting == {"hinge", "landing"}
    description = window.band.accessibleDescription()
    assert "Hinge: clear" not in description and "Landing: clear" not in description
    window.falls.finish()
    assert not any(f.id.startswith("fall.reckoning") for f in window.store.snapshot.result.findings)


@pytest.mark.usefixtures("failing_falls")
def test_no_card_is_written_of_a_plan_whose_fall_cannot_be_reckoned(window: Window) -> None:
    window.store.set("cut.lay_deg", 100.0, "lay")
    window.falls.finish()
    window.commands.run("card.pdf")
    assert "no card is written" in window.message.text()


def test_a_message_is_plain_text_whatever_it_quotes(window: Window) -> None:
    window.message.tell("<img src=x>")
    assert window.message.textFormat() == Qt.TextFormat.PlainText


@pytest.mark.parametrize("size", [(1100, 700), (1280, 800)])
def test_the_shortcut_sheet_fits_the_window(window: Window, size: tuple[int, int]) -> None:
    window.setMinimumSize(800, 600)
    window.resize(*size)
    window.dialogs.keys()
    sheet = window.findChild(ShortcutSheet)
    assert isinstance(sheet, ShortcutSheet)
    QApplication.processEvents()
    assert sheet.width() < size[0] and sheet.height() < size[1]
    area = sheet.findChild(QScrollArea)
    assert isinstance(area, QScrollArea)
    assert not area.horizontalScrollBar().isVisible() and not area.verticalScrollBar().isVisible()


def test_f2_puts_the_keyboard_into_the_sheet(window: Window) -> None:
    QTest.keyClick(window, Qt.Key.Key_F2)
    focused = QApplication.focusWidget()
    assert window.side.shown == 1
    assert focused is not None and window.side.sheet.isAncestorOf(focused)


def test_the_first_window_is_no_larger_than_its_screen(window: Window) -> None:
    fit_screen(window)
    screen = window.screen().availableGeometry()
    assert window.width() <= screen.width() and window.height() <= screen.height()


def long_list(folder: Path, rows: int) -> Path:
    path = folder / "long.csv"
    path.write_text("id,diameter [cm]\n" + "".join(f"T{row},{30 + row % 40}\n" for row in range(rows)))
    return path


def test_a_long_list_shows_how_far_it_is_and_keeps_the_window_awake(window: Window, tmp_path: Path) -> None:
    seen: list[int] = []
    timer = QTimer()
    timer.timeout.connect(lambda: seen.append(1))
    timer.start(10)
    assert window.lists.import_trees(long_list(tmp_path, 60))
    assert len(seen) > 5, "the window's own events go on while the list is read"
    assert len(window.store.snapshot.job.trees) == 66


def test_reading_a_long_list_can_be_cancelled_and_then_nothing_is_added(window: Window, tmp_path: Path) -> None:
    def cancel() -> None:
        shown = window.findChild(QProgressDialog)
        if shown is not None:
            shown.cancel()

    QTimer.singleShot(50, cancel)
    assert not window.lists.import_trees(long_list(tmp_path, 400))
    assert len(window.store.snapshot.job.trees) == 6
    assert "nothing was added" in window.message.text()


@pytest.mark.parametrize("step", ["look", "ground", "cut", "stages", "card"])
def test_the_lists_that_open_show_whole_rows(window: Window, step: str) -> None:
    """Nothing is cut off at the side, and a list of up to ten shows all of it."""
    window.resize(1100, 700)
    window.show_step(step)
    for face in range(3):
        window.side.show_face(face)
        for box in (box for box in window.findChildren(QComboBox) if box.isVisible() and box.count()):
            box.showPopup()
            view = box.view()
            widest = max(view.fontMetrics().horizontalAdvance(box.itemText(row)) for row in range(box.count()))
            assert view.viewport().width() >= widest, box.accessibleName()
            rows = sum(view.sizeHintForRow(row) for row in range(min(box.count(), 10)))
            assert view.viewport().height() >= rows, box.accessibleName()
            box.hidePopup()


def test_no_two_fields_of_a_step_have_one_name_and_every_choice_has_its_label(window: Window) -> None:
    """A screen reader says the name alone: which edge, which wedge, which sounding must be in it."""
    for tree_id in ("WH-07", "WH-15", "WH-21"):
        window.store.look_at(tree_id)
        for step in ("look", "ground", "cut"):
            window.show_step(step)
            fields = [field for field in window.page.findChildren(FieldEdit) if field.isVisible()]  # type: ignore[attr-defined]
            names = [field.accessibleName() for field in fields]
            assert len(set(names)) == len(names), (tree_id, step, sorted(names))
    window.side.show_face(1)
    sheet = window.side.sheet
    sheet.refresh(window.store.snapshot)
    of_sheet = [field.accessibleName() for field in sheet.findChildren(FieldEdit)]
    assert len(set(of_sheet)) == len(of_sheet), sorted(of_sheet)
    buddies = {label.buddy() for label in sheet.findChildren(QLabel)}
    # Those in a row of a list stand beside their numbers, without a label of their own.
    in_rows = {choice for row in sheet.findChildren(ItemRow) for choice in row.findChildren(ChoiceEdit)}
    assert all(choice in buddies for choice in sheet.findChildren(ChoiceEdit) if choice not in in_rows)


def test_an_edge_is_called_by_its_bearing_and_a_wedge_by_its_number(window: Window) -> None:
    window.show_step("look")
    names = {f.path: f.accessibleName() for f in window.findChildren(FieldEdit) if f.isVisible()}
    assert names["tree.crown.readings.1.radius_m"] == "crown edge at 90°"
    window.show_step("cut")
    names = {f.path: f.accessibleName() for f in window.findChildren(FieldEdit) if f.isVisible()}
    assert names["cut.wedges.1.at_deg"] == "wedge 2"
