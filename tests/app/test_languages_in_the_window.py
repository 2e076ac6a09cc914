"""Another language, and numbers as the system writes them, in the window."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest
from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QImage, QPainter
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QInputDialog
from pytestqt.qtbot import QtBot
from typing_extensions import override

from plain_compass.app.drawing.fitted import paint_fitted
from plain_compass.app.drawing.palette import font
from plain_compass.app.frame.field_edit import FieldEdit
from plain_compass.app.frame.fitted_button import FittedButton
from plain_compass.app.frame.window import Window
from plain_compass.job import language
from plain_compass.job.language import write_decimals_with
from plain_compass.job.language_files import made


@pytest.fixture
def comma() -> Iterator[None]:
    """A system that writes commas."""
    write_decimals_with(",")
    yield
    write_decimals_with(".")


def test_a_language_is_chosen_by_name_and_spoken_from_the_next_start(
    window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path))
    language.own_folder().mkdir(parents=True)
    (language.own_folder() / "xx.json").write_text(made("xx", "Made up", str), encoding="utf-8")
    offered: list[str] = []

    def answer(parent: object, title: str, words: str, names: list[str], *rest: object) -> tuple[str, bool]:
        offered.extend(names)
        return "Made up", True

    monkeypatch.setattr(QInputDialog, "getItem", answer)
    window.commands.run("view.language")
    assert offered == ["English", "Made up"]
    assert (tmp_path / "plain-compass" / "language").read_text(encoding="utf-8") == "xx\n"
    assert window.message.text() == "From the next start on xx is spoken."


def test_a_choice_that_cannot_be_kept_is_told(window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    (tmp_path / "plain-compass").write_text("a file where a folder is wanted", encoding="utf-8")
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path))
    monkeypatch.setattr(QInputDialog, "getItem", lambda *_: ("English", True))
    window.commands.run("view.language")
    assert "The language cannot be kept in" in window.message.text()


def test_a_field_shows_the_comma_and_reads_it_back(window: Window, qtbot: QtBot, comma: None) -> None:
    window.show_step("look")
    window.store.set("tree.height_m", 17.5, "height")
    field = next(f for f in window.pages["look"].findChildren(FieldEdit) if f.path == "tree.height_m")
    field.refresh(window.store.snapshot)
    assert field.text() == "17,5 m"
    field.setFocus()
    field.selectAll()
    QTest.keyClicks(field, "18,25")
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert window.store.snapshot.value("tree.height_m") == 18.25


def test_a_button_writes_narrower_before_it_cuts_its_words_off(qtbot: QtBot) -> None:
    button = FittedButton()
    qtbot.addWidget(button)
    button.setText("Words that want their room")
    button.resize(button.sizeHint())
    button.show()
    asked = button.sizeHint().width()
    assert button.is_whole() and not button.styleSheet()
    button.resize(int(asked * 0.8), button.height())
    assert button.is_whole() and "font-size" in button.styleSheet()
    assert button.sizeHint().width() == asked, "what it asks for is its own type still"
    button.resize(asked // 3, button.height())
    assert not button.is_whole()
    button.resize(asked, button.height())
    assert button.is_whole() and not button.styleSheet()


def test_a_painted_line_is_whole_where_any_type_fits_and_cut_short_where_none_does(qtbot: QtBot) -> None:
    written: list[str] = []

    class Heard(QPainter):
        @override
        def drawText(self, *given: object) -> None:  # type: ignore[override]
            written.append(str(given[-1]))

    image = QImage(400, 40, QImage.Format.Format_RGB32)
    painter = Heard(image)
    painter.setFont(font(16, strong=True))
    wide = painter.fontMetrics().horizontalAdvance("Words that want their room")
    for share in (1.1, 0.75, 0.3):
        paint_fitted(painter, QRectF(0, 0, wide * share, 20), Qt.AlignmentFlag.AlignLeft, "Words that want their room")
    painter.end()
    assert written[:2] == ["Words that want their room"] * 2
    assert written[2].endswith("…") and written[2] != written[0]
