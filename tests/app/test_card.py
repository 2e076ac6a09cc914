"""The card: one page that says everything, true to its stated scale, in both paper sizes."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pypdf import PdfReader
from PySide6.QtGui import QImage, QPainter
from pytestqt.qtbot import QtBot

from plain_compass.app.frame.band import strip_of
from plain_compass.app.frame.store import Snapshot
from plain_compass.app.frame.window import Window
from plain_compass.app.main import application
from plain_compass.app.steps.card.actions import CardActions
from plain_compass.app.steps.card.drawings import PX_PER_M, SCALES, drawing_scale
from plain_compass.app.steps.card.page import CardPage
from plain_compass.app.steps.card.painter import paint_card
from plain_compass.app.steps.card.paper import PAPERS, LayoutWanted
from plain_compass.app.steps.card.pdf import write_card
from plain_compass.app.steps.card.tape_strip import label_boxes, places_of, write_strip
from plain_compass.core.mechanics.tape import bark_tape
from plain_compass.core.site.site import Place, Site
from plain_compass.job.demo import demo_job
from plain_compass.job.disk import JobFileError
from plain_compass.job.document import Job, assess_tree, with_plan
from plain_compass.job.edits import set_value
from plain_compass.job.fall import with_its_fall
from plain_compass.job.words import Speech, glossary

CARD = LayoutWanted(with_stump_page=False)


def snapshot(job: Job | None = None) -> Snapshot:
    job = job or demo_job()
    return Snapshot(job, job.trees[0], assess_tree(job, job.trees[0].id))


def text_of(path: Path) -> str:
    return " ".join(" ".join(page.extract_text() for page in PdfReader(path).pages).split())


@pytest.fixture(autouse=True)
def fonts(qtbot: QtBot) -> None:
    application()


def test_the_card_says_everything(tmp_path: Path) -> None:
    path = tmp_path / "card.pdf"
    write_card(snapshot(), path, CARD)
    text = text_of(path)
    lift = Speech().show(snapshot().result.parts.wedging.lift_m, "fine_length")
    for words in (
        "WH-07", "lay 214°", "hornbeam", "Withy Holm", "12 cm", "4.5 cm", "5 cm", "50°", "20°", "3 cm", "35 cm",
        "Order of the cuts", "Face roof", "Back cut 3 cm above the apex", "Wedges", "25° L of the back", f"lift {lift}",
        "Tape round the bark from the lay mark", "face corners", "hinge backs", "28 cm", "Findings, worst first",
        "behind the hinge", "Everyone else at least 35 m away", "true to scale 1 :", 
        "To do on site", "Clear two ways out", "How it is made",
    ):  # fmt: skip
        assert words in text, words
    for caution in glossary()["cautions"]:
        assert " ".join(caution.split()[:6]) in text
    assert "safe" not in text.lower()


@pytest.mark.parametrize(("paper", "points"), [("A4", (595, 842)), ("Letter", (612, 792))])
def test_both_papers_have_their_size(tmp_path: Path, paper: str, points: tuple[int, int]) -> None:
    path = tmp_path / "card.pdf"
    write_card(snapshot(), path, LayoutWanted(paper))
    box = PdfReader(path).pages[0].mediabox
    assert (round(float(box.width)), round(float(box.height))) == pytest.approx(points, abs=1)
    assert "Order of the cuts" in text_of(path)


def test_the_card_follows_units_and_vocabulary(tmp_path: Path) -> None:
    job = replace(demo_job(), units="imperial", words="gob")
    path = tmp_path / "card.pdf"
    write_card(snapshot(job), path, CARD)
    text = text_of(path)
    assert "Gob roof" in text
    assert "4 3/4 in" in text
    assert " cm" not in text


def test_a_bored_cut_brings_its_own_order_and_marks(tmp_path: Path) -> None:
    job = set_value(demo_job(), "WH-07", "cut.back.form", "bored")
    path = tmp_path / "card.pdf"
    write_card(snapshot(job), path, CARD)
    text = text_of(path)
    assert "Bore 3 cm above the apex" in text
    assert "strap edges" in text


def test_the_drawings_are_true_to_the_stated_scale() -> None:
    """Count the painted wood of the hinge, where it is widest, against its real width there, less its outline."""
    even = set_value(set_value(demo_job(), "WH-07", "cut.hinge.left_m", 0.06), "WH-07", "cut.hinge.right_m", 0.06)
    shot = snapshot(even)
    n = drawing_scale(shot, PAPERS["A4"], PAPERS["A4"].drawings_px)
    image = QImage(round(PAPERS["A4"].width) * 2, round(PAPERS["A4"].height) * 2, QImage.Format.Format_RGB32)
    image.fill(0xFFFFFFFF)
    painter = QPainter(image)
    painter.scale(2.0, 2.0)
    # What goes on overleaf is not painted over the first page.
    paint_card(painter, shot, CARD, "1 January 2026", lambda: painter.setOpacity(0.0))
    painter.end()
    heart = 0xFFCFA871
    rows = [[x for x in range(image.width() // 2) if image.pixel(x, y) == heart] for y in range(200, 900)]
    widest = max((row for row in rows if row), key=lambda row: row[-1] - row[0])
    inches = (widest[-1] - widest[0]) / 2 / 96
    seen_m = inches * 0.0254 * n
    hinge = shot.shapes.butt.hinge
    assert seen_m == pytest.approx(hinge[:, 1].max() - hinge[:, 1].min(), rel=0.035)


@pytest.mark.parametrize("diameter", [0.08, 0.3, 1.2, 2.5])
def test_every_stem_gets_a_stated_scale_that_fits(diameter: float) -> None:
    solid = set_value(demo_job(), "WH-07", "tree.decay.kind", "none")
    job = set_value(solid, "WH-07", "tree.trunk.butt_diameter_m", diameter)
    for paper in PAPERS.values():
        n = drawing_scale(snapshot(job), paper, paper.drawings_px or 0.6 * paper.height)
        assert n in SCALES
        assert diameter / n * PX_PER_M < paper.inner


def test_nothing_vanishes_from_a_card_that_is_too_full_for_one_page(tmp_path: Path) -> None:
    """Every word of the notes and every finding is on it, in order, and each page has the cautions and the verdict."""
    notes = " ".join(f"word{number}" for number in range(1500)) + "\nthe last line"
    shot = snapshot(with_plan(demo_job(), "WH-07", "notes", notes))
    write_card(shot, tmp_path / "card.pdf", CARD)
    pages = [" ".join(page.extract_text().split()) for page in PdfReader(tmp_path / "card.pdf").pages]
    whole = " ".join(pages)
    assert len(pages) >= 3
    assert all("A plan is arithmetic" in page and "WH-07 lay 214°" in page for page in pages)
    assert all("goes on overleaf" in page for page in pages[:-1]) and "goes on overleaf" not in pages[-1]
    found = [word for word in whole.split() if word.startswith("word")]
    assert found == [f"word{number}" for number in range(1500)]
    assert "the last line" in whole
    for finding in shot.result.findings:
        sentence = shot.speech.phrase(finding.sentence).replace("\u00a0", " ")
        assert " ".join(sentence.split()) in whole.replace("\u00a0", " ")


@given(st.lists(st.tuples(st.floats(0, 940), st.floats(10, 200)), max_size=12).map(sorted))
def test_words_on_the_tape_strip_never_cover_one_another_or_leave_it(marks: list[tuple[float, float]]) -> None:
    boxes = label_boxes([at for at, _ in marks], 945.0, [wide for _, wide in marks])
    for number, box in enumerate(boxes):
        assert box.left() >= 0 and box.right() <= 945.0 + 1e-6
        assert not any(box.intersects(other) for other in boxes[:number])


def test_landing_is_not_clear_where_it_is_not_judged() -> None:
    job = replace(demo_job(), site=Site())
    plan = replace(job.trees[0], at=Place())
    alone = replace(job, trees=(plan,))
    result = with_its_fall(plan, assess_tree(alone, plan.id))
    assert any(f.id == "landing.not_judged" for f in result.findings)
    assert strip_of(result.findings, "landing").level == "unknown"


def test_a_card_that_cannot_be_written_is_a_sentence_and_the_old_one_stays(tmp_path: Path) -> None:
    with pytest.raises(JobFileError, match="could not be written"):
        write_card(snapshot(), tmp_path / "none" / "card.pdf", CARD)
    with pytest.raises(JobFileError, match="folder"):
        write_card(snapshot(), tmp_path, CARD)
    assert list(tmp_path.iterdir()) == []


def test_the_card_step_shows_the_page_and_writes_it(
    window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    window.commands.run("step.card")
    page = window.pages["card"]
    assert isinstance(page, CardPage)
    page.papers.setCurrentText("Letter")
    assert page.layout_wanted == LayoutWanted("Letter")
    path = tmp_path / "out.pdf"
    monkeypatch.setattr(CardActions, "ask_file", lambda *_: str(path))
    window.commands.run("card.pdf")
    assert "Card written" in window.message.text()
    assert round(float(PdfReader(path).pages[0].mediabox.width)) == 612
    monkeypatch.setattr(CardActions, "ask_file", lambda *_: "/proc/none/card.pdf")
    window.commands.run("card.pdf")
    assert "could not be written" in window.message.text()
    (picture,) = page.pictures()
    assert picture.size.width() == round(PAPERS["Letter"].width)
    window.commands.run("copy.picture")


@pytest.mark.parametrize("tree_id", ["WH-07", "WH-21"])
def test_the_tape_strip_is_true_to_scale_and_names_every_mark(window: Window, tmp_path: Path, tree_id: str) -> None:
    window.store.look_at(tree_id)
    shown = window.store.snapshot
    write_strip(shown, tmp_path / "strip.pdf")
    reader = PdfReader(tmp_path / "strip.pdf")
    text = " ".join(page.extract_text() for page in reader.pages)
    assert float(reader.pages[0].mediabox.width) == pytest.approx(297 / 25.4 * 72, abs=1)
    girth_mm = bark_tape(shown.result.parts.section).girth_m * 1000
    places = places_of(shown)
    assert all(0 <= place.at_mm < girth_mm for place in places)
    for place in places:
        assert place.words.split()[0] in text
    lay, *_ = places
    assert lay.at_mm == 0.0
    corners = sorted(place.at_mm for place in places if "corners" in place.words)
    mark = next(mark for mark in shown.result.tape_marks if mark.key == "face_corner")
    assert corners == pytest.approx([mark.left_m * 1000, girth_mm - mark.right_m * 1000])
