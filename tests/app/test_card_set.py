"""The cards of every tree in one file: each like its own card, none left out in silence."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import pytest
from pypdf import PdfReader
from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QApplication, QProgressDialog

from plain_compass.app.frame.window import Window
from plain_compass.app.steps.card import card_set
from plain_compass.app.steps.card.actions import CardActions
from plain_compass.app.steps.card.paper import LayoutWanted
from plain_compass.app.steps.card.pdf import judged_snapshot, write_card
from plain_compass.core.base.errors import PlainCompassError
from plain_compass.job.document import Job


@pytest.fixture
def two_trees(window: Window) -> Window:
    """Fewer trees take less time, and their order is turned round to be told from that of their names."""
    job = window.store.snapshot.job
    window.store.edit("fewer", replace(job, trees=(job.trees[1], job.trees[0])), job.trees[0].id)
    return window


def heads(path: Path) -> list[str]:
    return [page.extract_text().split()[0] for page in PdfReader(path).pages]


def test_every_card_reads_as_the_card_of_that_tree_alone(
    two_trees: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(CardActions, "ask_file", lambda *_: str(tmp_path / "cards.pdf"))
    two_trees.commands.run("card.all")
    assert two_trees.message.text().startswith("2 cards written to")
    alone = []
    for plan in two_trees.store.snapshot.job.trees:
        write_card(judged_snapshot(two_trees.store.snapshot.job, plan.id), tmp_path / "one.pdf", LayoutWanted())
        alone += [page.extract_text() for page in PdfReader(tmp_path / "one.pdf").pages]
    assert [page.extract_text() for page in PdfReader(tmp_path / "cards.pdf").pages] == alone


def test_a_tree_that_cannot_be_judged_is_told_with_its_reason(
    two_trees: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    first, second = (plan.id for plan in two_trees.store.snapshot.job.trees)

    def refuses(job: Job, tree_id: str) -> object:
        if tree_id == first:
            raise PlainCompassError("Its cut does not close.")
        return judged_snapshot(job, tree_id)

    monkeypatch.setattr(card_set, "judged_snapshot", refuses)
    monkeypatch.setattr(CardActions, "ask_file", lambda *_: str(tmp_path / "cards.pdf"))
    two_trees.commands.run("card.all")
    assert "1 card written" in two_trees.message.text()
    assert f"{first} has no card: Its cut does not close." in two_trees.message.text()
    assert set(heads(tmp_path / "cards.pdf")) == {second}


def test_cards_that_are_cancelled_leave_no_file(
    two_trees: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    def cancel() -> None:
        for dialog in QApplication.topLevelWidgets():
            if isinstance(dialog, QProgressDialog):
                dialog.cancel()

    monkeypatch.setattr(CardActions, "ask_file", lambda *_: str(tmp_path / "cards.pdf"))
    QTimer.singleShot(0, cancel)
    two_trees.commands.run("card.all")
    assert "Cancelled" in two_trees.message.text()
    assert not list(tmp_path.glob("*.pdf*"))


def test_a_folder_that_is_not_there_is_said_in_a_sentence(two_trees: Window, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(CardActions, "ask_file", lambda *_: "/proc/none/cards.pdf")
    two_trees.commands.run("card.all")
    assert "could not be written" in two_trees.message.text()
