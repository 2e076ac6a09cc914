"""The stump in the round: the plan's own geometry, to scale, of every form; turned by mouse and keys."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PySide6.QtCore import QPoint, QRectF, Qt
from PySide6.QtGui import QColor, QImage, QPainter
from PySide6.QtTest import QTest

from plain_compass.app.drawing.palette import LIGHT
from plain_compass.app.drawing.round_painter import Look, Projection, paint_round
from plain_compass.app.drawing.shapes import Shapes
from plain_compass.app.drawing.shapes.solid import EVERY, Solid
from plain_compass.app.frame.window import Window
from plain_compass.app.steps.cut.page import CutPage
from plain_compass.app.steps.stages.page import StagesPage
from plain_compass.app.steps.stages.views import solid_at
from plain_compass.core.assess import Assessment, assess, fits
from plain_compass.core.base.polygon import Array
from plain_compass.core.cuts import form_of
from plain_compass.core.design.cut import BACKS, FACES, HINGES
from plain_compass.job.demo import demo_job
from plain_compass.job.document import assess_tree, case_of

TREES = ("WH-07", "WH-12", "WH-15", "WH-18", "WH-21", "WH-24")
BOX = QRectF(0, 0, 300, 220)
FORMS = [("face", key) for key in FACES] + [("hinge", key) for key in HINGES] + [("back", key) for key in BACKS]


def area_m2(points: Array) -> float:
    x, y = points[:, 0], points[:, 1]
    return abs(float((x * np.roll(y, -1) - np.roll(x, -1) * y).sum())) / 2


def solid(result: Assessment) -> Solid:
    return Shapes(result).solid


def painted(of: Solid, look: Look) -> QImage:
    image = QImage(300, 220, QImage.Format.Format_RGB32)
    image.fill(QColor("#FBFAF6"))
    with QPainter(image) as painter:
        paint_round(painter, BOX, of, look, LIGHT)
    return image


@pytest.mark.parametrize("tree_id", TREES)
def test_face_and_kerf_are_the_wood_of_the_plan_and_what_holds_stands_on_it(tree_id: str) -> None:
    result = assess_tree(demo_job(), tree_id)
    found, stump = solid(result), Shapes(result).stump_coarse
    flat = sum(area_m2(top.points) for top in found.tops if top.part in ("floor", "kerf"))
    assert flat == pytest.approx(area_m2(result.parts.section.wood[::EVERY]), rel=1e-6)
    holds = [*stump.hinge, *(() if stump.strap is None else (stump.strap,)), *stump.held]
    stubs = [top for top in found.tops if top.part == "holds"]
    assert [area_m2(top.points) for top in stubs] == pytest.approx([area_m2(each) for each in holds])
    assert sum(top.part == "wedge" for top in found.tops) == len(result.parts.wedging.seats)


@pytest.mark.parametrize("tree_id", TREES)
def test_the_face_falls_by_its_floor_and_the_kerf_lies_its_step_over_the_apex(tree_id: str) -> None:
    result = assess_tree(demo_job(), tree_id)
    cut, apex = result.case.cut, result.parts.face.apex_forward_m
    for top in solid(result).tops:
        if top.part == "floor":
            fall = math.tan(math.radians(cut.face.angles_deg[1]))
            assert top.points[:, 2] == pytest.approx(-(top.points[:, 0] - apex) * fall, abs=1e-9)
        elif top.part == "kerf":
            assert set(top.points[:, 2].tolist()) == {cut.back.step_m}


@pytest.mark.parametrize(("part", "key"), FORMS)
@pytest.mark.usefixtures("qapp")
def test_every_form_is_drawn_from_all_round(part: str, key: str) -> None:
    case = case_of(demo_job(), "WH-12")
    designed = replace(case, cut=form_of(part, key).design(case))
    if not fits(designed):
        pytest.skip("the table does not fit this form to this tree")
    found = solid(assess(designed))
    assert all(np.isfinite(top.points).all() for top in found.tops)
    assert all((wall.bottom[:, 2] <= wall.top[:, 2]).all() for wall in found.walls)
    for turn in (0.0, 90.0, 200.0):
        assert not painted(found, Look(turn, 30.0)).allGray()


@given(st.floats(0.0, 360.0), st.floats(12.0, 80.0), st.floats(-0.3, 0.3), st.floats(-0.3, 0.3), st.floats(-0.2, 0.2))
def test_it_is_to_scale_from_wherever_it_is_looked_at(
    turn_deg: float, up_deg: float, forward: float, left: float, up: float
) -> None:
    to = Projection(SOLID, Look(turn_deg, up_deg), BOX)
    here, there = to.page(np.array([[0.0, 0.0, 0.0], [forward, left, up]]))
    across, along = (there - here) / to.px_per_m
    near = forward * math.cos(math.radians(turn_deg)) - left * math.sin(math.radians(turn_deg))
    depth = near * math.cos(math.radians(up_deg)) + up * math.sin(math.radians(up_deg))
    # What is seen across and up the page, with what lies along the line of sight, is the whole distance.
    assert across**2 + along**2 + depth**2 == pytest.approx(forward**2 + left**2 + up**2, abs=1e-9)


def test_one_sees_half_the_bark_and_the_half_that_faces_one() -> None:
    to = Projection(SOLID, Look(0.0, 30.0), BOX)
    bark = [wall for wall in SOLID.walls if wall.body == 0 and wall.part == "bark"]
    seen = [wall for wall in bark if to.faces(wall)]
    assert len(seen) == pytest.approx(len(bark) / 2, abs=3)
    # From where the tree is to go one sees its front.
    assert np.mean([wall.top[:, 0].mean() for wall in seen]) > 0.1


def test_it_stays_above_level_and_below_straight_down() -> None:
    look = Look()
    assert look.turned(0.0, -500.0).up_deg == 12.0
    assert look.turned(0.0, 500.0).up_deg == 80.0
    assert look.turned(370.0).turn_deg == pytest.approx(look.turn_deg + 10.0)


def test_on_cut_it_is_turned_by_dragging_and_by_keys_and_home_brings_it_back(window: Window) -> None:
    QTest.keyClick(window, Qt.Key.Key_3)
    page = window.page
    assert isinstance(page, CutPage)
    view, before = page.round, page.round.look
    first = view.grab().toImage()
    QTest.mousePress(view, Qt.MouseButton.LeftButton, pos=QPoint(100, 80))
    QTest.mouseMove(view, QPoint(40, 90))
    QTest.mouseRelease(view, Qt.MouseButton.LeftButton, pos=QPoint(40, 90))
    assert view.look.turn_deg != before.turn_deg
    assert view.look.up_deg > before.up_deg
    assert view.grab().toImage() != first
    turned = view.look.turn_deg
    QTest.keyClick(view, Qt.Key.Key_Right)
    assert view.look.turn_deg == pytest.approx((turned + 15.0) % 360.0)
    QTest.keyClick(view, Qt.Key.Key_Home)
    assert view.look == before


def test_in_every_stage_it_shows_what_holds_there(window: Window) -> None:
    QTest.keyClick(window, Qt.Key.Key_4)
    page = window.page
    assert isinstance(page, StagesPage)
    seen = []
    for number in range(len(page.walk.stages)):
        page.go_to(number)
        found = solid_at(page.walk)
        stubs = [top for top in found.tops if top.part == "holds"]
        assert len(stubs) == len(page.walk.holds)
        seen.append(tuple(round(area_m2(top.points), 6) for top in stubs))
    assert seen[0] != seen[1] != seen[2]
    # Whole before it is cut, and no face in it yet.
    page.go_to(0)
    assert not any(top.part == "floor" for top in solid_at(page.walk).tops)


SOLID = solid(assess_tree(demo_job(), "WH-07"))
