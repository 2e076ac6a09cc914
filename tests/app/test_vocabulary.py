"""One vocabulary at a time: whoever says *gob* and *holding wood* never reads *face* and *hinge*, on any way out."""

from __future__ import annotations

import ast
import json
import re
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

import pytest
from pypdf import PdfReader
from PySide6.QtWidgets import QAbstractButton, QComboBox, QLabel, QWidget

import plain_compass
from plain_compass.app.frame.practice_dialog import PracticeDialog
from plain_compass.app.frame.store import Snapshot
from plain_compass.app.frame.window import Window
from plain_compass.app.steps.card.paper import LayoutWanted
from plain_compass.app.steps.card.pdf import write_card
from plain_compass.cli import main
from plain_compass.core.base.errors import InputError
from plain_compass.core.base.phrase import phrase
from plain_compass.job.demo import demo_job
from plain_compass.job.document import assess_tree
from plain_compass.job.files import write_job
from plain_compass.job.words import Speech
from plain_compass.job.words.catalogue import capital, small

PACKAGE = Path(plain_compass.__file__).parent
BARE = re.compile(r"(?<![\w\[./:-])(?:face|hinge|strap|back cut|overcut)s?(?![\w\]/:-])", re.IGNORECASE)
MARKED = re.compile(r"\[(?:face|hinge|strap|back cut|overcut|lay|apex|step)\]", re.IGNORECASE)
KEYS = {"face shut", "back cut"}
"""Keys of tables that happen to be two words."""
TREES = [tree.id for tree in demo_job().trees]


def literals(source: str) -> Iterator[tuple[int, str]]:
    """Every string of a module that is more than one word and no docstring."""
    tree = ast.parse(source)
    bodies = [node.body for node in ast.walk(tree) if isinstance(getattr(node, "body", None), list)]
    told = {id(line.value) for body in bodies for line in body if isinstance(line, ast.Expr)}
    for node in ast.walk(tree):
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in told:
            yield node.lineno, node.value


@pytest.mark.parametrize("room", ["core", "app", "job", "measuring", "commands"])
def test_no_sentence_holds_a_trade_word_that_does_not_follow_the_vocabulary(room: str) -> None:
    found = [
        f"{path.relative_to(PACKAGE)}:{line}: {text}"
        for path in sorted((PACKAGE / room).rglob("*.py"))
        for line, text in literals(path.read_text())
        if " " in text.strip()
        and text not in KEYS
        and BARE.search(text)
        # A value that is called {strap} is a number, not the word.
        and BARE.search(re.sub(r"\{\w+\}", "", text))
    ]
    assert not found


@pytest.mark.parametrize("text", ["the hinge may hold", "Faces of 90 degrees", "in the back cut {strap}"])
def test_the_search_sees_what_it_looks_for(text: str) -> None:
    assert BARE.search(text)
    assert not BARE.search("the surface of a [hinge], cut.face.depth_m, {back}")


@pytest.fixture
def gob_job(tmp_path: Path) -> Path:
    path = tmp_path / "gob.pcjob.json"
    write_job(path, replace(demo_job(), words="gob"))
    return path


@pytest.mark.parametrize(
    "command", [["assess"], ["stages"], ["stages", "--json"], ["fall"], ["assess", "--json"]], ids=" ".join
)
@pytest.mark.parametrize("tree", TREES)
def test_the_command_line_speaks_the_jobs_vocabulary(
    gob_job: Path, command: list[str], tree: str, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main([command[0], str(gob_job), "--tree", tree, *command[1:]]) == 0
    told = capsys.readouterr().out
    # Keys of a JSON object are names, not words.
    said = "\n".join(_sentences(json.loads(told))) if "--json" in command else told
    assert not [line for line in said.splitlines() if BARE.search(line)]
    assert not MARKED.search(said)


def _sentences(value: object) -> Iterator[str]:
    if isinstance(value, dict):
        for each in value.values():
            yield from _sentences(each)
    elif isinstance(value, list):
        for each in value:
            yield from _sentences(each)
    elif isinstance(value, str) and " " in value and value not in KEYS:
        yield value


@pytest.mark.parametrize("command", ["cuts", "practices"])
@pytest.mark.parametrize("how", [[], ["--json"]], ids=["table", "json"])
def test_tables_without_a_job_show_no_marks(command: str, how: list[str], capsys: pytest.CaptureFixture[str]) -> None:
    assert main([command, *how]) == 0
    told = capsys.readouterr().out
    assert "hinge" in told
    assert not MARKED.search(told)


@pytest.mark.usefixtures("qapp")
@pytest.mark.parametrize("tree", TREES)
def test_the_card_speaks_it_too(tree: str, tmp_path: Path) -> None:
    path = tmp_path / "card.pdf"
    job = replace(demo_job(), words="gob")
    write_card(Snapshot(job, job.plan(tree), assess_tree(job, tree)), path, LayoutWanted())
    text = " ".join(" ".join(page.extract_text() for page in PdfReader(path).pages).split())
    assert not BARE.findall(text)
    assert not MARKED.findall(text)
    assert "holding wood" in text.lower()


def _told(root: QWidget) -> Iterator[str]:
    for widget in root.findChildren(QWidget):
        yield from (widget.toolTip(), widget.accessibleName(), widget.accessibleDescription())
        if isinstance(widget, QLabel | QAbstractButton):
            yield widget.text()
        if isinstance(widget, QComboBox):
            yield from (widget.itemText(row) for row in range(widget.count()))
            yield from (str(widget.itemData(row, 3) or "") for row in range(widget.count()))


def test_the_whole_window_changes_over_and_back(window: Window) -> None:
    window.commands.run("view.words")
    for step in window.pages:
        window.show_step(step)
        words = [text for text in _told(window) if BARE.search(text) or MARKED.search(text)]
        assert not words, step
    window.commands.run("view.words")
    window.show_step("cut")
    assert any("hinge" in text for text in _told(window))
    assert not any("holding wood" in text.lower() for text in _told(window.pages["cut"]))


def test_schools_are_told_in_it(window: Window) -> None:
    window.commands.run("view.words")
    text = PracticeDialog(window.store, window).text.toPlainText()
    assert "holding wood" in text
    assert not BARE.search(text)
    assert not MARKED.search(text)


def test_brackets_that_are_nobodys_term_stay() -> None:
    assert Speech("metric", "gob").say("see [1], [note] and [Hinge]") == "see [1], [note] and Holding wood"


def test_words_begin_as_their_place_wants_them() -> None:
    assert (capital("open face"), small("Open face"), capital(""), small("")) == ("Open face", "open face", "", "")
    whole = phrase(
        "cut.form.unsuited", name=phrase("cut.hinge.strip.name"), why=phrase("cut.back.plain.fits.wedge_fits_behind")
    )
    assert Speech("metric", "gob").phrase(whole).startswith("Even holding wood: no wedge fits")


def test_an_error_nobody_translates_shows_no_marks() -> None:
    error = InputError("cut.face.depth_m", 0.3, low=0.005, high=0.2, reason="the [face] would reach past the pith")
    assert str(error) == "cut.face.depth_m is 0.3: the face would reach past the pith; accepted: 0.005 to 0.2."
    assert "the gob would reach" in Speech("metric", "gob").error(error, "[face] depth")
