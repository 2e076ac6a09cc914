"""Practice driven by mouse and keys: a case of each kind asked, answered and told; sets, sheets, the record."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest
from pypdf import PdfReader
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from plain_compass.app.frame.window import Window
from plain_compass.app.steps.practice.actions import PracticeActions
from plain_compass.app.steps.practice.page import PracticePage
from plain_compass.app.steps.practice.paper import write_set
from plain_compass.app.steps.practice.session import ROUND_S, Session
from plain_compass.core.practice.skills import Task
from plain_compass.job.practice_answers import read_answers
from plain_compass.job.practice_case import make_case
from plain_compass.job.practice_set import made_set, mixed_set, read_set, set_text
from plain_compass.job.practice_words import truth_of
from plain_compass.job.words import Speech
from plain_compass.log.answers import AnswerLog

Left = Qt.MouseButton.LeftButton
SPEECH = Speech("metric", "hinge")


@pytest.fixture
def practice(window: Window) -> Iterator[PracticePage]:
    """The mode, opened by its key."""
    QTest.keyClick(window, Qt.Key.Key_9)
    page = window.pages["practice"]
    assert isinstance(page, PracticePage) and window.page is page
    QApplication.processEvents()
    yield page
    page.session.record.close()


def ask(page: PracticePage, skill: str, seed: int = 3, level: int = 2) -> None:
    page.session.ask(make_case(skill, level, seed))
    page._show()


def test_the_mode_has_nothing_of_the_job_round_it_and_leads_back_to_it(window: Window, practice: PracticePage) -> None:
    assert not any(part.isVisible() for part in (window.trail, window.side, window.band, window.top.verdict))
    assert window.top.mode.text() == "Practice" and practice.question.text()
    window.commands.run("train.open")
    assert window.step == "cut" and window.trail.isVisible() and window.top.verdict.isVisible()


@pytest.mark.real_window
def test_a_height_is_typed_with_how_sure_one_is_and_the_truth_stands_over_the_answer(
    window: Window, practice: PracticePage
) -> None:
    ask(practice, "height")
    truth = truth_of(practice.session.case)
    practice.answering.edit.setFocus()
    QTest.keyClicks(practice.answering.edit, f"{truth + 0.2:.1f}")
    QTest.mouseClick(practice.answering.sure_buttons.button(3), Left)
    QTest.keyClick(practice.answering.edit, Qt.Key.Key_Return)
    told = practice.told.text()
    assert "Near enough. Off by 0.2 m." in told and "Score 96 of 100." in told and "the person beside it" in told
    assert practice.view.truth and not practice.answering.isEnabled()
    (kept,) = practice.session.record.answers()
    assert (kept.skill, kept.near, kept.sure) == ("height", True, 0.8)
    QTest.keyClick(practice.go, Qt.Key.Key_Return)
    assert practice.session.told is None and practice.session.case.seed == 4, "never the same picture twice"


@pytest.mark.parametrize("skill", ["goes", "fault", "went", "now", "words"])
def test_one_of_several_is_picked_by_its_number_and_what_was_true_is_told(
    window: Window, practice: PracticePage, skill: str
) -> None:
    ask(practice, skill)
    keys = practice.session.question.keys
    right = keys.index(truth_of(practice.session.case))
    practice.answering.options.setFocus()
    QTest.keyClicks(practice.answering.options, str(right + 1))
    assert window.step == "practice", "a number is an answer here, not a step"
    QTest.keyClick(practice.answering.options, Qt.Key.Key_Return)
    assert practice.told.text().startswith("That is it.") and len(practice.told.text().splitlines()) > 3
    assert practice.session.record.answers()[-1].near


def test_the_same_by_mouse(window: Window, practice: PracticePage) -> None:
    QTest.mouseClick(practice.modes["stump"], Left)
    assert practice.session.case.task == Task.STUMP and practice.modes["stump"].isChecked()
    options = practice.answering.options
    QTest.mouseClick(options.viewport(), Left, pos=options.visualItemRect(options.item(0)).center())
    QTest.mouseClick(practice.go, Left)
    assert practice.session.told is not None and practice.go.text().startswith("Next")
    before = practice.view.look
    QTest.mousePress(practice.view, Left, pos=QPoint(300, 500))
    QTest.mouseMove(practice.view, QPoint(340, 500))
    QTest.mouseRelease(practice.view, Left, pos=QPoint(340, 500))
    assert practice.view.look != before, "the stump is turned by dragging"


def test_a_design_is_drawn_as_it_is_typed_and_held_against_the_simplest(window: Window, practice: PracticePage) -> None:
    ask(practice, "cut", level=1)
    before = practice.view.result.case.cut
    QTest.keyClicks(practice.answering.edit, "face 8 cm; bored; strap 5 cm; wedges 2")
    practice._show_design()
    assert practice.view.result.case.cut != before and practice.view.result.case.cut.face.depth_m == 0.08
    QTest.keyClicks(practice.answering.edit, "; hinge of oak")
    practice._show_design()
    assert "accepted" in practice.told.text()
    practice.answering.edit.setText("face 8 cm; bored; strap 5 cm; wedges 2")
    QTest.keyClick(practice.answering.edit, Qt.Key.Key_Return)
    assert "The simplest that is clear" in practice.told.text() or "Nothing that was tried" in practice.told.text()


def test_nothing_is_scored_without_an_answer_and_nonsense_loses_nothing(practice: PracticePage) -> None:
    ask(practice, "lean")
    practice.advance()
    assert "Type an answer" in practice.told.text() and practice.session.told is None
    practice.answering.edit.setText("quite a bit")
    practice.advance()
    assert "makes no sense" in practice.told.text() and practice.session.record.answers() == ()


def test_a_case_is_opened_as_a_job_and_taken_apart(window: Window, practice: PracticePage) -> None:
    ask(practice, "fault")
    kept = practice.session.case
    QTest.mouseClick(practice.show_me, Left)
    assert window.step == "stump" and window.store.snapshot.job.name.startswith("Practice, stump")
    assert window.store.snapshot.plan == kept.plan and window.trail.isVisible()
    window.commands.run("train.open")
    assert practice.session.case == kept, "practice waits where it was left"


def test_a_set_is_worked_through_and_its_answers_are_given_in(
    window: Window, practice: PracticePage, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    source, given = tmp_path / "set.json", tmp_path / "answers.json"
    source.write_text(set_text(made_set("words", 1, 1, 2)))
    monkeypatch.setattr(PracticeActions, "ask_set", lambda _: str(source))
    monkeypatch.setattr(PracticeActions, "ask_where", lambda *_: str(given))
    window.commands.run("train.work")
    assert practice.heading.text().endswith("case 1 of 2")
    for _ in range(2):
        practice.answering.options.setCurrentRow(0)
        practice.advance()
        practice.advance()
    assert len(read_answers(given).answers) == 2 and practice.middle.currentWidget() is practice.record
    source.write_text("[")
    window.commands.run("train.work")
    assert "it is no JSON" in window.message.text()


def test_a_set_is_made_printed_and_gets_a_real_tree(
    window: Window, practice: PracticePage, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path, sheet = tmp_path / "set.json", tmp_path / "set.pdf"
    monkeypatch.setattr(PracticeActions, "ask_where", lambda _, name, __: str(sheet if name.endswith("pdf") else path))
    monkeypatch.setattr(PracticeActions, "ask_set", lambda _: str(path))
    monkeypatch.setattr(PracticeActions, "ask_skill", lambda *_: "height")
    window.commands.run("train.make")
    assert len(read_set(path).cases) == 12
    window.commands.run("train.keep")
    assert "is case 13 of set.json" in window.message.text()
    window.commands.run("train.sheet")
    pages = PdfReader(sheet).pages
    assert len(pages) >= 9 and "Key:" in pages[-1].extract_text() and "Key:" not in pages[-3].extract_text()


def test_on_paper_no_page_with_a_case_has_its_answer(window: Window, tmp_path: Path) -> None:
    practice = mixed_set(2, 5, 4)
    write_set(practice, SPEECH, tmp_path / "set.pdf")
    pages = [page.extract_text() for page in PdfReader(tmp_path / "set.pdf").pages]
    (tall,) = [f"{truth_of(kept):.1f}" for kept in practice.cases if kept.asks == "height"]
    assert tall in pages[-1] and all(tall not in page for page in pages[:-1])


def test_one_s_record_says_what_is_known_and_what_was_not_asked(window: Window, practice: PracticePage) -> None:
    ask(practice, "lean")
    practice.answering.edit.setText("20")
    practice.advance()
    practice.choose("record")
    assert practice.record.isVisible()
    lines = practice.record.lines()
    assert any(line.startswith("Lean: near in 33 %") for line in lines) and "Height: not asked yet." in lines
    assert "Lean: near in" in practice.record.accessibleDescription()
    window.commands.run("train.eye")
    assert window.store.snapshot.job.hand.get("lean:eye").count == 1
    window.commands.run("train.eye")
    assert window.store.snapshot.job.hand.get("lean:eye") is None
    for _ in range(2):
        window.commands.run("edit.undo")


def test_a_round_is_ten_minutes() -> None:
    clock = [0.0]
    session = Session(AnswerLog(None), lambda: SPEECH, lambda: clock[0])
    session.begin(Task.WORDS)
    session.answer(str(truth_of(session.case)), 0.8)
    assert not session.is_over
    clock[0] = ROUND_S + 1
    assert session.is_over and len(session.scores) == 1
    session.begin(Task.WORDS)
    assert not session.is_over and session.scores == []
