"""The Ground step as a person uses it: read the rose, turn the lay, draw, drag and remove obstacles."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QToolButton
from pytestqt.qtbot import QtBot

from plain_compass.app.drawing.scale import towards
from plain_compass.app.frame.band import strip_of
from plain_compass.app.frame.field_edit import FieldEdit
from plain_compass.app.frame.window import Window
from plain_compass.app.steps.ground.page import SPOT, GroundPage
from plain_compass.app.steps.ground.polar import PolarEdit
from plain_compass.app.steps.ground.reckoner import in_order
from plain_compass.core.base.levels import LEVELS
from plain_compass.job.edits import rename_tree

Left = Qt.MouseButton.LeftButton


@pytest.fixture
def ground(window: Window) -> GroundPage:
    QTest.keyClick(window, Qt.Key.Key_2)
    page = window.page
    assert isinstance(page, GroundPage)
    return page


def middle_of(page: GroundPage) -> QPointF:
    return page.plan.middle


def button(page: GroundPage, name: str) -> QToolButton:
    found = page.findChild(QToolButton, name)
    assert isinstance(found, QToolButton)
    return found


def draw(page: GroundPage, kind: str, at: QPoint) -> None:
    page.kinds.setCurrentIndex(page.kinds.findData(kind))
    QTest.mouseClick(button(page, "ground:draw"), Left)
    QTest.mouseClick(page.plan, Left, pos=at)


def test_the_rose_grows_coarse_first_and_covers_every_bearing_once() -> None:
    order = in_order()
    assert sorted(order) == list(range(360))
    assert order[:18] == tuple(range(0, 360, 20))


def test_the_window_stays_awake_while_the_rose_is_reckoned(window: Window, ground: GroundPage) -> None:
    assert not ground.rose.done
    QTest.keyClick(window, Qt.Key.Key_3)
    QTest.keyClick(window, Qt.Key.Key_2)
    ground.rose.step()
    assert 0 < len(ground.rose.spokes) < 360
    assert "of 360 bearings so far" in ground.words.text()


def test_the_lay_is_turned_by_dragging_it_and_the_verdict_follows(window: Window, ground: GroundPage) -> None:
    before = window.store.snapshot.plan.cut.lay_deg
    grip = ground.plan.grip("cut.lay_deg").at.toPoint()
    wanted = (middle_of(ground) + towards(45.0) * 150).toPoint()
    said = window.top.verdict.text() if hasattr(window.top, "verdict") else ""
    QTest.mousePress(ground.plan, Left, pos=grip)
    QTest.mouseMove(ground.plan, (middle_of(ground) + towards(120.0) * 150).toPoint())
    QTest.mouseMove(ground.plan, wanted)
    QTest.mouseRelease(ground.plan, Left, pos=wanted)
    assert window.store.snapshot.plan.cut.lay_deg == pytest.approx(45.0, abs=1.0)
    assert not said or window.top.verdict.text() != said
    window.store.undo()
    assert window.store.snapshot.plan.cut.lay_deg == before


def test_bearings_are_read_by_pointer_and_keys_and_enter_turns_the_lay(window: Window, ground: GroundPage) -> None:
    ground.rose.finish()
    QTest.mouseMove(ground.plan, (middle_of(ground) + towards(90.0) * (ground.plan.ring_px + 4)).toPoint())
    assert ground.plan.read_deg == pytest.approx(90.0, abs=1.0)
    ground.plan.show_read(90.0)
    ground.plan.setFocus()
    QTest.keyClick(ground.plan, Qt.Key.Key_Right)
    QTest.keyClick(ground.plan, Qt.Key.Key_Right, Qt.KeyboardModifier.ShiftModifier)
    assert ground.plan.read_deg == 101.0
    assert "101°" in ground.words.text()
    QTest.keyClick(ground.plan, Qt.Key.Key_Return)
    assert window.store.snapshot.plan.cut.lay_deg == 101.0


def test_an_obstacle_dropped_on_the_lay_is_a_stop_and_is_undone(window: Window, ground: GroundPage) -> None:
    lay = window.store.snapshot.plan.cut.lay_deg
    px = ground.plan.scale_now.px_per_m
    count = len(window.store.snapshot.job.site.obstacles)
    draw(ground, "people", (middle_of(ground) + towards(lay) * (10 * px)).toPoint())
    assert len(window.store.snapshot.job.site.obstacles) == count + 1
    assert window.store.snapshot.result.verdict.level == "stop"
    assert window.trail.buttons["ground"].level == "stop"
    assert ground.plan.chosen == f"site.obstacles.{count}"
    window.store.undo()
    assert len(window.store.snapshot.job.site.obstacles) == count
    assert ground.plan.chosen == ""
    assert LEVELS.index(window.trail.buttons["ground"].level) < LEVELS.index("stop")


def test_an_obstacle_is_dragged_typed_named_given_a_corner_and_removed(window: Window, ground: GroundPage) -> None:
    draw(ground, "fence", (middle_of(ground) + QPointF(60, 60)).toPoint())
    index = int(ground.plan.chosen.split(".")[2])
    before = window.store.snapshot.job.site.obstacles[index].points[0]
    grip = ground.plan.grip(f"site.obstacles.{index}.points.0.east_m").at.toPoint()
    QTest.mousePress(ground.plan, Left, pos=grip)
    QTest.mouseMove(ground.plan, grip + QPoint(20, 0))
    QTest.mouseRelease(ground.plan, Left, pos=grip + QPoint(20, 0))
    after = window.store.snapshot.job.site.obstacles[index].points[0]
    assert after.east_m > before.east_m
    assert after.north_m == pytest.approx(before.north_m, abs=0.2)
    ground.picked.name.setText("new fence")
    ground.picked.name.editingFinished.emit()
    assert window.store.snapshot.job.site.obstacles[index].name == "new fence"
    QTest.mouseClick(button(ground, "ground:corner"), Left)
    assert len(window.store.snapshot.job.site.obstacles[index].points) == 3
    QTest.mouseClick(button(ground, "ground:remove"), Left)
    assert all(o.name != "new fence" for o in window.store.snapshot.job.site.obstacles)


def test_turning_the_lay_does_not_reckon_the_rose_anew_but_a_new_crown_does(window: Window, ground: GroundPage) -> None:
    ground.rose.finish()
    window.store.set("cut.lay_deg", 33.0, "lay")
    assert ground.rose.done
    window.store.set("tree.crown.readings.0.radius_m", 5.0, "edge")
    assert not ground.rose.done


@pytest.mark.parametrize("tree_id", ["WH-07", "WH-12", "WH-15", "WH-18", "WH-21", "WH-24"])
def test_every_demo_tree_is_read_in_whole_sentences(window: Window, ground: GroundPage, tree_id: str) -> None:
    window.store.look_at(tree_id)
    for bearing in range(0, 360, 60):
        ground.rose.step()
        ground.plan.show_read(float(bearing))
        text = ground.words.text()
        assert "None" not in text
        assert "{" not in text
    window.grab()


def test_wind_nobody_judged_does_not_hide_the_peg_of_the_balance(window: Window) -> None:
    window.store.set("site.wind_m_s", None, "wind")
    shown = strip_of(window.store.snapshot.result.findings, "balance")
    assert shown.ruling is not None and shown.ruling.id == "balance.wind_not_judged"
    assert shown.level == "unknown"
    assert shown.peg is not None and shown.peg.id == "balance.over"


def test_wind_is_typed_on_the_plan_and_the_verdict_follows(window: Window, ground: GroundPage) -> None:
    field = ground.plan.fields.edits["site.wind_m_s"]
    field.setFocus()
    field.selectAll()
    QTest.keyClicks(field, "36 km/h")
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert window.store.snapshot.job.site.wind_m_s == pytest.approx(10.0)
    window.store.set("site.wind_from_deg", window.store.snapshot.plan.cut.lay_deg, "head on")
    assert window.store.snapshot.result.verdict.ruling.id == "balance.wind"
    window.store.undo()
    window.store.undo()
    assert window.store.snapshot.job.site.wind_m_s == pytest.approx(1.5)


# The shape of the ground, the rope, files --------------------------------------------------------------------


def test_a_spot_height_is_dropped_typed_and_removed_and_the_profile_follows(window: Window, ground: GroundPage) -> None:
    lay = window.store.snapshot.plan.cut.lay_deg
    px = ground.plan.scale_now.px_per_m
    count = len(window.store.snapshot.job.site.spots)
    before = window.store.snapshot.result.parts.resting
    draw(ground, SPOT, (middle_of(ground) + towards(lay) * (8 * px)).toPoint())
    assert ground.plan.chosen == f"site.spots.{count}"
    settled = window.store.snapshot.result.parts.resting
    assert settled.break_index == pytest.approx(before.break_index, abs=0.02)
    field = ground.picked.findChild(FieldEdit, f"site.spots.{count}.height_m")
    assert field is not None
    height = window.store.snapshot.job.site.spots[count].height_m
    QTest.mouseClick(field, Qt.MouseButton.LeftButton)
    QTest.keyClicks(field, f"{height + 2:.1f}")
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert window.store.snapshot.result.parts.resting.break_index > settled.break_index
    QTest.mouseClick(button(ground, "ground:remove"), Left)
    assert len(window.store.snapshot.job.site.spots) == count
    assert ground.plan.chosen == ""


def test_a_rope_is_set_dragged_typed_by_bearing_and_taken_off(window: Window, ground: GroundPage) -> None:
    QTest.mouseClick(button(ground, "ground:rope"), Left)
    plan = window.store.snapshot.plan
    assert plan.rope.use == "set"
    assert any(f.id == "rope.pull" for f in window.store.snapshot.result.findings)
    bearing = ground.picked.findChild(PolarEdit, "bearing:rope.anchor")
    distance = ground.picked.findChild(PolarEdit, "distance:rope.anchor")
    assert bearing is not None and distance is not None
    for field, text in ((bearing, "E"), (distance, "20 paces")):
        field.setText(text)
        QTest.keyClick(field, Qt.Key.Key_Return)
    anchor = window.store.snapshot.plan.rope.anchor
    assert (anchor.east_m, anchor.north_m) == (
        pytest.approx(20 * window.store.snapshot.job.person.pace_m),
        pytest.approx(0.0, abs=1e-6),
    )
    grip = ground.plan.grip("rope.anchor.east_m").at.toPoint()
    QTest.mousePress(ground.plan, Left, pos=grip)
    QTest.mouseMove(ground.plan, grip + QPoint(30, 0))
    QTest.mouseRelease(ground.plan, Left, pos=grip + QPoint(30, 0))
    assert window.store.snapshot.plan.rope.anchor.east_m > anchor.east_m + 0.5
    QTest.mouseClick(button(ground, "ground:rope"), Left)
    assert window.store.snapshot.plan.rope.use == "none"
    assert ground.plan.chosen == ""
    window.store.undo()
    assert window.store.snapshot.plan.rope.use == "set"


def test_what_is_typed_wrong_as_a_distance_is_named_and_changes_nothing(window: Window, ground: GroundPage) -> None:
    ground.pick("site.obstacles.0")
    before = window.store.snapshot.job
    field = ground.picked.findChild(PolarEdit, "distance:site.obstacles.0.points.0")
    assert field is not None
    field.setText("a stone's throw")
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert window.store.snapshot.job == before
    assert "stone's throw" in window.message.text()


def test_a_site_file_is_taken_in_with_a_list_of_what_was_not_and_undone(
    window: Window, ground: GroundPage, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    told: list[tuple[str, ...]] = []
    monkeypatch.setattr(window.sites, "show_skipped", lambda _, sentences: told.append(sentences))
    monkeypatch.setattr(window.sites, "ask_save", lambda: str(tmp_path / "out.geojson"))
    window.commands.run("site.export")
    content = json.loads((tmp_path / "out.geojson").read_text())
    content["features"] = [*content["features"][:3], {"type": "Feature"}]
    (tmp_path / "in.geojson").write_text(json.dumps(content))
    before = window.store.snapshot.job
    assert window.sites.take_in(tmp_path / "in.geojson")
    assert len(window.store.snapshot.job.site.obstacles) == 3
    assert "Feature 4" in told[0][0]
    window.store.undo()
    assert window.store.snapshot.job == before
    (tmp_path / "bad.geojson").write_text("nothing")
    assert not window.sites.take_in(tmp_path / "bad.geojson")
    assert "is not JSON" in window.message.text()
    assert window.store.snapshot.job == before


def test_an_obstacle_on_the_stem_is_refused_in_a_sentence(window: Window, ground: GroundPage) -> None:
    before = window.store.snapshot.job
    draw(ground, "rock", middle_of(ground).toPoint())
    assert window.store.snapshot.job == before
    assert "on the stem of WH-07" in window.message.text()


def test_the_jobs_other_trees_stand_on_the_plan_until_they_are_down(window: Window, ground: GroundPage) -> None:
    names = [o.name for o in window.store.snapshot.result.case.site.obstacles]
    assert "WH-12" in names and "WH-07" not in names and "WH-18" not in names, "WH-18 is down"
    job = window.store.snapshot.job
    down = replace(job, trees=tuple(replace(t, state="down") if t.id == "WH-12" else t for t in job.trees))
    window.store.edit("felled", down)
    assert "WH-12" not in [o.name for o in window.store.snapshot.result.case.site.obstacles]


def test_a_fields_own_return_does_not_turn_the_lay(window: Window, ground: GroundPage) -> None:
    lay = window.store.snapshot.plan.cut.lay_deg
    ground.plan.show_read((lay + 90) % 360)
    field = ground.findChild(FieldEdit, "site.slope_deg")
    assert field is not None
    field.setFocus()
    field.selectAll()
    QTest.keyClicks(field, "7")
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert window.store.snapshot.job.site.slope_deg == 7.0
    assert window.store.snapshot.plan.cut.lay_deg == lay


def test_reading_starts_at_the_lay(window: Window, ground: GroundPage) -> None:
    assert ground.plan.read_deg == window.store.snapshot.plan.cut.lay_deg
    ground.plan.show_read(12.0)
    window.store.look_at("WH-12")
    assert ground.plan.read_deg == window.store.snapshot.plan.cut.lay_deg


def test_the_rose_is_reckoned_anew_for_whatever_a_spoke_depends_on(window: Window, ground: GroundPage) -> None:
    ground.rose.finish()
    for path, value in (("cut.height_m", 0.45), ("cut.goes_on", "wedges"), ("site.slope_deg", 5.0), ("kit.bar_m", 0.4)):
        window.store.set(path, value, path)
        assert not ground.rose.done, path
        ground.rose.finish()
    # Each bearing has the practice's own design: what this plan's is like is no matter of the rose.
    for path, value in (("cut.lay_deg", 100.0), ("cut.face.depth_m", 0.13), ("cut.face.roof_deg", 52.0)):
        window.store.set(path, value, path)
        assert ground.rose.done, path


def test_the_rose_stands_still_while_something_is_dragged_and_goes_on_after(window: Window, ground: GroundPage) -> None:
    ground.rose.step()
    window.store.preview({"tree.height_m": 18.0})
    assert ground.rose.stale and not ground.rose._timer.isActive()
    assert "as it was before this drag" in ground.words.text()
    window.store.finish("height")
    assert not ground.rose.stale and ground.rose._timer.isActive()


def test_a_name_that_looks_like_markup_stays_a_name(window: Window, ground: GroundPage) -> None:
    name = "<img src=x><b>hive</b>"
    for index in range(len(window.store.snapshot.job.site.obstacles)):
        window.store.set(f"site.obstacles.{index}.name", name, "name")
    ground.rose.finish()
    told = []
    for bearing in range(0, 360, 10):
        ground.plan.show_read(float(bearing))
        told.append(ground.words.text())
    assert any("&lt;img" in text for text in told) and not any("<img" in text for text in told)
    window.store.change("renamed", lambda job: rename_tree(job, window.store.tree_id, name))
    assert "<img" not in window.top.verdict.text()


def test_the_rose_rests_while_nobody_looks_at_it_and_goes_on_after(
    window: Window, ground: GroundPage, qtbot: QtBot
) -> None:
    ground.rose.step()
    window.show_step("cut")
    count = len(ground.rose.spokes)
    QTest.qWait(60)
    assert 0 < len(ground.rose.spokes) == count < 360
    window.show_step("ground")
    qtbot.waitUntil(lambda: ground.rose.done, timeout=120_000)
    assert len(ground.rose.spokes) == 360
