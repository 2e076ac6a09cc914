"""The plan by keyboard and from the list beside it; ways out dragged, typed, turned by keys and proposed."""

from __future__ import annotations

import math

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QToolButton

from plain_compass.app.frame.window import Window
from plain_compass.app.steps.ground.keys import COARSE_M, FINE_M
from plain_compass.app.steps.ground.page import GroundPage
from plain_compass.app.steps.ground.polar import WayEdit
from plain_compass.app.steps.ground.things import things_of
from plain_compass.core.site.ways_out import FARTHEST_LAY_DEG
from plain_compass.job.files import job_text, parse_job

Key, Mod = Qt.Key, Qt.KeyboardModifier


@pytest.fixture
def ground(window: Window) -> GroundPage:
    QTest.keyClick(window, Key.Key_2)
    page = window.page
    assert isinstance(page, GroundPage)
    return page


def button(page: GroundPage, name: str) -> QToolButton:
    found = page.findChild(QToolButton, name)
    assert found is not None
    return found


def test_an_obstacle_is_drawn_where_the_arrow_keys_aim(window: Window, ground: GroundPage) -> None:
    at, before = window.store.snapshot.plan.at, len(window.store.snapshot.job.site.obstacles)
    ground.kinds.setCurrentIndex(ground.kinds.findData("rock"))
    ground.draw.setFocus()
    QTest.keyClick(ground.draw, Key.Key_Space)
    assert ground.plan.hasFocus() and "Enter" in ground.words.text()
    east, north = ground.plan.keys.aim
    QTest.keyClick(ground.plan, Key.Key_Up)
    QTest.keyClick(ground.plan, Key.Key_Right, Mod.ShiftModifier)
    QTest.keyClick(ground.plan, Key.Key_Return)
    obstacles = window.store.snapshot.job.site.obstacles
    assert len(obstacles) == before + 1 and obstacles[-1].kind == "rock"
    point = obstacles[-1].points[0]
    assert point.east_m == pytest.approx(at.east_m + east + COARSE_M, abs=0.06)
    assert point.north_m == pytest.approx(at.north_m + north + FINE_M, abs=0.06)
    assert ground.plan.chosen == f"site.obstacles.{before}", "what was drawn is picked, its fields beside the plan"
    assert not ground.draw.isChecked()


def test_escape_lets_what_was_about_to_be_drawn_be(window: Window, ground: GroundPage) -> None:
    before = window.store.snapshot.job.site
    ground.draw.click()
    QTest.keyClick(ground.plan, Key.Key_Escape)
    QTest.keyClick(ground.plan, Key.Key_Return)
    assert window.store.snapshot.job.site == before
    assert not ground.draw.isChecked() and "Escape" not in ground.words.text()


def test_things_are_walked_through_moved_as_a_whole_and_removed_by_keys(window: Window, ground: GroundPage) -> None:
    paths = [thing.path for thing in things_of(window.store.snapshot)]
    for path in paths[:4]:
        QTest.keyClick(ground.plan, Key.Key_PageDown)
        assert ground.plan.chosen == path
    QTest.keyClick(ground.plan, Key.Key_PageUp)
    assert ground.plan.chosen == paths[2]
    line = next(n for n, each in enumerate(window.store.snapshot.job.site.obstacles) if len(each.points) > 2)
    ground.pick(f"site.obstacles.{line}")
    before = window.store.snapshot.job.site.obstacles[line]
    for _ in range(3):
        QTest.keyClick(ground.plan, Key.Key_Left, Mod.ControlModifier)
    QTest.keyClick(ground.plan, Key.Key_Down, Mod.ControlModifier | Mod.ShiftModifier)
    after = window.store.snapshot.job.site.obstacles[line]
    for one, other in zip(before.points, after.points, strict=True):
        moved = (other.east_m - one.east_m, other.north_m - one.north_m)
        assert moved == pytest.approx((-3 * FINE_M, -COARSE_M))
    window.commands.run("edit.undo")
    assert window.store.snapshot.job.site.obstacles[line] == before, "moves after one another are one step"
    QTest.keyClick(ground.plan, Key.Key_Delete)
    assert before not in window.store.snapshot.job.site.obstacles
    assert ground.plan.chosen == ""


def test_the_list_picks_follows_and_removes(window: Window, ground: GroundPage) -> None:
    rows = [ground.things.item(n).text() for n in range(ground.things.count())]
    assert rows[0].startswith("way out left") and any(row.startswith("bee hives: ") for row in rows)
    hives = next(n for n, row in enumerate(rows) if row.startswith("bee hives"))
    ground.things.setFocus()
    ground.things.setCurrentRow(0)
    for _ in range(hives):
        QTest.keyClick(ground.things, Key.Key_Down)
    assert ground.picked.name.text() == "bee hives"
    ground.pick("cut.way_right_deg")
    assert ground.things.currentRow() == 1
    ground.things.setCurrentRow(hives)
    QTest.keyClick(ground.things, Key.Key_Delete)
    assert not any(ground.things.item(n).text().startswith("bee hives") for n in range(ground.things.count()))
    ground.things.setCurrentRow(0)
    QTest.keyClick(ground.things, Key.Key_Delete)
    assert ground.things.item(0).text().startswith("way out left"), "a way out is never removed"


def test_a_way_out_is_dragged_and_judged_where_it_is_let_go(window: Window, ground: GroundPage) -> None:
    plan, store = ground.plan, window.store
    lay = store.snapshot.plan.cut.lay_deg
    start = plan.grip("cut.way_left_deg").at
    turn = math.radians(lay - 110.0)
    there = plan.scale_now.origin.toPoint() + QPoint(round(60 * math.sin(turn)), round(-60 * math.cos(turn)))
    QTest.mousePress(plan, Qt.MouseButton.LeftButton, pos=start.toPoint())
    QTest.mouseMove(plan, there)
    QTest.mouseRelease(plan, Qt.MouseButton.LeftButton, pos=there)
    assert store.snapshot.plan.cut.way_left_deg == 110.0
    way, _ = store.snapshot.shapes.site.ways
    assert way.bearing_deg == pytest.approx((lay - 110.0) % 360)
    assert ground.things.item(0).text() == f"way out left: {way.bearing_deg:.0f}°, set"
    assert f"{way.bearing_deg:.0f}°" in " ".join(
        store.snapshot.speech.phrase(f.sentence) for f in store.snapshot.result.findings
    )
    window.commands.run("tree.redesign")
    assert store.snapshot.plan.cut.way_left_deg == 110.0, "the ground is not the design's"
    assert parse_job(job_text(store.snapshot.job, {}), "job").job.plan("WH-07").cut.way_left_deg == 110.0


def test_a_way_out_is_typed_as_a_bearing_and_one_past_the_tree_is_refused(window: Window, ground: GroundPage) -> None:
    store = window.store
    lay = store.snapshot.plan.cut.lay_deg
    ground.pick("cut.way_right_deg")
    field = ground.picked.findChild(WayEdit)
    assert field is not None and not button(ground, "ground:propose").isEnabled()
    field.selectAll()
    QTest.keyClicks(field, f"{(lay + 150) % 360:.0f}")
    QTest.keyClick(field, Key.Key_Return)
    assert store.snapshot.plan.cut.way_right_deg == pytest.approx(150.0)
    assert ground.picked.state.text().startswith("Set: ")
    field.selectAll()
    QTest.keyClicks(field, f"{(lay + 20) % 360:.0f}")
    QTest.keyClick(field, Key.Key_Return)
    assert store.snapshot.plan.cut.way_right_deg == pytest.approx(150.0)
    assert "100° to 170°" in window.message.text()
    field.selectAll()
    QTest.keyClicks(field, "somewhere")
    QTest.keyClick(field, Key.Key_Return)
    assert "somewhere" in window.message.text()
    button(ground, "ground:propose").click()
    assert store.snapshot.plan.cut.way_right_deg is None
    assert ground.picked.state.text().startswith("Proposed: ")


def test_a_way_out_is_turned_by_keys_as_far_as_one_may_go(window: Window, ground: GroundPage) -> None:
    ground.pick("cut.way_right_deg")
    QTest.keyClick(ground.plan, Key.Key_Right, Mod.ControlModifier)
    assert window.store.snapshot.plan.cut.way_right_deg == 140.0
    for _ in range(20):
        QTest.keyClick(ground.plan, Key.Key_Right, Mod.ControlModifier)
    assert window.store.snapshot.plan.cut.way_right_deg == FARTHEST_LAY_DEG
    QApplication.processEvents()
    assert window.store.snapshot.shapes.site.ways[1].off_lay_deg == FARTHEST_LAY_DEG
