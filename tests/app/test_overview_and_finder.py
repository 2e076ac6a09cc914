"""All trees in one list, and every command found by words: as a person uses them, by keyboard alone."""

from __future__ import annotations

import re

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from plain_compass.app.frame.command_finder import OTHER_WORDS, CommandFinder, found
from plain_compass.app.frame.history_list import HistoryList
from plain_compass.app.frame.overview import LEVEL, Overview
from plain_compass.app.frame.overview_rows import COLUMNS
from plain_compass.app.frame.window import Window


def overview(window: Window) -> Overview:
    QTest.keyClick(window, Qt.Key.Key_F9)
    dialog = window.findChild(Overview)
    assert isinstance(dialog, Overview)
    return dialog


def names(dialog: Overview) -> list[str]:
    return [str(dialog.shown.index(row, 1).data()) for row in range(dialog.shown.rowCount())]


def finder(window: Window) -> CommandFinder:
    QTest.keyClick(window, Qt.Key.Key_Space, Qt.KeyboardModifier.ControlModifier)
    dialog = window.findChild(CommandFinder)
    assert isinstance(dialog, CommandFinder)
    return dialog


def titles(dialog: CommandFinder) -> list[str]:
    rows = (dialog.list.topLevelItem(row) for row in range(dialog.list.topLevelItemCount()))
    return [item.text(0) for item in rows if item is not None]


def test_f9_lists_every_tree_and_says_of_none_what_is_not_judged_yet(window: Window) -> None:
    dialog = overview(window)
    assert names(dialog) == ["WH-07", "WH-12", "WH-15", "WH-18", "WH-21", "WH-24"]
    assert dialog.chosen == window.store.tree_id
    assert dialog.shown.index(0, 0).data(LEVEL) is None
    assert dialog.shown.index(0, len(COLUMNS) - 1).data() == "being judged …"
    dialog.finish()
    assert dialog.shown.index(0, 0).data(LEVEL) is not None


def test_it_says_of_each_tree_what_the_window_says_of_it(window: Window) -> None:
    dialog = overview(window)
    dialog.finish()
    told = {str(dialog.shown.index(row, 1).data()): dialog.shown.index(row, 9).data() for row in range(6)}
    dialog.reject()
    for tree_id in ("WH-07", "WH-21"):
        window.store.look_at(tree_id)
        window.falls.finish()
        verdict = window.store.snapshot.result.verdict
        assert told[tree_id] == window.store.snapshot.speech.verdict(verdict)


def test_typing_narrows_arrows_choose_and_enter_goes_there(window: Window) -> None:
    dialog = overview(window)
    QTest.keyClicks(dialog.typed, "birch")
    assert names(dialog) == ["WH-18"]
    dialog.typed.clear()
    dialog.view.setCurrentIndex(dialog.shown.index(0, 1))
    QTest.keyClick(dialog.typed, Qt.Key.Key_Down)
    QTest.keyClick(dialog.typed, Qt.Key.Key_Down)
    assert dialog.chosen == "WH-15"
    QTest.keyClick(dialog.typed, Qt.Key.Key_Return)
    assert window.store.tree_id == "WH-15"
    assert not dialog.isVisible()


def test_escape_stays_and_nothing_typed_finds_nothing_that_is_not_there(window: Window) -> None:
    before = window.store.tree_id
    dialog = overview(window)
    QTest.keyClicks(dialog.typed, "no such tree")
    assert names(dialog) == []
    QTest.keyClick(dialog.typed, Qt.Key.Key_Return)
    assert dialog.isVisible()
    QTest.keyClick(dialog.typed, Qt.Key.Key_Escape)
    assert window.store.tree_id == before


@pytest.mark.parametrize(("column", "first"), [(3, "WH-24"), (4, "WH-24"), (5, "WH-12"), (2, "WH-24")])
def test_columns_are_sorted_by_what_they_mean(window: Window, column: int, first: str) -> None:
    dialog = overview(window)
    dialog.finish()
    dialog.view.sortByColumn(column, Qt.SortOrder.AscendingOrder)
    assert names(dialog)[0] == first


def test_what_was_judged_is_kept_until_the_job_changes(window: Window) -> None:
    first = overview(window)
    first.finish()
    known = dict(first.table.known)
    first.reject()
    second = overview(window)
    assert second.table.known == known
    second.reject()
    window.store.set("site.slope_deg", 9.0, "slope")
    QTest.qWait(1)
    window.dialogs.trees()
    third = window.findChildren(Overview)[-1]
    assert third.table.known == {}


def test_a_command_is_found_by_the_beginnings_of_its_words_and_done_by_enter(window: Window) -> None:
    dialog = finder(window)
    QTest.keyClicks(dialog.typed, "light")
    assert titles(dialog)[0] == "Light or dark"
    before = window.scheme
    QTest.keyClick(dialog.typed, Qt.Key.Key_Return)
    assert window.scheme != before
    assert not dialog.isVisible()


@pytest.mark.parametrize(
    ("typed", "title"),
    [
        ("feet", "Metric or imperial"),
        ("print", "Card as PDF…"),
        ("notch", "Cut"),
        ("winch", "Ground"),
        ("lean", "Look"),
    ],
)
def test_trade_words_and_plain_ones_find_it_too(window: Window, typed: str, title: str) -> None:
    dialog = finder(window)
    QTest.keyClicks(dialog.typed, typed)
    assert title in titles(dialog)


def test_what_cannot_be_done_now_stands_last_and_does_nothing(window: Window) -> None:
    undo = next(command for command in window.commands if command.id == "edit.undo")
    assert not undo.enabled()
    assert found(window.commands, "")[-1].id in {c.id for c in window.commands if not c.enabled()}
    dialog = finder(window)
    QTest.keyClicks(dialog.typed, "undo")
    job = window.store.snapshot.job
    QTest.keyClick(dialog.typed, Qt.Key.Key_Return)
    assert dialog.isVisible()
    assert window.store.snapshot.job == job


def test_every_command_has_other_words_and_no_words_are_for_none(window: Window) -> None:
    ids = {command.id for command in window.commands}
    assert set(OTHER_WORDS) <= ids
    assert not {id for id in ids - set(OTHER_WORDS) if not id.startswith("mend.")}, "say how people look for it"
    assert all(re.fullmatch(r"[a-z ]+", words) for words in OTHER_WORDS.values())


def test_nothing_typed_lists_everything_and_arrows_stop_at_both_ends(window: Window) -> None:
    dialog = finder(window)
    assert len(titles(dialog)) == len(list(window.commands))
    QTest.keyClick(dialog.typed, Qt.Key.Key_Up)
    assert dialog.list.currentIndex().row() == 0
    for _ in range(100):
        QTest.keyClick(dialog.typed, Qt.Key.Key_Down)
    # What cannot be done now stands behind the last that can.
    assert dialog.list.currentIndex().row() == sum(command.enabled() for command in window.commands) - 1


def test_the_walk_round_is_answered_at_once_and_undone_as_one_and_what_was_seen_stays(window: Window) -> None:
    window.commands.run("tree.add")
    window.store.set("tree.around.vines", "yes", "vines")
    QTest.keyClick(window, Qt.Key.Key_N, Qt.KeyboardModifier.AltModifier)
    around = window.store.snapshot.plan.tree.around
    assert around.vines == "yes"
    assert {around.dead_limbs, around.hung_pieces, around.tangled, around.wires, around.nests, around.roosts} == {"no"}
    # Nobody sees by looking up whether there is leave.
    assert around.leave == "unknown"
    window.store.undo()
    assert window.store.snapshot.plan.tree.around.dead_limbs == "unknown"


def test_a_new_tree_says_how_far_its_survey_is(window: Window) -> None:
    window.commands.run("tree.add")
    window.side.survey.compute()
    assert window.side.survey.text().replace("\u00a0", " ").startswith("0 of 9 taken. Measure next: the diameter")
    window.store.set("tree.height_m", 18.0, "height")
    window.side.survey.compute()
    assert window.side.survey.text().replace("\u00a0", " ").startswith("1 of 9 taken.")


def test_steps_are_listed_and_one_goes_back_to_any_and_forward_again(window: Window) -> None:
    store, before = window.store, window.store.snapshot.job
    store.set("tree.height_m", 18.0, "height 18 m")
    store.set("tree.height_m", 19.0, "height 19 m")
    store.set("cut.hinge.left_m", 0.05, "hinge 5 cm")
    QTest.keyClick(window, Qt.Key.Key_H, Qt.KeyboardModifier.ControlModifier)
    dialog = window.findChild(HistoryList)
    assert isinstance(dialog, HistoryList)
    told = [dialog.list.item(row).text() for row in range(dialog.list.count())]
    assert told == ["hinge 5 cm", "height 19 m", "height 18 m", "as it was opened"]
    QTest.keyClick(dialog.list, Qt.Key.Key_End)
    QTest.keyClick(dialog.list, Qt.Key.Key_Return)
    assert store.snapshot.job == before
    window.dialogs.history()
    again = window.findChildren(HistoryList)[-1]
    assert again.list.item(0).text() == "hinge 5 cm  (taken back)"
    again.list.setCurrentRow(1)
    again.go()
    assert store.snapshot.plan.tree.height_m == 19.0
    assert store.history.redo_title == "hinge 5 cm"


def test_no_menu_is_longer_than_fourteen_and_every_named_command_is_there(window: Window) -> None:
    window.top.job.menu().aboutToShow.emit()
    menus, told = [window.top.job.menu()], set()
    while menus:
        menu = menus.pop()
        actions = [action for action in menu.actions() if not action.isSeparator()]
        assert len(actions) <= 14, menu.title()
        told |= {action.text() for action in actions}
        menus += [action.menu() for action in actions if action.menu() is not None]  # type: ignore[misc]
    of_menus = ("job", "list", "site", "tree")
    named = {command.words for command in window.commands if command.id.split(".")[0] in of_menus}
    assert named <= told
