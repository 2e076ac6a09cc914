"""The Look step as a person uses it: typing, dragging, measuring, instruments, lists, pictures."""

from __future__ import annotations

import math
from dataclasses import replace
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QImage, QPainter
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QToolButton
from pytestqt.qtbot import QtBot

from plain_compass.app.drawing.shapes.standing import ACROSS, ALONG, stem_radius_m
from plain_compass.app.frame.drawing_view import DrawingView
from plain_compass.app.frame.field_edit import FieldEdit
from plain_compass.app.frame.window import Window
from plain_compass.app.steps.look.chips import Chip
from plain_compass.app.steps.look.explain import DRAWINGS, Explanation
from plain_compass.app.steps.look.measure_panel import MeasurePanel
from plain_compass.app.steps.look.page import LookPage
from plain_compass.core.base.levels import LEVELS
from plain_compass.core.judge.places import level_at_step
from plain_compass.instruments.devices import Faults
from plain_compass.instruments.server import Instruments
from plain_compass.job.readings import SHELL, Taken
from plain_compass.job.ways import METHODS

SIDE_MEASURE = 2


@pytest.fixture
def look(window: Window) -> LookPage:
    QTest.keyClick(window, Qt.Key.Key_1)
    page = window.page
    assert isinstance(page, LookPage)
    return page


@pytest.fixture
def panel(window: Window, look: LookPage) -> MeasurePanel:
    window.side.show_face(SIDE_MEASURE)
    found = window.side.panels["Measure"]
    assert isinstance(found, MeasurePanel)
    return found


def drag(view: DrawingView, path: str, by: QPoint) -> None:
    start = view.grip(path).at.toPoint()
    QTest.mousePress(view, Qt.MouseButton.LeftButton, pos=start)
    for step in range(1, 6):
        QTest.mouseMove(view, start + by * step / 5)
    QTest.mouseRelease(view, Qt.MouseButton.LeftButton, pos=start + by)


def typed(field: FieldEdit, text: str) -> None:
    field.setFocus()
    field.selectAll()
    QTest.keyClicks(field, text)
    QTest.keyClick(field, Qt.Key.Key_Return)


def test_the_height_is_dragged_at_the_top_and_undone_in_one_step(window: Window, look: LookPage) -> None:
    before = window.store.snapshot.plan.tree.height_m
    px = look.along.scale_now.px_per_m
    drag(look.along, "tree.height_m", QPoint(0, 20))
    assert window.store.snapshot.plan.tree.height_m == pytest.approx(before - 20 / px, abs=1.5 / px)
    assert window.store.history.undo_title == "height dragged"
    window.store.undo()
    assert window.store.snapshot.plan.tree.height_m == before


def test_the_stem_is_leaned_in_either_view_and_keeps_its_part_in_the_other(window: Window, look: LookPage) -> None:
    lay = window.store.snapshot.plan.cut.lay_deg

    def parts() -> tuple[float, float]:
        lean = window.store.snapshot.plan.tree.lean
        tangent, turn = math.tan(math.radians(lean.angle_deg)), math.radians(lean.bearing_deg - lay)
        return tangent * math.cos(turn), tangent * math.sin(turn)

    forward, right = parts()
    drag(look.along, "tree.lean.angle_deg", QPoint(30, 0))
    assert parts()[0] > forward + 0.02
    assert parts()[1] == pytest.approx(right, abs=2e-3)
    forward, right = parts()
    drag(look.across, "tree.lean.angle_deg", QPoint(-30, 0))
    assert parts()[1] < right - 0.02
    assert parts()[0] == pytest.approx(forward, abs=2e-3)


def test_a_crown_edge_is_dragged_out_and_round(window: Window, look: LookPage) -> None:
    lay, path = window.store.snapshot.plan.cut.lay_deg, "tree.crown.readings.1.radius_m"
    out = (90.0 - lay) % 360
    away = QPointF(math.sin(math.radians(out)), -math.cos(math.radians(out))) * 15
    before = window.store.snapshot.plan.tree.crown.readings[1]
    drag(look.crown, path, away.toPoint())
    edge = window.store.snapshot.plan.tree.crown.readings[1]
    assert edge.bearing_deg == 90.0
    assert edge.radius_m > before.radius_m
    drag(look.crown, path, QPoint(round(40 * math.cos(math.radians(out))), round(40 * math.sin(math.radians(out)))))
    assert window.store.snapshot.plan.tree.crown.readings[1].bearing_deg > 100.0


def test_rot_buttresses_and_probes_are_dragged_on_the_section(window: Window, look: LookPage) -> None:
    before = window.store.snapshot.plan.tree.decay
    drag(look.butt, "tree.decay.radius_m", QPoint(-12, 6))
    assert window.store.snapshot.plan.tree.decay.radius_m != before.radius_m
    window.store.look_at("WH-21")
    lobe = window.store.snapshot.plan.tree.lobes[1]
    at = look.butt.grip("tree.lobes.1.projection_m").at - look.butt.scale_now.origin
    drag(look.butt, "tree.lobes.1.projection_m", (at / math.hypot(at.x(), at.y()) * 10).toPoint())
    moved = window.store.snapshot.plan.tree.lobes[1]
    assert moved.projection_m > lobe.projection_m
    assert moved.bearing_deg == lobe.bearing_deg
    window.store.look_at("WH-15")
    probe = window.store.snapshot.plan.tree.decay.shell[0]
    at = look.butt.grip("tree.decay.shell.0.sound_m").at - look.butt.scale_now.origin
    drag(look.butt, "tree.decay.shell.0.sound_m", (at / math.hypot(at.x(), at.y()) * -8).toPoint())
    assert window.store.snapshot.plan.tree.decay.shell[0].sound_m > probe.sound_m


def test_a_value_typed_with_its_spread_is_kept_as_a_reading_and_moves_the_bracket(
    window: Window, look: LookPage
) -> None:
    field = look.along.fields.edits["tree.height_m"]
    window.store.edit("no readings", without_readings(window), window.store.tree_id)
    typed(field, "17.2 ± 0.2")
    plan = window.store.snapshot.plan
    assert (plan.tree.height_m, plan.readings[-1].spreads) == (pytest.approx(17.2), (pytest.approx(0.2),))
    assert look.surveyed(window.store.snapshot).spread("tree.height_m") == pytest.approx(0.2)
    tags = {place.path: place.tag for place in look.along.layout_now.fields}
    assert tags["tree.height_m"] == "height ± 0.2 m"


def without_readings(window: Window):  # type: ignore[no-untyped-def]  # noqa: ANN201
    job = window.store.snapshot.job
    return replace(job, trees=tuple(replace(plan, readings=()) for plan in job.trees))


def test_a_crown_edge_may_be_typed_in_paces(window: Window, look: LookPage) -> None:
    typed(look.crown.fields.edits["tree.crown.readings.0.radius_m"], "5 paces")
    plan = window.store.snapshot.plan
    assert plan.tree.crown.readings[0].radius_m == pytest.approx(5 * 0.74)
    assert plan.readings[-1].by == "paced"
    assert plan.readings[-1].spreads[1] == pytest.approx(0.04 * 5 * 0.74)


def test_the_most_harmful_bracket_is_named_on_the_drawing(window: Window, look: LookPage) -> None:
    window.store.set("cut.goes_on", "wedges", "goes no further")
    look.compute()
    worst = look.surveyed(window.store.snapshot).worst
    assert worst
    tags = [p.tag for view in look.views for p in view.layout_now.fields if p.path == worst]
    assert tags
    assert all(tag.startswith("measure better: ") for tag in tags)


@pytest.mark.parametrize("tree_id", ["WH-07", "WH-12", "WH-15", "WH-18", "WH-21", "WH-24"])
@pytest.mark.parametrize("size", [(1100, 700), (1280, 800), (2200, 1300)])
def test_every_demo_tree_is_drawn_inside_its_views_at_every_size(
    window: Window, look: LookPage, tree_id: str, size: tuple[int, int]
) -> None:
    window.resize(*size)
    window.store.look_at(tree_id)
    look.compute()
    window.grab()
    for view in look.views:
        for grip in view.layout_now.grips:
            assert view.rect().adjusted(-2, -2, 2, 2).contains(grip.at.toPoint()), (view.accessibleName(), grip.path)
        for field in view.fields.edits.values():
            assert view.rect().contains(field.geometry()), (view.accessibleName(), field.path)


def test_both_side_views_stand_on_the_same_ground_and_a_drag_keeps_the_paper_still(look: LookPage) -> None:
    assert look.along.scale_now.origin.y() == look.across.scale_now.origin.y()
    start = look.along.grip("tree.height_m").at.toPoint()
    QTest.mousePress(look.along, Qt.MouseButton.LeftButton, pos=start)
    before = look.along.scale_now
    QTest.mouseMove(look.along, start + QPoint(0, 40))
    assert look.along.scale_now == before
    QTest.keyClick(look.along, Qt.Key.Key_Escape)


def test_the_two_facings_look_at_right_angles_and_the_stem_is_thickest_at_the_ground(window: Window) -> None:
    assert (ALONG.right_m(1.0, 2.0), ACROSS.right_m(1.0, 2.0)) == (1.0, -2.0)
    result = window.store.snapshot.result
    radii = [stem_radius_m(result, h) for h in (0.1, 0.4, 1.3, 5.0, 10.0, 17.0)]
    assert radii == sorted(radii, reverse=True)
    assert 2 * radii[2] == pytest.approx(0.52, rel=0.01)


def test_the_trail_shows_the_worst_of_what_was_seen(window: Window, look: LookPage) -> None:
    window.store.look_at("WH-24")
    window.store.set("tree.around.people_told", "unknown", "not asked")
    assert window.trail.buttons["look"].level == "unknown"
    window.store.set("tree.around.people_told", "yes", "told")
    assert LEVELS.index(window.trail.buttons["look"].level) < LEVELS.index("unknown")


# Measuring -------------------------------------------------------------------------------------------------


def test_three_readings_are_typed_taken_averaged_and_undone(window: Window, panel: MeasurePanel) -> None:
    window.store.edit("no readings", without_readings(window), window.store.tree_id)
    before = window.store.snapshot.plan.tree.height_m
    for top in ("41", "41.6", "60"):
        for name, text in (("distance", "18 m"), ("top", top), ("base", "-4")):
            panel.inputs[name].setText(text)
        QTest.keyClick(panel.inputs["base"], Qt.Key.Key_Return)
    plan = window.store.snapshot.plan
    assert [taken.by for taken in plan.readings] == ["clinometer"] * 3
    assert plan.tree.height_m == pytest.approx(
        18 * (math.tan(math.radians(41.3)) + math.tan(math.radians(4))), rel=0.01
    )
    assert "left out" in panel.readings.ticks[2].text()
    for _ in range(3):
        window.store.undo()
    assert window.store.snapshot.plan.tree.height_m == before
    assert window.store.snapshot.plan.readings == ()


def test_a_reading_is_left_out_and_counted_again_by_its_tick(window: Window, panel: MeasurePanel) -> None:
    panel.readings.ticks[1].click()
    assert window.store.snapshot.plan.readings[1].used is False
    assert window.store.snapshot.plan.tree.height_m < 17.4
    panel.readings.ticks[1].click()
    assert window.store.snapshot.plan.tree.height_m == pytest.approx(17.5)


def test_every_way_explains_itself_with_a_drawing_and_a_sentence(qtbot: QtBot) -> None:
    assert {(thing, way) for thing, ways in METHODS.items() for way in ways} == set(DRAWINGS)
    drawing = Explanation()
    qtbot.addWidget(drawing)
    drawing.resize(280, 128)
    pictures = set()
    for thing, ways in METHODS.items():
        for way, method in ways.items():
            assert method.how.endswith(".")
            drawing.show_way(thing, way)
            image = drawing.grab().toImage()
            pictures.add(bytes(image.constBits()))
    # Calliper and two diameters share one drawing.
    assert len(pictures) == len(DRAWINGS) - 1


def test_wrong_and_missing_readings_are_said_and_cannot_be_taken(panel: MeasurePanel) -> None:
    panel.inputs["distance"].setText("far")
    panel.inputs["top"].setText("40")
    panel.inputs["base"].setText("-3")
    assert "“far”" in panel.answer.text()
    assert not panel.button.isEnabled()
    panel.inputs["distance"].setText("")
    assert panel.answer.text() == ""
    panel.inputs["distance"].setText("20")
    panel.inputs["top"].setText("-10")
    assert "the top would be below the base" in panel.answer.text()
    panel.record()


def test_the_room_is_told_but_not_kept_as_a_reading(panel: MeasurePanel) -> None:
    panel.things.setCurrentIndex(list(METHODS).index("room"))
    panel.inputs["height"].setText("17.5")
    panel.inputs["room"].setText("12")
    assert "5.5" in panel.answer.text()
    assert not panel.button.isEnabled()


# Instruments -----------------------------------------------------------------------------------------------


def chips_of(panel: MeasurePanel, what: str) -> list[Chip]:
    return [chip for chip in panel.instruments.chips if chip.taken.what == what]


def test_a_stand_in_is_connected_three_readings_are_taken_and_the_height_and_its_spread_follow(
    window: Window, panel: MeasurePanel, qtbot: QtBot
) -> None:
    window.store.edit("no readings", without_readings(window), window.store.tree_id)
    desk = panel.instruments
    desk.every_s = 0.02
    QTest.mouseClick(desk.findChild(QToolButton, "instrument:own"), Qt.MouseButton.LeftButton)
    before = window.page.surveyed(window.store.snapshot).spread("tree.height_m")  # type: ignore[attr-defined]
    for count in range(1, 4):
        qtbot.waitUntil(lambda: bool(chips_of(panel, "tree.height_m")), timeout=8000)
        QTest.mouseClick(chips_of(panel, "tree.height_m")[0], Qt.MouseButton.LeftButton)
        assert len(window.store.snapshot.plan.readings) == count
    desk.close_links()
    plan = window.store.snapshot.plan
    assert {taken.by for taken in plan.readings} == {"rangefinder"}
    assert all(taken.note.count("\n") == 2 for taken in plan.readings)
    assert plan.tree.height_m == pytest.approx(17.5, abs=1.0)
    after = window.page.surveyed(window.store.snapshot).spread("tree.height_m")  # type: ignore[attr-defined]
    assert after < before
    window.store.undo()
    assert len(window.store.snapshot.plan.readings) == 2


def test_a_reading_is_carried_onto_the_dimension_it_measures_and_refused_elsewhere(
    window: Window, look: LookPage, panel: MeasurePanel
) -> None:
    desk = panel.instruments
    desk._offer(Taken("tree.trunk.diameter_m", "tape", (0.58,), (0.006,), "{}"))
    window.grab()
    chip = desk.chips[0]

    def carry(field: FieldEdit) -> None:
        QTest.mousePress(chip, Qt.MouseButton.LeftButton, pos=QPoint(10, 10))
        target = chip.mapFromGlobal(field.mapToGlobal(field.rect().center()))
        QTest.mouseMove(chip, QPoint(40, 40))
        QTest.mouseMove(chip, target)
        QTest.mouseRelease(chip, Qt.MouseButton.LeftButton, pos=target)

    carry(look.along.fields.edits["tree.height_m"])
    assert "does not measure that" in window.message.text()
    assert window.store.snapshot.plan.tree.trunk.diameter_m == pytest.approx(0.52)
    carry(look.butt.fields.edits["tree.trunk.butt_diameter_m"])
    assert window.store.snapshot.plan.tree.trunk.butt_diameter_m == pytest.approx(0.58)
    assert desk.chips == []


def test_readings_that_came_in_survive_a_disconnect_and_the_link_tries_again(
    window: Window, panel: MeasurePanel, qtbot: QtBot
) -> None:
    desk = panel.instruments
    with Instruments(1, Faults(), count=3, every_s=0.01) as running:
        desk.connect_to({"tape": running.ports["tape"]})
        qtbot.waitUntil(lambda: len(desk.chips) == 3, timeout=8000)
        qtbot.waitUntil(lambda: "trying again" in desk.state.text(), timeout=8000)
        # The device sends its lines anew to whoever connects again.
        qtbot.waitUntil(lambda: desk.links[0].accepted > 3, timeout=8000)
    desk.close_links()
    assert len(desk.chips) == 3
    assert "stay" in desk.state.text()


def test_garbage_and_lost_lines_are_counted_and_shown(panel: MeasurePanel, qtbot: QtBot) -> None:
    desk = panel.instruments
    with Instruments(2, Faults(garbage=0.3, lost=0.2, other_unit=0.3), count=60, every_s=0.002) as running:
        desk.connect_to({"windmeter": running.ports["windmeter"]})
        qtbot.waitUntil(lambda: desk.links[0].accepted > 20, timeout=8000)
        qtbot.waitUntil(lambda: "not readable" in desk.state.text() and "lost" in desk.state.text(), timeout=8000)
        desk.close_links()


def test_a_port_that_is_none_is_refused_in_a_sentence(window: Window, panel: MeasurePanel) -> None:
    panel.instruments.port.setText("eleven")
    panel.instruments.toggle()
    assert "accepted: 1024 to" in window.message.text()
    assert panel.instruments.links == []


def test_a_probe_reading_draws_its_hole_and_becomes_the_shell(window: Window, panel: MeasurePanel) -> None:
    desk = panel.instruments
    for bearing, sound in ((0.0, 0.11), (120.0, 0.10), (240.0, 0.12)):
        desk._offer(Taken(SHELL, "probe", (bearing, sound), (0.0, 0.004), "{}"))
        QTest.mouseClick(desk.chips[0], Qt.MouseButton.LeftButton)
    plan = window.store.snapshot.plan
    assert plan.tree.decay.kind == "shell"
    assert len(plan.tree.decay.shell) == 3
    section = window.store.snapshot.result.parts.section
    assert section.shell_ratio == pytest.approx(0.10 / (section.diameter_m / 2 - 0.008), rel=0.03)


# The sheet and files ---------------------------------------------------------------------------------------


def test_lists_grow_and_shrink_on_the_sheet_and_a_missing_sector_moves_the_weight(
    window: Window, look: LookPage
) -> None:
    window.side.show_face(1)
    for base in ("tree.lobes", "tree.limbs", "tree.defects", "tree.crown.readings"):
        count = len(window.store.snapshot.value(base))
        window.side.sheet.findChild(QToolButton, f"add:{base}").click()
        assert len(window.store.snapshot.value(base)) == count + 1
        window.side.sheet.findChild(QToolButton, f"remove:{base}.{count}").click()
        assert len(window.store.snapshot.value(base)) == count
    before = window.store.snapshot.result.parts.mass.com_forward_m
    window.store.set("tree.crown.readings.1.state", "missing", "gone")
    assert window.store.snapshot.result.parts.mass.com_forward_m != before


def test_adding_to_a_list_leaves_the_sheet_where_it_was(window: Window, look: LookPage, qtbot: QtBot) -> None:
    window.side.show_face(1)
    qtbot.waitUntil(lambda: window.side.sheet.verticalScrollBar().maximum() > 900)
    window.side.sheet.verticalScrollBar().setValue(900)
    window.side.sheet.findChild(QToolButton, "add:tree.lobes").click()
    qtbot.wait(50)
    assert window.side.sheet.verticalScrollBar().value() == 900


def test_tree_lists_and_raw_readings_go_in_and_out_of_the_window(
    window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    table, raw = tmp_path / "trees.csv", tmp_path / "readings.csv"
    monkeypatch.setattr(window.lists, "ask_save", lambda name: str(tmp_path / name))
    window.commands.run("list.export")
    window.commands.run("list.readings")
    assert len(raw.read_text().splitlines()) == 5
    assert not window.lists.import_trees(table)
    assert "are here already" in window.message.text()
    table.write_text(table.read_text().replace("WH-", "XX-"))
    assert window.lists.import_trees(table)
    assert len(window.store.snapshot.job.trees) == 12
    window.store.undo()
    assert len(window.store.snapshot.job.trees) == 6


def test_a_look_drawing_is_copied_as_a_picture_with_its_dimensions(window: Window, look: LookPage) -> None:
    for picture in look.pictures():
        image = QImage(picture.size, QImage.Format.Format_ARGB32)
        image.fill(Qt.GlobalColor.white)
        with QPainter(image) as painter:
            picture.paint(painter)
        assert len({image.pixel(x, image.height() // 2) for x in range(0, image.width(), 3)}) > 3


def test_a_new_tree_says_of_every_stand_in_that_it_was_not_measured(window: Window) -> None:
    window.jobs.new()
    field = window.page.findChild(FieldEdit, "tree.height_m")
    assert isinstance(field, FieldEdit)
    assert (field.text(), field.placeholderText()) == ("", "not measured")
    assert level_at_step(window.store.snapshot.result.findings, "look") == "unknown"
    QTest.keyClick(field, Qt.Key.Key_Up)
    assert window.store.snapshot.plan.tree.stand_ins, "a stand-in is not moved by its step"
    field.setFocus()
    QTest.keyClicks(field, "15")
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert field.text() == "15 m"
    window.side.survey.compute()
    assert window.side.survey.text().startswith("1 of 9 taken. Measure next: the diameter")
    assert window.edits.suggest() is None


def test_a_field_that_is_clicked_stays_under_the_pointer_while_the_one_before_it_sets_its_value(
    window: Window, look: LookPage, qtbot: QtBot
) -> None:
    """Half as high again, the whole tree is drawn smaller: but not between press and release."""
    height, base = (look.findChild(FieldEdit, path) for path in ("tree.height_m", "tree.crown.base_m"))
    assert isinstance(height, FieldEdit) and isinstance(base, FieldEdit)
    height.setFocus()
    height.selectAll()
    QTest.keyClicks(height, "31")
    before, at = base.geometry(), base.mapTo(window, base.rect().center())
    QTest.mousePress(window.windowHandle(), Qt.MouseButton.LeftButton, pos=at)
    qtbot.wait(120)
    assert window.store.snapshot.plan.tree.height_m == 31.0
    assert base.geometry() == before
    assert window.focusWidget() is base
    QTest.mouseRelease(window.windowHandle(), Qt.MouseButton.LeftButton, pos=at)
    qtbot.waitUntil(lambda: base.geometry() != before)
    assert base.selectedText() == base.text()


def test_a_new_tree_is_measured_by_typing_alone_enter_walks_on_to_what_is_next(window: Window) -> None:
    QTest.keyClick(window, Qt.Key.Key_T, Qt.KeyboardModifier.ControlModifier)
    keys = 1
    for typed, path in (
        ("52", "tree.trunk.diameter_m"),
        ("17", "tree.height_m"),
        ("5", "tree.crown.base_m"),
        ("3", "tree.crown.readings.0.radius_m"),
        ("3", "tree.crown.readings.1.radius_m"),
        ("3", "tree.crown.readings.2.radius_m"),
        ("3", "tree.crown.readings.3.radius_m"),
        ("1", "tree.lean.angle_deg"),
        ("9", "tree.lean.bearing_deg"),
    ):
        field = window.focusWidget()
        assert isinstance(field, FieldEdit)
        assert field.path == path
        QTest.keyClicks(field, typed)
        QTest.keyClick(field, Qt.Key.Key_Return)
        keys += len(typed) + 1
    assert window.store.snapshot.plan.tree.stand_ins == ()
    assert window.store.snapshot.plan.tree.trunk.diameter_m == pytest.approx(0.52)
    # Measured whole; with the walk round answered at once it is a tree that can be judged.
    QTest.keyClick(window, Qt.Key.Key_N, Qt.KeyboardModifier.AltModifier)
    assert keys + 1 <= 22
    # Once all is measured, Return stays where it is.
    last = window.focusWidget()
    assert isinstance(last, FieldEdit)
    QTest.keyClicks(last, "2")
    QTest.keyClick(last, Qt.Key.Key_Return)
    assert window.focusWidget() is last


def test_nothing_of_another_tree_is_shown_of_a_new_one(window: Window) -> None:
    QTest.keyClick(window, Qt.Key.Key_1)
    page = window.page
    assert isinstance(page, LookPage)
    page.compute()
    window.side.survey.compute()
    assert page.butt.rising is not None and page.surveyed(window.store.snapshot).worst
    window.commands.run("tree.add")
    assert page.butt.rising is None and not page.surveyed(window.store.snapshot).worst
    assert window.side.survey.text() == ""
    window.side.survey.compute()
    assert "0 of 9 taken" in window.side.survey.text()
