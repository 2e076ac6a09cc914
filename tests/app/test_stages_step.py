"""Cuts and stages as a person uses them: forms chosen, statements read, the cut walked through, designs taken over."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QPushButton
from pytestqt.qtbot import QtBot

from plain_compass.app.drawing.sweep_painter import chart_box
from plain_compass.app.frame.field_edit import FieldEdit
from plain_compass.app.frame.window import Window
from plain_compass.app.steps.cut.page import CutPage
from plain_compass.app.steps.stages.page import StagesPage
from plain_compass.core.cuts.form import CutForm
from plain_compass.core.site.site import Site
from plain_compass.job.tables import forget_tables, practices

Left = Qt.MouseButton.LeftButton


@pytest.fixture
def stages(window: Window) -> StagesPage:
    QTest.keyClick(window, Qt.Key.Key_4)
    page = window.page
    assert isinstance(page, StagesPage)
    return page


def choose(window: Window, part: str, key: str, *, says: bool = True) -> list[CutForm]:
    """Pick a form on the Cut page; returns the forms whose statement was shown."""
    window.show_step("cut")
    page = window.page
    assert isinstance(page, CutPage)
    box = next(choice for choice in page.choices if choice.part == part)
    asked: list[CutForm] = []
    box.ask = lambda _, form, _speech: asked.append(form) or says  # type: ignore[func-returns-value]
    box.setCurrentIndex(box.findData(key))
    box.activated.emit(box.currentIndex())
    return asked


@pytest.mark.parametrize(
    ("part", "key", "field"),
    [
        ("back", "bored", "cut.back.strap_m"),
        ("back", "corner", "cut.back.lower_m"),
        ("face", "blocked", "cut.face.block_m"),
        ("hinge", "heart", "cut.hinge.heart_m"),
        ("back", "slot", "cut.back.slot_m"),
    ],
)
def test_five_unlike_forms_are_chosen_shaped_walked_through_and_undone(
    window: Window, part: str, key: str, field: str
) -> None:
    before = window.store.snapshot.plan.cut
    choose(window, part, key)
    page = window.page
    assert isinstance(page, CutPage)
    assert getattr(window.store.snapshot.plan.cut, part).form == key
    edit = page.findChild(FieldEdit, field)
    assert edit is not None and edit.isVisible()
    typed = window.store.snapshot.value(field) * 1.1
    edit.setFocus()
    edit.selectAll()
    QTest.keyClicks(edit, f"{typed * 100:.1f} cm")
    QTest.keyClick(edit, Qt.Key.Key_Return)
    assert window.store.snapshot.value(field) == pytest.approx(typed, abs=1e-3)
    window.show_step("stages")
    walk = window.page
    assert isinstance(walk, StagesPage)
    walk.row.setFocus()
    seen = set()
    for _ in walk.walk.stages:
        seen.add(walk.words.text())
        QTest.keyClick(walk.row, Qt.Key.Key_Right)
    assert len(seen) == len(walk.walk.stages)
    assert not window.grab().isNull()
    window.store.undo()
    window.store.undo()
    assert window.store.snapshot.plan.cut == before


def test_a_specialist_form_is_not_taken_before_its_statement_is_read(window: Window) -> None:
    assert [form.key for form in choose(window, "back", "slot", says=False)] == ["slot"]
    assert window.store.snapshot.plan.cut.back.form == "plain"
    assert [form.key for form in choose(window, "back", "slot")] == ["slot"]
    assert window.store.snapshot.plan.cut.read == "back:slot"
    choose(window, "back", "plain")
    assert choose(window, "back", "slot") == []


def test_leaving_four_posts_brings_a_face_back(window: Window) -> None:
    window.store.look_at("WH-21")
    choose(window, "back", "posts")
    assert window.store.snapshot.plan.cut.face.form == "none"
    choose(window, "back", "bored")
    assert window.store.snapshot.plan.cut.face.form == "open"


def test_a_form_that_does_not_fit_says_so_and_names_another(window: Window) -> None:
    choose(window, "back", "vees")
    told = next(f for f in window.store.snapshot.result.findings if f.id == "cut.back")
    assert told.level == "stop"
    assert "bored" in window.store.snapshot.speech.phrase(told.change)


def test_the_cut_is_walked_by_click_and_slider_and_the_text_follows(window: Window, stages: StagesPage) -> None:
    QTest.mouseClick(stages.row, Left, pos=stages.row.box(2).center().toPoint())
    assert stages.walk.number == 2
    assert "Stop if:" in stages.words.text()
    first = stages.words.text()
    chart = chart_box(stages.curves.rect().toRectF())
    start = QPoint(round(chart.left() + 0.5 * chart.width()), round(chart.center().y()))
    QTest.mousePress(stages.curves, Left, pos=start)
    QTest.mouseMove(stages.curves, start + QPoint(80, 0))
    QTest.mouseRelease(stages.curves, Left, pos=start + QPoint(80, 0))
    assert stages.walk.progress == pytest.approx(0.5 + 80 / chart.width(), abs=0.01)
    assert stages.words.text() != first
    at = stages.walk.progress
    QTest.keyClick(stages.curves, Qt.Key.Key_Right, Qt.KeyboardModifier.ShiftModifier)
    assert stages.walk.progress == pytest.approx(at + 0.05)


def test_a_mistake_played_in_shows_what_it_does_and_what_mends_it_and_leaves_the_plan_alone(
    window: Window, stages: StagesPage
) -> None:
    job = window.store.snapshot.job
    stages.faults.setCurrentIndex(stages.faults.findData("floor-overcut"))
    stages.faults.activated.emit(stages.faults.currentIndex())
    assert "With this mistake" in stages.words.text()
    assert "Mend:" in stages.words.text()
    assert window.store.snapshot.job == job
    stages.play("")
    assert "With this mistake" not in stages.words.text()


def test_a_mistake_is_made_at_the_state_one_is_at_and_leaves_the_states_before_it_as_planned(
    window: Window, stages: StagesPage
) -> None:
    planned = [(stage.part, stage.split_index) for stage in stages.walk.stages]
    backs = [number for number, (part, _) in enumerate(planned) if part == "back"]
    stages.go_to(backs[-1])
    stages.play("thick-middle")
    assert stages.walk.made_at == stages.walk.number == backs[-1]
    assert [(s.part, s.split_index) for s in stages.walk.stages[: backs[-1]]] == planned[: backs[-1]]
    assert stages.walk.stages[-1].uncut_area_m2 > 0 and stages.walk.result is not stages.walk.planned
    stages.go_to(backs[0])
    assert stages.walk.result is stages.walk.planned
    assert "With this mistake" not in stages.words.text()


def test_a_mistake_that_cannot_be_made_here_takes_one_to_where_it_can(window: Window, stages: StagesPage) -> None:
    stages.go_to(0)
    stages.play("thin-strap")
    assert stages.walk.part == "back" and stages.walk.number == stages.walk.made_at
    stages.go_to(stages.walk.made_at)
    stages.play("rot")
    progress, ends = stages.walk.sweep.progress, stages.walk.sweep.ends
    before = progress <= ends[stages.walk.made_at - 2]
    assert before.any()
    found = stages.walk.sweep.states.side_utilisation[before]
    after = stages.walk.sweep.states.side_utilisation[-1]
    stages.play("aim")
    assert stages.walk.stages[stages.walk.made_at].part == "face"
    stages.play("")
    assert (found == stages.walk.sweep.states.side_utilisation[before]).all()
    assert after != stages.walk.sweep.states.side_utilisation[-1]


def test_the_stages_follow_a_change_made_elsewhere(window: Window, stages: StagesPage) -> None:
    before = stages.walk.stages[-1].uncut_area_m2
    window.store.set("cut.hinge.left_m", 0.09, "thicker")
    assert stages.walk.stages[-1].uncut_area_m2 > before
    window.store.undo()
    assert stages.walk.stages[-1].uncut_area_m2 == pytest.approx(before)


def test_a_finding_leads_to_its_worst_moment(window: Window, stages: StagesPage) -> None:
    split = next(f for f in window.store.snapshot.result.findings if f.group == "split")
    stages.bring_out(split)
    assert stages.walk.progress == stages.walk.sweep.worst["split"]


def test_a_suggestion_is_taken_over_with_one_key_and_undone(window: Window, qtbot: QtBot) -> None:
    before = window.store.snapshot.plan.cut
    dialog = window.edits.suggest()
    qtbot.waitUntil(lambda: dialog.found is not None, timeout=60_000)
    assert dialog.found is not None
    wanted = dialog.found.best[1].cut
    QTest.keyClick(dialog, Qt.Key.Key_2)
    assert window.store.snapshot.plan.cut == wanted
    window.store.undo()
    assert window.store.snapshot.plan.cut == before


def test_a_search_is_cancelled_and_changes_nothing(window: Window) -> None:
    before = window.store.snapshot.job
    dialog = window.edits.suggest()
    dialog.reject()
    QApplication.processEvents()
    assert window.store.snapshot.job == before


def test_a_plan_with_no_good_design_says_so_plainly(window: Window, qtbot: QtBot) -> None:
    plan = window.store.snapshot.plan
    tree = replace(plan.tree, lean=replace(plan.tree.lean, angle_deg=20.0, bearing_deg=34.0))
    job = window.store.snapshot.job
    job = replace(job, trees=(replace(plan, tree=tree), *job.trees[1:]), site=Site())
    assert window.store.edit("leans back", job)
    dialog = window.edits.suggest()
    qtbot.waitUntil(lambda: dialog.found is not None, timeout=60_000)
    assert "None is good enough" in dialog.head.text()
    assert dialog.findChild(QPushButton, "take:1") is None
    dialog.reject()


def test_practices_are_read_saved_and_taken_in(window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path))
    dialog = window.edits.read_practices()
    assert "Where practitioners disagree" in dialog.text.toPlainText()
    mine = tmp_path / "mine.json"
    monkeypatch.setattr(dialog, "ask_save", lambda: str(mine))
    dialog.save()
    mine.write_text(json.dumps(json.loads(mine.read_text()) | {"key": "mine", "name": "Mine alone"}))
    monkeypatch.setattr(dialog, "ask_open", lambda: str(mine))
    dialog.add()
    assert "Mine alone" in dialog.text.toPlainText()
    assert practices()["mine"].name == "Mine alone"
    mine.write_text("{}")
    dialog.add()
    assert "mine.json" in window.message.text()
    dialog.accept()
    forget_tables()
