"""The handbook in its window: F1 on what has the keyboard, words that find, links that lead on and back."""

from PySide6.QtCore import QPointF, Qt, QUrl
from PySide6.QtGui import QColor, QCursor
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from plain_compass.app.frame.field_edit import FieldEdit
from plain_compass.app.frame.help_picture import picture_on
from plain_compass.app.frame.help_window import ID, HelpWindow, found_pages
from plain_compass.app.frame.window import Window
from plain_compass.core.base.levels import GROUPS
from plain_compass.job.handbook import page_ids


def opened(window: Window) -> HelpWindow:
    book = window.findChildren(HelpWindow)[-1]
    assert isinstance(book, HelpWindow)
    return book


def test_f1_in_a_field_opens_the_page_of_that_field(window: Window, qtbot: QtBot) -> None:
    window.show_step("cut")
    field = window.pages["cut"].findChild(FieldEdit, "cut.face.depth_m")
    window.activateWindow()
    field.setFocus()
    qtbot.waitUntil(field.hasFocus)
    QTest.keyClick(field, Qt.Key.Key_F1)
    assert opened(window).at == "field:cut.face.depth_m"
    assert "Accepted" in opened(window).text.toPlainText()


def test_f1_on_a_finding_opens_the_page_of_that_finding(window: Window, qtbot: QtBot) -> None:
    findings = window.side.findings
    window.activateWindow()
    findings.setFocus()
    qtbot.waitUntil(findings.hasFocus)
    row = next(at for at, row in enumerate(findings.findings_model.rows) if row.kind == "finding")
    findings.setCurrentIndex(findings.findings_model.index(row))
    about = findings.findings_model.rows[row].finding
    assert about is not None
    QTest.keyClick(findings, Qt.Key.Key_F1)
    assert opened(window).at.startswith(f"finding:{about.id.split('.')[0]}")


def test_f1_anywhere_else_opens_the_lesson_of_the_step(window: Window) -> None:
    window.show_step("ground")
    window.setFocus()
    window.commands.run("help.this")
    assert opened(window).at == "lesson:2"


def test_typed_words_find_a_page_and_arrows_go_on(window: Window) -> None:
    window.dialogs.help_page("index")
    book = opened(window)
    QTest.keyClicks(book.typed, "side weight")
    assert 0 < book.list.count() < len(book.texts)
    first = book.at
    assert "side weight" in book.texts[first].lower()
    QTest.keyClick(book.typed, Qt.Key.Key_Down)
    assert book.at == book.list.item(1).data(ID) != first
    QTest.keyClick(book.back, Qt.Key.Key_Space)
    assert book.at == first


def test_words_in_a_title_come_before_words_in_a_text() -> None:
    texts = {"a": "# One\nof the rope", "b": "# Rope\nlong", "c": "# Other\nnothing"}
    assert found_pages(texts, "ROPE") == ["b", "a"]
    assert found_pages(texts, "") == ["a", "b", "c"]


def test_every_link_of_every_page_turns_to_it(window: Window) -> None:
    window.dialogs.help_page("index")
    book = opened(window)
    for id in book.texts:
        book.text.anchorClicked.emit(QUrl(f"help:{id}"))
        assert book.at == id
        assert book.text.toPlainText().strip()


def test_the_page_of_a_form_shows_it_cut_on_the_tree_that_is_open(window: Window) -> None:
    window.dialogs.help_page("form:face.open")
    book = opened(window)
    assert "\N{OBJECT REPLACEMENT CHARACTER}" in book.text.toPlainText()
    book.show_page("lesson:1")
    assert "\N{OBJECT REPLACEMENT CHARACTER}" not in book.text.toPlainText()


def test_links_are_seen_on_dark_paper_too(window: Window) -> None:
    window.commands.run("view.dark")
    window.dialogs.help_page("lesson:1")
    assert opened(window).colours.focus.lower() in opened(window).text.toHtml().lower()


def test_the_book_speaks_the_vocabulary_in_use(window: Window) -> None:
    window.commands.run("view.words")
    window.dialogs.help_page("lesson:5")
    assert "holding wood" in opened(window).text.toPlainText()


def test_f1_over_a_peg_of_the_band_opens_the_page_of_that_peg(window: Window, qtbot: QtBot) -> None:
    band = window.band
    for index in (0, 3):
        at = band.strip(index).center().toPoint()
        QCursor.setPos(band.mapToGlobal(at))
        qtbot.waitUntil(lambda: QApplication.widgetAt(QCursor.pos()) is band)
        window.commands.run("help.this")
        assert opened(window).at == f"group:{GROUPS[index]}"
        opened(window).close()
    assert not band.group_at(QPointF(1.0, 1.0))


def test_pages_about_stump_pegs_and_forms_are_drawn_on_the_open_tree_and_no_others(window: Window) -> None:
    snapshot, colours = window.store.snapshot, window.colours
    drawn = {id for id in page_ids() if picture_on(id, snapshot, colours) is not None}
    assert {f"group:{group}" for group in GROUPS} <= drawn
    for id in ("field:cut.hinge.left_m", "field:cut.face.roof_deg", "field:cut.back.step_m", "finding:decay.shell"):
        assert id in drawn, id
    assert not drawn & {"index", "model", "lesson:1", "term:step", "field:site.slope_deg", "field:person.pace_m"}


def test_the_part_a_page_is_about_stands_out_of_its_drawing(window: Window) -> None:
    snapshot, colours = window.store.snapshot, window.colours
    hinge, face = (picture_on(f"field:cut.{name}", snapshot, colours) for name in ("hinge.left_m", "face.depth_m"))
    assert hinge is not None and face is not None and hinge != face
    focus = QColor(colours.focus).rgb()
    points = [(x, y) for x in range(0, hinge.width(), 2) for y in range(0, hinge.height(), 2)]
    assert sum(hinge.pixel(x, y) == focus for x, y in points) > 50
