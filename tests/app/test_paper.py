"""Other papers, the page for the stump, the survey sheet and the printer: the same words wherever they are read."""

from __future__ import annotations

import math
from dataclasses import replace
from pathlib import Path

import pytest
from pypdf import PdfReader
from PySide6.QtCore import QRectF
from PySide6.QtGui import QImage
from PySide6.QtPrintSupport import QPrinter, QPrintPreviewWidget
from PySide6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from listening import Listening
from plain_compass.app.frame.store import Snapshot
from plain_compass.app.frame.window import Window
from plain_compass.app.main import application
from plain_compass.app.steps.card.actions import CardActions
from plain_compass.app.steps.card.page import CardPage
from plain_compass.app.steps.card.painter import paint_card
from plain_compass.app.steps.card.paper import PAPERS, LayoutWanted
from plain_compass.app.steps.card.pdf import judged_snapshot, write_card
from plain_compass.app.steps.card.printing import paint_on_printer, print_preview, set_up
from plain_compass.app.steps.card.survey_sheet import asked, looked_at, write_survey_sheet
from plain_compass.app.steps.card.tape_strip import write_strip
from plain_compass.core.base.levels import FindingKind
from plain_compass.job.demo import demo_job
from plain_compass.job.stump_rows import PARTS, stump_rows
from plain_compass.job.words import Speech, glossary


@pytest.fixture(autouse=True)
def fonts(qtbot: QtBot) -> None:
    application()


def pages_of(path: Path) -> list[str]:
    return [" ".join(page.extract_text().replace("\u00a0", " ").split()) for page in PdfReader(path).pages]


def unspaced(text: str) -> str:
    """Without spaces: a line may have been broken at any hyphen."""
    return "".join(text.replace("\u00a0", " ").split())


def listening(shot: Snapshot, wanted: LayoutWanted) -> tuple[int, Listening]:
    """Pages of a card, and a painter that has heard every word of it."""
    paper = PAPERS[wanted.paper]
    image = QImage(round(paper.width), round(paper.height), QImage.Format.Format_RGB32)
    with Listening(image) as painter:
        count = paint_card(painter, shot, wanted, "1 January 2026", painter.turn_over)
    return count, painter


@pytest.mark.parametrize("paper", list(PAPERS))
@pytest.mark.parametrize("tree_id", ["WH-07", "WH-21", "WH-24"])
def test_every_paper_says_everything_and_nothing_runs_off_it(tmp_path: Path, paper: str, tree_id: str) -> None:
    shot, path = judged_snapshot(demo_job(), tree_id), tmp_path / "card.pdf"
    write_card(shot, path, LayoutWanted(paper))
    pages = pages_of(path)
    whole = " ".join(pages)
    box = PdfReader(path).pages[0].mediabox
    assert float(box.width) == pytest.approx(PAPERS[paper].wide_mm / 25.4 * 72, abs=0.6)
    assert float(box.height) == pytest.approx(PAPERS[paper].tall_mm / 25.4 * 72, abs=0.6)
    for finding in shot.result.findings:
        if finding.kind != FindingKind.FACT:
            assert unspaced(shot.speech.phrase(finding.sentence)) in unspaced(whole), finding.id
    for caution in glossary()["cautions"]:
        assert " ".join(caution.split()[:6]) in whole
    assert all(f"{tree_id} lay" in page for page in pages)
    count, heard = listening(shot, LayoutWanted(paper))
    assert count == len(pages)
    edge = QRectF(0, 0, PAPERS[paper].width, PAPERS[paper].height)
    assert all(edge.contains(box) for text, box in heard.written if text.strip())


def test_a_telephone_has_no_page_to_write_on_and_paper_has_one_unless_it_is_not_wanted() -> None:
    shot = judged_snapshot(demo_job(), "WH-24")
    for paper in PAPERS:
        without, _ = listening(shot, LayoutWanted(paper, with_stump_page=False))
        with_it, _ = listening(shot, LayoutWanted(paper))
        assert with_it - without == PAPERS[paper].written_on


def test_the_page_for_the_stump_asks_everything_beside_what_was_planned(tmp_path: Path) -> None:
    shot, path = judged_snapshot(demo_job(), "WH-07"), tmp_path / "card.pdf"
    write_card(shot, path, LayoutWanted("A4"))
    last = pages_of(path)[-1]
    rows = [row for part in stump_rows(shot.plan, shot.result, shot.speech).values() for row in part]
    assert [row.fields for row in rows] == [row for rows in PARTS.values() for row in rows]
    assert all(row.name in last for row in rows)
    planned = {row.fields[0]: row.planned for row in rows}
    assert planned["towards_deg"] == "214°" and planned["hinge_left_m"] == "4.5 cm" and planned["wedges"] == "4"
    assert planned["split"] == planned["sat_back"] == ""
    blows = shot.result.parts.wedging.blows
    assert planned["blows"] == f"~ {blows:.0f}"


def test_what_is_planned_without_end_or_without_a_measure_is_left_open() -> None:
    """Endless blows have no number, and a height that nobody measured promises no place for the top."""
    shot = judged_snapshot(demo_job(), "WH-07")
    wedging = replace(shot.result.parts.wedging, blows=math.inf)
    endless = replace(shot.result, parts=replace(shot.result.parts, wedging=wedging))
    bare = replace(shot.plan, tree=replace(shot.plan.tree, stand_ins=("height_m",)))
    planned = {r.fields[0]: r.planned for rows in stump_rows(bare, endless, Speech()).values() for r in rows}
    assert planned["blows"] == ""
    assert planned["top_deg"] == "214°"


def test_the_survey_sheet_has_a_block_for_each_tree_in_the_persons_own_words(tmp_path: Path) -> None:
    path = tmp_path / "sheet.pdf"
    for words, paper in (("hinge", "A4"), ("gob", "A5")):
        write_survey_sheet(5, Speech(words=words), path, paper)
        whole = " ".join(pages_of(path))
        assert whole.count("tree") >= 5 and whole.count("crown edge north".capitalize()) == 5
        for line in asked(Speech(words=words)):
            assert whole.lower().count(line.lower()) >= 5, line
        for question, answers in looked_at():
            assert whole.lower().count(question) >= 5 and answers[0] in whole
        assert "Trained people only" in whole


def test_the_tape_strip_fits_small_paper_too(tmp_path: Path) -> None:
    write_strip(judged_snapshot(demo_job(), "WH-07"), tmp_path / "strip.pdf", "A5")
    box = PdfReader(tmp_path / "strip.pdf").pages[0].mediabox
    assert (round(float(box.width)), round(float(box.height))) == (595, 420)


@pytest.mark.parametrize("paper", ["A4", "A5"])
def test_the_printer_is_given_the_same_pages_as_the_file(tmp_path: Path, paper: str) -> None:
    shot, wanted = judged_snapshot(demo_job(), "WH-24"), LayoutWanted(paper)
    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    set_up(printer, wanted, "WH-24")
    printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
    printer.setOutputFileName(str(tmp_path / "printed.pdf"))
    pages = paint_on_printer(printer, shot, wanted)
    write_card(shot, tmp_path / "card.pdf", wanted)
    assert pages_of(tmp_path / "printed.pdf") == pages_of(tmp_path / "card.pdf")
    assert len(pages_of(tmp_path / "printed.pdf")) == pages


def test_other_paper_in_the_printer_is_laid_out_anew_not_stretched(tmp_path: Path) -> None:
    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    set_up(printer, LayoutWanted("A5"), "card")
    printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
    printer.setOutputFileName(str(tmp_path / "printed.pdf"))
    shot = judged_snapshot(demo_job(), "WH-24")
    assert paint_on_printer(printer, shot, LayoutWanted("A4")) == listening(shot, LayoutWanted("A5"))[0]


def test_printing_opens_a_preview_of_every_page(window: Window) -> None:
    window.falls.finish()
    wanted = LayoutWanted("A4")
    dialog = print_preview(window, window.store.snapshot, wanted)
    dialog.show()
    QApplication.processEvents()
    preview = dialog.findChild(QPrintPreviewWidget)
    assert preview is not None
    assert preview.pageCount() == listening(window.store.snapshot, wanted)[0]
    dialog.close()


def test_paper_and_stump_page_are_chosen_on_the_page_and_it_fits_its_room(window: Window) -> None:
    window.commands.run("step.card")
    page = window.page
    assert isinstance(page, CardPage)
    page.papers.setCurrentText("Telephone")
    assert not page.stump_page.isEnabled()
    page.papers.setCurrentText("A4")
    page.stump_page.click()
    assert page.layout_wanted == LayoutWanted("A4", with_stump_page=False)
    window.resize(1100, 700)
    QApplication.processEvents()
    assert page.table.horizontalScrollBar().maximum() == 0
    window.commands.run("view.zoom_in")
    zoomed = page.preview.zoom
    window.resize(1120, 700)
    QApplication.processEvents()
    assert page.preview.zoom == zoomed, "a size chosen by hand stays"
    window.commands.run("view.fit")
    assert page.preview.zoom < zoomed


def test_a_blank_survey_sheet_is_asked_for_by_the_number_of_trees(
    window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "sheet.pdf"
    monkeypatch.setattr(CardActions, "ask_file", lambda *_: str(path))
    monkeypatch.setattr(CardActions, "ask_trees", lambda _: 0)
    window.commands.run("card.survey")
    assert not path.exists()
    monkeypatch.setattr(CardActions, "ask_trees", lambda _: 3)
    window.commands.run("card.survey")
    assert "Survey sheet written" in window.message.text()
    assert " ".join(pages_of(path)).count("Crown edge north") == 3
