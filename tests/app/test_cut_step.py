"""The Cut step driven by mouse and keyboard in a real window."""

from __future__ import annotations

from itertools import combinations
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QWheelEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from plain_compass.app.frame.drawing_view import DrawingView
from plain_compass.app.frame.window import Window
from plain_compass.app.steps.cut.page import CutPage
from plain_compass.job.files import read_job

Left = Qt.MouseButton.LeftButton


def cut_page(window: Window) -> CutPage:
    page = window.pages["cut"]
    assert isinstance(page, CutPage)
    return page


def drag(view: DrawingView, path: str, by: QPoint, steps: int = 5) -> None:
    """Take hold of the grip that sets ``path`` and pull it, as a hand does."""
    start = view.grip(path).at.toPoint()
    QTest.mousePress(view, Left, pos=start)
    for step in range(1, steps + 1):
        QTest.mouseMove(view, start + by * step / steps)
        QApplication.processEvents()
    QTest.mouseRelease(view, Left, pos=start + by)


def type_into(view: DrawingView, path: str, text: str) -> None:
    """Click on a dimension, type, Enter."""
    field = view.fields.edits[path]
    QTest.mouseClick(field, Left)
    field.selectAll()
    QTest.keyClicks(field, text)
    QTest.keyClick(field, Qt.Key.Key_Return)


@pytest.mark.real_window
def test_the_main_path_drag_type_undo_save_reopen(window: Window, qtbot: QtBot, tmp_path: Path) -> None:
    """Drag the hinge end, type a depth, undo, redo, save, reopen: the same document."""
    page, store = cut_page(window), window.store
    before = store.snapshot.plan.cut
    scale = page.plan.scale_now.px_per_m
    drag(page.plan, "cut.hinge.left_m", QPoint(0, 8))
    dragged = store.snapshot.plan.cut
    assert dragged.hinge.left_m == pytest.approx(before.hinge.left_m + 8 / scale, abs=1.5 / scale)
    assert dragged.hinge.right_m == before.hinge.right_m
    assert store.history.undo_title == "hinge left dragged"

    type_into(page.plan, "cut.face.depth_m", "13.5")
    assert store.snapshot.plan.cut.face.depth_m == pytest.approx(0.135)
    assert page.plan.fields.edits["cut.face.depth_m"].text() == "13.5 cm"

    QTest.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert store.snapshot.plan.cut == dragged
    QTest.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier)
    assert store.snapshot.plan.cut.face.depth_m == pytest.approx(0.135)

    path = tmp_path / "withy.pcjob.json"
    window.jobs.ask_save = lambda _: str(path)  # type: ignore[method-assign]
    QTest.keyClick(window, Qt.Key.Key_S, Qt.KeyboardModifier.ControlModifier)
    qtbot.waitUntil(path.exists)
    saved = store.snapshot.job
    window.commands.run("job.new")
    assert store.snapshot.job != saved
    assert window.jobs.open(path)
    assert store.snapshot.job == saved
    assert read_job(path).job == saved
    assert not store.unsaved


def test_a_face_whose_cuts_end_apart_is_drawn_with_its_step(window: Window) -> None:
    """Between the two ends, at the apex, there is air where wood stood before."""
    page, store = cut_page(window), window.store

    def colour() -> str:
        result = store.snapshot.result
        level, ahead = result.case.cut.height_m + 0.02, result.parts.face.apex_forward_m + 0.003
        at = page.side.scale_now.point(ahead, level).toPoint()
        return page.side.grab().toImage().pixelColor(at).name()

    page.side.show()
    before = colour()
    store.set("cut.face.apart_m", 0.05, "ends apart")
    QApplication.processEvents()
    assert colour() != before


def test_the_verdict_and_the_margins_follow_a_drag(window: Window) -> None:
    page, store = cut_page(window), window.store
    before = window.top.verdict.text()
    type_into(page.plan, "cut.hinge.left_m", "1.2")
    type_into(page.plan, "cut.hinge.right_m", "1.2")
    assert store.snapshot.result.verdict.level == "stop"
    assert window.top.verdict.text() != before
    assert "Do not cut as drawn" in window.top.verdict.text()
    assert window.trail.buttons["cut"].level == "stop"


@pytest.mark.parametrize(
    ("view", "path", "by", "sign"),
    [
        ("plan", "cut.face.depth_m", QPoint(0, 6), 1),
        ("plan", "cut.hinge.right_m", QPoint(0, 6), 1),
        ("side", "cut.face.roof_deg", QPoint(0, -12), 1),
        ("side", "cut.face.floor_deg", QPoint(0, -8), -1),
        ("side", "cut.back.step_m", QPoint(0, -10), 1),
        ("side", "cut.height_m", QPoint(0, -20), 1),
    ],
)
def test_every_grip_moves_its_own_value_and_no_other(
    window: Window, view: str, path: str, by: QPoint, sign: int
) -> None:
    store = window.store
    before = store.snapshot
    drag(getattr(cut_page(window), view), path, by)
    after = store.snapshot
    assert (after.value(path) - before.value(path)) * sign > 0
    store.undo()
    assert store.snapshot.plan == before.plan


@pytest.mark.parametrize("form", ["plain", "bored"])
def test_every_grip_stands_where_its_value_says(window: Window, form: str) -> None:
    """Taking hold of a grip without moving it must not change anything."""
    window.store.set("cut.back.form", form, form)
    page = cut_page(window)
    for view in (page.plan, page.side):
        for grip in view.layout_now.grips:
            held_at = grip.drag(*view.scale_now.metres(grip.at))
            assert held_at == pytest.approx(window.store.snapshot.value(grip.path), abs=1e-3), grip.path


def test_the_strap_is_dragged_when_the_cut_is_bored(window: Window) -> None:
    window.store.set("cut.back.form", "bored", "bored")
    drag(cut_page(window).plan, "cut.back.strap_m", QPoint(0, -10))
    assert window.store.snapshot.plan.cut.back.strap_m > 0.06


def test_a_wedge_is_dragged_round_the_back(window: Window) -> None:
    plan = cut_page(window).plan
    drag(plan, "cut.wedges.0.at_deg", QPoint(-30, -12))
    assert 30 < window.store.snapshot.plan.cut.wedges[0].at_deg <= 80
    assert window.store.snapshot.plan.cut.wedges[1].at_deg == -25.0


def test_turning_the_ring_turns_the_lay(window: Window) -> None:
    """North is carried clockwise round the ring, so the lay's bearing goes down."""
    plan = cut_page(window).plan
    at = plan.grip("cut.lay_deg").at - plan.scale_now.origin
    clockwise = QPoint(round(-at.y() * 0.2), round(at.x() * 0.2))
    drag(plan, "cut.lay_deg", clockwise)
    lay = window.store.snapshot.plan.cut.lay_deg
    assert 195 < lay < 212
    north = plan.grip("cut.lay_deg").at - plan.scale_now.origin
    assert (north.x() - at.x()) * clockwise.x() + (north.y() - at.y()) * clockwise.y() > 0


@pytest.mark.parametrize(
    ("path", "text", "value"),
    [
        ("cut.face.depth_m", "12", 0.12),
        ("cut.face.depth_m", "5 in", 0.127),
        ("cut.hinge.left_m", "10 %D", 0.05456),
        ("cut.hinge.right_m", "2 1/4 in", 0.05715),
        ("cut.lay_deg", "SW", 225.0),
        ("cut.wedges.0.at_deg", "40 L", 40.0),
    ],
)
def test_a_dimension_is_typed_as_people_write_it(window: Window, path: str, text: str, value: float) -> None:
    type_into(cut_page(window).plan, path, text)
    assert window.store.snapshot.value(path) == pytest.approx(value, rel=2e-3)


def test_tab_goes_to_the_next_dimension_and_keeps_what_was_typed(window: Window) -> None:
    plan = cut_page(window).plan
    field = plan.fields.edits["cut.face.depth_m"]
    QTest.mouseClick(field, Left)
    field.selectAll()
    QTest.keyClicks(field, "11")
    QTest.keyClick(field, Qt.Key.Key_Tab)
    assert window.store.snapshot.plan.cut.face.depth_m == pytest.approx(0.11)
    assert QApplication.focusWidget() is plan.fields.edits["cut.hinge.left_m"]


def test_what_cannot_be_read_stays_in_the_field_with_a_sentence(window: Window) -> None:
    plan = cut_page(window).plan
    before = window.store.snapshot.job
    type_into(plan, "cut.face.depth_m", "twelve")
    field = plan.fields.edits["cut.face.depth_m"]
    assert field.text() == "twelve"
    assert field.property("wrong")
    assert window.message.isVisible()
    assert "12.5 cm" in window.message.text()
    assert window.store.snapshot.job == before
    QTest.keyClick(field, Qt.Key.Key_Escape)
    assert field.text() == "12 cm"
    assert not field.property("wrong")


def test_what_does_not_fit_names_the_field_and_what_would(window: Window) -> None:
    plan = cut_page(window).plan
    type_into(plan, "cut.face.depth_m", "40")
    assert "Face depth 40 cm" in window.message.text()
    assert "pith" in window.message.text()
    assert plan.fields.edits["cut.face.depth_m"].text() == "40"
    type_into(plan, "cut.face.depth_m", "12")
    assert not plan.fields.edits["cut.face.depth_m"].property("wrong")


def test_arrow_keys_move_a_dimension_by_its_step(window: Window) -> None:
    field = cut_page(window).plan.fields.edits["cut.face.depth_m"]
    QTest.mouseClick(field, Left)
    QTest.keyClick(field, Qt.Key.Key_Up)
    assert window.store.snapshot.plan.cut.face.depth_m == pytest.approx(0.125)
    QTest.keyClick(field, Qt.Key.Key_Down)
    assert window.store.snapshot.plan.cut.face.depth_m == pytest.approx(0.12)


def test_escape_lets_go_of_a_drag(window: Window) -> None:
    plan = cut_page(window).plan
    before = window.store.snapshot.job
    start = plan.grip("cut.face.depth_m").at.toPoint()
    QTest.mousePress(plan, Left, pos=start)
    QTest.mouseMove(plan, start + QPoint(0, 8))
    assert window.store.snapshot.job != before
    QTest.keyClick(plan, Qt.Key.Key_Escape)
    QTest.mouseRelease(plan, Left, pos=start + QPoint(0, 8))
    assert window.store.snapshot.job == before


def test_both_drawings_keep_one_scale_and_the_paper_still_during_a_drag(window: Window) -> None:
    page = cut_page(window)
    assert page.plan.scale_now.px_per_m == pytest.approx(page.side.scale_now.px_per_m)
    origin = page.side.scale_now.origin
    start = page.side.grip("cut.height_m").at.toPoint()
    QTest.mousePress(page.side, Left, pos=start)
    QTest.mouseMove(page.side, start + QPoint(0, -30))
    assert page.side.scale_now.origin == origin
    QTest.mouseRelease(page.side, Left, pos=start + QPoint(0, -30))


def test_the_wheel_zooms_about_the_pointer_and_ctrl_0_fits_again(window: Window) -> None:
    plan = cut_page(window).plan
    fitted, at = plan.scale_now, QPointF(200, 250)
    under = plan.scale_now.metres(at)
    event = QWheelEvent(
        at,
        plan.mapToGlobal(at),
        QPoint(),
        QPoint(0, 240),
        Qt.MouseButton.NoButton,
        Qt.KeyboardModifier.NoModifier,
        Qt.ScrollPhase.NoScrollPhase,
        False,
    )
    QApplication.sendEvent(plan, event)
    assert plan.scale_now.px_per_m > 1.2 * fitted.px_per_m
    assert plan.scale_now.metres(at) == pytest.approx(under)
    window.commands.run("view.fit")
    assert plan.scale_now == fitted


def test_the_middle_button_pans(window: Window) -> None:
    plan = cut_page(window).plan
    origin = plan.scale_now.origin
    QTest.mousePress(plan, Qt.MouseButton.MiddleButton, pos=QPoint(100, 300))
    QTest.mouseMove(plan, QPoint(130, 320))
    QTest.mouseRelease(plan, Qt.MouseButton.MiddleButton, pos=QPoint(130, 320))
    moved = plan.scale_now.origin - origin
    assert (round(moved.x()), round(moved.y())) == (30, 20)


def test_wedges_are_added_stacked_and_removed(window: Window) -> None:
    store = window.store
    window.commands.run("wedge.add")
    assert len(store.snapshot.plan.cut.wedges) == 3
    window.commands.run("wedge.stack")
    assert store.snapshot.plan.cut.wedges[-1].stacked == 2
    for _ in range(3):
        window.commands.run("wedge.remove")
    assert store.snapshot.plan.cut.wedges == ()
    assert store.snapshot.result.verdict.level == "stop"
    window.commands.run("wedge.remove")
    for _ in range(5):
        store.undo()
    assert len(store.snapshot.plan.cut.wedges) == 2


def test_choosing_a_form_changes_what_can_be_typed(window: Window) -> None:
    page = cut_page(window)
    face, _, back = page.choices
    face.setCurrentIndex(face.findData("reverse"))
    face.activated.emit(face.currentIndex())
    back.setCurrentIndex(back.findData("bored"))
    back.activated.emit(back.currentIndex())
    side = {p.path for p in page.side.layout_now.fields}
    assert "cut.face.roof_deg" not in side
    assert "cut.face.floor_deg" in side
    assert "cut.back.strap_m" in {p.path for p in page.plan.layout_now.fields}


@pytest.mark.parametrize("size", [(1100, 700), (1280, 800), (1920, 1080), (3840, 2160)])
@pytest.mark.parametrize("form", ["plain", "bored"])
def test_no_two_dimensions_overlap_and_none_is_cut_off(window: Window, size: tuple[int, int], form: str) -> None:
    window.resize(*size)
    window.store.set("cut.back.form", form, form)
    window.store.set("units", "imperial", "imperial")
    QApplication.processEvents()
    page = cut_page(window)
    for view in (page.plan, page.side):
        boxes = [view.fields.edits[place.path].geometry() for place in view.layout_now.fields]
        for box in boxes:
            assert view.rect().contains(box)
        for one, other in combinations(boxes, 2):
            assert not one.intersects(other)


@pytest.mark.parametrize("diameter", [0.10, 0.25, 0.9, 2.4])
def test_stems_of_every_size_fit_the_view(window: Window, diameter: float) -> None:
    window.store.set("tree.trunk.butt_diameter_m", diameter, "butt")
    page = cut_page(window)
    for grip in (*page.plan.layout_now.grips, *page.side.layout_now.grips):
        view = page.plan if grip in page.plan.layout_now.grips else page.side
        assert view.rect().contains(grip.at.toPoint()), grip.path


def test_a_picked_finding_is_brought_out_in_the_drawing(window: Window) -> None:
    window.band.picked.emit(window.store.snapshot.result.findings[0])
    assert cut_page(window).plan.mark == window.store.snapshot.result.findings[0].mark
    strip = window.band.strip(2).center().toPoint()
    QTest.mouseClick(window.band, Left, pos=strip)
    row = window.side.findings.findings_model.rows[window.side.findings.currentIndex().row()]
    assert row.finding is not None and row.finding.group == "hinge"
