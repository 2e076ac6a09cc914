"""The right column by mouse and keys: groups, ways out that are shown while pointed at, ticks, folds."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from plain_compass.app.frame.explanation import Explanation
from plain_compass.app.frame.findings_list import FindingsList
from plain_compass.app.frame.mend_watch import MendWatch
from plain_compass.app.frame.plain_label import PlainLabel
from plain_compass.app.frame.store import Store
from plain_compass.app.frame.window import Window
from plain_compass.core.judge.places import PLACES
from plain_compass.job.fields import label_of

Left, Keys = Qt.MouseButton.LeftButton, Qt.Key


def short_of_lift(window: Window) -> FindingsList:
    """The column for a plan that goes no further than its wedges, which just do it: its second mend thins the hinge."""
    window.store.set("cut.goes_on", "wedges", "goes no further")
    return column(window)


def column(window: Window) -> FindingsList:
    window.falls.finish()
    window.side.mends.finish()
    return window.side.findings


def centre_of(shown: FindingsList, row: int) -> QPoint:
    index = shown.findings_model.index(row)
    shown.scrollTo(index)
    QApplication.processEvents()
    return shown.visualRect(index).center()


def point_at(shown: FindingsList, row: int, until: Callable[[], bool]) -> None:
    """Move the pointer onto a row, and on there until the window has noticed."""
    for step in range(40):
        QTest.mouseMove(shown.viewport(), centre_of(shown, row) + QPoint(step % 3, 0))
        QTest.qWait(15)
        if until():
            return
    raise AssertionError("the pointer was not noticed")


def texts(shown: FindingsList) -> list[str]:
    return [row.told for row in shown.findings_model.rows]


def test_the_column_has_its_groups_in_their_order_and_folds_what_is_clear(window: Window) -> None:
    shown = column(window)
    heads = [row.paragraphs[0][0] for row in shown.findings_model.rows if row.kind == "heading"]
    assert heads == ["Watch", "To do on site"]
    assert sum(row.kind == "fold" for row in shown.findings_model.rows) == 2
    window.store.set("site.wind_m_s", None, "wind")
    assert "Settle first" in texts(column(window))
    assert not any(
        row.finding and row.finding.level == "clear" for row in shown.findings_model.rows if row.kind == "finding"
    )


def test_a_fold_opens_and_shuts_by_a_click(window: Window) -> None:
    shown = column(window)
    rows = len(shown.findings_model.rows)
    fold = next(at for at, row in enumerate(shown.findings_model.rows) if row.key == "clear")
    QTest.mouseClick(shown.viewport(), Left, pos=centre_of(shown, fold))
    assert len(shown.findings_model.rows) > rows + 5
    fold = next(at for at, row in enumerate(shown.findings_model.rows) if row.key == "clear")
    QTest.mouseClick(shown.viewport(), Left, pos=centre_of(shown, fold))
    assert len(shown.findings_model.rows) == rows


@pytest.mark.real_window
def test_a_mend_pointed_at_moves_the_drawing_and_leaves_no_trace(window: Window) -> None:
    shown, store = short_of_lift(window), window.store
    before, history = store.snapshot, len(store.history.states)
    picture = window.pages["cut"].grab().toImage()
    row = shown.row_of("mend", "balance.over") + 1
    point_at(shown, row, lambda: store.previewing)
    assert store.snapshot.plan.cut != before.plan.cut
    assert store.history.now.job == before.job
    assert window.pages["cut"].grab().toImage() != picture
    assert shown.row_of("mend", "balance.over") + 1 == row  # nothing moves away from under the pointer
    heading = next(at for at, each in enumerate(shown.findings_model.rows) if each.kind == "heading")
    point_at(shown, heading, lambda: not store.previewing)
    assert store.snapshot.job == before.job and len(store.history.states) == history
    column(window)
    assert window.pages["cut"].grab().toImage() == picture


@pytest.mark.real_window
def test_a_mend_is_reached_by_keys_taken_over_by_one_and_undone_by_one_step(window: Window) -> None:
    shown, store = short_of_lift(window), window.store
    before = store.snapshot
    shown.setFocus()
    shown.setCurrentIndex(shown.findings_model.index(shown.row_of("mend", "balance.over")))
    QTest.keyClick(shown, Keys.Key_Down)
    assert store.previewing
    QTest.keyClick(shown, Keys.Key_Return)
    assert not store.previewing
    assert store.snapshot.plan.cut != before.plan.cut
    over = next(f for f in store.snapshot.result.findings if f.id == "balance.over")
    assert over.level == "clear"
    assert "hinge" in store.history.undo_title
    store.undo()
    assert store.snapshot.job == before.job


def test_a_number_takes_over_that_mend_of_the_finding(window: Window) -> None:
    shown, store = short_of_lift(window), window.store
    shown.setFocus()
    shown.setCurrentIndex(shown.findings_model.index(shown.row_of("finding", "balance.over")))
    hinge = store.snapshot.plan.cut.hinge
    QTest.keyClick(shown, Keys.Key_2)
    assert store.snapshot.plan.cut.hinge != hinge


def test_a_duty_is_ticked_and_the_tick_taken_back(window: Window) -> None:
    shown, store = column(window), window.store
    store.set("person.name", "AB", "name")
    duties = store.snapshot.result.verdict.duties
    row = column(window).row_of("duty", "duty.ways")
    QTest.mouseClick(shown.viewport(), Left, pos=centre_of(shown, row))
    assert store.snapshot.result.verdict.duties == duties - 1
    done = store.snapshot.plan.duties[0]
    assert (done.id, done.who) == ("duty.ways", "AB") and done.at
    assert any(text.startswith("done: Clear two ways out") for text in texts(column(window)))
    store.undo()
    assert store.snapshot.plan.duties == ()
    store.redo()
    QTest.mouseClick(shown.viewport(), Left, pos=centre_of(shown, column(window).row_of("duty", "duty.ways")))
    assert store.snapshot.plan.duties == ()


def test_what_is_unknown_names_the_field_that_settles_it_and_every_place_is_there(window: Window) -> None:
    window.store.set("site.wind_m_s", None, "wind")
    shown = column(window)
    row = shown.findings_model.rows[shown.row_of("finding", "balance.wind_not_judged")]
    assert row.paragraphs[-1][0] == "→ Ground: wind"
    for _, where in PLACES:
        assert where.step in window.pages.keys_there
        assert not where.field or label_of(where.field)


def test_a_click_goes_to_where_a_finding_is_settled(window: Window) -> None:
    window.store.set("person.limits.company", "not said", "company")
    shown = column(window)
    QTest.mouseClick(shown.viewport(), Left, pos=centre_of(shown, shown.row_of("finding", "who.company")))
    assert window.stack.currentWidget() is window.pages["look"]
    assert window.side.stack.currentWidget() is window.side.sheet
    QTest.qWait(20)
    assert QApplication.focusWidget() is not None
    assert QApplication.focusWidget().objectName() == "person.limits.company"


def test_while_something_is_dragged_the_pegs_say_that_they_are_reckoned(window: Window) -> None:
    window.store.preview({"cut.hinge.left_m": 0.05})
    assert "Balance: reckoning" in window.band.accessibleDescription()
    assert window.side.mends.answer is None
    window.store.finish("hinge left dragged")
    assert "Balance: reckoning" not in window.band.accessibleDescription()


def test_a_search_begun_for_another_plan_never_answers_for_one_that_is_known(store: Store) -> None:
    watch = MendWatch(store)
    watch.finish()
    known = watch.answer
    assert known
    store.set("cut.hinge.left_m", 0.07, "hinge")
    watch.step()
    assert watch.busy and watch.answer is None
    store.undo()
    assert watch.answer is known
    watch.finish()
    assert watch.answer is known
    watch.stop()


def test_a_key_tells_where_the_finding_it_is_at_comes_from(window: Window) -> None:
    shown = column(window)
    window.store.look_at("WH-12")
    column(window)
    shown.setCurrentIndex(shown.findings_model.index(shown.row_of("finding", "hinge.side")))
    window.commands.run("help.explain")
    dialog = window.findChild(Explanation)
    assert dialog is not None
    lines = [label.text() for label in dialog.findChildren(PlainLabel)]
    assert "Worked out by: use of the hinge (docs/model.md)." in lines
    assert any("of what is not known" in line for line in lines)
    dialog.close()
