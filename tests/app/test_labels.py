"""Labels keep apart: by themselves, and on the plan of every demo tree at three sizes."""

from __future__ import annotations

from itertools import combinations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from PySide6.QtCore import QPointF, QRectF, QSizeF, Qt
from PySide6.QtGui import QImage
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from listening import Listening
from plain_compass.app.drawing.labels import Label, about, placed
from plain_compass.app.drawing.plan_words import CENTRE, OFF
from plain_compass.app.frame.drawing_view import DrawingView
from plain_compass.app.frame.window import Window
from plain_compass.app.steps.card.painter import paint_card
from plain_compass.app.steps.card.paper import LayoutWanted
from plain_compass.app.steps.cut.page import CutPage
from plain_compass.app.steps.cut.views import SideView
from plain_compass.app.steps.ground.page import GroundPage

PAGE = QRectF(0, 0, 400, 300)
points = st.tuples(st.floats(20, 380), st.floats(20, 280))


def label(key: int, at: tuple[float, float]) -> Label:
    size = QSizeF(70, 18)
    return Label(str(key), size, about(QPointF(*at), size, 8.0))


@given(st.lists(points, max_size=9), st.lists(points, max_size=4))
def test_no_two_lie_over_one_another_nothing_is_covered_and_none_is_cut(
    ats: list[tuple[float, float]], handles: list[tuple[float, float]]
) -> None:
    taken = [QRectF(x - 10, y - 10, 20, 20) for x, y in handles]
    found = placed([label(key, at) for key, at in enumerate(ats)], taken, PAGE)
    assert all(PAGE.contains(box) for box in found.values())
    assert not any(one.intersects(other) for one, other in combinations(found.values(), 2))
    assert not any(box.intersects(other) for box in found.values() for other in taken)


@given(points)
def test_a_label_by_itself_stands_below_what_it_names_where_there_is_room(at: tuple[float, float]) -> None:
    found = placed([label(0, at)], [], PAGE)["0"]
    below = QRectF(at[0] - 35, at[1] + 8, 70, 18)
    assert not PAGE.contains(below) or found == below


def test_one_that_finds_no_room_is_left_out_and_the_more_important_stays() -> None:
    size = QSizeF(70, 18)
    same = (QPointF(200, 150),)
    found = placed([Label("first", size, same), Label("second", size, same)], [], PAGE)
    assert list(found) == ["first"]


def test_one_gives_way_when_another_has_only_one_place() -> None:
    size, middle, other = QSizeF(70, 18), QPointF(200, 150), QPointF(200, 220)
    found = placed([Label("moves", size, (middle, other)), Label("stays", size, (middle,))], [], PAGE)
    assert found["stays"].center() == middle
    assert found["moves"].center() == other


@pytest.mark.parametrize("size", [(1100, 700), (1280, 800), (1920, 1080)])
@pytest.mark.parametrize("tree_id", ["WH-07", "WH-12", "WH-15", "WH-18", "WH-21", "WH-24"])
def test_on_the_plan_words_fields_and_handles_keep_apart(window: Window, tree_id: str, size: tuple[int, int]) -> None:
    window.resize(*size)
    window.store.look_at(tree_id)
    QTest.keyClick(window, Qt.Key.Key_2)
    page = window.page
    assert isinstance(page, GroundPage)
    page.rose.finish()
    plan = page.plan
    words = plan.names.now(window.store.snapshot)
    boxes = [told.box for told in words.sectors] + [box for box, _ in words.plain]
    fields = [QRectF(edit.geometry()) for edit in plan.fields.edits.values()]
    handles = [QRectF(g.at.x() - 8, g.at.y() - 8, 16, 16) for g in plan.layout_now.grips if not g.quiet]
    assert not any(one.intersects(other) for one, other in combinations(boxes + fields, 2))
    assert not any(box.intersects(handle) for box in boxes for handle in handles)
    assert all(plan.plan_box.contains(box) for box in boxes)
    # What leaves a sector without words leaves at least every wide one with them.
    told = {each.sector for each in words.sectors}
    assert all(each in told for each in page.rose.sectors if each.width_deg >= 30)


def _least_and_largest(window: Window) -> None:
    """The thinnest larch and a chestnut of a metre and a half with buttresses, beside the demo's own."""
    window.store.look_at("WH-24")
    window.store.set("tree.trunk.diameter_m", 0.12, "thin")
    window.commands.run("tree.redesign")
    window.store.look_at("WH-21")
    window.store.set("tree.species", "chestnut-sweet", "chestnut")
    window.store.set("tree.trunk.diameter_m", 1.5, "stout")
    window.store.set("kit.bar_m", 1.5, "bar")
    window.commands.run("tree.redesign")


def _written_on(view: DrawingView, window: Window) -> list[tuple[str, QRectF]]:
    """Every text painted on a drawing, the names of its dimensions included."""
    with Listening(QImage(view.size(), QImage.Format.Format_RGB32)) as painter:
        view.paint(painter, window.store.snapshot, view.scale_now)
        view.fields.paint_tags(painter, window.store.snapshot, view.palette_in_use)
    return painter.written


def _curve(view: DrawingView) -> QRectF:
    """Where the curve under the side view lies, which has words of its own."""
    return view.curve_box() if isinstance(view, SideView) else QRectF()


@pytest.mark.parametrize("words", ["hinge", "gob"])
@pytest.mark.parametrize("units", ["metric", "imperial"])
def test_on_cut_dimensions_keep_apart_and_off_the_handles_from_a_larch_to_a_chestnut(
    window: Window, units: str, words: str
) -> None:
    window.store.set("units", units, "units")
    window.store.set("words", words, "words")
    _least_and_largest(window)
    QTest.keyClick(window, Qt.Key.Key_3)
    page = window.page
    assert isinstance(page, CutPage)
    for size in ((1100, 700), (1280, 800), (1920, 1080), (2560, 1440)):
        window.resize(*size)
        for tree_id in ("WH-07", "WH-12", "WH-15", "WH-18", "WH-21", "WH-24"):
            window.store.look_at(tree_id)
            QApplication.processEvents()
            for view in (page.plan, page.side):
                boxes = {path: QRectF(edit.geometry()) for path, edit in view.fields.edits.items()}
                # A field and the name over it.
                named = {path: box.adjusted(0, -14, 0, 0) for path, box in boxes.items()}
                for (one, box), (other, beside) in combinations(named.items(), 2):
                    assert not box.intersects(beside), (size, tree_id, one, other)
                for path, box in boxes.items():
                    assert view.rect().contains(box.toRect()), (size, tree_id, path)
                    assert not box.intersects(_curve(view)), (size, tree_id, path)
                    for grip in view.layout_now.grips:
                        handle = QRectF(grip.at.x() - 8, grip.at.y() - 8, 16, 16)
                        assert not handle.intersects(box), (size, tree_id, path, grip.path)
                texts = [each for each in _written_on(view, window) if not _curve(view).contains(each[1].center())]
                for (one, box), (other, beside) in combinations(texts, 2):
                    assert not box.adjusted(1, 2, -1, -2).intersects(beside), (size, tree_id, one, other)
                for text, box in texts:
                    assert QRectF(view.rect()).adjusted(-1, -3, 1, 3).contains(box), (size, tree_id, text)
                    for path, field in boxes.items():
                        assert not field.intersects(box.adjusted(1, 2, -1, -2)), (size, tree_id, text, path)
                    for grip in view.layout_now.grips:
                        handle = QRectF(grip.at.x() - 6, grip.at.y() - 6, 12, 12)
                        assert not handle.intersects(box.adjusted(1, 2, -1, -2)), (size, tree_id, text, grip.path)


@pytest.mark.parametrize("tree_id", ["WH-07", "WH-12", "WH-15", "WH-18", "WH-21", "WH-24"])
def test_the_mark_of_the_weight_is_never_without_its_word(window: Window, tree_id: str) -> None:
    """On Cut at its usual size, and on the card: a ring with a cross alone would not be understood."""
    window.store.look_at(tree_id)
    QTest.keyClick(window, Qt.Key.Key_3)
    page = window.page
    assert isinstance(page, CutPage)
    QApplication.processEvents()
    with Listening(QImage(800, 1200, QImage.Format.Format_RGB32)) as paper:
        paint_card(paper, window.store.snapshot, LayoutWanted(with_stump_page=False), "today", paper.turn_over)
    for texts in (_written_on(page.plan, window), paper.written):
        assert {CENTRE, OFF} & {text for text, _ in texts}
