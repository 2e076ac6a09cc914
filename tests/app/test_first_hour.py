"""The first hour: from nothing to the card of a plain tree in few keys, and the guide that leads there."""

from __future__ import annotations

from pathlib import Path

import pytest
from pypdf import PdfReader
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QWidget

from plain_compass.app.frame.first_tree import CLOSED, SETTING
from plain_compass.app.frame.recovery import Recovery
from plain_compass.app.frame.settings import Settings
from plain_compass.app.frame.window import Window
from plain_compass.app.main import start
from plain_compass.app.steps.card.actions import CardActions
from plain_compass.core.assess import RECKONING, is_question
from plain_compass.core.base.levels import FindingKind, Level
from plain_compass.job.first_tree import STEPS

Key, Mod = Qt.Key, Qt.KeyboardModifier
MOST_KEYS = 40


class Hands:
    """Keys pressed one by one where the keyboard is, and counted."""

    def __init__(self, window: Window) -> None:
        self.window, self.count = window, 0

    @property
    def focused(self) -> QWidget:
        return QApplication.focusWidget() or self.window

    def press(self, key: Key, modifier: Mod = Mod.NoModifier) -> None:
        self.count += 1
        QTest.keyClick(self.focused, key, modifier)
        QApplication.processEvents()

    def type(self, text: str) -> None:
        for letter in text:
            self.count += 1
            QTest.keyClicks(self.focused, letter)
            QApplication.processEvents()


def unknown(window: Window) -> list[str]:
    window.falls.finish()
    return [each.id for each in window.store.snapshot.result.findings if each.kind == FindingKind.UNKNOWN]


@pytest.mark.real_window
def test_from_nothing_to_the_card_of_a_plain_tree_in_under_forty_keys(
    window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Every measurement typed, every question answered: nothing of the card rests on what nobody has looked at."""
    hands = Hands(window)
    hands.press(Key.Key_N, Mod.ControlModifier)
    for taken in ("38", "18", "6", "3", "3", "3", "3", "2", "10"):
        hands.type(taken)
        hands.press(Key.Key_Return)
    assert not window.store.snapshot.plan.tree.stand_ins
    for answers in (Key.Key_N, Key.Key_S, Key.Key_L, Key.Key_G):
        hands.press(answers, Mod.AltModifier)
    hands.press(Key.Key_Y, Mod.AltModifier)
    hands.type("oak")
    for answer in ("2", "s", "d"):
        assert unknown(window)
        hands.press(Key.Key_F3)
        hands.type(answer)
    hands.press(Key.Key_6)
    assert unknown(window) == []
    snapshot = window.store.snapshot
    assert snapshot.plan.tree.trunk.diameter_m == 0.38 and snapshot.plan.tree.lean.bearing_deg == 10.0
    assert snapshot.plan.tree.species.startswith("oak")
    assert snapshot.job.site.wind_m_s == 2.0 and snapshot.job.person.limits.trained == "demanding"
    assert snapshot.result.verdict.level in (Level.CLEAR, Level.WATCH)
    monkeypatch.setattr(CardActions, "ask_file", lambda *_: str(tmp_path / "card.pdf"))
    hands.press(Key.Key_E, Mod.ControlModifier | Mod.ShiftModifier)
    assert len(PdfReader(tmp_path / "card.pdf").pages) >= 2
    assert hands.count < MOST_KEYS


def test_an_answer_given_by_one_key_never_changes_one_given_before(window: Window) -> None:
    store = window.store
    window.commands.run("tree.add")
    for path, answer in (
        ("tree.around.nests", "yes"),
        ("tree.around.leave", "no"),
        ("tree.crack", "present"),
        ("tree.decay.kind", "cavity"),
    ):
        store.set(path, answer, answer)
    for command in ("answer.round", "answer.sound", "answer.leave", "answer.ground"):
        window.commands.run(command)
    tree = store.snapshot.plan.tree
    assert (tree.around.nests, tree.around.leave, tree.crack, tree.decay.kind) == ("yes", "no", "present", "cavity")
    assert (tree.around.dead_limbs, tree.around.licence, store.snapshot.job.site.looked) == ("no", "yes", "yes")
    for command in window.commands:
        if command.id in ("answer.round", "answer.sound", "answer.leave", "answer.ground"):
            assert not command.enabled(), "nothing is left to answer"
    for _ in range(4):
        window.commands.run("edit.undo")
    assert store.snapshot.plan.tree.around.dead_limbs == "unknown", "each answer is one step"


def test_the_next_open_question_is_wherever_its_field_is(window: Window) -> None:
    window.store.set("site.wind_m_s", None, "no wind")
    window.store.look_at("WH-24")
    window.falls.finish()
    window.commands.run("answer.next")
    focused = QApplication.focusWidget()
    assert focused is not None and focused.objectName() in ("tree.around.leave", "site.wind_m_s")


def test_what_the_program_itself_still_owes_is_no_question_to_a_person(window: Window) -> None:
    window.falls.finish()
    before = [each for each in window.store.snapshot.result.findings if is_question(each)]
    window.store.set("cut.hinge.left_m", 0.05, "thicker")
    waiting = [f for f in window.store.snapshot.result.findings if f.id.startswith(RECKONING)]
    assert waiting and not any(is_question(each) for each in waiting)
    assert [f.id for f in window.store.snapshot.result.findings if is_question(f)] == [f.id for f in before]


def test_the_guide_notices_what_was_done_and_leads_to_what_is_next(window: Window) -> None:
    guide, store = window.guide, window.store
    assert guide.isHidden(), "it is offered when the program starts, not by every window"
    window.commands.run("help.first")
    assert "1 of" in guide.title.text() and "Ctrl+T" in guide.words.text()
    guide.lead.click()
    assert STEPS[guide.at or 0].key == "measure" and "0 of 9 taken" in guide.words.text()
    for path in list(store.snapshot.plan.tree.stand_ins):
        store.set(
            f"tree.{path}",
            90.0
            if "bearing" in path
            else 2.0
            if "angle" in path
            else 0.4
            if "trunk" in path
            else 18.0
            if path == "height_m"
            else 4.0,
            "measured",
        )
    assert STEPS[guide.at or 0].key == "species"
    store.set("tree.species", "ash", "ash")
    assert STEPS[guide.at or 0].key == "round"
    window.commands.run("answer.round")
    assert STEPS[guide.at or 0].key == "round", "the butt has not been sounded"
    window.commands.run("answer.sound")
    window.commands.run("answer.leave")
    assert STEPS[guide.at or 0].key == "ground"
    window.commands.run("answer.ground")
    window.commands.run("step.ground")
    window.falls.finish()
    assert "ground" in [step.key for step in STEPS[: guide.at]]
    store.look_at("WH-07")
    assert guide.at == 0, "another tree of the sample is not one's own"


def test_the_guide_is_done_when_the_card_has_been_looked_at(window: Window) -> None:
    guide = window.guide
    guide.begin()
    guide._there = frozenset()
    window.store.look_at("WH-07")
    window.commands.run("answer.ground")
    window.falls.finish()
    for step in ("ground", "cut", "stages", "card"):
        window.commands.run(f"step.{step}")
    assert guide.at is None and "done" in guide.title.text() and guide.lead.isHidden()


@pytest.mark.usefixtures("qapp")
def test_the_guide_is_offered_once_and_closed_for_good(tmp_path: Path) -> None:
    settings = Settings(tmp_path / "settings.ini")
    first = start(None, settings, Recovery(tmp_path / "recovery"), demo=True)
    assert first.guide.isVisible()
    first.guide.end.click()
    assert first.guide.isHidden() and settings.text(SETTING, "") == CLOSED
    first.close()
    second = start(None, Settings(tmp_path / "settings.ini"), Recovery(tmp_path / "recovery"), demo=True)
    assert second.guide.isHidden()
    second.commands.run("help.first")
    assert second.guide.isVisible(), "it is found again in Help"
    second.close()
